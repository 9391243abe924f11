package units

import (
	"math"
	"strings"
	"testing"

	"mabbin/core/fault"
)

func near(a, b float64) bool { return math.Abs(a-b) <= 1e-3*math.Max(1, math.Abs(b)) }

// Each unit is converted as bakers use it in the two kitchens.
func TestConvert(t *testing.T) {
	us, uk := Conventions{Cup: USCup, Spoon: USSpoon}, Conventions{Cup: ImperialCup, Spoon: MetricSpoon, Eggs: UKEggs}
	flour := DensityOf(125, 2.6, "")
	for name, c := range map[string]struct {
		v       float64
		unit    string
		kind    Kind
		by      Conventions
		density Density
		want    float64
		changed bool
		err     string
	}{
		"grams":                   {400, "g", Mass, us, Density{}, 400, false, ""},
		"a bare mass":             {400, "", Mass, us, Density{}, 400, false, ""},
		"kilograms":               {1.5, "kg", Mass, us, Density{}, 1500, true, ""},
		"ounces":                  {2, "oz", Mass, us, Density{}, 56.699, true, ""},
		"pounds":                  {1, "lb", Mass, us, Density{}, 453.592, true, ""},
		"a stick":                 {1, "stick", Mass, us, Density{}, 113.4, true, ""},
		"a cup of flour":          {2, "cup", Mass, us, flour, 250, true, ""},
		"a teaspoon of flour":     {1, "tsp", Mass, us, flour, 2.6, true, ""},
		"a cup of an unknown":     {1, "cup", Mass, us, Density{}, 0, false, "weigh it and enter grams"},
		"a mass in cm":            {1, "cm", Mass, us, flour, 0, false, "is not a mass"},
		"an unknown unit":         {1, "furlong", Mass, us, flour, 0, false, "unknown unit"},
		"inches":                  {9, "in", Length, us, Density{}, 22.86, true, ""},
		"millimetres":             {240, "mm", Length, us, Density{}, 24, true, ""},
		"a length in g":           {1, "g", Length, us, Density{}, 0, false, "is not a length"},
		"millilitres":             {250, "ml", Volume, us, Density{}, 250, false, ""},
		"a litre":                 {1, "l", Volume, us, Density{}, 1000, true, ""},
		"a US pint":               {1, "pt", Volume, us, Density{}, 473.176, true, ""},
		"an imperial pint":        {1, "pt", Volume, uk, Density{}, 568.261, true, ""},
		"a US quart":              {1, "qt", Volume, us, Density{}, 946.353, true, ""},
		"an imperial quart":       {1, "qt", Volume, uk, Density{}, 1136.52, true, ""},
		"a US fluid ounce":        {1, "fl oz", Volume, us, Density{}, 29.5735, true, ""},
		"an imperial fluid ounce": {1, "fl oz", Volume, uk, Density{}, 28.4131, true, ""},
		"hours":                   {1.5, "h", Minutes, us, Density{}, 90, true, ""},
		"minutes":                 {45, "min", Minutes, us, Density{}, 45, false, ""},
		"percent":                 {60, "%", Percent, us, Density{}, 60, false, ""},
		"a percentage in g":       {60, "g", Percent, us, Density{}, 0, false, "is not a percent"},
		"celsius":                 {180, "c", Temperature, us, Density{}, 180, false, ""},
		"fahrenheit":              {350, "f", Temperature, us, Density{}, 176.667, true, ""},
		"fan":                     {160, "fan", Temperature, us, Density{}, 180, true, ""},
		"gas":                     {4, "gas", Temperature, us, Density{}, 180, true, ""},
		"a quarter of gas":        {0.25, "gas", Temperature, us, Density{}, 110, true, ""},
		"no gas mark":             {10, "gas", Temperature, us, Density{}, 0, true, "use 1/4, 1/2 or 1 to 9"},
		"a temperature in g":      {10, "g", Temperature, us, Density{}, 0, true, "is not a temperature"},
	} {
		x, changed, _, err := Convert(c.v, c.unit, c.kind, c.by, c.density)
		if c.err != "" {
			if err == nil || !strings.Contains(err.Error(), c.err) {
				t.Errorf("%s: %v, want %q", name, err, c.err)
			}
			continue
		}
		if err != nil || !near(x, c.want) || changed != c.changed {
			t.Errorf("%s: %g, %v, %v; want %g, %v", name, x, changed, err, c.want, c.changed)
		}
	}
	if _, _, taken, _ := Convert(1, "cup", Mass, us, DensityOf(220, 4, "packed")); taken.String() != "packed" {
		t.Errorf("how a cup was filled: %q", taken)
	}
}

func TestUnits(t *testing.T) {
	for written, want := range map[string]string{"tablespoons": "tbsp", "grams": "g", "furlong": ""} {
		if got := Spelling(written); got != want {
			t.Errorf("%q is %q, want %q", written, got, want)
		}
	}
	for unit, want := range map[string]float64{"kg": 1000, "oz": OunceG, "": 0, "cup": 0} {
		if got := MassG(unit); got != want {
			t.Errorf("%q is %g g, want %g", unit, got, want)
		}
	}
	for kind, want := range map[Kind]KindUnit{
		Mass: Gram, Length: Centimetre, Volume: Millilitre, Temperature: CelsiusDegree, Minutes: Minute, Percent: PerCent,
	} {
		if unit, ok := kind.Unit(); !ok || unit != want || kind.Example().IsZero() {
			t.Errorf("%s is in %q, as %q", kind, unit, kind.Example())
		}
	}
	if _, ok := Kind("luck").Unit(); ok {
		t.Error("luck has a unit")
	}
}

func TestEggs(t *testing.T) {
	for name, c := range map[string]struct {
		by   Conventions
		size string
		want float64
	}{
		"US, by its cup":      {Conventions{Cup: USCup}, "large", 50},
		"by nothing":          {Conventions{}, "large", 50},
		"UK, by its cup":      {Conventions{Cup: MetricCup}, "large", 58},
		"UK, named":           {Conventions{Cup: USCup, Eggs: UKEggs}, "large", 58},
		"of an unknown size":  {Conventions{Cup: MetricCup}, "giant", 50},
		"without a size, UK":  {Conventions{Cup: MetricCup}, "", 50},
		"without a size, US ": {Conventions{Cup: USCup}, "", 50},
	} {
		if got := c.by.EggG(c.size); got != c.want {
			t.Errorf("%s: %g g, want %g", name, got, c.want)
		}
	}
}

func TestGasMarksRise(t *testing.T) {
	marks := GasMarks()
	for i := 1; i < len(marks); i++ {
		if marks[i].Mark <= marks[i-1].Mark || marks[i].C <= marks[i-1].C {
			t.Errorf("%+v after %+v", marks[i], marks[i-1])
		}
	}
	marks[0].C = 0
	if GasMarks()[0].C != 110 {
		t.Error("the marks can be changed from outside")
	}
}

func TestCheckContainers(t *testing.T) {
	var f fault.Faults
	CheckContainers("/containers", map[string]float64{"tin": 400, "a/b": 0, "crate": 20001}, &f)
	text := f.Error()
	if len(f) != 2 || !strings.Contains(text, "/containers/a~1b: is 0 g: enter 1 to 20000 g") ||
		!strings.Contains(text, "/containers/crate: is 20001 g") {
		t.Error(text)
	}
}
