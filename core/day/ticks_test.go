package day_test

import (
	"slices"
	"testing"

	"mabbin/core/bake"
	"mabbin/core/day"
)

// A tick is a fact. What was done early or late is fixed where it was, and a dish that went in late comes out later. The
// lists say what is done, and what is needed for the next thing.
func TestTicksAreFacts(t *testing.T) {
	o := ordered(t, day.Order{ID: "One", Card: "c", Dishes: 1, Due: 900, Serve: day.Warm}, func(*bake.DessertRequest) {})
	orders := []day.PlannedOrder{o}
	asked := day.Orders{Orders: []day.Order{o.Order}}
	first, _ := lay(t, yard(), asked, orders, 420, nil)
	planned := func(l *day.Schedule, task string) day.Scheduled {
		return l.Plan.Schedule[slices.IndexFunc(l.Plan.Schedule, func(s day.Scheduled) bool { return s.Task == task })]
	}
	row := func(l *day.Schedule, task string) day.Row {
		rows := l.Sheets[0].Rows
		return rows[slices.IndexFunc(rows, func(r day.Row) bool { return r.Task == task })]
	}
	if r := row(first, "One.fruit.fruit"); r.Done || r.Detail.String() == "" || r.Moves != "One.fruit" {
		t.Errorf("before: %+v", r)
	}
	fruit, bakes := planned(first, "One.fruit"), planned(first, "One.bake")
	now := bakes.Start + 8
	asked.Done = []day.Tick{
		{Row: "One.fruit.fruit", At: fruit.End + 3, Person: fruit.Person},
		{Row: "One.bake.load", At: bakes.Start + 6, Person: fruit.Person},
		{Row: "One.gone.gone", At: 500},
	}
	second, _ := lay(t, yard(), asked, orders, now, first)
	if got := planned(second, "One.fruit"); got.Start != fruit.Start || got.End != fruit.End+3 {
		t.Errorf("the fruit: %+v, before %+v", got, fruit)
	}
	if got := planned(second, "One.bake"); got.Start != bakes.Start+6 || got.End-got.Start != bakes.End-bakes.Start {
		t.Errorf("the bake: %+v, before %+v", got, bakes)
	}
	if !row(second, "One.fruit.fruit").Done || row(second, "One.bake.take_out").Done {
		t.Error("what is done is not what was ticked")
	}
	asked.Done = append(asked.Done, day.Tick{Row: "One.bake.take_out", At: bakes.Start + 50})
	third, _ := lay(t, yard(), asked, orders, bakes.Start+51, second)
	if got := planned(third, "One.bake"); got.Start != bakes.Start+6 || got.End != bakes.Start+50 {
		t.Errorf("out: %+v", got)
	}
	asked.Done = []day.Tick{{Row: "x", At: -1}}
	if err := day.CheckOrders(asked); err == nil {
		t.Error("a tick before midnight is taken")
	}
}
