package units

import "testing"

// A kitchen's habits are whole: nothing is left for someone else to fill in.
func TestHabitsAreWhole(t *testing.T) {
	for _, h := range Habits() {
		s := h.Settings
		for name, v := range map[string]string{
			"cup": string(s.Cup), "spoon": string(s.Spoon), "eggs": string(s.Eggs), "weights": s.Weights, "heat": s.Heat,
			"lengths": s.Lengths, "currency": s.Currency, "english": string(s.English), "decimal": string(s.Decimal),
		} {
			if v == "" {
				t.Errorf("%s says nothing of %s", h.Key, name)
			}
		}
		if s.Containers == nil {
			t.Errorf("%s has no containers, not even none", h.Key)
		}
	}
}
