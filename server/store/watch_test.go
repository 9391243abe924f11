package store_test

import (
	"errors"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"

	"mabbin/core/bake"
	"mabbin/core/watch"
	"mabbin/server/demo"
	"mabbin/server/store"
	"mabbin/server/store/storetest"
)

var wentIn = time.Date(2026, 10, 12, 12, 0, 0, 0, time.UTC)

// inTheOven is a store with one dessert in the oven.
func inTheOven(t *testing.T) (*store.Store, store.Watched) {
	t.Helper()
	s := storetest.Open(t)
	if _, err := demo.Load(t.Context(), s, wentIn); err != nil {
		t.Fatal(err)
	}
	q := bake.DessertRequest{Request: request, Setting: bake.Setting{Stages: []bake.Stage{{Minutes: 30, OvenC: 190, Cover: "foil"}, {Minutes: 20, OvenC: 190}}}}
	began, err := watch.Start(q)
	if err != nil {
		t.Fatal(err)
	}
	id := uuid.New()
	for range 2 { // sent twice, it goes in once
		if err := s.StartWatch(t.Context(), demo.Kitchen.ID, store.Watched{ID: id, Title: "Plum crisp", Question: q, Answer: began.Answer, Stages: began.Answer.Plan.Stages, StartedAt: wentIn}, began.Calls); err != nil {
			t.Fatal(err)
		}
	}
	return s, look(t, s, 1)
}

// look is the one dessert of the watch.
func look(t *testing.T, s *store.Store, n int) store.Watched {
	t.Helper()
	all, err := s.Watched(t.Context(), demo.Kitchen.ID)
	if err != nil || len(all) != n {
		t.Fatalf("%d on the watch, %v", len(all), err)
	}
	if n == 0 {
		return store.Watched{}
	}
	return all[0]
}

func call(t *testing.T, w store.Watched, kind string) store.Call {
	t.Helper()
	for _, c := range w.Calls {
		if c.Kind == kind {
			return c
		}
	}
	t.Fatalf("no call %s in %+v", kind, w.Calls)
	return store.Call{}
}

func TestTwoTabletsAnswerOnce(t *testing.T) {
	s, w := inTheOven(t)
	lift := call(t, w, watch.Uncover)
	if !lift.DueAt.Equal(wentIn.Add(30 * time.Minute)) {
		t.Errorf("the foil is lifted at %v", lift.DueAt)
	}
	var both sync.WaitGroup
	for i, answer := range []string{store.Done, store.Skipped, store.Done} {
		both.Go(func() {
			if err := s.AnswerCall(t.Context(), demo.Kitchen.ID, w.ID, lift.ID, answer, wentIn.Add(time.Duration(31+i)*time.Minute)); err != nil {
				t.Error(err)
			}
		})
	}
	both.Wait()
	first := call(t, look(t, s, 1), watch.Uncover)
	if first.State == store.Waiting || first.AnsweredAt == nil {
		t.Fatalf("%+v", first)
	}
	if err := s.AnswerCall(t.Context(), demo.Kitchen.ID, w.ID, lift.ID, store.Skipped, wentIn.Add(time.Hour)); err != nil {
		t.Error(err)
	}
	if again := call(t, look(t, s, 1), watch.Uncover); again.State != first.State || !again.AnsweredAt.Equal(*first.AnsweredAt) {
		t.Errorf("answered again it becomes %+v", again)
	}
	if err := s.UndoCall(t.Context(), demo.Kitchen.ID, w.ID, lift.ID); err != nil {
		t.Error(err)
	}
	if back := call(t, look(t, s, 1), watch.Uncover); back.State != store.Waiting || back.AnsweredAt != nil {
		t.Errorf("taken back it is %+v", back)
	}
}

func TestTakenOutLateTheRestMoves(t *testing.T) {
	s, w := inTheOven(t)
	out, ready := call(t, w, watch.TakeOut), call(t, w, watch.Ready)
	at := out.DueAt.Add(7 * time.Minute)
	if err := s.AnswerCall(t.Context(), demo.Kitchen.ID, w.ID, out.ID, store.Done, at); err != nil {
		t.Fatal(err)
	}
	now := look(t, s, 1)
	if now.OutAt == nil || !now.OutAt.Equal(at) || !call(t, now, watch.Ready).DueAt.Equal(ready.DueAt.Add(7*time.Minute)) {
		t.Errorf("out at %v, ready at %v", now.OutAt, call(t, now, watch.Ready).DueAt)
	}
	for _, c := range now.Calls {
		if c.Kind == watch.Uncover || c.Kind == watch.Turn {
			t.Errorf("it is out, and still called is %s", c.Says)
		}
	}
	if err := s.UndoCall(t.Context(), demo.Kitchen.ID, w.ID, out.ID); err != nil {
		t.Fatal(err)
	}
	if now = look(t, s, 1); now.OutAt != nil || !call(t, now, watch.Ready).DueAt.Equal(ready.DueAt) {
		t.Errorf("in again, out at %v, ready at %v", now.OutAt, call(t, now, watch.Ready).DueAt)
	}
}

func TestSnoozedChangedAndEnded(t *testing.T) {
	s, w := inTheOven(t)
	ctx, k := t.Context(), demo.Kitchen.ID
	turn := call(t, w, watch.Turn)
	until := turn.DueAt.Add(4 * time.Minute)
	if err := s.SnoozeCall(ctx, k, w.ID, turn.ID, until); err != nil {
		t.Fatal(err)
	}
	if c := call(t, look(t, s, 1), watch.Turn); !c.DueAt.Equal(until) || c.Snoozes != 1 {
		t.Errorf("%+v", c)
	}
	stages := []bake.Stage{{Minutes: 30, OvenC: 190, Cover: "foil"}, {Minutes: 35, OvenC: 170}}
	next, err := watch.Changed(w.Question, w.Stages, stages, 40)
	if err != nil {
		t.Fatal(err)
	}
	if err := s.ChangeWatch(ctx, k, w.ID, stages, next.Calls, wentIn.Add(40*time.Minute)); err != nil {
		t.Fatal(err)
	}
	now := look(t, s, 1)
	if len(now.Stages) != 2 || now.Stages[1].OvenC != 170 || len(now.Calls) != len(next.Calls)+2 || call(t, now, watch.Uncover).State != store.Waiting || call(t, now, watch.Turn).State != store.Waiting || !call(t, now, watch.TakeOut).DueAt.Equal(wentIn.Add(65*time.Minute)) {
		t.Errorf("%+v, %+v", now.Stages, now.Calls)
	}
	other := uuid.New()
	if _, err := s.AddKitchen(ctx, store.Kitchen{ID: other, Name: "Other", Settings: demo.Kitchen.Settings}); err != nil {
		t.Fatal(err)
	}
	if err := s.EndWatch(ctx, other, w.ID, wentIn); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("another kitchen ends it: %v", err)
	}
	if err := s.EndWatch(ctx, k, w.ID, wentIn.Add(2*time.Hour)); err != nil {
		t.Fatal(err)
	}
	look(t, s, 0)
}

// A dish that was turned, or should have been, is not turned again because its bake takes longer.
func TestADishIsTurnedOnce(t *testing.T) {
	s, w := inTheOven(t)
	ctx := t.Context()
	longer := []bake.Stage{{Minutes: 30, OvenC: 190, Cover: "foil"}, {Minutes: 40, OvenC: 190}}
	next, err := watch.Changed(w.AsWentIn(), w.Stages, longer, 5)
	if err != nil {
		t.Fatal(err)
	}
	turns := func() (n int) {
		for _, c := range look(t, s, 1).Calls {
			if c.Kind == watch.Turn {
				n++
			}
		}
		return n
	}
	if err := s.ChangeWatch(ctx, demo.Kitchen.ID, w.ID, longer, next.Calls, wentIn.Add(5*time.Minute)); err != nil || turns() != 1 {
		t.Fatalf("not yet due, moved: %d turns, %v", turns(), err)
	}
	turn := call(t, look(t, s, 1), watch.Turn)
	if err := s.AnswerCall(ctx, demo.Kitchen.ID, w.ID, turn.ID, store.Done, wentIn.Add(6*time.Minute)); err != nil {
		t.Fatal(err)
	}
	if err := s.ChangeWatch(ctx, demo.Kitchen.ID, w.ID, longer, next.Calls, wentIn.Add(7*time.Minute)); err != nil || turns() != 1 {
		t.Errorf("turned early: %d turns, %v", turns(), err)
	}
}

// Two tablets send the same at the same moment: it goes in once, and neither is refused.
func TestTheSameSentAtOnceIsOne(t *testing.T) {
	s, w := inTheOven(t)
	ctx := t.Context()
	began, err := watch.Start(w.Question)
	if err != nil {
		t.Fatal(err)
	}
	const times, tablets = 40, 6
	for range times {
		again := w
		again.ID = uuid.New()
		errs := make(chan error, tablets)
		for range tablets {
			go func() { errs <- s.StartWatch(ctx, demo.Kitchen.ID, again, began.Calls) }()
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
