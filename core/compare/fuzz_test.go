package compare

import (
	"encoding/json"
	"testing"

	"mabbin/core/balance"
)

// Compared with itself a dessert is the same in every line; put the other way about, the lines are the same ones.
func FuzzOf(f *testing.F) {
	const plum = `{"dish":{"shape":"rectangle","length_cm":24,"width_cm":18,"depth_cm":5,"material":"stoneware"},"style":"crumble",
		"topping":{"key":"crumble_classic"},"fruits":[{"key":"plum","share":1}]}`
	f.Add(
		[]byte(`{"Request":`+plum+`,"OvenC":180,"Stages":[{"minutes":40,"oven_c":180}]}`),
		[]byte(`{"Request":`+plum+`,"Minutes":30}`),
	)
	f.Add([]byte(`{"Words":{"Juice":"runny"},"Told":{"before_g":3000,"after_g":2900,"again":true}}`), []byte(`{}`))
	f.Fuzz(func(t *testing.T, rawA, rawB []byte) {
		side := func(raw []byte) Side {
			var s Side
			if json.Unmarshal(raw, &s) != nil {
				t.Skip()
			}
			s.Answer = nil // worked out, and not taken from whoever asks
			if a, err := balance.Solve(s.Request); err == nil {
				s.Answer = a
			}
			return s
		}
		a, b := side(rawA), side(rawB)
		for _, r := range Of(a, a) {
			if !r.Same || !r.A.Equal(r.B) {
				t.Fatalf("beside itself %s is %s and %s", r.Name, r.A, r.B)
			}
		}
		there, back := Of(a, b), Of(b, a)
		if len(there) != len(back) {
			t.Fatalf("%d lines one way, %d the other", len(there), len(back))
		}
		for _, r := range there {
			if r.Part.IsZero() || r.Name.IsZero() || r.Same != r.A.Equal(r.B) {
				t.Fatalf("%+v", r)
			}
		}
	})
}
