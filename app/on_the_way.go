package app

import (
	"context"
	"time"

	"mabbin/core/day"
	"mabbin/core/message"
	"mabbin/core/watch"

	"github.com/google/uuid"
)

// OnTheWay is a dessert on its way into the oven: what is called out until it is in. From there on the oven watch has
// its own calls.
type OnTheWay struct {
	ID      uuid.UUID
	Title   string
	ReadyAt time.Time
	Steps   []WayStep
	Asked   string // digest of what it was started with: sent again, it is the same countdown
}

// WayStep is one call on the way.
type WayStep struct {
	At    time.Time       `json:"at"`
	Kind  string          `json:"kind"`
	Says  message.Message `json:"says"`
	State watch.State     `json:"state"` // waiting, done or skipped
}

// WayStore keeps what is on its way.
type WayStore interface {
	OnTheWay(ctx context.Context, kitchen uuid.UUID) ([]OnTheWay, error)
	SetOnTheWay(ctx context.Context, kitchen uuid.UUID, w OnTheWay) error
	UpdateOnTheWay(ctx context.Context, kitchen, id uuid.UUID, change func(*OnTheWay) error) error
	DropOnTheWay(ctx context.Context, kitchen, id uuid.UUID) error
}

// OnTheWayTo puts the way back from the hour at which a dessert is wanted on the watch, as calls.
type OnTheWayTo struct {
	Store  WayStore
	Desk   Bench
	Clock  Clock
	Notify Notify
}

// Begin works the way back out and keeps its calls, up to the oven door.
func (o OnTheWayTo) Begin(
	ctx context.Context, kitchen, id uuid.UUID, title string, q BenchQuestion, wanted time.Time, serve day.Serve,
) error {
	r, err := o.Desk.ReadyBy(ctx, q, o.Clock(), wanted, serve)
	if err != nil {
		return err
	}
	w := OnTheWay{
		ID: id, Title: title, ReadyAt: r.At(r.ReadyAt), Steps: []WayStep{}, Asked: Revision([]any{q, wanted.UTC(), serve}),
	}
	for _, s := range r.ToTheOven() {
		w.Steps = append(w.Steps, WayStep{At: r.At(s.At), Kind: s.Kind, Says: s.Says, State: watch.Waiting})
	}
	if err := o.Store.SetOnTheWay(ctx, kitchen, w); err != nil {
		return err
	}
	o.Notify(kitchen)
	return nil
}

// Answer answers one call. When all are answered it is off the way.
func (o OnTheWayTo) Answer(ctx context.Context, kitchen, id uuid.UUID, step int, a Answer) error {
	over := false
	err := o.Store.UpdateOnTheWay(ctx, kitchen, id, func(w *OnTheWay) error {
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
		err = o.Store.DropOnTheWay(ctx, kitchen, id)
	}
	if err == nil {
		o.Notify(kitchen)
	}
	return err
}

// Drop takes it off the way.
func (o OnTheWayTo) Drop(ctx context.Context, kitchen, id uuid.UUID) error {
	err := o.Store.DropOnTheWay(ctx, kitchen, id)
	if err == nil {
		o.Notify(kitchen)
	}
	return err
}
