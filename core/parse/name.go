package parse

import (
	"strings"

	"mabbin/core/message"
	"mabbin/core/units"
)

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
				if unit := terms[0].unit; each && len(r.terms) == 1 && r.terms[0].unit == "" && units.MassG(unit) > 0 {
					r.each = true
					r.terms[0] = term{low: r.terms[0].low * terms[0].low, high: r.terms[0].high * terms[0].high, unit: unit}
				} else if strings.HasPrefix(left, "drained") && terms[0].weight() {
					r.terms, r.dry = terms, true
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
	for _, such := range []string{
		" such as ", " like ", " e.g. ", " eg ", " preferably ", " ideally ",
		" plus extra", " plus more", " for dusting", " for greasing", " for the tin", " to taste", " to serve",
		" for serving", " to dust", " to finish",
	} {
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
	if r.tin {
		name = inItsOwn.ReplaceAllString(name, "")
	}
	name = sizedWare.ReplaceAllString(name, "")
	if strings.Contains(name, "lightly packed") || strings.Contains(r.Note, "lightly packed") {
		r.pack = lightlyPacked
	}
	r.Frozen = strings.Contains(name, "frozen") || strings.Contains(r.Note, "frozen")
	return name
}

// lightlyPacked is between spooned and packed.
const lightlyPacked = "lightly packed"

var packings = map[string]string{
	"scooped": "scooped",
	"spooned": "spooned",
	"packed":  "packed",
	"sifted":  "sifted",
	"sieved":  "sifted",
	"dipped":  "scooped",
}

// thing resolves the name. It asks, and answers false, where it is not sure.
func (r *reading) thing(name string) (Thing, bool) {
	if r.is != nil {
		r.Ingredient, r.Name = &r.is.Key, r.is.Name
		r.say(message.New("{name}, as you chose", lower(*r.is)))
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
		r.ask(AskThing, message.New("What is this? Write the name of the ingredient after the amount."), nil)
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
		if f.Fruit {
			if kinds := r.p.kindsOf(f.Thing); len(kinds) > 1 {
				r.askKind(ws, kinds)
				return Thing{}, false
			}
		}
		r.ask(AskThing, notKnown(ws, []string{f.Name}), nil, f.Key)
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
		r.ask(AskThing, notKnown(ws, names), nil, keys...)
		return Thing{}, false
	}
	r.Ingredient, r.Name = &f.Key, f.Name
	if !f.taken.IsZero() {
		r.say(f.taken)
	}
	return f.Thing, true
}

// askKind asks of which kind a fruit is that was reported by the name of its sort.
func (r *reading) askKind(ws []string, kinds []Thing) {
	keys := make([]string, len(kinds))
	for i, k := range kinds {
		keys[i] = k.Key
	}
	sort := strings.Join(ws, " ")
	r.ask(
		AskThing,
		message.New("Which kind of fruit is \"{sort}\"? Your answer is remembered.", message.Text(sort)),
		nil,
		keys...)
	r.Questions[len(r.Questions)-1].Sort = sort
}

// notKnown asks about a name, with those that are nearest to it.
func notKnown(ws, near []string) message.Message {
	written := message.Text(strings.Join(ws, " "))
	if len(near) == 0 {
		return message.New("\"{written}\" is not known. Choose the most similar ingredient.", written)
	}
	names := make([]message.Message, len(near))
	for i, n := range near {
		names[i] = message.Value(message.Name(n))
	}
	return message.New("\"{written}\" is not known. Is it {names}?", written, message.Or(names...))
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
				r.say(message.New("the first of the two"))
				return left, true
			}
			return right, true
		}
		if w == "and" && okLeft && okRight && left.Key != right.Key {
			r.ask(
				AskWhich,
				message.New(
					"Two things on one line: {one}, and {other}. Write each on its own line.",
					message.Name(left.Name),
					message.Name(right.Name),
				),
				nil,
				left.Key,
				right.Key,
			)
			return found{}, false
		}
	}
	return found{}, false
}

// Unbracketed is a name without what stands in brackets. A bracket that is never closed, and a name of nothing else,
// stay as they are.
func Unbracketed(name string) string {
	out := name
	for from := 0; ; {
		before, rest, ok := strings.Cut(out[from:], "(")
		_, after, closed := strings.Cut(rest, ")")
		if !ok || !closed {
			break
		}
		out = strings.TrimRight(out[:from]+before, " ") + after
		from = len(out) - len(after)
	}
	if strings.TrimSpace(out) == "" {
		return name
	}
	return out
}
