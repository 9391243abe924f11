package balance

import (
	"strings"

	"mabbin/core/filling"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/plausibility"
)

// aboutSet speaks of a set that is two bands or more from what the baker or the style wants. It also speaks of juice
// that runs or is gluey where that is not wanted. Any other band off is no fault: it is what the scale shows.
func aboutSet(p *plan, s candidate, a *Answer, out *[]Remark) {
	want := filling.BandOf(p.target)
	off := a.Set.Band.Apart(want)
	if p.unthickened() && off < 0 && p.style.UsualSet <= spoonedSet {
		remark(
			out,
			"unthickened",
			Note,
			AtJuice,
			message.New("The juice is not thickened."),
			p.book.New(
				"There is no thickener; the fruit's own pectin holds {juice} of juice.",
				message.Grams(s.JuiceG),
			),
			message.New("Nothing, if you want it that way; serve it in a bowl."),
		)
		return
	}
	ends := a.Set.Band == filling.Runny || a.Set.Band == filling.Stodgy
	if off == 0 || off > -2 && off < 2 && !ends {
		return
	}
	what := p.book.New("The juice will be {band}; a {style} is usually {usual}.",
		p.book.Part(a.Set.Band.Label()), message.Word(p.req.Style), p.book.Part(want.Label()))
	if p.req.SetTarget != nil {
		what = p.book.New("The juice will be {band}; you chose {wanted}.",
			p.book.Part(a.Set.Band.Label()), p.book.Part(want.Label()))
	}
	need := s.Solve(p.target, p.thickener, p.beside, p.req.LongBoil)
	do := p.book.New("For {band}, use {much} of {thickener}.",
		p.book.Part(want.Label()), message.Grams(need), larder.Called(p.thickener.Name))
	why := p.book.New("{much} of thickener and the fruit's pectin hold {juice} of juice.",
		message.Grams(p.allThickenerG(s)), message.Grams(s.JuiceG))
	if need == 0 && s.thickenerG == 0 {
		why = p.book.New("The fruit's own pectin holds {juice} of juice without any thickener.", message.Grams(s.JuiceG))
		do = message.New("Nothing, or add a little water or juice to the fruit.")
	}
	level := Advice
	if ends && p.allThickenerG(s) > 0 || a.Set.Band == filling.Runny {
		level = Warning
	}
	remark(out, "set_off_style", level, AtJuice, what, why, do)
}

// spoonedSet is the highest target of what is eaten with a spoon and may be as juicy as it comes.
const spoonedSet = 4.4

// unthickened says that the baker wants no thickener.
func (p *plan) unthickened() bool { return p.givenG != nil && *p.givenG == 0 && len(p.beside) == 0 }

// aboutSlips asks about amounts that the baker gave and that are far outside what is usual. What was solved for is not
// asked about.
func aboutSlips(p *plan, s candidate, _ *Answer, out *[]Remark) {
	r := p.req
	if p.givenG == nil && r.SugarG == nil && len(r.Extras) == 0 && len(r.Topping.BakersPct) == 0 && len(p.beside) == 0 {
		return
	}
	sugar := p.sugar.Key
	given := map[string]Station{} // key to station
	bowl := make([]plausibility.Thing, 0, len(p.filling.Pieces)+len(r.Liquids)+len(r.Extras)+3)
	for _, x := range p.filling.Pieces {
		bowl = append(bowl, plausibility.Thing{Key: x.Fruit.Key, G: x.Share * s.FruitG})
	}
	for _, a := range r.Liquids {
		bowl = append(bowl, plausibility.Thing{Key: a.Key, G: a.G})
	}
	for _, a := range r.Extras {
		bowl = append(bowl, plausibility.Thing{Key: a.Key, G: a.G})
		given[a.Key] = AtFruit
	}
	bowl = append(bowl, plausibility.Thing{Key: sugar, G: s.SugarG})
	custard := p.custard != nil // whose flour and sugar are parts of it, not of the fruit
	if r.SugarG != nil && !custard {
		given[sugar] = AtJuice
	}
	for i, d := range p.doses(s.thickenerG) {
		bowl = append(bowl, plausibility.Thing{Key: d.Thickener.Key, G: d.G})
		if i > 0 || p.givenG != nil && !custard {
			given[d.Thickener.Key] = AtJuice
		}
	}
	askAbout(plausibility.Find(plausibility.Filling, bowl, r.Own), bowl, given, out)
	dough, changed := make([]plausibility.Thing, len(p.top.Parts)), map[string]Station{}
	for i, part := range p.top.Parts {
		dough[i] = plausibility.Thing{Key: part.Ingredient.Key, G: part.G}
		if _, ok := r.Topping.BakersPct[part.Ingredient.Key]; ok {
			changed[part.Ingredient.Key] = AtTopping
		}
	}
	askAbout(plausibility.Find(plausibility.Dough, dough, r.Own), dough, changed, out)
}

func askAbout(slips []plausibility.Finding, bowl []plausibility.Thing, stations map[string]Station, out *[]Remark) {
	for _, x := range slips {
		key := bowl[x.Index].Key
		if stations[key] == "" {
			continue
		}
		do := message.New("Nothing was changed.")
		if x.SuggestG > 0 {
			do = message.New("Did you mean {much}? Nothing was changed.", message.Grams(x.SuggestG))
		}
		remark(out, "slip_"+key, Warning, stations[key], x.Text, x.Usual, do)
	}
}

// aboutSweetness speaks of sugar that was given, where it is far from what the fruit's acid and the baker's own word
// ask for.
func aboutSweetness(p *plan, _ candidate, a *Answer, out *[]Remark) {
	const (
		far       = 4.0  // % of the filling: as much as from usual to sweet
		verySweet = 26.0 // % of the filling; nobody calls less so
	)
	if p.req.SugarG == nil || p.req.Sweetness == "savoury" || p.custard != nil {
		return
	}
	why := p.book.New(
		"{sugar} % of the filling is sugar; with {acid} % acid, {usual} % is usual.",
		message.Number(a.SugarPct, 0),
		message.Number(a.AcidPct, 1),
		message.Number(a.SugarTargetPct, 0),
	)
	off := a.SugarPct - a.SugarTargetPct
	free := p.filling.SugarG(a.FruitG, a.SugarTargetPct)
	do := p.book.New("Use {much} of sugar.", message.Grams(free))
	switch {
	case off > far && a.SugarG > 0 && a.SugarPct >= verySweet:
		remark(out, "too_sweet", Advice, AtJuice, message.New("The filling will be very sweet."), why, do)
	case off < -far:
		remark(out, "too_sharp", Advice, AtJuice, message.New("The filling will be sour."), why, do)
	}
}

func aboutThickener(p *plan, s candidate, _ *Answer, out *[]Remark) {
	if s.thickenerG <= 0 {
		return
	}
	const muchAcid = 0.92 // of its strength left
	if k := p.thickener.AcidFactor(s.AcidPct); k < muchAcid {
		remark(
			out,
			"acid_weakens",
			Note,
			AtJuice,
			p.book.New(
				"The acid takes away {share} % of the strength of the {thickener}.",
				message.Number(100*(1-k), 0),
				larder.Called(p.thickener.Name),
			),
			p.book.New(
				"The filling has {acid} % acid.",
				message.Number(s.AcidPct, 1),
			),
			message.New("This is included in the amounts. Waxy maize and arrowroot lose less."),
		)
	}
	if strings.HasPrefix(p.thickener.Avoid, "with dairy") && p.hasDairy() {
		remark(
			out,
			"slimy_with_dairy",
			Warning,
			AtJuice,
			p.book.New("{Thickener} turns slimy with dairy.", larder.Called(p.thickener.Name)),
			message.New("There is milk, cream or butter in the filling."),
			message.New("Use another thickener."),
		)
	}
	if s.LostShare > 0 {
		remark(
			out,
			"thickener_lost",
			Advice,
			AtJuice,
			p.book.New("{share} % of the thickener stays behind with the juice.", message.Number(100*s.LostShare, 0)),
			message.New(
				"It was added before the juice was left behind.",
			),
			message.New("This is included in the amounts. Add the thickener after draining, or keep the juice."),
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
