// Package render puts figures and sentences as a kitchen reads them: in its English, its units and with its decimal
// mark. The rules speak British, grams, millimetres and Celsius; what is said passes through here, and nowhere else.
package render

import (
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

// Mark stands between whole ones and tenths.
func (r Reading) Mark() string {
	if r.Decimal == units.Comma {
		return ","
	}
	return "."
}

// Number is a bare figure, to a tenth.
func (r Reading) Number(x float64) string { return string(appendNumber(nil, x, 1, r.Decimal)) }

// Figure is a figure of a kind, with its unit.
func (r Reading) Figure(kind message.Kind, x float64) string {
	return string(r.Renderer().AppendFigure(nil, kind, x))
}

// Weight is a weight as the scale shows it: to 1 g, and 0.1 g below 10 g; or ounces, to a tenth, finer below one.
func (r Reading) Weight(g float64) string { return r.Figure(message.KindGrams, g) }

// CM is a length.
func (r Reading) CM(x float64) string { return r.Figure(message.KindCentimetres, x) }

// Forms are how the reading's figures are written.
func (r Reading) Forms() Forms { return r.Renderer().forms }

var (
	figureInText  = regexp.MustCompile(`(?:(\d+(?:\.\d+)?) to )?(\d+(?:\.\d+)?) (g|mm|cm|C)\b`)
	decimalInText = regexp.MustCompile(`(\d)\.(\d)`)
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
		s = decimalInText.ReplaceAllString(s, "$1,$2")
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

// inUnit is a figure of a text, with its unit, as the kitchen reads it. Of a temperature in a text nobody says that an
// oven is set to it.
func (r Reading) inUnit(figure, unit string) string {
	x, err := strconv.ParseFloat(figure, 64)
	if err != nil {
		return figure + " " + unit
	}
	kind := message.Kind(unit)
	if unit == "C" {
		kind = message.KindCelsius
	}
	return r.Figure(kind, x)
}

// unit is what stands behind a figure for one of the units of a text.
func (r Reading) unit(of string) string {
	shown := strings.Fields(r.inUnit("1", of))
	return shown[len(shown)-1]
}

// Label is the name of a fruit or an ingredient as it stands on a line: without its other name in brackets.
func (r Reading) Label(name string) string {
	s := parse.Unbracketed(name)
	if r.English == units.US {
		s = American(s)
	}
	return s
}
