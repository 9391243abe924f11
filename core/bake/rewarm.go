package bake

// How a dessert that was baked before is warmed again, by the usual caution: to 74 C in the middle.
const (
	RewarmC     = 160.0 // of the oven
	RewarmedC   = 74.0  // in the middle
	longestWarm = 240.0
	driedPct    = 5.0 // water left in a topping that was baked. A working figure

	FreezerC      = -18.0 // and what comes out of it
	hardC         = -10.0 // in the middle: it can be stacked. A working figure
	longestFreeze = mostMinutes
)

// Rewarm is how long it takes in the oven under foil until the middle of a dessert from the fridge is hot enough to
// eat, min; false: it does not get there within four hours.
func Rewarm(r Request) (minutes float64, ok bool, err error) { return warm(r, fridgeC) }

// Revive is the same of one from the freezer, its dish with it.
func Revive(r Request) (minutes float64, ok bool, err error) { return warm(r, FreezerC) }

func warm(r Request, from float64) (minutes float64, ok bool, err error) {
	in := Stage{Minutes: longestWarm, OvenC: RewarmC, Cover: "foil"}
	return middleAt(baked(r, from, in), func(c float64) bool { return c >= RewarmedC })
}

// Freeze is how long a dessert that has cooled to the room takes in the freezer, wrapped close, until its middle is
// hard, min; false: it does not get there within two days.
func Freeze(r Request) (minutes float64, ok bool, err error) {
	in := Stage{Minutes: longestFreeze, OvenC: FreezerC, Heating: "freezer"}
	return middleAt(baked(r, roomC, in), func(c float64) bool { return c <= hardC })
}

// middleAt is the first minute of its one stage at which the middle of the filling is so; false: it never is.
func middleAt(r Request, is func(c float64) bool) (minute float64, ok bool, err error) {
	if err := Check(r); err != nil {
		return 0, false, err
	}
	x := startPlan(&r, r.Stages[0], false)
	for minute = 1; minute <= r.Stages[0].Minutes; minute++ {
		x.until(minute)
		if is(x.m.middleC()) {
			return minute, true, nil
		}
	}
	return 0, false, nil
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
