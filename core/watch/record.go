package watch

import (
	"time"

	"mabbin/core/bake"
	"mabbin/core/outcome"
)

// Record is how the bake went, for the log; now is when it is written down.
func (b *Bake) Record(now time.Time, weighed []outcome.Weighed) outcome.ActualBake {
	a := b.Predicted.Plan.Answer
	since := func(t time.Time) float64 { return t.Sub(b.StartedAt).Minutes() }
	h := outcome.ActualBake{
		Minutes: b.Minute(
			now,
		),
		PlannedMin: b.Predicted.Plan.Minutes,
		Stages:     b.Stages,
		Readings:   append([]bake.Point{}, b.Readings...),
		Events:     a.Events,
		End:        a.End,
		Minute:     a.Curves.Minute,
		MiddleC:    a.Curves.MiddleC,
		Weighed:    weighed,
		Calls:      []outcome.Answered{},
	}
	if !b.OutAt.IsZero() {
		h.Minutes = since(b.OutAt)
	}
	for _, c := range b.Calls {
		if c.State == Withdrawn {
			continue
		}
		out := outcome.Answered{Kind: string(c.Kind), Text: c.Text, Due: since(c.DueAt), State: string(c.State)}
		if !c.AnsweredAt.IsZero() {
			at := since(c.AnsweredAt)
			out.At = &at
		}
		h.Calls = append(h.Calls, out)
	}
	return h
}
