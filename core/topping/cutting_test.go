package topping

import (
	"math"
	"strings"
	"testing"

	"mabbin/core/dish"
	"mabbin/core/larder"
	"mabbin/core/message"
)

var (
	skillet = dish.Dish{Shape: dish.Round, LengthCM: 26, DepthCM: 5}
	tray    = dish.Dish{Shape: dish.Rectangle, LengthCM: 32, WidthCM: 22, DepthCM: 6}
	ramekin = dish.Dish{Shape: dish.Round, LengthCM: 9, DepthCM: 4.5}
)

func plan(t *testing.T, key string, d dish.Dish, c Cuts) Plan {
	t.Helper()
	g := d.Measure()
	w := Spec{Topping: row(t, key)}
	p, ok := c.Cut(w, Size(w, g.RimAreaCM2), d, g)
	if !ok {
		t.Fatalf("%s is not cut", key)
	}
	m := rimOf(d)
	for _, s := range p.Shapes {
		if p.Code != "shell" && (math.Abs(s.X)+s.W/2 > m.l/2+0.51*s.W || math.Abs(s.Y)+s.H/2 > m.w/2+0.51*s.H) {
			t.Errorf("%s: %+v lies outside of %+v", key, s, m)
		}
	}
	for _, x := range []float64{p.EachG, p.DoughG} {
		if !(x > 0) || math.IsInf(x, 0) {
			t.Errorf("%s: %g g", key, x)
		}
	}
	if len(p.Lines) == 0 {
		t.Errorf("%s says nothing", key)
	}
	return p
}

func TestCutBiscuitsFitTheDish(t *testing.T) {
	small, large := plan(
		t,
		"biscuit_rolled",
		skillet,
		Cuts{CutterCM: 5},
	), plan(
		t,
		"biscuit_rolled",
		skillet,
		Cuts{CutterCM: 8},
	)
	if small.Count <= large.Count || large.Count < 5 || small.EachG >= large.EachG {
		t.Errorf("5 cm: %d of %g g; 8 cm: %d of %g g", small.Count, small.EachG, large.Count, large.EachG)
	}
	for i, a := range small.Shapes {
		for _, b := range small.Shapes[i+1:] {
			if math.Hypot(a.X-b.X, a.Y-b.Y) < 4.999 {
				t.Fatalf("two biscuits lie on each other: %+v, %+v", a, b)
			}
		}
	}
	if wide := plan(
		t,
		"biscuit_rolled",
		ramekin,
		Cuts{CutterCM: 12},
	); wide.Count != 1 ||
		!strings.Contains(wide.Lines[0].String(), "wider than the dish") {
		t.Errorf("a cutter wider than the dish: %+v", wide)
	}
	if small.DoughG < float64(small.Count)*small.EachG {
		t.Error("the scraps cost nothing")
	}
}

func TestDropsSquaresStripsAndLids(t *testing.T) {
	drops := plan(t, "biscuit_drop", skillet, Cuts{})
	if drops.Count != len(drops.Shapes) || math.Abs(drops.EachG-usualSpoonG) > 4 {
		t.Errorf("drops: %d of %g g, %d drawn", drops.Count, drops.EachG, len(drops.Shapes))
	}
	squares := plan(t, "puff_squares", tray, Cuts{SquareCM: 6})
	if !strings.Contains(message.Sentences(squares.Lines...).String(), "sheet") || squares.Count < 10 {
		t.Errorf("squares: %+v", squares.Lines)
	}
	lattice := plan(t, "pastry_lid", tray, Cuts{Lattice: true})
	if lattice.Count < 12 {
		t.Errorf("lattice: %d strips", lattice.Count)
	}
	if tiny := plan(
		t,
		"pastry_lid",
		ramekin,
		Cuts{Lattice: true, StripCM: 2, GapCM: 2},
	); !strings.Contains(
		tiny.Lines[0].String(),
		"lid with vents",
	) {
		t.Errorf("a lattice on a ramekin: %v", tiny.Lines)
	}
	if lid := plan(t, "pastry_lid", skillet, Cuts{}); lid.DoughG <= lid.EachG || len(lid.Shapes) != 6 {
		t.Errorf("lid: %+v", lid)
	}
	if _, ok := (Cuts{}).Cut(Spec{Topping: row(t, "crumble_classic")}, Sized{}, tray, tray.Measure()); ok {
		t.Error("a crumble is cut")
	}
}

func TestShellsAndBars(t *testing.T) {
	base, _ := larder.Bases.Get("shortcrust")
	pie := dish.Dish{Shape: dish.Round, LengthCM: 24, DepthCM: 4.5, FloorLengthCM: 19}
	s := SizeBase(base, nil, pie.Measure(), nil)
	p := Cuts{}.Shell(s, base.DensityGPerML, pie, pie.Measure())
	if p.DoughG <= s.G || !strings.Contains(p.Lines[0].String(), "a disc of 31 cm") ||
		!strings.Contains(p.Lines[1].String(), "beans") {
		t.Errorf("%+v", p)
	}
	bars := Cuts{}.Bars(1500, 75, tray)
	if bars.Count < 18 || bars.Count > 22 || len(bars.Shapes) != bars.Count ||
		math.Abs(bars.EachG*float64(bars.Count)-1500) > 0.01 {
		t.Errorf("%+v", bars)
	}
	if own := (Cuts{Long: 6, Wide: 3, TrimCM: 1}).Bars(
		1500,
		75,
		tray,
	); own.Count != 18 || own.EachG*18 >= 1500 ||
		len(own.Lines) != 2 {
		t.Errorf("%+v", own)
	}
}

func TestAnotherFatKeepsThePureFat(t *testing.T) {
	fat := func(topping, key string) (g, water float64) {
		i, _ := larder.Ingredients.Get(key)
		for _, p := range Size(Spec{Topping: row(t, topping), Fat: i}, 500).Parts {
			if p.Ingredient.Role == "fat" {
				g += p.BakersPct * p.Ingredient.FatPct / 100
			}
			if p.Ingredient.Key == "water" {
				water += p.BakersPct
			}
		}
		return g, water
	}
	for _, topping := range []string{"crumble_classic", "pastry_lid"} {
		want, wet := fat(topping, "butter")
		for _, key := range []string{"vegan_block", "sunflower_oil", "shortening"} {
			got, water := fat(topping, key)
			if math.Abs(got-want) > 1e-9 {
				t.Errorf("%s with %s: %g %% pure fat, want %g", topping, key, got, want)
			}
			if topping == "pastry_lid" && key != "vegan_block" && water <= wet {
				t.Errorf("%s with %s: %g %% water, butter's was %g", topping, key, water, wet)
			}
		}
	}
}

func TestEveryLiquidCountsByItsWaterAndFat(t *testing.T) {
	grams := func(liquids ...string) map[string]float64 {
		w := Spec{Topping: row(t, "biscuit_drop")}
		for _, key := range liquids {
			i, _ := larder.Ingredients.Get(key)
			w.Liquids = append(w.Liquids, Liquid{i, 1 / float64(len(liquids))})
		}
		s := Size(w, 600)
		if h := s.Read().HydrationPct; math.Abs(h-90) > 0.01 {
			t.Errorf("%v: %g %% water, want 90", liquids, h)
		}
		out := map[string]float64{}
		sum := 0.0
		for _, p := range s.Parts {
			out[p.Ingredient.Key] = p.BakersPct
			sum += p.G
		}
		if math.Abs(sum-s.G) > 1e-6 {
			t.Errorf("%v: the parts weigh %g of %g", liquids, sum, s.G)
		}
		return out
	}
	milk, cream, butter := grams(), grams("heavy_cream"), grams("buttermilk")
	if math.Abs(milk["butter"]-40) > 1e-9 || cream["butter"] >= 1 || cream["heavy_cream"] <= milk["whole_milk"] {
		t.Errorf("milk %v, cream %v", milk, cream)
	}
	if butter["bicarbonate"] < 0.9 || butter["baking_powder"] >= 5 || milk["bicarbonate"] != 0 {
		t.Errorf("buttermilk %v", butter)
	}
	grams("natural_yogurt", "whole_milk")
	for hydration, want := range map[float64]Stiffness{40: Crumbles, 60: Rolls, 90: Drops, 140: Batter} {
		w := Spec{Topping: row(t, "biscuit_drop"), HydrationPct: hydration}
		if got := Size(w, 600).Read().Dough; got != want {
			t.Errorf("%g %%: %s, want %s", hydration, got, want)
		}
	}
}
