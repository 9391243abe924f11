package compare

import (
	"strings"
	"testing"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/message"
	"mabbin/core/outcome"
)

func TestBakeReport(t *testing.T) {
	a := side(t, func(*balance.Request) {}).Answer
	lost, at := 2992.0, 33.0
	before := 3040.0
	h := &outcome.ActualBake{
		Minutes: 52, PlannedMin: 45, Events: bake.Events{MiddleBubbles: &at}, End: bake.End{SteamedOffG: 61},
		Weighed: []outcome.Weighed{
			{Name: "Cornflour (US: cornstarch)", PlannedG: 24, G: 31}, {Name: "Caster sugar", PlannedG: 80, G: 80.2},
		},
		Calls: []outcome.Answered{
			{Text: message.New("Take it out"), Due: 45, At: &at, State: "done"}, {Text: message.New("Turn it"), Due: 20},
		},
	}
	w := HowItWent(a, outcome.Details{BeforeG: &before, AfterG: &lost, Base: "crisp"}, h, 3)
	var rows []string
	for _, r := range w.Rows {
		rows = append(rows, r.Name.String()+": "+r.Predicted.String()+" | "+r.Happened.String())
	}
	for name, is := range map[string][2]string{
		"rows": {
			strings.Join(rows, "; "),
			"in the oven: 45 min | 52 min; middle bubbles: 33 min | ; lost as steam: 61 g | 48 g; base:  | crisp",
		},
		"weighed":             {w.Weighed.String(), "Weighed: 31 g of 24 g cornflour; the other 1 as on the ticket."},
		"a call answered":     {w.Calls[0].String(), "45 min: Take it out (done at 33)"},
		"a call not answered": {w.Calls[1].String(), "20 min: Turn it (not answered)"},
	} {
		if is[0] != is[1] {
			t.Errorf("%s: %q, not %q", name, is[0], is[1])
		}
	}
	if text := w.Predicted.String(); !strings.Contains(text, a.Set.Band.Label().String()) ||
		!strings.HasSuffix(text, "with the findings of the log at that time (version 3).") {
		t.Error(text)
	}
}

func TestBakeReportWithoutTheWatch(t *testing.T) {
	w := HowItWent(side(t, func(*balance.Request) {}).Answer, outcome.Details{Sweetness: "sharp"}, nil, 0)
	if len(w.Rows) != 1 || w.Rows[0].Happened.String() != "sharp" || !w.Weighed.IsZero() || len(w.Calls) != 0 {
		t.Errorf("%+v", w)
	}
	if strings.Contains(w.Predicted.String(), "log") {
		t.Error(w.Predicted)
	}
}
