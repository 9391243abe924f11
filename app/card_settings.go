package app

import (
	"context"

	"mabbin/core/bake"

	"github.com/google/uuid"
)

// Settings are where each card of a page bakes, by its newest version, as the kitchen knows its ovens: what a tile
// tells is what the Bench will tell.
func (c Cards) Settings(ctx context.Context, kitchen uuid.UUID, page []Card) ([]bake.Setting, error) {
	k, err := c.Kitchens.OneKitchen(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	used, err := c.Kitchens.Learnt(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	ovens := map[uuid.UUID]*ShelfOven{}
	out := make([]bake.Setting, len(page))
	for i, card := range page {
		s := card.Versions[0].Setting
		var o *ShelfOven
		if s.OvenID != nil {
			found, known := ovens[*s.OvenID]
			if !known {
				one, err := c.Kitchens.OneOven(ctx, kitchen, *s.OvenID)
				if err != nil {
					return nil, err
				}
				found = &one
				ovens[*s.OvenID] = found
			}
			o = found
		}
		out[i] = LearntSettingIn(k.AltitudeM, o, s, Weather{}, used)
	}
	return out, nil
}
