package learn

import (
	"context"
	"math"

	"mabbin/core/message"
)

// Forecaster is what a kitchen predicts its bakes with: what its log has taught, and which of it answers take. The zero
// value is the tables, with what is thought of kitchens in general.
type Forecaster struct {
	Posterior Posterior
	Used      Used
	Keep      Keeper // of surfaces; nil: none are kept
}

// MidBakeForecast is what is predicted of a bake, by what a probe has reported of it so far.
type MidBakeForecast struct {
	DessertForecast
	// Read is how many of the probe's readings tell something: none at first.
	Read int
	// The oven, as it is by then.
	OffsetC    float64
	HeatFactor float64
	// OffC is the oven as one figure, C relative to what was thought of it before, and SD how sure that is.
	OffC float64
	SD   float64
	// Odd says that the readings fit no oven.
	Odd bool

	asOffsetC float64 // the same, in addition to the offset that the bake was calculated with
}

// Forecast is what is predicted of a bake of which nothing was reported, or only what a probe has read so far: by the
// filter that learns from the log. A bad request is fault.Faults.
func (f Forecaster) Forecast(ctx context.Context, b LoggedBake) (*MidBakeForecast, error) {
	v, err := f.outlook(ctx, b)
	if err != nil {
		return nil, err
	}
	was := v.asOffset(v.drivers(v.mean, v.own))
	v.read()
	d := v.drivers(v.mean, v.own)
	x := v.forecast()
	out := &MidBakeForecast{
		DessertForecast: x.Of(f.Posterior.Bakes, len(v.answers) > 0), Read: len(v.answers),
		OffsetC: v.offsetC + d[byOven], HeatFactor: math.Exp(d[byHeat]), SD: v.asOffsetSD(d),
		asOffsetC: v.asOffset(d),
	}
	out.OffC = out.asOffsetC - was
	if asks := v.ask(); !asks.IsZero() {
		out.Ask = message.New("To improve the next forecast, {do}.", message.Part(asks))
	}
	n := v.surface.at(d)
	for i := range v.answers {
		a := &v.answers[i]
		out.Odd = out.Odd || a.weight(v.surface.predict(a, &n, d)) < oddBelow
	}
	return out, nil
}

// outlook of a bake by what the log has taught, as far as answers take it.
func (f Forecaster) outlook(ctx context.Context, b LoggedBake) (outlook, error) {
	q := LogRequest{Bakes: []LoggedBake{b}, Now: b.At}
	if err := CheckLog(q); err != nil {
		return outlook{}, err
	}
	s, err := surfaceOf(ctx, b.Request, f.Keep)
	if err != nil {
		return outlook{}, err
	}
	e := newEstimate(q, []*Surface{s})
	on := make(enabled, len(e.all))
	for _, n := range f.Used.Keys() {
		if i, ok := e.at[n]; ok {
			on = on.set(e.group(i), true)
		}
	}
	if o := &e.bakes[0]; b.Happened != nil {
		if a, ok := now(b.Happened.Readings); ok {
			o.answers = append(o.answers, a)
		}
	}
	return e.outlook(0, e.with(e.beliefBy(f.Posterior), on)), nil
}

// asOffset of a bake's oven, as one figure: C relative to the offset that it was calculated with.
func (v *outlook) asOffset(d drivers) float64 { return v.surface.asOffset(d[byOven], d[byHeat]) }

// asOffsetSD is how sure that figure is, C.
func (v *outlook) asOffsetSD(d drivers) float64 {
	by := make([]float64, len(v.params)+deviations)
	per, _ := v.perHeat(d)
	for i, p := range v.params {
		for _, u := range v.uses {
			switch {
			case u.param == p && u.driver == byOven:
				by[i] = 1
			case u.param == p && u.driver == byHeat:
				by[i] = per
			}
		}
	}
	by[len(v.params)] = 1 // its own deviation of the oven
	return math.Sqrt(ovenWiden * max(0, v.cov.quadratic(by)))
}
