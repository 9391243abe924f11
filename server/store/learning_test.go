package store_test

import (
	"reflect"
	"testing"
	"time"

	"mabbin/core/larder"
	"mabbin/core/learn"
	"mabbin/server/demo"
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
		Parameters: []learn.PosteriorParameter{{Name: learn.Name{What: learn.Steam}, Mean: 0.1}},
		Covariance: [][]float64{{0.02}}, Bakes: 7,
	}
	if _, changed, err := s.SetLearnt(ctx, demo.Kitchen.ID, at, first, learnt); err != nil || !changed {
		t.Errorf("learnt more surely: %v, %v", changed, err)
	}
	again, changed, err := s.SetLearnt(ctx, demo.Kitchen.ID, at, first, learnt)
	if err != nil || changed || again.Version != 1 {
		t.Errorf("the same once more: %+v, %v, %v", again, changed, err)
	}
	if p, err := s.Posterior(ctx, demo.Kitchen.ID); err != nil || !reflect.DeepEqual(p, learnt) {
		t.Errorf("%+v, %v", p, err)
	}
	other := learn.Used{Bakes: 12, Factors: larder.Factors{Release: map[string]float64{"plum": 1.3}}}
	next, changed, err := s.SetLearnt(ctx, demo.Kitchen.ID, at, other, learn.Posterior{})
	if err != nil || !changed || next.Version != 2 {
		t.Errorf("others: %+v, %v, %v", next, changed, err)
	}
	now, err := s.Learnt(ctx, demo.Kitchen.ID)
	if err != nil || now.Version != 2 || now.Release["plum"] != 1.3 || len(now.Ovens) != 0 {
		t.Errorf("%+v, %v", now, err)
	}
}
