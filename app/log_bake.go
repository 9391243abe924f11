package app

import (
	"context"
	"errors"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/sell"

	"github.com/google/uuid"
)

// Add logs a bake. What was predicted is calculated here from the inputs, and both are frozen together; onWatch names
// the dessert that it was on the oven watch, if it was.
func (l Log) Add(ctx context.Context, kitchen uuid.UUID, b BakeRecord, onWatch *uuid.UUID) (BakeRecord, error) {
	used, err := l.Kitchens.Learnt(ctx, kitchen)
	if err != nil {
		return b, err
	}
	corrected := b.Request
	corrected.Own = used.On(b.Request.Own)
	b.Learnt = used.Version
	predicted, err := balance.Solve(corrected)
	if err != nil {
		return b, fault.Under("/request", err)
	}
	if err := checkBake(b); err != nil {
		return b, err
	}
	b.Result = *predicted
	if b.Cost, err = l.cost(ctx, kitchen, b); err != nil {
		return b, err
	}
	if onWatch != nil {
		w, err := l.Watch.OneWatched(ctx, kitchen, *onWatch)
		if err != nil {
			return b, err
		}
		happened := w.Record(l.Clock(), w.Weighed)
		b.Happened = &happened
	}
	_, before := l.Store.OneBake(ctx, kitchen, b.ID)
	kept, err := l.Store.AddBake(ctx, kitchen, b)
	if err == nil && l.Changed != nil {
		l.Changed(kitchen)
	}
	if err == nil && errors.Is(before, ErrNotFound) { // logged for the first time
		err = l.used(ctx, kitchen, b.Request, predicted)
	}
	return kept, err
}

// cost is what a bake costs by the kitchen's prices and rates of now; nil where nothing in it has a price.
func (l Log) cost(ctx context.Context, kitchen uuid.UUID, b BakeRecord) (*BakeCost, error) {
	k, err := l.Kitchens.OneKitchen(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	own, err := l.Kitchens.Own(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	s, err := l.Pantry.Pantry(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	return CostOf(k, own, s.Rates, b)
}

// CostOf is what a bake costs by a kitchen's own prices and its rates; nil where nothing in it has a price.
func CostOf(k Kitchen, own *larder.Own, rates sell.Rates, b BakeRecord) (*BakeCost, error) {
	r := bake.DessertRequest{Request: b.Request}
	r.Request.Own = own
	a := bake.DessertAnswer{Balance: b.Result}
	a.Plan.Stages = SettingIn(k.AltitudeM, nil, b.Setting, Weather{}).Stages
	c, err := sell.OfDessert(r.Request, &a.Balance, rates, workOf(r, &a))
	if err != nil || len(c.Unpriced) == len(c.Lines) {
		return nil, err
	}
	return &BakeCost{k.Currency, *c}, nil
}

// used takes what a bake has used out of the store, where the kitchen keeps one.
func (l Log) used(ctx context.Context, kitchen uuid.UUID, r balance.Request, a *balance.Answer) error {
	own, err := l.Kitchens.Own(ctx, kitchen)
	if err != nil {
		return err
	}
	s, err := l.Pantry.Pantry(ctx, kitchen)
	if err != nil || len(s.Stock) == 0 {
		return err
	}
	_, err = l.Pantry.UpdatePantry(ctx, kitchen, "", func(s sell.Store) (sell.Store, error) {
		return s.TakeOut(sell.Needs(r, a, 1), own), nil
	})
	return err
}

// checkBake finds what is wrong with a bake beside its dessert.
func checkBake(b BakeRecord) error {
	var f fault.Faults
	CheckMoment("/baked_at", b.BakedAt, &f)
	f.Under("", checkOutcome(b.Outcome))
	return f.Err()
}

// Correct puts right what was told of a bake.
func (l Log) Correct(
	ctx context.Context, kitchen, bake, correction uuid.UUID, o Outcome, when If,
) (BakeRecord, error) {
	if err := checkOutcome(o); err != nil {
		return BakeRecord{}, err
	}
	kept, err := l.Store.CorrectBake(ctx, kitchen, bake, correction, o, l.Clock(), when)
	if err == nil && l.Changed != nil {
		l.Changed(kitchen)
	}
	return kept, err
}

func checkOutcome(o Outcome) error {
	var f fault.Faults
	o.Told.Check("/outcome/told", &f)
	return f.Err()
}
