package bake

import (
	"fmt"
	"math"
	"sync"

	"mabbin/core/fault"
)

// PlanRequest is a dessert and an oven for which stages are looked for. Its bake's stages are not looked at.
type PlanRequest struct {
	Bake    Request `json:"bake"`
	Heating string  `json:"heating,omitempty"` // conventional or fan; left out: conventional
	// TenderMin and MushMin are minutes at 100 C until the fruit, as it is cut, is tender and falls; left out: 6 and 40.
	TenderMin float64 `json:"tender_min,omitempty"`
	MushMin   float64 `json:"mush_min,omitempty"`
	NoStarch  bool    `json:"no_starch,omitempty"`   // nothing has to set
	CutBelowC float64 `json:"cut_below_c,omitempty"` // of the middle, when it is ready to cut; left out: spooned at 70
	PushUnder bool    `json:"push_under,omitempty"`  // a pandowdy: after two thirds
	Biscuit   bool    `json:"biscuit,omitempty"`     // the topping has to be baked through
}

// Plan is stages with what they come to.
type Plan struct {
	Stages    []Stage  `json:"stages"`
	Minutes   float64  `json:"minutes"`
	OvenC     float64  `json:"oven_c"`
	LookFrom  float64  `json:"look_from_min"` // when to look for the first time
	TurnAt    float64  `json:"turn_at_min"`
	RimShield bool     `json:"rim_shield"`     // proposed: the rim would burn
	ServeFrom float64  `json:"serve_from_min"` // after it is out, on the rack
	Answer    Answer   `json:"answer"`
	Early     End      `json:"early"` // the same plan in an oven 10 K cooler
	Late      End      `json:"late"`  // and 10 K hotter
	Unmet     []string `json:"unmet"` // what no plan could meet, in words
	WaysOut   []WayOut `json:"ways_out"`
}

// WayOut is something else that was tried on the model where no plan meets everything.
type WayOut struct {
	Code    string   `json:"code"`
	Name    string   `json:"name"`
	Minutes float64  `json:"minutes"`
	OvenC   float64  `json:"oven_c"`
	Settles bool     `json:"settles"`
	Unmet   []string `json:"unmet"`
}

// The grid of the search, and the limits of a plan. Working figures.
const (
	coolestC, hottestC = 150.0, 220.0
	fineC, coarseC     = 5.0, 10.0
	coverEvery         = 5 // min
	longest            = 120
	leastSet           = 0.95
	leastTender        = 1.0
	mostMush           = 0.8
	paleBelow          = 0.7
	darkOver           = 1.35
	rimBurnt           = 2.0
	aimColour          = 1.05
	perCover           = 8.0
	colourWeight       = 12.0
	perDegree2         = 0.004
	usualC             = 180.0
	offC               = 10.0 // how far an oven may be off
	earliest           = 0.9
	spoonBelowC        = 70.0
	rackC              = 21.0
	longestRest        = 6 * 60
	raceFinishers      = 12 // plans whose neighbours are looked at
)

// at is where a run stands at a minute.
type at struct {
	minute                              float64
	fruit, colour, rimColour, base, set float64
	bubbles, through                    bool
}

// candidate is one way to bake, ended at the best minute.
type candidate struct {
	ovenC  float64
	cover  string
	first  bool // the cover comes first, and is lifted at change; else it goes on at change
	change float64
	at     at
	cost   float64
	unmet  int
}

// CheckPlan finds every wrong field.
func CheckPlan(q PlanRequest) error {
	b := q.Bake
	b.Stages = []Stage{{Minutes: 1, OvenC: usualC}}
	var f fault.Faults
	if more, ok := Check(b).(fault.Faults); ok { //nolint:errorlint // Check answers nothing else
		for _, x := range more {
			f.Add("/bake"+x.Pointer, "%s", x.Detail)
		}
	}
	f.OneOf("/heating", q.Heating, "", "conventional", "fan")
	f.Range("/tender_min", q.TenderMin, 0, 600, "min")
	f.Range("/mush_min", q.MushMin, 0, 1200, "min")
	f.Range("/cut_below_c", q.CutBelowC, 0, 95, "C")
	return f.Err()
}

// Propose looks for the stages that meet every clock with the least fuss. A bad request is fault.Faults.
func Propose(q PlanRequest) (*Plan, error) {
	if err := CheckPlan(q); err != nil {
		return nil, err
	}
	if q.TenderMin == 0 {
		q.TenderMin = 6
	}
	if q.MushMin == 0 {
		q.MushMin = 40
	}
	best := q.search()
	p := q.finish(best)
	if len(p.Unmet) > 0 {
		p.WaysOut = q.waysOut()
	}
	return p, nil
}

// search scans the grid coarsely, two temperatures at a time, and then finely about the best.
func (q PlanRequest) search() candidate {
	var temps []float64
	for c := coolestC; c <= hottestC; c += coarseC {
		temps = append(temps, c)
	}
	best := q.race(temps, 2*coverEvery)
	return q.race([]float64{best.ovenC - fineC, best.ovenC, best.ovenC + fineC}, coverEvery)
}

// race tries every cover at some temperatures, and picks the one that also stands an oven that is off.
func (q PlanRequest) race(temps []float64, every int) candidate {
	all := make([][]candidate, len(temps))
	var wait sync.WaitGroup
	for i, c := range temps {
		if c < coolestC || c > hottestC {
			continue
		}
		wait.Go(func() { all[i] = q.temperature(c, every) })
	}
	wait.Wait()
	var flat []candidate
	for _, some := range all {
		flat = append(flat, some...)
	}
	best, found := candidate{}, false
	for range min(raceFinishers, len(flat)) {
		least := 0
		for i, c := range flat {
			if c.better(flat[least]) {
				least = i
			}
		}
		c := flat[least]
		flat = append(flat[:least], flat[least+1:]...)
		if found && (c.unmet > best.unmet || c.cost >= best.cost) {
			break // the neighbours only add
		}
		c.cost += (q.colourOf(c, -offC) + q.colourOf(c, offC)) / 2
		if !found || c.better(best) {
			best, found = c, true
		}
	}
	return best
}

func (c candidate) better(d candidate) bool {
	if c.unmet != d.unmet {
		return c.unmet < d.unmet
	}
	return c.cost < d.cost
}

func colourCost(colour float64) float64 {
	l := math.Log2(max(colour, 0.02) / aimColour)
	return colourWeight * l * l
}

// colourOf is the colour term of a plan in an oven that is off by some degrees.
func (q PlanRequest) colourOf(c candidate, off float64) float64 {
	r := q.Bake
	r.OvenOffsetC += off
	r.Stages = q.stages(c)
	a, err := Run(r)
	if err != nil {
		return 0
	}
	return colourCost(a.End.Colour)
}

// temperature tries no cover, foil first and foil last at one temperature. What two of them have in common is run once: a
// run is forked where the cover changes.
func (q PlanRequest) temperature(ovenC float64, every int) []candidate {
	var out []candidate
	for _, first := range []bool{false, true} {
		cover := "none"
		if first {
			cover = "foil"
		}
		trunk := q.begin(ovenC, cover)
		if !first {
			out = append(out, q.goOn(trunk.fork(), candidate{ovenC: ovenC, cover: "none"}))
		}
		for t := every; t < longest-every; t += every {
			if !trunk.until(float64(t)) {
				break
			}
			c := candidate{ovenC: ovenC, cover: "foil", first: first, change: float64(t)}
			branch := trunk.fork()
			if first {
				branch.stage.Cover = "none"
			} else {
				branch.stage.Cover = "foil"
			}
			branch.oven = ovenOf(q.Bake, branch.stage)
			out = append(out, q.goOn(branch, c))
		}
	}
	return out
}

// running is a simulation that can be copied.
type running struct {
	m     model
	c     clocks
	e     Events
	r     *Request
	stage Stage
	oven  oven
}

func (q *PlanRequest) begin(ovenC float64, cover string) *running {
	r := &q.Bake
	x := &running{m: *newModel(*r), r: r, stage: Stage{OvenC: ovenC, Heating: q.Heating, Cover: cover}}
	x.c = newClocks(*r, &x.m)
	x.oven = ovenOf(*r, x.stage)
	x.m.exchange(x.oven, 0)
	x.c.look(&x.e, x.stage, true)
	return x
}

func (x *running) fork() *running {
	y := *x
	y.c.m = &y.m
	return &y
}

// until goes on to a minute. It is false when the run is past every limit.
func (x *running) until(minute float64) bool {
	for x.c.now < minute*60-1e-6 {
		dt := min(planStepS, minute*60-x.c.now)
		x.m.step(x.oven, dt)
		x.c.tick(dt, x.stage)
		x.c.look(&x.e, x.stage, false)
	}
	return x.c.colour[core] < 2*darkOver
}

// planStepS is the step of a search: a little coarser than a bake that is shown.
const planStepS = 20.0

// goOn runs a candidate minute by minute to where it is past its limits, and ends it at its best.
func (q PlanRequest) goOn(x *running, c candidate) candidate {
	c.unmet, c.cost = 99, math.Inf(1)
	for minute := math.Floor(x.c.now/60) + 1; minute <= longest; minute++ {
		going := x.until(minute)
		s := at{
			minute: minute, fruit: x.c.fruit, colour: x.c.colour[core], rimColour: x.c.colour[rim], base: x.c.base, set: x.c.setShare(),
			bubbles: x.e.MiddleBubbles != nil, through: x.e.ToppingThrough != nil,
		}
		unmet := len(q.unmet(s))
		cost := minute + colourCost(s.colour) + perDegree2*(c.ovenC-usualC)*(c.ovenC-usualC)
		if c.cover != "none" {
			cost += perCover
		}
		if unmet < c.unmet || unmet == c.unmet && cost < c.cost {
			c.at, c.cost, c.unmet = s, cost, unmet
		}
		if !going || s.colour > 2*darkOver || unmet > c.unmet && s.fruit > q.MushMin {
			break
		}
	}
	return c
}

// unmet are the clocks that are not right at a moment.
func (q PlanRequest) unmet(s at) []string {
	var out []string
	need := func(ok bool, word string) {
		if !ok {
			out = append(out, word)
		}
	}
	if !q.NoStarch {
		need(s.set >= leastSet, "not set everywhere")
		need(s.bubbles, "the middle does not bubble")
	}
	need(s.fruit >= leastTender*q.TenderMin, "the fruit is hard")
	need(s.fruit <= mostMush*q.MushMin, "the fruit is mush")
	need(s.colour >= paleBelow, "the top is pale")
	need(s.colour <= darkOver, "the top is too dark")
	if q.Bake.Base != nil {
		need(s.base >= 1, "the base is not baked")
		need(s.base <= 4, "the base is burnt")
	}
	if q.Biscuit {
		need(s.through, "the topping is raw inside")
	}
	return out
}

// stages writes a candidate out.
func (q PlanRequest) stages(c candidate) []Stage {
	one := Stage{Minutes: c.at.minute, OvenC: c.ovenC, Heating: q.Heating, Cover: "none"}
	if c.cover == "none" || c.change <= 0 || c.change >= c.at.minute {
		if c.first && c.cover != "none" {
			one.Cover = c.cover
		}
		return q.pushed([]Stage{one})
	}
	a, b := one, one
	a.Minutes, b.Minutes = c.change, c.at.minute-c.change
	if c.first {
		a.Cover = c.cover
	} else {
		b.Cover = c.cover
	}
	return q.pushed([]Stage{a, b})
}

// pushed splits the stages where a pandowdy's crust is pushed under.
func (q PlanRequest) pushed(stages []Stage) []Stage {
	if !q.PushUnder {
		return stages
	}
	total := 0.0
	for _, s := range stages {
		total += s.Minutes
	}
	left := math.Round(total * 2 / 3)
	var out []Stage
	done := false
	for _, s := range stages {
		if done || left >= s.Minutes {
			left -= s.Minutes
			out = append(out, s)
			continue
		}
		a, b := s, s
		a.Minutes, b.Minutes = left, s.Minutes-left
		b.PushUnder = true
		if a.Minutes > 0 {
			out = append(out, a)
		}
		out = append(out, b)
		done = true
	}
	return out
}

// finish writes the best candidate out as a plan.
func (q PlanRequest) finish(c candidate) *Plan {
	p := q.outcome(q.stages(c))
	p.Unmet = append(p.Unmet, q.unmet(c.at)...)
	return p
}

// outcome runs stages in full, and in an oven that is off either way, and on the rack.
func (q PlanRequest) outcome(stages []Stage) *Plan {
	p := &Plan{Stages: stages, OvenC: stages[0].OvenC, Unmet: []string{}, WaysOut: []WayOut{}}
	all := 0.0
	for _, s := range stages {
		all += s.Minutes
		if heatings[s.Heating].oven {
			p.Minutes += s.Minutes
		}
	}
	p.TurnAt = math.Round(p.Minutes / 2)
	r := q.Bake
	r.Stages = stages
	if a, err := Run(r); err == nil {
		p.Answer = *a
	}
	p.RimShield = p.Answer.End.RimColour > rimBurnt
	first := p.Minutes
	for _, e := range []*float64{p.Answer.Events.MiddleBubbles, p.Answer.Events.Golden} {
		if e != nil {
			first = min(first, *e)
		}
	}
	p.LookFrom = math.Floor(earliest * first)
	cool, hot := r, r
	cool.OvenOffsetC -= offC
	hot.OvenOffsetC += offC
	if a, err := Run(cool); err == nil {
		p.Early = a.End
	}
	if a, err := Run(hot); err == nil {
		p.Late = a.End
	}
	rest := r
	rest.Stages = append(append([]Stage{}, stages...), Stage{Minutes: longestRest, OvenC: rackC, Heating: "rack"})
	below := q.CutBelowC
	if below == 0 {
		below = spoonBelowC
	}
	if a, err := Run(rest); err == nil {
		for i, minute := range a.Curves.Minute {
			if minute >= all && a.Curves.MiddleC[i] <= below {
				p.ServeFrom = minute - all
				break
			}
			p.ServeFrom = longestRest
		}
	}
	return p
}

// waysOut tries what might settle the clocks, each on the model by itself.
func (q PlanRequest) waysOut() []WayOut {
	ways := []struct {
		code, name string
		change     func(*PlanRequest)
	}{
		{"pre_cook", "cook the fruit first, and fill it in hot", func(p *PlanRequest) { hot := 85.0; p.Bake.Filling.StartC = &hot }},
		{"par_bake", "par-bake the base", func(p *PlanRequest) { p.Bake.Base = nil }},
		{"metal", "a metal dish", func(p *PlanRequest) { p.Bake.Dish.Material = "thin_metal" }},
		{"low_shelf", "the low shelf", func(p *PlanRequest) { p.Bake.Shelf = "low" }},
		{"fan", "the fan", func(p *PlanRequest) { p.Heating = "fan" }},
		{"shallower", "a third less in the dish", func(p *PlanRequest) { p.Bake.Filling.MassG *= 2.0 / 3 }},
		{"late_topping", "a topping that browns half as fast, or goes on late", func(p *PlanRequest) {
			if t := p.Bake.Topping; t != nil {
				x := *t
				rate := or(t.BrownRate, 1) / 2
				x.BrownRate = &rate
				p.Bake.Topping = &x
			}
		}},
	}
	out := make([]WayOut, 0, len(ways))
	for _, w := range ways {
		if w.code == "par_bake" && q.Bake.Base == nil || w.code == "fan" && q.Heating == "fan" || w.code == "low_shelf" && q.Bake.Shelf == "low" {
			continue
		}
		p := q
		w.change(&p)
		c := p.race([]float64{160, 180, 200}, 4*coverEvery)
		unmet := p.unmet(c.at)
		if unmet == nil {
			unmet = []string{}
		}
		out = append(out, WayOut{w.code, w.name, c.at.minute, c.ovenC, len(unmet) == 0, unmet})
	}
	return out
}

// Words tells a plan in one line.
func (p *Plan) Words() string {
	s := fmt.Sprintf("%.0f C, %.0f min", p.OvenC, p.Minutes)
	at := 0.0
	for i, x := range p.Stages {
		switch {
		case x.Cover == "foil" && i == 0:
			s += fmt.Sprintf(", the first %.0f under foil", x.Minutes)
		case x.Cover == "foil":
			s += fmt.Sprintf(", foil on after %.0f", at)
		}
		at += x.Minutes
	}
	return s
}
