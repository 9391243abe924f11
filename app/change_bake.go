package app

import (
	"context"
	"time"

	"mabbin/core/bake"
	"mabbin/core/watch"

	"github.com/google/uuid"
)

// Replan gives a dessert in the oven other stages from now on; its calls follow.
func (o OvenWatch) Replan(ctx context.Context, kitchen, id uuid.UUID, stages []bake.Stage) (Watched, error) {
	return o.changeForeseen(ctx, kitchen, id, func(b *watch.Bake, now time.Time, see watch.Filter) error {
		if err := b.Replan(ctx, stages, now); err != nil {
			return err
		}
		_, err := b.UpdateForecast(ctx, see)
		return err
	})
}

// Rescue tries what may help against a trouble, from where a dessert stands. Nothing is changed: a way that is taken
// is a Replan.
func (o OvenWatch) Rescue(
	ctx context.Context,
	kitchen, id uuid.UUID,
	trouble watch.Trouble,
	offMin float64,
) ([]watch.Proposal, error) {
	w, err := o.Store.OneWatched(ctx, kitchen, id)
	if err != nil {
		return nil, err
	}
	return w.Rescue(trouble, offMin, o.Clock())
}

// End takes a dessert off the watch, also one of which nothing else can be used.
func (o OvenWatch) End(ctx context.Context, kitchen, id uuid.UUID) error {
	_, err := o.Store.UpdateWatched(ctx, kitchen, id, func(w *Watched) error {
		w.End(o.Clock())
		return nil
	})
	if err == nil {
		o.Notify(kitchen)
	}
	return err
}

// Reopen puts a dessert back on the watch.
func (o OvenWatch) Reopen(ctx context.Context, kitchen, id uuid.UUID) (Watched, error) {
	return o.change(ctx, kitchen, id, func(b *watch.Bake, _ time.Time) error {
		b.Reopen()
		return nil
	})
}
