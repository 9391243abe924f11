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

type stage struct {
	from, to int
	c        float64
	heating  string
}

func (c *check) stages(s day.Scheduled) (out []stage) {
	a := c.alternative(s)
	at := s.Start
	for i, x := range a.Stages {
		h := x.Heating
		if h == "" {
			h = "conventional"
		}
		to := at + x.Minutes
		if i == len(a.Stages)-1 {
			to = s.End
		}
		out = append(out, stage{at, to, x.OvenC, h})
		at = to
	}
	return out
}

func change(from, to float64, o day.Oven) int {
	r := o.WarmCPerMin
	if to < from {
		r = o.CoolCPerMin
	}
	return int(math.Ceil(math.Abs(to-from)/r - 1e-9))
}

func (c *check) loadsOf(o string) (out []day.Scheduled) {
	for _, s := range c.a.Schedule {
		if c.task[s.Task] != nil && c.task[s.Task].Uses == "oven" && s.Oven == o && !c.past(s.Task) {
			out = append(out, s)
		}
	}
	return out
}

func (c *check) room() float64 {
	if c.q.RoomC != nil {
		return *c.q.RoomC
	}
	return 20
}

func (c *check) ovens() {
	for _, s := range c.a.Schedule {
		if t := c.task[s.Task]; t != nil && t.Uses == "oven" {
			c.bake(s)
		}
	}
	for _, o := range c.q.Ovens {
		all := c.loadsOf(o.ID)
		for _, tier := range o.Tiers {
			var on []taking
			for _, s := range all {
				if t := c.task[s.Task]; s.Tier == tier.ID {
					w := math.Inf(1)
					for _, turn := range [][2]float64{{t.WidthCM, t.DepthCM}, {t.DepthCM, t.WidthCM}} {
						if rows := math.Floor(tier.DepthCM/turn[1] + 1e-9); rows >= 1 {
							w = min(w, math.Ceil(float64(t.Count)/rows)*turn[0])
						}
					}
					on = append(on, taking{s.Start, s.End, w})
				}
			}
			if n := c.most(on); n > tier.WidthCM+1e-6 {
				c.say("%g cm on %s of %s", n, tier.ID, o.ID)
			}
		}
		c.settings(o, all)
	}
}

func (c *check) settings(o day.Oven, all []day.Scheduled) {
	nowC, from := c.room(), c.q.Now
	if o.NowC != nil {
		nowC = *o.NowC
	}
	if o.From != nil {
		from = max(from, *o.From)
	}
	for i, a := range all {
		mine := c.stages(a)
		if !c.pinned(a.Task) {
			if a.Start < from || o.To != nil && a.End > *o.To {
				c.say("%s is in %s out of its hours", a.Task, o.ID)
			}
			if a.Start-from < change(nowC, mine[0].c, o) {
				c.say("%s goes in before %s is hot", a.Task, o.ID)
			}
		}
		for j, b := range all {
			if i == j {
				continue
			}
			for _, x := range c.stages(b) {
				for _, m := range mine {
					if j > i && m.from < x.to && x.from < m.to && (m.c != x.c || m.heating != x.heating) &&
						(!c.pinned(a.Task) || !c.pinned(b.Task)) {
						c.say("%s and %s are in %s at two settings", a.Task, b.Task, o.ID)
					}
				}
				if !c.pinned(a.Task) && x.to <= a.Start && (x.c != mine[0].c || x.heating != mine[0].heating) &&
					a.Start-x.to < change(x.c, mine[0].c, o) {
					c.say("%s goes into %s too soon after %s", a.Task, o.ID, b.Task)
				}
			}
		}
	}
}

func (c *check) bake(s day.Scheduled) {
	t, a := c.task[s.Task], c.alternative(s)
	if a == nil {
		c.say("%s has no such alternative", s.Task)
		return
	}
	if c.past(s.Task) {
		return
	}
	if !c.pinned(s.Task) {
		if s.End-s.Start != length(a) {
			c.say("%s bakes %d min, not %d", s.Task, s.End-s.Start, length(a))
		}
		fits := false
		for _, o := range c.q.Ovens {
			if o.ID != s.Oven || len(a.Ovens) > 0 && !among(a.Ovens, o.ID) {
				continue
			}
			for _, tier := range o.Tiers {
				fits = fits || tier.ID == s.Tier && (a.Shelf == "" || a.Shelf == tier.Shelf)
			}
			for _, x := range c.stages(s) {
				if h := o.Heatings; len(h) > 0 && !among(h, x.heating) || len(h) == 0 && x.heating != "conventional" {
					c.say("%s wants %s in %s", s.Task, x.heating, o.ID)
				}
			}
		}
		if !fits {
			c.say("%s is on %s of %s", s.Task, s.Tier, s.Oven)
		}
	}
	planned := map[int]day.PlannedTouch{}
	for _, x := range s.Touches {
		planned[x.Touch] = x
	}
	for i, x := range a.Touches {
		at := s.Start + x.At
		if x.At == length(a) {
			at = s.End
		}
		p, is := planned[i]
		switch {
		case at < c.q.Now:
			if is {
				c.say("%s: a touch that is past is planned", s.Task)
			}
		case !is:
			if !c.pinned(s.Task) {
				c.say("%s: touch %d is not planned", s.Task, i)
			}
		case p.Start < at || p.Start > at+x.Flex || p.End-p.Start != x.Minutes || len(t.By) > 0 && !among(t.By, p.Person):
			c.say("%s: touch %d at %d by %s, wanted at %d", s.Task, i, p.Start, p.Person, at)
		}
	}
}

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
		minutes := []int{l.Start, l.End}
		for _, t := range l.Touches {
			if a.Touches[t.Touch].At != length(a) {
				minutes = append(minutes, t.Start)
			}
		}
		for _, m := range minutes {
			if m > s.Start && m < s.End {
				opened[m] = true
			}
		}
	}
	spare := float64(*b.Due-s.End-c.tail(b, o.ID)) - door*float64(len(opened))
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
