package balance

import (
	"math"
	"slices"
	"strings"

	"mabbin/core/filling"
	"mabbin/core/larder"
	"mabbin/core/measure"
	"mabbin/core/say"
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
	Code    string   `json:"code"`
	Level   Level    `json:"level"`
	Station string   `json:"station"` // dish, fruit, juice, topping or bake
	What    say.Line `json:"what"`
	Why     say.Line `json:"why"`
	Do      say.Line `json:"do"`
}

// remarks is everything worth saying about a balanced dessert, the weightiest first within each station.
func (p *plan) remarks(s stand, a *Answer) []Remark {
	out := []Remark{}
	for _, about := range []func(*plan, stand, *Answer, *[]Remark){
		aboutHeadspace, aboutShares, aboutEachFruit, aboutPrecook, aboutMixture, aboutAir, aboutSet, aboutSlips, aboutSweetness, aboutThickener, aboutTopping, aboutBiscuit, aboutBase, aboutCustard, aboutGluten, aboutSafety,
	} {
		about(p, s, a, &out)
	}
	return out
}

func remark(out *[]Remark, code string, l Level, station string, what, why, do say.Line) {
	*out = append(*out, Remark{code, l, station, what, why, do})
}

func aboutHeadspace(p *plan, s stand, a *Answer, out *[]Remark) {
	mm := s.headspaceMM
	less := s.FruitG - a.Fit.MostFruitG
	bigger := p.geo.VolumeML + (p.style.keepMM-mm)/10*p.geo.RimAreaCM2
	mend := say.F("Take out {fruit} of fruit, or use a dish of {dish}. Put a tray under it.", say.G(less), say.ML(bigger))
	if a.Fit.MostFruitG < leastFruitG {
		mend = say.F("The topping alone is too much for this dish: thinner, or a dish of {dish}. Put a tray under it.", say.ML(bigger))
	}
	switch {
	case mm < boilOverMM:
		remark(out, "boils_over", Warning, "dish", "It will boil over.",
			say.F("Boiling, the filling and topping stand {mm} above the rim.", say.MM(math.Round(-mm))), mend)
	case mm < boilOverWarnMM:
		remark(out, "may_boil_over", Warning, "dish", "It may boil over.", say.F("Boiling, only {mm} of rim are free.", say.MM(math.Round(mm))), mend)
	case a.Fit.LimitedBy == byHeadspace:
		remark(out, "headspace_limits", Note, "dish", "The free rim decides how much fruit.",
			say.F("Heaped as usual it would leave less than {mm} when it boils.", say.MM(p.style.keepMM)), "Nothing: the fruit is held back. Put a tray under the dish.")
	}
	if s.headspaceMM > 25 && a.Fit.LimitedBy == byWeight {
		remark(out, "dish_half_empty", Advice, "dish", "The dish is large for this fruit.",
			say.F("{mm} of rim stay free: the sides catch no colour and a thin filling dries.", say.MM(mm)),
			say.F("Use a smaller dish, or up to {fruit} of fruit.", say.G(a.Fit.MostFruitG)))
	}
}

func aboutShares(p *plan, _ stand, _ *Answer, out *[]Remark) {
	off := func(whole float64) bool { return math.Abs(p.shareSum-whole) > 0.005*whole }
	if len(p.filling.Pieces) > 1 && off(1) && off(100) {
		var parts []say.Line
		for _, x := range p.filling.Pieces {
			parts = append(parts, say.F("{share} % {fruit}", say.N(100*x.Share, 0), called(x.Fruit.Name)))
		}
		remark(out, "shares_scaled", Note, "fruit", say.F("The shares added up to {sum} %.", say.N(100*p.shareSum, 0)),
			say.F("They were scaled to 100 %: {shares}.", say.L(say.Between(", ", parts...))), "Change a share if another one was meant.")
	}
}

// plainName is a name in a sentence, without what stands after its comma.
func plainName(name string) string {
	name, _, _ = strings.Cut(larder.Plain(name), ",")
	return name
}

// called is a name of the tables in a sentence.
func called(name string) say.Value { return say.Called(plainName(name)) }

// fruitCautions are the parts of a fruit that must not be eaten.
var fruitCautions = map[string]say.Line{
	"rhubarb": "Rhubarb leaves are poisonous: cut every bit of leaf away.",
	"apricot": kernels, "peach": kernels, "plum": kernels, "damson": kernels, "cherry_sour": kernels, "cherry_sweet": kernels, "nectarine": kernels,
}

const kernels = "The kernels of stone fruit are poisonous: do not grind or infuse them."

func aboutEachFruit(p *plan, _ stand, _ *Answer, out *[]Remark) {
	said, bruised := map[say.Line]bool{}, false
	for i, x := range p.filling.Pieces {
		if c := fruitCautions[x.Fruit.Key]; c != "" && !said[c] {
			said[c] = true
			remark(out, "poisonous_parts", Caution, "fruit", c, "", "")
		}
		if loss := p.req.Fruits[i].LossPct; loss > 0 && !bruised {
			bruised = true
			remark(out, "windfalls", Caution, "fruit", "Windfalls: wash them, cut out bruises, throw mouldy ones away whole.", "Baking does not destroy the toxin of mould.", "")
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
			remark(out, "precook_required", Warning, "fruit", say.F("{Fruit} needs cooking first.", called(x.Fruit.Name)),
				say.F("At boiling heat it takes {minutes} min to turn tender, longer than the topping bears.", say.N(x.Fruit.TenderMin, 0)), "Simmer it under a lid until a skewer goes in, and set the minutes at Fruit.")
		case "advised":
			remark(out, "precook_advised", Advice, "fruit", say.F("{Fruit} is better cooked first.", called(x.Fruit.Name)),
				"It is watery or slow: raw, it waters the filling down or stays hard.", "Cook it on the hob for a few minutes and set them at Fruit.")
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
		remark(out, "uneven_mixture", Advice, "fruit", say.F("Cut the {slow} smaller than the {quick}.", called(slow.Fruit.Name), called(quick.Fruit.Name)),
			say.F("At these cuts one is tender after {slow} min at boiling heat, the other after {quick}.", say.N(tender(slow), 0), say.N(tender(quick), 0)), "Set a smaller cut at Fruit.")
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
		remark(out, "bland", Note, "fruit", "The fruit is bland.", say.F("{acid} % acid; under {least} % sweetness has nothing to stand against.", say.N(s.AcidPct, 1), say.N(bland, 1)),
			say.F("Add {juice} of lemon juice, {lemons}, under Fruit: the sugar and the thickener follow.", say.G(g), say.L(pieces(measure.Conventions{}, lemon, g))))
	}
	for _, x := range p.filling.Pieces {
		if x.Fruit.BrownsInAir && !x.Frozen {
			remark(out, "browns_in_air", Note, "fruit", say.F("{Fruit} browns in air.", called(x.Fruit.Name)), "Cut faces darken within minutes.",
				"Toss it with lemon juice as you cut, and enter the grams under Fruit: the sugar and the thickener follow.")
			return
		}
	}
}

func aboutSet(p *plan, s stand, a *Answer, out *[]Remark) {
	want := filling.BandOf(p.style.set)
	if a.Set.Band == want {
		return
	}
	what := say.F("It will be {band}, and a {style} is usually {usual}.", say.L(say.Line(a.Set.Band)), say.L(say.Line(p.req.Style)), say.L(say.Line(want)))
	need := s.Solve(p.style.set, p.thickener, p.beside, p.req.LongBoil)
	do := say.F("For {band} take {much} of {thickener}.", say.L(say.Line(want)), say.G(need), called(p.thickener.Name))
	why := say.F("{much} of thickener and the fruit's pectin hold {juice} of juice.", say.G(p.allThickenerG(s)), say.G(s.JuiceG))
	if need == 0 && s.thickenerG == 0 {
		why = say.F("The fruit's own pectin holds {juice} of juice without any thickener.", say.G(s.JuiceG))
		do = "Nothing, or a little water or juice among the fruit."
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
	if r.SugarG != nil {
		given[sugar] = "juice"
	}
	for i, d := range p.doses(s.thickenerG) {
		bowl = append(bowl, slip.Thing{Key: d.Thickener.Key, G: d.G})
		if i > 0 || p.givenG != nil {
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
		do := say.Line("Nothing was changed.")
		if x.SuggestG > 0 {
			do = say.F("If the pen slipped: {much}. Nothing was changed.", say.G(x.SuggestG))
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
	why := say.F("{sugar} % of the filling is sugar; with {acid} % acid, {usual} % is usual.", say.N(a.SugarPct, 0), say.N(a.AcidPct, 1), say.N(a.SugarTargetPct, 0))
	off := a.SugarPct - a.SugarTargetPct
	free := p.filling.SugarG(a.FruitG, a.SugarTargetPct)
	do := say.F("Take {much} of sugar.", say.G(free))
	switch {
	case off > far && a.SugarG > 0:
		remark(out, "too_sweet", Advice, "juice", "The filling will be very sweet.", why, do)
	case off < -far:
		remark(out, "too_sharp", Advice, "juice", "The filling will be sharp.", why, do)
	}
}

func aboutThickener(p *plan, s stand, _ *Answer, out *[]Remark) {
	if s.thickenerG <= 0 {
		return
	}
	const muchAcid = 0.92 // of its strength left
	if k := p.thickener.AcidFactor(s.AcidPct); k < muchAcid {
		remark(out, "acid_weakens", Note, "juice", say.F("Acid takes {share} % of the {thickener}'s strength.", say.N(100*(1-k), 0), called(p.thickener.Name)),
			say.F("The filling has {acid} % acid.", say.N(s.AcidPct, 1)), "It is reckoned in. Waxy maize and arrowroot keep more of theirs.")
	}
	if strings.HasPrefix(p.thickener.Avoid, "with dairy") && p.hasDairy() {
		remark(out, "slimy_with_dairy", Warning, "juice", say.F("{Thickener} goes slimy with dairy.", called(p.thickener.Name)), "There is milk, cream or butter in the filling.", "Take another thickener.")
	}
	if s.LostShare > 0 {
		remark(out, "thickener_lost", Advice, "juice", say.F("{share} % of the thickener stays behind with the juice.", say.N(100*s.LostShare, 0)),
			"It was already in when the juice was left behind.", "It is reckoned in. Add the thickener after draining, or keep the juice.")
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
		remark(out, "unusual_topping", Note, "topping", say.F("{Topping} is unusual on a {style}.", called(w.Name), say.L(say.Line(p.req.Style))), "It is reckoned as it is, and no range of depths is known for it.",
			say.F("Usual is {families}.", say.Any(p.style.families.lines()...)))
		return
	}
	if p.style.rule == byFloor && p.custard != nil {
		return
	}
	sizes := say.F("{topping} of topping on {fruit} of raw fruit; usual is {range}.",
		say.MM(t.ThicknessMM), say.MM(t.FruitDepthMM), say.To(say.MM(t.RatioLow*t.FruitDepthMM), say.MM(t.RatioHigh*t.FruitDepthMM)))
	switch {
	case t.DepthRatio > t.RatioHigh:
		remark(out, "topping_thick", Advice, "topping", "The topping is thick for the fruit.", sizes, "Make it lighter, or take a deeper dish: under a thick lid the fruit is slow and the mouthful is dry.")
	case t.DepthRatio < t.RatioLow:
		remark(out, "topping_thin", Advice, "topping", "The topping is thin for the fruit.", sizes, "Make it more generous, or take a wider dish.")
	}
	switch t.Texture.Fat {
	case "dusty":
		remark(out, "topping_dusty", Advice, "topping", "The topping will be dusty.", say.F("Only {fat} % of it is fat; below 14 % it does not hold.", say.N(t.Texture.FatPct, 0)), "More fat, or a sprinkle of water to make it clump.")
	case "spreads":
		remark(out, "topping_spreads", Advice, "topping", "The topping will spread and grease.", say.F("{fat} % of it is fat; over 29 % it melts together.", say.N(t.Texture.FatPct, 0)), "Less fat, or more flour.")
	}
	switch t.Texture.Sugar {
	case "pale":
		remark(out, "topping_pale", Advice, "topping", "The topping will stay pale.", say.F("Only {sugar} % of it is sugar; below 12 % it hardly colours.", say.N(t.Texture.SugarPct, 0)), "More sugar, or an egg or milk wash.")
	case "candied":
		remark(out, "topping_candied", Advice, "topping", "The topping will be hard and candied.", say.F("{sugar} % of it is sugar; over 38 % it sets like toffee.", say.N(t.Texture.SugarPct, 0)), "Less sugar.")
	}
}

// aboutBiscuit says what a dough does under the hand, where that is not what its name says.
func aboutBiscuit(p *plan, _ stand, a *Answer, out *[]Remark) {
	t := a.Topping.Texture
	if t.Dough == "" {
		return
	}
	usual := map[string]topping.Stiffness{"biscuit_drop": topping.Drops, "biscuit_rolled": topping.Rolls, "biscuit_crumbly": topping.Crumbles}[p.wanted.Topping.Key]
	if usual != t.Dough {
		remark(out, "dough_"+string(t.Dough), Advice, "topping", say.F("The dough is one that {does}.", say.L(doughWords[t.Dough])),
			say.F("{hydration} % water to the flour; under 52 % it is crumbly, to 76 % it rolls, to 105 % it drops, over that it is a batter.", say.N(t.HydrationPct, 0)),
			say.F("For one that {does}, change the hydration.", say.L(doughWords[usual])))
	}
}

var doughWords = map[topping.Stiffness]say.Line{topping.Crumbles: "crumbles", topping.Rolls: "rolls", topping.Drops: "drops from a spoon", topping.Batter: "runs like a batter"}

// aboutBase speaks of what lies under the fruit.
func aboutBase(p *plan, s stand, _ *Answer, out *[]Remark) {
	if p.under.G == 0 {
		if p.req.Style == "bar" || p.req.Style == "pie" {
			remark(out, "no_base", Note, "topping", say.F("There is no base under this {style}.", say.L(say.Line(p.req.Style))), "It can be spooned, and not cut.", "Choose a base at Topping.")
		}
		return
	}
	if wet := s.JuiceSharePct; p.base.ParBakeC > 0 && wet > soggyJuicePct && !p.req.Base.ParBaked {
		remark(out, "wet_base", Advice, "topping", "The base would go soggy raw.",
			say.F("{share} % of the filling is juice: it holds the base near 100 C, and nothing crisps below that.", say.N(wet, 0)), p.parBake())
	}
	if strings.HasPrefix(p.req.Dish.Material, "glass") || p.material.Brittle() {
		remark(out, "slow_floor", Note, "topping", "Glass and stoneware bake a base slowly.", "They lead heat badly.", "Take a metal dish, or set it low on a hot tray.")
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
			if slices.ContainsFunc(i.Allergens, func(x string) bool { return strings.HasPrefix(x, "gluten") }) && !slices.Contains(from, plainName(l.Name)) {
				from = append(from, plainName(l.Name))
			}
		}
	}
	if free && len(from) > 0 {
		remark(out, "gluten_left", Warning, "topping", "There is gluten in it all the same.", say.F("The flour of the dough is gluten-free, and there is {flours} in the rest.", say.All(names(from)...)),
			"Change that as well: \"For a diet\", below the ticket, proposes what.")
	}
}

// aboutCustard has the cautions of eggs.
func aboutCustard(p *plan, _ stand, _ *Answer, out *[]Remark) {
	if p.custard == nil {
		return
	}
	remark(out, "custard_heat", Caution, "bake", "Cook the middle of the custard to 71 C or more.", "It is set at 82 to 92 C, when the middle trembles and no longer waves.", "Over 95 C it curdles where there is no flour in it. Use a probe.")
	remark(out, "custard_cold", Caution, "bake", "Cool it, and into the fridge within 2 hours, 1 hour in heat over 32 C; keep it at 5 C or below.", "Local codes differ, and some say 90 minutes.", "")
	if p.custard[0].G == 0 {
		remark(out, "no_egg", Warning, "juice", "There is no egg in the custard.", "Flour alone sets it like a thick sauce.", "Give it eggs: 100 parts are usual.")
	}
}

func aboutSafety(p *plan, _ stand, _ *Answer, out *[]Remark) {
	remark(out, "hot_syrup", Caution, "bake", "Boiling fruit and sugar burn worse than water.", "", "A tray under the dish keeps spilled syrup off the element.")
	if p.material.Brittle() {
		remark(out, "thermal_shock", Caution, "bake", say.F("Hot {material} must not meet cold or water.", say.L(say.Line(p.material.Name))), "It cracks.", "Set it on a dry board or rack, and never take it from the freezer into a hot oven.")
	}
	what := say.Line("Raw flour is not for tasting.")
	if slices.ContainsFunc(slices.Concat(p.top.Parts, p.under.Parts), func(x topping.Part) bool { return x.Ingredient.Role == "egg" }) || p.custard != nil {
		what = "Raw flour and raw egg are not for tasting."
	}
	remark(out, "raw_flour", Caution, "topping", what, "", "")
}
