package units

import (
	"math"
	"strconv"
)

// Shown is a weight as the scale shows it: to 1 g, and on the pocket scale to 0.1 g below 10 g.
func Shown(g float64) string {
	k := 1.0
	if g < 9.95 {
		k = 10
	}
	return strconv.FormatFloat(math.Round(g*k)/k, 'f', -1, 64)
}

// Household is an amount in level cups and spoons.
type Household struct {
	Text     string
	ErrorPct float64 // what it is off, signed; said only when over 5
}

// closeEnoughPct is the error in percent that nobody can see in a spoon: within it, fewer spoons win over nearer ones.
// A cup may be off by a little more: it is said to be scant or generous.
const (
	closeEnoughPct    = 2.0
	closeEnoughCupPct = 5.0
)

// tellOffPct is the error in percent from which it is reported.
const tellOffPct = 5.0

// How many tablespoons anybody counts: few of them with half teaspoons in addition to, more where there is no cup for
// it.
const (
	fewTbsp       = 3.0
	mostTbspByCup = 4.0
	mostTbsp      = 8.0
)

// spoonable sizes: what a drawer really holds. Parts of a cup and of a teaspoon; a tablespoon is whole.
var (
	cupParts = []float64{0, 1.0 / 4, 1.0 / 3, 1.0 / 2, 2.0 / 3, 3.0 / 4}
	tspParts = []float64{0, 1.0 / 4, 1.0 / 2, 3.0 / 4}
)

// measured is one way to measure an amount out: so many of up to two kinds of spoon.
type measured struct {
	cups, tbsp, tsp float64
	g               float64
}

func (m measured) terms() int {
	n := 0
	for _, x := range []float64{m.cups, m.tbsp, m.tsp} {
		if x > 0 {
			n++
		}
	}
	return n
}

// Spoons is the nearest that real spoons and cups make of g, in at most two terms. It is false where the
// ingredient has no density, or where there is nothing to measure.
func (c Conventions) Spoons(g float64, d Density) (Household, bool) {
	if g <= 0 || d.TspGPerML == 0 {
		return Household{}, false
	}
	cupG, tbspG, tspG := c.Cup.ML()*d.CupGPerML, c.Spoon.TbspML()*d.TspGPerML, c.Spoon.TspML()*d.TspGPerML
	if g < tspG/8 {
		return Household{Text: "a pinch", ErrorPct: 100 * (gPinch - g) / g}, true
	}
	best, found := measured{}, false
	try := func(m measured) {
		m.g = m.cups*cupG + m.tbsp*tbspG + m.tsp*tspG
		if m.g > 0 && m.terms() <= 2 && (!found || m.better(best, g)) {
			best, found = m, true
		}
	}
	if cupG > 0 && g > 0.2*cupG {
		whole := math.Floor(g / cupG)
		for _, n := range []float64{whole, whole + 1} {
			for _, part := range cupParts {
				for tbsp := range 4 {
					try(measured{cups: n + part, tbsp: float64(tbsp)})
				}
			}
		}
	}
	most := mostTbsp
	if cupG > 0 {
		most = mostTbspByCup
	}
	if whole := math.Floor(g / tbspG); whole < most {
		for _, n := range []float64{whole, whole + 1} {
			for tsp := range 3 {
				try(measured{tbsp: n, tsp: float64(tsp)})
				if n <= fewTbsp {
					try(measured{tbsp: n, tsp: float64(tsp) + 0.5})
				}
			}
		}
	}
	for tsp := range 3 {
		for _, part := range tspParts {
			try(measured{tsp: float64(tsp) + part})
		}
	}
	if !found { // a spoonful without a cup's weight, and more than eight of it
		best = measured{tbsp: math.Round(g / tbspG)}
		best.g = best.tbsp * tbspG
	}
	off := 100 * (best.g - g) / g
	return Household{Text: best.text(d.Packing, off), ErrorPct: off}, true
}

// better says whether m measures g out more sensibly than other: near enough with fewer terms, or else nearer.
func (m measured) better(other measured, g float64) bool {
	a, b := 100*math.Abs(m.g-g)/g, 100*math.Abs(other.g-g)/g
	near, otherNear := a <= m.closeEnough(), b <= other.closeEnough()
	if near && otherNear && m.terms() != other.terms() {
		return m.terms() < other.terms()
	}
	if near != otherNear {
		return near
	}
	return a < b
}

func (m measured) closeEnough() float64 {
	if m.onlyCups() {
		return closeEnoughCupPct
	}
	return closeEnoughPct
}

func (m measured) onlyCups() bool { return m.cups > 0 && m.tbsp == 0 && m.tsp == 0 }

// text tells it, with what it is off where that matters.
func (m measured) text(packing string, offPct float64) string {
	b := make([]byte, 0, 48)
	if m.onlyCups() && math.Abs(offPct) > closeEnoughPct && math.Abs(offPct) <= tellOffPct {
		if offPct > 0 {
			b = append(b, "a scant "...)
		} else {
			b = append(b, "a generous "...)
		}
	}
	said := false
	add := func(n float64, one, many string) {
		if n == 0 {
			return
		}
		if m.terms() > 1 && said {
			b = append(b, " + "...)
		}
		said = true
		if n > 1 {
			one = many
		}
		b = append(append(appendFraction(b, n), ' '), one...)
	}
	add(m.cups, "cup", "cups")
	if m.cups > 0 && packing != "" {
		b = append(append(b, ' '), packing...)
	}
	add(m.tbsp, "tbsp", "tbsp")
	add(m.tsp, "tsp", "tsp")
	if math.Abs(offPct) > tellOffPct {
		b = append(b, " ("...)
		if offPct > 0 {
			b = append(b, '+')
		}
		b = append(strconv.AppendFloat(b, offPct, 'f', 0, 64), " %)"...)
	}
	return string(b)
}

// Fraction writes a number as cooks do: 1 1/2, 2/3.
func Fraction(x float64) string { return string(appendFraction(make([]byte, 0, 12), x)) }

func appendFraction(b []byte, x float64) []byte {
	whole := math.Floor(x + 1e-9)
	var part string
	switch math.Round(100 * (x - whole)) {
	case 25:
		part = "1/4"
	case 33:
		part = "1/3"
	case 50:
		part = "1/2"
	case 67:
		part = "2/3"
	case 75:
		part = "3/4"
	default:
		return strconv.AppendFloat(b, x, 'f', -1, 64)
	}
	if whole != 0 {
		b = append(strconv.AppendFloat(b, whole, 'f', 0, 64), ' ')
	}
	return append(b, part...)
}
