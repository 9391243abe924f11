package watch

import (
	"math"
	"slices"

	"mabbin/core/bake"
)

// Started is a dessert that goes into the oven: what it was, how it bakes, what is called.
type Started struct {
	Answer bake.DessertAnswer
	Calls  []Call
}

// Start bakes a dessert on paper and writes its calls. A bad request is fault.Faults.
func Start(q bake.DessertRequest) (*Started, error) {
	a, err := bake.Dessert(q)
	if err != nil {
		return nil, err
	}
	return &Started{*a, Calls(of(q, a.Plan, a.LateAt), a.Plan.Stages)}, nil
}

// of is what the calls need to know of a dessert.
func of(q bake.DessertRequest, p bake.Plan, lateAt *float64) Dessert {
	d := Dessert{Slices: isCut(q), Custard: q.Request.Custard != nil, Material: q.Request.Dish.Material, Fire: q.Setting.Fire, Plan: p}
	if lateAt != nil {
		d.LateAt = *lateAt
	}
	return d
}

// isCut says whether a dessert of this style is cut.
func isCut(q bake.DessertRequest) bool { return q.Request.Style == "bar" || q.Request.Style == "pie" }

// Changed are other stages from now on with their calls: a rescue that was taken, or a time that was put right. minute is now:
// calls that were due before it, by the stages as they were, are not written again; what a rescue wants done at once is. The
// request is the dessert's as it went in, with its steam.
func Changed(q bake.DessertRequest, was, stages []bake.Stage, minute float64) (*Started, error) {
	q.Setting.Stages = stages
	a, err := bake.Dessert(q)
	if err != nil {
		return nil, err
	}
	s := &Started{Answer: *a}
	d := of(q, a.Plan, a.LateAt)
	before := Calls(d, was)
	for _, c := range Calls(d, stages) {
		again := c.Due <= minute && (c.Kind == Turn || slices.ContainsFunc(before, func(b Call) bool { return b.Kind == c.Kind && math.Abs(b.Due-c.Due) < sameMin }))
		if c.Kind == TakeOut || !again && c.Kind != Look {
			s.Calls = append(s.Calls, c)
		}
	}
	return s, nil
}

// sameMin is how near two calls of a kind are one.
const sameMin = 0.6

// Behind are the stages as they were up to a minute.
func Behind(stages []bake.Stage, minute float64) []bake.Stage {
	var out []bake.Stage
	for _, s := range stages {
		if minute <= 0 {
			break
		}
		s.Minutes = min(s.Minutes, minute)
		minute -= s.Minutes
		out = append(out, s)
	}
	if minute > 0 && len(out) > 0 { // it is still in, past its time
		out[len(out)-1].Minutes += minute
	}
	return out
}
