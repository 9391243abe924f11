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
		!strings.HasSuffix(long.Verdict.Summary.String(), " min the top gets dark.") {
		t.Errorf("%s (%+v)", long.Verdict.Summary, long.Verdict.Mend)
	}
	short := crisp(false, long.Verdict.Mend.Change.Stages...)
	if short.Verdict.Expected.Top != "golden" || short.Verdict.Mend != nil {
		t.Errorf("with less: %s", short.Verdict.Summary)
	}
	// what is offered was tried: it is golden with it
	frozen := crisp(true, Stage{Minutes: 88, OvenC: 180})
	v := frozen.Verdict
	if !v.Right || v.Mend == nil {
		t.Fatalf("%s (%+v)", v.Summary, v.Mend)
	}
	if with := crisp(true, v.Mend.Change.Stages...); with.Verdict.Expected.Top != "golden" || !with.Verdict.Right {
		t.Errorf("%s: %s", v.Summary, with.Verdict.Summary)
	}
}
