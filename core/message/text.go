package message

import (
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Reader is how somebody reads: their words and units.
type Reader interface {
	// Words is an English format in the reader's words, its places left as they are.
	Words(english string) string
	// Name is the name of a row of the tables in the reader's words.
	Name(name string) string
	// Figure is a figure with its unit.
	Figure(kind Kind, x float64) string
}

// Read writes a message as somebody reads it.
func (m Message) Read(r Reader) string {
	if len(m.Args) == 0 {
		return r.Words(m.Format)
	}
	var b strings.Builder
	m.write(&b, r)
	return b.String()
}

func (m Message) write(b *strings.Builder, r Reader) {
	rest := r.Words(m.Format)
	for _, a := range m.Args {
		before, place, found := strings.Cut(rest, "{")
		b.WriteString(before)
		if !found {
			return
		}
		name, after, _ := strings.Cut(place, "}")
		rest = after
		if name == "" || name[0] < 'A' || name[0] > 'Z' {
			a.write(b, r)
			continue
		}
		// a place with a capital is the head of a sentence
		var head strings.Builder
		a.write(&head, r)
		says := head.String()
		first, n := utf8.DecodeRuneInString(says)
		if n > 0 {
			b.WriteRune(unicode.ToUpper(first))
		}
		b.WriteString(says[n:])
	}
	b.WriteString(rest)
}

// String is the message in plain English, in grams, millimetres and degrees Celsius.
func (m Message) String() string { return m.Read(plain{}) }

func (a Arg) write(b *strings.Builder, r Reader) {
	switch a.Kind {
	case KindMessage:
		for _, m := range a.Parts {
			b.WriteString(m.Read(r))
		}
	case KindSequence:
		for i, m := range a.Parts {
			if i > 0 {
				b.WriteString(a.Text)
			}
			b.WriteString(m.Read(r))
		}
	case KindName:
		b.WriteString(r.Name(a.Text))
	case KindText:
		b.WriteString(a.Text)
	case KindRange:
		b.WriteString(a.span(r))
	case KindAnd, KindOr:
		for i, m := range a.Parts {
			switch {
			case i == 0:
			case i == len(a.Parts)-1:
				b.WriteString(r.Words(" " + string(a.Kind) + " "))
			default:
				b.WriteString(", ")
			}
			b.WriteString(m.Read(r))
		}
	default:
		b.WriteString(r.Figure(a.Kind, a.Value))
	}
}

// span is a range as it is read, with a unit that both ends have said once.
func (a Arg) span(r Reader) string {
	if len(a.Parts) != 2 {
		return ""
	}
	least, most := a.Parts[0].Read(r), a.Parts[1].Read(r)
	if i := strings.LastIndex(most, " "); i >= 0 {
		least = strings.TrimSuffix(least, most[i:])
	}
	return least + r.Words(" to ") + most
}

// plain is how the rules themselves read.
type plain struct{}

func (plain) Words(english string) string { return english }
func (plain) Name(name string) string     { return name }

func (plain) Figure(kind Kind, x float64) string {
	switch kind {
	case KindNumber:
		return figure(x)
	case KindMillilitres:
		if x >= 950 {
			return strconv.FormatFloat(x/1000, 'f', 1, 64) + " l"
		}
	case KindOvenHeat, KindCelsius, KindCelsiusDifference:
		return figure(x) + " C"
	}
	return figure(x) + " " + string(kind)
}

func figure(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }
