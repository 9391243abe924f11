package learn

import (
	"fmt"
	"slices"
	"time"

	"mabbin/core/fault"
	"mabbin/core/message"
)

// Preferences is what a kitchen says of what its log teaches.
type Preferences struct {
	Off     []ParameterName `json:"off"`      // corrections that are not used
	LeftOut []string        `json:"left_out"` // bakes that teach nothing, by their keys
	Changed []ChangedOven   `json:"changed"`
}

// ChangedOven is a day from which on an oven is another one: what was baked in it before teaches nothing of it.
type ChangedOven struct {
	Oven  string    `json:"oven"`
	Since time.Time `json:"since"`
}

// mostNamed is the most that a kitchen may say of each thing.
const mostNamed = 1000

// CheckPreferences finds every wrong field.
func CheckPreferences(s Preferences) error {
	var f fault.Faults
	for _, x := range []struct {
		at string
		n  int
	}{{"/off", len(s.Off)}, {"/left_out", len(s.LeftOut)}, {"/changed", len(s.Changed)}} {
		f.Length("", x.at, x.n, 0, mostNamed)
	}
	for i, n := range s.Off {
		f.Among(fmt.Sprintf("/off/%d", i), "/what", string(n.Kind), parameterKinds)
	}
	for i, c := range s.Changed {
		if y := c.Since.Year(); y < 1970 || y > 2200 {
			f.Add(fmt.Sprintf("/changed/%d/since", i), message.New("is not the time of a bake: enter when the oven was changed"))
		}
	}
	return f.Err()
}

// IsOff says whether a correction is not used.
func (s Preferences) IsOff(what ParameterKind, key string) bool {
	return slices.Contains(s.Off, ParameterName{what, key})
}

// OvenKey is an oven's key in a log at a time: another one before it was changed.
func (s Preferences) OvenKey(oven string, at time.Time) string {
	key, next := oven, time.Time{}
	for _, c := range s.Changed {
		if c.Oven == oven && at.Before(c.Since) && (next.IsZero() || c.Since.Before(next)) {
			key, next = oven+"@"+c.Since.UTC().Format(time.DateOnly), c.Since
		}
	}
	return key
}
