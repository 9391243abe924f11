// Package sample makes up desserts for the sweeps of tests: what home and café bakers make, in their dishes and ovens.
package sample

import (
	"math/rand/v2"
	"sync"
	"testing"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/dish"
)

// Count is how many desserts the sweeps look at.
const Count = 300

// Dessert is a dessert that somebody may make, with its oven: the same for the same number.
func Dessert(n int) bake.DessertRequest {
	r := rand.New(rand.NewPCG(7, uint64(n)))
	pick := func(of ...string) string { return of[r.IntN(len(of))] }
	styles := []string{"crumble", "crisp", "cobbler", "pandowdy", "betty", "bar", "pie"}
	style := styles[n%len(styles)]
	fruits := []string{
		"apple_firm", "pear_firm", "plum", "damson", "apricot", "peach", "cherry_sour", "rhubarb",
		"gooseberry", "blackberry", "raspberry", "blueberry", "blackcurrant", "strawberry", "fig",
	}
	q := bake.DessertRequest{Request: balance.Request{Style: style, Dish: dishFor(r, style)}}
	b := &q.Request
	b.Fruits = []balance.FruitInput{{Key: pick(fruits...), Share: 1, Frozen: r.IntN(10) == 0}}
	if r.IntN(4) == 0 {
		if other := pick(fruits...); other != b.Fruits[0].Key {
			b.Fruits[0].Share = 0.5 + 0.1*float64(r.IntN(4))
			b.Fruits = append(b.Fruits, balance.FruitInput{Key: other, Share: 1 - b.Fruits[0].Share})
		}
	}
	tops := map[string][]string{
		"crumble": {"crumble_classic", "crumble_equal", "crumble_oat", "streusel_coarse"},
		"crisp":   {"crisp_oat_nut", "crumble_oat"}, "cobbler": {"biscuit_drop", "biscuit_rolled", "biscuit_crumbly"},
		"pandowdy": {"puff_squares", "pastry_lid"}, "betty": {"betty_bread", "betty_crumbs"}, "bar": {"bar_dough"},
		"pie": {"streusel_coarse", "crumble_classic", "pastry_lid"},
	}
	b.Topping.Key = pick(tops[style]...)
	switch style {
	case "pie":
		b.Base = &balance.BaseInput{Key: "shortcrust", ParBaked: r.IntN(2) == 0}
	case "bar":
		b.Base = &balance.BaseInput{Key: "bar_dough", ParBaked: r.IntN(2) == 0}
	}
	q.Setting.Heating = pick("conventional", "conventional", "fan")
	if r.IntN(6) == 0 {
		b.Precook = &balance.PrecookInput{Minutes: float64(3 + r.IntN(5)), Open: true}
	}
	return q
}

func dishFor(r *rand.Rand, style string) dish.Dish {
	material := []string{"enamel", "glass", "stoneware", "thin_metal", "cast_iron"}[r.IntN(5)]
	deep := 4.5 + 0.5*float64(r.IntN(5))
	switch {
	case style == "bar":
		return dish.Dish{Shape: dish.Rectangle, LengthCM: 33, WidthCM: 23, DepthCM: 5, Material: "thin_metal"}
	case style == "pie":
		return dish.Dish{
			Shape: dish.Round, LengthCM: 20 + 2*float64(r.IntN(4)), DepthCM: 3.5 + 0.5*float64(r.IntN(3)),
			Material: []string{"thin_metal", "dark_metal", "glass"}[r.IntN(3)],
		}
	case style != "pandowdy" && style != "betty" && r.IntN(5) == 0:
		return dish.Dish{Shape: dish.Round, LengthCM: 9, DepthCM: 5, Material: "porcelain"}
	}
	switch r.IntN(3) {
	case 0:
		return dish.Dish{Shape: dish.Rectangle, LengthCM: 30, WidthCM: 20, DepthCM: deep, Material: material}
	case 1:
		return dish.Dish{Shape: dish.Square, LengthCM: 20 + 2*float64(r.IntN(4)), DepthCM: deep, Material: material}
	}
	return dish.Dish{Shape: dish.Oval, LengthCM: 32, WidthCM: 22, DepthCM: deep, Material: material}
}

// Kind is what a generated dessert is counted with.
func Kind(q bake.DessertRequest) string {
	if q.Request.Dish.Material == "porcelain" {
		return "ramekin"
	}
	return q.Request.Style
}

// Each calls look for each of the generated desserts, side by side.
func Each(t *testing.T, look func(n int, q bake.DessertRequest, a *bake.DessertAnswer)) {
	t.Helper()
	var wait sync.WaitGroup
	next := make(chan int)
	for range 4 {
		wait.Go(func() {
			for n := range next {
				q := Dessert(n)
				a, err := bake.Dessert(t.Context(), q)
				if err != nil {
					t.Errorf("dessert %d: %v", n, err)
					continue
				}
				look(n, q, a)
			}
		})
	}
	for n := range Count {
		next <- n
	}
	close(next)
	wait.Wait()
}
