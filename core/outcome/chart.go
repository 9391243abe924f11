package outcome

import (
	"slices"

	"mabbin/core/bake"
	"mabbin/core/message"
)

// Point is one bake among many: how far it was from what was predicted. Nil is not reported.
type Point struct {
	PlannedMin  *float64 `json:"planned_min,omitempty"` // in the oven
	HappenedMin *float64 `json:"happened_min,omitempty"`
	// SetSteps is how many words stiffer it stood than it was meant to (below 0: looser), ColourSteps how many words
	// darker than golden (below 0: paler).
	SetSteps    *int            `json:"set_steps,omitempty"`
	ColourSteps *int            `json:"colour_steps,omitempty"`
	Text        message.Message `json:"text"` // all of it in a line
}

var (
	juiceScale  = []string{"runny", "saucy", "spoonable", "mounds", "slices", "stodgy"}
	colourScale = []string{"pale", "golden", "dark", "burnt"}
)

// PointOf is where a bake stands; band is how it was meant to stand when cold, and happened nil where it was not
// watched.
func PointOf(band string, w bake.Words, happened *ActualBake) Point {
	p := Point{
		SetSteps:    steps(juiceScale, w.Juice, band),
		ColourSteps: steps(colourScale, w.Top, "golden"),
	}
	var text []message.Message
	if happened != nil && happened.Minutes > 0 && happened.PlannedMin > 0 {
		p.PlannedMin, p.HappenedMin = &happened.PlannedMin, &happened.Minutes
		text = append(text, message.New("planned {planned} min, actual {actual} min",
			message.Number(happened.PlannedMin, 0), message.Number(happened.Minutes, 0)))
	}
	if p.SetSteps != nil {
		text = append(text, message.New("juice {was}, planned {band}", message.Word(w.Juice), message.Word(band)))
	}
	if p.ColourSteps != nil {
		text = append(text, message.New("top {was}", message.Word(w.Top)))
	}
	p.Text = message.Join("; ", text...)
	return p
}

func steps(scale []string, was, meant string) *int {
	a, b := slices.Index(scale, was), slices.Index(scale, meant)
	if a < 0 || b < 0 {
		return nil
	}
	d := a - b
	return &d
}
