// Package daytest holds a plan of a day against what it was asked for: every constraint is looked at and the objective
// computed anew, from the request and the answer alone, by the minute and by other ways than the planner's.
package daytest

import (
	"fmt"
	"math"

	"mabbin/core/day"
)

// Broken lists what a plan does not keep, and how its objective differs from what it says.
func Broken(q day.Request, a *day.Answer) []string {
	c := &check{
		q:       q,
		a:       a,
		task:    map[string]*day.Task{},
		batchOf: map[string]*day.Batch{},
		at:      map[string]day.Scheduled{},
		pin:     map[string]day.Pin{},
	}
	c.end = q.Now + 2880
	if q.End != nil {
		c.end = *q.End
	}
	for i := range q.Batches {
		for j := range q.Batches[i].Tasks {
			t := &q.Batches[i].Tasks[j]
			c.task[t.ID], c.batchOf[t.ID] = t, &q.Batches[i]
		}
	}
	for _, p := range q.Pinned {
		c.pin[p.Task] = p
	}
	for _, s := range a.Schedule {
		if _, twice := c.at[s.Task]; twice {
			c.say("%s lies twice", s.Task)
		}
		if c.task[s.Task] == nil {
			c.say("%s is no task", s.Task)
			continue
		}
		c.at[s.Task] = s
	}
	c.wholeBatches()
	for _, s := range a.Schedule {
		if c.task[s.Task] != nil {
			c.one(s)
		}
	}
	c.people()
	c.machinesPlacesDishes()
	c.ovens()
	c.objective()
	return c.broken
}

type check struct {
	q       day.Request
	a       *day.Answer
	end     int
	task    map[string]*day.Task
	batchOf map[string]*day.Batch
	at      map[string]day.Scheduled
	pin     map[string]day.Pin
	broken  []string
}

func (c *check) say(format string, args ...any) {
	c.broken = append(c.broken, fmt.Sprintf(format, args...))
}

func (c *check) out(id string) bool {
	for _, x := range c.a.LeftOut {
		if x == id {
			return true
		}
	}
	return false
}

func (c *check) pinned(id string) bool { _, is := c.pin[id]; return is }

// past says whether a task is pinned and ended by now.
func (c *check) past(id string) bool { return c.pinned(id) && c.at[id].End <= c.q.Now }

func (c *check) done(id string) int {
	if c.task[id].Uses == "wait" {
		return c.at[id].Start + c.task[id].Minutes
	}
	return c.at[id].End
}

func (c *check) wholeBatches() {
	for _, b := range c.q.Batches {
		for _, t := range b.Tasks {
			_, lies := c.at[t.ID]
			switch out := c.out(b.ID); {
			case !out && !lies:
				c.say("%s: %s is missing", b.ID, t.ID)
			case out && lies && !c.pinned(t.ID):
				c.say("%s is left out, and %s lies", b.ID, t.ID)
			}
			for _, l := range t.After {
				if c.out(c.batchOf[l.Task].ID) && !c.out(b.ID) && c.batchOf[l.Task].ID != b.ID {
					c.say("%s lies, and follows %s, which is left out", b.ID, l.Task)
				}
			}
		}
	}
}

func (c *check) afterPinned(id string) bool {
	for _, l := range c.task[id].After {
		if !c.pinned(l.Task) && (c.task[l.Task].Uses != "wait" || !c.afterPinned(l.Task)) {
			return false
		}
	}
	return true
}

// one looks at a task alone, and at its lags.
func (c *check) one(s day.Scheduled) {
	t := c.task[s.Task]
	if p, is := c.pin[s.Task]; is {
		if s.Start != p.Start || p.End != nil && s.End != *p.End || p.Person != "" && s.Person != p.Person ||
			p.Oven != "" && s.Oven != p.Oven || p.Tier != "" && s.Tier != p.Tier ||
			p.Alternative != "" && s.Alternative != p.Alternative {
			c.say("%s is pinned, and was moved", s.Task)
		}
	} else {
		if s.Start < c.q.Now && (t.Uses != "wait" || !c.afterPinned(s.Task)) {
			c.say("%s starts at %d, before now", s.Task, s.Start)
		}
		if t.From != nil && s.Start < *t.From {
			c.say("%s starts at %d, before %d", s.Task, s.Start, *t.From)
		}
		if s.End > c.end {
			c.say("%s ends after the end", s.Task)
		}
		if t.Uses == "hands" && s.End-s.Start != t.Minutes {
			c.say("%s takes %d min", s.Task, s.End-s.Start)
		}
	}
	first := math.MinInt
	for _, l := range t.After {
		if _, lies := c.at[l.Task]; !lies {
			continue
		}
		lag := s.Start - c.done(l.Task)
		first = max(first, c.done(l.Task)+l.Min)
		if c.pinned(s.Task) {
			continue
		}
		if lag < l.Min {
			c.say("%s follows %s by %d, least %d", s.Task, l.Task, lag, l.Min)
		}
		if l.Max != nil && l.Hard && lag > *l.Max {
			c.say("%s follows %s by %d, most %d", s.Task, l.Task, lag, *l.Max)
		}
	}
	if t.Uses == "wait" && !c.pinned(s.Task) {
		if s.Start != first {
			c.say("%s starts at %d, not %d", s.Task, s.Start, first)
		}
		last, followed := math.MinInt, false
		for _, x := range c.a.Schedule {
			if c.task[x.Task] == nil {
				continue
			}
			for _, l := range c.task[x.Task].After {
				if l.Task == s.Task {
					last, followed = max(last, x.Start), true
				}
			}
		}
		if !followed {
			last = s.Start + t.Minutes
		}
		if s.End != last || s.End < s.Start+t.Minutes {
			c.say("%s is from %d to %d, not to %d, and at least %d min", s.Task, s.Start, s.End, last, t.Minutes)
		}
	}
}

type span struct {
	from, to int
	what     string
}

func (c *check) alternative(s day.Scheduled) *day.Alternative {
	t := c.task[s.Task]
	for i := range t.Alternatives {
		if t.Alternatives[i].ID == s.Alternative {
			return &t.Alternatives[i]
		}
	}
	return nil
}

func length(a *day.Alternative) (sum int) {
	for _, s := range a.Stages {
		sum += s.Minutes
	}
	return sum
}

// works is what somebody does from now on: tasks and touches.
func (c *check) works(person string) (out []span) {
	for _, s := range c.a.Schedule {
		if s.Person == person && !c.past(s.Task) {
			out = append(out, span{s.Start, s.End, s.Task})
		}
		for _, t := range s.Touches {
			if t.Person == person {
				out = append(out, span{t.Start, t.End, s.Task + " touch"})
			}
		}
	}
	return out
}

func (c *check) people() {
	for _, p := range c.q.People {
		all := c.works(p.ID)
		for i, a := range all {
			for _, b := range all[i+1:] {
				if a.from < a.to && b.from < b.to && a.from < b.to && b.from < a.to && (!c.pinned(a.what) || !c.pinned(b.what)) {
					c.say("%s does %s and %s at once", p.ID, a.what, b.what)
				}
			}
			if c.pinned(a.what) {
				continue
			}
			for m := a.from; m < a.to; m++ {
				if !within(p.Hours, m) || within(p.Breaks, m) {
					c.say("%s does %s at %d, out of hours", p.ID, a.what, m)
					break
				}
			}
		}
	}
	for _, s := range c.a.Schedule {
		t := c.task[s.Task]
		if t == nil || t.Uses != "hands" || c.pinned(s.Task) {
			continue
		}
		if s.Person == "" || len(t.By) > 0 && !among(t.By, s.Person) {
			c.say("%s is done by %q", s.Task, s.Person)
		}
	}
}

func within(all []day.Span, m int) bool {
	for _, s := range all {
		if m >= s.From && m < s.To {
			return true
		}
	}
	return false
}

func among(all []string, x string) bool {
	for _, a := range all {
		if a == x {
			return true
		}
	}
	return false
}

// most is the largest sum of what is taken at a minute from now on.
func (c *check) most(all []taking) float64 {
	most := 0.0
	for _, a := range all {
		at, sum := max(a.from, c.q.Now), 0.0
		if at >= a.to {
			continue
		}
		for _, b := range all {
			if b.from <= at && at < b.to {
				sum += b.by
			}
		}
		most = max(most, sum)
	}
	return most
}

type taking struct {
	from, to int
	by       float64
}

func (c *check) ready(b day.Batch) int {
	ready := math.MinInt
	for _, t := range b.Tasks {
		ready = max(ready, c.done(t.ID))
	}
	return ready
}

func (c *check) machinesPlacesDishes() {
	machines, places, dishes := map[string][]taking{}, map[string][]taking{}, map[string][]taking{}
	for _, s := range c.a.Schedule {
		t := c.task[s.Task]
		if t == nil || c.past(s.Task) {
			continue
		}
		if t.Uses == "hands" && t.Machine != "" {
			machines[t.Machine] = append(machines[t.Machine], taking{s.Start, s.End, 1})
		}
		if t.Uses == "wait" && t.Place != "" {
			places[t.Place] = append(places[t.Place], taking{s.Start, s.End, t.AreaCM2})
		}
	}
	for _, b := range c.q.Batches {
		if c.out(b.ID) {
			continue
		}
		ready, first := c.ready(b), math.MaxInt
		until := ready
		if b.Due != nil {
			until = max(until, *b.Due)
		}
		for _, t := range b.Tasks {
			first = min(first, c.at[t.ID].Start)
		}
		if b.HoldPlace != "" {
			places[b.HoldPlace] = append(places[b.HoldPlace], taking{ready, until, b.HoldCM2})
		}
		for _, d := range b.Dishes {
			x := taking{first, until, float64(d.Count)}
			if d.FromTask != "" {
				x.from = c.at[d.FromTask].Start
			}
			if d.ToTask != "" {
				x.to = c.at[d.ToTask].End
			}
			for _, k := range c.q.Dishes {
				if k.ID == d.Dish {
					x.to += k.WashMin
				}
			}
			dishes[d.Dish] = append(dishes[d.Dish], x)
		}
	}
	for _, m := range c.q.Machines {
		if n := c.most(machines[m.ID]); n > float64(m.Count) {
			c.say("%g of %s at once", n, m.ID)
		}
	}
	for _, p := range c.q.Places {
		if n := c.most(places[p.ID]); n > p.AreaCM2+1e-6 {
			c.say("%g cm2 on %s at once", n, p.ID)
		}
	}
	for _, d := range c.q.Dishes {
		if n := c.most(dishes[d.ID]); n > float64(d.Count) {
			c.say("%g of %s at once", n, d.ID)
		}
	}
}
