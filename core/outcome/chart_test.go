package outcome

import (
	"testing"

	"mabbin/core/bake"
)

func TestWhereABakeStands(t *testing.T) {
	p := PointOf("spoonable", bake.Words{Juice: "runny", Top: "dark"}, &ActualBake{Minutes: 52, PlannedMin: 45})
	if *p.SetSteps != -2 || *p.ColourSteps != 1 || *p.PlannedMin != 45 || *p.HappenedMin != 52 {
		t.Errorf("%+v", p)
	}
	if got, want := p.Text.String(), "planned 45 min, actual 52 min; juice runny, planned spoonable; top dark"; got != want {
		t.Errorf("%q, want %q", got, want)
	}
	if p := PointOf("spoonable", bake.Words{}, nil); p.SetSteps != nil || p.PlannedMin != nil || !p.Text.IsZero() {
		t.Errorf("of what was not told: %+v", p)
	}
	if p := PointOf(
		"mush",
		bake.Words{Juice: "runny"},
		&ActualBake{Minutes: 0, PlannedMin: 45},
	); p.SetSteps != nil ||
		p.PlannedMin != nil {
		t.Errorf("of what can't be: %+v", p)
	}
}
