package bake

import (
	"math"
	"slices"

	"mabbin/core/message"
	kiln "mabbin/core/oven"
)

// Continuation is one way to bake on from where a bake stands.
type Continuation struct {
	Stages  []Stage           `json:"stages"`  // what was done, and what is left
	Minutes float64           `json:"minutes"` // from now
	End     End               `json:"end"`
	Unmet   []message.Message `json:"unmet"`
}

// LastStanding is the longest that a bake is followed from where it stands, min.
const LastStanding = 90.0

// Way is how to bake on: a stage, and whether it goes under foil as soon as it is golden.
type Way struct {
	Stage    Stage
	ThenFoil bool
}

// mostOff is how many times faster or more slowly a top may brown than the model has it. A working figure.
const mostOff = 3.0

// BakeOn goes on from stages that are behind a bake, by each of several ways, until it meets every clock or as many
// as that way can. seen is what the top looks like, by the colour clock, where somebody has looked; 0: as the model
// has it.
func (q PlanRequest) BakeOn(done []Stage, ways []Way, seen float64) []Continuation {
	q = q.usual()
	out := make([]Continuation, 0, len(ways))
	for _, way := range ways {
		x := bakeThrough(&q.Bake, done)
		if seen > 0 { // it browns faster or more slowly than was thought
			x.m.brown *= min(mostOff, max(1/mostOff, seen/max(x.c.colour[core], 0.02)))
			x.c.colour[core] = seen
		}
		from := x.c.now / 60
		s, before := way.Stage, done
		s.Minutes = 0
		x.turn(s)
		var best Continuation
		least, price := faultSet(0), math.Inf(1)
		for minute := 1.0; minute <= LastStanding; minute++ {
			x.until(from + minute)
			s.Minutes++
			if way.ThenFoil && x.c.colour[core] >= 1 && s.Cover != "foil" {
				before = append(slices.Clone(before), s)
				s.Minutes, s.Cover = 0, "foil"
				x.turn(s)
				continue
			}
			now := q.unmet(x.state())
			p := minute + q.wants(x.state(), x.c.colour[core])
			if best.Stages == nil || now.count() < least.count() || now.count() == least.count() && p < price {
				best = Continuation{append(slices.Clone(before), s), minute, x.end(), q.words(now)}
				least, price = now, p
			}
			if now.irreversible().count() >= max(1, least.count()) {
				break
			}
		}
		out = append(out, best)
	}
	return out
}

// NineInTen is within how many standard deviations either way nine of ten lie.
const NineInTen = 1.6449

// Point is one reading of a probe.
type Point struct {
	Minute float64 `json:"minute"`
	C      float64 `json:"c"`
}

// MiddleAt is the middle of the filling at a minute, between the points of its curve.
func (v Curves) MiddleAt(minute float64) float64 {
	i, found := slices.BinarySearch(v.Minute, minute)
	switch {
	case i >= len(v.Minute):
		return v.MiddleC[len(v.MiddleC)-1]
	case found || i == 0:
		return v.MiddleC[i]
	}
	x := (minute - v.Minute[i-1]) / (v.Minute[i] - v.Minute[i-1])
	return v.MiddleC[i-1] + x*(v.MiddleC[i]-v.MiddleC[i-1])
}

// offBy is how far the oven may be off.
func (q PlanRequest) offBy() float64 {
	if q.OffByC == 0 {
		return kiln.UnknownC
	}
	return q.OffByC
}

// usual fills in what may be left out.
func (q PlanRequest) usual() PlanRequest {
	if q.TenderMin == 0 {
		q.TenderMin = 6
	}
	if q.MushMin == 0 {
		q.MushMin = 40
	}
	return q
}

// Finish follows stages and says when to end the last one, from a minute on: where it meets every clock with the
// least, or as many as it can.
func (q PlanRequest) Finish(stages []Stage, from float64) (minute float64, unmet []message.Message) {
	q = q.usual()
	x := toLast(&q.Bake, stages)
	begun := x.c.now / 60
	least, price := faultSet(0), math.Inf(1)
	for m := math.Ceil(max(from, begun+1)); m <= max(from, begun)+LastStanding; m++ {
		x.until(m)
		now := q.unmet(x.state())
		p := m + q.wants(x.state(), x.c.colour[core])
		if minute == 0 || now.count() < least.count() || now.count() == least.count() && p < price {
			minute, least, price = m, now, p
		}
		if now.irreversible().count() >= max(1, least.count()) || least == 0 && m > price {
			break
		}
	}
	return minute, q.words(least)
}
