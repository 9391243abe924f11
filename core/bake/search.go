package bake

import (
	"context"
	"math"
	"sync"
)

// The grid of the search, and what a plan costs. Working figures.
const (
	coolestC, hottestC = 150.0, 220.0
	fineC, coarseC     = 5.0, 10.0
	coverEvery         = 5.0 // min
	longest            = 120.0
	leastStage         = 5.0 // nobody changes a cover for less
	aimColour          = 1.05
	perCover           = 8.0
	colourWeight       = 12.0
	perDegree2         = 0.004
	usualC             = 180.0
	raceFinishers      = 12   // plans whose neighbours are looked at
	planStepS          = 20.0 // a little coarser than a bake that is shown
	standMin           = 3.0
	hopeless           = 40.0 // dearer than the best by so much: its neighbours can't make that good
)

// course is how the stages of a plan are laid out: what they are like until a change, and from it. Temperatures are
// differences from the plan's.
type course struct {
	before, after Stage
	changes       bool
	from, to      float64 // where the change may lie, as shares of the bake; 0 and 0: anywhere
}

// cost of a course beside its minutes.
func (c course) cost() float64 {
	if c.before.Cover != "" || c.changes && c.after.Cover != "" {
		return perCover
	}
	return 0
}

// candidate is one way to bake, ended at the best minute.
type candidate struct {
	course
	ovenC  float64
	change float64 // min
	at     clockState
	price  float64
	unmet  int
}

func (c candidate) better(d candidate) bool {
	if c.unmet != d.unmet {
		return c.unmet < d.unmet
	}
	return c.price < d.price
}

// courses are those that are tried for a dessert: open, foil first, foil last; a crust that is pushed under and a
// topping that goes on late have their own.
func (q *PlanRequest) courses() []course {
	foil := Stage{Cover: "foil"}
	switch {
	case q.PushUnder:
		pushed := Stage{PushUnder: true}
		return []course{
			{after: pushed, changes: true, from: 0.5, to: 0.8},
			{before: foil, after: pushed, changes: true, from: 0.5, to: 0.8},
		}
	case q.LateTopping:
		on := Stage{AddTopping: true}
		return []course{{after: on, changes: true}, {before: foil, after: on, changes: true}}
	}
	return []course{{}, {before: foil, changes: true}, {after: foil, changes: true}}
}

// search scans the grid coarsely, and then finely about the best.
func (q PlanRequest) search(ctx context.Context) (candidate, error) {
	var temps []float64
	for c := coolestC; c <= hottestC; c += coarseC {
		temps = append(temps, c)
	}
	best, err := q.race(ctx, temps, q.courses(), 2*coverEvery)
	if err != nil {
		return best, err
	}
	return q.race(ctx, []float64{best.ovenC - fineC, best.ovenC, best.ovenC + fineC}, q.courses(), coverEvery)
}

// race tries every course at some temperatures, and picks the one that also stands an oven that is off. It ends with
// ctx.
func (q PlanRequest) race(ctx context.Context, temps []float64, courses []course, every float64) (candidate, error) {
	all := make([][]candidate, len(temps))
	limit := &limit{best: math.Inf(1)}
	var wait sync.WaitGroup
	for i, c := range temps {
		if c < coolestC || c > hottestC {
			continue
		}
		wait.Go(func() {
			for _, way := range courses {
				if ctx.Err() != nil {
					return
				}
				all[i] = q.follow(all[i], c, way, every, limit)
			}
		})
	}
	wait.Wait()
	if err := ctx.Err(); err != nil {
		return candidate{}, err
	}
	var flat []candidate
	for _, some := range all {
		flat = append(flat, some...)
	}
	return q.sturdiest(flat), nil
}

// sturdiest is the best, with what its neighbours cost: the same plan in an oven that is off either way.
func (q *PlanRequest) sturdiest(flat []candidate) candidate {
	best, found := candidate{}, false
	for range min(raceFinishers, len(flat)) {
		least := 0
		for i, c := range flat {
			if c.better(flat[least]) {
				least = i
			}
		}
		c := flat[least]
		flat[least] = flat[len(flat)-1]
		flat = flat[:len(flat)-1]
		if found && (c.unmet > best.unmet || c.price >= best.price) {
			break // the neighbours only add
		}
		c.price += (q.colourOf(c, -offC) + q.colourOf(c, offC)) / 2
		if !found || c.better(best) {
			best, found = c, true
		}
	}
	return best
}

func colourCost(colour float64) float64 {
	l := math.Log2(max(colour, 0.02) / aimColour)
	return colourWeight * l * l
}

// colourOf is the colour term of a plan in an oven that is off by some degrees.
func (q *PlanRequest) colourOf(c candidate, off float64) float64 {
	r := q.Bake
	r.OvenOffsetC += off
	x := begin(&r, q.stage(c.ovenC, c.before), c.after.AddTopping)
	if c.changes {
		x.until(min(c.change, c.at.minute))
		x.turn(q.stage(c.ovenC, c.after))
	}
	x.until(c.at.minute)
	return colourCost(x.c.colour[core])
}

// stands says whether the plan on the screen stays: it meets as much, and the best is not better by more than three
// minutes.
func (q *PlanRequest) stands(best candidate) bool {
	if len(q.Standing) == 0 {
		return false
	}
	price := 0.0
	for _, s := range q.Standing {
		if q.stage(0, Stage{}).Heating != s.Heating {
			return false // of another oven
		}
		price += s.Minutes
	}
	c := candidate{ovenC: q.Standing[0].OvenC}
	for _, s := range q.Standing {
		if s.Cover != "none" && s.Cover != "" {
			c.before.Cover = s.Cover
		}
	}
	price = q.price(c, price)
	for off, share := range map[float64]float64{0: 1, -offC: 0.5, offC: 0.5} {
		r := q.Bake
		r.OvenOffsetC += off
		r.Stages = q.Standing
		a := run(r)
		if off == 0 && q.unmet(a.state()).count() > best.unmet {
			return false
		}
		price += share * colourCost(a.End.Colour)
	}
	return price <= best.price+standMin
}

// limit is the price of the best plan so far that meets everything, shared by those that race.
type limit struct {
	sync.Mutex
	best float64
}

func (l *limit) lower(price float64) {
	l.Lock()
	l.best = min(l.best, price)
	l.Unlock()
}

func (l *limit) passed(price float64) bool {
	l.Lock()
	defer l.Unlock()
	return price > l.best+hopeless
}

// follow tries one course at one temperature, with every time of its change. What they have in common is run once: a
// run is forked where it changes.
func (q *PlanRequest) follow(out []candidate, ovenC float64, way course, every float64, l *limit) []candidate {
	c := candidate{course: way, ovenC: ovenC}
	trunk := begin(&q.Bake, q.stage(ovenC, way.before), way.after.AddTopping)
	if !way.changes {
		return append(out, q.goOn(trunk, c, l))
	}
	for c.change = every; c.change < longest-every; c.change += every {
		if !trunk.until(c.change) || l.passed(q.price(c, c.change)) {
			break
		}
		branch := trunk.fork()
		branch.turn(q.stage(ovenC, way.after))
		out = append(out, q.goOn(branch, c, l))
	}
	return out
}

// price is what a candidate costs before its colour.
func (q *PlanRequest) price(c candidate, minute float64) float64 {
	return minute + c.cost() + perDegree2*(c.ovenC-usualC)*(c.ovenC-usualC)
}

// stage is a course's stage at a plan's temperature.
func (q *PlanRequest) stage(ovenC float64, s Stage) Stage {
	s.OvenC += ovenC
	if s.Heating == "" {
		s.Heating = q.Heating
	}
	if s.Cover == "" {
		s.Cover = "none"
	}
	return s
}

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
	x.m.enter(s)
}

// until goes on to a minute. It is false when the run is past every limit.
func (x *running) until(minute float64) bool {
	for x.c.now < minute*60-1e-6 {
		dt := min(x.m.stride(x.oven, planStepS), minute*60-x.c.now)
		x.m.step(x.oven, dt)
		x.c.tick(dt, x.stage)
		x.c.look(&x.e, false)
	}
	return x.c.colour[core] < 2*darkOver
}

// goOn runs a candidate minute by minute to where it is past its limits, and ends it at its best.
func (q *PlanRequest) goOn(x *running, c candidate, l *limit) candidate {
	c.unmet, c.price = len(faultWords)+1, math.Inf(1)
	first := 1.0
	if c.changes {
		first = c.change + leastStage
	}
	for minute := first; minute <= longest; minute++ {
		going := x.until(minute)
		base := q.price(c, minute)
		if share := c.change / minute; c.to > 0 && (share < c.from || share > c.to) {
			if share < c.from || !going {
				break
			}
			continue
		}
		s := x.state()
		now := q.unmet(s)
		unmet, price := now.count(), base+colourCost(s.colour)
		if unmet < c.unmet || unmet == c.unmet && price < c.price {
			c.at, c.price, c.unmet = s, price, unmet
			if unmet == 0 {
				l.lower(price)
			}
		}
		if !going || now.irreversible().count() >= max(1, c.unmet) || l.passed(base) {
			break
		}
	}
	return c
}

// stages writes a candidate out.
func (q *PlanRequest) stages(c candidate) []Stage {
	first, then := q.stage(c.ovenC, c.before), q.stage(c.ovenC, c.after)
	first.Minutes = c.at.minute
	if !c.changes || c.change <= 0 || c.change >= c.at.minute {
		return []Stage{first}
	}
	first.Minutes, then.Minutes = c.change, c.at.minute-c.change
	return []Stage{first, then}
}
