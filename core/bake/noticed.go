package bake

import (
	"math"

	"mabbin/core/filling"
)

// Observations is what somebody can notice of a bake. Events lie past its end too: the last stage in the oven bakes on.
type Observations struct {
	RimBubblesMin    float64
	MiddleBubblesMin float64
	CrossedMin       [len(CrossedC)]float64 // when the middle came to each of CrossedC
	End              End
	Window           Window
}

// Window is what decides about a bake in the minutes in which a baker looks and takes it out: from when the plan says
// to look to a few minutes past its end.
type Window struct {
	Minute  [windowPoints]float64
	Colour  [windowPoints]float64 // of the top, by its clock
	Fruit   [windowPoints]float64 // minutes at 100 C
	SteamG  [windowPoints]float64
	MetMin  float64 // when it is set, bubbles, and base and topping are baked; an hour past its end: later
	LostMin float64 // when base, custard or juice is past saving; long past the window: later
}

const windowPoints = 5

// PastPlanMin is how long past the end of its plan a baker waits for a dessert, min. A working figure.
const PastPlanMin = 8.0

// The faults that mend with time, and do so whatever the colour of the top and the softness of the fruit; and those
// that come with time.
const (
	mendsInTime = notSet | notBubbling | baseRaw | toppingRaw
	comesInTime = baseBurnt | curdled | juiceGone | fruitGone
)

// CrossedC are temperatures of the middle of the filling that a probe's curve is read at, C.
var CrossedC = [...]float64{40, 60, 80}

// ObservationsFor is how long a bake goes on past its end until all has happened, min; what has not by then is said to
// happen then.
const ObservationsFor = 240.0

// How long past its end it goes on for what has not been met, min, and how long past its window something is lost at
// the latest. A minute of the window is looked at as near as the third.
const (
	metFor     = 60.0
	lostFor    = 20.0
	windowNear = 0.5
)

// Observe bakes the request of a plan that Check finds nothing wrong with, whose baker looks from a minute on.
func (q PlanRequest) Observe(checkFrom float64) Observations {
	r := q.Bake
	last := max(0, lastInOven(r.Stages))
	x := startPlan(&r, r.Stages[0], toppedLate(r.Stages))
	out := minutesOf(r.Stages[:last+1])
	n := Observations{Window: Window{MetMin: out + metFor, LostMin: out + PastPlanMin + lostFor}}
	for i := range n.Window.Minute {
		span := out + PastPlanMin - checkFrom
		n.Window.Minute[i] = math.Round(checkFrom + span*float64(i)/(windowPoints-1))
	}
	end := 0.0
	for i, s := range r.Stages[:last+1] {
		if i > 0 {
			x.turn(s)
		}
		end += s.Minutes
		n.follow(&q, x, end)
	}
	on := x.fork()
	for i, s := range r.Stages[last+1:] {
		x.turn(s)
		x.until(end + minutesOf(r.Stages[last+1:last+2+i]))
	}
	n.End = x.end()
	until := func(m float64) bool { // all has happened
		return n.all(on) && m >= end+PastPlanMin && m >= min(n.Window.MetMin, end+metFor)
	}
	for m := end; !until(m) && m < end+ObservationsFor; {
		m++
		n.follow(&q, on, m)
	}
	latest := end + ObservationsFor
	n.RimBubblesMin, n.MiddleBubblesMin = or(on.e.RimBubbles, latest), or(on.e.MiddleBubbles, latest)
	for i := range n.CrossedMin {
		if n.CrossedMin[i] == 0 {
			n.CrossedMin[i] = latest
		}
	}
	return n
}

// follow goes on to a minute and notes what the middle comes to on the way.
func (n *Observations) follow(q *PlanRequest, x *running, minute float64) {
	for x.c.now < minute*60-1e-6 {
		was, before := x.c.now/60, x.m.middleC()
		x.until(min(minute, was+1))
		now, c := x.c.now/60, x.m.middleC()
		for i, level := range CrossedC {
			if n.CrossedMin[i] == 0 && c >= level {
				share := 1.0
				if before < level {
					share = (level - before) / (c - before)
				}
				n.CrossedMin[i] = max(1e-3, was+share*(now-was))
			}
		}
		n.Window.note(q, x)
	}
}

// note takes down a minute of the window.
func (w *Window) note(q *PlanRequest, x *running) {
	minute, state := x.c.now/60, x.state()
	unmet := q.unmet(state)
	if unmet&mendsInTime == 0 {
		w.MetMin = min(w.MetMin, minute)
	}
	if unmet&comesInTime != 0 {
		w.LostMin = min(w.LostMin, minute)
	}
	for i, m := range w.Minute {
		if math.Abs(m-minute) < windowNear {
			w.Colour[i], w.Fruit[i], w.SteamG[i] = state.colour, state.fruit, state.steamG
		}
	}
}

func (n *Observations) all(x *running) bool {
	for _, m := range n.CrossedMin {
		if m == 0 {
			return false
		}
	}
	return x.e.RimBubbles != nil && x.e.MiddleBubbles != nil
}

// Borders are where one word of each scale ends and the next begins, by the clocks of a dessert: the set score, minutes
// of the fruit at 100 C, the colour, the base.
type Borders struct {
	Juice, Fruit, Top, Base []float64
}

// bordersOf are the borders of fruit, top and base: of fruit that is tender and falls at so many minutes, and of a
// topping that went on late or at the start.
func bordersOf(tender, mush float64, late bool) Borders {
	return Borders{
		Fruit: []float64{hardBelow * tender, tender, mush},
		Top:   []float64{paleLimit(late), goldenTo, burntTop},
		Base:  []float64{bakedFrom, crispFrom, burntOver},
	}
}

// Borders of a dessert's words.
func (a *DessertAnswer) Borders() Borders {
	b := bordersOf(a.Tender, a.Mush, toppedLate(a.Plan.Stages))
	for _, s := range filling.Scale[:len(filling.Scale)-1] {
		b.Juice = append(b.Juice, s.UpTo)
	}
	return b
}
