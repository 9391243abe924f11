package sell_test

import (
	"math"
	"testing"

	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/sell"
)

// A sum by hand: 100 g of butter, 100 g of sugar and 200 g of apple, 350 g at the table, in portions of 175 g.
func TestNutritionByHand(t *testing.T) {
	a := balance.Answer{
		Portions: balance.Portions{FinishedG: 350, EachG: 175, Count: 2},
		Ticket: []balance.Bowl{
			{Lines: []balance.Line{{Key: "apple_firm", G: 200}}},
			{Lines: []balance.Line{{Key: "butter", G: 100}, {Key: "white_sugar", G: 100}, {Key: "water", G: 50}}},
		},
	}
	want := map[sell.NutrientKey][2]float64{
		"energy_kj": {1465, 2563}, "energy_kcal": {350, 613}, "fat": {23, 41}, "saturates": {15, 26},
		"carbohydrate": {34, 60}, "sugars": {34, 60}, "fibre": {1.1, 1.9}, "protein": {0.4, 0.8}, "salt": {0.01, 0.02},
	}
	n := sell.NutritionOf(balance.Request{}, &a)
	if len(n.Rows) != len(want) {
		t.Errorf("%d rows", len(n.Rows))
	}
	for _, r := range n.Rows {
		if w := want[r.Key]; math.Abs(r.Per100-w[0]) > 1e-9 || math.Abs(r.Portion-w[1]) > 1e-9 {
			t.Errorf("%s: %v of 100 g and %v of a portion, want %v", r.Key, r.Per100, r.Portion, w)
		}
	}
	a.Ledger.DrainedSugarG = 35
	less := sell.NutritionOf(balance.Request{}, &a)
	if less.Rows[5].Per100 != 24 || len(less.Text) != 2 {
		t.Errorf("35 g of sugar went with the juice: %+v", less.Rows[5])
	}
	// the kitchen's own figures, of a row of its own, too
	own := &larder.Own{Fruits: map[string]larder.OwnRow{
		"own-x": {CopyOf: "apple_firm", Name: "Yard apple", Values: map[string]float64{"sugar_pct": 20}},
	}}
	a.Ticket[0].Lines[0].Key, a.Ledger.DrainedSugarG = "own-x", 0
	if sweet := sell.NutritionOf(
		balance.Request{Own: own},
		&a,
	); sweet.Rows[5].Per100 != 40 ||
		sweet.Rows[6].Per100 != 1.1 {
		t.Errorf("a sweeter apple: %+v", sweet.Rows)
	}
	a.Ticket[1].Lines = append(a.Ticket[1].Lines, balance.Line{Key: "mixed_spice", Name: "Mixed spice", G: 3})
	if e := sell.NutritionOf(balance.Request{}, &a).Estimated; len(e) != 1 || e[0] != "Mixed spice" {
		t.Errorf("estimated: %v", e)
	}
}

// Every fruit and ingredient is reported of, and nothing is more than its whole.
func TestNutrientsOfEveryRow(t *testing.T) {
	var own *larder.Own
	keys := append(larder.Fruits.Keys(), larder.Ingredients.Keys()...)
	for _, key := range keys {
		n, ok := own.Nutrients(key)
		if !ok || n.Basis == "" {
			t.Errorf("%s: nothing is known", key)
		}
		sum := n.FatG + n.SugarG + n.StarchG + n.FibreG + n.ProteinG + n.AcidG + n.AlcoholG + n.SaltG
		if sum > 106 || n.SaturatesG > n.FatG {
			t.Errorf("%s: %.1f g in 100 g, %.1f g saturates of %.1f g fat", key, sum, n.SaturatesG, n.FatG)
		}
	}
	if _, ok := own.Nutrients("moonshine"); ok {
		t.Error("moonshine is in no table")
	}
}
