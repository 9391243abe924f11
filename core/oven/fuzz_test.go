package oven

import (
	"encoding/json"
	"errors"
	"math"
	"testing"

	"mabbin/core/fault"
)

// However an oven was tried, it is off by a number that is no further than what was read, or the faults name their
// fields.
func FuzzMeasure(f *testing.F) {
	for _, trial := range []string{
		`{"readings":[{"set_c":180,"read_c":172},{"set_c":200,"read_c":190}]}`, `{"melt":{"not_at_c":180,"at_c":190}}`,
		`{"readings":[{"set_c":180,"read_c":400}],"melt":{"not_at_c":120,"at_c":260}}`, `{"readings":[{"set_c":1e308,"read_c":-1e308}]}`, `{}`,
	} {
		f.Add([]byte(trial))
	}
	f.Fuzz(func(t *testing.T, raw []byte) {
		var trial Trial
		if json.Unmarshal(raw, &trial) != nil {
			t.Skip()
		}
		m, err := Measure(trial)
		if err != nil {
			if !errors.As(err, new(fault.Faults)) {
				t.Fatalf("%T: %v", err, err)
			}
			return
		}
		lo, hi := math.Inf(1), math.Inf(-1)
		for _, r := range trial.Readings {
			lo, hi = min(lo, r.ReadC-r.SetC), max(hi, r.ReadC-r.SetC)
		}
		if x := trial.Melt; x != nil {
			lo, hi = min(lo, sugarMeltsC-x.AtC), max(hi, sugarMeltsC-x.NotAtC)
		}
		if !(m.OffsetC >= lo-1 && m.OffsetC <= hi+1) || !(m.GiveOrTakeC > 0) || math.IsInf(m.GiveOrTakeC, 0) ||
			m.Text.IsZero() {
			t.Fatalf("%s: off by %g, give or take %g, between %g and %g", raw, m.OffsetC, m.GiveOrTakeC, lo, hi)
		}
	})
}
