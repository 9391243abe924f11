package bake

import (
	"fmt"
	"math"
	"testing"

	"mabbin/core/balance"
	"mabbin/core/dish"
)

// desserts are one of each style, as they are usually made.
func desserts() map[string]balance.Request {
	tin := dish.Dish{Shape: dish.Rectangle, LengthCM: 30, WidthCM: 20, DepthCM: 5, Material: "enamel"}
	plate := dish.Dish{Shape: dish.Round, LengthCM: 23, DepthCM: 4, Material: "thin_metal"}
	of := func(d dish.Dish, style, fruit, top string) balance.Request {
		return balance.Request{
			Dish: d, Style: style, Fruits: []balance.FruitInput{{Key: fruit, Share: 1}}, Topping: balance.ToppingInput{Key: top},
		}
	}
	based := func(r balance.Request, key string) balance.Request {
		r.Base = &balance.BaseInput{Key: key}
		return r
	}
	return map[string]balance.Request{
		"crumble":  of(tin, "crumble", "plum", "crumble_classic"),
		"crisp":    of(tin, "crisp", "apple_firm", "crisp_oat_nut"),
		"cobbler":  of(tin, "cobbler", "apricot", "biscuit_drop"),
		"pandowdy": of(tin, "pandowdy", "pear_firm", "pastry_lid"),
		"pie":      based(of(plate, "pie", "apple_firm", "crumble_classic"), "shortcrust"),
		"bar":      based(of(tin, "bar", "plum", "bar_dough"), "bar_dough"),
	}
}

func planOf(t *testing.T, r balance.Request, s Setting) *DessertAnswer {
	t.Helper()
	a, err := Dessert(t.Context(), DessertRequest{Request: r, Setting: s})
	if err != nil {
		t.Fatal(err)
	}
	return a
}

// changesIn is how often the cover or the topping changes on the way.
func changesIn(stages []Stage) int { return len(stages) - 1 }

// A millimetre, a percent or a kelvin never flips a plan: no jump over four minutes or ten kelvins, and a plan with a
// change by one step of that change more.
func TestAPlanIsContinuous(t *testing.T) {
	if testing.Short() {
		t.Skip("a sweep of hundreds of plans: it runs without the race detector")
	}
	const mostMin, mostK = 4.0, 10.0
	sweeps := map[string]struct {
		n      int
		change func(i int, q *DessertRequest)
	}{
		"a millimetre deeper": {12, func(i int, q *DessertRequest) { q.Request.Dish.DepthCM += 0.1 * float64(i-6) }},
		"a percent frozen": {9, func(i int, q *DessertRequest) {
			f := q.Request.Fruits[0]
			f.Frozen, f.Share = true, 0.50+0.01*float64(i)
			q.Request.Fruits[0].Share = 1 - f.Share
			q.Request.Fruits = append(q.Request.Fruits[:1:1], f)
		}},
		"a kelvin warmer": {9, func(i int, q *DessertRequest) {
			c := 14 + float64(i)
			q.Setting.FillingC = &c
		}},
		"an oven a kelvin off": {9, func(i int, q *DessertRequest) { q.Setting.OvenOffsetC = float64(i - 4) }},
	}
	for style, r := range desserts() {
		for name, s := range sweeps {
			t.Run(style+", "+name, func(t *testing.T) {
				t.Parallel()
				var last *DessertAnswer
				for i := range s.n {
					q := DessertRequest{Request: r}
					q.Request.Fruits = append([]balance.FruitInput{}, r.Fruits...)
					s.change(i, &q)
					now := planOf(t, q.Request, q.Setting)
					if last != nil {
						may := mostMin + coverEvery*float64(max(changesIn(now.Plan.Stages), changesIn(last.Plan.Stages)))
						if math.Abs(now.Plan.Minutes-last.Plan.Minutes) > may || math.Abs(now.Plan.OvenC-last.Plan.OvenC) > mostK {
							t.Errorf("%s becomes %s at step %d", last.Plan.Words(), now.Plan.Words(), i)
						}
					}
					last = now
				}
			})
		}
	}
}

// What bakers do: no plan is covered for over half of its time, none is hotter than the style's oven and a little.
func TestAPlanIsOneThatABakerWouldFollow(t *testing.T) {
	if testing.Short() {
		t.Skip("a sweep of hundreds of plans: it runs without the race detector")
	}
	for style, r := range desserts() {
		for _, heating := range []string{"conventional", "fan"} {
			for _, material := range []string{"thin_metal", "glass", "stoneware", "cast_iron"} {
				t.Run(fmt.Sprintf("%s, %s, %s", style, heating, material), func(t *testing.T) {
					t.Parallel()
					r := r
					r.Dish.Material = material
					a := planOf(t, r, Setting{Heating: heating})
					covered := 0.0
					for _, s := range a.Plan.Stages {
						if bareCover(s.Cover) != "" {
							covered += s.Minutes
						}
					}
					hottest := 200.0
					if style == "cobbler" {
						hottest += reachC
					}
					if len(a.Plan.Unmet) > 0 || covered > a.Plan.Minutes/2 || a.Plan.OvenC > hottest {
						t.Errorf("%s leaves %v", a.Plan.Words(), a.Plan.Unmet)
					}
					t.Log(a.Plan.Words(), a.Plan.TopWord(a.Plan.Early.Colour), a.Plan.TopWord(a.Plan.Late.Colour))
				})
			}
		}
	}
}

// A hotter oven is answered by turning its dial down.
func TestAHotterOvenIsTurnedDown(t *testing.T) {
	r := desserts()["crumble"]
	hot, cool := planOf(t, r, Setting{OvenOffsetC: 20}), planOf(t, r, Setting{OvenOffsetC: -20})
	if hot.Plan.OvenC != 160 || cool.Plan.OvenC != 200 || math.Abs(hot.Plan.Minutes-cool.Plan.Minutes) > 1 {
		t.Errorf("twenty hotter: %s, cooler: %s", hot.Plan.Words(), cool.Plan.Words())
	}
}

// Glass from the freezer begins in a cool oven, and is warned of where somebody bakes it hot.
func TestGlassFromTheFreezerBeginsCool(t *testing.T) {
	r, frozen := desserts()["crumble"], -18.0
	r.Dish.Material = "glass"
	a := planOf(t, r, Setting{FillingC: &frozen})
	if !a.Plan.ColdStart || a.Plan.Stages[0].OvenC != coldStartC || a.Plan.Stages[0].Minutes != coldStartMin {
		t.Errorf("%s", a.Plan.Words())
	}
	hot := planOf(t, r, Setting{FillingC: &frozen, Stages: []Stage{{Minutes: 90, OvenC: 180}}})
	if len(hot.Asks) == 0 {
		t.Error("nothing is asked of glass that goes from the freezer into a hot oven")
	}
	r.Dish.Material = "foil"
	if a := planOf(t, r, Setting{FillingC: &frozen}); a.Plan.ColdStart {
		t.Errorf("a foil tray: %s", a.Plan.Words())
	}
}
