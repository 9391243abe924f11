package app

import (
	"time"

	"mabbin/core/fault"
	"mabbin/core/message"
)

// The years that a moment of a kitchen may be of: what lies outside stops lists and clocks.
const (
	firstYear = 1970
	lastYear  = 2200
)

// CheckMoment notes a moment that no clock of a kitchen has reported.
func CheckMoment(at string, t time.Time, f *fault.Faults) {
	if y := t.Year(); y < firstYear || y > lastYear {
		f.Add(at, message.New("is not a time between {from} and {to}: use the form of {example}",
			message.Count(firstYear), message.Count(lastYear), message.Text("2026-10-01T12:00:00Z")))
	}
}
