// Package message is how the rules speak: a message is a format with named places, and typed arguments that stand in
// them. Nothing here knows a language, a unit or a kitchen; words are made of it at the edge (server/render).
package message

import (
	"math"
	"slices"
)

// Message is what a rule has to say: a sentence, or a few words. Its zero value says nothing.
type Message struct {
	Format string // "Take out {fruit} of fruit."; without arguments it is shown as it is
	Args   []Arg  // one for each place, in the order of the places
}

// Kind is what an argument is measured in, or what sort of words it is.
type Kind string

// The kinds of arguments. Their values are those of the stored form.
const (
	KindGrams             Kind = "g"
	KindMillimetres       Kind = "mm"
	KindCentimetres       Kind = "cm"
	KindBareCentimetres   Kind = "cmn" // a length whose unit is next to another one's
	KindMillilitres       Kind = "ml"
	KindOvenHeat          Kind = "c"  // what an oven is set to, C
	KindCelsius           Kind = "t"  // any temperature, as a thermometer tells it
	KindCelsiusDifference Kind = "dc" // so many degrees Celsius more or less
	KindNumber            Kind = "n"
	KindMessage           Kind = "line" // a message within a message
	KindName              Kind = "name" // what a fruit, an ingredient or a dish is called in the tables
	KindText              Kind = "as"   // what was written or given, shown as it is
	KindAnd               Kind = "and"  // messages, joined by commas and "and"
	KindOr                Kind = "or"   // messages, joined by commas and "or"
	KindRange             Kind = "to"   // two messages, from one to the other
	KindSequence          Kind = "seq"  // messages, one after the other
)

// Arg is one value with its kind.
type Arg struct {
	Kind  Kind
	Value float64   // of the kinds that are measured
	Text  string    // of a name and a text; what stands between the messages of a sequence
	Parts []Message // of a message (one), a list, and a range (two)
}

// New is a message of a format and its arguments.
func New(format string, args ...Arg) Message { return Message{format, args} }

// IsZero says whether there is nothing to say.
func (m Message) IsZero() bool { return m.Format == "" }

// Equal says whether two messages say the same.
func (m Message) Equal(o Message) bool {
	return m.Format == o.Format && slices.EqualFunc(m.Args, o.Args, func(a, b Arg) bool {
		return a.Kind == b.Kind && a.Value == b.Value && a.Text == b.Text && slices.EqualFunc(a.Parts, b.Parts, Message.Equal)
	})
}

func measured(kind Kind, x float64, digits int) Arg {
	k := math.Pow(10, float64(digits))
	x = math.Round(x*k) / k
	if x == 0 {
		x = 0 // and not -0
	}
	return Arg{Kind: kind, Value: x}
}

// Grams is a weight, to 1 g, and below 10 g to 0.1 g, as scales show it.
func Grams(g float64) Arg { return measured(KindGrams, g, fineDigits(g)) }

// Millimetres is a depth, to a whole one, and below 10 mm to a tenth.
func Millimetres(mm float64) Arg { return measured(KindMillimetres, mm, fineDigits(mm)) }

// fineDigits is how many digits after the point tell something of a figure read off a scale or a ruler.
func fineDigits(x float64) int {
	if math.Abs(x) < 9.95 {
		return 1
	}
	return 0
}

// Centimetres is a length, to a tenth.
func Centimetres(cm float64) Arg { return measured(KindCentimetres, cm, 1) }

// BareCentimetres is a length to a tenth whose unit is next to another one's: the first of "24 × 18 cm".
func BareCentimetres(cm float64) Arg { return measured(KindBareCentimetres, cm, 1) }

// Millilitres is a volume, to a whole one.
func Millilitres(ml float64) Arg { return measured(KindMillilitres, ml, 0) }

// OvenHeat is what an oven is set to, in degrees Celsius, to a whole one.
func OvenHeat(c float64) Arg { return measured(KindOvenHeat, c, 0) }

// Celsius is a temperature as a thermometer tells it, to a whole degree.
func Celsius(c float64) Arg { return measured(KindCelsius, c, 0) }

// CelsiusDifference is a difference of temperatures in degrees Celsius, to a whole one.
func CelsiusDifference(c float64) Arg { return measured(KindCelsiusDifference, c, 0) }

// Number is a bare figure, to so many digits after the point.
func Number(x float64, digits int) Arg { return measured(KindNumber, x, digits) }

// Count is a number of things.
func Count(n int) Arg { return Arg{Kind: KindNumber, Value: float64(n)} }

// Exactly is a figure as it was given, to a thousandth.
func Exactly(kind Kind, x float64) Arg { return measured(kind, x, 3) }

// Part is a message within a message.
func Part(m Message) Arg { return Arg{Kind: KindMessage, Parts: []Message{m}} }

// Word is a word of the rules, as "golden" is, within a message.
func Word(s string) Arg { return Part(New(s)) }

// Name is what a row of the tables is called.
func Name[T ~string](name T) Arg { return Arg{Kind: KindName, Text: string(name)} }

// Text is what was written or given: it is shown as it is.
func Text(s string) Arg { return Arg{Kind: KindText, Text: s} }

// Range is from one value to another: "3 to 100 cm".
func Range(least, most Arg) Arg {
	return Arg{Kind: KindRange, Parts: []Message{Value(least), Value(most)}}
}

// And is messages joined by commas, with "and" before the last.
func And(all ...Message) Arg { return Arg{Kind: KindAnd, Parts: all} }

// Or is messages joined by commas, with "or" before the last.
func Or(all ...Message) Arg { return Arg{Kind: KindOr, Parts: all} }

// Value is a value by itself.
func Value(a Arg) Message { return New("{value}", a) }

// Sentences puts messages one after the other; empty ones are left out.
func Sentences(all ...Message) Message { return Join(" ", all...) }

// Join puts messages one after the other, with sep between them; empty ones are left out.
func Join(sep string, all ...Message) Message {
	all = slices.DeleteFunc(all, Message.IsZero)
	switch len(all) {
	case 0:
		return Message{}
	case 1:
		return all[0]
	}
	return New("{all}", Arg{Kind: KindSequence, Text: sep, Parts: all})
}

// Book is where the messages of one answer keep their arguments, so that an answer full of sentences takes a few
// allocations and not one a sentence. It belongs to one goroutine; its zero value can be used.
type Book struct {
	args  []Arg
	parts []Message
}

// NewBook is a book with room for so many arguments.
func NewBook(args int) *Book {
	return &Book{args: make([]Arg, 0, args), parts: make([]Message, 0, args/2)}
}

// New is a message of a format and its arguments.
func (b *Book) New(format string, args ...Arg) Message {
	at := len(b.args)
	b.args = append(b.args, args...)
	return Message{format, b.args[at:len(b.args):len(b.args)]}
}

// Part is a message within a message.
func (b *Book) Part(m Message) Arg {
	at := len(b.parts)
	b.parts = append(b.parts, m)
	return Arg{Kind: KindMessage, Parts: b.parts[at:len(b.parts):len(b.parts)]}
}

// Range is from one value to another: "3 to 100 cm".
func (b *Book) Range(least, most Arg) Arg {
	from, to := b.New("{value}", least), b.New("{value}", most)
	at := len(b.parts)
	b.parts = append(b.parts, from, to)
	return Arg{Kind: KindRange, Parts: b.parts[at:len(b.parts):len(b.parts)]}
}

// Join puts messages one after the other, with sep between them; empty ones are left out.
func (b *Book) Join(sep string, all ...Message) Message {
	at := len(b.parts)
	for _, m := range all {
		if !m.IsZero() {
			b.parts = append(b.parts, m)
		}
	}
	text := b.parts[at:len(b.parts):len(b.parts)]
	switch len(text) {
	case 0:
		return Message{}
	case 1:
		return text[0]
	}
	return b.New("{all}", Arg{Kind: KindSequence, Text: sep, Parts: text})
}

// Sentences puts messages one after the other; empty ones are left out.
func (b *Book) Sentences(all ...Message) Message { return b.Join(" ", all...) }
