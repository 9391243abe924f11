package bake

import (
	"context"
	"math"

	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/slip"
	"mabbin/core/topping"

	kiln "mabbin/core/oven"
)

// Setting is the oven that a dessert goes into, and what is known of how it begins.
type Setting struct {
	Heating     string   `json:"heating,omitempty"` // conventional or fan
	Shelf       string   `json:"shelf,omitempty"`
	AltitudeM   float64  `json:"altitude_m,omitempty"`
	OvenOffsetC float64  `json:"oven_offset_c,omitempty"`
	FillingC    *float64 `json:"filling_c,omitempty"` // left out: by what was done to the fruit
	DishC       *float64 `json:"dish_c,omitempty"`
	Stages      []Stage  `json:"stages,omitempty"` // left out: proposed
	// proposed before, and on the screen: it stays unless another is clearly better
	Standing   []Stage `json:"standing,omitempty"`
	Keep       bool    `json:"keep,omitempty"`        // the standing stages are baked as they are: nothing is looked for
	OffByC     float64 `json:"off_by_c,omitempty"`    // how far the oven may be off beside that; left out: 10
	BottomHeat bool    `json:"bottom_heat,omitempty"` // it can heat from below alone
	// Fire is that of a camp oven; left out: an oven indoors.
	Fire *kiln.Fire `json:"fire,omitempty"`
}

// DessertRequest is a dessert to be baked on paper.
type DessertRequest struct {
	Request balance.Request `json:"request"`
	Setting Setting         `json:"setting"`
}

// DessertAnswer is a dessert with its bake: the steam of the bake is in the ledger and the set.
type DessertAnswer struct {
	Balance balance.Answer `json:"balance"`
	Plan    Plan           `json:"plan"`
	Bake    Request        `json:"bake"` // as it was simulated
	Tender  float64        `json:"tender_min"`
	Mush    float64        `json:"mush_min"`
	// LateAt is the minute at which a second topping goes on; nil without one.
	LateAt *float64 `json:"late_at_min,omitempty"`
	// Fire is what a camp oven wants; nil for an oven indoors.
	Fire *kiln.Tending `json:"fire,omitempty"`
	// Verdict is what will become of it.
	Verdict Verdict  `json:"verdict"`
	Figures []Figure `json:"figures"`
	// Asks are settings of the oven far outside what is usual: they are used as they are.
	Asks []message.Message `json:"asks"`
	// WhatIfs are the experiments that can be tried on it.
	WhatIfs []WhatIf `json:"what_ifs"`
}

// Start temperatures by what was done to the filling, C. Working figures.
const (
	roomC    = 18.0
	frozenC  = -18.0
	boiledC  = 45.0 // pre-cooked and left to cool a little
	chilledC = 8.0
	freshC   = 16.0 // a dough that is made at the last moment
	turns    = 3    // of steam into the ledger and back
	agreeG   = 0.5  // the two agree
	lateMin  = 12.0 // before the end, a second topping goes on: longer, and its sugar burns
)

// CheckDessert finds every wrong field.
func CheckDessert(q DessertRequest) error {
	var f fault.Faults
	f.Under("/request", balance.Check(q.Request))
	q.Setting.Check("/setting", &f)
	return f.Err()
}

// Check notes every wrong field.
func (s Setting) Check(at string, f *fault.Faults) {
	f.OneOfAt(at, "/heating", s.Heating, "", "conventional", "fan")
	f.OneOfAt(at, "/shelf", s.Shelf, "", "low", "middle", "high")
	f.RangeAt(at, "/altitude_m", s.AltitudeM, -430, 6000, "m")
	f.RangeAt(at, "/oven_offset_c", s.OvenOffsetC, -80, 80, "C")
	f.RangeAt(at, "/off_by_c", s.OffByC, 0, 60, "C")
	if s.Fire != nil {
		s.Fire.Check(at+"/fire", f)
	}
	optional(s.FillingC, at+"/filling_c", -30, 105, "C", f)
	optional(s.DishC, at+"/dish_c", -30, 300, "C", f)
	if len(s.Stages) > 0 {
		checkStages(at+"/stages", s.Stages, f)
	}
	if len(s.Standing) > 0 {
		checkStages(at+"/standing", s.Standing, f)
	}
}

// Dessert bakes a dessert on paper: by the stages given, or by those that are proposed. It ends with ctx. What steams
// off in the bake goes back into the ledger and the set, until both agree.
func Dessert(ctx context.Context, q DessertRequest) (*DessertAnswer, error) {
	if err := CheckDessert(q); err != nil {
		return nil, err
	}
	bake, given := proposed, false
	switch {
	case len(q.Setting.Stages) > 0:
		bake, given = entered, true
	case q.Setting.Keep && len(q.Setting.Standing) > 0:
		bake = kept
	}
	out, err := bake(ctx, q)
	if err != nil {
		return nil, err
	}
	out.Bake.Stages = out.Plan.Stages
	if len(q.Request.Late) > 0 {
		at := max(0, out.Plan.Minutes-lateMin)
		out.LateAt = &at
	}
	if q.Setting.Fire != nil {
		out.Fire = tending(*q.Setting.Fire, out.Plan.Stages)
	}
	out.Plan.Says = out.Plan.says(given, out.LateAt)
	out.judge(planFor(q.Request, &out.Balance, q.Setting).usual(), given)
	out.Figures, out.WhatIfs, out.Asks = out.figures(), whatIfs(q), Unusual(q.Setting.Stages)
	return out, nil
}

// Unusual asks about an oven or a time far outside what is usual: they are used as they are.
func Unusual(given []Stage) []message.Message {
	out := []message.Message{}
	minutes := 0.0
	for _, s := range given {
		if !heatings[s.Heating].oven {
			continue
		}
		minutes += s.Minutes
		if s.OvenC < slip.OvenLowC || s.OvenC > slip.OvenHighC {
			out = append(
				out,
				message.New(
					"{heat}: is that meant? Usual is {range}.",
					message.OvenHeat(s.OvenC),
					message.Range(message.OvenHeat(slip.OvenLowC), message.OvenHeat(slip.OvenHighC)),
				),
			)
		}
	}
	if minutes > 0 && (minutes < slip.MinutesLow || minutes > slip.MinutesHigh) {
		out = append(out, message.New("{n} min in the oven: is that meant? Usual is {range} min.", message.Number(minutes, 0),
			message.Range(message.Number(slip.MinutesLow, 0), message.Number(slip.MinutesHigh, 0))))
	}
	return out
}

// balanced is a dessert with the steam that is known by now, and its bake to be.
func balanced(r balance.Request, s Setting) (*DessertAnswer, PlanRequest, error) {
	a, err := balance.Solve(r)
	if err != nil {
		return nil, PlanRequest{}, err
	}
	p := planFor(r, a, s)
	return &DessertAnswer{Balance: *a, Bake: p.Bake, Tender: p.TenderMin, Mush: p.MushMin}, p, nil
}

// entered bakes the stages as they are: a few times for the steam alone, and then in full.
func entered(ctx context.Context, q DessertRequest) (*DessertAnswer, error) {
	r := q.Request
	for range turns - 1 {
		if q.Request.SteamedOffG != nil {
			break // its own steam is a part of the request
		}
		_, p, err := balanced(r, q.Setting)
		if err != nil {
			return nil, err
		}
		p.Bake.Stages = q.Setting.Stages
		steam := run(p.Bake).End.SteamedOffG
		r.SteamedOffG = &steam
		if err := ctx.Err(); err != nil {
			return nil, err
		}
	}
	out, p, err := balanced(r, q.Setting)
	if err != nil {
		return nil, err
	}
	out.Plan = *p.given(q.Setting.Stages)
	return out, nil
}

// kept bakes the stages that stand on the screen, with a few minutes more where they need them.
func kept(ctx context.Context, q DessertRequest) (*DessertAnswer, error) {
	q.Setting.Stages = q.Setting.Standing
	out, err := entered(ctx, q)
	if err != nil || len(out.Plan.Unmet) == 0 {
		return out, err
	}
	p := planFor(q.Request, &out.Balance, q.Setting)
	out.Plan = *p.given(p.enough(q.Setting.Standing))
	return out, nil
}

// proposed looks for a plan, and bakes it again with its own steam until both agree.
func proposed(ctx context.Context, q DessertRequest) (*DessertAnswer, error) {
	r := q.Request
	var plan *Plan
	for turn := 0; ; turn++ {
		out, p, err := balanced(r, q.Setting)
		if err != nil {
			return nil, err
		}
		if plan == nil || !p.keep(plan) {
			if plan, err = Propose(ctx, p); err != nil {
				return nil, err
			}
		}
		out.Plan = *plan
		steam := plan.Answer.End.SteamedOffG
		agree := q.Request.SteamedOffG != nil || r.SteamedOffG != nil && math.Abs(*r.SteamedOffG-steam) < agreeG
		if agree || turn == turns-1 {
			return out, nil
		}
		r.SteamedOffG = &steam
	}
}

// keep bakes a plan again, with the steam that is known by now, and a few minutes more where it needs them. It is false
// where the plan met every clock before and does not any more: then another one is looked for.
func (q PlanRequest) keep(p *Plan) bool {
	now := q.given(q.enough(p.Stages))
	if len(p.Unmet) == 0 && len(now.Unmet) > 0 {
		return false
	}
	now.Remedies = p.Remedies
	*p = *now
	return true
}

// tending is what the coals want while a plan's stages are baked.
func tending(fire kiln.Fire, stages []Stage) *kiln.Tending {
	var minutes, c []float64
	for _, s := range stages {
		if heatings[s.Heating].oven {
			minutes, c = append(minutes, s.Minutes), append(c, s.OvenC)
		}
	}
	t := fire.Tend(minutes, c)
	return &t
}

// planFor writes a balanced dessert as a bake: masses, water, layers, thickener and where each begins.
func planFor(r balance.Request, a *balance.Answer, s Setting) PlanRequest {
	juice := max(1, a.JuiceG)
	mass := a.Portions.FinishedG - a.ToppingG - a.BaseG + a.Ledger.SteamedOffG
	set, sugar := min(60, a.Set.Score), min(0.8, max(0, a.Ledger.DissolvedSugarG/juice))
	b := Request{
		Dish: r.Dish, Shelf: s.Shelf, AltitudeM: s.AltitudeM, OvenOffsetC: s.OvenOffsetC, DishStartC: s.DishC,
		Filling: Filling{MassG: max(10, mass), SetPct: &set, JuiceSugarShare: &sugar, StartC: fillingStart(r, s)},
	}
	if *b.Filling.StartC < 0 && s.DishC == nil {
		b.DishStartC = b.Filling.StartC // filled and frozen in its dish
	}
	t, _ := larder.Toppings.Get(r.Topping.Key)
	rate, start, gap := t.BrownRate*a.ColourFactor, chilledC, a.Cutaway.GapShare
	if t.Family == "biscuit" || t.Family == "praline" {
		start = freshC
	}
	water := toppingWater(a, t)
	b.Topping = &Topping{
		ThicknessMM:     a.Topping.ThicknessMM,
		DensityGPerML:   t.DensityGPerML,
		ConductivityWMK: t.ConductivityWMK,
		HeatJKgK:        t.HeatJKgK,
		WaterPct:        water,
		DrySkinMM:       t.DrySkinMM,
		BrownRate:       &rate,
		StartC:          &start,
	}
	b.GapShare = &gap
	if r.Base != nil && a.BaseG > 0 && !r.Base.ParBaked {
		base, _ := larder.Bases.Get(r.Base.Key)
		mm, water := base.ThicknessMM, base.WaterPct
		if r.Base.ThicknessMM > 0 {
			mm = r.Base.ThicknessMM
		}
		b.Base = &Base{ThicknessMM: mm, WaterPct: &water}
	}
	key := "cornflour"
	if r.Thickener != nil {
		key = r.Thickener.Key
	}
	q := PlanRequest{
		Bake:        b,
		Heating:     s.Heating,
		NoStarch:    a.ThickenerG < 1,
		PushUnder:   r.Style == "pandowdy",
		LateTopping: t.Family == "praline",
		Biscuit:     t.Family == "biscuit",
		Standing:    s.Standing,
		OffByC:      s.OffByC,
		BottomHeat:  s.BottomHeat,
	}
	if th, ok := larder.Thickeners.Get(key); ok {
		q.Bake.Thickener = &Thickener{th.FullAtC, th.HoldMin}
	}
	if c := r.Custard; c != nil {
		egg, _ := larder.Thickeners.Get("egg")
		q.Bake.Thickener = &Thickener{egg.FullAtC, egg.HoldMin}
		q.Custard, q.NoStarch = true, false
		q.BareEgg = *c != (balance.CustardAsked{}) && c.Flour == 0
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

func fillingStart(r balance.Request, s Setting) *float64 {
	start := roomC
	frozen := 0.0
	sum := 0.0
	for _, f := range r.Fruits {
		sum += f.Share
		if f.Frozen {
			frozen += f.Share
		}
	}
	switch {
	case s.FillingC != nil:
		start = *s.FillingC
	case r.Precook != nil && r.Precook.Minutes > 0:
		start = boiledC
	case sum > 0 && frozen > 0:
		start = roomC + (frozenC-roomC)*frozen/sum
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

// tender is when the slowest fruit is tender and when the quickest falls, in minutes at 100 C, at their cuts. Minutes
// that it was cooked before count.
func tender(r balance.Request) (soft, mush float64) {
	mush = math.Inf(1)
	before := 0.0
	if r.Precook != nil {
		before = r.Precook.Minutes
	}
	for _, asked := range r.Fruits {
		f, _ := r.Own.Fruit(asked.Key)
		cut := f.DefaultCutMM
		if asked.CutMM > 0 {
			cut = asked.CutMM
		}
		k := math.Pow(cut/8, 0.8)
		soft = max(soft, f.TenderMin*k)
		mush = min(mush, f.CollapseMin*k)
	}
	return max(0.1, soft-before), max(1, mush-before)
}

// PlanOf is the bake of a dessert as the planner sees it, with the steam that is in the request, if it is.
func PlanOf(q DessertRequest) (PlanRequest, error) {
	if err := CheckDessert(q); err != nil {
		return PlanRequest{}, err
	}
	_, p, err := balanced(q.Request, q.Setting)
	return p, err
}
