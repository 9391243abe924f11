package app

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"time"

	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/core/watch"

	"github.com/google/uuid"
)

// Simulate drives the simulation of a dessert: how many minutes of its bake pass in one (0: as before), and how long
// the door of its oven stands open from now on (0: it stays shut).
func (o OvenWatch) Simulate(
	ctx context.Context,
	kitchen, id uuid.UUID,
	speed watch.Speed,
	doorMin float64,
) (Watched, error) {
	if speed > watch.RealTime {
		if err := o.checkAhead(ctx, id); err != nil {
			return Watched{}, err
		}
	}
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

// mostAhead is how many desserts run faster than the clock at once: each is moved on, and its probe read, each second.
const mostAhead = 4

// checkAhead is a fault where as many others as may run ahead of the clock do.
func (o OvenWatch) checkAhead(ctx context.Context, id uuid.UUID) error {
	all, err := o.Store.Ahead(ctx, o.Clock().Add(-followedFor))
	if err != nil {
		return err
	}
	others := slices.DeleteFunc(all, func(w WatchedID) bool { return w.ID == id })
	if len(others) < mostAhead {
		return nil
	}
	return fault.Faults{
		{
			Pointer: "/speed",
			Detail: message.New(
				"can't be above 1 while {n} other desserts are simulated faster than real time: finish one of them, or use real time",
				message.Count(len(others)),
			),
		},
	}
}

// Advance moves on what runs faster than the clock, by what passed on the clock, and reads the probes in it; no other
// probe is read. It says whether there was any.
func (o OvenWatch) Advance(ctx context.Context, passed time.Duration) (moved bool, err error) {
	all, err := o.Store.Ahead(ctx, o.Clock().Add(-followedFor))
	if err != nil {
		return false, err
	}
	var failed []error
	for _, id := range all {
		w, err := o.change(ctx, id.Kitchen, id.ID, func(b *watch.Bake, _ time.Time) error {
			b.Advance(passed)
			return nil
		})
		if err == nil && w.Probe != "" && w.OutAt.IsZero() {
			err = o.poll(ctx, id)
		}
		if err != nil {
			failed = append(failed, fmt.Errorf("dessert %s: %w", id.ID, err))
		}
	}
	return len(all) > 0, errors.Join(failed...)
}
