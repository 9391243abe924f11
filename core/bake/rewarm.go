package bake

import "slices"

// How a dessert that was baked before is warmed again, by the usual caution: to 74 C in the middle.
const (
	RewarmC     = 160.0 // of the oven
	RewarmedC   = 74.0  // in the middle
	longestWarm = 240.0
	driedPct    = 5.0 // water left in a topping that was baked. A working figure

	FreezerC      = -18.0
	hardC         = -10.0 // in the middle: it can be stacked. A working figure
	longestFreeze = mostMinutes
)

// Rewarm is how long it takes in the oven under foil until the middle of a dessert from the fridge is hot enough to
// eat, min; false: it does not get there within four hours.
func Rewarm(r Request) (minutes float64, ok bool, err error) { return warm(r, fridgeC) }

// Revive is the same of one from the freezer, its dish with it.
func Revive(r Request) (minutes float64, ok bool, err error) { return warm(r, FreezerC) }

func warm(r Request, from float64) (minutes float64, ok bool, err error) {
	a, err := Run(baked(r, from, Stage{Minutes: longestWarm, OvenC: RewarmC, Cover: "foil"}))
	if err != nil {
		return 0, false, err
	}
	minutes, ok = a.Curves.firstAt(func(c float64) bool { return c >= RewarmedC })
	return minutes, ok, nil
}

// Freeze is how long a dessert that has cooled to the room takes in the freezer, wrapped close, until its middle is
// hard, min; false: it does not get there within two days.
func Freeze(r Request) (minutes float64, ok bool, err error) {
	a, err := Run(baked(r, roomC, Stage{Minutes: longestFreeze, OvenC: FreezerC, Heating: "freezer"}))
	if err != nil {
		return 0, false, err
	}
	minutes, ok = a.Curves.firstAt(func(c float64) bool { return c <= hardC })
	return minutes, ok, nil
}

// baked is a dessert that was baked before and is so warm all through, in one stage.
func baked(r Request, c float64, in Stage) Request {
	r.Filling.StartC, r.DishStartC = &c, &c
	if r.Topping != nil {
		t := *r.Topping
		t.StartC, t.WaterPct = &c, min(t.WaterPct, driedPct)
		r.Topping = &t
	}
	if r.Base != nil {
		b := *r.Base
		b.StartC, b.ParBaked = &c, true
		r.Base = &b
	}
	r.Stages = []Stage{in}
	return r
}

// firstAt is the first minute at which the middle is so.
func (v Curves) firstAt(is func(c float64) bool) (minute float64, ok bool) {
	i := slices.IndexFunc(v.MiddleC, is)
	if i < 0 {
		return 0, false
	}
	return v.Minute[i], true
}
