package learn

import (
	"strings"
	"testing"
	"time"

	"mabbin/core/bake"
	"mabbin/core/larder"
)

// A finding says what differs, by how much, and what it is worth.
func TestFindingsInSentences(t *testing.T) {
	before, after, near := 6.0, 2.0, 5.9
	oven := &OvenEstimate{AsOffsetC: -11.2, SD: 0.4}
	used := func(kind ParameterKind, key string, estimate float64) Correction {
		return Correction{
			ParameterName: ParameterName{
				kind,
				key,
			},
			Prior:    1,
			Estimate: estimate,
			SD:       0.05,
			Bakes:    5,
			Used:     true,
			Unit:     UnitSteps,
			Before:   &before,
			After:    &after,
		}
	}
	cool := used(OvenOffset, "range", 0)
	cool.Prior, cool.Unit, cool.asOffset = -8, UnitMinutes, oven
	same := used(Release, "plum", 1.001)
	few := used(Release, "fig", 0.5)
	few.Bakes = 2
	one := used(Release, "quince", 0.5)
	one.Bakes = 1
	off := used(Release, "pear", 0.5)
	off.Off = true
	slight := used(Softness, "damson", 1.2)
	slight.After = &near
	slight.Unit = UnitMinutes
	slight.Before = &before
	result := &Result{Corrections: []Correction{
		cool,
		used(Release, "raspberry", 0.8),
		used(Release, larder.AllFruit, 1.25),
		used(Release, "apple_firm|3", 0.7),
		used(
			Thickener,
			"cornflour",
			0.6,
		),
		used(Colour, "crumble_classic", 1.5),
		used(Steam, "", 0.8),
		slight,
		same,
		few,
		one,
		off,
		used(HeatFactor, "range", 1.1),
		used(OvenOffset, "gone", 5),
		{ParameterName: ParameterName{Release, "lime"}},
	}}
	var text []string
	for _, f := range result.Findings(map[string]string{"range": "Old range"}, nil) {
		text = append(text, string(f.State)+": "+f.Of.String()+": "+f.Text.String())
	}
	all := strings.Join(text, "\n")
	for _, want := range []string{
		"Old range is 11 C cooler than its dial (±1 C; entered: 8 C cooler), from 5 bakes; predictions of the time were 6 min off without it, 2 min with it.",
		"releases 20 % (±5 %) less juice, from 5 bakes; the predicted juice or colour was 6 steps off without it, 2 with it.",
		"All fruit releases 25 % (±5 %) more juice",
		"of “3” releases 30 % (±5 %) less juice",
		"thickens 40 % (±5 %) less",
		"browns 50 % (±5 %) faster",
		"The steam is 20 % (±5 %) less",
		"softens 20 % (±5 %) faster, from 5 bakes; it improves the predictions of other bakes.",
		"5 bakes, in agreement with the tables.",
		"2 bakes: too few for a result.",
		"1 bake: too few for a result.",
	} {
		if !strings.Contains(all, want) {
			t.Errorf("no %q in\n%s", want, all)
		}
	}
	if len(text) != 12 {
		t.Errorf("%d findings:\n%s", len(text), all)
	}
	for i, state := range []State{StateUsed, StateOff, StateAgrees, StateFew} {
		if at := strings.Index(all, string(state)+": "); at < 0 || i > 0 && at < strings.Index(all, string(StateUsed)+": ") {
			t.Errorf("%q stands at %d", state, at)
		}
	}
}

func TestAFindingIsSwitched(t *testing.T) {
	for _, c := range []struct {
		is   State
		off  bool
		want State
	}{
		{StateUsed, true, StateOff},
		{StateOff, false, StateUsed},
		{StateUsed, false, StateUsed},
		{StateAgrees, true, StateAgrees},
		{StateFew, false, StateFew},
	} {
		if got := (Finding{State: c.is}).WithEnabled(c.off).State; got != c.want {
			t.Errorf("%s, off %v: %s, want %s", c.is, c.off, got, c.want)
		}
	}
}

func TestSummaries(t *testing.T) {
	for want, s := range map[string]PredictionScore{
		"No usable bakes are logged yet: the ranges are those of kitchens in general.":    {},
		"2 bakes: too few for a result. The ranges are those of kitchens in general.":     {Bakes: 2},
		"From 9 bakes. Note when the middle bubbles: that improves the predictions most.": {Bakes: 9},
		"From 9 bakes. 7 of 8 recorded times were within the predicted 90 % range.":       {Bakes: 9, Held: Coverage{Of: 8, P90: 7}},
	} {
		if got := s.Summary().String(); got != want {
			t.Errorf("%q, want %q", got, want)
		}
	}
	if got := (Change{Change: -9.6, SD: 2.2}).Text("Old range").String(); got !=
		"Old range has run about 10 C (±2 C) cooler since then. Was it changed or repaired?" {
		t.Error(got)
	}
}

func TestPreferences(t *testing.T) {
	day := func(d int) time.Time { return time.Date(2026, 3, d, 0, 0, 0, 0, time.UTC) }
	s := Preferences{
		Off:     []ParameterName{{Release, "plum"}},
		Changed: []ChangedOven{{"range", day(20)}, {"range", day(10)}, {"deck", day(5)}},
	}
	if err := CheckPreferences(s); err != nil {
		t.Error(err)
	}
	if !s.IsOff(Release, "plum") || s.IsOff(Softness, "plum") {
		t.Error("what is off")
	}
	for d, want := range map[int]string{5: "range@2026-03-10", 10: "range@2026-03-20", 15: "range@2026-03-20", 20: "range"} {
		if got := s.OvenKey("range", day(d)); got != want {
			t.Errorf("on day %d the oven is %q, want %q", d, got, want)
		}
	}
	bad := Preferences{Off: []ParameterName{{"luck", ""}}, Changed: []ChangedOven{{"range", time.Time{}}}}
	if err := CheckPreferences(bad); err == nil || !strings.Contains(err.Error(), "/off/0/what") ||
		!strings.Contains(err.Error(), "/changed/0/since") {
		t.Errorf("%v", err)
	}
}

func TestCorrectionsInASetting(t *testing.T) {
	u := Used{Steam: 0.9, Ovens: map[string]UsedOven{"range": {OffsetC: -11, HeatFactor: 1.1, OffByC: 4}}}
	s := u.In(bake.Setting{OvenOffsetC: -8}, "range")
	if s.OvenOffsetC != -11 || s.HeatFactor != 1.1 || s.OffByC != 4 || s.SteamFactor != 0.9 || s.Factors != nil {
		t.Errorf("%+v", s)
	}
	if s := u.In(bake.Setting{OvenOffsetC: -8}, ""); s.OvenOffsetC != -8 || s.SteamFactor != 0.9 {
		t.Errorf("an unknown oven: %+v", s)
	}
	near, far := u, u
	near.Ovens = map[string]UsedOven{"range": {OffsetC: -11.05, HeatFactor: 1.102, OffByC: 4.05}}
	far.Ovens = map[string]UsedOven{"range": {OffsetC: -11.2, HeatFactor: 1.1, OffByC: 4}}
	if !u.Same(near) || u.Same(far) || u.Same(Used{Steam: 0.9}) {
		t.Error("what counts as the same")
	}
	u.Release = map[string]float64{"plum": 1.2}
	if s := u.In(bake.Setting{}, ""); s.Factors == nil || s.Factors.Release["plum"] != 1.2 {
		t.Errorf("%+v", s.Factors)
	}
}
