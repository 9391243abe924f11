package store_test

import (
	"reflect"
	"testing"
	"time"

	"mabbin/app"
	"mabbin/core/larder"
	"mabbin/core/learn"
	"mabbin/server/demo"

	"github.com/google/uuid"
)

// Corrections are kept by version: the same ones again are no new version, and nobody's are the tables.
func TestCorrectionsAreKeptByVersion(t *testing.T) {
	s := full(t)
	ctx := t.Context()
	at := time.Date(2026, 10, 18, 9, 0, 0, 0, time.UTC)
	first, err := s.Learnt(ctx, demo.Kitchen.ID)
	if err != nil || first.Version != 1 || first.Release["plum"] != 1.2 || len(first.Ovens) != 1 {
		t.Fatalf("%+v, %v", first, err)
	}
	learnt := learn.Posterior{
		Parameters: []learn.PosteriorParameter{{ParameterName: learn.ParameterName{Kind: learn.Steam}, Mean: 0.1}},
		Covariance: [][]float64{{0.02}}, Bakes: 7,
	}
	if _, changed, err := s.SetLearnt(
		ctx,
		demo.Kitchen.ID,
		at,
		2,
		first,
		learnt,
		app.NoFindings(),
	); err != nil ||
		!changed {
		t.Errorf("learnt more surely: %v, %v", changed, err)
	}
	again, changed, err := s.SetLearnt(ctx, demo.Kitchen.ID, at, 2, first, learnt, app.NoFindings())
	if err != nil || changed || again.Version != 1 {
		t.Errorf("the same once more: %+v, %v, %v", again, changed, err)
	}
	if p, err := s.Posterior(ctx, demo.Kitchen.ID); err != nil || !reflect.DeepEqual(p, learnt) {
		t.Errorf("%+v, %v", p, err)
	}
	other := learn.Used{Bakes: 12, Factors: larder.Factors{Release: map[string]float64{"plum": 1.3}}}
	next, changed, err := s.SetLearnt(ctx, demo.Kitchen.ID, at, 2, other, learn.Posterior{}, app.NoFindings())
	if err != nil || !changed || next.Version != 2 {
		t.Errorf("others: %+v, %v, %v", next, changed, err)
	}
	now, err := s.Learnt(ctx, demo.Kitchen.ID)
	if err != nil || now.Version != 2 || now.Release["plum"] != 1.3 || len(now.Ovens) != 0 {
		t.Errorf("%+v, %v", now, err)
	}
}

// What a log teaches is that of a count of its changes: each change of the log, or of what it is read with, makes it
// old.
func TestALogThatChangedIsLearntFromAgain(t *testing.T) {
	s := full(t)
	ctx := t.Context()
	page, _, err := s.Bakes(ctx, demo.Kitchen.ID, app.BakeFilter{}, nil, 1)
	if err != nil {
		t.Fatal(err)
	}
	ovens, err := s.Ovens(ctx, demo.Kitchen.ID)
	if err != nil {
		t.Fatal(err)
	}
	current := func() bool {
		t.Helper()
		state, err := s.LearningState(ctx, demo.Kitchen.ID)
		if err != nil {
			t.Fatal(err)
		}
		was := state.Current()
		if _, _, err := s.SetLearnt(
			ctx, demo.Kitchen.ID, wentIn, state.Changes, learn.Used{}, learn.Posterior{}, app.NoFindings(),
		); err != nil {
			t.Fatal(err)
		}
		return was
	}
	current()
	if !current() {
		t.Error("nothing has changed, and it counts as old")
	}
	other := page[0]
	other.ID, other.Batch = uuid.New(), ""
	for what, change := range map[string]func() error{
		"a bake": func() error { _, err := s.AddBake(ctx, demo.Kitchen.ID, other, nil); return err },
		"a correction": func() error {
			_, err := s.CorrectBake(ctx, demo.Kitchen.ID, page[0].ID, uuid.New(), app.Outcome{Note: "Again"}, wentIn, "")
			return err
		},
		"an oven":        func() error { return s.SetOven(ctx, demo.Kitchen.ID, ovens[0], "") },
		"own figures":    func() error { return s.SetOwn(ctx, demo.Kitchen.ID, larder.OfFruit, "plum", larder.OwnRow{}) },
		"no own figures": func() error { return s.DropOwn(ctx, demo.Kitchen.ID, larder.OfFruit, "plum") },
		"what it says": func() error {
			_, err := s.UpdateLearningPreferences(ctx, demo.Kitchen.ID, "", func(x learn.Preferences) (learn.Preferences, error) { return x, nil })
			return err
		},
	} {
		if what == "no own figures" {
			if err := s.SetOwn(ctx, demo.Kitchen.ID, larder.OfFruit, "plum", larder.OwnRow{}); err != nil {
				t.Fatal(err)
			}
			current()
		}
		if err := change(); err != nil {
			t.Fatalf("%s: %v", what, err)
		}
		if current() {
			t.Errorf("%s has changed, and what was learnt before counts as current", what)
		}
	}
}
