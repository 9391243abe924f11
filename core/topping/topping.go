// Package topping sizes a topping to its dish, splits it by baker's percentages and reads its texture.
package topping

import (
	"maps"
	"math"
	"slices"

	"mabbin/core/larder"
	"mabbin/core/message"
)

// Amount is how thick a topping is wanted.
type Amount string

// The amounts.
const (
	Light    Amount = "light"
	Standard Amount = "standard"
	Generous Amount = "generous"
)

// factor on the table's thickness.
func (a Amount) factor() float64 {
	switch a {
	case Light:
		return 0.75
	case Generous:
		return 1.3
	}
	return 1
}

// Spec is a topping as a baker asks for it.
type Spec struct {
	Topping     larder.Topping
	Amount      Amount
	ThicknessMM float64            // 0: by the amount
	BakersPct   map[string]float64 // changes to the recipe, by ingredient
	Own         *larder.Own        // the kitchen's own figures
	// Fat stands in for the recipe's butter, by its pure fat; empty: butter.
	Fat larder.Ingredient
	// Liquids make a dough up to its hydration; none: whole milk.
	Liquids      []Liquid
	HydrationPct float64 // water of the liquids to flour; 0: the table's
}

// Part is one ingredient of the sized topping.
type Part struct {
	Ingredient larder.Ingredient
	BakersPct  float64
	G          float64
	Liquid     bool // to feel: some of it is held back
}

// Sized is a topping for one dish.
type Sized struct {
	Family      string
	G           float64
	VolumeML    float64 // raw
	ThicknessMM float64 // raw, one layer
	SoakG       float64 // juice it takes up
	Parts       []Part
}

// Size fits a topping to an area: area x thickness x coverage x layers x raw density.
func Size(w Spec, areaCM2 float64) Sized {
	t := w.Topping
	mm := w.ThicknessMM
	if mm == 0 {
		mm = t.ThicknessMM * w.Amount.factor()
	}
	s := Sized{Family: t.Family, ThicknessMM: mm, VolumeML: areaCM2 * mm / 10 * t.Coverage * t.Layers}
	s.G = s.VolumeML * t.DensityGPerML
	s.SoakG = s.G * t.AbsorbGPerG
	s.Parts = split(w, s.G)
	return s
}

// How sugar browns a topping: by its share and that of the table's recipe, within limits. Working figures.
const (
	brownsBare  = 0.12 // a dough without sugar browns as if it had so much
	brownsLeast = 0.75
	brownsMost  = 1.25
)

// Browning is how much faster a topping browns than the table's recipe, by the sugar that it has as it is made.
func (w Spec) Browning(made Sized) float64 {
	if len(w.BakersPct) == 0 && len(w.Liquids) == 0 && w.HydrationPct == 0 {
		return 1 // it is the table's
	}
	table := Size(Spec{Topping: w.Topping, Own: w.Own}, 1)
	k := math.Sqrt((made.sugarShare() + brownsBare) / (table.sugarShare() + brownsBare))
	return min(brownsMost, max(brownsLeast, k))
}

// sugarShare is the sugar of a topping as it is made, by composition, as a share of its weight.
func (s Sized) sugarShare() float64 {
	sugar, all := 0.0, 0.0
	for _, p := range s.Parts {
		sugar += p.G * p.Ingredient.SugarPct / 100
		all += p.G
	}
	if all == 0 {
		return 0
	}
	return sugar / all
}

// split shares grams out by baker's percentages. A changed percentage of 0 leaves the ingredient out; one that the
// recipe does not have is added at its end.
func split(w Spec, g float64) []Part {
	parts := make([]Part, 0, len(w.Topping.Parts)+len(w.BakersPct))
	add := func(key string, pct float64) {
		i, _ := w.Own.Ingredient(key)
		if pct > 0 {
			parts = append(parts, Part{Ingredient: i, BakersPct: pct})
		}
	}
	inRecipe := func(key string) bool {
		for _, p := range w.Topping.Parts {
			if p.Key == key {
				return true
			}
		}
		return false
	}
	for _, p := range w.Topping.Parts {
		pct := p.Pct
		if changed, ok := w.BakersPct[p.Key]; ok {
			pct = changed
		}
		add(p.Key, pct)
	}
	if len(w.BakersPct) > 0 {
		for _, key := range slices.Sorted(maps.Keys(w.BakersPct)) { // in one order, so that a card reads the same each time
			if !inRecipe(key) {
				add(key, w.BakersPct[key])
			}
		}
	}
	return share(w.makeUp(w.otherFat(parts)), g)
}

// share gives each part its grams of g.
func share(parts []Part, g float64) []Part {
	sum := 0.0
	for _, p := range parts {
		sum += p.BakersPct
	}
	for i := range parts {
		parts[i].G = g * parts[i].BakersPct / sum
	}
	return parts
}

// Verdict is what a topping's make-up comes to.
type Verdict string

// The verdicts on fat and on sugar.
const (
	Dusty   Verdict = "dusty"
	Crumbly Verdict = "crumbly"
	Spreads Verdict = "spreads"
	Pale    Verdict = "pale"
	Sweet   Verdict = "sweet"
	Candied Verdict = "candied"
)

// What is said of a topping's fat and sugar, and of a dough by its water.
var (
	FatVerdicts = message.Choices{
		message.Choose(Dusty, "dusty"), message.Choose(Crumbly, "crumbly"), message.Choose(Spreads, "spreads and greases"),
	}
	SugarVerdicts = message.Choices{
		message.Choose(Pale, "stays pale"), message.Choose(Sweet, "browns well"), message.Choose(Candied, "hard and candied"),
	}
	Stiffnesses = message.Choices{
		message.Choose(Crumbles, "crumbly"), message.Choose(Rolls, "rolls out and cuts"),
		message.Choose(Drops, "drops from a spoon"), message.Choose(Batter, "a runny batter"),
	}
	Amounts = message.Choices{
		message.Choose(Light, "light"), message.Choose(Standard, "usual"), message.Choose(Generous, "generous"),
	}.Usually(string(Standard))
)

// Texture is the read-out of a topping: shares of the whole, what they come to, and remarks on single ingredients. Fat
// and sugar are judged for a crumble, crisp or streusel, the water for a biscuit; the others are empty.
type Texture struct {
	FatPct       float64         `json:"fat_pct"`   // pure fat of the added fats
	SugarPct     float64         `json:"sugar_pct"` // added sugars and syrups
	HydrationPct float64         `json:"hydration_pct"`
	Fat          Verdict         `json:"fat"`
	Sugar        Verdict         `json:"sugar"`
	Dough        Stiffness       `json:"dough"`
	Text         message.Message `json:"text"`
}

// crumbs are the families whose fat and sugar are judged.
var crumbs = map[string]bool{"crumble": true, "crisp": true, "streusel": true}

// The borders of the read-out, in percent of the whole. Handbook practice, working figures at the edges.
const (
	dustyBelow   = 14.0
	spreadsOver  = 29.0
	paleBelow    = 12.0
	candiedOver  = 38.0
	crispsFromOf = 10.0 // baker's % of custard powder or cornmeal that is tasted
)

// Read reads the texture of a sized topping.
func (s Sized) Read() Texture {
	var t Texture
	if s.G <= 0 {
		return t
	}
	nutty := s.nutty()
	for _, p := range s.Parts {
		switch p.Ingredient.Role {
		case "fat":
			t.FatPct += p.G * p.Ingredient.FatPct / s.G
		case "nut", "seed":
			if nutty {
				t.FatPct += ownFatShare * p.G * p.Ingredient.FatPct / s.G
			}
		case "sugar", "syrup":
			t.SugarPct += 100 * p.G / s.G
		}
	}
	if s.Family == "biscuit" {
		t.HydrationPct = s.hydration()
		t.Dough = stiffnessOf(t.HydrationPct)
	}
	if !crumbs[s.Family] {
		return t
	}
	t.Fat, t.Sugar = Crumbly, Sweet
	switch {
	case t.FatPct < dustyBelow:
		t.Fat = Dusty
	case t.FatPct > spreadsOver:
		t.Fat = Spreads
	}
	switch {
	case t.SugarPct < paleBelow:
		t.Sugar = Pale
	case t.SugarPct > candiedOver:
		t.Sugar = Candied
	}
	return t
}

// ReadIn is Read, and what it comes to in words: with the borders that it is judged by, and with what single
// ingredients do to a crumb.
func (s Sized) ReadIn(b *message.Book) Texture {
	t := s.Read()
	of := func(list message.Choices, v string) message.Arg { return b.Part(list.Label(v)) }
	pct := func(x float64) message.Arg { return message.Number(x, 1) }
	switch {
	case t.Dough != "":
		t.Text = b.New(
			"Hydration {water} %: {it}. Below {crumbles} % it is crumbly, up to {rolls} % it rolls, up to {drops} % it "+
				"drops. Add the liquid by feel: hold a fifth back. Fat in the liquid replaces butter; sour dairy needs "+
				"soda for part of the baking powder. {fat} % fat.",
			pct(t.HydrationPct), of(Stiffnesses, string(t.Dough)), pct(stiffness[0].upTo), pct(stiffness[1].upTo),
			pct(stiffness[2].upTo), message.Number(t.FatPct, 0))
	case t.Fat != "":
		t.Text = b.New(
			"Fat {fat} %: {holds} ({dusty} to {spreads} % holds together). Sugar {sugar} %: {browns} (usual: {pale} to {candied} %).",
			pct(t.FatPct),
			of(FatVerdicts, string(t.Fat)),
			pct(dustyBelow),
			pct(spreadsOver),
			pct(t.SugarPct),
			of(SugarVerdicts, string(t.Sugar)),
			pct(paleBelow),
			pct(candiedOver),
		)
	}
	for _, p := range s.Parts {
		if note, ok := partNotes[p.Ingredient.Key]; ok && p.BakersPct >= note.from && !t.Text.IsZero() {
			t.Text = b.Sentences(t.Text, b.New("{Ingredient}: {does}.", message.Name(p.Ingredient.Name), b.Part(note.says)))
		}
	}
	return t
}

// partNotes is what single ingredients do to a crumb, from a share where it shows.
var partNotes = map[string]struct {
	from float64
	says message.Message
}{
	"icing_sugar":    {1, message.New("melts into the crumb, no crunch")},
	"demerara_sugar": {1, message.New("stays crystalline and crunchy")},
	"custard_powder": {crispsFromOf, message.New("crisps the crumb")},
	"cornmeal":       {crispsFromOf, message.New("crisps the crumb")},
	"sunflower_oil":  {1, message.New("oil makes a sandy rather than a lumpy crumb")},
	"olive_oil":      {1, message.New("oil makes a sandy rather than a lumpy crumb, and tastes of the oil")},
	"coconut_oil":    {1, message.New("no water: a drier, shorter crumb that tastes of coconut")},
	"shortening":     {1, message.New("no water and no taste: a short, pale crumb")},
}

// ownFatShare is how much of their fat nuts give to a dough that is mostly nuts. Working figure.
const ownFatShare = 0.5

// nutty says that there are more nuts and seeds in it than flour, oats and crumbs: their own fat binds it.
func (s Sized) nutty() bool {
	nuts, dry := 0.0, 0.0
	for _, p := range s.Parts {
		switch p.Ingredient.Role {
		case "nut", "seed":
			nuts += p.G
		case "flour", "oat", "crumb":
			dry += p.G
		}
	}
	return nuts > dry
}
