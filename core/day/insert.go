package day

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
)

// What a minute of each level weighs while plans are compared on the way: the levels themselves decide at the end.
const (
	weighLeftOut = 1e7
	weighLate    = 4000.0
	weighWindow  = 300.0
	weighOvenOn  = 10.0
	weighWaiting = 0.5

	mostTried  = 30  // places of a bake that are tried to the end
	widenAfter = 8   // places that fail, before they are looked for further apart
	widestStep = 60  // min
	mostFailed = 120 // places that fail, before a bake finds none
	besideMin  = 90  // min that work is moved forward to lie in addition to other work
	mostEarly  = 200 // min that a bake is tried before it is wanted at all
	blink      = 10  // one in so many is passed over, so that the same plan is not found each time
	likedMin   = 20  // min of an oven that a heat is taken to cost less, so that several bakes meet at it
	mostPlaced = 4   // of those that go, the cheapest is taken
)

// candidate is a place for a bake, with what it would cost.
type candidate struct {
	alt   int
	slot  slot
	start int
	cost  float64
}

// insertCluster plans batches that hang together, what follows first. Where one does not go, none is planned.
func (s *schedule) insertCluster(c int, rng *rand.Rand) bool {
	for i, b := range s.p.clusters[c] {
		if s.insert(b, rng) {
			continue
		}
		for _, x := range s.p.clusters[c][:i] {
			s.remove(x)
		}
		return false
	}
	return true
}

// insert plans a batch where it costs least: its last bake first, then backwards from it, then what follows it.
func (s *schedule) insert(b int, rng *rand.Rand) bool {
	x := &s.p.batches[b]
	if x.lastOven < 0 || s.p.tasks[x.lastOven].pin != nil {
		return s.placeRest(b, rng)
	}
	all := s.stay
	if s.stay == nil {
		all = s.candidates(x.lastOven, b, math.MaxInt32, rng)
	}
	var best kept
	bestCost, laid := math.Inf(1), 0
	for _, c := range all[:min(len(all), mostTried)] {
		if laid > 0 && c.cost >= bestCost {
			break
		}
		if rng.IntN(blink) == 0 && s.stay == nil {
			continue
		}
		s.placeLoad(x.lastOven, c)
		if !s.touchAll(x.lastOven, &s.at[x.lastOven], rng) || !s.placeRest(b, rng) {
			s.remove(b)
			continue
		}
		later := max(0, s.lateOf(b)-s.lateAt(b, c)) // than its bake alone makes it
		cost := c.cost + weighWindow*float64(s.windowOf(b)) + weighLate*float64(later)
		if cost < bestCost {
			bestCost, best = cost, s.keep(b)
		}
		s.remove(b)
		if laid++; laid == mostPlaced {
			break
		}
	}
	if laid == 0 {
		return s.everyMinute && s.scan(b, rng)
	}
	s.restore(best)
	return true
}

// scan plans a batch minute by minute where no place in time goes to the end, for its dish is in use or nobody is
// there: within its window, then earlier, then late, with wider steps after failures.
func (s *schedule) scan(b int, rng *rand.Rand) bool {
	i := s.p.batches[b].lastOven
	w := s.wishFor(i, b, math.MaxInt32)
	in := max(w.from, w.last-w.hold)
	return s.scanEnds(b, w.last, in, w.until, rng) ||
		s.scanEnds(b, in-1, min(in-1, w.from), w.until, rng) ||
		s.scanEnds(b, w.last+1, w.until, w.until, rng)
}

// scanEnds plans a batch so that its bake ends at the first minute that goes, from one minute to another.
func (s *schedule) scanEnds(b, first, last, until int, rng *rand.Rand) bool {
	i := s.p.batches[b].lastOven
	t := &s.p.tasks[i]
	step, way, failed := 1, 1, 0
	if last < first {
		way = -1
	}
	for end := first; way*(last-end) >= 0; end += way * step {
		if end > until {
			continue
		}
		for k := range t.bakes {
			if !s.goesAt(b, k, end-t.bakes[k].minutes, rng, &failed) {
				continue
			}
			return true
		}
		if failed > mostFailed {
			return false
		}
		if failed >= widenAfter*step {
			step = min(widestStep, step+1)
		}
	}
	return false
}

// goesAt plans a batch with its last bake from a minute on, in the first place that goes; failed counts the places that
// an oven had and that something else was missing for.
func (s *schedule) goesAt(b, alt, start int, rng *rand.Rand, failed *int) bool {
	i := s.p.batches[b].lastOven
	a := &s.p.tasks[i].bakes[alt]
	if start < s.earliest(i) || a.ExtraMin > 0 && s.cards {
		return false
	}
	tried := -1
	for _, sl := range a.slots {
		o := &s.p.ovens[sl.oven]
		if tried == sl.oven || start < s.opens(sl.oven, a) || start+a.minutes > o.to ||
			a.ExtraMin > 0 && !s.hasCompany(sl.oven, start, start+a.minutes, -1) {
			continue
		}
		c := candidate{alt: alt, slot: sl, start: start}
		if !s.suitsStillIn(c, a) {
			continue
		}
		s.placeLoad(i, c)
		if s.touchAll(i, &s.at[i], rng) && s.placeRest(b, rng) {
			return true
		}
		s.remove(b)
		*failed++
		tried = sl.oven // another tier of it changes nothing about hands
	}
	return false
}

// opens is the first minute at which an oven is as hot as a bake wants it.
func (s *schedule) opens(o int, a *baking) int {
	oven := &s.p.ovens[o]
	return max(s.p.now, oven.from) + oven.change(oven.nowC, a.Stages[0].OvenC)
}

// lateAt is how late a batch is at least with its bake in a place.
func (s *schedule) lateAt(b int, c candidate) int {
	x := &s.p.batches[b]
	if !x.hasDue {
		return 0
	}
	return max(0, c.start+s.p.tasks[x.lastOven].bakes[c.alt].minutes+x.tail-x.due)
}

func (s *schedule) placeLoad(i int, c candidate) {
	t := &s.p.tasks[i]
	s.at[i] = placed{
		set: true, start: c.start, end: c.start + t.bakes[c.alt].minutes, person: -1,
		oven: c.slot.oven, tier: c.slot.tier, alt: c.alt, width: c.slot.width,
	}
	s.at[i].out = s.at[i].end
	s.take(t.batch, s.width[c.slot.oven][c.slot.tier], c.start, s.at[i].end, c.slot.width)
	s.load(i)
}

// wish is when a bake should end: at the latest for its hour, and how much earlier is as good.
type wish struct {
	from, until int // of the bake
	last, hold  int // it should end at last, at most hold earlier
	due         bool
}

func (s *schedule) wishFor(i, b, until int) wish {
	x := &s.p.batches[b]
	w := wish{from: s.earliest(i), until: min(until, s.latest(i)), due: x.hasDue && i == x.lastOven, hold: 60}
	w.last = min(w.until, s.p.end-x.tail)
	if w.due {
		w.last = min(w.last, x.due-x.tail)
		if x.holdMax >= 0 {
			w.hold = x.holdMax
		}
		if x.lateMax >= 0 {
			w.until = min(w.until, x.due+x.lateMax-x.tail)
		}
	}
	return w
}

// candidates are the places where a bake could go, the cheapest first: where it has to end for its hour, and where it
// meets what is in the ovens already. It ends by until. Only where nothing is right in time are others looked at.
func (s *schedule) candidates(i, b, until int, rng *rand.Rand) []candidate {
	w := s.wishFor(i, b, until)
	s.found = s.found[:0]
	if !s.anyTime && rng.IntN(8) > 0 {
		s.look(i, b, w, w.last-w.hold, w.last, rng)
	}
	if len(s.found) == 0 {
		s.look(i, b, w, math.MinInt32, w.until, rng)
	}
	slices.SortFunc(s.found, func(a, b candidate) int {
		if a.cost != b.cost {
			return cmp.Compare(a.cost, b.cost)
		}
		return cmp.Or(
			cmp.Compare(b.start, a.start), cmp.Compare(a.alt, b.alt),
			cmp.Compare(a.slot.oven, b.slot.oven), cmp.Compare(a.slot.tier, b.slot.tier),
		)
	})
	return slices.Clone(s.found[:min(len(s.found), mostTried)])
}

// look finds the places of a bake that ends between two minutes.
func (s *schedule) look(i, b int, w wish, first, last int, rng *rand.Rand) {
	t := &s.p.tasks[i]
	for k := range t.bakes {
		a := &t.bakes[k]
		if a.ExtraMin > 0 && s.cards {
			continue
		}
		extra := float64(a.ExtraMin)
		if s.free {
			extra = 0
		}
		if s.liked > 0 && a.Stages[0].OvenC == s.liked {
			extra -= likedMin
		}
		for n := 0; n < len(a.slots); {
			o := a.slots[n].oven
			tiers := n
			for n < len(a.slots) && a.slots[n].oven == o {
				n++
			}
			was := s.ovenOn(o, -1, nil, 0)
			for _, start := range s.starts(a, o, w, first, last, rng) {
				if !s.suits(a, o, start) ||
					a.ExtraMin > 0 && !s.free && !s.hasCompany(o, start, start+a.minutes, -1) {
					continue
				}
				for _, sl := range a.slots[tiers:n] {
					if s.room(s.width[o][sl.tier], start, start+a.minutes+a.outMin, sl.width, s.p.ovens[o].tiers[sl.tier].WidthCM) {
						cost := weighOvenOn*(float64(s.ovenOn(o, i, a, start)-was)+extra) + s.wait(b, w, start+a.minutes)
						s.found = append(s.found, candidate{k, sl, start, cost + rng.Float64()*weighOvenOn*2})
						break
					}
				}
			}
		}
	}
}

// wait is what it costs that a bake ends at a minute: late, held too long, or only earlier than it might.
func (s *schedule) wait(b int, w wish, end int) float64 {
	x := &s.p.batches[b]
	cost := weighWaiting * float64(max(0, w.last-end)) / 4
	if w.due {
		cost += weighLate * float64(max(0, end+x.tail-x.due))
		if x.holdMax >= 0 {
			cost += weighWindow * float64(max(0, x.due-end-x.tail-x.holdMax))
		}
	}
	return cost
}

// starts are the minutes at which a bake could go into an oven so that it ends between two minutes, each once.
func (s *schedule) starts(a *baking, o int, w wish, first, last int, rng *rand.Rand) []int {
	oven := &s.p.ovens[o]
	out := s.minutes[:0]
	from, to := max(w.from, first-a.minutes, s.opens(o, a)), min(w.until, last, oven.to)-a.minutes
	try := func(start int) {
		if start >= from && start <= to {
			out = append(out, start)
		}
	}
	wanted := w.last - a.minutes
	try(wanted)
	for _, back := range [...]int{1, 2, rng.IntN(w.hold/2 + 1), rng.IntN(w.hold + 1), w.hold} {
		try(wanted - back)
	}
	if first < w.last-w.hold {
		for range 4 {
			try(wanted - w.hold - rng.IntN(mostEarly))
		}
	}
	for _, l := range s.loads[o] {
		if x := &s.at[l]; x.end+120 < from || x.start-120 > to+a.minutes {
			continue
		}
		try(s.at[l].out)
		for _, g := range s.stages[l] {
			try(g.from)
			try(g.to - a.minutes)
			try(g.to)
			try(g.from - a.minutes)
			try(g.from - a.minutes - a.outMin)
			if g.c != a.Stages[0].OvenC {
				try(g.to + oven.change(g.c, a.Stages[0].OvenC))
			}
			if c := a.Stages[len(a.Stages)-1].OvenC; g.c != c {
				try(g.from - a.minutes - oven.change(c, g.c))
			}
		}
	}
	if last > w.last { // late, or any time
		for _, late := range [...]int{3, 8, 15, 30, 60, 120} {
			try(wanted + late)
		}
		try(from)
	}
	slices.Sort(out)
	s.minutes = out
	return slices.Compact(out)
}
