package units

import (
	"math"
	"strings"

	"mabbin/core/message"
)

// spellings maps what bakers write to one spelling of each unit.
var spellings = map[string]string{
	"g":            "g",
	"gram":         "g",
	"grams":        "g",
	"gr":           "g",
	"kg":           "kg",
	"kilo":         "kg",
	"kilos":        "kg",
	"mg":           "mg",
	"oz":           "oz",
	"ounce":        "oz",
	"ounces":       "oz",
	"lb":           "lb",
	"lbs":          "lb",
	"pound":        "lb",
	"pounds":       "lb",
	"stick":        "stick",
	"sticks":       "stick",
	"knob":         "knob",
	"pinch":        "pinch",
	"dash":         "pinch",
	"cup":          "cup",
	"cups":         "cup",
	"tbsp":         "tbsp",
	"tablespoon":   "tbsp",
	"tablespoons":  "tbsp",
	"tbs":          "tbsp",
	"tsp":          "tsp",
	"teaspoon":     "tsp",
	"teaspoons":    "tsp",
	"ml":           "ml",
	"millilitre":   "ml",
	"millilitres":  "ml",
	"milliliter":   "ml",
	"milliliters":  "ml",
	"cc":           "ml",
	"cl":           "cl",
	"dl":           "dl",
	"l":            "l",
	"litre":        "l",
	"litres":       "l",
	"liter":        "l",
	"liters":       "l",
	"fl oz":        "fl oz",
	"fluid ounce":  "fl oz",
	"fluid ounces": "fl oz",
	"pt":           "pt",
	"pint":         "pt",
	"pints":        "pt",
	"qt":           "qt",
	"quart":        "qt",
	"quarts":       "qt",
	"cm":           "cm",
	"centimetre":   "cm",
	"centimetres":  "cm",
	"centimeters":  "cm",
	"mm":           "mm",
	"m":            "m",
	"in":           "in",
	"inch":         "in",
	"inches":       "in",
	`"`:            "in",
	"″":            "in",
	"c":            "C",
	"°c":           "C",
	"°":            "C",
	"celsius":      "C",
	"f":            "F",
	"°f":           "F",
	"fahrenheit":   "F",
	"gas":          "gas",
	"gas mark":     "gas",
	"mark":         "gas",
	"fan":          "fan",
	"min":          "min",
	"mins":         "min",
	"minute":       "min",
	"minutes":      "min",
	"h":            "h",
	"hr":           "h",
	"hrs":          "h",
	"hour":         "h",
	"hours":        "h",
	"%":            "%",
	"percent":      "%",
}

var (
	lengthCM = map[string]float64{"": 1, "cm": 1, "mm": 0.1, "m": 100, "in": CMInch}
	massG    = map[string]float64{
		"":      1,
		"g":     1,
		"kg":    1000,
		"mg":    0.001,
		"oz":    OunceG,
		"lb":    gPound,
		"stick": gStick,
		"knob":  gKnob,
		"pinch": gPinch,
	}
	minutes = map[string]float64{"": 1, "min": 1, "h": 60}
)

// Spelling is the one spelling of a unit as bakers write it; empty where it is none.
func Spelling(written string) string { return spellings[written] }

// MassG is what a unit of mass weighs, in g: also of those that bakers take for one, as a stick or a knob of butter. It
// is 0 where the unit is none.
func MassG(unit string) float64 {
	if unit == "" {
		return 0
	}
	return massG[unit]
}

// VolumeML is what a unit of volume holds, in ml, by the kitchen's conventions; false where it is none.
func (c Conventions) VolumeML(unit string) (float64, bool) {
	imperial := c.british()
	switch unit {
	case "cup":
		return c.Cup.ML(), true
	case "tbsp":
		return c.Spoon.TbspML(), true
	case "tsp":
		return c.Spoon.TspML(), true
	case "dsp":
		return 2 * c.Spoon.TspML(), true
	case "fl oz":
		return pick(imperial, mlImpFlOz, mlUSFlOz), true
	case "pt":
		return pick(imperial, ImpPintML, mlUSPint), true
	case "qt":
		return pick(imperial, 2*ImpPintML, USQuartML), true
	}
	v, ok := metricML[unit]
	return v, ok
}

// british says that a pint is one of 20 ounces: so it is wherever cups are not American.
func (c Conventions) british() bool {
	return c.Cup == ImperialCup || c.Cup == MetricCup || c.Eggs == UKEggs
}

var metricML = map[string]float64{"ml": 1, "cl": 10, "dl": 100, "l": 1000}

func pick(first bool, a, b float64) float64 {
	if first {
		return a
	}
	return b
}

// Convert brings v of a unit to the kind's own, and says whether that changed it and what was taken for granted.
func Convert(
	v float64,
	word string,
	kind Kind,
	c Conventions,
	d Density,
) (x float64, converted bool, taken message.Message, err error) {
	unit, known := spellings[word]
	if word != "" && !known {
		return 0, false, message.Message{}, message.Errorf(
			"has an unknown unit \"{unit}\": write it like {example}",
			message.Text(word),
			message.Part(kind.Example()),
		)
	}
	other := func() error {
		return message.Errorf(
			"is not a {kind}: write it like {example}",
			message.Word(string(kind)),
			message.Part(kind.Example()),
		)
	}
	factor, ok := 1.0, true
	switch kind {
	case Length:
		factor, ok = lengthCM[unit]
	case Minutes:
		factor, ok = minutes[unit]
	case Percent:
		ok = unit == "" || unit == "%"
	case Temperature:
		x, err := ToCelsius(v, unit)
		return x, unit != "" && unit != "C", message.Message{}, err
	case Volume:
		if unit != "" {
			factor, ok = c.VolumeML(unit)
		}
	case Mass:
		if factor, ok = massG[unit]; !ok {
			ml, isVolume := c.VolumeML(unit)
			if !isVolume {
				return 0, false, message.Message{}, other()
			}
			density := d.CupGPerML
			if strings.HasPrefix(unit, "t") {
				density = d.TspGPerML
			}
			if density == 0 {
				return 0, false, message.Message{}, message.Errorf(
					"is a volume, but the weight of a cup of this is not known: weigh it and enter grams",
				)
			}
			if unit == "cup" {
				taken = message.New(d.Packing)
			}
			return v * ml * density, true, taken, nil
		}
	}
	if !ok {
		return 0, false, message.Message{}, other()
	}
	return v * factor, factor != 1, message.Message{}, nil
}

// FanC is what a fan is worth, in C, by the everyday rule.
const FanC = 20.0

// ToCelsius converts an oven's temperature. A fan setting counts 20 C more, by the everyday rule.
func ToCelsius(v float64, unit string) (float64, error) {
	switch unit {
	case "", "C":
		return v, nil
	case "F":
		return (v - 32) / 1.8, nil
	case "fan":
		return v + FanC, nil
	case "gas":
		for _, g := range gasMarks {
			if math.Abs(g.Mark-v) < 0.01 {
				return g.C, nil
			}
		}
		return 0, message.Errorf("is not a gas mark: use 1/4, 1/2 or 1 to 9")
	}
	return 0, message.Errorf("is not a temperature: write it like {example}", message.Part(Temperature.Example()))
}
