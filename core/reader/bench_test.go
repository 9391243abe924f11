package reader

import (
	"testing"

	"mabbin/core/larder"
	"mabbin/core/units"
)

// BenchmarkRead reads whole recipes: a hundred a second are promised.
func BenchmarkRead(b *testing.B) {
	cases := wantCases(b)
	p := larder.Vocabulary(nil)
	i := 0
	for b.Loop() {
		if _, err := Read(Source{Text: cases[i%len(cases)].Text}, p, units.Conventions{}); err != nil && cases[i%len(cases)].Text[0] != '<' {
			b.Fatal(err)
		}
		i++
	}
}
