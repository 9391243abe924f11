package learn

import (
	"math"
	"math/rand/v2"
	"slices"
	"sort"
	"time"

	"mabbin/core/bake"
)

// Range is a figure that is predicted, with the quantiles that it lies between.
type Range struct {
	Value float64 `json:"value"`
	P05   float64 `json:"p05"`
	P25   float64 `json:"p25"`
	P75   float64 `json:"p75"`
	P95   float64 `json:"p95"`
}

// Chances are how likely each word of a scale is, from little to much.
type Chances struct {
	Word  string    `json:"word"`
	Steps float64   `json:"steps"` // the place on the scale: word n lies from n to n + 1
	P     []float64 `json:"p"`
}

// Forecast is what is predicted of a bake. Minutes are as somebody will note them; set and steam as they are.
type Forecast struct {
	RimBubbles    Range    `json:"rim_bubbles_min"`
	MiddleBubbles Range    `json:"middle_bubbles_min"`
	SteamedOff    Range    `json:"steamed_off_g"`
	SetScore      Range    `json:"set_score"`
	Juice         Chances  `json:"juice"`
	JuiceHot      Chances  `json:"juice_hot"`
	Fruit         Chances  `json:"fruit"`
	Top           *Chances `json:"top,omitempty"`  // nil: bare
	Base          *Chances `json:"base,omitempty"` // nil: none
	// ComesOut is how it comes out of the oven of a baker who looks at it, and whatever somebody may call that: the
	// chances above are of what will be reported of a bake by its plan.
	ComesOut ComesOut `json:"comes_out"`
	// Right is the chance that some minute about the end of the plan meets everything.
	Right float64 `json:"right"`
}

// ComesOut is how likely each word of a scale is of the dessert itself.
type ComesOut struct {
	Juice Chances  `json:"juice"`
	Fruit Chances  `json:"fruit"`
	Top   *Chances `json:"top,omitempty"`  // nil: bare
	Base  *Chances `json:"base,omitempty"` // nil: none
}

// Prediction of one bake.
type Prediction struct {
	ID     string    `json:"id"`
	Odd    []string  `json:"odd"`           // answers that nothing explains
	Before Forecast  `json:"before"`        // by the tables
	After  Forecast  `json:"after"`         // by what is used
	LOO    *Forecast `json:"loo,omitempty"` // by what all other bakes teach; nil: nothing was reported of it
	// Past are minutes that were reported of something after its end: they are asked back.
	Past []string `json:"past_end,omitempty"`

	at     time.Time
	middle *float64 // min, as it was noted
}

// normals are as many draws of independent normal figures, the same each time: a Latin hypercube, so that each figure
// by itself is spread evenly, with its mirror image.
func normals(dims int) [][]float64 {
	out := make([][]float64, draws)
	for i := range out {
		out[i] = make([]float64, dims)
	}
	half := draws / 2
	turns := rand.New(rand.NewPCG(1, 1))
	for k := range dims {
		for i, stratum := range turns.Perm(half) { // of the upper half, with either sign
			u := 0.5 + (float64(stratum)+0.5)/float64(2*half)
			z := math.Sqrt2 * math.Erfinv(2*u-1)
			if turns.IntN(2) == 0 {
				z = -z
			}
			out[2*i][k], out[2*i+1][k] = z, -z
		}
	}
	return out
}

// student turns a normal figure into one of Student's t with four degrees of freedom.
func student(z float64) float64 {
	p := min(max(phi(z), 1e-12), 1-1e-12)
	root := math.Sqrt(4 * p * (1 - p))
	return math.Copysign(2*math.Sqrt(max(0, math.Cos(math.Acos(root)/3)/root-1)), z)
}

// forecast of a bake.
func (v *outlook) forecast() Forecast {
	at := v.drivers(v.mean, v.own)
	likely := v.surface.at(at)
	n := len(v.params)
	l, ok := v.cov.cholesky()
	if !ok {
		l = newMatrix(v.cov.n)
	}
	z := normals(v.cov.n + 1)
	seen, out := make([]noticed, len(z)), make([]noticed, len(z))
	param, own := slices.Clone(v.mean), v.own
	for i := range z {
		for k := range v.cov.n {
			x := dot(l.row(k)[:k+1], z[i][:k+1])
			if k < n {
				param[v.params[k]] = v.mean[v.params[k]] + x
			} else {
				own[k-n] = v.own[k-n] + x
			}
		}
		drawn := v.drivers(param, own)
		seen[i], out[i] = v.surface.at(drawn), v.surface.takenOut(drawn)
	}
	figure := func(of func(*noticed) float64, noise func(float64) float64) Range {
		all := make([]float64, len(seen))
		for i := range seen {
			all[i] = of(&seen[i])
			if noise != nil {
				all[i] = max(0, all[i]+noise(all[i])*student(z[i][v.cov.n]))
			}
		}
		sort.Float64s(all)
		return Range{of(&likely), quantile(all, 0.05), quantile(all, 0.25), quantile(all, 0.75), quantile(all, 0.95)}
	}
	minutes := func(which int, of string) Range {
		a := answer{of: of}
		return figure(func(x *noticed) float64 { return math.Exp(x.ln[which]) }, a.error)
	}
	words := func(scale []string, sd float64, of func(*noticed) float64) Chances {
		c := Chances{Steps: of(&likely), P: make([]float64, len(scale))}
		c.Word = scale[wordIndex(c.Steps, len(scale))]
		for i := range seen {
			y := of(&seen[i])
			for w := range scale {
				c.P[w] += wordChance(w, len(scale), y, sd) / float64(len(seen))
			}
		}
		return c
	}
	likelyOut := v.surface.takenOut(at)
	learnt := slices.ContainsFunc(at[:], func(x float64) bool { return math.Abs(x) > unlearnt })
	comesOut := func(scale []string, of func(*noticed) float64, verdict string) Chances {
		c := Chances{Steps: of(&likelyOut), P: make([]float64, len(scale))}
		if learnt { // the verdict that is shown is by what the log has taught
			verdict = scale[wordIndex(of(&likely), len(scale))]
		}
		for i := range out {
			c.P[wordIndex(of(&out[i]), len(scale))] += 1 / float64(len(out))
		}
		c.lead(scale, verdict)
		return c
	}
	s := v.surface
	f := Forecast{
		RimBubbles:    minutes(ofRim, toldRim),
		MiddleBubbles: minutes(ofMiddle, toldMiddle),
		SteamedOff:    figure(func(x *noticed) float64 { return math.Exp(x.ln[ofSteam]) }, nil),
		SetScore:      figure(func(x *noticed) float64 { return math.Exp(x.score) }, nil),
		Juice:         words(bake.JuiceWords, wordSD, s.juicePlace),
		JuiceHot: words(bake.JuiceWords, hotWordSD, func(x *noticed) float64 {
			return s.juicePlace(x) - hotWordLower
		}),
		Fruit: words(bake.FruitWords, wordSD, s.fruitPlace),
		Right: v.likelyRight(),
		ComesOut: ComesOut{
			Juice: comesOut(
				bake.JuiceWords,
				s.juicePlace,
				s.verdict.Juice,
			),
			Fruit: comesOut(bake.FruitWords, s.fruitPlace, s.verdict.Fruit),
		},
	}
	if s.topping != "" {
		c := words(bake.TopWords, wordSD, s.topPlace)
		is := comesOut(bake.TopWords, s.topPlace, s.verdict.Top)
		f.Top, f.ComesOut.Top = &c, &is
	}
	if s.base {
		c := words(bake.BaseWords, wordSD, s.basePlace)
		is := comesOut(bake.BaseWords, s.basePlace, s.verdict.Base)
		f.Base, f.ComesOut.Base = &c, &is
	}
	return f
}

// asGood is the share of the highest chance from which another word is as good: the forecast can't tell them apart. A
// working figure.
const asGood = 2.0 / 3

// unlearnt is the most that a driver is off where the log has taught nothing of a bake.
const unlearnt = 1e-6

// lead chooses the word that a forecast leads with, so that nothing is said twice in two ways. That is the verdict's,
// where it is the word of the most likely figure or as good as the word with the highest chance. Else it is the latter.
func (c *Chances) lead(scale []string, verdict string) {
	best := slices.Index(c.P, slices.Max(c.P))
	c.Word = scale[best]
	if i := slices.Index(scale, verdict); i >= 0 && (i == wordIndex(c.Steps, len(scale)) || c.P[i] >= asGood*c.P[best]) {
		c.Word = verdict
	}
}

// quantile of sorted figures.
func quantile(sorted []float64, p float64) float64 {
	x := p*float64(len(sorted)) - 0.5
	i := min(max(int(math.Floor(x)), 0), len(sorted)-2)
	return sorted[i] + min(max(x-float64(i), 0), 1)*(sorted[i+1]-sorted[i])
}

// prediction of a bake of the log, with what is used.
func (j *judge) prediction(k int, on enabled) Prediction {
	o := &j.bakes[k]
	none := make(enabled, len(j.all))
	all := j.without(k, true)
	after := j.outlook(k, j.with(all, on))
	before := j.outlook(k, j.with(all, none))
	p := Prediction{ID: o.log.ID, at: o.log.At, Odd: []string{}, Before: before.forecast(), After: after.forecast()}
	p.Past = pastEnd(o.log)
	d := after.drivers(after.mean, after.own)
	n := o.surface.at(d)
	for i := range o.answers {
		a := &o.answers[i]
		if a.of == toldMiddle {
			p.middle = &a.value
		}
		if o.log.LeftOut {
			continue
		}
		if a.weight(o.surface.predict(a, &n, d)) < oddBelow && !slices.Contains(p.Odd, a.of) {
			p.Odd = append(p.Odd, a.of)
		}
	}
	if len(o.answers) > 0 {
		left := j.outlook(k, j.with(j.left[k], on))
		f := left.forecast()
		p.LOO = &f
	}
	return p
}
