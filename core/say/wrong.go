package say

import "errors"

// Wrong is an error whose words are for whoever caused it.
type Wrong struct {
	Says Line
	Kind error // what errors.Is finds; nil: nothing
}

// Error is the words in plain English.
func (w Wrong) Error() string { return w.Says.String() }

// Unwrap is the kind.
func (w Wrong) Unwrap() error { return w.Kind }

// Why is what an error says: of a Wrong its line, of any other its text as it is.
func Why(err error) Line {
	var w Wrong
	if errors.As(err, &w) {
		return w.Says
	}
	return Only(Text(err.Error()))
}
