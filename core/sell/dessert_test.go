package sell

import (
	"slices"
	"testing"

	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/larder"
)

// A dessert is priced by what is on its ticket, fruit as bought; what has no price is named, and there is no total.
func TestADessertHasItsCost(t *testing.T) {
	price := func(p float64) larder.OwnRow { return larder.OwnRow{Values: map[string]float64{"price_per_kg": p}} }
	r := balance.Request{
		Dish:    dish.Dish{Shape: dish.Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5, Material: "stoneware"},
		Style:   "crumble",
		Fruits:  []balance.FruitAsked{{Key: "apple_firm", Share: 1}},
		Topping: balance.ToppingAsked{Key: "crumble_classic"},
		Own: &larder.Own{
			Fruits: map[string]larder.OwnRow{"apple_firm": price(3)},
			Ingredients: map[string]larder.OwnRow{
				"butter": price(9), "wheat_flour": price(1), "caster_sugar": price(1.5), "cornflour": price(4),
			},
		},
	}
	a, err := balance.Solve(r)
	if err != nil {
		t.Fatal(err)
	}
	c, err := OfDessert(r, a)
	if err != nil || c.Total != nil || !slices.Equal(c.Unpriced, []string{"salt"}) {
		t.Fatalf("%+v, %v", c, err)
	}
	r.Own.Ingredients["salt"] = price(0.5)
	c, err = OfDessert(r, a)
	if err != nil || c.Total == nil || c.Dearest[0] != "apple_firm" {
		t.Fatalf("%+v, %v", c, err)
	}
	apples := a.FruitBoughtG * 1.02 * 0.3
	for _, l := range c.Lines {
		if l.Key == "apple_firm" && (float64(*l.Minor) < apples-1 || float64(*l.Minor) > apples+1) {
			t.Errorf("apples cost %d, by hand %.1f", *l.Minor, apples)
		}
	}
}
