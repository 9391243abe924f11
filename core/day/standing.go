package day

import "math/rand/v2"

// standing is the plan that a day has, planned again as far as it still goes, with the rest planned in addition to it;
// nil: none.
func (p *problem) standing(a *Answer) *found {
	if a == nil || len(a.Schedule) == 0 {
		return nil
	}
	s := newSchedule(p)
	s.replay(p.asWas(a))
	s.recreate(s.missing(p.byDue()), rand.New(rand.NewPCG(p.req.Seed, 0)))
	f := &found{schedule: s, value: s.objective()}
	f.value.Slack, _ = s.slack()
	return f
}

// asWas is an answer as a plan that can be planned again: nothing of it takes anything.
func (p *problem) asWas(a *Answer) *schedule {
	s := &schedule{p: p, at: make([]placed, len(p.tasks)), in: make([]bool, len(p.batches))}
	tasks, people := map[string]int{}, map[string]int{}
	for i := range p.tasks {
		tasks[p.tasks[i].ID] = i
	}
	for i, x := range p.req.People {
		people[x.ID] = i
	}
	known := make([]int, len(p.batches))
	for _, x := range a.Schedule {
		i, ok := tasks[x.Task]
		if !ok || !p.placeAs(x, &s.at[i], &p.tasks[i], people) {
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
	case "hands":
		i, ok := people[x.Person]
		at.person = i
		return ok
	case "wait":
		return true
	}
	for k := range t.bakes {
		if t.bakes[k].ID == x.Alternative {
			at.alt = k
		}
	}
	for i, o := range p.ovens {
		if o.ID != x.Oven {
			continue
		}
		at.oven = i
		for k, tier := range o.tiers {
			if tier.ID == x.Tier {
				at.tier = k
			}
		}
	}
	if at.alt < 0 || at.oven < 0 || at.tier < 0 {
		return false
	}
	for _, z := range x.Touches {
		i, ok := people[z.Person]
		if !ok || z.Touch >= len(t.bakes[at.alt].Touches) {
			return false
		}
		at.touches = append(at.touches, touched{z.Touch, z.Start, i})
	}
	return true
}

// betterThan says whether an objective is better in the first four levels.
func (o Objective) betterThan(p Objective) bool {
	o.Waiting, o.Slack, p.Waiting, p.Slack = 0, 0, 0, 0
	return o.Less(p)
}
