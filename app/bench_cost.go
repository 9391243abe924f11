package app

import (
	"context"
	"slices"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/day"
	"mabbin/core/sell"
)

// Cost is what what is on the Bench costs, by the kitchen's own prices and rates.
func (b Bench) Cost(ctx context.Context, q BenchQuestion) (*sell.DessertCost, error) {
	r, a, rates, err := b.priced(ctx, q)
	if err != nil {
		return nil, err
	}
	return sell.OfDessert(r.Request, &a.Balance, rates, workOf(r, a))
}

// OtherCosts is what it costs in the other dishes of the shelf, and with a swap.
func (b Bench) OtherCosts(ctx context.Context, q BenchQuestion) ([]sell.OtherCost, error) {
	r, a, rates, err := b.priced(ctx, q)
	if err != nil {
		return nil, err
	}
	var dishes []balance.StartDish
	if q.Kitchen != nil && b.Shelf != nil {
		shelf, err := b.Shelf.Dishes(ctx, *q.Kitchen)
		if err != nil {
			return nil, err
		}
		dishes = slices.DeleteFunc(startDishes(shelf), func(d balance.StartDish) bool { return d.Dish == r.Request.Dish })
	}
	return sell.OtherCosts(ctx, r.Request, &a.Balance, dishes, rates, workOf(r, a))
}

// priced is what is on the Bench, baked, with what its kitchen calculates by; no rates where it is nowhere yet.
func (b Bench) priced(
	ctx context.Context, q BenchQuestion,
) (r bake.DessertRequest, a *bake.DessertAnswer, rates sell.Rates, err error) {
	if r, a, err = b.baked(ctx, q); err != nil || q.Kitchen == nil || b.Stock == nil {
		return r, a, rates, err
	}
	s, err := b.Stock.Stock(ctx, *q.Kitchen)
	return r, a, s.Rates, err
}

// workOf is what a dessert takes of ovens and hands.
func workOf(r bake.DessertRequest, a *bake.DessertAnswer) sell.Work {
	w := sell.Work{HandsMin: float64(day.WorkMinutes(r, a))}
	for _, s := range a.Plan.Stages {
		w.HoldMin += s.Minutes
		w.WarmMin = max(w.WarmMin, day.WarmMinutes(s.OvenC))
	}
	return w
}

// Nutrition is the nutrition of the current dessert as served.
func (b Bench) Nutrition(ctx context.Context, q BenchQuestion) (sell.Nutrition, error) {
	r, a, err := b.baked(ctx, q)
	if err != nil {
		return sell.Nutrition{}, err
	}
	return sell.NutritionOf(r.Request, &a.Balance), nil
}

// Keeping is how what is on the Bench is served, kept, warmed again and frozen.
func (b Bench) Keeping(ctx context.Context, q BenchQuestion) (sell.Keeping, error) {
	r, a, err := b.baked(ctx, q)
	if err != nil {
		return sell.Keeping{}, err
	}
	return sell.KeepingOf(r.Request, a)
}

// baked is what is on the Bench, simulated.
func (b Bench) baked(ctx context.Context, q BenchQuestion) (bake.DessertRequest, *bake.DessertAnswer, error) {
	r, err := b.request(ctx, q)
	if err != nil {
		return r, nil, err
	}
	a, err := bake.Dessert(ctx, r)
	return r, a, err
}
