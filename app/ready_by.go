package app

import (
	"context"
	"time"

	"mabbin/core/bake"
	"mabbin/core/day"
	"mabbin/core/fault"
	"mabbin/core/message"
)

// ReadyBy is the way back from the hour at which a dessert is wanted, by the clock.
type ReadyBy struct {
	day.ReadyBy
	From time.Time // its minutes count from here
}

// At is the hour of one of its minutes.
func (r ReadyBy) At(minute int) time.Time { return r.From.Add(time.Duration(minute) * time.Minute) }

// furthestReady is how far ahead a dessert may be wanted.
const furthestReady = 48 * time.Hour

// ReadyBy goes back from the hour at which what is on the Bench is wanted, by the bake that it answers with.
func (b Bench) ReadyBy(
	ctx context.Context, q BenchQuestion, now, wanted time.Time, serve day.Serve,
) (ReadyBy, error) {
	if ahead := wanted.Sub(now); ahead < -furthestReady || ahead > furthestReady {
		var f fault.Faults
		f.Add("/ready_at", message.New("is more than two days away: enter a time today or tomorrow"))
		return ReadyBy{}, f
	}
	r, err := b.request(ctx, q)
	if err != nil {
		return ReadyBy{}, err
	}
	a, err := bake.Dessert(ctx, r)
	if err != nil {
		return ReadyBy{}, err
	}
	from := now.Truncate(time.Minute)
	if from.Before(now) {
		from = from.Add(time.Minute)
	}
	due := int(wanted.Sub(from) / time.Minute)
	return ReadyBy{day.PlanReadyBy(day.Job{ID: "dessert", Dessert: r, Due: &due, Serve: serve}, a, 0), from}, nil
}
