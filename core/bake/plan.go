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
	TenderMin  float64 `json:"tender_min,omitempty"`
	MushMin    float64 `json:"mush_min,omitempty"`
	NoStarch   bool    `json:"no_starch,omitempty"`   // nothing has to set
	CrispBase  bool    `json:"crisp_base,omitempty"`  // the baker goes by the base: it must be crisp
	AimColour  float64 `json:"aim_colour,omitempty"`  // of the top, by its clock; left out: 0.9
	UsualC     float64 `json:"usual_c,omitempty"`     // the usual oven for such a dessert, without a fan; left out: 180
	CutBelowC  float64 `json:"cut_below_c,omitempty"` // of the middle, when it is ready to cut; left out: spooned at 80
	PushUnder  bool    `json:"push_under,omitempty"`  // a pandowdy: after about two thirds
	LateMin    float64 `json:"late_min,omitempty"`    // of a praline, at most, before the end; 0: from the start
	Biscuit    bool    `json:"biscuit,omitempty"`     // the topping has to be baked through
	Custard    bool    `json:"custard,omitempty"`     // it sets and trembles: it need not boil
	BareEgg    bool    `json:"bare_egg,omitempty"`    // a custard without starch, which curdles
	BottomHeat bool    `json:"bottom_heat,omitempty"` // the oven can heat from below alone
	OverCoals  bool    `json:"over_coals,omitempty"`  // no fan, no shelf, and nothing but the lid to cover it
	OffByC     float64 `json:"off_by_c,omitempty"`    // how far the oven may be off; left out: 10
	// a plan that is on the screen: it stays unless another is clearly better
	Standing []Stage `json:"standing,omitempty"`
}

// Plan is stages with what they come to.
type Plan struct {
	Stages    []Stage `json:"stages"`
	Minutes   float64 `json:"minutes"`
	OvenC     float64 `json:"oven_c"`
	CheckFrom float64 `json:"check_from_min"` // when to look for the first time
	TurnAt    float64 `json:"turn_at_min"`
	RimShield bool    `json:"rim_shield"`     // proposed: the rim would burn
	ColdStart bool    `json:"cold_start"`     // the dish would crack in a hot oven
	RackMin   float64 `json:"rack_min"`       // after it is out
	FridgeMin float64 `json:"fridge_min"`     // after the rack, where the rack alone takes too long
	ServeFrom float64 `json:"serve_from_min"` // both
	// ThickestMin is when the juice of what is spooned is thickest, after it is out; 0: it slices.
	ThickestMin float64           `json:"thickest_min"`
	Answer      Answer            `json:"answer"`
	OffByC      float64           `json:"off_by_c"`
	Early       End               `json:"early"` // the same plan in an oven cooler by so much
	Late        End               `json:"late"`  // and hotter
	Unmet       []message.Message `json:"unmet"` // what no plan could meet, in words
	// MoreMin is how many minutes more of the last stage in the oven would meet every clock, where that is few; 0: none.
	MoreMin  int             `json:"more_min"`
	Text     message.Message `json:"text"` // when to look, what to do, how long it stands
	Remedies []Remedy        `json:"remedies"`
}

// The limits of a plan. Working figures.
const (
	leastSet     = 0.95
	leastTender  = 1.0
	paleBelow    = 0.5
	paleLate     = 0.4 // where the topping went on late
	goldenTo     = 1.5
	burntTop     = 2.3
	bakedFrom    = 0.42 // a base: bakers take it from there
	crispFrom    = 1.0
	burntOver    = 4.0
	custardSetC  = 82.0 // in the middle
	custardDoneC = 92.0 // at most, in the middle
	earliest     = 0.9
	spoonBelowC  = 80.0 // of the whole filling: a spoonful loses some 15 K on the plate
	thickBelowC  = 45.0
	rackC        = 21.0
	fridgeC      = 5.0
	fridgeFromC  = 40.0 // of the middle: what is hotter warms the fridge
	fridgeBelow  = 30.0 // what has to be colder than this does not wait for it on the rack
	longestRest  = 6 * 60
	steamMost    = 0.15 // of the filling as it went in: usual bakes lose 1 to 10 %
	mushMost     = 1.5  // of the minutes until it falls: more of it is pulp
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
	f.Range("/aim_colour", q.AimColour, 0, burntTop, "")
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
	found, err := q.search(ctx)
	if err != nil {
		return nil, err
	}
	best := q.withMargin(q.stages(found))
	if !q.mayStand() {
		return best, nil
	}
	standing := q.withMargin(q.Standing)
	short, price := q.priced(standing)
	leastShort, leastPrice := q.priced(best)
	if short <= leastShort+sameShort && price <= leastPrice+standMin {
		return standing, nil
	}
	return best, nil
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
	unmet, more := q.unmet(x.state()), q.moreMinutes(x)
	p := q.outcome(x)
	p.Unmet, p.MoreMin = q.words(unmet), more
	p.ColdStart = q.coldStart()
	return p
}

// The margin of a plan: it meets every clock in an oven that is a little cooler as well. Working figures.
const (
	marginC    = 3.0 // K cooler
	marginMost = 8   // min that are added for it
)

// withMargin bakes stages through, and adds whole minutes to the last one until every clock is met in this oven and in
// one that is a little cooler. Nothing that was met is lost for it: a top gets no darker than golden allows, and a late
// topping bakes no longer than it may.
func (q *PlanRequest) withMargin(stages []Stage) *running {
	x := bakeThrough(&q.Bake, stages)
	cooler := q.Bake
	cooler.OvenOffsetC -= marginC
	cool := toLast(&cooler, stages)
	cool.until(minutesOf(stages))
	now, added, kept := q.unmet(x.state()), 0, -1
	longer := x
	for {
		if now == 0 {
			if kept = added; q.unmet(cool.state()) == 0 {
				break
			}
		}
		last := stages[len(stages)-1]
		if added == marginMost || now.irreversible() != 0 || !last.InOven() ||
			last.AddTopping && last.Minutes+float64(added) >= q.LateMin {
			break
		}
		if added++; longer == x {
			longer = x.fork()
		}
		minute := minutesOf(stages) + float64(added)
		longer.until(minute)
		cool.until(minute)
		after := q.unmet(longer.state())
		if after&^now != 0 {
			break
		}
		now = after
	}
	switch {
	case kept <= 0:
		return x
	case kept == added:
		longer.stages = lengthened(stages, kept)
		return longer
	}
	return bakeThrough(&q.Bake, lengthened(stages, kept))
}

// lastInOven is the last stage in an oven: what comes after it stands and cools. -1: there is none.
func lastInOven(stages []Stage) int {
	for i := len(stages) - 1; i >= 0; i-- {
		if stages[i].InOven() {
			return i
		}
	}
	return -1
}

// lengthened are stages whose last one in an oven has so many minutes more.
func lengthened(stages []Stage, minutes int) []Stage {
	out := slices.Clone(stages)
	if last := lastInOven(out); last >= 0 {
		out[last].Minutes += float64(minutes)
	}
	return out
}

// A bake is just short where so few minutes more meet every clock, or so small a share of its minutes. Working figures.
const (
	shortMin   = 3.0
	shortShare = 0.06
)

// moreMinutes is how many whole minutes more of its last stage in the oven a bake needs; 0 where it needs none, and
// where so few do not do.
func (q *PlanRequest) moreMinutes(x *running) int {
	now := q.unmet(x.state())
	if now == 0 || now.irreversible() != 0 {
		return 0
	}
	last, inOven := lastInOven(x.stages), 0.0
	if last < 0 {
		return 0
	}
	for _, s := range x.stages {
		if s.InOven() {
			inOven += s.Minutes
		}
	}
	most := max(shortMin, shortShare*inOven)
	if s := x.stages[last]; s.AddTopping && q.LateMin > 0 {
		most = min(most, q.LateMin-s.Minutes)
	}
	y := *x
	y.curves = nil
	on := y.fork()
	for n := 1; float64(n) <= most; n++ {
		if last == len(x.stages)-1 {
			on.until(minutesOf(x.stages) + float64(n))
		} else { // it stands after the oven: all of that comes later
			on = bakeThrough(x.r, lengthened(x.stages, n))
		}
		if now = q.unmet(on.state()); now == 0 {
			return n
		}
		if now.irreversible() != 0 {
			return 0
		}
	}
	return 0
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
// it in good time, in the fridge after that. What is spooned is good while it is warm, and thickest a while later. x is
// its bake, which goes on there.
func (q PlanRequest) rest(p *Plan, x *running) {
	x.curves = nil // the answer's end with the bake
	rack := Stage{OvenC: rackC, Heating: "rack"}
	out := x.c.now / 60
	x.turn(rack)
	if q.CutBelowC == 0 {
		p.RackMin = x.coolsTo(out, spoonBelowC, (*model).meanC)
		p.ThickestMin = x.coolsTo(out, thickBelowC, (*model).meanC)
		p.ServeFrom = p.RackMin
		return
	}
	below := q.CutBelowC
	rackTo := below
	if below < fridgeBelow {
		rackTo = max(below, fridgeFromC)
	}
	p.RackMin = x.coolsTo(out, rackTo, (*model).middleC)
	if rackTo > below {
		out = x.c.now / 60
		x.turn(Stage{OvenC: fridgeC, Heating: "fridge"})
		p.FridgeMin = x.coolsTo(out, below, (*model).middleC)
	}
	p.ServeFrom = p.RackMin + p.FridgeMin
}

// coolsTo goes on where it is cool, until the filling has a temperature, and returns how many minutes after out that
// is: the longest rest, where it is not by then.
func (x *running) coolsTo(out, below float64, at func(*model) float64) float64 {
	for minute := math.Ceil(x.c.now/60 - out); minute < longestRest; minute++ {
		if x.until(out + minute); at(x.m) <= below {
			return minute
		}
	}
	return longestRest
}

// middleC is the temperature of the middle of the filling, and meanC the mean of all of it.
//
//go:norace
func (m *model) middleC() float64 { return m.t[core][m.fillAt+middleCell] }

func (m *model) meanC() float64 {
	sum := 0.0
	for c := range 2 {
		for i := m.fillAt; i < m.topAt; i++ {
			sum += m.t[c][i] * m.area[c]
		}
	}
	return sum / (cellsFill * (m.area[core] + m.area[rim]))
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
	return message.Sentences(append(all, p.restText())...)
}

// Words tells what is done in the oven, a sentence for each stage.
func (p *Plan) Words() message.Message { return message.Sentences(stagesSay(p.Stages)...) }
