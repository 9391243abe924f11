package bake

import (
	"math"
	"strings"
	"testing"

	"mabbin/core/dish"
)

func ptr[T any](v T) *T { return &v }

func crumble() Request {
	return Request{
		Dish:    dish.Dish{Shape: dish.Rectangle, LengthCM: 25, WidthCM: 16, DepthCM: 5, Material: "enamel"},
		Filling: Filling{MassG: 950, SetPct: ptr(3.6)},
		Topping: &Topping{ThicknessMM: 15, DensityGPerML: 0.58, ConductivityWMK: 0.16, HeatJKgK: 2000, WaterPct: 10},
		Stages:  []Stage{{Minutes: 70, OvenC: 180}},
	}
}

func mustRun(t *testing.T, change func(*Request)) *Answer {
	t.Helper()
	r := crumble()
	change(&r)
	a, err := Run(r)
	if err != nil {
		t.Fatal(err)
	}
	for _, list := range [][]float64{a.Curves.MiddleC, a.Curves.ColdestC, a.Curves.RimC, a.Curves.SurfaceC, a.Curves.FloorC, {a.End.Colour, a.End.RimColour, a.End.Base, a.End.FruitMinutes, a.End.SetShare, a.End.SteamedOffG}} {
		for _, x := range list {
			if math.IsNaN(x) || math.IsInf(x, 0) {
				t.Fatalf("not a number in %+v", a.End)
			}
		}
	}
	return a
}

// minute is when an event happens, and late where it never does.
func minute(e *float64) float64 {
	if e == nil {
		return 1e9
	}
	return *e
}

// A slab with constant properties, convection on both sides, no water and one column, against its series solution.
func TestSlabAgainstItsSeries(t *testing.T) {
	const (
		thick, k, rho, c = 0.03, 0.30, 800.0, 2000.0
		hc, air, start   = 12.0, 80.0, 10.0
		seconds          = 40 * 60
	)
	m := &model{
		gap:       0,
		baseAt:    -1,
		eps:       0,
		panK:      50,
		panC:      1e-3,
		floorMM:   1e-6,
		boil:      1e9,
		brown:     1,
		perimeter: 0,
		length:    0,
		width:     1,
		apart:     1,
	}
	m.area = [2]float64{0.04, 0.04}
	m.top = &Topping{ThicknessMM: thick * 1000, DensityGPerML: rho / 1000, ConductivityWMK: k, HeatJKgK: c}
	m.add(floorLayer, 1, m.floorMM, start)
	m.fillAt, m.topAt = 1, 1
	const cells = cellsFill + cellsTop
	m.add(topLayer, cells, thick/cells, start)
	m.face = [2]float64{start, start}
	o := oven{setting: setting{hc: hc}, c: air, below: 0, above: 0, eps: [2]float64{1e-12, 1e-12}}
	for range seconds / 4 {
		m.step(o, 4)
	}
	// Biot numbers below and above; eigenvalues of the slab between them
	b0 := thick / k / (1/(floorShare*hc) + contactR + m.floorMM/m.panK)
	b1 := thick / k / (1/hc + 1/coverAir)
	f := func(mu float64) float64 { return (mu*mu-b0*b1)*math.Sin(mu) - mu*(b0+b1)*math.Cos(mu) }
	series := func(x float64) float64 {
		theta, found := 0.0, 0
		for lo := 1e-4; found < 12; lo += 0.01 {
			if f(lo)*f(lo+0.01) > 0 {
				continue
			}
			a, b := lo, lo+0.01
			for range 60 {
				if mid := (a + b) / 2; f(a)*f(mid) <= 0 {
					b = mid
				} else {
					a = mid
				}
			}
			mu := (a + b) / 2
			shape := func(x float64) float64 { return math.Cos(mu*x) + b0/mu*math.Sin(mu*x) }
			top, bottom, n := 0.0, 0.0, 400
			for i := range n {
				y := (float64(i) + 0.5) / float64(n)
				top += shape(y)
				bottom += shape(y) * shape(y)
			}
			theta += top / bottom * shape(x) * math.Exp(-mu*mu*k/(rho*c)*seconds/(thick*thick))
			found++
		}
		return air + (start-air)*theta
	}
	for i := range cells {
		x := (float64(i) + 0.5) / cells
		if got, want := m.t[core][1+i], series(x); math.Abs(got-want) > 0.2 {
			t.Errorf("at %.2f of the slab: %.3f C, want %.3f", x, got, want)
		}
	}
}

// What came in from the oven is what warmed up and what left as steam: in every worked case, ice too.
func TestEnergyCloses(t *testing.T) {
	for _, c := range workedCases(t) {
		r := c.Request
		m := newModel(r)
		was, tick := *m, newClocks(r, m)
		m.exchange(ovenOf(r, r.Stages[0]), 0)
		for _, s := range r.Stages {
			tick.enter(s)
			o := ovenOf(r, s)
			for range int(s.Minutes * 60 / 5) {
				m.step(o, 5)
			}
		}
		warmed, left := 0.0, m.steam
		for col := range 2 {
			for i := range m.n {
				warmed += m.warming(col, i, was.t[col][i], m.t[col][i])
			}
			if m.baseAt >= 0 {
				for i := range cellsBase {
					left += was.water[col][i] - m.water[col][i]
				}
			}
		}
		off := 100 * (m.given - warmed - left*latent) / m.given
		if t.Logf("%s: %.3f %% of %.0f kJ", c.Name, off, m.given/1e3); math.Abs(off) > 0.5 {
			t.Errorf("%s: %.0f kJ came in, %.0f warmed it, %.0f left as steam", c.Name, m.given/1e3, warmed/1e3, left*latent/1e3)
		}
	}
}

// A degree less at the start is never quicker: ice that melts takes the same heat whatever the step.
func TestColderFruitIsNeverSooner(t *testing.T) {
	last := 0.0
	for c := 20.0; c >= -25; c-- {
		a := mustRun(t, func(r *Request) {
			r.Filling.StartC, r.Filling.MassG = &c, 1300
			r.Stages[0].Minutes = 240
		})
		now := minute(a.Events.MiddleBubbles)
		if now < last-1e-9 || last > 0 && c < -3 && now > last+1 {
			t.Errorf("from %g C the middle bubbles after %.2f min, a degree warmer after %.2f", c, now, last)
		}
		last = now
	}
}

func TestHotterIsNeverSlower(t *testing.T) {
	last := 1e9
	for c := 140.0; c <= 240; c += 20 {
		a := mustRun(t, func(r *Request) { r.Stages[0] = Stage{Minutes: 200, OvenC: c} })
		if now := minute(a.Events.MiddleBubbles); now > last+0.01 {
			t.Errorf("at %g C the middle bubbles after %g min, 20 C less after %g", c, now, last)
		} else {
			last = now
		}
	}
}

func TestDeeperIsNeverFaster(t *testing.T) {
	last := 0.0
	for g := 300.0; g <= 2400; g += 300 {
		a := mustRun(t, func(r *Request) { r.Filling.MassG = g; r.Stages[0].Minutes = 400 })
		if now := minute(a.Events.MiddleBubbles); now < last-0.01 {
			t.Errorf("%g g bubble after %g min, less after %g", g, now, last)
		} else {
			last = now
		}
	}
}

func TestACoverNeverBrownsMore(t *testing.T) {
	open := mustRun(t, func(*Request) {})
	for _, cover := range []string{"foil", "lid", "parchment"} {
		if a := mustRun(
			t,
			func(r *Request) { r.Stages[0].Cover = cover },
		); a.End.Colour >= open.End.Colour ||
			a.End.RimColour >= open.End.RimColour {
			t.Errorf("%s: colour %g, open %g", cover, a.End.Colour, open.End.Colour)
		}
	}
	if a := mustRun(
		t,
		func(r *Request) { r.Stages[0].Cover = "rim" },
	); a.End.RimColour >= open.End.RimColour ||
		a.End.Colour < 0.9*open.End.Colour {
		t.Errorf("a rim shield: %+v", a.End)
	}
}

func TestStageEvents(t *testing.T) {
	bare := mustRun(t, func(r *Request) {
		r.Stages = []Stage{{Minutes: 30, OvenC: 180}, {Minutes: 40, OvenC: 180, AddTopping: true}}
	})
	if on := mustRun(
		t,
		func(*Request) {},
	); bare.End.Colour >= on.End.Colour ||
		minute(bare.Events.MiddleBubbles) >= minute(on.Events.MiddleBubbles) {
		t.Errorf("topping added late: %+v, from the start %+v", bare.End, on.End)
	}
	still := mustRun(t, func(r *Request) { r.Stages = []Stage{{Minutes: 40, OvenC: 180}, {Minutes: 30, OvenC: 180}} })
	pushed := mustRun(t, func(r *Request) {
		r.Stages = []Stage{{Minutes: 40, OvenC: 180}, {Minutes: 30, OvenC: 180, PushUnder: true}}
	})
	if pushed.End.SteamedOffG <= still.End.SteamedOffG || pushed.End.Colour >= still.End.Colour {
		t.Errorf("pushed under: %+v, left: %+v", pushed.End, still.End)
	}
	turned := mustRun(
		t,
		func(r *Request) { r.Stages = []Stage{{Minutes: 40, OvenC: 180}, {Minutes: 30, OvenC: 180, Turn: true}} },
	)
	if math.Abs(turned.End.Colour-still.End.Colour) > 1e-9 {
		t.Error("turning the dish changed the model")
	}
}

// Numbers stay numbers wherever a dish may be put.
func TestRobust(t *testing.T) {
	for _, mass := range []float64{410, 950, 6180} { // 1 cm deep, 2 and 15
		for _, start := range []float64{-18, 4, 95} {
			for _, c := range []float64{-20, 60, 180, 300} {
				for _, material := range []string{"thin_metal", "foil", "stoneware", "cast_iron"} {
					r := crumble()
					r.Dish.Material, r.Filling.MassG, r.Filling.StartC, r.Stages = material, mass, &start, []Stage{
						{Minutes: 30, OvenC: c},
						{Minutes: 90, OvenC: c, Heating: "fan", Cover: "foil"},
					}
					mustRun(t, func(q *Request) { *q = r })
				}
			}
		}
	}
	mustRun(t, func(r *Request) { r.Topping = nil; r.Stages[0].Minutes = 720 })
	mustRun(t, func(r *Request) { r.Topping.ThicknessMM = 0 })
	mustRun(t, func(r *Request) { r.Stages[0].Minutes = 0 })
}

func TestBadRequestsNameEveryField(t *testing.T) {
	r := crumble()
	r.Filling.MassG, r.Shelf, r.Stages = math.NaN(), "attic", []Stage{
		{Minutes: -1, OvenC: 900, Heating: "sun", Cover: "hat"},
	}
	err := Check(r)
	for _, want := range []string{"/filling/mass_g", "/shelf", "/stages/0/minutes", "/stages/0/oven_c", "/stages/0/heating", "/stages/0/cover"} {
		if err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%v does not name %s", err, want)
		}
	}
}

func TestWhatTheRimLosesTheCoreGains(t *testing.T) {
	r := crumble()
	r.Base = &Base{ThicknessMM: 4}
	m := newModel(r)
	o := ovenOf(r, r.Stages[0])
	for range 100 {
		m.step(o, stepS)
	}
	if m.t[rim][m.fillAt+middleCell]-m.t[core][m.fillAt+middleCell] < 5 {
		t.Fatal("the rim is no hotter than the core")
	}
	// nothing but what passes between the two
	m.lo, m.outW, m.outT = [2][most]float64{}, [2][most]float64{}, [2][most]float64{}
	for i := range m.n {
		if gains, loses := m.heatIn(core, i), m.heatIn(rim, i); math.Abs(gains+loses) > 1e-9 || i == m.fillAt && gains <= 0 {
			t.Errorf("layer %d: the core gains %g W, the rim %g", i, gains, loses)
		}
	}
}

func TestAStepAllocatesNothing(t *testing.T) {
	r := crumble()
	m := newModel(r)
	o := ovenOf(r, r.Stages[0])
	if n := testing.AllocsPerRun(100, func() { m.step(o, 12) }); n > 0 {
		t.Errorf("%g allocations a step", n)
	}
}
