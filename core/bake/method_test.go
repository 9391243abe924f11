package bake

import (
	"strings"
	"testing"

	"mabbin/core/balance"
)

func dessertOf(t *testing.T, change func(*balance.Request, *Setting)) *DessertAnswer {
	t.Helper()
	r, s := gooseberries(), Setting{}
	change(&r, &s)
	a, err := Dessert(t.Context(), DessertRequest{Request: r, Setting: s})
	if err != nil {
		t.Fatal(err)
	}
	return a
}

func stepOf(a *DessertAnswer, code string) string {
	for _, m := range a.Balance.Method {
		if m.Code == code {
			return m.Text.String()
		}
	}
	return ""
}

// The method bakes as the plan does: its heat, its minutes, its cover, and its rest.
func TestTheMethodIsThePlans(t *testing.T) {
	foil := []Stage{{Minutes: 20, OvenC: 185, Cover: "foil"}, {Minutes: 40, OvenC: 185}}
	a := dessertOf(t, func(_ *balance.Request, s *Setting) { s.Stages = foil })
	text := stepOf(a, "bake")
	for _, want := range []string{"20 min at 185 C, under foil.", "Then 40 min at 185 C, uncovered.", "Start checking"} {
		if !strings.Contains(text, want) {
			t.Errorf("no %q in %q", want, text)
		}
	}
	if rest := stepOf(a, "rest"); !strings.HasPrefix(rest, "Let it stand ") ||
		strings.Count(rest, "Let it stand") > 1 {
		t.Errorf("the rest is %q", rest)
	}
	open := dessertOf(t, func(_ *balance.Request, s *Setting) { s.Stages = []Stage{{Minutes: 60, OvenC: 180}} })
	if text := stepOf(open, "bake"); strings.Contains(text, "cover") {
		t.Errorf("a bare dish is covered or uncovered: %q", text)
	}
	cold := dessertOf(t, func(_ *balance.Request, s *Setting) { s.FillingC = gap(-18) })
	if !cold.Plan.ColdStart || cold.Plan.OvenC < 150 {
		t.Errorf("a cold start at %g C", cold.Plan.OvenC)
	}
}

// A remark on a base that goes soggy does not is next to a plan that bakes it crisp.
func TestNoSoggyBaseRemarkForACrispBase(t *testing.T) {
	bars := func(minutes float64) *DessertAnswer {
		return dessertOf(t, func(r *balance.Request, s *Setting) {
			r.Style, r.Base, r.Dish.Material = "bar", &balance.BaseInput{Key: "bar_dough"}, "dark_metal"
			r.Topping = balance.ToppingInput{Key: "bar_dough"}
			s.Stages, s.Shelf = []Stage{{Minutes: minutes, OvenC: 175}}, "low"
		})
	}
	wet := func(a *DessertAnswer) bool {
		for _, r := range a.Balance.Remarks {
			if r.Code == "wet_base" {
				return true
			}
		}
		return false
	}
	if short := bars(20); !wet(short) {
		t.Errorf("after 20 min the base is at %.2f, and nothing is said", short.Plan.Answer.End.Base)
	}
	if long := bars(90); wet(long) || long.Plan.Answer.End.Base < crispFrom {
		t.Errorf("after 90 min the base is at %.2f, and it is said to be soggy", long.Plan.Answer.End.Base)
	}
}

// Bare fruit is judged by fruit and juice: there is no top to be pale.
func TestBareFruitHasNoTop(t *testing.T) {
	a := dessertOf(t, func(r *balance.Request, _ *Setting) { r.Topping = balance.ToppingInput{Key: "none"} })
	if a.Expected().Top != "" || !a.Verdict.Right ||
		strings.Contains(a.Verdict.Summary.String()+a.Verdict.Detail.String(), "op ") {
		t.Errorf("%s %s", a.Verdict.Summary, a.Verdict.Detail)
	}
	lid := dessertOf(t, func(*balance.Request, *Setting) {})
	if a.Plan.Answer.End.SteamedOffG <= lid.Plan.Answer.End.SteamedOffG {
		t.Errorf(
			"bare fruit steams off %.0f g, under a crumble %.0f g",
			a.Plan.Answer.End.SteamedOffG,
			lid.Plan.Answer.End.SteamedOffG,
		)
	}
}

// Thin air lifts a dough too fast.
func TestLeavenAtAltitude(t *testing.T) {
	at := func(m float64) string {
		a := dessertOf(t, func(r *balance.Request, s *Setting) {
			r.Style, r.Topping, s.AltitudeM = "cobbler", balance.ToppingInput{Key: "biscuit_drop"}, m
		})
		for _, r := range a.Balance.Remarks {
			if r.Code == "altitude_leavening" {
				return r.Action.String()
			}
		}
		return ""
	}
	if at(300) != "" || !strings.Contains(at(2000), "Use 30 % less") {
		t.Errorf("at 300 m %q, at 2000 m %q", at(300), at(2000))
	}
}

// A tough fruit that is cooked alone is tender with the rest, and warms the dish only by its share.
func TestTheToughFruitAlone(t *testing.T) {
	mixture := func(only []string) PlanRequest {
		r := gooseberries()
		r.Fruits = []balance.FruitInput{{Key: "quince", Share: 0.4}, {Key: "apple_firm", Share: 0.6}}
		r.Precook = &balance.PrecookInput{Minutes: 15, Fruits: only}
		q, err := PlanOf(DessertRequest{Request: r})
		if err != nil {
			t.Fatal(err)
		}
		return q
	}
	all, alone := mixture(nil), mixture([]string{"quince"})
	if *alone.Bake.Filling.StartC >= *all.Bake.Filling.StartC || alone.TenderMin <= all.TenderMin {
		t.Errorf(
			"alone: %g C, %g min; all: %g C, %g min",
			*alone.Bake.Filling.StartC,
			alone.TenderMin,
			*all.Bake.Filling.StartC,
			all.TenderMin,
		)
	}
}
