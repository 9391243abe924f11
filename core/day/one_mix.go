package day

import (
	"encoding/json"
	"math"
	"slices"

	"mabbin/core/balance"
	"mabbin/core/larder"
)

// A mix for one more batch takes this much longer, min. A working figure.
const mixMore = 2

// Mix is what a task makes, where other batches may have it out of the same bowl.
type Mix struct {
	Key  string // the same for toppings of the same parts, however much of them
	Name string
	G    float64
	Most float64 // that is mixed at once; 0: any amount
}

// minutes are those of hands for a mix for so many batches, by those of one bowl of it.
func (m *Mix) minutes(one, batches int) int {
	bowls := 1
	if m != nil && m.Most > 0 {
		bowls = max(1, int(math.Ceil(m.G/m.Most-1e-9)))
	}
	return one*bowls + mixMore*(batches-1)
}

// mixOf is the topping of a dessert as one of a larger bowl of it.
func mixOf(r balance.Request, g, most float64) *Mix {
	t := r.Topping
	t.Amount, t.ThicknessMM, t.GapShare, t.Layers, t.Tool, t.BowlML = "", 0, nil, 0, "", 0
	raw, err := json.Marshal(t)
	row, ok := larder.Toppings.Get(t.Key)
	if err != nil || !ok {
		return nil
	}
	return &Mix{string(raw), row.Name, g, most}
}

// mixing is which task of a batch makes a mix; -1: none.
func (b *Batch) mixing(key string) int {
	return slices.IndexFunc(b.Tasks, func(t Task) bool { return t.Mix != nil && t.Mix.Key == key })
}

// withMix are the batches whose topping comes out of the same bowl as that of a task, and has not begun.
func (q *Request) withMix(task string) (batches []int, mix *Mix) {
	for _, b := range q.Batches {
		for _, t := range b.Tasks {
			if t.ID == task {
				mix = t.Mix
			}
		}
	}
	if mix == nil {
		return nil, nil
	}
	for i, b := range q.Batches {
		k := b.mixing(mix.Key)
		if b.Due == nil || k < 0 {
			continue
		}
		if !slices.ContainsFunc(q.Pinned, func(p Pin) bool { return p.Task == b.Tasks[k].ID }) {
			batches = append(batches, i)
		}
	}
	return batches, mix
}

// mixOnce makes the topping of a task and of all batches that have the same one in one bowl, as a batch of its own that
// theirs follow.
func (q *Request) mixOnce(task string) {
	batches, mix := q.withMix(task)
	if len(batches) < 2 {
		return
	}
	names := map[string]bool{}
	for _, b := range q.Batches {
		names[b.ID] = true
	}
	shared := Batch{ID: unique(mix.Name, names)}
	var made, cold *Task
	all := *mix
	all.G = 0
	gone := map[string]string{} // by what follows instead
	for _, i := range batches {
		b := &q.Batches[i]
		t := b.Tasks[b.mixing(mix.Key)]
		w := slices.IndexFunc(b.Tasks, func(x Task) bool { return x.Kind == "chill" && follows(x, t.ID) })
		gone[t.ID] = shared.ID + ".topping"
		all.G += t.Mix.G
		t.Minutes /= max(1, t.Mix.minutes(1, 1)) // of one bowl
		if made == nil || t.Minutes > made.Minutes {
			made = &t
		}
		if w >= 0 {
			x := b.Tasks[w]
			gone[x.ID] = shared.ID + ".chill"
			if cold == nil {
				cold = &x
			}
		}
	}
	made.Minutes = all.minutes(made.Minutes, len(batches))
	made.ID, made.Mix = shared.ID+".topping", nil
	shared.Tasks = []Task{*made}
	if cold != nil {
		cold.ID, cold.After = shared.ID+".chill", []Lag{after(made.ID)}
		shared.Tasks = append(shared.Tasks, *cold)
	}
	for _, i := range batches {
		b := &q.Batches[i]
		b.Tasks = slices.DeleteFunc(slices.Clone(b.Tasks), func(t Task) bool { return gone[t.ID] != "" })
		for j := range b.Tasks {
			b.Tasks[j].After = slices.Clone(b.Tasks[j].After)
			for l := range b.Tasks[j].After {
				if to := gone[b.Tasks[j].After[l].Task]; to != "" {
					b.Tasks[j].After[l].Task = to
				}
			}
		}
	}
	q.Batches = append(q.Batches, shared)
}

func follows(t Task, task string) bool {
	return slices.ContainsFunc(t.After, func(l Lag) bool { return l.Task == task })
}

// mixWays are the remedies that mix the topping of a batch once for all that have it.
func (s *schedule) mixWays(b int) (out []Remedy) {
	for _, i := range s.p.batches[b].tasks {
		t := &s.p.tasks[i]
		if batches, _ := s.p.req.withMix(t.ID); len(batches) > 1 && t.pin == nil {
			out = append(out, Remedy{Code: RemedyOneMix, Task: t.ID})
		}
	}
	return out
}
