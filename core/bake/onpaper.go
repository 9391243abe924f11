package bake

import (
	"math"

	"mabbin/core/balance"
	"mabbin/core/say"
)

// OnPaper is a dessert baked exactly as somebody wrote it down, and the smallest change to its bake that mends it.
type OnPaper struct {
	Stages []Stage    `json:"stages"`
	End    End        `json:"end"`
	Events Events     `json:"events"`
	Unmet  []say.Line `json:"unmet"`          // what it is that it should not be
	Mend   *Mending   `json:"mend,omitempty"` // nil: it is right, or nothing that was tried mends it
}

// Mending is a change to a bake.
type Mending struct {
	Code   string   `json:"code"` // minutes, cover or oven
	Says   say.Line `json:"says"`
	Stages []Stage  `json:"stages"`
	End    End      `json:"end"`
}

// AsWritten bakes a dessert by stages as they were written. The request is of a dessert that balances; a bad one is
// fault.Faults.
func AsWritten(r balance.Request, s Setting) (*OnPaper, error) {
	if err := CheckDessert(DessertRequest{Request: r, Setting: s}); err != nil {
		return nil, err
	}
	a, err := balance.Solve(r)
	if err != nil {
		return nil, err
	}
	q := planFor(r, a, s)
	b := q.Bake
	b.Stages = s.Stages
	ran, err := Run(b)
	if err != nil {
		return nil, err
	}
	out := &OnPaper{Stages: s.Stages, End: ran.End, Events: ran.Events, Unmet: q.unmet(ran.at()).words()}
	if len(out.Unmet) > 0 {
		out.Mend = q.mend(s.Stages)
	}
	return out, nil
}

// mend tries the small changes first: other minutes, then a cover, then another heat.
func (q PlanRequest) mend(as []Stage) *Mending {
	was := as[0]
	all := []float64{}
	for c := coolestC; c <= hottestC; c += coarseC {
		all = append(all, c)
	}
	open := course{}
	if was.Cover != "" && was.Cover != "none" {
		open.before.Cover = was.Cover
	}
	for _, try := range []struct {
		code    string
		temps   []float64
		courses []course
	}{
		{"minutes", []float64{was.OvenC}, []course{open}},
		{"cover", []float64{was.OvenC}, q.courses()},
		{"oven", all, q.courses()},
	} {
		c := q.race(try.temps, try.courses, coverEvery)
		if c.at.minute == 0 {
			continue
		}
		stages := q.enough(q.stages(c))
		r := q.Bake
		r.Stages = stages
		a, err := Run(r)
		if err != nil || q.unmet(a.at()) != 0 {
			continue
		}
		return &Mending{try.code, saysMend(as, stages), stages, a.End}
	}
	return nil
}

func minutesOf(stages []Stage) (sum float64) {
	for _, s := range stages {
		sum += s.Minutes
	}
	return sum
}

// saysMend tells what is different.
func saysMend(as, to []Stage) say.Line {
	var says []say.Line
	if d := to[0].OvenC - as[0].OvenC; math.Abs(d) >= 1 {
		says = append(says, say.F("at {heat} instead of {was}", say.C(to[0].OvenC), say.C(as[0].OvenC)))
	}
	switch d := minutesOf(to) - minutesOf(as); {
	case d >= 1:
		says = append(says, say.F("{minutes} min longer", say.N(d, 0)))
	case d <= -1:
		says = append(says, say.F("{minutes} min less", say.N(-d, 0)))
	}
	for i, s := range to {
		switch {
		case s.Cover == "foil" && i == 0 && len(to) > 1:
			says = append(says, say.F("under foil for the first {minutes} min", say.N(s.Minutes, 0)))
		case s.Cover == "foil" && i > 0:
			says = append(says, say.F("foil on after {minutes} min", say.N(to[0].Minutes, 0)))
		case s.PushUnder:
			says = append(says, say.F("the crust pushed under after {minutes} min", say.N(to[0].Minutes, 0)))
		case s.AddTopping:
			says = append(says, say.F("the topping on after {minutes} min", say.N(to[0].Minutes, 0)))
		}
	}
	return say.Between(", ", says...)
}
