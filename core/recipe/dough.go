package recipe

import (
	"math"
	"slices"

	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// dough is what was written of a topping or a base.
type dough struct {
	own  *larder.Own
	g    map[string]float64
	keys []string // in the order written
}

func (d *dough) add(key string, g float64) {
	if _, ok := d.own.Ingredient(key); !ok {
		return
	}
	if _, twice := d.g[key]; !twice {
		d.keys = append(d.keys, key)
	}
	d.g[key] += g
}

func (d *dough) sum() (sum float64) {
	for _, k := range d.keys {
		sum += d.g[k]
	}
	return sum
}

// most is what there is most of, empty for nothing.
func (d *dough) most() (most string) {
	for _, k := range d.keys {
		if most == "" || d.g[k] > d.g[most] {
			most = k
		}
	}
	return most
}

// leastHydration is the least that a dough is made up to, in percent.
const leastHydration = 10.0

// hydration is the water of its liquids and eggs to its flour, in percent.
func (d *dough) hydration() float64 {
	water, flour := 0.0, 0.0
	for _, k := range d.keys {
		switch i, _ := d.own.Ingredient(k); i.Role {
		case "liquid", "egg":
			water += d.g[k] * i.WaterPct / 100
		case "flour":
			flour += d.g[k]
		}
	}
	if flour == 0 {
		return 0
	}
	return 100 * water / flour
}

// noLike is the fault of a dough that is like none of the tables.
func (d *dough) noLike(what, style string) error {
	var names []message.Message
	for _, k := range d.keys {
		i, _ := d.own.Ingredient(k)
		names = append(names, message.Value(message.Name(larder.Plain(i.Name))))
	}
	return &fault.NotYet{
		Pointer: "/lines",
		Detail: message.New(
			"a {what} of {parts} does not match any topping for a {style}: it needs flour, oats, nuts, crumbs or a bought sheet",
			message.Word(what), message.And(names...), message.Word(style),
		),
	}
}

// like is a row of the tables that a dough may be written as.
type like struct {
	key       string
	parts     []larder.Part
	hydration float64
	usual     bool // on that style
}

// toppingLikes are the tables' toppings. Only a betty's crumbs lie in layers without being asked to.
func toppingLikes(style string) (out []like) {
	of := larder.StyleOf(style)
	for _, t := range larder.Toppings.All() {
		if !t.None() {
			out = append(out, like{t.Key, t.Parts, t.HydrationPct, of.Takes(t.Family)})
		}
	}
	return out
}

func baseLikes() (out []like) {
	for _, b := range larder.Bases.All() {
		if len(b.Parts) > 0 {
			out = append(out, like{b.Key, b.Parts, 0, true})
		}
	}
	return out
}

// What weighs how much when doughs are compared: first what a thing does, then what it is, and whether it
// is usual on the style. Working figures.
const (
	byKeyWeight   = 0.15
	unusualWeight = 0.45
	leavenWeight  = 0.25
)

// nearest is the like that a dough is nearest to, with every percentage that differs from it.
func nearest(d dough, likes []like) (best like, pct map[string]float64, ok bool) {
	least := math.Inf(1)
	for _, l := range likes {
		if off := d.apart(l); off < least {
			best, least = l, off
		}
	}
	if len(best.parts) == 0 {
		return best, nil, false
	}
	// Without the flour that the others are measured against, what there is most of among the dry things takes its place.
	hundred := d.g[best.parts[0].Key]
	if hundred <= 0 {
		for _, k := range d.keys {
			if i, _ := d.own.Ingredient(k); dry[i.Role] {
				hundred = max(hundred, d.g[k])
			}
		}
	}
	if hundred <= 0 {
		return best, nil, false
	}
	pct = map[string]float64{}
	for _, p := range best.parts {
		if want := 100 * d.g[p.Key] / hundred; want != p.Pct {
			pct[p.Key] = want
		}
	}
	for _, k := range d.keys {
		if !slices.ContainsFunc(best.parts, func(p larder.Part) bool { return p.Key == k }) {
			pct[k] = 100 * d.g[k] / hundred
		}
	}
	return best, pct, true
}

// dry are the roles that a dough can be measured against.
var dry = map[string]bool{"flour": true, "oat": true, "nut": true, "seed": true, "crumb": true, "pastry": true}

// does are roles that do the same in a dough.
var does = map[string]string{"syrup": "sugar", "seed": "nut", "egg": "liquid"}

// apart is how far a dough is from a like.
func (d *dough) apart(l like) float64 {
	role := func(key string) string {
		i, _ := d.own.Ingredient(key)
		if same, ok := does[i.Role]; ok {
			return same
		}
		return i.Role
	}
	byRole, byKey := map[string]float64{}, map[string]float64{}
	all, leavens := l.hydration, map[bool]bool{}
	for _, p := range l.parts {
		all += p.Pct
	}
	byRole["liquid"] = l.hydration / all
	for _, p := range l.parts {
		byRole[role(p.Key)] += p.Pct / all
		byKey[p.Key] += p.Pct / all
		leavens[true] = leavens[true] || role(p.Key) == "leavener"
	}
	sum := d.sum()
	for _, k := range d.keys {
		byRole[role(k)] -= d.g[k] / sum
		byKey[k] -= d.g[k] / sum
		leavens[false] = leavens[false] || role(k) == "leavener"
	}
	off := 0.0
	for _, x := range byRole {
		off += math.Abs(x)
	}
	for _, x := range byKey {
		off += byKeyWeight * math.Abs(x)
	}
	if !l.usual {
		off += unusualWeight
	}
	if leavens[true] != leavens[false] {
		off += leavenWeight
	}
	return off
}
