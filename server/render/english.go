package render

import (
	_ "embed"
	"encoding/csv"
	"regexp"
	"slices"
	"strings"
	"unicode"
)

// Pair is a word, or a few, that British and American bakers say differently. A hyphen at the end of both stands for
// any ending.
type Pair struct {
	British  string `json:"british"`
	American string `json:"american"`
}

//go:embed data/english.csv
var englishCSV string

// Pairs is every pair, the longest first, so that "plain flour" is looked for before "flour" is. The table is a working
// one: what stands on packets and in recipes on either side.
var Pairs = readPairs(englishCSV)

func readPairs(text string) []Pair {
	rows, err := csv.NewReader(strings.NewReader(text)).ReadAll()
	if err != nil {
		panic("the table of British and American words: " + err.Error()) // it is built in, and a test reads it
	}
	out := make([]Pair, 0, len(rows))
	for _, r := range rows[1:] {
		out = append(out, Pair{r[0], r[1]})
	}
	slices.SortStableFunc(out, func(a, b Pair) int { return len(b.British) - len(a.British) })
	return out
}

var (
	british  = pattern(Pairs)
	american = map[string]string{}
)

func init() {
	for _, p := range Pairs {
		american[strings.TrimSuffix(p.British, "-")] = strings.TrimSuffix(p.American, "-")
	}
}

// pattern finds any British word of the pairs, with the ending that it has where the pair leaves it open.
func pattern(pairs []Pair) *regexp.Regexp {
	var words, stems []string
	for _, p := range pairs {
		if stem, open := strings.CutSuffix(p.British, "-"); open {
			stems = append(stems, regexp.QuoteMeta(stem))
			continue
		}
		w := regexp.QuoteMeta(p.British)
		if unicode.IsLetter(rune(p.British[len(p.British)-1])) {
			w += `\b`
		}
		words = append(words, w)
	}
	return regexp.MustCompile(`(?i)\b(` + strings.Join(append(words, stems...), "|") + `)`)
}

// American is a British text in American words. Capitals stay where they were.
func American(text string) string {
	return british.ReplaceAllStringFunc(text, func(found string) string {
		says := american[strings.ToLower(found)]
		if first := rune(found[0]); unicode.IsUpper(first) {
			return strings.ToUpper(says[:1]) + says[1:]
		}
		return says
	})
}
