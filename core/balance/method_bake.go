package balance

import (
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/topping"
)

func (p *plan) parBake() message.Message {
	b := p.base
	if b.ParBakeWeightedMin == 0 {
		return p.book.New(
			"Bake the base alone at {heat} for {minutes} min, to pale gold, on a low shelf.",
			message.OvenHeat(b.ParBakeC),
			message.Number(b.ParBakeOpenMin, 0),
		)
	}
	return p.book.New(
		"Prick it and line it with paper and weights. Bake at {heat} for {weighted} min, take the weights out, and bake {open} min more, to pale gold. Push slipped walls back up while they are hot.",
		message.OvenHeat(b.ParBakeC),
		message.Number(b.ParBakeWeightedMin, 0),
		message.Number(b.ParBakeOpenMin, 0),
	)
}

// assemble is how the dessert is put together, by its style.
func (p *plan) assemble() message.Message {
	if p.custard != nil {
		if p.wanted.Topping.None() {
			return message.Message{} // the custard was poured over the fruit: that is all
		}
		return message.New("Crumble the topping over it; it may sink a little.")
	}
	if p.wanted.Topping.None() {
		return p.book.Sentences(message.New("Fill the dish and level it without pressing."), p.pour())
	}
	if n := p.wanted.Topping.Layers; n > 1 {
		return p.book.Sentences(p.book.New(
			"{Topping} and fruit in layers: {n} layers of {much} with fruit between them, the last on top. Do not fill to the brim.",
			larder.Called(p.wanted.Topping.Name),
			message.Number(n, 0),
			message.Grams(p.top.G/n),
		), p.pour())
	}
	if p.wanted.Topping.Family == "pastry" && p.style.Lid {
		return message.New("Fill the holes between the slices, put the lid on, press it to the rim, and cut vents.")
	}
	if p.style.Pours == larder.PourBetween {
		return p.book.Sentences(p.pour(), message.New(p.style.Assembly))
	}
	return p.book.Sentences(message.New(p.style.Assembly), p.pour())
}

// pour is the liquid that goes over the fruit in the dish.
func (p *plan) pour() message.Message {
	if !p.poursOver() {
		return message.Message{}
	}
	m := recipe{plan: p}
	liquids := m.among(p.filling.Liquids, "liquid", "syrup")
	switch {
	case len(liquids) == 0:
		return message.Message{}
	case p.style.Pours == larder.PourBeforeLast:
		return p.book.New("Pour the {liquid} over before the last crumbs.", message.And(liquids...))
	}
	return p.book.New("Warm the {liquid} together and pour it between the layers.", message.And(liquids...))
}

// doneWhen is how a baker sees that it is done.
func (p *plan) doneWhen() message.Message {
	if p.custard != nil {
		return message.New("It is done when the middle trembles but no longer ripples.")
	}
	if p.wanted.Topping.None() {
		return message.New("It is done when it bubbles in the middle and a skewer goes in easily.")
	}
	if p.wanted.Topping.Family == "pastry" && p.style.Lid {
		return message.New("It is done when the lid is deep golden and the juice bubbles thickly through the vents.")
	}
	return message.New(p.style.Done)
}

func (p *plan) restWords() message.Message { return message.New(p.style.Rest) }

// checks are what has to be right before the oven door closes, for this very dessert.
func (p *plan) checks() []Doing {
	out := make([]Doing, 0, usualSteps)
	check := func(code string, text message.Message) { out = append(out, Doing{Code: code, Text: text}) }
	has := func(role string) bool {
		for _, x := range append([]topping.Sized{p.top, p.under}, p.late...) {
			for _, part := range x.Parts {
				if part.Ingredient.Role == role && part.G > 0 {
					return true
				}
			}
		}
		return false
	}
	check("preheated", message.New("The oven is up to temperature"))
	if has("salt") {
		check("salt", message.New("Salt is in"))
	}
	if has("egg") || p.custard != nil {
		check("egg", message.New("Egg is in"))
	}
	if has("leavener") {
		check("leavener", message.New("Baking powder is in"))
	}
	for _, w := range p.filling.Extras {
		if w.Ingredient.Role == "spice" || w.Ingredient.Role == "flavour" {
			check("spice", message.New("Spice and flavour are in"))
			break
		}
	}
	if p.base.UpTheSides && p.req.Base.ParBaked {
		check("pricked", message.New("The base is pricked"))
	}
	if p.wanted.Topping.Family == "pastry" {
		check("vented", message.New("The lid is vented"))
	}
	for _, x := range p.finishes {
		if x.When == "before" {
			check("washed", p.book.New("{Finish} is on", message.Name(x.Name)))
		}
	}
	check("rim", message.New("The rim is wiped"))
	check("tray", message.New("A tray is under it"))
	return out
}
