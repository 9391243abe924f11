package watch

import (
	"encoding/json"
	"errors"
	"testing"
	"time"

	"mabbin/core/bake"
	"mabbin/core/fault"
)

// Whatever happens on a watch, in whatever order: a call is answered or waits, never both; what is out of the oven is
// out; the stages can be baked; and all of it can be written down and read again.
func FuzzEvents(f *testing.F) {
	for _, story := range [][]byte{
		{0, 0, 1, 0, 0, 1, 2, 0, 3, 1}, {5, 5, 6, 6, 6, 6, 6, 6, 6, 0, 4}, {4, 40, 1, 8, 0, 2, 0}, {7, 9, 7, 8, 10, 3, 0, 9}, {},
	} {
		f.Add(story)
	}
	first, err := Start(f.Context(), crumble(), noon)
	if err != nil {
		f.Fatal(err)
	}
	begun, err := json.Marshal(first)
	if err != nil {
		f.Fatal(err)
	}
	f.Fuzz(func(t *testing.T, story []byte) {
		if len(story) > 40 {
			t.Skip() // right, and too long to wait for
		}
		var b Bake
		if err := json.Unmarshal(begun, &b); err != nil {
			t.Fatal(err)
		}
		keep(&b)
		now := noon
		for i := 0; i+1 < len(story); i += 2 {
			now = now.Add(time.Duration(int8(story[i+1])) * 20 * time.Second) // the clock may be put back
			id := b.Calls[int(story[i+1])%len(b.Calls)].ID
			var err error
			switch story[i] % 12 {
			case 0:
				err = b.Answer(id, Done, now)
			case 1:
				err = b.Answer(id, Skipped, now)
			case 2:
				err = b.Undo(id)
			case 3:
				err = b.Snooze(id, now.Add(3*time.Minute))
			case 4:
				err = b.Replan(t.Context(), []bake.Stage{{Minutes: float64(story[i+1]) - 5, OvenC: 180}}, now)
			case 5:
				b.SetProbe([]Place{NoProbe, InMiddle, InAir}[int(story[i+1])%3])
			case 6:
				err = b.Read(t.Context(), float64(story[i+1]), now, inGeneral)
			case 7:
				err = b.OpenDoor(float64(story[i+1]), now)
			case 8:
				b.Speed = Speed(1 + int(story[i+1])%60)
				b.Advance(time.Second)
			case 9:
				b.End(now)
			case 10:
				b.Reopen()
			case 11:
				_, err = b.Rescue(Trouble([]string{"dark_raw", "boils_over", "pale", "oven_off"}[int(story[i+1])%4]), 4, now)
			}
			keep(&b)
			if err != nil && !errors.As(err, new(fault.Faults)) && !errors.Is(err, ErrNoCall) && !errors.Is(err, ErrOut) {
				t.Fatalf("event %d: %T %v", i/2, err, err)
			}
			holds(t, &b)
		}
		raw, err := json.Marshal(b)
		var again Bake
		if err == nil {
			err = json.Unmarshal(raw, &again)
		}
		if err != nil || len(again.Calls) != len(b.Calls) {
			t.Fatalf("it can't be written down and read: %v", err)
		}
	})
}

// holds checks what is always so of a bake.
func holds(t *testing.T, b *Bake) {
	t.Helper()
	taken, ids := 0, map[CallID]bool{}
	for _, c := range b.Calls {
		if (c.State == Done || c.State == Skipped) == c.AnsweredAt.IsZero() {
			t.Fatalf("call %s is %s, answered %v", c.Kind, c.State, c.AnsweredAt)
		}
		if ids[c.ID] {
			t.Fatalf("two calls are %v", c.ID)
		}
		ids[c.ID] = true
		if takenOut(c) {
			taken++
		}
	}
	if out := !b.OutAt.IsZero(); taken > 1 || out != (taken == 1) || out && b.OutAt.Before(b.StartedAt) {
		t.Fatalf("it was taken out %d times, and is out since %v", taken, b.OutAt)
	}
	if err := bake.CheckStages(b.Stages); err != nil {
		t.Fatal(err)
	}
}
