package reader

import (
	"strings"
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
		if _, err := Read(
			Source{Text: cases[i%len(cases)].Text},
			p,
			units.Conventions{},
		); err != nil &&
			cases[i%len(cases)].Text[0] != '<' {
			b.Fatal(err)
		}
		i++
	}
}

// BenchmarkReadHostile reads long texts made to be slow: each ends well within a second.
func BenchmarkReadHostile(b *testing.B) {
	p := larder.Vocabulary(nil)
	for name, text := range map[string]string{
		"amounts":   strings.Repeat("1 cup flour and ", 10_000),
		"sentences": strings.Repeat("bake 40 min. ", 10_000),
		"method":    "3 apples\n2 pears\n1 cup sugar\n\nMethod\n" + strings.Repeat("Toss the apples and bake at 190C for 40 minutes.\n", 2000),
	} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				_, _ = Read(Source{Text: text[:min(len(text), MaxText)]}, p, units.Conventions{})
			}
		})
	}
}
