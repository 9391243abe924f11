package bake

import (
	"context"
	"math"
	"slices"

	"mabbin/core/fault"
	"mabbin/core/message"
)

// WhatIf is one thing that can be changed of a bake, the stages left as they are, to see what it moves.
type WhatIf struct {
	Key  string          `json:"key"`
	Name message.Message `json:"name"`
}

// What the experiments change. Working figures.
const (
	chilledFillingC = 4.0
	frozenFillingC  = -18.0
	lessHeatC       = 20.0
)

// experiment is a WhatIf with what it changes: a request whose stages are those of its bake.
type experiment struct {
	WhatIf
	change func(q *DessertRequest)
}

// experiments are those that make sense of a dessert.
func experiments(q DessertRequest) []experiment {
	var out []experiment
	add := func(key, name string, change func(*DessertRequest)) {
		out = append(out, experiment{WhatIf{key, message.New(name)}, change})
	}
	if q.Request.Dish.Material == "thin_metal" {
		add("dish", "glass instead of metal", func(q *DessertRequest) { q.Request.Dish.Material = "glass" })
	} else {
		add("dish", "thin metal instead", func(q *DessertRequest) { q.Request.Dish.Material = "thin_metal" })
	}
	startsAt := func(c float64) func(*DessertRequest) {
		return func(q *DessertRequest) { q.Setting.FillingC = &c }
	}
	frozen := false
	for _, f := range q.Request.Fruits {
		frozen = frozen || f.Frozen
	}
	if frozen {
		add("cold", "frozen fruit", startsAt(frozenFillingC))
	} else {
		add("cold", "fruit straight from the fridge", startsAt(chilledFillingC))
	}
	out = append(out, experiment{
		WhatIf{"cooler", message.New("{degrees} less", message.CelsiusDifference(lessHeatC))},
		func(q *DessertRequest) {
			for i := range q.Setting.Stages {
				q.Setting.Stages[i].OvenC -= lessHeatC
			}
		},
	})
	if q.Setting.Fire == nil {
		add("foil", "foil for the first half", foilFirst)
	}
	add("shallow", "a shallower, wider dish", func(q *DessertRequest) {
		d, k := &q.Request.Dish, math.Sqrt(wider)
		d.LengthCM, d.WidthCM, d.FloorLengthCM, d.FloorWidthCM, d.MeasuredML = k*d.LengthCM, k*d.WidthCM,
			k*d.FloorLengthCM, k*d.FloorWidthCM, 0
	})
	if q.Setting.Fire != nil {
		return out
	}
	if q.Setting.Heating == "fan" {
		add("fan", "without the fan", heatedBy("conventional"))
	} else {
		add("fan", "with the fan", heatedBy("fan"))
	}
	return out
}

func heatedBy(heating string) func(*DessertRequest) {
	return func(q *DessertRequest) {
		q.Setting.Heating = heating
		for i, s := range q.Setting.Stages {
			if s.Heating == "" || s.Heating == "conventional" || s.Heating == "fan" {
				q.Setting.Stages[i].Heating = heating
			}
		}
	}
}

// foilFirst covers the first half of the bake.
func foilFirst(q *DessertRequest) {
	left := 0.0
	for _, s := range q.Setting.Stages {
		if heatings[s.Heating].oven {
			left += s.Minutes / 2
		}
	}
	var out []Stage
	for _, s := range q.Setting.Stages {
		under := min(left, s.Minutes)
		left -= under
		covered, open := s, s
		covered.Minutes, covered.Cover = under, "foil"
		open.Minutes, open.Cover = s.Minutes-under, "none"
		if under > 0 { // what is done as a stage begins is done under the foil
			out = append(out, covered)
			open.PushUnder, open.AddTopping, open.Turn = false, false, false
		}
		if open.Minutes > 0 {
			out = append(out, open)
		}
	}
	q.Setting.Stages = out
}

func whatIfs(q DessertRequest) []WhatIf {
	all := experiments(q)
	out := make([]WhatIf, len(all))
	for i, x := range all {
		out[i] = x.WhatIf
	}
	return out
}

// TryWhatIf bakes a dessert with one thing changed: the same fruit, by the same stages. q has the stages as they are. A
// key that is none of the dessert's experiments is fault.Faults.
func TryWhatIf(ctx context.Context, q DessertRequest, key string) (*DessertAnswer, error) {
	var f fault.Faults
	if len(q.Setting.Stages) == 0 {
		f.Add("/setting/stages", message.New("is missing: enter the stages to keep"))
		return nil, f
	}
	now, err := Dessert(ctx, q)
	if err != nil {
		return nil, err
	}
	all := experiments(q)
	i := slices.IndexFunc(all, func(x experiment) bool { return x.Key == key })
	if i < 0 {
		f.Add("/if", fault.NotOneOf(key, "dish", "cold", "cooler", "foil", "shallow", "fan"))
		return nil, f
	}
	q.Request.WeighFruit(now.Balance.FruitG)
	q.Setting.Stages = slices.Clone(q.Setting.Stages)
	all[i].change(&q)
	return Dessert(ctx, q)
}
