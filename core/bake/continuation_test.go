package bake

import (
	"math"
	"slices"
	"testing"
)

func TestABakeGoesOnFromWhereItStands(t *testing.T) {
	q := PlanRequest{Bake: crumble(), TenderMin: 5, MushMin: 60}
	done := []Stage{{Minutes: 30, OvenC: 200}}
	ways := q.BakeOn(
		done,
		[]Way{
			{Stage: Stage{OvenC: 250, Heating: "fan", Cover: "none"}},
			{Stage: Stage{OvenC: 200, Cover: "foil"}},
			{Stage{OvenC: 190}, true},
		},
		1,
	)
	open, foil, then := ways[0], ways[1], ways[2]
	if len(then.Stages) != 3 || then.Stages[2].Cover != "foil" || len(then.Unmet) > 0 {
		t.Errorf("foil as soon as it is golden: %+v", then)
	}
	if len(foil.Unmet) > 0 || foil.End.Colour > burntTop || foil.Minutes < 5 {
		t.Errorf("golden after half an hour, then foil: %+v", foil)
	}
	if len(open.Unmet) <= len(foil.Unmet) {
		t.Errorf("golden after half an hour, and left open: %+v", open)
	}
	if !slices.Equal(foil.Stages[:1], done) || foil.Stages[1].Minutes != foil.Minutes {
		t.Errorf("%+v", foil.Stages)
	}
}

func TestAProbeFindsTheOven(t *testing.T) {
	q := PlanRequest{Bake: crumble()}
	done := []Stage{{Minutes: 35, OvenC: 180}}
	for _, off := range []float64{-22, -6, 0, 14} {
		r := q.Bake
		r.OvenOffsetC, r.Stages = off, done
		a, err := Run(r)
		if err != nil {
			t.Fatal(err)
		}
		var seen []Point
		for i, m := range a.Curves.Minute {
			noise := []float64{0.8, -1.1, 0.3, -0.4, 1.2}[i%5]
			if i%7 != 3 { // it drops out now and then
				seen = append(seen, Point{m, a.Curves.MiddleC[i] + noise})
			}
		}
		seen = append(seen, Point{20, 178}) // and it slipped into the air once
		got, ok, err := q.Fit(done, seen)
		if err != nil || !ok || math.Abs(got.C-off) > 4 || got.GiveOrTakeC > 6 {
			t.Errorf("an oven that is %g C off is found to be %+v", off, got)
		}
	}
	if _, ok, err := q.Fit(done, []Point{{1, 20}}); ok || err != nil {
		t.Error("one reading is taken for a curve")
	}
}
