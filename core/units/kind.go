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

// KindUnit is what a bare number of a kind is in.
type KindUnit string

// The units of the kinds.
const (
	Gram          KindUnit = "g"
	Centimetre    KindUnit = "cm"
	Millilitre    KindUnit = "ml"
	CelsiusDegree KindUnit = "C"
	Minute        KindUnit = "min"
	PerCent       KindUnit = "%"
)

var kinds = map[Kind]struct {
	unit    KindUnit
	example message.Message
}{
	Mass:        {Gram, message.New("400 g or 1 1/2 cups")},
	Length:      {Centimetre, message.New("23 cm or 9 in")},
	Volume:      {Millilitre, message.New("2100 ml or 2 qt")},
	Temperature: {CelsiusDegree, message.New("180 C, 350 F or gas 4")},
	Minutes:     {Minute, message.New("45 or 1 h 10 min")},
	Percent:     {PerCent, message.New("60")},
}

// Unit is the kind's own unit; false where it is no kind.
func (k Kind) Unit() (KindUnit, bool) {
	x, ok := kinds[k]
	return x.unit, ok
}

// Example is an amount of the kind as somebody would write it.
func (k Kind) Example() message.Message { return kinds[k].example }
