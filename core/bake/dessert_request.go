package bake

import (
	"cmp"

	"mabbin/core/balance"
	"mabbin/core/filling"
	"mabbin/core/larder"
	"mabbin/core/topping"
)

// fillingG is what the filling weighs as it goes in, g.
func fillingG(a *balance.Answer) float64 {
	return a.Portions.FinishedG - a.ToppingG - a.BaseG + a.Ledger.SteamedOffG
}

// planFor writes a balanced dessert as a bake: masses, water, layers, thickener and where each begins.
func planFor(r balance.Request, a *balance.Answer, s Setting) PlanRequest {
	mass := fillingG(a)
	set, sugar := min(60, a.Set.Score), sugarShare(a.Ledger)
	b := Request{
		Dish:        r.Dish,
		Shelf:       s.Shelf,
		AltitudeM:   s.AltitudeM,
		OvenOffsetC: s.OvenOffsetC,
		HeatFactor:  s.HeatFactor,
		SteamFactor: s.SteamFactor,
		DishStartC:  s.DishC,
		Filling:     Filling{MassG: max(10, mass), SetPct: &set, JuiceSugarShare: &sugar, StartC: fillingStart(r, a, s)},
	}
	if s.FillingC != nil && *s.FillingC < coldDishC && s.DishC == nil {
		b.DishStartC = b.Filling.StartC // filled and frozen in its dish
	}
	t, _ := r.Own.Topping(r.Topping.Key)
	if !t.None() {
		b.placeTopping(a, t)
	}
	if r.Base != nil && a.BaseG > 0 {
		base, _ := larder.Bases.Get(r.Base.Key)
		mm, water := base.ThicknessMM, base.WaterPct
		if r.Base.ThicknessMM > 0 {
			mm = r.Base.ThicknessMM
		}
		b.Base = &Base{ThicknessMM: mm, WaterPct: &water, ParBaked: r.Base.ParBaked}
	}
	key := "cornflour"
	if r.Thickener != nil {
		key = r.Thickener.Key
	}
	q := PlanRequest{
		Bake:       b,
		Heating:    s.Heating,
		NoStarch:   a.ThickenerG <= 0 || thickenedBefore(r),
		CrispBase:  s.CrispBase || r.Base != nil && r.Base.Crisp,
		AimColour:  aimColours[r.Topping.Colour],
		UsualC:     usualFor(r, t),
		PushUnder:  larder.StyleOf(r.Style).CrustPushedUnder,
		LateMin:    t.LateMin,
		Biscuit:    t.Family == "biscuit",
		Standing:   s.Standing,
		OffByC:     s.OffByC,
		BottomHeat: s.BottomHeat,
		OverCoals:  s.Fire != nil,
	}
	if th, ok := r.Own.Thickener(key); ok {
		q.Bake.Thickener = &Thickener{th.FullAtC, th.HoldMin}
	}
	if c := r.Custard; c != nil {
		egg, _ := larder.Thickeners.Get("egg")
		q.Bake.Thickener = &Thickener{egg.FullAtC, egg.HoldMin}
		q.Custard, q.NoStarch = true, false
		q.BareEgg = *c != (balance.CustardInput{}) && c.Flour == 0
	}
	q.TenderMin, q.MushMin = tender(r)
	if a.Set.Target > 5.6 { // it slices
		q.CutBelowC = 35
		if key == "tapioca_starch" || key == "arrowroot" || r.Custard != nil {
			q.CutBelowC = 25
		}
	}
	return q
}

// sugarShare is that of the juice before it is soaked up and before it steams off.
func sugarShare(l filling.Ledger) float64 {
	water := l.ReleasedG + l.WashWaterG + l.AddedWaterG - l.PrecookOffG - l.DrainedWaterG
	if l.DissolvedSugarG+water <= 0 {
		return 0
	}
	return min(mostSugar, max(0, l.DissolvedSugarG/(l.DissolvedSugarG+water)))
}

// fillingStart is what a filling begins at: as reported, hot from the hob, or fresh and frozen mixed by their enthalpy.
func fillingStart(r balance.Request, a *balance.Answer, s Setting) *float64 {
	start := roomC
	frozen, sum := 0.0, 0.0
	for _, f := range r.Fruits {
		sum += f.Share
		if f.Frozen {
			frozen += f.Share
		}
	}
	all := fillingG(a)
	switch {
	case s.FillingC != nil:
		start = *s.FillingC
	case r.Precook != nil && r.Precook.Minutes > 0:
		hot := 0.0
		for _, f := range r.Fruits {
			if r.Precook.Cooks(f.Key) {
				hot += f.Share
			}
		}
		start = roomC + (boiledC-roomC)*hot/max(sum, hot, 1e-9)
	case sum > 0 && frozen > 0 && all > 0:
		stood := 0.0
		if r.Macerate != nil {
			stood = r.Macerate.Minutes
		}
		thawed := min(enthalpy(roomC), enthalpy(FreezerC)+thawPerMin*stood)
		share := min(1, a.FruitG/all) * frozen / sum
		start = temperatureOf(share*thawed + (1-share)*enthalpy(roomC))
	}
	return &start
}

// toppingWater is the water of a sized topping, %: by its own parts, so that a changed dough counts.
func toppingWater(a *balance.Answer, t larder.Topping) float64 {
	water, all := 0.0, 0.0
	for _, b := range a.Ticket {
		if b.Key != "topping" {
			continue
		}
		for _, l := range b.Lines {
			if i, ok := larder.Ingredients.Get(l.Key); ok {
				water += l.G * i.WaterPct / 100
				all += l.G
			}
		}
	}
	if all == 0 || a.Topping.Texture.Dough == topping.Stiffness("") {
		return t.WaterPct // the table's, which is of the recipe
	}
	return min(90, 100*water/all)
}

// tender is when a mixture is tender and when it falls, in minutes at 100 C at its cuts: the means by share.
func tender(r balance.Request) (soft, mush float64) {
	sum := 0.0
	for _, asked := range r.Fruits {
		oneSoft, oneMush := tenderOf(r, asked)
		soft += asked.Share * oneSoft
		mush += asked.Share * oneMush
		sum += asked.Share
	}
	if sum > 0 {
		soft, mush = soft/sum, mush/sum
	}
	return max(0.1, soft), max(1, mush)
}

// tenderOf is that of one fruit. Minutes that it was cooked before count.
func tenderOf(r balance.Request, asked balance.FruitInput) (soft, mush float64) {
	f, _ := r.Own.Fruit(asked.Key)
	cut := cmp.Or(asked.CutMM, f.DefaultCutMM)
	before := 0.0
	if r.Precook != nil && r.Precook.Cooks(asked.Key) {
		before = r.Precook.Minutes
	}
	return max(0, f.TenderAt(cut)-before), max(0, f.CollapseAt(cut)-before)
}

// thickenedBefore says that the juice was thickened in a pan: nothing has to set in the oven.
func thickenedBefore(r balance.Request) bool {
	return r.Macerate != nil && r.Macerate.Minutes > 0 && r.Macerate.Juice == filling.Thicken
}

// placeTopping puts a dessert's topping on its filling.
func (b *Request) placeTopping(a *balance.Answer, t larder.Topping) {
	rate, start, gap := t.BrownRate*a.ColourFactor*a.SugarColourFactor, chilledC, a.Cutaway.GapShare
	if t.Family == "biscuit" {
		start = freshC
	}
	b.Topping = &Topping{
		ThicknessMM:     a.Topping.ThicknessMM,
		DensityGPerML:   t.DensityGPerML,
		ConductivityWMK: t.ConductivityWMK,
		HeatJKgK:        t.HeatJKgK,
		WaterPct:        toppingWater(a, t),
		DrySkinMM:       t.DrySkinMM,
		BrownRate:       &rate,
		StartC:          &start,
	}
	b.GapShare = &gap
}
