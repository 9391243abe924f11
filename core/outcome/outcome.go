// Package outcome is what came of a bake: what was reported of it afterwards, and what happened in it, in addition to
// what was planned. What a kitchen learns, it learns from this.
package outcome

import (
	"math"
	"time"

	"mabbin/core/bake"
	"mabbin/core/fault"
	"mabbin/core/filling"
	"mabbin/core/message"
)

// What a baker may say of a dessert that came out.
var (
	Fruits      = message.Words(bake.FruitWords...)
	Tops        = message.Words(bake.TopWords...)
	Bases       = message.Words(bake.BaseWords...)
	Sweetnesses = message.Words("sharp", "right", "sweet")
)

// Details is what is asked in addition to the first questions; all of it may be left out.
type Details struct {
	JuiceHot  string   `json:"juice_hot,omitempty"`
	Cooled    *bool    `json:"cooled,omitempty"`    // before the juice was judged
	Base      string   `json:"base,omitempty"`      // raw, soft, crisp or burnt
	Sweetness string   `json:"sweetness,omitempty"` // sharp, right or sweet
	RimMin    *float64 `json:"rim_min,omitempty"`   // when the rim bubbled
	MiddleMin *float64 `json:"middle_min,omitempty"`
	BeforeG   *float64 `json:"before_g,omitempty"` // with its dish
	AfterG    *float64 `json:"after_g,omitempty"`
	Again     *bool    `json:"again,omitempty"` // would be made again so
	MadeBy    string   `json:"made_by,omitempty"`
	// Lots are those of ingredients, by their keys: what is on the packet, or season and supplier.
	Lots map[string]string `json:"lots,omitempty"`
}

// What may be reported of who made it and of what.
const (
	longestWho, longestLot, mostLots = 80, 80, 60
)

// Check notes every wrong field.
func (t Details) Check(at string, f *fault.Faults) {
	if len([]rune(t.MadeBy)) > longestWho {
		f.Add(at+"/made_by", message.New("is longer than {n} characters", message.Count(longestWho)))
	}
	f.Length(at, "/lots", len(t.Lots), 0, mostLots)
	for key, lot := range t.Lots {
		if len([]rune(lot)) > longestLot {
			f.Add(at+"/lots/"+fault.Key(key), message.New("is longer than {n} characters", message.Count(longestLot)))
		}
	}
	f.AmongOrNone(at, "/juice_hot", t.JuiceHot, filling.Bands)
	f.AmongOrNone(at, "/base", t.Base, Bases)
	f.AmongOrNone(at, "/sweetness", t.Sweetness, Sweetnesses)
	for _, x := range []struct {
		field string
		v     *float64
		hi    float64
		unit  string
	}{{"rim_min", t.RimMin, 720, "min"}, {"middle_min", t.MiddleMin, 720, "min"}, {
		"before_g", t.BeforeG, 60000,
		"g",
	}, {"after_g", t.AfterG, 60000, "g"}} {
		if x.v != nil {
			f.Range(at+"/"+x.field, *x.v, 0, x.hi, x.unit)
		}
	}
	if t.BeforeG != nil && t.AfterG != nil && *t.AfterG > *t.BeforeG {
		f.Add(
			at+"/after_g",
			message.New(
				"is {after}, more than the {before} before baking: check both weights",
				message.Grams(*t.AfterG),
				message.Grams(*t.BeforeG),
			),
		)
	}
}

// LostG is what steamed off by the scale; false where it was not weighed twice.
func (t Details) LostG() (float64, bool) {
	if t.BeforeG == nil || t.AfterG == nil {
		return 0, false
	}
	return *t.BeforeG - *t.AfterG, true
}

// ActualBake is a bake as it went, on the oven watch.
type ActualBake struct {
	Minutes    float64      `json:"minutes"` // in the oven
	PlannedMin float64      `json:"planned_min"`
	Stages     []bake.Stage `json:"stages"` // as they were in the end
	Calls      []Answered   `json:"calls"`
	Readings   []bake.Point `json:"readings"` // of a probe in the middle
	Events     bake.Events  `json:"events"`   // as predicted when it went in
	End        bake.End     `json:"end"`
	Minute     []float64    `json:"minute"` // and the middle's curve
	MiddleC    []float64    `json:"middle_c"`
	Weighed    []Weighed    `json:"weighed,omitempty"` // by the scale
}

// Weighed is one line of a ticket as it was weighed.
type Weighed struct {
	Bowl     string  `json:"bowl"`
	Key      string  `json:"key"`
	Name     string  `json:"name"`
	PlannedG float64 `json:"planned_g"`
	G        float64 `json:"g"`
}

// Answered is a call with what became of it.
type Answered struct {
	Kind  string          `json:"kind"`
	Text  message.Message `json:"text"`
	Due   float64         `json:"due_min"`
	At    *float64        `json:"at_min,omitempty"` // left out: it was not answered
	State string          `json:"state"`
}

// Off is how far, in kelvins, the middle was from what was predicted, on average over the probe's readings; false
// without any.
func (h ActualBake) Off() (float64, bool) {
	if len(h.Readings) == 0 || len(h.Minute) == 0 {
		return 0, false
	}
	c := bake.Curves{Minute: h.Minute, MiddleC: h.MiddleC}
	sum := 0.0
	for _, p := range h.Readings {
		sum += p.C - c.MiddleAt(p.Minute)
	}
	return math.Round(10*sum/float64(len(h.Readings))) / 10, true
}

// Line is a bake in one line of a table; nil is not reported.
type Line struct {
	Title             string
	BakedAt           time.Time
	Version           *int
	Batch             string
	Oven, Predicted   string
	OvenC, Minutes    *float64
	Juice, Fruit, Top *string
	BoiledOver        *bool
	Details           Details
	Note              string
}
