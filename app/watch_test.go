package app

import (
	"context"
	"errors"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"mabbin/core/bake"
	"mabbin/core/larder"
	"mabbin/core/learn"
	"mabbin/core/outcome"
	"mabbin/core/oven"
	"mabbin/core/sell"
	"mabbin/core/watch"

	"github.com/google/uuid"
)

// yard is a kitchen with a watch, a clock, and who was reported.
type yard struct {
	OvenWatch
	kitchen uuid.UUID
	shelf   *ovenShelf
	clock   *clock
	told    atomic.Int64
}

func newYard(ovens ...KitchenOven) *yard {
	y := &yard{kitchen: uuid.New(), shelf: &ovenShelf{}, clock: newClock()}
	shelf := kitchens{id: y.kitchen, ovens: ovens}
	y.OvenWatch = OvenWatch{
		Store: y.shelf, Kitchens: shelf, Clock: y.clock.now,
		Filter: (&Learning{Store: untaught{}, Kitchens: shelf, Clock: y.clock.now}).Filter,
		Notify: func(uuid.UUID) { y.told.Add(1) },
	}
	return y
}

func (y *yard) putIn(t *testing.T) Watched {
	t.Helper()
	w, err := y.PutIn(t.Context(), y.kitchen, IntoOven{
		ID: uuid.New(), Title: "Crumble", Request: crumble(),
		Setting: Setting{Stages: []bake.Stage{{Minutes: 50, OvenC: 190}}},
		Weighed: []outcome.Weighed{{Key: "gooseberry", Name: "Gooseberry", PlannedG: 900, G: 905}},
	})
	if err != nil {
		t.Fatal(err)
	}
	return w
}

func callOf(t *testing.T, w Watched, kind watch.Kind) watch.Call {
	t.Helper()
	for _, c := range w.Calls {
		if c.Kind == kind && c.State != watch.Withdrawn {
			return c
		}
	}
	t.Fatalf("no call %s", kind)
	return watch.Call{}
}

// The oven is looked up in one place: its error, its fan and its coals go into every bake.
func TestASettingKnowsItsOven(t *testing.T) {
	indoors := KitchenOven{
		ID:   uuid.New(),
		Oven: oven.Oven{Kind: oven.Indoor, Heating: "fan", OffsetC: -8, GiveOrTakeC: 3, BottomHeat: true},
	}
	coals := KitchenOven{ID: uuid.New(), Oven: oven.Oven{Kind: oven.Camp, Heating: "conventional", DiameterCM: 30}}
	k := kitchens{id: uuid.New(), altitude: 800, ovens: []KitchenOven{indoors, coals}}
	c, minutes := 180.0, 45.0
	s, err := BakeSetting(t.Context(), k, k.id, Setting{OvenID: &indoors.ID, OvenC: &c, Minutes: &minutes}, Weather{})
	if err != nil || s.AltitudeM != 800 || s.Heating != "fan" || s.OvenOffsetC != -8 || !s.BottomHeat || s.Fire != nil ||
		len(s.Stages) != 1 || s.Stages[0] != (bake.Stage{Minutes: 45, OvenC: 180, Heating: "fan"}) {
		t.Errorf("%+v, %v", s, err)
	}
	s, err = BakeSetting(
		t.Context(),
		k,
		k.id,
		Setting{OvenID: &coals.ID},
		Weather{Wind: "windy", Fuel: oven.Lumps, Stacked: true},
	)
	if err != nil || s.Fire == nil ||
		*s.Fire != (oven.Fire{DiameterCM: 30, Wind: "windy", Fuel: oven.Lumps, Stacked: true}) ||
		len(s.Stages) != 0 {
		t.Errorf("%+v, %v", s, err)
	}
	nobody := uuid.New()
	if _, err := BakeSetting(t.Context(), k, k.id, Setting{OvenID: &nobody}, Weather{}); !errors.Is(err, ErrNotFound) {
		t.Errorf("nobody's oven: %v", err)
	}
	if _, err := BakeSetting(t.Context(), k, uuid.New(), Setting{}, Weather{}); !errors.Is(err, ErrNotFound) {
		t.Errorf("nobody's kitchen: %v", err)
	}
}

// The Bench without a kitchen knows nothing of an oven; with one, the dial follows the oven's error.
func TestTheDialFollowsTheOven(t *testing.T) {
	cold := KitchenOven{
		ID:   uuid.New(),
		Oven: oven.Oven{Kind: oven.Indoor, Heating: "conventional", OffsetC: -20, GiveOrTakeC: 4},
	}
	k := kitchens{id: uuid.New(), ovens: []KitchenOven{cold}}
	b := Bench{Kitchens: k}
	nowhere, err := b.Plan(t.Context(), BenchQuestion{Request: crumble()})
	if err != nil {
		t.Fatal(err)
	}
	there, err := b.Plan(
		t.Context(),
		BenchQuestion{Kitchen: &k.id, Request: crumble(), Setting: Setting{OvenID: &cold.ID}},
	)
	if err != nil {
		t.Fatal(err)
	}
	if there.Plan.OvenC != nowhere.Plan.OvenC+20 || there.Plan.OffByC >= nowhere.Plan.OffByC {
		t.Errorf(
			"%g C give or take %g, elsewhere %g give or take %g",
			there.Plan.OvenC,
			there.Plan.OffByC,
			nowhere.Plan.OvenC,
			nowhere.Plan.OffByC,
		)
	}
	stages := []bake.Stage{{Minutes: 45, OvenC: 180}}
	longer, err := b.WhatIf(t.Context(), BenchQuestion{Request: crumble(), Setting: Setting{Stages: stages}}, "cooler")
	if err != nil || longer.Plan.Stages[0].OvenC >= 180 {
		t.Errorf("%v", err)
	}
	if _, err := b.WhatIf(
		t.Context(),
		BenchQuestion{Request: crumble(), Setting: Setting{Stages: stages}},
		"luck",
	); !has(
		err,
		"/if",
	) {
		t.Errorf("luck: %v", err)
	}
	ways, err := b.Alternatives(t.Context(), BenchQuestion{Request: crumble()})
	if err != nil || len(ways) < 8 {
		t.Errorf("%d ways, %v", len(ways), err)
	}
	if _, err := b.Alternatives(
		t.Context(),
		BenchQuestion{Kitchen: new(uuid.UUID), Request: crumble()},
	); !errors.Is(
		err,
		ErrNotFound,
	) {
		t.Errorf("nobody's kitchen: %v", err)
	}
}

func TestADessertIsPutInOnce(t *testing.T) {
	y := newYard()
	w := y.putIn(t)
	if !w.StartedAt.Equal(y.clock.at) || len(w.Calls) < 3 || len(w.Weighed) != 1 || y.told.Load() != 1 {
		t.Fatalf("%+v", w)
	}
	y.clock.pass(time.Minute)
	again, err := y.PutIn(t.Context(), y.kitchen, IntoOven{ID: w.ID, Title: "Crumble", Request: crumble()})
	if err != nil || again.Title != "Crumble" || !again.StartedAt.Equal(w.StartedAt) || len(y.shelf.all) != 1 {
		t.Errorf("%+v, %v", again, err)
	}
	var conflict *Conflict
	_, err = y.PutIn(t.Context(), y.kitchen, IntoOven{ID: w.ID, Title: "Another", Request: crumble()})
	if !errors.As(err, &conflict) || conflict.Stored.(Watched).Title != "Crumble" || len(y.shelf.all) != 1 {
		t.Errorf("another dessert under its id: %v", err)
	}
	soup := crumble()
	soup.Style = "soup"
	if _, err := y.PutIn(
		t.Context(),
		y.kitchen,
		IntoOven{ID: uuid.New(), Request: soup},
	); !has(err, "/request/style") ||
		len(y.shelf.all) != 1 {
		t.Errorf("soup: %v", err)
	}
}

func TestCallsAreAnswered(t *testing.T) {
	y := newYard()
	w := y.putIn(t)
	look := callOf(t, w, watch.Check)
	answer := func(a Answer, snooze time.Duration) watch.Call {
		t.Helper()
		got, err := y.AnswerCall(t.Context(), y.kitchen, w.ID, look.ID, a, snooze)
		if err != nil {
			t.Fatal(err)
		}
		return callOf(t, got, watch.Check)
	}
	y.clock.pass(look.DueAt.Sub(y.clock.at))
	if c := answer(AnswerSnooze, 0); !c.DueAt.Equal(y.clock.at.Add(UsualSnooze)) {
		t.Errorf("put off to %v at %v", c.DueAt, y.clock.at)
	}
	if c := answer(AnswerSnooze, 7*time.Minute); !c.DueAt.Equal(y.clock.at.Add(7 * time.Minute)) {
		t.Errorf("put off to %v at %v", c.DueAt, y.clock.at)
	}
	if c := answer(AnswerSkip, 0); c.State != watch.Skipped {
		t.Errorf("%s", c.State)
	}
	if c := answer(AnswerUndo, 0); c.State != watch.Waiting {
		t.Errorf("%s", c.State)
	}
	reported := y.told.Load()
	if _, err := y.AnswerCall(
		t.Context(),
		y.kitchen,
		w.ID,
		watch.CallID(uuid.New()),
		AnswerDone,
		0,
	); err == nil ||
		y.told.Load() != reported {
		t.Errorf("a call that is none: %v, told %d times", err, y.told.Load()-reported)
	}
	if _, err := y.AnswerCall(t.Context(), uuid.New(), w.ID, look.ID, AnswerDone, 0); !errors.Is(err, ErrNotFound) {
		t.Errorf("in another kitchen: %v", err)
	}
	var both sync.WaitGroup // two tablets at once
	for range 2 {
		both.Go(func() { _, _ = y.AnswerCall(t.Context(), y.kitchen, w.ID, look.ID, AnswerDone, 0) })
	}
	both.Wait()
	now, err := y.Store.OneWatched(t.Context(), y.kitchen, w.ID)
	if c := callOf(t, now, watch.Check); err != nil || c.State != watch.Done || !c.AnsweredAt.Equal(y.clock.at) {
		t.Errorf("%+v, %v", c, err)
	}
}

func TestABakeIsReplannedRescuedEndedAndReopened(t *testing.T) {
	y := newYard()
	w := y.putIn(t)
	y.clock.pass(20 * time.Minute)
	ways, err := y.Rescue(t.Context(), y.kitchen, w.ID, watch.Pale, 0)
	if err != nil || len(ways) == 0 {
		t.Fatalf("%d ways, %v", len(ways), err)
	}
	if _, err := y.Rescue(t.Context(), y.kitchen, uuid.New(), watch.Pale, 0); !errors.Is(err, ErrNotFound) {
		t.Errorf("nobody's dessert: %v", err)
	}
	got, err := y.Replan(t.Context(), y.kitchen, w.ID, []bake.Stage{{Minutes: 20, OvenC: 190}, {Minutes: 15, OvenC: 170}})
	if out := callOf(t, got, watch.TakeOut); err != nil || !out.DueAt.Equal(w.StartedAt.Add(35*time.Minute)) {
		t.Errorf("out at %v, %v", out.DueAt, err)
	}
	if _, err := y.Replan(t.Context(), y.kitchen, w.ID, []bake.Stage{{Minutes: -3, OvenC: 190}}); err == nil {
		t.Error("a stage of less than nothing was taken")
	}
	if err := y.End(t.Context(), y.kitchen, w.ID); err != nil {
		t.Fatal(err)
	}
	if got, err := y.Store.OneWatched(t.Context(), y.kitchen, w.ID); err != nil || !got.EndedAt.Equal(y.clock.at) {
		t.Errorf("ended at %v, %v", got.EndedAt, err)
	}
	if got, err := y.Reopen(t.Context(), y.kitchen, w.ID); err != nil || !got.EndedAt.IsZero() {
		t.Errorf("ended at %v, %v", got.EndedAt, err)
	}
}

// A probe that can't be read stops no other, and is reported with its dessert.
func TestOneBrokenProbeStopsNoOther(t *testing.T) {
	y := newYard()
	good, bad, dropped := y.putIn(t), y.putIn(t), y.putIn(t)
	for _, w := range []Watched{good, bad, dropped} {
		if _, err := y.SetProbe(t.Context(), y.kitchen, w.ID, watch.InMiddle); err != nil {
			t.Fatal(err)
		}
	}
	y.Thermometer = func(id uuid.UUID, _ *watch.Bake, _ time.Time) (float64, bool, error) {
		switch id {
		case bad.ID:
			return 0, false, errors.New("no cable")
		case dropped.ID:
			return 0, false, nil
		}
		return 24, true, nil
	}
	y.clock.pass(2 * time.Minute)
	err := y.Poll(t.Context())
	if err == nil || !strings.Contains(err.Error(), bad.ID.String()) || !strings.Contains(err.Error(), "no cable") ||
		strings.Contains(err.Error(), good.ID.String()) {
		t.Errorf("%v", err)
	}
	for id, want := range map[uuid.UUID]int{good.ID: 1, bad.ID: 0, dropped.ID: 0} {
		w, err := y.Store.OneWatched(context.Background(), y.kitchen, id)
		if err != nil || len(w.Readings) != want {
			t.Errorf("%d readings, want %d, %v", len(w.Readings), want, err)
		}
	}
}

func TestOnlyWhatRunsAheadIsMovedOn(t *testing.T) {
	y := newYard()
	slow, quick := y.putIn(t), y.putIn(t)
	if moved, err := y.Advance(t.Context(), time.Second); moved || err != nil {
		t.Errorf("moved %v, %v", moved, err)
	}
	if _, err := y.Simulate(t.Context(), y.kitchen, quick.ID, 60, 0); err != nil {
		t.Fatal(err)
	}
	if moved, err := y.Advance(t.Context(), time.Second); !moved || err != nil {
		t.Errorf("moved %v, %v", moved, err)
	}
	for id, minutes := range map[uuid.UUID]float64{slow.ID: 0, quick.ID: 59.0 / 60} {
		w, err := y.Store.OneWatched(t.Context(), y.kitchen, id)
		if got := w.Minute(y.clock.at); err != nil || got < minutes-0.02 || got > minutes+0.02 {
			t.Errorf("%.3f min, want %.3f, %v", got, minutes, err)
		}
	}
	if _, err := y.Simulate(t.Context(), y.kitchen, quick.ID, 0, 2); err != nil {
		t.Errorf("the door: %v", err)
	}
	y.Thermometer = func(uuid.UUID, *watch.Bake, time.Time) (float64, bool, error) { return 40, true, nil }
	for _, w := range []Watched{slow, quick} {
		if _, err := y.SetProbe(t.Context(), y.kitchen, w.ID, watch.InMiddle); err != nil {
			t.Fatal(err)
		}
	}
	if _, err := y.Advance(t.Context(), time.Second); err != nil {
		t.Fatal(err)
	}
	for id, want := range map[uuid.UUID]int{slow.ID: 0, quick.ID: 1} {
		if w, err := y.Store.OneWatched(t.Context(), y.kitchen, id); err != nil || len(w.Readings) != want {
			t.Errorf("%d readings, want %d: the probe of what runs ahead alone is read; %v", len(w.Readings), want, err)
		}
	}
}

func TestTidyingGoesOnWhereOnePartFails(t *testing.T) {
	y := newYard()
	y.shelf.broken = errors.New("full")
	if err := y.Tidy(t.Context()); !errors.Is(err, y.shelf.broken) || y.shelf.tidied != 3 {
		t.Errorf("%d parts, %v", y.shelf.tidied, err)
	}
}

// What was predicted is frozen with a bake, with what the watch saw of it, and what was reported is put right by the
// clock.
func TestABakeIsLogged(t *testing.T) {
	y := newYard()
	w := y.putIn(t)
	in := &stock{now: sell.Stock{Items: []sell.StockItem{{Key: "butter", G: 1000}, {Key: "salt", G: 200}}}}
	book := &logBook{stock: in}
	log := Log{Store: book, Watch: y.shelf, Stock: in, Kitchens: y.Kitchens, Clock: y.clock.now}
	y.clock.pass(48 * time.Minute)
	if _, err := y.AnswerCall(t.Context(), y.kitchen, w.ID, callOf(t, w, watch.TakeOut).ID, AnswerDone, 0); err != nil {
		t.Fatal(err)
	}
	y.clock.pass(time.Hour)
	saucy := "saucy"
	id := uuid.New()
	b, err := log.Add(
		t.Context(),
		y.kitchen,
		BakeRecord{ID: id, Title: "Crumble", BakedAt: w.StartedAt, Request: crumble(), Outcome: Outcome{Juice: &saucy}},
		&w.ID,
	)
	if left := in.now.Items; len(left) != 2 || left[0].G > 950 || left[0].G < 700 {
		t.Errorf("what the bake used is still in store: %+v", left)
	}
	if err != nil || b.Result.FruitG < 500 || b.Happened == nil || b.Happened.Minutes != 48 {
		t.Fatalf("%+v, %v", b.Happened, err)
	}
	for _, year := range []int{1, 1969, 2201, 9999} {
		ages := BakeRecord{ID: uuid.New(), BakedAt: time.Date(year, 6, 1, 0, 0, 0, 0, time.UTC), Request: crumble()}
		if _, err := log.Add(t.Context(), y.kitchen, ages, nil); !has(err, "/baked_at") {
			t.Errorf("baked in the year %d: %v", year, err)
		}
	}
	minus := -4.0
	wrong := Outcome{Details: outcome.Details{RimMin: &minus}}
	if _, err := log.Add(
		t.Context(),
		y.kitchen,
		BakeRecord{ID: uuid.New(), Request: crumble(), Outcome: wrong},
		nil,
	); !has(
		err,
		"/outcome/told/rim_min",
	) {
		t.Errorf("minutes below none: %v", err)
	}
	soup := crumble()
	soup.Style = "soup"
	if _, err := log.Add(
		t.Context(),
		y.kitchen,
		BakeRecord{ID: uuid.New(), Request: soup},
		nil,
	); !has(
		err,
		"/request/style",
	) {
		t.Errorf("soup: %v", err)
	}
	nobody := uuid.New()
	if _, err := log.Add(
		t.Context(),
		y.kitchen,
		BakeRecord{ID: uuid.New(), BakedAt: w.StartedAt, Request: crumble()},
		&nobody,
	); !errors.Is(
		err,
		ErrNotFound,
	) {
		t.Errorf("nobody's dessert: %v", err)
	}
	if len(book.bakes) != 1 {
		t.Errorf("%d bakes were kept", len(book.bakes))
	}
	runny := "runny"
	put, err := log.Correct(t.Context(), y.kitchen, id, uuid.New(), Outcome{Juice: &runny}, "")
	if err != nil || *put.Juice != "runny" || len(put.Corrections) != 1 || *put.Corrections[0].Was.Juice != "saucy" ||
		!put.Corrections[0].At.Equal(y.clock.at) {
		t.Errorf("%+v, %v", put.Corrections, err)
	}
	if _, err := log.Correct(t.Context(), y.kitchen, id, uuid.New(), wrong, ""); !has(err, "/outcome/told/rim_min") {
		t.Errorf("put wrong: %v", err)
	}
	x, err := log.Explain(t.Context(), y.kitchen, id, func(int, int) error { return nil })
	if err != nil || x == nil || len(x.Wrong) == 0 {
		t.Errorf("runny juice is not explained: %+v, %v", x, err)
	}
	rows, err := log.Compare(t.Context(), y.kitchen, id, id)
	if err != nil || len(rows) == 0 {
		t.Errorf("%d rows, %v", len(rows), err)
	}
	if _, err := log.Compare(t.Context(), y.kitchen, id, nobody); !errors.Is(err, ErrNotFound) {
		t.Errorf("beside nobody's bake: %v", err)
	}
}

// What is predicted of a dessert is known as it goes in, follows other stages, and narrows with its probe.
func TestTheWatchForecastsADessert(t *testing.T) {
	y := newYard()
	w := y.putIn(t)
	if w.Forecast == nil || w.Forecast.Middle.IsZero() || w.Forecast.Basis.IsZero() {
		t.Fatalf("as it went in: %+v", w.Forecast)
	}
	was := w.Forecast.Forecast.MiddleBubbles
	hot, err := y.Replan(t.Context(), y.kitchen, w.ID, []bake.Stage{{Minutes: 50, OvenC: 230}})
	if err != nil || hot.Forecast.Forecast.MiddleBubbles.Value >= was.Value {
		t.Errorf("at 230 C foreseen after %+v, at 190 after %+v; %v", hot.Forecast.Forecast.MiddleBubbles, was, err)
	}
	if _, err := y.SetProbe(t.Context(), y.kitchen, w.ID, watch.InMiddle); err != nil {
		t.Fatal(err)
	}
	c := 15.0
	y.Thermometer = func(uuid.UUID, *watch.Bake, time.Time) (float64, bool, error) {
		c += 1.6
		return c, true, nil
	}
	for range 30 {
		y.clock.pass(time.Minute)
		if err := y.Poll(t.Context()); err != nil {
			t.Fatal(err)
		}
	}
	got, err := y.Store.OneWatched(t.Context(), y.kitchen, w.ID)
	if err != nil || got.Estimate == nil || len(got.Readings) != 30 {
		t.Fatalf("%d readings, %+v, %v", len(got.Readings), got.Estimate, err)
	}
	wide := func(r learn.Range) float64 { return r.P95 - r.P05 }
	if !got.Estimate.Doubtful && wide(got.Forecast.Forecast.MiddleBubbles) >= wide(hot.Forecast.Forecast.MiddleBubbles) {
		t.Errorf("with a probe foreseen as widely as without: %+v", got.Forecast.Forecast.MiddleBubbles)
	}
}

// What a kitchen's log has taught is not in what the watch looks ahead from, for it is learnt from by the tables: an
// oven is as the Shelf has it, and corrections come from what was learnt.
func TestWhatWasLearntIsNotCountedTwice(t *testing.T) {
	known := KitchenOven{ID: uuid.New(), Oven: oven.Oven{Kind: oven.Indoor, Heating: "fan", OffsetC: -8, GiveOrTakeC: 3}}
	in := bake.Setting{
		OvenOffsetC: -20,
		OffByC:      2,
		HeatFactor:  0.9,
		SteamFactor: 1.2,
		Shelf:       "low",
		Factors:     &larder.Factors{},
	}
	if got := unlearnt(in, &known); got.OvenOffsetC != -8 || got.OffByC != known.OffBy() || got.HeatFactor != 0 ||
		got.SteamFactor != 0 || got.Factors != nil || got.Shelf != "low" {
		t.Errorf("%+v", got)
	}
	if got := unlearnt(in, nil); got.OvenOffsetC != 0 || got.OffByC != 0 {
		t.Errorf("in an oven that nothing is known of: %+v", got)
	}
}
