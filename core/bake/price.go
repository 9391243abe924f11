package bake

import (
	"cmp"
	"math"

	"mabbin/core/balance"
	"mabbin/core/larder"
)

// The price of a plan, in minutes: what bakers do is cheapest. Working figures.
const (
	perKelvin  = 0.6 // from the usual oven
	perKelvin2 = 0.02
	perChange  = 12.0 // of a cover on the way
	aimColour  = 0.9
	perPaler   = 16.0 // a doubling of colour short of the aim, squared: bakers wait for colour
	perDarker  = 4.0  // a doubling past it, squared: they mind a little more of it less
	perPale    = 60.0
	perDark    = 30.0
	perBurnt   = 20.0
	hotterC    = 10.0 // the oven in which a top must not burn either
	perSoft    = 8.0  // of a base that is not crisp
	perMush    = 10.0
	mushFrom   = 0.8 // of the minutes until the fruit falls
	mushSpan   = 0.5 // from there
)

// aimColours are the colours that a baker may want, by the colour clock. Working figures.
var aimColours = map[string]float64{"pale": 0.65, "golden": aimColour, "deep": 1.25, "dark": 1.7}

// nearAim is the share of a brown colour that is wanted which a top needs.
const nearAim = 0.9

// darkerBy is how much darker than it is wanted a top may be before that has its price.
const darkerBy = 0.3

// The usual ovens of the styles, C. Working figures.
const (
	usualC       = 180.0 // crumbles, crisps, and what else is not reported
	usualCustard = 165.0
	usualBiscuit = 200.0
	usualPastry  = 190.0 // a lid or squares
	fanLessC     = 15.0  // with a fan
	// A small dish that is no custard takes a hotter oven: so much more below the second of these openings, cm2.
	smallMoreC   = 10.0
	smallFromCM2 = 250.0
	smallToCM2   = 150.0
)

// usualFor is the oven that bakers use for a dessert, C: the first that fits.
func usualFor(r balance.Request, t larder.Topping) float64 {
	switch {
	case r.Custard != nil:
		return usualCustard
	case t.Family == "biscuit":
		return usualBiscuit
	case t.Family == "pastry":
		return usualPastry
	}
	return cmp.Or(larder.StyleOf(r.Style).UsualHeatC, usualC)
}

// usualOvenC is the oven that bakers use for such a dessert, C.
func (q *PlanRequest) usualOvenC() float64 {
	c := q.UsualC
	if c == 0 {
		c = usualC
	}
	if q.Heating == "fan" {
		c -= fanLessC
	}
	if !q.Custard {
		opening := q.Bake.Dish.Measure().RimAreaCM2
		c += smallMoreC * min(1, max(0, (smallFromCM2-opening)/(smallFromCM2-smallToCM2)))
	}
	return c
}

// price of a course: each change of cover on the way; to start covered is none.
func (c course) price() float64 {
	if c.changes && c.before.Cover != c.after.Cover {
		return perChange
	}
	return 0
}

// price is what a plan costs before its clocks: its minutes, and how far its oven is from the usual one.
func (q *PlanRequest) price(c candidate, minute float64) float64 {
	d := math.Abs(c.ovenC - q.usualOvenC())
	return minute + c.course.price() + perKelvin*d + perKelvin2*d*d
}

// wants is what the clocks cost where they stand; hot is the colour in an oven that is hotter.
func (q *PlanRequest) wants(s clockState, hot float64) float64 {
	sum := perBurnt*max(0, hot-burntTop) + perMush*min(mushSpan, max(0, s.fruit/q.MushMin-mushFrom))
	if q.Bake.Base != nil {
		sum += perSoft * max(0, 1-s.base)
	}
	if q.Custard {
		return sum + max(0, s.hottest-custardDoneC)
	}
	if q.Bake.Topping == nil {
		return sum
	}
	aim := cmp.Or(q.AimColour, aimColour)
	l := math.Log2(max(s.colour, 0.02) / aim)
	perDoubling := perDarker
	if l < 0 {
		perDoubling = perPaler
	}
	return sum + perDoubling*l*l + perPale*max(
		0,
		paleBelow-s.colour,
	) + perDark*max(
		0,
		s.colour-max(goldenTo, aim+darkerBy),
	)
}

// priced is what a bake falls short by, and what it costs.
func (q *PlanRequest) priced(x *running) (short, price float64) {
	changes, minutes, hottest := 0.0, 0.0, math.Inf(-1)
	for i, s := range x.stages {
		if i > 0 && bareCover(s.Cover) != bareCover(x.stages[i-1].Cover) {
			changes++
		}
		minutes += s.Minutes
		hottest = max(hottest, s.OvenC)
	}
	s, hot := x.state(), x.c.colour[core]
	if hot >= watchColour {
		r := q.Bake
		r.OvenOffsetC += hotterC
		hot = bakeThrough(&r, x.stages).c.colour[core]
	}
	price = q.price(candidate{ovenC: hottest + q.Bake.OvenOffsetC}, minutes)
	return q.shortfalls(s).sum(), price + perChange*changes + q.wants(s, hot)
}

// bareCover is a cover by its name, none where it has none.
func bareCover(cover string) string {
	if cover == "none" {
		return ""
	}
	return cover
}
