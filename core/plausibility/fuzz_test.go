package plausibility

import (
	"encoding/json"
	"math"
	"testing"
)

// Whatever is in a bowl: what is asked about is in it, with more than is usual, and what is suggested is less.
func FuzzFind(f *testing.F) {
	for _, bowl := range []string{
		`[{"Key":"plum","G":900},{"Key":"cornflour","G":500}]`, `[{"Key":"wheat_flour","G":200},{"Key":"salt","G":30,"Unit":"tbsp"}]`,
		`[{"Key":"lemon_zest","G":60},{"Key":"apple_cooking","G":900}]`, `[{"Key":"salt","G":1e308}]`, `[{"Key":"baking_powder","G":-1}]`, `[]`,
	} {
		f.Add([]byte(bowl), true)
	}
	f.Fuzz(func(t *testing.T, raw []byte, filling bool) {
		var bowl []Thing
		if json.Unmarshal(raw, &bowl) != nil {
			t.Skip()
		}
		part := Dough
		if filling {
			part = Filling
		}
		last := -1
		for _, s := range Find(part, bowl, nil) {
			if s.Index <= last || s.Index >= len(bowl) || s.Text.IsZero() || s.Usual.IsZero() {
				t.Fatalf("%s: %+v", raw, s)
			}
			last = s.Index
			if s.SuggestG < 0 || math.IsNaN(s.SuggestG) || s.SuggestG >= bowl[s.Index].G && s.SuggestG > 0 {
				t.Fatalf("%s: %g g is suggested for %g", raw, s.SuggestG, bowl[s.Index].G)
			}
		}
	})
}
