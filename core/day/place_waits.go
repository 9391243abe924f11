package day

import (
	"math"
)

// placeWaits plans the waits of a batch between what they follow and what follows them, all of which lies.
func (s *schedule) placeWaits(b *batch) bool {
	waits := func(i int) bool { return s.p.tasks[i].Uses == UseWait && s.p.tasks[i].pin == nil }
	for _, i := range b.order {
		if !waits(i) {
			continue
		}
		x := placed{set: true, person: -1, oven: -1, tier: -1, alt: -1, start: math.MinInt32}
		for _, l := range s.p.tasks[i].before {
			if !s.at[l.task].set {
				return false
			}
			x.start = max(x.start, s.done(l.task)+l.min)
		}
		s.at[i] = x
	}
	for _, i := range b.order {
		if !waits(i) {
			continue
		}
		x, least := &s.at[i], s.at[i].start+s.p.tasks[i].Minutes
		x.end = least
		for k, l := range s.p.tasks[i].then {
			if !s.at[l.task].set {
				return false
			}
			if k == 0 || s.at[l.task].start > x.end {
				x.end = s.at[l.task].start
			}
		}
		if x.end < least || x.end > s.p.end {
			return false
		}
	}
	return true
}

// keeps says whether a batch that lies keeps its lags, and those to what lies of others.
func (s *schedule) keeps(b int) bool {
	x := &s.p.batches[b]
	ready := s.ready(b)
	if ready > s.p.end || x.hasDue && x.lateMax >= 0 && ready > x.due+x.lateMax {
		return false
	}
	for _, i := range x.tasks {
		t := &s.p.tasks[i]
		if t.pin == nil && (s.at[i].start < s.p.now && (t.Uses != UseWait || !s.follows(i)) || s.at[i].start < t.from) {
			return false
		}
		for _, l := range t.before {
			if s.at[l.task].set && t.pin == nil && !s.lagKept(i, l) {
				return false
			}
		}
		for _, l := range t.then {
			n := &s.p.tasks[l.task]
			if s.at[l.task].set && n.pin == nil && n.batch != b && !s.lagKept(l.task, link{i, l.min, l.max, l.hard}) {
				return false
			}
		}
	}
	return true
}

// follows says whether a wait follows only what is pinned.
func (s *schedule) follows(i int) bool {
	for _, l := range s.p.tasks[i].before {
		t := &s.p.tasks[l.task]
		if t.pin == nil && (t.Uses != UseWait || !s.follows(l.task)) {
			return false
		}
	}
	return true
}

func (s *schedule) lagKept(i int, l link) bool {
	lag := s.at[i].start - s.done(l.task)
	return lag >= l.min && (!l.hard || l.max < 0 || lag <= l.max)
}

// ready is when the last of a batch is done.
func (s *schedule) ready(b int) int {
	ready := math.MinInt32
	for _, i := range s.p.batches[b].tasks {
		ready = max(ready, s.done(i))
	}
	return ready
}

// takeRest takes the places of a batch's waits, its dishes, and where it is held until it is wanted.
func (s *schedule) takeRest(b int) bool {
	x := &s.p.batches[b]
	for _, i := range x.tasks {
		t := &s.p.tasks[i]
		if t.Uses != UseWait || t.place < 0 || s.at[i].end <= s.p.now {
			continue
		}
		if !s.room(s.area[t.place], s.at[i].start, s.at[i].end, t.AreaCM2, s.p.areas[t.place]) {
			s.stopped = obstacle{byPlace, t.place}
			return false
		}
		s.take(b, s.area[t.place], s.at[i].start, s.at[i].end, t.AreaCM2)
	}
	ready := s.ready(b)
	until := ready
	if x.hasDue {
		until = max(ready, x.due)
	}
	if x.hold >= 0 {
		if !s.room(s.area[x.hold], ready, until, x.HoldCM2, s.p.areas[x.hold]) {
			s.stopped = obstacle{byPlace, x.hold}
			return false
		}
		s.take(b, s.area[x.hold], ready, until, x.HoldCM2)
	}
	for _, d := range x.taken {
		from, to := s.first(b), until
		if d.from >= 0 {
			from = s.at[d.from].start
		}
		if d.to >= 0 {
			to = s.at[d.to].end
		}
		to += s.p.dishes[d.dish].WashMin
		if !s.room(s.dish[d.dish], from, to, float64(d.count), float64(s.p.dishes[d.dish].Count)) {
			s.stopped = obstacle{byDishInUse, d.dish}
			return false
		}
		s.take(b, s.dish[d.dish], from, to, float64(d.count))
	}
	return true
}

func (s *schedule) first(b int) int {
	first := math.MaxInt32
	for _, i := range s.p.batches[b].tasks {
		first = min(first, s.at[i].start)
	}
	return first
}
