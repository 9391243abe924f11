package learn

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"mabbin/core/bake"
	"mabbin/core/fault"
	"mabbin/core/filling"
	"mabbin/core/message"
	"mabbin/core/outcome"
)

// LogRequest is a kitchen's log, with what is planned in addition to it.
type LogRequest struct {
	Bakes []LoggedBake    `json:"bakes"`
	Off   []ParameterName `json:"off,omitempty"` // corrections that are switched off by hand
	Now   time.Time       `json:"now,omitzero"`  // left out: the time of the latest bake
}

// LoggedBake is one bake: what was in the dish and how it was baked. One of which nothing is reported is a plan: it is
// predicted, and teaches nothing.
type LoggedBake struct {
	ID       string              `json:"id"`
	At       time.Time           `json:"at"`
	Oven     string              `json:"oven,omitempty"`
	Request  bake.DessertRequest `json:"request"` // weights as weighed, stages as they happened
	Lots     map[string]string   `json:"lots,omitempty"`
	Reported ReportedWords       `json:"told,omitzero"`
	// Happened are the readings of a probe in the middle.
	Happened *Probed `json:"happened,omitempty"`
	LeftOut  bool    `json:"left_out,omitempty"` // by hand: nothing is learnt from it, but it is still predicted
	// WholeDish says that the scale saw all that left the dish, and not the filling's steam alone: what dries off
	// topping and base and what leaves below boiling is taken off.
	WholeDish bool `json:"whole_dish,omitempty"`
}

// ReportedWords is all that was reported of a bake, in one.
type ReportedWords struct {
	bake.Words
	JuiceHot  string   `json:"juice_hot,omitempty"`
	Cooled    *bool    `json:"cooled,omitempty"` // before the juice was judged
	RimMin    *float64 `json:"rim_min,omitempty"`
	MiddleMin *float64 `json:"middle_min,omitempty"`
	BeforeG   *float64 `json:"before_g,omitempty"`
	AfterG    *float64 `json:"after_g,omitempty"`
	// The others teach nothing.
	Sweetness string `json:"sweetness,omitempty"`
	Again     *bool  `json:"again,omitempty"`
	Note      string `json:"note,omitempty"`
	MadeBy    string `json:"made_by,omitempty"`
}

// ReportedBy is what was reported of a bake in the log.
func ReportedBy(w bake.Words, t outcome.Details) ReportedWords {
	w.Base = t.Base
	return ReportedWords{
		Words: w, JuiceHot: t.JuiceHot, Cooled: t.Cooled, RimMin: t.RimMin, MiddleMin: t.MiddleMin,
		BeforeG: t.BeforeG, AfterG: t.AfterG,
	}
}

// BakedAtLeast are stages that were planned and not watched, where something was seen to happen after their end: it
// was still in the oven then, and the last of them in the oven went on.
func (t ReportedWords) BakedAtLeast(planned []bake.Stage) []bake.Stage {
	end, last := 0.0, -1
	for i, s := range planned {
		if s.InOven() {
			end, last = end+s.Minutes, i
		}
	}
	seen := end
	for _, m := range []*float64{t.RimMin, t.MiddleMin} {
		if m != nil {
			seen = max(seen, *m)
		}
	}
	if last < 0 || seen == end {
		return planned
	}
	out := slices.Clone(planned)
	out[last].Minutes += seen - end
	return out
}

// Probed is what a probe read.
type Probed struct {
	Readings []bake.Point `json:"readings"`
}

// mostBakes is the longest log that is estimated at once: what is older is a window of its own.
const mostBakes = 1000

const mostReadings = 5000

// CheckLog finds every wrong field.
func CheckLog(q LogRequest) error {
	var f fault.Faults
	if !f.Length("", "/bakes", len(q.Bakes), 0, mostBakes) {
		return f.Err()
	}
	seen := map[string]bool{}
	for i, b := range q.Bakes {
		b.check(fmt.Sprintf("/bakes/%d", i), seen, &f)
	}
	for i, n := range q.Off {
		f.Among(fmt.Sprintf("/off/%d", i), "/what", string(n.Kind), parameterKinds)
	}
	return f.Err()
}

func (b LoggedBake) check(at string, seen map[string]bool, f *fault.Faults) {
	switch {
	case b.ID == "" || len(b.ID) > 80:
		f.Add(at+"/id", message.New("its key has {n} characters: use 1 to 80", message.Count(len(b.ID))))
	case seen[b.ID]:
		f.Add(at+"/id", message.New("is there twice: each bake needs a different key"))
	}
	seen[b.ID] = true
	if b.At.IsZero() {
		f.Add(at+"/at", message.New("is missing: enter when it was baked"))
	}
	if strings.Contains(b.Oven, "|") {
		f.Add(at+"/oven", message.New("has a \"|\" in its name: remove it"))
	}
	f.Under(at+"/request", bake.CheckDessert(b.Request))
	if len(b.Request.Setting.Stages) == 0 {
		f.Add(at+"/request/setting/stages", message.New("is missing: enter the stages as baked"))
	}
	f.AmongOrNone(at, "/told/juice", b.Reported.Juice, filling.Bands)
	f.AmongOrNone(at, "/told/fruit", b.Reported.Fruit, outcome.Fruits)
	f.AmongOrNone(at, "/told/top", b.Reported.Top, outcome.Tops)
	t := outcome.Details{
		JuiceHot: b.Reported.JuiceHot, Base: b.Reported.Base, Sweetness: b.Reported.Sweetness, RimMin: b.Reported.RimMin,
		MiddleMin: b.Reported.MiddleMin, BeforeG: b.Reported.BeforeG, AfterG: b.Reported.AfterG, Lots: b.Lots,
	}
	t.Check(at+"/told", f)
	if b.Happened == nil {
		return
	}
	if !f.Length(at, "/happened/readings", len(b.Happened.Readings), 0, mostReadings) {
		return
	}
	for i, p := range b.Happened.Readings {
		under := fmt.Sprintf("%s/happened/readings/%d", at, i)
		f.RangeAt(under, "/minute", p.Minute, 0, 48*60, "min")
		f.RangeAt(under, "/c", p.C, -40, 350, "C")
	}
}
