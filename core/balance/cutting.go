package balance

import (
	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/core/topping"
)

// cutting is how topping, shell and bars are cut, drawn on the dish.
func (p *plan) cutting(a *Answer) []topping.Plan {
	c := p.req.cuts()
	out := []topping.Plan{}
	if x, ok := c.Cut(p.wanted, p.top, p.req.Dish, p.geo); ok {
		out = append(out, x)
	}
	if p.base.UpTheSides {
		out = append(out, c.Shell(p.under, p.base.DensityGPerML, p.req.Dish, p.geo))
	}
	if p.style.CutInPan {
		out = append(out, c.Bars(a.Portions.FinishedG, a.Portions.EachG, p.req.Dish))
	}
	return out
}

// cuts are the sizes asked for; zero is the usual.
func (r *Request) cuts() topping.Cuts {
	if r.Cuts == nil {
		return topping.Cuts{}
	}
	return *r.Cuts
}

func (d *dessert) resolveCuts(f *fault.Faults) {
	c := d.req.Cuts
	if c == nil {
		return
	}
	for _, x := range []struct {
		at     string
		v      float64
		lo, hi float64
		unit   string
	}{
		{"cutter_cm", c.CutterCM, 1, 60, "cm"},
		{"spoon_g", c.SpoonG, 5, 500, "g"},
		{"square_cm", c.SquareCM, 1, 40, "cm"},
		{"strip_cm", c.StripCM, 0.3, 10, "cm"},
		{"gap_cm", c.GapCM, 0.1, 20, "cm"},
		{"long", c.Long, 1, 60, "pieces"},
		{"wide", c.Wide, 1, 60, "pieces"},
		{"trim_cm", c.TrimCM, 0, 5, "cm"},
		{"cut_outs", c.CutOuts, 1, 60, "pieces"},
	} {
		if x.v != 0 {
			f.Range("/cuts/"+x.at, x.v, x.lo, x.hi, x.unit)
		}
	}
	if short := min(
		d.req.Dish.LengthCM,
		or(d.req.Dish.WidthCM, d.req.Dish.LengthCM),
	); c.TrimCM > 0 &&
		2*c.TrimCM > 0.8*short {
		f.Add(
			"/cuts/trim_cm",
			message.New(
				"is {trim} at each edge, which leaves nothing of a dish {wide} wide",
				message.Centimetres(c.TrimCM),
				message.Centimetres(short),
			),
		)
	}
}

func or(x, usual float64) float64 {
	if x > 0 {
		return x
	}
	return usual
}
