// Package compare compares two desserts, line by line: what went into them, how they were to stand, how
// they were baked, and what came out.
package compare

import (
	"math"
	"slices"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/outcome"
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
	Details  outcome.Details
	Happened *outcome.ActualBake
}

// Row is one line of both; empty is not known, or not in it.
type Row struct {
	Part message.Message `json:"part"` // the heading that it stands under
	Name message.Message `json:"name"`
	A    message.Message `json:"a"`
	B    message.Message `json:"b"`
	Same bool            `json:"same"`
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

func (t *table) add(part, what, a, b message.Message) {
	if !a.IsZero() || !b.IsZero() {
		*t = append(*t, Row{part, what, a, b, a.Equal(b)})
	}
}

func (t *table) dish(a, b balance.Request) {
	t.add(message.New("Dish"), message.New("style"), message.New(a.Style), message.New(b.Style))
	t.add(message.New("Dish"), message.New("dish"), a.Dish.Sizes(), b.Dish.Sizes())
	t.add(message.New("Dish"), message.New("material"), material(a.Dish), material(b.Dish))
}

func material(d dish.Dish) message.Message {
	m, _ := larder.Materials.Get(d.Material)
	return message.New(m.Name)
}

// weighed compares the tickets: bowls and lines in the order of the first, with those that only the
// other has after them.
func (t *table) weighed(a, b *balance.Answer) {
	if a == nil || b == nil {
		return
	}
	type key struct{ bowl, line string }
	read := func(x *balance.Answer) (order []key, title map[string]message.Message, name, g map[key]message.Message) {
		title, name, g = map[string]message.Message{}, map[key]message.Message{}, map[key]message.Message{}
		for _, bowl := range x.Ticket {
			title[bowl.Key] = bowl.Title
			for _, l := range bowl.Lines {
				k := key{bowl.Key, l.Key}
				order = append(order, k)
				name[k], g[k] = message.Value(message.Name(l.Name)), message.Value(message.Grams(l.G))
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
		if _, both := name[k]; !both { // only in the other
			name[k] = nameB[k]
		}
		if _, both := title[k.bowl]; !both {
			title[k.bowl] = titleB[k.bowl]
		}
		t.add(title[k.bowl], name[k], g[k], gB[k])
	}
}

func (t *table) stands(a, b *balance.Answer) {
	if a == nil || b == nil {
		return
	}
	const part = "Planned result"
	both := func(what message.Message, of func(*balance.Answer) message.Message) {
		t.add(message.New(part), what, of(a), of(b))
	}
	t.add(message.New(part), message.New("set"), message.New(string(a.Set.Band)), message.New(string(b.Set.Band)))
	both(
		message.New("juice to hold"),
		func(x *balance.Answer) message.Message { return message.Value(message.Grams(math.Round(x.JuiceG))) },
	)
	both(message.New("space below the rim when it boils"), func(x *balance.Answer) message.Message {
		return message.Value(message.Millimetres(math.Round(x.Fit.HotHeadspaceMM)))
	})
	both(message.New("topping"), func(x *balance.Answer) message.Message {
		return message.Value(message.Millimetres(math.Round(x.Topping.ThicknessMM)))
	})
	both(
		message.New("sweetness of the filling"),
		func(x *balance.Answer) message.Message { return message.New("{n} %", message.Number(x.SugarPct, 1)) },
	)
	both(message.New("lost as steam"), func(x *balance.Answer) message.Message {
		return message.Value(message.Grams(math.Round(x.Ledger.SteamedOffG)))
	})
	both(
		message.New("portions"),
		func(x *balance.Answer) message.Message { return message.Value(message.Number(x.Portions.Count, 0)) },
	)
}

func minutes(x float64) message.Message { return message.New("{minutes} min", message.Number(x, 0)) }

func heat(x float64) message.Message { return message.Value(message.OvenHeat(x)) }

func (t *table) bake(a, b Side) {
	const part = "Bake"
	t.add(message.New(part), message.New("oven"), named(a.Oven), named(b.Oven))
	t.add(message.New(part), message.New("heat"), figure(a.OvenC, heat), figure(b.OvenC, heat))
	t.add(message.New(part), message.New("minutes"), figure(a.Minutes, minutes), figure(b.Minutes, minutes))
	t.add(message.New(part), message.New("shelf"), message.New(a.Shelf), message.New(b.Shelf))
	t.add(message.New(part), message.New("stages"), stages(a.Stages), stages(b.Stages))
	if a.Happened != nil || b.Happened != nil {
		t.add(message.New(part), message.New("early or late"), lateBy(a.Happened), lateBy(b.Happened))
	}
}

// named is what a kitchen calls a thing.
func named(name string) message.Message {
	if name == "" {
		return message.Message{}
	}
	return message.Value(message.Text(name))
}

func stages(all []bake.Stage) message.Message {
	var out []message.Message
	for _, s := range all {
		text := []message.Message{
			message.New("{minutes} min at {heat}", message.Number(s.Minutes, 0), message.OvenHeat(s.OvenC)),
		}
		for _, x := range []struct {
			is   bool
			says message.Message
		}{
			{s.Heating == "fan", message.New("fan")},
			{s.Heating == "bottom", message.New("bottom heat")},
			{s.Cover == "foil", message.New("foil")},
			{s.Cover == "lid", message.New("lid")},
			{s.Cover == "rim", message.New("foil around the rim")},
			{s.Shelf == "low", message.New("low")},
			{s.Shelf == "high", message.New("high")},
			{s.PushUnder, message.New("crust pushed under")},
			{s.AddTopping, message.New("topping put on")},
		} {
			if x.is {
				text = append(text, x.says)
			}
		}
		out = append(out, message.Join(", ", text...))
	}
	return message.Join("; ", out...)
}

func lateBy(h *outcome.ActualBake) message.Message {
	if h == nil {
		return message.Message{}
	}
	d := math.Round(h.Minutes - h.PlannedMin)
	switch {
	case d > 0:
		return message.New("{minutes} min longer than planned", message.Number(d, 0))
	case d < 0:
		return message.New("{minutes} min shorter than planned", message.Number(-d, 0))
	}
	return message.New("as planned")
}

func (t *table) out(a, b Side) {
	const part = "Result"
	t.add(message.New(part), message.New("juice, cold"), message.New(a.Words.Juice), message.New(b.Words.Juice))
	t.add(message.New(part), message.New("juice, hot"), message.New(a.Details.JuiceHot), message.New(b.Details.JuiceHot))
	t.add(message.New(part), message.New("fruit"), message.New(a.Words.Fruit), message.New(b.Words.Fruit))
	t.add(message.New(part), message.New("top"), message.New(a.Words.Top), message.New(b.Words.Top))
	t.add(message.New(part), message.New("base"), message.New(a.Details.Base), message.New(b.Details.Base))
	t.add(message.New(part), message.New("sweetness"), message.New(a.Details.Sweetness), message.New(b.Details.Sweetness))
	t.add(message.New(part), message.New("boiled over"), yes(a.Words.BoiledOver), yes(b.Words.BoiledOver))
	t.add(
		message.New(part),
		message.New("rim bubbled after"),
		figure(a.Details.RimMin, minutes),
		figure(b.Details.RimMin, minutes),
	)
	t.add(
		message.New(part),
		message.New("middle bubbled after"),
		figure(a.Details.MiddleMin, minutes),
		figure(b.Details.MiddleMin, minutes),
	)
	t.add(message.New(part), message.New("weight lost"), lost(a.Details), lost(b.Details))
	t.add(message.New(part), message.New("again the same way?"), yes(a.Details.Again), yes(b.Details.Again))
}

func figure(x *float64, as func(float64) message.Message) message.Message {
	if x == nil {
		return message.Message{}
	}
	return as(*x)
}

func yes(b *bool) message.Message {
	switch {
	case b == nil:
		return message.Message{}
	case *b:
		return message.New("yes")
	}
	return message.New("no")
}

func lost(t outcome.Details) message.Message {
	g, ok := t.LostG()
	if !ok {
		return message.Message{}
	}
	return message.Value(message.Grams(g))
}
