package balance

import (
	"slices"
	"strings"

	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/topping"
)

// aboutGluten warns where one part was made gluten-free and another was not.
func aboutGluten(_ *plan, _ candidate, a *Answer, out *[]Remark) {
	free, from := false, []string{} // names
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			i, _ := larder.Ingredients.Get(l.Key)
			free = free || l.Key == "gf_flour_blend"
			if slices.ContainsFunc(i.Allergens, func(x string) bool { return strings.HasPrefix(x, "gluten") }) &&
				!slices.Contains(from, larder.Short(string(l.Name))) {
				from = append(from, larder.Short(string(l.Name)))
			}
		}
	}
	if free && len(from) > 0 {
		remark(
			out,
			"gluten_left",
			Warning,
			AtTopping,
			message.New("It still contains gluten."),
			message.New(
				"The flour of the dough is gluten-free, but the rest contains {flours}.",
				message.And(names(from)...),
			),
			message.New("Change that as well: \"For a diet\", below the ticket, suggests how."),
		)
	}
}

// aboutCustard has the cautions of eggs.
func aboutCustard(p *plan, _ candidate, _ *Answer, out *[]Remark) {
	if p.custard == nil {
		return
	}
	remark(
		out,
		"custard_heat",
		Caution,
		AtBake,
		message.New("Cook the middle of the custard to 71 C or more."),
		message.New("It is set at 82 to 92 C, when the middle trembles but no longer ripples."),
		message.New("Above 95 C a custard without flour curdles. Use a probe."),
	)
	remark(
		out,
		"custard_cold",
		Caution,
		AtBake,
		message.New(
			"Cool it and put it into the fridge within 2 hours (1 hour in a room above 32 C); keep it at 5 C or below.",
		),
		message.New("Local codes differ, and some say 90 minutes."),
		message.Message{},
	)
	if p.custard[0].G == 0 {
		remark(
			out,
			"no_egg",
			Warning,
			AtJuice,
			message.New("There is no egg in the custard."),
			message.New("Flour alone sets it like a thick sauce."),
			message.New("Add eggs: 100 parts are usual."),
		)
	}
}

func aboutSafety(p *plan, _ candidate, a *Answer, out *[]Remark) {
	remark(
		out,
		"hot_syrup",
		Caution,
		AtBake,
		message.New("Boiling fruit and sugar burn worse than water."),
		message.Message{},
		message.New("A tray under the dish keeps spilled syrup off the element."),
	)
	if p.material.Brittle() {
		remark(
			out,
			"thermal_shock",
			Caution,
			AtBake,
			p.book.New("Hot {material} must not touch anything cold or wet.", larder.Called(p.material.Name)),
			message.New("It cracks."),
			message.New("Set it on a dry board or rack, and never take it from the freezer into a hot oven."),
		)
	}
	if p.req.Dish.Material == "cast_iron" {
		remark(out, "hot_handle", Caution, AtBake,
			message.New("The handle of an iron pan is as hot as the oven, long after it is out."),
			message.Message{},
			message.New("Leave a cloth over the handle."))
	}
	if p.greasing() == greaseSling {
		remark(out, "paper_heat", Caution, AtBake,
			message.New("Baking paper chars, and can catch fire."),
			message.Message{},
			message.New("Trim what stands up over the rim, keep it from the element, and stay below the heat on its pack."))
	}
	if hasIngredient(a.Ticket, "honey") {
		remark(out, "honey_infants", Caution, AtBake,
			message.New("No honey for infants under 12 months, baked or not."),
			message.New("Honey can carry spores that baking does not kill."),
			message.New("Say so where it is served, or use another syrup."))
	}
	what := message.New("Raw flour is not for tasting.")
	if slices.ContainsFunc(
		slices.Concat(p.top.Parts, p.under.Parts),
		func(x topping.Part) bool { return x.Ingredient.Role == "egg" },
	) ||
		p.custard != nil {
		what = message.New("Raw flour and raw egg are not for tasting.")
	}
	remark(out, "raw_flour", Caution, AtTopping, what, message.Message{}, message.Message{})
}

func hasIngredient(ticket []Bowl, key string) bool {
	return slices.ContainsFunc(ticket, func(b Bowl) bool {
		return slices.ContainsFunc(b.Lines, func(l Line) bool { return l.Key == key })
	})
}
