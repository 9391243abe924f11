package larder

import (
	"fmt"
	"strconv"
	"strings"
)

func parseFruit(r *row) Fruit {
	return Fruit{
		Key: r.text("key"), Name: r.text("name"), Group: r.text("group"),
		WaterPct: r.number("water_pct"), SugarPct: r.number("sugar_pct"), AcidPct: r.number("acid_pct"),
		PectinEqPct: r.number("pectin_eq_pct"), BulkGPerML: r.number("bulk_g_per_ml"),
		HandPackedFactor: r.number("hand_packed_factor"), DefaultCutMM: r.number("default_cut_mm"),
		SmallG: r.number("as_bought_small_g"), MediumG: r.number("as_bought_medium_g"), LargeG: r.number("as_bought_large_g"),
		YieldPeeled: r.number("yield_peeled"), YieldUnpeeled: r.number("yield_unpeeled"),
		ReleaseFresh: r.number("release_fresh"), ReleaseFrozen: r.number("release_frozen"),
		TenderMin: r.number("tender_min_at_8mm"), CollapseMin: r.number("collapse_min_at_8mm"),
		Precook: Precook(r.text("precook")), BrownsInAir: r.yes("browns_in_air"),
		CompositionBasis: Basis(r.text("composition_basis")), JuiceColour: r.text("juice_colour"),
	}
}

func parseIngredient(r *row) Ingredient {
	i := Ingredient{
		Key:  r.text("key"),
		Name: r.text("name"),
		Role: r.text("role"),
		CupG: r.number(
			"g_per_us_cup",
		),
		CupScoopedG: r.number("g_per_us_cup_scooped"),
		CupPackedG:  r.number("g_per_us_cup_packed"),
		TspG:        r.number("g_per_us_tsp"),
		PieceG:      r.number("piece_g"),
		WaterPct:    r.number("water_pct"),
		FatPct:      r.number("fat_pct"),
		SugarPct:    r.number("sugar_pct"),
		StarchPct:   r.number("starch_pct"),
		ProteinPct:  r.number("protein_pct"),
		AcidPct:     r.number("acid_pct"),
		Basis:       Basis(r.text("basis")),
	}
	// "gluten-wheat;check label (milk;soya)": what stands in the brackets is on the label.
	onLabel, inLabel := false, false
	for _, a := range strings.Split(r.text("allergens"), ";") {
		a = strings.TrimSpace(a)
		label, on := strings.CutPrefix(a, "check label")
		i.AllergenOnPack = i.AllergenOnPack || on || onLabel
		onLabel = onLabel && !strings.HasSuffix(a, ")") ||
			on && strings.Contains(label, "(") && !strings.HasSuffix(label, ")")
		a = strings.Trim(label, " ()")
		switch {
		case a == "":
		case on || inLabel:
			i.OnLabel = append(i.OnLabel, a)
		default:
			i.Allergens = append(i.Allergens, a)
		}
		inLabel = onLabel
	}
	return i
}

func parseThickener(r *row) Thickener {
	return Thickener{
		Key:          r.text("key"),
		Name:         r.text("name"),
		Strength:     r.number("strength"),
		FullAtC:      r.number("full_at_c"),
		HoldMin:      r.number("hold_min"),
		FactorAtAcid: r.number("factor_at_acid_2_5"),
		OverBoil:     r.number("over_boil_factor"),
		Freeze: r.text(
			"freeze",
		),
		Clarity: r.text("clarity"),
		Method:  r.text("how"),
		Avoid:   r.text("avoid"),
		Basis:   Basis(r.text("basis")),
	}
}

func parseTopping(r *row) Topping {
	var parts []Part
	var err error
	if written := r.text("bakers_pct"); written != "" {
		parts, err = ParseParts(written)
	}
	if err != nil {
		r.fail(err)
	}
	return Topping{
		Key:    r.text("key"),
		Name:   r.text("name"),
		Family: r.text("family"),
		Parts:  parts,
		HydrationPct: r.number(
			"hydration_pct",
		),
		ThicknessMM:     r.number("raw_thickness_mm"),
		DensityGPerML:   r.number("raw_density_g_ml"),
		Coverage:        r.number("coverage"),
		GapShare:        r.number("gap_share"),
		Layers:          r.number("layers"),
		AbsorbGPerG:     r.number("absorb_g_per_g"),
		Rise:            r.number("rise"),
		ConductivityWMK: r.number("conductivity_w_mk"),
		HeatJKgK:        r.number("heat_capacity_j_kgk"),
		WaterPct:        r.number("water_pct"),
		DrySkinMM:       r.number("dry_skin_mm"),
		BrownRate:       r.number("brown_rate"),
		LateMin:         r.number("late_min"),
		MakeAhead:       r.text("make_ahead"),
		Basis:           Basis(r.text("basis")),
	}
}

func parseFinish(r *row) Finish {
	parts, err := ParseParts(r.text("parts"))
	if err != nil {
		r.fail(err)
	}
	return Finish{
		Key: r.text("key"), Name: r.text("name"), When: r.text("when"), GPerDM2: r.number("g_per_dm2"), Parts: parts,
		ColourFactor: r.number("colour_factor"), Looks: r.text("looks"), Basis: Basis(r.text("basis")),
	}
}

func parseBase(r *row) Base {
	return Base{
		Key:   r.text("key"),
		Name:  r.text("name"),
		Parts: baseParts(r),
		ThicknessMM: r.number(
			"raw_thickness_mm",
		),
		DensityGPerML: r.number("raw_density_g_ml"),
		UpTheSides:    r.yes("up_the_sides"),
		AbsorbGPerG:   r.number("absorb_g_per_g"),
		WaterPct:      r.number("water_pct"),
		ParBakeC:      r.number("par_bake_c"),
		ParBakeWeightedMin: r.number(
			"par_bake_weighted_min",
		),
		ParBakeOpenMin: r.number("par_bake_open_min"),
		Basis:          Basis(r.text("basis")),
	}
}

// baseParts reads a base's own recipe, or takes that of the topping whose dough it is.
func baseParts(r *row) []Part {
	recipe := r.text("bakers_pct")
	if recipe == "" {
		return nil
	}
	if key, same := strings.CutPrefix(recipe, "as the topping "); same {
		t, ok := Toppings.Get(key)
		if !ok {
			r.fail(fmt.Errorf("no topping %q", key))
		}
		return t.Parts
	}
	parts, err := ParseParts(recipe)
	if err != nil {
		r.fail(err)
	}
	return parts
}

func parseMaterial(r *row) Material {
	return Material{
		Key: r.text(
			"key",
		),
		Name:            r.text("name"),
		FloorMM:         r.number("floor_mm"),
		ConductivityWMK: r.number("conductivity_w_mk"),
		ArealHeatJM2K: r.number(
			"areal_heat_capacity_j_m2k",
		),
		Emissivity: r.number("emissivity"),
		TypicalUse: r.text("typical_use"),
	}
}

// ParseParts reads "wheat_flour 100; butter 50".
func ParseParts(s string) ([]Part, error) {
	var parts []Part
	for _, p := range strings.Split(s, ";") {
		key, pct, ok := strings.Cut(strings.TrimSpace(p), " ")
		x, err := strconv.ParseFloat(pct, 64)
		if !ok || err != nil {
			return nil, fmt.Errorf("%q is not an ingredient and its percentage", p)
		}
		parts = append(parts, Part{key, x})
	}
	return parts, nil
}
