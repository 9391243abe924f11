package app

import (
	"context"

	"mabbin/core/bake"
	"mabbin/core/sell"
)

// Cost is what the ingredients of what is on the Bench cost, by the kitchen's own prices.
func (b Bench) Cost(ctx context.Context, q BenchQuestion) (*sell.DessertCost, error) {
	r, a, err := b.baked(ctx, q)
	if err != nil {
		return nil, err
	}
	return sell.OfDessert(r.Request, &a.Balance)
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
