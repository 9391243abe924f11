package watch

import (
	"context"
	"math"
	"slices"

	"mabbin/core/bake"
	"mabbin/core/learn"
	"mabbin/core/message"
)

// Estimate is what a probe in the middle tells of a bake under way.
type Estimate struct {
	OffsetC     float64         `json:"offset_c"` // the oven is so much hotter than was thought
	GiveOrTakeC float64         `json:"give_or_take_c"`
	Minutes     float64         `json:"minutes"` // when to take it out
	Early       float64         `json:"early_min"`
	Late        float64         `json:"late_min"`
	Doubtful    bool            `json:"doubtful"` // the readings fit no oven: the probe is not in the middle
	Text        message.Message `json:"text"`
	// Stages are those of the bake with the last one made longer or shorter, and foil where it would burn without.
	Stages []bake.Stage `json:"stages"`

	asThought float64           // minutes that it would have needed in the oven as it was thought to be
	foil      bool              // foil is put on that was not planned
	unmet     []message.Message // what will not comes out right all the same
}

// When an estimate moves the calls. Working figures.
const (
	movesMin    = 2.0
	saidC       = 1.0 // an oven that is off by less is as was thought
	aboveC      = 6.0 // over the juice's boiling point no middle comes, nor the noise of a probe
	lastFew     = 3   // readings of which the middle one is believed
	mostReading = 240 // that the oven is read off
)

// Filter is what is predicted of a bake under way, by what its kitchen's log has taught and its probe has reported.
type Filter func(ctx context.Context, b *Bake) (*learn.MidBakeForecast, error)

// Probed are the readings of the probe, evenly fewer of a long bake, so that it costs no more.
func (b *Bake) Probed() []bake.Point {
	step := len(b.Readings)/mostReading + 1
	out := make([]bake.Point, 0, len(b.Readings)/step+1)
	for i := 0; i < len(b.Readings); i += step {
		out = append(out, b.Readings[i])
	}
	return out
}

// UpdateForecast looks ahead, by what is known of the bake by now.
func (b *Bake) UpdateForecast(ctx context.Context, see Filter) (*learn.MidBakeForecast, error) {
	m, err := see(ctx, b)
	if err == nil {
		b.Forecast = &m.DessertForecast
	}
	return m, err
}

// inAir says that the probe shows what the middle of a fruit can't be.
func (b *Bake) inAir() bool {
	n := len(b.Readings)
	if n < lastFew {
		return false
	}
	var last []float64
	for _, p := range b.Readings[n-lastFew:] {
		last = append(last, p.C)
	}
	slices.Sort(last)
	return last[lastFew/2] > b.Predicted.Plan.Answer.BoilingPointC+aboveC
}

// Reestimate says when the dessert will be done in the oven that a probe has reported of; astray is one that is not in
// the fruit. It is nil as long as the probe tells nothing.
func Reestimate(
	q bake.PlanRequest,
	stages []bake.Stage,
	minute float64,
	m *learn.MidBakeForecast,
	astray bool,
) *Estimate {
	if m.Read == 0 && !astray || len(stages) == 0 {
		return nil
	}
	done := bake.Elapsed(stages, minute)
	e := &Estimate{OffsetC: m.OffC, GiveOrTakeC: m.SD, Doubtful: m.Odd || astray, Stages: slices.Clone(stages)}
	in := func(c float64) bake.PlanRequest {
		p := q
		p.Bake.OvenOffsetC, p.Bake.HeatFactor = m.OffsetC+c, m.HeatFactor
		return p
	}
	at := func(p bake.PlanRequest) float64 {
		m, _ := p.Finish(stages, minute)
		return m
	}
	e.asThought = at(q)
	e.Minutes, e.unmet = in(0).Finish(stages, minute)
	e.Early, e.Late = at(in(bake.NineInTen*m.SD)), at(in(-bake.NineInTen*m.SD))
	e.Early, e.Late = min(e.Early, e.Minutes, e.Late), max(e.Early, e.Minutes, e.Late)
	before := 0.0
	for _, s := range stages[:len(stages)-1] {
		before += s.Minutes
	}
	e.Stages[len(stages)-1].Minutes = max(1, e.Minutes-before)
	if len(e.unmet) > 0 && len(done) == len(stages) {
		e.cover(in(0), done)
	}
	return e
}

// cover goes on under foil as soon as it is golden, where more comes out right so: a later end is none at which the top
// is burnt.
func (e *Estimate) cover(q bake.PlanRequest, done []bake.Stage) {
	as := done[len(done)-1]
	if as.Cover != "" && as.Cover != "none" {
		return
	}
	as.PushUnder, as.AddTopping, as.Turn = false, false, false
	on := q.BakeOn(done, []bake.Way{{Stage: as, ThenFoil: true}}, 0)[0]
	if len(on.Unmet) >= len(e.unmet) ||
		!slices.ContainsFunc(on.Stages, func(s bake.Stage) bool { return s.Cover == "foil" }) {
		return
	}
	e.foil, e.unmet, e.Stages = true, on.Unmet, on.Stages
	moved := total(on.Stages) - e.Minutes
	e.Minutes += moved
	e.Early, e.Late = min(e.Early+moved, e.Minutes), max(e.Late+moved, e.Minutes)
}

func total(stages []bake.Stage) float64 {
	sum := 0.0
	for _, s := range stages {
		sum += s.Minutes
	}
	return sum
}

// describe tells what the probe tells; planned is when it was to come out.
func (e *Estimate) describe(planned float64) message.Message {
	if e.Doubtful {
		return message.New(
			"These readings do not fit any oven temperature: is the probe in the middle of the fruit? They are ignored.",
		)
	}
	oven := message.New("as expected")
	if off := math.Abs(e.OffsetC); off >= saidC {
		than := "cooler"
		if e.OffsetC > 0 {
			than = "hotter"
		}
		oven = message.New("{off} {than} than expected", message.CelsiusDifference(off), message.Word(than))
	}
	text := message.New(
		"By the probe, the oven is {oven} (±{sure}). Take it out after {out} min (90 % range {early} to {late}; planned {planned}). Reminders are adjusted.",
		message.Part(oven),
		message.CelsiusDifference(e.GiveOrTakeC),
		message.Number(e.Minutes, 0),
		message.Number(e.Early, 0),
		message.Number(e.Late, 0),
		message.Number(planned, 0),
	)
	later, cooler := e.Minutes > planned+movesMin, e.OffsetC <= -saidC
	sooner, hotter := e.Minutes < planned-movesMin, e.OffsetC >= saidC
	if later && !cooler || sooner && !hotter { // hotter, and yet longer: the plan itself was not what it needs
		text = message.Sentences(text, message.New(
			"The oven is not the cause: as expected before, it would take {thought} min.",
			message.Number(e.asThought, 0),
		))
	}
	if e.foil {
		text = message.Sentences(text, message.New("The top would burn by then: put foil on when reminded."))
	}
	if len(e.unmet) > 0 {
		text = message.Sentences(text, message.New("Still: {what}.", message.Part(message.Join("; ", e.unmet...))))
	}
	return text
}

// Moves says whether an estimate is far enough from the stages as they are that the calls should follow it.
func (e *Estimate) Moves(stages []bake.Stage) bool {
	return !e.Doubtful && (e.foil || math.Abs(e.Minutes-total(stages)) >= movesMin)
}
