package measure

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
)

// Line is one line that a baker wrote, as it was understood.
type Line struct {
	Text       string     `json:"text"`
	Ingredient *string    `json:"ingredient"` // key; null where it is not sure
	Name       string     `json:"name"`       // as the tables have it, or as it was written
	G          *float64   `json:"g"`          // null where it is not sure, or where no amount is meant
	As         string     `json:"as"`         // what was taken for granted, in words
	Questions  []Question `json:"questions"`
	Heading    string     `json:"heading,omitempty"` // the line is none of the things, but says what those below are for
	LowG       float64    `json:"low_g,omitempty"`   // of a range
	HighG      float64    `json:"high_g,omitempty"`
	AsBought   bool       `json:"as_bought,omitempty"` // fruit weighed before it is prepared
	Frozen     bool       `json:"frozen,omitempty"`
	Note       string     `json:"note,omitempty"` // how it is prepared
	Also       []Also     `json:"also,omitempty"` // what else the line asks for
	Unit       string     `json:"-"`              // of the first amount, "" for a count
}

// Also is a second thing on a line, as in the juice and zest of a lemon.
type Also struct {
	Ingredient string  `json:"ingredient"`
	Name       string  `json:"name"`
	G          float64 `json:"g"`
	As         string  `json:"as"`
}

// Question is asked instead of guessing.
type Question struct {
	Code       string   `json:"code"`
	Text       string   `json:"text"`
	SuggestG   *float64 `json:"suggest_g"`             // the likely meant grams
	SuggestKey []string `json:"suggest_key,omitempty"` // the likely meant things, the likeliest first
	Container  string   `json:"container,omitempty"`   // whose grams are asked for, to be remembered
}

// The codes of questions.
const (
	AskAmount     = "no_amount"          // how much is not said
	AskThing      = "unknown_ingredient" // not known, or not surely
	AskWhich      = "which_ingredient"   // two things on one line
	AskDensity    = "no_density"         // a volume of something that is only weighed
	AskPiece      = "no_piece_weight"    // a count of something that is only weighed
	AskContainer  = "container"          // a tin, punnet or bag of unknown weight
	AskUnit       = "unknown_unit"
	AskDisagree   = "notations_disagree"
	AskUnreadable = "unreadable"
	AskSlip       = "slip" // far outside its usual range
)

const (
	maxLine  = 300  // letters; nobody writes one thing in more
	maxLineG = 5e5  // g; more is no line of a recipe
	oldOunce = 0.15 // two notations of one weight may differ by this: 25 g has always passed for an ounce
	cupShare = 0.35 // a cup and its weight may differ by this: nobody packs alike
)

// ReadLines reads text line by line. Empty lines are left out.
func (p *Pantry) ReadLines(text string, by Conventions) []Line {
	lines := []Line{}
	for l := range strings.Lines(text) {
		if l = strings.TrimSpace(l); l != "" {
			lines = append(lines, p.ReadLine(l, by))
		}
	}
	return lines
}

// ReadLine reads one line as bakers write or paste it: "2 1/4 cups plain flour, scooped".
func (p *Pantry) ReadLine(text string, by Conventions) Line {
	return p.readAs(text, nil, by)
}

// ReadAs reads one line of which the baker has said what it is.
func (p *Pantry) ReadAs(text string, t Thing, by Conventions) Line { return p.readAs(text, &t, by) }

func (p *Pantry) readAs(text string, is *Thing, by Conventions) Line {
	r := reading{p: p, by: by, is: is, Line: Line{Text: strings.TrimSpace(text), Questions: []Question{}}}
	if len([]rune(text)) > maxLine {
		r.Text = clip(text)
		r.ask(AskUnreadable, "This is too long for one line: write one thing a line.", nil)
		return r.Line
	}
	r.read()
	if r.G != nil && (math.IsNaN(*r.G) || *r.G > maxLineG) {
		r.G = nil
		r.ask(AskAmount, "That is more than half a tonne: write the amount again.", nil)
	}
	return r.Line
}

// reading is one line while it is read.
type reading struct {
	Line
	p     *Pantry
	is    *Thing // what the baker has said it is
	by    Conventions
	said  []string // becomes As
	terms []term   // the amount: more than one for "1 cup plus 2 tbsp"
	other []term   // the same amount in another notation
	each  bool     // the weight was told for one piece
	pack  string   // scooped, packed, sifted, spooned
}

func (r *reading) ask(code, text string, suggestG *float64, keys ...string) {
	r.Questions = append(r.Questions, Question{Code: code, Text: text, SuggestG: suggestG, SuggestKey: keys})
}

func (r *reading) say(format string, args ...any) {
	r.said = append(r.said, fmt.Sprintf(format, args...))
}

func (r *reading) read() {
	defer func() { r.As = strings.Join(r.said, "; ") }()
	line := tidy(r.Text)
	if h, ok := heading(line); ok {
		r.Heading, r.Name = h, h
		r.say("a heading")
		return
	}
	if r.is == nil && r.citrus(line) {
		return
	}
	s := &scanner{rest: []rune(line)}
	r.terms = s.amounts()
	rest := string(s.rest)
	if len(r.terms) == 0 {
		rest = r.amountAtTheEnd(line)
	} else if other := s.otherNotation(); len(other) > 0 {
		r.other, rest = other, string(s.rest)
	}
	name := r.takeApart(rest)
	if t, ok := r.thing(name); ok {
		r.weigh(t)
		return
	}
	// A weight is one whatever it is of.
	for _, terms := range [][]term{r.terms, r.other} {
		if len(terms) > 0 && !slices.ContainsFunc(terms, func(t term) bool { return !t.weight() || t.unit == "knob" || t.unit == "stick" }) {
			r.terms, r.other = terms, nil
			r.weigh(Thing{})
			return
		}
	}
}

// heading reads "For the topping:" and "Topping".
func heading(line string) (string, bool) {
	h, colon := strings.CutSuffix(line, ":")
	h = strings.Trim(h, " *#_=-")
	if strings.ContainsAny(h, "0123456789½¼¾⅓⅔") || len(strings.Fields(h)) > 8 || h == "" {
		return "", false
	}
	h, forThe := strings.CutPrefix(h, "for the ")
	if !colon && !forThe && !plainHeadings[h] {
		return "", false
	}
	return h, true
}

var plainHeadings = map[string]bool{
	"topping": true, "filling": true, "base": true, "crust": true, "crumble": true, "fruit": true, "to finish": true, "finish": true, "to serve": true,
	"dough": true, "streusel": true, "pastry": true, "crumble topping": true, "crisp topping": true, "fruit filling": true, "the topping": true, "the filling": true, "ingredients": true,
}

// tidy brings a line to one spelling: lower case, plain blanks and dashes, no bullet. A capital T is a tablespoon.
func tidy(line string) string {
	fields := strings.Fields(strings.NewReplacer(" ", " ", " ", " ", " ", " ", "⁄", "/", "∕", "/", "–", "-", "—", "-", "−", "-", "×", "x", "’", "'").Replace(line))
	for i, f := range fields {
		switch strings.TrimSuffix(f, ".") {
		case "T", "Tb":
			fields[i] = "tbsp"
		case "t":
			fields[i] = "tsp"
		case "c", "C":
			if i > 0 && i+1 < len(fields) {
				fields[i] = "cup"
			}
		}
	}
	s := strings.ToLower(strings.Join(fields, " "))
	return strings.TrimSpace(strings.TrimLeft(s, "*•·▢☐□◦‣-> \t"))
}

// amountAtTheEnd reads "plain flour 200 g" and "butter: 100 g", and gives back the name.
func (r *reading) amountAtTheEnd(line string) string {
	i := strings.IndexFunc(line, func(c rune) bool { _, is := vulgar[c]; return is || c >= '0' && c <= '9' })
	if i <= 0 {
		return line
	}
	s := &scanner{rest: []rune(strings.TrimSuffix(line[i:], ")"))}
	terms := s.amounts()
	if len(terms) == 0 || s.more() && len(s.otherNotation()) == 0 && !strings.HasPrefix(string(s.rest), ",") {
		return line
	}
	r.terms = terms
	return strings.TrimRight(line[:i], " :-,(") + string(s.rest)
}

// takeApart parts what follows the amount into the name and what is said about it: in brackets, after a comma.
func (r *reading) takeApart(rest string) (name string) {
	var notes []string
	for {
		before, after, ok := strings.Cut(rest, "(")
		if !ok {
			break
		}
		inside, after, closed := strings.Cut(after, ")")
		if !closed {
			after = ""
		}
		if s := (&scanner{rest: []rune(inside)}); len(r.other) == 0 {
			if terms := s.amounts(); len(terms) > 0 {
				left := strings.TrimSpace(string(s.rest))
				each := strings.HasPrefix(left, "each")
				if unit := terms[0].unit; each && len(r.terms) == 1 && r.terms[0].unit == "" && massG[unit] > 0 && unit != "" {
					r.each = true
					r.terms[0] = term{low: r.terms[0].low * terms[0].low, high: r.terms[0].high * terms[0].high, unit: unit}
				} else if left == "" || each || left == "total" || left == "in all" {
					r.other = terms
				}
			}
		}
		notes = append(notes, strings.TrimSpace(inside))
		rest = before + " " + after
	}
	name, note, _ := strings.Cut(rest, ",")
	if strings.TrimSpace(name) == "" {
		name, note, _ = strings.Cut(note, ",")
	}
	if s := (&scanner{rest: []rune(strings.TrimSpace(note))}); len(r.other) == 0 && len(r.terms) > 0 {
		if terms := s.amounts(); len(terms) > 0 && terms[0].unit != "" && !s.more() { // "6 apples, about 1.2 kg"
			r.other = terms
		}
	}
	notes = append(notes, strings.TrimSpace(note))
	for _, such := range []string{" such as ", " like ", " e.g. ", " eg ", " preferably ", " ideally ", " plus extra", " plus more", " for dusting", " for greasing", " for the tin", " to taste", " to serve", " for serving", " to dust", " to finish"} {
		if before, after, ok := strings.Cut(name, such); ok {
			name = before
			notes = append(notes, strings.TrimSpace(such+after))
		}
	}
	// "1 cup sifted flour" was sifted before it was measured, "1 cup flour, sifted" after: that is a spooned cup.
	for _, w := range strings.Fields(name) {
		if packings[w] != "" {
			r.pack = packings[w]
		}
	}
	for _, n := range notes {
		for _, w := range strings.FieldsFunc(n, func(c rune) bool { return c == ' ' || c == ',' || c == ';' }) {
			if p := packings[w]; p != "" && p != "sifted" {
				r.pack = p
			}
		}
	}
	r.Note = strings.Trim(strings.Join(notes, ", "), ", ")
	r.Frozen = strings.Contains(name, "frozen")
	return name
}

var packings = map[string]string{
	"scooped": "scooped", "spooned": "spooned", "packed": "packed", "sifted": "sifted", "sieved": "sifted", "dipped": "scooped",
}

// thing resolves the name. It asks, and answers false, where it is not sure.
func (r *reading) thing(name string) (Thing, bool) {
	if r.is != nil {
		r.Ingredient, r.Name = &r.is.Key, r.is.Name
		r.say("%s, as you said", strings.ToLower(r.is.Name))
		return *r.is, true
	}
	ws := words(name)
	kept := ws[:0]
	for _, w := range ws {
		if packings[w] == "" && w != "firmly" && w != "loosely" {
			kept = append(kept, w)
		}
	}
	ws = kept
	r.Name = strings.TrimSpace(name)
	if len(ws) == 0 {
		r.ask(AskThing, "What is this? Write the name of the ingredient after the amount.", nil)
		return Thing{}, false
	}
	f, ok := r.p.find(ws)
	if !ok || len(f.rest) > 0 {
		if g, sure := r.twoThings(ws); sure {
			f, ok = g, true
		}
	}
	switch {
	case ok && len(f.rest) == 0:
	case ok && (f.rest[0] == "and" || len(r.Questions) > 0):
		return Thing{}, false
	case ok:
		r.ask(AskThing, fmt.Sprintf("%q is not in the larder. Is it %s?", strings.Join(ws, " "), f.Name), nil, f.Key)
		return Thing{}, false
	default:
		if len(r.Questions) > 0 {
			return Thing{}, false
		}
		near := r.p.near(ws)
		var keys, names []string
		for _, t := range near {
			keys, names = append(keys, t.Key), append(names, t.Name)
		}
		text := fmt.Sprintf("%q is not in the larder. Choose what it is nearest to.", strings.Join(ws, " "))
		if len(names) > 0 {
			text = fmt.Sprintf("%q is not in the larder. Is it %s?", strings.Join(ws, " "), strings.Join(names, ", or "))
		}
		r.ask(AskThing, text, nil, keys...)
		return Thing{}, false
	}
	r.Ingredient, r.Name = &f.Key, f.Name
	if f.taken != "" {
		r.say("%s", f.taken)
	}
	return f.Thing, true
}

// twoThings reads "caster or granulated sugar", of which the first is taken, and asks about "salt and pepper".
func (r *reading) twoThings(ws []string) (found, bool) {
	for i, w := range ws {
		if i == 0 || i == len(ws)-1 || w != "or" && w != "and" {
			continue
		}
		left, okLeft := r.p.find(ws[:i])
		right, okRight := r.p.find(ws[i+1:])
		okLeft, okRight = okLeft && len(left.rest) == 0, okRight && len(right.rest) == 0
		if w == "or" && (okLeft || okRight) {
			if !okLeft { // "golden or dark brown sugar"
				if whole, ok := r.p.find(append(append([]string{}, ws[:i]...), ws[len(ws)-1])); ok && len(whole.rest) == 0 {
					left, okLeft = whole, true
				}
			}
			if okLeft {
				r.say("the first of the two")
				return left, true
			}
			return right, true
		}
		if w == "and" && okLeft && okRight && left.Key != right.Key {
			r.ask(AskWhich, fmt.Sprintf("Two things on one line: %s, and %s. Write each on its own line.", left.Name, right.Name), nil, left.Key, right.Key)
			return found{}, false
		}
	}
	return found{}, false
}

// weigh turns the amount into grams.
func (r *reading) weigh(t Thing) {
	if len(r.terms) == 0 {
		if len(r.other) == 0 {
			if purpose := r.purpose(); purpose != "" {
				r.say("%s: not weighed here", purpose)
				return
			}
			r.ask(AskAmount, fmt.Sprintf("How much %s? Write the grams, or leave the line out.", strings.ToLower(t.Name)), nil)
			return
		}
		r.terms, r.other = r.other, nil
	}
	// A weight is surer than what it stands beside.
	if len(r.other) > 0 && r.other[0].weight() && (!r.terms[0].weight() || r.terms[0].imperial() && !r.other[0].imperial()) {
		r.terms, r.other = r.other, r.terms
	}
	low, high, ok := r.sum(t, r.terms, true)
	if !ok {
		return
	}
	g := (low + high) / 2
	if high > low {
		r.LowG, r.HighG = low, high
		r.say("the middle of %s to %s g", Shown(low), Shown(high))
	}
	r.Unit = r.terms[0].unit
	r.G = &g
	counted := r.Unit == "" || len(r.other) > 0 && r.other[0].unit == "" || r.each
	r.AsBought = t.Fruit && (counted || r.preparedLater())
	if r.AsBought {
		r.say("as bought")
	}
	r.compare(t, g)
}

// purpose is what a thing without an amount is for: greasing, dusting, serving, or to taste.
func (r *reading) purpose() string {
	for _, w := range []string{"to taste", "greasing", "grease", "dusting", "to dust", "to serve", "serving", "to finish", "sprinkling", "rolling"} {
		if strings.Contains(r.Note, w) {
			return r.Note
		}
	}
	return ""
}

// preparedLater says whether the note peels or cores what has been weighed: "1 kg apples, peeled and cored".
func (r *reading) preparedLater() bool {
	if r.Unit == "cup" || strings.Contains(r.Note, "weigh") { // "prepared weight", "weighed after peeling"
		return false
	}
	for _, w := range words(r.Note) {
		if preparing[w] {
			return true
		}
	}
	return false
}

// preparing are the words for what is taken off a fruit.
var preparing = map[string]bool{
	"peeled": true, "cored": true, "stoned": true, "pitted": true, "trimmed": true, "hulled": true, "topped": true, "destoned": true, "deseeded": true,
}

// compare flags a second notation that says something else.
func (r *reading) compare(t Thing, g float64) {
	if len(r.other) == 0 || r.other[0].unit == "" {
		return
	}
	low, high, ok := r.sum(t, r.other, false)
	if !ok {
		return
	}
	other, may := (low+high)/2, oldOunce
	if !r.other[0].weight() || !r.terms[0].weight() {
		may = cupShare
	}
	if off := math.Abs(g-other) / max(g, other); off > may {
		r.ask(AskDisagree, fmt.Sprintf("The two amounts disagree: %s g, and %s g by the other. Which is meant?", Shown(g), Shown(other)), &other)
	}
}

// sum adds the terms of an amount up, in g. With aloud, it says and asks.
func (r *reading) sum(t Thing, terms []term, aloud bool) (low, high float64, ok bool) {
	quiet := *r
	to := r
	if !aloud {
		quiet.Questions, quiet.said = nil, nil
		to = &quiet
	}
	for _, x := range terms {
		each, ok := to.gramsOf(t, x)
		if !ok {
			return 0, 0, false
		}
		low += x.low * each
		high += x.high * each
	}
	return low, high, true
}

// gramsOf is what one of a term's units weighs.
func (r *reading) gramsOf(t Thing, x term) (float64, bool) {
	switch {
	case x.unit == "", x.unit == "stick" && t.Fruit: // a stick of rhubarb is a piece of it
		return r.pieceG(t, x)
	case x.unit == "knob" && t.Key != "butter", x.unit == "stick" && t.Role != "fat":
		r.ask(AskUnit, fmt.Sprintf("A %s is a measure of butter. How many grams of %s?", x.unit, strings.ToLower(t.Name)), nil)
		return 0, false
	case x.unit == "handful" && t.Fruit:
		r.say("a handful of 60 g")
		return gHandful, true
	case containers[x.unit] || x.unit == "handful":
		return r.containerG(t, x)
	case massG[x.unit] > 0:
		if g := massG[x.unit]; x.unit == "knob" || x.unit == "pinch" {
			r.say("a %s of %s g", x.unit, Shown(g))
		} else if words, ok := weightWords[x.unit]; ok {
			r.say("%s g %s", trim(math.Round(100*g)/100), words)
		}
		return massG[x.unit], true
	}
	ml, isVolume := r.by.volumeML(x.unit)
	if !isVolume {
		r.ask(AskUnit, fmt.Sprintf("%q is no unit known here: give grams, spoons or cups.", x.unit), nil)
		return 0, false
	}
	return r.volumeG(t, x, ml)
}

// volumeG is what one spoon or cup weighs, by the packing that was asked for or is usual.
func (r *reading) volumeG(t Thing, x term, ml float64) (float64, bool) {
	d, how := t.Density.CupGPerML, t.Density.Packing
	spoon := strings.HasPrefix(x.unit, "t")
	if spoon {
		d, how = t.Density.TspGPerML, ""
	}
	if d == 0 {
		d = t.Density.TspGPerML // the other way about: a cup of what is only spooned
	}
	if d == 0 {
		r.ask(AskDensity, fmt.Sprintf("How heavy a %s of %s is, is not known here. How many grams?", unitName(x.unit), strings.ToLower(t.Name)), nil)
		return 0, false
	}
	if !spoon {
		if how == "" && t.Density.ScoopedGPerML > 0 {
			how = "spooned"
		}
		switch {
		case r.pack == "scooped" && t.Density.ScoopedGPerML > 0:
			d, how = t.Density.ScoopedGPerML, "scooped"
		case r.pack == "packed" && t.Density.PackedGPerML > 0:
			d, how = t.Density.PackedGPerML, "packed"
		case r.pack == "sifted":
			d, how = d*sifted, "sifted"
		case r.pack == "spooned" && t.Density.Packing == "packed":
			d, how = t.Density.CupGPerML, "packed: no other figure is known"
		}
	}
	if x.fill != "" {
		d *= fills[x.fill]
		r.say("%s: %s of a level one", x.fill, trim(fills[x.fill]))
	}
	what := fmt.Sprintf("%s g a %s of %s ml", Shown(d*ml), unitName(x.unit), trim(math.Round(10*ml)/10))
	if metric := x.unit == "ml" || x.unit == "cl" || x.unit == "dl" || x.unit == "l"; metric {
		what = fmt.Sprintf("%.2f g a ml", d)
	}
	if how != "" {
		what += ", " + how
	}
	r.say("%s", what)
	return d * ml, true
}

// pieceG is what one piece weighs, by its size.
func (r *reading) pieceG(t Thing, x term) (float64, bool) {
	if t.Key == "egg" {
		g := r.by.EggG(x.size)
		r.say("%s g an egg without its shell", Shown(g))
		if crack := math.Ceil(x.high - 1e-9); crack > x.high {
			r.say("crack %s, %s g are left: whisk it, it is the wash", trim(crack), Shown((crack-x.high)*g))
		}
		return g, true
	}
	size := x.size
	if size == "extra large" {
		size = "large"
	}
	g, ok := t.PieceG[size]
	if !ok {
		g, ok = t.PieceG[""]
	}
	if !ok || g == 0 {
		r.ask(AskPiece, fmt.Sprintf("What one %s weighs is not known here. How many grams in all?", strings.ToLower(t.Name)), nil)
		return 0, false
	}
	if size == "" && t.Fruit {
		size = "medium"
	}
	r.say("%s", strings.TrimSpace(fmt.Sprintf("%s g each %s", Shown(g), size)))
	return g, true
}

// containerG is what the kitchen has said that one of its tins, punnets or bags holds.
func (r *reading) containerG(t Thing, x term) (float64, bool) {
	for _, k := range []string{x.unit + " " + t.Key, x.unit} {
		if g := r.by.Containers[k]; g > 0 {
			r.say("%s g a %s, as this kitchen said", Shown(g), x.unit)
			return g, true
		}
	}
	r.ask(AskContainer, fmt.Sprintf("How many grams are in one %s of %s? It is asked once and remembered.", x.unit, strings.ToLower(t.Name)), nil)
	r.Questions[len(r.Questions)-1].Container = strings.TrimSpace(x.unit + " " + t.Key)
	return 0, false
}

var weightWords = map[string]string{"oz": "an ounce", "lb": "a pound", "stick": "a stick"}

func unitName(unit string) string {
	if full, ok := map[string]string{"tbsp": "tablespoon", "tsp": "teaspoon", "pt": "pint", "qt": "quart", "l": "litre", "fl oz": "fluid ounce", "dsp": "dessertspoon"}[unit]; ok {
		return full
	}
	return unit
}

func trim(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }
