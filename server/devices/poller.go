package devices

import (
	"context"
	"errors"
	"log/slog"
	"time"

	"mabbin/core/fault"
)

// OvenWatch is what the poller asks of the watch.
type OvenWatch interface {
	// Poll reads every probe once, and lets the calls follow.
	Poll(ctx context.Context) error
	// Advance moves on what runs faster than the clock, by what passed on the clock, and says whether there was any.
	Advance(ctx context.Context, passed time.Duration) (bool, error)
	// Tidy keeps what grows with every bake within bounds.
	Tidy(ctx context.Context) error
}

// Poller reads the probes of everything that is in an oven, at their times, until it is stopped.
type Poller struct {
	Watch OvenWatch
	Log   *slog.Logger
}

const (
	tidyEvery    = time.Hour // readings are thinned a day later
	advanceEvery = time.Second
)

// Run polls until ctx ends.
func (p Poller) Run(ctx context.Context) {
	read, tidy, ahead := time.NewTicker(readEvery), time.NewTicker(tidyEvery), time.NewTicker(advanceEvery)
	defer read.Stop()
	defer tidy.Stop()
	defer ahead.Stop()
	err := fault.Guard(func() error { return p.Watch.Tidy(ctx) })
	for {
		if err != nil && !errors.Is(err, context.Canceled) {
			p.Log.Error("oven watch", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-read.C:
			err = fault.Guard(func() error { return p.Watch.Poll(ctx) })
		case <-ahead.C:
			err = fault.Guard(func() error { return p.Advance(ctx, advanceEvery) })
		case <-tidy.C:
			err = fault.Guard(func() error { return p.Watch.Tidy(ctx) })
		}
	}
}

// Advance moves on what runs faster than the clock, and reads the probes there.
func (p Poller) Advance(ctx context.Context, passed time.Duration) error {
	moved, err := p.Watch.Advance(ctx, passed)
	if moved {
		err = errors.Join(err, p.Watch.Poll(ctx))
	}
	return err
}
