// Package compare lays two desserts beside each other, line by line: what went into them, how they were to stand, how they were baked,
// and what came out.
package compare

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"mabbin/core/bake"
	"mabbin/core/baked"
	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/larder"
)

// Side is one of two desserts. What is not known is left out.
type Side struct {
	Request  balance.Request
	Answer   *balance.Answer
	Oven     string
	OvenC    *float64
	Minutes  *float64
	Shelf    string
	Stages   []bake.Stage
	Words    bake.Words
	Told     baked.Told
	Happened *baked.Happened
}

// Row is one line of both. Weights are in g and temperatures in C in its words; empty is not known, or not in it.
type Row struct {
	Part string `json:"part"` // the heading that it stands under
	What string `json:"what"`
	A    string `json:"a"`
	B    string `json:"b"`
	Same bool   `json:"same"`
}

// Of is every line, in the order of the work.
func Of(a, b Side) []Row {
	t := table{}
	t.dish(a.Request, b.Request)
	t.weighed(a.Answer, b.Answer)
	t.stands(a.Answer, b.Answer)
	t.bake(a, b)
	t.out(a, b)
	return t
}

type table []Row

func (t *table) add(part, what, a, b string) {
	if a != "" || b != "" {
		*t = append(*t, Row{part, what, a, b, a == b})
	}
}

func (t *table) dish(a, b balance.Request) {
	t.add("Dish", "style", a.Style, b.Style)
	t.add("Dish", "dish", a.Dish.Words(), b.Dish.Words())
	t.add("Dish", "material", material(a.Dish), material(b.Dish))
}

func material(d dish.Dish) string {
	m, _ := larder.Materials.Get(d.Material)
	return m.Name
}

// weighed lays the tickets beside each other: bowls and lines in the order of the first, with those that only the other has after them.
func (t *table) weighed(a, b *balance.Answer) {
	if a == nil || b == nil {
		return
	}
	type key struct{ bowl, line string }
	read := func(x *balance.Answer) (order []key, title map[string]string, name, g map[key]string) {
		title, name, g = map[string]string{}, map[key]string{}, map[key]string{}
		for _, bowl := range x.Ticket {
			title[bowl.Key] = bowl.Title
			for _, l := range bowl.Lines {
				k := key{bowl.Key, l.Key}
				order = append(order, k)
				name[k], g[k] = l.Name, l.Shown+" g"
			}
		}
		return order, title, name, g
	}
	order, title, name, g := read(a)
	orderB, titleB, nameB, gB := read(b)
	for _, k := range orderB {
		if slices.Contains(order, k) {
			continue
		}
		at := len(order)
		for i, o := range order {
			if o.bowl == k.bowl {
				at = i + 1
			}
		}
		order = slices.Insert(order, at, k)
	}
	for _, k := range order {
		t.add(cmp.Or(title[k.bowl], titleB[k.bowl]), cmp.Or(name[k], nameB[k]), g[k], gB[k])
	}
}

func (t *table) stands(a, b *balance.Answer) {
	if a == nil || b == nil {
		return
	}
	const part = "How it was to stand"
	both := func(what, format string, of func(*balance.Answer) float64) {
		t.add(part, what, fmt.Sprintf(format, of(a)), fmt.Sprintf(format, of(b)))
	}
	t.add(part, "set", string(a.Set.Band), string(b.Set.Band))
	both("juice to hold", "%.0f g", func(x *balance.Answer) float64 { return x.JuiceG })
	both("free rim while it boils", "%.0f mm", func(x *balance.Answer) float64 { return x.Fit.HotHeadspaceMM })
	both("topping", "%.0f mm", func(x *balance.Answer) float64 { return x.Topping.ThicknessMM })
	both("sweetness of the filling", "%.1f %%", func(x *balance.Answer) float64 { return x.SugarPct })
	both("steam lost", "%.0f g", func(x *balance.Answer) float64 { return x.Ledger.SteamedOffG })
	both("portions", "%.0f", func(x *balance.Answer) float64 { return x.Portions.Count })
}

func (t *table) bake(a, b Side) {
	const part = "The bake"
	t.add(part, "oven", a.Oven, b.Oven)
	t.add(part, "heat", figure(a.OvenC, "%.0f C"), figure(b.OvenC, "%.0f C"))
	t.add(part, "minutes", figure(a.Minutes, "%.0f min"), figure(b.Minutes, "%.0f min"))
	t.add(part, "shelf", a.Shelf, b.Shelf)
	t.add(part, "stages", stages(a.Stages), stages(b.Stages))
	if a.Happened != nil || b.Happened != nil {
		t.add(part, "late or early", lateBy(a.Happened), lateBy(b.Happened))
	}
}

func stages(all []bake.Stage) string {
	if len(all) == 0 {
		return ""
	}
	var out []string
	for _, s := range all {
		says := fmt.Sprintf("%.0f min at %.0f C", s.Minutes, s.OvenC)
		for _, x := range [][2]string{{s.Heating, "fan"}, {s.Heating, "bottom"}, {s.Cover, "foil"}, {s.Cover, "lid"}, {s.Cover, "rim"}, {s.Shelf, "low"}, {s.Shelf, "high"}} {
			if x[0] == x[1] {
				says += ", " + x[1]
			}
		}
		if s.PushUnder {
			says += ", pushed under"
		}
		if s.AddTopping {
			says += ", topping on"
		}
		out = append(out, says)
	}
	return strings.Join(out, "; then ")
}

func lateBy(h *baked.Happened) string {
	if h == nil {
		return ""
	}
	d := math.Round(h.Minutes - h.PlannedMin)
	switch {
	case d > 0:
		return fmt.Sprintf("%.0f min longer than planned", d)
	case d < 0:
		return fmt.Sprintf("%.0f min shorter than planned", -d)
	}
	return "as planned"
}

func (t *table) out(a, b Side) {
	const part = "What came out"
	t.add(part, "juice, cold", a.Words.Juice, b.Words.Juice)
	t.add(part, "juice, hot", a.Told.JuiceHot, b.Told.JuiceHot)
	t.add(part, "fruit", a.Words.Fruit, b.Words.Fruit)
	t.add(part, "top", a.Words.Top, b.Words.Top)
	t.add(part, "base", a.Told.Base, b.Told.Base)
	t.add(part, "sweetness", a.Told.Sweetness, b.Told.Sweetness)
	t.add(part, "boiled over", yes(a.Words.BoiledOver), yes(b.Words.BoiledOver))
	t.add(part, "rim bubbled after", figure(a.Told.RimMin, "%.0f min"), figure(b.Told.RimMin, "%.0f min"))
	t.add(part, "middle bubbled after", figure(a.Told.MiddleMin, "%.0f min"), figure(b.Told.MiddleMin, "%.0f min"))
	t.add(part, "weight lost", lost(a.Told), lost(b.Told))
	t.add(part, "again so?", yes(a.Told.Again), yes(b.Told.Again))
}

func figure(x *float64, format string) string {
	if x == nil {
		return ""
	}
	return fmt.Sprintf(format, *x)
}

func yes(b *bool) string {
	switch {
	case b == nil:
		return ""
	case *b:
		return "yes"
	}
	return "no"
}

func lost(t baked.Told) string {
	g, ok := t.LostG()
	if !ok {
		return ""
	}
	return fmt.Sprintf("%.0f g", g)
}
