package formats

import (
	"strings"

	"mabbin/core/say"
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
			in = append(in, s.Read.Weight(l.G)+" "+strings.ToLower(s.Read.Name(l.Name)))
		}
		left += s.line(margin, left, "bold", 9, s.Read.Text(b.Title))
		left += s.para(margin, left, col, "plain", 10, strings.Join(in, ", ")) + 3*s.k
	}
	right := y
	x := margin + col + gutter
	const high = 64.0
	s.cutaway(x, right, col, high*s.k, s.Answer.Cutaway)
	right += (high + 8) * s.k
	for _, says := range s.stands() {
		right += s.para(x, right, col, "plain", 10, s.Read.Text(says)) + 1*s.k
	}
	y = max(left, right) + 4*s.k
	y += s.heading(margin, y, full, "Method")
	y = s.method(margin, y, full)
	if s.Card.Note != "" {
		y += s.para(margin, y, full, "plain", 10, s.Card.Note) + 3*s.k
	}
	return s.allergens(y + 2*s.k)
}

// stands is how the dessert stands: at the table, under its topping, in its dish.
func (s *pressed) stands() []say.Line {
	a := s.Answer
	return []say.Line{
		say.F("At the table: {band}, {juice} juice in 100.", say.L(say.Line(a.Set.Band)), say.N(a.JuiceSharePct, 1)),
		say.F("Topping {topping} on {fruit} of fruit.", say.MM(a.Topping.ThicknessMM), say.MM(a.Topping.FruitDepthMM)),
		say.F("{rim} of rim stay free when it boils.", say.MM(max(0, a.Fit.HotHeadspaceMM))),
		say.F("A portion weighs {much}.", say.G(a.Portions.EachG)),
	}
}
