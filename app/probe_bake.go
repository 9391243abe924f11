package app

import (
	"context"
	"errors"
	"fmt"
	"time"

	"mabbin/core/watch"

	"github.com/google/uuid"
)

// SetProbe puts a probe into a dessert, moves it, or takes it out.
func (o OvenWatch) SetProbe(ctx context.Context, kitchen, id uuid.UUID, at watch.Place) (Watched, error) {
	return o.change(ctx, kitchen, id, func(b *watch.Bake, _ time.Time) error {
		b.SetProbe(at)
		return nil
	})
}

// Thermometer reads a dessert's probe at a time; false where it drops out.
type Thermometer func(id uuid.UUID, b *watch.Bake, at time.Time) (c float64, ok bool, err error)

// Poll reads every probe once, and lets the calls follow what they tell. One that can't be read stops no other: their
// errors come back joined, each with its dessert.
func (o OvenWatch) Poll(ctx context.Context) error {
	all, err := o.Store.Probed(ctx, o.Clock().Add(-followedFor))
	if err != nil {
		return err
	}
	var failed []error
	for _, w := range all {
		if err := o.poll(ctx, w); err != nil {
			failed = append(failed, fmt.Errorf("probe of dessert %s: %w", w.ID, err))
		}
	}
	return errors.Join(failed...)
}

func (o OvenWatch) poll(ctx context.Context, id WatchedID) error {
	_, err := o.changeForeseen(ctx, id.Kitchen, id.ID, func(b *watch.Bake, now time.Time, see watch.Filter) error {
		c, ok, err := o.Thermometer(id.ID, b, now)
		if err != nil || !ok {
			return err
		}
		return b.Read(ctx, c, now, see)
	})
	return err
}
