package formats

import (
	"math"

	"mabbin/core/dish"
	"mabbin/core/topping"

	"github.com/signintech/gopdf"
)

const (
	ptCM    = 72 / 2.54
	corners = 72   // of what is drawn for a round
	planned = 0.36 // of the page's height, at most, for one plan
	scaleCM = 5.0
)

// cuttingSheet is every plan of the dessert, drawn on the dish from above, as large as the page allows and no larger
// than life.
func (s *pressed) cuttingSheet() float64 {
	y := s.title(s.about()...)
	full := s.w - 2*margin
	if len(s.Answer.Cutting) == 0 {
		return y + s.para(margin, y, full, "plain", 12, "Nothing is cut: the topping is sprinkled on.")
	}
	for _, p := range s.Answer.Cutting {
		y += s.heading(margin, y, full, p.Title)
		y = s.plan(y+4*s.k, p, s.Card.Request.Dish)
		for _, l := range p.Lines {
			y += s.para(margin, y, full, "plain", 12, s.Read.Text(l)) + 2*s.k
		}
		y += 10 * s.k
	}
	return y
}

// plan draws one plan with a bar of 5 cm under it, and returns where that ends.
func (s *pressed) plan(y float64, p topping.Plan, d dish.Dish) float64 {
	l, w := d.LengthCM, d.WidthCM
	if w == 0 {
		w = l
	}
	round := d.Shape == dish.Round || d.Shape == dish.Oval
	wide, high := l, w
	for _, o := range p.Shapes {
		wide = max(wide, 2*math.Abs(o.X)+o.W)
		high = max(high, 2*math.Abs(o.Y)+o.H)
	}
	k := min(ptCM, (s.w-2*margin)/wide, planned*s.h*s.k/high)
	midX, midY := s.w/2, y+k*high/2
	s.pdf.SetLineWidth(1.6)
	s.pdf.SetStrokeColor(27, 58, 140)
	s.outline(midX, midY, k, topping.Outline{Round: round, W: l, H: w}, "D")
	s.pdf.SetLineWidth(0.7)
	s.pdf.SetStrokeColor(120, 74, 20)
	s.pdf.SetFillColor(246, 226, 186)
	style := "FD"
	if p.Code == "shell" { // seen through, to the rim that it hangs over
		style = "D"
	}
	for _, o := range p.Shapes {
		s.outline(midX, midY, k, o, style)
	}
	y += k*high + 10*s.k
	bar := k * scaleCM
	s.rule(s.w-margin-bar, y, bar, 2)
	s.right(s.w-margin, y+3*s.k, "plain", 9, s.Read.CM(scaleCM))
	return y + 15*s.k
}

// outline draws a shape of a plan, whose middle is at x, y.
func (s *pressed) outline(x, y, k float64, o topping.Outline, style string) {
	if s.dry {
		return
	}
	x, y = x+k*o.X, y+k*o.Y
	a, b := k*o.W/2, k*o.H/2
	points := []gopdf.Point{{X: x - a, Y: y - b}, {X: x + a, Y: y - b}, {X: x + a, Y: y + b}, {X: x - a, Y: y + b}}
	if o.Round {
		points = points[:0]
		for i := range corners {
			at := 2 * math.Pi * float64(i) / corners
			points = append(points, gopdf.Point{X: x + a*math.Cos(at), Y: y + b*math.Sin(at)})
		}
	}
	s.pdf.Polygon(points, style)
}
