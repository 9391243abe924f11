package bake

import (
	"fmt"
	"math"
	"strings"

	"mabbin/core/balance"
)

// OnPaper is a dessert baked exactly as somebody wrote it down, and the smallest change to its bake that mends it.
type OnPaper struct {
	Stages []Stage  `json:"stages"`
	End    End      `json:"end"`
	Events Events   `json:"events"`
	Unmet  []string `json:"unmet"`          // what it is that it should not be
	Mend   *Mending `json:"mend,omitempty"` // nil: it is right, or nothing that was tried mends it
}

// Mending is a change to a bake.
type Mending struct {
	Code   string  `json:"code"` // minutes, cover or oven
	Says   string  `json:"says"`
	Stages []Stage `json:"stages"`
	End    End     `json:"end"`
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
func saysMend(as, to []Stage) string {
	var says []string
	if d := to[0].OvenC - as[0].OvenC; math.Abs(d) >= 1 {
		says = append(says, fmt.Sprintf("at %.0f C instead of %.0f C", to[0].OvenC, as[0].OvenC))
	}
	switch d := minutesOf(to) - minutesOf(as); {
	case d >= 1:
		says = append(says, fmt.Sprintf("%.0f min longer", d))
	case d <= -1:
		says = append(says, fmt.Sprintf("%.0f min less", -d))
	}
	for i, s := range to {
		switch {
		case s.Cover == "foil" && i == 0 && len(to) > 1:
			says = append(says, fmt.Sprintf("under foil for the first %.0f min", s.Minutes))
		case s.Cover == "foil" && i > 0:
			says = append(says, fmt.Sprintf("foil on after %.0f min", to[0].Minutes))
		case s.PushUnder:
			says = append(says, fmt.Sprintf("the crust pushed under after %.0f min", to[0].Minutes))
		case s.AddTopping:
			says = append(says, fmt.Sprintf("the topping on after %.0f min", to[0].Minutes))
		}
	}
	return strings.Join(says, ", ")
}
