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
	p       *problem
	at      []placed
	in      []bool // by batch
	busy    [][]float64
	machine [][]float64
	area    [][]float64
	dish    [][]float64
	width   [][][]float64
	loads   [][]int // by oven: oven tasks
	marks   [][]mark
	plain   bool // nothing by chance: as late as it goes
	found   []candidate
	minutes []int
	stay    []candidate // where a batch's last bake stays while its hands are planned again; nil: anywhere
	pins    []int       // by batch: how many of its marks are of what is pinned
}

func newSchedule(p *problem) *schedule {
	lines := func(n int) [][]float64 {
		out := make([][]float64, n)
		for i := range out {
			out[i] = make([]float64, p.n)
		}
		return out
	}
	s := &schedule{
		p: p, at: make([]placed, len(p.tasks)), in: make([]bool, len(p.batches)),
		busy: lines(len(p.people)), machine: lines(len(p.machines)), area: lines(len(p.areas)), dish: lines(len(p.dishes)),
		loads: make([][]int, len(p.ovens)), marks: make([][]mark, len(p.batches)),
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

func (s *schedule) loadSegments(i int, buf []segment) []segment {
	x := &s.at[i]
	return segments(&s.p.tasks[i].bakes[x.alt], x.start, x.end, buf)
}

func (o *ovenOf) change(from, to float64) int { return rate(from, to, o.WarmCPerMin, o.CoolCPerMin) }

func same(a, b segment) bool { return a.c == b.c && a.heating == b.heating }

// suits says whether a bake can go into an oven at a minute, by the settings of the loads that are in it.
func (s *schedule) suits(b *baking, oven, start int) bool {
	o, end := &s.p.ovens[oven], start+b.minutes
	var bufA, bufB [8]segment
	mine := segments(b, start, end, bufA[:0])
	for _, i := range s.loads[oven] {
		x := &s.at[i]
		if x.end+s.p.longestChange < start || x.start-s.p.longestChange > end {
			continue
		}
		theirs := s.loadSegments(i, bufB[:0])
		for _, m := range mine {
			for _, t := range theirs {
				if m.from < t.to && t.from < m.to && !same(m, t) {
					return false
				}
			}
		}
		for _, t := range theirs {
			if t.to <= start && !same(t, mine[0]) && start-t.to < o.change(t.c, mine[0].c) {
				return false
			}
		}
		if x.start < s.p.now {
			continue
		}
		for _, m := range mine {
			if m.to <= x.start && !same(m, theirs[0]) && x.start-m.to < o.change(m.c, theirs[0].c) {
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

// touchAll finds hands for the touches of a load, from now on: anybody's and at any of the minutes, by chance where
// there is a rng.
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
		found, late, who := false, false, 0
		if rng != nil {
			late, who = rng.IntN(2) == 0, rng.IntN(max(1, len(t.by)))
		}
	search:
		for d := range touch.Flex + 1 {
			m := at + d
			if late {
				m = at + touch.Flex - d
			}
			for n := range t.by {
				person := t.by[(n+who)%len(t.by)]
				if s.can(person, m, m+touch.Minutes) {
					x.touches = append(x.touches, touched{k, m, person})
					s.take(t.batch, s.busy[person], m, m+touch.Minutes, 1)
					found = true
					break search
				}
			}
		}
		ok = ok && found
	}
	return ok
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
