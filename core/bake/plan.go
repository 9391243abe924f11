package bake

import (
	"context"
	"math"
	"slices"

	"mabbin/core/fault"
	"mabbin/core/message"
	kiln "mabbin/core/oven"
)

// PlanRequest is a dessert and an oven for which stages are looked for. Its bake's stages are not looked at.
type PlanRequest struct {
	Bake    Request `json:"bake"`
	Heating string  `json:"heating,omitempty"` // conventional or fan; left out: conventional
	// TenderMin and MushMin are minutes at 100 C until the fruit, as it is cut, is tender and falls; left out: 6 and 40.
	TenderMin   float64 `json:"tender_min,omitempty"`
	MushMin     float64 `json:"mush_min,omitempty"`
	NoStarch    bool    `json:"no_starch,omitempty"`    // nothing has to set
	CrispBase   bool    `json:"crisp_base,omitempty"`   // the baker goes by the base: it must be crisp
	UsualC      float64 `json:"usual_c,omitempty"`      // the usual oven for such a dessert, without a fan; left out: 180
	CutBelowC   float64 `json:"cut_below_c,omitempty"`  // of the middle, when it is ready to cut; left out: spooned at 80
	PushUnder   bool    `json:"push_under,omitempty"`   // a pandowdy: after about two thirds
	LateTopping bool    `json:"late_topping,omitempty"` // a praline: for the last minutes
	Biscuit     bool    `json:"biscuit,omitempty"`      // the topping has to be baked through
	Custard     bool    `json:"custard,omitempty"`      // it sets and trembles: it need not boil
	BareEgg     bool    `json:"bare_egg,omitempty"`     // a custard without starch, which curdles
	BottomHeat  bool    `json:"bottom_heat,omitempty"`  // the oven can heat from below alone
	OverCoals   bool    `json:"over_coals,omitempty"`   // no fan, no shelf, and nothing but the lid to cover it
	OffByC      float64 `json:"off_by_c,omitempty"`     // how far the oven may be off; left out: 10
	// a plan that is on the screen: it stays unless another is clearly better
	Standing []Stage `json:"standing,omitempty"`
}

// Plan is stages with what they come to.
type Plan struct {
	Stages    []Stage           `json:"stages"`
	Minutes   float64           `json:"minutes"`
	OvenC     float64           `json:"oven_c"`
	CheckFrom float64           `json:"check_from_min"` // when to look for the first time
	TurnAt    float64           `json:"turn_at_min"`
	RimShield bool              `json:"rim_shield"`     // proposed: the rim would burn
	ColdStart bool              `json:"cold_start"`     // the dish would crack in a hot oven
	RackMin   float64           `json:"rack_min"`       // after it is out
	FridgeMin float64           `json:"fridge_min"`     // after the rack, where the rack alone takes too long
	ServeFrom float64           `json:"serve_from_min"` // both
	Answer    Answer            `json:"answer"`
	OffByC    float64           `json:"off_by_c"`
	Early     End               `json:"early"` // the same plan in an oven cooler by so much
	Late      End               `json:"late"`  // and hotter
	Unmet     []message.Message `json:"unmet"` // what no plan could meet, in words
	Text      message.Message   `json:"text"`  // when to look, what to do, how long it stands
	Remedies  []Remedy          `json:"remedies"`
}

// The limits of a plan. Working figures.
const (
	leastSet     = 0.95
	leastTender  = 1.0
	paleBelow    = 0.5
	paleLate     = 0.4 // where the topping went on late
	goldenTo     = 1.5
	burntTop     = 2.3
	bakedFrom    = 0.45 // a base: bakers take it so
	crispFrom    = 1.0
	burntOver    = 4.0
	custardSetC  = 82.0 // in the middle
	custardDoneC = 92.0 // at most, in the middle
	earliest     = 0.9
	spoonBelowC  = 80.0
	rackC        = 21.0
	fridgeC      = 5.0
	fridgeFromC  = 40.0 // of the middle: what is hotter warms the fridge
	fridgeBelow  = 30.0 // what has to be colder than this does not wait for it on the rack
	longestRest  = 6 * 60
)

// CheckPlan finds every wrong field.
func CheckPlan(q PlanRequest) error {
	b := q.Bake
	b.Stages = []Stage{{Minutes: 1, OvenC: usualC}}
	var f fault.Faults
	f.Under("/bake", Check(b))
	f.AmongOrNone("", "/heating", q.Heating, kiln.Heatings)
	f.Range("/tender_min", q.TenderMin, 0, 600, "min")
	f.Range("/mush_min", q.MushMin, 0, 1200, "min")
	f.Range("/usual_c", q.UsualC, 0, 250, "C")
	f.Range("/cut_below_c", q.CutBelowC, 0, 95, "C")
	f.In("", "/off_by_c", q.OffByC, kiln.GiveOrTakeBounds)
	if len(q.Standing) > 0 {
		checkStages("/standing", q.Standing, &f)
	}
	return f.Err()
}

// Propose looks for the stages that meet every clock with the least fuss. A bad request is fault.Faults.
func Propose(ctx context.Context, q PlanRequest) (*Plan, error) {
	if err := CheckPlan(q); err != nil {
		return nil, err
	}
	q = q.usual()
	x, err := q.find(ctx)
	if err != nil {
		return nil, err
	}
	return q.propose(ctx, x)
}

// find is a bake by the stages that meet every clock for the least: those that stand, unless others are clearly better.
func (q *PlanRequest) find(ctx context.Context) (*running, error) {
	best, err := q.search(ctx)
	if err != nil {
		return nil, err
	}
	if q.stands(best) {
		return bakeThrough(&q.Bake, q.Standing), nil
	}
	return q.enough(q.stages(best)), nil
}

// propose is a plan of stages that were found, with what else might be done where they leave something.
func (q PlanRequest) propose(ctx context.Context, x *running) (p *Plan, err error) {
	p = q.given(x)
	if len(p.Unmet) > 0 {
		p.Remedies, err = q.remedies(ctx, p.Minutes)
	}
	return p, err
}

// given is a plan of stages that were baked through. The bake goes on, to the table.
func (q PlanRequest) given(x *running) *Plan {
	unmet := q.unmet(x.state())
	p := q.outcome(x)
	p.Unmet = unmet.words()
	p.ColdStart = q.coldStart()
	return p
}

// fewMin is how much longer a plan may take than the search thought: its dial goes by steps of 5 C.
const fewMin = 8

// enough bakes stages through, and adds minutes where they all but meet every clock, as few as do.
func (q *PlanRequest) enough(stages []Stage) *running {
	x := bakeThrough(&q.Bake, stages)
	now := q.unmet(x.state())
	if now == 0 {
		return x
	}
	longer := x.fork()
	longer.stages = slices.Clone(stages)
	last := &longer.stages[len(stages)-1]
	for range fewMin {
		if now.irreversible() != 0 {
			return x
		}
		last.Minutes++
		longer.until(minutesOf(longer.stages))
		if now = q.unmet(longer.state()); now == 0 {
			return longer
		}
	}
	return x
}

// outcome is what a bake came to, what it comes to in an oven that is off either way, and how it goes on to the table.
func (q PlanRequest) outcome(x *running) *Plan {
	stages := x.stages
	p := &Plan{
		Stages:   stages,
		OvenC:    mainOvenC(stages),
		Unmet:    []message.Message{},
		Remedies: []Remedy{},
		OffByC:   q.offBy(),
	}
	for _, s := range stages {
		if heatings[s.Heating].oven {
			p.Minutes += s.Minutes
		}
	}
	p.TurnAt = math.Round(p.Minutes / 2)
	p.Answer = *x.answer()
	p.RimShield = p.Answer.End.RimColour > burntTop && !q.OverCoals
	first := p.Minutes
	for _, e := range []*float64{p.Answer.Events.MiddleBubbles, p.Answer.Events.Golden} {
		if e != nil {
			first = min(first, *e)
		}
	}
	p.CheckFrom = math.Floor(earliest * first)
	p.Early, p.Late = q.offBake(stages, -p.OffByC), q.offBake(stages, p.OffByC)
	q.rest(p, x)
	return p
}

// offBake is where stages end in an oven that is hotter by so much than it is thought to be.
func (q *PlanRequest) offBake(stages []Stage, byC float64) End {
	r := q.Bake
	r.OvenOffsetC += byC
	return bakeThrough(&r, stages).end()
}

// mainOvenC is the heat that most of a bake is in: not that of a cold start or of a last finish.
func mainOvenC(stages []Stage) float64 {
	heats := map[float64]float64{}
	main := stages[0].OvenC
	for _, s := range stages {
		if heatings[s.Heating].oven {
			heats[s.OvenC] += s.Minutes
			if heats[s.OvenC] > heats[main] {
				main = s.OvenC
			}
		}
	}
	return main
}

// rest is how long it stands until it spoons or slices: on the rack, and, where it has to be colder than a room makes
// it in good time, in the fridge after that. x is its bake, which goes on there.
func (q PlanRequest) rest(p *Plan, x *running) {
	below := q.CutBelowC
	if below == 0 {
		below = spoonBelowC
	}
	rackTo := below
	if below < fridgeBelow {
		rackTo = max(below, fridgeFromC)
	}
	x.curves = nil // the answer's end with the bake
	p.RackMin = x.coolsTo(Stage{OvenC: rackC, Heating: "rack"}, rackTo)
	if rackTo > below {
		p.FridgeMin = x.coolsTo(Stage{OvenC: fridgeC, Heating: "fridge"}, below)
	}
	p.ServeFrom = p.RackMin + p.FridgeMin
}

// coolsTo goes on where it is cool, until the middle has a temperature, and tells how many minutes that took: the
// longest rest, where it has not.
func (x *running) coolsTo(where Stage, below float64) float64 {
	x.turn(where)
	out := x.c.now / 60
	for minute := 0.0; minute < longestRest; minute++ {
		if x.until(out + minute); x.m.t[core][x.m.fillAt+middleCell] <= below {
			return minute
		}
	}
	return longestRest
}

// describe tells a plan in a few sentences; given says that its stages were entered.
func (p *Plan) describe(q PlanRequest, given bool, lateAt *float64) message.Message {
	head := message.New("Proposed: {minutes} min.", message.Number(p.Minutes, 0))
	if given {
		head = message.New("As entered: {minutes} min.", message.Number(p.Minutes, 0))
	}
	all := []message.Message{
		head,
		message.New(
			"Start checking at {look} min, turn the dish at {turn} min.",
			message.Number(p.CheckFrom, 0),
			message.Number(p.TurnAt, 0),
		),
	}
	if q.Custard && q.Bake.Base != nil && !q.Bake.Base.ParBaked {
		all = append(all, message.New("Par-bake the base first: otherwise the custard is done before the base is crisp."))
	}
	if p.ColdStart {
		all = append(
			all,
			message.New(
				"The dish comes from the freezer and would crack in a hot oven: start it in a cool oven for {n} min.",
				message.Number(coldStartMin, 0),
			),
		)
	}
	if p.RimShield {
		all = append(all, message.New("Shield the rim with foil."))
	}
	if lateAt != nil {
		all = append(all, message.New("Put the second topping on at {minute} min.", message.Number(*lateAt, 0)))
	}
	return message.Sentences(append(all, message.New("Then {rest}", message.Part(p.restText())))...)
}

// Words tells what is done in the oven, a sentence for each stage.
func (p *Plan) Words() message.Message { return message.Sentences(stagesSay(p.Stages)...) }
