package balance

import (
	"math"
	"strings"

	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/topping"
)

// Doing is one step of the method, in the order of the work.
type Doing struct {
	Code string          `json:"code"`
	Text message.Message `json:"text"`
}

// Kept is something made ahead or left over, and what becomes of it.
type Kept struct {
	What message.Message `json:"what"`
	How  message.Message `json:"how"`
}

// usualSteps is how many steps a method or a check usually has.
const usualSteps = 12

// method is what to do for this very dessert: which bowl, in what order, how it should look, what waits meanwhile.
func (p *plan) method(s stand) []Doing {
	out := make([]Doing, 0, usualSteps)
	step := func(code string, lines ...message.Message) {
		out = append(out, Doing{code, message.Sentences(lines...)})
	}
	if how := greasingHow[p.greasing()]; !how.IsZero() {
		step("dish", message.New("Ready the dish."), how)
	}
	if p.base.UpTheSides {
		step("base", message.New("Make the base, chill it, and line the dish."), p.howBase())
	} else if p.under.G > 0 {
		step("base", message.New("Make the base."), p.howBase())
	}
	if p.under.G > 0 && p.base.ParBakeC > 0 && p.req.Base.ParBaked {
		step("par_bake", p.parBake())
	}
	if t := p.wanted.Topping; t.Family != "biscuit" {
		step(
			"topping",
			message.New("Make the topping: {name}.", message.Name(larder.Plain(t.Name))),
			p.howTopping(),
			waits(t),
		)
	}
	step("fruit", p.howFruit())
	if m := p.filling.Macerate; m.Minutes > 0 {
		step(
			"macerate",
			message.New("Toss with the sugar and leave it for {minutes} min.", message.Number(m.Minutes, 0)),
			map[string]message.Message{
				"leave":  message.New("Lift the fruit out and leave the juice in the bowl."),
				"reduce": message.New("Pour the juice off, boil it down to half and put it back."),
			}[m.Juice],
		)
	}
	if p.custard == nil {
		dry := message.New(
			"Mix the thickener with the sugar, toss with the fruit, lift from below, and scrape all {much} into the dish.",
			message.Grams(s.FruitG+s.SugarG+p.filling.AddedG()+p.allThickenerG(s)),
		)
		if s.thickenerG < ticketG {
			dry = message.New("Toss the fruit with the sugar and scrape it all into the dish.")
		}
		step("dry", dry)
	} else {
		step(
			"custard",
			message.New(
				"Whisk sugar, flour and salt, then the eggs, without froth. Lay the fruit out, pour the custard over it.",
			),
		)
	}
	step("assemble", p.assemble())
	if p.wanted.Topping.Family == "biscuit" {
		step("topping", message.New("Make the biscuit at the last moment, when the oven is hot."), p.howTopping())
	}
	for _, x := range p.finishes {
		if x.When == "before" {
			step(
				"finish",
				message.New(
					"{Finish}, {much}, for {looks}.",
					message.Name(x.Name),
					message.Grams(x.GPerDM2*p.geo.RimAreaCM2/100),
					message.Word(x.Looks),
				),
			)
		}
	}
	step("bake", bakeWords[p.req.Style])
	for i := range p.late {
		step(
			"late",
			message.New(
				"Put the {topping} on late, for the last minutes, so that it does not burn.",
				called(p.dessert.late[i].Topping.Name),
			),
		)
	}
	step("rest", p.restWords())
	for _, x := range p.finishes {
		if x.When == "after" {
			step(
				"finish",
				message.New(
					"{Finish}, {much}: {looks}.",
					message.Name(x.Name),
					message.Grams(x.GPerDM2*p.geo.RimAreaCM2/100),
					message.Word(x.Looks),
				),
			)
		}
	}
	return out
}

// waits says what a topping does while the fruit is made ready.
func waits(t larder.Topping) message.Message {
	if strings.HasPrefix(t.MakeAhead, "fridge") {
		return message.New("It waits in the fridge meanwhile.")
	}
	return message.Message{}
}

func (p *plan) parBake() message.Message {
	b := p.base
	if b.ParBakeWeightedMin == 0 {
		return message.New(
			"Bake the base alone at {heat} for {minutes} min, to pale gold, low in the oven.",
			message.OvenHeat(b.ParBakeC),
			message.Number(b.ParBakeOpenMin, 0),
		)
	}
	return message.New(
		"Prick it, line it with paper and weights, bake at {heat} for {weighted} min, lift the weights out, and {open} min more, to pale gold. Push walls that slip back while they are hot.",
		message.OvenHeat(b.ParBakeC),
		message.Number(b.ParBakeWeightedMin, 0),
		message.Number(b.ParBakeOpenMin, 0),
	)
}

// assemble is how the dessert is put together, by its style.
func (p *plan) assemble() message.Message {
	switch p.req.Style {
	case "betty":
		return message.New(
			"Half the crumbs, {much}, on the floor, then the fruit, then the rest. Pour the liquid over. Never to the brim.",
			message.Grams(p.top.G/math.Max(1, p.wanted.Topping.Layers)),
		)
	case "cobbler":
		return message.New("Level the fruit; the dough goes on in pieces, with gaps for the steam: they close as it rises.")
	case "pandowdy":
		return message.New("Fill the holes between the slices. Lay the pastry on, leave peep-holes.")
	case "bar":
		return message.New("Spread the fruit to the edges on the base, not rammed tight; crumble the top over it.")
	case "pie":
		return message.New("Heap the fruit to the middle, fill the holes between the slices, and let the topping ride on it.")
	}
	return message.New(
		"Fill the dish, level it without ramming, strew the topping loosely, and leave gaps at the rim where the juice should be seen to bubble.",
	)
}

var bakeWords = map[string]message.Message{
	"crumble": message.New(
		"Bake, on a tray, until it bubbles at the middle, not only at the rim, and the top is golden.",
	),
	"crisp": message.New(
		"Bake, on a tray, until it bubbles at the middle and the top is deep golden and crisp to the knock.",
	),
	"cobbler": message.New(
		"Bake, on a tray, until the biscuits are gold and dry underneath when one is lifted, and the juice bubbles between them.",
	),
	"pandowdy": message.New(
		"Bake, on a tray. Push the crust down into the juice here and there when the plan says so, and bake on until it is glazed.",
	),
	"betty": message.New(
		"Bake until the juice bubbles at the middle, the fruit is tender to a skewer and the lid is crisp.",
	),
	"bar": message.New(
		"Bake until the top is golden and, with a custard, the middle no longer waves but trembles.",
	),
	"pie": message.New(
		"Bake on a hot tray, until it bubbles thickly at the middle and the base is brown through.",
	),
}

func (p *plan) restWords() message.Message {
	switch p.req.Style {
	case "bar":
		return message.New("Let it grow cold in the pan before the knife. A wiped knife for each cut; a corner first.")
	case "pie":
		return message.New(
			"Rest it for hours, to lukewarm at the most: hot juice is thin and thickens as it cools. A short crust is fragile while warm: unmould late.",
		)
	}
	return message.New("Let it stand as long as the plan says: hot juice is thin, and thickens as it cools.")
}

// checks are what has to be right before the oven door closes, for this very dessert.
func (p *plan) checks() []Doing {
	out := make([]Doing, 0, usualSteps)
	check := func(code string, text message.Message) { out = append(out, Doing{code, text}) }
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
	check("preheated", message.New("The oven is really hot"))
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
	if p.base.UpTheSides {
		check("pricked", message.New("The base is pricked"))
	}
	if p.wanted.Topping.Family == "pastry" || p.req.Style == "pandowdy" {
		check("vented", message.New("The lid is vented"))
	}
	for _, x := range p.finishes {
		if x.When == "before" {
			check("washed", message.New("{Finish} is on", message.Name(x.Name)))
		}
	}
	check("rim", message.New("The rim is wiped"))
	check("tray", message.New("A tray is under it"))
	return out
}

// ahead is what can be made days before, and how it keeps.
func (p *plan) ahead() []Kept {
	out := []Kept{made(p.wanted.Topping.Name, message.New(p.wanted.Topping.MakeAhead))}
	for _, w := range p.dessert.late {
		out = append(out, made(w.Topping.Name, message.New(w.Topping.MakeAhead)))
	}
	if p.under.G > 0 {
		out = append(
			out,
			made(p.base.Name, message.New("lined and chilled 2 days, frozen 1 month; par-baked 1 day, airtight")),
		)
	}
	if p.custard == nil && p.thickener.Freeze != "" {
		out = append(
			out,
			Kept{message.New("The filling, frozen"), message.New("its thickener {freezes}", message.Word(p.thickener.Freeze))},
		)
	}
	return out
}

// made is a thing of the tables that is made ahead.
func made(name string, how message.Message) Kept {
	return Kept{message.New("{Name}", called(name)), how}
}

// Reviving a dried-out dessert: jam and water for each portion that is left, in g. Working figures.
const (
	reviveJuiceG = 20.0
	reviveMin    = 15.0
	reviveC      = 160.0
)

// leftovers is what is left of each thing, and a use for it.
func (p *plan) leftovers(a *Answer) []Kept {
	var out []Kept
	for _, b := range a.Purchase {
		if !b.Use.IsZero() {
			out = append(out, Kept{message.New("{much} of prepared {fruit}", message.Grams(b.LeftOverG), called(b.Name)), b.Use})
		}
	}
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			if i, ok := p.req.Own.Ingredient(l.Key); ok && i.Role == "egg" {
				if _, left := cracked(p.conventions(), i, l.G); left >= eggLeftG {
					out = append(out, Kept{message.New("{much} of {egg}", message.Grams(left), called(l.Name)), eggUses[i.Key]})
				}
			}
		}
	}
	if p.base.UpTheSides || p.wanted.Topping.Family == "pastry" {
		out = append(
			out,
			Kept{
				message.New("Trimmings of the dough"),
				message.New("press together once and cut leaves for the top, or bake them with cinnamon sugar"),
			},
		)
	}
	out = append(
		out,
		Kept{
			message.New("A portion of the next day that has dried"),
			message.New(
				"spoon {juice} of fruit juice round its edge, warm it {minutes} min at {heat} under foil, and take the foil off for the last third",
				message.Grams(reviveJuiceG),
				message.Number(reviveMin, 0),
				message.OvenHeat(reviveC),
			),
		},
	)
	return out
}

// Served is something to serve with a dessert.
type Served struct {
	Name  message.Message `json:"name"`
	EachG float64         `json:"each_g"` // a portion
	AllG  float64         `json:"all_g"`
}

// besides are the usual accompaniments, in g a portion. Handbook practice.
var besides = []struct {
	name message.Message
	g    float64
}{
	{message.New("pouring cream"), 40},
	{message.New("warm custard"), 70},
	{message.New("ice cream"), 60},
	{message.New("soured cream or yogurt"), 45},
}

func beside(portions float64, size string) []Served {
	out := make([]Served, len(besides))
	for i, b := range besides {
		each := b.g * portionShare[size]
		out[i] = Served{b.name, each, each * portions}
	}
	return out
}
