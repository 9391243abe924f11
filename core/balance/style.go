package balance

import "mabbin/core/message"

// style is what a dessert of that kind is built to.
type style struct {
	// of what the rule fills: the dish with the raw stack, or the shell with fruit alone; g per cm2 for floor
	fill      float64
	rule      fillRule
	keepMM    float64 // hot headspace to keep
	sugarBase float64 // %
	set       float64 // score
	steamGCM2 float64 // steamed off, g per cm2 of rim, by the plain rule
	portionG  float64 // as served
	depthLo   float64 // topping depth to raw fruit depth
	depthHi   float64
	families  families // of the toppings that lie on it
	topping   string   // what lies on it where nobody says
	base      string   // what lies under it where it is begun afresh
}

// fillRule is what decides how much fruit a style takes.
type fillRule int

const (
	byStack fillRule = iota // the raw stack of base, fruit and topping, as a share of the dish
	byShell                 // the fruit alone, as a share of the lined dish: it is heaped and the topping rides on it
	byFloor                 // grams for each cm2 of the floor
)

var crumbs = []string{"crumble", "crisp", "streusel"}

// styles has the styles' targets: fill, headspace, set and portion are handbook practice, steam and the range of
// depths are working figures.
var styles = map[string]style{
	"crumble":  {1.05, byStack, 6, 18.5, 3.6, 0.15, 180, 0.25, 0.60, crumbs, "crumble_classic", ""},
	"crisp":    {1.05, byStack, 6, 18.5, 3.6, 0.15, 180, 0.22, 0.55, crumbs, "crisp_oat_nut", ""},
	"cobbler":  {0.80, byStack, 6, 18.5, 2.5, 0.22, 180, 0.25, 0.85, []string{"biscuit", "pastry"}, "biscuit_drop", ""},
	"pandowdy": {1.00, byStack, 6, 18.5, 2.5, 0.25, 180, 0.04, 0.20, []string{"pastry", "biscuit"}, "puff_squares", ""},
	"betty":    {0.90, byStack, 6, 18.5, 3.0, 0.12, 180, 0.08, 0.35, []string{"betty"}, "betty_bread", ""},
	"bar": {
		1.15,
		byFloor,
		4,
		20,
		6.5,
		0.06,
		75,
		0.15,
		0.70,
		[]string{"bar", "crumble", "crisp", "streusel", "praline"},
		"bar_dough",
		"bar_dough",
	},
	"pie": {
		1.05,
		byShell,
		2,
		19,
		6.2,
		0.08,
		140,
		0.15,
		0.55,
		[]string{"streusel", "crumble", "crisp", "praline", "pastry"},
		"streusel_coarse",
		"shortcrust",
	},
}

// StyleInfo tells a style to who has to offer it.
type StyleInfo struct {
	Key       string
	SetTarget float64
	Families  []string // of toppings
	Topping   string   // the usual one
	Base      string   // the usual one, empty for none
	Custard   bool     // one may be poured over its fruit
}

// takesCustard says of a style that a custard may be poured over its fruit.
func takesCustard(style string) bool { return style == "bar" || style == "pie" }

// Styles lists every style.
func Styles() []StyleInfo {
	names := StyleNames.Values()
	out := make([]StyleInfo, len(names))
	for i, name := range names {
		s := styles[name]
		out[i] = StyleInfo{
			Key:       name,
			SetTarget: s.set,
			Families:  s.families,
			Topping:   s.topping,
			Base:      s.base,
			Custard:   takesCustard(name),
		}
	}
	return out
}

// hotShare is the share of a topping's raw volume that takes part in the hot stack: a heaped pie's topping rides above
// the rim, dough keeps its volume, crumbs settle.
func (d *dessert) hotShare() float64 {
	switch family := d.wanted.Topping.Family; {
	case d.style.rule == byShell:
		return 0
	case family == "biscuit" || family == "pastry":
		return 1
	}
	return 0.9
}

// The boil-over borders, in mm of hot headspace.
const (
	boilOverWarnMM = 3.0
	boilOverMM     = 0.0
)

// boilSwell is how much a filling swells with steam when it boils, for a filling that is all juice.
const boilSwell = 0.25

// tasteMore is what a taste adds to the sugar target, in percent.
var tasteMore = map[string]float64{"tart": -4, "standard": 0, "": 0, "sweet": 4}

// portionShare is a portion's size against the style's own: hearty 260 g and tasting 110 g to 180 g.
var portionShare = map[string]float64{"": 1, "standard": 1, "hearty": 260.0 / 180, "tasting": 110.0 / 180}

type families []string

func (f families) lines() []message.Message {
	out := make([]message.Message, len(f))
	for i, x := range f {
		out[i] = message.New(x)
	}
	return out
}
