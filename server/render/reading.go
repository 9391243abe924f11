// Package render puts figures and sentences as a kitchen reads them: in its English, its units and with its decimal
// mark. The rules speak British, grams, millimetres and Celsius; what is said passes through here, and nowhere else.
package render

import (
	"math"
	"regexp"
	"strconv"
	"strings"
	"sync"

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
func (r Reading) number(x float64, digits int) string {
	k := math.Pow(10, float64(digits))
	x = math.Round(x*k) / k
	if x == 0 {
		x = 0 // and not -0
	}
	return r.mark(strconv.FormatFloat(x, 'f', -1, 64))
}

func (r Reading) mark(figure string) string {
	if r.Decimal == units.Comma {
		return strings.Replace(figure, ".", ",", 1)
	}
	return figure
}

// Number is a bare figure, to a tenth.
func (r Reading) Number(x float64) string { return r.number(x, 1) }

// Scale is a weight as the scale shows it, figure and unit: to 1 g, and 0.1 g below 10 g; or ounces, to a tenth,
// finer below one.
func (r Reading) Scale(g float64) (figure, unit string) {
	if r.Weights != "oz" {
		return r.mark(units.Shown(g)), "g"
	}
	oz := g / units.OunceG
	if oz < 1 {
		return r.number(oz, 2), "oz"
	}
	return r.number(oz, 1), "oz"
}

// Weight is a weight with its unit.
func (r Reading) Weight(g float64) string {
	figure, unit := r.Scale(g)
	return figure + " " + unit
}

// MM is a depth or a thickness.
func (r Reading) MM(x float64) string {
	switch {
	case r.Lengths == "in":
		return units.Inches(x/10/units.CMInch) + " in"
	case math.Abs(x) < 10:
		return r.number(x, 1) + " mm"
	}
	return r.number(x, 0) + " mm"
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

// Text is what the rules say, as the kitchen reads it.
func (r Reading) Text(l message.Message) string { return l.Read(r) }

var _ message.Reader = Reading{}

// wordings are formats in the words of a reading. A format is a constant of the program, so there are only so many.
var wordings sync.Map

type wording struct {
	reading Reading
	format  string
}

// mostKept is the longest format that is kept: what is longer was not written in the program.
const mostKept = 400

// Words is a format in the kitchen's English, as words make it, worked out once.
func (r Reading) Words(s string) string {
	if len(s) > mostKept {
		return r.words(s)
	}
	key := wording{r, s}
	if known, ok := wordings.Load(key); ok {
		return known.(string) //nolint:forcetypeassert // nothing else is stored
	}
	says := r.words(s)
	wordings.Store(key, says)
	return says
}

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
	return r.Figure(message.Kind(unit), x)
}

// unit is what stands behind a figure for one of the units of a text.
func (r Reading) unit(of string) string {
	shown := strings.Fields(r.inUnit("1", of))
	return shown[len(shown)-1]
}

// Name is a name of the tables as it stands in a sentence.
func (r Reading) Name(name string) string {
	if r.English == units.US {
		return American(name)
	}
	return name
}

// Figure is a value of a sentence.
func (r Reading) Figure(kind message.Kind, x float64) string {
	switch kind {
	case message.KindGrams:
		return r.Weight(x)
	case message.KindMillimetres:
		return r.MM(x)
	case message.KindCentimetres:
		return r.CM(x)
	case message.KindMillilitres:
		return r.Volume(x)
	case message.KindOvenHeat:
		return r.OvenHeat(x)
	case message.KindCelsius:
		return r.Warmth(x)
	case message.KindCelsiusDifference:
		return r.Degrees(x)
	}
	return r.number(x, 3)
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
