package day

import (
	"fmt"
	"math"
	"slices"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/message"
	"mabbin/core/oven"
)

// Kitchen is what a day is planned in: what the kitchen's resources has reported, and the shelf's ovens and dishes by
// their names.
type Kitchen struct {
	Resources   Resources
	Ovens       []KitchenOven
	Dishes      []KitchenDish
	WorkFactors map[string]float64 // factors on the minutes of hands, by the kinds of their tasks; left out is one
}

// KitchenOven is an oven of the shelf.
type KitchenOven struct {
	ID, Name string
}

// KitchenDish is a dish of the shelf, and how many there are of it.
type KitchenDish struct {
	ID    string
	Name  string
	Dish  dish.Dish
	Count int
}

// PlannedOrder is an order with its dessert and the ways to bake it.
type PlannedOrder struct {
	Order
	Dessert bake.DessertRequest
	Answer  *bake.DessertAnswer
	Oven    string // of its card, by its id; empty: any
	Options []OvenOption
	Frozen  []bake.Stage // from the freezer, in its own oven; none: it is not to be frozen raw
	Rewarm  float64      // min until it is warm again where it was baked before; 0: it is not to be
	Cooling *bake.Cooling
}

// OvenOption is a bake at one temperature in one of the ovens.
type OvenOption struct {
	Oven   string // its id
	OvenC  float64
	Stages []bake.Stage
}

// Unscheduled is an order that can't be planned at all, and why.
type Unscheduled struct {
	Order  string          `json:"order"`
	Reason message.Message `json:"reason"`
}

// otherHeatPrice is what it costs to bake at another heat than the card's, in minutes of an oven: it is worth it where
// two desserts meet. Working figure.
const otherHeatPrice = 15

// mostWaysOfOven is how many temperatures of one oven are tried in addition to what stands on the card.
const mostWaysOfOven = 4

// TrialTemperatures returns the oven temperatures at which the bake of a card is tried, C: 150 to 220 in steps of 10,
// the range in which crumbles and pies are baked.
func TrialTemperatures() []float64 {
	const from, to, step = 150.0, 220.0, 10.0
	var out []float64
	for c := from; c <= to; c += step {
		out = append(out, c)
	}
	return out
}

// BuildRequest is the day's question: what is wanted of a kitchen, with what has begun by now as it was planned before,
// and what is or was in an oven as it really is. What can't be planned at all is left out of it.
func BuildRequest(
	k Kitchen,
	a Orders,
	orders []PlannedOrder,
	now int,
	before *Schedule,
	bakes []Baking,
) (Request, []Unscheduled) {
	end := longestDay
	c := composing{
		kitchen: k,
		asked:   a,
		bakes:   slices.Clone(bakes),
		cards:   map[string]string{},
		q:       Request{Now: now, End: &end},
	}
	c.resources()
	for _, o := range orders {
		c.order(o)
	}
	c.mixes(now, before)
	c.pins(now, before)
	for _, w := range a.Remedies {
		if w.Code != RemedyOneMix {
			w.remedy().Apply(&c.q)
		}
	}
	return c.q, c.unlaid
}

type composing struct {
	kitchen Kitchen
	asked   Orders
	bakes   []Baking
	cards   map[string]string // of a batch
	q       Request
	ovens   map[string]Oven // by their ids on the shelf
	unlaid  []Unscheduled
}

func (c *composing) resources() {
	h := c.kitchen.Resources
	c.q.People = append(slices.Clone(h.People), c.asked.People...)
	c.q.Places = h.Places
	if h.Mixers > 0 {
		c.q.Machines = []Machine{{mixer, h.Mixers}}
	}
	c.ovens = map[string]Oven{}
	names := map[string]bool{}
	for _, s := range c.kitchen.Ovens {
		i := slices.IndexFunc(h.Ovens, func(o OvenCapacity) bool { return o.Oven == s.ID })
		if i < 0 || slices.Contains(c.asked.Closed, s.ID) {
			continue
		}
		o := Oven{
			ID: unique(s.Name, names), WarmCPerMin: h.Ovens[i].WarmCPerMin, CoolCPerMin: h.Ovens[i].CoolCPerMin,
			DoorMin:  h.Ovens[i].DoorMin,
			Heatings: []string{conventional, "fan", "bottom"}, Tiers: slices.Clone(h.Ovens[i].Tiers),
		}
		for t := range o.Tiers {
			o.Tiers[t].ID = fmt.Sprint(t + 1)
		}
		c.ovens[s.ID] = o
		c.q.Ovens = append(c.q.Ovens, o)
	}
	names = map[string]bool{}
	for _, d := range c.kitchen.Dishes {
		c.q.Dishes = append(c.q.Dishes, Dish{ID: unique(d.Name, names), Count: max(1, d.Count), WashMin: h.WashMin})
	}
}

const mixer = "mixer"

// unique is a name, with a number where another thing has it.
func unique(name string, taken map[string]bool) string {
	id := name
	for n := 2; taken[id]; n++ {
		id = fmt.Sprintf("%s %d", name, n)
	}
	taken[id] = true
	return id
}

// order adds the batches of one order: as many as its dishes need tiers.
func (c *composing) order(o PlannedOrder) {
	cannot := func(why message.Message) { c.unlaid = append(c.unlaid, Unscheduled{o.ID, why}) }
	length, width := c.outside(o.Dessert.Request)
	each := 0
	for _, v := range c.q.Ovens {
		for _, t := range v.Tiers {
			each = max(each, fits(t, length, width))
		}
	}
	if each == 0 {
		cannot(message.New("No oven tier is large enough for its dish ({size} outside).",
			message.Range(message.Centimetres(length), message.Centimetres(width))))
		return
	}
	due := o.Due
	for left, part := o.Dishes, 1; left > 0; part++ {
		n := min(left, each)
		id := o.ID
		if o.Dishes > each {
			id = fmt.Sprintf("%s%s%d", o.ID, partOf, part)
		}
		b := BatchOf(Job{
			ID: id, Dessert: o.Dessert, Dishes: n, Due: &due, Serve: o.Serve, Cooling: o.Cooling, Rewarm: o.Rewarm,
		}, o.Answer)
		b.hands(c.kitchen.WorkFactors)
		c.ways(&b, o)
		c.before(&b, o)
		for i := range b.Tasks {
			t := &b.Tasks[i]
			if t.Ahead && slices.Contains([]string{"topping", "crumbs", "pastry"}, t.Kind) {
				t.Mix = mixOf(
					o.Dessert.Request,
					float64(n)*o.Answer.Balance.ToppingG,
					c.kitchen.Resources.mostMixG(o.Dessert.Request),
				)
				t.Minutes = t.Mix.minutes(t.Minutes, 1)
			}
			if t.Uses == UseOven {
				t.WidthCM, t.DepthCM = length, width
			}
		}
		c.places(&b, float64(n)*length*width)
		c.dish(&b, o, n)
		c.cards[b.ID] = o.Card
		c.q.Batches = append(c.q.Batches, b)
		left -= n
	}
}

// outside are the sizes of a dessert's dish in an oven: as they were measured, or by its sizes inside.
func (c *composing) outside(r balance.Request) (length, width float64) {
	for _, d := range c.kitchen.Dishes {
		if d.Dish != r.Dish {
			continue
		}
		for _, x := range c.kitchen.Resources.Dishes {
			if x.Dish == d.ID {
				return x.LengthCM, x.WidthCM
			}
		}
	}
	return r.Dish.Outside()
}

// fits is how many dishes of a size stand on a tier.
func fits(t Tier, length, width float64) int {
	return oven.Fit(t.WidthCM, t.DepthCM, length, width)
}

// ways are the bakes that are tried: as the card has it, and at other temperatures, the nearest ones.
func (c *composing) ways(b *Batch, o PlannedOrder) {
	for i := range b.Tasks {
		t := &b.Tasks[i]
		if t.Kind != "bake" {
			for k := range t.Alternatives { // a par-bake: in any oven
				c.anywhere(&t.Alternatives[k])
			}
			continue
		}
		plan := t.Alternatives[0]
		t.Alternatives = nil
		if own, ok := c.ovens[o.Oven]; ok {
			plan.Ovens = []string{own.ID}
			c.anywhere(&plan)
			t.Alternatives = append(t.Alternatives, plan)
		} else if o.Oven == "" {
			c.anywhere(&plan)
			t.Alternatives = append(t.Alternatives, plan)
		}
		at := plan.Stages[0].OvenC
		for _, v := range c.kitchen.Ovens {
			oven, open := c.ovens[v.ID]
			if !open {
				continue
			}
			var ways []OvenOption
			for _, w := range o.Options {
				if w.Oven == v.ID && (w.OvenC != at || o.Oven != "" && o.Oven != v.ID) {
					ways = append(ways, w)
				}
			}
			slices.SortStableFunc(ways, func(x, y OvenOption) int {
				return int(math.Abs(x.OvenC-at)) - int(math.Abs(y.OvenC-at))
			})
			other := o.Oven != "" && o.Oven != v.ID
			for n, w := range ways[:min(len(ways), mostWaysOfOven)] {
				a := Alternative{
					ID: fmt.Sprintf("%.0f in %s", w.OvenC, oven.ID), Shelf: plan.Shelf, SDMin: plan.SDMin, Ovens: []string{oven.ID},
				}
				if n > 0 || !other { // the nearest heat in another oven is the card's own there
					a.ExtraMin = otherHeatPrice
				}
				a.bakedBy(w.Stages, turnIn(w.Stages, plan))
				c.anywhere(&a)
				t.Alternatives = append(t.Alternatives, a)
			}
		}
		if len(t.Alternatives) == 0 { // no oven is open: it finds no room
			t.Alternatives = []Alternative{plan}
		}
	}
}

// anywhere drops a shelf that an oven has not.
func (c *composing) anywhere(a *Alternative) {
	for _, o := range c.q.Ovens {
		if len(a.Ovens) > 0 && !slices.Contains(a.Ovens, o.ID) {
			continue
		}
		if !slices.ContainsFunc(o.Tiers, func(t Tier) bool { return t.Shelf == a.Shelf }) {
			a.Shelf = ""
		}
	}
}

// turnIn is when a bake by other stages is turned: half way, where the plan has it turned at all.
func turnIn(stages []bake.Stage, plan Alternative) int {
	if !slices.ContainsFunc(plan.Touches, func(t Touch) bool { return t.Kind == "turn" }) {
		return 0
	}
	sum := 0.0
	for _, s := range stages {
		sum += s.Minutes
	}
	return int(math.Ceil(sum)) / 2
}

// doughCM2 is what a bowl of topping or dough takes in a fridge. A working figure.
const doughCM2 = 500.0

// places are where what waits stands, as far as the kitchen has reported of them; no batch takes more than there is.
func (c *composing) places(b *Batch, dishesCM2 float64) {
	stand := func(t *Task, place string, area float64) {
		for _, p := range c.q.Places {
			if p.ID == place {
				t.Place, t.AreaCM2 = place, min(area, p.AreaCM2)
			}
		}
	}
	for i := range b.Tasks {
		t := &b.Tasks[i]
		switch t.Kind {
		case "chill":
			stand(t, "fridge", doughCM2)
		case "set":
			stand(t, "fridge", dishesCM2)
		case "rest", "cool":
			stand(t, "rack", dishesCM2)
		case "topping", "crumbs", "pastry", "base":
			if c.kitchen.Resources.Mixers > 0 {
				t.Machine = mixer
			}
		}
	}
}

// dish says which dishes of the shelf a batch takes, where its card's dish is one of them.
func (c *composing) dish(b *Batch, o PlannedOrder, n int) {
	for i, d := range c.kitchen.Dishes {
		if d.Dish == o.Dessert.Request.Dish {
			from := b.ID + ".assemble"
			if slices.ContainsFunc(b.Tasks, func(t Task) bool { return t.ID == b.ID+".line" }) {
				from = b.ID + ".line"
			}
			b.Dishes = []DishUse{{Dish: c.q.Dishes[i].ID, Count: n, FromTask: from}}
			return
		}
	}
}

// mixes makes what is to be mixed once, of all that is not made by now.
func (c *composing) mixes(now int, before *Schedule) {
	for i := range c.q.Batches {
		for j := range c.q.Batches[i].Tasks {
			t := &c.q.Batches[i].Tasks[j]
			if s, laid := before.task(t.ID); laid && s.Start < now {
				t.Mix = nil
			}
		}
	}
	for _, w := range c.asked.Remedies {
		if w.Code == RemedyOneMix {
			w.remedy().Apply(&c.q)
		}
	}
}

// pins keep what was put somewhere by hand, and what has begun by now as it was planned before.
func (c *composing) pins(now int, before *Schedule) {
	pinned := map[string]bool{}
	keep := func(p Pin) {
		t := c.task(p.Task)
		if t == nil || pinned[p.Task] || t.Uses == UseWait && p.End == nil {
			return
		}
		if t.Uses != UseOven {
			p.Oven, p.Tier, p.Alternative = "", "", ""
		} else if !c.inOven(t, &p) {
			return
		}
		if !slices.ContainsFunc(c.q.People, func(x Person) bool { return x.ID == p.Person }) {
			p.Person = ""
		}
		pinned[p.Task] = true
		c.q.Pinned = append(c.q.Pinned, p)
	}
	c.baking(before, keep)
	for _, p := range c.asked.Pinned {
		keep(p)
	}
	if before == nil {
		return
	}
	for _, x := range c.asked.Done {
		if p, fixes := c.tickPin(x, before); fixes {
			keep(p)
		}
	}
	for _, s := range before.Plan.Schedule {
		if s.Start >= now {
			continue
		}
		p := Pin{Task: s.Task, Start: s.Start, Person: s.Person, Oven: s.Oven, Tier: s.Tier, Alternative: s.Alternative}
		if s.End <= now { // what goes on lasts as long as it is reported to
			p.End = &s.End
		}
		keep(p)
	}
}

// task is one of the tasks; nil: there is none of that name.
func (c *composing) task(id string) *Task {
	for i := range c.q.Batches {
		for j := range c.q.Batches[i].Tasks {
			if t := &c.q.Batches[i].Tasks[j]; t.ID == id {
				return t
			}
		}
	}
	return nil
}

// inOven says whether a pinned bake is where there is an oven, and drops what is not known there.
func (c *composing) inOven(t *Task, p *Pin) bool {
	i := slices.IndexFunc(c.q.Ovens, func(o Oven) bool { return o.ID == p.Oven })
	if p.Oven != "" && i < 0 {
		return false
	}
	if i >= 0 && !slices.ContainsFunc(c.q.Ovens[i].Tiers, func(x Tier) bool { return x.ID == p.Tier }) {
		p.Tier = ""
	}
	if !slices.ContainsFunc(t.Alternatives, func(a Alternative) bool { return a.ID == p.Alternative }) {
		p.Alternative = ""
	}
	return true
}
