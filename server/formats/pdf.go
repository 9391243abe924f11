package formats

import (
	"bytes"
	"fmt"
	"strings"

	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/recipe"
	"mabbin/server/render"

	"github.com/signintech/gopdf"
	"golang.org/x/image/font/gofont/gobold"
	"golang.org/x/image/font/gofont/goregular"
)

// Paper is a size of paper.
type Paper string

// The papers that are printed on.
const (
	A4     Paper = "a4"
	Letter Paper = "letter"
)

// PaperOf is the paper that lies where somebody reads so.
func PaperOf(r render.Reading) Paper {
	if r.Lengths == "in" {
		return Letter
	}
	return A4
}

var papers = map[Paper]*gopdf.Rect{A4: gopdf.PageSizeA4, Letter: gopdf.PageSizeLetter}

// Sheet is what is printed of a dessert, on one page.
type Sheet string

// The sheets: what to weigh, with the method; the card, on half the paper; and how topping, shell and bars are cut.
const (
	TicketSheet  Sheet = "ticket"
	CardSheet    Sheet = "card"
	CuttingSheet Sheet = "cutting"
)

// half is of the sheets that are printed on half the paper, across.
var half = map[Sheet]bool{CardSheet: true}

// Print is a sheet to be printed: of a dessert and its answer, on a paper, as a kitchen reads.
type Print struct {
	Card   recipe.Card
	Answer *balance.Answer
	Sheet  Sheet
	Paper  Paper
	Read   render.Reading
}

// layouts put each sheet out, and return where it ends.
var layouts = map[Sheet]func(*pressed) float64{
	TicketSheet:  (*pressed).ticketSheet,
	CardSheet:    (*pressed).cardSheet,
	CuttingSheet: (*pressed).cuttingSheet,
}

// The page, in points. All of it is made smaller, step by step, until it is on one page.
const (
	margin   = 38.0
	gutter   = 22.0
	smallest = 0.55
	stepTo   = 0.05
	leading  = 1.28
	figureOf = 0.26 // of the column, for the grams
)

// PDF writes the sheet as one page, and overleaf how a recipe that came in had it.
func (p Print) PDF() ([]byte, error) {
	s, err := p.press()
	if err != nil {
		return nil, err
	}
	layouts[p.Sheet](s)
	s.overleaf()
	if s.err != nil {
		return nil, s.err
	}
	var out bytes.Buffer
	_, err = s.pdf.WriteTo(&out)
	return out.Bytes(), err
}

// press makes an empty page of the right paper, and finds the size at which everything is on it.
func (p Print) press() (*pressed, error) {
	size, ok := papers[p.Paper]
	if !ok {
		return nil, fmt.Errorf("there is no paper %q", p.Paper)
	}
	layout, ok := layouts[p.Sheet]
	if !ok {
		return nil, fmt.Errorf("there is no sheet %q", p.Sheet)
	}
	if half[p.Sheet] {
		size = &gopdf.Rect{W: size.W, H: size.H / 2}
	}
	pdf := new(gopdf.GoPdf)
	pdf.Start(gopdf.Config{PageSize: *size})
	for name, ttf := range map[string][]byte{"plain": goregular.TTF, "bold": gobold.TTF} {
		if err := pdf.AddTTFFontData(name, ttf); err != nil {
			return nil, err
		}
	}
	pdf.SetInfo(gopdf.PdfInfo{Title: p.Card.Name, Creator: "Mabbin"})
	pdf.AddPage()
	s := &pressed{Print: p, pdf: pdf, w: size.W, h: size.H, dry: true}
	for s.k = 1; s.k > smallest && layout(s) > size.H-margin; s.k -= stepTo {
	}
	s.dry = false
	return s, s.err
}

// pressed is a page under way. Dry, nothing is drawn, and only measured.
type pressed struct {
	Print
	pdf  *gopdf.GoPdf
	k    float64
	w, h float64
	dry  bool
	err  error
}

func (s *pressed) font(name string, size float64) {
	if s.err == nil {
		s.err = s.pdf.SetFont(name, "", size*s.k)
	}
}

// line writes one line at a place, and returns how high it is.
func (s *pressed) line(x, y float64, font string, size float64, text string) float64 {
	s.font(font, size)
	if !s.dry && s.err == nil {
		s.pdf.SetTextColor(20, 28, 60)
		s.pdf.SetXY(x, y)
		s.err = s.pdf.Cell(nil, text)
	}
	return size * s.k * leading
}

// right writes a line that ends at x.
func (s *pressed) right(x, y float64, font string, size float64, text string) {
	s.font(font, size)
	w, err := s.pdf.MeasureTextWidth(text)
	if err != nil && s.err == nil {
		s.err = err
	}
	s.line(x-w, y, font, size, text)
}

// para writes text in lines of a width, and returns how high it is.
func (s *pressed) para(x, y, w float64, font string, size float64, text string) float64 {
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

func (s *pressed) rule(x, y, w, thick float64) {
	if s.dry {
		return
	}
	s.pdf.SetLineWidth(thick)
	s.pdf.SetStrokeColor(27, 58, 140)
	s.pdf.Line(x, y, x+w, y)
}

// heading writes a heading over a rule, and returns how high both are.
func (s *pressed) heading(x, y, w float64, text message.Message) float64 {
	h := s.line(x, y, "bold", 12, s.Read.Text(text))
	s.rule(x, y+h, w, 0.8)
	return h + 5*s.k
}

// title writes the name of the dessert and a line about it over a rule, and returns where what follows begins.
func (s *pressed) title(about ...message.Message) float64 {
	full := s.w - 2*margin
	y := margin + s.para(margin, margin, full, "bold", 22, s.Card.Name)
	y += s.para(margin, y, full, "plain", 11, s.Read.Text(message.Join(" · ", about...))) + 4
	s.rule(margin, y, full, 2)
	return y + 10
}

// about is the dessert in a few words, for its title.
func (s *pressed) about() []message.Message {
	r := s.Card.Request
	out := []message.Message{
		message.New(r.Style),
		r.Dish.Sizes(),
		message.New("{n} portions", message.Number(s.Answer.Portions.Count, 0)),
	}
	if s.Card.OvenC > 0 && s.Card.Minutes > 0 {
		out = append(
			out,
			message.New("{heat}, {minutes} min", message.OvenHeat(s.Card.OvenC), message.Number(s.Card.Minutes, 0)),
		)
	}
	return out
}

// allergens says over a rule what is known to be in it, and returns where that ends.
func (s *pressed) allergens(y float64) float64 {
	a, full := s.Answer.Allergens, s.w-2*margin
	s.rule(margin, y, full, 0.8)
	contains := message.New("Contains: none of the listed allergens.")
	if len(a.Contains) > 0 {
		contains = message.New("Contains: {allergens}.", allergens(a.Contains))
	}
	label := message.Message{}
	if len(a.CheckLabel) > 0 {
		label = message.New("Check the label: {ingredients}.", named(a.CheckLabel))
	}
	return y + 6 + s.para(
		margin,
		y+6,
		full,
		"plain",
		9,
		s.Read.Text(message.Sentences(contains, label, message.New("A list is no promise about cross-contact."))),
	)
}

// allergens is what is said to be in it.
func allergens(keys []string) message.Arg {
	names := make([]string, len(keys))
	for i, k := range keys {
		names[i] = string(larder.AllergenName(k))
	}
	return named(names)
}

// named is names of the tables, with commas between them.
func named(names []string) message.Arg {
	out := make([]message.Message, len(names))
	for i, n := range names {
		out[i] = message.Value(message.Name(n))
	}
	return message.Part(message.Join(", ", out...))
}
