package app

import (
	"context"

	"mabbin/core/bake"
	"mabbin/core/watch"

	"github.com/google/uuid"
)

// SharedOvens finds the ovens that are asked to be at two settings by what is in them, and by what would go in next;
// next is nil where nothing does.
func (o OvenWatch) SharedOvens(ctx context.Context, kitchen uuid.UUID, next *IntoOven) ([]watch.TwoSettings, error) {
	all, err := o.Store.Watched(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	var order []uuid.UUID
	in := map[uuid.UUID][]watch.InOven{}
	add := func(oven *uuid.UUID, x watch.InOven) {
		if oven == nil {
			return
		}
		if in[*oven] == nil {
			order = append(order, *oven)
		}
		in[*oven] = append(in[*oven], x)
	}
	for i := range all {
		if w := &all[i]; w.Unusable == nil && w.EndedAt.IsZero() {
			add(w.OvenID, watch.InOven{Title: w.Title, Bake: &w.Bake})
		}
	}
	now := o.Clock()
	if next != nil {
		if next.Setting.OvenID == nil || len(in[*next.Setting.OvenID]) == 0 {
			return []watch.TwoSettings{}, nil
		}
		setting, err := BakeSetting(ctx, o.Kitchens, kitchen, next.Setting, next.Weather)
		if err != nil {
			return nil, err
		}
		b, err := watch.Start(ctx, bake.DessertRequest{Request: next.Request, Setting: setting}, now)
		if err != nil {
			return nil, err
		}
		order = []uuid.UUID{*next.Setting.OvenID}
		add(next.Setting.OvenID, watch.InOven{Title: next.Title, Bake: b})
	}
	out := []watch.TwoSettings{}
	for _, oven := range order {
		found, err := watch.AtTwoSettings(ctx, in[oven], now)
		if err != nil {
			return nil, err
		}
		out = append(out, found...)
	}
	return out, nil
}
