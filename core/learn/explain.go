package learn

import (
	"cmp"
	"context"
	"errors"
	"math"
	"slices"
	"time"

	"mabbin/core/bake"
	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/core/outcome"
)

// Outcome is what was reported of a bake.
type Outcome struct {
	bake.Words
	Details  outcome.Details
	Happened *outcome.ActualBake // on the oven watch; nil: it was not watched
}

// Explanation is what may have gone wrong in a bake.
type Explanation struct {
	Expected bake.Words        `json:"expected"` // by the model, as it was weighed and baked
	Events   bake.Events       `json:"events"`
	End      bake.End          `json:"end"`
	Wrong    []message.Message `json:"wrong"` // what was reported that no baker wants
	// Predicted is what was wrong with the plan already: its clocks that missed.
	Predicted []message.Message `json:"predicted"`
	Causes    []Cause           `json:"causes"` // the likeliest first; none where the model expected what came
	// Settles is what one more observation would tell between the likeliest; zero: nothing needs to be reported.
	Settles message.Message `json:"settles,omitzero"`
}

// Cause is one thing that, had it been otherwise, gives what came out.
type Cause struct {
	Code     CauseCode         `json:"code"`
	Chance   int               `json:"chance"` // in 10, of all that was looked at
	Text     message.Message   `json:"text"`
	Evidence message.Message   `json:"evidence"` // what it comes to with that one thing changed
	Explains []message.Message `json:"explains"` // of what was reported
	Next     message.Message   `json:"next"`     // tried on the model
}

// CauseCode is why a bake may have come out otherwise than predicted.
type CauseCode string

// The causes.
const (
	causeOven      CauseCode = "oven"
	causeFruit     CauseCode = "fruit"
	causeThickener CauseCode = "thickener"
	causeColour    CauseCode = "colour"
	causeRipeness  CauseCode = "ripeness"
	causeDelay     CauseCode = "delay"
	causeWarm      CauseCode = "warm"
)

const (
	saidFrom  = 1.5 // log evidence over nothing being otherwise
	asEquals  = 1.0 // between two causes
	mostSaid  = 3
	gridReach = 3.0 // prior deviations
	gridHalf  = 30
	clearer   = 0.5 // by so much of its log density an answer is explained
	easier    = 0.2 // the same of one that was complained of: any help is reported, with how likely it is
)

// Tick receives how many pieces of work are done, of how many. An error from it ends the work.
type Tick func(done, of int) error

// reported is a bake that is to be explained, as the estimate sees it.
type reported struct {
	outlook
	base drivers
}

// found is a cause with how far it would have to be off.
type found struct {
	candidateCause
	by       float64
	evidence float64
	explains []message.Message
	eases    bool // a complaint that was reported
}

// Explain compares what was reported with what the model expects, and looks for the one thing that, changed, explains
// the most: each gets a wide deviation of its own, and is held against none. q has the stages as they were, and what
// its kitchen has learnt in its own rows; tick may be nil.
func Explain(ctx context.Context, q bake.DessertRequest, came Outcome, tick Tick) (*Explanation, error) {
	plan, err := bake.Dessert(ctx, q)
	if err != nil {
		return nil, err
	}
	out := &Explanation{
		Expected: plan.Expected(), Events: plan.Plan.Answer.Events, End: plan.Plan.Answer.End,
		Wrong: []message.Message{}, Predicted: plan.Plan.Unmet, Causes: []Cause{},
	}
	complained := map[string]bool{}
	for _, c := range came.Details.Complaints(string(plan.Balance.Set.Band), came.Words) {
		out.Wrong = append(out.Wrong, c.Text)
		complained[c.Of] = true
	}
	if over := out.Expected.BoiledOver; *over {
		out.Predicted = append(
			out.Predicted,
			message.New("it had {mm} too little space to boil", message.Millimetres(-plan.Balance.Fit.HotHeadspaceMM)),
		)
	}
	r, err := report(ctx, weighed(q, plan), came)
	if err != nil {
		return nil, err
	}
	none := r.lnChances(candidateCause{driver: -1}, 0)
	all, sum := []found{}, 1.0
	for i, s := range candidateCauses {
		if tick != nil {
			if err := tick(i, len(candidateCauses)); err != nil {
				return nil, err
			}
		}
		if f, ok := r.look(s, none, complained); ok {
			all = append(all, f)
			sum += math.Exp(f.evidence)
		}
	}
	all = slices.DeleteFunc(all, func(f found) bool {
		return len(f.explains) == 0 || f.evidence < saidFrom && !(f.eases && f.evidence > 0)
	})
	slices.SortStableFunc(all, func(a, b found) int {
		if a.eases != b.eases { // what was complained of is explained first
			if a.eases {
				return -1
			}
			return 1
		}
		return cmp.Compare(b.evidence, a.evidence)
	})
	all = all[:min(mostSaid, len(all))]
	for _, f := range all {
		c := Cause{
			Code: f.code, Text: f.says(f.by), Explains: f.explains,
			Chance: int(min(9, max(1, math.Round(10*math.Exp(f.evidence)/sum)))),
		}
		if c.Evidence, c.Next, err = f.tried(ctx, q, plan, came, r); err != nil {
			return nil, err
		}
		out.Causes = append(out.Causes, c)
	}
	if len(all) > 1 && all[0].eases == all[1].eases && math.Abs(all[0].evidence-all[1].evidence) <= asEquals {
		out.Settles = r.settles(all[0], all[1])
	}
	return out, nil
}

// report is a bake that is to be explained.
func report(ctx context.Context, q bake.DessertRequest, came Outcome) (*reported, error) {
	s, err := surfaceOf(ctx, q, nil)
	if err != nil {
		return nil, err
	}
	b := LoggedBake{
		ID:        "it",
		At:        time.Unix(0, 0),
		Request:   q,
		Reported:  ReportedBy(came.Words, came.Details),
		WholeDish: true,
	}
	if h := came.Happened; h != nil && len(h.Readings) > 0 {
		b.Happened = &Probed{h.Readings}
	}
	e := newEstimate(LogRequest{Bakes: []LoggedBake{b}}, []*Surface{s})
	certain := posterior{e.mean, newMatrix(len(e.all))} // what is not the bake's own is as it was thought
	r := &reported{outlook: e.outlook(0, certain)}
	r.base = r.drivers(r.mean, r.own)
	return r, nil
}

// at is what is predicted where a suspect is off by so much.
func (r *reported) at(s candidateCause, by float64) []prediction {
	d := r.base
	if s.driver >= 0 {
		d[s.driver] += by
	}
	out := r.predictAt(d)
	for i := range out {
		a := &r.answers[i]
		switch {
		case s.code == causeDelay && a.minutes():
			out[i].value += by
		case s.code == causeWarm && a.of == toldJuice:
			out[i].value -= by
		}
	}
	return out
}

func (r *reported) lnChances(s candidateCause, by float64) (all []float64) {
	for i, f := range r.at(s, by) {
		all = append(all, r.answers[i].lnChance(f))
	}
	return all
}

// look holds a suspect against nothing being otherwise; false where it can't be seen at all.
func (r *reported) look(s candidateCause, none []float64, complained map[string]bool) (found, bool) {
	f := found{candidateCause: s}
	total := func(all []float64) (sum float64) {
		for _, x := range all {
			sum += x
		}
		return sum
	}
	before := total(none)
	weights, sum := 0.0, 0.0
	for i := -gridHalf; i <= gridHalf; i++ {
		z := gridReach * float64(i) / gridHalf
		if s.positive && z < 0 {
			continue
		}
		p := math.Exp(-z * z / 2)
		like := p * math.Exp(total(r.lnChances(s, z*s.sd))-before)
		weights, sum, f.by = weights+p, sum+like, f.by+like*z*s.sd
	}
	if !(sum > 0) || len(none) == 0 {
		return f, false
	}
	f.by /= sum
	f.evidence = math.Log(sum / weights)
	for i, x := range r.lnChances(s, f.by) {
		of := r.answers[i].of
		if x > none[i]+clearer || complained[of] && x > none[i]+easier {
			f.explains = append(f.explains, answerNames[of])
			f.eases = f.eases || complained[of]
		}
	}
	return f, true
}

// answerNames are what was reported, by its field.
var answerNames = map[string]message.Message{
	toldJuice: message.New("the juice"), toldHot: message.New("the juice, hot"), toldFruit: message.New("the fruit"),
	toldTop: message.New("the top"), toldBase: message.New("the base"), toldRim: message.New("when the rim bubbled"),
	toldMiddle: message.New("when the middle bubbled"), toldWeight: message.New("the weight lost"),
	toldReadings: message.New("the probe's curve"),
}

// deviation is a cause as the model tries it; false for what is not of the bake.
func (f found) deviation() (Deviation, bool) {
	x := math.Expm1(f.by)
	switch f.code {
	case causeOven:
		return Deviation{OvenC: f.by}, true
	case causeFruit:
		return Deviation{Release: x}, true
	case causeThickener:
		return Deviation{Thickener: x}, true
	case causeColour:
		return Deviation{Colour: x}, true
	case causeRipeness:
		return Deviation{Softness: x}, true
	}
	return Deviation{}, false
}

// tried is what a cause comes to on the model, and what to do another time if that is how it is.
func (f found) tried(
	ctx context.Context, q bake.DessertRequest, plan *bake.DessertAnswer, came Outcome, r *reported,
) (evidence, again message.Message, err error) {
	t, ofBake := f.deviation()
	if ofBake {
		a, err := t.Simulate(ctx, q, plan)
		if err == nil {
			return evidenceOf(came, a), next(ctx, q, plan, t), nil
		}
		if !errors.As(err, new(fault.Faults)) { // with so much of it there is no such dessert
			return evidence, again, err
		}
	}
	if f.code == causeWarm {
		return message.New("Cold, the juice would have been {word}.", message.Word(plan.Expected().Juice)),
			message.New("Let it cool below {c} before cutting, and judge it again.", message.Celsius(cutColdC)), nil
	}
	n := r.surface.at(r.base)
	minute := math.Exp(n.ln[ofMiddle])
	if f.code == causeDelay {
		minute += f.by
	}
	return message.New("The middle would bubble after {n} min.", message.Number(minute, 0)),
		message.New("Preheat the oven fully, and start the clock when the dish goes in."), nil
}

// cutColdC is where juice counts as cold, C.
const cutColdC = 35.0

// settles is the observation that would tell two causes apart best.
func (r *reported) settles(a, b found) message.Message {
	x, y := a.at(r), b.at(r)
	best, by := "", 1.0 // of its error: less tells nothing
	for of, which := range map[string]int{toldRim: ofRim, toldMiddle: ofMiddle, toldWeight: ofSteam} {
		if slices.ContainsFunc(r.answers, func(t answer) bool { return t.of == of }) {
			continue
		}
		t := answer{of: of, value: math.Exp(x.ln[which])}
		off := math.Abs(math.Exp(x.ln[which])-math.Exp(y.ln[which])) / t.error(t.value)
		if off > by || off == by && of < best {
			best, by = of, off
		}
	}
	oven := a.code == causeOven || b.code == causeOven
	fruit := a.code == causeFruit || b.code == causeFruit
	switch {
	case best == toldMiddle:
		return message.New("These two are equally likely. To tell them apart, note when the middle bubbles.")
	case best == toldRim:
		return message.New("These two are equally likely. To tell them apart, note when the rim bubbles.")
	case best == toldWeight:
		return message.New("These two are equally likely. To tell them apart, weigh it before and after baking.")
	case fruit:
		return message.New("These two are equally likely. To tell them apart, test the fruit (Fruit, juiciness test).")
	case oven:
		return message.New("These two are equally likely. To tell them apart, put a thermometer in the oven.")
	}
	return message.New("These two are equally likely: change one of them at a time.")
}

// at is the bake where a cause holds.
func (f found) at(r *reported) noticed {
	d := r.base
	if f.driver >= 0 {
		d[f.driver] += f.by
	}
	return r.surface.at(d)
}
