package watch

import (
	"context"
	"math"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/learn"
	"mabbin/core/oven"
)

func crumble() bake.DessertRequest {
	return bake.DessertRequest{Request: balance.Request{
		Dish: dish.Dish{
			Shape:    dish.Rectangle,
			LengthCM: 24,
			WidthCM:  18,
			DepthCM:  5,
			Material: "stoneware",
		},
		Style:   "crumble",
		Fruits:  []balance.FruitInput{{Key: "gooseberry", Share: 1}},
		Topping: balance.ToppingInput{Key: "crumble_classic"},
	}}
}

// kinds are the kinds of the calls that wait.
func kinds(calls []Call) (out []Kind) {
	for _, c := range calls {
		if c.State == Waiting {
			out = append(out, c.Kind)
		}
	}
	return out
}

var noon = time.Date(2026, 10, 12, 12, 0, 0, 0, time.UTC)

// minute is so many minutes after noon, when everything goes in.
func minute(m float64) time.Time { return noon.Add(minutes(m)) }

// begun is a dessert that went in at noon, its calls kept under ids of their own.
func begun(t *testing.T, q bake.DessertRequest) *Bake {
	t.Helper()
	b, err := Start(t.Context(), q, noon)
	if err != nil {
		t.Fatal(err)
	}
	keep(b)
	return b
}

// keep gives new calls their ids, as a store does.
func keep(b *Bake) {
	for i := range b.Calls {
		if b.Calls[i].ID == (CallID{}) {
			b.Calls[i].ID = CallID{0: 1, 1: byte(i)}
		}
	}
}

func TestCallsComeInTheOrderOfTheirTime(t *testing.T) {
	cases := map[string]struct {
		change  func(*bake.DessertRequest)
		stages  []bake.Stage
		kinds   []Kind // in this order, others may be between
		caution string // somewhere
	}{
		"foil first": {
			nil,
			[]bake.Stage{{Minutes: 30, OvenC: 190, Cover: "foil"}, {Minutes: 25, OvenC: 190}},
			[]Kind{Turn, Uncover, Check, TakeOut, Ready},
			"steam escapes",
		},
		"foil last": {
			nil,
			[]bake.Stage{{Minutes: 35, OvenC: 190}, {Minutes: 20, OvenC: 190, Cover: "foil"}},
			[]Kind{Turn, Cover, Check, TakeOut, Ready},
			"burn worse than water",
		},
		"falling heat, pushed under, low": {
			func(q *bake.DessertRequest) { q.Request.Dish.Material = "cast_iron" },
			[]bake.Stage{
				{Minutes: 15, OvenC: 220},
				{Minutes: 20, OvenC: 180},
				{Minutes: 15, OvenC: 180, PushUnder: true, Shelf: "low"},
			},
			[]Kind{Heat, Shelf, Push, TakeOut},
			"as hot as the oven",
		},
		"over coals": {
			func(q *bake.DessertRequest) { q.Setting.Fire = &oven.Fire{DiameterCM: 30} },
			[]bake.Stage{{Minutes: 60, OvenC: 175}},
			[]Kind{TurnPot, TurnPot, TurnPot, NewCoals, TakeOut},
			"carbon monoxide",
		},
		"custard bars": {
			func(q *bake.DessertRequest) {
				q.Request.Style, q.Request.Base, q.Request.Topping, q.Request.Custard = "bar", &balance.BaseInput{
					Key: "bar_dough",
				}, balance.ToppingInput{
					Key: "bar_dough",
				}, &balance.CustardInput{}
			},
			nil,
			[]Kind{TakeOut, Fridge, Ready},
			"within 2 hours",
		},
		"a second topping": {
			func(q *bake.DessertRequest) { q.Request.Late = []balance.ToppingInput{{Key: "praline_nut"}} },
			nil,
			[]Kind{Topping, TakeOut},
			"reach over",
		},
	}
	for name, c := range cases {
		q := crumble()
		if c.change != nil {
			c.change(&q)
		}
		q.Setting.Stages = c.stages
		s := begun(t, q)
		got, from, all := kinds(s.Calls), 0, ""
		for _, k := range c.kinds {
			i := slices.Index(got[from:], k)
			if i < 0 {
				t.Errorf("%s: no %s in its turn among %v", name, k, got)
				break
			}
			from += i + 1
		}
		for i, x := range s.Calls {
			all += x.Caution.String()
			if x.Text.IsZero() || i > 0 && x.DueAt.Before(s.Calls[i-1].DueAt) {
				t.Errorf("%s: %+v", name, s.Calls)
			}
		}
		if !strings.Contains(all, c.caution) {
			t.Errorf("%s: no caution says %q", name, c.caution)
		}
	}
}

func TestARescueIsTriedBeforeItIsOffered(t *testing.T) {
	q := crumble()
	p, err := bake.PlanOf(q)
	if err != nil {
		t.Fatal(err)
	}
	done := []bake.Stage{{Minutes: 26, OvenC: 190}}
	for trouble, c := range map[Trouble]struct {
		first   string
		minutes float64 // in already, at 190 C
		off     float64
	}{DarkRaw: {"", 40, 0}, BoilOver: {"", 26, 0}, Pale: {"hotter", 52, 0}, OvenOff: {"", 26, 12}} {
		all, err := Rescue(p, []bake.Stage{{Minutes: c.minutes, OvenC: 190}}, trouble, c.off)
		if err != nil || len(all) < 3 {
			t.Errorf("%s: %v, %v", trouble, all, err)
			continue
		}
		if !all[0].Works || all[0].Minutes < 1 || c.first != "" && !strings.HasPrefix(all[0].Code, c.first) {
			t.Errorf("%s: first comes %+v", trouble, all[0])
		}
		for i, x := range all {
			sum := 0.0
			for _, s := range x.Stages {
				sum += s.Minutes
			}
			if sum != c.minutes+x.Minutes {
				t.Errorf("%s: %g min behind and %g ahead, the stages have %g", trouble, c.minutes, x.Minutes, sum)
			}
			if x.Works != (len(x.Unmet) == 0) || i > 0 && x.Works && !all[i-1].Works {
				t.Errorf("%s: %+v", trouble, all)
			}
		}
	}
	off, _ := Rescue(p, done, OvenOff, 15)
	on, _ := Rescue(p, done, OvenOff, 0)
	if off[0].Minutes <= on[0].Minutes {
		t.Errorf("a quarter of an hour without heat costs nothing: %g and %g min", off[0].Minutes, on[0].Minutes)
	}
	if _, err := Rescue(p, done, "ghosts", 0); err == nil || !strings.Contains(err.Error(), "/trouble") {
		t.Error(err)
	}
	if _, err := Rescue(p, done, OvenOff, 500); err == nil || !strings.Contains(err.Error(), "/off_min") {
		t.Error(err)
	}
}

func TestOtherStagesWriteTheCallsAnew(t *testing.T) {
	stages := []bake.Stage{{Minutes: 30, OvenC: 190, Cover: "foil"}, {Minutes: 25, OvenC: 190}}
	for name, c := range map[string]struct {
		next []bake.Stage
		want []Kind // of what is to come, in addition to what is overdue
	}{
		"longer":            {[]bake.Stage{{Minutes: 30, OvenC: 190, Cover: "foil"}, {Minutes: 35, OvenC: 190}}, []Kind{TakeOut, Ready}},
		"foil on, at once":  {[]bake.Stage{{Minutes: 30, OvenC: 190, Cover: "foil"}, {Minutes: 9, OvenC: 190}, {Minutes: 20, OvenC: 190, Cover: "foil"}}, []Kind{Cover, TakeOut, Ready}},
		"cooler in a while": {[]bake.Stage{{Minutes: 30, OvenC: 190, Cover: "foil"}, {Minutes: 20, OvenC: 190}, {Minutes: 20, OvenC: 160}}, []Kind{Heat, TakeOut, Ready}},
	} {
		q := crumble()
		q.Setting.Stages = stages
		b := begun(t, q)
		for _, c := range b.Calls { // both were done in their time
			if c.Kind == Turn || c.Kind == Uncover {
				if err := b.Answer(c.ID, Done, c.DueAt); err != nil {
					t.Fatal(err)
				}
			}
		}
		if err := b.Replan(t.Context(), c.next, minute(40)); err != nil {
			t.Fatal(err)
		}
		if got := kinds(b.Calls); !slices.Equal(got, c.want) || !slices.Equal(b.Stages, c.next) {
			t.Errorf("%s: calls left %v, want %v; stages %v", name, got, c.want, b.Stages)
		}
	}
}

// surfaces keeps what was simulated, for all tests.
type surfaces struct{ sync.Map }

func (s *surfaces) Get(key [32]byte) (*learn.Surface, bool) {
	x, ok := s.Load(key)
	if !ok {
		return nil, false
	}
	return x.(*learn.Surface), true
}

func (s *surfaces) Add(key [32]byte, x *learn.Surface) bool {
	s.Store(key, x)
	return false
}

var kept = new(surfaces)

// inGeneral predicts a dessert in a kitchen that has learnt nothing.
func inGeneral(ctx context.Context, b *Bake) (*learn.MidBakeForecast, error) {
	q := b.AsPredicted()
	q.Setting.Stages = b.Stages
	return learn.Forecaster{Keep: kept}.Forecast(ctx, learn.LoggedBake{
		ID: "now", At: noon, Request: q, Happened: &learn.Probed{Readings: b.Probed()},
	})
}

// midway is what is predicted of a dessert in a kitchen that has learnt nothing, by what a probe has reported.
func midway(t *testing.T, q bake.DessertRequest, seen []bake.Point) *learn.MidBakeForecast {
	t.Helper()
	m, err := learn.Forecaster{}.Forecast(t.Context(), learn.LoggedBake{
		ID: "now", At: noon, Request: q, Happened: &learn.Probed{Readings: seen},
	})
	if err != nil {
		t.Fatal(err)
	}
	return m
}

func TestAProbeMovesTheCalls(t *testing.T) {
	q := crumble()
	p, err := bake.PlanOf(q)
	if err != nil {
		t.Fatal(err)
	}
	stages := []bake.Stage{{Minutes: 35, OvenC: 190}, {Minutes: 25, OvenC: 190, Cover: "foil"}}
	q.Setting.Stages = stages
	seen := func(off float64, air bool) (out []bake.Point) {
		r := p.Bake
		r.OvenOffsetC, r.Stages = off, stages
		a, err := bake.Run(r)
		if err != nil {
			t.Fatal(err)
		}
		for i, m := range a.Curves.Minute {
			if m > 30 {
				break
			}
			c := a.Curves.MiddleC[i]
			if air && m > 0 {
				c = 160 + float64(i%3)
			}
			out = append(out, bake.Point{Minute: m, C: c})
		}
		return out
	}
	estimate := func(at float64, seen []bake.Point) *Estimate {
		t.Helper()
		return Reestimate(p, stages, at, midway(t, q, seen), false)
	}
	asThought, _ := p.Finish(stages, 30)
	cool := estimate(30, seen(-20, false))
	if cool == nil || cool.OffsetC > -14 || cool.OffsetC < -24 || !cool.Moves(stages) || cool.Minutes <= asThought+2 ||
		cool.Early > cool.Minutes ||
		cool.Late < cool.Minutes ||
		cool.Doubtful {
		t.Errorf("an oven 20 C cooler: %+v", cool)
	}
	hot := estimate(30, seen(15, false))
	if hot.OffsetC < 9 || hot.Minutes >= cool.Minutes || hot.Stages[1].Minutes >= cool.Stages[1].Minutes {
		t.Errorf("an oven 15 C hotter: %+v", hot)
	}
	air := estimate(30, seen(0, true))
	if air == nil || !air.Doubtful || air.Moves(stages) {
		t.Errorf("a probe in the air: %+v", air)
	}
	if estimate(3, seen(0, false)[:4]) != nil {
		t.Error("after three minutes it tells something")
	}
}

// A later end is none at which the model itself has the top burnt, and an oven that is hotter while the bake takes
// longer explains itself.
func TestWhatAProbeSays(t *testing.T) {
	cold := 2.0 // from the fridge
	for name, c := range map[string]struct {
		fillingC    *float64
		ovenC, offC float64
		foil        bool
		minute      float64
		says, never string
	}{
		"cool":           {nil, 180, -20, false, 45, "cooler than expected", "not the cause"},
		"hot":            {nil, 180, 20, false, 45, "hotter than expected", "too dark"},
		"as thought":     {nil, 190, 0, false, 45, "as expected", "0 C"},
		"cold, hot oven": {&cold, 200, 35, true, 30, "The oven is not the cause", "too dark"},
		"beyond help":    {nil, 215, 35, false, 45, "the top is too dark", "foil"},
	} {
		stages := []bake.Stage{{Minutes: c.minute + 5, OvenC: c.ovenC}}
		q := crumble()
		q.Setting.Stages, q.Setting.FillingC = stages, c.fillingC
		p, err := bake.PlanOf(q)
		if err != nil {
			t.Fatal(err)
		}
		r := p.Bake
		r.OvenOffsetC, r.Stages = c.offC, stages
		a, err := bake.Run(r)
		if err != nil {
			t.Fatal(err)
		}
		var seen []bake.Point
		for i, m := range a.Curves.Minute {
			if m <= c.minute {
				seen = append(seen, bake.Point{Minute: m, C: a.Curves.MiddleC[i]})
			}
		}
		e := Reestimate(p, stages, c.minute, midway(t, q, seen), false)
		text := e.describe(c.minute + 5).String()
		if !strings.Contains(text, c.says) || strings.Contains(text, c.never) {
			t.Errorf("%s: %s", name, text)
		}
		covered := slices.ContainsFunc(e.Stages, func(s bake.Stage) bool { return s.Cover == "foil" })
		if covered != c.foil || covered && !e.Moves(stages) {
			t.Errorf("%s: foil %v, stages %+v", name, covered, e.Stages)
		}
		if math.Abs(total(e.Stages)-e.Minutes) > 0.5 || e.Early > e.Minutes || e.Late < e.Minutes {
			t.Errorf("%s: out after %.1f (%.1f to %.1f), stages %+v", name, e.Minutes, e.Early, e.Late, e.Stages)
		}
	}
}

// Nobody is reported to uncover a dish that has no cover.
func TestABareDishIsNotUncovered(t *testing.T) {
	p, err := bake.PlanOf(crumble())
	if err != nil {
		t.Fatal(err)
	}
	for _, trouble := range []Trouble{BoilOver, Pale} {
		for cover, want := range map[string]bool{"": false, "none": false, "foil": true} {
			all, err := Rescue(p, []bake.Stage{{Minutes: 30, OvenC: 180, Cover: cover}}, trouble, 0)
			if err != nil {
				t.Fatal(err)
			}
			uncovers := slices.ContainsFunc(all, func(x Proposal) bool {
				return strings.Contains(strings.ToLower(x.Text.String()), "uncover")
			})
			if uncovers != want {
				t.Errorf("%s under %q: %+v", trouble, cover, all)
			}
		}
	}
}

// A call that was withdrawn is stored for the log and is not among the current ones.
func TestCurrentCalls(t *testing.T) {
	b := &Bake{Calls: []Call{
		{Kind: Turn, State: Withdrawn}, {Kind: Check, State: Done}, {Kind: TakeOut, State: Waiting},
	}}
	if c := b.CurrentCalls(); len(c) != 2 || c[0].Kind != Check || c[1].Kind != TakeOut {
		t.Errorf("%+v", c)
	}
}
