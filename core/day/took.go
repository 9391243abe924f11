package day

import (
	"cmp"
	"math"
)

// Took is how long hands were at one thing of a day, as it was told when it was done, min.
type Took struct {
	Kind    string `json:"kind"` // of the task
	Planned int    `json:"planned_min"`
	Took    int    `json:"took_min"`
}

// took is what was told by now of what hands did.
func (s *showing) took() {
	for _, p := range s.asked.Pinned {
		t := s.tasks[p.Task]
		if t == nil || t.Uses != UseHands || p.End == nil || *p.End > s.q.Now || *p.End <= p.Start {
			continue
		}
		if planned := cmp.Or(t.working, t.Minutes); planned > 0 {
			s.out.Took = append(s.out.Took, Took{t.Kind, planned, *p.End - p.Start})
		}
	}
}

// hands gives the tasks of hands the minutes that they take in this kitchen: factors by their kinds, left out is one.
func (b *Batch) hands(factors map[string]float64) {
	for i := range b.Tasks {
		t := &b.Tasks[i]
		if by, ok := factors[t.Kind]; ok && t.Uses == UseHands && by > 0 {
			t.working = t.Minutes
			t.Minutes = max(1, int(math.Round(float64(t.Minutes)*by)))
		}
	}
}

// HandsWord is what a kind of task is called in a list of steps; empty: it is none of hands.
func HandsWord(kind string) string { return stepWords[kind] }
