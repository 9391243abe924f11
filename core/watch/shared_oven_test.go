package watch

import (
	"strings"
	"testing"

	"mabbin/core/bake"
)

// hot is a crumble that goes in at noon by one stage.
func hot(t *testing.T, ovenC, minutes float64, in float64) *Bake {
	t.Helper()
	q := crumble()
	q.Setting.Stages = []bake.Stage{{OvenC: ovenC, Minutes: minutes}}
	b, err := Start(t.Context(), q, minute(in))
	must(t, err)
	return b
}

func TestAnOvenAtTwoSettings(t *testing.T) {
	for name, c := range map[string]struct {
		a, b *Bake
		says string
		c    float64
	}{
		"one setting":           {hot(t, 190, 52, 0), hot(t, 190, 50, 10), "", 0},
		"one after the other":   {hot(t, 170, 60, 0), hot(t, 200, 45, 60), "", 0},
		"two, and one for both": {hot(t, 180, 55, 0), hot(t, 200, 48, 5), "Both come out right at", 190},
	} {
		found, err := AtTwoSettings(t.Context(), []InOven{{"Plum", c.a}, {"Pear", c.b}}, minute(6))
		must(t, err)
		if c.says == "" {
			if len(found) > 0 {
				t.Errorf("%s: %s", name, found[0].Text)
			}
			continue
		}
		if len(found) != 1 || !strings.Contains(found[0].Text.String(), c.says) || found[0].OvenC == nil ||
			*found[0].OvenC < 180 || *found[0].OvenC > 200 || !found[0].From.Equal(minute(6)) {
			t.Errorf("%s: %+v", name, found)
		}
	}
	out := hot(t, 170, 60, 0)
	out.OutAt = minute(5)
	if found, err := AtTwoSettings(
		t.Context(),
		[]InOven{{"Plum", out}, {"Pear", hot(t, 200, 45, 0)}},
		minute(6),
	); err != nil ||
		len(found) > 0 {
		t.Errorf("one is out: %v, %v", found, err)
	}
}
