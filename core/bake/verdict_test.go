package bake

import (
	"strings"
	"testing"

	"mabbin/core/balance"
	"mabbin/core/dish"
)

// A dark top meets every clock, and a baker who gets one complains of it in the log: the verdict says how it stays
// golden.
func TestADarkTopIsSaidWithWhatKeepsItGolden(t *testing.T) {
	crisp := func(frozen bool, stages ...Stage) *DessertAnswer {
		return stationsOf(t, func(q *DessertRequest) {
			q.Request.Dish = dish.Dish{Shape: dish.Square, LengthCM: 23, DepthCM: 5, Material: "thin_metal"}
			q.Request.Style, q.Request.Topping.Key = "crisp", "crisp_oat_nut"
			q.Request.Fruits = []balance.FruitInput{{Key: "cherry_sour", Share: 1, Frozen: frozen}}
			q.Setting.Heating, q.Setting.Stages = "fan", stages
		})
	}
	slow := Stage{Minutes: 70, OvenC: 165, Heating: "fan"}
	long := crisp(false, slow)
	if !long.Verdict.Right || long.Verdict.Mend == nil ||
		!strings.HasSuffix(long.Verdict.Summary.String(), " min less is enough.") {
		t.Errorf("%s (%+v)", long.Verdict.Summary, long.Verdict.Mend)
	}
	short := crisp(false, long.Verdict.Mend.Change.Stages...)
	if short.Verdict.Expected.Top != "golden" || short.Verdict.Mend != nil {
		t.Errorf("with less: %s", short.Verdict.Summary)
	}
	frozen := crisp(true, slow) // any less, and the middle does not bubble
	if v := frozen.Verdict; !v.Right || v.Mend != nil ||
		!strings.HasSuffix(v.Summary.String(), "Foil near the end keeps it golden.") {
		t.Errorf("%s (%+v)", v.Summary, v.Mend)
	}
}
