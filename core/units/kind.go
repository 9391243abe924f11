package units

import "mabbin/core/message"

// Kind is what an amount measures, and so what a field asks for.
type Kind string

// The kinds, each with the unit that a bare number is taken to be in and that the answer comes in.
const (
	Mass        Kind = "mass"        // g
	Length      Kind = "length"      // cm
	Volume      Kind = "volume"      // ml
	Temperature Kind = "temperature" // C
	Minutes     Kind = "minutes"
	Percent     Kind = "percent"
)

var kinds = map[Kind]struct {
	unit    string
	example message.Message
}{
	Mass:        {"g", message.New("400 g or 1 1/2 cups")},
	Length:      {"cm", message.New("23 cm or 9 in")},
	Volume:      {"ml", message.New("2100 ml or 2 qt")},
	Temperature: {"C", message.New("180 C, 350 F or gas 4")},
	Minutes:     {"min", message.New("45 or 1 h 10 min")},
	Percent:     {"%", message.New("60")},
}

// Unit is the kind's own unit; false where it is no kind.
func (k Kind) Unit() (string, bool) {
	x, ok := kinds[k]
	return x.unit, ok
}

// Example is an amount of the kind as somebody would write it.
func (k Kind) Example() message.Message { return kinds[k].example }
