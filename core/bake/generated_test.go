package bake

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"sync"
	"testing"

	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/larder"
)

// generatedCount is how many desserts the sweeps look at.
const generatedCount = 300

// generated is a dessert that somebody may make, with its oven: the same for the same number.
func generated(n int) DessertRequest {
	r := rand.New(rand.NewPCG(7, uint64(n)))
	pick := func(of ...string) string { return of[r.IntN(len(of))] }
	styles := []string{"crumble", "crisp", "cobbler", "pandowdy", "betty", "bar", "pie"}
	style := styles[n%len(styles)]
	fruits := []string{
		"apple_firm", "apple_cooking", "pear_firm", "plum", "damson", "apricot", "peach", "cherry_sour", "rhubarb",
		"gooseberry", "blackberry", "raspberry", "blueberry", "blackcurrant", "strawberry", "fig",
	}
	fruits = slices.DeleteFunc(fruits, func(key string) bool { _, ok := larder.Fruits.Get(key); return !ok })
	q := DessertRequest{Request: balance.Request{Style: style, Dish: generatedDish(r, style)}}
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

func generatedDish(r *rand.Rand, style string) dish.Dish {
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

// kindOf is what a generated dessert is counted with.
func kindOf(q DessertRequest) string {
	if q.Request.Dish.Material == "porcelain" {
		return "ramekin"
	}
	return q.Request.Style
}

// everyGenerated calls look for each of the generated desserts, side by side.
func everyGenerated(t *testing.T, look func(n int, q DessertRequest, a *DessertAnswer)) {
	t.Helper()
	var wait sync.WaitGroup
	next := make(chan int)
	for range 4 {
		wait.Go(func() {
			for n := range next {
				q := generated(n)
				a, err := Dessert(t.Context(), q)
				if err != nil {
					t.Errorf("dessert %d: %v", n, err)
					continue
				}
				look(n, q, a)
			}
		})
	}
	for n := range generatedCount {
		next <- n
	}
	close(next)
	wait.Wait()
}

// A plan that is right keeps a margin: a minute less, or an oven a little cooler, and it is right still.
func TestAPlanHasAMargin(t *testing.T) {
	if testing.Short() {
		t.Skip("a sweep of hundreds of plans: it runs without the race detector")
	}
	var lock sync.Mutex
	var right, nearly, wrong, minuteLess, threeWrong, threeCooler, fiveWrong int
	whys, minutes := map[string]int{}, map[string][]float64{}
	everyGenerated(t, func(n int, q DessertRequest, a *DessertAnswer) {
		level := func(less, coolerC float64) Level {
			again := q
			again.Setting.OvenOffsetC -= coolerC
			again.Setting.Stages = slices.Clone(a.Plan.Stages)
			again.Setting.Stages[len(again.Setting.Stages)-1].Minutes -= less
			b, err := Dessert(t.Context(), again)
			if err != nil {
				t.Errorf("dessert %d: %v", n, err)
				return Wrong
			}
			return b.Verdict.Level
		}
		var levels [4]Level
		if a.Verdict.Right {
			levels = [4]Level{level(1, 0), level(3, 0), level(0, 3), level(0, 5)}
		}
		lock.Lock()
		defer lock.Unlock()
		kind := kindOf(q)
		minutes[kind] = append(minutes[kind], a.Plan.Minutes)
		if !a.Verdict.Right {
			if a.Verdict.Nearly {
				nearly++
			} else {
				wrong++
			}
			whys[kind+": "+a.Verdict.Summary.String()]++
			return
		}
		right++
		e, b := a.Plan.Answer.End, a.Borders()
		if a.Bake.Topping != nil && (e.Colour < b.Top[0] || e.Colour > b.Top[2]) ||
			a.Bake.Base != nil && (e.Base < b.Base[0] || e.Base > b.Base[2]) ||
			e.FruitMinutes > 1.5*b.Fruit[2] || e.SteamedOffG > 0.15*a.Bake.Filling.MassG {
			t.Errorf("dessert %d is called right: colour %.2f, base %.2f, fruit %.0f min", n, e.Colour, e.Base, e.FruitMinutes)
		}
		count := func(n *int, so bool) {
			if so {
				*n++
			}
		}
		count(&minuteLess, levels[0] == Right)
		count(&threeWrong, levels[1] == Wrong)
		count(&threeCooler, levels[2] == Right)
		count(&fiveWrong, levels[3] == Wrong)
	})
	share := func(n int) float64 { return 100 * float64(n) / float64(max(1, right)) }
	t.Logf(
		"right %d, nearly %d, wrong %d; right still a minute less %.0f %%, 3 K cooler %.0f %%; wrong three minutes less %.0f %%, 5 K cooler %d",
		right,
		nearly,
		wrong,
		share(minuteLess),
		share(threeCooler),
		share(threeWrong),
		fiveWrong,
	)
	for kind, all := range minutes {
		slices.Sort(all)
		t.Logf("%-9s %3d plans, %.0f to %.0f min, middle %.0f", kind, len(all), all[0], all[len(all)-1], all[len(all)/2])
	}
	for _, why := range slices.Sorted(func(yield func(string) bool) {
		for k, n := range whys {
			if !yield(fmt.Sprintf("%3d %s", n, k)) {
				return
			}
		}
	}) {
		t.Log(strings.TrimSpace(why))
	}
	if share(minuteLess) < 90 || share(threeCooler) < 90 || share(threeWrong) > 5 || fiveWrong > 0 {
		t.Error("plans that are right have no margin")
	}
}
