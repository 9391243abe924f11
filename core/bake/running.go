package bake

import (
	"math"
	"slices"
)

// running is a simulation under way. It can be copied.
type running struct {
	m      *model
	c      clocks
	e      Events
	r      *Request
	stages []Stage // that it was baked through, by bakeThrough
	stage  Stage
	oven   oven
	curves *Curves // nil: they are not kept
}

// startPlan puts a request that is known to be good, or one of its neighbours, into the oven of its first stage; bare
// says that the topping goes on in a later one.
func startPlan(r *Request, s Stage, bare bool) *running {
	x := &running{r: r, stage: s, oven: ovenOf(*r, s)}
	of := *r
	of.Stages = []Stage{{AddTopping: bare}}
	x.m = newModel(of)
	x.c = newClocks(*r, x.m)
	x.m.exchange(x.oven, 0) // the face has no mass: it is what the oven makes it, from the first moment
	x.c.look(&x.e, true)
	x.c.enter(s)
	return x
}

// fork is a copy, which goes its own way.
func (x *running) fork() *running {
	y, m := *x, *x.m
	y.m, y.c.m = &m, &m
	if x.curves != nil {
		own := x.curves.clone()
		y.curves = &own
	}
	return &y
}

// turn goes over to another stage.
func (x *running) turn(s Stage) {
	x.stage, x.oven = s, ovenOf(*x.r, s)
	x.c.enter(s)
}

// until goes on to a minute, in steps that end on whole ones: the curves have those. It is false when the run is past
// every limit.
func (x *running) until(minute float64) bool {
	end := minute * 60
	for end-x.c.now > 1e-6 {
		whole := 60 * (math.Floor(x.c.now/60+1e-6) + 1)
		dt := min(x.oven.stride(), end-x.c.now, whole-x.c.now)
		x.m.step(x.oven, dt)
		x.c.tick(dt, x.stage)
		if x.oven.oven {
			x.c.steam = x.m.steam
		}
		x.c.look(&x.e, false)
		if x.curves != nil && (whole-x.c.now < 1e-6 || end-x.c.now < 1e-6) {
			x.curves.mark(&x.c, x.c.now/60)
		}
	}
	return x.c.colour[core] < tooFar
}

// bakeThrough bakes stages to their end, and keeps the curves.
func bakeThrough(r *Request, stages []Stage) *running {
	x := startPlan(r, stages[0], toppedLate(stages))
	x.stages = stages
	curves := newCurves(int(minutesOf(stages)) + 2 + len(stages))
	curves.mark(&x.c, 0)
	x.curves = &curves
	x.throughTo(stages)
	x.until(minutesOf(stages))
	return x
}

// toLast bakes stages up to where the last one begins.
func toLast(r *Request, stages []Stage) *running {
	x := startPlan(r, stages[0], toppedLate(stages))
	x.throughTo(stages)
	return x
}

// throughTo goes on from the first of some stages to where the last one begins.
func (x *running) throughTo(stages []Stage) {
	for i, s := range stages[1:] {
		x.until(minutesOf(stages[:i+1]))
		x.turn(s)
	}
}

// answer is how it went, so far as it was baked.
func (x *running) answer() *Answer {
	return &Answer{BoilingPointC: x.m.boil, Events: x.e, End: x.end(), Curves: *x.curves}
}

func (x *running) state() clockState {
	return clockState{
		minute:    x.c.now / 60,
		fruit:     x.c.fruit,
		colour:    x.c.colour[core],
		rimColour: x.c.colour[rim],
		base:      x.c.base,
		set:       x.c.setShare(),
		hottest:   x.c.hottest,
		coldest:   x.c.was.coldest,
		topping:   x.c.was.topping,
		bubbles:   x.e.MiddleBubbles != nil,
		through:   x.e.ToppingThrough != nil,
		late:      x.c.late,
		steamG:    x.r.steamedOffG(x.c.steam),
	}
}

func (x *running) end() End {
	return End{
		x.c.fruit,
		x.c.colour[core],
		x.c.colour[rim],
		x.c.base,
		x.c.setShare(),
		x.r.steamedOffG(x.m.steam),
		x.m.driedOff * gramsPerKg,
	}
}

// lists are the curves one by one.
func (v *Curves) lists() []*[]float64 {
	return []*[]float64{
		&v.Minute, &v.MiddleC, &v.ColdestC, &v.RimC, &v.SurfaceC, &v.FloorC, &v.Fruit, &v.Colour, &v.Base,
	}
}

func newCurves(n int) (v Curves) {
	for _, list := range v.lists() {
		*list = make([]float64, 0, n)
	}
	return v
}

func (v Curves) clone() Curves {
	for _, list := range v.lists() {
		*list = slices.Clone(*list)
	}
	return v
}

func (v *Curves) mark(c *clocks, minute float64) {
	if n := len(v.Minute); n > 0 && minute-v.Minute[n-1] < 1e-6 {
		return
	}
	m := c.m
	v.Minute = append(v.Minute, minute)
	v.MiddleC = append(v.MiddleC, m.middleC())
	v.ColdestC = append(v.ColdestC, m.coldest(core, m.fillAt, m.topAt))
	v.RimC = append(v.RimC, m.t[rim][m.fillAt+middleCell])
	v.SurfaceC = append(v.SurfaceC, m.face[core])
	v.FloorC = append(v.FloorC, m.t[core][0])
	v.Fruit = append(v.Fruit, c.fruit)
	v.Colour = append(v.Colour, c.colour[core])
	v.Base = append(v.Base, c.base)
}
