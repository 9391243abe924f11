package day_test

import (
	"maps"
	"slices"
	"testing"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/day"
	"mabbin/core/day/internal/daytest"
	"mabbin/core/dish"
)

// dessert is a dessert of the kitchen with its bake.
func dessert(t testing.TB, change func(*bake.DessertRequest)) (bake.DessertRequest, *bake.DessertAnswer) {
	t.Helper()
	q := bake.DessertRequest{Request: balance.Request{
		Dish:    dish.Dish{Shape: dish.Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5, Material: "stoneware"},
		Style:   "crumble",
		Fruits:  []balance.FruitInput{{Key: "apple_firm", Share: 1}},
		Topping: balance.ToppingInput{Key: "crumble_classic"},
	}}
	change(&q)
	a, err := bake.Dessert(t.Context(), q)
	if err != nil {
		t.Fatal(err)
	}
	return q, a
}

const sevenPM = 19 * 60

// Guests at seven: it is ready before, by as much as the bake is uncertain, and each thing comes in its order.
func TestReadyAtSeven(t *testing.T) {
	for name, c := range map[string]struct {
		serve  day.Serve
		change func(*bake.DessertRequest)
		kinds  []string
	}{
		"crumble, warm": {day.Warm, func(*bake.DessertRequest) {}, []string{"topping", "fruit", "heat", "assemble", "bake", "look", "take_out", "ready"}},
		"cobbler, hot": {day.Hot, func(q *bake.DessertRequest) {
			q.Request.Style, q.Request.Topping.Key = "cobbler", "biscuit_drop"
		}, []string{"fruit", "biscuit", "assemble", "bake", "ready"}},
		"bars, cold": {day.Cold, func(q *bake.DessertRequest) {
			q.Request.Style, q.Request.Topping.Key, q.Request.Base = "bar", "bar_dough", &balance.BaseInput{Key: "bar_dough"}
			q.Request.Dish.Material = "thin_metal"
		}, []string{"base", "line", "assemble", "bake", "take_out", "set", "cut", "ready"}},
		"pie, par-baked": {day.Warm, func(q *bake.DessertRequest) {
			q.Request.Style, q.Request.Topping.Key = "pie", "streusel_coarse"
			q.Request.Base = &balance.BaseInput{Key: "shortcrust", ParBaked: true}
		}, []string{"base", "line", "weights_out", "assemble", "bake", "ready"}},
	} {
		q, a := dessert(t, c.change)
		due := sevenPM
		r := day.PlanReadyBy(day.Job{ID: "x", Dessert: q, Due: &due, Serve: c.serve}, a, 9*60)
		if !r.InTime || r.ReadyAt > due || r.SpareMin < 1 || r.InAt < r.StartAt || r.NotBefore > r.ReadyAt {
			t.Errorf("%s: %+v", name, r)
		}
		at, next := 0, 0
		for _, s := range r.Steps {
			if s.At < at || s.Text.String() == "" {
				t.Errorf("%s: %s at %d after %d", name, s.Kind, s.At, at)
			}
			at = s.At
			if next < len(c.kinds) && s.Kind == c.kinds[next] {
				next++
			}
		}
		if next < len(c.kinds) {
			t.Errorf("%s: no %s, or not in its order: %+v", name, c.kinds[next], r.Steps)
		}
	}
}

// What can't be ready is said, with the earliest hour and what would help; a later hour never begins earlier.
func TestNotReadyBefore(t *testing.T) {
	q, a := dessert(t, func(*bake.DessertRequest) {})
	due := sevenPM
	r := day.PlanReadyBy(day.Job{ID: "x", Dessert: q, Due: &due, Serve: day.Warm}, a, sevenPM-30)
	if r.InTime || r.NotBefore <= sevenPM || r.Remedy.IsZero() || r.SpareMin != 0 {
		t.Errorf("in half an hour: %+v", r)
	}
	was := 0
	for hour := 17; hour < 24; hour++ {
		due := hour * 60
		if r := day.PlanReadyBy(day.Job{ID: "x", Dessert: q, Due: &due, Serve: day.Warm}, a, 12*60); r.StartAt < was {
			t.Errorf("at %d it begins at %d, an hour earlier at %d", hour, r.StartAt, was)
		} else {
			was = r.StartAt
		}
	}
}

// A batch of a card can be planned with others, and is whole.
func TestBatchesOfCards(t *testing.T) {
	req := day.Request{
		Now: 8 * 60, Iterations: 100,
		People: []day.Person{{ID: "ivy", Hours: []day.Span{{From: 8 * 60, To: 20 * 60}}}},
		Ovens: []day.Oven{
			{
				ID:          "deck",
				WarmCPerMin: 8,
				CoolCPerMin: 3,
				Tiers: []day.Tier{
					{ID: "low", Shelf: "low", WidthCM: 60, DepthCM: 40},
					{ID: "middle", Shelf: "middle", WidthCM: 60, DepthCM: 40},
				},
			},
		},
	}
	for i, topping := range []string{"crumble_classic", "pastry_lid", "betty_crumbs", "puff_lid"} {
		q, a := dessert(t, func(q *bake.DessertRequest) {
			q.Request.Topping.Key = topping
			if topping == "betty_crumbs" {
				q.Request.Style = "betty"
			} else if topping != "crumble_classic" {
				q.Request.Style = "cobbler"
			}
		})
		due := 13*60 + 60*i
		req.Batches = append(
			req.Batches,
			day.BatchOf(day.Job{ID: topping, Dessert: q, Dishes: 1 + i%2, Due: &due, Serve: day.Warm}, a),
		)
	}
	p := plan(t, req)
	if !p.Feasible {
		t.Errorf("%+v, %v", p.Objective, p.LeftOut)
	}
	if b := daytest.Broken(req, p); len(b) > 0 {
		t.Error(b)
	}
}

func TestPrepMinutes(t *testing.T) {
	whole := false
	for _, c := range []struct {
		fruit balance.FruitInput
		want  int
	}{
		{balance.FruitInput{Key: "raspberry", Share: 1}, 5},
		{balance.FruitInput{Key: "apple_firm", Share: 1}, 14},
		{balance.FruitInput{Key: "apple_firm", Share: 1, Peeled: &whole}, 9},
		{balance.FruitInput{Key: "damson", Share: 1}, 17},
		{balance.FruitInput{Key: "damson", Share: 1, Frozen: true}, 5},
	} {
		if got := day.PrepMinutes(balance.Request{Fruits: []balance.FruitInput{c.fruit}}, 1000); got != c.want {
			t.Errorf("%+v: %d min, want %d", c.fruit, got, c.want)
		}
	}
}

// A bake whose stages take no time, as an old card may have it, still goes in and comes out.
func TestABakeOfNoTimeIsPlanned(t *testing.T) {
	q, a := dessert(t, func(q *bake.DessertRequest) { q.Setting.Stages = []bake.Stage{{Minutes: 0, OvenC: 180}} })
	due := sevenPM
	r := day.PlanReadyBy(day.Job{ID: "x", Dessert: q, Due: &due, Serve: day.Warm}, a, 9*60)
	if !r.InTime || r.InAt == 0 {
		t.Errorf("%+v", r)
	}
	b := day.BatchOf(day.Job{ID: "x", Dessert: q, Due: &due, Serve: day.Warm}, a)
	for _, task := range b.Tasks {
		for _, x := range task.Alternatives {
			if len(x.Stages) == 0 {
				t.Errorf("%s has no stages", task.ID)
			}
		}
	}
}

// The steps are those of the plan. A base is par-baked at its own heat and in its own minutes; covers and heats change
// when they do. A custard is looked at for its tremble, and a topping that is melted has nothing to firm up.
func TestTheStepsAreThePlans(t *testing.T) {
	steps := func(change func(*bake.DessertRequest)) map[string]day.Step {
		q, a := dessert(t, change)
		due := sevenPM
		out := map[string]day.Step{}
		for _, s := range day.PlanReadyBy(day.Job{ID: "x", Dessert: q, Due: &due, Serve: day.Warm}, a, 9*60).Steps {
			out[s.Text.String()] = s
		}
		return out
	}
	reads := func(name string, got map[string]day.Step, want ...string) {
		t.Helper()
		for _, w := range want {
			if _, ok := got[w]; !ok {
				t.Errorf("%s: no %q in %v", name, w, slices.Sorted(maps.Keys(got)))
			}
		}
	}
	par := func(key string) func(*bake.DessertRequest) {
		return func(q *bake.DessertRequest) {
			q.Request.Style, q.Request.Topping.Key = "pie", "streusel_coarse"
			q.Request.Base = &balance.BaseInput{Key: key, ParBaked: true}
		}
	}
	reads(
		"a shell",
		steps(par("shortcrust")),
		"Heat the oven to 190 C",
		"Par-bake the base, 25 min",
		"Take the weights out of the base",
	)
	crumbs := steps(par("crumb_crust"))
	reads("a crust of crumbs", crumbs, "Heat the oven to 170 C", "Par-bake the base, 10 min")
	if _, weighted := crumbs["Take the weights out of the base"]; weighted {
		t.Error("a crust of crumbs has weights on it")
	}
	foil := steps(func(q *bake.DessertRequest) {
		q.Setting.Stages = []bake.Stage{
			{Minutes: 15, OvenC: 200, Cover: "foil"},
			{Minutes: 30, OvenC: 180},
			{Minutes: 10, OvenC: 180, Cover: "foil"},
		}
	})
	reads("foil", foil, "Take the foil off", "Turn the oven down to 180 C", "Put foil on")
	custard := steps(func(q *bake.DessertRequest) {
		q.Request.Style, q.Request.Topping.Key = "bar", "bar_dough"
		q.Request.Base, q.Request.Custard = &balance.BaseInput{Key: "bar_dough", ParBaked: true}, &balance.CustardInput{}
	})
	reads("a custard", custard, "Start checking: does the middle tremble, without ripples?")
	melted := steps(func(q *bake.DessertRequest) { q.Request.Topping.FatState = "melted" })
	reads("melted", melted, "Make the crumbs")
}
