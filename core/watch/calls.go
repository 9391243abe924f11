// Package watch is what is called out while a dessert is in the oven, and what to do when it goes wrong there. Time is minutes
// since it went in; nothing here knows a clock.
package watch

import (
	"cmp"
	"slices"

	"mabbin/core/bake"
	"mabbin/core/oven"
	"mabbin/core/say"
)

// Kinds of call.
const (
	Turn     = "turn"
	Cover    = "cover"
	Uncover  = "uncover"
	Heat     = "heat" // turn it up or down
	Shelf    = "shelf"
	Push     = "push_under"
	Topping  = "add_topping"
	Look     = "look"
	TakeOut  = "take_out"
	Fridge   = "fridge"
	Ready    = "ready"
	TurnPot  = "turn_pot"
	NewCoals = "coals"
)

// Call is something to do at a minute.
type Call struct {
	Kind    string   `json:"kind"`
	Due     float64  `json:"due_min"`
	Says    say.Line `json:"says"`
	Caution say.Line `json:"caution,omitempty"`
}

// Cautions, where a call burns.
const (
	steamOut  say.Line = "Lift it away from you: the steam comes out all at once."
	hotDish   say.Line = "Boiling fruit and sugar burn worse than water. Dry cloths; never set hot glass or stoneware on anything cold or wet."
	hotHandle say.Line = "The handle is as hot as the oven."
	heavy     say.Line = "Pull the shelf out; do not reach over it."
	coalsOut  say.Line = "Outdoors only: coals give off carbon monoxide. Lift the lid level."
	eggCold   say.Line = "An egg custard belongs in the fridge within 2 hours, sooner in heat; keep it at 5 C or below. The local food code decides."
)

// Dessert is what is known of the dessert that is watched, beside its stages.
type Dessert struct {
	Slices   bool       // it is cut, not spooned
	Custard  bool       // egg: it has to be cold in time
	Material string     // of its dish
	LateAt   float64    // a second topping goes on; 0: there is none
	Fire     *oven.Fire // of a camp oven
	Plan     bake.Plan  // as it was when it went in
}

// Calls are the calls of stages, in the order in which they are due.
func Calls(d Dessert, stages []bake.Stage) []Call {
	var out []Call
	call := func(kind string, due float64, caution, says say.Line) {
		out = append(out, Call{kind, due, says, caution})
	}
	total := 0.0
	for i, s := range stages {
		if i > 0 {
			change(call, total, stages[i-1], s)
		}
		total += s.Minutes
	}
	if p := d.Plan; total > 20 && d.Fire == nil {
		call(Turn, min(p.TurnAt, total/2), heavy, "Turn the dish round")
	}
	if at := min(d.Plan.LookFrom, 0.9*total); at > 0 && at < total-1 {
		call(Look, at, "", "Look: does it bubble at the middle, is the top golden?")
	}
	if d.LateAt > 0 && d.LateAt < total {
		call(Topping, d.LateAt, heavy, "Put the second topping on")
	}
	if d.Fire != nil {
		t := d.Fire.Tend([]float64{total}, []float64{stages[0].OvenC})
		for _, m := range t.TurnAt {
			call(TurnPot, m, coalsOut, "Turn the pot one way and the lid the other, a third each")
		}
		for _, m := range t.RenewAt {
			c := d.Fire.Coals(stages[0].OvenC)
			call(NewCoals, m, coalsOut, say.F("Fresh coals: {above} on the lid, {below} below", say.Count(c.Above), say.Count(c.Below)))
		}
	}
	out = append(out, after(d, total)...)
	slices.SortStableFunc(out, func(a, b Call) int { return cmp.Compare(a.Due, b.Due) })
	return out
}

// after are the calls from the oven to the table.
func after(d Dessert, out float64) []Call {
	take := hotDish
	if d.Material == "cast_iron" {
		take = say.Sentences(hotDish, hotHandle)
	}
	calls := []Call{{TakeOut, out, "Take it out", take}}
	p := d.Plan
	if p.FridgeMin > 0 {
		caution := say.Line("")
		if d.Custard {
			caution = eggCold
		}
		calls = append(calls, Call{Fridge, out + p.RackMin, "Into the fridge with it", caution})
	}
	ready := say.Line("Ready to spoon")
	if d.Slices {
		ready = "Ready to cut"
	}
	return append(calls, Call{Ready, out + p.ServeFrom, ready, ""})
}

// change calls what is different from one stage to the next.
func change(call func(kind string, due float64, caution, says say.Line), at float64, was, is bake.Stage) {
	if c, d := cover(was), cover(is); c != d {
		if c != "" {
			call(Uncover, at, steamOut, liftWords[c])
		}
		if d != "" {
			call(Cover, at, heavy, coverWords[d])
		}
	}
	if is.OvenC != was.OvenC {
		turn := say.Line("Turn the oven up to {heat}")
		if is.OvenC < was.OvenC {
			turn = "Turn the oven down to {heat}"
		}
		call(Heat, at, "", say.F(turn, say.C(is.OvenC)))
	}
	if is.Shelf != was.Shelf && is.Shelf != "" {
		call(Shelf, at, hotDish, say.F("Move it to the {shelf} shelf", say.L(say.Line(is.Shelf))))
	}
	if is.Heating != was.Heating {
		call(Heat, at, "", say.F("Set the oven to {heating}", say.L(heatingWords[is.Heating])))
	}
	if is.PushUnder {
		call(Push, at, hotDish, "Push the crust down into the juice, here and there")
	}
	if is.AddTopping {
		call(Topping, at, heavy, "Put the topping on")
	}
	if is.Turn {
		call(Turn, at, heavy, "Turn the dish round")
	}
}

var (
	liftWords    = map[string]say.Line{"foil": "Lift the foil", "lid": "Lift the lid", "parchment": "Lift the parchment", "rim": "Lift the foil off the rim"}
	coverWords   = map[string]say.Line{"foil": "Put foil on", "lid": "Put the lid on", "parchment": "Lay parchment on", "rim": "Put foil round the rim"}
	heatingWords = map[string]say.Line{"": "top and bottom heat", "conventional": "top and bottom heat", "fan": "fan", "bottom": "bottom heat"}
)

func cover(s bake.Stage) string {
	if s.Cover == "none" {
		return ""
	}
	return s.Cover
}
