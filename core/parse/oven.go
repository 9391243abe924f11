package parse

import (
	"regexp"
	"strconv"
	"strings"

	"mabbin/core/units"
)

var (
	ovenDegrees = regexp.MustCompile(`(?i)\b(\d{2,3})\s*(?:°|º|deg(?:rees)?\.?)?\s*([CF])\b(\s*fan|/fan)?`)
	ovenGas     = regexp.MustCompile(`(?i)\bgas\s*(?:mark\s*)?(1/4|1/2|[1-9])`)
	bakeMinutes = regexp.MustCompile(`(?i)(\d{1,3})(?:\s*(?:-|–|to)\s*(\d{1,3}))?\s*(min(?:ute)?s?|h(?:ou)?rs?)\b`)
)

// FindOven finds the oven's temperature, in C, and the minutes of a bake in what a recipe says to do; 0 for what is not
// said. Of a range it takes the middle, of several times the longest.
func FindOven(method string) (c, minutes float64) {
	c, minutes = findOven(bakeLines(method))
	if c0, m0 := findOven(method); c == 0 || minutes == 0 {
		if c == 0 {
			c = c0
		}
		if minutes == 0 {
			minutes = m0
		}
	}
	return c, minutes
}

// bakeLines are the lines that speak of the oven or of baking: nuts are toasted and bases par-baked elsewhere.
func bakeLines(method string) string {
	var out []string
	for l := range strings.Lines(method) {
		low := strings.ToLower(l)
		if (strings.Contains(low, "bake") || strings.Contains(low, "oven")) && !strings.Contains(low, "weights") {
			out = append(out, l)
		}
	}
	return strings.Join(out, "")
}

func findOven(method string) (c, minutes float64) {
	if m := ovenDegrees.FindStringSubmatch(method); m != nil {
		v, _ := strconv.ParseFloat(m[1], 64)
		unit := map[string]string{"c": "C", "f": "F", "C": "C", "F": "F"}[m[2]]
		if m[3] != "" && unit == "C" {
			unit = "fan"
		}
		c, _ = units.ToCelsius(v, unit)
	} else if m := ovenGas.FindStringSubmatch(method); m != nil {
		if a, err := ReadAmount("gas "+m[1], units.Temperature, units.Conventions{}, units.Density{}); err == nil {
			c = a.Value
		}
	}
	for _, m := range bakeMinutes.FindAllStringSubmatch(method, -1) {
		v, _ := strconv.ParseFloat(m[1], 64)
		if high, err := strconv.ParseFloat(m[2], 64); err == nil {
			v = (v + high) / 2
		}
		if m[3][0] == 'h' || m[3][0] == 'H' {
			v *= 60
		}
		minutes = max(minutes, v)
	}
	return c, minutes
}
