package balance

import (
	"math"

	"mabbin/core/filling"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/units"
)

func aboutShares(p *plan, _ candidate, _ *Answer, out *[]Remark) {
	off := func(whole float64) bool { return math.Abs(p.shareSum-whole) > 0.005*whole }
	if len(p.filling.Pieces) > 1 && off(1) && off(100) {
		var parts []message.Message
		for _, x := range p.filling.Pieces {
			parts = append(parts, p.book.New("{share} % {fruit}", message.Number(100*x.Share, 0), larder.Called(x.Fruit.Name)))
		}
		remark(
			out,
			"shares_scaled",
			Note,
			AtFruit,
			p.book.New("The shares add up to {sum} %.", message.Number(100*p.shareSum, 0)),
			p.book.New(
				"They are scaled to 100 %: {shares}.",
				p.book.Part(p.book.Join(", ", parts...)),
			),
			message.New("Change a share if this is not what you want."),
		)
	}
}

// fruitCautions are the parts of a fruit that must not be eaten.
var fruitCautions = map[string]message.Message{
	"rhubarb": message.New("Rhubarb leaves are poisonous: cut every bit of leaf away."),
	"apricot": message.New(
		kernels,
	),
	"peach":        message.New(kernels),
	"plum":         message.New(kernels),
	"damson":       message.New(kernels),
	"cherry_sour":  message.New(kernels),
	"cherry_sweet": message.New(kernels),
	"nectarine":    message.New(kernels),
}

const kernels = "The kernels of stone fruit are poisonous: do not grind or infuse them."

func aboutEachFruit(p *plan, _ candidate, _ *Answer, out *[]Remark) {
	text, bruised := map[string]bool{}, false
	for i, x := range p.filling.Pieces {
		if c := fruitCautions[x.Fruit.Key]; !c.IsZero() && !text[c.Format] {
			text[c.Format] = true
			remark(out, "poisonous_parts", Caution, AtFruit, c, message.Message{}, message.Message{})
		}
		if loss := p.req.Fruits[i].LossPct; loss > 0 && !bruised {
			bruised = true
			remark(
				out,
				"windfalls",
				Caution,
				AtFruit,
				message.New("Windfalls: wash them, cut out bruises, and throw mouldy ones away whole."),
				message.New("Baking does not destroy mould toxins."),
				message.Message{},
			)
		}
	}
}

func aboutPrecook(p *plan, _ candidate, _ *Answer, out *[]Remark) {
	for _, x := range p.filling.Pieces {
		if p.filling.Precook.Minutes > 0 && !x.Raw {
			continue
		}
		switch x.Fruit.Precook {
		case "required":
			remark(
				out,
				"precook_required",
				Warning,
				AtFruit,
				p.book.New("{Fruit} needs cooking first.", larder.Called(x.Fruit.Name)),
				p.book.New(
					"At boiling point it takes {minutes} min to turn tender, longer than the topping can bake.",
					message.Number(x.Fruit.TenderMin, 0),
				),
				p.cookFirst("Simmer it under a lid until a skewer goes in, and enter the minutes under Fruit."),
			).About = x.Fruit.Key
		case "advised":
			remark(
				out,
				"precook_advised",
				Advice,
				AtFruit,
				p.book.New("{Fruit} is better cooked first.", larder.Called(x.Fruit.Name)),
				message.New(
					"Raw, it makes the filling watery or stays hard.",
				),
				p.cookFirst("Cook it on the hob for a few minutes, and enter them under Fruit."),
			).About = x.Fruit.Key
		}
	}
}

// cookFirst is how a fruit is cooked first: of a mixture, it alone.
func (p *plan) cookFirst(how string) message.Message {
	if len(p.filling.Pieces) < 2 {
		return message.New(how)
	}
	return p.book.Sentences(message.New(how), message.New("The rest of the fruit stays raw."))
}

// aboutMixture speaks of fruits that turn tender at very different times.
func aboutMixture(p *plan, _ candidate, _ *Answer, out *[]Remark) {
	if len(p.filling.Pieces) < 2 {
		return
	}
	const much = 2.5 // times the other's minutes
	tender := func(x filling.Piece) float64 { return x.Fruit.TenderAt(x.Cut()) }
	slow, quick := p.filling.Pieces[0], p.filling.Pieces[0]
	for _, x := range p.filling.Pieces[1:] {
		if tender(x) > tender(slow) {
			slow = x
		}
		if tender(x) < tender(quick) {
			quick = x
		}
	}
	if slow.Fruit.Counted() && tender(slow) > much*tender(quick) {
		remark(
			out,
			"uneven_mixture",
			Advice,
			AtFruit,
			p.book.New(
				"Cut the {slow} smaller than the {quick}.",
				larder.Called(slow.Fruit.Name),
				larder.Called(quick.Fruit.Name),
			),
			p.book.New(
				"At these cuts one is tender after {slow} min at boiling point, the other after {quick} min.",
				message.Number(tender(slow), 0),
				message.Number(tender(quick), 0),
			),
			message.New("Choose a smaller cut under Fruit."),
		)
	}
}

func aboutAir(p *plan, s candidate, _ *Answer, out *[]Remark) {
	for _, w := range p.filling.Liquids {
		if w.Ingredient.Role == "acid" && w.G > 0 {
			return
		}
	}
	const bland = 0.4 // % acid; below, sugar has nothing to stand against
	if lemon, ok := p.req.Own.Ingredient("lemon_juice"); ok && s.AcidPct < bland && p.req.Sweetness != "savoury" {
		g := s.FruitG * (0.5 - s.AcidPct) / (lemon.AcidPct - 0.5)
		remark(
			out,
			"bland",
			Note,
			AtFruit,
			message.New("The fruit is bland."),
			p.book.New(
				"It has {acid} % acid; below {least} % it tastes only sweet.",
				message.Number(s.AcidPct, 1),
				message.Number(bland, 1),
			),
			p.book.New(
				"Add {juice} of lemon juice ({lemons}) under Fruit: sugar and thickener are adjusted.",
				message.Grams(g),
				p.book.Part(pieces(units.Conventions{}, lemon, g)),
			),
		)
	}
	for _, x := range p.filling.Pieces {
		if x.Fruit.BrownsInAir && !x.Frozen {
			remark(
				out,
				"browns_in_air",
				Note,
				AtFruit,
				p.book.New("{Fruit} turns brown in air.", larder.Called(x.Fruit.Name)),
				message.New("Cut faces darken within minutes."),
				message.New(
					"Toss it with lemon juice as you cut, and enter the grams under Fruit: sugar and thickener are adjusted.",
				),
			)
			return
		}
	}
}
