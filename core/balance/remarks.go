package balance

import (
	"math"
	"slices"
	"strings"

	"mabbin/core/filling"
	"mabbin/core/larder"
	"mabbin/core/measure"
	"mabbin/core/message"
	"mabbin/core/slip"
	"mabbin/core/topping"
)

// Level is how much a remark matters.
type Level string

// The levels. A caution is about people, not about the dessert.
const (
	Note    Level = "note"
	Advice  Level = "advice"
	Warning Level = "warning"
	Caution Level = "caution"
)

// Remark says what, why and what to do, at the station where it belongs.
type Remark struct {
	Code    string          `json:"code"`
	Level   Level           `json:"level"`
	Station string          `json:"station"` // dish, fruit, juice, topping or bake
	What    message.Message `json:"what"`
	Why     message.Message `json:"why"`
	Do      message.Message `json:"do"`
}

// usualRemarks is how many remarks there usually are.
const usualRemarks = 8

// remarks is everything worth saying about a balanced dessert, the weightiest first within each station.
func (p *plan) remarks(s stand, a *Answer) []Remark {
	out := make([]Remark, 0, usualRemarks)
	for _, about := range []func(*plan, stand, *Answer, *[]Remark){
		aboutHeadspace, aboutShares, aboutEachFruit, aboutPrecook, aboutMixture, aboutAir, aboutSet, aboutSlips,
		aboutSweetness, aboutThickener, aboutTopping, aboutBiscuit, aboutBase, aboutCustard, aboutGluten, aboutSafety,
	} {
		about(p, s, a, &out)
	}
	return out
}

func remark(out *[]Remark, code string, l Level, station string, what, why, do message.Message) {
	*out = append(*out, Remark{code, l, station, what, why, do})
}

func aboutHeadspace(p *plan, s stand, a *Answer, out *[]Remark) {
	mm := s.headspaceMM
	less := s.FruitG - a.Fit.MostFruitG
	bigger := p.geo.VolumeML + (p.style.keepMM-mm)/10*p.geo.RimAreaCM2
	mend := message.New(
		"Take out {fruit} of fruit, or use a dish of {dish}. Put a tray under it.",
		message.Grams(less),
		message.Millilitres(bigger),
	)
	if less < ticketG { // it is not the fruit
		mend = message.New("Use a dish of {dish}. Put a tray under it.", message.Millilitres(bigger))
	}
	if a.Fit.MostFruitG < leastFruitG {
		mend = message.New(
			"The topping alone is too much for this dish: thinner, or a dish of {dish}. Put a tray under it.",
			message.Millilitres(bigger),
		)
	}
	switch {
	case mm < boilOverMM:
		remark(
			out,
			"boils_over",
			Warning,
			"dish",
			message.New("It will boil over."),
			message.New(
				"Boiling, the filling and topping stand {mm} above the rim.",
				message.Millimetres(math.Round(-mm)),
			),
			mend,
		)
	case mm < boilOverWarnMM:
		remark(
			out,
			"may_boil_over",
			Warning,
			"dish",
			message.New("It may boil over."),
			message.New("Boiling, only {mm} of rim are free.", message.Millimetres(math.Round(mm))),
			mend,
		)
	case a.Fit.LimitedBy == byHeadspace:
		remark(
			out,
			"headspace_limits",
			Note,
			"dish",
			message.New("The free rim decides how much fruit."),
			message.New(
				"Heaped as usual it would leave less than {mm} when it boils.",
				message.Millimetres(p.style.keepMM),
			),
			message.New("Nothing: the fruit is held back. Put a tray under the dish."),
		)
	}
	if s.headspaceMM > 25 && a.Fit.LimitedBy == byWeight {
		remark(out, "dish_half_empty", Advice, "dish", message.New("The dish is large for this fruit."),
			message.New("{mm} of rim stay free: the sides catch no colour and a thin filling dries.", message.Millimetres(mm)),
			message.New("Use a smaller dish, or up to {fruit} of fruit.", message.Grams(a.Fit.MostFruitG)))
	}
}

func aboutShares(p *plan, _ stand, _ *Answer, out *[]Remark) {
	off := func(whole float64) bool { return math.Abs(p.shareSum-whole) > 0.005*whole }
	if len(p.filling.Pieces) > 1 && off(1) && off(100) {
		var parts []message.Message
		for _, x := range p.filling.Pieces {
			parts = append(parts, message.New("{share} % {fruit}", message.Number(100*x.Share, 0), called(x.Fruit.Name)))
		}
		remark(
			out,
			"shares_scaled",
			Note,
			"fruit",
			message.New("The shares added up to {sum} %.", message.Number(100*p.shareSum, 0)),
			message.New(
				"They were scaled to 100 %: {shares}.",
				message.Part(message.Join(", ", parts...)),
			),
			message.New("Change a share if another one was meant."),
		)
	}
}

// plainName is a name in a sentence, without what stands after its comma.
func plainName[T ~string](name T) string {
	plain, _, _ := strings.Cut(larder.Plain(string(name)), ",")
	return plain
}

// called is a name of the tables in a sentence.
func called[T ~string](name T) message.Arg { return message.Name(plainName(name)) }

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

func aboutEachFruit(p *plan, _ stand, _ *Answer, out *[]Remark) {
	said, bruised := map[string]bool{}, false
	for i, x := range p.filling.Pieces {
		if c := fruitCautions[x.Fruit.Key]; !c.IsZero() && !said[c.Format] {
			said[c.Format] = true
			remark(out, "poisonous_parts", Caution, "fruit", c, message.Message{}, message.Message{})
		}
		if loss := p.req.Fruits[i].LossPct; loss > 0 && !bruised {
			bruised = true
			remark(
				out,
				"windfalls",
				Caution,
				"fruit",
				message.New("Windfalls: wash them, cut out bruises, throw mouldy ones away whole."),
				message.New("Baking does not destroy the toxin of mould."),
				message.Message{},
			)
		}
	}
}

func aboutPrecook(p *plan, _ stand, _ *Answer, out *[]Remark) {
	if p.filling.Precook.Minutes > 0 {
		return
	}
	for _, x := range p.filling.Pieces {
		switch x.Fruit.Precook {
		case "required":
			remark(
				out,
				"precook_required",
				Warning,
				"fruit",
				message.New("{Fruit} needs cooking first.", called(x.Fruit.Name)),
				message.New(
					"At boiling heat it takes {minutes} min to turn tender, longer than the topping bears.",
					message.Number(x.Fruit.TenderMin, 0),
				),
				message.New("Simmer it under a lid until a skewer goes in, and set the minutes at Fruit."),
			)
		case "advised":
			remark(
				out,
				"precook_advised",
				Advice,
				"fruit",
				message.New("{Fruit} is better cooked first.", called(x.Fruit.Name)),
				message.New(
					"It is watery or slow: raw, it waters the filling down or stays hard.",
				),
				message.New("Cook it on the hob for a few minutes and set them at Fruit."),
			)
		}
	}
}

// aboutMixture speaks of fruits that turn tender at very different times.
func aboutMixture(p *plan, _ stand, _ *Answer, out *[]Remark) {
	if len(p.filling.Pieces) < 2 {
		return
	}
	const much = 2.5 // times the other's minutes
	tender := func(x filling.Piece) float64 {
		cut := x.Fruit.DefaultCutMM
		if x.CutMM > 0 {
			cut = x.CutMM
		}
		return x.Fruit.TenderMin * math.Pow(cut/8, 0.8)
	}
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
			"fruit",
			message.New("Cut the {slow} smaller than the {quick}.", called(slow.Fruit.Name), called(quick.Fruit.Name)),
			message.New(
				"At these cuts one is tender after {slow} min at boiling heat, the other after {quick}.",
				message.Number(tender(slow), 0),
				message.Number(tender(quick), 0),
			),
			message.New("Set a smaller cut at Fruit."),
		)
	}
}

func aboutAir(p *plan, s stand, _ *Answer, out *[]Remark) {
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
			"fruit",
			message.New("The fruit is bland."),
			message.New(
				"{acid} % acid; under {least} % sweetness has nothing to stand against.",
				message.Number(s.AcidPct, 1),
				message.Number(bland, 1),
			),
			message.New(
				"Add {juice} of lemon juice, {lemons}, under Fruit: the sugar and the thickener follow.",
				message.Grams(g),
				message.Part(pieces(measure.Conventions{}, lemon, g)),
			),
		)
	}
	for _, x := range p.filling.Pieces {
		if x.Fruit.BrownsInAir && !x.Frozen {
			remark(
				out,
				"browns_in_air",
				Note,
				"fruit",
				message.New("{Fruit} browns in air.", called(x.Fruit.Name)),
				message.New("Cut faces darken within minutes."),
				message.New(
					"Toss it with lemon juice as you cut, and enter the grams under Fruit: the sugar and the thickener follow.",
				),
			)
			return
		}
	}
}

func aboutSet(p *plan, s stand, a *Answer, out *[]Remark) {
	want := filling.BandOf(p.style.set)
	if a.Set.Band == want {
		return
	}
	what := message.New(
		"It will be {band}, and a {style} is usually {usual}.",
		message.Word(string(a.Set.Band)),
		message.Word(p.req.Style),
		message.Word(string(want)),
	)
	need := s.Solve(p.style.set, p.thickener, p.beside, p.req.LongBoil)
	do := message.New(
		"For {band} take {much} of {thickener}.",
		message.Word(string(want)),
		message.Grams(need),
		called(p.thickener.Name),
	)
	why := message.New(
		"{much} of thickener and the fruit's pectin hold {juice} of juice.",
		message.Grams(p.allThickenerG(s)),
		message.Grams(s.JuiceG),
	)
	if need == 0 && s.thickenerG == 0 {
		why = message.New("The fruit's own pectin holds {juice} of juice without any thickener.", message.Grams(s.JuiceG))
		do = message.New("Nothing, or a little water or juice among the fruit.")
	}
	level := Advice
	if a.Set.Band == filling.Runny || a.Set.Band == filling.Stodgy {
		level = Warning
	}
	remark(out, "set_off_style", level, "juice", what, why, do)
}

// aboutSlips asks about amounts that the baker gave and that are far outside what is usual. What was solved for is not
// asked about.
func aboutSlips(p *plan, s stand, _ *Answer, out *[]Remark) {
	r := p.req
	if p.givenG == nil && r.SugarG == nil && len(r.Extras) == 0 && len(r.Topping.BakersPct) == 0 && len(p.beside) == 0 {
		return
	}
	const sugar = "caster_sugar"
	given := map[string]string{} // key to station
	bowl := make([]slip.Thing, 0, len(p.filling.Pieces)+len(r.Liquids)+len(r.Extras)+3)
	for _, x := range p.filling.Pieces {
		bowl = append(bowl, slip.Thing{Key: x.Fruit.Key, G: x.Share * s.FruitG})
	}
	for _, a := range r.Liquids {
		bowl = append(bowl, slip.Thing{Key: a.Key, G: a.G})
	}
	for _, a := range r.Extras {
		bowl = append(bowl, slip.Thing{Key: a.Key, G: a.G})
		given[a.Key] = "fruit"
	}
	bowl = append(bowl, slip.Thing{Key: sugar, G: s.SugarG})
	custard := p.custard != nil // whose flour and sugar are parts of it, not of the fruit
	if r.SugarG != nil && !custard {
		given[sugar] = "juice"
	}
	for i, d := range p.doses(s.thickenerG) {
		bowl = append(bowl, slip.Thing{Key: d.Thickener.Key, G: d.G})
		if i > 0 || p.givenG != nil && !custard {
			given[d.Thickener.Key] = "juice"
		}
	}
	askAbout(slip.Find(slip.Filling, bowl, r.Own), bowl, given, out)
	dough, changed := make([]slip.Thing, len(p.top.Parts)), map[string]string{}
	for i, part := range p.top.Parts {
		dough[i] = slip.Thing{Key: part.Ingredient.Key, G: part.G}
		if _, ok := r.Topping.BakersPct[part.Ingredient.Key]; ok {
			changed[part.Ingredient.Key] = "topping"
		}
	}
	askAbout(slip.Find(slip.Dough, dough, r.Own), dough, changed, out)
}

func askAbout(slips []slip.Slip, bowl []slip.Thing, stations map[string]string, out *[]Remark) {
	for _, x := range slips {
		key := bowl[x.Index].Key
		if stations[key] == "" {
			continue
		}
		do := message.New("Nothing was changed.")
		if x.SuggestG > 0 {
			do = message.New("If the pen slipped: {much}. Nothing was changed.", message.Grams(x.SuggestG))
		}
		remark(out, "slip_"+key, Warning, stations[key], x.What, x.Usual, do)
	}
}

// aboutSweetness speaks of sugar that was given, where it is far from what the fruit's acid asks for.
func aboutSweetness(p *plan, _ stand, a *Answer, out *[]Remark) {
	const far = 4.0 // % of the filling: as much as from usual to sweet
	if p.req.SugarG == nil || p.req.Sweetness == "savoury" || p.custard != nil {
		return
	}
	why := message.New(
		"{sugar} % of the filling is sugar; with {acid} % acid, {usual} % is usual.",
		message.Number(a.SugarPct, 0),
		message.Number(a.AcidPct, 1),
		message.Number(a.SugarTargetPct, 0),
	)
	off := a.SugarPct - a.SugarTargetPct
	free := p.filling.SugarG(a.FruitG, a.SugarTargetPct)
	do := message.New("Take {much} of sugar.", message.Grams(free))
	switch {
	case off > far && a.SugarG > 0:
		remark(out, "too_sweet", Advice, "juice", message.New("The filling will be very sweet."), why, do)
	case off < -far:
		remark(out, "too_sharp", Advice, "juice", message.New("The filling will be sharp."), why, do)
	}
}

func aboutThickener(p *plan, s stand, _ *Answer, out *[]Remark) {
	if s.thickenerG <= 0 {
		return
	}
	const muchAcid = 0.92 // of its strength left
	if k := p.thickener.AcidFactor(s.AcidPct); k < muchAcid {
		remark(
			out,
			"acid_weakens",
			Note,
			"juice",
			message.New(
				"Acid takes {share} % of the {thickener}'s strength.",
				message.Number(100*(1-k), 0),
				called(p.thickener.Name),
			),
			message.New(
				"The filling has {acid} % acid.",
				message.Number(s.AcidPct, 1),
			),
			message.New("It is reckoned in. Waxy maize and arrowroot keep more of theirs."),
		)
	}
	if strings.HasPrefix(p.thickener.Avoid, "with dairy") && p.hasDairy() {
		remark(
			out,
			"slimy_with_dairy",
			Warning,
			"juice",
			message.New("{Thickener} goes slimy with dairy.", called(p.thickener.Name)),
			message.New("There is milk, cream or butter in the filling."),
			message.New("Take another thickener."),
		)
	}
	if s.LostShare > 0 {
		remark(
			out,
			"thickener_lost",
			Advice,
			"juice",
			message.New("{share} % of the thickener stays behind with the juice.", message.Number(100*s.LostShare, 0)),
			message.New(
				"It was already in when the juice was left behind.",
			),
			message.New("It is reckoned in. Add the thickener after draining, or keep the juice."),
		)
	}
}

func (p *plan) hasDairy() bool {
	for _, list := range [][]filling.Weighed{p.filling.Liquids, p.filling.Extras} {
		for _, w := range list {
			for _, a := range w.Ingredient.Allergens {
				if a == "milk" && w.G > 0 {
					return true
				}
			}
		}
	}
	return false
}

func aboutTopping(p *plan, _ stand, a *Answer, out *[]Remark) {
	t := a.Topping
	if w := p.wanted.Topping; !slices.Contains(p.style.families, w.Family) {
		remark(
			out,
			"unusual_topping",
			Note,
			"topping",
			message.New("{Topping} is unusual on a {style}.", called(w.Name), message.Word(p.req.Style)),
			message.New("It is reckoned as it is, and no range of depths is known for it."),
			message.New("Usual is {families}.", message.Or(p.style.families.lines()...)),
		)
		return
	}
	if p.style.rule == byFloor && p.custard != nil {
		return
	}
	sizes := message.New(
		"{topping} of topping on {fruit} of raw fruit; usual is {range}.",
		message.Millimetres(
			t.ThicknessMM,
		),
		message.Millimetres(t.FruitDepthMM),
		message.Range(message.Millimetres(t.RatioLow*t.FruitDepthMM), message.Millimetres(t.RatioHigh*t.FruitDepthMM)),
	)
	switch {
	case t.DepthRatio > t.RatioHigh:
		remark(
			out,
			"topping_thick",
			Advice,
			"topping",
			message.New("The topping is thick for the fruit."),
			sizes,
			message.New("Make it lighter, or take a deeper dish: under a thick lid the fruit is slow and the mouthful is dry."),
		)
	case t.DepthRatio < t.RatioLow:
		remark(
			out,
			"topping_thin",
			Advice,
			"topping",
			message.New("The topping is thin for the fruit."),
			sizes,
			message.New("Make it more generous, or take a wider dish."),
		)
	}
	switch t.Texture.Fat {
	case "dusty":
		remark(
			out,
			"topping_dusty",
			Advice,
			"topping",
			message.New("The topping will be dusty."),
			message.New("Only {fat} % of it is fat; below 14 % it does not hold.", message.Number(t.Texture.FatPct, 0)),
			message.New("More fat, or a sprinkle of water to make it clump."),
		)
	case "spreads":
		remark(
			out,
			"topping_spreads",
			Advice,
			"topping",
			message.New("The topping will spread and grease."),
			message.New("{fat} % of it is fat; over 29 % it melts together.", message.Number(t.Texture.FatPct, 0)),
			message.New("Less fat, or more flour."),
		)
	}
	switch t.Texture.Sugar {
	case "pale":
		remark(
			out,
			"topping_pale",
			Advice,
			"topping",
			message.New("The topping will stay pale."),
			message.New("Only {sugar} % of it is sugar; below 12 % it hardly colours.", message.Number(t.Texture.SugarPct, 0)),
			message.New("More sugar, or an egg or milk wash."),
		)
	case "candied":
		remark(
			out,
			"topping_candied",
			Advice,
			"topping",
			message.New("The topping will be hard and candied."),
			message.New("{sugar} % of it is sugar; over 38 % it sets like toffee.", message.Number(t.Texture.SugarPct, 0)),
			message.New("Less sugar."),
		)
	}
}

// aboutBiscuit says what a dough does under the hand, where that is not what its name says.
func aboutBiscuit(p *plan, _ stand, a *Answer, out *[]Remark) {
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
			"topping",
			message.New("The dough is one that {does}.", message.Part(doughWords[t.Dough])),
			message.New(
				"{hydration} % water to the flour; under 52 % it is crumbly, to 76 % it rolls, to 105 % it drops, over that it is a batter.",
				message.Number(t.HydrationPct, 0),
			),
			message.New("For one that {does}, change the hydration.", message.Part(doughWords[usual])),
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
func aboutBase(p *plan, s stand, _ *Answer, out *[]Remark) {
	if p.under.G == 0 {
		if p.req.Style == "bar" || p.req.Style == "pie" {
			remark(
				out,
				"no_base",
				Note,
				"topping",
				message.New("There is no base under this {style}.", message.Word(p.req.Style)),
				message.New("It can be spooned, and not cut."),
				message.New("Choose a base at Topping."),
			)
		}
		return
	}
	if wet := s.JuiceSharePct; p.base.ParBakeC > 0 && wet > soggyJuicePct && !p.req.Base.ParBaked {
		remark(
			out,
			"wet_base",
			Advice,
			"topping",
			message.New("The base would go soggy raw."),
			message.New(
				"{share} % of the filling is juice: it holds the base near 100 C, and nothing crisps below that.",
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
			"topping",
			message.New("Glass and stoneware bake a base slowly."),
			message.New("They lead heat badly."),
			message.New("Take a dark metal dish, or set it on a hot tray."),
		)
	}
}

// soggyJuicePct is the share of juice in a filling from which a raw base stays wet. Working figure.
const soggyJuicePct = 30.0

// aboutGluten warns where one part was made gluten-free and another was not.
func aboutGluten(_ *plan, _ stand, a *Answer, out *[]Remark) {
	free, from := false, []string{} // names
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			i, _ := larder.Ingredients.Get(l.Key)
			free = free || l.Key == "gf_flour_blend"
			if slices.ContainsFunc(i.Allergens, func(x string) bool { return strings.HasPrefix(x, "gluten") }) &&
				!slices.Contains(from, plainName(l.Name)) {
				from = append(from, plainName(l.Name))
			}
		}
	}
	if free && len(from) > 0 {
		remark(
			out,
			"gluten_left",
			Warning,
			"topping",
			message.New("There is gluten in it all the same."),
			message.New(
				"The flour of the dough is gluten-free, and there is {flours} in the rest.",
				message.And(names(from)...),
			),
			message.New("Change that as well: \"For a diet\", below the ticket, proposes what."),
		)
	}
}

// aboutCustard has the cautions of eggs.
func aboutCustard(p *plan, _ stand, _ *Answer, out *[]Remark) {
	if p.custard == nil {
		return
	}
	remark(
		out,
		"custard_heat",
		Caution,
		"bake",
		message.New("Cook the middle of the custard to 71 C or more."),
		message.New("It is set at 82 to 92 C, when the middle trembles and no longer waves."),
		message.New("Over 95 C it curdles where there is no flour in it. Use a probe."),
	)
	remark(
		out,
		"custard_cold",
		Caution,
		"bake",
		message.New("Cool it, and into the fridge within 2 hours, 1 hour in heat over 32 C; keep it at 5 C or below."),
		message.New("Local codes differ, and some say 90 minutes."),
		message.Message{},
	)
	if p.custard[0].G == 0 {
		remark(
			out,
			"no_egg",
			Warning,
			"juice",
			message.New("There is no egg in the custard."),
			message.New("Flour alone sets it like a thick sauce."),
			message.New("Give it eggs: 100 parts are usual."),
		)
	}
}

func aboutSafety(p *plan, _ stand, _ *Answer, out *[]Remark) {
	remark(
		out,
		"hot_syrup",
		Caution,
		"bake",
		message.New("Boiling fruit and sugar burn worse than water."),
		message.Message{},
		message.New("A tray under the dish keeps spilled syrup off the element."),
	)
	if p.material.Brittle() {
		remark(
			out,
			"thermal_shock",
			Caution,
			"bake",
			message.New("Hot {material} must not meet cold or water.", message.Word(p.material.Name)),
			message.New("It cracks."),
			message.New("Set it on a dry board or rack, and never take it from the freezer into a hot oven."),
		)
	}
	what := message.New("Raw flour is not for tasting.")
	if slices.ContainsFunc(
		slices.Concat(p.top.Parts, p.under.Parts),
		func(x topping.Part) bool { return x.Ingredient.Role == "egg" },
	) ||
		p.custard != nil {
		what = message.New("Raw flour and raw egg are not for tasting.")
	}
	remark(out, "raw_flour", Caution, "topping", what, message.Message{}, message.Message{})
}
