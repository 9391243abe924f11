package watch

import (
	"errors"
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"mabbin/core/bake"
	"mabbin/core/fault"
)

// foilFirst is a crumble of fifty minutes, the first thirty under foil.
func foilFirst(t *testing.T) *Bake {
	q := crumble()
	q.Setting.Stages = []bake.Stage{{Minutes: 30, OvenC: 190, Cover: "foil"}, {Minutes: 20, OvenC: 190}}
	return begun(t, q)
}

// call is the call of a kind that was not withdrawn.
func call(t *testing.T, b *Bake, k Kind) Call {
	t.Helper()
	for _, c := range b.Calls {
		if c.Kind == k && c.State != Withdrawn {
			return c
		}
	}
	t.Fatalf("no call %s in %+v", k, b.Calls)
	return Call{}
}

func must(t *testing.T, err error) {
	t.Helper()
	if err != nil {
		t.Fatal(err)
	}
}

func TestWhoAnswersFirstStays(t *testing.T) {
	b := foilFirst(t)
	lift := call(t, b, Uncover)
	if !lift.DueAt.Equal(minute(30)) {
		t.Errorf("the foil is lifted at %v", lift.DueAt)
	}
	must(t, b.Answer(lift.ID, Skipped, minute(31)))
	must(t, b.Answer(lift.ID, Done, minute(32)))
	if c := call(t, b, Uncover); c.State != Skipped || !c.AnsweredAt.Equal(minute(31)) {
		t.Errorf("answered again it becomes %+v", c)
	}
	must(t, b.Undo(lift.ID))
	must(t, b.Undo(lift.ID)) // two tablets take it back
	if c := call(t, b, Uncover); c.State != Waiting || !c.AnsweredAt.IsZero() {
		t.Errorf("taken back it is %+v", c)
	}
	for _, err := range []error{b.Answer(CallID{9}, Done, noon), b.Undo(CallID{9}), b.Snooze(CallID{9}, noon)} {
		if !errors.Is(err, ErrNoCall) {
			t.Errorf("a call that is not there: %v", err)
		}
	}
}

func TestTakenOutLateTheRestMovesAndComesBack(t *testing.T) {
	b := foilFirst(t)
	must(t, b.Answer(call(t, b, Uncover).ID, Done, minute(30)))
	out, ready, turn := call(t, b, TakeOut), call(t, b, Ready), call(t, b, Turn)
	must(t, b.Answer(out.ID, Done, minute(57)))
	if !b.OutAt.Equal(minute(57)) || !call(t, b, Ready).DueAt.Equal(ready.DueAt.Add(7*time.Minute)) {
		t.Errorf("out at %v, ready at %v", b.OutAt, call(t, b, Ready).DueAt)
	}
	if err := b.Answer(turn.ID, Done, minute(58)); !errors.Is(err, ErrNoCall) {
		t.Errorf("it is out, and may still be turned: %v", err)
	}
	if err := b.Replan(t.Context(), b.Stages, minute(58)); !errors.Is(err, ErrOut) {
		t.Errorf("it is out, and gets other stages: %v", err)
	}
	if err := b.OpenDoor(2, minute(58)); !errors.Is(err, ErrOut) {
		t.Errorf("it is out, and its oven's door opens: %v", err)
	}
	must(t, b.Undo(out.ID))
	if !b.OutAt.IsZero() || !call(t, b, Ready).DueAt.Equal(ready.DueAt) || call(t, b, Turn).State != Waiting {
		t.Errorf("in again: out at %v, ready at %v, %+v", b.OutAt, call(t, b, Ready).DueAt, b.Calls)
	}
	if c := call(t, b, Uncover); c.State != Done {
		t.Errorf("what was done before is %+v", c)
	}
}

func TestASnoozedCallIsLaterAndNeverSooner(t *testing.T) {
	b := foilFirst(t)
	turn := call(t, b, Turn)
	must(t, b.Snooze(turn.ID, turn.DueAt.Add(4*time.Minute)))
	must(t, b.Snooze(turn.ID, turn.DueAt.Add(time.Minute)))
	if c := call(t, b, Turn); !c.DueAt.Equal(turn.DueAt.Add(4*time.Minute)) || c.Snoozes != 2 {
		t.Errorf("%+v", c)
	}
}

// A dish that was turned, or should have been, is not turned again because its bake takes longer.
func TestADishIsTurnedOnce(t *testing.T) {
	longer := []bake.Stage{{Minutes: 30, OvenC: 190, Cover: "foil"}, {Minutes: 40, OvenC: 190}}
	turns := func(b *Bake) (n int) {
		for _, c := range b.Calls {
			if c.Kind == Turn && c.State != Withdrawn {
				n++
			}
		}
		return n
	}
	b := foilFirst(t)
	must(t, b.Replan(t.Context(), longer, minute(5)))
	keep(b)
	if turns(b) != 1 {
		t.Errorf("not yet due, moved: %d turns", turns(b))
	}
	must(t, b.Answer(call(t, b, Turn).ID, Done, minute(6)))
	must(t, b.Replan(t.Context(), longer, minute(7)))
	if turns(b) != 1 {
		t.Errorf("turned early: %d turns", turns(b))
	}
}

func TestBadStagesAreRefusedAndChangeNothing(t *testing.T) {
	b := foilFirst(t)
	before := len(b.Calls)
	err := b.Replan(t.Context(), []bake.Stage{{Minutes: 20, OvenC: 900}}, minute(10))
	var f fault.Faults
	if !errors.As(err, &f) || f[0].Pointer != "/stages/0/oven_c" || len(b.Calls) != before || len(b.Stages) != 2 {
		t.Errorf("%v, %d calls, %v", err, len(b.Calls), b.Stages)
	}
}

func TestAForgottenDessertIsNotRescued(t *testing.T) {
	b := foilFirst(t)
	if _, err := b.Rescue(Pale, 0, noon.Add(400*24*time.Hour)); err == nil || !strings.Contains(err.Error(), "9600 h") {
		t.Errorf("400 days later: %v", err)
	}
	b.SetProbe(InMiddle)
	must(t, b.Read(t.Context(), 80, noon.Add(48*time.Hour), inGeneral))
	if len(b.Readings) != 0 {
		t.Errorf("two days later its probe is read: %v", b.Readings)
	}
}

// Whatever is done to a bake, in whatever order: nothing panics, a call is answered or it is not, and what is out has
// no call left that belongs to the oven.
func TestAnyOrderOfEventsLeavesAConsistentBake(t *testing.T) {
	for seed := range uint64(40) {
		r := rand.New(rand.NewPCG(seed, 3))
		b := foilFirst(t)
		at := noon
		for range 30 {
			at = at.Add(time.Duration(r.IntN(7)-1) * time.Minute) // the clock is put back now and then
			id := b.Calls[r.IntN(len(b.Calls))].ID
			var err error
			switch r.IntN(7) {
			case 0, 1:
				err = b.Answer(id, Done, at)
			case 2:
				err = b.Answer(id, Skipped, at)
			case 3:
				err = b.Undo(id)
			case 4:
				err = b.Snooze(id, at.Add(3*time.Minute))
			case 5:
				err = b.Replan(t.Context(), []bake.Stage{{Minutes: 40 + float64(r.IntN(30)), OvenC: 180}}, at)
			case 6:
				b.End(at)
				b.Reopen()
			}
			if err != nil && !errors.Is(err, ErrNoCall) && !errors.Is(err, ErrOut) {
				t.Fatalf("seed %d: %v", seed, err)
			}
			keep(b)
			if !b.OutAt.IsZero() && b.OutAt.Before(b.StartedAt) {
				t.Fatalf("seed %d: out before it was in", seed)
			}
			ends := 0
			for _, c := range b.Calls {
				if answered := c.State == Done || c.State == Skipped; answered == c.AnsweredAt.IsZero() {
					t.Fatalf("seed %d: %+v", seed, c)
				}
				if c.Kind == TakeOut && c.State != Withdrawn {
					ends++
				}
				if !b.OutAt.IsZero() && c.State == Waiting && c.Kind.inOven() {
					t.Fatalf("seed %d: it is out, and %s waits", seed, c.Kind)
				}
			}
			if ends < 1 {
				t.Fatalf("seed %d: nobody takes it out: %+v", seed, b.Calls)
			}
		}
	}
}
