package topping

import (
	"math"

	"mabbin/core/dish"
	"mabbin/core/message"
)

// Cuts are the sizes that a topping, a base or a bar is cut in. Zero is the usual.
type Cuts struct {
	CutterCM float64 `json:"cutter_cm,omitempty"` // across a cut biscuit
	SpoonG   float64 `json:"spoon_g,omitempty"`   // a drop of dough
	SquareCM float64 `json:"square_cm,omitempty"` // a side of a pastry piece
	StripCM  float64 `json:"strip_cm,omitempty"`  // a strip of a lattice
	GapCM    float64 `json:"gap_cm,omitempty"`    // between strips
	Lattice  bool    `json:"lattice,omitempty"`   // strips, and no whole lid
	Long     float64 `json:"long,omitempty"`      // bars along the length
	Wide     float64 `json:"wide,omitempty"`      // bars across
	TrimCM   float64 `json:"trim_cm,omitempty"`   // cut off at each edge of a bar pan
	Crimped  bool    `json:"crimped,omitempty"`   // a shell's overhang is folded under and crimped, not trimmed off
	CutOuts  float64 `json:"cut_outs,omitempty"`  // small shapes of dough, kept back for the top
}

// The usual sizes, and what a dough yields. Handbook practice; yields are working figures.
const (
	usualCutterCM = 6.0
	usualSpoonG   = 45.0
	usualSquareCM = 5.0
	usualStripCM  = 1.5
	usualGapCM    = 1.5
	firstYield    = 0.70 // of a rolled sheet, cut round
	scrapsUsable  = 0.85 // of the scraps' weight, pressed together once
	sheetG        = 320.0
	sheetRatio    = 1.5 // length to width of a bought sheet
	spread        = 1.08
	beansCM       = 2.0 // depth of the weights in a shell
	beansGPerML   = 0.78
	overhangCM    = 1.0
	cutOutCM      = 3.0 // across a small shape of dough
)

// PlanCode is what a plan cuts.
type PlanCode string

// What is cut.
const (
	CutBiscuits PlanCode = "biscuits"
	CutDrops    PlanCode = "drops" // spooned
	CutSquares  PlanCode = "squares"
	CutLattice  PlanCode = "lattice"
	CutLid      PlanCode = "lid"
	CutShell    PlanCode = "shell"
	CutBars     PlanCode = "bars"
)

// Outline is one shape of a cutting plan, seen from above, in cm from the dish's middle.
type Outline struct {
	Round bool    `json:"round"`
	X     float64 `json:"x"`
	Y     float64 `json:"y"`
	W     float64 `json:"w"`
	H     float64 `json:"h"`
}

// Plan is how one thing is cut, drawn on the dish and reported in lines.
type Plan struct {
	Code   PlanCode          `json:"code"`
	Title  message.Message   `json:"title"`
	Count  int               `json:"count"`
	EachG  float64           `json:"each_g"`
	DoughG float64           `json:"dough_g"` // to make, scraps and all
	Lines  []message.Message `json:"lines"`
	Shapes []Outline         `json:"shapes"`
}

// rim is the outline that a plan is drawn on.
type rim struct {
	round bool
	l, w  float64
}

func rimOf(d dish.Dish) rim {
	r := rim{round: d.Shape == dish.Round || d.Shape == dish.Oval, l: d.LengthCM, w: d.WidthCM}
	if r.w == 0 {
		r.w = r.l
	}
	return r
}

// holds says whether a disc of radius r about x, y lies inside.
func (m rim) holds(x, y, r float64) bool {
	a, b := m.l/2-r, m.w/2-r
	if a < -1e-9 || b < -1e-9 {
		return false
	}
	if !m.round {
		return math.Abs(x) <= a+1e-9 && math.Abs(y) <= b+1e-9
	}
	if a < 1e-9 || b < 1e-9 {
		return math.Hypot(x, y) < 1e-9
	}
	return x*x/(a*a)+y*y/(b*b) <= 1+1e-9
}

// discs puts as many discs of a width as fit, in rows set between each other, the better of two beginnings.
func (m rim) discs(width float64) []Outline {
	var best []Outline
	row := width * math.Sqrt(3) / 2
	for _, start := range []float64{0, 0.5} {
		for _, shift := range []float64{0, 0.5} {
			var out []Outline
			n := int(m.w/row) + 2
			for j := -n; j <= n; j++ {
				y := (float64(j) + start) * row
				off := shift
				if j%2 != 0 {
					off += 0.5
				}
				k := int(m.l/width) + 2
				for i := -k; i <= k; i++ {
					if x := (float64(i) + off) * width; m.holds(x, y, width/2) {
						out = append(out, Outline{true, x, y, width, width})
					}
				}
			}
			if len(out) > len(best) {
				best = out
			}
		}
	}
	return best
}

// Cut plans how a sized topping is cut. It is false for what is not cut.
func (c Cuts) Cut(w Spec, s Sized, d dish.Dish, g dish.Geometry) (Plan, bool) {
	t := w.Topping
	switch {
	case t.Family == "biscuit":
		if st := s.Read().Dough; st == Rolls || st == Crumbles {
			return c.biscuits(w, s, d, g), true
		}
		return c.drops(s, d, g), true
	case t.Key == "puff_squares":
		return c.squares(w, s, d, g), true
	case t.Family == "pastry" && c.Lattice:
		return c.lattice(w, s, d), true
	case t.Family == "pastry":
		return c.lid(w, s, d), true
	}
	return Plan{}, false
}

func or(x, usual float64) float64 {
	if x > 0 {
		return x
	}
	return usual
}

func (c Cuts) biscuits(w Spec, s Sized, d dish.Dish, g dish.Geometry) Plan {
	across := or(c.CutterCM, usualCutterCM)
	m := rimOf(d)
	p := Plan{Code: CutBiscuits, Title: message.New("Cut biscuits")}
	if across > min(m.l, m.w) {
		across = min(m.l, m.w)
		p.Lines = append(
			p.Lines,
			message.New("The cutter is wider than the dish: use one round of {across}, cut to the dish.", cm(across)),
		)
	}
	p.Shapes = m.discs(across)
	p.Count = len(p.Shapes)
	density := w.Topping.DensityGPerML
	p.EachG = math.Pi / 4 * across * across * s.ThicknessMM / 10 * density
	all := float64(p.Count) * p.EachG
	usable := firstYield + scrapsUsable*(1-firstYield)*firstYield
	p.DoughG = all / usable
	covered := 100 * float64(p.Count) * math.Pi / 4 * across * across / g.RimAreaCM2
	first := int(p.DoughG * firstYield / p.EachG)
	p.Lines = append(
		p.Lines,
		message.New(
			"{count} of {across}, {thick} thick, {each} each; they cover {covered} % of the fruit and spread to about {baked} %.",
			message.Count(
				p.Count,
			),
			cm(across),
			message.Millimetres(s.ThicknessMM),
			message.Grams(p.EachG),
			message.Number(covered, 0),
			message.Number(min(100, covered*spread*spread), 0),
		),
		message.New(
			"Make {dough} of dough: about {first} from the first rolling, {second} from the scraps, pressed together once.",
			message.Grams(p.DoughG),
			message.Count(min(first, p.Count)),
			message.Count(max(0, p.Count-first)),
		),
	)
	switch off := 100 * (all - s.G) / s.G; {
	case off > 10:
		p.Lines = append(
			p.Lines,
			message.New(
				"That is {share} % more dough than the ticket has: roll it thinner or change the cutter.",
				message.Number(off, 0),
			),
		)
	case off < -10:
		p.Lines = append(
			p.Lines,
			message.New(
				"That is {share} % less dough than the ticket has: roll it thicker or change the cutter.",
				message.Number(-off, 0),
			),
		)
	}
	return p
}

func (c Cuts) drops(s Sized, d dish.Dish, g dish.Geometry) Plan {
	each := or(c.SpoonG, usualSpoonG)
	n := max(1, int(math.Round(s.G/each)))
	p := Plan{Code: CutDrops, Title: message.New("Spoonfuls"), Count: n, EachG: s.G / float64(n), DoughG: s.G}
	m := rimOf(d)
	lo, hi := 0.5, math.Max(m.l, m.w)
	for range 40 { // the widest that n of fit
		if mid := (lo + hi) / 2; len(m.discs(mid)) >= n {
			lo = mid
		} else {
			hi = mid
		}
	}
	p.Shapes = m.discs(lo)
	p.Shapes = p.Shapes[:min(n, len(p.Shapes))]
	for i := range p.Shapes {
		p.Shapes[i].W, p.Shapes[i].H = 0.9*lo, 0.9*lo
	}
	covered := 100 * float64(len(p.Shapes)) * math.Pi / 4 * 0.81 * lo * lo / g.RimAreaCM2
	p.Lines = []message.Message{
		message.New(
			"{count} spoonfuls of {each}, with gaps for the steam: {covered} % covered before they rise and close up.",
			message.Count(n),
			message.Grams(p.EachG),
			message.Number(min(95, covered), 0),
		),
	}
	return p
}

func (c Cuts) squares(w Spec, s Sized, d dish.Dish, g dish.Geometry) Plan {
	side := or(c.SquareCM, usualSquareCM)
	p := Plan{Code: CutSquares, Title: message.New("Pastry pieces"), Shapes: []Outline{}}
	m := rimOf(d)
	if side > min(m.l, m.w) {
		side = min(m.l, m.w)
		p.Lines = append(p.Lines, message.New("The pieces are wider than the dish: cut to {side}.", cm(side)))
	}
	thick := s.ThicknessMM / 10 * w.Topping.DensityGPerML // g per cm2
	p.EachG = side * side * thick
	p.Count = max(1, int(math.Round(s.G/p.EachG)))
	pitch := math.Sqrt(g.RimAreaCM2 / float64(p.Count))
	for y := -math.Floor(m.w/pitch/2) * pitch; y <= m.w/2; y += pitch {
		for x := -math.Floor(m.l/pitch/2) * pitch; x <= m.l/2; x += pitch {
			if len(p.Shapes) < p.Count && m.holds(x, y, side/2*0.8) {
				p.Shapes = append(p.Shapes, Outline{false, x, y, side * 0.94, side * 0.94})
			}
		}
	}
	wide := math.Sqrt(sheetG / thick / sheetRatio)
	perSheet := max(1, int(wide/side)*int(wide*sheetRatio/side))
	sheets := int(math.Ceil(float64(p.Count) / float64(perSheet)))
	p.DoughG = float64(sheets) * sheetG
	p.Lines = append(
		p.Lines,
		message.New(
			"{count} pieces of {side} a side, {each} each, overlapping here and there, with peep-holes.",
			message.Count(p.Count),
			cm(side),
			message.Grams(p.EachG),
		),
		message.New(
			"{sheets} of 320 g, rolled to {thick} (about {wide} by {long}), make {pieces} each.",
			sheetsOf(sheets),
			message.Millimetres(s.ThicknessMM),
			cm(wide),
			cm(wide*sheetRatio),
			message.Count(perSheet),
		),
	)
	return p
}

// cm is a length as dough is cut: to a whole centimetre, below 10 cm to a millimetre.
func cm(x float64) message.Arg {
	if x >= 9.95 {
		x = math.Round(x)
	}
	return message.Centimetres(x)
}

func sheetsOf(n int) message.Arg {
	if n == 1 {
		return message.Word("1 sheet")
	}
	return message.Part(message.New("{n} sheets", message.Count(n)))
}

// Bars plans the grid that a pan is cut in: by the numbers given, or near squares of about eachG.
func (c Cuts) Bars(finishedG, eachG float64, d dish.Dish) Plan {
	m := rimOf(d)
	l, w := m.l-2*c.TrimCM, m.w-2*c.TrimCM
	kept := l * w / (m.l * m.w)
	n := max(1, finishedG*kept/eachG)
	long := or(c.Long, math.Max(1, math.Round(math.Sqrt(n*l/w))))
	wide := or(c.Wide, math.Max(1, math.Round(n/long)))
	p := Plan{
		Code:   CutBars,
		Title:  message.New("Bars"),
		Count:  int(long * wide),
		EachG:  finishedG * kept / (long * wide),
		DoughG: finishedG,
		Shapes: []Outline{},
	}
	for j := range int(wide) {
		for i := range int(long) {
			p.Shapes = append(
				p.Shapes,
				Outline{false, -l/2 + (float64(i)+0.5)*l/long, -w/2 + (float64(j)+0.5)*w/wide, l / long * 0.96, w / wide * 0.96},
			)
		}
	}
	p.Lines = []message.Message{
		message.New(
			"{rows} by {columns}: {count} pieces of {long} by {wide}, {each} each. Cut it cold, wipe the knife between cuts, and take a corner piece out first.",
			message.Number(
				long,
				0,
			),
			message.Number(wide, 0),
			message.Count(p.Count),
			cm(l/long),
			cm(w/wide),
			message.Grams(p.EachG),
		),
	}
	if c.TrimCM > 0 {
		p.Lines = append(p.Lines, message.New("{much} of trimmings.", message.Grams(finishedG*(1-kept))))
	}
	if m.round {
		p.Lines = append(p.Lines, message.New("In a round dish the outer pieces are smaller: wedges are more even."))
	}
	return p
}
