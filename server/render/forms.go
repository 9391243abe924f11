package render

import (
	"bytes"
	"cmp"
	"math"
	"slices"
	"strconv"

	"mabbin/core/message"
	"mabbin/core/units"
)

// Form is how figures of one kind are written, in the units of a reading: by the first of its ranges that a figure
// falls into. The page writes figures by the same forms.
type Form []FormRange

// FormRange is how figures up to a size are written.
type FormRange struct {
	Below   float64         // of the size of a figure, in the core's unit; 0: whatever is left
	Times   float64         // what is shown is Times a figure
	Plus    float64         // and so much
	Nearest float64         // to the next of which it goes; 0: as it is
	Digits  int             // after the point, at most
	Always  bool            // with all of them, also noughts
	Parts   int             // shown as a fraction, as a ruler has it: of so many parts of one; 0: with a point
	Marks   []units.GasMark // the nearest of which is shown; of two, the lower
	Before  string
	Unit    string
}

// Forms are the forms of a reading, by the kinds of what a message measures.
type Forms map[message.Kind]Form

// of writes as it comes, to so many digits.
func of(unit string, digits int) FormRange { return in(unit, 1, digits) }

func (f FormRange) below(size float64) FormRange {
	f.Below = size
	return f
}

// in is a unit of which one of the core's is so many.
func in(unit string, times float64, digits int) FormRange {
	return FormRange{Times: times, Digits: digits, Unit: unit}
}

// ruler is inches as a ruler has them: to an eighth, and a sixteenth below a quarter. One of the core's unit is so many
// inches. What is there is at least a part, but for what nobody could measure.
func ruler(times float64) Form {
	const nothing, fine = 0.005, 3.0 / 16 // in
	part := func(n int) FormRange { return FormRange{Times: times, Parts: n, Unit: "in"} }
	return Form{in("in", times, 0).below(nothing / times), part(16).below(fine / times), part(8)}
}

// Dials are what the dials of ovens show.
var Dials = []string{"c", "f", "gas", "fan"}

// Dial is how an oven is set whose dial shows C, F to the next 5, gas marks, or C with the fan.
func Dial(shows string) Form {
	switch shows {
	case "f":
		return Form{{Times: 1.8, Plus: 32, Nearest: 5, Unit: "°F"}}
	case "fan":
		return Form{{Times: 1, Plus: -units.FanC, Before: "fan", Unit: "°C"}}
	case "gas":
		return Form{{Times: 1, Marks: units.GasMarks(), Before: "gas"}}
	}
	return Form{of("°C", 0)}
}

// formsOf are the forms of a reading: a weight as the scale shows it, a depth, a length, a volume, what an oven is set
// to, what a thermometer shows, a difference of temperatures, and a bare number. A gas mark has no even steps: that
// kitchen reads differences, and what is no oven's, in degrees Celsius.
func formsOf(r Reading) Forms {
	const (
		tenfold = 9.95 // below it one digit more tells something
		small   = 2.5  // C of difference, of which steps of five degrees F would tell nothing
	)
	f := Forms{
		message.KindGrams:             {of("g", 1).below(tenfold), of("g", 0)},
		message.KindMillimetres:       {of("mm", 1).below(10), of("mm", 0)},
		message.KindCentimetres:       {of("cm", 1)},
		message.KindMillilitres:       {of("ml", 0).below(950), {Times: 0.001, Digits: 1, Always: true, Unit: "l"}},
		message.KindOvenHeat:          Dial(r.Heat),
		message.KindCelsius:           {of("°C", 0)},
		message.KindCelsiusDifference: {of("°C", 0)},
		message.KindNumber:            {of("", 3)},
	}
	if r.Weights == "oz" {
		f[message.KindGrams] = Form{in("oz", 1/units.OunceG, 2).below(units.OunceG), in("oz", 1/units.OunceG, 1)}
	}
	if r.Lengths == "in" {
		f[message.KindMillimetres], f[message.KindCentimetres] = ruler(0.1/units.CMInch), ruler(1/units.CMInch)
		f[message.KindMillilitres] = Form{in("quarts", 1/units.USQuartML, 1)}
		if r.Cup == units.ImperialCup { // with the half-pint cup go its pints
			f[message.KindMillilitres] = Form{in("pints", 1/units.ImpPintML, 1)}
		}
	}
	if r.Heat == "f" {
		f[message.KindCelsius] = Form{{Times: 1.8, Plus: 32, Unit: "°F"}}
		f[message.KindCelsiusDifference] = Form{in("°F", 1.8, 0).below(small), {Times: 1.8, Nearest: 5, Unit: "°F"}}
	}
	bare := slices.Clone(f[message.KindCentimetres])
	for i := range bare {
		bare[i].Unit = ""
	}
	f[message.KindBareCentimetres] = bare
	return f
}

// append writes a figure of the form to the end of a text.
func (f Form) append(text []byte, x float64, mark units.Decimal) []byte {
	size, is := math.Abs(x), FormRange{Times: 1, Digits: 1}
	for _, r := range f {
		if r.Below == 0 || size < r.Below {
			is = r
			break
		}
	}
	if is.Before != "" {
		text = append(append(text, is.Before...), ' ')
	}
	shown := x*is.Times + is.Plus
	if is.Nearest > 0 {
		shown = math.Round(shown/is.Nearest) * is.Nearest
	}
	switch {
	case is.Marks != nil:
		nearest := slices.MinFunc(is.Marks, func(a, b units.GasMark) int {
			return cmp.Compare(math.Abs(a.C-x), math.Abs(b.C-x))
		})
		text = append(text, nearest.Text...)
	case is.Parts > 0:
		text = appendParts(text, shown, float64(is.Parts))
	case is.Always:
		text = appendMarked(text, shown, is.Digits, mark)
	default:
		text = appendNumber(text, shown, is.Digits, mark)
	}
	if is.Unit == "" {
		return text
	}
	return append(append(text, ' '), is.Unit...)
}

// appendParts writes a figure in so many parts of one, cancelled down: 1 3/8. There is at least one part of it.
func appendParts(text []byte, x, parts float64) []byte {
	if x < 0 {
		text, x = append(text, '-'), -x
	}
	n := max(1, math.Round(x*parts))
	whole, rest := math.Floor(n/parts), math.Mod(n, parts)
	for rest > 0 && math.Mod(rest, 2) == 0 {
		rest, parts = rest/2, parts/2
	}
	if whole > 0 {
		text = strconv.AppendFloat(text, whole, 'f', 0, 64)
	}
	if rest == 0 {
		return text
	}
	if whole > 0 {
		text = append(text, ' ')
	}
	text = append(strconv.AppendFloat(text, rest, 'f', 0, 64), '/')
	return strconv.AppendFloat(text, parts, 'f', 0, 64)
}

var tens = [...]float64{1, 10, 100, 1000}

// appendNumber writes x to so many digits at most, without noughts at the end.
func appendNumber(text []byte, x float64, digits int, mark units.Decimal) []byte {
	x = math.Round(x*tens[digits]) / tens[digits]
	if x == 0 {
		x = 0 // and not -0
	}
	return appendMarked(text, x, -1, mark)
}

func appendMarked(text []byte, x float64, digits int, mark units.Decimal) []byte {
	from := len(text)
	text = strconv.AppendFloat(text, x, 'f', digits, 64)
	if mark == units.Comma {
		if i := bytes.IndexByte(text[from:], '.'); i >= 0 {
			text[from+i] = ','
		}
	}
	return text
}
