package reader

import (
	"regexp"
	"strings"
)

const manyOf = `(\d+|one|two|three|four|five|six|seven|eight|nine|ten|twelve|sixteen)(?: ?(?:-|to|or) ?(\d+|four|five|six|eight|ten|twelve))?`

var (
	eachServes = regexp.MustCompile(`makes:? (\d+|two|three|four) \w+,? each serv(?:es|ing) ` + manyOf)
	yields     = []*regexp.Regexp{
		regexp.MustCompile(
			`\b(?:serves|feeds|fed|servings|portions|yields?|makes enough for|enough for|recipe makes)\b:? ?(?:a \w+ of |about )?` + manyOf,
		),
		regexp.MustCompile(
			`\bmakes:? (?:about )?` + manyOf + ` (?:large |big |small |generous )?(?:or \d+ small )?(?:pieces|squares|bars|slices|portions|servings)`,
		),
		regexp.MustCompile(`\bcuts into ` + manyOf),
		regexp.MustCompile(manyOf + ` (?:generous |good )?(?:portions|servings|squares|pieces|bars|slices)\b`),
		regexp.MustCompile(`^for ` + manyOf + `(?: people| persons)?\W*$`),
		regexp.MustCompile(`(?:^|\. )for ` + manyOf + `\.`),
		regexp.MustCompile(`^` + manyOf + ` (?:people|persons)\b`),
	}
	pieceWords = regexp.MustCompile(`\b(?:pieces|squares|bars|slices|cuts into)\b`)
	pieceNext  = regexp.MustCompile(`^ ?(?:pieces|squares|bars|slices)\b`)
	forTwo     = regexp.MustCompile(`\bfor (one|two|three|four|six|eight)\b`)
	orFour     = regexp.MustCompile(`feeds (\w+), or (\w+)\b`)
	makesMany  = regexp.MustCompile(`\bmakes:? (\d+|two|three|four) (?:crumbles|crisps|cobblers|pies|dishes|tarts|bettys)`)
)

// readYield reads servings and the number of dishes out of the lines around the recipe, then out of the method and the
// notes.
func (r *recipe) readYield(out *Reading) {
	out.Makes = 1
	texts := append([]string{}, r.doc.meta...)
	texts = append(texts, r.doc.title)
	for _, s := range r.method {
		texts = append(texts, s.raw)
	}
	texts = append(texts, r.doc.notes...)
	for i, written := range texts {
		t := clean(written)
		if m := eachServes.FindStringSubmatch(t); m != nil {
			out.Makes = int(counted(m[1]))
			out.ServesEach = rangeOf(m[2], m[3])
			out.Serves = []float64{out.ServesEach[0] * float64(out.Makes), out.ServesEach[1] * float64(out.Makes)}
			out.ServesUnit, out.Yield = Portions, written
			return
		}
		if m := makesMany.FindStringSubmatch(t); m != nil {
			out.Makes = int(counted(m[1]))
		}
		if m := orFour.FindStringSubmatch(t); m != nil && counted(m[2]) > 0 {
			a, b := counted(m[1]), counted(m[2])
			out.Serves, out.ServesUnit, out.Yield = []float64{min(a, b), max(a, b)}, Portions, written
			return
		}
		for j, re := range yields {
			m := re.FindStringSubmatch(t)
			if m == nil || j == 3 && i >= len(r.doc.meta)+1 {
				continue
			}
			out.Serves = rangeOf(m[1], m[2])
			out.ServesUnit = Portions
			_, after, _ := strings.Cut(t, m[0])
			if pieceWords.MatchString(m[0]) || pieceNext.MatchString(after) {
				out.ServesUnit = Pieces
			}
			out.Yield = written
			return
		}
	}
	if m := forTwo.FindStringSubmatch(lower(r.doc.title)); m != nil {
		out.Serves, out.ServesUnit, out.Yield = rangeOf(m[1], ""), Portions, r.doc.title
	}
}

func rangeOf(low, high string) []float64 {
	a := counted(low)
	b := a
	if high != "" {
		b = counted(high)
	}
	return []float64{a, b}
}

var styleWords = []struct{ word, style string }{
	{"pandowdy", "pandowdy"},
	{"dowdy", "pandowdy"},
	{"cobbler", "cobbler"},
	{"betty", "betty"},
	{"crisp", "crisp"},
	{"crumble", "crumble"},
	{"streusel", "crumble"},
	{"crumb", "crumble"},
	{"slice", "bar"},
	{"bar", "bar"},
	{"bars", "bar"},
	{"slices", "bar"},
	{"squares", "bar"},
	{"traybake", "bar"},
	{"pie", "pie"},
	{"tart", "pie"},
	{"crumbles", "crumble"},
	{"crisps", "crisp"},
	{"cobblers", "cobbler"},
	{"bettys", "betty"},
	{"pies", "pie"},
	{"crumbs", "crumble"},
}

// styleNamed matches the names of styles in running text, where a slice or a tart may be anything.
var styleNamed = func() map[string]*regexp.Regexp {
	const running = 6 // of styleWords, the first
	out := map[string]*regexp.Regexp{}
	for _, s := range styleWords[:running] {
		out[s.word] = regexp.MustCompile(`\b` + s.word + `s?\b`)
	}
	return out
}()

// styleOf is the style that a title names: its last word for one counts, before a "with".
func styleOf(title string) string {
	head, _, _ := strings.Cut(lower(title), " with ")
	head, _, _ = strings.Cut(head, "(")
	style, last := "", -1
	for i, w := range strings.FieldsFunc(head, func(c rune) bool { return c < 'a' || c > 'z' }) {
		for _, s := range styleWords {
			if w == s.word && i > last {
				style, last = s.style, i
			}
		}
	}
	return style
}

// findStyle is the style by the title, else by the words of the text, else by what the topping is made of.
func (r *recipe) findStyle() string {
	if s := styleOf(r.doc.title); s != "" {
		return s
	}
	best, most := "", 0
	for _, s := range styleWords[:len(styleNamed)] {
		if n := len(styleNamed[s.word].FindAllString(r.doc.all, -1)); n > most {
			best, most = s.style, n
		}
	}
	if best != "" {
		return best
	}
	has := func(keys ...string) bool {
		for _, x := range r.items {
			for _, k := range keys {
				if x.Key == k {
					return true
				}
			}
		}
		return false
	}
	switch {
	case has("self_raising_flour", "baking_powder"):
		return "cobbler"
	case has("fresh_breadcrumbs", "dry_breadcrumbs"):
		return "betty"
	case has("rolled_oats"):
		return "crisp"
	}
	return "crumble"
}

var savouryKeys = map[string]bool{"onion": true, "leek": true, "garlic": true, "sweet_pepper": true, "cheddar": true}

// isSavoury is whether the filling is vegetables with onion, leek, garlic or pepper, and no sugar to speak of.
func (r *recipe) isSavoury() bool {
	savoury, sugar := 0, 0.0
	for _, x := range r.items {
		t, _ := r.p.Get(x.Key)
		switch {
		case x.Bowl == Filling && savouryKeys[x.Key]:
			savoury++
		case x.Bowl == Filling && (t.Role == "sugar" || t.Role == "syrup") && x.G != nil:
			sugar += *x.G
		}
	}
	return savoury > 0 && sugar < 30
}
