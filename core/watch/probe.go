package watch

import (
	"math"
	"slices"

	"mabbin/core/bake"
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
	Says        message.Message `json:"says"`
	// Stages are those of the bake with the last one made longer or shorter, and foil where it would burn without.
	Stages []bake.Stage `json:"stages"`

	asThought float64           // minutes that it would have needed in the oven as it was thought to be
	foil      bool              // foil is put on that was not planned
	unmet     []message.Message // what will not come right all the same
}

// When an estimate counts, and when it moves the calls. Working figures.
const (
	fromMin     = 8.0 // before that all ovens look alike in the middle
	movesMin    = 2.0
	saidC       = 1.0 // an oven that is off by less is as was thought
	mostStrays  = 0.4
	mostReading = 240 // of which the fit is made
)

// Reestimate reads the oven off a probe's curve and says when the dessert will be done. It is nil as long as the probe
// tells nothing. A bake that can't be run is fault.Faults.
func Reestimate(q bake.PlanRequest, stages []bake.Stage, minute float64, seen []bake.Point) (*Estimate, error) {
	if minute < fromMin || len(stages) == 0 {
		return nil, nil
	}
	if n := len(seen); n > mostReading { // evenly, so that a long bake costs no more
		step := n/mostReading + 1
		var fewer []bake.Point
		for i := 0; i < n; i += step {
			fewer = append(fewer, seen[i])
		}
		seen = fewer
	}
	done := bake.Elapsed(stages, minute)
	off, ok, err := q.Fit(done, seen)
	if err != nil || !ok {
		return nil, err
	}
	e := &Estimate{
		OffsetC:     off.C,
		GiveOrTakeC: off.GiveOrTakeC,
		Doubtful:    q.Strays(done, off, seen) > mostStrays,
		Stages:      slices.Clone(stages),
	}
	in := func(c float64) bake.PlanRequest {
		p := q
		p.Bake.OvenOffsetC += c
		return p
	}
	at := func(c float64) float64 {
		m, _ := in(c).Finish(stages, minute)
		return m
	}
	e.asThought = at(0)
	e.Minutes, e.unmet = in(off.C).Finish(stages, minute)
	e.Early, e.Late = at(off.C+off.GiveOrTakeC), at(off.C-off.GiveOrTakeC)
	e.Early, e.Late = min(e.Early, e.Minutes, e.Late), max(e.Early, e.Minutes, e.Late)
	before := 0.0
	for _, s := range stages[:len(stages)-1] {
		before += s.Minutes
	}
	e.Stages[len(stages)-1].Minutes = max(1, e.Minutes-before)
	if len(e.unmet) > 0 && len(done) == len(stages) {
		e.cover(in(off.C), done)
	}
	return e, nil
}

// cover goes on under foil as soon as it is golden, where more comes right so: a later end is none at which the top is
// burnt.
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

// says tells what the probe tells; planned is when it was to come out.
func (e *Estimate) says(planned float64) message.Message {
	if e.Doubtful {
		return message.New("These readings fit no oven: is the probe in the middle of the fruit? Nothing is moved by them.")
	}
	oven := message.New("as was thought")
	if off := math.Abs(e.OffsetC); off >= saidC {
		than := "cooler"
		if e.OffsetC > 0 {
			than = "hotter"
		}
		oven = message.New("{off} {than} than was thought", message.CelsiusDifference(off), message.Word(than))
	}
	said := message.New(
		"By the probe the oven is {oven} (give or take {sure}): out after {out} min, between {early} and {late}; {planned} were planned. The calls follow it.",
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
		said = message.Sentences(said, message.New(
			"It is not the oven: even as it was thought to be, it would have taken {thought} min.",
			message.Number(e.asThought, 0),
		))
	}
	if e.foil {
		said = message.Sentences(said, message.New("The top would burn by then: put foil on when it is called."))
	}
	if len(e.unmet) > 0 {
		said = message.Sentences(said, message.New("All the same: {what}.", message.Part(message.Join("; ", e.unmet...))))
	}
	return said
}

// Moves says whether an estimate is far enough from the stages as they are that the calls should follow it.
func (e *Estimate) Moves(stages []bake.Stage) bool {
	return !e.Doubtful && (e.foil || math.Abs(e.Minutes-total(stages)) >= movesMin)
}
