package learn

import (
	"math"
	"slices"
	"strings"

	"mabbin/core/larder"
	"mabbin/core/message"
)

// State is what becomes of a correction.
type State string

// The states.
const (
	StateUsed   State = "used"
	StateOff    State = "off"    // by hand: as the tables have it
	StateAgrees State = "agrees" // it predicts unseen bakes no better than the tables
	StateFew    State = "few"    // too few bakes to tell
)

// Finding is one thing that a log teaches, as a kitchen reads it.
type Finding struct {
	ParameterName
	State State           `json:"state"`
	Of    message.Message `json:"of"`
	Text  message.Message `json:"text"`
	Bakes int             `json:"bakes"`
}

// WithEnabled returns a lesson as it is shown after it was switched off or on by hand, until the log is learnt from
// again.
func (l Finding) WithEnabled(off bool) Finding {
	switch {
	case off && l.State == StateUsed:
		l.State = StateOff
	case !off && l.State == StateOff:
		l.State = StateUsed
	}
	return l
}

// Findings are the corrections in sentences, those that are used first; what no bake bears on is not among them. Ovens
// are what the kitchen calls them, by their keys; one that is not there is left out, and one without a name is the
// oven.
func (l *Result) Findings(ovens map[string]string, own *larder.Own) []Finding {
	out := []Finding{}
	for _, c := range l.Corrections {
		if c.Bakes == 0 || c.Kind == HeatFactor {
			continue
		}
		if _, known := ovens[c.Key]; c.Kind == OvenOffset && !known { // as it was before it was changed
			continue
		}
		x := Finding{ParameterName: c.ParameterName, Bakes: c.Bakes, Of: c.of(ovens, own), State: c.state()}
		switch x.State {
		case StateFew:
			x.Text = message.New("{n} {bakes}: too few for a result.", message.Count(c.Bakes), bakesWord(c.Bakes))
		case StateAgrees:
			x.Text = message.New("{n} bakes, in agreement with the tables.", message.Count(c.Bakes))
		default:
			x.Text = message.New("{Of} {is}, from {n} bakes; {error}.",
				message.Part(x.Of), message.Part(c.is()), message.Count(c.Bakes), message.Part(c.errors()))
		}
		out = append(out, x)
	}
	slices.SortStableFunc(out, func(a, b Finding) int { return a.State.order() - b.State.order() })
	return out
}

// of is what it is learnt of.
func (c *Correction) of(ovens map[string]string, own *larder.Own) message.Message {
	name := func(text string) message.Arg { return message.Name(larder.Name(text)) }
	switch c.Kind {
	case OvenOffset:
		if ovens[c.Key] == "" {
			return message.New("the oven")
		}
		return message.Value(message.Text(ovens[c.Key]))
	case Thickener:
		t, _ := own.Thickener(c.Key)
		return message.Value(name(t.Name))
	case Colour:
		t, _ := own.Topping(c.Key)
		return message.Value(name(t.Name))
	case Steam:
		return message.New("the steam")
	}
	if c.Key == larder.AllFruit {
		return message.New("all fruit")
	}
	key, lot, isLot := strings.Cut(c.Key, "|")
	f, _ := own.Fruit(key)
	if isLot {
		return message.New("{fruit} of “{lot}”", name(f.Name), message.Text(lot))
	}
	return message.Value(name(f.Name))
}

func (s State) order() int {
	return slices.Index([]State{StateUsed, StateOff, StateAgrees, StateFew}, s)
}

func (c *Correction) state() State {
	switch {
	case c.Off:
		return StateOff
	case c.Bakes < fewestBakes:
		return StateFew
	case c.Used && c.stands():
		return StateUsed
	}
	return StateAgrees
}

// stands says whether a correction is more than its own uncertainty: what is less is not worth a word, nor a change
// of a recipe.
func (c *Correction) stands() bool {
	if c.Kind == OvenOffset {
		return c.asOffset == nil || math.Abs(c.asOffset.AsOffsetC-c.Prior) >= standsFrom*c.asOffset.SD
	}
	return math.Abs(math.Log(c.Estimate)) >= standsFrom*c.SD
}

func bakesWord(n int) message.Arg {
	if n == 1 {
		return message.Part(message.New("bake"))
	}
	return message.Part(message.New("bakes"))
}

// is returns how far it is off, with one standard deviation.
func (c *Correction) is() message.Message {
	if o := c.asOffset; o != nil {
		return message.New("is {now} (±{sd}; entered: {before})", message.Part(againstItsDial(o.AsOffsetC)),
			message.CelsiusDifference(math.Max(1, math.Round(o.SD))), message.Part(hotter(c.Prior)))
	}
	by := c.Estimate - 1
	words := map[ParameterKind][2]string{
		Release:   {"releases {by} % (±{sd} %) less juice", "releases {by} % (±{sd} %) more juice"},
		Softness:  {"softens {by} % (±{sd} %) more slowly", "softens {by} % (±{sd} %) faster"},
		Thickener: {"thickens {by} % (±{sd} %) less", "thickens {by} % (±{sd} %) more"},
		Colour:    {"browns {by} % (±{sd} %) more slowly", "browns {by} % (±{sd} %) faster"},
		Steam:     {"is {by} % (±{sd} %) less", "is {by} % (±{sd} %) more"},
	}[c.Kind]
	return message.New(pick(by, words[0], words[1]), message.Number(100*math.Abs(by), 0), message.Number(100*c.SD, 0))
}

// againstItsDial returns the offset of an oven in words, in degrees Celsius.
func againstItsDial(offsetC float64) message.Message {
	if math.Round(offsetC) == 0 {
		return message.New("as hot as its dial")
	}
	return message.New("{off} than its dial", message.Part(hotter(offsetC)))
}

// errors say how far off predictions of unseen bakes were, without it and with it.
func (c *Correction) errors() message.Message {
	least := 0.05 // a difference that is seen as it is written
	if c.Unit == UnitMinutes {
		least = 0.5
	}
	if c.Before == nil || c.After == nil || *c.Before-*c.After < least {
		return message.New("it improves the predictions of other bakes")
	}
	if c.Unit == UnitMinutes {
		return message.New("predictions of the time were {before} min off without it, {after} min with it",
			message.Number(*c.Before, 0), message.Number(*c.After, 0))
	}
	return message.New("the predicted juice or colour was {before} steps off without it, {after} with it",
		message.Number(*c.Before, 1), message.Number(*c.After, 1))
}

// Text returns what was noticed of an oven that has changed.
func (c Change) Text(oven string) message.Message {
	return message.New(
		pick(c.Change,
			"{oven} has run about {off} (±{sd}) cooler since then. Was it changed or repaired?",
			"{oven} has run about {off} (±{sd}) hotter since then. Was it changed or repaired?"),
		message.Text(oven), message.CelsiusDifference(math.Round(math.Abs(c.Change))),
		message.CelsiusDifference(math.Round(c.SD)),
	)
}

// Summary returns how well bakes are predicted that were not learnt from.
func (s PredictionScore) Summary() message.Message {
	switch {
	case s.Bakes == 0:
		return message.New("No usable bakes are logged yet: the ranges are those of kitchens in general.")
	case s.Bakes < fewestBakes:
		return message.New("{n} {bakes}: too few for a result. The ranges are those of kitchens in general.",
			message.Count(s.Bakes), bakesWord(s.Bakes))
	case s.Held.Of == 0:
		return message.New(
			"From {n} bakes. Note when the middle bubbles: that improves the predictions most.",
			message.Count(s.Bakes),
		)
	}
	return message.New(
		"From {n} bakes. {in} of {of} recorded times were within the predicted 90 % range.",
		message.Count(s.Bakes),
		message.Count(s.Held.P90),
		message.Count(s.Held.Of),
	)
}
