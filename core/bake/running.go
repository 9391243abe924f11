package bake

// running is a simulation that can be copied.
type running struct {
	m     model
	c     clocks
	e     Events
	r     *Request
	stage Stage
	oven  oven
}

func begin(r *Request, s Stage, bare bool) *running {
	x := &running{r: r, stage: s, oven: ovenOf(*r, s)}
	of := *r
	of.Stages = []Stage{{AddTopping: bare}}
	x.m = *newModel(of)
	x.c = newClocks(*r, &x.m)
	x.m.exchange(x.oven, 0)
	x.c.look(&x.e, true)
	return x
}

func (x *running) fork() *running {
	y := *x
	y.c.m = &y.m
	return &y
}

// turn goes over to another stage.
func (x *running) turn(s Stage) {
	x.stage, x.oven = s, ovenOf(*x.r, s)
	x.c.enter(s)
}

// until goes on to a minute. It is false when the run is past every limit.
func (x *running) until(minute float64) bool {
	for x.c.now < minute*60-1e-6 {
		dt := min(x.oven.stride(), minute*60-x.c.now)
		x.m.step(x.oven, dt)
		x.c.tick(dt, x.stage)
		x.c.look(&x.e, false)
	}
	return x.c.colour[core] < tooFar
}

// replay bakes stages to their end.
func (q *PlanRequest) replay(r *Request, stages []Stage) *running {
	x := q.toLast(r, stages)
	x.until(x.c.now/60 + stages[len(stages)-1].Minutes)
	return x
}

// toLast bakes stages up to where the last one begins.
func (q *PlanRequest) toLast(r *Request, stages []Stage) *running {
	x := begin(r, stages[0], toppedLate(stages))
	minute := 0.0
	for i, s := range stages[1:] {
		minute += stages[i].Minutes
		x.until(minute)
		x.turn(s)
	}
	return x
}

func (x *running) state() clockState {
	s := clockState{
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
	}
	return s
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
