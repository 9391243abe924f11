package day

import (
	"cmp"
	"math"
)

// ActualTime is how long hands were at one thing of a day, as it was reported when it was done, min.
type ActualTime struct {
	Kind    string `json:"kind"` // of the task
	Planned int    `json:"planned_min"`
	Actual  int    `json:"actual_min"`
}

// took is what was reported by now of what hands did.
func (s *showing) took() {
	for _, p := range s.asked.Pinned {
		t := s.tasks[p.Task]
		if t == nil || t.Uses != UsePerson || p.End == nil || *p.End > s.q.Now || *p.End <= p.Start {
			continue
		}
		if planned := cmp.Or(t.working, t.Minutes); planned > 0 {
			s.out.ActualTimes = append(s.out.ActualTimes, ActualTime{t.Kind, planned, *p.End - p.Start})
		}
	}
}

// hands gives the tasks of hands the minutes that they take in this kitchen: factors by their kinds, left out is one.
func (b *Batch) hands(factors map[string]float64) {
	for i := range b.Tasks {
		t := &b.Tasks[i]
		if by, ok := factors[t.Kind]; ok && t.Uses == UsePerson && by > 0 {
			t.working = t.Minutes
			t.Minutes = max(1, int(math.Round(float64(t.Minutes)*by)))
		}
	}
}

// TaskName is what a kind of task is called in a list of steps; empty: it is none of hands.
func TaskName(kind string) string { return stepWords[kind] }
