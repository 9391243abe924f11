package larder

import (
	"maps"
	"slices"

	"mabbin/core/fault"
)

// Factors are what a kitchen's log has taught of its things, on the tables' figures and on its own: by the keys of
// fruits, thickeners and toppings. Left out is one.
type Factors struct {
	Release   map[string]float64 `json:"release,omitempty"` // of juice; its key * is every fruit that has none of its own
	Softness  map[string]float64 `json:"softness,omitempty"`
	Thickener map[string]float64 `json:"thickener,omitempty"` // on its strength
	Colour    map[string]float64 `json:"colour,omitempty"`    // of a topping
}

// AllFruit is the key of every fruit.
const AllFruit = "*"

// Check notes factors that nothing has.
func (x *Factors) Check(at string, f *fault.Faults) {
	if x == nil {
		return
	}
	for _, of := range []struct {
		list string
		all  map[string]float64
	}{{"release", x.Release}, {"softness", x.Softness}, {"thickener", x.Thickener}, {"colour", x.Colour}} {
		if !f.Length(at, "/"+of.list, len(of.all), 0, mostOwn) {
			continue
		}
		for _, key := range slices.Sorted(maps.Keys(of.all)) {
			f.Range(at+"/"+of.list+"/"+fault.Key(key), of.all[key], 0.1, 10, "")
		}
	}
}

// On is a kitchen's own rows with the factors in them; o may be nil.
func (x *Factors) On(o *Own) *Own {
	if x == nil {
		return o
	}
	out := &Own{}
	if o != nil {
		out = &Own{
			Fruits: maps.Clone(o.Fruits), Ingredients: o.Ingredients,
			Thickeners: maps.Clone(o.Thickeners), Toppings: maps.Clone(o.Toppings),
		}
	}
	fruits := map[string]bool{}
	for key := range x.Release {
		fruits[key] = true
	}
	for key := range x.Softness {
		fruits[key] = true
	}
	if fruits[AllFruit] {
		delete(fruits, AllFruit)
		for _, f := range Fruits.All() {
			fruits[f.Key] = true
		}
		for key := range o.fruits() {
			fruits[key] = true
		}
	}
	for key := range fruits {
		f, ok := o.Fruit(key)
		if !ok {
			continue
		}
		more, soft := orOne(x.Release[AllFruit]), orOne(x.Softness[key])
		if own, ok := x.Release[key]; ok {
			more = own
		}
		out.is(OfFruit, key, map[string]float64{
			"release_fresh": f.ReleaseFresh * more, "release_frozen": f.ReleaseFrozen * more,
			"tender_min_at_8mm": f.TenderMin / soft, "collapse_min_at_8mm": f.CollapseMin / soft,
		})
	}
	for key, by := range x.Thickener {
		if t, ok := o.Thickener(key); ok {
			out.is(OfThickener, key, map[string]float64{"strength": t.Strength * orOne(by)})
		}
	}
	for key, by := range x.Colour {
		if t, ok := o.Topping(key); ok {
			out.is(OfTopping, key, map[string]float64{"brown_rate": t.BrownRate * orOne(by)})
		}
	}
	return out
}

func orOne(x float64) float64 {
	if x == 0 {
		return 1
	}
	return x
}

// is gives a row other figures, within what such a figure can be.
func (o *Own) is(kind Kind, key string, values map[string]float64) {
	rows := o.Rows(kind)
	row := rows[key]
	row.Values = maps.Clone(row.Values)
	if row.Values == nil {
		row.Values = map[string]float64{}
	}
	figures, _ := kindOf(kind)
	for _, f := range figures {
		if x, ok := values[f.Column]; ok {
			row.Values[f.Column] = min(max(x, f.Low), f.High)
		}
	}
	rows[key] = row
}
