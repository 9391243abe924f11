package day

import (
	"cmp"
	"context"
	"math"
	"slices"
	"sync"
	"time"
)

// What the search goes by. Working figures, tried on days of a few to forty batches.
const (
	chains       = 2     // searches that go side by side, each with its own seed
	warmest      = 400.0 // of the annealing, in weighed minutes
	goingOn      = 0.1   // as warm, where a search goes on from a plan
	laps         = 12    // after each the search goes on from the best plan
	coldest      = 2.0
	whileWrong   = 30.0 // times as warm, while something is late or over a window
	lookAtClock  = 4    // rounds between two looks at the clock
	patience     = 5000 // rounds without a better plan for each cluster: then it is done
	impatience   = 1500 // where nothing but hands can be better
	roundsEach   = 600  // rounds for each cluster, where a request has no number of them
	fewestRounds = 6000
	againShare   = 3 // of the rounds, where a plan stands: most of it stays
	mostRoundsOf = 20000
	shareOut     = 0.25 // of the batches, at most, that are taken out at once
	fewOut       = 6    // or so many, where that is less
	allOut       = 8    // of so many all may be taken out
	fewestTries  = 3    // ways to place a cluster, before it is left out
	progressEach = 50
)

// Progress receives how far a plan is: the share of its time, and the best so far.
type Progress func(share float64, best Objective)

// Now returns the present time. It limits a search that has no number of rounds.
type Now func() time.Time

// how is what a search goes by.
type how struct {
	rounds     int
	chain      int       // which of the searches it is that go side by side
	until      time.Time // zero: whatever it takes
	firstUntil time.Time // where something goes wrong: the rest is for what would help
	bound      LowerBound
	from       *schedule // it goes on from there; nil: from nothing
	clashes    bool      // some time is left over for what would help
	clock      Now
	tell       Progress
}

// found is the best of a search.
type found struct {
	schedule *schedule
	value    measured
	done     bool // it was looked for to the end
}

// missing are those of some clusters that do not lie.
func (s *schedule) missing(all []int) (out []int) {
	for _, c := range all {
		if !s.in[s.p.clusters[c][0]] {
			out = append(out, c)
		}
	}
	return out
}

// replay plans batches as they were in another plan of nearly the same day, as far as that goes.
func (s *schedule) replay(old *schedule) {
	was := map[string]int{}
	for i := range old.p.tasks {
		if old.in[old.p.tasks[i].batch] {
			was[old.p.tasks[i].ID] = i
		}
	}
	for _, all := range s.p.clusters {
		for n, b := range all {
			if s.placeAsIn(old, was, b) {
				continue
			}
			s.remove(b)
			for _, x := range all[:n] {
				s.remove(x)
			}
			break
		}
	}
}

// placeAsIn plans a batch as in another plan.
func (s *schedule) placeAsIn(old *schedule, was map[string]int, b int) bool {
	x := &s.p.batches[b]
	for _, i := range x.order {
		t := &s.p.tasks[i]
		if s.at[i].set || t.Uses == UseWait {
			continue
		}
		k, known := was[t.ID]
		if !known {
			return false
		}
		at := &old.at[k]
		if t.Uses == UsePerson {
			if !s.hands(i, at.person, at.start) {
				return false
			}
			continue
		}
		alt := t.bakedAs(old.p.tasks[k].bakes[at.alt].ID)
		if alt < 0 {
			return false
		}
		a := &t.bakes[alt]
		n := slices.IndexFunc(a.slots, func(z slot) bool { return z.oven == at.oven && z.tier == at.tier })
		if n < 0 {
			return false
		}
		c := candidate{alt: alt, slot: a.slots[n], start: at.start}
		if c.start < s.p.now || !s.suitsStillIn(c, a) {
			return false
		}
		s.placeLoad(i, c)
		for _, z := range at.touches {
			if z.touch >= len(a.Touches) {
				return false // it is baked otherwise by now
			}
			minutes := a.Touches[z.touch].Minutes
			if !s.can(z.person, z.start, z.start+minutes) {
				return false
			}
			s.take(b, s.busy[z.person], z.start, z.start+minutes, 1)
			s.at[i].touches = append(s.at[i].touches, z)
		}
	}
	if !s.placeWaits(x) || !s.keeps(b) || !s.takeRest(b) {
		return false
	}
	s.in[b] = true
	return true
}

// bakedAs is the bake of a task by its name; -1: there is none any more.
func (t *task) bakedAs(id string) int {
	return slices.IndexFunc(t.bakes, func(a baking) bool { return a.ID == id })
}

// keepAll is where all batches lie.
func (s *schedule) keepAll() []kept {
	all := make([]kept, len(s.p.batches))
	for b := range all {
		all[b] = s.keep(b)
	}
	return all
}

// become plans all batches as they were.
func (s *schedule) become(all []kept) {
	for b := range all {
		s.remove(b)
	}
	for _, k := range all {
		s.restore(k)
	}
}

// provenBy says whether no plan is better in the first four levels.
func (o Objective) provenBy(b LowerBound) bool {
	return o.LeftOut == 0 && o.Late == b.Late && o.Window == b.Window && b.OvenOn != nil && o.OvenOn <= *b.OvenOn
}

// byDue are all clusters, those that are wanted first at the front.
func (p *problem) byDue() []int {
	all := make([]int, len(p.clusters))
	for i := range all {
		all[i] = i
	}
	slices.SortStableFunc(all, func(a, b int) int { return cmp.Compare(p.dueOf(a), p.dueOf(b)) })
	return all
}

func (p *problem) dueOf(c int) int {
	due := math.MaxInt32
	for _, b := range p.clusters[c] {
		if x := &p.batches[b]; x.hasDue {
			due = min(due, x.due)
		}
	}
	return due
}

// clone is a copy of where everything lies; it is read, and not changed any more.
func (s *schedule) clone() *schedule {
	c := *s
	c.at, c.in = slices.Clone(s.at), slices.Clone(s.in)
	c.stages = make([][]segment, len(s.stages))
	for i := range c.stages {
		c.stages[i] = slices.Clone(s.stages[i])
	}
	c.loads = make([][]int, len(s.loads))
	for i := range c.loads {
		c.loads[i] = slices.Clone(s.loads[i])
	}
	return &c
}

// solve searches side by side, and takes the best; the same seed and rounds give the same plan on any number of cores.
func (p *problem) solve(ctx context.Context, seed uint64, h how) found {
	all := make([]found, chains)
	var wg sync.WaitGroup
	for i := range all {
		wg.Go(func() {
			mine := h
			mine.chain = i
			if i > 0 {
				mine.tell = nil
			}
			all[i] = p.search(ctx, seed*chains+uint64(i), mine)
		})
	}
	wg.Wait()
	best := all[0]
	best.value.Slack, _ = best.schedule.slack()
	for _, f := range all[1:] {
		if f.value.Slack, _ = f.schedule.slack(); f.value.less(best.value) {
			done := best.done
			best = f
			best.done = done
		}
		best.done = best.done && f.done
	}
	return best
}
