package measure

import (
	"math"
	"strings"
	"testing"
)

func TestReadAmount(t *testing.T) {
	flour := DensityOf(125, 2.6, "")
	brown := DensityOf(220, 4.6, "packed")
	cases := []struct {
		text string
		kind Kind
		d    Density
		want float64
		says string
	}{
		{"24", Length, Density{}, 24, ""},
		{"9 in", Length, Density{}, 22.86, "9 in = 22.86 cm"},
		{`9"`, Length, Density{}, 22.86, "cm"},
		{"5,5 cm", Length, Density{}, 5.5, ""},
		{"240mm", Length, Density{}, 24, "24 cm"},
		{"1 1/2 oz", Mass, Density{}, 42.52425, "42.52 g"},
		{"2¼ lb", Mass, Density{}, 1020.582, "g"},
		{"1.2 kg", Mass, Density{}, 1200, "1200 g"},
		{"1 lb 4 oz", Mass, Density{}, 566.99, "567 g"},
		{"½ cup", Mass, flour, 62.5, "62.5 g"},
		{"1 cup", Mass, brown, 220, "packed"},
		{"3 tbsp", Mass, flour, 23.4, "23.4 g"},
		{"1 1/2 sticks", Mass, Density{}, 170.1, "g"},
		{"2-3 tbsp", Mass, flour, 19.5, "middle of the range"},
		{"900 to 1100 g", Mass, Density{}, 1000, "middle of the range"},
		{"2.1 l", Volume, Density{}, 2100, "2100 ml"},
		{"2 qt", Volume, Density{}, 1892.7, "ml"},
		{"70 fl oz", Volume, Density{}, 2070.18, "ml"},
		{"350 F", Temperature, Density{}, 176.667, "C"},
		{"180°C", Temperature, Density{}, 180, ""},
		{"gas mark 4", Temperature, Density{}, 180, "180 C"},
		{"gas 1/2", Temperature, Density{}, 130, "130 C"},
		{"fan 160", Temperature, Density{}, 180, "180 C"},
		{"1 h 10 min", Minutes, Density{}, 70, "70 min"},
		{"60 %", Percent, Density{}, 60, ""},
		{"-3", Mass, Density{}, -3, ""},
	}
	for _, c := range cases {
		a, err := ReadAmount(c.text, c.kind, Conventions{}, c.d)
		if err != nil {
			t.Errorf("%q: %v", c.text, err)
			continue
		}
		if math.Abs(a.Value-c.want) > 1e-3*math.Abs(c.want) {
			t.Errorf("%q is %g %s, want %g", c.text, a.Value, a.Unit, c.want)
		}
		if (c.says == "") != a.Taken.IsZero() || !strings.Contains(a.Taken.String(), c.says) {
			t.Errorf("%q says %q, want %q in it", c.text, a.Taken, c.says)
		}
	}
}

func TestTheKitchensCupAndSpoonCount(t *testing.T) {
	water := DensityOf(236.588, 236.588/48, "")
	for _, c := range []struct {
		text string
		by   Conventions
		want float64
	}{
		{"1 cup", Conventions{Cup: MetricCup}, 250},
		{"1 cup", Conventions{Cup: ImperialCup}, 284},
		{"1 tbsp", Conventions{Spoon: AustralianSpoon}, 20},
		{"1 tsp", Conventions{Spoon: AustralianSpoon}, 5},
		{"1 tsp", Conventions{Spoon: MetricSpoon}, 5},
		{"1 pint", Conventions{Cup: ImperialCup}, 568.26},
	} {
		a, err := ReadAmount(c.text, Mass, c.by, water)
		if err != nil || math.Abs(a.Value-c.want) > 0.5 {
			t.Errorf("%s by %+v is %g g (%v), want %g", c.text, c.by, a.Value, err, c.want)
		}
	}
}

func TestReadAmountAsksInsteadOfGuessing(t *testing.T) {
	for _, c := range []struct {
		text string
		kind Kind
		says string
	}{
		{"", Mass, "empty"},
		{"some", Mass, "no number"},
		{"9 in", Mass, "not a mass"},
		{"3 furlongs", Length, "furlongs"},
		{"1 cup", Mass, "weigh it"},
		{"gas 12", Temperature, "gas mark"},
		{"1/0", Mass, "number"},
		{"3-2 g", Mass, "backwards"},
		{strings.Repeat("9", 500), Mass, "too long"},
		{"4 g and more", Mass, "no number"},
		{strings.Repeat("9", 79), "weight", "no kind"},
	} {
		if a, err := ReadAmount(
			c.text,
			c.kind,
			Conventions{},
			Density{},
		); err == nil ||
			!strings.Contains(err.Error(), c.says) {
			t.Errorf("%q as %s: got %+v, %v; want an error that says %q", c.text, c.kind, a, err, c.says)
		}
	}
}

func FuzzReadAmount(f *testing.F) {
	for _, s := range []string{"1 1/2 cups", "2¼ lb", "gas mark 4", "2-3 tbsp", "½", "1/", "-", "1 h 10 min", "9\"", "1e9", "٣ g", "\xff"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		for _, k := range []Kind{Mass, Length, Volume, Temperature, Minutes, Percent} {
			a, err := ReadAmount(s, k, Conventions{}, DensityOf(125, 2.6, ""))
			if err == nil && (math.IsNaN(a.Value) || math.IsInf(a.Value, 0)) {
				t.Errorf("%q as %s is %g", s, k, a.Value)
			}
		}
	})
}

func TestSpoonsAreTheNearestRealOnes(t *testing.T) {
	cases := []struct {
		name string
		g    float64
		d    Density
		want string
	}{
		{"cornflour", 20.94, DensityOf(128, 2.67, ""), "2 tbsp + 2 tsp"},
		{"a cup of sugar", 200, DensityOf(200, 4.2, ""), "1 cup"},
		{"a cup and a bit", 212.3, DensityOf(200, 4.2, ""), "1 cup + 1 tbsp"},
		{"a little under half a cup", 60.5, DensityOf(125, 2.6, ""), "a scant 1/2 cup"},
		{"a little over", 194, DensityOf(125, 2.6, ""), "a generous 1 1/2 cups"},
		{"flour", 187, DensityOf(125, 2.6, ""), "1 1/2 cups"},
		{"brown sugar is packed", 110, DensityOf(220, 4.6, "packed"), "1/2 cup packed"},
		{"salt", 1.5, DensityOf(292, 6, ""), "1/4 tsp"},
		{"too little for a spoon", 0.2, DensityOf(0, 2.6, ""), "a pinch"},
		{"off by more than it hides", 2.3, DensityOf(292, 6, ""), "1/2 tsp (+30 %)"},
	}
	for _, c := range cases {
		h, ok := Conventions{}.Spoons(c.g, c.d)
		if !ok || h.Text != c.want {
			t.Errorf("%s: %g g is %q, want %q", c.name, c.g, h.Text, c.want)
		}
	}
	if h, ok := (Conventions{}).Spoons(100, Density{}); ok {
		t.Errorf("without a density 100 g became %q", h.Text)
	}
}

func TestSpoonsStayNearTheGrams(t *testing.T) {
	for _, d := range []Density{DensityOf(125, 2.6, ""), DensityOf(200, 4.2, ""), DensityOf(85, 1.8, "")} {
		for g := 1.5; g < 900; g *= 1.07 {
			for _, c := range []Conventions{{}, {Cup: MetricCup, Spoon: MetricSpoon}, {Cup: MetricCup, Spoon: AustralianSpoon}, {Cup: ImperialCup, Spoon: MetricSpoon}} {
				h, ok := c.Spoons(g, d)
				if limit := 13 + 60/g; !ok || math.Abs(h.ErrorPct) > limit {
					t.Errorf("%.1f g by %+v is %s, off by %.1f %%", g, c, h.Text, h.ErrorPct)
				}
			}
		}
	}
}

func TestInchesAreThoseOfARuler(t *testing.T) {
	for in, want := range map[float64]string{
		0: "0", 0.03: "1/16", 0.12: "1/8", 0.19: "1/4", 0.59: "5/8", 0.98: "1", 9.45: "9 1/2", 13: "13", -0.6: "-5/8",
	} {
		if got := Inches(in); got != want {
			t.Errorf("%g in is %q, want %q", in, got, want)
		}
	}
}

func TestWhoseCup(t *testing.T) {
	for text, want := range map[string]Cup{
		"1 cup flour\n1 stick butter":         USCup,
		"2 cups plums\nBake at 350 °F":        USCup,
		"1 cup cornstarch":                    USCup,
		"1 cup flour\n100 g butter":           "",
		"1 stick of butter and a 9-inch dish": "",
	} {
		if got, why := WhoseCup(text); got != want || (want == "") != why.IsZero() {
			t.Errorf("%q: %q, %s", text, got, why)
		}
	}
}

func TestShownIsWhatTheScaleShows(t *testing.T) {
	for g, want := range map[float64]string{0: "0", 0.44: "0.4", 3.75: "3.8", 9.94: "9.9", 9.96: "10", 20.94: "21", 973.4: "973"} {
		if got := Shown(g); got != want {
			t.Errorf("%g g is shown as %s, want %s", g, got, want)
		}
	}
}

func TestFindOvenReadsWhatARecipeSaysToDo(t *testing.T) {
	for method, want := range map[string][2]float64{
		"Bake at 180 C for 45 minutes.":                                                       {180, 45},
		"Heat the oven to 350°F. Bake 40-50 min, until it bubbles.":                           {176.667, 45},
		"Gas mark 4, about 1 hr":                                                              {180, 60},
		"Bake at 160C fan for 35 minutes":                                                     {180, 35},
		"Bake at 190 degrees C, 20 minutes, then uncovered for 30 minutes":                    {190, 30},
		"Toast the nuts at 150 C for 10 minutes.\nBake the crumble at 190 C for 45 minutes.":  {190, 45},
		"Blind-bake the shell with weights, 200 C, 15 min.\nThen bake it at 170 C for 55 min": {170, 55},
		"Leave it in the fridge.":                                                             {0, 0},
		"Bake until golden.":                                                                  {0, 0},
		"":                                                                                    {0, 0},
	} {
		c, minutes := FindOven(method)
		if math.Abs(c-want[0]) > 0.01 || minutes != want[1] {
			t.Errorf("%q: %g C, %g min; want %g C, %g min", method, c, minutes, want[0], want[1])
		}
	}
}

func TestGasMarks(t *testing.T) {
	for c, want := range map[float64]string{20: "¼", 110: "¼", 121: "½", 136: "1", 150: "2", 181: "4", 184.9: "4", 186: "5", 240: "9", 400: "9"} {
		if got := GasMark(c); got != want {
			t.Errorf("%g C is mark %s, want %s", c, got, want)
		}
	}
}

func TestFractionsAreWrittenAsCooksDo(t *testing.T) {
	for x, want := range map[float64]string{0.25: "1/4", 1.0 / 3: "1/3", 0.5: "1/2", 2.0 / 3: "2/3", 0.75: "3/4", 1: "1", 1.5: "1 1/2", 2 + 2.0/3: "2 2/3", 12: "12"} {
		if got := Fraction(x); got != want {
			t.Errorf("%g is written %q, want %q", x, got, want)
		}
	}
}
