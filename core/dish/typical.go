package dish

// Typical is a dish as many kitchens have one: something to begin with, before the own ones were measured.
type Typical struct {
	Key   string
	Name  string
	Count int
	Dish  Dish
}

// stockSize is a typical dish in both of the sizes that it is sold in.
type stockSize struct {
	key, name string
	count     int
	shape     Shape
	material  string
	cm, in    [3]float64 // length, width (zero: none) and depth
}

// The sizes that shops sell, as working figures: sold by whole centimetres, or by whole inches.
var stockSizes = []stockSize{
	{"square", "Square dish", 1, Square, "stoneware", [3]float64{20, 0, 5}, [3]float64{8, 0, 2}},
	{"oblong_small", "Oblong dish, small", 1, Rectangle, "stoneware", [3]float64{24, 18, 5}, [3]float64{9.5, 7, 2}},
	{"oblong_large", "Oblong dish, large", 1, Rectangle, "stoneware", [3]float64{33, 23, 5}, [3]float64{13, 9, 2}},
	{"pan", "Baking pan", 1, Rectangle, "thin_metal", [3]float64{33, 23, 5}, [3]float64{13, 9, 2}},
	{"round", "Round dish", 1, Round, "stoneware", [3]float64{26, 0, 5}, [3]float64{10, 0, 2}},
	{"pie", "Pie dish", 1, Round, "enamel", [3]float64{23, 0, 4}, [3]float64{9, 0, 1.5}},
	{"ramekins", "Ramekin", 6, Round, "stoneware", [3]float64{9, 0, 5}, [3]float64{3.5, 0, 2}},
}

const cmPerInch = 2.54

// TypicalDishes are the dishes to begin with, sold by the centimetre or by the inch.
func TypicalDishes(inches bool) []Typical {
	out := make([]Typical, 0, len(stockSizes))
	for _, s := range stockSizes {
		size, unit := s.cm, 1.0
		if inches {
			size, unit = s.in, cmPerInch
		}
		out = append(out, Typical{s.key, s.name, s.count, Dish{
			Shape:    s.shape,
			LengthCM: size[0] * unit,
			WidthCM:  size[1] * unit,
			DepthCM:  size[2] * unit,
			Material: s.material,
		}})
	}
	return out
}
