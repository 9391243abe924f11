package balance

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"mabbin/core/filling"
	"mabbin/core/larder"
	"mabbin/core/measure"
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
	Code    string `json:"code"`
	Level   Level  `json:"level"`
	Station string `json:"station"` // dish, fruit, juice, topping or bake
	What    string `json:"what"`
	Why     string `json:"why"`
	Do      string `json:"do"`
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

func say(out *[]Remark, code string, l Level, station, what, why, do string) {
	*out = append(*out, Remark{code, l, station, what, why, do})
}

func grams(g float64) string { return measure.Shown(g) + " g" }

func aboutHeadspace(p *plan, s stand, a *Answer, out *[]Remark) {
	mm := s.headspaceMM
	less := s.FruitG - a.Fit.MostFruitG
	bigger := p.geo.VolumeML + (p.style.keepMM-mm)/10*p.geo.RimAreaCM2
	mend := fmt.Sprintf("Take out %s of fruit, or use a dish of %.1f l. Put a tray under it.", grams(less), bigger/1000)
	if a.Fit.MostFruitG < leastFruitG {
		mend = fmt.Sprintf("The topping alone is too much for this dish: thinner, or a dish of %.1f l. Put a tray under it.", bigger/1000)
	}
	switch {
	case mm < boilOverMM:
		say(out, "boils_over", Warning, "dish", "It will boil over.",
			fmt.Sprintf("Boiling, the filling and topping stand %.0f mm above the rim.", -mm), mend)
	case mm < boilOverWarnMM:
		say(out, "may_boil_over", Warning, "dish", "It may boil over.", fmt.Sprintf("Boiling, only %.0f mm of rim are free.", mm), mend)
	case a.Fit.LimitedBy == byHeadspace:
		say(out, "headspace_limits", Note, "dish", "The free rim decides how much fruit.",
			fmt.Sprintf("Heaped as usual it would leave less than %.0f mm when it boils.", p.style.keepMM), "Nothing: the fruit is held back. Put a tray under the dish.")
	}
	if s.headspaceMM > 25 && a.Fit.LimitedBy == byWeight {
		say(out, "dish_half_empty", Advice, "dish", "The dish is large for this fruit.",
			fmt.Sprintf("%.0f mm of rim stay free: the sides catch no colour and a thin filling dries.", mm),
			fmt.Sprintf("Use a smaller dish, or up to %s of fruit.", grams(a.Fit.MostFruitG)))
	}
}

func aboutShares(p *plan, _ stand, _ *Answer, out *[]Remark) {
	off := func(whole float64) bool { return math.Abs(p.shareSum-whole) > 0.005*whole }
	if len(p.filling.Pieces) > 1 && off(1) && off(100) {
		var parts []string
		for _, x := range p.filling.Pieces {
			parts = append(parts, fmt.Sprintf("%.0f %% %s", 100*x.Share, plainName(x.Fruit.Name)))
		}
		say(out, "shares_scaled", Note, "fruit", fmt.Sprintf("The shares added up to %.0f %%.", 100*p.shareSum),
			"They were scaled to 100 %: "+strings.Join(parts, ", ")+".", "Change a share if another one was meant.")
	}
}

// plainName is a name in a sentence, without what stands after its comma.
func plainName(name string) string {
	name, _, _ = strings.Cut(larder.Plain(name), ",")
	return name
}

// fruitCautions are the parts of a fruit that must not be eaten.
var fruitCautions = map[string]string{
	"rhubarb": "Rhubarb leaves are poisonous: cut every bit of leaf away.",
	"apricot": kernels, "peach": kernels, "plum": kernels, "damson": kernels, "cherry_sour": kernels, "cherry_sweet": kernels, "nectarine": kernels,
}

const kernels = "The kernels of stone fruit are poisonous: do not grind or infuse them."

func aboutEachFruit(p *plan, _ stand, _ *Answer, out *[]Remark) {
	said := map[string]bool{}
	for i, x := range p.filling.Pieces {
		if c := fruitCautions[x.Fruit.Key]; c != "" && !said[c] {
			said[c] = true
			say(out, "poisonous_parts", Caution, "fruit", c, "", "")
		}
		if loss := p.req.Fruits[i].LossPct; loss > 0 && !said["windfalls"] {
			said["windfalls"] = true
			say(out, "windfalls", Caution, "fruit", "Windfalls: wash them, cut out bruises, throw mouldy ones away whole.", "Baking does not destroy the toxin of mould.", "")
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
			say(out, "precook_required", Warning, "fruit", plainTitle(x.Fruit.Name)+" needs cooking first.",
				fmt.Sprintf("At boiling heat it takes %.0f min to turn tender, longer than the topping bears.", x.Fruit.TenderMin), "Simmer it under a lid until a skewer goes in, and set the minutes at Fruit.")
		case "advised":
			say(out, "precook_advised", Advice, "fruit", plainTitle(x.Fruit.Name)+" is better cooked first.",
				"It is watery or slow: raw, it waters the filling down or stays hard.", "Cook it on the hob for a few minutes and set them at Fruit.")
		}
	}
}

func plainTitle(name string) string {
	n := plainName(name)
	return strings.ToUpper(n[:1]) + n[1:]
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
		say(out, "uneven_mixture", Advice, "fruit", fmt.Sprintf("Cut the %s smaller than the %s.", plainName(slow.Fruit.Name), plainName(quick.Fruit.Name)),
			fmt.Sprintf("At these cuts one is tender after %.0f min at boiling heat, the other after %.0f.", tender(slow), tender(quick)), "Set a smaller cut at Fruit.")
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
		say(out, "bland", Note, "fruit", "The fruit is bland.", fmt.Sprintf("%.1f %% acid; under %.1f %% sweetness has nothing to stand against.", s.AcidPct, bland),
			fmt.Sprintf("Add %s of lemon juice, from %s, under Fruit: the sugar and the thickener follow.", grams(g), strings.TrimPrefix(pieces(measure.Conventions{}, lemon, g), "from ")))
	}
	for _, x := range p.filling.Pieces {
		if x.Fruit.BrownsInAir && !x.Frozen {
			say(out, "browns_in_air", Note, "fruit", plainTitle(x.Fruit.Name)+" browns in air.", "Cut faces darken within minutes.",
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
	what := fmt.Sprintf("It will be %s, and a %s is usually %s.", a.Set.Band, p.req.Style, want)
	need := s.Solve(p.style.set, p.thickener, p.beside, p.req.LongBoil)
	do := fmt.Sprintf("For %s take %s of %s.", want, grams(need), plainName(p.thickener.Name))
	why := fmt.Sprintf("%s of thickener and the fruit's pectin hold %s of juice.", grams(p.allThickenerG(s)), grams(s.JuiceG))
	if need == 0 && s.thickenerG == 0 {
		why = fmt.Sprintf("The fruit's own pectin holds %s of juice without any thickener.", grams(s.JuiceG))
		do = "Nothing, or a little water or juice among the fruit."
	}
	level := Advice
	if a.Set.Band == filling.Runny || a.Set.Band == filling.Stodgy {
		level = Warning
	}
	say(out, "set_off_style", level, "juice", what, why, do)
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
		do := "Nothing was changed."
		if x.SuggestG > 0 {
			do = fmt.Sprintf("If the pen slipped: %s. Nothing was changed.", grams(x.SuggestG))
		}
		say(out, "slip_"+key, Warning, stations[key], x.What, x.Usual, do)
	}
}

// aboutSweetness speaks of sugar that was given, where it is far from what the fruit's acid asks for.
func aboutSweetness(p *plan, _ stand, a *Answer, out *[]Remark) {
	const far = 4.0 // % of the filling: as much as from usual to sweet
	if p.req.SugarG == nil || p.req.Sweetness == "savoury" || p.custard != nil {
		return
	}
	why := fmt.Sprintf("%.0f %% of the filling is sugar; with %.1f %% acid, %.0f %% is usual.", a.SugarPct, a.AcidPct, a.SugarTargetPct)
	off := a.SugarPct - a.SugarTargetPct
	free := p.filling.SugarG(a.FruitG, a.SugarTargetPct)
	do := fmt.Sprintf("Take %s of sugar.", grams(free))
	switch {
	case off > far && a.SugarG > 0:
		say(out, "too_sweet", Advice, "juice", "The filling will be very sweet.", why, do)
	case off < -far:
		say(out, "too_sharp", Advice, "juice", "The filling will be sharp.", why, do)
	}
}

func aboutThickener(p *plan, s stand, _ *Answer, out *[]Remark) {
	if s.thickenerG <= 0 {
		return
	}
	name := plainTitle(p.thickener.Name)
	const muchAcid = 0.92 // of its strength left
	if k := p.thickener.AcidFactor(s.AcidPct); k < muchAcid {
		say(out, "acid_weakens", Note, "juice", fmt.Sprintf("Acid takes %.0f %% of the %s's strength.", 100*(1-k), strings.ToLower(name)),
			fmt.Sprintf("The filling has %.1f %% acid.", s.AcidPct), "It is reckoned in. Waxy maize and arrowroot keep more of theirs.")
	}
	if strings.HasPrefix(p.thickener.Avoid, "with dairy") && p.hasDairy() {
		say(out, "slimy_with_dairy", Warning, "juice", name+" goes slimy with dairy.", "There is milk, cream or butter in the filling.", "Take another thickener.")
	}
	if s.LostShare > 0 {
		say(out, "thickener_lost", Advice, "juice", fmt.Sprintf("%.0f %% of the thickener stays behind with the juice.", 100*s.LostShare),
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
		say(out, "unusual_topping", Note, "topping", fmt.Sprintf("%s is unusual on a %s.", plainTitle(w.Name), p.req.Style), "It is reckoned as it is, and no range of depths is known for it.",
			fmt.Sprintf("Usual is %s.", strings.Join(p.style.families, " or ")))
		return
	}
	if p.style.rule == byFloor && p.custard != nil {
		return
	}
	sizes := fmt.Sprintf("%.0f mm of topping on %.0f mm of raw fruit; usual is %.0f to %.0f mm.",
		t.ThicknessMM, t.FruitDepthMM, t.RatioLow*t.FruitDepthMM, t.RatioHigh*t.FruitDepthMM)
	switch {
	case t.DepthRatio > t.RatioHigh:
		say(out, "topping_thick", Advice, "topping", "The topping is thick for the fruit.", sizes, "Make it lighter, or take a deeper dish: under a thick lid the fruit is slow and the mouthful is dry.")
	case t.DepthRatio < t.RatioLow:
		say(out, "topping_thin", Advice, "topping", "The topping is thin for the fruit.", sizes, "Make it more generous, or take a wider dish.")
	}
	switch t.Texture.Fat {
	case "dusty":
		say(out, "topping_dusty", Advice, "topping", "The topping will be dusty.", fmt.Sprintf("Only %.0f %% of it is fat; below 14 %% it does not hold.", t.Texture.FatPct), "More fat, or a sprinkle of water to make it clump.")
	case "spreads":
		say(out, "topping_spreads", Advice, "topping", "The topping will spread and grease.", fmt.Sprintf("%.0f %% of it is fat; over 29 %% it melts together.", t.Texture.FatPct), "Less fat, or more flour.")
	}
	switch t.Texture.Sugar {
	case "pale":
		say(out, "topping_pale", Advice, "topping", "The topping will stay pale.", fmt.Sprintf("Only %.0f %% of it is sugar; below 12 %% it hardly colours.", t.Texture.SugarPct), "More sugar, or an egg or milk wash.")
	case "candied":
		say(out, "topping_candied", Advice, "topping", "The topping will be hard and candied.", fmt.Sprintf("%.0f %% of it is sugar; over 38 %% it sets like toffee.", t.Texture.SugarPct), "Less sugar.")
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
		say(out, "dough_"+string(t.Dough), Advice, "topping", fmt.Sprintf("The dough is one that %s.", doughWords[t.Dough]),
			fmt.Sprintf("%.0f %% water to the flour; under 52 %% it is crumbly, to 76 %% it rolls, to 105 %% it drops, over that it is a batter.", t.HydrationPct),
			fmt.Sprintf("For one that %s, change the hydration.", doughWords[usual]))
	}
}

var doughWords = map[topping.Stiffness]string{topping.Crumbles: "crumbles", topping.Rolls: "rolls", topping.Drops: "drops from a spoon", topping.Batter: "runs like a batter"}

// aboutBase speaks of what lies under the fruit.
func aboutBase(p *plan, s stand, _ *Answer, out *[]Remark) {
	if p.under.G == 0 {
		if p.req.Style == "bar" || p.req.Style == "pie" {
			say(out, "no_base", Note, "topping", fmt.Sprintf("There is no base under this %s.", p.req.Style), "It can be spooned, and not cut.", "Choose a base at Topping.")
		}
		return
	}
	if wet := s.JuiceSharePct; p.base.ParBakeC > 0 && wet > soggyJuicePct && !p.req.Base.ParBaked {
		say(out, "wet_base", Advice, "topping", "The base would go soggy raw.",
			fmt.Sprintf("%.0f %% of the filling is juice: it holds the base near 100 C, and nothing crisps below that.", wet), p.parBake())
	}
	if strings.HasPrefix(p.req.Dish.Material, "glass") || p.material.Brittle() {
		say(out, "slow_floor", Note, "topping", "Glass and stoneware bake a base slowly.", "They lead heat badly.", "Take a metal dish, or set it low on a hot tray.")
	}
}

// soggyJuicePct is the share of juice in a filling from which a raw base stays wet. Working figure.
const soggyJuicePct = 30.0

// aboutGluten warns where one part was made gluten-free and another was not.
func aboutGluten(_ *plan, _ stand, a *Answer, out *[]Remark) {
	free, from := false, []string{}
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
		say(out, "gluten_left", Warning, "topping", "There is gluten in it all the same.", "The flour of the dough is gluten-free, and there is "+strings.Join(from, " and ")+" in the rest.",
			"Change that as well: \"For a diet\", below the ticket, proposes what.")
	}
}

// aboutCustard has the cautions of eggs.
func aboutCustard(p *plan, _ stand, _ *Answer, out *[]Remark) {
	if p.custard == nil {
		return
	}
	say(out, "custard_heat", Caution, "bake", "Cook the middle of the custard to 71 C or more.", "It is set at 82 to 92 C, when the middle trembles and no longer waves.", "Over 95 C it curdles where there is no flour in it. Use a probe.")
	say(out, "custard_cold", Caution, "bake", "Cool it, and into the fridge within 2 hours, 1 hour in heat over 32 C; keep it at 5 C or below.", "Local codes differ, and some say 90 minutes.", "")
	if p.custard[0].G == 0 {
		say(out, "no_egg", Warning, "juice", "There is no egg in the custard.", "Flour alone sets it like a thick sauce.", "Give it eggs: 100 parts are usual.")
	}
}

func aboutSafety(p *plan, _ stand, _ *Answer, out *[]Remark) {
	say(out, "hot_syrup", Caution, "bake", "Boiling fruit and sugar burn worse than water.", "", "A tray under the dish keeps spilled syrup off the element.")
	if p.material.Brittle() {
		say(out, "thermal_shock", Caution, "bake", "Hot "+p.req.Dish.Material+" must not meet cold or water.", "It cracks.", "Set it on a dry board or rack, and never take it from the freezer into a hot oven.")
	}
	what := "Raw flour is not for tasting."
	if slices.ContainsFunc(slices.Concat(p.top.Parts, p.under.Parts), func(x topping.Part) bool { return x.Ingredient.Role == "egg" }) || p.custard != nil {
		what = "Raw flour and raw egg are not for tasting."
	}
	say(out, "raw_flour", Caution, "topping", what, "", "")
}
