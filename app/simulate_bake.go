package app

import (
	"context"
	"errors"
	"fmt"
	"time"

	"mabbin/core/watch"

	"github.com/google/uuid"
)

// Simulate drives the simulation of a dessert: how many minutes of its bake pass in one (0: as before), and how long
// the door of its oven stands open from now on (0: it stays shut).
func (o OvenWatch) Simulate(ctx context.Context, kitchen, id uuid.UUID, speed int, doorMin float64) (Watched, error) {
	return o.change(ctx, kitchen, id, func(b *watch.Bake, now time.Time) error {
		if speed > 0 {
			b.Speed = speed
		}
		if doorMin > 0 {
			return b.OpenDoor(doorMin, now)
		}
		return nil
	})
}

// Advance moves on what runs faster than the clock, by what passed on the clock, and says whether there was any.
func (o OvenWatch) Advance(ctx context.Context, passed time.Duration) (moved bool, err error) {
	all, err := o.Store.Ahead(ctx)
	if err != nil {
		return false, err
	}
	var failed []error
	for _, w := range all {
		_, err := o.change(ctx, w.Kitchen, w.ID, func(b *watch.Bake, _ time.Time) error {
			b.Advance(passed)
			return nil
		})
		if err != nil {
			failed = append(failed, fmt.Errorf("dessert %s: %w", w.ID, err))
		}
	}
	return len(all) > 0, errors.Join(failed...)
}
