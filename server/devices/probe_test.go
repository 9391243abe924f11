package devices

import (
	"errors"
	"math"
	"strings"
	"testing"
	"time"

	"mabbin/app"
	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/watch"
	"mabbin/server/demo"
	"mabbin/server/store/storetest"

	"github.com/google/uuid"
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

func plumCrisp() bake.DessertRequest {
	return bake.DessertRequest{Request: balance.Request{
		Dish: dish.Dish{Shape: dish.Square, LengthCM: 20, DepthCM: 5, Material: "enamel"}, Style: "crisp",
		Fruits: []balance.FruitInput{{Key: "plum", Share: 1}}, Topping: balance.ToppingInput{Key: "crisp_oat_nut"},
	}}
}

// A bake with a probe in it, by a clock of its own: the oven's error is found, the calls move, and the wrong place is
// noticed.
func TestAProbeFindsTheOven(t *testing.T) {
	s := storetest.Open(t)
	ctx := t.Context()
	if _, err := demo.Load(ctx, s, wentIn); err != nil {
		t.Fatal(err)
	}
	q := plumCrisp()
	now, reported := wentIn, 0
	oven := app.OvenWatch{
		Store:       s,
		Kitchens:    s,
		Clock:       func() time.Time { return now },
		Notify:      func(uuid.UUID) { reported++ },
		Filter:      (&app.Learning{Store: s, Kitchens: s, Clock: func() time.Time { return now }}).Filter,
		Thermometer: ReadSimulated,
	}
	id := lying(t)
	began, err := oven.PutIn(ctx, demo.Kitchen.ID, app.IntoOven{ID: id, Title: "Plum crisp", Request: q.Request})
	if err != nil {
		t.Fatal(err)
	}
	probe := func(at watch.Place) {
		t.Helper()
		if _, err := oven.SetProbe(ctx, demo.Kitchen.ID, id, at); err != nil {
			t.Fatal(err)
		}
	}
	poll := func(times int) app.Watched {
		t.Helper()
		for range times {
			now = now.Add(30 * time.Second)
			if err := oven.Poll(ctx); err != nil {
				t.Fatal(err)
			}
		}
		w, err := s.OneWatched(ctx, demo.Kitchen.ID, id)
		if err != nil {
			t.Fatal(err)
		}
		return w
	}
	probe(watch.InMiddle)
	reported = 0
	w := poll(56)
	if n := len(w.Readings); n < 40 || n > 56 || reported != 56 {
		t.Errorf("%d readings in 56 rounds, %d told", n, reported)
	}
	hidden := Hidden(id)
	if w.Estimate == nil || math.Abs(w.Estimate.OffsetC-hidden) > 6 || w.Estimate.Doubtful {
		t.Fatalf("the oven is %g C off, and it says %+v", hidden, w.Estimate)
	}
	was, is := total(began.Stages), total(w.Stages)
	if hidden > 0 && is >= was || hidden < 0 && is <= was {
		t.Errorf("%g C off: out after %g min instead of %g", hidden, is, was)
	}
	for _, c := range w.Calls {
		if c.Kind == watch.TakeOut && c.State == watch.Waiting && math.Abs(c.DueAt.Sub(wentIn).Minutes()-is) > 0.1 {
			t.Errorf("out is called at %v", c.DueAt)
		}
	}

	// In the wrong place it is not believed.
	probe(watch.InAir)
	if w = poll(20); w.Estimate == nil || !w.Estimate.Doubtful || total(w.Stages) != is {
		t.Errorf("in the air: %+v", w.Estimate)
	}

	// With age the readings are thinned.
	if err := s.ThinReadings(ctx, now.Add(-7*24*time.Hour), now.Add(time.Hour)); err != nil {
		t.Fatal(err)
	}
	if thin := poll(0); len(thin.Readings) > 11 || len(thin.Readings) == 0 { // of ten minutes
		t.Errorf("%d of %d readings are left a day later", len(thin.Readings), len(w.Readings))
	}
}

// A dessert whose data can't be used silences no other probe.
func TestOneBrokenProbeStopsNoOther(t *testing.T) {
	s := storetest.Open(t)
	ctx := t.Context()
	if _, err := demo.Load(ctx, s, wentIn); err != nil {
		t.Fatal(err)
	}
	now := wentIn
	broken, good := uuid.New(), uuid.New()
	oven := app.OvenWatch{
		Store: s, Kitchens: s, Clock: func() time.Time { return now }, Notify: func(uuid.UUID) {},
		Filter: (&app.Learning{Store: s, Kitchens: s, Clock: func() time.Time { return now }}).Filter,
		Thermometer: func(id uuid.UUID, b *watch.Bake, at time.Time) (float64, bool, error) {
			if id == broken {
				return 0, false, errors.New("its stages are gone")
			}
			return 40, true, nil
		},
	}
	for _, id := range []uuid.UUID{broken, good} {
		if _, err := oven.PutIn(
			ctx,
			demo.Kitchen.ID,
			app.IntoOven{ID: id, Title: "Plum crisp", Request: plumCrisp().Request},
		); err != nil {
			t.Fatal(err)
		}
		if _, err := oven.SetProbe(ctx, demo.Kitchen.ID, id, watch.InMiddle); err != nil {
			t.Fatal(err)
		}
		now = now.Add(time.Second)
	}
	if err := oven.Poll(ctx); err == nil || !strings.Contains(err.Error(), broken.String()) {
		t.Errorf("the broken one is told as %v", err)
	}
	if w, err := s.OneWatched(ctx, demo.Kitchen.ID, good); err != nil || len(w.Readings) != 1 {
		t.Errorf("the other has %d readings, %v", len(w.Readings), err)
	}
}

func total(stages []bake.Stage) (sum float64) {
	for _, s := range stages {
		sum += s.Minutes
	}
	return sum
}
