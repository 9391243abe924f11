// Package plausibility finds implausible amounts: those far outside what is usual for their part in a filling or a
// dough. It asks and never changes anything.
package plausibility

import (
	"mabbin/core/larder"
	"mabbin/core/message"
)

// Part is what a bowl is for.
type Part string

// The parts of a dessert.
const (
	Filling Part = "filling"
	Dough   Part = "dough" // topping or base
)

// Thing is so much of one ingredient or fruit, as it was written.
type Thing struct {
	Key  string
	G    float64
	Unit string // as written, where it was a spoon or a kilogram
}

// Finding is an amount to ask about.
type Finding struct {
	Index    int             // of the thing in its bowl
	Text     message.Message // "60 g of lemon zest: is that meant?"
	Usual    message.Message // "Usual is up to ..."
	SuggestG float64         // the likely meant grams; 0 where none is likely
}

// The usual ranges. Where a share has no bound below, too little is a matter of taste.
const (
	saltPct       = 1.3  // of a dough or filling
	leavenPct     = 8.0  // of the flour
	thickenerPct  = 6.0  // of the fruit, as cornflour
	spicePct      = 2.5  // of its bowl
	fatPct        = 150  // of the dry things
	sugarPct      = 60.0 // of the fruit, but for custards
	flavourTimes  = 5.0  // times the usual share: a tenfold slip of a modest amount is caught too
	leastFlavourG = 1.0  // below, a factor means nothing
)

// The usual settings of an oven: what lies outside is asked about.
const (
	OvenLowC    = 120.0
	OvenHighC   = 260.0
	MinutesLow  = 8.0
	MinutesHigh = 180.0
)

// flavourShare is what a flavouring usually is of its filling or dough, in percent. Working figures.
var flavourShare = map[string]float64{
	"lemon_zest": 0.6, "orange_zest": 0.8, "vanilla_extract": 0.5, "almond_extract": 0.2, "vanilla_pod": 0.4,
}

// byItself is the most of a role that passes whatever else is in the bowl, in g: a kilogram for a gram. Working
// figures.
var byItself = map[string]float64{"salt": 150, "spice": 150, "leavener": 250, "flavour": 200}

// Find looks through one bowl.
func Find(part Part, bowl []Thing, own *larder.Own) []Finding {
	s := sums(bowl, own)
	var out []Finding
	for i, t := range bowl {
		name, role := nameAndRole(t.Key, own)
		limit, of := s.limit(part, t, role)
		if most := byItself[role]; most > 0 && (limit <= 0 || limit > most) {
			limit, of = most, message.New("more than a kitchen batch")
		}
		if limit <= 0 || t.G <= limit {
			continue
		}
		out = append(out, Finding{
			Index: i,
			Text:  message.New("{much} of {name}: is that correct?", message.Grams(t.G), message.Name(name)),
			Usual: message.New(
				"Usual is up to {much} ({share}).",
				message.Grams(limit),
				message.Part(of),
			),
			SuggestG: meant(t, limit),
		})
	}
	return out
}

// bowl's sums that the shares are of.
type sum struct {
	all, fruit, flour, dry, fat float64
	eggs                        bool
}

func sums(bowl []Thing, own *larder.Own) sum {
	var s sum
	for _, t := range bowl {
		s.all += t.G
		switch _, role := nameAndRole(t.Key, own); role {
		case larder.FruitRole:
			s.fruit += t.G
		case "flour":
			s.flour += t.G
			s.dry += t.G
		case "oat", "nut", "seed", "crumb", "sugar", "thickener":
			s.dry += t.G
		case "fat":
			s.fat += t.G
		case "egg":
			s.eggs = true
		}
	}
	return s
}

// limit is the most of a thing that passes without a question, and what that is a share of; 0 for no limit.
func (s sum) limit(part Part, t Thing, role string) (g float64, of message.Message) {
	rest := s.all - t.G // the slip itself must not stretch what it is measured against
	switch role {
	case "salt":
		return rest * saltPct / (100 - saltPct), message.New("{n} % of its bowl", message.Number(saltPct, 1))
	case "spice":
		return rest * spicePct / (100 - spicePct), message.New("{n} % of its bowl", message.Number(spicePct, 1))
	case "flavour":
		if share, ok := flavourShare[t.Key]; ok && t.G > leastFlavourG {
			return rest * share * flavourTimes / 100, message.New(
				"{times} times the usual {n} % of its bowl",
				message.Number(flavourTimes, 0),
				message.Number(share, 1),
			)
		}
	}
	switch {
	case part == Dough && (role == "leavener"):
		return s.flour * leavenPct / 100, message.New("{n} % of the flour", message.Number(leavenPct, 1))
	case part == Dough && role == "fat":
		return s.dry * fatPct / 100 * t.G / s.fat, message.New("{n} % of the dry ingredients", message.Number(fatPct, 0))
	case part == Filling && s.fruit > 0 && role == "sugar" && !s.eggs:
		return s.fruit * sugarPct / 100, message.New("{n} % of the fruit", message.Number(sugarPct, 1))
	case part == Filling && s.fruit > 0:
		if th, ok := larder.Thickeners.Get(t.Key); ok && t.Key != "egg" {
			return s.fruit * thickenerPct / 100 / th.Strength, message.New(
				"{n} % of the fruit, as cornflour",
				message.Number(thickenerPct, 1),
			)
		}
	}
	return 0, message.Message{}
}

// meant is the likeliest amount behind a slip: a spoon for a larger spoon, kg for g, a shifted point. Of several, the
// largest that passes.
func meant(t Thing, limit float64) float64 {
	var by []float64
	switch t.Unit {
	case "tbsp":
		by = append(by, 3)
	case "kg", "l":
		by = append(by, 1000)
	case "cup":
		by = append(by, 16)
	}
	const nearly = 1.25 // a teaspoon of salt is a little much, and still what was meant
	best := 0.0
	for _, d := range by {
		if g := t.G / d; g <= nearly*limit {
			best = max(best, g)
		}
	}
	for _, d := range []float64{10, 100, 1000} {
		if g := t.G / d; g <= limit {
			best = max(best, g)
		}
	}
	return best
}

func nameAndRole(key string, own *larder.Own) (name, role string) {
	if i, ok := own.Ingredient(key); ok {
		return larder.Plain(i.Name), i.Role
	}
	if f, ok := own.Fruit(key); ok {
		return larder.Plain(f.Name), larder.FruitRole
	}
	return key, ""
}
