package app

import (
	"context"

	"mabbin/core/bake"
	"mabbin/core/compare"
	"mabbin/core/learn"

	"github.com/google/uuid"
)

// Explain says what the model expects of a logged bake, and what may have been otherwise. tick receives how far it is.
func (l Log) Explain(ctx context.Context, kitchen, id uuid.UUID, tick learn.Tick) (*learn.Explanation, error) {
	b, err := l.Store.OneBake(ctx, kitchen, id)
	if err != nil {
		return nil, err
	}
	// in its oven as it is known by now, by the stages as they were
	s := b.Setting
	if b.Happened != nil && len(b.Happened.Stages) > 0 {
		s.Stages = bake.Elapsed(b.Happened.Stages, b.Happened.Minutes)
	}
	setting, err := BakeSetting(ctx, l.Kitchens, kitchen, s, Weather{})
	if err != nil {
		return nil, err
	}
	if b.Happened == nil {
		setting.Stages = learn.ReportedBy(b.words(), b.Details).BakedAtLeast(setting.Stages)
	}
	r := b.Request
	r.Own, setting.Factors = setting.Factors.On(r.Own), nil // about what the log has taught
	report := learn.Outcome{Words: b.words(), Details: b.Details, Happened: b.Happened}
	return learn.Explain(ctx, bake.DessertRequest{Request: r, Setting: setting}, report, tick)
}

// Compare compares two bakes.
func (l Log) Compare(ctx context.Context, kitchen, id, other uuid.UUID) ([]compare.Row, error) {
	var sides [2]compare.Side
	for i, id := range []uuid.UUID{id, other} {
		b, err := l.Store.OneBake(ctx, kitchen, id)
		if err != nil {
			return nil, err
		}
		if sides[i], err = sideOf(ctx, l.Kitchens, kitchen, b.Setting); err != nil {
			return nil, err
		}
		sides[i].Request, sides[i].Answer = b.Request, &b.Result
		sides[i].Words, sides[i].Details, sides[i].Happened = b.words(), b.Details, b.Happened
	}
	return compare.Of(sides[0], sides[1]), nil
}
