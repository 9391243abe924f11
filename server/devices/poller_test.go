package devices

import (
	"context"
	"errors"
	"testing"
	"time"
)

// counting is a watch that counts what it is asked.
type counting struct {
	passed time.Duration
	polled int
	fails  bool
}

func (c *counting) Poll(context.Context) error { c.polled++; return nil }
func (c *counting) Tidy(context.Context) error { return nil }

func (c *counting) Advance(_ context.Context, passed time.Duration) (bool, error) {
	c.passed += passed
	if c.fails {
		return true, errors.New("a probe can't be read")
	}
	return true, nil
}

// Simulated time is what passed on the clock, however late and seldom it is looked at; the probes of other desserts are
// not read for it.
func TestSimulatedTimeComesFromTheClock(t *testing.T) {
	now := wentIn
	w := &counting{}
	ahead := Poller{Watch: w, Clock: func() time.Time { return now }}.ahead(t.Context())
	for i, step := range []time.Duration{time.Second, 15 * time.Second, 0, 3 * time.Second, -time.Minute, time.Second} {
		now = now.Add(step)
		w.fails = i == 1
		if err := ahead(); (err != nil) != w.fails {
			t.Errorf("step %d: %v", i, err)
		}
	}
	if w.passed != 20*time.Second || w.polled != 0 {
		t.Errorf("%v passed in 20 s, and all probes were read %d times", w.passed, w.polled)
	}
}
