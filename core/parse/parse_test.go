package parse

import (
	"math"
	"strings"
	"testing"

	"mabbin/core/units"
)

func TestReadAmount(t *testing.T) {
	flour := units.DensityOf(125, 2.6, "")
	brown := units.DensityOf(220, 4.6, "packed")
	cases := []struct {
		text string
		kind units.Kind
		d    units.Density
		want float64
		says string
	}{
		{"24", units.Length, units.Density{}, 24, ""},
		{"9 in", units.Length, units.Density{}, 22.86, "9 in = 22.86 cm"},
		{`9"`, units.Length, units.Density{}, 22.86, "cm"},
		{"5,5 cm", units.Length, units.Density{}, 5.5, ""},
		{"240mm", units.Length, units.Density{}, 24, "24 cm"},
		{"1 1/2 oz", units.Mass, units.Density{}, 42.52425, "42.52 g"},
		{"2¼ lb", units.Mass, units.Density{}, 1020.582, "g"},
		{"1.2 kg", units.Mass, units.Density{}, 1200, "1200 g"},
		{"1 lb 4 oz", units.Mass, units.Density{}, 566.99, "567 g"},
		{"½ cup", units.Mass, flour, 62.5, "62.5 g"},
		{"1 cup", units.Mass, brown, 220, "packed"},
		{"3 tbsp", units.Mass, flour, 23.4, "23.4 g"},
		{"1 1/2 sticks", units.Mass, units.Density{}, 170.1, "g"},
		{"2-3 tbsp", units.Mass, flour, 19.5, "middle of the range"},
		{"900 to 1100 g", units.Mass, units.Density{}, 1000, "middle of the range"},
		{"2.1 l", units.Volume, units.Density{}, 2100, "2100 ml"},
		{"2 qt", units.Volume, units.Density{}, 1892.7, "ml"},
		{"70 fl oz", units.Volume, units.Density{}, 2070.18, "ml"},
		{"350 F", units.Temperature, units.Density{}, 176.667, "C"},
		{"180°C", units.Temperature, units.Density{}, 180, ""},
		{"gas mark 4", units.Temperature, units.Density{}, 180, "180 C"},
		{"gas 1/2", units.Temperature, units.Density{}, 130, "130 C"},
		{"fan 160", units.Temperature, units.Density{}, 180, "180 C"},
		{"1 h 10 min", units.Minutes, units.Density{}, 70, "70 min"},
		{"60 %", units.Percent, units.Density{}, 60, ""},
		{"-3", units.Mass, units.Density{}, -3, ""},
	}
	for _, c := range cases {
		a, err := ReadAmount(c.text, c.kind, units.Conventions{}, c.d)
		if err != nil {
			t.Errorf("%q: %v", c.text, err)
			continue
		}
		if math.Abs(a.Value-c.want) > 1e-3*math.Abs(c.want) {
			t.Errorf("%q is %g %s, want %g", c.text, a.Value, a.Unit, c.want)
		}
		if (c.says == "") != a.Assumption.IsZero() || !strings.Contains(a.Assumption.String(), c.says) {
			t.Errorf("%q says %q, want %q in it", c.text, a.Assumption, c.says)
		}
	}
}

func TestTheKitchensCupAndSpoonCount(t *testing.T) {
	water := units.DensityOf(236.588, 236.588/48, "")
	for _, c := range []struct {
		text string
		by   units.Conventions
		want float64
	}{
		{"1 cup", units.Conventions{Cup: units.MetricCup}, 250},
		{"1 cup", units.Conventions{Cup: units.ImperialCup}, 284},
		{"1 tbsp", units.Conventions{Spoon: units.AustralianSpoon}, 20},
		{"1 tsp", units.Conventions{Spoon: units.AustralianSpoon}, 5},
		{"1 tsp", units.Conventions{Spoon: units.MetricSpoon}, 5},
		{"1 pint", units.Conventions{Cup: units.ImperialCup}, 568.26},
	} {
		a, err := ReadAmount(c.text, units.Mass, c.by, water)
		if err != nil || math.Abs(a.Value-c.want) > 0.5 {
			t.Errorf("%s by %+v is %g g (%v), want %g", c.text, c.by, a.Value, err, c.want)
		}
	}
}

func TestReadAmountAsksInsteadOfGuessing(t *testing.T) {
	for _, c := range []struct {
		text string
		kind units.Kind
		says string
	}{
		{"", units.Mass, "empty"},
		{"some", units.Mass, "no number"},
		{"9 in", units.Mass, "not a mass"},
		{"3 furlongs", units.Length, "furlongs"},
		{"1 cup", units.Mass, "weigh it"},
		{"gas 12", units.Temperature, "gas mark"},
		{"1/0", units.Mass, "number"},
		{"3-2 g", units.Mass, "below its start"},
		{strings.Repeat("9", 500), units.Mass, "too long"},
		{"4 g and more", units.Mass, "no number"},
		{strings.Repeat("9", 79), "weight", "not a kind"},
	} {
		if a, err := ReadAmount(
			c.text,
			c.kind,
			units.Conventions{},
			units.Density{},
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
		for _, k := range []units.Kind{units.Mass, units.Length, units.Volume, units.Temperature, units.Minutes, units.Percent} {
			a, err := ReadAmount(s, k, units.Conventions{}, units.DensityOf(125, 2.6, ""))
			if err == nil && (math.IsNaN(a.Value) || math.IsInf(a.Value, 0)) {
				t.Errorf("%q as %s is %g", s, k, a.Value)
			}
		}
	})
}

func TestWhoseCup(t *testing.T) {
	for text, want := range map[string]units.Cup{
		"1 cup flour\n1 stick butter":         units.USCup,
		"2 cups plums\nBake at 350 °F":        units.USCup,
		"1 cup cornstarch":                    units.USCup,
		"1 cup flour\n100 g butter":           "",
		"1 stick of butter and a 9-inch dish": "",
	} {
		if got, why := WhoseCup(text); got != want || (want == "") != why.IsZero() {
			t.Errorf("%q: %q, %s", text, got, why)
		}
	}
}
