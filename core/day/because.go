package day

import (
	"math/rand/v2"
	"slices"

	"mabbin/core/message"
)

// obstacle is what stops a batch at a minute.
type obstacle struct {
	kind obstacleKind
	of   int // the oven, dish or place
}

type obstacleKind int

const (
	noObstacle obstacleKind = iota
	byTime                  // it takes longer than there is
	byHeat                  // its oven has another heat
	byRoom                  // its oven is full
	byHours                 // its oven is not on by then, or no longer
	byHands
	byDishInUse
	byPlace
)

// lookedAtMin is how many minutes are looked at for what stops a batch.
const lookedAtMin = 30

// because says why a batch is late, left out or outside of its window: what stops it most often in the last minutes
// before it goes, with all others where they are; zero: there is no single cause.
func (s *schedule) because(b int) message.Message {
	x := &s.p.batches[b]
	if x.lastOven < 0 || s.p.tasks[x.lastOven].pin != nil {
		return message.Message{}
	}
	without := s.withoutCluster(s.p.clusOf[b])
	w := without.wishFor(x.lastOven, b, s.p.end)
	last := w.last
	if early := without.earliestEnd(x.lastOven); early > last { // it can't be in time even alone
		return message.New(
			"it takes longer than there is time for: it is ready at {clock} at the earliest",
			Clock(early+x.tail),
		)
	}
	if early, goes := s.withoutCluster(s.p.clusOf[b]).placeEarly(b); goes && early > last {
		last = early - 1
	}
	if s.in[b] && s.lateOf(b) > 0 { // it goes where it is
		last = min(last, s.at[x.lastOven].end-1)
	}
	seen := map[obstacle]int{}
	first := map[obstacle]int{}
	var most obstacle
	for end := last; end > last-lookedAtMin; end-- {
		o := without.stops(b, end)
		if o.kind == noObstacle {
			continue
		}
		if seen[o]++; seen[o] == 1 {
			first[o] = end
		}
		if seen[o] > seen[most] {
			most = o
		}
	}
	return without.describe(b, most, first[most])
}

// withoutCluster is the plan without one of its clusters.
func (s *schedule) withoutCluster(c int) *schedule {
	out := newSchedule(s.p)
	out.plain = true
	in := slices.Clone(s.in)
	for _, b := range s.p.clusters[c] {
		s.in[b] = false
	}
	out.replay(s)
	copy(s.in, in)
	return out
}

// earliestReady is when a batch is ready at the earliest with all others where they are, and whether it goes at all.
func (s *schedule) earliestReady(b int) (int, bool) {
	out := s.withoutCluster(s.p.clusOf[b])
	_, goes := out.placeEarly(b)
	switch {
	case goes && s.in[b]: // it goes where it is, too
		return min(out.ready(b), s.ready(b)), true
	case goes:
		return out.ready(b), true
	case s.in[b]:
		return s.ready(b), true
	}
	return 0, false
}

// placeEarly plans a batch, with what hangs together with it, as early as it goes, and says when its bake ends.
func (s *schedule) placeEarly(b int) (end int, goes bool) {
	s.insertEarly(s.p.clusOf[b], rand.New(rand.NewPCG(0, 0)))
	if i := s.p.batches[b].lastOven; s.in[b] && i >= 0 {
		end = s.at[i].end
	}
	return end, s.in[b]
}

func (s *schedule) earliestEnd(i int) int { return s.earliest(i) + s.p.tasks[i].leastMin }

// stops is what stops a batch from being baked until a minute. Of all the ways to bake it, it is what stops the one
// that comes furthest.
func (s *schedule) stops(b, end int) obstacle {
	i := s.p.batches[b].lastOven
	t := &s.p.tasks[i]
	best := obstacle{kind: byTime}
	further := func(o obstacle) {
		if o.kind > best.kind {
			best = o
		}
	}
	for k := range t.bakes {
		a := &t.bakes[k]
		start := end - a.minutes
		if start < s.earliest(i) {
			continue
		}
		for _, sl := range a.slots {
			o := &s.p.ovens[sl.oven]
			c := candidate{alt: k, slot: sl, start: start}
			switch {
			case start < s.opens(sl.oven, a) || end > o.to:
				further(obstacle{byHours, sl.oven})
			case !s.suits(a, sl.oven, start):
				further(obstacle{byHeat, sl.oven})
			case !s.suitsStillIn(c, a):
				further(obstacle{byRoom, sl.oven})
			default:
				s.stopped = obstacle{kind: byHands}
				s.placeLoad(i, c)
				if s.touchAll(i, &s.at[i], nil) && s.placeRest(b, rand.New(rand.NewPCG(0, 0))) {
					s.remove(b)
					return obstacle{}
				}
				s.remove(b)
				further(s.stopped)
			}
		}
	}
	return best
}

// describe says what stops a batch that should be baked until a minute.
func (s *schedule) describe(b int, o obstacle, end int) message.Message {
	x := &s.p.batches[b]
	at := end - s.p.tasks[x.lastOven].leastMin
	switch o.kind {
	case byHours:
		return message.New("{oven} is not hot or not in use at that time", message.Text(s.p.ovens[o.of].ID))
	case byHeat:
		for _, l := range s.loads[o.of] {
			if y := &s.at[l]; y.end > at && y.start < end {
				c := s.p.tasks[l].bakes[y.alt].Stages[0].OvenC
				return message.New("{oven} is at {heat} until {clock} ({batch})", message.Text(s.p.ovens[o.of].ID),
					message.OvenHeat(c), Clock(y.end), message.Text(s.p.batches[s.p.tasks[l].batch].ID))
			}
		}
		return message.New("{oven} is at another temperature", message.Text(s.p.ovens[o.of].ID))
	case byRoom:
		out := end
		for _, l := range s.loads[o.of] {
			if y := &s.at[l]; y.start < end {
				out = max(out, y.out)
			}
		}
		return message.New("{oven} is full until {clock}", message.Text(s.p.ovens[o.of].ID), Clock(out))
	case byDishInUse:
		return s.dishInUse(b, o.of, at)
	case byPlace:
		return message.New("the {place} is full", message.Text(s.p.req.Places[o.of].ID))
	case byHands:
		return s.nobody(at)
	}
	return message.Message{}
}

// dishInUse says until when a dish is in use from a minute on, and for what.
func (s *schedule) dishInUse(b, dish, from int) message.Message {
	d := s.p.dishes[dish]
	free := max(0, from-s.p.now)
	for free < s.p.n && s.dish[dish][free] >= float64(d.Count) {
		free++
	}
	name := message.New(
		"all {n} of {dish} are in use until {clock}",
		message.Count(d.Count),
		message.Text(d.ID),
		Clock(s.p.now+free),
	)
	if d.Count == 1 {
		name = message.New("the only {dish} is in use until {clock}", message.Text(d.ID), Clock(s.p.now+free))
	}
	for other := range s.p.batches {
		y := &s.p.batches[other]
		if other != b && s.in[other] && s.first(other) < s.p.now+free &&
			slices.ContainsFunc(y.taken, func(t taken) bool { return t.dish == dish }) && s.ready(other) >= from {
			return message.New("{dish} ({batch})", message.Part(name), message.Text(y.ID))
		}
	}
	return name
}

// nobody says why there is nobody at a minute: after hours, or everybody works.
func (s *schedule) nobody(at int) message.Message {
	m := at - s.p.now
	last := 0
	for _, p := range s.p.people {
		for k := range p.free {
			if p.free[k] {
				last = max(last, k+1)
			}
			if k == m && p.free[k] {
				return message.New("everybody is busy around {clock}", Clock(at))
			}
		}
	}
	if m >= last {
		return message.New("nobody is there after {clock}", Clock(s.p.now+last))
	}
	return message.New("nobody is there at {clock}", Clock(at))
}
