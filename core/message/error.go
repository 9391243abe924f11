package message

import "errors"

// Error is an error whose words are for whoever caused it.
type Error struct {
	Message Message
	Kind    error // what errors.Is finds; nil: nothing
}

// Errorf is an error of a format and its arguments.
func Errorf(format string, args ...Arg) error { return Error{Message: New(format, args...)} }

// Error is the words in plain English.
func (e Error) Error() string { return e.Message.String() }

// Unwrap is the kind.
func (e Error) Unwrap() error { return e.Kind }

// Of is what an error says: of an Error its message, of any other its text as it is.
func Of(err error) Message {
	var e Error
	if errors.As(err, &e) {
		return e.Message
	}
	return Value(Text(err.Error()))
}
