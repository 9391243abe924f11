package bake

import (
	"encoding/json"
	"fmt"
	"math"
	"os"
	"testing"
)

type workedCase struct {
	Name    string
	Request Request
	Expect  Answer
}

func workedCases(t testing.TB) []workedCase {
	t.Helper()
	b, err := os.ReadFile("testdata/bake-cases.json")
	if err != nil {
		t.Fatal(err)
	}
	var cases []workedCase
	if err := json.Unmarshal(b, &cases); err != nil {
		t.Fatal(err)
	}
	return cases
}

// Events within 1.5 % or 30 s, temperatures within 0.8 K, steam and clocks within 4 % or 0.02. An event within its
// tolerance of the end may be missing on either side.
func TestWorkedCases(t *testing.T) {
	for _, c := range workedCases(t) {
		t.Run(c.Name, func(t *testing.T) {
			a, err := Run(c.Request)
			if err != nil {
				t.Fatal(err)
			}
			end := 0.0
			for _, s := range c.Request.Stages {
				end += s.Minutes
			}
			var minutes, kelvins, clocks float64 // the largest differences: docs/bake.md has them
			near := func(what string, want, got, may float64) {
				if math.Abs(want-got) > may {
					t.Errorf("%s = %.3f, want %.3f", what, got, want)
				}
			}
			near("boiling point", c.Expect.BoilingPointC, a.BoilingPointC, 0.05)
			w, g := c.Expect.Events, a.Events
			for name, e := range map[string][2]*float64{
				"rim bubbles": {w.RimBubbles, g.RimBubbles}, "middle bubbles": {w.MiddleBubbles, g.MiddleBubbles}, "coldest 85": {w.Coldest85, g.Coldest85},
				"coldest 95": {w.Coldest95, g.Coldest95}, "topping through": {w.ToppingThrough, g.ToppingThrough}, "golden": {w.Golden, g.Golden}, "base baked": {w.BaseBaked, g.BaseBaked},
			} {
				want, got := e[0], e[1]
				switch {
				case want == nil && got == nil:
				case want != nil && got != nil:
					near(name, *want, *got, max(0.5, 0.015**want))
					minutes = max(minutes, math.Abs(*want-*got))
				case want == nil:
					near(name+" (not expected)", end, *got, max(0.5, 0.015*end))
				default:
					near(name+" (missing)", *want, end, max(0.5, 0.015*end))
				}
			}
			clock := func(name string, want, got float64) {
				near(name, want, got, max(0.02, 0.04*want))
				if want > 0.5 {
					clocks = max(clocks, 100*math.Abs(got/want-1))
				}
			}
			clock("fruit minutes", c.Expect.End.FruitMinutes, a.End.FruitMinutes)
			clock("colour", c.Expect.End.Colour, a.End.Colour)
			clock("rim colour", c.Expect.End.RimColour, a.End.RimColour)
			clock("base", c.Expect.End.Base, a.End.Base)
			clock("set share", c.Expect.End.SetShare, a.End.SetShare)
			clock("steamed off", c.Expect.End.SteamedOffG, a.End.SteamedOffG)
			for i, minute := range c.Expect.Curves.Minute {
				at := -1
				for j, x := range a.Curves.Minute {
					if math.Abs(x-minute) < 1e-6 {
						at = j
					}
				}
				if at < 0 {
					t.Errorf("no point at %g min", minute)
					continue
				}
				for name, v := range map[string][2][]float64{
					"middle": {c.Expect.Curves.MiddleC, a.Curves.MiddleC}, "coldest": {c.Expect.Curves.ColdestC, a.Curves.ColdestC}, "rim": {c.Expect.Curves.RimC, a.Curves.RimC},
					"surface": {c.Expect.Curves.SurfaceC, a.Curves.SurfaceC}, "floor": {c.Expect.Curves.FloorC, a.Curves.FloorC},
				} {
					if v[0] != nil {
						near(fmt.Sprintf("%s at %g min", name, minute), v[0][i], v[1][at], 0.8)
						kelvins = max(kelvins, math.Abs(v[0][i]-v[1][at]))
					}
				}
			}
			t.Logf("| %s | %.2f min | %.2f K | %.1f %% |", c.Name, minutes, kelvins, clocks)
		})
	}
}

func BenchmarkRunAnHour(b *testing.B) {
	r := workedCases(b)[0].Request
	r.Stages[0].Minutes = 60
	b.ReportAllocs()
	for b.Loop() {
		if _, err := Run(r); err != nil {
			b.Fatal(err)
		}
	}
}
