package reader

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
)

var (
	notPeeled = regexp.MustCompile(
		`\b(?:not peeled|unpeeled|do not peel|don't peel|no need to peel|don't bother peeling|skins? on)\b`,
	)
	peeled    = regexp.MustCompile(`\bpeel(?:ed)?\b`)
	pitted    = regexp.MustCompile(`\b(?:stoned|pitted|destoned|stone|pit)\b`)
	orFrozen  = regexp.MustCompile(`\bor frozen\b|\bfrozen (?:is|are|works?|ok)\b|\bor thawed\b`)
	thawed    = regexp.MustCompile(`\b(?:thawed|defrosted)\b`)
	notThawed = regexp.MustCompile(
		`\b(?:do not thaw|don't thaw|dont|don't bother|not thawed|straight from the freezer|without thawing)\b`,
	)
	softened  = regexp.MustCompile(`\b(?:soft|softened)\b`)
	coldState = regexp.MustCompile(`\b(?:cold|chilled|ice[- ]cold|ice water|iced)\b`)
	melted    = regexp.MustCompile(`\bmelted\b`)
	toasted   = regexp.MustCompile(`\btoasted\b`)
	cooked    = regexp.MustCompile(`\b(?:ready-baked|pre-baked|tins?|cans?|tinned|canned)\b`)
	drained   = regexp.MustCompile(`\b(?:drained|thawed in a sieve)\b`)
	number    = `((?:\d+ )?\d+/\d+|\d+(?:[.,]\d+)?[½¼¾⅓⅔⅛]?|[½¼¾⅓⅔⅛])`
	cutSize   = regexp.MustCompile(number + `[ -]?(cm|mm|inch(?:es)?|in)\b`)
	cutWord   = regexp.MustCompile(
		`\b(?:cut|cuts|slice[sd]?|dice[d]?|chop(?:ped)?|chunks?|cubes?|wedges?|pieces?|lengths?|quarters?)\b`,
	)
	wordSizes = []struct {
		words string
		mm    float64
	}{
		{"half a centimetre", 5},
		{"half an inch", 13},
		{"as thick as your finger", 15},
		{"slice them thin", 3},
		{"sliced thin", 3},
		{"thinly sliced", 3},
		{"slice thinly", 3},
	}
	crustCut = regexp.MustCompile(`\b(?:pat|roll|dough|pastry|crust|squares|rounds|scones|through)\b`)
)

func (x *Item) add(state string) {
	if !slices.ContainsFunc(x.States, func(s State) bool { return s.Word == state }) {
		x.States = append(x.States, State{Word: state})
	}
}

func (x *Item) has(state string) bool {
	return slices.ContainsFunc(x.States, func(s State) bool { return s.Word == state })
}

func (x *Item) cut(mm float64) {
	if mm > 0 && !slices.ContainsFunc(x.States, func(s State) bool { return s.CutMM > 0 }) {
		x.States = append(x.States, State{CutMM: mm})
	}
}

// statesOf reads how an item goes in from its own line.
func (r *recipe) statesOf(x *Item, text string) {
	if x.Key == "" {
		return
	}
	t, _ := r.p.Get(x.Key)
	fruit := r.isFruit(x.Key)
	if fruit {
		switch {
		case notPeeled.MatchString(text):
			x.add("unpeeled")
		case peeled.MatchString(text):
			x.add("peeled")
		}
		if pitted.MatchString(text) {
			x.add("pitted")
		}
		if strings.Contains(text, "frozen") && !orFrozen.MatchString(text) {
			x.add("frozen")
		}
		if thawed.MatchString(text) && !notThawed.MatchString(text) {
			x.add("thawed")
		}
		if drained.MatchString(text) {
			x.add("drained")
		}
		if cutWord.MatchString(text) {
			x.cut(cutIn(text))
		}
		x.cut(cutInWords(text))
	}
	if cooked.MatchString(text) && (fruit || t.Role == "pastry") {
		x.add("cooked")
	}
	if t.Role == "fat" || t.Role == "liquid" {
		switch {
		case melted.MatchString(text):
			x.add("melted")
		case coldState.MatchString(text):
			x.add("cold")
		case softened.MatchString(text) && t.Role == "fat":
			x.add("soft")
		}
	}
	if toasted.MatchString(text) {
		x.add("toasted")
	}
}

// cutIn is the size in a text that something is cut to, in mm.
func cutIn(text string) float64 {
	m := cutSize.FindStringSubmatch(text)
	if m == nil {
		return 0
	}
	return inMM(figure(m[1]), m[2])
}

func cutInWords(text string) float64 {
	for _, w := range wordSizes {
		if strings.Contains(text, w.words) {
			return w.mm
		}
	}
	return 0
}

func inMM(v float64, unit string) float64 {
	switch unit {
	case "cm":
		return round(10 * v)
	case "mm":
		return round(v)
	}
	return round(25.4 * v)
}

func round(v float64) float64 { return float64(int(v + 0.5)) }

var vulgar = map[rune]float64{'½': 0.5, '⅓': 1.0 / 3, '⅔': 2.0 / 3, '¼': 0.25, '¾': 0.75, '⅛': 0.125}

// figure is a number as recipes write them: "1.5", "1,5", "1½", "1 1/2".
func figure(s string) float64 {
	total := 0.0
	for _, f := range strings.Fields(s) {
		if a, b, ok := strings.Cut(f, "/"); ok {
			x, err := strconv.ParseFloat(a, 64)
			y, err2 := strconv.ParseFloat(b, 64)
			if err == nil && err2 == nil && y > 0 {
				total += x / y
			}
			continue
		}
		for r, v := range vulgar {
			if strings.ContainsRune(f, r) {
				total += v
				f = strings.ReplaceAll(f, string(r), "")
			}
		}
		if x, err := strconv.ParseFloat(strings.ReplaceAll(f, ",", "."), 64); err == nil {
			total += x
		}
	}
	return total
}
