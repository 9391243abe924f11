package topping

import (
	"math"

	"mabbin/core/dish"
	"mabbin/core/message"
)

func (c Cuts) lattice(w Spec, s Sized, d dish.Dish) Plan {
	strip, gap := or(c.StripCM, usualStripCM), or(c.GapCM, usualGapCM)
	p := Plan{Code: CutLattice, Title: message.New("Lattice"), Shapes: []Outline{}}
	m := rimOf(d)
	if min(m.l, m.w) < 3*(strip+gap) {
		p.Lines = append(
			p.Lines,
			message.New(
				"With these strips a lattice needs a dish of at least {across}: use narrower strips, or a lid with vents.",
				cm(3*(strip+gap)),
			),
		)
	}
	length := 0.0
	lay := func(across, along float64, upright bool) {
		n := max(1, int(math.Floor((across+gap)/(strip+gap))))
		for i := range n {
			at := (float64(i) - float64(n-1)/2) * (strip + gap)
			l := along
			if m.round {
				l = along * math.Sqrt(max(0, 1-4*at*at/(across*across)))
			}
			length += l + 2*overhangCM
			o := Outline{false, 0, at, l, strip}
			if upright {
				o = Outline{false, at, 0, strip, l}
			}
			p.Shapes = append(p.Shapes, o)
		}
	}
	lay(m.w, m.l, false)
	lay(m.l, m.w, true)
	p.Count = len(p.Shapes)
	thick := s.ThicknessMM / 10 * w.Topping.DensityGPerML
	p.DoughG = length * strip * thick * 1.1
	p.EachG = p.DoughG / float64(p.Count)
	p.Lines = append(
		p.Lines,
		message.New(
			"{count} strips, {wide} wide and {gap} apart, {length} in all with {over} over the rim at each end.",
			message.Count(p.Count),
			cm(strip),
			cm(gap),
			cm(length),
			cm(overhangCM),
		),
		message.New("{dough} of dough; a full lid would need {lid}.", message.Grams(p.DoughG), message.Grams(s.G)),
	)
	return p
}

func (c Cuts) lid(w Spec, s Sized, d dish.Dish) Plan {
	m := rimOf(d)
	p := Plan{Code: CutLid, Title: message.New("Lid"), Count: 1, EachG: s.G, Shapes: []Outline{{m.round, 0, 0, m.l, m.w}}}
	for i := range 5 { // vents about the middle
		a := 2 * math.Pi * float64(i) / 5
		p.Shapes = append(p.Shapes, Outline{false, m.l / 5 * math.Cos(a), m.w / 5 * math.Sin(a), min(2.5, m.l/8), 0.3})
	}
	l, wd := m.l+2*overhangCM, m.w+2*overhangCM
	area := l * wd
	if m.round {
		area *= math.Pi / 4
	}
	p.DoughG = area * s.ThicknessMM / 10 * w.Topping.DensityGPerML
	p.Lines = []message.Message{
		message.New(
			"Roll to {thick}, {across}: {over} beyond the rim all round. {dough} of dough.",
			message.Millimetres(s.ThicknessMM),
			across(m.round, l, wd),
			cm(overhangCM),
			message.Grams(p.DoughG),
		),
		message.New("Cut five vents around the middle: trapped steam lifts the lid and escapes all at once."),
	}
	return p
}

// Shell plans the disc of a base that goes up the sides, and the weights for its par-bake.
func (c Cuts) Shell(s Sized, densityGPerML float64, d dish.Dish, g dish.Geometry) Plan {
	m := rimOf(d)
	wall := math.Hypot(g.DepthCM, (g.RimLengthCM-g.FloorLenCM)/2)
	l := g.FloorLenCM + 2*wall + 2*overhangCM
	w := l
	if m.l != m.w {
		w = m.w*g.FloorLenCM/m.l + 2*wall + 2*overhangCM
	}
	area := l * w
	if m.round {
		area *= math.Pi / 4
	}
	p := Plan{
		Code:   CutShell,
		Title:  message.New("Shell"),
		Count:  1,
		EachG:  s.G,
		DoughG: area * s.ThicknessMM / 10 * densityGPerML,
		Shapes: []Outline{{m.round, 0, 0, l, w}, {m.round, 0, 0, m.l, m.w}},
	}
	p.Lines = []message.Message{
		message.New(
			"Roll to {thick}, {across}: floor, walls and {over} over the rim. Make {dough} of dough; {stays} stay in the dish.",
			message.Millimetres(s.ThicknessMM),
			across(m.round, l, w),
			cm(overhangCM),
			message.Grams(p.DoughG),
			message.Grams(s.G),
		),
		message.New(
			"For the par-bake: paper, and {beans} of dried beans.",
			message.Grams(math.Round(g.FloorAreaCM2*beansCM*beansGPerML/10)*10),
		),
	}
	perCM2 := s.ThicknessMM / 10 * densityGPerML // g
	if c.Crimped {
		p.Lines = append(p.Lines, message.New(
			"Fold the overhang under and crimp it: {much} of dough stays on the rim, which browns first.",
			message.Grams(g.PerimeterCM*overhangCM*perCM2),
		))
	}
	if c.CutOuts > 0 {
		much := c.CutOuts * math.Pi / 4 * cutOutCM * cutOutCM * perCM2
		p.DoughG += much
		p.Lines = append(p.Lines, message.New(
			"Keep {much} of dough back for {n} cut-outs of {across}; stick them on with water, or bake them separately.",
			message.Grams(much), message.Number(c.CutOuts, 0), cm(cutOutCM),
		))
	}
	return p
}

func across(round bool, l, w float64) message.Arg {
	if round && l == w {
		return message.Part(message.New("a disc of {across}", cm(l)))
	}
	return message.Part(message.New("{long} by {wide}", cm(l), cm(w)))
}
