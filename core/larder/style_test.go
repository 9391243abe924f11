package larder

import (
	"slices"
	"testing"
)

// Every row of styles.csv names toppings and bases that exist, and has figures that a dessert can have.
func TestStyles(t *testing.T) {
	if Styles.Keys()[0] != "crumble" || len(Styles.All()) < 7 {
		t.Fatalf("the styles are %v", Styles.Keys())
	}
	for _, s := range Styles.All() {
		top, ok := Toppings.Get(s.Topping)
		if !ok || !s.Takes(top.Family) {
			t.Errorf("%s: its usual topping is %q of the family %q", s.Key, s.Topping, top.Family)
		}
		for _, family := range s.Families {
			if !slices.ContainsFunc(Toppings.All(), func(x Topping) bool { return x.Family == family }) {
				t.Errorf("%s: no topping is of the family %q", s.Key, family)
			}
		}
		if _, ok := Bases.Get(s.Base); s.Base != "" && !ok {
			t.Errorf("%s: there is no base %q", s.Key, s.Base)
		}
		if !slices.Contains([]FillRule{FillStack, FillShell, FillFloor}, s.FillRule) ||
			!slices.Contains([]Pours{"", PourBetween, PourBeforeLast}, s.Pours) ||
			!slices.Contains([]string{"none", "butter", "sling"}, s.Greasing) {
			t.Errorf("%s: %q, %q, %q", s.Key, s.FillRule, s.Pours, s.Greasing)
		}
		for name, x := range map[string][3]float64{
			"fill": {s.Fill, 0.5, 2}, "keep_mm": {s.KeepMM, 1, 10}, "sugar_pct": {s.SugarPct, 5, 30},
			"usual_set": {s.UsualSet, 1, 9}, "steam_g_cm2": {s.SteamGCM2, 0.01, 0.5}, "portion_g": {s.PortionG, 40, 400},
			"depth_low": {s.DepthLow, 0.01, s.DepthHigh}, "depth_high": {s.DepthHigh, s.DepthLow, 2},
			"usual_heat_c": {s.UsualHeatC, 140, 230}, "keep_days": {float64(s.KeepDays), 1, 7},
		} {
			if x[0] < x[1] || x[0] > x[2] {
				t.Errorf("%s: %s is %g, want %g to %g", s.Key, name, x[0], x[1], x[2])
			}
		}
		if s.CutInPan && (!s.Slices || s.Base == "") {
			t.Errorf("%s is cut in its pan, and has no base or does not slice", s.Key)
		}
		if s.Assembly == "" || s.Done == "" || s.Rest == "" ||
			!slices.Contains([]Basis{Handbook, Working, Composition, Definition}, s.Basis) {
			t.Errorf("%s: a sentence or its basis is missing", s.Key)
		}
	}
}
