package sell

import (
	"mabbin/core/fault"
	"mabbin/core/message"
)

// LabelPaper is what a kitchen prints its labels on, and what it says on each.
type LabelPaper struct {
	Across int `json:"across,omitempty"` // labels on a sheet; 0: two
	Down   int `json:"down,omitempty"`   // 0: as many as there is room for
	// Handled is the kitchen's own line on cross-contact; empty: that other allergens are handled there.
	Handled string `json:"handled,omitempty"`
	// Nutrition prints energy and nutrients too: an estimate from tables.
	Nutrition bool `json:"nutrition,omitempty"`
}

const longestHandled = 300

func (p LabelPaper) check(f *fault.Faults) {
	f.Range("/labels/across", float64(p.Across), 0, 6, "")
	f.Range("/labels/down", float64(p.Down), 0, 20, "")
	if len([]rune(p.Handled)) > longestHandled {
		f.Add("/labels/handled", message.New("is longer than {n} characters", message.Count(longestHandled)))
	}
}
