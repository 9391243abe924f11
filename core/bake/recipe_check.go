package bake

import (
	"context"
	"math"

	"mabbin/core/balance"
	"mabbin/core/message"
)

// RecipeCheck is a dessert baked exactly as somebody wrote it down, and the smallest change to its bake that mends it.
type RecipeCheck struct {
	Stages  []Stage  `json:"stages"`
	End     End      `json:"end"`
	Events  Events   `json:"events"`
	Verdict Verdict  `json:"verdict"`
	Mend    *Mending `json:"mend,omitempty"` // nil: it is right, or nothing that was tried mends it
}

// MendingCode is what of a bake is changed.
type MendingCode string

// What is changed, the smallest first.
const (
	MendMinutes MendingCode = "minutes"
	MendCover   MendingCode = "cover"
	MendOven    MendingCode = "oven"
)

// Mending is a change to a bake.
type Mending struct {
	Code   MendingCode     `json:"code"`
	Text   message.Message `json:"text"`
	Stages []Stage         `json:"stages"`
	End    End             `json:"end"`
}

// WrittenBake bakes a dessert by stages as they were written. The request is of a dessert that balances; a bad one is
// fault.Faults.
func WrittenBake(ctx context.Context, r balance.Request, s Setting) (*RecipeCheck, error) {
	a, err := Dessert(ctx, DessertRequest{Request: r, Setting: s})
	if err != nil {
		return nil, err
	}
	ran := a.Plan.Answer
	out := &RecipeCheck{Stages: s.Stages, End: ran.End, Events: ran.Events, Verdict: a.Verdict}
	if len(a.Plan.Unmet) > 0 {
		if out.Mend, err = bakedOn(ctx, r, s, a.minutesSaid(s.Stages)); err != nil || out.Mend != nil {
			return out, err
		}
		if len(s.Stages) > 1 {
			return out, nil // its stages are the writer's own way: no other ones are made up
		}
		if out.Mend, err = planFor(r, &a.Balance, s).usual().mend(ctx, s.Stages); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// minutesSaid are the minutes more that the verdict says, 0 where it says none.
func (a *DessertAnswer) minutesSaid(as []Stage) int {
	if m := a.Verdict.Mend; m != nil && len(m.Change.Stages) > 0 {
		return max(0, int(math.Round(minutesOf(m.Change.Stages)-minutesOf(as))))
	}
	return a.Plan.MoreMin
}

// longerMin are the minutes that a bake is tried longer by, one after the other.
var longerMin = []int{2, 4, 6, 8, 10, 12, 15, 18, 22, 26, 30}

// bakedOn bakes the same stages on for as few minutes as meet everything, first for as many as the plan says; nil where
// no such minutes do.
func bakedOn(ctx context.Context, r balance.Request, s Setting, first int) (*Mending, error) {
	tries := longerMin
	if first > 0 {
		tries = append([]int{first}, longerMin...)
	}
	last := 0
	for i, more := range tries {
		next, err := bakedFor(ctx, r, s, more)
		if err != nil {
			return nil, err
		}
		if len(next.Plan.Unmet) > 0 {
			last = more
			continue
		}
		if more-1 > last && (i > 0 || first == 0) { // the minute between
			if less, err := bakedFor(ctx, r, s, more-1); err != nil {
				return nil, err
			} else if len(less.Plan.Unmet) == 0 {
				next, more = less, more-1
			}
		}
		text := message.New("{minutes} min longer", message.Count(more))
		return &Mending{MendMinutes, text, lengthened(s.Stages, more), next.Plan.Answer.End}, nil
	}
	return nil, nil
}

func bakedFor(ctx context.Context, r balance.Request, s Setting, more int) (*DessertAnswer, error) {
	s.Stages = lengthened(s.Stages, more)
	return Dessert(ctx, DessertRequest{Request: r, Setting: s})
}

// mend tries the small changes first: other minutes, then a cover, then another heat.
func (q PlanRequest) mend(ctx context.Context, as []Stage) (*Mending, error) {
	was := as[0]
	all := []float64{}
	for d := -reachC; d <= reachC; d += everyC {
		all = append(all, q.usualOvenC()+d)
	}
	open := course{}
	if was.Cover != "" && was.Cover != "none" {
		open.before.Cover = was.Cover
	}
	for _, try := range []struct {
		code    MendingCode
		temps   []float64
		courses []course
	}{
		{MendMinutes, []float64{was.OvenC + q.Bake.OvenOffsetC}, []course{open}},
		{MendCover, []float64{was.OvenC + q.Bake.OvenOffsetC}, q.courses()},
		{MendOven, all, q.courses()},
	} {
		c, err := q.race(ctx, try.temps, try.courses, coverEvery)
		if err != nil {
			return nil, err
		}
		if c.at.minute == 0 {
			continue
		}
		x := q.withMargin(q.stages(c))
		if try.code != MendOven && minutesOf(x.stages) > minutesOf(as)+afterMet {
			continue // nobody bakes on for that long: another oven is asked for
		}
		if q.unmet(x.state()) == 0 {
			return &Mending{try.code, mendText(as, x.stages), x.stages, x.end()}, nil
		}
	}
	return nil, nil
}

func minutesOf(stages []Stage) (sum float64) {
	for _, s := range stages {
		sum += s.Minutes
	}
	return sum
}

// mendText tells what is different.
func mendText(as, to []Stage) message.Message {
	var text []message.Message
	if d := to[0].OvenC - as[0].OvenC; math.Abs(d) >= 1 {
		text = append(
			text,
			message.New("at {heat} instead of {was}", message.OvenHeat(to[0].OvenC), message.OvenHeat(as[0].OvenC)),
		)
	}
	switch d := minutesOf(to) - minutesOf(as); {
	case d >= 1:
		text = append(text, message.New("{minutes} min longer", message.Number(d, 0)))
	case d <= -1:
		text = append(text, message.New("{minutes} min less", message.Number(-d, 0)))
	}
	for i, s := range to {
		switch {
		case s.Cover == "foil" && i == 0 && len(to) > 1:
			text = append(text, message.New("under foil for the first {minutes} min", message.Number(s.Minutes, 0)))
		case s.Cover == "foil" && i > 0:
			text = append(text, message.New("foil on after {minutes} min", message.Number(to[0].Minutes, 0)))
		case s.PushUnder:
			text = append(
				text,
				message.New("push the crust into the juice after {minutes} min", message.Number(to[0].Minutes, 0)),
			)
		case s.AddTopping:
			text = append(text, message.New("put the topping on after {minutes} min", message.Number(to[0].Minutes, 0)))
		}
	}
	return message.Join(", ", text...)
}
