// Package watch is what is called out while a dessert is in the oven, and what to do when it goes wrong there. Time
// is minutes since it went in; nothing here knows a clock.
package watch

import (
	"cmp"
	"slices"

	"mabbin/core/bake"
	"mabbin/core/message"
	"mabbin/core/oven"
)

// Kind is what a call is about.
type Kind string

// The kinds of call.
const (
	Turn     Kind = "turn"
	Cover    Kind = "cover"
	Uncover  Kind = "uncover"
	Heat     Kind = "heat" // turn it up or down
	Shelf    Kind = "shelf"
	Push     Kind = "push_under"
	Topping  Kind = "add_topping"
	Check    Kind = "look"
	TakeOut  Kind = "take_out"
	Fridge   Kind = "fridge"
	Ready    Kind = "ready"
	TurnPot  Kind = "turn_pot"
	NewCoals Kind = "coals"
)

// inOven says whether a call is answered at the oven: once the dish is out, there is nothing left to do about it.
func (k Kind) inOven() bool { return k != Fridge && k != Ready }

// replanned says whether a call follows from the stages even when it is overdue: other stages bring it anew.
func (k Kind) replanned() bool { return k == TakeOut || k == Fridge || k == Ready || k == Check }

// Planned is something to do at a minute of a bake.
type Planned struct {
	Kind    Kind
	DueMin  float64 // from when it went in
	Text    message.Message
	Caution message.Message // where it burns; else empty
}

// Cautions, where a call burns.
var (
	steamOut = message.New("Lift it away from you: steam escapes all at once.")
	hotDish  = message.New(
		"Boiling fruit and sugar burn worse than water. Use dry cloths; never set hot glass or stoneware on anything cold or wet.",
	)
	hotHandle = message.New("The handle is as hot as the oven.")
	heavy     = message.New("Pull the shelf out; do not reach over it.")
	coalsOut  = message.New("Outdoors only: coals give off carbon monoxide. Lift the lid level.")
	eggCold   = message.New(
		"Put an egg custard into the fridge within 2 hours, sooner in a hot room; keep it at 5 C or below. Follow the local food code.",
	)
)

// Dessert is what is known of the dessert that is watched, in addition to its stages.
type Dessert struct {
	Slices   bool       // it is cut, not spooned
	Custard  bool       // egg: it has to be cold in time
	Material string     // of its dish
	LateAt   float64    // a second topping goes on; 0: there is none
	Fire     *oven.Fire // of a camp oven
	Plan     bake.Plan  // as it was when it went in
}

// Schedule is the calls of stages, in the order in which they are due.
func Schedule(d Dessert, stages []bake.Stage) []Planned {
	var out []Planned
	call := func(kind Kind, due float64, caution, text message.Message) {
		out = append(out, Planned{kind, due, text, caution})
	}
	total := 0.0
	for i, s := range stages {
		if i > 0 {
			change(call, total, stages[i-1], s)
		}
		total += s.Minutes
	}
	if p := d.Plan; total > 20 && d.Fire == nil {
		call(Turn, min(p.TurnAt, total/2), heavy, message.New("Turn the dish"))
	}
	if at := min(d.Plan.CheckFrom, 0.9*total); at > 0 && at < total-1 {
		look := message.New("Check: is the middle bubbling? Is the top golden?")
		if d.Custard {
			look = message.New("Check: does the middle tremble, without ripples?")
		}
		call(Check, at, message.Message{}, look)
	}
	if d.LateAt > 0 && d.LateAt < total {
		call(Topping, d.LateAt, heavy, message.New("Put the second topping on"))
	}
	if d.Fire != nil {
		t := d.Fire.Tend([]float64{total}, []float64{stages[0].OvenC})
		for _, m := range t.TurnAt {
			call(TurnPot, m, coalsOut, message.New("Turn the pot one way and the lid the other, a third of a turn each"))
		}
		for _, m := range t.RenewAt {
			c := d.Fire.Coals(stages[0].OvenC)
			call(
				NewCoals,
				m,
				coalsOut,
				message.New("Fresh coals: {above} on the lid, {below} below", message.Count(c.Above), message.Count(c.Below)),
			)
		}
	}
	out = append(out, after(d, total)...)
	slices.SortStableFunc(out, func(a, b Planned) int { return cmp.Compare(a.DueMin, b.DueMin) })
	return out
}

// after are the calls from the oven to the table.
func after(d Dessert, out float64) []Planned {
	take := hotDish
	if d.Material == "cast_iron" {
		take = message.Sentences(hotDish, hotHandle)
	}
	calls := []Planned{{TakeOut, out, message.New("Take it out"), take}}
	p := d.Plan
	if p.FridgeMin > 0 {
		caution := message.Message{}
		if d.Custard {
			caution = eggCold
		}
		calls = append(calls, Planned{Fridge, out + p.RackMin, message.New("Put it into the fridge"), caution})
	}
	ready := message.New("Ready to serve")
	if d.Slices {
		ready = message.New("Ready to cut")
	}
	return append(calls, Planned{Ready, out + p.ServeFrom, ready, message.Message{}})
}

// change calls what is different from one stage to the next.
func change(call func(kind Kind, due float64, caution, text message.Message), at float64, was, is bake.Stage) {
	if c, d := was.Covered(), is.Covered(); c != d {
		if c != "" {
			call(Uncover, at, steamOut, bake.TakeOff[c])
		}
		if d != "" {
			call(Cover, at, heavy, bake.PutOn[d])
		}
	}
	if is.OvenC != was.OvenC {
		call(Heat, at, message.Message{}, bake.TurnTo(was.OvenC, is.OvenC))
	}
	if is.Shelf != was.Shelf && is.Shelf != "" {
		call(Shelf, at, hotDish, message.New("Move it to the {shelf} shelf", message.Word(is.Shelf)))
	}
	if is.Heating != was.Heating {
		call(Heat, at, message.Message{}, message.New("Set the oven to {heating}", message.Part(heatingWords[is.Heating])))
	}
	if is.PushUnder {
		call(Push, at, hotDish, message.New("Push the crust into the juice here and there"))
	}
	if is.AddTopping {
		call(Topping, at, heavy, message.New("Put the topping on"))
	}
	if is.Turn {
		call(Turn, at, heavy, message.New("Turn the dish"))
	}
}

var heatingWords = map[string]message.Message{
	"":             message.New("top and bottom heat"),
	"conventional": message.New("top and bottom heat"),
	"fan":          message.New("fan"),
	"bottom":       message.New("bottom heat"),
}
