package app

import (
	"context"
	"time"

	"mabbin/core/day"
	"mabbin/core/message"
	"mabbin/core/watch"

	"github.com/google/uuid"
)

// Countdown is a dessert on its way into the oven: what is called out until it is in. From there on the oven watch has
// its own calls.
type Countdown struct {
	ID      uuid.UUID
	Title   string
	ReadyAt time.Time
	Steps   []CountdownStep
	Digest  string // digest of what it was started with: sent again, it is the same countdown
}

// CountdownStep is one call on the way.
type CountdownStep struct {
	At    time.Time       `json:"at"`
	Kind  string          `json:"kind"`
	Text  message.Message `json:"text"`
	State watch.State     `json:"state"` // waiting, done or skipped
}

// CountdownStore keeps what is on its way.
type CountdownStore interface {
	Countdowns(ctx context.Context, kitchen uuid.UUID) ([]Countdown, error)
	SetCountdown(ctx context.Context, kitchen uuid.UUID, w Countdown) error
	UpdateCountdown(ctx context.Context, kitchen, id uuid.UUID, change func(*Countdown) error) error
	DeleteCountdown(ctx context.Context, kitchen, id uuid.UUID) error
}

// Countdowns puts the way back from the hour at which a dessert is wanted on the watch, as calls.
type Countdowns struct {
	Store  CountdownStore
	Bench  Bench
	Clock  Clock
	Notify Notify
}

// Start works the way back out and keeps its calls, up to the oven door.
func (o Countdowns) Start(
	ctx context.Context, kitchen, id uuid.UUID, title string, q BenchQuestion, wanted time.Time, serve day.Serve,
) error {
	r, err := o.Bench.ReadyBy(ctx, q, o.Clock(), wanted, serve)
	if err != nil {
		return err
	}
	w := Countdown{
		ID:      id,
		Title:   title,
		ReadyAt: r.At(r.ReadyAt),
		Steps:   []CountdownStep{},
		Digest:  RevisionOf([]any{q, wanted.UTC(), serve}),
	}
	for _, s := range r.StepsToOven() {
		w.Steps = append(w.Steps, CountdownStep{At: r.At(s.At), Kind: s.Kind, Text: s.Text, State: watch.Waiting})
	}
	if err := o.Store.SetCountdown(ctx, kitchen, w); err != nil {
		return err
	}
	o.Notify(kitchen)
	return nil
}

// Answer answers one call. When all are answered it is off the way.
func (o Countdowns) Answer(ctx context.Context, kitchen, id uuid.UUID, step int, a Answer) error {
	over := false
	err := o.Store.UpdateCountdown(ctx, kitchen, id, func(w *Countdown) error {
		if step < 0 || step >= len(w.Steps) {
			return ErrNotFound
		}
		s := &w.Steps[step]
		switch a {
		case AnswerSnooze:
			s.At = o.Clock().Add(UsualSnooze)
		case AnswerUndo:
			s.State = watch.Waiting
		default:
			s.State = watch.State(a)
		}
		over = true
		for _, s := range w.Steps {
			over = over && s.State != watch.Waiting
		}
		return nil
	})
	if err == nil && over {
		err = o.Store.DeleteCountdown(ctx, kitchen, id)
	}
	if err == nil {
		o.Notify(kitchen)
	}
	return err
}

// Drop takes it off the way.
func (o Countdowns) Drop(ctx context.Context, kitchen, id uuid.UUID) error {
	err := o.Store.DeleteCountdown(ctx, kitchen, id)
	if err == nil {
		o.Notify(kitchen)
	}
	return err
}
