package bake

import "mabbin/core/filling"

// Observations is what somebody can notice of a bake. Events lie past its end too: the last stage in the oven bakes on.
type Observations struct {
	RimBubblesMin    float64
	MiddleBubblesMin float64
	CrossedMin       [len(CrossedC)]float64 // when the middle came to each of CrossedC
	End              End
}

// CrossedC are temperatures of the middle of the filling that a probe's curve is read at, C.
var CrossedC = [...]float64{40, 60, 80}

// ObservationsFor is how long a bake goes on past its end until all has happened, min; what has not by then is said to
// happen then.
const ObservationsFor = 240.0

// Observe bakes a request that Check finds nothing wrong with.
func Observe(r Request) Observations {
	last := 0 // stage in the oven
	for i, s := range r.Stages {
		if s.InOven() {
			last = i
		}
	}
	x := startPlan(&r, r.Stages[0], toppedLate(r.Stages))
	var n Observations
	end := 0.0
	for i, s := range r.Stages[:last+1] {
		if i > 0 {
			x.turn(s)
		}
		end += s.Minutes
		n.follow(x, end)
	}
	on := x.fork()
	for i, s := range r.Stages[last+1:] {
		x.turn(s)
		x.until(end + minutesOf(r.Stages[last+1:last+2+i]))
	}
	n.End = x.end()
	for m := end; !n.all(on) && m < end+ObservationsFor; {
		m++
		n.follow(on, m)
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
func (n *Observations) follow(x *running, minute float64) {
	for x.c.now < minute*60-1e-6 {
		was, before := x.c.now/60, x.m.t[core][x.m.fillAt+middleCell]
		x.until(min(minute, was+1))
		now, c := x.c.now/60, x.m.t[core][x.m.fillAt+middleCell]
		for i, level := range CrossedC {
			if n.CrossedMin[i] == 0 && c >= level {
				share := 1.0
				if before < level {
					share = (level - before) / (c - before)
				}
				n.CrossedMin[i] = max(1e-3, was+share*(now-was))
			}
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
