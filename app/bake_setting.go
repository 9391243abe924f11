package app

import (
	"context"

	"mabbin/core/bake"
	"mabbin/core/learn"
	"mabbin/core/oven"

	"github.com/google/uuid"
)

// BakeSetting is a setting as the bake takes it: the oven with what the kitchen knows of it, how high the kitchen
// lies, a fire's weather, and the stages, in full or as one. It is the only place where that is put together.
func BakeSetting(
	ctx context.Context,
	kitchens KitchenStore,
	kitchen uuid.UUID,
	s Setting,
	w Weather,
) (bake.Setting, error) {
	k, err := kitchens.OneKitchen(ctx, kitchen)
	if err != nil {
		return bake.Setting{}, err
	}
	used, err := kitchens.Learnt(ctx, kitchen)
	if err != nil {
		return bake.Setting{}, err
	}
	var o *KitchenOven
	if s.OvenID != nil {
		found, err := kitchens.OneOven(ctx, kitchen, *s.OvenID)
		if err != nil {
			return bake.Setting{}, err
		}
		o = &found
	}
	return LearntSettingIn(k.AltitudeM, o, s, w, used), nil
}

// LearntSettingIn is a setting in a known oven, with what the kitchen's log has taught.
func LearntSettingIn(altitudeM float64, o *KitchenOven, s Setting, w Weather, used learn.Used) bake.Setting {
	key := ""
	if o != nil {
		key = o.ID.String()
	}
	return used.In(SettingIn(altitudeM, o, s, w), key)
}

// unlearnt is a setting without what a log has taught, in its oven as the Shelf has it; nil is one that nothing is
// known of.
func unlearnt(s bake.Setting, o *KitchenOven) bake.Setting {
	s.OvenOffsetC, s.OffByC, s.HeatFactor, s.SteamFactor, s.Factors = 0, 0, 0, 0, nil
	if o != nil {
		s.OvenOffsetC, s.OffByC = o.OffsetC, o.OffBy()
	}
	return s
}

// SettingIn is a setting in a known oven as the Shelf has it; nil is an oven that nothing is known of.
func SettingIn(altitudeM float64, o *KitchenOven, s Setting, w Weather) bake.Setting {
	out := bake.Setting{AltitudeM: altitudeM, Shelf: s.Shelf, FillingC: s.FillingC, DishC: s.DishC, Stages: s.Stages}
	if o != nil {
		out.Heating, out.OvenOffsetC, out.OffByC, out.BottomHeat = o.Heating, o.OffsetC, o.OffBy(), o.BottomHeat
		out.OvenName = o.Name
		if o.Kind == oven.Camp {
			out.Fire = &oven.Fire{
				DiameterCM: o.DiameterCM,
				Wind:       w.Wind,
				Cold:       w.Cold,
				Wet:        w.Wet,
				Fuel:       w.Fuel,
				Stacked:    w.Stacked,
			}
		}
	}
	switch {
	case len(out.Stages) > 0:
	case s.OvenC != nil && s.Minutes != nil:
		out.Stages = []bake.Stage{{Minutes: *s.Minutes, OvenC: *s.OvenC, Heating: out.Heating}}
	default:
		out.EnteredC, out.EnteredMin = s.OvenC, s.Minutes
	}
	return out
}
