package app

import (
	"context"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/sell"

	"github.com/google/uuid"
)

// Add logs a bake and takes what it used out of the stock. What was predicted is calculated here from the inputs, and
// both are frozen together; onWatch names the dessert that it was on the oven watch, if it was.
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
	own, err := l.Kitchens.Own(ctx, kitchen)
	if err != nil {
		return b, err
	}
	if b.Cost, err = l.cost(ctx, kitchen, own, b); err != nil {
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
	logged, err := l.Store.AddBake(ctx, kitchen, b, func(s sell.Stock) sell.Stock {
		return s.TakeOut(sell.Needs(b.Request, predicted, 1), own)
	})
	if err == nil && l.Changed != nil {
		l.Changed(kitchen)
	}
	return logged, err
}

// cost is what a bake costs by the kitchen's prices and rates of now; nil where nothing in it has a price.
func (l Log) cost(ctx context.Context, kitchen uuid.UUID, own *larder.Own, b BakeRecord) (*BakeCost, error) {
	k, err := l.Kitchens.OneKitchen(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	s, err := l.Stock.Stock(ctx, kitchen)
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

// checkBake finds what is wrong with a bake in addition to its dessert.
func checkBake(b BakeRecord) error {
	var f fault.Faults
	CheckMoment("/baked_at", b.BakedAt, &f)
	f.Under("", checkOutcome(b.Outcome))
	return f.Err()
}

// Correct puts right what was reported of a bake.
func (l Log) Correct(
	ctx context.Context, kitchen, bake, correction uuid.UUID, o Outcome, when Precondition,
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
	o.Details.Check("/outcome/told", &f)
	return f.Err()
}
