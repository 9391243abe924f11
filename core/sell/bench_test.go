package sell

import (
	"testing"

	"mabbin/core/balance"
	"mabbin/core/dish"
)

// What to buy for two hundred cards: 50 ms are promised.
func BenchmarkListOf200Cards(b *testing.B) {
	r := balance.Request{
		Dish:    dish.Dish{Shape: dish.Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5, Material: "stoneware"},
		Style:   "crumble",
		Fruits:  []balance.FruitInput{{Key: "apple_firm", Share: 0.7}, {Key: "damson", Share: 0.3}},
		Topping: balance.ToppingInput{Key: "crumble_oat"},
	}
	a, err := balance.Solve(r)
	if err != nil {
		b.Fatal(err)
	}
	all := make([]Baked, 200)
	for i := range all {
		all[i] = Baked{r, a, 1 + i%3}
	}
	s := Stock{Items: []StockItem{{Key: "butter", G: 750}, {Key: "wheat_flour", G: 2600}}}
	b.ReportAllocs()
	for b.Loop() {
		if _, err := ListFor(all, s, nil); err != nil {
			b.Fatal(err)
		}
	}
}
