package day

import (
	"math"
	"math/rand/v2"
	"slices"
)

// placeRest plans what is not planned of a batch: what follows its last bake forwards, all else backwards. Where that
// fails all of it is taken out.
func (s *schedule) placeRest(b int, rng *rand.Rand) bool {
	x := &s.p.batches[b]
	for k, i := range x.order {
		if x.tailOf[k] && !s.at[i].set && s.p.tasks[i].Uses != UseWait && !s.placeForward(i) {
			return s.fail(b)
		}
	}
	for i := s.nextBack(x, rng); i >= 0; i = s.nextBack(x, rng) {
		lay := s.placeBackward
		if s.p.tasks[i].Uses == UseOven {
			lay = s.placeBake
		}
		if !lay(i, b, rng) {
			return s.fail(b)
		}
	}
	if !s.placeWaits(x) || !s.keeps(b) || !s.takeRest(b) {
		return s.fail(b)
	}
	s.in[b] = true
	return true
}

// nextBack is the next piece to place backwards: all that follows it lies, and of those the one that may wait the least
// for what follows; -1: all lies.
func (s *schedule) nextBack(x *batch, rng *rand.Rand) int {
	best, tightest := -1, math.Inf(1)
	for k := len(x.order) - 1; k >= 0; k-- {
		i := x.order[k]
		t := &s.p.tasks[i]
		if s.at[i].set || t.Uses == UseWait || !s.followersLie(i, x) {
			continue
		}
		tight := float64(longestPlan)
		for _, l := range t.then {
			if l.max >= 0 {
				tight = min(tight, float64(l.max))
			}
		}
		if !s.plain {
			tight *= 1 + 0.3*rng.Float64()
		}
		if tight < tightest {
			best, tightest = i, tight
		}
	}
	return best
}

// followersLie says whether all of a batch that follows a task lies, through waits.
func (s *schedule) followersLie(i int, x *batch) bool {
	for _, l := range s.p.tasks[i].then {
		t := &s.p.tasks[l.task]
		switch {
		case s.p.batches[t.batch].Batch != x.Batch || s.at[l.task].set:
		case t.Uses != UseWait || !s.followersLie(l.task, x):
			return false
		}
	}
	return true
}

// fail takes out what was planned of a batch.
func (s *schedule) fail(b int) bool {
	s.remove(b)
	return false
}

// placeBake plans a bake before the last one where it costs least.
func (s *schedule) placeBake(i, b int, rng *rand.Rand) bool {
	for n, c := range s.candidates(i, b, s.latest(i), rng) {
		if n == mostTried {
			break
		}
		before := len(s.marks[b])
		s.placeLoad(i, c)
		if s.touchAll(i, &s.at[i], rng) {
			return true
		}
		s.giveBack(b, before)
		o := c.slot.oven
		s.loads[o] = slices.DeleteFunc(s.loads[o], func(l int) bool { return l == i })
		s.at[i] = placed{}
	}
	return false
}

// placeForward plans a piece of work as early as it goes.
func (s *schedule) placeForward(i int) bool {
	t := &s.p.tasks[i]
	for m := s.earliest(i); m+t.Minutes <= s.p.end; m++ {
		for _, person := range t.by {
			if s.hands(i, person, m) {
				return true
			}
		}
	}
	return false
}

// placeBackward plans a piece of work as late as it goes, with whoever can then; now and then earlier.
func (s *schedule) placeBackward(i, b int, rng *rand.Rand) bool {
	t := &s.p.tasks[i]
	until, from := s.latest(i), s.earliest(i)
	if x := &s.p.batches[b]; len(t.then) == 0 && x.hasDue {
		until = min(until, x.due)
		if from+t.Minutes > until {
			until = min(s.p.end, from+t.Minutes+720)
		}
	}
	if x := &s.p.batches[b]; len(t.then) == 0 && !x.hasDue { // a break: any time will do
		until = min(until, from+t.Minutes+rng.IntN(max(1, until-from-t.Minutes+1)))
	}
	if !s.plain && rng.IntN(6) == 0 {
		if early := until - rng.IntN(45); early-t.Minutes >= from {
			until = early
		}
	}
	floor := from
	for _, l := range t.then {
		if l.hard && l.max >= 0 && s.at[l.task].set && s.p.tasks[l.task].pin == nil {
			floor = max(floor, s.at[l.task].start-l.max-t.Minutes)
		}
	}
	if !s.plain && rng.IntN(3) == 0 && s.placeAlongside(i, until, max(floor, until-t.Minutes-besideMin), rng) {
		return true
	}
	blocked := s.unblocked(len(t.by))
	for m := until - t.Minutes; m >= floor; m-- {
		best := -1
		for k, person := range t.by {
			if m > blocked[k] {
				continue
			}
			if at, is := s.blockedAt(person, m, m+t.Minutes); is {
				blocked[k] = at - t.Minutes // the first time before what is in the way
				continue
			}
			if best < 0 || rng.IntN(6) == 0 ||
				s.touches(person, m, m+t.Minutes) && (!s.touches(best, m, m+t.Minutes) || rng.IntN(2) == 0) {
				best = person
			}
		}
		if best >= 0 && s.hands(i, best, m) {
			return true
		}
	}
	return false
}

// placeAlongside plans a piece of work right before or after another one of somebody's, so that nobody stands about.
func (s *schedule) placeAlongside(i, until, floor int, rng *rand.Rand) bool {
	t := &s.p.tasks[i]
	if len(t.by) == 0 {
		return false
	}
	first := rng.IntN(len(t.by))
	blocked := s.unblocked(len(t.by))
	for m := until - t.Minutes; m >= floor; m-- {
		for k := range t.by {
			person := t.by[(k+first)%len(t.by)]
			if m > blocked[k] || !s.touches(person, m, m+t.Minutes) {
				continue
			}
			if at, is := s.blockedAt(person, m, m+t.Minutes); is {
				blocked[k] = at - t.Minutes
				continue
			}
			if s.hands(i, person, m) {
				return true
			}
		}
	}
	return false
}

// unblocked is room for as many people, with nothing in the way of any of them.
func (s *schedule) unblocked(n int) []int {
	s.blocked = s.blocked[:0]
	for range n {
		s.blocked = append(s.blocked, math.MaxInt)
	}
	return s.blocked
}

// blockedAt is the last minute of a time at which somebody can't work, and whether there is one.
func (s *schedule) blockedAt(person, from, to int) (int, bool) {
	if from < s.p.now || to > s.p.end {
		return to - 1, true
	}
	free, busy := s.p.people[person].free, s.busy[person]
	for m := to - s.p.now - 1; m >= from-s.p.now; m-- {
		if !free[m] || busy[m] > 0 {
			return m + s.p.now, true
		}
	}
	return 0, false
}

// touches says whether somebody works right before or after.
func (s *schedule) touches(person, from, to int) bool {
	a, b := from-s.p.now-1, to-s.p.now
	return a >= 0 && s.busy[person][a] > 0 || b < s.p.n && s.busy[person][b] > 0
}

// hands plans a piece of work with somebody, where that goes.
func (s *schedule) hands(i, person, start int) bool {
	t := &s.p.tasks[i]
	end := start + t.Minutes
	if !s.can(person, start, end) {
		return false
	}
	if t.machine >= 0 && !s.room(s.machine[t.machine], start, end, 1, s.p.machines[t.machine]) {
		return false
	}
	s.at[i] = placed{set: true, start: start, end: end, person: person, oven: -1, tier: -1, alt: -1}
	s.take(t.batch, s.busy[person], start, end, 1)
	if t.machine >= 0 {
		s.take(t.batch, s.machine[t.machine], start, end, 1)
	}
	return true
}
