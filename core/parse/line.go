// Package parse reads what bakers write: one amount in a field, the lines of a recipe, the oven of its method. What is
// not known is asked and never guessed.
package parse

import (
	"math"
	"slices"
	"strings"

	"mabbin/core/message"
	"mabbin/core/units"
)

// Line is one line that a baker wrote, as it was understood.
type Line struct {
	Text       string          `json:"text"`
	Ingredient *string         `json:"ingredient"` // key; null where it is not sure
	Name       string          `json:"name"`       // as the tables have it, or as it was written
	G          *float64        `json:"g"`          // null where it is not sure, or where no amount is meant
	As         message.Message `json:"as"`         // what was taken for granted, in words
	Questions  []Question      `json:"questions"`
	// the line is none of the things, but says what those below are for
	Heading  string  `json:"heading,omitempty"`
	LowG     float64 `json:"low_g,omitempty"` // of a range
	HighG    float64 `json:"high_g,omitempty"`
	AsBought bool    `json:"as_bought,omitempty"` // fruit weighed before it is prepared
	Frozen   bool    `json:"frozen,omitempty"`
	Note     string  `json:"note,omitempty"` // how it is prepared
	Also     []Also  `json:"also,omitempty"` // what else the line asks for
	Unit     string  `json:"-"`              // of the first amount, "" for a count
}

// Also is a second thing on a line, as in the juice and zest of a lemon.
type Also struct {
	Ingredient string          `json:"ingredient"`
	Name       string          `json:"name"`
	G          float64         `json:"g"`
	As         message.Message `json:"as"`
}

// Question is asked instead of guessing.
type Question struct {
	Code       string          `json:"code"`
	Text       message.Message `json:"text"`
	SuggestG   *float64        `json:"suggest_g"`             // the likely meant grams
	SuggestKey []string        `json:"suggest_key,omitempty"` // the likely meant things, the likeliest first
	Container  string          `json:"container,omitempty"`   // whose grams are asked for, to be remembered
	Sort       string          `json:"sort,omitempty"`        // of a fruit whose kind is asked for, to be remembered
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
func (p *Vocabulary) ReadLines(text string, by units.Conventions) []Line {
	lines := []Line{}
	for l := range strings.Lines(text) {
		if l = strings.TrimSpace(l); l != "" {
			lines = append(lines, p.ReadLine(l, by))
		}
	}
	return lines
}

// ReadLine reads one line as bakers write or paste it: "2 1/4 cups plain flour, scooped".
func (p *Vocabulary) ReadLine(text string, by units.Conventions) Line {
	return p.readAs(text, nil, by)
}

// ReadAs reads one line of which the baker has said what it is.
func (p *Vocabulary) ReadAs(text string, t Thing, by units.Conventions) Line {
	return p.readAs(text, &t, by)
}

func (p *Vocabulary) readAs(text string, is *Thing, by units.Conventions) Line {
	r := reading{p: p, by: by, is: is, Line: Line{Text: strings.TrimSpace(text), Questions: []Question{}}}
	if len([]rune(text)) > maxLine {
		r.Text = clip(text)
		r.ask(AskUnreadable, message.New("This is too long for one line: write one thing a line."), nil)
		return r.Line
	}
	r.read()
	if r.G != nil && (math.IsNaN(*r.G) || *r.G > maxLineG) {
		r.G = nil
		r.ask(AskAmount, message.New("That is more than half a tonne: correct the amount."), nil)
	}
	return r.Line
}

// reading is one line while it is read.
type reading struct {
	Line
	p     *Vocabulary
	is    *Thing // what the baker has said it is
	by    units.Conventions
	said  []message.Message // becomes As
	terms []term            // the amount: more than one for "1 cup plus 2 tbsp"
	other []term            // the same amount in another notation
	each  bool              // the weight was reported for one piece
	pack  string            // scooped, packed, lightly packed, sifted, spooned
	tin   bool              // it is from a tin
	dry   bool              // the weight is without the tin's juice
	pinch float64           // a pinch or a knob, to the usual one
}

func (r *reading) ask(code string, text message.Message, suggestG *float64, keys ...string) {
	r.Questions = append(r.Questions, Question{Code: code, Text: text, SuggestG: suggestG, SuggestKey: keys})
}

func (r *reading) say(l message.Message) { r.said = append(r.said, l) }

func (r *reading) read() {
	defer func() { r.As = message.Join("; ", r.said...) }()
	line := tidy(r.Text)
	if h, ok := heading(line); ok {
		r.Heading, r.Name = h, h
		r.say(message.New("a heading"))
		return
	}
	if r.is == nil && (r.citrus(line) || r.eggsWithParts(line)) {
		return
	}
	if m := eachAtTheEnd.FindStringSubmatch(line); m != nil {
		line = m[2] + " each " + m[1]
	}
	line = r.bySight(strings.TrimPrefix(line, "a little "))
	r.tin = tinned.MatchString(line)
	r.pinch = sizeShare(firstOf(pinchSize.FindStringSubmatch(line)))
	s := &scanner{rest: []rune(line)}
	r.terms = s.amounts()
	rest := string(s.rest)
	if len(r.terms) == 0 {
		rest = r.amountAtTheEnd(line)
	} else if other := s.otherNotation(); len(other) > 0 {
		r.other, rest = other, string(s.rest)
	}
	if r.is == nil && (r.several(rest) || r.mixture(rest)) {
		return
	}
	name := r.takeApart(rest)
	if t, ok := r.thing(name); ok {
		r.weigh(t)
		return
	}
	// A weight is one whatever it is of.
	for _, terms := range [][]term{r.terms, r.other} {
		if len(terms) > 0 &&
			!slices.ContainsFunc(terms, func(t term) bool { return !t.weight() || t.unit == "knob" || t.unit == "stick" }) {
			r.terms, r.other = terms, nil
			r.weigh(Thing{})
			return
		}
	}
}

// firstOf is the first group of a match, empty without one.
func firstOf(match []string) string {
	if len(match) < 2 {
		return ""
	}
	return match[1]
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
	"topping":         true,
	"filling":         true,
	"base":            true,
	"crust":           true,
	"crumble":         true,
	"fruit":           true,
	"to finish":       true,
	"finish":          true,
	"to serve":        true,
	"dough":           true,
	"streusel":        true,
	"pastry":          true,
	"crumble topping": true,
	"crisp topping":   true,
	"fruit filling":   true,
	"the topping":     true,
	"the filling":     true,
	"ingredients":     true,
}

// tidy brings a line to one spelling: lower case, plain blanks and dashes, no bullet. A capital T is a tablespoon.
func tidy(line string) string {
	fields := strings.Fields(
		strings.NewReplacer(" ", " ", " ", " ", " ", " ", "⁄", "/", "∕", "/", "–", "-", "—", "-", "−", "-", "×", "x",
			"’", "'").
			Replace(line),
	)
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
