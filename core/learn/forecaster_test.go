package learn

import (
	"encoding/json"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"mabbin/core/bake"
)

// A probe in the middle finds the oven: with noise, with gaps, and with one reading from the air. Nothing that the
// oven can't be is taken for one.
func TestAProbeFindsTheOven(t *testing.T) {
	q := desserts()[3]
	seen := func(off, until float64) (out []bake.Point) {
		r := q
		r.Setting.OvenOffsetC = off
		a, err := bake.Dessert(t.Context(), r)
		if err != nil {
			t.Fatal(err)
		}
		curve := a.Plan.Answer.Curves
		for i, m := range curve.Minute {
			if m <= until && i%7 != 3 { // it drops out now and then
				out = append(out, bake.Point{Minute: m, C: curve.MiddleC[i] + []float64{0.8, -1.1, 0.3, -0.4, 1.2}[i%5]})
			}
		}
		return out
	}
	predicted := func(points []bake.Point) *MidBakeForecast {
		t.Helper()
		m, err := Forecaster{}.Forecast(t.Context(), LoggedBake{
			ID: "now", At: simulatedFrom, Oven: "range", Request: q, Happened: &Probed{points},
		})
		if err != nil {
			t.Fatal(err)
		}
		return m
	}
	before := predicted(nil)
	wide := before.Forecast.MiddleBubbles.P95 - before.Forecast.MiddleBubbles.P05
	for _, off := range []float64{-22, -6, 0, 14} {
		curve := seen(off, 42)
		curve = append(slices.Insert(curve, len(curve)/2, bake.Point{Minute: curve[len(curve)/2].Minute, C: 178}),
			bake.Point{Minute: 42.5, C: 176}) // and it slipped into the air
		m := predicted(curve)
		r := m.Forecast.MiddleBubbles
		if math.Abs(m.OffC-off) > 7 || m.Odd || m.Read < 2 || m.SD >= before.SD || r.P95-r.P05 >= wide {
			t.Errorf("an oven that is %g C off is found to be %.1f +- %.1f, %+v of %g", off, m.OffC, m.SD, r, wide)
		}
	}
	if before.Read != 0 || before.Odd {
		t.Errorf("without a reading: %+v", before)
	}
	if m := predicted(seen(0, 3)); m.Read != 0 || m.OffC != before.OffC {
		t.Errorf("after three minutes it tells something: %+v", m)
	}
	whole := seen(-22, 33)
	if m := predicted(whole[len(whole)-6:]); m.Read != 1 || m.OffC > -6 || m.OffC < -30 || m.SD >= before.SD || m.Odd {
		t.Errorf("a thermometer that was put in late, in an oven that is 22 C cooler: %+v", m)
	}
	var air []bake.Point
	for i := range 30 {
		air = append(air, bake.Point{Minute: float64(i), C: 160 + float64(i%3)})
	}
	air[0].C = 20
	if m := predicted(air); !m.Odd {
		t.Errorf("a probe in the air: %+v", m)
	}
}

// What is predicted in mid-bake is as sure as it says, in simulated kitchens; and what was learnt is the same when it
// has been written down in between.
func TestMidwayIsAsSureAsItSays(t *testing.T) {
	if testing.Short() {
		t.Skip("many bakes are estimated: it runs without the race detector")
	}
	const kitchens, unseen = 24, 4
	keep := keeper()
	var ovens, ranges covered
	for seed := range kitchens {
		k := simulate(t, keep, uint64(100+seed), 12, unseen)
		log := k.hide(unseen)
		learnt, err := Learn(t.Context(), log, keep, nil)
		if err != nil {
			t.Fatal(err)
		}
		f := Forecaster{Keep: keep, Used: learnt.Use()}
		text, err := json.Marshal(learnt.Posterior())
		if err != nil {
			t.Fatal(err)
		}
		if err := json.Unmarshal(text, &f.Posterior); err != nil {
			t.Fatal(err)
		}
		chance := rand.New(rand.NewPCG(uint64(seed), 3))
		for i := 12; i < 12+unseen; i++ {
			o, b := &k.ran.bakes[i], log.Bakes[i]
			d := o.drivers(k.ran.mean, k.ran.own[i])
			n := o.surface.at(d)
			was := bake.Point{C: 12}
			b.Happened = &Probed{}
			for c, to := range bake.CrossedC[:2] {
				m := math.Exp(n.ln[ofCrossed+c] + d[byDepth] + crossedSD*chance.NormFloat64())
				for s := 0.0; s <= 1; s += 0.1 {
					b.Happened.Readings = append(b.Happened.Readings,
						bake.Point{Minute: was.Minute + s*(m-was.Minute), C: was.C + s*(to+0.01-was.C)})
				}
				was = bake.Point{Minute: m, C: to + 0.01}
			}
			m, err := f.Forecast(t.Context(), b)
			if err != nil {
				t.Fatal(err)
			}
			b.Happened = nil
			thought, err := f.Forecast(t.Context(), b)
			if err != nil {
				t.Fatal(err)
			}
			truth := o.surface.asOffset(d[byOven], d[byHeat]) - thought.asOffsetC
			ovens.z((m.OffC - truth) / m.SD)
			if x := k.request.Bakes[i].Reported.MiddleMin; x != nil {
				ranges.in(m.Forecast.MiddleBubbles, *x)
			}
		}
	}
	ovens.promised(t, "ovens in mid-bake", 0.42, 0.70, 0.84, 1)
	ranges.promised(t, "minutes in mid-bake", 0.38, 0.68, 0.80, 1)
}

// What would narrow most is asked for, and nothing where all is known.
func TestWhatWouldNarrowMost(t *testing.T) {
	keep := keeper()
	k := simulate(t, keep, 9, 12, 1)
	q := k.hide(1)
	learnt, err := Learn(t.Context(), q, keep, nil)
	if err != nil {
		t.Fatal(err)
	}
	b := q.Bakes[len(q.Bakes)-1]
	asks := func(f Forecaster) string {
		f.Keep = keep
		m, err := f.Forecast(t.Context(), b)
		if err != nil {
			t.Fatal(err)
		}
		return m.Ask.String()
	}
	if s := asks(Forecaster{}); !strings.HasPrefix(s, "To improve the next forecast, ") {
		t.Errorf("of kitchens in general: %q", s)
	}
	sure := learnt.Posterior()
	all := Used{Ovens: map[string]UsedOven{}, Steam: 1}
	all.Release, all.Softness = map[string]float64{}, map[string]float64{}
	all.Thickener, all.Colour = map[string]float64{}, map[string]float64{}
	for i, p := range sure.Parameters {
		sure.Covariance[i] = slices.Clone(sure.Covariance[i])
		for j := range sure.Covariance[i] {
			sure.Covariance[i][j] *= 1e-4
		}
		switch p.Kind {
		case OvenOffset:
			all.Ovens[p.Key] = UsedOven{}
		case Release:
			all.Release[p.Key] = 1
		case Softness:
			all.Softness[p.Key] = 1
		case Thickener:
			all.Thickener[p.Key] = 1
		case Colour:
			all.Colour[p.Key] = 1
		}
	}
	if s := asks(Forecaster{Posterior: sure, Used: all}); s != "" {
		t.Errorf("where all is known: %q", s)
	}
	// with the top's colour alone unsure, that is asked
	all.Colour = map[string]float64{}
	if s := asks(Forecaster{Posterior: sure, Used: all}); !strings.Contains(s, "the colour of the top") {
		t.Errorf("where the colour is not known: %q", s)
	}
}
