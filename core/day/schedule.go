package day

import (
	"math"
	"math/rand/v2"
	"slices"
)

// placed is where a task lies.
type placed struct {
	set                     bool
	start, end              int
	person, oven, tier, alt int
	touches                 []touched
	out                     int     // when its place in the oven is free
	width                   float64 // that it takes there
}

type touched struct{ touch, start, person int }

// mark is what a batch takes of a resource, so that it can be given back.
type mark struct {
	of       []float64
	from, to int
	by       float64
}

// schedule is a plan under construction: where each task lies, and what is taken of each resource by the minute.
type schedule struct {
	p           *problem
	asks        int // the person who is asked first where nothing goes by chance
	at          []placed
	in          []bool // by batch
	busy        [][]float64
	machine     [][]float64
	area        [][]float64
	dish        [][]float64
	width       [][][]float64
	loads       [][]int     // by oven: oven tasks
	stages      [][]segment // by task: those of a load
	blocked     []int
	stopped     obstacle // what was missing last
	marks       [][]mark
	plain       bool // nothing by chance: as late as it goes
	found       []candidate
	minutes     []int
	stay        []candidate // where a batch's last bake stays while its hands are planned again; nil: anywhere
	free        bool        // no price is asked for another heat, so that two may meet at one that is neither's
	liked       float64     // a heat that several bakes are to meet at, C; 0: none
	anyTime     bool        // a bake is tried outside of its window too
	annealed    bool        // a plan that leaves something out is thrown away
	everyMinute bool        // a bake that finds no place is looked for minute by minute
	cards       bool        // only the heats of the cards are tried
	old         []placed    // by task: where people expect it; nil: no plan stands
	pins        []int       // by batch: how many of its marks are of what is pinned
}

func newSchedule(p *problem) *schedule { return newScheduleFrom(p, 0) }

// newScheduleFrom is an empty schedule. The touches of what is pinned are somebody's, by turns from the first person.
func newScheduleFrom(p *problem, first int) *schedule {
	lines := func(n int) [][]float64 {
		out := make([][]float64, n)
		for i := range out {
			out[i] = make([]float64, p.n)
		}
		return out
	}
	s := &schedule{
		p: p, asks: first, at: make([]placed, len(p.tasks)), in: make([]bool, len(p.batches)),
		busy: lines(len(p.people)), machine: lines(len(p.machines)), area: lines(len(p.areas)), dish: lines(len(p.dishes)),
		loads: make([][]int, len(p.ovens)), stages: make([][]segment, len(p.tasks)), marks: make([][]mark, len(p.batches)),
	}
	for _, o := range p.ovens {
		s.width = append(s.width, lines(len(o.tiers)))
	}
	s.pin()
	for _, m := range s.marks {
		s.pins = append(s.pins, len(m))
	}
	return s
}

// take takes of a resource for a batch, from now on.
func (s *schedule) take(batch int, of []float64, from, to int, by float64) {
	m := mark{of, max(0, from-s.p.now), min(s.p.n, to-s.p.now), by}
	if m.from >= m.to || by == 0 {
		return
	}
	for i := m.from; i < m.to; i++ {
		of[i] += by
	}
	s.marks[batch] = append(s.marks[batch], m)
}

// giveBack undoes the marks of a batch down to some of them.
func (s *schedule) giveBack(batch, to int) {
	for _, m := range s.marks[batch][to:] {
		for i := m.from; i < m.to; i++ {
			m.of[i] -= m.by
		}
	}
	s.marks[batch] = s.marks[batch][:to]
}

// room says whether a resource has so much left all the time, from now on.
func (s *schedule) room(of []float64, from, to int, by, most float64) bool {
	for i := max(0, from-s.p.now); i < min(s.p.n, to-s.p.now); i++ {
		if of[i]+by > most+1e-6 {
			return false
		}
	}
	return true
}

// pin plans what stays where it is.
func (s *schedule) pin() {
	for i := range s.p.tasks {
		t := &s.p.tasks[i]
		if t.pin == nil {
			continue
		}
		x := placed{set: true, start: t.pin.Start, person: -1, oven: -1, tier: -1, alt: -1}
		switch t.Uses {
		case "hands":
			x.end = or(t.pin.End, x.start+t.Minutes)
			x.person = s.personNamed(t.pin.Person)
			if x.person < 0 && x.end > s.p.now && len(t.by) > 0 {
				x.person = t.by[0]
			}
			if x.end > s.p.now {
				if x.person >= 0 {
					s.take(t.batch, s.busy[x.person], x.start, x.end, 1)
				}
				if t.machine >= 0 {
					s.take(t.batch, s.machine[t.machine], x.start, x.end, 1)
				}
			}
		case "wait":
			x.end = or(t.pin.End, x.start+t.Minutes)
		case "oven":
			s.pinLoad(i, &x)
		}
		s.at[i] = x
		if x.oven >= 0 && x.end > s.p.now {
			s.load(i)
		}
	}
	for i := range s.p.tasks { // hands are found for what is still to be done of it
		t := &s.p.tasks[i]
		if x := &s.at[i]; t.pin != nil && x.oven >= 0 && x.end > s.p.now-1 {
			s.touchAll(i, x, nil)
		}
	}
}

func (s *schedule) personNamed(id string) int {
	return slices.IndexFunc(s.p.req.People, func(x Person) bool { return x.ID == id })
}

func (s *schedule) pinLoad(i int, x *placed) {
	t := &s.p.tasks[i]
	x.alt = 0
	for k := range t.bakes {
		if t.bakes[k].ID == t.pin.Alternative {
			x.alt = k
		}
	}
	a := &t.bakes[x.alt]
	x.end = or(t.pin.End, x.start+a.minutes)
	x.out = x.end
	x.oven = slices.IndexFunc(s.p.ovens, func(o ovenOf) bool { return o.ID == t.pin.Oven })
	w := float64(0)
	for _, sl := range a.slots {
		o := s.p.ovens[sl.oven]
		if (x.oven < 0 || x.oven == sl.oven) && (t.pin.Tier == "" || o.tiers[sl.tier].ID == t.pin.Tier) {
			x.oven, x.tier, w = sl.oven, sl.tier, sl.width
			break
		}
	}
	if x.oven >= 0 && x.tier < 0 && t.pin.Tier != "" { // given, whether it fits or not
		x.tier = slices.IndexFunc(s.p.ovens[x.oven].tiers, func(z Tier) bool { return z.ID == t.pin.Tier })
		if x.tier >= 0 {
			w = float64(widthOn(s.p.ovens[x.oven].tiers[x.tier], t.Count, t.WidthCM, t.DepthCM))
		}
	}
	if x.oven >= 0 && x.tier >= 0 && !math.IsInf(float64(w), 0) {
		x.width = w
		s.take(t.batch, s.width[x.oven][x.tier], x.start, x.end, w)
	}
}

// segment is a stage of a load against the clock.
type segment struct {
	from, to int
	c        float64
	heating  string
}

// segments are the stages of a load; the last stretches to its end.
func segments(b *baking, start, end int, buf []segment) []segment {
	at := start
	for i, st := range b.Stages {
		to := at + st.Minutes
		if i == len(b.Stages)-1 {
			to = end
		}
		buf = append(buf, segment{at, to, st.OvenC, heatingOf(st)})
		at = to
	}
	return buf
}

func (o *ovenOf) change(from, to float64) int { return rate(from, to, o.WarmCPerMin, o.CoolCPerMin) }

func same(a, b *segment) bool { return a.c == b.c && a.heating == b.heating }

// suits says whether a bake can go into an oven at a minute, by the settings of the loads that are in it.
func (s *schedule) suits(b *baking, oven, start int) bool {
	o, end := &s.p.ovens[oven], start+b.minutes
	var buf [8]segment
	mine := segments(b, start, end, buf[:0])
	first := &mine[0]
	for _, i := range s.loads[oven] {
		x := &s.at[i]
		if x.end+s.p.longestChange < start || x.start-s.p.longestChange > end {
			continue
		}
		theirs := s.stages[i]
		if len(mine) == 1 && len(theirs) == 1 && same(first, &theirs[0]) {
			continue
		}
		for k := range mine {
			for n := range theirs {
				if m, t := &mine[k], &theirs[n]; m.from < t.to && t.from < m.to && !same(m, t) {
					return false
				}
			}
		}
		for n := range theirs {
			if t := &theirs[n]; t.to <= start && !same(t, first) && start-t.to < o.change(t.c, first.c) {
				return false
			}
		}
		if x.start < s.p.now || first.to > x.start {
			continue
		}
		for k := range mine {
			if m := &mine[k]; m.to <= x.start && !same(m, &theirs[0]) && x.start-m.to < o.change(m.c, theirs[0].c) {
				return false
			}
		}
	}
	return true
}

// can says whether somebody can work for a time.
func (s *schedule) can(person, from, to int) bool {
	if from < s.p.now || to > s.p.end {
		return false
	}
	free, busy := s.p.people[person].free, s.busy[person]
	for m := from - s.p.now; m < to-s.p.now; m++ {
		if !free[m] || busy[m] > 0 {
			return false
		}
	}
	return true
}

// seldom is in how many cases one an optional touch is left out though somebody could do it.
const seldom = 24

// touchAll finds hands for the touches of a load, from now on: anybody's and at any of the minutes, by chance where
// there is a rng. Its place is taken until it is out.
func (s *schedule) touchAll(i int, x *placed, rng *rand.Rand) bool {
	t := &s.p.tasks[i]
	b := &t.bakes[x.alt]
	x.touches = nil
	ok := true
	for k, touch := range b.Touches {
		at := x.start + touch.At
		if touch.At == b.minutes {
			at = x.end
		}
		if at < s.p.now {
			continue
		}
		if touch.Optional && rng != nil && rng.IntN(seldom) == 0 {
			continue
		}
		found, late, who := false, false, s.asks
		if rng != nil {
			late, who = rng.IntN(2) == 0, rng.IntN(max(1, len(t.by)))
		}
	search:
		for d := range touch.Flex + 1 {
			m := at + d
			if late {
				m = at + touch.Flex - d
			}
			if b.isOut(k) && !s.standsUntil(i, x, m+touch.Minutes) {
				continue
			}
			for n := range t.by {
				person := t.by[(n+who)%len(t.by)]
				if s.can(person, m, m+touch.Minutes) {
					x.touches = append(x.touches, touched{k, m, person})
					s.take(t.batch, s.busy[person], m, m+touch.Minutes, 1)
					if b.isOut(k) {
						s.takeUntil(t.batch, x, m+touch.Minutes)
					}
					found = true
					break search
				}
			}
		}
		ok = ok && (found || touch.Optional)
	}
	return ok
}

// standsUntil says whether the place of a load is free until it is out; what is pinned stays whatever is there.
func (s *schedule) standsUntil(i int, x *placed, out int) bool {
	return s.p.tasks[i].pin != nil || x.tier < 0 ||
		s.room(s.width[x.oven][x.tier], x.out, out, x.width, s.p.ovens[x.oven].tiers[x.tier].WidthCM)
}

// takeUntil takes the place of a load until it is out.
func (s *schedule) takeUntil(batch int, x *placed, out int) {
	if out <= x.out {
		return
	}
	if x.tier >= 0 && x.end > s.p.now {
		s.take(batch, s.width[x.oven][x.tier], x.out, out, x.width)
	}
	x.out = out
}

// done is when what follows a task may count from.
func (s *schedule) done(i int) int {
	if s.p.tasks[i].Uses == UseWait {
		return s.at[i].start + s.p.tasks[i].Minutes
	}
	return s.at[i].end
}

// remove takes a batch out.
func (s *schedule) remove(b int) {
	s.giveBack(b, s.pins[b])
	for _, t := range s.p.batches[b].tasks {
		if s.p.tasks[t].pin != nil {
			continue
		}
		if x := &s.at[t]; x.set && s.p.tasks[t].Uses == UseOven {
			s.loads[x.oven] = slices.DeleteFunc(s.loads[x.oven], func(l int) bool { return l == t })
		}
		s.at[t] = placed{}
	}
	s.in[b] = false
}

// load puts an oven task among the loads of its oven, in the order in which they go in.
func (s *schedule) load(i int) {
	x := &s.at[i]
	s.stages[i] = segments(&s.p.tasks[i].bakes[x.alt], x.start, x.end, s.stages[i][:0])
	all := s.loads[x.oven]
	k := len(all)
	for k > 0 && (s.at[all[k-1]].start > x.start || s.at[all[k-1]].start == x.start && s.at[all[k-1]].end > x.end) {
		k--
	}
	s.loads[x.oven] = slices.Insert(all, k, i)
}

// kept is a batch as it was.
type kept struct {
	batch int
	in    bool
	at    []placed
	marks []mark
}

func (s *schedule) keep(b int) kept {
	k := kept{batch: b, in: s.in[b], marks: slices.Clone(s.marks[b])}
	for _, t := range s.p.batches[b].tasks {
		k.at = append(k.at, s.at[t])
	}
	return k
}

// restore plans a batch as it was. It was taken out before.
func (s *schedule) restore(k kept) {
	b := &s.p.batches[k.batch]
	if !k.in {
		return
	}
	first := len(s.marks[k.batch])
	for _, m := range k.marks[first:] {
		for i := m.from; i < m.to; i++ {
			m.of[i] += m.by
		}
	}
	s.marks[k.batch] = append(s.marks[k.batch], k.marks[first:]...)
	for i, t := range b.tasks {
		if s.p.tasks[t].pin != nil {
			continue
		}
		s.at[t] = k.at[i]
		if s.p.tasks[t].Uses == UseOven {
			s.load(t)
		}
	}
	s.in[k.batch] = true
}
