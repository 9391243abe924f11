package say

import (
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Reader is how somebody reads: their language, words and units.
type Reader interface {
	// Sentence is an English sentence in the reader's language, with its places in braces as they were.
	Sentence(english string) string
	// Called is the name of a row of the tables in the reader's language.
	Called(name string) string
	// Figure is a figure with its unit.
	Figure(kind Kind, x float64) string
}

// Read writes a line as somebody reads it.
func (l Line) Read(r Reader) string {
	text, values := l.apart()
	text = r.Sentence(text)
	if len(values) == 0 {
		return text
	}
	var b strings.Builder
	for {
		before, rest, found := strings.Cut(text, "{")
		b.WriteString(before)
		if !found {
			return b.String()
		}
		place, after, _ := strings.Cut(rest, "}")
		for _, v := range values {
			if v.place == place {
				b.WriteString(v.text(r))
				break
			}
		}
		text = after
	}
}

// String is the line in plain English, in grams, millimetres and degrees Celsius.
func (l Line) String() string { return l.Read(plain{}) }

// placed is a value of a line, in its place.
type placed struct {
	place string
	kind  Kind
	value string
}

func (p placed) number() float64 {
	x, _ := strconv.ParseFloat(p.value, 64) // number wrote it
	return x
}

// lines is what a list joins.
func (p placed) lines() []Line {
	_, values := Line(p.value).apart()
	out := make([]Line, len(values))
	for i, v := range values {
		out[i] = Line(v.value)
	}
	return out
}

// text is the value as it is read. A place with a capital is the head of a sentence.
func (p placed) text(r Reader) string {
	var b strings.Builder
	p.read(&b, r)
	says := b.String()
	if first, n := utf8.DecodeRuneInString(says); n > 0 && p.place != "" && p.place[0] >= 'A' && p.place[0] <= 'Z' {
		return string(unicode.ToUpper(first)) + says[n:]
	}
	return says
}

func (p placed) read(b *strings.Builder, r Reader) {
	switch p.kind {
	case Words:
		b.WriteString(Line(p.value).Read(r))
	case Name:
		b.WriteString(r.Called(p.value))
	case Given:
		b.WriteString(p.value)
	case Range:
		b.WriteString(p.span(r))
	case And, Or:
		lines := p.lines()
		for i, l := range lines {
			switch {
			case i == 0:
			case i == len(lines)-1:
				b.WriteString(r.Sentence(" " + string(p.kind) + " "))
			default:
				b.WriteString(", ")
			}
			b.WriteString(l.Read(r))
		}
	default:
		b.WriteString(r.Figure(p.kind, p.number()))
	}
}

// span is a range as it is read, with a unit that both ends have said once.
func (p placed) span(r Reader) string {
	_, ends := Line(p.value).apart()
	var says [2]string
	for i := range min(2, len(ends)) {
		says[i] = ends[i].text(r)
	}
	least, most := says[0], says[1]
	if i := strings.LastIndex(most, " "); i >= 0 {
		least = strings.TrimSuffix(least, most[i:])
	}
	return least + r.Sentence(" to ") + most
}

// apart is a line's sentence, with its places in braces, and its values.
func (l Line) apart() (string, []placed) {
	s := string(l)
	if !strings.Contains(s, open) {
		return s, nil
	}
	var text strings.Builder
	var values []placed
	for {
		before, rest, found := strings.Cut(s, open)
		text.WriteString(before)
		if !found {
			return text.String(), values
		}
		end := closing(rest)
		place, value, _ := strings.Cut(rest[:end], part)
		kind, value, _ := strings.Cut(value, part)
		text.WriteString("{" + place + "}")
		values = append(values, placed{place, Kind(kind), value})
		s = strings.TrimPrefix(rest[end:], shut)
	}
}

// closing is where the value ends that s begins within: values may hold lines that have values.
func closing(s string) int {
	depth := 0
	for i := range len(s) {
		switch s[i : i+1] {
		case open:
			depth++
		case shut:
			if depth == 0 {
				return i
			}
			depth--
		}
	}
	return len(s)
}

// plain is how the rules themselves read.
type plain struct{}

func (plain) Sentence(english string) string { return english }
func (plain) Called(name string) string      { return name }

func (plain) Figure(kind Kind, x float64) string {
	switch kind {
	case Number:
		return figure(x)
	case Volume:
		if x >= 950 {
			return strconv.FormatFloat(x/1000, 'f', 1, 64) + " l"
		}
	case Heat, Warmth, Step:
		return figure(x) + " C"
	}
	return figure(x) + " " + string(kind)
}

func figure(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }
