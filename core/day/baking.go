package day

import (
	"cmp"
	"slices"
)

// Baking is a dessert that went into an oven on a day, by the oven watch.
type Baking struct {
	ID   string `json:"id"`
	Card string `json:"card"`
	Oven string `json:"oven,omitempty"` // by its id on the shelf; empty: not reported
	From int    `json:"from_min"`
	// To is when it came out, or when it will by what is known by now.
	To int `json:"to_min"`
}

// movesMin is by how many minutes a bake ends otherwise before a day is planned again for it.
const movesMin = 3

// Differs says whether bakes go otherwise than the day was planned for.
func (l *Schedule) Differs(bakes []Baking) bool {
	return slices.ContainsFunc(bakes, func(b Baking) bool {
		i := slices.IndexFunc(l.Baking, func(x Baking) bool { return x.ID == b.ID })
		if i < 0 {
			return true
		}
		was := l.Baking[i]
		return was.Oven != b.Oven || max(was.To-b.To, b.To-was.To) >= movesMin
	})
}

// baking keeps each bake that runs where it is: it is that of the order of its card that was planned nearest to it.
// What comes before it is done.
func (c *composing) baking(before *Schedule, keep func(Pin)) {
	taken := map[int]bool{}
	slices.SortFunc(c.bakes, func(x, y Baking) int { return cmp.Compare(x.From, y.From) })
	for _, b := range c.bakes {
		i := c.batchOf(b, before, taken)
		if i < 0 {
			continue
		}
		taken[i] = true
		batch := &c.q.Batches[i]
		k := slices.IndexFunc(batch.Tasks, isBake)
		pin := Pin{Task: batch.Tasks[k].ID, Start: b.From, End: &b.To}
		if oven, open := c.ovens[b.Oven]; open {
			for _, a := range batch.Tasks[k].Alternatives {
				if pin.Oven == "" && (len(a.Ovens) == 0 || slices.Contains(a.Ovens, oven.ID)) {
					pin.Oven, pin.Alternative = oven.ID, a.ID
				}
			}
		}
		batch.doneBefore(k, b.From, before)
		keep(pin)
	}
}

func isBake(t Task) bool { return t.Kind == "bake" }

// batchOf is the batch that a bake is of; -1: none is left.
func (c *composing) batchOf(b Baking, before *Schedule, taken map[int]bool) int {
	best, least := -1, 0
	for i, x := range c.q.Batches {
		k := slices.IndexFunc(x.Tasks, isBake)
		if taken[i] || k < 0 || c.cards[x.ID] != b.Card {
			continue
		}
		from := *x.Due
		if s, laid := before.task(x.Tasks[k].ID); laid {
			from = s.Start
		}
		if far := max(from-b.From, b.From-from); best < 0 || far < least {
			best, least = i, far
		}
	}
	return best
}

// task is where a task was planned.
func (l *Schedule) task(id string) (Scheduled, bool) {
	if l == nil {
		return Scheduled{}, false
	}
	i := slices.IndexFunc(l.Plan.Schedule, func(s Scheduled) bool { return s.Task == id })
	if i < 0 {
		return Scheduled{}, false
	}
	return l.Plan.Schedule[i], true
}

// doneBefore takes out what a bake that has begun waited for, unless it was planned to be over by then.
func (b *Batch) doneBefore(bake, from int, before *Schedule) {
	past := map[string]bool{}
	waits := []string{b.Tasks[bake].ID}
	for len(waits) > 0 {
		i := slices.IndexFunc(b.Tasks, func(t Task) bool { return t.ID == waits[0] })
		waits = waits[1:]
		for _, l := range b.Tasks[i].After {
			waits = append(waits, l.Task)
			if s, laid := before.task(l.Task); !laid || s.End > from {
				past[l.Task] = true
			}
		}
	}
	first := b.Tasks[bake].ID
	b.Tasks = slices.DeleteFunc(b.Tasks, func(t Task) bool { return past[t.ID] })
	for i := range b.Tasks {
		b.Tasks[i].After = slices.DeleteFunc(slices.Clone(b.Tasks[i].After), func(l Lag) bool { return past[l.Task] })
	}
	for i := range b.Dishes {
		if past[b.Dishes[i].FromTask] {
			b.Dishes[i].FromTask = first
		}
	}
}
