package daytest

import (
	"math"

	"mabbin/core/day"
)

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
					on = append(on, taking{s.Start, c.outOf(s), w})
				}
			}
			if n := c.most(on); n > tier.WidthCM+1e-6 {
				c.say("%g cm on %s of %s", n, tier.ID, o.ID)
			}
		}
		c.settings(o, all)
		c.company(all)
	}
}

// outOf is when a load has left its place: when the last touch that counts from its end is done, or at its end.
func (c *check) outOf(s day.Scheduled) int {
	a, out := c.alternative(s), s.End
	for _, t := range s.Touches {
		if a.Touches[t.Touch].At == length(a) {
			out = max(out, t.End)
		}
	}
	return out
}

// company looks at loads at another heat than their card's: each shares its oven for ten minutes.
func (c *check) company(all []day.Scheduled) {
	for i, s := range all {
		if c.pinned(s.Task) || c.alternative(s).ExtraMin == 0 {
			continue
		}
		shares := false
		for j, x := range all {
			both := 0
			for m := s.Start; m < s.End; m++ {
				if m >= x.Start && m < x.End {
					both++
				}
			}
			shares = shares || i != j && both >= 10
		}
		if !shares {
			c.say("%s bakes alone at another heat than its card's", s.Task)
		}
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
			if !c.pinned(s.Task) && !x.Optional {
				c.say("%s: touch %d is not planned", s.Task, i)
			}
		case p.Start < at || p.Start > at+x.Flex || p.End-p.Start != x.Minutes || len(t.By) > 0 && !among(t.By, p.Person):
			c.say("%s: touch %d at %d by %s, planned for %d", s.Task, i, p.Start, p.Person, at)
		}
	}
}
