package app

import (
	"context"

	"mabbin/core/bake"
	"mabbin/core/balance"

	"github.com/google/uuid"
)

// Bench answers all that the Bench shows of one dessert.
type Bench struct {
	Kitchens KitchenStore
	Stock    StockStore     // nil: no rates are known
	Shelf    EquipmentStore // nil: no other dishes are known
}

// BenchQuestion is what is on the Bench.
type BenchQuestion struct {
	Kitchen  *uuid.UUID // nil: nowhere yet
	Request  balance.Request
	Setting  Setting
	Weather  Weather
	Standing []bake.Stage // proposed before, and on the screen
	Keep     bool         // bake those, and look for no better ones: a handle is being drawn
}

// Plan balances the dessert, bakes it in its oven as the kitchen knows that, and judges what will become of it.
func (b Bench) Plan(ctx context.Context, q BenchQuestion) (*bake.DessertAnswer, error) {
	r, err := b.request(ctx, q)
	if err != nil {
		return nil, err
	}
	return bake.Dessert(ctx, r)
}

// WhatIf bakes the dessert by the same stages with one thing changed.
func (b Bench) WhatIf(ctx context.Context, q BenchQuestion, key string) (*bake.DessertAnswer, error) {
	r, err := b.request(ctx, q)
	if err != nil {
		return nil, err
	}
	return bake.TryWhatIf(ctx, r, key)
}

// Alternatives shows each way where bakers disagree, for the dessert in its oven.
func (b Bench) Alternatives(ctx context.Context, q BenchQuestion) ([]bake.Alternative, error) {
	r, err := b.request(ctx, q)
	if err != nil {
		return nil, err
	}
	return bake.Alternatives(ctx, r)
}

func (b Bench) request(ctx context.Context, q BenchQuestion) (bake.DessertRequest, error) {
	setting := SettingIn(0, nil, q.Setting, q.Weather)
	if q.Kitchen != nil {
		var err error
		if setting, err = BakeSetting(ctx, b.Kitchens, *q.Kitchen, q.Setting, q.Weather); err != nil {
			return bake.DessertRequest{}, err
		}
	}
	setting.Standing, setting.Keep = q.Standing, q.Keep
	return bake.DessertRequest{Request: q.Request, Setting: setting}, nil
}
