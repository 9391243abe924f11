package reader

import (
	"regexp"
	"strconv"
	"strings"

	"mabbin/core/parse"
	"mabbin/core/units"
)

// conventions are the kitchen's cup and spoon, or those that the text names or is written in.
func conventions(d document, by units.Conventions) units.Conventions {
	if cup, _ := parse.WhoseCup(d.all); cup != "" {
		by.Cup = cup
	}
	switch {
	case strings.Contains(d.all, "20ml tablespoon"), strings.Contains(d.all, "20 ml tablespoon"):
		by.Cup, by.Spoon = units.MetricCup, units.AustralianSpoon
	case strings.Contains(d.all, "250ml cup"), strings.Contains(d.all, "250 ml cup"):
		by.Cup = units.MetricCup
	case pints.MatchString(d.all) && gasOven.MatchString(d.all):
		by.Cup = units.ImperialCup
	}
	return by
}

var (
	pints   = regexp.MustCompile(`\bpints?\b`)
	gasOven = regexp.MustCompile(`\bgas (?:mark )?\d`)
)

// readLines reads the lines of the ingredients into items.
func (r *recipe) readLines() {
	r.headings = map[*Item]string{}
	r.metric = !inCups.MatchString(r.doc.all) || metricUnit.MatchString(r.doc.all) &&
		!inFahrenheit.MatchString(r.doc.all)
	if r.doc.prose {
		r.readProseLines()
		return
	}
	heading := ""
	for _, l := range r.doc.lines {
		line := Line{Text: l.text, Kind: l.kind}
		switch l.kind {
		case HeadingLine:
			heading = strings.TrimSuffix(strings.TrimSpace(l.clean), ":")
			if serveLine.MatchString(heading) {
				heading = "to serve"
			}
		case ServeLine:
			line.Items = []Item{r.served(l.clean)}
		case IngredientLine:
			if heading == "to serve" {
				line.Kind = ServeLine
				line.Items = []Item{r.served(l.clean)}
				break
			}
			at := heading
			text := l.clean
			if before, after, ok := strings.Cut(text, ":"); ok && len(before) < 46 && !hasAmount.MatchString(before) &&
				strings.TrimSpace(after) != "" {
				at, text = before, strings.TrimSpace(after)
			}
			line.Items = r.itemsOf(text)
			for i := range line.Items {
				r.headings[&line.Items[i]] = at
			}
		}
		r.lines = append(r.lines, line)
	}
	r.collectItems()
}

// collectItems lists the items of all lines, in order.
func (r *recipe) collectItems() {
	for i := range r.lines {
		for j := range r.lines[i].Items {
			r.items = append(r.items, &r.lines[i].Items[j])
		}
	}
}

var inCups = regexp.MustCompile(`\bcups?\b|\bsticks?\b`)

// served is what the dessert is served with: nothing of it is weighed.
func (r *recipe) served(text string) Item {
	name := serveLine.ReplaceAllString(text, "")
	name = strings.Trim(name, " :,")
	first, other, _ := strings.Cut(name, " or ")
	x := Item{Name: name, Bowl: Serve, Surely: true}
	if knownName(first, r.p) && !strings.Contains(first, "ice") {
		x.Key = r.p.Mentions(first)[0].Thing.Key
	}
	if other != "" {
		x.Alt = []string{other}
	}
	return x
}

// piece is the part of a line that asks for one thing.
type piece struct {
	text    string
	more    bool // more of the thing before it
	purpose string
}

var (
	separator     = regexp.MustCompile(`(?:[,;] (?:and |plus )?| (?:and|plus|&|\+) |; ?)`)
	separatorHere = regexp.MustCompile(
		`^(?:[,;] (?:and |plus )?| (?:and|plus|&|\+|mixed with|blended with|beaten with) |; ?)`,
	)
	moreOf = regexp.MustCompile(
		`^(?:a (?:bit|little|few) )?(?:more|extra)\b|^\S+(?: \S+)? (?:\S+ )?(?:more|extra)\b`,
	)
	purposeOf = regexp.MustCompile(
		`\b(?:for|to) (?:the )?((?:baking )?(?:dish|pan|tin|pot|base)|greas\w+|dust\w*|sprinkl\w+|brush\w*|glaz\w+|top|finish|roll\w+)\b`,
	)
	eachOf      = regexp.MustCompile(`^\S+ ?\S* (?:of )?each\b|,? \d+ ?\w+ (?:of )?each$`)
	orSo        = regexp.MustCompile(`\b(?:or so|together|altogether|or thereabouts)\b`)
	halfOf      = regexp.MustCompile(`\((?:about )?half (?:of )?an? ([\d.]+)[- ](ounce|oz|g|gram)s?\b[^)]*\)`)
	sizedCase   = regexp.MustCompile(`\(\d+ ?(?:cm|inch|-inch)[^,)]*, `)
	drainedG    = regexp.MustCompile(`\((?:about )?([\d.,]+) ?(kg|g)\b[^;)]*drained[^)]*\)`)
	weightAfter = regexp.MustCompile(`^(\S+ [^,(]+), (?:about )?(\d[\d.]* ?(?:kg|g|lb)) ?(,|$)`)
	inJuice     = regexp.MustCompile(`\bin (?:its own |their own |natural |fruit |light )*(?:juice|syrup|water)\b`)
)

// longestLine is the longest line that is parted, in bytes: nobody writes one in more.
const longestLine = 1200

// pieces parts a line at its commas, semicolons and "and" where another amount or another known name begins.
func (r *recipe) pieces(text string) []piece {
	if len(text) > longestLine || eachOf.MatchString(text) {
		return []piece{{text: text}}
	}
	var out []piece
	depth, from := 0, 0
	flush := func(to int) {
		if t := strings.Trim(text[from:to], " ,;+"); t != "" {
			out = append(out, piece{text: t})
		}
	}
	for i := 0; i < len(text); i++ {
		switch text[i] {
		case '(':
			depth++
		case ')':
			depth = max(0, depth-1)
		}
		if depth > 0 || text[i] != ',' && text[i] != ';' && text[i] != ' ' {
			continue
		}
		m := separatorHere.FindStringIndex(text[i:])
		if m == nil {
			continue
		}
		rest := text[i+m[1]:]
		before := text[from:i]
		if !r.begins(before, rest, text[i:i+m[1]]) {
			continue
		}
		flush(i)
		from = i + m[1]
		i = from - 1
	}
	flush(len(text))
	for i := range out {
		if i > 0 && (moreOf.MatchString(out[i].text) || r.nameless(out[i].text)) {
			out[i].more = true
		}
		if m := purposeOf.FindStringSubmatch(out[i].text); m != nil {
			out[i].purpose = m[1]
		}
	}
	return out
}

// nameless is whether a piece has an amount and no name of its own.
func (r *recipe) nameless(text string) bool {
	rest, _, ok := parse.StartsWithAmount(text)
	rest, _, _ = strings.Cut(" "+rest, " for ")
	return ok && parse.NoThing(rest)
}

// begins is whether another thing begins at rest.
func (r *recipe) begins(before, rest, mark string) bool {
	next := rest
	if m := separator.FindStringIndex(rest); m != nil {
		next = rest[:m[0]]
	}
	if strings.TrimSpace(before) == "" || aHalf.MatchString(rest) || partOfCitrus.MatchString(before) {
		return false
	}
	if moreOf.MatchString(next) && (strings.Contains(mark, "plus") || strings.Contains(mark, "and")) {
		return true
	}
	if after, unit, ok := parse.StartsWithAmount(next); ok {
		if length.MatchString(next) || strings.HasPrefix(strings.TrimSpace(after), "min") {
			return false
		}
		if strings.Contains(mark, "plus") {
			return true
		}
		if orSo.MatchString(next) || parse.NoThing(after) {
			return false // an amount without a name repeats the one before
		}
		if unit {
			return true
		}
		return len(r.p.Mentions(after)) > 0
	}
	if strings.Contains(mark, "+") || strings.Contains(mark, ",") || strings.Contains(mark, "and") {
		if m := r.p.Mentions(next); len(m) == 1 && m[0].Citrus != "" && m[0].Start == 0 {
			return true
		}
		return knownName(next, r.p) && !preparation.MatchString(next) && len(r.p.Mentions(before)) > 0 &&
			(strings.Contains(mark, "+") || knownName(lastOf(before), r.p))
	}
	return false
}

var (
	aHalf        = regexp.MustCompile(`^(?:a |one )?(?:half|quarter)\b|^\d/\d of`)
	partOfCitrus = regexp.MustCompile(`\b(?:zest|rind|juice|peel)$`)
)

func lastOf(s string) string {
	if i := strings.LastIndexAny(s, ",;"); i >= 0 {
		s = s[i+1:]
	}
	return strings.TrimSpace(s)
}

var (
	length      = regexp.MustCompile(`^(?:[\d.,/½¼¾⅓⅔ ]+)-? ?(?:cm|mm|inch|inches|in)\b`)
	preparation = regexp.MustCompile(`\b(?:cored|peeled|stoned|sliced|chopped|diced|melted)\b`)
)

// itemsOf reads one line's text.
func (r *recipe) itemsOf(text string) []Item {
	var out []Item
	for _, p := range r.pieces(text) {
		if p.more && len(out) > 0 {
			out = append(out, r.moreItem(out[len(out)-1], p))
			continue
		}
		text := p.text
		if m := purposeOf.FindStringIndex(text); m != nil {
			text = strings.TrimRight(text[:m[0]], " ,") + text[m[1]:]
		}
		items := r.pieceItems(text)
		if b := bowlOfPurpose(p.purpose); b != "" {
			for i := range items {
				items[i].Bowl, items[i].Surely = b, true
				if b != Base && items[i].Ask == AskAmount {
					items[i].Ask = ""
				}
			}
		}
		out = append(out, items...)
	}
	return out
}

// moreItem is more of the thing before it: "plus 1 tablespoon for sprinkling".
func (r *recipe) moreItem(of Item, p piece) Item {
	x := Item{Key: of.Key, Name: p.text, Bowl: bowlOfPurpose(p.purpose), Surely: true}
	if x.Bowl == "" {
		x.Bowl, x.Surely = of.Bowl, false
	}
	if t, ok := r.p.Get(of.Key); ok {
		if l := r.p.ReadAs(strings.ReplaceAll(p.text, "more", ""), t, r.by); l.G != nil && hasAnyAmount(p.text) {
			x.G = l.G
		}
	}
	return x
}

func hasAnyAmount(s string) bool {
	_, unit, ok := parse.StartsWithAmount(s)
	return ok && unit
}

func bowlOfPurpose(purpose string) Bowl {
	last := purpose[strings.LastIndex(purpose, " ")+1:]
	switch last {
	case "":
		return ""
	case "base":
		return Base
	case "dish", "pan", "tin", "pot":
		return Greasing
	}
	if strings.HasPrefix(last, "greas") {
		return Greasing
	}
	return Finish
}

var (
	wholeSpice = regexp.MustCompile(
		`\b(?:cinnamon sticks?|sticks? of cinnamon|strips? of|vanilla pod|star anise|bay lea)`,
	)
	smallUnit   = regexp.MustCompile(`\b(?:splash|drizzle|drops?|handful|bunch|sprigs?|to taste)\b`)
	wholeCitrus = regexp.MustCompile(`^(?:an?|one|two|\d+) (?:large |small |unwaxed )*(lemon|orange|lime)s?$`)
	tins        = regexp.MustCompile(`\b(?:tins?|cans?|tinned|canned|jars?)\b`)
	altNames    = regexp.MustCompile(`^(.*?) or (.+)$`)
)

// pieceItems reads a piece that asks for one thing, or for the juice and the zest of one.
func (r *recipe) pieceItems(text string) []Item {
	norm := orSo.ReplaceAllString(text, "")
	norm, _, _ = strings.Cut(norm, " if ")
	norm = weightAfter.ReplaceAllString(norm, "$1 ($2)$3")
	if m := halfOf.FindStringSubmatch(norm); m != nil {
		n, _ := strconv.ParseFloat(m[1], 64)
		norm = halfOf.ReplaceAllString(norm, "("+strconv.FormatFloat(n/2, 'f', -1, 64)+" "+m[2]+")")
	}
	norm = sizedCase.ReplaceAllString(norm, "(")
	if m := drainedG.FindStringSubmatch(norm); m != nil {
		norm = m[1] + " " + m[2] + " " + inJuice.ReplaceAllString(
			drainedG.ReplaceAllString(tins.ReplaceAllString(afterAmount(norm), ""), ""),
			"",
		)
	}
	norm = strings.ReplaceAll(norm, "b. powder", "baking powder")
	l := r.p.ReadLine(norm, r.by)
	x := Item{Name: text, G: l.G, AsBought: l.AsBought, Line: l}
	if l.Ingredient != nil {
		x.Key = *l.Ingredient
	}
	r.resolve(&x, norm, l)
	if x.Key != "" && wholeSpice.MatchString(norm) {
		x.G, x.Ask = nil, ""
		x.States = append(x.States, State{Word: "whole"})
	}
	if m := altNames.FindStringSubmatch(nameOf(norm)); m != nil {
		if ms := r.p.Mentions(m[2]); len(ms) > 0 && ms[0].Thing.Key != x.Key {
			x.Alt = append(x.Alt, ms[0].Thing.Key)
		}
	}
	r.statesOf(&x, text)
	x.AsBought = x.G != nil && r.isFruit(x.Key) && weighedWhole(norm, x.Key, l) && !tins.MatchString(text)
	out := []Item{x}
	if len(x.Keys) > 0 {
		return out
	}
	for _, a := range l.Also {
		g := a.G
		out = append(out, Item{Key: a.Ingredient, Name: a.Name, G: &g, Part: true, Line: parse.Line{Text: text}})
	}
	return out
}

func afterAmount(s string) string {
	rest, _, ok := parse.StartsWithAmount(s)
	if !ok {
		return s
	}
	return rest
}

func nameOf(s string) string {
	s = parse.Unbracketed(s)
	s, _, _ = strings.Cut(s, ",")
	return s
}

// isFruit is whether a key is a fruit's, of the tables or of the kitchen's own.
func (r *recipe) isFruit(key string) bool {
	t, _ := r.p.Get(key)
	return t.Fruit
}

var (
	metricUnit   = regexp.MustCompile(`\d ?(?:g|kg|ml)\b`)
	inFahrenheit = regexp.MustCompile(`\d ?(?:°|degrees )?f\b`)
)
