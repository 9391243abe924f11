package day

import (
	"math"
	"slices"
)

// over says whether a task is pinned and has ended: it takes and counts nothing.
func (s *schedule) over(i int) bool { return s.p.tasks[i].pin != nil && s.at[i].end <= s.p.now }

func (s *schedule) lateOf(b int) int {
	x := &s.p.batches[b]
	if !x.hasDue || s.allOver(b) {
		return 0
	}
	return max(0, s.ready(b)-x.due)
}

// allOver says whether all of a batch is pinned and has ended.
func (s *schedule) allOver(b int) bool {
	for _, i := range s.p.batches[b].tasks {
		if !s.over(i) {
			return false
		}
	}
	return true
}

// windowOf is by how many minutes a batch is over its windows.
func (s *schedule) windowOf(b int) int {
	x := &s.p.batches[b]
	sum := 0
	for _, i := range x.tasks {
		t := &s.p.tasks[i]
		if s.over(i) {
			continue
		}
		for _, l := range t.before {
			if l.max >= 0 && s.at[l.task].set && (!l.hard || t.pin != nil) {
				sum += max(0, s.at[i].start-s.done(l.task)-l.max)
			}
		}
		if t.Uses == UseWait && t.max >= 0 {
			sum += max(0, s.at[i].end-s.at[i].start-t.max)
		}
	}
	if x.hasDue && x.holdMax >= 0 && !s.allOver(b) {
		sum += max(0, x.due-s.ready(b)-x.holdMax)
	}
	return sum
}

// ovenOn is how long an oven is on, with one more load that goes in at start, or without.
func (s *schedule) ovenOn(o, more int, b *baking, start int) int {
	oven := &s.p.ovens[o]
	at, on := max(s.p.now, oven.from), 0
	goIn := func(start, end int, c float64) {
		from := max(start, s.p.now)
		if from > at {
			on += min(from-at, int(math.Ceil((c-s.p.roomC)/oven.WarmCPerMin-1e-9)))
			at = from
		}
		if end > at {
			on += end - at
			at = end
		}
	}
	for _, i := range s.loads[o] {
		x := &s.at[i]
		if more >= 0 && (start < x.start || start == x.start && start+b.minutes <= x.end) {
			goIn(start, start+b.minutes, b.Stages[0].OvenC)
			more = -1
		}
		goIn(x.start, x.end, s.p.tasks[i].bakes[x.alt].Stages[0].OvenC)
	}
	if more >= 0 {
		goIn(start, start+b.minutes, b.Stages[0].OvenC)
	}
	return on
}

// undoneMin is the price of an optional touch that is left out, in minutes of an oven.
const undoneMin = 5

// priceOf is what a load costs on top of the minutes of its oven: another heat than its card's, and what nobody is
// there to do.
func (s *schedule) priceOf(i int) int {
	x := &s.at[i]
	b := &s.p.tasks[i].bakes[x.alt]
	price := b.ExtraMin
	for k := range b.Touches {
		if b.Touches[k].Optional && x.start+b.Touches[k].At >= s.p.now &&
			!slices.ContainsFunc(x.touches, func(t touched) bool { return t.touch == k }) {
			price += undoneMin
		}
	}
	return price
}

// companyMin is for how many minutes a bake at another heat than its card's shares its oven, at least.
const companyMin = 10

// hasCompany says whether something else is in an oven between two minutes for long enough.
func (s *schedule) hasCompany(oven, start, end, but int) bool {
	for _, l := range s.loads[oven] {
		if x := &s.at[l]; l != but && min(x.end, end)-max(x.start, start) >= companyMin {
			return true
		}
	}
	return false
}

// lonely are the clusters with a bake at another heat than its card's that shares its oven with nothing.
func (s *schedule) lonely() (out []int) {
	for o := range s.loads {
		for _, l := range s.loads[o] {
			x, t := &s.at[l], &s.p.tasks[l]
			if t.pin == nil && t.bakes[x.alt].ExtraMin > 0 && !s.hasCompany(o, x.start, x.end, l) {
				if c := s.p.clusOf[t.batch]; !slices.Contains(out, c) {
					out = append(out, c)
				}
			}
		}
	}
	return out
}

// waitingOf is what somebody stands about between the first and the last piece of work.
func (s *schedule) waitingOf(person int) int {
	free, busy := s.p.people[person].free, s.busy[person]
	idle, since := 0, -1
	for m := range s.p.n {
		switch {
		case busy[m] > 0:
			if since >= 0 {
				idle += since
			}
			since = 0
		case since >= 0 && free[m]:
			since++
		}
	}
	return idle
}

// objective measures a plan.
func (s *schedule) objective() Objective {
	var o Objective
	for b := range s.p.batches {
		if !s.in[b] {
			if s.p.batches[b].hasDue {
				o.LeftOut++
			}
			continue
		}
		o.Late += s.lateOf(b)
		o.Window += s.windowOf(b)
	}
	for i := range s.p.ovens {
		o.OvenOn += s.ovenOn(i, -1, nil, 0)
		for _, l := range s.loads[i] {
			o.OvenOn += s.priceOf(l)
		}
	}
	for i := range s.p.people {
		o.Waiting += s.waitingOf(i)
	}
	return o
}

// scalar is an objective as one figure, to compare plans on the way.
func (o Objective) scalar() float64 {
	return weighLeftOut*float64(o.LeftOut) + weighLate*float64(o.Late) + weighWindow*float64(o.Window) +
		weighOvenOn*float64(o.OvenOn) + weighWaiting*float64(o.Waiting)
}

// slack is the sum of what each batch has in hand before its hour, as far as its bake is uncertain; each with its
// chance to be in time.
func (s *schedule) slack() (sum int, chances []Chance) {
	chances = []Chance{}
	for b := range s.p.batches {
		x := &s.p.batches[b]
		if !s.in[b] || !x.hasDue || x.lastOven < 0 || s.allOver(b) {
			continue
		}
		at := &s.at[x.lastOven]
		if at.oven < 0 {
			continue
		}
		sd := s.p.tasks[x.lastOven].bakes[at.alt].SDMin
		spare := float64(x.due-at.end-x.tail) - s.p.ovens[at.oven].DoorMin*float64(s.openings(x.lastOven))
		sum += int(math.Floor(max(0, min(math.Ceil(2*sd-1e-9), spare))))
		share := 1.0
		if sd > 0 {
			share = 0.5 * math.Erfc(-spare/sd/math.Sqrt2)
		} else if spare < 0 {
			share = 0
		}
		chances = append(chances, Chance{x.ID, math.Round(100*share) / 100})
	}
	return sum, chances
}

// openings is how often an oven is opened for other loads while one is in it: minutes that follow one another are one
// opening.
func (s *schedule) openings(i int) int {
	at := &s.at[i]
	var minutes []int
	note := func(m int) {
		if m > at.start && m < at.end {
			minutes = append(minutes, m)
		}
	}
	for _, l := range s.loads[at.oven] {
		if l == i {
			continue
		}
		x := &s.at[l]
		b := &s.p.tasks[l].bakes[x.alt]
		note(x.start)
		out, last := x.end, -1
		for _, t := range x.touches {
			if !b.isOut(t.touch) {
				note(t.start)
			} else if end := t.start + b.Touches[t.touch].Minutes; end > last {
				out, last = t.start, end
			}
		}
		note(out)
	}
	slices.Sort(minutes)
	n, before := 0, math.MinInt32
	for _, m := range minutes {
		if m > before+1 {
			n++
		}
		before = m
	}
	return n
}
