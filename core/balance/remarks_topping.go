package balance

import (
	"strings"

	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/topping"
)

func aboutTopping(p *plan, _ candidate, a *Answer, out *[]Remark) {
	t := a.Topping
	if p.wanted.Topping.None() {
		return
	}
	if w := p.wanted.Topping; !p.style.Takes(w.Family) {
		remark(
			out,
			"unusual_topping",
			Note,
			AtTopping,
			p.book.New("{Topping} is unusual on a {style}.", larder.Called(w.Name), message.Word(p.req.Style)),
			message.New("It is calculated as entered; no usual range of depths is known for it."),
			p.book.New("Usual is {families}.", message.Or(familyLines(p.style.Families)...)),
		)
		return
	}
	if f := p.wanted.Topping.Family; p.style.FillRule == larder.FillFloor && p.custard != nil || f == "pastry" ||
		f == "praline" {
		return // thin by its nature
	}
	sizes := p.book.New(
		"{topping} of topping on {fruit} of raw fruit; usual is {range}.",
		message.Millimetres(
			t.ThicknessMM,
		),
		message.Millimetres(t.FruitDepthMM),
		p.book.Range(message.Millimetres(t.RatioLow*t.FruitDepthMM), message.Millimetres(t.RatioHigh*t.FruitDepthMM)),
	)
	switch {
	case t.DepthRatio > t.RatioHigh:
		remark(
			out,
			"topping_thick",
			Advice,
			AtTopping,
			message.New("The topping is thick for the fruit."),
			sizes,
			message.New("Use less, or a deeper dish: under a thick topping the fruit cooks slowly and each bite is dry."),
		)
	case t.DepthRatio < t.RatioLow:
		remark(
			out,
			"topping_thin",
			Advice,
			AtTopping,
			message.New("The topping is thin for the fruit."),
			sizes,
			message.New("Use more, or a wider dish."),
		)
	}
	switch t.Texture.Fat {
	case "dusty":
		remark(
			out,
			"topping_dusty",
			Advice,
			AtTopping,
			message.New("The topping will be dusty."),
			p.book.New("Only {fat} % of it is fat; below 14 % it does not hold together.", message.Number(t.Texture.FatPct, 0)),
			message.New("Add fat, or a sprinkle of water to make it clump."),
		)
	case "spreads":
		remark(
			out,
			"topping_spreads",
			Advice,
			AtTopping,
			message.New("The topping will spread and turn greasy."),
			p.book.New("{fat} % of it is fat; over 29 % it melts together.", message.Number(t.Texture.FatPct, 0)),
			message.New("Use less fat or more flour."),
		)
	}
	switch t.Texture.Sugar {
	case "pale":
		remark(
			out,
			"topping_pale",
			Advice,
			AtTopping,
			message.New("The topping will stay pale."),
			p.book.New("Only {sugar} % of it is sugar; below 12 % it hardly browns.", message.Number(t.Texture.SugarPct, 0)),
			message.New("Add sugar, or brush it with egg or milk."),
		)
	case "candied":
		remark(
			out,
			"topping_candied",
			Advice,
			AtTopping,
			message.New("The topping will be hard and candied."),
			p.book.New("{sugar} % of it is sugar; over 38 % it sets like toffee.", message.Number(t.Texture.SugarPct, 0)),
			message.New("Use less sugar."),
		)
	}
}

// bettyPourShare is how much is usually poured over a betty, of its fruit.
const bettyPourShare = 0.08

// aboutBetty speaks of crumbs that take up more than the fruit gives at first.
func aboutBetty(p *plan, s candidate, _ *Answer, out *[]Remark) {
	if !p.style.Layered || p.poursAny() {
		return
	}
	remark(out, "betty_dry", Note, AtFruit,
		message.New("No liquid is poured over the crumbs."),
		message.New("Dry crumbs take up liquid before the fruit releases its juice, and stay hard in between."),
		p.book.New("Pour {much} of water or juice over, and enter it under Fruit.", message.Grams(bettyPourShare*s.FruitG)))
}

// aboutBiscuit says what a dough does under the hand, where that is not what its name says.
func aboutBiscuit(p *plan, _ candidate, a *Answer, out *[]Remark) {
	t := a.Topping.Texture
	if t.Dough == "" {
		return
	}
	usual := map[string]topping.Stiffness{
		"biscuit_drop": topping.Drops, "biscuit_rolled": topping.Rolls,
		"biscuit_crumbly": topping.Crumbles,
	}[p.wanted.Topping.Key]
	if usual != t.Dough {
		remark(
			out,
			"dough_"+string(t.Dough),
			Advice,
			AtTopping,
			p.book.New("The dough {does}.", p.book.Part(doughWords[t.Dough])),
			p.book.New(
				"Hydration is {hydration} %: below 52 % it is crumbly, up to 76 % it rolls, up to 105 % it drops, above that it is a batter.",
				message.Number(t.HydrationPct, 0),
			),
			p.book.New("For a dough that {does}, change the hydration.", p.book.Part(doughWords[usual])),
		)
	}
}

var doughWords = map[topping.Stiffness]message.Message{
	topping.Crumbles: message.New("crumbles"),
	topping.Rolls:    message.New("rolls"),
	topping.Drops:    message.New("drops from a spoon"),
	topping.Batter:   message.New("runs like a batter"),
}

// aboutBase speaks of what lies under the fruit.
func aboutBase(p *plan, s candidate, _ *Answer, out *[]Remark) {
	if p.under.G == 0 {
		if p.style.Slices {
			remark(
				out,
				"no_base",
				Note,
				AtTopping,
				p.book.New("This {style} has no base.", message.Word(p.req.Style)),
				message.New("It can be spooned but not cut."),
				message.New("Choose a base under Topping."),
			)
		}
		return
	}
	if wet := s.JuiceSharePct; p.base.ParBakeC > 0 && wet > soggyJuicePct && !p.req.Base.ParBaked {
		remark(
			out,
			"wet_base",
			Advice,
			AtTopping,
			message.New("An unbaked base would turn soggy."),
			p.book.New(
				"{share} % of the filling is juice: it keeps the base near 100 C, too cool to turn crisp.",
				message.Number(wet, 0),
			),
			p.parBake(),
		)
	}
	if strings.HasPrefix(p.req.Dish.Material, "glass") || p.material.Brittle() {
		remark(
			out,
			"slow_floor",
			Note,
			AtTopping,
			message.New("Glass and stoneware bake a base slowly."),
			message.New("They conduct heat badly."),
			message.New("Use a dark metal dish, or set it on a hot tray."),
		)
	}
}

// soggyJuicePct is the share of juice in a filling from which a raw base stays wet. Working figure.
const soggyJuicePct = 30.0
