package balance

import (
	"fmt"
	"math"
	"strconv"

	"mabbin/core/dish"
	"mabbin/core/filling"
)

// Cutaway is the dish cut open along its length, to scale: heights above the inside of the floor, in mm.
type Cutaway struct {
	Shape         dish.Shape `json:"shape"`
	RimLengthMM   float64    `json:"rim_length_mm"`
	FloorLengthMM float64    `json:"floor_length_mm"`
	DepthMM       float64    `json:"depth_mm"`
	BaseMM        float64    `json:"base_mm"`    // thickness of the base on the floor
	BaseSides     bool       `json:"base_sides"` // and up the walls
	// top of what lies under the fruit: base, crumbs, a betty's lower layer
	LowerMM      float64 `json:"lower_mm"`
	FruitRawMM   float64 `json:"fruit_raw_mm"`   // top of the hand-packed raw fruit
	ToppingRawMM float64 `json:"topping_raw_mm"` // top of the raw topping on it
	FruitMM      float64 `json:"fruit_mm"`       // top of the fruit when it has sunk
	JuiceMM      float64 `json:"juice_mm"`       // how high the juice stands in it, at the table
	ToppingMM    float64 `json:"topping_mm"`     // top of the baked topping
	LateMM       float64 `json:"late_mm"`        // top of what is put on in addition to
	HotMM        float64 `json:"hot_mm"`         // how high the boiling stack reaches
	JuiceColour  string  `json:"juice_colour"`   // #RRGGBB
	GapShare     float64 `json:"gap_share"`
	Family       string  `json:"family"` // of the topping: how it is drawn
	Custard      bool    `json:"custard"`
}

// voidShare is how much of the baked filling the juice can stand in, between the pieces. Working figure, for the
// picture alone.
const voidShare = 0.6

func (p *plan) cutaway(s candidate, fruitML float64) Cutaway {
	g := p.geo
	settled := max(0, s.MassG+p.allThickenerG(s)-s.SteamedOffG-s.SoakedUpG) / filling.JuiceDensityGPerM
	juice := min(settled, s.JuiceG/filling.JuiceDensityGPerM/voidShare)
	below := p.belowFruitML()
	raw := 10 * g.HeightCM(below+fruitML)
	sunk := 10 * g.HeightCM(below+settled)
	late := 0.0
	for _, x := range p.late {
		late += x.ThicknessMM
	}
	lower := 10 * g.HeightCM(below)
	if p.base.UpTheSides { // the walls' dough lies on the walls, not on the floor
		lower = p.under.ThicknessMM + 10*g.HeightCM(below-p.under.VolumeML)
	}
	baked := sunk + p.top.ThicknessMM*p.wanted.Topping.Rise
	return Cutaway{
		Shape:         p.req.Dish.Shape,
		RimLengthMM:   10 * g.RimLengthCM,
		FloorLengthMM: 10 * g.FloorLenCM,
		DepthMM:       10 * g.DepthCM,
		BaseMM:        p.under.ThicknessMM,
		BaseSides:     p.base.UpTheSides,
		LowerMM:       lower,
		FruitRawMM:    raw,
		ToppingRawMM:  raw + p.top.ThicknessMM,
		FruitMM:       sunk,
		JuiceMM:       min(sunk, 10*g.HeightCM(below+juice)),
		ToppingMM:     baked,
		LateMM:        baked + late,
		HotMM:         10*g.DepthCM - s.headspaceMM,
		JuiceColour: blend(
			p.filling.Pieces,
		),
		GapShare: p.gapShare(),
		Family:   p.wanted.Topping.Family,
		Custard:  p.custard != nil,
	}
}

// belowFruitML is what lies under the fruit: the base, crumbs, the lower layers of a betty.
func (p *plan) belowFruitML() float64 {
	layers := max(1, p.wanted.Topping.Layers)
	return p.under.VolumeML + p.top.VolumeML*(layers-1)/layers + p.req.CrumbLayerG/crumbLayerGPerML
}

// FruitLevels is the weight of the fruit at each level that the top of it may be filled to, raw and packed by hand:
// what is taken hold of in the picture is a level, and what is weighed is grams.
type FruitLevels struct {
	FromMM int       `json:"from_mm"` // of the first
	G      []float64 `json:"g"`       // at each millimetre from there
}

// heapedMM is how far above the rim fruit is heaped at most.
const heapedMM = 20

func (p *plan) fruitLevels() FruitLevels {
	below, density := p.belowFruitML(), p.filling.HandPackedGPerML()
	most := int(10*p.geo.DepthCM) + heapedMM + 1
	out := FruitLevels{G: make([]float64, 0, most)}
	for mm := range most {
		g := math.Round((p.geo.VolumeAt(float64(mm)/10) - below) * density)
		switch {
		case g < leastFruitG:
			out.FromMM = mm + 1
		case g <= mostFruitG:
			out.G = append(out.G, g)
		}
	}
	return out
}

// gapShare is the share of the surface that is left open.
func (p *plan) gapShare() float64 {
	if g := p.req.Topping.GapShare; g != nil {
		return *g
	}
	return p.wanted.Topping.GapShare
}

// crumbLayerGPerML is how crumbs lie under the fruit. Working figure, for the picture alone.
const crumbLayerGPerML = 0.45

// blend mixes the fruits' juice colours by share, in linear light, as dyed juices mix to the eye.
func blend(pieces []filling.Piece) string {
	var sum [3]float64
	for _, p := range pieces {
		for i := range sum {
			v, _ := strconv.ParseUint(p.Fruit.JuiceColour[1+2*i:3+2*i], 16, 8) // the table's test looked at each
			sum[i] += p.Share * math.Pow(float64(v)/255, 2.2)
		}
	}
	c := func(i int) int { return int(math.Round(255 * math.Pow(sum[i], 1/2.2))) }
	return fmt.Sprintf("#%02X%02X%02X", c(0), c(1), c(2))
}
