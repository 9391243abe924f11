// Package larder holds the tables: fruits, ingredients, thickeners, toppings, bases and dish materials.
// Each row says where its figures are from; see Basis.
package larder

import (
	"math"
	"slices"

	"mabbin/core/message"
	"mabbin/core/units"
)

// Basis is where a figure is from.
type Basis string

// The bases. A working figure is this project's own, and the kitchen's log will correct it.
const (
	Composition Basis = "composition" // public food composition tables
	Handbook    Basis = "handbook"    // general baking handbooks' figures
	Definition  Basis = "definition"
	Working     Basis = "working"
	Kitchen     Basis = "kitchen" // this kitchen's own figure, in the place of the table's
)

// FigureBases are all bases of figures, in words.
var FigureBases = message.Choices{
	message.Choose(Composition, "food composition tables"), message.Choose(Handbook, "baking handbooks"),
	message.Choose(Definition, "by definition"),
	message.Choose(Working, "working figure of this project; your log corrects it"),
	message.Choose(Kitchen, "this kitchen’s own figure"),
}

// FinishTimes are when a finish is put on.
var FinishTimes = message.Choices{
	message.Choose("before", "On top, before baking"), message.Choose("after", "On top, after baking"),
}

// Fruit is one fruit or vegetable as it behaves in a dish. Percentages are of the prepared fruit;
// times are minutes at 100 C for a piece of 8 mm.
type Fruit struct {
	Key              string
	Name             string
	Group            string
	WaterPct         float64
	SugarPct         float64
	AcidPct          float64
	PectinEqPct      float64 // natural pectin, as cornflour
	BulkGPerML       float64 // loosely heaped
	HandPackedFactor float64
	DefaultCutMM     float64
	SmallG           float64 // one piece as bought
	MediumG          float64
	LargeG           float64
	YieldPeeled      float64 // prepared over as bought
	YieldUnpeeled    float64
	ReleaseFresh     float64 // share of its water that it gives up
	ReleaseFrozen    float64
	TenderMin        float64
	CollapseMin      float64
	Precook          Precook
	BrownsInAir      bool
	CompositionBasis Basis
	JuiceColour      string // #RRGGBB, a suggestion for drawing
}

// The cut that a fruit's minutes are for, mm, and how they grow with it. Working figures.
const (
	minutesAtCutMM = 8.0
	minutesByCut   = 0.8
)

// TenderAt is how many minutes at 100 C the fruit takes to be tender in pieces of cutMM.
func (f Fruit) TenderAt(cutMM float64) float64 {
	return f.TenderMin * math.Pow(cutMM/minutesAtCutMM, minutesByCut)
}

// CollapseAt is after how many minutes at 100 C the fruit falls apart in pieces of cutMM.
func (f Fruit) CollapseAt(cutMM float64) float64 {
	return f.CollapseMin * math.Pow(cutMM/minutesAtCutMM, minutesByCut)
}

// Precook says whether a fruit is cooked before it is baked.
type Precook string

// How much it matters.
const (
	PrecookNone     Precook = "none"
	PrecookAdvised  Precook = "advised"
	PrecookRequired Precook = "required"
)

// Ingredient is anything weighed that is not the fruit. Percentages are of its weight;
// a weight of 0 for a cup, spoon or piece means that it is not measured that way.
type Ingredient struct {
	Key            string
	Name           string
	Role           string
	CupG           float64 // per US cup, spooned
	CupScoopedG    float64
	CupPackedG     float64
	TspG           float64 // per US teaspoon
	PieceG         float64
	WaterPct       float64
	FatPct         float64
	SugarPct       float64
	StarchPct      float64
	ProteinPct     float64
	AcidPct        float64
	Allergens      []string // that are in it for certain
	OnLabel        []string // that may be in it, by the brand
	AllergenOnPack bool     // the label has to be read: which is not "none"
	Basis          Basis
}

// Thickener is what one thickener does, in cornflour's terms.
type Thickener struct {
	Key          string
	Name         string
	Strength     float64 // of 1 g, as g of cornflour
	FullAtC      float64
	HoldMin      float64
	FactorAtAcid float64 // strength left at 2.5 % acid
	OverBoil     float64 // strength left after a long boil
	Freeze       string
	Clarity      string
	Method       string
	Avoid        string
	Basis        Basis
}

// Part is one ingredient of a dough in baker's percentages.
type Part struct {
	Key string
	Pct float64
}

// Topping is one topping: its recipe and how it lies, soaks and bakes.
type Topping struct {
	Key             string
	Name            string
	Family          string
	Parts           []Part // the first is the 100 %
	HydrationPct    float64
	ThicknessMM     float64 // raw, one layer
	DensityGPerML   float64 // raw
	Coverage        float64
	GapShare        float64
	Layers          float64
	AbsorbGPerG     float64 // juice taken up
	Rise            float64
	ConductivityWMK float64
	HeatJKgK        float64
	WaterPct        float64
	DrySkinMM       float64 // 0: all of it
	BrownRate       float64
	// LateMin is the longest that a topping which goes on late may bake, min; 0: it goes on at the start.
	LateMin   float64
	MakeAhead string
	Basis     Basis
}

// None says that nothing lies on the fruit.
func (t Topping) None() bool { return len(t.Parts) == 0 }

// Finish is what goes on a surface before the oven or after it.
type Finish struct {
	Key          string
	Name         string
	When         string  // before or after the bake
	GPerDM2      float64 // of the surface
	Parts        []Part  // percent of its weight
	ColourFactor float64 // how much faster the surface colours
	Looks        string
	Basis        Basis
}

// Base is what lies under the filling.
type Base struct {
	Key                string
	Name               string
	Parts              []Part // the first is the 100 %; none without a base
	ThicknessMM        float64
	DensityGPerML      float64
	UpTheSides         bool
	AbsorbGPerG        float64
	WaterPct           float64
	ParBakeC           float64
	ParBakeWeightedMin float64
	ParBakeOpenMin     float64
	Basis              Basis
}

// Material is what a dish is made of, as heat sees it. Conductivity and heat capacity are from
// composition tables, the floor's thickness from handbooks, the emissivity is a working figure.
type Material struct {
	Key             string
	Name            string
	FloorMM         float64
	ConductivityWMK float64
	ArealHeatJM2K   float64
	Emissivity      float64
	TypicalUse      string
}

// The tables, parsed once.
var (
	Fruits      = read("fruits", func(f Fruit) string { return f.Key }, parseFruit)
	Ingredients = read("ingredients", func(i Ingredient) string { return i.Key }, parseIngredient)
	Thickeners  = read("thickeners", func(t Thickener) string { return t.Key }, parseThickener)
	Toppings    = read("toppings", func(t Topping) string { return t.Key }, parseTopping)
	Bases       = read("bases", func(b Base) string { return b.Key }, parseBase)
	Finishes    = read("finishes", func(f Finish) string { return f.Key }, parseFinish)
	Styles      = read("styles", func(s Style) string { return s.Key }, parseStyle)
	Materials   = read("pan_materials", func(m Material) string { return m.Key }, parseMaterial)
)

// Yield is prepared over as-bought weight, peeled or not.
func (f Fruit) Yield(peeled bool) float64 {
	if peeled {
		return f.YieldPeeled
	}
	return f.YieldUnpeeled
}

// PieceG is the as-bought weight of one small, medium or large piece.
func (f Fruit) PieceG(size string) float64 {
	switch size {
	case "small":
		return f.SmallG
	case "large":
		return f.LargeG
	}
	return f.MediumG
}

// countedFromG is the piece weight from which fruit is bought by the piece rather than by weight, and is cut.
const countedFromG = 25.0

// Counted says whether the fruit is bought by the piece.
func (f Fruit) Counted() bool { return f.SmallG >= countedFromG }

// Peelable says whether peeling it makes a difference.
func (f Fruit) Peelable() bool { return f.YieldPeeled != f.YieldUnpeeled }

// KeepsSkin says of a fruit that could be peeled that it is usually not: stone fruit and stalks.
func (f Fruit) KeepsSkin() bool { return f.Peelable() && (f.Group == "stone" || f.Group == "stalk") }

// Layered says of a topping that it may lie between the fruit: crumbs do, a dough lies on it.
func (t Topping) Layered() bool {
	return !slices.Contains([]string{"none", "biscuit", "pastry", "praline"}, t.Family)
}

// WithFruit is how an ingredient goes with the fruit; empty: not at all.
type WithFruit string

// The ways.
const (
	Poured WithFruit = "liquid"
	Tossed WithFruit = "extra"
)

// WithFruit is how an ingredient goes with the fruit, by its role: poured as a liquid, tossed as an extra, or empty.
func (i Ingredient) WithFruit() WithFruit {
	switch i.Role {
	case "liquid", "syrup", "acid":
		return Poured
	case "fat", "dried-fruit", "nut", "seed", "spice", "flavour", "inclusion", "aromatic", "salt", "acid-salt":
		return Tossed
	}
	return ""
}

// ForTopping says of an ingredient that it may be worked into a topping.
func (i Ingredient) ForTopping() bool {
	return !slices.Contains([]string{"liquid", "thickener", "acid", "pastry"}, i.Role)
}

// Density is how heavy the ingredient lies in cups and spoons. Brown sugars are pressed in.
func (i Ingredient) Density() units.Density {
	d := units.DensityOf(i.CupG, i.TspG, "")
	if i.CupPackedG > 0 && i.Role == "sugar" {
		d = units.DensityOf(i.CupPackedG, i.TspG, "packed")
		d.LooseGPerML = i.CupG / units.USCup.ML()
	}
	d.ScoopedGPerML = i.CupScoopedG / units.USCup.ML()
	d.PackedGPerML = i.CupPackedG / units.USCup.ML()
	return d
}

// Density is how heavy the prepared fruit lies in a cup, loosely heaped.
func (f Fruit) Density() units.Density {
	return units.DensityOf(f.BulkGPerML*units.USCup.ML(), 0, "")
}

// DensityOf is the density of a fruit or an ingredient by its key, zero for one that is not known.
func DensityOf(key string) units.Density {
	if i, ok := Ingredients.Get(key); ok {
		return i.Density()
	}
	if f, ok := Fruits.Get(key); ok {
		return f.Density()
	}
	return units.Density{}
}

// AcidFactor is the strength a thickener keeps in a filling of that acidity. Below 0.8 % acid nothing is lost.
func (t Thickener) AcidFactor(acidPct float64) float64 {
	const from, span = 0.8, 1.7 // % acid: where it begins, and on to 2.5 %
	return 1 - (1-t.FactorAtAcid)*min(1, max(0, (acidPct-from)/span))
}

// Brittle says whether a dish of this material cracks where hot meets cold: glass and stoneware lead heat too
// badly to even it out. The line is drawn between them and the metals.
func (m Material) Brittle() bool { return m.ConductivityWMK < 5 }
