package app

import (
	"context"

	"mabbin/core/bake"
	"mabbin/core/day"
	"mabbin/core/sell"
)

// Cost is what what is on the Bench costs, by the kitchen's own prices and rates.
func (b Bench) Cost(ctx context.Context, q BenchQuestion) (*sell.DessertCost, error) {
	r, a, err := b.baked(ctx, q)
	if err != nil {
		return nil, err
	}
	var rates sell.Rates
	if q.Kitchen != nil && b.Pantry != nil {
		s, err := b.Pantry.Pantry(ctx, *q.Kitchen)
		if err != nil {
			return nil, err
		}
		rates = s.Rates
	}
	return sell.OfDessert(r.Request, &a.Balance, rates, workOf(r, a))
}

// workOf is what a dessert takes of ovens and hands.
func workOf(r bake.DessertRequest, a *bake.DessertAnswer) sell.Work {
	w := sell.Work{HandsMin: float64(day.HandsMinutes(r, a))}
	for _, s := range a.Plan.Stages {
		w.HoldMin += s.Minutes
		w.WarmMin = max(w.WarmMin, day.WarmMinutes(s.OvenC))
	}
	return w
}

// Nutrition is what is in what is on the Bench, as it stands at the table.
func (b Bench) Nutrition(ctx context.Context, q BenchQuestion) (sell.Nutrition, error) {
	r, a, err := b.baked(ctx, q)
	if err != nil {
		return sell.Nutrition{}, err
	}
	return sell.NutritionOf(r.Request, &a.Balance), nil
}

// baked is what is on the Bench, baked on paper.
func (b Bench) baked(ctx context.Context, q BenchQuestion) (bake.DessertRequest, *bake.DessertAnswer, error) {
	r, err := b.request(ctx, q)
	if err != nil {
		return r, nil, err
	}
	a, err := bake.Dessert(ctx, r)
	return r, a, err
}
