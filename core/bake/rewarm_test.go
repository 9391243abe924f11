package bake_test

import (
	"testing"

	"mabbin/core/bake"
	"mabbin/core/dish"
)

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
