package formats

import (
	"strings"

	"mabbin/core/message"
)

// cardSheet is the dessert for the card box: what goes in, a line a bowl, how it stands, and how it is made.
func (s *pressed) cardSheet() float64 {
	y := s.title(s.about()...)
	full := s.w - 2*margin
	col := (full - gutter) / 2
	left := y
	for _, b := range s.Answer.Ticket {
		var in []string
		for _, l := range b.Lines {
			in = append(in, s.Read.Weight(l.G)+" "+strings.ToLower(s.Read.Label(string(l.Name))))
		}
		left += s.line(margin, left, "bold", 9, s.Read.Text(b.Title))
		left += s.para(margin, left, col, "plain", 10, strings.Join(in, ", ")) + 3*s.k
	}
	right := y
	x := margin + col + gutter
	right += s.stands(x, right, col)
	y = max(left, right) + 4*s.k
	y += s.heading(margin, y, full, message.New("Method"))
	y = s.method(margin, y, full)
	if s.Card.Note != "" {
		y += s.para(margin, y, full, "plain", 10, s.Card.Note) + 3*s.k
	}
	return s.allergens(y + 2*s.k)
}

// overleaf is how the recipe that came in had it, on pages of its own.
func (s *pressed) overleaf() {
	o := s.Card.Original
	if o == nil || s.Sheet == CuttingSheet {
		return
	}
	s.k = 1
	full := s.w - 2*margin
	s.pdf.AddPage()
	y := margin + s.heading(margin, margin, full, message.New("Original recipe"))
	for _, text := range append([]string{o.Serves}, o.Method...) {
		s.dry = true // measured first: a step stays on one page where it can
		high := s.para(margin, y, full, "plain", 10, text)
		s.dry = false
		if y+high > s.h-margin && y > margin {
			s.pdf.AddPage()
			y = margin
		}
		y += s.para(margin, y, full, "plain", 10, text) + 3
	}
}

// stands is how the dessert stands: at the table, under its topping, in its dish. It returns how high that is.
func (s *pressed) stands(x, y, w float64) float64 {
	a, high := s.Answer, 0.0
	for _, text := range []message.Message{
		message.New(
			"When cold: {band}, {juice} % juice.",
			message.Word(string(a.Set.Band)),
			message.Number(a.JuiceSharePct, 1),
		),
		message.New(
			"Topping {topping} on {fruit} of fruit.",
			message.Millimetres(a.Topping.ThicknessMM),
			message.Millimetres(a.Topping.FruitDepthMM),
		),
		message.New("{rim} stay free below the rim when it boils.", message.Millimetres(max(0, a.Fit.HotHeadspaceMM))),
		message.New("A portion weighs {much}.", message.Grams(a.Portions.EachG)),
	} {
		high += s.para(x, y+high, w, "plain", 10, s.Read.Text(text)) + 2*s.k
	}
	return high
}
