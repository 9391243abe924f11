package app

import (
	"context"

	"mabbin/core/bake"
	"mabbin/core/sell"
)

// Cost is what the ingredients of what is on the Bench cost, by the kitchen's own prices.
func (b Bench) Cost(ctx context.Context, q BenchQuestion) (*sell.DessertCost, error) {
	r, err := b.request(ctx, q)
	if err != nil {
		return nil, err
	}
	a, err := bake.Dessert(ctx, r)
	if err != nil {
		return nil, err
	}
	return sell.OfDessert(r.Request, &a.Balance)
}
