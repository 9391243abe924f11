package larder

import (
	"math"
	"strings"
	"testing"

	"mabbin/core/fault"
)

func TestCheckOwn(t *testing.T) {
	fruit := func(r OwnRow) *Own { return &Own{Fruits: map[string]OwnRow{"plum": r}} }
	for name, c := range map[string]struct {
		own  *Own
		want string // "" where nothing is wrong
	}{
		"none":                 {nil, ""},
		"a figure":             {fruit(OwnRow{Values: map[string]float64{"release_fresh": 0.5}}), ""},
		"too much":             {fruit(OwnRow{Values: map[string]float64{"release_fresh": 1.5}}), "/own/fruits/plum/values/release_fresh: is 1.5"},
		"no such figure":       {fruit(OwnRow{Values: map[string]float64{"luck": 1}}), "is not a figure of a fruit"},
		"more than everything": {fruit(OwnRow{Values: map[string]float64{"water_pct": 95, "sugar_pct": 40}}), "at most 100 % is possible"},
		"a copy of nothing":    {fruit(OwnRow{CopyOf: "moonfruit"}), `/own/fruits/plum/copy_of: there is no fruit "moonfruit"`},
		"a long name":          {fruit(OwnRow{Name: strings.Repeat("x", 81)}), "/own/fruits/plum/name: has more than 80 characters"},
		"a key of no letters":  {&Own{Fruits: map[string]OwnRow{"": {CopyOf: "plum"}}}, "its key has 0 characters: use 1 to 60"},
		"an allergen":          {&Own{Ingredients: map[string]OwnRow{"butter": {Allergens: &[]string{"milk"}}}}, ""},
		"no allergen":          {&Own{Ingredients: map[string]OwnRow{"butter": {Allergens: &[]string{"joy"}}}}, `/own/ingredients/butter/allergens/0: is "joy"`},
		"a thickener":          {&Own{Thickeners: map[string]OwnRow{"cornflour": {Values: map[string]float64{"strength": 99}}}}, "/own/thickeners/cornflour/values/strength"},
		"a topping":            {&Own{Toppings: map[string]OwnRow{"crumble_classic": {Values: map[string]float64{"brown_rate": 99}}}}, "/own/toppings/crumble_classic/values/brown_rate"},
		"a key with a slash":   {&Own{Toppings: map[string]OwnRow{"a/b": {}}}, "/own/toppings/a~1b/copy_of"},
	} {
		var f fault.Faults
		c.own.Check("/own", &f)
		if got := f.Error(); (c.want == "") != (got == "") || !strings.Contains(got, c.want) {
			t.Errorf("%s: %q, want %q", name, got, c.want)
		}
	}
}

func TestFactors(t *testing.T) {
	plum, _ := Fruits.Get("plum")
	apple, _ := Fruits.Get("apple_firm")
	corn, _ := Thickeners.Get("cornflour")
	crumble, _ := Toppings.Get("crumble_classic")
	x := &Factors{
		Release:   map[string]float64{AllFruit: 0.9, "plum": 1.2},
		Softness:  map[string]float64{"plum": 2},
		Thickener: map[string]float64{"cornflour": 0.5},
		Colour:    map[string]float64{"crumble_classic": 1.5},
	}
	own := &Own{Fruits: map[string]OwnRow{"russet": {CopyOf: "apple_firm"}}}
	o := x.On(own)
	for name, c := range map[string][2]float64{
		"a fruit's own factor": {figureOf(o.Fruit("plum")).ReleaseFresh, 1.2 * plum.ReleaseFresh},
		"that of all fruit":    {figureOf(o.Fruit("apple_firm")).ReleaseFresh, 0.9 * apple.ReleaseFresh},
		"of the kitchen's own": {figureOf(o.Fruit("russet")).ReleaseFrozen, 0.9 * apple.ReleaseFrozen},
		"softer is sooner":     {figureOf(o.Fruit("plum")).TenderMin, plum.TenderMin / 2},
		"a thickener":          {figureOf(o.Thickener("cornflour")).Strength, corn.Strength / 2},
		"a topping":            {figureOf(o.Topping("crumble_classic")).BrownRate, 1.5 * crumble.BrownRate},
	} {
		if math.Abs(c[0]-c[1]) > 1e-9 {
			t.Errorf("%s: %g, want %g", name, c[0], c[1])
		}
	}
	if len(own.Fruits) != 1 || own.Thickeners != nil {
		t.Errorf("the kitchen's rows are changed: %+v", own)
	}
	if (*Factors)(nil).On(own) != own {
		t.Error("without factors the rows are others")
	}
	if f, _ := (&Factors{Release: map[string]float64{"plum": 10}}).On(nil).Fruit("plum"); f.ReleaseFresh > 0.95 {
		t.Errorf("a plum releases %g of its water", f.ReleaseFresh)
	}
	var f fault.Faults
	(&Factors{Release: map[string]float64{"plum": 11}, Colour: map[string]float64{"x": 0}}).Check("/factors", &f)
	if got := f.Error(); !strings.Contains(got, "/factors/release/plum: is 11: enter 0.1 to 10") ||
		!strings.Contains(got, "/factors/colour/x: is 0") || len(f) != 2 {
		t.Error(got)
	}
}

func figureOf[T any](x T, _ bool) T { return x }

func TestFruit(t *testing.T) {
	apple, _ := Fruits.Get("apple_firm")
	plum, _ := Fruits.Get("plum")
	berry, _ := Fruits.Get("raspberry")
	for name, c := range map[string][2]any{
		"peeled":              {apple.Yield(true), apple.YieldPeeled},
		"unpeeled":            {apple.Yield(false), apple.YieldUnpeeled},
		"small":               {apple.PieceG("small"), apple.SmallG},
		"large":               {apple.PieceG("large"), apple.LargeG},
		"of no size":          {apple.PieceG(""), apple.MediumG},
		"apples are counted":  {apple.Counted(), true},
		"berries are not":     {berry.Counted(), false},
		"apples are peeled":   {apple.Peelable(), true},
		"plums keep the skin": {plum.KeepsSkin() || !plum.Peelable(), true},
	} {
		if c[0] != c[1] {
			t.Errorf("%s: %v, want %v", name, c[0], c[1])
		}
	}
}

func TestNamesInSentences(t *testing.T) {
	for name, want := range map[string][2]string{
		"Plain (all-purpose) flour":     {"plain flour", "plain flour"},
		"Apple, firm (keeps its shape)": {"apple, firm", "apple"},
		"Grandma's Mix (old)":           {"grandma's mix", "grandma's mix"},
	} {
		if got := [2]string{Plain(name), Short(name)}; got != want {
			t.Errorf("%s: %q, want %q", name, got, want)
		}
	}
	if got := AllergenName("milk"); got == "" || got == "milk" && AllergenName("joy") != "joy" {
		t.Errorf("milk is %q", got)
	}
}

func TestInSeason(t *testing.T) {
	for name, c := range map[string]struct {
		p      Pairing
		in, no int
	}{
		"within a year":     {Pairing{From: 6, To: 8}, 6, 5},
		"its last month":    {Pairing{From: 6, To: 8}, 8, 9},
		"over the new year": {Pairing{From: 9, To: 3}, 1, 4},
		"its first month":   {Pairing{From: 9, To: 3}, 9, 8},
	} {
		if !c.p.InSeason(c.in) || c.p.InSeason(c.no) {
			t.Errorf("%s: month %d %v, month %d %v", name, c.in, c.p.InSeason(c.in), c.no, c.p.InSeason(c.no))
		}
	}
}

func TestNutrientsAndPrices(t *testing.T) {
	own := &Own{
		Fruits:      map[string]OwnRow{"plum": {Values: map[string]float64{"sugar_pct": 12, priceColumn: 3.5}}},
		Ingredients: map[string]OwnRow{"butter": {Values: map[string]float64{priceColumn: 9}}},
	}
	for key, want := range map[string]float64{"plum": 3.5, "butter": 9} {
		if p, ok := own.Price(key); !ok || p != want {
			t.Errorf("%s costs %g, %v", key, p, ok)
		}
	}
	if _, ok := own.Price("wheat_flour"); ok {
		t.Error("flour has a price that nobody entered")
	}
	if _, ok := (*Own)(nil).Price("plum"); ok {
		t.Error("no kitchen, and a price")
	}
	n, ok := own.Nutrients("plum")
	if !ok || n.SugarG != 12 || n.FatG > 1 {
		t.Errorf("a plum has %+v", n)
	}
	n, ok = own.Nutrients("butter")
	if !ok || n.FatG < 80 || n.SaturatesG < 40 || n.SaturatesG > n.FatG {
		t.Errorf("butter has %+v", n)
	}
	if _, ok := own.Nutrients("moondust"); ok {
		t.Error("moondust has nutrients")
	}
	for key, kind := range map[string]Kind{"plum": OfFruit, "cornflour": OfThickener, "crumble_classic": OfTopping, "butter": OfIngredient} {
		column := map[Kind]string{OfFruit: "water_pct", OfThickener: "strength", OfTopping: "brown_rate", OfIngredient: "fat_pct"}[kind]
		if x, ok := TableFigure(kind, key, column); !ok || x <= 0 {
			t.Errorf("%s of %s is %g, %v", column, key, x, ok)
		}
		if _, ok := TableFigure(kind, "moondust", column); ok {
			t.Errorf("moondust has %s", column)
		}
	}
	if DensityOf("plum").CupGPerML == 0 || DensityOf("wheat_flour").CupGPerML == 0 ||
		DensityOf("moondust").CupGPerML != 0 {
		t.Error("densities")
	}
}
