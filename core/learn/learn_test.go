package learn

import (
	"encoding/json"
	"math"
	"os"
	"testing"
)

// learnCase is a worked log with what it teaches.
type learnCase struct {
	Name    string     `json:"name"`
	Request LogRequest `json:"request"`
	Expect  Result     `json:"expect"`
}

func learnCases(t testing.TB) []learnCase {
	t.Helper()
	text, err := os.ReadFile("testdata/learn-cases.json")
	if err != nil {
		t.Fatal(err)
	}
	var all []learnCase
	if err := json.Unmarshal(text, &all); err != nil {
		t.Fatal(err)
	}
	return all
}

// Estimates agree within 0.3 of their deviation.
const near = 0.3

func TestWorkedLogs(t *testing.T) {
	for _, c := range learnCases(t) {
		t.Run(c.Name, func(t *testing.T) {
			got, err := Learn(t.Context(), c.Request, nil, nil)
			if err != nil {
				t.Fatal(err)
			}
			if len(got.Corrections) != len(c.Expect.Corrections) {
				t.Fatalf("%d corrections, want %d", len(got.Corrections), len(c.Expect.Corrections))
			}
			for i, want := range c.Expect.Corrections {
				x := got.Corrections[i]
				if x.ParameterName != want.ParameterName || x.Used != want.Used && math.Abs(want.Gain) > 0.5 {
					t.Errorf("%v used %v, want %v used %v", x.ParameterName, x.Used, want.ParameterName, want.Used)
				}
				off := x.Estimate - want.Estimate
				if x.Kind != OvenOffset {
					off = math.Log(x.Estimate / want.Estimate)
				}
				if math.Abs(off) > near*want.SD || math.Abs(x.PriorSD-want.PriorSD) > 1e-3 {
					t.Errorf("%v: %.4f +- %.4f, want %.4f +- %.4f", x.ParameterName, x.Estimate, x.SD, want.Estimate, want.SD)
				}
				if math.Abs(math.Log(x.SD/want.SD)) > 0.2 {
					t.Errorf("%v: give or take %.4f, want %.4f", x.ParameterName, x.SD, want.SD)
				}
			}
			for i, want := range c.Expect.Ovens {
				x := got.Ovens[i]
				if x.Key != want.Key || x.Bakes != want.Bakes || math.Abs(x.Correlation-want.Correlation) > 0.1 ||
					math.Abs(x.AsOffsetC-want.AsOffsetC) > near*max(want.SD, 10) {
					t.Errorf("oven %+v, want %+v", x, want)
				}
			}
			if len(got.Changes) != len(c.Expect.Changes) {
				t.Fatalf("changes %+v, want %+v", got.Changes, c.Expect.Changes)
			}
			for i, want := range c.Expect.Changes {
				x := got.Changes[i]
				if x.Bake != want.Bake || math.Abs(x.Change-want.Change) > near*want.SD {
					t.Errorf("change %+v, want %+v", x, want)
				}
			}
			for i, want := range c.Expect.Predictions {
				a, b := got.Predictions[i].After.MiddleBubbles, want.After.MiddleBubbles
				sd := (b.P95 - b.P05) / 3.3
				if math.Abs(a.Value-b.Value) > near*sd+0.5 || math.Abs(a.P95-a.P05-(b.P95-b.P05)) > 0.25*(b.P95-b.P05) {
					t.Errorf("%s bubbles %+v, want %+v", want.ID, a, b)
				}
			}
			if a, b := got.Score, c.Expect.Score; a.Bakes != b.Bakes || a.Answers != b.Answers || a.Held.Of != b.Held.Of {
				t.Errorf("score %+v, want %+v", a, b)
			}
		})
	}
}
