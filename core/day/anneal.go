package day

import (
	"cmp"
	"context"
	"math"
	"math/rand/v2"
	"slices"
)

// annealing is a search: a part of the plan is taken out and planned again, again and again, and what is worse is taken
// less and less often.
type annealing struct {
	p      *problem
	s      *schedule
	h      how
	rng    *rand.Rand
	now    measured // what the schedule comes to
	best   found
	record []kept // the best plan
	warm   float64
	before []kept // what was taken out in this round
	out    []bool // by batch: it was taken out in this round
	early  bool   // the best plan is as early as it goes
}

// search looks for a plan for so many rounds, until the time is over or ctx ends.
func (p *problem) search(ctx context.Context, seed uint64, h how) found {
	s := newScheduleFrom(p, h.chain)
	a := &annealing{
		p: p, s: s, h: h, warm: warmest, out: make([]bool, len(p.batches)),
		rng: rand.New(rand.NewPCG(seed, 0x6d616262696e)),
	}
	if h.from != nil {
		a.warm *= goingOn
		s.old = h.from.old
		s.replay(h.from)
	}
	s.recreate(s.missing(p.byDue()), a.rng)
	s.keepCompany(a.rng, func(int) {})
	a.now = s.measure()
	a.now.Slack, _ = s.slack()
	a.take()
	if len(p.clusters) == 0 {
		a.best.done = true
		return a.best
	}
	since, lap := 0, 0
	s.annealed = true
	for n := 0; n < h.rounds; n++ {
		if n%lookAtClock == 0 {
			if ctx.Err() != nil || a.timeOver() {
				return a.best
			}
			if h.tell != nil && n%progressEach == 0 {
				h.tell(float64(n)/float64(h.rounds), a.best.value.Objective)
			}
		}
		if at := laps * n / h.rounds; at != lap { // from the best plan on, now and then
			lap = at
			a.fromBest()
		}
		since++
		if a.round(float64(n)/float64(h.rounds), lap == laps-1) {
			since = 0
		}
		if since > patience*len(p.clusters) || a.best.value.provenBy(h.bound) && since > impatience {
			break
		}
	}
	a.fromBest()
	a.best.done = true
	return a.best
}

// timeOver says whether the time is over; where something goes wrong some of it is left for what would help.
func (a *annealing) timeOver() bool {
	if a.h.until.IsZero() {
		return false
	}
	until := a.h.until
	if a.h.clashes && !a.best.value.Feasible() {
		until = a.h.firstUntil
	}
	return !a.h.clock().Before(until)
}

// take makes the schedule the best plan.
func (a *annealing) take() {
	a.best.value, a.best.schedule, a.record, a.early = a.now, a.s.clone(), a.s.keepAll(), false
}

// fromBest goes on from the best plan, with what is late or left out as early as it goes.
func (a *annealing) fromBest() {
	a.s.become(a.record)
	a.now = a.best.value
	if !a.early {
		a.early = true
		a.shiftLeft()
	}
}

// round takes some clusters out and plans them again. It says whether the plan is the best one.
func (a *annealing) round(share float64, last bool) bool {
	s := a.s
	a.before = a.before[:0]
	clear(a.out)
	out := s.ruin(a.rng)
	for _, c := range out {
		a.takeOut(c)
	}
	s.free = a.rng.IntN(4) == 0
	if a.rng.IntN(4) == 0 {
		s.liked = a.anyHeat(out)
	}
	if a.rng.IntN(3) == 0 {
		s.replanPeople(out, a.before, a.rng)
	} else {
		s.recreate(out, a.rng)
	}
	s.free, s.liked = false, 0
	s.keepCompany(a.rng, a.takeOut)
	next := s.measure()
	if b := a.best.value; next.Late == b.Late && next.Window == b.Window && next.OvenOn+next.moved == b.OvenOn+b.moved {
		next.Slack, _ = s.slack()
	}
	if next.less(a.best.value) {
		next.Slack, _ = s.slack()
		a.now = next
		a.take()
		return true
	}
	if a.accepts(next, share, last) {
		a.now = next
	} else {
		a.back()
	}
	return false
}

// anyHeat is a heat at which something that was taken out can be baked, C; 0: none.
func (a *annealing) anyHeat(out []int) float64 {
	all := a.p.clusters[out[a.rng.IntN(len(out))]]
	x := &a.p.batches[all[a.rng.IntN(len(all))]]
	if x.lastOven < 0 {
		return 0
	}
	ways := a.p.tasks[x.lastOven].bakes
	return ways[a.rng.IntN(len(ways))].Stages[0].OvenC
}

// accepts says whether the search goes on from a plan, by how far it has come; at the end only from what is no worse.
func (a *annealing) accepts(next measured, share float64, last bool) bool {
	if last {
		return !a.now.less(next)
	}
	start := a.warm
	if a.now.Late+a.now.Window > 0 {
		start *= whileWrong
	}
	heat := start * math.Pow(coldest/start, share)
	d := next.scalar() - a.now.scalar()
	return d <= 0 || a.rng.Float64() < math.Exp(-d/heat)
}

// takeOut takes a cluster out, and remembers where it was at the beginning of the round.
func (a *annealing) takeOut(c int) {
	for _, b := range a.p.clusters[c] {
		if !a.out[b] {
			a.out[b] = true
			a.before = append(a.before, a.s.keep(b))
		}
		a.s.remove(b)
	}
}

// back plans everything as it was at the beginning of the round.
func (a *annealing) back() {
	for _, k := range a.before {
		a.s.remove(k.batch)
	}
	for _, k := range a.before {
		a.s.restore(k)
	}
}

// nearest is how many neighbours of a cluster make way for it.
const nearest = 6

// shiftLeft plans each cluster that is late or left out as early as it goes. It tries it alone and together with each
// of its neighbours, in either order, and keeps what is better.
func (a *annealing) shiftLeft() {
	for c := range a.p.clusters {
		if !a.s.goesWrong(c) {
			continue
		}
		if a.tryEarly(c) {
			continue
		}
		for _, near := range a.s.neighbours(c) {
			if a.tryEarly(c, near) || a.tryEarly(near, c) {
				break
			}
		}
	}
}

// tryEarly plans clusters as early as they go, in their order, and says whether that is better.
func (a *annealing) tryEarly(all ...int) bool {
	a.before = a.before[:0]
	clear(a.out)
	for _, c := range all {
		a.takeOut(c)
	}
	for _, c := range all {
		a.s.insertEarly(c, a.rng)
	}
	next := a.s.measure()
	next.Slack, _ = a.s.slack()
	if len(a.s.lonely()) > 0 || !next.less(a.now) {
		a.back()
		return false
	}
	a.now = next
	if next.less(a.best.value) {
		a.take()
	}
	return true
}

// goesWrong says whether some of a cluster is left out or late.
func (s *schedule) goesWrong(c int) bool {
	for _, b := range s.p.clusters[c] {
		if s.p.batches[b].hasDue && (!s.in[b] || s.lateOf(b) > 0) {
			return true
		}
	}
	return false
}

// neighbours are the clusters that lie about the same hour.
func (s *schedule) neighbours(c int) []int {
	at := s.middleOf(c)
	var all []int
	for x := range s.p.clusters {
		if x != c {
			all = append(all, x)
		}
	}
	slices.SortStableFunc(all, func(x, y int) int {
		return cmp.Compare(abs(s.middleOf(x)-at), abs(s.middleOf(y)-at))
	})
	return all[:min(len(all), nearest)]
}

// insertEarly plans a cluster at the first minute of its window or after it at which each of its batches goes.
func (s *schedule) insertEarly(c int, rng *rand.Rand) {
	s.plain = true
	defer func() { s.plain = false }()
	for n, b := range s.p.clusters[c] {
		x := &s.p.batches[b]
		var done bool
		if x.lastOven < 0 || s.p.tasks[x.lastOven].pin != nil {
			done = s.placeRest(b, rng)
		} else {
			w := s.wishFor(x.lastOven, b, math.MaxInt32)
			first := max(w.from+s.p.tasks[x.lastOven].leastMin, w.last-w.hold)
			done = s.scanEnds(b, first, w.until, w.until, rng)
		}
		if !done {
			for _, other := range s.p.clusters[c][:n] {
				s.remove(other)
			}
			return
		}
	}
}

// keepCompany plans again what is baked at another heat than its card's and shares its oven with nothing; out takes a
// cluster out.
func (s *schedule) keepCompany(rng *rand.Rand, out func(cluster int)) {
	for round := 0; ; round++ {
		alone := s.lonely()
		if len(alone) == 0 {
			return
		}
		s.cards = round > 1 // then only as on the card: with it there is an end
		for _, c := range alone {
			out(c)
			for _, b := range s.p.clusters[c] {
				s.remove(b)
			}
			s.persist(c, rng)
		}
		s.cards = false
	}
}
