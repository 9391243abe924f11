package formats

import (
	"bytes"
	"fmt"
	"strconv"
	"strings"

	"github.com/signintech/gopdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"

	"mabbin/core/balance"
)

// Paper is a size of paper.
type Paper string

// The papers that a ticket is printed on.
const (
	A4     Paper = "a4"
	Letter Paper = "letter"
)

var papers = map[Paper]*gopdf.Rect{A4: gopdf.PageSizeA4, Letter: gopdf.PageSizeLetter}

// The page, in points. All of it is made smaller, step by step, until it is on one page.
const (
	margin    = 38.0
	gutter    = 22.0
	smallest  = 0.55
	stepTo    = 0.05
	leading   = 1.28
	figureOf  = 0.26 // of the column, for the grams
	cutHeight = 96.0
)

// WritePDF writes a dessert's ticket with its method and its cutaway on one page.
func WritePDF(c Card, a *balance.Answer, paper Paper) ([]byte, error) {
	size, ok := papers[paper]
	if !ok {
		return nil, fmt.Errorf("there is no paper %q", paper)
	}
	pdf := new(gopdf.GoPdf)
	pdf.Start(gopdf.Config{PageSize: *size})
	for name, ttf := range map[string][]byte{"plain": goregular.TTF, "bold": gobold.TTF} {
		if err := pdf.AddTTFFontData(name, ttf); err != nil {
			return nil, err
		}
	}
	pdf.SetInfo(gopdf.PdfInfo{Title: c.Name, Creator: "Mabbin"})
	pdf.AddPage()
	s := sheet{pdf: pdf, k: 1, w: size.W, h: size.H}
	for s.k = 1; s.k > smallest; s.k -= stepTo {
		if s.dry = true; s.page(c, a) <= size.H-margin {
			break
		}
	}
	s.dry = false
	s.page(c, a)
	if s.err != nil {
		return nil, s.err
	}
	var out bytes.Buffer
	_, err := pdf.WriteTo(&out)
	return out.Bytes(), err
}

// sheet is a page under way. Dry, nothing is drawn, and only measured.
type sheet struct {
	pdf  *gopdf.GoPdf
	k    float64
	w, h float64
	dry  bool
	err  error
}

func (s *sheet) font(name string, size float64) {
	if s.err == nil {
		s.err = s.pdf.SetFont(name, "", size*s.k)
	}
}

// line writes one line at a place, and returns how high it is.
func (s *sheet) line(x, y float64, font string, size float64, text string) float64 {
	s.font(font, size)
	if !s.dry && s.err == nil {
		s.pdf.SetTextColor(20, 28, 60)
		s.pdf.SetXY(x, y)
		s.err = s.pdf.Cell(nil, text)
	}
	return size * s.k * leading
}

// right writes a line that ends at x.
func (s *sheet) right(x, y float64, font string, size float64, text string) {
	s.font(font, size)
	w, err := s.pdf.MeasureTextWidth(text)
	if err != nil && s.err == nil {
		s.err = err
	}
	s.line(x-w, y, font, size, text)
}

// para writes text in lines of a width, and returns how high it is.
func (s *sheet) para(x, y, w float64, font string, size float64, text string) float64 {
	s.font(font, size)
	if s.err != nil || text == "" {
		return 0
	}
	lines, err := s.pdf.SplitTextWithWordWrap(text, w)
	if err != nil {
		s.err = err
		return 0
	}
	h := 0.0
	for _, l := range lines {
		h += s.line(x, y+h, font, size, strings.TrimSpace(l))
	}
	return h
}

func (s *sheet) rule(x, y, w, thick float64) {
	if s.dry {
		return
	}
	s.pdf.SetLineWidth(thick)
	s.pdf.SetStrokeColor(27, 58, 140)
	s.pdf.Line(x, y, x+w, y)
}

// heading writes a heading over a rule, and returns how high both are.
func (s *sheet) heading(x, y, w float64, text string) float64 {
	h := s.line(x, y, "bold", 12, text)
	s.rule(x, y+h, w, 0.8)
	return h + 5*s.k
}

// page lays everything out, and returns where it ends.
func (s *sheet) page(c Card, a *balance.Answer) float64 {
	full := s.w - 2*margin
	col := (full - gutter) / 2
	y := margin
	y += s.para(margin, y, full, "bold", 22, c.Name)
	about := fmt.Sprintf("%s · %s · %.0f portions", c.Request.Style, c.Request.Dish.Words(), a.Portions.Count)
	if c.OvenC > 0 && c.Minutes > 0 {
		about += fmt.Sprintf(" · %.0f C, %.0f min", c.OvenC, c.Minutes)
	}
	y += s.para(margin, y, full, "plain", 11, about) + 4
	s.rule(margin, y, full, 2)
	y += 10
	left := s.ticket(margin, y, col, a)
	right := s.work(margin+col+gutter, y, col, a)
	y = max(left, right) + 6
	s.rule(margin, y, full, 0.8)
	y += 6
	contains := strings.Join(a.Allergens.Contains, ", ")
	if contains == "" {
		contains = "none of the listed allergens"
	}
	says := "Contains: " + contains + "."
	if len(a.Allergens.CheckLabel) > 0 {
		says += " Check the label: " + strings.Join(a.Allergens.CheckLabel, ", ") + "."
	}
	return y + s.para(margin, y, full, "plain", 9, says+" A list is no promise about cross-contact.")
}

// ticket is what to weigh, bowl by bowl.
func (s *sheet) ticket(x, y, w float64, a *balance.Answer) float64 {
	for _, b := range a.Ticket {
		y += s.heading(x, y, w, b.Title)
		for _, l := range b.Lines {
			s.right(x+figureOf*w, y, "bold", 14, l.Shown+" g")
			at := x + figureOf*w + 8
			h := s.para(at, y+1.5*s.k, w-figureOf*w-8, "plain", 11, l.Name)
			if more := strings.Trim(l.Spoons+"; "+l.Note, "; "); more != "" {
				h += s.para(at, y+h+1.5*s.k, w-figureOf*w-8, "plain", 8.5, more)
			}
			y += max(h, 14*s.k*leading) + 2*s.k
		}
		y += 6 * s.k
	}
	return y
}

// work is the cutaway, the method, and what is looked at before the door closes.
func (s *sheet) work(x, y, w float64, a *balance.Answer) float64 {
	s.cutaway(x, y, w, cutHeight*s.k, a.Cutaway)
	y += cutHeight*s.k + 10*s.k
	y += s.heading(x, y, w, "Method")
	for i, m := range a.Method {
		s.line(x, y, "bold", 10, strconv.Itoa(i+1))
		y += s.para(x+16*s.k, y, w-16*s.k, "plain", 10, m.Text) + 3*s.k
	}
	y += 6 * s.k
	y += s.heading(x, y, w, "Before the oven door closes")
	for _, c := range a.Checks {
		if !s.dry {
			s.pdf.SetLineWidth(0.8)
			s.pdf.SetStrokeColor(20, 28, 60)
			s.pdf.RectFromUpperLeft(x, y+1*s.k, 9*s.k, 9*s.k)
		}
		y += s.para(x+16*s.k, y, w-16*s.k, "plain", 10, c.Text) + 3*s.k
	}
	return y
}

// cutaway draws the dish cut open: wall, fruit in its juice, topping, and the line that it boils to.
func (s *sheet) cutaway(x, y, w, h float64, c balance.Cutaway) {
	if s.dry {
		return
	}
	high := max(c.DepthMM, c.ToppingMM, c.HotMM) * 1.05
	k := min(w*0.94/c.RimLengthMM, h/high)
	mid, foot := x+w/2, y+h
	half := func(mm float64) float64 {
		floor := c.FloorLengthMM
		if floor == 0 {
			floor = c.RimLengthMM
		}
		return k * (floor + (c.RimLengthMM-floor)*min(1.3, mm/c.DepthMM)) / 2
	}
	layer := func(from, to float64, r, g, b uint8) {
		if to <= from {
			return
		}
		s.pdf.SetFillColor(r, g, b)
		s.pdf.Polygon([]gopdf.Point{
			{X: mid - half(from), Y: foot - k*from},
			{X: mid + half(from), Y: foot - k*from},
			{X: mid + half(to), Y: foot - k*to},
			{X: mid - half(to), Y: foot - k*to},
		}, "F")
	}
	r, g, b := ColourOf(c.JuiceColour)
	layer(0, c.LowerMM, 214, 164, 92)
	layer(c.LowerMM, c.FruitMM, r/2+122, g/2+122, b/2+122)
	layer(c.LowerMM, min(c.JuiceMM, c.FruitMM), r, g, b)
	layer(c.FruitMM, c.ToppingMM, 206, 152, 62)
	s.pdf.SetStrokeColor(27, 58, 140)
	s.pdf.SetLineWidth(2)
	for _, side := range []float64{-1, 1} {
		s.pdf.Line(mid+side*half(0), foot, mid+side*half(c.DepthMM), foot-k*c.DepthMM)
	}
	s.pdf.Line(mid-half(0), foot, mid+half(0), foot)
	s.pdf.SetStrokeColor(140, 82, 0)
	s.pdf.SetLineWidth(0.8)
	s.pdf.SetLineType("dashed")
	s.pdf.Line(mid-half(c.HotMM), foot-k*c.HotMM, mid+half(c.HotMM), foot-k*c.HotMM)
	s.pdf.SetLineType("solid")
}

// ColourOf reads a colour as #RRGGBB.
func ColourOf(s string) (r, g, b uint8) {
	n, err := strconv.ParseUint(strings.TrimPrefix(s, "#"), 16, 32)
	if err != nil {
		return 160, 60, 80
	}
	return uint8(n >> 16), uint8(n >> 8), uint8(n)
}
