package store_test

import (
	"errors"
	"sync"
	"testing"
	"time"

	"mabbin/app"
	"mabbin/core/bake"
	"mabbin/core/message"
	"mabbin/core/watch"
	"mabbin/server/demo"
	"mabbin/server/store"
	"mabbin/server/store/storetest"

	"github.com/google/uuid"
)

var wentIn = time.Date(2026, 10, 12, 12, 0, 0, 0, time.UTC)

// inTheOven is a store with one dessert in the oven.
func inTheOven(t *testing.T) (*store.Store, app.Watched) {
	t.Helper()
	s := storetest.Open(t)
	if _, err := demo.Load(t.Context(), s, wentIn); err != nil {
		t.Fatal(err)
	}
	q := bake.DessertRequest{
		Request: request,
		Setting: bake.Setting{Stages: []bake.Stage{{Minutes: 30, OvenC: 190, Cover: "foil"}, {Minutes: 20, OvenC: 190}}},
	}
	began, err := watch.Start(t.Context(), q, wentIn)
	if err != nil {
		t.Fatal(err)
	}
	w := app.Watched{ID: uuid.New(), Kitchen: demo.Kitchen.ID, Title: "Plum crisp", Bake: *began}
	for range 2 { // sent twice, it goes in once
		if err := s.StartWatch(t.Context(), w); err != nil {
			t.Fatal(err)
		}
	}
	return s, look(t, s, 1)
}

// look is the first dessert of the watch, of n.
func look(t *testing.T, s *store.Store, n int) app.Watched {
	t.Helper()
	all, err := s.Watched(t.Context(), demo.Kitchen.ID)
	if err != nil || len(all) != n {
		t.Fatalf("%d on the watch, %v", len(all), err)
	}
	if n == 0 {
		return app.Watched{}
	}
	return all[0]
}

// seeing predicts what is baked in the demo's kitchen.
func seeing(t *testing.T, s *store.Store) watch.Filter {
	t.Helper()
	learning := &app.Learning{Store: s, Kitchens: s, Clock: func() time.Time { return wentIn }}
	see, err := learning.Filter(t.Context(), &demo.Kitchen.ID, nil)
	if err != nil {
		t.Fatal(err)
	}
	return see
}

// What is kept of a bake is the bake, to the last field, whatever happened to it.
func TestAWatchedBakeIsKeptAsItIs(t *testing.T) {
	s, w := inTheOven(t)
	ctx := t.Context()
	now := wentIn.Add(31 * time.Minute)
	steps := []func(*app.Watched) error{
		func(w *app.Watched) error { w.SetProbe(watch.InMiddle); return nil },
		func(w *app.Watched) error { return w.Read(ctx, 71.5, now, seeing(t, s)) },
		func(w *app.Watched) error { return w.Answer(w.Calls[0].ID, watch.Done, now) },
		func(w *app.Watched) error { return w.Snooze(w.Calls[1].ID, now.Add(9*time.Minute)) },
		func(w *app.Watched) error {
			return w.Replan(ctx, []bake.Stage{{Minutes: 30, OvenC: 190, Cover: "foil"}, {Minutes: 35, OvenC: 170}}, now)
		},
		func(w *app.Watched) error { w.Speed = 10; return w.OpenDoor(2, now) },
		func(w *app.Watched) error { w.Advance(time.Second); return nil },
		func(w *app.Watched) error {
			for _, c := range w.Calls {
				if c.Kind == watch.TakeOut && c.State == watch.Waiting {
					return w.Answer(c.ID, watch.Done, now.Add(40*time.Minute))
				}
			}
			return errors.New("nobody takes it out")
		},
		func(w *app.Watched) error { w.End(now.Add(time.Hour)); return nil },
		func(w *app.Watched) error { w.Reopen(); return nil },
	}
	for i, step := range steps {
		var after watch.Bake
		kept, err := s.UpdateWatched(ctx, demo.Kitchen.ID, w.ID, func(w *app.Watched) error {
			err := step(w)
			after = w.Bake
			return err
		})
		if err != nil {
			t.Fatalf("step %d: %v", i, err)
		}
		sameBake(t, i, kept.Bake, after)
	}
}

func sameBake(t *testing.T, step int, got, want watch.Bake) {
	t.Helper()
	if !got.StartedAt.Equal(want.StartedAt) || !got.OutAt.Equal(want.OutAt) || !got.EndedAt.Equal(want.EndedAt) ||
		got.Probe != want.Probe ||
		got.Speed != want.Speed {
		t.Errorf(
			"step %d: kept as %v %v %v %q %d, was %v %v %v %q %d",
			step,
			got.StartedAt,
			got.OutAt,
			got.EndedAt,
			got.Probe,
			got.Speed,
			want.StartedAt,
			want.OutAt,
			want.EndedAt,
			want.Probe,
			want.Speed,
		)
	}
	if len(got.Stages) != len(want.Stages) || len(got.Doors) != len(want.Doors) ||
		len(got.Readings) != len(want.Readings) ||
		(got.Estimate == nil) != (want.Estimate == nil) {
		t.Errorf(
			"step %d: %d stages, %d doors, %d readings of %d, %d, %d",
			step,
			len(got.Stages),
			len(got.Doors),
			len(got.Readings),
			len(want.Stages),
			len(want.Doors),
			len(want.Readings),
		)
	}
	type told struct {
		kind    watch.Kind
		due     int64
		state   watch.State
		at      int64
		snoozes int
		by      watch.CallID
		says    string
	}
	count := func(b watch.Bake) map[told]int {
		out := map[told]int{}
		for _, c := range b.Calls {
			out[told{c.Kind, c.DueAt.UnixMicro(), c.State, c.AnsweredAt.UnixMicro(), c.Snoozes, c.WithdrawnBy, c.Text.String()}]++
		}
		return out
	}
	g, w := count(got), count(want)
	for c, n := range w {
		if g[c] != n {
			t.Errorf("step %d: %+v is kept %d times, not %d", step, c, g[c], n)
		}
	}
	if len(got.Calls) != len(want.Calls) {
		t.Errorf("step %d: %d calls, not %d", step, len(got.Calls), len(want.Calls))
	}
}

func TestTwoTabletsAnswerOnce(t *testing.T) {
	s, w := inTheOven(t)
	var lift watch.Call
	for _, c := range w.Calls {
		if c.Kind == watch.Uncover {
			lift = c
		}
	}
	var all sync.WaitGroup
	for i, as := range []watch.State{watch.Done, watch.Skipped, watch.Done, watch.Skipped} {
		all.Go(func() {
			_, err := s.UpdateWatched(t.Context(), demo.Kitchen.ID, w.ID, func(w *app.Watched) error {
				return w.Answer(lift.ID, as, wentIn.Add(time.Duration(31+i)*time.Minute))
			})
			if err != nil {
				t.Error(err)
			}
		})
	}
	all.Wait()
	answered := 0
	for _, c := range look(t, s, 1).Calls {
		if !c.AnsweredAt.IsZero() {
			answered++
		}
	}
	if answered != 1 {
		t.Errorf("%d calls are answered", answered)
	}
}

// Two tablets change one dessert at the same moment, each something else: neither change is lost.
func TestNoChangeIsLost(t *testing.T) {
	s, w := inTheOven(t)
	const each = 12
	var all sync.WaitGroup
	for i := range each {
		for _, change := range []func(*app.Watched) error{
			func(w *app.Watched) error { return w.OpenDoor(1, wentIn.Add(time.Duration(i)*time.Minute)) },
			func(w *app.Watched) error { return w.Snooze(w.Calls[0].ID, wentIn.Add(time.Hour)) },
		} {
			all.Go(func() {
				if _, err := s.UpdateWatched(t.Context(), demo.Kitchen.ID, w.ID, change); err != nil {
					t.Error(err)
				}
			})
		}
	}
	all.Wait()
	now := look(t, s, 1)
	snoozes := 0
	for _, c := range now.Calls {
		snoozes += c.Snoozes
	}
	if len(now.Doors) != each || snoozes != each {
		t.Errorf("%d doors and %d snoozes of %d each", len(now.Doors), snoozes, each)
	}
}

func TestAFailedChangeKeepsNothing(t *testing.T) {
	s, w := inTheOven(t)
	broken := errors.New("broken off")
	_, err := s.UpdateWatched(t.Context(), demo.Kitchen.ID, w.ID, func(w *app.Watched) error {
		w.End(wentIn.Add(time.Hour))
		w.Calls = append(
			w.Calls,
			watch.Call{Kind: watch.Check, DueAt: wentIn, Text: message.New("Look"), State: watch.Waiting},
		)
		return broken
	})
	if !errors.Is(err, broken) {
		t.Errorf("%v", err)
	}
	if now := look(t, s, 1); len(now.Calls) != len(w.Calls) {
		t.Errorf("%d calls, not %d", len(now.Calls), len(w.Calls))
	}
	for _, kitchen := range []uuid.UUID{uuid.New(), uuid.Nil} {
		if _, err := s.UpdateWatched(
			t.Context(),
			kitchen,
			w.ID,
			func(*app.Watched) error { return nil },
		); !errors.Is(
			err,
			app.ErrNotFound,
		) {
			t.Errorf("another kitchen changes it: %v", err)
		}
	}
}

// Two tablets send the same at the same moment: it goes in once, and neither is refused.
func TestTheSameSentAtOnceIsOne(t *testing.T) {
	s, w := inTheOven(t)
	ctx := t.Context()
	began, err := watch.Start(ctx, w.Request, wentIn)
	if err != nil {
		t.Fatal(err)
	}
	const times, tablets = 40, 6
	for range times {
		again := app.Watched{ID: uuid.New(), Kitchen: demo.Kitchen.ID, Title: "Plum crisp", Bake: *began}
		errs := make(chan error, tablets)
		for range tablets {
			go func() { errs <- s.StartWatch(ctx, again) }()
		}
		for range tablets {
			if err := <-errs; err != nil {
				t.Fatal(err)
			}
		}
	}
	all, err := s.Watched(ctx, demo.Kitchen.ID)
	if err != nil || len(all) != times+1 {
		t.Fatalf("%d on the watch, %v", len(all), err)
	}
	for _, x := range all {
		if len(x.Calls) != len(began.Calls) {
			t.Errorf("%d calls, want %d", len(x.Calls), len(began.Calls))
		}
	}
}
