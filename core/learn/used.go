package learn

import (
	"maps"
	"math"
	"slices"

	"mabbin/core/bake"
	"mabbin/core/larder"
)

// Used are the corrections that a kitchen's answers take. The zero value is the tables.
type Used struct {
	Version int `json:"version"` // counts the times that they changed
	Bakes   int `json:"bakes"`   // that they are from
	larder.Factors
	Ovens map[string]UsedOven `json:"ovens,omitempty"` // by their keys
	Steam float64             `json:"steam,omitempty"` // 0: as the model has it
}

// UsedOven is an oven as its bakes have it.
type UsedOven struct {
	OffsetC    float64 `json:"offset_c"`
	HeatFactor float64 `json:"heat_factor"`
	OffByC     float64 `json:"off_by_c"` // how far it may still be off
}

// Use are the corrections of what was learnt that answers take: those that are used, and are more than their own give
// or take.
func (l *Result) Use() Used {
	out := Used{
		Bakes: l.Score.Bakes, Ovens: map[string]UsedOven{},
		Factors: larder.Factors{
			Release: map[string]float64{}, Softness: map[string]float64{}, Thickener: map[string]float64{},
			Colour: map[string]float64{},
		},
	}
	heat := map[string]float64{}
	for _, c := range l.Corrections {
		if c.Kind == HeatFactor {
			heat[c.Key] = c.Estimate
		}
	}
	for _, c := range l.Corrections {
		if c.state() != StateUsed {
			continue
		}
		switch c.Kind {
		case OvenOffset:
			o := UsedOven{OffsetC: c.Estimate, HeatFactor: heat[c.Key], OffByC: leastOffByC}
			if c.asOffset != nil {
				o.OffByC = max(leastOffByC, c.asOffset.SD)
			}
			out.Ovens[c.Key] = o
		case Release:
			if _, lot := fruitOf(c.Key); !lot { // a fruit's is that of all fruit and its own
				out.Release[c.Key] = c.Estimate
			}
		case Softness:
			out.Softness[c.Key] = c.Estimate
		case Thickener:
			out.Thickener[c.Key] = c.Estimate
		case Colour:
			out.Colour[c.Key] = c.Estimate
		case Steam:
			out.Steam = c.Estimate
		}
	}
	return out
}

// leastOffByC is how far an oven may be off however often it was baked in: no two bakes are alike.
const leastOffByC = bakeOvenSD

// Same says that two are the same corrections, whatever their versions and how many bakes they are from: differences
// that nobody could see are none.
func (u Used) Same(o Used) bool {
	alike := func(a, b float64) bool { return math.Abs(a-b) < 0.005 }
	return alike(u.Steam, o.Steam) && maps.EqualFunc(u.Release, o.Release, alike) &&
		maps.EqualFunc(u.Softness, o.Softness, alike) && maps.EqualFunc(u.Thickener, o.Thickener, alike) &&
		maps.EqualFunc(u.Colour, o.Colour, alike) &&
		maps.EqualFunc(u.Ovens, o.Ovens, func(a, b UsedOven) bool {
			return math.Abs(a.OffsetC-b.OffsetC) < 0.1 && alike(a.HeatFactor, b.HeatFactor) &&
				math.Abs(a.OffByC-b.OffByC) < 0.1
		})
}

// In is a setting with the corrections of a kitchen, in an oven by its key; an empty key is an oven that nothing is
// known of.
func (u Used) In(s bake.Setting, oven string) bake.Setting {
	if o, ok := u.Ovens[oven]; ok {
		s.OvenOffsetC, s.HeatFactor, s.OffByC = o.OffsetC, o.HeatFactor, o.OffByC
	}
	s.SteamFactor = u.Steam
	if len(u.Release)+len(u.Softness)+len(u.Thickener)+len(u.Colour) > 0 {
		s.Factors = &u.Factors
	}
	return s
}

// Keys are what is used, in a fixed order.
func (u Used) Keys() []ParameterName {
	out := []ParameterName{}
	add := func(what ParameterKind, keys []string) {
		slices.Sort(keys)
		for _, k := range keys {
			out = append(out, ParameterName{what, k})
		}
	}
	add(OvenOffset, slices.Collect(maps.Keys(u.Ovens)))
	add(Release, slices.Collect(maps.Keys(u.Release)))
	add(Softness, slices.Collect(maps.Keys(u.Softness)))
	add(Thickener, slices.Collect(maps.Keys(u.Thickener)))
	add(Colour, slices.Collect(maps.Keys(u.Colour)))
	if u.Steam > 0 {
		out = append(out, ParameterName{Steam, ""})
	}
	return out
}
