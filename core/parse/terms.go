package parse

import (
	"slices"
	"strings"
	"unicode"

	"mabbin/core/units"
)

// term is one part of an amount: so many, or from low to high, of a unit. Without a unit it is a count of pieces.
type term struct {
	low, high float64
	unit      string
	size      string // of pieces: small, medium, large, extra large
	fill      string // of spoons: heaped, rounded, scant
}

func (t term) weight() bool   { return units.MassG(t.unit) > 0 }
func (t term) imperial() bool { return t.unit == "oz" || t.unit == "lb" }

// amounts reads an amount at the start: "2 1/4 cups", "1 cup plus 2 tbsp", "2 lb 4 oz", "half a dozen large". It leaves
// the name, and is empty where there is no amount.
func (s *scanner) amounts() []term {
	var terms []term
	for {
		was := s.rest
		if len(terms) > 0 {
			if s.phrase("plus", "and", "+", "&") {
				if !s.startsAmount() {
					s.rest = was
					return terms
				}
			} else if !terms[len(terms)-1].weight() || !s.startsNumber() { // "2 lb 4 oz" needs no word between
				return terms
			}
		}
		t, ok := s.oneTerm()
		if !ok || len(terms) > 0 && t.unit == "" || len(terms) >= 4 {
			s.rest = was
			return terms
		}
		terms = append(terms, t)
	}
}

func (s *scanner) startsNumber() bool {
	s.skip()
	return len(s.rest) > 0 && (unicode.IsDigit(s.rest[0]) || vulgar[s.rest[0]] > 0)
}

func (s *scanner) startsAmount() bool {
	was := s.rest
	_, ok := s.oneTerm()
	s.rest = was
	return ok
}

// otherNotation reads what repeats an amount: "/14oz", "= 14 oz", "or 14 oz".
func (s *scanner) otherNotation() []term {
	was := s.rest
	if !s.phrase("/", "=", "or", "|") {
		return nil
	}
	if terms := s.amounts(); len(terms) > 0 && terms[0].unit != "" {
		return terms
	}
	s.rest = was
	return nil
}

func (s *scanner) oneTerm() (term, bool) {
	was := s.rest
	var t term
	s.phrase(
		"about",
		"approximately",
		"approx.",
		"approx",
		"around",
		"roughly",
		"circa",
		"ca.",
		"some",
		"between",
		"up to",
		"a good",
		"a generous",
	)
	s.adjectives(&t)
	var ok bool
	if t.low, t.high, ok = s.howMany(); !ok {
		// "pinch of salt", "knob of butter": one of it
		if u := s.unit(); ones[u] && s.more() {
			s.phrase("of")
			return term{low: 1, high: 1, unit: u}, true
		}
		s.rest = was
		return t, false
	}
	if s.phrase("x") { // 2 x 400 g
		inner, ok := s.oneTerm()
		if !ok {
			s.rest = was
			return t, false
		}
		inner.low, inner.high = inner.low*t.low, inner.high*t.high
		s.phrase("tins", "tin", "cans", "can", "packets", "packet", "bags", "bag", "punnets", "punnet", "jars", "jar")
		s.phrase("of")
		return inner, true
	}
	if inner, ok := s.bracketed(); ok { // 2 (14-oz) cans
		inner.low, inner.high = inner.low*t.low, inner.high*t.high
		return inner, true
	}
	s.adjectives(&t)
	t.unit = s.unit()
	if t.unit == "" {
		s.adjectives(&t)
	} else if t.low == t.high { // "a pound and a half of apples"
		was := s.rest
		if s.phrase("and a") {
			if part, ok := s.fraction(); ok && t.low == float64(int(t.low)) {
				t.low, t.high = t.low+part, t.high+part
			} else {
				s.rest = was
			}
		}
	}
	s.phrase("of a", "of an", "of")
	return t, true
}

// bracketed reads "(14-oz) cans": so much in each.
func (s *scanner) bracketed() (term, bool) {
	was := s.rest
	s.skip()
	if !s.peek('(') {
		return term{}, false
	}
	s.rest = s.rest[1:]
	t, ok := s.oneTerm()
	s.skip()
	if ok && t.weight() && s.peek(')') {
		s.rest = s.rest[1:]
		if u := s.unit(); containers[u] {
			s.phrase("of")
			return t, true
		}
	}
	s.rest = was
	return term{}, false
}

// adjectives reads how a spoon is filled and how large a piece is.
func (s *scanner) adjectives(t *term) {
	for {
		was := s.rest
		w := s.letters()
		if f, is := fillWords[w]; is {
			t.fill = f
			continue
		}
		size, is := sizeWords[w]
		if size == "very" {
			if next := s.letters(); next == "large" {
				size = "extra large"
			} else {
				is = false
			}
		}
		if !is {
			s.rest = was
			return
		}
		t.size = size
	}
}

// letters reads a word of letters, with a hyphen in it.
func (s *scanner) letters() string {
	s.skip()
	n := 0
	letter := func(i int) bool { return i < len(s.rest) && unicode.IsLetter(s.rest[i]) }
	for letter(n) || n > 0 && letter(n+1) && s.rest[n] == '-' {
		n++
	}
	w := string(s.rest[:n])
	s.rest = s.rest[n:]
	return w
}

// phrase reads one of some phrases, of which none may begin another that stands after it.
func (s *scanner) phrase(options ...string) bool {
	s.skip()
	for _, o := range options {
		r := []rune(o)
		if len(s.rest) < len(r) || !slices.Equal(s.rest[:len(r)], r) {
			continue
		}
		letter := unicode.IsLetter(r[len(r)-1])
		if letter && len(s.rest) > len(r) && (unicode.IsLetter(s.rest[len(r)]) || s.rest[len(r)] == '\'') {
			continue
		}
		s.rest = s.rest[len(r):]
		s.skip()
		return true
	}
	return false
}

// howMany reads a number or a range, in figures or in words.
func (s *scanner) howMany() (low, high float64, ok bool) {
	if low, ok = s.count(); !ok {
		return 0, 0, false
	}
	was := s.rest
	if s.phrase("-", "to", "or", "and") {
		joined := string(was[:len(was)-len(s.rest)])
		if high, ok = s.count(); ok && high > low && (!strings.Contains(joined, "and") || s.betweenUnit()) {
			return low, high, true
		}
	}
	s.rest = was
	return low, low, true
}

// betweenUnit is for "between 2 and 3 tbsp": a unit or a name follows and no second number.
func (s *scanner) betweenUnit() bool {
	was := s.rest
	u := s.unit()
	s.rest = was
	return u != ""
}

// count reads one number: figures first, then words.
func (s *scanner) count() (float64, bool) {
	s.skip()
	was := s.rest
	if s.peek('-') {
		return 0, false
	}
	if v, ok := s.number(); ok {
		// "1-1/2 cups" and "1 and a half", "2 and 1/2"
		mark := s.rest
		if s.phrase("-", "and a", "and", "&") {
			if part, ok := s.fraction(); ok && v >= 1 && v == float64(int(v)) {
				return v + part, true
			}
			s.rest = mark
		}
		if s.phrase("dozen") {
			return v * 12, true
		}
		return v, true
	}
	s.rest = was
	w := s.letters()
	v, ok := numberWords[w]
	if !ok {
		s.rest = was
		return 0, false
	}
	for {
		mark := s.rest
		next := s.letters()
		part, isPart := parts[next]
		switch {
		case isPart && !strings.HasSuffix(w, "half"): // three quarters, a dozen, a half
			v *= part
			w = next
			continue
		case w == "half" && (next == "a" || next == "an"): // half a cup, half a dozen
			if s.phrase("dozen") {
				return 6, true
			}
			return v, true
		case next == "couple":
			s.phrase("of")
			return 2, true
		case next == "and" && v == float64(int(v)) && v < 12: // one and a half
			s.phrase("a")
			if part, ok := s.fraction(); ok {
				return v + part, true
			}
		case next == "of" && v < 1: // half of a lemon, three quarters of a cup
			if s.phrase("a", "an") {
				return v, true
			}
		}
		s.rest = mark
		return v, true
	}
}

// fraction reads a fraction below one, in figures or in words.
func (s *scanner) fraction() (float64, bool) {
	was := s.rest
	if v, ok := s.number(); ok && v > 0 && v < 1 {
		return v, true
	}
	s.rest = was
	w := s.letters()
	if n, ok := numberWords[w]; ok && n >= 1 {
		if part, ok := parts[s.letters()]; ok && n*part < 1 {
			return n * part, true
		}
	} else if part, ok := parts[w]; ok && part < 1 {
		return part, true
	}
	s.rest = was
	return 0, false
}

// unit reads a unit where there is one: "cups", "fl. oz.", "-oz". A word that is no unit is left: it is the name.
func (s *scanner) unit() string {
	was := s.rest
	s.skip()
	if s.peek('-') {
		s.rest = s.rest[1:]
	}
	n := 0
	for n < len(s.rest) && unicode.IsLetter(s.rest[n]) {
		n++
	}
	w := string(s.rest[:n])
	next := s.rest[n:]
	if len(next) > 0 && next[0] == '.' {
		next = next[1:]
	}
	if w == "fl" || w == "fluid" {
		two := &scanner{rest: next}
		if o := two.unit(); o == "oz" {
			s.rest = two.rest
			return "fl oz"
		}
		s.rest = was
		return ""
	}
	u, known := onLines[w]
	if !known {
		if containers[w] {
			u = w
		} else {
			u = units.Spelling(w)
		}
	}
	if _, volume := (units.Conventions{}).VolumeML(
		u,
	); u == "" ||
		!volume && units.MassG(u) == 0 && !containers[u] && u != "handful" {
		s.rest = was
		return ""
	}
	s.rest = next
	return u
}
