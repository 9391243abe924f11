// Package dish knows the shapes of baking dishes: areas, volume, and how high a volume stands in them.
package dish

import (
	"math"

	"mabbin/core/fault"
	"mabbin/core/message"
)

// Shape is a dish's outline seen from above.
type Shape string

// The shapes. A set of ramekins is a count of one round dish.
const (
	Rectangle Shape = "rectangle"
	Square    Shape = "square"
	Round     Shape = "round"
	Oval      Shape = "oval"
)

// Shapes are all of them, as they are offered.
var Shapes = message.Words(Rectangle, Square, Round, Oval)

// Dish is the inside of one baking dish. Lengths are of the opening unless they say floor;
// a zero floor length means straight walls, a zero measured volume means it was never filled with water.
type Dish struct {
	Shape         Shape   `json:"shape"`
	LengthCM      float64 `json:"length_cm"`                 // diameter of a round dish, side of a square
	WidthCM       float64 `json:"width_cm,omitempty"`        // rectangle and oval only
	DepthCM       float64 `json:"depth_cm"`                  // inside, floor to rim
	FloorLengthCM float64 `json:"floor_length_cm,omitempty"` // zero: as the rim
	FloorWidthCM  float64 `json:"floor_width_cm,omitempty"`  // zero: in proportion to the floor length
	MeasuredML    float64 `json:"measured_ml,omitempty"`     // water to the brim; overrides the computed volume
	Material      string  `json:"material"`                  // key of the dish materials table
}

// The sizes that can be somebody's dish, in cm. A restaurant tray is 65 cm long; a ramekin is 6 cm across.
const (
	minSideCM, maxSideCM   = 3.0, 100.0
	minDepthCM, maxDepthCM = 1.0, 20.0
	// A measured volume further than this factor from the computed one is a slip, not a rounded corner.
	minMeasured, maxMeasured = 0.5, 1.5
)

// Geometry is what a dish's sizes come to.
type Geometry struct {
	RimAreaCM2   float64
	FloorAreaCM2 float64
	PerimeterCM  float64 // of the rim
	VolumeML     float64 // measured if it was, else by the prismoidal rule
	DepthCM      float64
	RimLengthCM  float64
	FloorLenCM   float64
	computedML   float64
	middleCM2    float64 // area at half depth
}

// Check notes every wrong size under the pointer prefix at.
func (d Dish) Check(at string, f *fault.Faults) {
	ok := f.Among(at, "/shape", string(d.Shape), Shapes)
	ok = f.RangeAt(at, "/length_cm", d.LengthCM, minSideCM, maxSideCM, "cm") && ok
	ok = f.RangeAt(at, "/depth_cm", d.DepthCM, minDepthCM, maxDepthCM, "cm") && ok
	two := d.Shape == Rectangle || d.Shape == Oval
	if two {
		ok = f.RangeAt(at, "/width_cm", d.WidthCM, minSideCM, maxSideCM, "cm") && ok
	} else if ok && d.WidthCM != 0 && d.WidthCM != d.LengthCM {
		f.Add(
			at+"/width_cm",
			message.New("a {shape} dish has one diameter: remove the width", message.Word(string(d.Shape))),
		)
		ok = false
	}
	ok = d.checkFloor(at, "floor_length_cm", d.FloorLengthCM, d.LengthCM, f) && ok
	if two {
		ok = d.checkFloor(at, "floor_width_cm", d.FloorWidthCM, d.WidthCM, f) && ok
	} else if ok && d.FloorWidthCM != 0 && d.FloorWidthCM != d.FloorLengthCM {
		f.Add(
			at+"/floor_width_cm",
			message.New(
				"a {shape} dish has one floor diameter: remove the floor width",
				message.Word(string(d.Shape)),
			),
		)
		ok = false
	}
	if !ok || d.MeasuredML == 0 {
		return
	}
	v := d.Measure().computedML
	if !(d.MeasuredML >= minMeasured*v && d.MeasuredML <= maxMeasured*v) {
		f.Add(
			at+"/measured_ml",
			message.New(
				"is {measured}, but these sizes hold about {sizes}: measure again, or correct the sizes",
				message.Millilitres(d.MeasuredML),
				message.Millilitres(v),
			),
		)
	}
}

// checkFloor notes a floor that is wider than the rim, or no size at all. Zero is "as the rim".
func (d Dish) checkFloor(at, name string, floor, rim float64, f *fault.Faults) bool {
	if floor == 0 {
		return true
	}
	if floor > rim {
		f.Add(
			at+"/"+name,
			message.New(
				"is {floor}, wider than the rim ({rim}): have the two been swapped?",
				message.Centimetres(floor),
				message.Centimetres(rim),
			),
		)
		return false
	}
	return f.Range(at+"/"+name, floor, rim*0.3, rim, "cm")
}

// Measure computes the geometry of a dish that passed Check.
func (d Dish) Measure() Geometry {
	l, w := d.LengthCM, d.WidthCM
	if d.Shape == Square || d.Shape == Round {
		w = l
	}
	fl := d.FloorLengthCM
	if fl == 0 {
		fl = l
	}
	fw := d.FloorWidthCM
	if fw == 0 {
		fw = w * fl / l
	}
	g := Geometry{DepthCM: d.DepthCM, RimLengthCM: l, FloorLenCM: fl}
	g.RimAreaCM2 = d.Shape.area(l, w)
	g.FloorAreaCM2 = d.Shape.area(fl, fw)
	g.middleCM2 = d.Shape.area((l+fl)/2, (w+fw)/2)
	g.PerimeterCM = d.Shape.perimeter(l, w)
	g.computedML = d.DepthCM / 6 * (g.FloorAreaCM2 + 4*g.middleCM2 + g.RimAreaCM2)
	g.VolumeML = g.computedML
	if d.MeasuredML > 0 {
		g.VolumeML = d.MeasuredML
	}
	return g
}

func (s Shape) area(l, w float64) float64 {
	if s == Round || s == Oval {
		return math.Pi / 4 * l * w
	}
	return l * w
}

// perimeter of an ellipse is Ramanujan's second approximation; a circle is its exact case.
func (s Shape) perimeter(l, w float64) float64 {
	if s == Rectangle || s == Square {
		return 2 * (l + w)
	}
	a, b := l/2, w/2
	h := (a - b) * (a - b) / ((a + b) * (a + b))
	return math.Pi * (a + b) * (1 + 3*h/(10+math.Sqrt(4-3*h)))
}

// HeightCM is how high ml stand in the dish. Above the rim the walls are thought on, straight up.
// A measured volume scales the whole dish, as rounded corners and bowed walls do.
func (g Geometry) HeightCM(ml float64) float64 {
	switch {
	case ml <= 0:
		return 0
	case ml >= g.VolumeML:
		return g.DepthCM + (ml-g.VolumeML)/g.RimAreaCM2
	}
	want := ml / g.VolumeML * g.computedML
	lo, hi := 0.0, g.DepthCM
	for range 40 {
		mid := (lo + hi) / 2
		if g.below(mid) < want {
			lo = mid
		} else {
			hi = mid
		}
	}
	return (lo + hi) / 2
}

// VolumeAt is how many ml stand in the dish up to a height, in cm: what HeightCM turns back.
func (g Geometry) VolumeAt(cm float64) float64 {
	switch {
	case cm <= 0:
		return 0
	case cm >= g.DepthCM:
		return g.VolumeML + (cm-g.DepthCM)*g.RimAreaCM2
	}
	return g.below(cm) / g.computedML * g.VolumeML
}

// below is the computed volume under height h: the area is a quadratic in h through floor, middle and rim.
func (g Geometry) below(h float64) float64 {
	t := h / g.DepthCM
	a := g.FloorAreaCM2
	b := -3*g.FloorAreaCM2 + 4*g.middleCM2 - g.RimAreaCM2
	c := 2*g.FloorAreaCM2 - 4*g.middleCM2 + 2*g.RimAreaCM2
	return g.DepthCM * t * (a + t*(b/2+t*c/3))
}

// Sizes tells a dish by its sizes, with the unit said once: "24 × 18 cm, 5 deep", "26 cm round, 5 deep".
func (d Dish) Sizes() message.Message {
	long, depth := message.Centimetres(d.LengthCM), message.BareCentimetres(d.DepthCM)
	if d.WidthCM == 0 {
		return message.New("{across} {shape}, {depth} deep", long, message.Word(string(d.Shape)), depth)
	}
	first, second := message.BareCentimetres(d.LengthCM), message.Centimetres(d.WidthCM)
	if d.Shape == Rectangle {
		return message.New("{long} × {wide}, {depth} deep", first, second, depth)
	}
	return message.New("{long} × {wide} {shape}, {depth} deep", first, second, message.Word(string(d.Shape)), depth)
}

// Measured tells what its water tells in addition to its sizes; empty where it was never filled.
func (d Dish) Measured() message.Message {
	if d.MeasuredML == 0 {
		return message.Message{}
	}
	g := d.Measure()
	off := math.Round(100 * (g.VolumeML/g.computedML - 1))
	text := "{measured} measured, {computed} computed from its sizes: {n} % more, by rounded corners and thick walls."
	if off < 0 {
		text = "{measured} measured, {computed} computed from its sizes: {n} % less, by rounded corners and thick walls."
	}
	return message.New(
		text, message.Millilitres(g.VolumeML), message.Millilitres(g.computedML), message.Number(math.Abs(off), 0))
}

// rimCM is what a dish is larger outside than in. A working figure.
const rimCM = 4.0

// Wider is a dish of the same shape and depth whose opening is so many times as large.
func (d Dish) Wider(times float64) Dish {
	k := math.Sqrt(times)
	d.LengthCM, d.WidthCM, d.FloorLengthCM, d.FloorWidthCM = k*d.LengthCM, k*d.WidthCM, k*d.FloorLengthCM, k*d.FloorWidthCM
	d.MeasuredML = 0
	return d
}

// Outside are the sizes of a dish as it stands in an oven, cm.
func (d Dish) Outside() (length, width float64) {
	length, width = d.LengthCM, d.WidthCM
	if width == 0 {
		width = length
	}
	return length + rimCM, width + rimCM
}
