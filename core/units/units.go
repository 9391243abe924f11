// Package units converts between the units of the kitchen: grams, centimetres, millilitres and degrees, and out of them
// what a scale shows and what real spoons and cups hold. Grams are the truth; everything else is a way in or out.
package units

import "slices"

// Volumes in ml and weights in g, by definition.
const (
	mlUSCup       = 236.588
	mlMetricCup   = 250.0
	mlImperialCup = 284.0
	mlUSTbsp      = 14.787
	mlMetricTbsp  = 15.0
	mlAusTbsp     = 20.0
	mlUSFlOz      = 29.574
	mlImpFlOz     = 28.413
	USQuartML     = 946.35
	mlUSPint      = USQuartML / 2
	ImpPintML     = 20 * mlImpFlOz
	OunceG        = 28.3495
	gPound        = 453.592
	gStick        = 113.4 // of butter
	gKnob         = 15.0  // of butter
	gPinch        = 0.3
	CMInch        = 2.54
)

// Cup is which country's cup is meant.
type Cup string

// The cups. The imperial one is the half-pint cup.
const (
	USCup       Cup = "us"
	MetricCup   Cup = "metric"
	ImperialCup Cup = "imperial"
)

// ML is what the cup holds.
func (c Cup) ML() float64 {
	switch c {
	case MetricCup:
		return mlMetricCup
	case ImperialCup:
		return mlImperialCup
	}
	return mlUSCup
}

// Spoon is which country's spoons are meant.
type Spoon string

// The spoons. The Australian tablespoon is four teaspoons, all others are three.
const (
	USSpoon         Spoon = "us"
	MetricSpoon     Spoon = "metric"
	AustralianSpoon Spoon = "australian"
)

// TbspML is what a level tablespoon holds.
func (s Spoon) TbspML() float64 {
	switch s {
	case MetricSpoon:
		return mlMetricTbsp
	case AustralianSpoon:
		return mlAusTbsp
	}
	return mlUSTbsp
}

// TspML is what a level teaspoon holds.
func (s Spoon) TspML() float64 {
	if s == AustralianSpoon {
		return mlAusTbsp / 4
	}
	return s.TbspML() / 3
}

// Eggs is which country's egg sizes are meant.
type Eggs string

// The egg sizes: British and European ones run a size larger than American ones of the same name.
const (
	USEggs Eggs = "us"
	UKEggs Eggs = "uk"
)

// eggG is an egg without its shell, in g, by country and size; "" is the size that recipes mean.
var eggG = map[Eggs]map[string]float64{
	USEggs: {"": 50, "small": 38, "medium": 44, "large": 50, "extra large": 56},
	UKEggs: {"": 50, "small": 44, "medium": 50, "large": 58, "extra large": 65},
}

// Conventions are a kitchen's own cup, spoons and eggs, and what its containers hold. The zero value is American.
type Conventions struct {
	Cup   Cup
	Spoon Spoon
	Eggs  Eggs
	// Containers has the grams of what is bought by the container, as "punnet strawberry" or "tin" for any content:
	// asked once and remembered for the kitchen.
	Containers map[string]float64
}

// EggG is the weight of an egg of a size, without its shell.
func (c Conventions) EggG(size string) float64 {
	country := c.Eggs
	if country == "" {
		country = UKEggs
		if c.Cup == USCup || c.Cup == "" {
			country = USEggs
		}
	}
	g, ok := eggG[country][size]
	if !ok {
		g = eggG[country][""]
	}
	return g
}

// Density is how heavy an ingredient lies in a cup and in a spoon, from the weights of a US cup and teaspoon.
// Zero means that it is not measured so, and then nothing is guessed.
type Density struct {
	CupGPerML     float64 // by its usual packing
	TspGPerML     float64
	ScoopedGPerML float64
	PackedGPerML  float64
	LooseGPerML   float64 // where the cup's figure is for packing: without it
	Packing       string  // "packed" where the cup's figure is for pressing it in
}

// DensityOf makes a density from the weight of a US cup and of a US teaspoon, either of them 0.
func DensityOf(usCupG, usTspG float64, packing string) Density {
	d := Density{CupGPerML: usCupG / mlUSCup, TspGPerML: usTspG / USSpoon.TspML(), Packing: packing}
	if d.TspGPerML == 0 {
		d.TspGPerML = d.CupGPerML
	}
	return d
}

// GasMark is a mark of a gas oven.
type GasMark struct {
	Mark float64 `json:"mark"`
	Text string  `json:"text"`
	C    float64 `json:"c"` // what it heats to
}

var gasMarks = []GasMark{
	{0.25, "¼", 110},
	{0.5, "½", 130},
	{1, "1", 140},
	{2, "2", 150},
	{3, "3", 170},
	{4, "4", 180},
	{5, "5", 190},
	{6, "6", 200},
	{7, "7", 220},
	{8, "8", 230},
	{9, "9", 240},
}

// GasMarks are the marks of a gas oven, in rising order.
func GasMarks() []GasMark { return slices.Clone(gasMarks) }
