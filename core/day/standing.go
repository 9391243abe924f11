package day

import (
	"cmp"
	"math/rand/v2"
	"slices"
)

// What a new plan has to gain before it takes the place of the one that people work by, level by level; and the price
// of what moves, in minutes of an oven.
const (
	gainLate   = 5
	gainWindow = 15
	gainOvenOn = 10
	movedPrice = 2
	soonPrice  = 10 // more, where it begins soon
	soonMin    = 60
	movedMin   = 3 // that something may start otherwise without having moved
)

// measured is what a plan comes to, with the price of what it moves of the plan that stands.
type measured struct {
	Objective
	moved int // in minutes of an oven
}

// less says whether a plan is better than another one, as they are compared while they are looked for.
func (m measured) less(n measured) bool {
	m.OvenOn += m.moved
	n.OvenOn += n.moved
	return m.Less(n.Objective)
}

// replaces says whether a plan is so much better than the one that stands that people should change over to it. Levels
// at which they differ by less count as equal.
func (m measured) replaces(stands measured) bool {
	for _, x := range [...]struct{ gained, least int }{
		{stands.LeftOut - m.LeftOut, 1},
		{stands.Late - m.Late, gainLate},
		{stands.Window - m.Window, gainWindow},
		{stands.OvenOn + stands.moved - m.OvenOn - m.moved, gainOvenOn},
	} {
		if abs(x.gained) >= x.least {
			return x.gained > 0
		}
	}
	return false
}

func (s *schedule) measure() measured { return measured{s.objective(), s.movedOf()} }

// standing is the plan that a day has, planned again as far as it still goes, with the rest planned in addition to it;
// nil: none.
func (p *problem) standing() *found {
	if len(p.req.Standing) == 0 {
		return nil
	}
	s := newSchedule(p)
	was := p.asWas(p.req.Standing)
	s.old = was.at
	s.replay(was)
	rng := rand.New(rand.NewPCG(p.req.Seed, 0))
	s.recreate(s.missing(p.byDue()), rng)
	s.keepCompany(rng, func(int) {})
	f := &found{schedule: s, value: s.measure()}
	f.value.Slack, _ = s.slack()
	return f
}

// asWas is a plan that people have, by the numbers of this day: nothing of it takes anything.
func (p *problem) asWas(standing []Scheduled) *schedule {
	s := &schedule{p: p, at: make([]placed, len(p.tasks)), in: make([]bool, len(p.batches))}
	tasks, people := map[string]int{}, map[string]int{}
	for i := range p.tasks {
		tasks[p.tasks[i].ID] = i
	}
	for i, x := range p.req.People {
		people[x.ID] = i
	}
	known := make([]int, len(p.batches))
	for _, x := range standing {
		i, ok := tasks[x.Task]
		if !ok || s.at[i].set || !p.placeAs(x, &s.at[i], &p.tasks[i], people) {
			continue
		}
		known[p.tasks[i].batch]++
	}
	for b := range p.batches {
		s.in[b] = known[b] == len(p.batches[b].tasks)
	}
	return s
}

// placeAs is where a task was, by the numbers of this day; false where it can't be there any more.
func (p *problem) placeAs(x Scheduled, at *placed, t *task, people map[string]int) bool {
	*at = placed{set: true, start: x.Start, end: x.End, person: -1, oven: -1, tier: -1, alt: -1}
	switch t.Uses {
	case UsePerson:
		i, ok := people[x.Person]
		at.person = i
		return ok
	case UseWait:
		return true
	}
	at.alt = t.bakedAs(x.Alternative)
	at.oven = slices.IndexFunc(p.ovens, func(o ovenOf) bool { return o.ID == x.Oven })
	if at.oven >= 0 {
		at.tier = slices.IndexFunc(p.ovens[at.oven].tiers, func(z Tier) bool { return z.ID == x.Tier })
	}
	if at.alt < 0 || at.oven < 0 || at.tier < 0 {
		return false
	}
	for _, z := range x.Touches {
		i, ok := people[z.Person]
		if !ok || z.Touch < 0 || z.Touch >= len(t.bakes[at.alt].Touches) {
			return false
		}
		at.touches = append(at.touches, touched{z.Touch, z.Start, i})
	}
	return true
}

// movedOf is the price of all that is otherwise than people expect it.
func (s *schedule) movedOf() int {
	if s.old == nil {
		return 0
	}
	price := 0
	s.eachMove(func(_, _, from, to, _ int) {
		price += movedPrice
		if min(from, to) < s.p.now+soonMin {
			price += soonPrice
		}
	})
	return price
}

// eachMove goes through all tasks and touches that have not begun and are otherwise than in the plan that stood: the
// task, the touch (-1: the task itself), when it was to begin and when it does, and who does it (-1: nobody).
func (s *schedule) eachMove(tell func(task, touch, from, to, person int)) {
	for i := range s.p.tasks {
		t, at, old := &s.p.tasks[i], &s.at[i], &s.old[i]
		if !at.set || !old.set || t.Uses == UseWait || t.pin != nil || old.start < s.p.now {
			continue
		}
		if abs(at.start-old.start) > movedMin || at.person != old.person || s.elsewhere(at, old) {
			tell(i, -1, old.start, at.start, at.person)
		}
		if at.alt != old.alt {
			continue
		}
		for _, x := range at.touches {
			k := slices.IndexFunc(old.touches, func(y touched) bool { return y.touch == x.touch })
			if k < 0 {
				continue
			}
			if y := old.touches[k]; abs(x.start-y.start) > movedMin || x.person != y.person {
				tell(i, x.touch, y.start, x.start, x.person)
			}
		}
	}
}

// elsewhere says whether a load is in another oven, at another height of it, or baked otherwise.
func (s *schedule) elsewhere(at, old *placed) bool {
	if at.oven != old.oven || at.alt != old.alt {
		return true
	}
	if at.oven < 0 || at.tier == old.tier {
		return false
	}
	tiers := s.p.ovens[at.oven].tiers
	return tiers[at.tier].Shelf != tiers[old.tier].Shelf
}

// moves are what is otherwise than in the plan that stood, the first first.
func (s *schedule) moves() (out []Move) {
	if s.old == nil {
		return nil
	}
	s.eachMove(func(task, touch, from, to, person int) {
		m := Move{Task: s.p.tasks[task].ID, From: from, To: to}
		if touch >= 0 {
			m.Touch = &touch
		}
		if person >= 0 {
			m.Person = s.p.req.People[person].ID
		}
		out = append(out, m)
	})
	slices.SortStableFunc(out, func(a, b Move) int { return cmp.Compare(a.To, b.To) })
	return out
}
