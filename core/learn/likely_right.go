package learn

import (
	"math"
	"slices"

	"mabbin/core/bake"
)

// window is what decides about a bake while somebody looks at it, in every oven: a part of its surface.
type window struct {
	minute  []float64 // that are looked at
	colour  []patch   // ln of how much the top has browned by then
	fruit   []patch   // ln of the fruit's minutes
	steam   []patch   // ln of what has steamed off, g
	met     patch     // min; see bake.Window
	lost    patch
	colours [2]float64 // ln of the browning that a top needs, and that it may have
	tender  float64    // ln of the minutes that the fruit needs
	aim     float64    // ln of the browning at which a baker takes it out
}

// needs takes down what a plan asks of top and fruit.
func (w *window) needs(q *bake.PlanRequest, planned float64) {
	w.aim = math.Log(max(leastClock, browned(min(goldenAim, planned))))
	least, most := q.TopLimits()
	w.colours = [2]float64{math.Log(max(leastClock, browned(least))), math.Log(browned(most))}
	if least == 0 {
		w.colours[0] = math.Inf(-1)
	}
	if math.IsInf(most, 1) {
		w.colours[1] = most
	}
	w.tender = math.Log(max(leastClock, q.TenderMin))
}

// put takes down how it went in one oven of the grid.
func (w *window) put(i, j int, seen *bake.Window) {
	if w.minute == nil {
		w.minute = slices.Clone(seen.Minute[:])
		n := len(w.minute)
		w.colour, w.fruit, w.steam = make([]patch, n), make([]patch, n), make([]patch, n)
	}
	for k := range w.minute {
		w.colour[k].v[i][j] = math.Log(max(leastClock, browned(seen.Colour[k])))
		w.fruit[k].v[i][j] = math.Log(max(leastClock, seen.Fruit[k]))
		w.steam[k].v[i][j] = math.Log(max(leastSteam, seen.SteamG[k]))
	}
	w.met.v[i][j], w.lost.v[i][j] = seen.MetMin, seen.LostMin
}

func (w *window) done() {
	for k := range w.minute {
		w.colour[k].of(surfaceOffsetsC[:], surfaceLnHeat[:])
		w.fruit[k].of(surfaceOffsetsC[:], surfaceLnHeat[:])
		w.steam[k].of(surfaceOffsetsC[:], surfaceLnHeat[:])
	}
	w.met.of(surfaceOffsetsC[:], surfaceLnHeat[:])
	w.lost.of(surfaceOffsetsC[:], surfaceLnHeat[:])
}

// The ovens that a chance is summed over: so many standard deviations either way, in such steps. Working figures.
const (
	ovensReach = 3.0
	ovensEvery = 0.25
	heatsEvery = 0.75
)

// likelyRight is the chance that some minute, from when the plan says to look to a few past its end, meets everything:
// bakers look, and bake on. By the joint normal of what is thought of the bake: summed over its ovens, and in each by
// what colour and softness then may be.
func (v *outlook) likelyRight() float64 {
	d := v.drivers(v.mean, v.own)
	shares := v.shares(v.mean)
	gradient := func(driver int) []float64 {
		var of drivers
		of[driver] = 1
		return v.by(of, shares)
	}
	oven, heat := gradient(byOven), gradient(byHeat)
	colour := newOnOven(&v.cov, gradient(byColour), oven, heat)
	soft := newOnOven(&v.cov, gradient(bySoftness), oven, heat)
	ovenOnHeat := newLine(&v.cov, heat, oven)
	sum, weights := 0.0, 0.0
	for zh := -ovensReach; zh <= ovensReach; zh += heatsEvery {
		h := zh * ovenOnHeat.sdX
		for zo := -ovensReach; zo <= ovensReach; zo += ovensEvery {
			o := ovenOnHeat.slope*h + zo*ovenOnHeat.sd
			weight := math.Exp(-(zh*zh + zo*zo) / 2)
			sum += weight * v.surface.window.chance(d[byOven]+o, d[byHeat]+h,
				colour.at(d[byColour], o, h), soft.at(d[bySoftness], o, h))
			weights += weight
		}
	}
	return sum / weights
}

// normal is a figure that is not known for certain.
type normal struct{ mean, sd float64 }

// between is the chance that it lies between two borders.
func (n normal) between(lo, hi float64) float64 {
	if n.sd == 0 {
		if n.mean >= lo && n.mean <= hi {
			return 1
		}
		return 0
	}
	return max(0, phi((hi-n.mean)/n.sd)-phi((lo-n.mean)/n.sd))
}

// line is how one figure goes with another.
type line struct{ slope, sdX, sd float64 }

func newLine(cov *matrix, x, y []float64) line {
	xx, yy, xy := cov.quadratic(x), cov.quadratic(y), dot(y, cov.times(x))
	l := line{sdX: math.Sqrt(max(0, xx)), sd: math.Sqrt(max(0, yy))}
	if xx > 0 {
		l.slope = xy / xx
		l.sd = math.Sqrt(max(0, yy-xy*xy/xx))
	}
	return l
}

// onOven is how a driver goes with the oven's two figures, and how sure it is where those are known.
type onOven struct{ byOven, byHeat, sd float64 }

func newOnOven(cov *matrix, driver, oven, heat []float64) onOven {
	oo, hh, oh := cov.quadratic(oven), cov.quadratic(heat), dot(oven, cov.times(heat))
	reach := cov.times(driver)
	own, co, ch := dot(driver, reach), dot(oven, reach), dot(heat, reach)
	det := oo*hh - oh*oh
	switch {
	case det > 0:
		l := onOven{byOven: (co*hh - ch*oh) / det, byHeat: (ch*oo - co*oh) / det}
		l.sd = math.Sqrt(max(0, own-l.byOven*co-l.byHeat*ch))
		return l
	case oo > 0: // the heat is known: the oven alone
		return onOven{byOven: co / oo, sd: math.Sqrt(max(0, own-co*co/oo))}
	}
	return onOven{sd: math.Sqrt(max(0, own))}
}

// at is the driver about its mean, in an oven that is off by o and h.
func (l onOven) at(mean, o, h float64) normal { return normal{mean + l.byOven*o + l.byHeat*h, l.sd} }

// between is a figure of the window at a minute of it, in one oven.
func (w *window) between(p []patch, minute, oven, heat float64) float64 {
	k := 0
	for k < len(w.minute)-2 && minute > w.minute[k+1] {
		k++
	}
	x := 0.0
	if span := w.minute[k+1] - w.minute[k]; span > 0 {
		x = min(1, max(0, (minute-w.minute[k])/span))
	}
	a := p[k].at(oven, heat)
	return a + x*(p[k+1].at(oven, heat)-a)
}

// goldenAim is the colour at which a baker takes a dessert out that is done otherwise, unless its plan is paler.
const goldenAim = 0.9

// takenOut is the bake with these drivers as it is when a baker takes it out. The baker looks from when the plan says
// so, and waits a few minutes past its end for what is not done.
func (s *Surface) takenOut(d drivers) noticed {
	w := &s.window
	n := s.at(d)
	first, last := w.minute[0], w.minute[len(w.minute)-1]
	met := w.met.at(d[byOven], d[byHeat])
	out := min(last, max(first, met), max(first, w.lost.at(d[byOven], d[byHeat])))
	done := func(minute float64) bool {
		return w.between(w.fruit, minute, d[byOven], d[byHeat])+d[bySoftness] >= w.tender &&
			w.between(w.colour, minute, d[byOven], d[byHeat])+d[byColour] >= w.aim
	}
	for out < last && !done(out) {
		out = min(last, out+1)
	}
	n.fruit = w.between(w.fruit, out, d[byOven], d[byHeat]) + d[bySoftness]
	n.colour = math.Log(max(1e-6, colourAt(math.Exp(w.between(w.colour, out, d[byOven], d[byHeat])+d[byColour]))))
	steam := w.between(w.steam, out, d[byOven], d[byHeat]) + d[bySteam]
	n.score += s.score.at(s.steamShare(steam), d[byRelease]) - s.score.at(s.steamShare(n.ln[ofSteam]), d[byRelease])
	n.score = min(math.Log(mostScore), n.score)
	if met <= out {
		n.ln[ofSet] = 0
	}
	return n
}

// chance that some minute meets everything in one oven, by what colour and softness may be there: as the minutes go on,
// less of either is needed, and less of the colour is too much.
func (w *window) chance(oven, heat float64, colour, soft normal) float64 {
	met, lost := w.met.at(oven, heat), w.lost.at(oven, heat)
	first, last := max(met, w.minute[0]), min(lost, w.minute[len(w.minute)-1])
	if first > last {
		return 0
	}
	pBy := func(minute float64) (lo, hi, tender float64) {
		c := w.between(w.colour, minute, oven, heat)
		return w.colours[0] - c, w.colours[1] - c, w.tender - w.between(w.fruit, minute, oven, heat)
	}
	// at the last minute the least colour and softness do; a top that is darker was right sooner, if the fruit was
	lo, _, tender := pBy(last)
	_, hi, tenderFirst := pBy(first)
	all := soft.between(tenderFirst, math.Inf(1)) * colour.between(lo, hi)
	const parts = 4
	from := tenderFirst
	for i := 1; i <= parts; i++ { // fruit that is tender only on the way: the top has to be right from then on
		_, hiThen, then := pBy(first + (last-first)*float64(i)/parts)
		all += soft.between(max(tender, min(then, from)), from) * colour.between(lo, hiThen)
		from = min(from, then)
	}
	return min(1, all)
}
