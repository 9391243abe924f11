package compare

import (
	"slices"
	"strings"
	"testing"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/outcome"
)

func side(t *testing.T, change func(*balance.Request)) Side {
	t.Helper()
	r := balance.Request{
		Dish: dish.Dish{
			Shape:    dish.Rectangle,
			LengthCM: 24,
			WidthCM:  18,
			DepthCM:  5,
			Material: "stoneware",
		},
		Style:   "crumble",
		Fruits:  []balance.FruitInput{{Key: "gooseberry", Share: 1}},
		Topping: balance.ToppingInput{Key: "crumble_classic"},
	}
	change(&r)
	a, err := balance.Solve(r)
	if err != nil {
		t.Fatal(err)
	}
	return Side{Request: r, Answer: a}
}

func TestDifferencesAreListed(t *testing.T) {
	a := side(t, func(*balance.Request) {})
	b := side(t, func(r *balance.Request) {
		r.Thickener = &balance.ThickenerInput{Key: "arrowroot"}
		r.Sweetness = "sweet"
		r.Extras = []balance.Quantity{{Key: "crystallised_ginger", G: 20}}
	})
	c, minutes, no := 190.0, 52.0, false
	a.Oven, a.OvenC, a.Minutes = "Old range", &c, &minutes
	b.Stages = []bake.Stage{
		{Minutes: 30, OvenC: 200, Heating: "fan", Cover: "foil"},
		{Minutes: 20, OvenC: 210, PushUnder: true},
	}
	a.Words, b.Words.Juice = bake.Words{Juice: "saucy", BoiledOver: &no}, "spoonable"
	before, after := 2000.0, 1950.0
	b.Details = outcome.Details{BeforeG: &before, AfterG: &after}
	b.Happened = &outcome.ActualBake{Minutes: 54, PlannedMin: 50}
	by := map[string]Row{}
	order := []string{}
	rows := Of(a, b)
	for _, r := range rows {
		if r.A.IsZero() && r.B.IsZero() || r.Same != r.A.Equal(r.B) {
			t.Errorf("%+v", r)
		}
		by[r.Part.String()+"/"+r.Name.String()] = r
		if n := len(order); n == 0 || order[n-1] != r.Part.String() {
			order = append(order, r.Part.String())
		}
	}
	for _, p := range order {
		seen := 0
		for _, q := range order {
			if p == q {
				seen++
			}
		}
		if seen > 1 {
			t.Errorf("%q stands in two places: %q", p, order)
		}
	}
	for key, want := range map[string][2]string{
		"Dish/style":                     {"crumble", "crumble"},
		"Fruit bowl/Crystallised ginger": {"", "20 g"},
		"Bake/oven":                      {"Old range", ""},
		"Bake/heat":                      {"190 C", ""},
		"Bake/stages":                    {"", "30 min at 200 C, fan, foil; 20 min at 210 C, crust pushed under"},
		"Bake/early or late":             {"", "4 min longer than planned"},
		"Result/juice, cold":             {"saucy", "spoonable"},
		"Result/boiled over":             {"no", ""},
		"Result/weight lost":             {"", "50 g"},
		"Planned result/set":             {"spoonable", "spoonable"},
	} {
		if r := by[key]; [2]string{r.A.String(), r.B.String()} != want {
			t.Errorf("%s: %q and %q", key, r.A, r.B)
		}
	}
	for what, in := range map[string][2]bool{"Cornflour": {true, false}, "Arrowroot": {false, true}} {
		i := slices.IndexFunc(rows, func(r Row) bool { return strings.HasPrefix(r.Name.String(), what) })
		if i < 0 || (!rows[i].A.IsZero()) != in[0] || (!rows[i].B.IsZero()) != in[1] {
			t.Errorf("%s: row %d of %+v", what, i, rows)
		}
	}
	if r := by["Planned result/sweetness of the filling"]; r.Same {
		t.Errorf("sweeter, and the same: %+v", r)
	}
	for _, r := range Of(a, a) {
		if !r.Same {
			t.Errorf("itself, and other: %+v", r)
		}
	}
}
