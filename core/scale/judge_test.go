package scale

import "testing"

func TestAWeighingIsJudged(t *testing.T) {
	for _, c := range []struct {
		wanted, g float64
		verdict   Verdict
	}{{910, 0, Short}, {910, 890, Short}, {910, 892, Right}, {910, 928, Right}, {910, 930, Over}, {2.5, 2.2, Short}, {2.5, 2.4, Right}, {2.5, 2.8, Over}, {0, 0, Right}} {
		if v, left := Judge(c.wanted, c.g); v != c.verdict || left != c.wanted-c.g {
			t.Errorf("%g of %g g is %s, %g left", c.g, c.wanted, v, left)
		}
	}
}
