package app

import (
	"context"

	"mabbin/core/bake"
	"mabbin/core/fault"
	"mabbin/core/message"

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
	ovens := map[uuid.UUID]*KitchenOven{}
	out := make([]bake.Setting, len(page))
	for i, card := range page {
		s := card.Versions[0].Setting
		var o *KitchenOven
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

// CheckSetting finds what is wrong with the stages of a setting that is saved: too many, too long, or of no time.
func CheckSetting(s Setting) error {
	if len(s.Stages) == 0 {
		return nil
	}
	var f fault.Faults
	f.Under("/setting/stages", bake.CheckStages(s.Stages))
	for i, x := range s.Stages {
		if x.Minutes == 0 {
			f.Add(pointer("/setting/stages", i, "/minutes"), message.New("is 0 min: enter the minutes, or remove the stage"))
		}
	}
	return f.Err()
}
