package devices

import (
	"context"
	"errors"
	"log/slog"
	"time"

	"github.com/google/uuid"

	"mabbin/core/bake"
	"mabbin/core/watch"
	"mabbin/server/store"
)

// Rounds reads the probes of everything that is in an oven, keeps what they say, and lets the calls follow.
type Rounds struct {
	Store   *store.Store
	Now     func() time.Time
	Changed func(kitchen uuid.UUID) // tells who looks at a kitchen
	Log     *slog.Logger
}

// Go makes rounds until ctx ends.
func (r Rounds) Go(ctx context.Context) {
	tick, thin := time.NewTicker(readEvery), time.NewTicker(thinEvery)
	defer tick.Stop()
	defer thin.Stop()
	err := r.Store.ThinReadings(ctx, r.Now())
	for {
		if err != nil && !errors.Is(err, context.Canceled) {
			r.Log.Error("probes", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
			err = r.Once(ctx)
		case <-thin.C:
			err = r.Store.ThinReadings(ctx, r.Now())
		}
	}
}

// thinEvery is how often old readings are thinned: they are a day old before they are.
const thinEvery = time.Hour

// Once reads every probe once.
func (r Rounds) Once(ctx context.Context) error {
	all, err := r.Store.Probed(ctx)
	if err != nil {
		return err
	}
	for _, w := range all {
		if err := r.read(ctx, w); err != nil {
			return err
		}
		r.Changed(w.Kitchen)
	}
	return nil
}

// read takes one reading of a dessert, and what it changes.
func (r Rounds) read(ctx context.Context, w store.Probed) error {
	q := w.AsWentIn()
	p, err := bake.PlanOf(q)
	if err != nil {
		return err
	}
	var probe Probe
	if probe, err = Simulate(w.ID, p.Bake, w.Stages, w.StartedAt, w.Place); err != nil {
		return err
	}
	now := r.Now()
	c, ok := probe.Read(now)
	if !ok {
		return nil
	}
	minute := now.Sub(w.StartedAt).Minutes()
	if err := r.Store.AddReading(ctx, w.ID, bake.Point{Minute: minute, C: c}); err != nil {
		return err
	}
	seen, err := r.Store.Readings(ctx, w.ID)
	if err != nil {
		return err
	}
	e, ok := watch.Reestimate(p, w.Stages, minute, seen)
	if !ok {
		return nil
	}
	if err := r.Store.SetEstimate(ctx, w.ID, *e); err != nil || !e.Moves(w.Stages) {
		return err
	}
	next, err := watch.Changed(q, w.Stages, e.Stages, minute)
	if err != nil {
		return err
	}
	err = r.Store.ChangeWatch(ctx, w.Kitchen, w.ID, e.Stages, next.Calls, now)
	if errors.Is(err, store.ErrNotFound) { // it was taken out meanwhile
		return nil
	}
	return err
}
