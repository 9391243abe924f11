package oven

import (
	"errors"
	"math"
	"strings"
	"testing"

	"mabbin/core/fault"
)

func TestAnOvenIsMeasured(t *testing.T) {
	cases := map[string]struct {
		trial     Trial
		off, sure float64
		says      string
	}{
		"a thermometer":            {Trial{Readings: []Reading{{180, 195}}}, 15, 3, "15 C hotter"},
		"an oven that swings":      {Trial{Readings: []Reading{{180, 150}, {180, 180}}}, -15, 15, "30 C apart"},
		"sugar melts at 195":       {Trial{Melt: &Melt{190, 195}}, -7, 6, "7 C cooler"},
		"sugar melts as it should": {Trial{Melt: &Melt{183, 188}}, 0, 6, "matches its dial"},
		"both agree": {
			Trial{Readings: []Reading{{190, 180}, {190, 184}}, Melt: &Melt{190, 200}},
			-8,
			3,
			"8 C cooler",
		},
	}
	for name, c := range cases {
		m, err := Measure(c.trial)
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		if math.Abs(m.OffsetC-c.off) > 1 || math.Abs(m.GiveOrTakeC-c.sure) > 1 || !strings.Contains(m.Text.String(), c.says) {
			t.Errorf("%s: %+v", name, m)
		}
	}
}

func TestABadTrialNamesItsFields(t *testing.T) {
	cases := map[string]Trial{
		"/readings":          {},
		"/readings/0/set_c":  {Readings: []Reading{{20, 180}}},
		"/readings/1/read_c": {Readings: []Reading{{180, 180}, {180, math.NaN()}}},
		"/melt/at_c":         {Melt: &Melt{190, 185}},
	}
	for pointer, trial := range cases {
		_, err := Measure(trial)
		var f fault.Faults
		if !errors.As(err, &f) || f[0].Pointer != pointer {
			t.Errorf("%s: %v", pointer, err)
		}
	}
	var f fault.Faults
	Oven{Kind: "sun", Heating: "x", OffsetC: 100, GiveOrTakeC: -1, Dial: "k", Runners: 40}.Check("", &f)
	Oven{Kind: Camp, Heating: "conventional"}.Check("/camp", &f)
	Fire{Wind: "storm"}.Check("/fire", &f)
	if len(f) != 9 {
		t.Errorf("%d wrong fields: %v", len(f), f)
	}
}

func TestCoalsFollowSizeHeatAndWeather(t *testing.T) {
	calm := Fire{DiameterCM: 30.5} // twelve inches
	usual := calm.Coals(175)
	if usual != (Coals{Above: 16, Below: 8}) {
		t.Errorf("twelve inches at 175 C take %+v, not 16 above and 8 below", usual)
	}
	if hot := calm.Coals(205); hot != (Coals{Above: 18, Below: 10}) {
		t.Errorf("at 205 C it takes %+v: one more above and below for each 15 C", hot)
	}
	windy := Fire{DiameterCM: 30.5, Wind: "windy", Cold: true, Wet: true}.Coals(175)
	small := Fire{DiameterCM: 20}.Coals(175)
	if windy.Above <= usual.Above+4 || small.Above >= usual.Above || small.Below < 2 {
		t.Errorf("windy and cold %+v, small %+v", windy, small)
	}
	tend := calm.Tend([]float64{30, 40}, []float64{175, 205})
	if len(tend.Coals) != 2 || len(tend.TurnAt) != 4 || len(tend.RenewAt) != 1 || tend.RenewAt[0] != 45 ||
		!strings.Contains(tend.Cautions[0].String(), "carbon monoxide") {
		t.Errorf("%+v", tend)
	}
}

// Two pots share the coals between them; lumps are judged by eye and hand, and a hotter pot sooner by the hand.
func TestLumpsAndTwoPots(t *testing.T) {
	one := Fire{DiameterCM: 30.5}
	two := Fire{DiameterCM: 30.5, Stacked: true, Fuel: Lumps}
	a, b := one.Tend([]float64{40}, []float64{175}), two.Tend([]float64{40}, []float64{200})
	if a.ByEye || a.Coals[0].Between != 0 || !strings.Contains(a.Hand.String(), "6 to 8 seconds") {
		t.Errorf("%+v", a)
	}
	if !b.ByEye || b.Coals[0].Between != b.Coals[0].Above || !strings.Contains(b.Hand.String(), "4 to 6 seconds") ||
		len(b.Ready) != len(a.Ready)+1 {
		t.Errorf("%+v", b)
	}
}

func TestHowSureAnOvenIs(t *testing.T) {
	for want, o := range map[float64]Oven{UnknownC: {Kind: Indoor}, 4: {Kind: Indoor, GiveOrTakeC: 4}, CoalsC: {Kind: Camp, GiveOrTakeC: 4}} {
		if got := o.OffBy(); got != want {
			t.Errorf("%+v is off by %g, not %g", o, got, want)
		}
	}
}
