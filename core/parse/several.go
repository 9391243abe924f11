package parse

import (
	"regexp"
	"slices"
	"strconv"
	"strings"

	"mabbin/core/message"
)

// several reads lines that ask for the same of each of several things: "100 g each of butter, flour and sugar". It is
// false for any other line. What of them is not known is asked about: none is lost.
func (r *reading) several(rest string) bool {
	s := &scanner{rest: []rune(rest)}
	if len(r.terms) == 0 || !s.phrase("each of the", "each of", "each", "of each of", "of each") {
		return false
	}
	names := listed(string(s.rest))
	if len(names) < 2 {
		return false
	}
	for i, name := range names {
		one := reading{p: r.p, by: r.by, Line: Line{Text: r.Text, Questions: []Question{}}, terms: r.terms}
		t, ok := one.thing(one.takeApart(name))
		if ok {
			one.weigh(t)
		}
		if one.Ingredient == nil || one.G == nil {
			r.Questions = one.Questions
			r.Name = strings.TrimSpace(name)
			r.ask(AskWhich, message.New("Several things on one line. Write each on its own line."), nil)
			r.Ingredient, r.G, r.Also = nil, nil, nil
			return true
		}
		if i == 0 {
			r.Ingredient, r.Name, r.G, r.Unit, r.AsBought = one.Ingredient, one.Name, one.G, one.Unit,
				one.AsBought
			r.said = append(r.said, one.said...)
			r.Frozen = strings.Contains(rest, "frozen")
			continue
		}
		r.Also = append(r.Also, Also{*one.Ingredient, one.Name, *one.G, message.Join("; ", one.said...)})
	}
	return true
}

var listMarks = regexp.MustCompile(`,\s*(?:and |& )?|\s+(?:and|&)\s+`)

// listed are the names of a list.
func listed(list string) (names []string) {
	for _, n := range listMarks.Split(list, -1) {
		about := !slices.ContainsFunc(singular(words(n)), func(w string) bool { return !asides[w] })
		if n = strings.TrimSpace(n); n != "" && !about { // "frozen" says how they are
			names = append(names, n)
		}
	}
	return names
}

// eachAtTheEnd reads "butter, flour and sugar, 100 g each" as the same line the other way about.
var eachAtTheEnd = regexp.MustCompile(`^([a-z][a-z ,&-]+?)[,:]? (\d[^,]*?) (?:of )?each$`)

// sizeOf matches a fat that is measured by the eye, and walnutOf the same reported the other way about.
var (
	sizeOf = regexp.MustCompile(
		`^(?:(?:a|an|one|1) )?(?:(?:piece|lump|knob|pat) of )?([a-z ]+?),? (?:about )?(?:the )?size of an? ` +
			`(small |large )?(egg|walnut|hazelnut|nut|pea)$`)
	walnutOf = regexp.MustCompile(
		`^(?:(?:a|an|one|1) )(small |large )?(walnut|hazelnut|egg)(?:[- ]sized?)?(?: piece| knob| lump)? of ([a-z ]+)$`)
	eggsAnd = regexp.MustCompile(`^(\d+) (?:[a-z]+ )?eggs?,? (?:plus|and|\+|&) (\d+) (?:egg )?(yolk|white)s?$`)
)

// bySizeG is what fat of the size of something weighs. Working figures, from the things' usual volumes.
var bySizeG = map[string]float64{"egg": 55, "walnut": 20, "nut": 8, "hazelnut": 8, "pea": 1}

// sights are those things in words.
var sights = map[string]message.Message{
	"egg": message.New("an egg"), "walnut": message.New("a walnut"), "nut": message.New("a nut"),
	"hazelnut": message.New("a hazelnut"), "pea": message.New("a pea"),
}

// bySight rewrites a line whose amount is reported by the size of something; it says what it took that for.
func (r *reading) bySight(line string) string {
	var size, thing, name string
	if m := sizeOf.FindStringSubmatch(line); m != nil {
		name, size, thing = m[1], m[2], m[3]
	} else if m := walnutOf.FindStringSubmatch(line); m != nil {
		size, thing, name = m[1], m[2], m[3]
	} else {
		return line
	}
	g := bySizeG[thing] * sizeShare(strings.TrimSpace(size))
	r.say(message.New("the size of {thing}: {much}", message.Part(sights[thing]), message.Grams(g)))
	return strconv.FormatFloat(g, 'f', -1, 64) + " g " + name
}

// Pinches and knobs by their size, to the usual one. Working figures.
const (
	largeShare = 1.6
	smallShare = 0.6
)

func sizeShare(size string) float64 {
	switch size {
	case "large", "big", "generous", "good":
		return largeShare
	case "small", "tiny", "scant":
		return smallShare
	}
	return 1
}

// pinchSize is the word for how large a pinch is.
var pinchSize = regexp.MustCompile(`\b(large|big|generous|good|small|tiny|scant)\b[- ](?:pinch|knob)`)

// eggsWithParts reads "2 eggs plus 1 yolk".
func (r *reading) eggsWithParts(line string) bool {
	m := eggsAnd.FindStringSubmatch(line)
	if m == nil {
		return false
	}
	whole, okWhole := r.p.Get("egg")
	part, okPart := r.p.Get("egg_" + m[3])
	n, err := strconv.Atoi(m[1])
	more, err2 := strconv.Atoi(m[2])
	if !okWhole || !okPart || err != nil || err2 != nil || part.PieceG[""] == 0 {
		return false
	}
	each := r.by.EggG("")
	g := float64(n) * each
	r.Ingredient, r.Name, r.G = &whole.Key, whole.Name, &g
	r.say(message.New("{much} an egg without its shell", message.Grams(each)))
	one := part.PieceG[""]
	r.Also = append(r.Also, Also{part.Key, part.Name, float64(more) * one, eachWeighs(one, "")})
	return true
}

// A tin: its words on a line, what lies about the fruit in it, and how much of it is fruit. Working figure.
var (
	tinned   = regexp.MustCompile(`\b(tins?|cans?|tinned|canned|jars?)\b`)
	inItsOwn = regexp.MustCompile(
		` in (?:its |their )?(?:own |light |heavy |natural |fruit |sugar )*(?:juices?|syrup|water)\b`,
	)
	sizedWare = regexp.MustCompile(`\b\d+(?:[.,]\d+)?[- ]?(?:cm|mm|in|inch|inches)\b`)
)

// DrainedShare is how much of what is in a tin is fruit.
const DrainedShare = 0.58
