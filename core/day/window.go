package day

import (
	"math"
)

// earliest is when a task could begin at the earliest, by what it follows and the least minutes of that.
func (s *schedule) earliest(i int) int {
	t := &s.p.tasks[i]
	from := max(s.p.now, t.from)
	for _, l := range t.before {
		from = max(from, s.earliestDone(l.task)+l.min)
	}
	return from
}

func (s *schedule) earliestDone(i int) int {
	t := &s.p.tasks[i]
	if s.at[i].set && (t.Uses != UseWait || t.pin != nil) {
		return s.done(i)
	}
	if t.Uses == UseWait {
		start := math.MinInt32
		for _, l := range t.before {
			start = max(start, s.earliestDone(l.task)+l.min)
		}
		return start + t.Minutes
	}
	return s.earliest(i) + t.leastMin
}

// latest is when a task has to be done, by what follows it and lies already.
func (s *schedule) latest(i int) int {
	by := s.p.end
	for _, l := range s.p.tasks[i].then {
		by = min(by, s.latestStart(l.task)-l.min)
	}
	return by
}

// latestStart is when a task has to begin: where it lies, or for a wait by what follows it.
func (s *schedule) latestStart(i int) int {
	t := &s.p.tasks[i]
	if t.Uses != UseWait || t.pin != nil {
		if s.at[i].set {
			return s.at[i].start
		}
		return math.MaxInt32 / 2
	}
	by := s.p.end
	for _, l := range t.then {
		by = min(by, s.latestStart(l.task)-l.min)
	}
	return by - t.Minutes
}
