// Package say is how the rules speak: English sentences with values in their places. The sentence is the key of the
// catalogue that a translator works in, and the values keep their kinds, so that what is shown can be put into a
// kitchen's language, words and units without searching the sentence for figures.
package say

import (
	"math"
	"slices"
	"strconv"
	"strings"
)

// Line is a sentence, or a few words. A constant is a Line as it stands; F makes one with values.
//
// In Go it is one string, in which a value stands between open and shut: the name of its place, its kind, and the value.
// String writes it in plain English; MarshalJSON takes it apart.
type Line string

const (
	open = "\x01"
	part = "\x1f"
	shut = "\x02"
)

// Kind is what a value is measured in, or what sort of words it is.
type Kind string

// The kinds of values.
const (
	Weight Kind = "g"
	Depth  Kind = "mm"
	Length Kind = "cm"
	Volume Kind = "ml"
	Heat   Kind = "c"  // that an oven is set to
	Warmth Kind = "t"  // any temperature, as a thermometer tells it
	Step   Kind = "dc" // so many degrees Celsius more or less
	Number Kind = "n"
	Words  Kind = "line" // a line of the rules within a line
	Name   Kind = "name" // what a fruit, an ingredient or a dish is called
	Given  Kind = "as"   // what was written or given, shown as it is
	And    Kind = "and"  // lines, joined by commas and "and"
	Or     Kind = "or"   // lines, joined by commas and "or"
	Range  Kind = "to"   // two values, from one to the other
)

// Value is what is put into a place.
type Value string

func number(kind Kind, x float64, digits int) Value {
	k := math.Pow(10, float64(digits))
	x = math.Round(x*k) / k
	if x == 0 {
		x = 0 // and not -0
	}
	return Value(string(kind) + part + strconv.FormatFloat(x, 'f', -1, 64))
}

// G is a weight in grams, to 1 g, and below 10 g to 0.1 g, as scales show it.
func G(g float64) Value { return number(Weight, g, tenths(g)) }

// MM is a depth in millimetres, to a whole one, and below 10 mm to a tenth.
func MM(mm float64) Value { return number(Depth, mm, tenths(mm)) }

// tenths is how many digits after the point tell something of a figure that is read off a scale or a ruler.
func tenths(x float64) int {
	if math.Abs(x) < 9.95 {
		return 1
	}
	return 0
}

// CM is a length in centimetres, to a tenth.
func CM(cm float64) Value { return number(Length, cm, 1) }

// ML is a volume in millilitres, to a whole one.
func ML(ml float64) Value { return number(Volume, ml, 0) }

// C is the heat that an oven is set to, in degrees Celsius, to a whole one.
func C(c float64) Value { return number(Heat, c, 0) }

// Degrees is a difference of temperatures in degrees Celsius, to a whole one.
func Degrees(c float64) Value { return number(Step, c, 0) }

// N is a bare figure, to so many digits after the point.
func N(x float64, digits int) Value { return number(Number, x, digits) }

// Count is a number of things.
func Count(n int) Value { return number(Number, float64(n), 0) }

// Exactly is a figure as it was given, to a thousandth.
func Exactly(kind Kind, x float64) Value { return number(kind, x, 3) }

// L is a line of the rules within a line.
func L(l Line) Value { return Value(string(Words) + part + string(l)) }

// Called is the name of a row of the tables.
func Called(name string) Value { return Value(string(Name) + part + clean(name)) }

// Text is what was written or given: it is shown as it is.
func Text(s string) Value { return Value(string(Given) + part + clean(s)) }

// To is a range: "3 to 100 cm".
func To(least, most Value) Value {
	return Value(string(Range) + part + string(F("{0}{1}", least, most)))
}

// All is lines joined by commas, with "and" before the last.
func All(lines ...Line) Value { return joined(And, lines) }

// Any is lines joined by commas, with "or" before the last.
func Any(lines ...Line) Value { return joined(Or, lines) }

func joined(kind Kind, lines []Line) Value {
	values, places := nested(lines)
	return Value(string(kind) + part + string(F(Line(strings.Join(places, "")), values...)))
}

// clean keeps the marks of a line out of what was given.
func clean(s string) string {
	if !strings.ContainsAny(s, open+part+shut) {
		return s
	}
	return strings.NewReplacer(open, "", part, "", shut, "").Replace(s)
}

// F is a sentence with its values, one for each place in braces, in the order of the places.
func F(sentence Line, values ...Value) Line {
	var b strings.Builder
	rest := string(sentence)
	for _, v := range values {
		before, place, _ := strings.Cut(rest, "{")
		name, after, _ := strings.Cut(place, "}")
		b.WriteString(before)
		b.WriteString(open)
		b.WriteString(name)
		b.WriteString(part)
		b.WriteString(string(v))
		b.WriteString(shut)
		rest = after
	}
	b.WriteString(rest)
	return Line(b.String())
}

// Only is a value by itself.
func Only(v Value) Line { return F("{value}", v) }

// Sentences puts lines one after the other; empty ones are left out.
func Sentences(lines ...Line) Line { return Between(" ", lines...) }

// Between puts lines one after the other, with sep between them; empty ones are left out.
func Between(sep string, lines ...Line) Line {
	lines = slices.DeleteFunc(slices.Clone(lines), func(l Line) bool { return l == "" })
	if len(lines) == 1 {
		return lines[0]
	}
	values, places := nested(lines)
	return F(Line(strings.Join(places, sep)), values...)
}

// nested is lines as values, and numbered places for them.
func nested(lines []Line) (values []Value, places []string) {
	for i, l := range lines {
		values = append(values, L(l))
		places = append(places, "{"+strconv.Itoa(i)+"}")
	}
	return values, places
}
