package day

import (
	"math"
	"strings"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/larder"
)

// From the oven to the table. Hot and warm are temperatures of the middle: by the model of the bake.
const (
	staleAfter    = 75 // min, until a lid of dough is stale
	staleRest     = 45 // min, where it is still too hot then
	rewarmedRest  = 5
	rewarmedHold  = 30 // a dessert that was reheated holds its heat less long: working figure
	foilOffBefore = 8  // min before the end of reheating
)

// served is how long a dessert stands before it is served hot or warm, and for how long it is good to serve then, min.
func served(serve Serve, c bake.Cooling, lid bool) (rest, hold int) {
	from, to := c.ToWarm, c.ToTepid
	if serve == Hot {
		from, to = c.ToHot, c.ToWarm
	}
	least, most := int(math.Ceil(from)), int(math.Floor(to))
	if lid {
		most = min(most, staleAfter)
		if least > most {
			least = staleRest
		}
	}
	return least, max(0, most-least)
}

// goesStale says whether a crust is stale soon after the oven: biscuits, puff pastry, and one that was pushed under.
func goesStale(r balance.Request) bool {
	t, _ := larder.Toppings.Get(r.Topping.Key)
	return t.Family == "biscuit" || strings.HasPrefix(t.Key, "puff") || larder.StyleOf(r.Style).CrustPushedUnder
}

// rest is what comes after the oven. What is cut is set first, and reheated for the hour at which it is wanted; a
// custard would split in the oven, and is served as it is.
func (m *making) rest(baked string, o Job, p bake.Plan, in bake.Request) {
	r := o.Dessert.Request
	style := larder.StyleOf(r.Style)
	if o.Serve == Cold {
		m.setAndCut(baked, p, coldFridge)
		return
	}
	if style.Slices && r.Custard == nil {
		minutes := o.Rewarm
		if minutes == 0 {
			minutes, _, _ = bake.Rewarm(in) // what can't be reheated in time is served from the fridge
		}
		if minutes > 0 {
			m.rewarm(m.setAndCut(baked, p, 0), int(math.Ceil(minutes)), r.Dish.Outside)
			return
		}
	}
	cools := bake.Cooling{ToHot: hotRest, ToWarm: warmRest, ToTepid: warmRest + warmHold}
	if o.Cooling != nil {
		cools = *o.Cooling
	} else if c, err := bake.CoolingOf(in, p.Stages); err == nil {
		cools = c
	}
	rest, hold := served(o.Serve, cools, goesStale(r))
	if r.Custard != nil || style.Slices { // it sets on the rack: what is cut too hot runs
		rest = max(rest, int(math.Ceil(p.RackMin)))
	}
	m.batch.HoldMax = &hold
	m.add(Task{ID: "rest", Kind: "rest", Uses: UseWait, Minutes: rest, After: []Lag{after(baked)}})
}

// setAndCut lets a dessert cool until it can be cut, for so many minutes in the fridge at least, and cuts it.
func (m *making) setAndCut(baked string, p bake.Plan, fridgeMin int) string {
	rack, fridge := int(math.Ceil(p.RackMin)), int(math.Ceil(p.FridgeMin))
	if fridge == 0 {
		rack, fridge = max(rack, coldRack), fridgeMin
	}
	last := m.add(Task{ID: "rest", Kind: "rest", Uses: UseWait, Minutes: rack, After: []Lag{after(baked)}})
	if fridge > 0 {
		last = m.add(Task{ID: "set", Kind: "set", Uses: UseWait, Minutes: fridge, After: []Lag{after(last)}})
	}
	return m.add(
		Task{ID: "cut", Kind: "cut", Uses: UsePerson, Minutes: cutMin + perDish*m.n, After: []Lag{after(last)}},
	)
}

// rewarm warms a dessert again under foil that was baked, has set and was cut.
func (m *making) rewarm(cut string, minutes int, outside func() (length, width float64)) {
	length, width := outside()
	a := Alternative{ID: asCard}
	stages := []bake.Stage{{Minutes: float64(minutes), OvenC: bake.RewarmC, Cover: "foil"}}
	if minutes > 2*foilOffBefore {
		stages[0].Minutes -= foilOffBefore
		stages = append(stages, bake.Stage{Minutes: foilOffBefore, OvenC: bake.RewarmC})
	}
	a.bakedBy(stages, 0)
	again := m.add(Task{
		ID: "rewarm", Kind: "rewarm", Uses: UseOven, Count: m.n, WidthCM: length, DepthCM: width,
		After: []Lag{after(cut)}, Alternatives: []Alternative{a},
	})
	hold := rewarmedHold
	m.batch.HoldMax = &hold
	m.add(Task{ID: "again", Kind: "rest", Uses: UseWait, Minutes: rewarmedRest, After: []Lag{after(again)}})
}
