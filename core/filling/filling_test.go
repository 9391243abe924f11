package filling

import (
	"math"
	"strings"
	"testing"

	"mabbin/core/larder"
)

func TestBandsEndOnTheirBorders(t *testing.T) {
	for score, want := range map[float64]struct{ cold, hot Band }{
		0: {Runny, Runny}, 1.49: {Runny, Runny}, 1.5: {Saucy, Runny}, 3: {Saucy, Runny}, 3.01: {Spoonable, Saucy}, 4.4: {Spoonable, Saucy},
		4.5: {Mounds, Spoonable}, 5.6: {Mounds, Spoonable}, 6.2: {Slices, Mounds}, 8.5: {Slices, Mounds}, 8.6: {Stodgy, Slices}, 99: {Stodgy, Slices},
	} {
		if BandOf(score) != want.cold || HotBandOf(score) != want.hot {
			t.Errorf("%g is %s cold and %s hot, want %s and %s", score, BandOf(score), HotBandOf(score), want.cold, want.hot)
		}
	}
}

func one(t *testing.T, key string, change func(*Filling)) Filling {
	t.Helper()
	fruit, ok := larder.Fruits.Get(key)
	if !ok {
		t.Fatalf("no fruit %s", key)
	}
	f := Filling{Pieces: []Piece{{Fruit: fruit, Share: 1}}}
	change(&f)
	return New(f)
}

func TestReleaseIsBounded(t *testing.T) {
	tomato := one(
		t,
		"tomato",
		func(f *Filling) { f.Pieces[0].CutMM = 1; f.Pieces[0].Frozen = true; f.Precook.Minutes = 5 },
	)
	if got := tomato.At(1000, 0, Use{}).ReleasedG; got > 1000*0.945*releaseMost+1e-9 {
		t.Errorf("a finely cut, frozen, cooked tomato releases %g g of its 945 g of water", got)
	}
	thin, thinnest := one(
		t,
		"apple_firm",
		func(f *Filling) { f.Pieces[0].CutMM = 3 },
	), one(
		t,
		"apple_firm",
		func(f *Filling) { f.Pieces[0].CutMM = 1 },
	)
	if thin.At(1000, 0, Use{}).ReleasedG != thinnest.At(1000, 0, Use{}).ReleasedG {
		t.Error("cut below 3 mm an apple releases more than at 3 mm")
	}
}

func TestTheLedgerNeverOwes(t *testing.T) {
	dry := one(t, "sweetcorn", func(f *Filling) { f.Precook = Precook{Minutes: 180, Open: true} })
	s := dry.At(500, 0, Use{SteamedOffG: 400, DoughSoakG: 400})
	if s.JuiceG < 0 || s.JuiceSharePct < 0 || s.JuiceSharePct > 100 {
		t.Errorf("sweetcorn boiled dry: %+v", s)
	}
	if s.PrecookOffG > driveOffMost*s.ReleasedG+1e-9 {
		t.Errorf("%g g were driven off of %g g", s.PrecookOffG, s.ReleasedG)
	}
}

func TestKeptJuiceChangesNothing(t *testing.T) {
	at := func(juice string, minutes float64) State {
		return one(
			t,
			"peach",
			func(f *Filling) { f.Macerate = Maceration{Minutes: minutes, Juice: juice} },
		).At(900, 120, Use{})
	}
	if at(Keep, 60) != at("", 0) {
		t.Error("juice that is kept in the bowl is in the dish")
	}
	short, long, reduced := at(Leave, 10), at(Leave, 90), at(Reduce, 90)
	if !(short.DrainedWaterG < long.DrainedWaterG && reduced.DrainedWaterG < long.DrainedWaterG && reduced.DrainedSugarG == 0 && long.DrainedSugarG > 0) {
		t.Errorf("after 10 min %+v, after 90 min %+v, boiled down %+v", short.Ledger, long.Ledger, reduced.Ledger)
	}
}

func TestSugarMeetsItsTarget(t *testing.T) {
	f := one(t, "plum", func(f *Filling) {
		honey, _ := larder.Ingredients.Get("honey")
		f.Liquids = []Weighed{{honey, 40}}
	})
	g := f.SugarG(800, 20)
	if got := 100 * (f.OwnSugarG(800) + g) / (840 + g); math.Abs(got-20) > 1e-9 {
		t.Errorf("%.1f g of sugar make %.3f %%, want 20", g, got)
	}
	if g := f.SugarG(800, 5); g != 0 {
		t.Errorf("sweeter than the target, yet %g g are added", g)
	}
	if got := SugarTargetPct(3, 18.5, 0); got != 24 {
		t.Errorf("the sharpest fruit wants %g %%, want the most, 24", got)
	}
}

// More thickener never makes a filling run more, and what is solved for is met, whatever the thickener.
func TestTheSetFollowsTheThickenerAndBack(t *testing.T) {
	s := one(t, "gooseberry", func(*Filling) {}).At(900, 180, Use{SteamedOffG: 60, DoughSoakG: 40})
	for _, th := range larder.Thickeners.All() {
		last := -1.0
		for g := 0.0; g <= 80; g += 8 {
			score := s.Score([]Dose{{th, g}}, false)
			if score < last {
				t.Errorf("%s: at %g g the set falls from %g to %g", th.Key, g, last, score)
			}
			last = score
		}
		for _, target := range []float64{2, 3.6, 6.5} {
			g := s.Solve(target, th, nil, false)
			if g < 0 {
				t.Errorf("%s: %g g", th.Key, g)
			}
			if got := s.Score([]Dose{{th, g}}, false); g > 0 && math.Abs(got-target) > 1e-6 {
				t.Errorf("%s: %g g come to a set of %g, and %g was asked for", th.Key, g, got, target)
			}
		}
	}
}

// What is next to the thickener does its part of the work.
func TestASecondThickenerSparesTheFirst(t *testing.T) {
	s := one(t, "plum", func(*Filling) {}).At(900, 150, Use{SteamedOffG: 60})
	cornflour, _ := larder.Thickeners.Get("cornflour")
	tapioca, _ := larder.Thickeners.Get("tapioca_starch")
	alone := s.Solve(4, cornflour, nil, false)
	beside := s.Solve(4, cornflour, []Dose{{tapioca, 8}}, false)
	if !(beside < alone && beside > 0) {
		t.Errorf("%g g alone, and %g g beside 8 g of tapioca", alone, beside)
	}
	if long := s.Solve(4, tapioca, nil, true); long <= s.Solve(4, tapioca, nil, false) {
		t.Errorf("boiled for long, tapioca needs %g g, no more than else", long)
	}
}

func TestTodaysCrate(t *testing.T) {
	damson, _ := larder.Fruits.Get("damson")
	tried := func(release float64) Test {
		return Test{Fruit: "damson", FruitG: 200, SugarG: 40, JuiceG: 40 + release*200*(damson.WaterPct+damson.SugarPct)/100}
	}
	for name, c := range map[string]struct {
		of   float64
		says string
	}{
		"as the table": {damson.ReleaseFresh, "as juicy as usual"},
		"juicier":      {1.3 * damson.ReleaseFresh, "30 % juicier than usual"},
		"drier":        {0.7 * damson.ReleaseFresh, "30 % less juicy than usual"},
	} {
		got, err := tried(c.of).Release()
		if err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		if math.Abs(got.Release-c.of) > 1e-9 || !strings.Contains(got.Text.String(), c.says) {
			t.Errorf("%s: it gives up %g, %q; want %g, %q", name, got.Release, got.Text, c.of, c.says)
		}
	}
	for name, c := range map[string]struct {
		test Test
		says string
	}{
		"no such fruit":         {Test{Fruit: "moonstone", FruitG: 200, SugarG: 40, JuiceG: 60}, "there is no fruit"},
		"too little of it":      {Test{Fruit: "damson", FruitG: 2, SugarG: 1, JuiceG: 1}, "20"},
		"more than is in it":    {Test{Fruit: "damson", FruitG: 200, SugarG: 40, JuiceG: 700}, "without its cup"},
		"less than was put in":  {Test{Fruit: "damson", FruitG: 200, SugarG: 40, JuiceG: 40}, "stir until the sugar has dissolved"},
		"a cup instead of mass": {Test{Fruit: "damson", FruitG: 200, SugarG: -4, JuiceG: 40}, "0 to 1000"},
	} {
		if _, err := c.test.Release(); err == nil || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%s: %v, without %q", name, err, c.says)
		}
	}
}
