// Package compare lays two desserts beside each other, line by line: what went into them, how they were to stand, how they were baked,
// and what came out.
package compare

import (
	"cmp"
	"math"
	"slices"

	"mabbin/core/bake"
	"mabbin/core/baked"
	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/larder"
	"mabbin/core/say"
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

// Row is one line of both; empty is not known, or not in it.
type Row struct {
	Part say.Line `json:"part"` // the heading that it stands under
	What say.Line `json:"what"`
	A    say.Line `json:"a"`
	B    say.Line `json:"b"`
	Same bool     `json:"same"`
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

func (t *table) add(part, what, a, b say.Line) {
	if a != "" || b != "" {
		*t = append(*t, Row{part, what, a, b, a == b})
	}
}

func (t *table) dish(a, b balance.Request) {
	t.add("Dish", "style", say.Line(a.Style), say.Line(b.Style))
	t.add("Dish", "dish", a.Dish.Words(), b.Dish.Words())
	t.add("Dish", "material", material(a.Dish), material(b.Dish))
}

func material(d dish.Dish) say.Line {
	m, _ := larder.Materials.Get(d.Material)
	return say.Line(m.Name)
}

// weighed lays the tickets beside each other: bowls and lines in the order of the first, with those that only the other has after them.
func (t *table) weighed(a, b *balance.Answer) {
	if a == nil || b == nil {
		return
	}
	type key struct{ bowl, line string }
	read := func(x *balance.Answer) (order []key, title map[string]say.Line, name, g map[key]say.Line) {
		title, name, g = map[string]say.Line{}, map[key]say.Line{}, map[key]say.Line{}
		for _, bowl := range x.Ticket {
			title[bowl.Key] = bowl.Title
			for _, l := range bowl.Lines {
				k := key{bowl.Key, l.Key}
				order = append(order, k)
				name[k], g[k] = say.Only(say.Called(l.Name)), say.Only(say.G(l.G))
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
	both := func(what say.Line, of func(*balance.Answer) say.Line) { t.add(part, what, of(a), of(b)) }
	t.add(part, "set", say.Line(a.Set.Band), say.Line(b.Set.Band))
	both("juice to hold", func(x *balance.Answer) say.Line { return say.Only(say.G(math.Round(x.JuiceG))) })
	both("free rim while it boils", func(x *balance.Answer) say.Line { return say.Only(say.MM(math.Round(x.Fit.HotHeadspaceMM))) })
	both("topping", func(x *balance.Answer) say.Line { return say.Only(say.MM(math.Round(x.Topping.ThicknessMM))) })
	both("sweetness of the filling", func(x *balance.Answer) say.Line { return say.F("{n} %", say.N(x.SugarPct, 1)) })
	both("steam lost", func(x *balance.Answer) say.Line { return say.Only(say.G(math.Round(x.Ledger.SteamedOffG))) })
	both("portions", func(x *balance.Answer) say.Line { return say.Only(say.N(x.Portions.Count, 0)) })
}

func minutes(x float64) say.Line { return say.F("{minutes} min", say.N(x, 0)) }

func heat(x float64) say.Line { return say.Only(say.C(x)) }

func (t *table) bake(a, b Side) {
	const part = "The bake"
	t.add(part, "oven", named(a.Oven), named(b.Oven))
	t.add(part, "heat", figure(a.OvenC, heat), figure(b.OvenC, heat))
	t.add(part, "minutes", figure(a.Minutes, minutes), figure(b.Minutes, minutes))
	t.add(part, "shelf", say.Line(a.Shelf), say.Line(b.Shelf))
	t.add(part, "stages", stages(a.Stages), stages(b.Stages))
	if a.Happened != nil || b.Happened != nil {
		t.add(part, "late or early", lateBy(a.Happened), lateBy(b.Happened))
	}
}

// named is what a kitchen calls a thing.
func named(name string) say.Line {
	if name == "" {
		return ""
	}
	return say.Only(say.Text(name))
}

func stages(all []bake.Stage) say.Line {
	var out []say.Line
	for _, s := range all {
		says := []say.Line{say.F("{minutes} min at {heat}", say.N(s.Minutes, 0), say.C(s.OvenC))}
		for _, x := range []struct {
			is   bool
			says say.Line
		}{
			{s.Heating == "fan", "fan"},
			{s.Heating == "bottom", "bottom heat"},
			{s.Cover == "foil", "foil"},
			{s.Cover == "lid", "lid"},
			{s.Cover == "rim", "foil round the rim"},
			{s.Shelf == "low", "low"},
			{s.Shelf == "high", "high"},
			{s.PushUnder, "pushed under"},
			{s.AddTopping, "topping on"},
		} {
			if x.is {
				says = append(says, x.says)
			}
		}
		out = append(out, say.Between(", ", says...))
	}
	return say.Between("; ", out...)
}

func lateBy(h *baked.Happened) say.Line {
	if h == nil {
		return ""
	}
	d := math.Round(h.Minutes - h.PlannedMin)
	switch {
	case d > 0:
		return say.F("{minutes} min longer than planned", say.N(d, 0))
	case d < 0:
		return say.F("{minutes} min shorter than planned", say.N(-d, 0))
	}
	return "as planned"
}

func (t *table) out(a, b Side) {
	const part = "What came out"
	t.add(part, "juice, cold", say.Line(a.Words.Juice), say.Line(b.Words.Juice))
	t.add(part, "juice, hot", say.Line(a.Told.JuiceHot), say.Line(b.Told.JuiceHot))
	t.add(part, "fruit", say.Line(a.Words.Fruit), say.Line(b.Words.Fruit))
	t.add(part, "top", say.Line(a.Words.Top), say.Line(b.Words.Top))
	t.add(part, "base", say.Line(a.Told.Base), say.Line(b.Told.Base))
	t.add(part, "sweetness", say.Line(a.Told.Sweetness), say.Line(b.Told.Sweetness))
	t.add(part, "boiled over", yes(a.Words.BoiledOver), yes(b.Words.BoiledOver))
	t.add(part, "rim bubbled after", figure(a.Told.RimMin, minutes), figure(b.Told.RimMin, minutes))
	t.add(part, "middle bubbled after", figure(a.Told.MiddleMin, minutes), figure(b.Told.MiddleMin, minutes))
	t.add(part, "weight lost", lost(a.Told), lost(b.Told))
	t.add(part, "again so?", yes(a.Told.Again), yes(b.Told.Again))
}

func figure(x *float64, as func(float64) say.Line) say.Line {
	if x == nil {
		return ""
	}
	return as(*x)
}

func yes(b *bool) say.Line {
	switch {
	case b == nil:
		return ""
	case *b:
		return "yes"
	}
	return "no"
}

func lost(t baked.Told) say.Line {
	g, ok := t.LostG()
	if !ok {
		return ""
	}
	return say.Only(say.G(g))
}
