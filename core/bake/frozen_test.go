package bake

import "testing"

// Each thing that bakers do about frozen fruit is faster than the fruit as it comes from the freezer, by minutes that
// were baked.
func TestWhatIsDoneAboutFrozenFruit(t *testing.T) {
	q := DessertRequest{Request: desserts()["crumble"], Setting: Setting{Stages: []Stage{{Minutes: 50, OvenC: 180}}}}
	fresh, err := Alternatives(t.Context(), q)
	if err != nil {
		t.Fatal(err)
	}
	for _, w := range fresh {
		if w.Question == "frozen" {
			t.Errorf("fresh fruit is asked about: %s", w.Name)
		}
	}
	q.Request.Fruits[0].Frozen = true
	all, err := Alternatives(t.Context(), q)
	if err != nil {
		t.Fatal(err)
	}
	minutes, chosen := map[string]float64{}, ""
	for _, w := range all {
		if w.Question != "frozen" {
			continue
		}
		if minutes[w.Key] = w.Minutes; w.Chosen {
			chosen += w.Key
		}
	}
	if len(minutes) != 5 || chosen != "as_it_is" {
		t.Errorf("%v, chosen %s", minutes, chosen)
	}
	for key, m := range minutes {
		if m == 0 || key != "as_it_is" && m >= minutes["as_it_is"]-3 {
			t.Errorf("%s bubbles after %.1f min, from the freezer after %.1f", key, m, minutes["as_it_is"])
		}
	}
	t.Log(minutes)
}
