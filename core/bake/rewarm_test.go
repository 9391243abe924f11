package bake_test

import (
	"testing"

	"mabbin/core/bake"
	"mabbin/core/dish"
)

// To freeze takes hours and longer the deeper the dish is, as every household freezer does; from there it takes longer
// to warm than from the fridge.
func TestFreezeAndRevive(t *testing.T) {
	last := 0.0
	for _, d := range []struct{ massG, length, depth, low, high float64 }{
		{120, 8, 4.5, 120, 420}, {900, 24, 5, 240, 720}, {1800, 24, 8, 300, 1200},
	} {
		r := bake.Request{
			Dish: dish.Dish{
				Shape:    dish.Rectangle,
				LengthCM: d.length,
				WidthCM:  d.length * 0.75,
				DepthCM:  d.depth,
				Material: "stoneware",
			},
			Filling: bake.Filling{MassG: d.massG},
			Topping: &bake.Topping{ThicknessMM: 12, DensityGPerML: 0.6, ConductivityWMK: 0.2, HeatJKgK: 2000, WaterPct: 12},
		}
		freeze, hard, err := bake.Freeze(r)
		if err != nil || !hard || freeze < d.low || freeze > d.high || freeze <= last {
			t.Errorf("%+v is frozen after %.0f min, %v, %v", d, freeze, hard, err)
		}
		last = freeze
		cold, _, _ := bake.Rewarm(r)
		frozen, hot, err := bake.Revive(r)
		t.Logf(
			"%g g: frozen after %.0f min; hot from the fridge after %.0f, from the freezer after %.0f",
			d.massG,
			freeze,
			cold,
			frozen,
		)
		if err != nil || !hot || frozen < 1.2*cold {
			t.Errorf("%+v: hot from the freezer after %.0f min, from the fridge after %.0f; %v", d, frozen, cold, err)
		}
	}
}

// A deep dish takes longer to warm through than a shallow one, and both longer than a ramekin; none is hot in minutes.
func TestRewarm(t *testing.T) {
	warm := func(massG, length, width, depth float64) float64 {
		r := bake.Request{
			Dish:    dish.Dish{Shape: dish.Rectangle, LengthCM: length, WidthCM: width, DepthCM: depth, Material: "stoneware"},
			Filling: bake.Filling{MassG: massG},
			Topping: &bake.Topping{ThicknessMM: 12, DensityGPerML: 0.6, ConductivityWMK: 0.2, HeatJKgK: 2000, WaterPct: 12},
		}
		minutes, ok, err := bake.Rewarm(r)
		if err != nil || !ok {
			t.Fatalf("%v %v", ok, err)
		}
		return minutes
	}
	ramekin, shallow, deep := warm(120, 8, 8, 4.5), warm(900, 24, 18, 5), warm(1800, 24, 18, 8)
	t.Logf("ramekin %.0f, shallow %.0f, deep %.0f min", ramekin, shallow, deep)
	if ramekin < 10 || ramekin >= shallow || shallow >= deep || deep > 200 {
		t.Errorf("ramekin %.0f, shallow %.0f, deep %.0f min", ramekin, shallow, deep)
	}
}
