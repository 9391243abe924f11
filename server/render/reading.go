// Package render puts figures and sentences as a kitchen reads them: in its English, its units and with its decimal
// mark. The rules speak British, grams, millimetres and Celsius; what is said passes through here, and nowhere else.
package render

import (
	"bytes"
	"math"
	"regexp"
	"strconv"
	"strings"

	"mabbin/core/message"
	"mabbin/core/parse"
	"mabbin/core/units"
)

// Reading is how somebody reads. The zero value is British, in grams, centimetres and Celsius, with a point.
type Reading struct {
	English units.English
	Weights string // g, oz or spoons
	Heat    string // c, f, gas or fan
	Lengths string // cm or in
	Cup     units.Cup
	Decimal units.Decimal
}

// For is how a kitchen with these settings reads.
func For(s units.Settings) Reading {
	return Reading{
		English: s.English,
		Weights: s.Weights,
		Heat:    s.Heat,
		Lengths: s.Lengths,
		Cup:     s.Cup,
		Decimal: s.Decimal,
	}
}

// number writes x to so many digits at most, without noughts at the end.
func (r Reading) number(x float64, digits int) string { return string(r.appendNumber(nil, x, digits)) }

var tens = [...]float64{1, 10, 100, 1000}

func (r Reading) appendNumber(text []byte, x float64, digits int) []byte {
	x = math.Round(x*tens[digits]) / tens[digits]
	if x == 0 {
		x = 0 // and not -0
	}
	from := len(text)
	text = strconv.AppendFloat(text, x, 'f', -1, 64)
	if r.Decimal == units.Comma {
		if i := bytes.IndexByte(text[from:], '.'); i >= 0 {
			text[from+i] = ','
		}
	}
	return text
}

func (r Reading) mark(figure string) string {
	if r.Decimal == units.Comma {
		return strings.Replace(figure, ".", ",", 1)
	}
	return figure
}

// Number is a bare figure, to a tenth.
func (r Reading) Number(x float64) string { return r.number(x, 1) }

// Weight is a weight as the scale shows it: to 1 g, and 0.1 g below 10 g; or ounces, to a tenth, finer below one.
func (r Reading) Weight(g float64) string { return string(r.appendWeight(nil, g)) }

func (r Reading) appendWeight(text []byte, g float64) []byte {
	if oz := g / units.OunceG; r.Weights == "oz" {
		digits := 1
		if oz < 1 {
			digits = 2
		}
		return append(r.appendNumber(text, oz, digits), " oz"...)
	}
	return append(r.appendNumber(text, g, units.ScaleDigits(g)), " g"...)
}

// MM is a depth or a thickness.
func (r Reading) MM(x float64) string { return string(r.appendMM(nil, x)) }

func (r Reading) appendMM(text []byte, x float64) []byte {
	if r.Lengths == "in" {
		return append(append(text, units.Inches(x/10/units.CMInch)...), " in"...)
	}
	digits := 0
	if math.Abs(x) < 10 {
		digits = 1
	}
	return append(r.appendNumber(text, x, digits), " mm"...)
}

// CM is a length.
func (r Reading) CM(x float64) string {
	if r.Lengths == "in" {
		return units.Inches(x/units.CMInch) + " in"
	}
	return r.number(x, 1) + " cm"
}

// OvenHeat is an oven's temperature: C, F to the next 5, the nearest gas mark, or the fan's.
func (r Reading) OvenHeat(c float64) string {
	switch r.Heat {
	case "f":
		return r.number(math.Round((c*1.8+32)/5)*5, 0) + " °F"
	case "fan":
		return "fan " + r.number(c-units.FanC, 0) + " °C"
	case "gas":
		return "gas " + units.GasMark(c)
	}
	return r.number(c, 0) + " °C"
}

var (
	figureInText  = regexp.MustCompile(`(?:(\d+(?:\.\d+)?) to )?(\d+(?:\.\d+)?) (g|mm|cm|C)\b`)
	decimalInText = regexp.MustCompile(`\d\.\d`)
)

// words is a sentence in the kitchen's English, its own figures in the kitchen's units. The places of its values, in
// braces, stay as they are.
func (r Reading) words(s string) string {
	s = figureInText.ReplaceAllStringFunc(s, func(found string) string {
		part := figureInText.FindStringSubmatch(found)
		if part[1] == "" {
			return r.inUnit(part[2], part[3])
		}
		least, _, _ := strings.Cut(r.inUnit(part[1], part[3]), " "+r.unit(part[3]))
		return least + " to " + r.inUnit(part[2], part[3])
	})
	if r.Decimal == units.Comma {
		s = decimalInText.ReplaceAllStringFunc(s, r.mark)
	}
	if r.English != units.US {
		return s
	}
	var b strings.Builder
	for {
		words, rest, found := strings.Cut(s, "{")
		b.WriteString(American(words))
		if !found {
			return b.String()
		}
		place, after, _ := strings.Cut(rest, "}")
		b.WriteString("{" + place + "}")
		s = after
	}
}

// inUnit is a figure of a text, with its unit, as the kitchen reads it.
func (r Reading) inUnit(figure, unit string) string {
	x, err := strconv.ParseFloat(figure, 64)
	switch {
	case err != nil:
		return figure + " " + unit
	case unit == "C":
		return r.Warmth(x)
	}
	return string(r.appendFigure(nil, message.Kind(unit), x))
}

// unit is what stands behind a figure for one of the units of a text.
func (r Reading) unit(of string) string {
	shown := strings.Fields(r.inUnit("1", of))
	return shown[len(shown)-1]
}

// Volume is a volume of ml: litres, or where lengths are inches the quarts, of half-pint cups the pints, that belong
// to them.
func (r Reading) Volume(ml float64) string {
	switch {
	case r.Lengths == "in" && r.Cup == units.ImperialCup:
		return r.number(ml/units.ImpPintML, 1) + " pints"
	case r.Lengths == "in":
		return r.number(ml/units.USQuartML, 1) + " quarts"
	case ml < 950:
		return r.number(ml, 0) + " ml"
	}
	return r.mark(strconv.FormatFloat(ml/1000, 'f', 1, 64)) + " l"
}

// Warmth is a temperature as a thermometer tells it: nothing that an oven is set to.
func (r Reading) Warmth(c float64) string {
	if r.Heat == "f" {
		return r.number(c*1.8+32, 0) + " °F"
	}
	return r.number(c, 0) + " °C"
}

// Degrees is a difference of temperatures: a gas mark has no even steps, so that kitchen reads degrees Celsius too.
func (r Reading) Degrees(c float64) string {
	if r.Heat == "f" {
		return r.number(math.Round(c*1.8/5)*5, 0) + " °F"
	}
	return r.number(c, 0) + " °C"
}

// Label is the name of a fruit or an ingredient as it stands on a line: without its other name in brackets.
func (r Reading) Label(name string) string {
	s := parse.Unbracketed(name)
	if r.English == units.US {
		s = American(s)
	}
	return s
}
