package devices

import (
	"context"
	"errors"
	"log/slog"
	"sync"
	"time"

	"mabbin/core/fault"
)

// OvenWatch is what the poller asks of the watch.
type OvenWatch interface {
	// Poll reads every probe once, and lets the calls follow.
	Poll(ctx context.Context) error
	// Advance moves on what runs faster than the clock, by what passed on the clock, reads the probes in it, and says
	// whether there was any.
	Advance(ctx context.Context, passed time.Duration) (bool, error)
	// Tidy keeps what grows with every bake within bounds.
	Tidy(ctx context.Context) error
}

// Poller reads the probes of everything that is in an oven, at their times, until it is stopped.
type Poller struct {
	Watch OvenWatch
	Log   *slog.Logger
	Clock func() time.Time
}

const (
	tidyEvery    = time.Hour // readings are thinned a day later
	advanceEvery = time.Second
)

// Run polls until ctx ends. What it does at different times does not wait for each other: a simulation goes on while
// many probes are read.
func (p Poller) Run(ctx context.Context) {
	var all sync.WaitGroup
	defer all.Wait()
	every := func(interval time.Duration, do func() error) {
		all.Go(func() {
			ticker := time.NewTicker(interval)
			defer ticker.Stop()
			for {
				select {
				case <-ctx.Done():
					return
				case <-ticker.C:
				}
				p.note(fault.Guard(do))
			}
		})
	}
	p.note(fault.Guard(func() error { return p.Watch.Tidy(ctx) }))
	every(tidyEvery, func() error { return p.Watch.Tidy(ctx) })
	every(readEvery, func() error { return p.Watch.Poll(ctx) })
	every(advanceEvery, p.ahead(ctx))
}

func (p Poller) note(err error) {
	if err != nil && !errors.Is(err, context.Canceled) {
		p.Log.Error("oven watch", "error", err)
	}
}

// ahead advances simulations by what has passed on the clock since it was called last: a tick that came late, or not at
// all, loses no time.
func (p Poller) ahead(ctx context.Context) func() error {
	last := p.Clock()
	return func() error {
		now := p.Clock()
		passed := now.Sub(last)
		last = now
		if passed <= 0 {
			return nil
		}
		_, err := p.Watch.Advance(ctx, passed)
		return err
	}
}

// Advance moves on what runs faster than the clock by a time, and reads the probes in it.
func (p Poller) Advance(ctx context.Context, passed time.Duration) error {
	_, err := p.Watch.Advance(ctx, passed)
	return err
}
