package compare

import (
	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/outcome"
	"mabbin/core/units"
)

// Went is a logged bake in words: what was predicted, and how it went.
type Went struct {
	Predicted message.Message   `json:"predicted"`
	Rows      []PredictedBand   `json:"rows"`
	Weighed   message.Message   `json:"weighed,omitzero"` // what the scale showed, where lines were weighed on it
	Calls     []message.Message `json:"calls"`            // of the oven watch, with what became of each
}

// PredictedBand is one thing of a bake as it was predicted and as it came; empty is not known.
type PredictedBand struct {
	Name      message.Message `json:"name"`
	Predicted message.Message `json:"predicted,omitzero"`
	Happened  message.Message `json:"actual,omitzero"`
}

// HowItWent tells a bake: h is nil where it was not watched, learnt the version of the log's lessons that it was
// predicted with, 0 by the tables alone.
func HowItWent(a *balance.Answer, reported outcome.Details, h *outcome.ActualBake, learnt int) Went {
	w := Went{Predicted: predicted(a, learnt), Rows: rows(reported, h), Calls: []message.Message{}}
	if h != nil {
		w.Weighed = weighed(h.Weighed)
		for _, c := range h.Calls {
			w.Calls = append(w.Calls, call(c))
		}
	}
	return w
}

func predicted(a *balance.Answer, learnt int) message.Message {
	text := message.New(
		"Predicted: {band}, {mm} below the rim, from {fruit} of fruit and {thickener} of thickener",
		message.Part(a.Set.Band.Label()), message.Millimetres(a.Fit.HotHeadspaceMM), message.Grams(a.FruitG),
		message.Grams(a.ThickenerG),
	)
	if learnt > 0 {
		return message.New("{what}, with the findings of the log at that time (version {n}).",
			message.Part(text), message.Count(learnt))
	}
	return message.New("{what}.", message.Part(text))
}

// rows are the things of which something was reported, and those that were predicted of a bake on the watch.
func rows(reported outcome.Details, h *outcome.ActualBake) []PredictedBand {
	out := []PredictedBand{}
	add := func(what string, before, after message.Message) {
		if !after.IsZero() || !before.IsZero() {
			out = append(out, PredictedBand{message.New(what), before, after})
		}
	}
	var planned, actual, rim, middle, steamed message.Message
	if h != nil {
		planned, actual = minutes(h.PlannedMin), minutes(h.Minutes)
		rim, middle = figure(h.Events.RimBubbles, minutes), figure(h.Events.MiddleBubbles, minutes)
		steamed = message.Value(message.Grams(h.End.SteamedOffG))
	}
	add("in the oven", planned, actual)
	add("rim bubbles", rim, figure(reported.RimMin, minutes))
	add("middle bubbles", middle, figure(reported.MiddleMin, minutes))
	add("lost as steam", steamed, lost(reported))
	add("juice when hot", message.Message{}, message.New(reported.JuiceHot))
	add("base", message.Message{}, message.New(reported.Base))
	add("sweetness", message.Message{}, message.New(reported.Sweetness))
	return out
}

// weighed is what the scale showed, where it differs from the ticket by what a scale can show.
func weighed(all []outcome.Weighed) message.Message {
	if len(all) == 0 {
		return message.Message{}
	}
	var off []message.Message
	for _, l := range all {
		if units.Shown(l.G) != units.Shown(l.PlannedG) {
			off = append(off, message.New("{g} of {wanted} {name}",
				message.Grams(l.G), message.Grams(l.PlannedG), larder.Called(l.Name)))
		}
	}
	if len(off) == 0 {
		return message.New("Weighed: all {n} lines as on the ticket.", message.Count(len(all)))
	}
	return message.New("Weighed: {lines}; the other {n} as on the ticket.",
		message.Part(message.Join(", ", off...)), message.Count(len(all)-len(off)))
}

// call is one of the watch, with what became of it.
func call(c outcome.Answered) message.Message {
	text := message.New("{due} min: {what}", message.Number(c.Due, 0), message.Part(c.Text))
	if c.At == nil {
		return message.New("{what} (not answered)", message.Part(text))
	}
	return message.New("{what} ({state} at {n})", message.Part(text), message.Word(c.State), message.Number(*c.At, 0))
}
