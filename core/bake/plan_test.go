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
		p, err := Propose(q)
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
		if sum != p.Minutes || p.LookFrom >= p.Minutes || p.Answer.End.Colour < paleBelow || p.Early.Colour >= p.Late.Colour || p.ServeFrom <= 0 {
			t.Errorf("%s: %s, %+v", name, p.Words(), p)
		}
		if q.PushUnder && !slices.ContainsFunc(p.Stages, func(s Stage) bool { return s.PushUnder }) {
			t.Errorf("%s: nothing is pushed under in %+v", name, p.Stages)
		}
	}
}

func TestWhereTheClocksFightSomethingElseIsTried(t *testing.T) {
	q := PlanRequest{Bake: crumble(), TenderMin: 60, MushMin: 70} // quince-hard, and gone ten minutes later
	q.Bake.Topping.BrownRate = ptr(6.0)
	p, err := Propose(q)
	if err != nil {
		t.Fatal(err)
	}
	if len(p.Unmet) == 0 || len(p.WaysOut) < 4 {
		t.Errorf("unmet %v, ways out %+v", p.Unmet, p.WaysOut)
	}
	if _, err := Propose(PlanRequest{Heating: "sun"}); err == nil || !strings.Contains(err.Error(), "/heating") || !strings.Contains(err.Error(), "/bake/dish") {
		t.Errorf("%v", err)
	}
}

func BenchmarkPropose(b *testing.B) {
	q := PlanRequest{Bake: crumble(), TenderMin: 5, MushMin: 60}
	for b.Loop() {
		if _, err := Propose(q); err != nil {
			b.Fatal(err)
		}
	}
}
