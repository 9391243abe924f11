package sell_test

import (
	"math"
	"strings"
	"testing"

	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/sell"
)

// A crate of windfalls goes into the dishes that use up the most of it; what is there of each is not exceeded, and
// half an egg finds a dish that takes no more.
func TestUseUp(t *testing.T) {
	crumble := balance.Request{
		Dish:  dish.Dish{Shape: dish.Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5, Material: "stoneware"},
		Style: "crumble", Fruits: []balance.FruitInput{{Key: "apple_soft", Share: 1}},
		Topping: balance.ToppingInput{Key: "crumble_classic"},
	}
	ramekin := dish.Dish{Shape: dish.Round, LengthCM: 9, DepthCM: 4.5, Material: "stoneware"}
	dishes := []balance.StartDish{
		{ID: "a", Name: "Small stoneware", Count: 3, Dish: crumble.Dish},
		{ID: "b", Name: "Ramekin", Count: 6, Dish: ramekin},
	}
	for g, most := range map[float64]float64{3000: 0.06, 1500: 0.12, 400: 0.3, 60000: 1} {
		got, err := sell.UseUpWith(sell.UseUpRequest{Request: crumble, Dishes: dishes, Key: "apple_soft", G: g})
		if err != nil || got == nil {
			t.Fatalf("%g g: %+v, %v", g, got, err)
		}
		if math.Abs(got.UsesG+got.LeftG-g) > 0.01 || got.LeftG > most*g || got.Text.IsZero() {
			t.Errorf("of %g g it uses %g, %g left over: %s", g, got.UsesG, got.LeftG, got.Text)
		}
		for _, d := range got.Dishes {
			if d.ID == "a" && d.Count > 3 || d.ID == "b" && d.Count > 6 || d.Portions < 1 {
				t.Errorf("%g g: %+v", g, d)
			}
		}
	}
	if got, err := sell.UseUpWith(
		sell.UseUpRequest{Request: crumble, Dishes: dishes, Key: "cream_double", G: 300},
	); got != nil ||
		err != nil {
		t.Errorf("there is no cream in it: %+v, %v", got, err)
	}
	if got, err := sell.UseUpWith(
		sell.UseUpRequest{Request: crumble, Dishes: dishes, Key: "apple_soft", G: 20},
	); got != nil ||
		err != nil {
		t.Errorf("no dish is that small: %+v, %v", got, err)
	}
	if _, err := sell.UseUpWith(
		sell.UseUpRequest{Request: crumble, Dishes: dishes, Key: "apple_soft", G: -3},
	); err == nil ||
		!strings.Contains(err.Error(), "/g") {
		t.Errorf("less than nothing: %v", err)
	}
	custard := crumble
	custard.Style, custard.Custard = "bar", &balance.CustardInput{}
	got, err := sell.UseUpWith(sell.UseUpRequest{Request: custard, Dishes: dishes, Key: "egg", G: 26})
	if err != nil || got == nil || got.UsesG > 26 || got.Dishes[0].ID != "b" {
		t.Errorf("half an egg: %+v, %v", got, err)
	}
}
