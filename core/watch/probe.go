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
	Stages      []bake.Stage    `json:"stages"` // with the last one made longer or shorter
}

// When an estimate counts, and when it moves the calls. Working figures.
const (
	fromMin     = 8.0 // before that all ovens look alike in the middle
	movesMin    = 2.0
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
	at := func(c float64) float64 {
		p := q
		p.Bake.OvenOffsetC += c
		m, _ := p.Finish(stages, minute)
		return m
	}
	e.Minutes, e.Early, e.Late = at(off.C), at(off.C+off.GiveOrTakeC), at(off.C-off.GiveOrTakeC)
	e.Early, e.Late = min(e.Early, e.Minutes, e.Late), max(e.Early, e.Minutes, e.Late)
	before := 0.0
	for _, s := range stages[:len(stages)-1] {
		before += s.Minutes
	}
	e.Stages[len(stages)-1].Minutes = max(1, e.Minutes-before)
	return e, nil
}

// says tells what the probe tells; planned is when it was to come out.
func (e *Estimate) says(planned float64) message.Message {
	if e.Doubtful {
		return message.New("These readings fit no oven: is the probe in the middle of the fruit? Nothing is moved by them.")
	}
	than := "cooler"
	if e.OffsetC >= 0 {
		than = "hotter"
	}
	return message.New(
		"By the probe the oven is {off} {than} than was thought (give or take {sure}): out after {out} min, between {early} and {late}; {planned} were planned. The calls follow it.",
		message.CelsiusDifference(math.Abs(e.OffsetC)),
		message.Word(than),
		message.CelsiusDifference(e.GiveOrTakeC),
		message.Number(e.Minutes, 0),
		message.Number(e.Early, 0),
		message.Number(e.Late, 0),
		message.Number(planned, 0),
	)
}

// Moves says whether an estimate is far enough from the stages as they are that the calls should follow it.
func (e *Estimate) Moves(stages []bake.Stage) bool {
	total := 0.0
	for _, s := range stages {
		total += s.Minutes
	}
	d := e.Minutes - total
	return !e.Doubtful && (d >= movesMin || d <= -movesMin)
}
