package reader

import (
	"regexp"
	"slices"
	"strconv"
	"strings"

	"mabbin/core/parse"
)

// sentence is one sentence of the method in lower case, with what it names.
type sentence struct {
	raw      string // as written
	para     int    // of the method
	text     string
	mentions []parse.Mention
	target   Bowl  // the mixture it works on; empty: none named
	optional bool  // about another way to make it
	steps    []int // indexes of those that it gives
	times    []when
	heats    []heatAt
}

var (
	abbreviation = regexp.MustCompile(
		`\b(min|mins|hr|hrs|tsp|tbsp|teasp|tablesp|oz|lb|qt|pt|sq|approx|in|c|t|deg)\.(\s*(?:[a-z0-9,(;]|$))`,
	)
	endOf     = regexp.MustCompile(`[.!?]+[)"']*(?:\s+|$)|\n+`)
	wordTimes = []struct {
		re *regexp.Regexp
		to string
	}{
		{regexp.MustCompile(`\b(?:a )?quarter of an hour\b`), "15 min"},
		{regexp.MustCompile(`\bthree[- ]quarters of an hour\b`), "45 min"},
		{regexp.MustCompile(`\ban hour and a half\b`), "90 min"},
		{regexp.MustCompile(`\bone hour and a half\b`), "90 min"},
		{regexp.MustCompile(`\b(?:a )?half an hour\b`), "30 min"},
		{regexp.MustCompile(`\ban hour\b`), "1 hour"},
		{
			regexp.MustCompile(
				`\b(one|two|three|four|five|six|seven|eight|nine|ten|twelve|fifteen|twenty-five|twenty|thirty-five|thirty|forty-five|forty|fifty|sixty)( (?:or|to) (?:one|two|three|four|five|six|eight|ten|twelve|fifteen|twenty|thirty|forty|fifty|sixty|twenty-five))? (min|minutes?|hours?)\b`,
			),
			"",
		},
	}
	option = regexp.MustCompile(
		`^(?:to freeze|to store|to make ahead|to reheat|the frozen one|bake from frozen|from frozen|if (?:baking|cooking) from frozen|tip:|ps\b|they freeze|it freezes|if you are making)|\bmy sister\b|\bslow cooker\b`,
	)
)

// bareMinutes is a rest whose minutes have no unit: "Rest 10."
var bareMinutes = regexp.MustCompile(`(\b(?:rest|stand|cool|wait) (?:for )?\d+(?:-\d+)?)\.?$`)

// digits writes the times of a text in figures.
func digits(s string) string {
	s = bareMinutes.ReplaceAllString(s, "$1 min")
	if !strings.Contains(s, "min") && !strings.Contains(s, "hour") {
		return s
	}
	for _, w := range wordTimes {
		if w.to != "" {
			s = w.re.ReplaceAllString(s, w.to)
			continue
		}
		s = w.re.ReplaceAllStringFunc(s, func(m string) string {
			f := strings.Fields(m)
			for i, x := range f {
				if n, ok := parse.NumberWord(x); ok {
					f[i] = formatted(n)
				}
			}
			return strings.Join(f, " ")
		})
	}
	return s
}

func formatted(n float64) string { return strconv.FormatFloat(n, 'f', -1, 64) }

// noStop stands for the stop of an abbreviation, which ends no sentence.
const noStop = "\x01"

// The most that is read of a method, and the most things of one sentence.
const (
	mostSentences = 400
	mostMentions  = 60
)

// sentences parts the method's paragraphs into sentences.
func (r *recipe) sentences() []sentence {
	var out []sentence
	for n, para := range r.doc.method {
		skip := false
		t := strings.TrimSpace(plain(para))
		t = bullet.ReplaceAllString(t, "")
		t = chatStamp.ReplaceAllString(t, "\n")
		t = quoteMark.ReplaceAllString(t, " ")
		t = stepNumber.ReplaceAllString(t, "")
		t = abbreviation.ReplaceAllString(t, "$1"+noStop+"$2")
		for t != "" {
			end := len(t)
			if m := endOf.FindStringIndex(t); m != nil {
				end = m[1]
			}
			raw := strings.TrimSpace(t[:end])
			t = t[end:]
			if raw == "" {
				continue
			}
			if len(out) == mostSentences {
				return out
			}
			if len(raw) > longestLine {
				raw = strings.ToValidUTF8(raw[:longestLine], "")
			}
			text := strings.ToLower(spoonLetters(strings.ReplaceAll(raw, noStop, "")))
			raw = strings.ReplaceAll(raw, noStop, ".")
			if option.MatchString(text) || noteLine.MatchString(text) {
				skip = true
			}
			text = digits(text)
			out = append(
				out,
				sentence{
					raw:      raw,
					para:     n,
					text:     text,
					mentions: r.mentionsIn(text),
					optional: skip,
					times:    timesIn(text),
					heats:    r.heatsIn(text),
				},
			)
		}
	}
	return out
}

var notNamed = regexp.MustCompile(
	`\bcolou?r of (?:an? )?\w+|\bsize of (?:an? )?\w+|\bsquash (?:it|till|until)\b|\bpie (?:dish|plate|tin|pan)\b|\bpastry (?:case|brush)\b|\bbiscuit colou?r\b|\bcold water to drink\b`,
)

// mentionsIn are the things that a sentence names, without what only lends its colour or its size.
func (r *recipe) mentionsIn(text string) []parse.Mention {
	hidden := notNamed.ReplaceAllStringFunc(text, func(m string) string { return strings.Repeat("x", len(m)) })
	found := r.generic(hidden, r.p.Mentions(hidden))
	return found[:min(len(found), mostMentions)]
}

// generics are words for several things of the list at once.
var generics = []struct {
	has  string // what stands in every text that the word matches
	word *regexp.Regexp
	of   func(parse.Thing) bool
}{
	{"spice", regexp.MustCompile(`\bspices?\b`), func(t parse.Thing) bool { return t.Role == "spice" }},
	{"nuts", regexp.MustCompile(`\bnuts\b`), func(t parse.Thing) bool { return t.Role == "nut" }},
	{"", regexp.MustCompile(`\b(?:zest|rind)\b`), func(t parse.Thing) bool { return strings.HasSuffix(t.Key, "_zest") }},
	{"oil", regexp.MustCompile(`\boil\b`), func(t parse.Thing) bool { return strings.HasSuffix(t.Key, "_oil") }},
	{
		"orange and",
		regexp.MustCompile(`\borange and \w+ juice\b`),
		func(t parse.Thing) bool { return t.Key == "orange_juice" },
	},
	{
		"lemon and",
		regexp.MustCompile(`\blemon and \w+ juice\b`),
		func(t parse.Thing) bool { return t.Key == "lemon_juice" },
	},
	{
		"juice",
		regexp.MustCompile(`\b(?:zest|rind|sugar),? (?:and )?juice\b|\bjuice and (?:sugar|zest)\b`),
		func(t parse.Thing) bool { return strings.HasSuffix(t.Key, "_juice") },
	},
	{"pepper", regexp.MustCompile(`\bpeppers?\b`), func(t parse.Thing) bool { return t.Key == "sweet_pepper" }},
}

func (r *recipe) inItems(key string) bool {
	return slices.ContainsFunc(r.items, func(x *Item) bool { return x.Key == key })
}

// generic adds what general words mean in this recipe: "spices" are all of the list's.
func (r *recipe) generic(text string, found []parse.Mention) []parse.Mention {
	for _, g := range generics {
		if !strings.Contains(text, g.has) {
			continue
		}
		for _, at := range g.word.FindAllStringIndex(text, -1) {
			var things []parse.Thing
			for _, x := range r.items {
				if t, ok := r.p.Get(
					x.Key,
				); ok && g.of(t) &&
					!slices.ContainsFunc(things, func(y parse.Thing) bool { return y.Key == t.Key }) {
					things = append(things, t)
				}
			}
			if len(things) == 0 {
				continue
			}
			covered := slices.IndexFunc(found, func(m parse.Mention) bool { return m.Start <= at[0] && m.End >= at[1] })
			if covered >= 0 {
				m := found[covered]
				if r.inItems(m.Thing.Key) && (m.Thing.Key != "black_pepper" || strings.Contains(text, "salt")) || m.HasAmount ||
					m.End-m.Name > at[1]-at[0] {
					continue
				}
				found = slices.Delete(found, covered, covered+1)
			}
			for _, t := range things {
				found = append(found, parse.Mention{Thing: t, Start: at[0], Name: at[0], End: at[1]})
			}
		}
	}
	slices.SortStableFunc(found, func(a, b parse.Mention) int { return a.Start - b.Start })
	return found
}

var (
	chatStamp  = regexp.MustCompile(`\s*\[\d{1,2}:\d{2}\]\s*`)
	quoteMark  = regexp.MustCompile(`(?m)^\s*>\s?| > `)
	stepNumber = regexp.MustCompile(`^(?i:step (?:\d+|one|two|three|four|five|six)[.:]?\s*|\d{1,2}[.):]?\s+|[①-⑳]\s*)`)
)
