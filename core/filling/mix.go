// Package filling prepares the fruit, sweetens it, follows its juice from the bowl to the table, and says how that
// juice stands: the ledger and the set.
package filling

import (
	"cmp"
	"math"

	"mabbin/core/larder"
	"mabbin/core/message"
)

// Piece is one prepared fruit of a mix.
type Piece struct {
	Fruit  larder.Fruit
	Share  float64 // of the prepared weight; the shares of a mix add up to 1
	Frozen bool
	CutMM  float64 // 0: the fruit's own
	// Release is the share of its water that this very fruit gives up, measured; 0: the table's.
	Release float64
	Raw     bool // it stays raw where others are cooked first
}

// Weighed is so many grams of an ingredient among the fruit.
type Weighed struct {
	Ingredient larder.Ingredient
	G          float64
}

// Precook is cooking the fruit before it goes into the dish. Zero minutes is raw fruit.
type Precook struct {
	Minutes float64
	Open    bool // in an open pan on the hob; else covered, or in a microwave
}

// Juice drawn out by sugar is kept in the bowl, left behind, boiled down and put back, or thickened in a pan and folded
// in: then the starch has done its work before the bake.
const (
	Keep    = "keep"
	Leave   = "leave"
	Reduce  = "reduce"
	Thicken = "thicken"
)

// Macerated is what may become of the juice that was drawn.
var Macerated = message.Words(Keep, Leave, Reduce, Thicken)

// Maceration is sugared fruit left to stand. Zero minutes is none.
type Maceration struct {
	Minutes       float64
	Juice         string // Keep, Leave, Reduce or Thicken
	WithThickener bool   // the thickener was already in when the juice was left behind
}

// The constants of the juice ledger. All are working figures, which the kitchen's log corrects.
const (
	cutReferenceMM    = 8.0   // the piece that release figures are reported for
	cutSlope          = 0.15  // more surface, more juice
	thinnestCutMM     = 3.0   // thinner slices give up no more
	releaseMost       = 0.95  // of a fruit's water
	precookedMore     = 0.10  // fruit that is cooked through releases this much more than frozen
	precookMinutes    = 2.5   // min, for most of the way there
	openOffPerMin     = 0.025 // of the fruit, driven off on the hob in an open pan
	coveredOffPerMin  = 0.004
	driveOffMost      = 0.6 // of what is released
	washWater         = 0.03
	drawnMost         = 0.60 // of what is released, drawn out by sugar
	drawnBase         = 0.35
	drawnPerSugar     = 1.2 // for each gram of sugar to a gram of fruit
	drawnMinutes      = 40.0
	boiledDownShare   = 0.5 // of drawn juice, gone when it is boiled down
	thickenedShare    = 0.1 // the same, in the minute that thickens it
	thickenerWithIt   = 0.5 // of the thickener leaves with juice left behind
	crumbSoak         = 1.2 // g of juice to a gram of crumbs under or over the fruit
	driedFruitSoak    = 0.7
	soakMost          = 0.6 // of the juice there is
	JuiceDensityGPerM = 1.03
)

// Filling is everything in the fruit bowl but the sugar and the thickener, ready to be calculated for any weight of
// fruit. Make it with New.
type Filling struct {
	Pieces   []Piece
	Washed   bool
	Precook  Precook
	Macerate Maceration
	Liquids  []Weighed
	Extras   []Weighed
	CrumbG   float64 // crumbs under or over the fruit
	mix      mix
	added    added
}

// mix is what a gram of the fruit brings.
type mix struct {
	releasedWater, releasedSugar float64
	cooked, cookedWater          float64 // the share that is cooked first, and what that releases
	sugar, acid, pectin, mlPerG  float64
}

// added is what liquids and extras bring, in grams whatever the fruit weighs.
type added struct {
	g, water, sugar, acid, driedG float64
}

// New prepares a filling: the sums over its pieces, liquids and extras are done here, once.
func New(f Filling) Filling {
	f.mix, f.added = mix{}, added{} // of a filling that something was put into: it is summed anew
	for _, p := range f.Pieces {
		first := f.Precook.Minutes
		if p.Raw {
			first = 0
		}
		r := p.release(first)
		if first > 0 {
			f.mix.cooked += p.Share
			f.mix.cookedWater += p.Share * p.Fruit.WaterPct / 100 * r
		}
		f.mix.releasedWater += p.Share * p.Fruit.WaterPct / 100 * r
		f.mix.releasedSugar += p.Share * p.Fruit.SugarPct / 100 * r
		f.mix.sugar += p.Share * p.Fruit.SugarPct / 100
		f.mix.acid += p.Share * p.Fruit.AcidPct / 100
		f.mix.pectin += p.Share * p.Fruit.PectinEqPct / 100
		f.mix.mlPerG += p.Share / (p.Fruit.BulkGPerML * p.Fruit.HandPackedFactor)
	}
	for _, w := range f.Liquids {
		f.added.take(w, w.Ingredient.WaterPct)
	}
	for _, w := range f.Extras {
		water := 0.0
		if w.Ingredient.Role == "fat" || w.Ingredient.Role == "aromatic" {
			water = w.Ingredient.WaterPct
		}
		f.added.take(w, water)
		if w.Ingredient.Role == "dried-fruit" {
			f.added.driedG += w.G
		}
	}
	return f
}

func (a *added) take(w Weighed, waterPct float64) {
	a.g += w.G
	a.water += w.G * waterPct / 100
	a.sugar += w.G * w.Ingredient.SugarPct / 100
	a.acid += w.G * w.Ingredient.AcidPct / 100
}

// Cut is the size of its pieces, mm: the fruit's own where none was entered.
func (p Piece) Cut() float64 { return cmp.Or(p.CutMM, p.Fruit.DefaultCutMM) }

// release is the share of its water that a piece gives up, by its state, its cut, and how many
// minutes it was cooked before.
func (p Piece) release(precooked float64) float64 {
	r := p.Fruit.ReleaseFresh
	if p.Frozen {
		r = p.Fruit.ReleaseFrozen
	}
	if p.Release > 0 {
		r = p.Release
	}
	cut := max(p.Cut(), thinnestCutMM)
	// until it is tender, cooking draws what the bake would draw anyway
	if beyond := precooked - p.Fruit.TenderAt(cut); beyond > 0 {
		boiled := max(r, p.Fruit.ReleaseFrozen+precookedMore)
		r += (boiled - r) * (1 - math.Exp(-beyond/precookMinutes))
	}
	return min(releaseMost, r*(1+cutSlope*(cutReferenceMM/cut-cutReferenceMM/p.Fruit.DefaultCutMM)))
}

// HandPackedGPerML is how heavy the raw fruit lies when it is packed by hand.
func (f Filling) HandPackedGPerML() float64 { return 1 / f.mix.mlPerG }

// AddedG is the weight of liquids and extras.
func (f Filling) AddedG() float64 { return f.added.g }

// AcidPct is the acid of fruit, liquids and extras over their weight, in percent.
func (f Filling) AcidPct(fruitG float64) float64 {
	return 100 * (fruitG*f.mix.acid + f.added.acid) / (fruitG + f.added.g)
}

// SugarTargetPct is how sweet a filling of that acidity wants to be: base is the style's, more is the baker's own
// taste (negative for tart). Working figure, and never over 24 % before that taste.
func SugarTargetPct(acidPct, base, more float64) float64 {
	const most, perAcid, acidFrom = 24.0, 2.5, 0.5
	return min(most, base+perAcid*(acidPct-acidFrom)) + more
}

// SugarG is the sugar to add so that all sugar over fruit, liquids, extras and it makes the target. Never negative.
func (f Filling) SugarG(fruitG, targetPct float64) float64 {
	t := targetPct / 100
	return max(0, (t*(fruitG+f.added.g)-f.OwnSugarG(fruitG))/(1-t))
}

// OwnSugarG is the sugar that fruit, liquids and extras bring.
func (f Filling) OwnSugarG(fruitG float64) float64 { return fruitG*f.mix.sugar + f.added.sugar }

// drawn is the juice that sugar has drawn out after the maceration, in grams of water.
func (m Maceration) drawn(released, fruitG, sugarG float64) float64 {
	share := min(drawnMost, drawnBase+drawnPerSugar*sugarG/fruitG)
	return released * share * (1 - math.Exp(-m.Minutes/drawnMinutes))
}
