package day_test

import (
	"slices"
	"strings"
	"testing"
	"time"

	"mabbin/core/bake"
	"mabbin/core/day"
)

// What really went into an oven is where it is: the order of its card that was planned nearest, with what came before
// it done, and the rest is planned around it.
func TestABakeThatRunsMovesTheDay(t *testing.T) {
	one := ordered(
		t,
		day.Order{ID: "One", Card: "c", Dishes: 1, Due: 720, Serve: day.Warm},
		func(*bake.DessertRequest) {},
	)
	two := one
	two.ID, two.Due = "Two", 840
	orders := []day.PlannedOrder{one, two}
	asked := day.Orders{Orders: []day.Order{one.Order, two.Order}}
	first, _ := lay(t, yard(), asked, orders, 0, nil)
	in := find(t, first, "One.bake")

	for name, went := range map[string]struct{ from, to int }{
		"as it was laid":        {in.Start, in.End},
		"sooner than anybody":   {in.Start - 30, in.End - 25},
		"later":                 {in.Start + 20, in.End + 25},
		"and it takes for ever": {in.Start, in.End + 90},
	} {
		t.Run(name, func(t *testing.T) {
			bakes := []day.Baking{{ID: "b", Card: "c", Oven: "o", From: went.from, To: went.to}}
			if !first.Differs(bakes) {
				t.Error("the day was laid before anything went in")
			}
			q, unlaid := day.BuildRequest(yard(), asked, orders, went.from+2, first, bakes)
			q.Iterations = 60
			plan, err := day.Plan(t.Context(), q, time.Now, nil)
			if err != nil {
				t.Fatal(err)
			}
			again := day.NewSchedule(asked, orders, q, unlaid, *plan, first)
			if x := find(t, again, "One.bake"); x.Start != went.from || x.End != went.to || x.Oven != in.Oven {
				t.Errorf("it is in from %d to %d; laid is %+v", went.from, went.to, x)
			}
			for _, x := range again.Plan.Schedule {
				if strings.HasPrefix(x.Task, "One.") && x.Task != "One.bake" && x.Start < went.to && x.End > went.from {
					t.Errorf("%s at %d, while it bakes", x.Task, x.Start)
				}
				if strings.HasPrefix(x.Task, "Two.bake") && x.Start < went.to && x.Start >= went.from {
					t.Errorf("the one dish that there is, is in the oven until %d; the other is laid at %d", went.to, x.Start)
				}
			}
			again.Baking = bakes
			bakes = slices.Clone(bakes)
			bakes[0].To++
			if again.Differs(bakes) {
				t.Error("a minute moves no day")
			}
			bakes[0].To += 4
			if !again.Differs(bakes) {
				t.Error("five minutes do")
			}
		})
	}
}

func find(t *testing.T, l *day.Schedule, task string) day.Scheduled {
	t.Helper()
	i := slices.IndexFunc(l.Plan.Schedule, func(x day.Scheduled) bool { return x.Task == task })
	if i < 0 {
		t.Fatalf("%s is not laid: %v", task, l.Plan.LeftOut)
	}
	return l.Plan.Schedule[i]
}
