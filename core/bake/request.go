// Package bake is the heat model of one dish in an oven: two columns of cells, the water that leaves them, and the
// clocks that a baker looks at. Inside it is SI; requests and answers are in the baker's units.
package bake

import (
	"fmt"

	"mabbin/core/dish"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
	kiln "mabbin/core/oven"
)

// Request is one bake: what is in the dish, and the stages that it goes through.
type Request struct {
	Dish        dish.Dish  `json:"dish"`
	Filling     Filling    `json:"filling"`
	Topping     *Topping   `json:"topping,omitempty"` // left out: bare
	Base        *Base      `json:"base,omitempty"`
	Thickener   *Thickener `json:"thickener,omitempty"` // left out: full at 90 C after 1 minute
	GapShare    *float64   `json:"gap_share,omitempty"` // of the topping; left out: 0.05
	Shelf       string     `json:"shelf,omitempty"`     // low, middle or high; left out: middle
	AltitudeM   float64    `json:"altitude_m,omitempty"`
	OvenOffsetC float64    `json:"oven_offset_c,omitempty"` // how much hotter the oven is than it says
	HeatFactor  float64    `json:"heat_factor,omitempty"`   // on convection and radiation in the oven; left out: 1
	SteamFactor float64    `json:"steam_factor,omitempty"`  // on the steam lost from the filling, as reported; left out: 1
	DishStartC  *float64   `json:"dish_start_c,omitempty"`  // left out: 18
	Stages      []Stage    `json:"stages"`
}

// Filling is the fruit with its juice, compacted.
type Filling struct {
	MassG           float64  `json:"mass_g"`
	StartC          *float64 `json:"start_c,omitempty"`           // left out: 18
	SetPct          *float64 `json:"set_pct,omitempty"`           // thickener, as cornflour, % of the juice; left out: 4
	JuiceSugarShare *float64 `json:"juice_sugar_share,omitempty"` // left out: 0.3
}

// Topping is what lies on the fruit.
type Topping struct {
	ThicknessMM     float64  `json:"thickness_mm"`
	DensityGPerML   float64  `json:"density_g_ml"`
	ConductivityWMK float64  `json:"conductivity_w_mk"`
	HeatJKgK        float64  `json:"heat_capacity_j_kgk"`
	WaterPct        float64  `json:"water_pct"`
	DrySkinMM       float64  `json:"dry_skin_mm,omitempty"` // left out: all of it gives its water up
	BrownRate       *float64 `json:"brown_rate,omitempty"`  // left out: 1
	StartC          *float64 `json:"start_c,omitempty"`     // left out: 8
}

// Base is the dough on the floor.
type Base struct {
	ThicknessMM float64  `json:"thickness_mm"`
	WaterPct    *float64 `json:"water_pct,omitempty"` // left out: 20
	StartC      *float64 `json:"start_c,omitempty"`   // left out: 18
	// ParBaked is a base that was baked before: it has a part of its water left, and its clock has begun.
	ParBaked bool `json:"par_baked,omitempty"`
}

// Thickener is when the filling's thickener has done its work.
type Thickener struct {
	FullAtC float64 `json:"full_at_c"`
	HoldMin float64 `json:"hold_min"`
}

// Stage is a stretch of the bake with one setting.
type Stage struct {
	Minutes float64 `json:"minutes"`
	OvenC   float64 `json:"oven_c"`
	// conventional, fan, bottom, rack, fridge or freezer; left out: conventional
	Heating string `json:"heating,omitempty"`
	Cover   string `json:"cover,omitempty"` // none, foil, lid, parchment or rim; left out: none
	// Tight is foil or parchment that is crimped all round; left out: it lies loose.
	Tight      bool   `json:"tight,omitempty"`
	Shelf      string `json:"shelf,omitempty"` // left out: the bake's
	AddTopping bool   `json:"add_topping,omitempty"`
	PushUnder  bool   `json:"push_under,omitempty"`
	Turn       bool   `json:"turn,omitempty"` // no effect in the model: a call to the baker
}

// setting is how a way of heating exchanges heat.
type setting struct {
	hc           float64 // W/m2K
	below, above float64 // factors on radiation, in addition to the shelf's
	oven         bool
}

var heatings = map[string]setting{
	"": {10, 1, 1, true}, "conventional": {10, 1, 1, true}, "fan": {28, 1, 1, true}, "bottom": {10, 1.4, 0.6, true},
	"rack": {5, 1, 1, false}, "fridge": {6, 1, 1, false}, "freezer": {8, 1, 1, false},
}

// coverEps are the emissivities of covers; the rim's is foil.
var coverEps = map[string]float64{"foil": 0.15, "lid": 0.6, "parchment": 0.90, rimCover: 0.15}

// rimCover is foil over the rim alone.
const rimCover = "rim"

// shelves are the factors on radiation from below and from above.
var shelves = map[string][2]float64{"": {1, 1}, "middle": {1, 1}, "low": {1.3, 0.8}, "high": {0.8, 1.3}}

const (
	mostStages  = 40
	mostMinutes = 48 * 60 // with what it stands and cools
	// mostOvenMinutes is how long a dessert may be in an oven: what a forecast costs grows with it, and none takes longer.
	mostOvenMinutes = 8 * 60
)

// Check finds every wrong field. It is nil or fault.Faults.
func Check(r Request) error {
	var f fault.Faults
	r.Dish.Check("/dish", &f)
	if _, ok := larder.Materials.Get(r.Dish.Material); !ok {
		f.Add("/dish/material", fault.NoSuch(message.New("dish material"), r.Dish.Material))
	}
	f.Range("/filling/mass_g", r.Filling.MassG, 10, 60000, "g")
	optional(r.Filling.StartC, "/filling/start_c", -30, 105, "C", &f)
	optional(r.Filling.SetPct, "/filling/set_pct", 0, 60, "%", &f)
	optional(r.Filling.JuiceSugarShare, "/filling/juice_sugar_share", 0, 0.6, "", &f)
	if t := r.Topping; t != nil {
		f.Range("/topping/thickness_mm", t.ThicknessMM, 0, 100, "mm")
		f.Range("/topping/density_g_ml", t.DensityGPerML, 0.05, 2, "g/ml")
		f.Range("/topping/conductivity_w_mk", t.ConductivityWMK, 0.02, 5, "W/mK")
		f.Range("/topping/heat_capacity_j_kgk", t.HeatJKgK, 500, 5000, "J/kgK")
		f.Range("/topping/water_pct", t.WaterPct, 0, 90, "%")
		f.Range("/topping/dry_skin_mm", t.DrySkinMM, 0, 100, "mm")
		optional(t.BrownRate, "/topping/brown_rate", 0, 10, "", &f)
		optional(t.StartC, "/topping/start_c", -30, 105, "C", &f)
	}
	if b := r.Base; b != nil {
		f.Range("/base/thickness_mm", b.ThicknessMM, 0.5, 40, "mm")
		optional(b.WaterPct, "/base/water_pct", 0, 60, "%", &f)
		optional(b.StartC, "/base/start_c", -30, 105, "C", &f)
	}
	if t := r.Thickener; t != nil {
		f.Range("/thickener/full_at_c", t.FullAtC, 30, 120, "C")
		f.Range("/thickener/hold_min", t.HoldMin, 0, 120, "min")
	}
	optional(r.GapShare, "/gap_share", 0, 1, "", &f)
	f.AmongOrNone("", "/shelf", r.Shelf, kiln.Heights)
	f.In("", "/altitude_m", r.AltitudeM, kiln.AltitudeBounds)
	f.In("", "/oven_offset_c", r.OvenOffsetC, kiln.OffsetBounds)
	checkFactors("", r.HeatFactor, r.SteamFactor, &f)
	optional(r.DishStartC, "/dish_start_c", -30, 300, "C", &f)
	checkStages("/stages", r.Stages, &f)
	return f.Err()
}

// checkFactors notes factors that no oven has; 0 is left out.
func checkFactors(at string, heat, steam float64, f *fault.Faults) {
	if heat != 0 {
		f.In(at, "/heat_factor", heat, kiln.HeatFactorBounds)
	}
	if steam != 0 {
		f.In(at, "/steam_factor", steam, kiln.SteamFactorBounds)
	}
}

// steamedOffG is what the filling gave off, kg, as a kitchen finds it, g.
func (r *Request) steamedOffG(kg float64) float64 {
	if r.SteamFactor > 0 {
		kg *= r.SteamFactor
	}
	return kg * gramsPerKg
}

const gramsPerKg = 1000.0

// CheckStages finds every wrong field of stages. It is nil or fault.Faults.
func CheckStages(stages []Stage) error {
	var f fault.Faults
	checkDessertStages("", stages, &f)
	return f.Err()
}

// checkDessertStages checks the stages of a dessert, which is not in an oven for longer than a forecast can take.
func checkDessertStages(under string, stages []Stage, f *fault.Faults) {
	checkStages(under, stages, f)
	inOven := 0.0
	for _, s := range stages {
		if heatings[s.Heating].oven {
			inOven += s.Minutes
		}
	}
	if inOven > mostOvenMinutes {
		f.Add(under, message.New("take {sum} min in the oven: enter at most {most}", message.Number(inOven, 0),
			message.Count(mostOvenMinutes)))
	}
}

func checkStages(under string, stages []Stage, f *fault.Faults) {
	if !f.Length(under, "", len(stages), 1, mostStages) {
		return
	}
	sum := 0.0
	for i, s := range stages {
		at := fmt.Sprintf("%s/%d", under, i)
		if f.RangeAt(at, "/minutes", s.Minutes, 0, mostMinutes, "min") {
			sum += s.Minutes
		}
		f.RangeAt(at, "/oven_c", s.OvenC, -30, 350, "C")
		f.OneOfAt(at, "/heating", s.Heating, "", "conventional", "fan", "bottom", "rack", "fridge", "freezer")
		f.AmongOrNone(at, "/shelf", s.Shelf, kiln.Heights)
		f.AmongOrNone(at, "/cover", s.Cover, Covers)
	}
	if sum > mostMinutes {
		f.Add(
			under,
			message.New("take {sum} min in all: enter at most {most}", message.Number(sum, 0), message.Count(mostMinutes)),
		)
	}
}

func optional(p *float64, at string, lo, hi float64, unit string, f *fault.Faults) {
	if p != nil {
		f.Range(at, *p, lo, hi, unit)
	}
}

func or(p *float64, usual float64) float64 {
	if p == nil {
		return usual
	}
	return *p
}

// Covered is what lies on the dish in a stage; empty: nothing.
func (s Stage) Covered() string { return bareCover(s.Cover) }

// InOven says whether a stage is in the oven, and not on the rack or in the cold.
func (s Stage) InOven() bool { return heatings[s.Heating].oven }
