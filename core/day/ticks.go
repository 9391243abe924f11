package day

import (
	"slices"
	"strings"

	"mabbin/core/message"
)

// Tick is a row of somebody's list that is done.
type Tick struct {
	Row    string `json:"row"` // its task
	At     int    `json:"at_min"`
	Person string `json:"person,omitempty"`
}

// The rows that a bake begins and ends with.
const (
	loadKind    = "load"
	takeOutKind = "take_out"
)

// rowOf names a row of a list: a task, or a touch of a bake.
func rowOf(task, kind string) string { return task + "." + kind }

// ticked says whether a row is done.
func (a Orders) ticked(row string) bool {
	return slices.ContainsFunc(a.Done, func(t Tick) bool { return t.Row == row })
}

// tickPin is what a tick fixes of a plan: work was done by then, a dish went into the oven or came out. False: nothing,
// or the task is no longer there.
func (c *composing) tickPin(tick Tick, before *Schedule) (Pin, bool) {
	i := strings.LastIndexByte(tick.Row, '.')
	if i < 0 {
		return Pin{}, false
	}
	id, kind := tick.Row[:i], tick.Row[i+1:]
	t := c.task(id)
	s, planned := before.task(id)
	if t == nil || !planned {
		return Pin{}, false
	}
	at := tick.At
	p := Pin{Task: id, Start: s.Start, Person: s.Person, Oven: s.Oven, Tier: s.Tier, Alternative: s.Alternative}
	switch {
	case t.Uses == UsePerson && kind == t.Kind:
		p.Start, p.End = min(s.Start, at), &at
		if tick.Person != "" {
			p.Person = tick.Person
		}
	case t.Uses == UseOven && kind == loadKind && !c.asked.ticked(rowOf(id, takeOutKind)):
		p.Start = at
	case t.Uses == UseOven && kind == takeOutKind:
		for _, other := range c.asked.Done {
			if other.Row == rowOf(id, loadKind) {
				p.Start = other.At
			}
		}
		p.Start, p.End = min(p.Start, at), &at
	default:
		return Pin{}, false
	}
	return p, true
}

// detail is what somebody needs for a task, in a line: the amounts, for all dishes of the batch.
func (s *showing) detail(b *Bar) message.Message {
	o := s.orders[b.Order]
	t := s.tasks[b.Task]
	if o.Answer == nil || t == nil {
		return message.Message{}
	}
	n := float64(max(1, s.countOf(b.Task)))
	balance, r := &o.Answer.Balance, o.Dessert.Request
	switch b.Kind {
	case "fruit", "precook", "macerate":
		return message.New("{g} {fruits}", message.Grams(n*balance.FruitG), message.Part(r.FruitNames()))
	case "topping", "crumbs", "warm", "biscuit", "pastry":
		return message.New("{g} in all", message.Grams(n*balance.ToppingG))
	case "base":
		return message.New("{g} in all", message.Grams(n*balance.BaseG))
	case "line", "assemble":
		if n == 1 {
			return r.Dish.Sizes()
		}
		return message.New("{n} dishes, {dish}", message.Number(n, 0), message.Part(r.Dish.Sizes()))
	}
	return message.Message{}
}

// countOf is how many dishes a task's batch has: those of its bake.
func (s *showing) countOf(task string) int {
	for i := range s.q.Batches {
		b := &s.q.Batches[i]
		if !slices.ContainsFunc(b.Tasks, func(t Task) bool { return t.ID == task }) {
			continue
		}
		if k := slices.IndexFunc(b.Tasks, isBake); k >= 0 {
			return b.Tasks[k].Count
		}
	}
	return 1
}
