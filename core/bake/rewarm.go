package bake

// How a dessert that was baked before is warmed again, by the usual caution: to 74 C in the middle.
const (
	RewarmC     = 160.0 // of the oven
	RewarmedC   = 74.0  // in the middle
	longestWarm = 240.0
	driedPct    = 5.0 // water left in a topping that was baked. A working figure
)

// Rewarm is how long it takes in the oven under foil until the middle of a dessert from the fridge is hot enough to
// eat, min; false: it does not get there within four hours.
func Rewarm(r Request) (minutes float64, ok bool, err error) {
	cold := fridgeC
	r.Filling.StartC, r.DishStartC = &cold, &cold
	if r.Topping != nil {
		t := *r.Topping
		t.StartC, t.WaterPct = &cold, min(t.WaterPct, driedPct)
		r.Topping = &t
	}
	if r.Base != nil {
		b := *r.Base
		b.StartC, b.ParBaked = &cold, true
		r.Base = &b
	}
	r.Stages = []Stage{{Minutes: longestWarm, OvenC: RewarmC, Cover: "foil"}}
	a, err := Run(r)
	if err != nil {
		return 0, false, err
	}
	for i, c := range a.Curves.MiddleC {
		if c >= RewarmedC {
			return a.Curves.Minute[i], true, nil
		}
	}
	return 0, false, nil
}
