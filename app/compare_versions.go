package app

import (
	"context"
	"slices"

	"mabbin/core/bake"
	"mabbin/core/compare"

	"github.com/google/uuid"
)

// Compare compares two versions of a card.
func (c Cards) Compare(ctx context.Context, kitchen, card uuid.UUID, version, other int) ([]compare.Row, error) {
	found, err := c.Store.Card(ctx, kitchen, card)
	if err != nil {
		return nil, err
	}
	var sides [2]compare.Side
	for i, n := range []int{version, other} {
		at := slices.IndexFunc(found.Versions, func(v Version) bool { return v.Number == n })
		if at < 0 {
			return nil, ErrNotFound
		}
		v := found.Versions[at]
		if sides[i], err = sideOf(ctx, c.Kitchens, kitchen, v.Setting); err != nil {
			return nil, err
		}
		sides[i].Request = v.Request
		setting, err := BakeSetting(ctx, c.Kitchens, kitchen, v.Setting, Weather{})
		if err != nil {
			return nil, err
		}
		a, err := bake.Dessert(ctx, bake.DessertRequest{Request: v.Request, Setting: setting})
		if err != nil {
			return nil, err
		}
		sides[i].Answer = &a.Balance
	}
	return compare.Of(sides[0], sides[1]), nil
}

// sideOf is where and how long something bakes, to be compared.
func sideOf(ctx context.Context, kitchens KitchenStore, kitchen uuid.UUID, s Setting) (compare.Side, error) {
	out := compare.Side{OvenC: s.OvenC, Minutes: s.Minutes, Shelf: s.Shelf, Stages: s.Stages}
	if s.OvenID == nil {
		return out, nil
	}
	o, err := kitchens.OneOven(ctx, kitchen, *s.OvenID)
	out.Oven = o.Name
	return out, err
}
