package dish

import (
	"regexp"
	"strconv"
	"strings"
)

// sizesSaid are the sizes of a dish as recipes write them: "9x13-inch pan", "a 20 cm square tin", "26cm round dish".
var (
	twoSizes = regexp.MustCompile(`(?i)(\d+(?:\.\d+)?)\s*(?:-?(?:inch(?:es)?|in\.?|cm|"|″))?\s*(?:x|×|by)\s*` +
		`(\d+(?:\.\d+)?)\s*(?:x\s*(\d+(?:\.\d+)?)\s*)?-?\s*(inch(?:es)?|in\b\.?|cm|"|″)`)
	oneSize = regexp.MustCompile(`(?i)(\d+(?:\.\d+)?)\s*-?\s*(inch(?:es)?|in\b\.?|cm|"|″)[\s-]*` +
		`((?:deep[- ]dish |round |square |oval |glass |ceramic |metal |cast[- ]iron |baking |cake |non-?stick |pie |` +
		`deep |shallow |loose-bottomed |fluted |tart |springform )*)(skillet|pan|tin|dish|plate|case|ring)\b`)
	near = 60 // letters round the sizes that tell what it is made of
)

// What a dish is that no recipe says all of. Working figures.
const (
	usualDepthCM = 5.0
	plateDepthCM = 4.0
)

// Find finds the dish that a text asks for, by its sizes; false where it names none.
func Find(text string) (Dish, bool) {
	if m := twoSizes.FindStringSubmatchIndex(text); m != nil {
		part := func(i int) string {
			if m[2*i] < 0 {
				return ""
			}
			return text[m[2*i]:m[2*i+1]]
		}
		unit := perCM(part(4))
		a, b := figure(part(1))*unit, figure(part(2))*unit
		d := Dish{Shape: Rectangle, LengthCM: max(a, b), WidthCM: min(a, b), DepthCM: usualDepthCM}
		if deep := figure(part(3)) * unit; deep > 0 {
			d.DepthCM = deep
		}
		if a == b {
			d.Shape, d.WidthCM = Square, 0
		}
		d.Material = madeOf(text[max(0, m[0]-near):min(len(text), m[1]+near)])
		return d, d.sensible()
	}
	m := oneSize.FindStringSubmatch(text)
	if m == nil {
		return Dish{}, false
	}
	d := Dish{Shape: Round, LengthCM: figure(m[1]) * perCM(m[2]), DepthCM: usualDepthCM}
	about := strings.ToLower(m[3] + " " + m[4])
	switch {
	case strings.Contains(about, "square"):
		d.Shape = Square
	case strings.Contains(about, "pie") || strings.Contains(about, "tart") || strings.Contains(about, "plate"):
		d.DepthCM = plateDepthCM
	}
	d.Material = madeOf(about)
	return d, d.sensible()
}

func (d Dish) sensible() bool {
	return d.LengthCM >= 6 && d.LengthCM <= maxSideCM && (d.WidthCM == 0 || d.WidthCM >= 6) && d.DepthCM <= maxDepthCM &&
		d.DepthCM >= minDepthCM
}

func figure(s string) float64 {
	x, err := strconv.ParseFloat(s, 64)
	if err != nil {
		return 0
	}
	return x
}

func perCM(unit string) float64 {
	if strings.EqualFold(unit, "cm") {
		return 1
	}
	return cmPerInch
}

// madeOf is the usual material of what a recipe calls a dish.
func madeOf(about string) string {
	about = strings.ToLower(about)
	for _, x := range [][2]string{
		{"cast", "cast_iron"},
		{"skillet", "cast_iron"},
		{"glass", "glass"},
		{"ceramic", "stoneware"},
		{"stoneware", "stoneware"},
		{"foil", "foil"},
		{"enamel", "enamel"},
		{"dark", "dark_metal"},
		{"pie", "enamel"},
		{"tin", "thin_metal"},
		{"pan", "thin_metal"},
		{"tart", "thin_metal"},
	} {
		if strings.Contains(about, x[0]) {
			return x[1]
		}
	}
	return "stoneware"
}
