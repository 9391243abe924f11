package day_test

import (
	"slices"
	"strings"
	"testing"
	"time"

	"mabbin/core/bake"
	"mabbin/core/day"
	"mabbin/core/day/internal/daytest"
)

// early returns an order for a crumble that is due too early to be made on the day, with the ways to make it before.
func early(t *testing.T, serve day.Serve) day.PlannedOrder {
	t.Helper()
	o := ordered(
		t,
		day.Order{ID: "Early", Card: "c", Dishes: 1, Due: 8*60 + 8, Serve: serve},
		func(*bake.DessertRequest) {},
	)
	cold := bake.FreezerC
	q := o.Dessert
	q.Setting.FillingC = &cold
	p, err := bake.PlanOf(q)
	if err != nil {
		t.Fatal(err)
	}
	stages, right, err := p.AtOven(t.Context(), o.Answer.Plan.OvenC)
	if err != nil || !right {
		t.Fatalf("from the freezer: %v, %v", right, err)
	}
	o.Frozen = stages
	if o.Rewarm, right, err = bake.Rewarm(o.Answer.Bake); err != nil || !right {
		t.Fatalf("warmed again: %v, %v", right, err)
	}
	return o
}

// A dessert that is wanted before it can be made fresh is offered baked the day before; taken, what is left of it for
// the day is the oven, and it is in time.
func TestADessertIsMadeBeforeItsDay(t *testing.T) {
	o := early(t, day.Hot)
	asked := day.Orders{Orders: []day.Order{o.Order}}
	fresh, _ := lay(t, yard(), asked, []day.PlannedOrder{o}, 0, nil)
	if len(fresh.Plan.Clashes) != 1 {
		t.Fatalf("made fresh it is in time: %+v", fresh.Orders)
	}
	i := slices.IndexFunc(fresh.Plan.Clashes[0].Remedies, func(w day.Remedy) bool { return w.Code == "baked_before" })
	if i < 0 {
		t.Fatalf("it is not offered: %+v", fresh.Plan.Clashes[0].Remedies)
	}
	way := fresh.Plan.Clashes[0].Remedies[i]
	if text := way.Text.String(); !strings.Contains(text, "the day before") || !strings.Contains(text, "less crisp") {
		t.Errorf("it says %q", text)
	}
	asked.Remedies = []day.AppliedRemedy{{Code: way.Code, Batch: way.Batch, Minutes: way.Minutes}}
	schedule, q := lay(t, yard(), asked, []day.PlannedOrder{o}, 0, nil)
	if len(schedule.Plan.Clashes) != 0 || !schedule.Orders[0].InTime {
		t.Errorf("baked before, it is not in time: %+v", schedule.Plan.Clashes)
	}
	for _, x := range q.Batches[0].Tasks {
		if slices.Contains([]string{"fruit", "topping", "assemble", "chill"}, x.Kind) {
			t.Errorf("on its day there is still %s", x.Kind)
		}
	}
	if len(schedule.Remedies) != 1 {
		t.Errorf("the ways that were taken: %v", schedule.Remedies)
	}
}

// From the freezer it bakes longer, and its juice stands a little thinner where the thickener weeps.
func TestFromTheFreezer(t *testing.T) {
	o := early(t, day.Cold)
	fresh, frozen := 0.0, 0.0
	for _, s := range o.Answer.Plan.Stages {
		fresh += s.Minutes
	}
	for _, s := range o.Frozen {
		frozen += s.Minutes
	}
	if frozen < fresh+15 {
		t.Errorf("%g min from the freezer, %g fresh", frozen, fresh)
	}
	asked := day.Orders{
		Orders: []day.Order{o.Order}, Remedies: []day.AppliedRemedy{{Code: "frozen_raw", Batch: "Early"}},
	}
	_, q := lay(t, yard(), asked, []day.PlannedOrder{o}, 0, nil)
	for _, x := range q.Batches[0].Tasks {
		if x.Kind == "bake" && (len(x.Alternatives) != 1 || x.Alternatives[0].ID != "from the freezer" || len(x.After) != 0) {
			t.Errorf("its bake is %+v", x)
		}
	}
	for change, want := range map[string]bool{"crumble_classic": true, "biscuit_drop": false} {
		r := o.Dessert.Request
		r.Topping.Key = change
		if day.Freezes(r) != want {
			t.Errorf("%s freezes: %v", change, !want)
		}
	}
}

// A dessert that place in an oven as none of its remedies would have it is made before its day all the same: the plan
// that stands is planned again by the names of its bakes, and not by their places in a list.
func TestThePlanThatStandsKnowsItsBakesByName(t *testing.T) {
	o := early(t, day.Hot)
	o.Due = 12 * 60
	asked := day.Orders{Orders: []day.Order{o.Order}}
	schedule, q := lay(t, yard(), asked, []day.PlannedOrder{o}, 0, nil)
	last := 0
	for _, x := range q.Batches[0].Tasks {
		if x.Kind == "bake" {
			last = len(x.Alternatives) - 1
			for i := range schedule.Plan.Schedule { // as it might have been planned in addition to others
				if s := &schedule.Plan.Schedule[i]; s.Task == x.ID {
					s.Alternative = x.Alternatives[last].ID
				}
			}
		}
	}
	if last == 0 {
		t.Fatal("it bakes in one way alone")
	}
	for _, code := range []day.RemedyCode{day.RemedyBaked, day.RemedyFrozen} {
		asked.Remedies = []day.AppliedRemedy{{Code: code, Batch: "Early"}}
		q, _ := day.BuildRequest(yard(), asked, []day.PlannedOrder{o}, 0, schedule, nil)
		q.Iterations = 60
		plan, err := day.Plan(t.Context(), standing(q, &schedule.Plan), time.Now, nil)
		if err != nil || len(plan.LeftOut) != 0 {
			t.Errorf("%s: %v, left out %v", code, err, plan.LeftOut)
		}
		if broken := daytest.Broken(q, plan); len(broken) > 0 {
			t.Errorf("%s: %v", code, broken)
		}
	}
}

// One dish that is wanted twice, one of them made before: that one stands in it all day, and the other one finds no
// room.
func TestADishHoldsWhatWasMadeBefore(t *testing.T) {
	if testing.Short() {
		t.Skip("many days are laid: it runs without the race detector")
	}
	one := early(t, day.Hot)
	one.Due = 12 * 60
	two := one
	two.ID = "Late"
	for gap := 20; gap <= 140; gap += 20 {
		two.Due = one.Due + gap
		asked := day.Orders{
			Orders: []day.Order{one.Order, two.Order}, Remedies: []day.AppliedRemedy{{Code: "baked_before", Batch: "Early"}},
		}
		schedule, _ := lay(t, yard(), asked, []day.PlannedOrder{one, two}, 0, nil)
		// its one dish holds what was baked before
		if !slices.Contains(schedule.Plan.LeftOut, "Late") || len(schedule.Plan.Clashes) == 0 {
			t.Errorf("%d min apart two stand in one dish: %+v", gap, schedule.Orders)
		}
		for _, c := range schedule.Plan.Clashes {
			if len(c.Remedies) == 0 {
				t.Errorf("%d min apart: %s has no way out", gap, c.Batch)
			}
		}
	}
}

// More than an oven holds is wanted hot at one time: what lies in addition to its hour, baked otherwise than its card
// has it, has its remedies tried on that very plan.
func TestWaysOutOfWhatLiesAreTriedOnThePlan(t *testing.T) {
	o := early(t, day.Hot)
	o.Due = 12 * 60
	o.Dessert.Request.Dish.LengthCM = 30 // no dish of the shelf: there are enough of it
	k := yard()
	var orders []day.PlannedOrder
	asked := day.Orders{}
	for i := range 6 {
		x := o
		x.ID = []string{"A", "B", "C", "D", "E", "F"}[i]
		orders = append(orders, x)
		asked.Orders = append(asked.Orders, x.Order)
	}
	schedule, _ := lay(t, k, asked, orders, 0, nil)
	if len(schedule.Plan.Clashes) == 0 {
		t.Fatal("six hot dishes are ready at one time, from an oven that holds two")
	}
	for _, c := range schedule.Plan.Clashes {
		if len(c.Remedies) == 0 {
			t.Errorf("%s has no way out", c.Batch)
		}
	}
}
