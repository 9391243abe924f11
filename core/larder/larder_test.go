package larder

import (
	"regexp"
	"slices"
	"testing"
)

// within is one column's range; what lies outside it is a slip in the table.
type within struct {
	column string
	v      float64
	lo, hi float64
}

func look(t *testing.T, key string, columns ...within) {
	t.Helper()
	for _, c := range columns {
		if !(c.v >= c.lo && c.v <= c.hi) {
			t.Errorf("%s: %s is %g, want %g to %g", key, c.column, c.v, c.lo, c.hi)
		}
	}
}

func TestFruitRowsAreWithinRange(t *testing.T) {
	colour := regexp.MustCompile(`^#[0-9A-F]{6}$`)
	for _, f := range Fruits.All() {
		look(
			t,
			f.Key,
			within{
				"water_pct",
				f.WaterPct,
				70,
				96,
			},
			within{"sugar_pct", f.SugarPct, 1, 18},
			within{"acid_pct", f.AcidPct, 0.05, 3},
			within{"pectin_eq_pct", f.PectinEqPct, 0, 0.4},
			within{"bulk_g_per_ml", f.BulkGPerML, 0.4, 0.8},
			within{"hand_packed_factor", f.HandPackedFactor, 1, 1.2},
			within{"default_cut_mm", f.DefaultCutMM, 3, 25},
			within{
				"small",
				f.SmallG,
				0.3,
				f.MediumG,
			},
			within{"medium", f.MediumG, f.SmallG, f.LargeG},
			within{"large", f.LargeG, f.MediumG, 3000},
			within{"yield_peeled", f.YieldPeeled, 0.3, f.YieldUnpeeled},
			within{"yield_unpeeled", f.YieldUnpeeled, 0.3, 1},
			within{"release_fresh", f.ReleaseFresh, 0.05, f.ReleaseFrozen},
			within{"release_frozen", f.ReleaseFrozen, 0.05, 0.8},
			within{"tender", f.TenderMin, 1, f.CollapseMin},
			within{"collapse", f.CollapseMin, f.TenderMin, 200},
			within{"water and sugar", f.WaterPct + f.SugarPct, 75, 100},
		)
		if !slices.Contains([]Precook{PrecookNone, PrecookAdvised, PrecookRequired}, f.Precook) {
			t.Errorf("%s: precook %q", f.Key, f.Precook)
		}
		if !colour.MatchString(f.JuiceColour) {
			t.Errorf("%s: juice colour %q", f.Key, f.JuiceColour)
		}
		hasBasis(t, f.Key, f.CompositionBasis)
	}
}

func TestIngredientRowsAddUp(t *testing.T) {
	for _, i := range Ingredients.All() {
		look(t, i.Key,
			within{"the parts together", i.WaterPct + i.FatPct + i.SugarPct + i.StarchPct + i.ProteinPct, 0, 101},
			within{"acid_pct", i.AcidPct, 0, 40}, within{"cup", i.CupG, 0, 350}, within{"tsp", i.TspG, 0, 8},
			within{"scooped", i.CupScoopedG, 0, 350}, within{"packed", i.CupPackedG, 0, 350})
		if i.Role == "" {
			t.Errorf("%s has no role", i.Key)
		}
		if i.CupG > 0 && i.TspG > 0 {
			look(t, i.Key, within{"48 teaspoons to the cup", i.TspG * 48 / i.CupG, 0.9, 1.6})
		}
		hasBasis(t, i.Key, i.Basis)
	}
}

func TestThickenersAreIngredients(t *testing.T) {
	for _, x := range Thickeners.All() {
		look(
			t,
			x.Key,
			within{"strength", x.Strength, 0.1, 1.5},
			within{"full_at_c", x.FullAtC, 60, 100},
			within{"hold_min", x.HoldMin, 0.5, 5},
			within{"factor_at_acid_2_5", x.FactorAtAcid, 0.5, 1},
			within{"over_boil_factor", x.OverBoil, 0.5, 1},
		)
		if _, ok := Ingredients.Get(x.Key); !ok {
			t.Errorf("%s is no ingredient: it has no composition", x.Key)
		}
		hasBasis(t, x.Key, x.Basis)
	}
}

func TestToppingRecipesAreMadeOfIngredients(t *testing.T) {
	for _, x := range Toppings.All() {
		if x.None() {
			continue
		}
		look(
			t,
			x.Key,
			within{"thickness", x.ThicknessMM, 2, 25},
			within{"density", x.DensityGPerML, 0.2, 1.4},
			within{"coverage", x.Coverage, 0.5, 1.1},
			within{
				"gap_share",
				x.GapShare,
				0,
				0.5,
			},
			within{"layers", x.Layers, 1, 3},
			within{"absorb", x.AbsorbGPerG, 0, 2},
			within{"rise", x.Rise, 0.5, 5},
			within{
				"first part",
				x.Parts[0].Pct,
				100,
				100,
			},
			within{"brown_rate", x.BrownRate, 0.5, 3},
			within{"water_pct", x.WaterPct, 5, 50},
		)
		madeOfIngredients(t, x.Key, x.Parts)
		hasBasis(t, x.Key, x.Basis)
	}
}

func TestBasesAndMaterials(t *testing.T) {
	for _, b := range Bases.All() {
		look(
			t,
			b.Key,
			within{"thickness", b.ThicknessMM, 0, 10},
			within{"density", b.DensityGPerML, 0, 1.3},
			within{"absorb", b.AbsorbGPerG, 0, 0.2},
		)
		hasBasis(t, b.Key, b.Basis)
		if (b.Key == "none") != (len(b.Parts) == 0) {
			t.Errorf("%s is made of %v", b.Key, b.Parts)
		}
		madeOfIngredients(t, b.Key, b.Parts)
	}
	for _, m := range Materials.All() {
		look(t, m.Key, within{"floor_mm", m.FloorMM, 0.05, 10}, within{"conductivity", m.ConductivityWMK, 0.5, 400},
			within{"heat capacity", m.ArealHeatJM2K, 100, 30000}, within{"emissivity", m.Emissivity, 0.1, 0.95})
	}
	glass, _ := Materials.Get("glass")
	iron, _ := Materials.Get("cast_iron")
	if !glass.Brittle() || iron.Brittle() {
		t.Error("glass cracks in cold water and cast iron does not")
	}
}

func madeOfIngredients(t *testing.T, key string, parts []Part) {
	t.Helper()
	for _, p := range parts {
		if _, ok := Ingredients.Get(p.Key); !ok {
			t.Errorf("%s: %q is no ingredient", key, p.Key)
		}
	}
}

func hasBasis(t *testing.T, key string, b Basis) {
	t.Helper()
	if !slices.Contains([]Basis{Composition, Handbook, Definition, Working}, b) {
		t.Errorf("%s: %q is no basis", key, b)
	}
}

func TestAcidWeakensOnlyAboveItsThreshold(t *testing.T) {
	corn, _ := Thickeners.Get("cornflour")
	for acid, want := range map[float64]float64{0: 1, 0.8: 1, 1.65: 0.9, 2.5: 0.8, 5: 0.8} {
		if got := corn.AcidFactor(acid); got < want-1e-9 || got > want+1e-9 {
			t.Errorf("cornflour at %g %% acid keeps %g, want %g", acid, got, want)
		}
	}
}

func TestCheckLabelIsNotNone(t *testing.T) {
	powder, _ := Ingredients.Get("baking_powder")
	chocolate, _ := Ingredients.Get("dark_chocolate")
	flour, _ := Ingredients.Get("wheat_flour")
	if !powder.AllergenOnPack || len(powder.Allergens) != 0 {
		t.Errorf("baking powder: %+v", powder)
	}
	if !chocolate.AllergenOnPack || !slices.Equal(chocolate.OnLabel, []string{"milk", "soya"}) ||
		len(chocolate.Allergens) != 0 {
		t.Errorf("dark chocolate: %q, on the label %q", chocolate.Allergens, chocolate.OnLabel)
	}
	if puff, _ := Ingredients.Get(
		"puff_pastry",
	); !puff.AllergenOnPack || !slices.Equal(puff.Allergens, []string{"gluten-wheat"}) ||
		!slices.Equal(puff.OnLabel, []string{"milk"}) {
		t.Errorf("puff pastry: %q, on the label %q", puff.Allergens, puff.OnLabel)
	}
	if flour.AllergenOnPack || !slices.Equal(flour.Allergens, []string{"gluten-wheat"}) {
		t.Errorf("flour: %+v", flour)
	}
}

func TestABrokenTableIsRefused(t *testing.T) {
	r := row{cells: map[string]string{"water_pct": "8x"}}
	if r.number("water_pct"); r.err == nil {
		t.Error("8x was taken for a number")
	}
	r = row{cells: map[string]string{}}
	if r.text("name"); r.err == nil {
		t.Error("a missing column was not noticed")
	}
	for _, bad := range []string{"butter", "butter x", "; butter 5"} {
		if _, err := ParseParts(bad); err == nil {
			t.Errorf("%q was taken for a recipe", bad)
		}
	}
}

// What may be done with a thing follows from what it is: the page offers it so.
func TestWhereThingsGo(t *testing.T) {
	for key, want := range map[string]bool{"plum": true, "peach": true, "apple_sharp": false, "quince": false, "gooseberry": false} {
		if f, ok := Fruits.Get(key); !ok || f.KeepsSkin() != want {
			t.Errorf("%s keeps its skin: %v, want %v", key, f.KeepsSkin(), want)
		}
	}
	for key, want := range map[string]struct {
		with    WithFruit
		topping bool
	}{
		"lemon_juice": {Poured, false}, "whole_milk": {Poured, false}, "ginger": {Tossed, true},
		"butter": {Tossed, true}, "wheat_flour": {"", true}, "cornflour": {"", false}, "puff_pastry": {"", false},
	} {
		if i, ok := Ingredients.Get(key); !ok || i.WithFruit() != want.with || i.ForTopping() != want.topping {
			t.Errorf("%s goes with the fruit as %q, into a topping: %v", key, i.WithFruit(), i.ForTopping())
		}
	}
	for key, want := range map[string]bool{"crumble_classic": true, "biscuit_rolled": false, "praline_nut": false} {
		if x, ok := Toppings.Get(key); !ok || x.Layered() != want {
			t.Errorf("%s may lie between the fruit: %v", key, x.Layered())
		}
	}
}
