package day

import (
	"slices"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// Freezes says whether a dessert may be frozen raw in its dish and baked from there: a custard weeps and curdles, and
// biscuits that bake on the fruit are raised too late.
func Freezes(r balance.Request) bool {
	t, _ := larder.Toppings.Get(r.Topping.Key)
	return r.Custard == nil && !larder.StyleOf(r.Style).CrustPushedUnder && t.Family != "biscuit" && t.Family != "praline"
}

// madeBefore is how a batch whose dessert was made before its day is in the oven on it, with what that does to it.
type madeBefore struct {
	alternatives []Alternative
	note         message.Message
}

// minutes of the first way to bake it.
func (m *madeBefore) minutes() (sum int) {
	for _, s := range m.alternatives[0].Stages {
		sum += s.Minutes
	}
	return sum
}

// before are the ways in which an order's dessert may be made before its day.
func (c *composing) before(b *Batch, o PlannedOrder) {
	b.before = map[RemedyCode]*madeBefore{}
	plan := Alternative{ID: asCard, Shelf: o.Answer.Bake.Shelf, SDMin: UncertainMin(o.Answer)}
	if own, ok := c.ovens[o.Oven]; ok {
		plan.Ovens = []string{own.ID}
	} else if o.Oven != "" {
		return // its oven is not in use
	}
	if len(o.Frozen) > 0 {
		a := plan
		a.ID = "from the freezer"
		a.bakedBy(o.Frozen, 0)
		c.anywhere(&a)
		b.before[RemedyFrozen] = &madeBefore{
			alternatives: []Alternative{a}, note: o.Answer.Balance.AfterFreezer(o.Dessert.Request),
		}
	}
	if o.Rewarm > 0 && o.Serve != Cold {
		a := plan
		a.ID = "reheated"
		a.bakedBy([]bake.Stage{{Minutes: o.Rewarm, OvenC: bake.RewarmC, Cover: "foil"}}, 0)
		c.anywhere(&a)
		b.before[RemedyBaked] = &madeBefore{
			alternatives: []Alternative{a},
			note:         message.New("the topping is then less crisp"),
		}
	}
}

// makeBefore leaves of a batch what is left for its day: the oven, and what comes after it.
func (q *Request) makeBefore(batch string, code RemedyCode) {
	for i := range q.Batches {
		b := &q.Batches[i]
		m := b.before[code]
		k := slices.IndexFunc(b.Tasks, func(t Task) bool { return t.Kind == "bake" })
		if b.ID != batch || m == nil || k < 0 {
			continue
		}
		baked := b.Tasks[k]
		baked.After, baked.Alternatives = nil, m.alternatives
		left := []Task{baked}
		for _, t := range b.Tasks[k+1:] {
			if slices.ContainsFunc(left, func(x Task) bool { return follows(t, x.ID) }) {
				left = append(left, t)
			}
		}
		if code == RemedyBaked { // it was set and cut then: it is reheated, and stands for a moment
			rest := Task{ID: b.ID + ".rest", Kind: "rest", Uses: UseWait, Minutes: rewarmedRest, After: []Lag{after(baked.ID)}}
			left, b.HoldMax = []Task{baked, rest}, minutes(rewarmedHold)
		}
		b.Tasks = left
		q.Dishes = slices.Clone(q.Dishes)
		for _, t := range b.Dishes { // it has stood in its dish since then: nothing else is made in that on this day
			for j := range q.Dishes {
				if q.Dishes[j].ID == t.Dish {
					q.Dishes[j].Count = max(0, q.Dishes[j].Count-t.Count)
				}
			}
		}
		b.Dishes, b.before = nil, nil
	}
}

// beforeWays are the remedies that make all of a batch before its day: nothing of it may have begun.
func (s *schedule) beforeWays(b int) (out []Remedy) {
	x := &s.p.batches[b]
	if slices.ContainsFunc(x.tasks, func(i int) bool { return s.p.tasks[i].pin != nil }) {
		return nil
	}
	for _, code := range []RemedyCode{RemedyFrozen, RemedyBaked} {
		if m := x.before[code]; m != nil {
			out = append(out, Remedy{Code: code, Batch: x.ID, Minutes: m.minutes(), note: m.note})
		}
	}
	return out
}
