package outcome

import (
	"math"
	"strings"
	"testing"

	"mabbin/core/bake"
	"mabbin/core/fault"
)

func ptr[T any](v T) *T { return &v }

func TestDetailsAreChecked(t *testing.T) {
	cases := map[string]struct {
		told Details
		want string
	}{
		"nothing": {Details{}, ""},
		"all of it": {
			Details{
				JuiceHot:  "saucy",
				Base:      "crisp",
				Sweetness: "right",
				RimMin:    ptr(31.0),
				MiddleMin: ptr(44.0),
				BeforeG:   ptr(2410.0),
				AfterG:    ptr(2360.0),
				Again:     ptr(true),
			},
			"",
		},
		"words":        {Details{JuiceHot: "wet", Base: "hard", Sweetness: "nice"}, "/t/juice_hot /t/base /t/sweetness"},
		"heavier":      {Details{BeforeG: ptr(1000.0), AfterG: ptr(1200.0)}, "/t/after_g"},
		"not a number": {Details{RimMin: ptr(math.NaN()), MiddleMin: ptr(-1.0)}, "/t/rim_min /t/middle_min"},
	}
	for name, c := range cases {
		var f fault.Faults
		c.told.Check("/t", &f)
		var got []string
		for _, x := range f {
			got = append(got, x.Pointer)
		}
		if strings.Join(got, " ") != c.want {
			t.Errorf("%s: %v", name, f)
		}
	}
	if g, ok := (Details{BeforeG: ptr(2410.0), AfterG: ptr(2360.0)}).LostG(); !ok || g != 50 {
		t.Errorf("%g g lost", g)
	}
	if _, ok := (Details{AfterG: ptr(2360.0)}).LostG(); ok {
		t.Error("weighed once, and something was lost")
	}
}

func TestHowFarTheMiddleWasOff(t *testing.T) {
	h := ActualBake{
		Minute:   []float64{0, 10, 20},
		MiddleC:  []float64{18, 30, 50},
		Readings: []bake.Point{{Minute: 5, C: 26}, {Minute: 10, C: 34}, {Minute: 15, C: 43}},
	}
	if off, ok := h.Off(); !ok || off != 3 {
		t.Errorf("%g K off", off)
	}
	if _, ok := (ActualBake{}).Off(); ok {
		t.Error("without a probe it is off")
	}
}
