package bake

import (
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
