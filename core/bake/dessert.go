package bake

import (
	"cmp"
	"context"
	"errors"
	"math"
	"slices"

	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
	kiln "mabbin/core/oven"
	"mabbin/core/plausibility"
)

// Setting is the oven that a dessert goes into, and what is known of how it begins.
type Setting struct {
	Heating     string   `json:"heating,omitempty"` // conventional or fan
	Shelf       string   `json:"shelf,omitempty"`
	AltitudeM   float64  `json:"altitude_m,omitempty"`
	OvenOffsetC float64  `json:"oven_offset_c,omitempty"`
	HeatFactor  float64  `json:"heat_factor,omitempty"`  // on convection and radiation in the oven; left out: 1
	SteamFactor float64  `json:"steam_factor,omitempty"` // on what steams off the filling; left out: 1
	FillingC    *float64 `json:"filling_c,omitempty"`    // left out: by what was done to the fruit
	DishC       *float64 `json:"dish_c,omitempty"`
	Stages      []Stage  `json:"stages,omitempty"` // left out: proposed
	// proposed before, and on the screen: it stays unless another is clearly better
	Standing []Stage `json:"standing,omitempty"`
	Keep     bool    `json:"keep,omitempty"`     // the standing stages are baked as they are: nothing is looked for
	OffByC   float64 `json:"off_by_c,omitempty"` // how far the oven may be off in addition to that; left out: 10
	OvenName string  `json:"-"`                  // what the kitchen calls it, where it is one of its own
	// EnteredC and EnteredMin are what was entered of one stage while the other is open: no stage yet; nil: nothing.
	EnteredC   *float64 `json:"-"`
	EnteredMin *float64 `json:"-"`
	BottomHeat bool     `json:"bottom_heat,omitempty"` // it can heat from below alone
	CrispBase  bool     `json:"crisp_base,omitempty"`  // the baker goes by the base: it must be crisp
	// Factors are what the kitchen's log has taught of fruit, thickeners and toppings; left out: nothing.
	Factors *larder.Factors `json:"factors,omitempty"`
	// Fire is that of a camp oven; left out: an oven indoors.
	Fire *kiln.Fire `json:"fire,omitempty"`
}

// DessertRequest is a dessert to be simulated.
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
	// Stations are its results in lines.
	Stations Stations `json:"stations"`
}

// Start temperatures by what was done to the filling, C. Working figures.
const (
	roomC      = 18.0
	boiledC    = 45.0 // pre-cooked and left to cool a little
	chilledC   = 8.0
	thawPerMin = 800.0 // J/kg that frozen fruit takes up in its bowl; working figure
	freshC     = 16.0  // a dough that is made at the last moment
	turns      = 5     // of steam into the ledger and back
	agreeG     = 3.0   // the two agree
	damped     = 0.7   // of the way from the ledger's steam to the bake's
	plainTo    = 0.5   // of the plain rule: what leaves below boiling, through crumb and gaps
)

// corrected is a dessert with what the kitchen's log has taught in its kitchen's own rows.
func (q DessertRequest) corrected() DessertRequest {
	q.Request.Own = q.Setting.Factors.On(q.Request.Own)
	q.Setting.Factors = nil
	return q
}

// CheckDessert finds every wrong field.
func CheckDessert(q DessertRequest) error {
	var f fault.Faults
	f.Under("/request", balance.Check(q.Request))
	q.Setting.Check("/setting", &f)
	return f.Err()
}

// Check notes every wrong field.
func (s Setting) Check(at string, f *fault.Faults) {
	f.AmongOrNone(at, "/heating", s.Heating, kiln.Heatings)
	f.AmongOrNone(at, "/shelf", s.Shelf, kiln.Heights)
	f.In(at, "/altitude_m", s.AltitudeM, kiln.AltitudeBounds)
	f.In(at, "/oven_offset_c", s.OvenOffsetC, kiln.OffsetBounds)
	checkFactors(at, s.HeatFactor, s.SteamFactor, f)
	f.In(at, "/off_by_c", s.OffByC, kiln.GiveOrTakeBounds)
	s.Factors.Check(at+"/factors", f)
	if s.Fire != nil {
		s.Fire.Check(at+"/fire", f)
	}
	optional(s.FillingC, at+"/filling_c", -30, 105, "C", f)
	optional(s.DishC, at+"/dish_c", -30, 300, "C", f)
	if len(s.Stages) > 0 {
		checkDessertStages(at+"/stages", s.Stages, f)
	}
	if len(s.Standing) > 0 {
		checkDessertStages(at+"/standing", s.Standing, f)
	}
}

// Dessert simulates a dessert: by the stages given, or by those that are proposed. It ends with ctx. What steams
// off in the bake goes back into the ledger and the set, until both agree.
func Dessert(ctx context.Context, q DessertRequest) (*DessertAnswer, error) {
	if err := CheckDessert(q); err != nil {
		return nil, err
	}
	q = q.corrected()
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
		at := max(0, out.Plan.Minutes-lateMin(q.Request))
		out.LateAt = &at
	}
	if q.Setting.Fire != nil {
		out.Fire = tending(*q.Setting.Fire, out.Plan.Stages)
	}
	p := planFor(q.Request, &out.Balance, q.Setting).usual()
	out.Plan.Text = out.Plan.describe(p, given, out.LateAt)
	out.describe(q.Request, q.Setting)
	out.judge(q.Request, p, given)
	out.Figures, out.WhatIfs = out.figures(), whatIfs(q)
	out.Stations = out.stations(q, given)
	out.Asks = append(out.Asks, Unusual(q.Setting.Stages)...)
	if given && coldStart(&out.Bake) && out.Bake.Stages[0].OvenC > coldStartC+dialEvery {
		out.Asks = append(out.Asks, message.New(
			"Glass and stoneware from the freezer crack in a hot oven: start in a cool oven, {n} min at {heat}, or use another dish.",
			message.Number(coldStartMin, 0),
			message.OvenHeat(coldStartC),
		))
	}
	return out, nil
}

// usualLateMin is when a second topping goes on that has no minutes of its own, before the end. Working figure.
const usualLateMin = 12.0

// lateMin is for how long a dessert's late toppings bake, min: as long as the one that takes least may.
func lateMin(r balance.Request) float64 {
	least := math.Inf(1)
	for _, asked := range r.Late {
		t, _ := r.Own.Topping(asked.Key)
		least = min(least, cmp.Or(t.LateMin, usualLateMin))
	}
	return least
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
		if s.OvenC < plausibility.OvenLowC || s.OvenC > plausibility.OvenHighC {
			out = append(
				out,
				message.New(
					"Is {heat} correct? Usual is {range}.",
					message.OvenHeat(s.OvenC),
					message.Range(message.OvenHeat(plausibility.OvenLowC), message.OvenHeat(plausibility.OvenHighC)),
				),
			)
		}
	}
	if minutes > 0 && (minutes < plausibility.MinutesLow || minutes > plausibility.MinutesHigh) {
		out = append(out, message.New("Is {n} min in the oven correct? Usual is {range} min.", message.Number(minutes, 0),
			message.Range(message.Number(plausibility.MinutesLow, 0), message.Number(plausibility.MinutesHigh, 0))))
	}
	return out
}

// balanced is a dessert with the steam that is known by now, and its bake to be.
func balanced(r balance.Request, s Setting) (*DessertAnswer, PlanRequest, error) {
	a, err := balance.Solve(r)
	if err != nil {
		return nil, PlanRequest{}, err
	}
	p := planFor(r, a, s).usual()
	return &DessertAnswer{
		Balance: *a,
		Bake:    p.Bake,
		Tender:  p.TenderMin,
		Mush:    p.MushMin,
		Asks:    []message.Message{},
	}, p, nil
}

// entered bakes the stages as they are.
func entered(ctx context.Context, q DessertRequest) (*DessertAnswer, error) {
	again := func(p PlanRequest, now []Stage) *running { return bakeThrough(&p.Bake, now) }
	out, p, x, err := steamed(ctx, q, q.Setting.Stages, again)
	if err != nil {
		return nil, err
	}
	out.Plan = *p.given(x)
	return out, nil
}

// kept bakes the stages that stand on the screen, with the minutes that their margin asks for.
func kept(ctx context.Context, q DessertRequest) (*DessertAnswer, error) {
	again := func(p PlanRequest, now []Stage) *running { return p.withMargin(now) }
	out, p, x, err := steamed(ctx, q, q.Setting.Standing, again)
	if err != nil {
		return nil, err
	}
	out.Plan = *p.given(x)
	return out, nil
}

// proposed looks for a plan, and bakes it with its own steam. A plan that then falls shorter than it did is looked for
// anew.
func proposed(ctx context.Context, q DessertRequest) (*DessertAnswer, error) {
	_, p, err := balanced(q.Request, q.Setting)
	if err != nil {
		return nil, err
	}
	if err := p.checkFrozenDepth(); err != nil {
		return nil, err
	}
	x, err := p.find(ctx)
	if err != nil {
		return nil, err
	}
	var failed error
	least := p.unmet(x.state()).count() // where the search found nothing better, it is not searched for again
	again := func(p PlanRequest, now []Stage) *running {
		best := p.withMargin(p.endAgain(now))
		better := func(x *running) bool { return p.unmet(x.state()).count() < p.unmet(best.state()).count() }
		if p.unmet(best.state()).count() <= least {
			return best
		}
		if was := bakeThrough(&p.Bake, now); better(was) {
			best = was
		}
		if p.unmet(best.state()).count() <= least {
			return best
		}
		anew, err := p.find(ctx)
		if err != nil {
			failed = err
		} else if better(anew) {
			best = anew
		}
		return best
	}
	out, p, x, err := steamed(ctx, q, x.stages, again)
	if err = errors.Join(err, failed); err != nil {
		return nil, err
	}
	plan, err := p.propose(ctx, x)
	if err != nil {
		return nil, err
	}
	out.Plan = *plan
	return out, nil
}

// mostFrozenMM is how deep a frozen filling may be for stages to be looked for: a deeper one is not hot in the middle
// within three hours, whatever the oven. Working figure, from the model itself.
const mostFrozenMM = 100.0

// checkFrozenDepth refuses to look for the stages of a filling that is frozen and too deep.
func (q *PlanRequest) checkFrozenDepth() error {
	areaM2 := q.Bake.Dish.Measure().RimAreaCM2 * 1e-4
	deep := 1e3 * q.Bake.Filling.MassG * 1e-3 / (fillRho * areaM2)
	if or(q.Bake.Filling.StartC, roomC) > meltFrom || deep <= mostFrozenMM {
		return nil
	}
	return fault.Faults{{Pointer: "/setting/filling_c", Detail: message.New(
		"means frozen fruit, and the fruit is {deep} deep: thaw it first, or use a wider dish (at most {most} deep)",
		message.Millimetres(deep), message.Millimetres(mostFrozenMM),
	)}}
}

// steamed bakes a dessert through stages, and puts the steam of its bake into the ledger until both agree: again bakes
// it when its juice has changed. A round that meets less than the one before is not kept.
func steamed(
	ctx context.Context, q DessertRequest, stages []Stage, again func(PlanRequest, []Stage) *running,
) (*DessertAnswer, PlanRequest, *running, error) {
	r := q.Request
	out, p, err := balanced(r, q.Setting)
	if err != nil {
		return nil, p, nil, err
	}
	x := bakeThrough(&p.Bake, stages)
	if r.SteamedOffG != nil {
		return out, p, x, nil // its own steam is a part of the request
	}
	steam := out.Balance.Ledger.SteamedOffG
	plain := plainTo * steam
	for round := 0; ; round++ {
		off := x.end().SteamedOffG + plain - steam
		if math.Abs(off) <= agreeG {
			return out, p, x, nil
		}
		if round == turns {
			out.Asks = append(out.Asks, message.New(
				"The steam lost in the bake and in the juice balance still differ by {much}: the thickener is calculated for that much juice too many or too few.",
				message.Grams(math.Abs(off)),
			))
			return out, p, x, nil
		}
		if err := ctx.Err(); err != nil {
			return nil, p, nil, err
		}
		steam += damped * off
		r.SteamedOffG = &steam
		next, np, err := balanced(r, q.Setting)
		if err != nil {
			return nil, p, nil, err
		}
		nx := again(np, x.stages)
		if np.unmet(nx.state()).count() > p.unmet(x.state()).count() {
			return out, p, x, nil
		}
		out, p, x = next, np, nx
	}
}

// endAgain ends stages where they now come out best, as near as they did before: no other oven, no other cover.
func (q *PlanRequest) endAgain(stages []Stage) []Stage {
	before := minutesOf(stages[:len(stages)-1])
	minute, _ := q.Finish(stages, before+leastStage)
	out := slices.Clone(stages)
	out[len(out)-1].Minutes = minute - before
	return out
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

// PlanOf is the bake of a dessert as the planner sees it, with the steam that is in the request, if it is.
func PlanOf(q DessertRequest) (PlanRequest, error) {
	if err := CheckDessert(q); err != nil {
		return PlanRequest{}, err
	}
	q = q.corrected()
	_, p, err := balanced(q.Request, q.Setting)
	return p, err
}
