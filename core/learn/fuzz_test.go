package learn

import (
	"encoding/json"
	"errors"
	"reflect"
	"testing"

	"mabbin/core/fault"
	"mabbin/core/outcome"
)

// Whatever is reported of a bake, what may have been otherwise is reported in whole sentences, the most likely first,
// each once.
func FuzzExplain(f *testing.F) {
	for _, told := range []string{
		`{"Juice":"runny"}`, `{"Top":"burnt","Fruit":"hard"}`, `{"Juice":"slices","Told":{"base":"raw","rim_min":5,"middle_min":200}}`,
		`{"Told":{"before_g":3000,"after_g":1}}`, `{"Top":"no such word"}`, `{}`,
	} {
		f.Add([]byte(told))
	}
	q := plums()
	f.Fuzz(func(t *testing.T, raw []byte) {
		var came Outcome
		if json.Unmarshal(raw, &came) != nil || came.Happened != nil {
			t.Skip() // what happened is written by the watch alone
		}
		var faults fault.Faults
		if came.Details.Check("", &faults); len(faults) > 0 {
			t.Skip() // it is refused at the door
		}
		x, err := Explain(t.Context(), q, came, nil)
		if err != nil {
			if !errors.As(err, new(fault.Faults)) {
				t.Fatalf("%T: %v", err, err)
			}
			return
		}
		seen := map[CauseCode]bool{}
		for _, c := range x.Causes {
			if seen[c.Code] || c.Text.IsZero() || c.Evidence.IsZero() || len(c.Explains) == 0 {
				t.Fatalf("%s: cause %+v", raw, c)
			}
			seen[c.Code] = true
		}
		if came.Juice == "" && came.Fruit == "" && came.Top == "" && reflect.DeepEqual(came.Details, outcome.Details{}) &&
			len(x.Causes) > 0 {
			t.Fatalf("nothing was told, and %d causes are named", len(x.Causes))
		}
		if _, err := json.Marshal(x); err != nil {
			t.Fatal(err)
		}
	})
}
