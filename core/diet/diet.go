// Package diet proposes what has to change in a dessert for a diet: swaps that keep water, fat and set, with what each
// costs in texture. It goes by the allergens of the tables, and a list of those is no promise about cross-contact.
package diet

import (
	"fmt"
	"slices"
	"strings"

	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// Diet is what somebody does not eat.
type Diet string

// The diets.
const (
	Vegan      Diet = "vegan"
	DairyFree  Diet = "dairy_free"
	EggFree    Diet = "egg_free"
	GlutenFree Diet = "gluten_free"
	NutFree    Diet = "nut_free"
)

// Choices are the diets in the order in which they are offered, in words.
var Choices = message.Choices{
	message.Choose(Vegan, "vegan"), message.Choose(DairyFree, "no dairy"), message.Choose(EggFree, "no egg"),
	message.Choose(GlutenFree, "no gluten"), message.Choose(NutFree, "no nuts"),
}

// All lists the diets.
func All() []Diet {
	out := make([]Diet, len(Choices))
	for i, c := range Choices {
		out[i] = Diet(c.Value)
	}
	return out
}

// forbids are the beginnings of the allergens that a diet leaves out.
var forbids = map[Diet][]string{
	Vegan: {"milk", "egg"}, DairyFree: {"milk"}, EggFree: {"egg"}, GlutenFree: {"gluten"}, NutFree: {"nut"},
}

// notVegan are animal and no allergen.
var notVegan = map[string]bool{"honey": true}

// Request is a dessert and the diets that it is to suit.
type Request struct {
	Request balance.Request `json:"request"`
	Diets   []Diet          `json:"diets"`
}

// Proposal is a dessert changed for the diets.
type Proposal struct {
	Changes    []Change        `json:"changes"`
	Left       []Left          `json:"left"`        // what no swap is known for
	CheckLabel []string        `json:"check_label"` // ingredients whose label has to be read
	Request    balance.Request `json:"request"`
	Answer     balance.Answer  `json:"answer"`
	Before     balance.Answer  `json:"before"`
}

// Change is one swap.
type Change struct {
	Where string          `json:"where"` // fruit, thickener, topping, base, finish or dish
	From  message.Message `json:"from"`
	To    message.Message `json:"to"` // empty: left out
	Costs message.Message `json:"costs"`
}

// Left is something that stays and does not suit.
type Left struct {
	Name   message.Message `json:"name"`
	Reason message.Message `json:"reason"`
	Action message.Message `json:"action"`
}

// Check finds every wrong field.
func Check(q Request) error {
	var f fault.Faults
	if len(q.Diets) == 0 {
		f.Add("/diets", message.New("is empty: choose one or more of {words}",
			message.Text(strings.Join(Choices.Values(), ", "))))
	}
	for i, d := range q.Diets {
		f.Among(fmt.Sprintf("/diets/%d", i), "", string(d), Choices)
	}
	f.Under("/request", balance.Check(q.Request))
	return f.Err()
}

// Propose changes a dessert for the diets.
func Propose(q Request) (*Proposal, error) {
	if err := Check(q); err != nil {
		return nil, err
	}
	before, err := balance.Solve(q.Request)
	if err != nil {
		return nil, err
	}
	c := changing{
		q: q,
		p: &Proposal{Changes: []Change{}, Left: []Left{}, CheckLabel: []string{}, Request: q.Request, Before: *before},
	}
	c.filling()
	c.thickener()
	c.custard()
	c.toppings()
	c.base()
	c.finish()
	a, err := balance.Solve(c.p.Request)
	if err != nil {
		return nil, err
	}
	c.p.Answer = *a
	c.p.CheckLabel = a.Allergens.CheckLabel
	return c.p, nil
}

// changing is a proposal under way.
type changing struct {
	q    Request
	p    *Proposal
	only *swap // the one swap that is made, for whatever reason
}

func (c *changing) own() *larder.Own { return c.q.Request.Own }

// offends says whether an ingredient is left out by one of the diets.
func (c *changing) offends(key string) bool {
	if c.only != nil {
		return c.only.from == key
	}
	i, ok := c.own().Ingredient(key)
	if !ok {
		return false
	}
	for _, d := range c.q.Diets {
		if d == Vegan && notVegan[key] {
			return true
		}
		for _, a := range i.Allergens {
			// what only the label can tell is reported so, and not swapped
			if slices.ContainsFunc(forbids[d], func(s string) bool { return strings.HasPrefix(a, s) }) {
				return true
			}
		}
	}
	return false
}

// instead is the first swap that suits the diets itself.
func (c *changing) instead(key string) (swap, bool) {
	if c.only != nil {
		return *c.only, true
	}
	for _, s := range swaps {
		if s.from == key && !slices.ContainsFunc(s.to, func(p larder.Part) bool { return c.offends(p.Key) }) {
			return s, true
		}
	}
	return swap{}, false
}

func (c *changing) name(key string) message.Message {
	i, _ := c.own().Ingredient(key)
	return named(i.Name)
}

func named(name string) message.Message { return message.Value(message.Name(larder.Plain(name))) }

// words are what a swap puts in.
func (c *changing) words(s swap) message.Message {
	var to []message.Message
	for _, p := range s.to {
		to = append(to, c.name(p.Key))
	}
	if len(to) == 0 {
		return message.Message{}
	}
	return message.Value(message.And(to...))
}

func (c *changing) note(where, from string, s swap) {
	c.changed(Change{where, c.name(from), c.words(s), s.costs})
}

// changed notes a change, once.
func (c *changing) changed(change Change) {
	same := func(x Change) bool {
		return x.Where == change.Where && x.From.Equal(change.From) && x.To.Equal(change.To) && x.Costs.Equal(change.Costs)
	}
	if !slices.ContainsFunc(c.p.Changes, same) {
		c.p.Changes = append(c.p.Changes, change)
	}
}

func (c *changing) leave(name, why, do message.Message) {
	c.p.Left = append(c.p.Left, Left{name, why, do})
}

// filling swaps what is weighed into the fruit.
func (c *changing) filling() {
	r := &c.p.Request
	each := func(list []balance.Quantity) (liquids, extras []balance.Quantity) {
		for _, a := range list {
			if !c.offends(a.Key) {
				liquids = append(liquids, a)
				continue
			}
			s, ok := c.instead(a.Key)
			if !ok {
				liquids = append(liquids, a)
				c.leave(
					c.name(a.Key),
					message.New("no known swap"),
					message.New("Leave it out, or choose something else."),
				)
				continue
			}
			c.note("fruit", a.Key, s)
			for _, p := range s.to {
				i, _ := c.own().Ingredient(p.Key)
				part := balance.Quantity{Key: p.Key, G: a.G * p.Pct}
				if i.Role == "liquid" || i.Role == "syrup" || i.Role == "acid" {
					liquids = append(liquids, part)
				} else {
					extras = append(extras, part)
				}
			}
		}
		return liquids, extras
	}
	liquids, more := each(r.Liquids)
	wet, extras := each(r.Extras)
	// what was no liquid and stayed as it was is still none
	for _, a := range wet {
		i, _ := c.own().Ingredient(a.Key)
		if i.Role == "liquid" || i.Role == "syrup" || i.Role == "acid" {
			liquids = append(liquids, a)
		} else {
			extras = append(extras, a)
		}
	}
	r.Liquids, r.Extras = merged(liquids), merged(append(extras, more...))
	if c.offends("dry_breadcrumbs") && r.CrumbLayerG > 0 {
		c.note("crumbs", "dry_breadcrumbs", swap{costs: message.New("left out: par-bake the base instead")})
		r.CrumbLayerG = 0
	}
}

func merged(list []balance.Quantity) []balance.Quantity {
	var out []balance.Quantity
	for _, a := range list {
		if i := slices.IndexFunc(out, func(b balance.Quantity) bool { return b.Key == a.Key }); i >= 0 {
			out[i].G += a.G
		} else {
			out = append(out, a)
		}
	}
	return out
}

// thickener takes cornflour for a flour that does not suit: it is solved for the same set, or weighed by its strength.
func (c *changing) thickener() {
	t := c.p.Request.Thickener
	if t == nil || !c.offends(t.Key) || c.p.Request.Custard != nil {
		return
	}
	was, _ := larder.Thickeners.Get(t.Key)
	next := balance.ThickenerInput{
		Key:  "cornflour",
		With: slices.DeleteFunc(slices.Clone(t.With), func(a balance.Quantity) bool { return c.offends(a.Key) }),
	}
	if t.G != nil {
		g := *t.G * was.Strength
		next.G = &g
	}
	c.p.Request.Thickener = &next
	c.note(
		"thickener",
		t.Key,
		swap{
			to:    []larder.Part{{Key: "cornflour", Pct: was.Strength}},
			costs: message.New("clearer; weeps after freezing"),
		},
	)
}

// custard takes the eggs out of a custard: flour sets in their place, and a plant drink brings their water.
func (c *changing) custard() {
	r := &c.p.Request
	if r.Custard == nil {
		return
	}
	ratio := *r.Custard
	if ratio == (balance.CustardInput{}) {
		ratio = balance.UsualCustard
	}
	starch, _ := larder.Thickeners.Get("wheat_flour")
	if c.offends("wheat_flour") && ratio.Starch == "" {
		wheat := starch
		starch, _ = larder.Thickeners.Get("cornflour")
		ratio.Flour *= wheat.Strength / starch.Strength
		ratio.Starch = starch.Key
		r.Custard = &ratio
		c.note(
			"custard",
			wheat.Key,
			swap{to: []larder.Part{{Key: starch.Key}}, costs: message.New("smoother, a little firmer when cold")},
		)
	}
	if !c.offends("egg") || ratio.Egg == 0 {
		return
	}
	egg, _ := larder.Thickeners.Get("egg")
	i, _ := c.own().Ingredient("egg")
	weighed := 0.0
	for _, b := range c.p.Before.Ticket {
		for _, l := range b.Lines {
			if b.Key == "custard" && l.Key == "egg" {
				weighed = l.G
			}
		}
	}
	ratio.Flour += ratio.Egg * egg.Strength / starch.Strength
	ratio.Egg = 0
	r.Custard = &ratio
	s, ok := c.instead("egg")
	if !ok {
		return
	}
	r.Liquids = append(slices.Clone(r.Liquids), balance.Quantity{Key: s.to[0].Key, G: weighed * i.WaterPct / 100})
	c.note(
		"custard",
		"egg",
		swap{
			to:    []larder.Part{{Key: starch.Key}, s.to[0]},
			costs: message.New("set by starch alone: a thick cream rather than a custard; does not curdle"),
		},
	)
}

// finish swaps washes and what the dish is greased with.
func (c *changing) finish() {
	r := &c.p.Request
	var out []string
	for _, key := range r.Finishes {
		row, _ := larder.Finishes.Get(key)
		if !slices.ContainsFunc(row.Parts, func(p larder.Part) bool { return c.offends(p.Key) }) {
			out = append(out, key)
			continue
		}
		change := Change{"finish", named(row.Name), message.Message{}, message.New("left out: paler, without shine")}
		if row.When == "before" && !c.offends("oat_drink") && !slices.Contains(out, "oat_wash") {
			out = append(out, "oat_wash")
			change.To, change.Costs = message.New("plant drink wash"), message.New("paler, matt")
		}
		c.p.Changes = append(c.p.Changes, change)
	}
	r.Finishes = out
	greased := slices.ContainsFunc(
		c.p.Before.Ticket,
		func(b balance.Bowl) bool { return b.Key == "ready" && b.Lines[0].Key == "butter" },
	)
	if greased && c.offends("butter") {
		r.Greasing = "oil"
		c.p.Changes = append(
			c.p.Changes,
			Change{"dish", message.New("butter"), message.New("oil"), message.New("works as well against sticking")},
		)
	}
}
