// Package balance puts one dessert into one dish: how much fruit, sugar, thickener and topping, how it will stand at
// the table, what to weigh in which bowl, and what to watch out for.
package balance

import (
	"slices"

	"mabbin/core/dish"
	"mabbin/core/larder"
	"mabbin/core/topping"
	"mabbin/core/units"
)

// Request is one dessert in one dish. What is left out takes the style's or the fruit's own value.
type Request struct {
	Dish          dish.Dish       `json:"dish"`
	Style         string          `json:"style"`
	Fruits        []FruitInput    `json:"fruits"`
	Washed        bool            `json:"washed,omitempty"`
	Precook       *PrecookInput   `json:"precook,omitempty"`
	Macerate      *MacerateInput  `json:"macerate,omitempty"`
	Liquids       []Quantity      `json:"liquids,omitempty"`
	Extras        []Quantity      `json:"extras,omitempty"`
	CrumbLayerG   float64         `json:"crumb_layer_g,omitempty"`
	WeighedFruitG *float64        `json:"weighed_fruit_g,omitempty"` // prepared; overrides the fill rule
	BoughtFruitG  *float64        `json:"bought_fruit_g,omitempty"`  // or as bought, before it is peeled, cored, stoned
	Sweetness     string          `json:"sweetness,omitempty"`       // tart, standard, sweet or savoury
	SugarG        *float64        `json:"sugar_g,omitempty"`         // overrides the sugar target
	SugarKey      string          `json:"sugar_key,omitempty"`       // which sugar; left out: caster
	Thickener     *ThickenerInput `json:"thickener,omitempty"`       // left out: cornflour, to the set target
	SetTarget     *float64        `json:"set_target,omitempty"`      // score; left out: the style's
	LongBoil      bool            `json:"long_boil,omitempty"`       // the set is reached over 40 min before the end
	SteamedOffG   *float64        `json:"steamed_off_g,omitempty"`   // left out: by the plain rule
	Topping       ToppingInput    `json:"topping"`
	Base          *BaseInput      `json:"base,omitempty"`
	Late          []ToppingInput  `json:"late,omitempty"`    // more toppings, on or after the first
	Custard       *CustardInput   `json:"custard,omitempty"` // poured over the fruit of a bar or tart
	Finishes      []string        `json:"finishes,omitempty"`
	Cuts          *topping.Cuts   `json:"cuts,omitempty"`     // how topping and bars are cut
	Greasing      string          `json:"greasing,omitempty"` // butter, oil, sling or none; left out: by the style
	Portion       string          `json:"portion,omitempty"`  // tasting, standard or hearty
	Cup           units.Cup       `json:"cup,omitempty"`
	Spoon         units.Spoon     `json:"spoon,omitempty"`
	Eggs          units.Eggs      `json:"eggs,omitempty"`
	Own           *larder.Own     `json:"own,omitempty"` // the kitchen's own figures, in the place of the tables'
}

// WeighFruit gives the fruit by its prepared weight, g, whatever it was given by before.
func (r *Request) WeighFruit(g float64) { r.WeighedFruitG, r.BoughtFruitG = &g, nil }

// FillWithFruit leaves the fruit to the dish.
func (r *Request) FillWithFruit() { r.WeighedFruitG, r.BoughtFruitG = nil, nil }

// FruitEntered says whether the fruit is given, prepared or as bought, rather than left to the dish.
func (r *Request) FruitEntered() bool { return r.WeighedFruitG != nil || r.BoughtFruitG != nil }

// FruitInput is one fruit of the mix.
type FruitInput struct {
	Key     string  `json:"key"`
	Share   float64 `json:"share"` // shares are normalised to 1
	Frozen  bool    `json:"frozen,omitempty"`
	Peeled  *bool   `json:"peeled,omitempty"` // left out: peeled
	CutMM   float64 `json:"cut_mm,omitempty"`
	Size    string  `json:"size,omitempty"`     // small, medium or large, as bought
	LossPct float64 `json:"loss_pct,omitempty"` // bruises and worm holes, in addition to the usual yield
	// MeasuredRelease is the share of its water that this crate gives up, from a test; it overrides the table's.
	MeasuredRelease float64 `json:"measured_release,omitempty"`
}

// PrecookInput is cooking the fruit first.
type PrecookInput struct {
	Minutes float64 `json:"minutes"`
	Open    bool    `json:"open,omitempty"`
	Where   string  `json:"where,omitempty"` // hob, oven or microwave; left out: hob
	// Fruits are the keys of those that are cooked first, the tough ones of a mixture; left out: all.
	Fruits []string `json:"fruits,omitempty"`
}

// Cooks says whether a fruit is cooked first.
func (p *PrecookInput) Cooks(fruit string) bool {
	return p.Minutes > 0 && (len(p.Fruits) == 0 || slices.Contains(p.Fruits, fruit))
}

// MacerateInput is letting the sugared fruit stand.
type MacerateInput struct {
	Minutes       float64 `json:"minutes"`
	Juice         string  `json:"juice,omitempty"` // keep, leave, reduce or thicken
	WithThickener bool    `json:"with_thickener,omitempty"`
}

// Quantity is so much of an ingredient.
type Quantity struct {
	Key string  `json:"key"`
	G   float64 `json:"g"`
}

// ThickenerInput is the thickener: without grams it is solved for the set target, with grams the set is read.
type ThickenerInput struct {
	Key  string     `json:"key"`
	G    *float64   `json:"g,omitempty"`
	With []Quantity `json:"with,omitempty"` // other thickeners in addition to it, in grams
}

// ToppingInput is the topping.
type ToppingInput struct {
	Key         string             `json:"key"`
	Amount      topping.Amount     `json:"amount,omitempty"`
	ThicknessMM float64            `json:"thickness_mm,omitempty"` // overrides the amount
	BakersPct   map[string]float64 `json:"bakers_pct,omitempty"`
	Fat         string             `json:"fat,omitempty"` // in the place of butter, by its pure fat
	// cold, soft or melted; left out: as the recipe is usually made
	FatState string `json:"fat_state,omitempty"`
	Crumb    string `json:"crumb,omitempty"` // fine or chunks
	// Colour is how brown the top is wanted: pale, golden, deep or dark; left out: golden.
	Colour   string   `json:"colour,omitempty"`
	GapShare *float64 `json:"gap_share,omitempty"` // left open for steam; left out: the table's
	Layers   int      `json:"layers,omitempty"`    // the topping lies in so many, fruit between; left out: the table's
	// Tool is what it is worked with: fingers, grater, fork, mixer or processor; left out: as the recipe says.
	Tool   string  `json:"tool,omitempty"`
	BowlML float64 `json:"bowl_ml,omitempty"` // what a mixer's or processor's bowl holds; left out: 2 litres
	// Liquids make a dough up, in shares of their weight; left out: whole milk.
	Liquids      []LiquidInput `json:"liquids,omitempty"`
	HydrationPct float64       `json:"hydration_pct,omitempty"` // water of the liquids to flour; left out: the table's
}

// CustardInput is a custard by its own ratio, in parts by weight. The zero value is the usual one.
type CustardInput struct {
	Egg   float64 `json:"egg,omitempty"`
	Sugar float64 `json:"sugar,omitempty"`
	Flour float64 `json:"flour,omitempty"`
	Salt  float64 `json:"salt,omitempty"`
	// TotalG is how much of it there is, in g; left out: by the floor of the dish.
	TotalG float64 `json:"total_g,omitempty"`
	// Starch is the thickener that the parts of flour are of; left out: wheat flour.
	Starch string `json:"starch,omitempty"`
}

// LiquidInput is one liquid of a dough.
type LiquidInput struct {
	Key   string  `json:"key"`
	Share float64 `json:"share"`
}

// BaseInput is what lies under the filling.
type BaseInput struct {
	Key         string             `json:"key"`
	ThicknessMM float64            `json:"thickness_mm,omitempty"` // left out: the table's
	ParBaked    bool               `json:"par_baked,omitempty"`    // before the fruit goes in
	Crisp       bool               `json:"crisp,omitempty"`        // it must be crisp: the baker goes by the base
	EggSeal     bool               `json:"egg_seal,omitempty"`     // brushed inside with egg, so that it soaks less
	BakersPct   map[string]float64 `json:"bakers_pct,omitempty"`
}

const (
	defaultThickener = "cornflour"
	defaultSugar     = "caster_sugar"
)
