// Package learn is what the log teaches: what may have been otherwise than the tables have it, and which of that
// explains a bake.
package learn

import (
	"context"
	"maps"

	"mabbin/core/bake"
	"mabbin/core/larder"
)

// Deviation is what may be otherwise in a kitchen than the model has it. The zero value is as the model has it.
type Deviation struct {
	OvenC     float64 // the oven is so much hotter than was thought
	Release   float64 // the fruit's juice: 0.2 is a fifth more
	Thickener float64 // what the thickener does
	Colour    float64 // how fast the top browns
	Softness  float64 // how fast the fruit softens
}

// weighed is a dessert with its weights held as the ticket had them, so that another truth finds the same in the bowls.
func weighed(q bake.DessertRequest, a *bake.DessertAnswer) bake.DessertRequest {
	q.Request = q.Request.Weighed(&a.Balance)
	q.Setting.Stages = a.Plan.Stages
	return q
}

// Simulate simulates a dessert with its weights and stages as they were, in a kitchen where something is
// otherwise. plan is how it was planned: what Expected says of it, less what is otherwise.
func (t Deviation) Simulate(
	ctx context.Context,
	q bake.DessertRequest,
	plan *bake.DessertAnswer,
) (*bake.DessertAnswer, error) {
	q = weighed(q, plan)
	q.Setting.OvenOffsetC += t.OvenC
	if t.Release != 0 {
		q.Request.Own = moreJuice(q, 1+t.Release)
		for i := range q.Request.Fruits {
			if f := &q.Request.Fruits[i]; f.MeasuredRelease > 0 {
				f.MeasuredRelease = min(mostRelease, f.MeasuredRelease*(1+t.Release))
			}
		}
	}
	a, err := bake.Dessert(ctx, q)
	if err != nil {
		return nil, err
	}
	a.Balance.Set.Score *= 1 + t.Thickener
	a.Tender /= 1 + t.Softness
	a.Mush /= 1 + t.Softness
	if t.Colour != 0 && a.Bake.Topping != nil {
		rate := 1.0
		if r := a.Bake.Topping.BrownRate; r != nil {
			rate = *r
		}
		faster := *a.Bake.Topping
		rate *= 1 + t.Colour
		faster.BrownRate = &rate
		a.Bake.Topping = &faster
		ran, err := bake.Run(a.Bake)
		if err != nil {
			return nil, err
		}
		a.Plan.Answer = *ran
	}
	return a, nil
}

// mostRelease is as much as any fruit gives up.
const mostRelease = 0.95

// moreJuice is a kitchen's own rows in which the fruits of a dessert release so many times as much.
func moreJuice(q bake.DessertRequest, times float64) *larder.Own {
	own := larder.Own{Fruits: map[string]larder.OwnRow{}}
	if q.Request.Own != nil {
		own.Ingredients = q.Request.Own.Ingredients
		maps.Copy(own.Fruits, q.Request.Own.Fruits)
	}
	for _, asked := range q.Request.Fruits {
		f, ok := q.Request.Own.Fruit(asked.Key)
		if !ok {
			continue
		}
		row := own.Fruits[asked.Key]
		row.Values = maps.Clone(row.Values)
		if row.Values == nil {
			row.Values = map[string]float64{}
		}
		row.Values["release_fresh"] = min(mostRelease, f.ReleaseFresh*times)
		row.Values["release_frozen"] = min(mostRelease, f.ReleaseFrozen*times)
		own.Fruits[asked.Key] = row
	}
	return &own
}
