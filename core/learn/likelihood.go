package learn

import (
	"math"
	"slices"

	"mabbin/core/bake"
)

// answer is one thing that was reported of a bake, in addition to which a prediction is put.
type answer struct {
	of    string  // its field
	value float64 // minutes, g or the logarithm of minutes; of a word its index
	scale []string
	sd    float64 // of a word, in steps
	c     float64 // that a probe came to
}

// Kinds of answers by their field; readings are three of them.
const (
	toldJuice, toldHot, toldFruit, toldTop, toldBase = "juice", "juice_hot", "fruit", "top", "base"
	toldRim, toldMiddle, toldWeight, toldReadings    = "rim_min", "middle_min", "after_g", "readings"
)

func (a *answer) word() bool    { return a.scale != nil }
func (a *answer) minutes() bool { return a.of == toldRim || a.of == toldMiddle }

// answersOf are what was reported of a bake that teaches something. Minutes that are past its end are not among them:
// they are asked back.
func answersOf(b *LoggedBake, s *Surface) (out []answer) {
	t := b.Reported
	word := func(of, told string, scale []string, sd float64) {
		if i := slices.Index(scale, told); i >= 0 {
			out = append(out, answer{of: of, value: float64(i), scale: scale, sd: sd})
		}
	}
	juice, hot := t.Juice, t.JuiceHot
	if t.Cooled != nil && !*t.Cooled { // judged while it was warm
		if hot == "" {
			hot = juice
		}
		juice = ""
	}
	if s.dose != "" { // eggs set otherwise
		word(toldJuice, juice, bake.JuiceWords, wordSD)
		word(toldHot, hot, bake.JuiceWords, hotWordSD)
	}
	word(toldFruit, t.Fruit, bake.FruitWords, wordSD)
	if s.topping != "" {
		word(toldTop, t.Top, bake.TopWords, wordSD)
	}
	if s.base {
		word(toldBase, t.Base, bake.BaseWords, wordSD)
	}
	past := pastEnd(b)
	for _, x := range toldMinutes(b) {
		if !slices.Contains(past, x.of) {
			out = append(out, x)
		}
	}
	if t.BeforeG != nil && t.AfterG != nil {
		lost := *t.BeforeG - *t.AfterG
		if b.WholeDish {
			lost = max(0, lost-s.beside)
		}
		out = append(out, answer{of: toldWeight, value: lost})
	}
	if b.Happened != nil {
		for _, c := range bake.CrossedC {
			if m, ok := crossing(b.Happened.Readings, c); ok {
				out = append(out, answer{of: toldReadings, value: math.Log(m), c: c})
			}
		}
	}
	return out
}

// toldMinutes are the events that somebody noted.
func toldMinutes(b *LoggedBake) (out []answer) {
	for _, x := range []struct {
		of string
		v  *float64
	}{{toldRim, b.Reported.RimMin}, {toldMiddle, b.Reported.MiddleMin}} {
		if x.v != nil {
			out = append(out, answer{of: x.of, value: *x.v})
		}
	}
	return out
}

// pastEnd are the events that were noted after the end of the bake.
func pastEnd(b *LoggedBake) (out []string) {
	end := 0.0
	for _, s := range b.Request.Setting.Stages {
		if s.InOven() {
			end += s.Minutes
		}
	}
	for _, x := range toldMinutes(b) {
		if x.value > end+pastEndMin {
			out = append(out, x.of)
		}
	}
	return out
}

// crossing is when a probe came to a temperature, by the median of three readings; false where it began above it, or
// did not come there.
func crossing(seen []bake.Point, c float64) (float64, bool) {
	if len(seen) < fewestReadings {
		return 0, false
	}
	smooth := smoothed(seen)
	for i := 1; i < len(smooth)-1; i++ { // the last one has no three: it may be a slip
		a, b := smooth[i-1], smooth[i]
		if a.C >= c {
			return 0, false
		}
		if b.C >= c {
			m := a.Minute + (c-a.C)/(b.C-a.C)*(b.Minute-a.Minute)
			return m, m > 0
		}
	}
	return 0, false
}

// smoothed are readings by the median of three; the first and the last are as they were.
func smoothed(seen []bake.Point) []bake.Point {
	out := slices.Clone(seen)
	for i := 1; i < len(seen)-1; i++ {
		three := []float64{seen[i-1].C, seen[i].C, seen[i+1].C}
		slices.Sort(three)
		out[i].C = three[1]
	}
	return out
}

// now is what a probe reads in mid-bake, where that lies between what it has crossed: false where it tells no more.
func now(seen []bake.Point) (answer, bool) {
	n := len(seen)
	if n < fewestReadings {
		return answer{}, false
	}
	p := smoothed(seen)[n-2]
	first, last := bake.CrossedC[0], bake.CrossedC[len(bake.CrossedC)-1]
	if p.Minute <= 0 || p.C < first || p.C > last+apartC {
		return answer{}, false
	}
	for _, c := range bake.CrossedC {
		if _, crossed := crossing(seen, c); crossed && p.C < c+apartC {
			return answer{}, false
		}
	}
	return answer{of: toldReadings, value: math.Log(p.Minute), c: p.C}, true
}

// predict is an answer as these drivers have it: minutes, g, ln of minutes, or a place on the scale.
func (s *Surface) predict(a *answer, n *noticed, d drivers) float64 {
	switch a.of {
	case toldJuice:
		return s.juicePlace(n)
	case toldHot:
		return s.juicePlace(n) - hotWordLower
	case toldFruit:
		return s.fruitPlace(n)
	case toldTop:
		return s.topPlace(n)
	case toldBase:
		return s.basePlace(n)
	case toldRim:
		return math.Exp(n.ln[ofRim])
	case toldMiddle:
		return math.Exp(n.ln[ofMiddle])
	case toldWeight:
		return math.Exp(n.ln[ofSteam])
	}
	return n.lnMinuteAt(a.c) + d[byDepth]
}

// lnMinuteAt is when the middle comes to a temperature, as a logarithm: a parabola through those of bake.CrossedC.
func (n *noticed) lnMinuteAt(c float64) (sum float64) {
	for i, at := range bake.CrossedC {
		share := 1.0
		for j, other := range bake.CrossedC {
			if j != i {
				share *= (c - other) / (at - other)
			}
		}
		sum += share * n.ln[ofCrossed+i]
	}
	return sum
}

// error of a figure, one scale of Student's t, where y is predicted.
func (a *answer) error(y float64) float64 {
	switch a.of {
	case toldRim:
		return math.Hypot(rimSD, minutesShare*y)
	case toldMiddle:
		return math.Hypot(middleSD, minutesShare*y)
	case toldWeight:
		return math.Hypot(weightSD, weightShare*(a.value+y)/2)
	case toldReadings:
		return crossedSD
	}
	return a.sd
}

// phi is the normal distribution.
func phi(x float64) float64 { return math.Erfc(-x/math.Sqrt2) / 2 }

// wordChance is how likely a word is at a place, with an error of sd steps.
func wordChance(word, words int, at, sd float64) float64 {
	lo, hi := 0.0, 1.0
	if word > 0 {
		lo = phi((float64(word) - at) / sd)
	}
	if word < words-1 {
		hi = phi((float64(word+1) - at) / sd)
	}
	return max(0, hi-lo)
}

// lnDensity of an answer, where y is predicted.
func (a *answer) lnDensity(y float64) float64 { return a.lnDensityWith(y, a.error(y), 0) }

// lnDensityWith has an error of its own, and for words a variance in addition to it.
func (a *answer) lnDensityWith(y, err, variance float64) float64 {
	if a.word() {
		n := len(a.scale)
		p := wordChance(int(a.value), n, y, math.Sqrt(err*err+variance))
		return math.Log((1-lapse)*p + lapse/float64(n))
	}
	return lnStudent((a.value-y)/err) - math.Log(err)
}

// lnStudent is the logarithm of the density of Student's t.
func lnStudent(x float64) float64 { return lnStudentAt0 - (studentDF+1)/2*math.Log1p(x*x/studentDF) }

var lnStudentAt0 = func() float64 {
	a, _ := math.Lgamma((studentDF + 1) / 2)
	b, _ := math.Lgamma(studentDF / 2)
	return a - b - math.Log(studentDF*math.Pi)/2
}()

// fall is the slope of -ln density by y, and its curvature, which is never negative.
func (a *answer) fall(y float64) (slope, curve float64) {
	if a.word() {
		const h = 1e-3
		up, at, down := a.lnDensity(y+h), a.lnDensity(y), a.lnDensity(y-h)
		return (down - up) / (2 * h), max(0, (2*at-up-down)/(h*h))
	}
	h := 1e-3 * max(1, math.Abs(y))
	if a.of == toldReadings {
		h = 1e-4
	}
	s := a.error(y)
	x := (a.value - y) / s
	curve = (studentDF + 1) / (studentDF + x*x) / (s * s)
	return (a.lnDensity(y-h) - a.lnDensity(y+h)) / (2 * h), max(0, curve)
}

// weight is how far an answer is believed where y is predicted: of Student's t, or that it is no lapse.
func (a *answer) weight(y float64) float64 {
	if a.word() {
		n := len(a.scale)
		p := (1 - lapse) * wordChance(int(a.value), n, y, a.sd)
		return p / (p + lapse/float64(n))
	}
	x := (a.value - y) / a.error(y)
	return (studentDF + 1) / (studentDF + x*x)
}
