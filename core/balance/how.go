package balance

import (
	"math"
	"slices"
	"strings"

	"mabbin/core/filling"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/topping"
)

func (p *plan) howFruit() message.Message {
	if p.filling.Precook.Minutes > 0 {
		return message.New("Prepare and weigh the fruit; the weight in the bowl replaces this figure.")
	}
	if !slices.ContainsFunc(p.filling.Pieces, func(x filling.Piece) bool { return !x.Frozen }) {
		return message.New("Weigh the fruit frozen and do not thaw it: thawed fruit loses juice before the bake.")
	}
	return message.New(
		"Prepare the fruit, try it in the empty dish, and weigh it; the weight in the bowl replaces this figure.",
	)
}

// howDough is how a topping is made, by its family.
func howDough(t larder.Topping, x topping.Sized) message.Message {
	melted := strings.Contains(t.Name, "melted")
	switch t.Family {
	case "biscuit":
		schedule := message.New("Drop it by the spoonful, with gaps for the steam.")
		switch x.Read().Dough {
		case topping.Rolls:
			schedule = message.New("Pat or roll it out and cut; press the scraps together once.")
		case topping.Crumbles:
			schedule = message.New("Crumble it over the fruit in pieces of different sizes.")
		}
		rub := message.New("Rub the cold fat into the dry ingredients until it looks like coarse crumbs.")
		if byOil(x) {
			rub = oilHow
		}
		return message.Sentences(
			rub,
			foldIn(x),
			message.New(
				"Add the liquid, the last of it only if the dough needs it, and stop as soon as the dough holds together.",
			),
			schedule,
		)
	case "pastry":
		switch {
		case t.Key == "puff_squares":
			return message.New("Cut it cold with a sharp knife, and put the pieces on just before baking.")
		case strings.HasSuffix(t.Parts[0].Key, "_pastry"):
			return message.New("Unroll it cool, cut it to the rim, put it on just before baking, and cut vents.")
		}
		return message.New("Rub the cold butter into the flour, bring it together with the water, chill, and roll it out.")
	case "betty":
		return message.New("Toss the crumbs with the melted butter.")
	case "praline":
		return message.New(
			"Melt the sugar and syrup with the butter and stir in the nuts. Put it on for the last minutes of the bake.",
		)
	case "bar":
		rub := message.New("Rub in the butter until it clumps.")
		if byOil(x) {
			rub = oilHow
		}
		if slices.ContainsFunc(x.Parts, func(p topping.Part) bool { return p.Ingredient.Role == "egg" && p.G > 0 }) {
			rub = message.Sentences(rub, message.New("Bind it with the egg."))
		}
		return message.Sentences(rub, message.New("Crumble this part over the fruit."))
	}
	if byOil(x) {
		return message.Sentences(oilHow, message.New("Keep some lumps."))
	}
	if melted {
		return fatHow["melted"]
	}
	return fatHow["cold"]
}

// oilHow is how a dough takes oil: there is nothing to rub.
var oilHow = message.New("Stir the oil into the dry ingredients with a fork until no dry flour is left.")

// byOil says that all the fat of a dough is oil.
func byOil(x topping.Sized) bool {
	oil := false
	for _, p := range x.Parts {
		if p.Ingredient.Role != "fat" || p.G <= 0 {
			continue
		}
		if p.Ingredient.Key != "sunflower_oil" && p.Ingredient.Key != "olive_oil" {
			return false
		}
		oil = true
	}
	return oil
}

// foldIn says when a biscuit dough takes what it carries in pieces: after the fat, so that it isn't rubbed to dust, and
// before the liquid, so that the dough isn't worked once it is wet.
func foldIn(x topping.Sized) message.Message {
	var folds []string
	for _, p := range x.Parts {
		if folded[p.Ingredient.Role] && p.Ingredient.Key != "ground_almonds" && p.G > 0 {
			folds = append(folds, larder.Short(p.Ingredient.Name))
		}
	}
	if len(folds) == 0 {
		return message.Message{}
	}
	return message.New("Fold in the {things} now, after the fat and before the liquid.", message.And(names(folds)...))
}

// fatHow is how a crumb is made, by the state of its fat.
var fatHow = map[string]message.Message{
	"cold": message.New(
		"Rub the cold fat into the flour until no dry flour is left, then stir in the rest. Keep some lumps.",
	),
	"soft": message.New(
		"Work the soft fat through the dry things with a fork until it clumps. This is quick: stop while there is still some loose crumb.",
	),
	"melted": message.New("Melt the butter, fork it into the dry ingredients, and leave the clumps."),
}

// crumbHow is the wanted size of crumb.
var crumbHow = map[string]message.Message{
	"fine": message.New("Rub in until fine and even: a fine crumb is dense and lets little steam through."),
	"chunks": message.New(
		"Squeeze some of it together and break it into chunks: chunks stay crunchy and let steam out.",
	),
}

// howTopping is how the topping is made, with what the baker wants of it.
func (p *plan) howTopping() message.Message {
	t := p.req.Topping
	how := howDough(p.wanted.Topping, p.top)
	switch {
	case !workable[p.wanted.Topping.Family] || byOil(p.top):
	case t.Tool != "":
		how = p.book.Sentences(toolHow[t.Tool], p.batchesText(), foldIn(p.top))
		if p.wanted.Topping.Family == "biscuit" {
			how = p.book.Sentences(
				how,
				message.New("Stir the liquid in by hand, the last of it only if the dough needs it."),
			)
		}
	case crumbly[p.wanted.Topping.Family] && t.FatState != "":
		how = fatHow[t.FatState]
	}
	if slices.ContainsFunc(
		p.top.Parts,
		func(x topping.Part) bool { return x.Ingredient.Role == "nut" && x.Ingredient.Key != "ground_almonds" },
	) {
		how = p.book.Sentences(how, toast)
		if p.wanted.Topping.Family != "biscuit" {
			how = p.book.Sentences(how, message.New("Add these last."))
		}
	}
	if crumbly[p.wanted.Topping.Family] {
		how = p.book.Sentences(how, crumbHow[t.Crumb])
	}
	return how
}

// toast is what nuts taste of.
var toast = message.New("Toast the nuts first, 8 min at {heat}, and let them cool.", message.OvenHeat(160))

// crumbly are the families that are rubbed or forked.
var crumbly = map[string]bool{"crumble": true, "crisp": true, "streusel": true}

// workable are the families whose fat is worked into flour, by whatever tool.
var workable = map[string]bool{"crumble": true, "crisp": true, "streusel": true, "biscuit": true}

// toolHow is how each tool works the fat in.
var toolHow = map[string]message.Message{
	"fingers": message.New("Rub the cold fat into the flour with the fingertips, lifting it; stop at lumps of a pea."),
	"grater":  message.New("Grate the fat frozen into the flour, toss it, and press here and there until it clumps."),
	"fork":    message.New("Melt the fat, fork it into the dry ingredients, and leave the clumps."),
	"mixer":   message.New("Work it on the lowest speed with the paddle, the fat in cubes; stop as soon as it clumps."),
	"processor": message.New(
		"Pulse the cold fat with the flour, a second at a time, to the size of peas and no further: it overworks quickly.",
	),
}

// A machine's bowl: its usual size, and how much of it may be filled. Handbook practice.
const (
	usualBowlML = 2000.0
	bowlShare   = 0.6
)

// lots is how many times a machine's bowl is filled for the topping.
func (p *plan) lots() float64 {
	bowl := p.req.Topping.BowlML
	if bowl <= 0 {
		bowl = usualBowlML
	}
	return math.Ceil(p.top.VolumeML / (bowlShare * bowl))
}

// batchesText is how many lots a machine makes it in; empty for one, and by hand.
func (p *plan) batchesText() message.Message {
	if t := p.req.Topping.Tool; t != "processor" && t != "mixer" || p.lots() < 2 {
		return message.Message{}
	}
	return p.book.New("Mix it in {n} batches: fill the bowl to {share} % at most.",
		message.Number(p.lots(), 0), message.Number(100*bowlShare, 0))
}

// howBase is how the base is made and put.
func (p *plan) howBase() message.Message {
	switch {
	case len(p.base.Parts) == 0:
		return message.Message{}
	case p.bought():
		return message.New(
			"Let the bought pastry rest 10 min, unroll it, line the dish without stretching it, and trim. Chill it again so that it keeps its shape. A ready-made shell only needs filling.",
		)
	case p.base.UpTheSides:
		return p.book.Sentences(p.book.New(
			"Rub in, bring together, chill before rolling so that it rolls. Roll to {thick} and a disc of {across}, line the dish, trim, and chill again so that it keeps its shape.",
			message.Millimetres(
				p.under.ThicknessMM,
			),
			message.Centimetres(math.Round(p.geo.FloorLenCM+2*p.wallCM()+2*overhangCM)),
		), p.trimmings())
	}
	return message.New("Press it in evenly and lightly until it holds: a base that is pressed hard bakes hard.")
}

// trimmings tells that a sheet is rolled larger than what stays in the dish.
func (p *plan) trimmings() message.Message {
	x := p.req.cuts().Shell(p.under, p.base.DensityGPerML, p.req.Dish, p.geo)
	if x.DoughG < p.under.G+leastLeftG {
		return message.Message{}
	}
	return p.book.New("For the whole sheet ({dough}), weigh {times} times these amounts; the rest is trimmings.",
		message.Grams(x.DoughG), message.Number(x.DoughG/p.under.G, 2))
}

// overhangCM is how much further than the rim a shell is rolled.
const overhangCM = 1.0

// wallCM is the length of the wall from floor to rim.
func (p *plan) wallCM() float64 {
	return math.Hypot(p.geo.DepthCM, (p.geo.RimLengthCM-p.geo.FloorLenCM)/2)
}

// prepNote is how one fruit is prepared.
func (p *plan) prepNote(i int) message.Message {
	piece, asked := p.filling.Pieces[i], p.req.Fruits[i]
	cut := piece.Cut()
	var text []message.Message
	if asked.Frozen {
		text = append(text, message.New("frozen"))
	}
	if piece.Fruit.Peelable() {
		if asked.Peeled == nil || *asked.Peeled {
			text = append(text, message.New("peeled"))
		} else if piece.Fruit.Group == "pome" { // of a plum nobody thinks otherwise
			text = append(text, message.New("unpeeled"))
		}
	}
	if piece.Fruit.Counted() {
		text = append(text, p.book.New("cut to {size}", message.Millimetres(cut)))
	}
	return p.book.Join(", ", text...)
}
