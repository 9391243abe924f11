package filling

// Ledger is the juice of one dessert, from what came in to what is left to hold. All in grams.
type Ledger struct {
	ReleasedG       float64 `json:"released_g"`
	WashWaterG      float64 `json:"wash_water_g"`
	AddedWaterG     float64 `json:"added_water_g"`
	DissolvedSugarG float64 `json:"dissolved_sugar_g"` // less the drained sugar
	PrecookOffG     float64 `json:"precook_off_g"`
	DrainedWaterG   float64 `json:"drained_water_g"`
	DrainedSugarG   float64 `json:"drained_sugar_g"` // reported once more, for information
	SteamedOffG     float64 `json:"steamed_off_g"`
	SoakedUpG       float64 `json:"soaked_up_g"`
	JuiceG          float64 `json:"juice_g"`
	PectinEqG       float64 `json:"pectin_eq_g"` // natural pectin, as cornflour
}

// Use is what the rest of the dessert does to the juice.
type Use struct {
	SteamedOffG float64
	DoughSoakG  float64 // what topping and base take up
}

// State is a filling at one weight of fruit and sugar: its ledger and what follows from it.
type State struct {
	Ledger
	FruitG        float64
	SugarG        float64
	AcidPct       float64
	JuiceSharePct float64 // of the filling at the table: what steamed off is gone
	MassG         float64 // in the dish before the bake, without the thickener
	LostShare     float64 // of the thickener, left behind with drained juice
}

// At follows the juice for fruitG of fruit, which must be above zero, and sugarG of added sugar.
func (f Filling) At(fruitG, sugarG float64, use Use) State {
	s := State{FruitG: fruitG, SugarG: sugarG, AcidPct: f.AcidPct(fruitG)}
	l := &s.Ledger
	l.ReleasedG = fruitG * f.mix.releasedWater
	l.PectinEqG = fruitG * f.mix.pectin
	l.AddedWaterG = f.added.water
	l.SteamedOffG = use.SteamedOffG
	if f.Washed {
		l.WashWaterG = fruitG * washWater
	}
	if f.Precook.Minutes > 0 {
		rate := coveredOffPerMin
		if f.Precook.Open {
			rate = openOffPerMin
		}
		l.PrecookOffG = fruitG * min(f.mix.cooked*rate*f.Precook.Minutes, driveOffMost*f.mix.cookedWater)
	}
	f.drain(&s)
	l.DissolvedSugarG = sugarG + f.added.sugar + fruitG*f.mix.releasedSugar - l.DrainedSugarG
	before := max(0, l.ReleasedG-l.PrecookOffG+l.WashWaterG+l.AddedWaterG+l.DissolvedSugarG-l.DrainedWaterG-l.SteamedOffG)
	l.SoakedUpG = min(use.DoughSoakG+crumbSoak*f.CrumbG+driedFruitSoak*f.added.driedG, soakMost*before)
	l.JuiceG = before - l.SoakedUpG
	s.MassG = fruitG + sugarG + f.added.g + l.WashWaterG - l.PrecookOffG - l.DrainedWaterG - l.DrainedSugarG
	if atTable := s.MassG - l.SteamedOffG; atTable > 0 {
		s.JuiceSharePct = min(100, 100*l.JuiceG/atTable)
	}
	return s
}

// drain does to the drawn juice what the baker's school does.
func (f Filling) drain(s *State) {
	if f.Macerate.Minutes <= 0 || f.Macerate.Juice == Keep || f.Macerate.Juice == "" {
		return
	}
	drawn := f.Macerate.drawn(s.ReleasedG, s.FruitG, s.SugarG)
	switch f.Macerate.Juice {
	case Reduce:
		s.DrainedWaterG = boiledDownShare * drawn
		return
	case Thicken:
		s.DrainedWaterG = thickenedShare * drawn
		return
	}
	share := drawn / s.ReleasedG
	s.DrainedWaterG = drawn
	s.DrainedSugarG = s.SugarG * share
	if f.Macerate.WithThickener {
		s.LostShare = thickenerWithIt * share
	}
}
