package bake_test

import (
	"strings"
	"testing"

	"mabbin/core/bake"
	"mabbin/core/dish"
)

// An oven that gives more heat brings each clock forward and steams more off; what is out of it cools as ever.
func TestHeatFactor(t *testing.T) {
	run := func(factor float64) *bake.Answer {
		a, err := bake.Run(bake.Request{
			Dish:       dish.Dish{Shape: dish.Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5, Material: "stoneware"},
			Filling:    bake.Filling{MassG: 1000},
			Topping:    &bake.Topping{ThicknessMM: 12, DensityGPerML: 0.6, ConductivityWMK: 0.2, HeatJKgK: 2000, WaterPct: 12},
			HeatFactor: factor,
			Stages:     []bake.Stage{{Minutes: 60, OvenC: 190}, {Minutes: 40, OvenC: 21, Heating: "rack"}},
		})
		if err != nil {
			t.Fatal(err)
		}
		return a
	}
	plain, one, more, less := run(0), run(1), run(1.4), run(0.8)
	if *plain.Events.MiddleBubbles != *one.Events.MiddleBubbles || plain.End != one.End {
		t.Errorf("left out it is one: %v, %v", plain.Events, one.Events)
	}
	for name, pair := range map[string][3]*float64{
		"rim":    {more.Events.RimBubbles, one.Events.RimBubbles, less.Events.RimBubbles},
		"middle": {more.Events.MiddleBubbles, one.Events.MiddleBubbles, less.Events.MiddleBubbles},
		"golden": {more.Events.Golden, one.Events.Golden, less.Events.Golden},
	} {
		if pair[0] == nil || pair[1] == nil || *pair[0] >= *pair[1] || pair[2] != nil && *pair[1] >= *pair[2] {
			t.Errorf("%s: with more heat, as it is, with less: %v", name, pair)
		}
	}
	if more.End.SteamedOffG <= one.End.SteamedOffG {
		t.Errorf("steam %v and %v g", more.End.SteamedOffG, one.End.SteamedOffG)
	}
	if _, err := bake.Run(bake.Request{HeatFactor: 9}); err == nil || !strings.Contains(err.Error(), "heat") {
		t.Errorf("nine times the heat: %v", err)
	}
}
