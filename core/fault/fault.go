// Package fault names what is wrong with an input: which field, and what would be right.
// It is the lowest floor of the core; every other package answers bad input with it.
package fault

import (
	"errors"
	"fmt"
	"math"
	"strings"
)

// Fault is one wrong field.
type Fault struct {
	// Pointer is the JSON pointer of the field (RFC 6901), as in "/dish/length_cm".
	Pointer string
	// Detail says what was given and what would be right.
	Detail string
}

// Faults is every wrong field of one input. The empty list is no error: use Err.
type Faults []Fault

// Error lists the faults, one after the other.
func (f Faults) Error() string {
	parts := make([]string, len(f))
	for i, x := range f {
		parts[i] = x.Pointer + ": " + x.Detail
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
func (f *Faults) Add(pointer, format string, args ...any) {
	*f = append(*f, Fault{Pointer: pointer, Detail: fmt.Sprintf(format, args...)})
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
		moved[i] = Fault{Pointer: at + x.Pointer, Detail: x.Detail}
	}
	return moved
}

// Range notes a number outside lo to hi, both allowed, and reports whether it was inside.
// NaN and infinities are outside every range.
func (f *Faults) Range(pointer string, v, lo, hi float64, unit string) bool {
	if v >= lo && v <= hi { // false for NaN
		return true
	}
	if math.IsNaN(v) || math.IsInf(v, 0) {
		f.Add(pointer, "is not a number: give %g to %g%s", lo, hi, spaced(unit))
		return false
	}
	f.Add(pointer, "is %g%s: give %g to %g%s", v, spaced(unit), lo, hi, spaced(unit))
	return false
}

// OneOf notes a word that is not in the list and reports whether it was.
func (f *Faults) OneOf(pointer, v string, words ...string) bool {
	for _, w := range words {
		if v == w {
			return true
		}
	}
	f.Add(pointer, "is %q: give one of %s", v, strings.Join(words, ", "))
	return false
}

// NotYet is an input that is well formed and that this version cannot calculate.
type NotYet struct {
	Pointer string
	Detail  string
}

// Error says what is not calculated yet, and where it was asked for.
func (n *NotYet) Error() string { return n.Pointer + ": " + n.Detail }

// AsNotYet finds a NotYet in err's chain.
func AsNotYet(err error) (*NotYet, bool) {
	var n *NotYet
	ok := errors.As(err, &n)
	return n, ok
}

func spaced(unit string) string {
	if unit == "" {
		return ""
	}
	return " " + unit
}
