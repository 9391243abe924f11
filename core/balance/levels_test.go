package balance

import (
	"math"
	"testing"

	"mabbin/core/dish"
)

// What the levels say is what a dessert comes to that is weighed so.
func TestFruitOfALevelStandsAtIt(t *testing.T) {
	crumble := Request{
		Dish: dish.Dish{
			Shape:      dish.Oval,
			LengthCM:   30,
			WidthCM:    21,
			DepthCM:    5.5,
			MeasuredML: 2180,
			Material:   "glass",
		},
		Style:   "crumble",
		Fruits:  []FruitInput{{Key: "damson", Share: 1}},
		Topping: ToppingInput{Key: "crumble_oat"},
	}
	pie := Request{
		Dish: dish.Dish{
			Shape:         dish.Round,
			LengthCM:      24,
			DepthCM:       4.5,
			FloorLengthCM: 19,
			Material:      "enamel",
		},
		Style:       "pie",
		CrumbLayerG: 20,
		Fruits: []FruitInput{
			{Key: "apple_sharp", Share: 1},
		},
		Topping: ToppingInput{Key: "streusel_coarse"},
		Base:    &BaseInput{Key: "shortcrust"},
	}
	for name, r := range map[string]Request{"crumble": crumble, "pie": pie} {
		a, err := Solve(r)
		if err != nil {
			t.Fatal(err)
		}
		l := a.Fit.Levels
		if len(l.G) < 40 {
			t.Fatalf("%s: only %d levels from %d mm", name, len(l.G), l.FromMM)
		}
		for i, g := range l.G {
			if i > 0 && g <= l.G[i-1] {
				t.Errorf("%s: %g g at %d mm, and %g g a millimetre below", name, g, l.FromMM+i, l.G[i-1])
			}
			if i%9 != 0 {
				continue
			}
			r.WeighedFruitG = &g
			b, err := Solve(r)
			if err != nil {
				t.Fatalf("%s, %g g: %v", name, g, err)
			}
			if off := b.Cutaway.FruitRawMM - float64(l.FromMM+i); math.Abs(off) > 0.1 {
				t.Errorf("%s: %g g stand %.2f mm off the level of %d", name, g, off, l.FromMM+i)
			}
		}
	}
}
