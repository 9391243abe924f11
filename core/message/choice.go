package message

// Choice is one of the values that a field may have, and how it is reported.
type Choice struct {
	Value string  `json:"value"`
	Label Message `json:"label"`
	Usual bool    `json:"usual,omitempty"` // what is taken where nothing was chosen
}

// Choices are all values of a field, in the order in which they are offered. The contract's enumerations are written
// from them (api/rules), and the page offers them.
type Choices []Choice

// Choose is a choice reported by a few words.
func Choose[T ~string](value T, text string) Choice {
	return Choice{Value: string(value), Label: New(text)}
}

// Usually is the choices with the one that is taken where nothing was chosen.
func (c Choices) Usually(value string) Choices {
	for i := range c {
		c[i].Usual = c[i].Value == value
	}
	return c
}

// Words are choices that are reported by their own values.
func Words[T ~string](values ...T) Choices {
	out := make(Choices, len(values))
	for i, v := range values {
		out[i] = Choose(v, string(v))
	}
	return out
}

// Has says whether a value is among them.
func (c Choices) Has(value string) bool {
	for i := range c {
		if c[i].Value == value {
			return true
		}
	}
	return false
}

// Label is how a value is reported; empty for one that is none of them.
func (c Choices) Label(value string) Message {
	for i := range c {
		if c[i].Value == value {
			return c[i].Label
		}
	}
	return Message{}
}

// Values are the values alone.
func (c Choices) Values() []string {
	out := make([]string, len(c))
	for i := range c {
		out[i] = c[i].Value
	}
	return out
}
