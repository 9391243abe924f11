package diet

import (
	"maps"
	"slices"

	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// toppings swaps in every topping.
func (c *changing) toppings() {
	r := &c.p.Request
	r.Topping = c.dough("topping", r.Topping)
	r.Late = slices.Clone(r.Late)
	for i := range r.Late {
		r.Late[i] = c.dough("topping", r.Late[i])
	}
}

func (c *changing) dough(where string, t balance.ToppingInput) balance.ToppingInput {
	row, _ := larder.Toppings.Get(t.Key)
	t.BakersPct = c.parts(where, row.Parts, t.BakersPct)
	if row.HydrationPct == 0 {
		return t
	}
	liquids := t.Liquids
	if len(liquids) == 0 {
		liquids = []balance.LiquidInput{{Key: "whole_milk", Share: 1}}
	}
	var out []balance.LiquidInput
	changed := false
	for _, l := range liquids {
		s, ok := c.instead(l.Key)
		if !c.offends(l.Key) || !ok {
			out = append(out, l)
			continue
		}
		changed = true
		c.note(where, l.Key, s)
		for _, p := range s.to {
			if i, _ := c.own().Ingredient(p.Key); i.Role == "liquid" { // the dough's butter makes up for the fat
				out = append(out, balance.LiquidInput{Key: p.Key, Share: l.Share * p.Pct})
			}
		}
	}
	if changed {
		t.Liquids = out
	}
	return t
}

// parts swaps within baker's percentages: what does not suit goes to 0, what takes its place is added.
func (c *changing) parts(where string, recipe []larder.Part, changed map[string]float64) map[string]float64 {
	pct := map[string]float64{}
	for _, p := range recipe {
		pct[p.Key] = p.Pct
	}
	maps.Copy(pct, changed)
	out := maps.Clone(changed)
	if out == nil {
		out = map[string]float64{}
	}
	for _, key := range slices.Sorted(maps.Keys(pct)) {
		if pct[key] <= 0 || !c.offends(key) {
			continue
		}
		s, ok := c.instead(key)
		if !ok {
			do := ways[key]
			if i, _ := c.own().Ingredient(key); do.IsZero() && i.Role == "crumb" {
				do = message.New("Use crumbs of a bread or biscuit with a suitable label: add them under Kitchen, Ingredients.")
			}
			if do.IsZero() {
				do = message.New("Choose another topping: a crumble or a crisp can be made without it.")
			}
			c.leave(c.name(key), message.New("no known swap"), do)
			continue
		}
		c.note(where, key, s)
		out[key] = 0
		for _, p := range s.to {
			before, is := out[p.Key]
			if !is {
				before = pct[p.Key]
			}
			out[p.Key] = before + pct[key]*p.Pct
		}
	}
	if len(out) == 0 {
		return nil
	}
	c.keepFat(where, pct, out)
	return out
}

// keepFat takes as much fat out as nuts and seeds in the place of leaner things have brought, and leaves enough to
// bind.
func (c *changing) keepFat(where string, before, changed map[string]float64) {
	const bind = 0.3 // of the fat
	after := maps.Clone(before)
	maps.Copy(after, changed)
	fat := func(pct map[string]float64) (all, added float64, main string) {
		for _, key := range slices.Sorted(maps.Keys(pct)) {
			i, _ := c.own().Ingredient(key)
			g := pct[key] * i.FatPct / 100
			all += g
			if i.Role == "fat" && pct[key] > 0 {
				added += g
				if main == "" || g > pct[main]*i.FatPct/100 {
					main = key
				}
			}
		}
		return all, added, main
	}
	was, _, _ := fat(before)
	now, added, main := fat(after)
	if main == "" || now <= was*1.05 {
		return
	}
	i, _ := c.own().Ingredient(main)
	less := min(now-was, (1-bind)*added)
	changed[main] = after[main] - 100*less/i.FatPct
	c.changed(Change{where, c.name(main), message.New("less of it"), message.New("the swap contains fat itself")})
}

// ways are what is done about what has no swap in the tables.
var ways = map[string]message.Message{
	"puff_pastry": message.New(
		"Use a pastry sheet with a suitable label and add it under Kitchen, Ingredients, or choose another topping.",
	),
}

func (c *changing) base() {
	b := c.p.Request.Base
	if b == nil {
		return
	}
	row, _ := larder.Bases.Get(b.Key)
	next := *b
	next.BakersPct = c.parts("base", row.Parts, b.BakersPct)
	c.p.Request.Base = &next
}
