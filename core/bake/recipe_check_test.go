package bake

import (
	"strings"
	"testing"

	"mabbin/core/message"
)

func TestARecipeIsBakedAsItIsWritten(t *testing.T) {
	cases := map[string]struct {
		stage Stage
		wrong string // of what it is
		code  string // of what mends it
		says  string
	}{
		"far too short":         {Stage{Minutes: 45, OvenC: 165}, "the middle does not bubble", "minutes", "min longer"},
		"right":                 {Stage{Minutes: 73, OvenC: 165}, "", "", ""},
		"too hot for its depth": {Stage{Minutes: 45, OvenC: 220}, "too dark", "cover", "foil on after"},
		"never hot enough":      {Stage{Minutes: 60, OvenC: 120}, "pale", "oven", "instead of 120 C"},
	}
	for name, c := range cases {
		p, err := WrittenBake(t.Context(), gooseberries(), Setting{Stages: []Stage{c.stage}})
		if err != nil {
			t.Fatal(err)
		}
		switch {
		case c.wrong == "" && (len(p.Verdict.Wrong) > 0 || p.Mend != nil):
			t.Errorf("%s: %v, %+v, colour %.2f", name, p.Verdict.Wrong, p.Mend, p.End.Colour)
		case c.wrong != "" && (!strings.Contains(message.Join("; ", p.Verdict.Wrong...).String(), c.wrong) || p.Mend == nil || string(p.Mend.Code) != c.code || !strings.Contains(p.Mend.Text.String(), c.says)):
			t.Errorf("%s: %v, %+v", name, p.Verdict.Wrong, p.Mend)
		}
	}
	if _, err := WrittenBake(
		t.Context(),
		gooseberries(),
		Setting{Stages: []Stage{{Minutes: -1, OvenC: 180}}},
	); err == nil ||
		!strings.Contains(err.Error(), "/setting/stages/0/minutes") {
		t.Errorf("%v", err)
	}
}
