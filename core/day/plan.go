package day

import (
	"context"
	"math"
	"slices"
	"time"
)

// Plan plans the day. It answers with the best plan that it found: after as many rounds as the day is large, when its
// time is over, or when ctx ends. Progress may be nil. The plan that stands stays as far as it goes, unless another one
// is clearly better. A bad request is fault.Faults.
func Plan(ctx context.Context, q Request, clock Now, tell Progress) (*Answer, error) {
	if err := Check(q); err != nil {
		return nil, err
	}
	p := compile(&q)
	h := p.how(clock, tell)
	stands := p.standing()
	if stands != nil {
		h.from = stands.schedule
		if q.Iterations == 0 {
			h.rounds /= againShare
		}
	}
	best := p.solve(ctx, q.Seed, h)
	if stands != nil && !best.value.replaces(stands.value) {
		best.schedule, best.value = stands.schedule, stands.value
	}
	a := best.schedule.answer(best.value.Objective)
	a.Moved = best.schedule.moves()
	if !a.Feasible && ctx.Err() == nil {
		a.Clashes = best.schedule.clashes(ctx, best.value.Objective, h)
	}
	a.LowerBound = h.bound
	switch {
	case ctx.Err() != nil:
		a.Stopped = StoppedByUser
	case best.done:
		a.Stopped = StoppedDone
	default:
		a.Stopped = StoppedTime
	}
	if best.value.Late > 0 || best.value.Window > 0 {
		a.LowerBound.OvenOn = nil
	}
	return a, nil
}

// how is what the search of a request goes by: by rounds, so that a busy machine finds the same plan, only later. A
// request that says how many has all the time for them.
func (p *problem) how(clock Now, tell Progress) how {
	h := how{rounds: p.req.Iterations, bound: p.lowerBound(), clashes: true, clock: clock, tell: tell}
	if h.rounds > 0 {
		return h
	}
	h.rounds = max(fewestRounds, min(mostRoundsOf, roundsEach*len(p.clusters)))
	limit := p.req.TimeLimitMS
	if limit == 0 {
		limit = usualTimeMS
	}
	time, now := time.Duration(limit)*time.Millisecond, clock()
	h.until = now.Add(time)
	h.firstUntil = h.until.Add(-time * forClashes / 100)
	return h
}

// answer writes a plan down, in the order of the request.
func (s *schedule) answer(value Objective) *Answer {
	a := &Answer{Feasible: value.Feasible(), Schedule: []Scheduled{}, LeftOut: []string{}, Clashes: []Clash{}}
	_, a.Chances = s.slack()
	a.Objective = value
	for b := range s.p.batches {
		x := &s.p.batches[b]
		if !s.in[b] {
			a.LeftOut = append(a.LeftOut, x.ID)
		}
		for _, i := range x.tasks {
			if s.at[i].set && (s.in[b] || s.p.tasks[i].pin != nil) {
				a.Schedule = append(a.Schedule, s.scheduled(x.ID, i))
			}
		}
	}
	return a
}

func (s *schedule) scheduled(batch string, i int) Scheduled {
	t, at := &s.p.tasks[i], &s.at[i]
	out := Scheduled{Batch: batch, Task: t.ID, Start: at.start, End: at.end}
	if t.Uses == UsePerson && at.person >= 0 {
		out.Person = s.p.req.People[at.person].ID
	}
	if t.Uses != UseOven {
		return out
	}
	b := &t.bakes[at.alt]
	out.Alternative = b.ID
	if at.oven >= 0 {
		out.Oven = s.p.ovens[at.oven].ID
		if at.tier >= 0 {
			out.Tier = s.p.ovens[at.oven].tiers[at.tier].ID
		}
	}
	for _, x := range at.touches {
		out.Touches = append(out.Touches, PlannedTouch{
			Touch: x.touch, Start: x.start, End: x.start + b.Touches[x.touch].Minutes, Person: s.p.req.People[x.person].ID,
		})
	}
	return out
}

// lowerBound is what no plan can be below: each batch alone is no earlier than its longest path, and what an oven has
// to hold takes its time.
func (p *problem) lowerBound() LowerBound {
	s := newSchedule(p)
	var out LowerBound
	for b := range p.batches {
		x := &p.batches[b]
		if !x.hasDue || x.lateMax >= 0 { // what may be late only so far may be left out
			continue
		}
		ready := math.MinInt32
		for _, i := range x.tasks {
			ready = max(ready, s.earliestDone(i))
		}
		out.Late += max(0, ready-x.due)
	}
	if out.Late == 0 {
		on := p.ovenBound()
		out.OvenOn = &on
	}
	return out
}

// ovenBound is the least that ovens are on: by the width that all loads need, or by loads no two of which can share.
func (p *problem) ovenBound() int {
	var loads []load
	area, warm := 0.0, math.Inf(1)
	widest := 0.0
	for _, o := range p.ovens {
		sum := 0.0
		for _, t := range o.tiers {
			sum += t.WidthCM
		}
		widest = max(widest, sum)
	}
	for i := range p.tasks {
		t := &p.tasks[i]
		if t.Uses != UseOven || t.pin != nil {
			continue
		}
		l := load{minutes: t.leastMin, from: math.MinInt32, to: math.MaxInt32}
		least := math.Inf(1)
		for k := range t.bakes {
			b := &t.bakes[k]
			for _, sl := range b.slots {
				least = min(least, sl.width*float64(b.minutes))
				for _, g := range b.Stages {
					l.settings = append(l.settings, setting{g.OvenC, heatingOf(g)})
				}
				o := p.ovens[sl.oven]
				warm = min(warm, math.Ceil((b.Stages[0].OvenC-p.roomC)/o.WarmCPerMin-1e-9))
			}
		}
		if math.IsInf(least, 0) {
			continue
		}
		area += least
		x := &p.batches[t.batch]
		if x.hasDue && i == x.lastOven && x.holdMax >= 0 && p.waitsOut(x) {
			l.to = x.due - x.tail
			l.from = l.to - x.holdMax - l.longest(t)
		}
		loads = append(loads, l)
	}
	if len(loads) == 0 || widest == 0 {
		return 0
	}
	most := math.Ceil(area/widest - 1e-9)
	most = max(most, float64(apart(loads)))
	if anyOn := p.nowWarm(); anyOn {
		warm = 0
	}
	return int(most + max(0, warm))
}

// waitsOut says whether only waits follow a batch's last bake: then its end is bound to its hour.
func (p *problem) waitsOut(b *batch) bool {
	for k, i := range b.order {
		if b.tailOf[k] && p.tasks[i].Uses != UseWait {
			return false
		}
	}
	return true
}

// nowWarm says whether an oven is warm already, or has something in it: then nothing is warmed from cold for sure.
func (p *problem) nowWarm() bool {
	for _, o := range p.ovens {
		if o.nowC > p.roomC {
			return true
		}
	}
	return slices.ContainsFunc(p.tasks, func(t task) bool { return t.pin != nil && t.Uses == UseOven })
}

type setting struct {
	c       float64
	heating string
}

// load is one that has to be in some oven between from and to.
type load struct {
	minutes, from, to int
	settings          []setting
}

func (l load) longest(t *task) int {
	most := 0
	for _, b := range t.bakes {
		most = max(most, b.minutes)
	}
	return most
}

// apart is the weight, in least minutes, of a set of loads no two of which can share an oven: each has no setting that
// another has, or they are wanted at hours that do not meet. The heaviest first, taken greedily.
func apart(loads []load) int {
	order := slices.Clone(loads)
	slices.SortStableFunc(order, func(a, b load) int { return b.minutes - a.minutes })
	best := 0
	for first := range order {
		set, sum := []load{order[first]}, order[first].minutes
		for k, l := range order {
			if k == first || slices.ContainsFunc(set, func(x load) bool { return x.canShare(l) }) {
				continue
			}
			set = append(set, l)
			sum += l.minutes
		}
		best = max(best, sum)
	}
	return best
}

func (l load) canShare(m load) bool {
	if l.to <= m.from || m.to <= l.from {
		return false
	}
	return slices.ContainsFunc(l.settings, func(s setting) bool { return slices.Contains(m.settings, s) })
}
