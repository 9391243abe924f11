package sell_test

import (
	"testing"

	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/larder"
	"mabbin/core/sell"
)

// Other dishes and swaps are priced by themselves: the difference is that of the two portions, and what has no price is
// named and comes last.
func TestOtherCosts(t *testing.T) {
	price := func(x float64) larder.OwnRow { return larder.OwnRow{Values: map[string]float64{"price_per_kg": x}} }
	r := balance.Request{
		Dish:  dish.Dish{Shape: dish.Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5, Material: "stoneware"},
		Style: "crumble", Fruits: []balance.FruitInput{{Key: "plum", Share: 1}},
		Topping: balance.ToppingInput{Key: "crumble_classic"},
		Own: &larder.Own{
			Fruits: map[string]larder.OwnRow{"plum": price(3)},
			Ingredients: map[string]larder.OwnRow{
				"butter": price(8), "wheat_flour": price(1), "caster_sugar": price(1.5), "salt": price(1), "cornflour": price(4),
			},
		},
	}
	a, err := balance.Solve(r)
	if err != nil {
		t.Fatal(err)
	}
	now, err := sell.OfDessert(r, a, sell.Rates{}, sell.Work{})
	if err != nil || now.Portion == nil {
		t.Fatalf("without a price: %v, %v", now.Unpriced, err)
	}
	deep := r.Dish
	deep.DepthCM = 7
	got, err := sell.OtherCosts(t.Context(), r, a, []balance.StartDish{{ID: "deep", Name: "Deep pan", Dish: deep}},
		sell.Rates{}, sell.Work{})
	if err != nil || len(got) < 2 {
		t.Fatalf("%+v, %v", got, err)
	}
	dishes, swaps, unpriced := 0, 0, false
	last := int64(0)
	for _, x := range got {
		if x.Portion == nil {
			unpriced = true
			if len(x.Unpriced) == 0 || x.More != nil {
				t.Errorf("%s: no price, and nothing is named: %+v", x.Text, x)
			}
			continue
		}
		if unpriced || *x.Portion < last || *x.More != *x.Portion-*now.Portion {
			t.Errorf("%s: %d, %d more, after %d", x.Text, *x.Portion, *x.More, last)
		}
		last = *x.Portion
		if x.Kind == sell.InDish {
			dishes++
		}
	}
	for _, x := range got {
		if x.Kind == sell.WithSwap {
			swaps++
			if x.Texture.IsZero() {
				t.Errorf("%s costs nothing in texture", x.Text)
			}
		}
		t.Logf("%s %v %v", x.Text, x.More, x.Unpriced)
	}
	if dishes != 1 || swaps == 0 {
		t.Errorf("%d dishes, %d swaps", dishes, swaps)
	}
}
