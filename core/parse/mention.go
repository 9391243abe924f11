package parse

import (
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"
)

// Mention is a thing of the tables that running text names, with the amount before it where there is one. Offsets are
// bytes of the text.
type Mention struct {
	Thing      Thing
	Start, End int // of amount and name together
	Name       int // where the name begins
	HasAmount  bool
	Citrus     string // "juice", "zest" or "juice and zest": End stands after the fruit
}

var (
	wordAt     = regexp.MustCompile(`[\pL\d%']+`)
	citrusText = regexp.MustCompile(
		`(?:the )?(?:finely grated |grated )?\b(juice|zest|rind|peel)(?:(?: and | & | \+ |/)(?:the )?(juice|zest|rind|peel))? ` +
			`(?:of|from) (?:(the) )?(?:(half|one|two|three|\d+(?:/\d)?|½|¼|an?)(?: of)? )?(?:an? |the )?(?:large |small |unwaxed )?(lemon|lime|orange|clementine)s?\b`,
	)
)

// Mentions finds the things that running text names, in order. The text is in lower case, with plain blanks and dashes.
func (p *Vocabulary) Mentions(text string) []Mention {
	var out []Mention
	for _, m := range citrusIn(text) {
		c := citrus[text[m[10]:m[11]]]
		x := Mention{Start: m[0], End: m[1], Name: m[0], HasAmount: m[8] >= 0, Citrus: text[m[2]:m[3]]}
		key := c.zest
		if x.Citrus == "juice" {
			key = c.juice
		}
		if m[4] >= 0 {
			x.Citrus = "juice and zest"
		}
		x.Thing = p.things[key]
		out = append(out, x)
	}
	spans := wordAt.FindAllStringIndex(text, -1)
	ws := make([]string, len(spans))
	for i, s := range spans {
		ws[i] = text[s[0]:s[1]]
	}
	ws = singular(ws)
	inCitrus := func(at int) bool {
		for _, m := range out {
			if m.Citrus != "" && at >= m.Start && at < m.End {
				return true
			}
		}
		return false
	}
	last := 0
	for i := 0; i < len(spans); {
		n := p.longestFrom(text, spans, ws, i)
		if n == 0 || inCitrus(spans[i][0]) {
			i++
			continue
		}
		if n == 1 && text[spans[i][0]:spans[i][1]] == "white" { // of bread, of chocolate: an egg's are "whites"
			i++
			continue
		}
		m := Mention{
			Thing: p.things[p.names[strings.Join(ws[i:i+n], " ")].key],
			Start: spans[i][0], Name: spans[i][0], End: spans[i+n-1][1],
		}
		from := max(last, m.Name-longestGap)
		for from < m.Name && !utf8.RuneStart(text[from]) {
			from++
		}
		if at, ok := amountBefore(text[from:m.Name]); ok {
			m.Start, m.HasAmount = from+at, true
		}
		out = append(out, m)
		last = m.End
		i += n
	}
	slices.SortStableFunc(out, func(a, b Mention) int { return a.Start - b.Start })
	return out
}

// longestGap is how far before a name its amount may begin, in bytes.
const longestGap = 90

// citrusIn finds the juice and the zest of fruits in a text.
func citrusIn(text string) [][]int {
	for _, fruit := range []string{"lemon", "orange", "lime", "clementine"} {
		if strings.Contains(text, fruit) {
			return citrusText.FindAllStringSubmatchIndex(text, -1)
		}
	}
	return nil
}

// longestFrom is how many words from the i-th on are a name, at most as many as the longest name has. Only blanks and
// hyphens may stand between them.
func (p *Vocabulary) longestFrom(text string, spans [][]int, ws []string, i int) int {
	most := 1
	for most < longestName && i+most < len(spans) {
		if between := text[spans[i+most-1][1]:spans[i+most][0]]; strings.Trim(between, " -") != "" {
			break
		}
		most++
	}
	for n := most; n > 0; n-- {
		if _, ok := p.names[strings.Join(ws[i:i+n], " ")]; ok {
			return n
		}
	}
	return 0
}

// amountBefore is where an amount begins that reaches up to the end of a gap but for words that say how a thing is.
func amountBefore(gap string) (int, bool) {
	for _, s := range wordAt.FindAllStringIndex(gap, -1) {
		at := s[0]
		if at > 0 { // a fraction's sign is no letter
			if r, size := utf8.DecodeLastRuneInString(gap[:at]); vulgar[r] > 0 {
				at -= size
			}
		}
		if at, ok := amountFrom(gap, at); ok {
			return at, true
		}
	}
	for i, r := range gap {
		if vulgar[r] > 0 {
			if at, ok := amountFrom(gap, i); ok {
				return at, true
			}
		}
	}
	return 0, false
}

func amountFrom(gap string, at int) (int, bool) {
	s := &scanner{rest: []rune(gap[at:])}
	if terms := s.amounts(); len(terms) == 0 {
		return 0, false
	}
	rest := string(s.rest)
	if strings.HasPrefix(strings.TrimSpace(rest), "(") {
		if _, after, ok := strings.Cut(rest, ")"); ok {
			rest = after
		}
	}
	for _, w := range singular(words(rest)) {
		if !asides[w] && packings[w] == "" && w != "firmly" && w != "loosely" {
			return 0, false
		}
	}
	if strings.ContainsAny(rest, ",;.") {
		return 0, false
	}
	return at, true
}

// NoThing is whether words only say how something is, and name nothing.
func NoThing(text string) bool {
	for _, w := range singular(words(text)) {
		if !asides[w] && packings[w] == "" && w != "firmly" && w != "loosely" {
			return false
		}
	}
	return true
}

// StartsWithAmount tells whether text begins with an amount, and gives what follows it.
func StartsWithAmount(text string) (rest string, hasUnit, ok bool) {
	s := &scanner{rest: []rune(tidy(text))}
	terms := s.amounts()
	if len(terms) == 0 {
		return text, false, false
	}
	if other := s.otherNotation(); len(other) > 0 {
		terms = append(terms, other...)
	}
	unit := false
	for _, t := range terms {
		unit = unit || t.unit != ""
	}
	return string(s.rest), unit, true
}
