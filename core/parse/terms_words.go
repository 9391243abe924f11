package parse

// ones are the units that stand without a number for one of them.
var ones = map[string]bool{"pinch": true, "knob": true, "handful": true, "splash": true, "drizzle": true}

// fills are the ways a spoon is filled, to a level one. Scant is a working figure.
var fills = map[string]float64{"heaped": 1.5, "rounded": 1.25, "scant": 0.9}

var (
	fillWords = map[string]string{
		"heaped":   "heaped",
		"heaping":  "heaped",
		"rounded":  "rounded",
		"scant":    "scant",
		"level":    "",
		"generous": "",
		"good":     "",
	}
	sizeWords = map[string]string{
		"small":        "small",
		"medium":       "medium",
		"medium-sized": "medium",
		"large":        "large",
		"big":          "large",
		"very":         "very",
		"extra":        "very",
		"extra-large":  "extra large",
		"xl":           "extra large",
		"jumbo":        "extra large",
		"medium-size":  "medium",
		"large-ish":    "large",
		"smallish":     "small",
	}
)

// numberWords are the counts that are written out.
var numberWords = map[string]float64{
	"a":           1,
	"an":          1,
	"one":         1,
	"two":         2,
	"three":       3,
	"four":        4,
	"five":        5,
	"six":         6,
	"seven":       7,
	"eight":       8,
	"nine":        9,
	"ten":         10,
	"eleven":      11,
	"twelve":      12,
	"dozen":       12,
	"fifteen":     15,
	"sixteen":     16,
	"twenty":      20,
	"thirty":      30,
	"forty":       40,
	"fifty":       50,
	"sixty":       60,
	"twenty-five": 25,
	"thirty-five": 35,
	"forty-five":  45,
	"half":        0.5,
	"third":       1.0 / 3,
	"quarter":     0.25,
	"couple":      2,
	"another":     1,
}

// NumberWord is the number that a word stands for: "six", "twenty-five", "half".
func NumberWord(word string) (float64, bool) {
	n, ok := numberWords[word]
	return n, ok
}

// parts are the fractions that are written out after a count: three quarters.
var parts = map[string]float64{
	"half":     1.0 / 2,
	"halves":   1.0 / 2,
	"third":    1.0 / 3,
	"thirds":   1.0 / 3,
	"quarter":  1.0 / 4,
	"quarters": 1.0 / 4,
	"eighth":   1.0 / 8,
	"eighths":  1.0 / 8,
	"dozen":    12,
}

// containers are what things are bought in: what one holds is asked for.
var containers = map[string]bool{
	"tin":     true,
	"can":     true,
	"punnet":  true,
	"bag":     true,
	"packet":  true,
	"sachet":  true,
	"jar":     true,
	"box":     true,
	"carton":  true,
	"tub":     true,
	"basket":  true,
	"glass":   true,
	"splash":  true,
	"drizzle": true,
	"drop":    true,
	"bunch":   true,
	"mug":     true,
}

// onLines are units that only stand on lines, and those that mean something else there than in a field.
var onLines = map[string]string{
	"c":             "",
	"f":             "",
	"m":             "",
	"in":            "",
	"h":             "",
	"min":           "",
	"fan":           "",
	"gas":           "",
	"mark":          "",
	"ball":          "",
	"l":             "l",
	"lt":            "l",
	"ltr":           "l",
	"gm":            "g",
	"gms":           "g",
	"kgs":           "kg",
	"mls":           "ml",
	"handful":       "handful",
	"handfuls":      "handful",
	"knobs":         "knob",
	"pinches":       "pinch",
	"dashes":        "pinch",
	"tblsp":         "tbsp",
	"tablesp":       "tbsp",
	"teasp":         "tsp",
	"tbsps":         "tbsp",
	"tbl":           "tbsp",
	"tsps":          "tsp",
	"dessertspoon":  "dsp",
	"dessertspoons": "dsp",
	"dsp":           "dsp",
	"tins":          "tin",
	"cans":          "can",
	"punnets":       "punnet",
	"bags":          "bag",
	"packets":       "packet",
	"packet":        "packet",
	"pack":          "packet",
	"packs":         "packet",
	"pkt":           "packet",
	"sachets":       "sachet",
	"jars":          "jar",
	"boxes":         "box",
	"cartons":       "carton",
	"tubs":          "tub",
	"baskets":       "basket",
	"glasses":       "glass",
	"drops":         "drop",
	"bunches":       "bunch",
	"mugs":          "mug",
	"ozs":           "oz",
}
