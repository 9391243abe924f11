package dish

import (
	"testing"

	"mabbin/core/fault"
)

// Every typical dish is a dish, in either size, and the two sizes are the same dish to a tenth or so.
func TestTypicalDishes(t *testing.T) {
	cm, in := TypicalDishes(false), TypicalDishes(true)
	for i, d := range append(cm, in...) {
		var f fault.Faults
		d.Dish.Check("", &f)
		if f.Err() != nil || d.Count < 1 || d.Name == "" {
			t.Errorf("%s: %v", d.Key, f.Err())
		}
		a, b := cm[i%len(cm)].Dish.Measure().VolumeML, in[i%len(cm)].Dish.Measure().VolumeML
		if b < 0.85*a || b > 1.15*a {
			t.Errorf("%s holds %.0f ml by the centimetre and %.0f by the inch", d.Key, a, b)
		}
	}
}
