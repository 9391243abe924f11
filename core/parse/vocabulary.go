package parse

import (
	"slices"
	"strings"

	"mabbin/core/message"
	"mabbin/core/units"
)

// Thing is what can stand on a line: a fruit or an ingredient, as far as measuring it goes.
type Thing struct {
	Key     string
	Name    string
	Role    string // an ingredient's role, "fruit" for a fruit
	Density units.Density
	PieceG  map[string]float64 // by size; "" is the usual one
	Fruit   bool               // pieces are as bought
}

// Vocabulary knows things by the names that bakers give them.
type Vocabulary struct {
	things map[string]Thing
	names  map[string]known // by its words, singular, with a blank between
	spelt  []string         // the names in order, to look for close misses
}

// known is what a name stands for, and what is taken for granted with it.
type known struct {
	key   string
	taken message.Message
}

// NewVocabulary is an empty vocabulary.
func NewVocabulary() *Vocabulary {
	return &Vocabulary{things: map[string]Thing{}, names: map[string]known{}}
}

// Add puts a thing in, or in the place of the one with its key.
func (p *Vocabulary) Add(t Thing) { p.things[t.Key] = t }

// Call gives a thing another name. What is taken for granted with the name is said each time, as "taken as firm
// apples".
func (p *Vocabulary) Call(name, key string, taken message.Message) {
	words := strings.Join(singular(words(name)), " ")
	if _, there := p.names[words]; !there {
		p.spelt = append(p.spelt, words)
	}
	p.names[words] = known{key, taken}
}

// Get finds a thing by its key.
func (p *Vocabulary) Get(key string) (Thing, bool) {
	t, ok := p.things[key]
	return t, ok
}

// kindsOf are the things that a fruit is one kind of: "Apple, firm" is one of the apples.
func (p *Vocabulary) kindsOf(t Thing) (kinds []Thing) {
	plain, _, _ := strings.Cut(t.Name, ",")
	for _, x := range p.things {
		if other, _, several := strings.Cut(x.Name, ","); x.Fruit && several && other == plain {
			kinds = append(kinds, x)
		}
	}
	slices.SortFunc(kinds, func(a, b Thing) int { return strings.Compare(a.Key, b.Key) })
	return kinds
}

// found is what a name was resolved to. With rest, some of the name was not understood, and then it is a question.
type found struct {
	Thing
	taken message.Message
	rest  []string
}

// find resolves the words of a name: the longest known run of them, and of two as long the later one, for what a
// thing is stands last. Words that say how it is prepared may stand around it.
func (p *Vocabulary) find(name []string) (found, bool) {
	name = singular(name)
	f, ok := p.run(name)
	if ok && len(f.rest) == 0 {
		return f, true
	}
	// "light brown soft sugar": once more without what stands between
	if g, sure := p.run(
		slices.DeleteFunc(slices.Clone(name), func(w string) bool { return asides[w] }),
	); sure &&
		(!ok || len(g.rest) == 0) {
		return g, true
	}
	return f, ok
}

func (p *Vocabulary) run(name []string) (found, bool) {
	for n := min(len(name), longestName); n > 0; n-- {
		for i := len(name) - n; i >= 0; i-- {
			k, ok := p.names[strings.Join(name[i:i+n], " ")]
			if !ok {
				continue
			}
			f := found{Thing: p.things[k.key], taken: k.taken}
			for _, w := range slices.Concat(name[:i], name[i+n:]) {
				if !asides[w] {
					f.rest = append(f.rest, w)
				}
			}
			return f, true
		}
	}
	return found{}, false
}

// longestName is the most words that a name in the vocabulary has.
const longestName = 6

// near lists the things whose names are a slip or two of the pen away, the nearest first.
func (p *Vocabulary) near(name []string) []Thing {
	const most = 3
	given := strings.Join(singular(slices.DeleteFunc(slices.Clone(name), func(w string) bool { return asides[w] })), " ")
	if len(given) < 3 || len(given) > 40 {
		return nil
	}
	limit := 1 + len(given)/7
	type miss struct {
		key string
		off int
	}
	var misses []miss
	for _, s := range p.spelt {
		if off := distance(given, s, limit); off <= limit {
			misses = append(misses, miss{p.names[s].key, off})
		}
	}
	slices.SortStableFunc(misses, func(a, b miss) int { return a.off - b.off })
	var out []Thing
	for _, m := range misses {
		if t := p.things[m.key]; len(out) < most && !slices.ContainsFunc(out, func(x Thing) bool { return x.Key == t.Key }) {
			out = append(out, t)
		}
	}
	return out
}

// distance is the edit distance of two names, or more than limit as soon as it is that.
func distance(a, b string, limit int) int {
	if d := len(a) - len(b); d > limit || -d > limit {
		return limit + 1
	}
	var row [64]int
	if len(b)+1 > len(row) {
		return limit + 1
	}
	for j := range len(b) + 1 {
		row[j] = j
	}
	for i := range len(a) {
		last, least := row[0], i+1
		row[0] = i + 1
		for j := range len(b) {
			d := last
			if a[i] != b[j] {
				d = 1 + min(last, row[j], row[j+1])
			}
			last, row[j+1] = row[j+1], d
			least = min(least, d)
		}
		if least > limit {
			return limit + 1
		}
	}
	return row[len(b)]
}

// singular brings words to one form. It need not be English, only the same on both sides.
func singular(name []string) []string {
	out := make([]string, len(name))
	for i, w := range name {
		switch {
		case len(w) < 4 || strings.HasSuffix(w, "ss") || strings.HasSuffix(w, "us"):
		case strings.HasSuffix(w, "ies"):
			w = w[:len(w)-3] + "y"
		case strings.HasSuffix(w, "oes"),
			strings.HasSuffix(w, "ches"),
			strings.HasSuffix(w, "shes"),
			strings.HasSuffix(w, "xes"),
			strings.HasSuffix(w, "sses"):
			w = w[:len(w)-2]
		case strings.HasSuffix(w, "s"):
			w = w[:len(w)-1]
		}
		out[i] = w
	}
	return out
}

// words splits a name into its words, in lower case.
func words(s string) []string {
	return strings.FieldsFunc(strings.ToLower(s), func(r rune) bool {
		return (r < 'a' || r > 'z') && (r < '0' || r > '9') && r != '%' && (r <= 127 || strings.ContainsRune("’–—", r))
	})
}

// asides are the words around a name that say how it is bought or prepared, and change neither what it is nor its
// grams. They are in the singular form.
var asides = func() map[string]bool {
	set := map[string]bool{}
	for _, w := range words(`
		fresh freshly ripe unripe underripe firm just cold warm hot soft softened melted chilled frozen cubed cube diced
		dice chopped sliced slice grated peeled unpeeled cored stoned pitted hulled trimmed rinsed washed drained halved
		half halve quartered quarter roughly finely coarsely thinly thickly thin thick good quality best organic free
		range unsalted salted lightly beaten whole heaped more extra additional of the some plus well very natural pure
		real squeezed toasted roasted roast unwaxed unsweetened thawed defrosted juicy homemade leftover bruised
		crumbled prepared cut into piece chunk small medium large bite size sized room temperature at in and a an if needed
		necessary optional about little bought made
		approx approximately each total level cool cooled boiling lukewarm iced ice stale
		spreadable crushed lump free new old early late local windfall wild picked loose heaping ready rolled out knob
		stick topped tailed destoned pith seed removed to taste from my your garden fashioned fine certified refrigerated
		sheet properly big gluten baked`) {
		set[singular([]string{w})[0]] = true
	}
	return set
}()
