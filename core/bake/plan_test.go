package bake

import (
	"slices"
	"strings"
	"testing"
)

func TestAPlanMeetsEveryClock(t *testing.T) {
	for name, change := range map[string]func(*PlanRequest){
		"crumble":  func(*PlanRequest) {},
		"fan":      func(q *PlanRequest) { q.Heating = "fan" },
		"frozen":   func(q *PlanRequest) { q.Bake.Filling.StartC = ptr(-18.0) },
		"pandowdy": func(q *PlanRequest) { q.PushUnder = true; q.MushMin = 60 },
	} {
		q := PlanRequest{Bake: crumble(), TenderMin: 5, MushMin: 60}
		change(&q)
		p, err := Propose(t.Context(), q)
		if err != nil {
			t.Fatal(err)
		}
		if len(p.Unmet) > 0 {
			t.Errorf("%s: %s leaves %v", name, p.Words(), p.Unmet)
		}
		sum := 0.0
		for _, s := range p.Stages {
			sum += s.Minutes
		}
		if sum != p.Minutes || p.CheckFrom >= p.Minutes || p.Answer.End.Colour < paleBelow ||
			p.Early.Colour >= p.Late.Colour ||
			p.ServeFrom <= 0 {
			t.Errorf("%s: %s, %+v", name, p.Words(), p)
		}
		if q.PushUnder && !slices.ContainsFunc(p.Stages, func(s Stage) bool { return s.PushUnder }) {
			t.Errorf("%s: nothing is pushed under in %+v", name, p.Stages)
		}
	}
}

func TestWhereTheClocksFightSomethingElseIsTried(t *testing.T) {
	p, err := Propose(t.Context(), fighting())
	if err != nil {
		t.Fatal(err)
	}
	settles := map[string]bool{}
	for _, w := range p.Remedies {
		settles[w.Code] = w.Settles
		if len(w.Stages) == 0 || w.Settles != (len(w.Unmet) == 0) {
			t.Errorf("%+v", w)
		}
	}
	if len(p.Unmet) == 0 || len(p.Remedies) < 7 || settles["fan"] || !settles["late_topping"] ||
		!p.Remedies[0].Settles {
		t.Errorf("%s leaves %v, ways out %+v", p.Words(), p.Unmet, p.Remedies)
	}
	if _, err := Propose(
		t.Context(),
		PlanRequest{Heating: "sun"},
	); err == nil || !strings.Contains(err.Error(), "/heating") ||
		!strings.Contains(err.Error(), "/bake/dish") {
		t.Errorf("%v", err)
	}
}

// fighting is a thick base in stoneware that is to be crisp under a topping that browns fast.
func fighting() PlanRequest {
	q := PlanRequest{Bake: crumble(), TenderMin: 3, MushMin: 60, BottomHeat: true, CrispBase: true}
	q.Bake.Dish.Material, q.Bake.Base, q.Bake.Topping.BrownRate = "stoneware", &Base{ThicknessMM: 12}, ptr(6.0)
	return q
}

func TestALateToppingGoesOnLate(t *testing.T) {
	q := PlanRequest{Bake: crumble(), TenderMin: 5, MushMin: 60, LateMin: 18}
	q.Bake.Topping.BrownRate, q.Bake.Topping.ThicknessMM = ptr(2.0), 5
	p, err := Propose(t.Context(), q)
	if err != nil {
		t.Fatal(err)
	}
	if len(p.Unmet) > 0 || len(p.Stages) != 2 || p.Stages[0].AddTopping || !p.Stages[1].AddTopping ||
		p.Stages[1].Minutes > 18 {
		t.Errorf("%s leaves %v", p.Words(), p.Unmet)
	}
}

func TestACrustIsPushedUnderAboutTwoThirdsThrough(t *testing.T) {
	p, err := Propose(t.Context(), PlanRequest{Bake: crumble(), TenderMin: 5, MushMin: 60, PushUnder: true})
	if err != nil {
		t.Fatal(err)
	}
	share := p.Stages[0].Minutes / p.Minutes
	if len(p.Unmet) > 0 || len(p.Stages) != 2 || !p.Stages[1].PushUnder || share < 0.5 || share > 0.8 {
		t.Errorf("%s leaves %v", p.Words(), p.Unmet)
	}
}

func TestWhatHasToBeColdIsChilled(t *testing.T) {
	q := PlanRequest{Bake: crumble(), TenderMin: 5, MushMin: 60}
	rest := func(below float64) *Plan {
		q.CutBelowC = below
		p, err := Propose(t.Context(), q)
		if err != nil {
			t.Fatal(err)
		}
		return p
	}
	spooned, cut, cold := rest(0), rest(35), rest(25)
	if spooned.FridgeMin+cut.FridgeMin > 0 || spooned.RackMin >= cut.RackMin || cold.FridgeMin <= 0 ||
		cold.RackMin >= cut.RackMin ||
		cold.ServeFrom != cold.RackMin+cold.FridgeMin {
		t.Errorf(
			"spooned %g min, cut %g, cold %g and %g in the fridge",
			spooned.RackMin,
			cut.RackMin,
			cold.RackMin,
			cold.FridgeMin,
		)
	}
}

func TestAPlanOnTheScreenStaysUnlessAnotherIsClearlyBetter(t *testing.T) {
	q := PlanRequest{Bake: crumble(), TenderMin: 5, MushMin: 60}
	first, err := Propose(t.Context(), q)
	if err != nil {
		t.Fatal(err)
	}
	near := slices.Clone(first.Stages)
	for i := range near {
		near[i].OvenC--
	}
	near[len(near)-1].Minutes++
	for name, c := range map[string]struct {
		standing []Stage
		stays    bool
	}{
		"a degree less, a minute more": {near, true},
		"half an hour more":            {[]Stage{{Minutes: first.Minutes + 30, OvenC: first.OvenC, Cover: "none"}}, false},
		"of another oven":              {[]Stage{{Minutes: near[0].Minutes, OvenC: near[0].OvenC, Heating: "fan"}}, false},
		"raw in the middle":            {[]Stage{{Minutes: 20, OvenC: 180, Cover: "none"}}, false},
	} {
		q.Standing = c.standing
		p, err := Propose(t.Context(), q)
		if err != nil {
			t.Fatal(err)
		}
		if stays := slices.Equal(p.Stages, c.standing); stays != c.stays {
			t.Errorf("%s: %s becomes %s", name, first.Words(), p.Words())
		}
	}
}

func TestAnOvenThatIsKnownNarrowsTheRange(t *testing.T) {
	q := PlanRequest{Bake: crumble(), TenderMin: 5, MushMin: 60}
	unknown, _ := Propose(t.Context(), q)
	q.OffByC = 3
	known, err := Propose(t.Context(), q)
	if err != nil || known.Late.Colour-known.Early.Colour >= unknown.Late.Colour-unknown.Early.Colour {
		t.Errorf(
			"known %g to %g, unknown %g to %g, %v",
			known.Early.Colour,
			known.Late.Colour,
			unknown.Early.Colour,
			unknown.Late.Colour,
			err,
		)
	}
}

func BenchmarkProposeWhereClocksFight(b *testing.B) {
	q := fighting()
	for b.Loop() {
		if _, err := Propose(b.Context(), q); err != nil {
			b.Fatal(err)
		}
	}
}

func BenchmarkPropose(b *testing.B) {
	q := PlanRequest{Bake: crumble(), TenderMin: 5, MushMin: 60}
	for b.Loop() {
		if _, err := Propose(b.Context(), q); err != nil {
			b.Fatal(err)
		}
	}
}

// A top is as brown as it is wanted, and a base that must be crisp is.
func TestATopIsAsBrownAsItIsWanted(t *testing.T) {
	first, was := 0.0, 0.0
	for _, want := range []string{"pale", "golden", "deep", "dark"} {
		r := desserts()["crisp"]
		r.Topping.Colour = want
		a := planOf(t, r, Setting{})
		if c := a.Plan.Answer.End.Colour; c < was || !a.Verdict.Right {
			t.Errorf("%s: colour %.2f after %.2f, %s", want, c, was, a.Verdict.Summary)
		} else if was = c; first == 0 {
			first = c
		}
	}
	if was < first+0.3 {
		t.Errorf("dark is %.2f, and pale %.2f", was, first)
	}
	r := desserts()["pie"]
	soft := planOf(t, r, Setting{})
	base := *r.Base
	base.Crisp = true
	r.Base = &base
	crisp := planOf(t, r, Setting{})
	if crisp.Plan.Answer.End.Base < crispFrom && len(crisp.Plan.Unmet) == 0 ||
		crisp.Plan.Answer.End.Base <= soft.Plan.Answer.End.Base {
		t.Errorf("crisp: base %.2f, soft: %.2f", crisp.Plan.Answer.End.Base, soft.Plan.Answer.End.Base)
	}
	short := planOf(t, r, Setting{Stages: []Stage{{Minutes: 40, OvenC: 180}}})
	if text := short.Verdict.Summary.String(); !strings.Contains(text, "not crisp") {
		t.Errorf("a soft base: %s", text)
	}
}
