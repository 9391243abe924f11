package larder

import (
	"slices"
	"strings"
)

// Style is a kind of dessert with everything that the rules do differently for it. Nothing compares the key of a style:
// a rule asks for the trait that it depends on.
type Style struct {
	Key string
	// Fill is how much fruit it takes, by its rule: the share of the dish that the raw layers fill, the share of the lined
	// shell that the fruit alone fills, or grams per cm2 of floor.
	Fill     float64
	FillRule FillRule
	// KeepMM is the space below the rim that has to stay free when it boils, mm.
	KeepMM    float64
	SugarPct  float64 // usual sugar of the filling, % of its weight, before the fruit's acid is counted
	UsualSet  float64 // usual thickness of the cold juice, as a score
	SteamGCM2 float64 // usual loss as steam, g per cm2 of rim
	PortionG  float64 // a standard portion as served, g
	// DepthLow and DepthHigh are the usual range of the topping's depth, as a share of the raw fruit's depth.
	DepthLow, DepthHigh float64
	Families            []string // of the toppings that are usual on it
	Topping             string   // key of the usual topping
	Base                string   // key of the usual base; "" for none
	Greasing            string   // usual preparation of the dish
	UsualHeatC          float64  // usual oven temperature, C
	KeepDays            int      // days that it keeps, covered at room temperature
	Slices              bool     // it is cut, and has to set
	CutInPan            bool     // it is cut into bars in its pan
	ServedCold          bool     // it is usually served cold
	OneDough            bool     // one dough is usually both base and topping
	Custard             bool     // a custard may be poured over its fruit
	Layered             bool     // crumbs and fruit in layers, the sugar between them
	Pours               Pours    // when liquid is poured over the fruit; "" where it is tossed with the fruit
	CrustPushedUnder    bool     // its crust is pushed into the juice during the bake
	Lid                 bool     // a pastry topping is a lid with vents
	// Assembly, Done and Rest are sentences of its method: how it is put together, how a baker sees that it is done, and
	// what follows.
	Assembly, Done, Rest string
	Basis                Basis
}

// FillRule is what decides how much fruit a style takes.
type FillRule string

// The rules.
const (
	FillStack FillRule = "stack" // the raw layers of base, fruit and topping, as a share of the dish
	FillShell FillRule = "shell" // the fruit alone, as a share of the lined dish
	FillFloor FillRule = "floor" // grams per cm2 of the floor
)

// Pours is when liquid is poured over the fruit in the dish.
type Pours string

// The times.
const (
	PourBetween    Pours = "between" // between the layers
	PourBeforeLast Pours = "last"    // before the last crumbs
)

func parseStyle(r *row) Style {
	return Style{
		Key:              r.text("key"),
		Fill:             r.number("fill"),
		FillRule:         FillRule(r.text("fill_rule")),
		KeepMM:           r.number("keep_mm"),
		SugarPct:         r.number("sugar_pct"),
		UsualSet:         r.number("usual_set"),
		SteamGCM2:        r.number("steam_g_cm2"),
		PortionG:         r.number("portion_g"),
		DepthLow:         r.number("depth_low"),
		DepthHigh:        r.number("depth_high"),
		Families:         strings.Split(r.text("families"), ";"),
		Topping:          r.text("topping"),
		Base:             r.text("base"),
		Greasing:         r.text("greasing"),
		UsualHeatC:       r.number("usual_heat_c"),
		KeepDays:         int(r.number("keep_days")),
		Slices:           r.yes("slices"),
		CutInPan:         r.yes("cut_in_pan"),
		ServedCold:       r.yes("served_cold"),
		OneDough:         r.yes("one_dough"),
		Custard:          r.yes("custard"),
		Layered:          r.yes("layered"),
		Pours:            Pours(r.text("pours_over")),
		CrustPushedUnder: r.yes("crust_pushed_under"),
		Lid:              r.yes("lid"),
		Assembly:         r.text("assembly"),
		Done:             r.text("done"),
		Rest:             r.text("rest"),
		Basis:            Basis(r.text("basis")),
	}
}

// Takes reports whether a family of toppings is usual on the style.
func (s Style) Takes(family string) bool { return slices.Contains(s.Families, family) }

// StyleOf returns the style of a key, the zero style for one that is not known.
func StyleOf(key string) Style {
	s, _ := Styles.Get(key)
	return s
}
