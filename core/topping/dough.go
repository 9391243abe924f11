package topping

import (
	"slices"

	"mabbin/core/dish"
	"mabbin/core/larder"
)

// Liquid is one of those that make a dough up, with its share of their weight.
type Liquid struct {
	Ingredient larder.Ingredient
	Share      float64
}

// Every liquid counts by its water and its fat. Handbook practice, working figures at the edges.
const (
	butterFat       = 0.811 // of butter
	bicarbOfAcid    = 0.01  // g of bicarbonate to a gram of sour dairy
	powderForBicarb = 3.0   // g of baking powder that a gram of bicarbonate replaces
	leastPowder     = 0.4   // of the baking powder, which stays for the second rise in the oven
)

// sour are the liquids whose acid sets bicarbonate off.
var sour = map[string]bool{"buttermilk": true, "natural_yogurt": true, "greek_yogurt": true, "soured_cream": true}

// otherFat puts another fat in the place of the butter, as much as brings the same pure fat. Butter is 16 % water: in a
// dough that is bound by it, water makes up for a fat that has none.
func (w Spec) otherFat(parts []Part) []Part {
	if w.Fat.FatPct <= 0 || w.Fat.Key == "butter" {
		return parts
	}
	for i, p := range parts {
		if p.Ingredient.Key != "butter" {
			continue
		}
		pct := p.BakersPct * p.Ingredient.FatPct / w.Fat.FatPct
		dry := p.BakersPct*p.Ingredient.WaterPct/100 - pct*w.Fat.WaterPct/100
		parts[i] = Part{Ingredient: w.Fat, BakersPct: pct}
		if water, ok := w.Own.Ingredient("water"); ok && dry > 0.1 && bound[w.Topping.Family] {
			if j := slices.IndexFunc(parts, func(p Part) bool { return p.Ingredient.Key == water.Key }); j >= 0 {
				parts[j].BakersPct += dry
			} else {
				parts = append(parts, Part{Ingredient: water, BakersPct: dry})
			}
		}
		break
	}
	return parts
}

// bound are the families whose dough is held together by water.
var bound = map[string]bool{"biscuit": true, "pastry": true, "bar": true}

// makeUp adds the liquids that bring a dough to its hydration. Their fat replaces butter, relative to the
// whole milk of the table's recipe. Sour dairy takes bicarbonate for part of the baking powder.
func (w Spec) makeUp(parts []Part) []Part {
	hydration := w.HydrationPct
	if hydration == 0 {
		hydration = w.Topping.HydrationPct
	}
	if hydration == 0 || len(parts) == 0 {
		return parts
	}
	milk, _ := w.Own.Ingredient("whole_milk")
	liquids := w.Liquids
	if len(liquids) == 0 {
		liquids = []Liquid{{milk, 1}}
	}
	need := hydration
	for _, p := range parts {
		if wets(p.Ingredient) {
			need -= p.BakersPct * p.Ingredient.WaterPct / 100
		}
	}
	if need < 0.01 {
		return parts
	}
	water, fat := 0.0, 0.0
	for _, l := range liquids {
		water += l.Share * l.Ingredient.WaterPct / 100
		fat += l.Share * l.Ingredient.FatPct / 100
	}
	all := need / water
	lessButter := (all*fat - need/milk.WaterPct*milk.FatPct) / butterFat
	sourPct := 0.0
	for _, l := range liquids {
		if sour[l.Ingredient.Key] {
			sourPct += all * l.Share
		}
	}
	bicarb := bicarbOfAcid * sourPct
	out := parts[:0]
	for _, p := range parts {
		switch p.Ingredient.Key {
		case "butter":
			p.BakersPct = max(0, p.BakersPct-lessButter)
		case "baking_powder":
			bicarb = min(bicarb, p.BakersPct*(1-leastPowder)/powderForBicarb)
			p.BakersPct -= powderForBicarb * bicarb
		}
		if p.BakersPct > 0 {
			out = append(out, p)
		}
	}
	if i, ok := w.Own.Ingredient("bicarbonate"); ok && bicarb > 0 {
		out = append(out, Part{Ingredient: i, BakersPct: bicarb})
	}
	for _, l := range liquids {
		if l.Share > 0 {
			out = append(out, Part{Ingredient: l.Ingredient, BakersPct: all * l.Share, Liquid: true})
		}
	}
	return out
}

// wets says whether an ingredient of the recipe itself brings the water that a dough is made up with.
func wets(i larder.Ingredient) bool { return i.Role == "liquid" || i.Role == "egg" }

// Stiffness is what a dough does under the hand, by the water of its liquids and eggs to its flour.
type Stiffness string

// The stiffnesses, from dry to wet.
const (
	Crumbles Stiffness = "crumbly"
	Rolls    Stiffness = "rolls"
	Drops    Stiffness = "drops"
	Batter   Stiffness = "batter"
)

// stiffness has each with the hydration that it ends at, in percent. Handbook practice.
var stiffness = []struct {
	is   Stiffness
	upTo float64
}{{Crumbles, 52}, {Rolls, 76}, {Drops, 105}, {Batter, 1e9}}

// Dough is a dough of a stiffness as it is usually made up.
type Dough struct {
	Is           Stiffness
	HydrationPct float64
}

// Doughs are those that are offered, well within what each may have. Working figures.
var Doughs = []Dough{{Crumbles, 46}, {Rolls, 65}, {Drops, 90}}

// hydration is the water of liquids and eggs to the flour, in percent; 0 without flour.
func (s Sized) hydration() float64 {
	water, flour := 0.0, 0.0
	for _, p := range s.Parts {
		if wets(p.Ingredient) {
			water += p.G * p.Ingredient.WaterPct / 100
		}
		if p.Ingredient.Role == "flour" {
			flour += p.G
		}
	}
	if flour == 0 {
		return 0
	}
	return 100 * water / flour
}

func stiffnessOf(hydration float64) Stiffness {
	i := slices.IndexFunc(stiffness, func(s struct {
		is   Stiffness
		upTo float64
	},
	) bool {
		return hydration < s.upTo
	})
	return stiffness[max(0, i)].is
}

// SizeBase fits a base to a dish: floor, and for a shell the walls, x thickness x raw density. The zero Base is none.
func SizeBase(b larder.Base, changed map[string]float64, g dish.Geometry, own *larder.Own) Sized {
	if len(b.Parts) == 0 {
		return Sized{}
	}
	area := g.FloorAreaCM2
	if b.UpTheSides {
		area += g.PerimeterCM * g.DepthCM
	}
	s := Sized{ThicknessMM: b.ThicknessMM, VolumeML: area * b.ThicknessMM / 10}
	s.G = s.VolumeML * b.DensityGPerML
	s.SoakG = s.G * b.AbsorbGPerG
	s.Parts = split(Spec{Topping: larder.Topping{Parts: b.Parts}, BakersPct: changed, Own: own}, s.G)
	return s
}
