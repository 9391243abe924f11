package app

import (
	"cmp"
	"context"
	"slices"
	"testing"
	"time"

	"mabbin/core/day"
	"mabbin/core/watch"

	"github.com/google/uuid"
)

// ways keeps what is on its way in memory.
type ways struct{ all []Countdown }

func (w *ways) at(id uuid.UUID) int {
	return slices.IndexFunc(w.all, func(x Countdown) bool { return x.ID == id })
}

func (w *ways) Countdowns(context.Context, uuid.UUID) ([]Countdown, error) { return w.all, nil }

func (w *ways) SetCountdown(_ context.Context, _ uuid.UUID, x Countdown) error {
	w.all = append(w.all, x)
	return nil
}

func (w *ways) UpdateCountdown(_ context.Context, _, id uuid.UUID, change func(*Countdown) error) error {
	i := w.at(id)
	if i < 0 {
		return ErrNotFound
	}
	return change(&w.all[i])
}

func (w *ways) DeleteCountdown(_ context.Context, _, id uuid.UUID) error {
	w.all = slices.DeleteFunc(w.all, func(x Countdown) bool { return x.ID == id })
	return nil
}

// The way back from an hour is called step by step; when all is answered it is off the watch.
func TestOnTheWayToTheOven(t *testing.T) {
	c := newCafe(t)
	kept := &ways{}
	now := saturday.Add(9 * time.Hour)
	o := Countdowns{
		Store:  kept,
		Bench:  c.desk,
		Clock:  func() time.Time { return now },
		Notify: func(uuid.UUID) { c.told++ },
	}
	id := uuid.New()
	q := BenchQuestion{Kitchen: &c.kitchen, Request: crumble()}
	if err := o.Start(t.Context(), c.kitchen, id, "Crumble", q, now.Add(4*time.Hour), day.Warm); err != nil {
		t.Fatal(err)
	}
	steps := kept.all[0].Steps
	if len(steps) < 3 || steps[0].State != watch.Waiting || !slices.IsSortedFunc(steps, func(a, b CountdownStep) int {
		return cmp.Compare(a.At.Unix(), b.At.Unix())
	}) {
		t.Fatalf("%+v", steps)
	}
	due := steps[0].At
	if err := o.Answer(t.Context(), c.kitchen, id, 0, AnswerSnooze); err != nil || kept.all[0].Steps[0].At.Equal(due) {
		t.Errorf("put off it is still at %v; %v", kept.all[0].Steps[0].At, err)
	}
	for _, wrong := range []int{-1, len(steps)} {
		if err := o.Answer(t.Context(), c.kitchen, id, wrong, AnswerDone); err == nil {
			t.Errorf("step %d is answered", wrong)
		}
	}
	for i := range steps {
		if err := o.Answer(t.Context(), c.kitchen, id, i, AnswerDone); err != nil {
			t.Fatal(err)
		}
		if i == 0 { // and taken back
			if err := o.Answer(
				t.Context(),
				c.kitchen,
				id,
				i,
				AnswerUndo,
			); err != nil ||
				kept.all[0].Steps[0].State != watch.Waiting {
				t.Errorf("%+v, %v", kept.all[0].Steps[0], err)
			}
			_ = o.Answer(t.Context(), c.kitchen, id, i, AnswerDone)
		}
	}
	if len(kept.all) != 0 {
		t.Errorf("all is done, and it is still on its way: %+v", kept.all)
	}
	if err := o.Start(t.Context(), c.kitchen, id, "Crumble", q, now.Add(90*time.Hour), day.Warm); !has(err, "/ready_at") {
		t.Errorf("in four days: %v", err)
	}
}
