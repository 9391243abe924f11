// Package oven is what a kitchen knows of its ovens: how far off they are and how that is measured, and the coals of a
// camp oven.
package oven

import (
	"fmt"
	"math"

	"mabbin/core/fault"
	"mabbin/core/message"
)

// Kind is what sort of oven it is.
type Kind string

// The kinds.
const (
	Indoor Kind = "oven"
	Camp   Kind = "camp" // a lidded iron pot with coals below and on the lid
)

var kinds = message.Words(Indoor, Camp)

// Oven is one of a kitchen's ovens.
type Oven struct {
	Kind        Kind    `json:"kind"`
	Heating     string  `json:"heating"`               // conventional or fan
	OffsetC     float64 `json:"offset_c"`              // how much hotter it is than it says
	GiveOrTakeC float64 `json:"give_or_take_c"`        // how sure that is
	Dial        string  `json:"dial,omitempty"`        // c, f or gas; left out: as the kitchen reads
	Runners     int     `json:"runners,omitempty"`     // for shelves, from below; 0: unknown
	BottomHeat  bool    `json:"bottom_heat,omitempty"` // it can heat from below alone
	DiameterCM  float64 `json:"diameter_cm,omitempty"` // of a camp oven
}

// UnknownC is how far an oven may be off that nobody has measured, CoalsC what a plan over coals is good to. Working
// figures.
const (
	UnknownC = 10.0
	CoalsC   = 20.0
)

// Check notes every wrong field.
func (o Oven) Check(at string, f *fault.Faults) {
	f.Among(at, "/kind", string(o.Kind), kinds)
	f.Among(at, "/heating", o.Heating, Heatings)
	f.In(at, "/offset_c", o.OffsetC, OffsetBounds)
	f.In(at, "/give_or_take_c", o.GiveOrTakeC, GiveOrTakeBounds)
	f.AmongOrNone(at, "/dial", o.Dial, Dials)
	f.RangeAt(at, "/runners", float64(o.Runners), 0, 12, "")
	if o.Kind == Camp {
		f.In(at, "/diameter_cm", o.DiameterCM, DiameterBounds)
	}
}

// Reading is what a thermometer in the middle of the oven says while the oven says something else, C.
type Reading struct {
	SetC  float64 `json:"set_c"`
	ReadC float64 `json:"read_c"`
}

// Melt is what a spoon of white sugar does on foil in the middle of the oven, a quarter of an hour at each setting, C.
type Melt struct {
	NotAtC float64 `json:"not_at_c"` // the last setting at which it stayed dry
	AtC    float64 `json:"at_c"`     // the first at which it melted
}

// Trial is how an oven was tried: by a thermometer, by sugar, or by both.
type Trial struct {
	Readings []Reading `json:"readings,omitempty"`
	Melt     *Melt     `json:"melt,omitempty"`
}

// Measured is how far off an oven is, and how sure that is.
type Measured struct {
	OffsetC     float64         `json:"offset_c"`
	GiveOrTakeC float64         `json:"give_or_take_c"`
	Text        message.Message `json:"text"`
}

// sugarMeltsC is where white sugar melts (handbook); sugarSureC is how closely the eye sees it, and probeSureC how
// true an oven thermometer is (working figures).
const (
	sugarMeltsC = 186.0
	sugarSureC  = 3.0
	probeSureC  = 3.0
)

// Measure works out how far off an oven is. What was seen in several ways is weighed by how sure each is. A bad trial
// is fault.Faults.
func Measure(t Trial) (Measured, error) {
	var f fault.Faults
	if len(t.Readings) == 0 && t.Melt == nil {
		f.Add("/readings", message.New("are missing: enter thermometer readings or the sugar test"))
	}
	f.Length("", "/readings", len(t.Readings), 0, 20)
	lo, hi, sum := math.Inf(1), math.Inf(-1), 0.0
	for i, r := range t.Readings {
		at := fmt.Sprintf("/readings/%d", i)
		f.RangeAt(at, "/set_c", r.SetC, 80, 300, "C")
		f.RangeAt(at, "/read_c", r.ReadC, 20, 400, "C")
		off := r.ReadC - r.SetC
		lo, hi, sum = min(lo, off), max(hi, off), sum+off
	}
	if m := t.Melt; m != nil && f.Range("/melt/not_at_c", m.NotAtC, 120, 260, "C") &&
		f.Range("/melt/at_c", m.AtC, 120, 260, "C") &&
		m.AtC <= m.NotAtC {
		f.Add(
			"/melt/at_c",
			message.New(
				"is {melts}, but sugar stayed dry at {dry}: enter a setting above that",
				message.OvenHeat(m.AtC),
				message.OvenHeat(m.NotAtC),
			),
		)
	}
	if err := f.Err(); err != nil {
		return Measured{}, err
	}
	off, weight := 0.0, 0.0
	add := func(x, sure float64) {
		off += x / (sure * sure)
		weight += 1 / (sure * sure)
	}
	if n := len(t.Readings); n > 0 {
		add(sum/float64(n), max(probeSureC, (hi-lo)/2))
	}
	if m := t.Melt; m != nil {
		add(sugarMeltsC-(m.NotAtC+m.AtC)/2, (m.AtC-m.NotAtC)/2+sugarSureC)
	}
	out := Measured{OffsetC: math.Round(off / weight), GiveOrTakeC: math.Ceil(math.Sqrt(1 / weight))}
	switch {
	case math.Abs(out.OffsetC) <= out.GiveOrTakeC:
		out.Text = message.New("Within the accuracy of this test, the oven matches its dial.")
	case out.OffsetC > 0:
		out.Text = message.New("The oven is {degrees} hotter than its dial.", message.CelsiusDifference(out.OffsetC))
	default:
		out.Text = message.New("The oven is {degrees} cooler than its dial.", message.CelsiusDifference(-out.OffsetC))
	}
	if hi-lo > 4*probeSureC {
		out.Text = message.Sentences(
			out.Text,
			message.New(
				"The readings are {degrees} apart: the oven swings, so take readings over 15 minutes.",
				message.CelsiusDifference(hi-lo),
			),
		)
	}
	return out, nil
}

// OffBy is how far off an oven may be, either way, in addition to what is known of it.
func (o Oven) OffBy() float64 {
	switch {
	case o.Kind == Camp:
		return max(CoalsC, o.GiveOrTakeC)
	case o.GiveOrTakeC > 0:
		return o.GiveOrTakeC
	}
	return UnknownC
}

// Runners are which runner of an oven, from below, is the low, the middle and the high shelf.
type Runners struct {
	Low    int `json:"low"`
	Middle int `json:"middle"`
	High   int `json:"high"`
}

// ShelfRunners says which of an oven's runners are its shelves; false where it is not known how many there are.
func (o Oven) ShelfRunners() (Runners, bool) {
	n := o.Runners
	if n < 1 {
		return Runners{}, false
	}
	middle := (n + 1) / 2
	return Runners{Low: max(1, (n+2)/4), Middle: middle, High: min(n, max(middle+1, n-1))}, true
}

// Fit is how many dishes of a size outside stand side by side on a tier of an oven.
func Fit(widthCM, depthCM, length, width float64) int {
	across := func(l, w float64) int { return int(math.Floor(widthCM/w)) * int(math.Floor(depthCM/l)) }
	return max(across(length, width), across(width, length))
}
