package day

import (
	"cmp"
	"math/rand/v2"
	"slices"
)

// recreate plans clusters, in their order or another one; where one finds no room it is left out for now.
func (s *schedule) recreate(out []int, rng *rand.Rand) {
	order := slices.Clone(out)
	switch rng.IntN(4) {
	case 0:
		rng.Shuffle(len(order), func(i, j int) { order[i], order[j] = order[j], order[i] })
	case 1:
		slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(s.p.dueOf(b), s.p.dueOf(a)) })
	case 2:
		slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(s.p.weight(b), s.p.weight(a)) })
	default:
		slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(s.p.dueOf(a), s.p.dueOf(b)) })
	}
	for _, c := range order {
		s.persist(c, rng)
	}
}

// persist plans a cluster in several ways, and where none goes minute by minute.
func (s *schedule) persist(c int, rng *rand.Rand) {
	for n := range fewestTries {
		s.anyTime = n > 1
		if s.insertCluster(c, rng) {
			s.anyTime = false
			return
		}
	}
	s.anyTime = false
	if s.annealed && rng.IntN(6) > 0 {
		return
	}
	s.everyMinute = true
	s.insertCluster(c, rng)
	s.everyMinute = false
}

// replanPeople plans batches with their last bakes where they were, and the hands otherwise.
func (s *schedule) replanPeople(out []int, before []kept, rng *rand.Rand) {
	was := map[int]candidate{}
	for _, k := range before {
		x := &s.p.batches[k.batch]
		for n, t := range x.tasks {
			if at := k.at[n]; k.in && t == x.lastOven && s.p.tasks[t].pin == nil {
				for _, sl := range s.p.tasks[t].bakes[at.alt].slots {
					if sl.oven == at.oven && sl.tier == at.tier {
						was[k.batch] = candidate{alt: at.alt, slot: sl, start: at.start}
					}
				}
			}
		}
	}
	order := slices.Clone(out)
	rng.Shuffle(len(order), func(i, j int) { order[i], order[j] = order[j], order[i] })
	stays := func(b int) []candidate {
		if at, is := was[b]; is && s.suitsStill(at, b) {
			return []candidate{at}
		}
		return nil
	}
	for _, c := range order {
		done := true
		for n, b := range s.p.clusters[c] {
			s.stay = stays(b)
			done = s.insert(b, rng)
			s.stay = nil
			if !done {
				for _, x := range s.p.clusters[c][:n] {
					s.remove(x)
				}
				break
			}
		}
		if !done {
			s.persist(c, rng)
		}
	}
}

// suitsStill says whether a batch's bake can stay where it was.
func (s *schedule) suitsStill(c candidate, b int) bool {
	return s.suitsStillIn(c, &s.p.tasks[s.p.batches[b].lastOven].bakes[c.alt])
}

func (s *schedule) suitsStillIn(c candidate, a *baking) bool {
	return s.suits(a, c.slot.oven, c.start) &&
		s.room(s.width[c.slot.oven][c.slot.tier], c.start, c.start+a.minutes+a.outMin, c.slot.width,
			s.p.ovens[c.slot.oven].tiers[c.slot.tier].WidthCM)
}

// weight is how much a cluster takes: what takes most is planned first.
func (p *problem) weight(c int) int {
	sum := 0
	for _, b := range p.clusters[c] {
		for _, t := range p.batches[b].tasks {
			if p.tasks[t].Uses == UseOven {
				sum += p.tasks[t].leastMin * max(1, p.tasks[t].Count)
			}
		}
	}
	return sum
}

// ruin chooses clusters to take out: any, those about one hour, those of one oven, or those that go wrong; and all that
// are left out.
func (s *schedule) ruin(rng *rand.Rand) []int {
	n := len(s.p.clusters)
	most := max(min(n, fewOut), int(shareOut*float64(n)))
	if n <= allOut {
		most = n
	}
	k := 1 + min(rng.IntN(most), rng.IntN(most))
	chosen := make([]bool, n)
	var out []int
	add := func(c int) {
		if !chosen[c] && len(out) < k {
			chosen[c] = true
			out = append(out, c)
		}
	}
	var missing []int
	for c, all := range s.p.clusters {
		if !s.in[all[0]] {
			missing = append(missing, c)
		}
	}
	first := rng.IntN(n)
	switch how := rng.IntN(5); how {
	case 0:
		for range 3 * k {
			add(rng.IntN(n))
		}
	case 1, 2: // about one hour
		at := s.middleOf(first)
		order := make([]int, n)
		for i := range order {
			order[i] = i
		}
		slices.SortStableFunc(order, func(a, b int) int {
			return cmp.Compare(abs(s.middleOf(a)-at), abs(s.middleOf(b)-at))
		})
		for _, c := range order {
			if rng.IntN(4) > 0 {
				add(c)
			}
		}
	case 3: // of one oven
		o := rng.IntN(max(1, len(s.p.ovens)))
		for range 4 * k {
			if c := rng.IntN(n); s.usesOven(c, o) {
				add(c)
			}
		}
	default: // those that go wrong, and their neighbours
		for c, all := range s.p.clusters {
			for _, b := range all {
				if s.in[b] && (s.lateOf(b) > 0 || s.windowOf(b) > 0) && rng.IntN(2) == 0 {
					add(c)
				}
			}
		}
	}
	if len(out) == 0 {
		add(first)
	}
	k = n
	for _, c := range missing {
		add(c)
	}
	return out
}

func abs(x int) int { return max(x, -x) }

// middleOf is the minute about which a cluster lies, or is wanted.
func (s *schedule) middleOf(c int) int {
	for _, b := range s.p.clusters[c] {
		x := &s.p.batches[b]
		if x.lastOven >= 0 && s.in[b] {
			return s.at[x.lastOven].start
		}
		if x.hasDue {
			return x.due
		}
	}
	return s.p.now
}

func (s *schedule) usesOven(c, o int) bool {
	for _, b := range s.p.clusters[c] {
		for _, t := range s.p.batches[b].tasks {
			if s.in[b] && s.at[t].oven == o && s.p.tasks[t].Uses == UseOven {
				return true
			}
		}
	}
	return false
}
