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
	tick, thin, fast := time.NewTicker(readEvery), time.NewTicker(thinEvery), time.NewTicker(fastEvery)
	defer tick.Stop()
	defer thin.Stop()
	defer fast.Stop()
	err := r.tidy(ctx)
	for {
		if err != nil && !errors.Is(err, context.Canceled) {
			r.Log.Error("probes", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
			err = r.Once(ctx)
		case <-fast.C:
			err = r.Faster(ctx, fastEvery)
		case <-thin.C:
			err = r.tidy(ctx)
		}
	}
}

// tidy keeps what grows with every bake within bounds.
func (r Rounds) tidy(ctx context.Context) error {
	now := r.Now()
	return errors.Join(r.Store.ThinReadings(ctx, now), r.Store.SweepPictures(ctx, now), r.Store.SweepWatch(ctx, now))
}

const (
	thinEvery = time.Hour // old readings are thinned: they are a day old before they are
	fastEvery = time.Second
)

// Faster moves on what runs faster than the clock, by so much of the clock, and reads the probes there.
func (r Rounds) Faster(ctx context.Context, passed time.Duration) error {
	kitchens, err := r.Store.RunFaster(ctx, passed)
	if err != nil || len(kitchens) == 0 {
		return err
	}
	err = r.Once(ctx)
	for _, k := range kitchens {
		r.Changed(k)
	}
	return err
}

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
	if probe, err = Simulate(w.ID, p.Bake, w.Stages, w.Doors, w.StartedAt, w.Place); err != nil {
		return err
	}
	now := r.Now()
	minute := now.Sub(w.StartedAt).Minutes()
	c, ok := probe.Read(now)
	if !ok || minute < 0 { // it dropped out, or somebody put the clock back
		return nil
	}
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
