package day

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
	"strings"

	"mabbin/core/bake"
	"mabbin/core/message"
)

// ReadyBy is the whole way back from the hour at which one dessert is wanted: when each thing is begun, by one pair of
// hands and in an oven of its own.
type ReadyBy struct {
	InTime bool `json:"in_time"`
	// ReadyAt is when it is ready by this way, and NotBefore the earliest that it could be.
	ReadyAt   int             `json:"ready_at_min"`
	NotBefore int             `json:"not_before_min"`
	StartAt   int             `json:"start_at_min"`
	InAt      int             `json:"in_at_min"` // into the oven
	SpareMin  int             `json:"spare_min"` // that it may take longer than its clock
	Steps     []Step          `json:"steps"`     // in the order in which they begin
	Remedy    message.Message `json:"remedy,omitzero"`
}

// StepsToOven are the steps up to the last time that it goes into an oven: from there on the oven has its own calls.
func (r *ReadyBy) StepsToOven() []Step {
	for i := len(r.Steps) - 1; i >= 0; i-- {
		if r.Steps[i].Kind == "bake" {
			return r.Steps[:i+1]
		}
	}
	return r.Steps
}

// Step is one thing on the way.
type Step struct {
	Kind        string          `json:"kind"`
	At          int             `json:"at_min"`
	Minutes     int             `json:"minutes"`
	NeedsPerson bool            `json:"needs_person"` // somebody has to be there for it
	Text        message.Message `json:"text"`
}

// How quickly ovens warm: a working figure for a domestic oven, C a min.
const (
	warmCPerMin = 9.0
	coolCPerMin = 3.0
	anyOvenCM   = 1000.0
	furthestMin = 3 * 1440 // that is looked ahead
)

// PlanReadyBy goes back from when a dessert is wanted. Due and now are whole minutes from the same midnight.
func PlanReadyBy(o Job, a *bake.DessertAnswer, now int) ReadyBy {
	b := BatchOf(o, a)
	due := or(b.Due, now)
	b.Due = nil
	spare := int(math.Ceil(2*UncertainMin(a) - 1e-9))
	if b.HoldMax != nil {
		spare = min(spare, *b.HoldMax)
	}
	s := alone(b, now, nil)
	out := ReadyBy{NotBefore: s.ready(0), InTime: s.ready(0) <= due, StartAt: math.MaxInt32, Steps: []Step{}}
	if out.InTime {
		by := max(due-spare, out.NotBefore)
		s = alone(b, now, &by)
	}
	out.ReadyAt = s.ready(0)
	out.SpareMin = max(0, due-out.ReadyAt)
	out.tell(s, a, o.Dessert.Request.Custard != nil)
	if !out.InTime {
		out.Remedy = wayOut(s, out.NotBefore-due)
	}
	return out
}

// alone plans a batch alone: as late as it is ready by a minute, or where there is none as early as it goes.
func alone(b Batch, now int, by *int) *schedule {
	end := now + furthestMin
	tier := Tier{ID: "tier", WidthCM: anyOvenCM, DepthCM: anyOvenCM}
	b.Tasks = slices.Clone(b.Tasks)
	for i := range b.Tasks {
		b.Tasks[i].Alternatives = slices.Clone(b.Tasks[i].Alternatives)
		for k := range b.Tasks[i].Alternatives {
			x := &b.Tasks[i].Alternatives[k]
			x.Shelf = ""
			x.Stages = slices.Clone(x.Stages)
			for n := range x.Stages { // whatever its heating: the oven is this one
				x.Stages[n].Heating = ""
			}
		}
	}
	p := compile(&Request{
		Now: now, End: &end, Batches: []Batch{b},
		People: []Person{{ID: "hands", Hours: []Span{{now, end}}}},
		Ovens:  []Oven{{ID: "oven", WarmCPerMin: warmCPerMin, CoolCPerMin: coolCPerMin, Tiers: []Tier{tier}}},
	})
	s := newSchedule(p)
	s.plain = true
	rng := rand.New(rand.NewPCG(0, 0)) // asked for nothing: the plan is plain
	i := p.batches[0].lastOven
	a := &p.tasks[i].bakes[0]
	try := func(start int) bool {
		if !s.suits(a, 0, start) {
			return false
		}
		s.placeLoad(i, candidate{slot: a.slots[0], start: start})
		if s.touchAll(i, &s.at[i], nil) && s.placeRest(0, rng) {
			return true
		}
		s.remove(0)
		return false
	}
	from := max(s.earliest(i), now+p.ovens[0].change(p.roomC, a.Stages[0].OvenC))
	if by != nil {
		for start := *by - p.batches[0].tail - a.minutes; start >= from; start-- {
			if try(start) {
				return s
			}
		}
	}
	for start := from; start+a.minutes+p.batches[0].tail <= end; start++ {
		if try(start) {
			break
		}
	}
	return s
}

// stepWords is what is said of each kind of task.
var stepWords = map[string]string{
	"unfreeze":    "Take the fruit out of the freezer",
	"fruit":       "Prepare the fruit",
	"precook":     "Cook the fruit, and let it cool",
	"macerate":    "Leave the fruit to stand with its sugar",
	"topping":     "Make and chill the topping",
	"crumbs":      "Make the crumbs",
	"warm":        "Cook the topping, and keep it warm",
	"biscuit":     "Make the biscuit dough",
	"pastry":      "Make and chill the pastry",
	"lid":         "Unroll and cut the bought pastry",
	"roll":        "Roll the pastry",
	"base":        "Make and chill the base",
	"line":        "Line and chill the dish",
	"assemble":    "Fill the dish",
	"cut":         "Cut it",
	"set":         "Put it into the fridge to set",
	"thaw":        "",
	"chill":       "",
	"cook":        "",
	"cool":        "",
	"rest":        "",
	"load":        "",
	"take_out":    "Take it out of the oven to rest",
	"turn":        "Turn the dish",
	"push_under":  "Push the crust into the juice",
	"add_topping": "Put the second topping on",
	"weights_out": "Take the weights out of the base",
}

// The touches that have their words by what they are done to: a cover, by its name before these, and the heat.
const (
	coverOn   = "_on"
	coverOff  = "_off"
	otherHeat = "other_heat"
)

// touchText is what is said of a touch of a bake; zero: nothing.
func (x *Alternative) touchText(touch *Touch) message.Message {
	if touch.Kind == otherHeat {
		return x.otherHeatText(touch.At)
	}
	if c, ok := strings.CutSuffix(touch.Kind, coverOn); ok {
		return bake.PutOn[c]
	}
	if c, ok := strings.CutSuffix(touch.Kind, coverOff); ok {
		return bake.TakeOff[c]
	}
	return message.New(stepWords[touch.Kind])
}

// otherHeatText is what is said where the stage that begins at a minute has another heat.
func (x *Alternative) otherHeatText(at int) message.Message {
	from, was := 0, 0.0
	for _, s := range x.Stages {
		if from == at {
			return bake.TurnTo(was, s.OvenC)
		}
		from, was = from+s.Minutes, s.OvenC
	}
	return message.Message{}
}

// tell writes down what is done when, and how it is said in a line.
func (r *ReadyBy) tell(s *schedule, a *bake.DessertAnswer, custard bool) {
	oven := &s.p.ovens[0]
	heat := func(at, minutes int, c float64, text message.Message) {
		warm := oven.change(s.p.roomC, c)
		r.Steps = append(r.Steps,
			Step{"heat", at - warm, warm, false, message.New("Heat the oven to {heat}", message.OvenHeat(c))},
			Step{"bake", at, minutes, true, text})
	}
	heated := false
	for i := range s.p.tasks {
		t, at := &s.p.tasks[i], &s.at[i]
		switch t.Uses {
		case "oven":
			x := &t.bakes[at.alt]
			text := message.New("Into the oven, {n} min", message.Count(at.end-at.start))
			switch t.Kind {
			case "parbake":
				text = message.New("Par-bake the base, {n} min", message.Count(at.end-at.start))
			case "rewarm":
				text = message.New("Reheat it under foil, {n} min", message.Count(at.end-at.start))
			}
			if heated {
				r.Steps = append(r.Steps, Step{"bake", at.start, at.end - at.start, true, text})
			} else {
				heat(at.start, at.end-at.start, x.Stages[0].OvenC, text)
				heated = true
			}
			for _, touch := range at.touches {
				planned := &x.Touches[touch.touch]
				if text := x.touchText(planned); !text.IsZero() {
					r.Steps = append(r.Steps, Step{planned.Kind, touch.start, planned.Minutes, true, text})
				}
			}
			if isBake(*t.Task) {
				r.InAt = at.start
				look := at.start + int(a.Plan.CheckFrom)
				r.Steps = append(r.Steps, Step{"look", look, 0, true, lookText(custard)})
			}
		default:
			if words := stepWords[t.Kind]; words != "" {
				r.Steps = append(r.Steps, Step{t.Kind, at.start, at.end - at.start, t.Uses == UsePerson, message.New(words)})
			}
		}
	}
	r.Steps = append(r.Steps, Step{"ready", r.ReadyAt, 0, false, message.New("Ready")})
	slices.SortStableFunc(r.Steps, func(a, b Step) int { return cmp.Compare(a.At, b.At) })
	for _, x := range r.Steps {
		r.StartAt = min(r.StartAt, x.At)
	}
}

// lookText is what a baker looks for: an egg custard sets below the boil.
func lookText(custard bool) message.Message {
	if custard {
		return message.New("Start checking: does the middle tremble, without ripples?")
	}
	return message.New("Start checking: is the middle bubbling?")
}

// wayOut is what would make it earlier: what may be made ahead, where that is enough, or another way to serve it.
func wayOut(s *schedule, late int) message.Message {
	for i := range s.p.tasks {
		if t := &s.p.tasks[i]; t.Ahead {
			least := t.Minutes
			for _, l := range t.then {
				if w := &s.p.tasks[l.task]; w.Uses == UseWait {
					least += w.Minutes
				}
			}
			if least >= late {
				return message.New("Make the topping or base the day before: saves up to {n} min", message.Count(least))
			}
		}
	}
	if b := &s.p.batches[0]; b.Serve == string(Cold) {
		return message.New("Serve it warm: no setting time")
	}
	return message.New("Choose a later time, or a shallower dish, which bakes faster")
}
