package reader

import (
	"regexp"
	"strings"

	"mabbin/core/parse"
)

const (
	dishNoun = `(?:dish|tin|pan|skillet|plate|ramekins?|pots?|case|casserole|form|mould|tray|ring|camp oven|dutch oven|basin|cocottes?)`
)

var (
	ramekins = regexp.MustCompile(
		`\b(\d+|one|two|three|four|six|eight|ten|twelve) ?(?:x |[a-z]+ )?(?:(\d+) ?ml|(\d+)[- ]?(?:oz|ounce))? ?(?:[a-z]+ ){0,2}(?:ramekins|cocottes|pots|moulds)\b`,
	)
	diameters = regexp.MustCompile(`(\d+(?:\.\d+)?) ?cm (?:in diameter|across|wide)\b`)
	twoSides  = regexp.MustCompile(
		`(\d+(?:\.\d+)?)[ -]?(cm|inch(?:es)?|in|")? ?x ?(\d+(?:\.\d+)?)(?: ?x ?(\d+(?:\.\d+)?))?[ -]?(cm|inch(?:es)?|in\b|")?`,
	)
	longAcross = regexp.MustCompile(`(\d+) ?cm long and (\d+) (?:cm )?(?:across|wide)`)
	oneSide    = regexp.MustCompile(
		`(\d+(?:\.\d+)?)[ -]?(cm|inch(?:es)?|in\b|") ?(?:\([^)]*\) ?|sq\b\.? ?)?(?:[\w'-]+,? ){0,5}?` + dishNoun + `\b`,
	)
	sizeAfter = regexp.MustCompile(dishNoun + `,? (?:of |about |\()?(\d+(?:\.\d+)?) ?(cm|inch(?:es)?)\b`)
	volumes   = regexp.MustCompile(
		`(?:^|[ (])(\d+(?:\.\d+)?|[½¼¾]|one|two|three|four|five|a|1½|2½)[ -]?(litres?|liters?|l|quarts?|qt|pints?|ml)\b\.? ?(?:\([^)]*\) ?)?(?:[\w'-]+,? ){0,4}?` + dishNoun + `\b`,
	)
	holds = regexp.MustCompile(
		dishNoun + ` (?:that|which) holds (?:about )?(\d+(?:\.\d+)?|one|two|three|four|five|a) ?(litres?|liters?|l|quarts?|pints?|ml)\b`,
	)
	deepDish = regexp.MustCompile(`,? (?:about )?(\d+(?:\.\d+)?) ?(cm|inch(?:es)?) deep`)
	toHeight = regexp.MustCompile(`to a height of (\d+(?:\.\d+)?) ?(cm|mm)`)
	dishNext = regexp.MustCompile(`^[ -]*(?:[\w-]+ )?` + dishNoun)
	camp     = regexp.MustCompile(`\b(?:camp|dutch) oven\b`)
	oval     = regexp.MustCompile(`\boval\b`)
	square   = regexp.MustCompile(`\bsq(?:uare)?\b`)
)

var materials = []struct {
	word     *regexp.Regexp
	material string
}{
	{camp, "camp"},
	{regexp.MustCompile(`cast[- ]iron`), "cast_iron"},
	{regexp.MustCompile(`\benamel(?:led)?\b`), "enamel"},
	{regexp.MustCompile(`\bglass\b`), "glass"},
	{regexp.MustCompile(`\b(?:stoneware|ceramic|earthenware|porcelain)\b`), "stoneware"},
	{regexp.MustCompile(`\bfoil (?:tray|tin|container)`), "foil"},
	{regexp.MustCompile(`\bmetal\b|\btin\b|\bloose-bottomed\b`), "thin_metal"},
}

func counted(s string) float64 {
	if n, ok := parse.NumberWord(s); ok {
		return n
	}
	return figure(s)
}

// findDish finds the dish that the text describes: in the lines of equipment first, then in the method, then anywhere.
func (r *recipe) findDish() *Dish {
	var texts []string
	for _, l := range r.lines {
		if l.Kind == EquipmentLine {
			texts = append(texts, clean(l.Text))
		}
	}
	for _, s := range r.method {
		texts = append(texts, s.text)
	}
	for _, m := range r.doc.meta {
		texts = append(texts, clean(m))
	}
	for _, l := range r.lines {
		if strings.Contains(l.Text, "case") {
			texts = append(texts, clean(l.Text))
		}
	}
	for _, t := range texts {
		if d := dishIn(wordNumbers(t), r.metric); d != nil {
			if d.DepthCM == 0 {
				for _, s := range r.method {
					if m := toHeight.FindStringSubmatch(s.text); m != nil {
						d.DepthCM = inMM(figure(m[1]), m[2]) / 10
					}
				}
			}
			return d
		}
	}
	return nil
}

var litreWord = regexp.MustCompile(`\b(one|two|three|four|five|six)[- ](litre|liter|quart|pint)`)

func wordNumbers(s string) string {
	return litreWord.ReplaceAllStringFunc(s, func(m string) string {
		w := litreWord.FindStringSubmatch(m)
		return formatted(counted(w[1])) + " " + w[2]
	})
}

func dishIn(t string, metric bool) *Dish {
	d := &Dish{}
	var at []int
	if m := ramekins.FindStringSubmatchIndex(t); m != nil && (m[4] >= 0 || m[6] >= 0) {
		d.Count, d.Shape, at = int(counted(group(t, m, 1))), RoundDish, m
		d.VolumeML = figure(group(t, m, 2)) + round(29.57*figure(group(t, m, 3)))
	} else if m := longAcross.FindStringSubmatchIndex(t); m != nil {
		d.Shape, d.LengthCM, d.WidthCM, at = RectangleDish, figure(group(t, m, 1)), figure(group(t, m, 2)), m
	} else if m := twoSides.FindStringSubmatchIndex(t); m != nil && sized(t, m, metric) {
		unit := group(t, m, 5)
		if unit == "" {
			unit = group(t, m, 2)
		}
		if unit == "" {
			unit = "in"
		}
		a, b := inCM(figure(group(t, m, 1)), unit), inCM(figure(group(t, m, 3)), unit)
		d.Shape, d.LengthCM, d.WidthCM, at = RectangleDish, max(a, b), min(a, b), m
		if deep := group(t, m, 4); deep != "" {
			d.DepthCM = inCM(figure(deep), unit)
		}
	} else if m := diameters.FindStringSubmatchIndex(t); m != nil {
		d.Shape, d.DiameterCM, at = RoundDish, figure(group(t, m, 1)), m
	} else if m := oneOf(t); m != nil {
		size := inCM(figure(group(t, m, 1)), group(t, m, 2))
		at = m
		if size < 6 {
			return nil
		}
		if around := t[max(0, m[0]-20):min(len(t), m[1]+5)]; square.MatchString(around) {
			d.Shape, d.LengthCM, d.WidthCM = RectangleDish, size, size
		} else {
			d.Shape, d.DiameterCM = RoundDish, size
		}
	} else if m := firstMatch(t, holds, volumes); m != nil {
		v, unit := counted(group(t, m, 1)), group(t, m, 2)
		at = m
		switch {
		case strings.HasPrefix(unit, "q"):
			v *= 946.4
		case strings.HasPrefix(unit, "p"):
			v *= 568.3
		case unit != "ml":
			v *= 1000
		}
		if v < 100 {
			return nil
		}
		d.VolumeML = round(v)
	} else {
		return nil
	}
	from := max(0, at[0]-60)
	if i := strings.LastIndexAny(t[from:at[0]], ".;"); i >= 0 {
		from += i
	}
	around := t[from:min(len(t), at[1]+45)]
	if oval.MatchString(around) && d.Shape == RectangleDish {
		d.Shape = OvalDish
	}
	if m := deepDish.FindStringSubmatch(t[at[0]:]); m != nil {
		d.DepthCM = inCM(figure(m[1]), m[2])
	}
	for _, x := range materials {
		if x.word.MatchString(around) {
			d.Material = x.material
			break
		}
	}
	return d
}

func firstMatch(t string, of ...*regexp.Regexp) []int {
	for _, re := range of {
		if m := re.FindStringSubmatchIndex(t); m != nil {
			return m
		}
	}
	return nil
}

// oneOf finds one size that is a dish's: the noun stands after or before it, and nothing is cut to it.
func oneOf(t string) []int {
	for _, m := range oneSide.FindAllStringSubmatchIndex(t, -1) {
		if !cutWord.MatchString(t[m[0]:m[1]]) && !strings.Contains(t[m[0]:m[1]], "thick") &&
			!strings.Contains(t[m[0]:m[1]], "overhang") {
			return m
		}
	}
	return sizeAfter.FindStringSubmatchIndex(t)
}

// sized is whether two figures with an x between are a dish's sizes.
func sized(t string, m []int, metric bool) bool {
	unit := group(t, m, 5) + group(t, m, 2)
	if unit != "" {
		return true
	}
	after := t[m[1]:min(len(t), m[1]+25)]
	return !metric && dishNext.MatchString(after)
}

func group(t string, m []int, i int) string {
	if 2*i+1 >= len(m) || m[2*i] < 0 {
		return ""
	}
	return t[m[2*i]:m[2*i+1]]
}

const cmPerInch = 2.54

func inCM(v float64, unit string) float64 {
	if unit == "cm" {
		return v
	}
	return float64(int(v*cmPerInch*10+0.5)) / 10
}
