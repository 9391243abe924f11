package balance

import (
	"mabbin/core/larder"
	"mabbin/core/message"
)

// hotShare is the share of a topping's raw volume that takes part in the hot stack: a heaped pie's topping rides above
// the rim, dough keeps its volume, crumbs settle.
func (d *dessert) hotShare() float64 {
	switch family := d.wanted.Topping.Family; {
	case d.style.FillRule == larder.FillShell:
		return 0
	case family == "biscuit" || family == "pastry":
		return 1
	}
	return 0.9
}

// The boil-over borders, in mm of hot headspace.
const (
	boilOverWarnMM = 3.0
	nearMM         = 0.01 // what a search leaves
	boilOverMM     = 0.0
)

// boilSwell is how much a filling swells with steam when it boils, for a filling that is all juice.
const boilSwell = 0.25

// tasteMore is what a taste adds to the sugar target, in percent.
var tasteMore = map[string]float64{"tart": -4, "standard": 0, "": 0, "sweet": 4}

// portionShare is a portion's size against the style's own: hearty 260 g and tasting 110 g to 180 g.
var portionShare = map[string]float64{"": 1, "standard": 1, "hearty": 260.0 / 180, "tasting": 110.0 / 180}

// familyLines returns families of toppings as messages.
func familyLines(families []string) []message.Message {
	out := make([]message.Message, len(families))
	for i, x := range families {
		out[i] = message.New(x)
	}
	return out
}
