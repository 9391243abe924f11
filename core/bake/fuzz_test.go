package bake

import (
	"encoding/json"
	"errors"
	"math"
	"testing"

	"mabbin/core/fault"
)

// Whatever is asked, the answer is numbers, or faults that name their fields: clocks only go on, nothing gets colder
// than the coldest or hotter than the hottest about it.
func FuzzRun(f *testing.F) {
	for _, c := range workedCases(f) {
		raw, err := json.Marshal(c.Request)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(raw)
	}
	f.Add(
		[]byte(
			`{"dish":{"shape":"round","length_cm":3,"depth_cm":1,"material":"foil"},"filling":{"mass_g":10,"start_c":-30},"stages":[{"minutes":30,"oven_c":350,"heating":"fan"}]}`,
		),
	)
	f.Add(
		[]byte(
			`{"dish":{"shape":"square","length_cm":100,"depth_cm":30,"material":"stoneware"},"filling":{"mass_g":60000,"start_c":105,"juice_sugar_share":0.6},"altitude_m":6000,"stages":[{"minutes":30,"oven_c":-30,"heating":"freezer"}]}`,
		),
	)
	f.Fuzz(func(t *testing.T, raw []byte) {
		var r Request
		if json.Unmarshal(raw, &r) != nil {
			t.Skip()
		}
		const mostMin = 240
		if minutesOf(r.Stages) > mostMin {
			t.Skip() // right, and too long to wait for
		}
		a, err := Run(r)
		if err != nil {
			if !errors.As(err, new(fault.Faults)) {
				t.Fatalf("%T: %v", err, err)
			}
			return
		}
		lo, hi := startsBetween(r)
		for _, s := range r.Stages {
			lo, hi = min(lo, ovenOf(r, s).c), max(hi, ovenOf(r, s).c)
		}
		v := a.Curves
		for i := range v.Minute {
			for _, x := range []float64{v.MiddleC[i], v.ColdestC[i], v.RimC[i], v.SurfaceC[i], v.FloorC[i]} {
				if math.IsNaN(x) || x < lo-1 || x > hi+1 {
					t.Fatalf("%g C after %g min, between %g and %g", x, v.Minute[i], lo, hi)
				}
			}
			if i > 0 && (v.Fruit[i] < v.Fruit[i-1] || v.Base[i] < v.Base[i-1]) {
				t.Fatalf("a clock goes back after %g min", v.Minute[i])
			}
		}
		if e := a.End; e.SetShare < 0 || e.SetShare > 1+1e-9 || e.Colour < 0 || e.Colour > colourMost ||
			e.SteamedOffG < -1e-9 {
			t.Fatalf("%+v", e)
		}
	})
}

// startsBetween are the coldest and the hottest that a bake begins with.
func startsBetween(r Request) (lo, hi float64) {
	all := []float64{or(r.Filling.StartC, 18), or(r.DishStartC, 18)}
	if r.Topping != nil {
		all = append(all, or(r.Topping.StartC, 8))
	}
	if r.Base != nil {
		all = append(all, or(r.Base.StartC, 18))
	}
	lo, hi = math.Inf(1), math.Inf(-1)
	for _, x := range all {
		lo, hi = min(lo, x), max(hi, x)
	}
	return lo, hi
}

// Whatever is to be planned, the plan can be baked, and tells nothing but numbers; or the faults name their fields.
func FuzzPlan(f *testing.F) {
	const crumble = `{"request":{"dish":{"shape":"rectangle","length_cm":24,"width_cm":18,"depth_cm":5,"material":"stoneware"},
		"style":"crumble","topping":{"key":"crumble_classic"},"fruits":[{"key":"gooseberry","share":1}]},"setting":`
	for _, setting := range []string{
		`{}}`, `{"stages":[{"minutes":40,"oven_c":180}]}}`, `{"heating":"fan","altitude_m":3000}}`, `{"filling_c":-18,"dish_c":-18}}`,
		`{"standing":[{"minutes":50,"oven_c":190,"cover":"foil"}]}}`, `{"fire":{"diameter_cm":30,"wind":"windy"}}}`,
	} {
		f.Add([]byte(crumble + setting))
	}
	f.Fuzz(func(t *testing.T, raw []byte) {
		var q DessertRequest
		if json.Unmarshal(raw, &q) != nil {
			t.Skip()
		}
		a, err := Dessert(t.Context(), q)
		if err != nil {
			_, later := fault.AsNotYet(err)
			if !later && !errors.As(err, new(fault.Faults)) {
				t.Fatalf("%T: %v", err, err)
			}
			return
		}
		if err := CheckStages(a.Plan.Stages); err != nil {
			t.Fatalf("the plan can't be baked: %v", err)
		}
		if sum := minutesOf(a.Plan.Stages); math.Abs(sum-a.Plan.Minutes) > 0.01 {
			t.Fatalf("its stages have %g min, and it says %g", sum, a.Plan.Minutes)
		}
		if _, err := json.Marshal(a); err != nil { // which refuses what is no number
			t.Fatal(err)
		}
		if c := a.Plan.Answer.Curves; len(c.Minute) == 0 || len(c.MiddleC) != len(c.Minute) {
			t.Fatalf("%d points of %d minutes", len(c.MiddleC), len(c.Minute))
		}
	})
}
