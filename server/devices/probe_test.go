package devices

import (
	"log/slog"
	"math"
	"testing"
	"time"

	"github.com/google/uuid"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/watch"
	"mabbin/server/demo"
	"mabbin/server/store"
	"mabbin/server/store/storetest"
)

var wentIn = time.Date(2026, 10, 12, 12, 0, 0, 0, time.UTC)

// lying is a dessert whose oven is a good deal off.
func lying(t *testing.T) uuid.UUID {
	t.Helper()
	for i := range 100 {
		if id := uuid.NewSHA1(uuid.Nil, []byte{byte(i)}); math.Abs(Hidden(id)) > 12 {
			return id
		}
	}
	t.Fatal("no oven lies")
	return uuid.Nil
}

// A bake with a probe in it, by a clock of its own: the oven's error is found, the calls move, and the wrong place is noticed.
func TestAProbeOnItsRounds(t *testing.T) {
	s := storetest.Open(t)
	ctx := t.Context()
	if _, err := demo.Load(ctx, s, wentIn); err != nil {
		t.Fatal(err)
	}
	q := bake.DessertRequest{Request: balance.Request{
		Dish: dish.Dish{Shape: dish.Square, LengthCM: 20, DepthCM: 5, Material: "enamel"}, Style: "crisp",
		Fruits: []balance.FruitAsked{{Key: "plum", Share: 1}}, Topping: balance.ToppingAsked{Key: "crisp_oat_nut"},
	}}
	began, err := watch.Start(q)
	if err != nil {
		t.Fatal(err)
	}
	id := lying(t)
	if err := s.StartWatch(ctx, demo.Kitchen.ID, store.Watched{ID: id, Title: "Plum crisp", Question: q, Answer: began.Answer, Stages: began.Answer.Plan.Stages, StartedAt: wentIn}, began.Calls); err != nil {
		t.Fatal(err)
	}
	if err := s.SetProbe(ctx, demo.Kitchen.ID, id, InMiddle); err != nil {
		t.Fatal(err)
	}
	now, told := wentIn, 0
	rounds := Rounds{Store: s, Now: func() time.Time { return now }, Changed: func(uuid.UUID) { told++ }, Log: slog.New(slog.DiscardHandler)}
	for range 2 * 28 {
		now = now.Add(30 * time.Second)
		if err := rounds.Once(ctx); err != nil {
			t.Fatal(err)
		}
	}
	w, err := s.OneWatched(ctx, demo.Kitchen.ID, id)
	if err != nil {
		t.Fatal(err)
	}
	if n := len(w.Readings); n < 40 || n > 56 || told != 56 {
		t.Errorf("%d readings in 56 rounds, %d told", n, told)
	}
	hidden := Hidden(id)
	if w.Estimate == nil || math.Abs(w.Estimate.OffsetC-hidden) > 6 || w.Estimate.Doubtful {
		t.Fatalf("the oven is %g C off, and it says %+v", hidden, w.Estimate)
	}
	was, is := total(began.Answer.Plan.Stages), total(w.Stages)
	if hidden > 0 && is >= was || hidden < 0 && is <= was {
		t.Errorf("%g C off: out after %g min instead of %g", hidden, is, was)
	}
	for _, c := range w.Calls {
		if c.Kind == watch.TakeOut && math.Abs(c.DueAt.Sub(wentIn).Minutes()-is) > 0.1 {
			t.Errorf("out is called at %v", c.DueAt)
		}
	}

	// In the wrong place it is not believed.
	if err := s.SetProbe(ctx, demo.Kitchen.ID, id, InAir); err != nil {
		t.Fatal(err)
	}
	for range 8 {
		now = now.Add(30 * time.Second)
		if err := rounds.Once(ctx); err != nil {
			t.Fatal(err)
		}
	}
	if w, err = s.OneWatched(ctx, demo.Kitchen.ID, id); err != nil || w.Estimate == nil || !w.Estimate.Doubtful || total(w.Stages) != is {
		t.Errorf("in the air: %+v, %v", w.Estimate, err)
	}

	// With age the readings are thinned.
	if err := s.ThinReadings(ctx, now.Add(25*time.Hour)); err != nil {
		t.Fatal(err)
	}
	if thin, _ := s.Readings(ctx, id); len(thin) > len(w.Readings)/2+2 || len(thin) == 0 {
		t.Errorf("%d of %d readings are left a day later", len(thin), len(w.Readings))
	}
}

func total(stages []bake.Stage) (sum float64) {
	for _, s := range stages {
		sum += s.Minutes
	}
	return sum
}
