package daytest

import (
	"math"

	"mabbin/core/day"
)

// objective computes the objective anew.
func (c *check) objective() {
	var o day.Objective
	for _, b := range c.q.Batches {
		if c.out(b.ID) {
			if b.Due != nil {
				o.LeftOut++
			}
			continue
		}
		past := true
		for _, t := range b.Tasks {
			past = past && c.past(t.ID)
		}
		if b.Due != nil && !past {
			late := c.ready(b) - *b.Due
			if b.LateMax != nil && late > *b.LateMax {
				c.say("%s is %d late", b.ID, late)
			}
			o.Late += max(0, late)
			if b.HoldMax != nil {
				o.Window += max(0, -late-*b.HoldMax)
			}
		}
		for _, t := range b.Tasks {
			s := c.at[t.ID]
			if c.past(t.ID) {
				continue
			}
			for _, l := range t.After {
				if l.Max != nil && (!l.Hard || c.pinned(t.ID)) {
					o.Window += max(0, s.Start-c.done(l.Task)-*l.Max)
				}
			}
			if t.Uses == "wait" && t.MaxMin != nil {
				o.Window += max(0, s.End-s.Start-*t.MaxMin)
			}
		}
		o.Slack += c.slackOf(b)
	}
	for _, x := range c.q.Ovens {
		o.OvenOn += c.onOf(x)
		for _, l := range c.loadsOf(x.ID) {
			o.OvenOn += c.priceOf(l)
		}
	}
	for _, p := range c.q.People {
		o.Waiting += c.waitingOf(p)
	}
	if o != c.a.Objective {
		c.say("the objective is %+v, and it says %+v", o, c.a.Objective)
	}
	if c.a.Feasible != (o.LeftOut == 0 && o.Late == 0 && o.Window == 0) {
		c.say("feasible is %v", c.a.Feasible)
	}
	b := c.a.LowerBound
	if o.LeftOut == 0 &&
		(b.Late > o.Late || b.Window > o.Window || b.OvenOn != nil && o.Late+o.Window == 0 && *b.OvenOn > o.OvenOn) {
		c.say("the bound %+v is above the plan %+v", b, o)
	}
}

func (c *check) onOf(o day.Oven) int {
	at := c.q.Now
	if o.From != nil {
		at = max(at, *o.From)
	}
	all, on := c.loadsOf(o.ID), 0
	for len(all) > 0 {
		k := 0
		for i := range all {
			if all[i].Start < all[k].Start || all[i].Start == all[k].Start && all[i].End < all[k].End {
				k = i
			}
		}
		l := all[k]
		all = append(all[:k:k], all[k+1:]...)
		start := max(l.Start, c.q.Now)
		if start > at {
			on += min(start-at, int(math.Ceil((c.stages(l)[0].c-c.room())/o.WarmCPerMin-1e-9)))
			at = start
		}
		if l.End > at {
			on, at = on+l.End-at, l.End
		}
	}
	return on
}

// priceOf is what a load costs on top of its oven's minutes: another heat, and each optional touch that nobody does.
func (c *check) priceOf(s day.Scheduled) int {
	a := c.alternative(s)
	price := a.ExtraMin
	for i, t := range a.Touches {
		done := false
		for _, x := range s.Touches {
			done = done || x.Touch == i
		}
		if t.Optional && !done && s.Start+t.At >= c.q.Now {
			price += 5
		}
	}
	return price
}

func (c *check) waitingOf(p day.Person) int {
	all := c.works(p.ID)
	first, last := math.MaxInt, math.MinInt
	for _, w := range all {
		if w.to > c.q.Now && w.from < w.to {
			first, last = min(first, max(w.from, c.q.Now)), max(last, w.to)
		}
	}
	idle := 0
	for m := first; m < last; m++ {
		working := false
		for _, w := range all {
			working = working || w.from <= m && m < w.to
		}
		if !working && within(p.Hours, m) && !within(p.Breaks, m) {
			idle++
		}
	}
	return idle
}

func (c *check) slackOf(b day.Batch) int {
	var o *day.Task
	past := true
	for i := range b.Tasks {
		if b.Tasks[i].Uses == "oven" {
			o = &b.Tasks[i]
		}
		past = past && c.past(b.Tasks[i].ID)
	}
	if b.Due == nil || o == nil || past {
		return 0
	}
	s := c.at[o.ID]
	opened := map[int]bool{}
	door := 0.0
	for _, x := range c.q.Ovens {
		if x.ID == s.Oven {
			door = x.DoorMin
		}
	}
	for _, l := range c.loadsOf(s.Oven) {
		if l.Task == s.Task {
			continue
		}
		a := c.alternative(l)
		out := l.End
		minutes := []int{l.Start}
		for _, t := range l.Touches {
			if a.Touches[t.Touch].At != length(a) {
				minutes = append(minutes, t.Start)
			} else if t.End == c.outOf(l) {
				out = t.Start
			}
		}
		minutes = append(minutes, out)
		for _, m := range minutes {
			if m > s.Start && m < s.End {
				opened[m] = true
			}
		}
	}
	openings := 0
	for m := range opened {
		if !opened[m-1] { // minutes that follow one another are one opening
			openings++
		}
	}
	spare := float64(*b.Due-s.End-c.tail(b, o.ID)) - door*float64(openings)
	return int(max(0, min(math.Ceil(2*c.alternative(s).SDMin-1e-9), spare)))
}

// tail is the longest path of least minutes and lags from a task to the batch's last one.
func (c *check) tail(b day.Batch, from string) int {
	most := 0
	for _, t := range b.Tasks {
		for _, l := range t.After {
			if l.Task != from {
				continue
			}
			least := t.Minutes
			for i, a := range t.Alternatives {
				if n := length(&a); i == 0 || n < least {
					least = n
				}
			}
			most = max(most, l.Min+least+c.tail(b, t.ID))
		}
	}
	return most
}
