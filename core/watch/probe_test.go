package watch

import (
	"context"
	"errors"
	"reflect"
	"slices"
	"testing"

	"mabbin/core/bake"
	"mabbin/core/learn"
)

// probed is a crumble with a probe in it, and what is predicted of it before that tells anything.
func probed(t *testing.T) *Bake {
	t.Helper()
	b := begun(t, crumble())
	_, err := b.UpdateForecast(t.Context(), inGeneral)
	must(t, err)
	b.SetProbe(InMiddle)
	return b
}

// curve is the middle of a bake in an oven that is off, by minute.
func curve(t *testing.T, b *Bake, offC float64) bake.Curves {
	t.Helper()
	q := b.AsPredicted()
	q.Setting.OvenOffsetC += offC
	q.Setting.Stages = b.Stages
	a, err := bake.Dessert(t.Context(), q)
	must(t, err)
	return a.Plan.Answer.Curves
}

// What is predicted narrows with what the probe tells, and the calls follow it; before it tells anything nothing moves.
func TestAProbeNarrowsTheForecast(t *testing.T) {
	b := probed(t)
	before, planned := *b.Forecast, total(b.Stages)
	wide := before.Forecast.MiddleBubbles.P95 - before.Forecast.MiddleBubbles.P05
	if before.Basis.IsZero() || before.Middle.IsZero() || wide <= 0 {
		t.Fatalf("as it goes in: %+v", before)
	}
	seen := curve(t, b, -18)
	for m := 1.0; m <= 38; m++ {
		must(t, b.Read(t.Context(), seen.MiddleAt(m), minute(m), inGeneral))
		if m < 6 && (b.Estimate != nil || !reflect.DeepEqual(*b.Forecast, before)) {
			t.Fatalf("after %g min it tells something: %+v", m, b.Estimate)
		}
	}
	e := b.Estimate
	if e == nil || e.Doubtful || e.OffsetC > -8 || e.OffsetC < -26 || e.Early > e.Minutes || e.Late < e.Minutes {
		t.Fatalf("in an oven 18 C cooler: %+v", e)
	}
	if total(b.Stages) <= planned+movesMin {
		t.Errorf("it is out after %g min, as if nothing had been told (%g)", total(b.Stages), planned)
	}
	if out := call(t, b, TakeOut); out.DueAt.Sub(b.StartedAt).Minutes() < planned+movesMin {
		t.Errorf("out is called at %v", out.DueAt)
	}
	now := b.Forecast.Forecast.MiddleBubbles
	if now.P95-now.P05 >= wide || now.Value <= before.Forecast.MiddleBubbles.Value {
		t.Errorf("foreseen before %+v, by the probe %+v", before.Forecast.MiddleBubbles, now)
	}
}

// Out of the fruit a probe moves nothing, and what was predicted stays, whether it never was in it or slipped out.
func TestAProbeOutOfTheFruitMovesNothing(t *testing.T) {
	for name, until := range map[string]float64{"never in it": 0, "slipped out": 12} {
		b := probed(t)
		seen := curve(t, b, 0)
		stages := slices.Clone(b.Stages)
		for m := 1.0; m <= until; m++ {
			must(t, b.Read(t.Context(), seen.MiddleAt(m), minute(m), inGeneral))
		}
		predicted := *b.Forecast
		for m := until + 1; m <= until+8; m++ {
			must(t, b.Read(t.Context(), 171+m/10, minute(m), inGeneral))
		}
		if b.Estimate == nil || !b.Estimate.Doubtful || !slices.Equal(b.Stages, stages) ||
			!reflect.DeepEqual(*b.Forecast, predicted) {
			t.Errorf("%s: %+v, stages %v", name, b.Estimate, b.Stages)
		}
	}
}

// A long bake is read off as many readings as a short one, and what can't be predicted changes nothing.
func TestReadingsAreFewAndErrorsChangeNothing(t *testing.T) {
	b := probed(t)
	for i := range 5000 {
		b.Readings = append(b.Readings, bake.Point{Minute: float64(i) / 10, C: 60})
	}
	fewer := b.Probed()
	if n := len(fewer); n > mostReading || n < mostReading/2 || fewer[0] != b.Readings[0] {
		t.Errorf("%d of %d readings", n, len(b.Readings))
	}
	predicted, broken := b.Forecast, errors.New("the log can't be read")
	_, err := b.UpdateForecast(
		t.Context(),
		func(context.Context, *Bake) (*learn.MidBakeForecast, error) { return nil, broken },
	)
	if !errors.Is(err, broken) || b.Forecast != predicted {
		t.Errorf("%v, %+v", err, b.Forecast)
	}
}
