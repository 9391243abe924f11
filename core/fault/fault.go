// Package fault names what is wrong with an input: which field, and what would be right.
// It is the lowest floor of the core; every other package answers bad input with it.
package fault

import (
	"errors"
	"math"
	"strings"

	"mabbin/core/message"
)

// Fault is one wrong field.
type Fault struct {
	// Pointer is the JSON pointer of the field (RFC 6901), as in "/dish/length_cm".
	Pointer string
	// Detail says what was given and what would be right.
	Detail message.Message
	// Outside are the bounds that a number is outside of; nil where it is something else that is wrong.
	Outside *Bounds
	// OneOf are the words that a text is none of; nil where it is something else that is wrong.
	OneOf []string
}

// Faults is every wrong field of one input. The empty list is no error: use Err.
type Faults []Fault

// Error lists the faults, one after the other.
func (f Faults) Error() string {
	parts := make([]string, len(f))
	for i, x := range f {
		parts[i] = x.Pointer + ": " + x.Detail.String()
	}
	return strings.Join(parts, "; ")
}

// Err is the list as an error, nil when it is empty.
func (f Faults) Err() error {
	if len(f) == 0 {
		return nil
	}
	return f
}

// Add notes a wrong field.
func (f *Faults) Add(pointer string, detail message.Message) {
	*f = append(*f, Fault{Pointer: pointer, Detail: detail})
}

// Under notes the wrong fields of a part that lies at a pointer. An error that is no list of faults is not noted.
func (f *Faults) Under(at string, err error) {
	var of Faults
	if errors.As(Under(at, err), &of) {
		*f = append(*f, of...)
	}
}

// Under is an error of a part as one of the whole: the part's pointer stands before those of its faults.
func Under(at string, err error) error {
	if later, ok := AsNotYet(err); ok {
		return &NotYet{Pointer: at + later.Pointer, Detail: later.Detail}
	}
	var faults Faults
	if !errors.As(err, &faults) {
		return err
	}
	moved := make(Faults, len(faults))
	for i, x := range faults {
		x.Pointer = at + x.Pointer
		moved[i] = x
	}
	return moved
}

// Within is an error of a whole as one of its part that lies at a pointer: the part's pointer is cut off its faults.
func Within(at string, err error) error {
	var faults Faults
	if !errors.As(err, &faults) {
		return err
	}
	cut := make(Faults, len(faults))
	for i, x := range faults {
		x.Pointer = strings.TrimPrefix(x.Pointer, at)
		cut[i] = x
	}
	return cut
}

// Key is the name of a map's entry as a part of a JSON pointer (RFC 6901): "~" and "/" in it are escaped.
func Key(name string) string { return escaped.Replace(name) }

var escaped = strings.NewReplacer("~", "~0", "/", "~1")

// Range notes a number outside lo to hi, both allowed, and reports whether it was inside.
// NaN and infinities are outside every range.
func (f *Faults) Range(pointer string, v, lo, hi float64, unit string) bool {
	return f.RangeAt("", pointer, v, lo, hi, unit)
}

// RangeAt is Range for a field of a part that lies at a pointer: the two are put together only where there is a fault.
func (f *Faults) RangeAt(at, field string, v, lo, hi float64, unit string) bool {
	if v >= lo && v <= hi { // false for NaN
		return true
	}
	detail := message.New("is {given}: enter {range}", figure(v, unit), between(lo, hi, unit))
	if math.IsNaN(v) || math.IsInf(v, 0) {
		detail = message.New("is not a number: enter {range}", between(lo, hi, unit))
	}
	*f = append(*f, Fault{Pointer: at + field, Detail: detail, Outside: &Bounds{lo, hi, unit}})
	return false
}

// OneOf notes a word that is not in the list and reports whether it was.
func (f *Faults) OneOf(pointer, v string, words ...string) bool {
	return f.OneOfAt("", pointer, v, words...)
}

// OneOfAt is OneOf for a field of a part that lies at a pointer.
func (f *Faults) OneOfAt(at, field, v string, words ...string) bool {
	for _, w := range words {
		if v == w {
			return true
		}
	}
	*f = append(*f, Fault{Pointer: at + field, Detail: NotOneOf(v, words...), OneOf: words})
	return false
}

// Among notes a value of a field of a part that is none of its choices, and reports whether it was.
func (f *Faults) Among(at, field, v string, of message.Choices) bool {
	return of.Has(v) || f.OneOfAt(at, field, v, of.Values()...)
}

// AmongOrNone is Among for a field that may be left out.
func (f *Faults) AmongOrNone(at, field, v string, of message.Choices) bool {
	return v == "" || f.Among(at, field, v, of)
}

// NotOneOf is a word that is not in a list.
func NotOneOf(given string, words ...string) message.Message {
	return message.New("is \"{given}\": use one of {words}", message.Text(given), message.Text(strings.Join(words, ", ")))
}

// NoSuch is a key that is not in the larder.
func NoSuch(kind message.Message, key string) message.Message {
	return message.New("there is no {kind} \"{key}\": see the larder for all keys", message.Part(kind), message.Text(key))
}

// NotYet is an input that is well formed and that this version cannot calculate.
type NotYet struct {
	Pointer string
	Detail  message.Message
}

// Error says what is not calculated yet, and where it was asked for.
func (n *NotYet) Error() string { return n.Pointer + ": " + n.Detail.String() }

// AsNotYet finds a NotYet in err's chain.
func AsNotYet(err error) (*NotYet, bool) {
	var n *NotYet
	ok := errors.As(err, &n)
	return n, ok
}

// figure is a number with its unit, as exactly as it was given.
func figure(x float64, unit string) message.Arg {
	if kind, ok := kinds[unit]; ok {
		return message.Exactly(kind, x)
	}
	return message.Part(message.New("{n} {unit}", message.Exactly(message.KindNumber, x), message.Word(unit)))
}

// between is a range with its unit.
func between(lo, hi float64, unit string) message.Arg {
	if kind, ok := kinds[unit]; ok {
		return message.Range(message.Exactly(kind, lo), message.Exactly(kind, hi))
	}
	span := message.Range(message.Exactly(message.KindNumber, lo), message.Exactly(message.KindNumber, hi))
	return message.Part(message.New("{range} {unit}", span, message.Word(unit)))
}

// kinds are the units that a kitchen may read in its own.
var kinds = map[string]message.Kind{
	"": message.KindNumber, "g": message.KindGrams, "mm": message.KindMillimetres, "cm": message.KindCentimetres,
	"ml": message.KindMillilitres, "C": message.KindCelsius,
}
