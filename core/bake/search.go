package bake

import (
	"context"
	"math"
	"slices"
	"sync"

	"mabbin/core/larder"
)

// The grid of the search: true temperatures about the usual oven, the courses, and their ends. Working figures.
const (
	reachC      = 25.0 // either side of the usual oven
	everyC      = 5.0
	coverEvery  = 5.0  // min
	coarseEvery = 20.0 // min, of a coarse look
	// The search is coarser for bakes that are longer than these, min, and tries temperatures so far apart, C.
	longBake     = 60.0
	veryLongBake = 90.0
	longEveryC   = 10.0
	endEvery     = 1.0 / 3
	wholeMinute  = 1 - 1e-6
	longest      = 180.0 // min
	afterMet     = 25.0  // min that are looked at after all is met
	leastStage   = 5.0   // min: nobody changes a cover for less
	dialEvery    = 5.0   // C

	foilFirstMost = 0.4  // of the bake
	foilLastMost  = 15.0 // min
	foilFrom      = 0.8  // of golden: put on over a top that has its colour
	pushFrom      = 0.5  // of the bake, a crust is pushed under
	pushTo        = 0.8

	coldStartMin = 12.0 // what would crack, from the freezer
	coldStartC   = 100.0
	coldDishC    = -3.0 // of a dish that was frozen filled

	standMin    = 3.0 // a plan on the screen stays unless another is better by more
	watchColour = 1.2 // below this a top is not burnt in an oven ten kelvins hotter
	tooFar      = 2.9 // colour: nothing is left to brown
	sameShort   = 1e-6
	noPlan      = 1e9
	workers     = 2
)

// course is how the stages of a plan are put out: what they are like until a change, and from it. Temperatures are
// differences from the plan's.
type course struct {
	before, after Stage
	changes       bool
	from, to      float64 // where the change lies, as shares of the bake; 0 and 0: anywhere
	lastMost      float64 // min that the second stage may take; 0: any
	fromColour    float64 // that the top has at the change, at least
}

// candidate is one way to bake, ended at its best.
type candidate struct {
	course
	ovenC  float64 // of the oven, whatever its dial says
	change float64 // min
	at     clockState
	short  float64 // the sum of what it falls short by
	price  float64
}

func (c candidate) better(d candidate) bool {
	if math.Abs(c.short-d.short) > sameShort {
		return c.short < d.short
	}
	return c.price < d.price
}

// courses are those that are tried for a dessert: open, foil first, foil last; a crust that is pushed under and a
// topping that goes on late have their own.
func (q *PlanRequest) courses() []course {
	foil := Stage{Cover: foilCover}
	switch {
	case q.PushUnder:
		return []course{{after: Stage{PushUnder: true}, changes: true, from: pushFrom, to: pushTo}}
	case q.LateMin > 0:
		return []course{{after: Stage{AddTopping: true}, changes: true, lastMost: q.LateMin}}
	}
	if q.OverCoals {
		return []course{{}}
	}
	return []course{
		{},
		{before: foil, changes: true, to: foilFirstMost},
		{after: foil, changes: true, lastMost: foilLastMost, fromColour: foilFrom},
	}
}

const foilCover = "foil"

// search looks at the usual oven first, and from there outward.
func (q PlanRequest) search(ctx context.Context) (candidate, error) {
	usual := q.usualOvenC()
	temps := []float64{usual}
	for d := everyC; d <= reachC; d += everyC {
		temps = append(temps, usual-d, usual+d)
	}
	all := q.courses()
	if all[0].changes { // there is one course, and it changes
		return q.race(ctx, temps, all, coverEvery)
	}
	// what has no change is quick, and bounds the rest; the usual oven tells how long it takes
	best, err := q.race(ctx, temps[:1], all[:1], coverEvery)
	if err != nil {
		return best, err
	}
	temps, every := coarser(temps, best.at.minute)
	others, err := q.raceBelow(ctx, temps[1:], all[:1], every, &limit{short: best.short, price: best.price})
	if err != nil {
		return best, err
	}
	if others.better(best) {
		best = others
	}
	if len(all) == 1 {
		return best, nil
	}
	// a coarse look bounds them where it meets nothing
	if best.short > sameShort {
		some, err := q.race(ctx, []float64{usual, usual - reachC, usual + reachC}, all[1:], coarseEvery)
		if err != nil {
			return best, err
		}
		if some.better(best) {
			best = some
		}
		if best.short > sameShort { // nothing will do: no finer than a coarse look
			return best, nil
		}
	}
	rest, err := q.raceBelow(ctx, temps, all[1:], every, &limit{short: best.short, price: best.price})
	if err != nil {
		return best, err
	}
	if rest.better(best) {
		best = rest
	}
	return best, nil
}

// coarser returns the temperatures and the minutes between two changes that are tried for a bake of so many minutes:
// the longer it takes, the less a few minutes or degrees matter to it, and the longer each try takes.
func coarser(temps []float64, minutes float64) (some []float64, every float64) {
	if minutes <= longBake {
		return temps, coverEvery
	}
	for _, c := range temps {
		if math.Mod(math.Abs(c-temps[0]), longEveryC) == 0 {
			some = append(some, c)
		}
	}
	if minutes <= veryLongBake {
		return some, 2 * coverEvery
	}
	return some, coarseEvery
}

// race tries every course at some temperatures of the oven. It ends with ctx.
func (q PlanRequest) race(ctx context.Context, temps []float64, courses []course, every float64) (candidate, error) {
	return q.raceBelow(ctx, temps, courses, every, &limit{short: math.Inf(1), price: math.Inf(1)})
}

// raceBelow is a race against a plan that is known already.
func (q PlanRequest) raceBelow(
	ctx context.Context, temps []float64, courses []course, every float64, limit *limit,
) (candidate, error) {
	type lane struct {
		c   float64
		way course
	}
	var lanes []lane
	for _, way := range courses { // the plainest course bounds the others
		for _, c := range temps {
			lanes = append(lanes, lane{c, way})
		}
	}
	found := make([]candidate, len(lanes))
	next, work := make(chan int), sync.WaitGroup{}
	for range workers {
		work.Go(func() {
			for i := range next {
				found[i] = q.follow(lanes[i].c, lanes[i].way, every, limit)
			}
		})
	}
	for i := range lanes {
		if ctx.Err() != nil {
			break
		}
		next <- i
	}
	close(next)
	work.Wait()
	if err := ctx.Err(); err != nil {
		return candidate{}, err
	}
	best := candidate{short: math.Inf(1), price: noPlan}
	for _, c := range found {
		if c.at.minute > 0 && c.better(best) {
			best = c
		}
	}
	return best, nil
}

// limit is the best plan so far, shared by those that race.
type limit struct {
	sync.Mutex
	short, price float64
}

func (l *limit) lower(short, price float64) {
	l.Lock()
	defer l.Unlock()
	if short < l.short-sameShort || short < l.short+sameShort && price < l.price {
		l.short, l.price = short, price
	}
}

// passed says that nothing which costs so much, and can't mend what it falls short by, will be the best.
func (l *limit) passed(short, price float64) bool {
	l.Lock()
	defer l.Unlock()
	if l.short <= sameShort {
		return price > l.price || short > sameShort
	}
	return short > l.short+sameShort
}

// follow tries one course at one temperature, with every time of its change. What they have in common is run once: a
// run is forked where it changes.
func (q *PlanRequest) follow(ovenC float64, way course, every float64, l *limit) candidate {
	c := candidate{course: way, ovenC: ovenC, short: math.Inf(1), price: noPlan}
	trunk := q.begin(q.trueOven(), ovenC, way)
	if !way.changes {
		return q.goOn(trunk, c, l)
	}
	best := c
	for c.change = max(every, math.Ceil(trunk.c.now/60/every)*every); c.change < longest-every; c.change += every {
		going := trunk.until(c.change)
		if !going || l.passed(q.shortfalls(trunk.state()).spoilt(), q.price(c, c.earliest())) {
			break
		}
		if trunk.c.colour[core] < way.fromColour {
			continue
		}
		branch := trunk.fork()
		branch.turn(q.stage(ovenC, way.after))
		if x := q.goOn(branch, c, l); x.better(best) {
			best = x
		}
	}
	return best
}

// earliest and latest are when a course may end.
func (c candidate) earliest() float64 {
	if !c.changes {
		return 1
	}
	least := c.change + leastStage
	if c.to > 0 {
		least = max(least, c.change/c.to)
	}
	return least
}

func (c candidate) latest() float64 {
	most := longest
	if c.from > 0 {
		most = min(most, c.change/c.from)
	}
	if c.lastMost > 0 {
		most = min(most, c.change+c.lastMost)
	}
	return most
}

// goOn runs a candidate to where it is past its limits, and ends it at its best.
func (q *PlanRequest) goOn(x *running, c candidate, l *limit) candidate {
	hot := q.hotter(c)
	metAt := math.Inf(1)
	latest := c.latest()
	first := math.Ceil(c.earliest()/endEvery-1e-9) * endEvery
	for k := math.Round(first / endEvery); k*endEvery <= latest+1e-9; k++ {
		minute := k * endEvery
		going := x.until(minute)
		s, base := x.state(), q.price(c, minute)
		by := q.shortfalls(s)
		short := by.sum()
		price := base + q.wants(s, hot.colourAt(minute, s.colour))
		if short <= sameShort {
			metAt = min(metAt, minute)
		}
		if now := (candidate{short: short, price: price}); now.better(c) {
			c.at, c.short, c.price = s, short, price
			l.lower(short, price)
		}
		spoilt := by.spoilt()
		onlyWorse := spoilt > 0 && short-spoilt <= sameShort // nothing is left that more baking mends
		if !going || onlyWorse || minute > metAt+afterMet || c.short <= sameShort && base > c.price ||
			l.passed(spoilt, base) {
			break
		}
	}
	return c
}

// hotOven is the same candidate in an oven that is hotter; it runs only where the top could burn.
type hotOven struct {
	q *PlanRequest
	c candidate
	x *running
}

func (q *PlanRequest) hotter(c candidate) *hotOven { return &hotOven{q: q, c: c} }

// colourAt is the hotter oven's colour at a minute where the plan's own is known.
func (h *hotOven) colourAt(minute, own float64) float64 {
	if own < watchColour {
		return own
	}
	if h.x == nil {
		r := h.q.trueOven()
		r.OvenOffsetC = hotterC
		h.x = h.q.begin(r, h.c.ovenC, h.c.course)
		if h.c.changes {
			h.x.until(h.c.change)
			h.x.turn(h.q.stage(h.c.ovenC, h.c.after))
		}
	}
	h.x.until(minute)
	return h.x.c.colour[core]
}

// trueOven is the bake in an oven that is as hot as it says: the dial is set after the search.
func (q *PlanRequest) trueOven() *Request {
	r := q.Bake
	r.OvenOffsetC = 0
	return &r
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

// coldStart says that the dish would crack in a hot oven: glass, stoneware or porcelain that was frozen filled.
func (q *PlanRequest) coldStart() bool { return coldStart(&q.Bake) }

func coldStart(r *Request) bool {
	m, _ := larder.Materials.Get(r.Dish.Material)
	return m.Brittle() && or(r.DishStartC, roomC) < coldDishC
}

// coldStage is what a dish that would crack begins with.
func (q *PlanRequest) coldStage(cover string) Stage {
	return Stage{Minutes: coldStartMin, OvenC: coldStartC, Heating: q.Heating, Cover: cover}
}

// begin starts a course at a temperature, past its cold start if it has one.
func (q *PlanRequest) begin(r *Request, ovenC float64, way course) *running {
	first := q.stage(ovenC, way.before)
	if !q.coldStart() {
		return startPlan(r, first, way.after.AddTopping)
	}
	x := startPlan(r, q.coldStage(first.Cover), way.after.AddTopping)
	x.until(coldStartMin)
	x.turn(first)
	return x
}

// stages writes a candidate out, as the dial is set and up to whole minutes.
func (q *PlanRequest) stages(c candidate) []Stage {
	first, then := q.stage(c.ovenC, c.before), q.stage(c.ovenC, c.after)
	end := math.Floor(c.at.minute + wholeMinute)
	out := []Stage{}
	begun := 0.0
	if q.coldStart() {
		out, begun = append(out, q.coldStage(first.Cover)), coldStartMin
	}
	if !c.changes || c.change <= begun || c.change >= end {
		first.Minutes = end - begun
		out = append(out, first)
	} else {
		first.Minutes, then.Minutes = c.change-begun, end-c.change
		out = append(out, first, then)
	}
	for i := range out {
		out[i].OvenC = dialEvery * math.Round((out[i].OvenC-q.Bake.OvenOffsetC)/dialEvery)
	}
	return out
}

// mayStand says whether the plan on the screen is one for this dessert: its heating is the oven's, and no dish that
// would crack goes into a hot oven by it.
func (q *PlanRequest) mayStand() bool {
	if len(q.Standing) == 0 || q.coldStart() && q.Standing[0].OvenC > coldStartC+dialEvery {
		return false
	}
	heating := q.stage(0, Stage{}).Heating
	return !slices.ContainsFunc(q.Standing, func(s Stage) bool { return s.Heating != heating })
}
