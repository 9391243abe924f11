// Package wording puts figures and sentences as a kitchen reads them: in its English, its units and with its decimal
// mark. The rules speak British, grams, millimetres and Celsius; what is shown passes through here. The page has the
// same in its own words.ts, for what it shows within a frame.
package wording

import (
	"math"
	"regexp"
	"strconv"
	"strings"

	"mabbin/core/measure"
	"mabbin/core/say"
)

// Reader writes as one kitchen reads. The zero value is British, in grams, centimetres and Celsius, with a point.
type Reader struct {
	settings measure.Settings
}

// For is the reader of a kitchen with these settings.
func For(s measure.Settings) Reader { return Reader{s} }

// number writes x to so many digits at most, without noughts at the end.
func (r Reader) number(x float64, digits int) string {
	k := math.Pow(10, float64(digits))
	x = math.Round(x*k) / k
	if x == 0 {
		x = 0 // and not -0
	}
	return r.mark(strconv.FormatFloat(x, 'f', -1, 64))
}

func (r Reader) mark(figure string) string {
	if r.settings.Decimal == measure.Comma {
		return strings.Replace(figure, ".", ",", 1)
	}
	return figure
}

// Number is a bare figure, to a tenth.
func (r Reader) Number(x float64) string { return r.number(x, 1) }

// Scale is a weight as the scale shows it, figure and unit: to 1 g, and 0.1 g below 10 g; or ounces, to a tenth, finer below one.
func (r Reader) Scale(g float64) (figure, unit string) {
	if r.settings.Weights != "oz" {
		return r.mark(measure.Shown(g)), "g"
	}
	oz := g / measure.OunceG
	if oz < 1 {
		return r.number(oz, 2), "oz"
	}
	return r.number(oz, 1), "oz"
}

// Weight is a weight with its unit.
func (r Reader) Weight(g float64) string {
	figure, unit := r.Scale(g)
	return figure + " " + unit
}

// MM is a depth or a thickness.
func (r Reader) MM(x float64) string {
	switch {
	case r.settings.Lengths == "in":
		return r.number(x/10/measure.CMInch, 2) + " in"
	case math.Abs(x) < 10:
		return r.number(x, 1) + " mm"
	}
	return r.number(x, 0) + " mm"
}

// CM is a length.
func (r Reader) CM(x float64) string {
	if r.settings.Lengths == "in" {
		return r.number(x/measure.CMInch, 1) + " in"
	}
	return r.number(x, 1) + " cm"
}

// Heat is an oven's temperature: C, F to the next 5, the nearest gas mark, or the fan's.
func (r Reader) Heat(c float64) string {
	switch r.settings.Heat {
	case "f":
		return r.number(math.Round((c*1.8+32)/5)*5, 0) + " °F"
	case "fan":
		return "fan " + r.number(c-measure.FanC, 0) + " °C"
	case "gas":
		return "gas " + measure.GasMark(c)
	}
	return r.number(c, 0) + " °C"
}

var (
	figureInText  = regexp.MustCompile(`(\d+(?:\.\d+)?) (g|mm|cm|C)\b`)
	decimalInText = regexp.MustCompile(`\d\.\d`)
)

// Text is what the rules say, as the kitchen reads it.
func (r Reader) Text(l say.Line) string { return l.Read(r) }

var _ say.Reader = Reader{}

// Sentence is a sentence in the kitchen's English, its own figures in the kitchen's units. The places of its values, in
// braces, stay as they are.
func (r Reader) Sentence(s string) string {
	s = figureInText.ReplaceAllStringFunc(s, func(found string) string {
		figure, unit, _ := strings.Cut(found, " ")
		x, err := strconv.ParseFloat(figure, 64)
		if err != nil {
			return found
		}
		if unit == "C" {
			return r.Warmth(x)
		}
		return r.Figure(say.Kind(unit), x)
	})
	if r.settings.Decimal == measure.Comma {
		s = decimalInText.ReplaceAllStringFunc(s, r.mark)
	}
	if r.settings.English != measure.US {
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

// Called is a name of the tables as it stands in a sentence.
func (r Reader) Called(name string) string {
	if r.settings.English == measure.US {
		return American(name)
	}
	return name
}

// Figure is a value of a sentence.
func (r Reader) Figure(kind say.Kind, x float64) string {
	switch kind {
	case say.Weight:
		return r.Weight(x)
	case say.Depth:
		return r.MM(x)
	case say.Length:
		return r.CM(x)
	case say.Volume:
		return r.Volume(x)
	case say.Heat:
		return r.Heat(x)
	case say.Warmth:
		return r.Warmth(x)
	case say.Step:
		return r.Degrees(x)
	}
	return r.number(x, 3)
}

// Volume is a volume of ml: litres, or where lengths are inches the quarts, of half-pint cups the pints, that belong to them.
func (r Reader) Volume(ml float64) string {
	switch {
	case r.settings.Lengths == "in" && r.settings.Cup == measure.ImperialCup:
		return r.number(ml/measure.ImpPintML, 1) + " pints"
	case r.settings.Lengths == "in":
		return r.number(ml/measure.USQuartML, 1) + " quarts"
	case ml < 950:
		return r.number(ml, 0) + " ml"
	}
	return r.mark(strconv.FormatFloat(ml/1000, 'f', 1, 64)) + " l"
}

// Warmth is a temperature as a thermometer tells it: nothing that an oven is set to.
func (r Reader) Warmth(c float64) string {
	if r.settings.Heat == "f" {
		return r.number(c*1.8+32, 0) + " °F"
	}
	return r.number(c, 0) + " °C"
}

// Degrees is a difference of temperatures: a gas mark has no even steps, so that kitchen reads degrees Celsius too.
func (r Reader) Degrees(c float64) string {
	if r.settings.Heat == "f" {
		return r.number(math.Round(c*1.8/5)*5, 0) + " °F"
	}
	return r.number(c, 0) + " °C"
}

// Name is the name of a fruit or an ingredient as it stands on a line: without its other name in brackets.
func (r Reader) Name(name string) string {
	s := measure.Unbracketed(name)
	if r.settings.English == measure.US {
		s = American(s)
	}
	return s
}
