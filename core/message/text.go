package message

import (
	"slices"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Reader is how somebody reads: their words and units.
type Reader interface {
	// Wording is an English format in the reader's words.
	Wording(english string) Wording
	// Name is the name of a row of the tables in the reader's words.
	Name(name string) string
	// AppendFigure puts a figure with its unit to the end of a text.
	AppendFigure(text []byte, kind Kind, x float64) []byte
}

// Wording is a format in somebody's words, with where its places are.
type Wording struct {
	words  string
	places []place
}

// place is where an argument stands: words[from:to] is its name in braces.
type place struct {
	from, to int
	heads    bool // a sentence: its name has a capital
}

// NewWording finds the places of a format.
func NewWording(words string) Wording {
	w := Wording{words: words}
	for to := 0; ; {
		open := strings.IndexByte(words[to:], '{')
		if open < 0 {
			return w
		}
		from := to + open
		name, _, closed := strings.Cut(words[from+1:], "}")
		if to = from + 1 + len(name); closed {
			to++
		}
		w.places = append(w.places, place{from, to, name != "" && name[0] >= 'A' && name[0] <= 'Z'})
	}
}

// String is the words, with the names of the places in braces.
func (w Wording) String() string { return w.words }

// Read writes a message as somebody reads it.
func (m Message) Read(r Reader) string {
	if len(m.Args) == 0 {
		return r.Wording(m.Format).words
	}
	return string(m.Append(make([]byte, 0, 2*len(m.Format)), r))
}

// Append puts a message, as somebody reads it, to the end of a text.
func (m Message) Append(text []byte, r Reader) []byte {
	w := r.Wording(m.Format)
	written := 0
	for i, a := range m.Args {
		if i == len(w.places) {
			break
		}
		at := w.places[i]
		text = append(text, w.words[written:at.from]...)
		head := len(text)
		text = a.append(text, r)
		if at.heads {
			text = capital(text, head)
		}
		written = at.to
	}
	return append(text, w.words[written:]...)
}

// capital makes the letter at i a capital.
func capital(text []byte, i int) []byte {
	small, n := utf8.DecodeRune(text[i:])
	large := unicode.ToUpper(small)
	if n == 0 || large == small {
		return text
	}
	return slices.Replace(text, i, i+n, utf8.AppendRune(nil, large)...)
}

// String is the message in plain English, in grams, millimetres and degrees Celsius.
func (m Message) String() string { return m.Read(plain{}) }

func (a Arg) append(text []byte, r Reader) []byte {
	switch a.Kind {
	case KindMessage:
		for _, m := range a.Parts {
			text = m.Append(text, r)
		}
	case KindSequence:
		for i, m := range a.Parts {
			if i > 0 {
				text = append(text, a.Text...)
			}
			text = m.Append(text, r)
		}
	case KindName:
		text = append(text, r.Name(a.Text)...)
	case KindText:
		text = append(text, a.Text...)
	case KindRange:
		text = a.appendRange(text, r)
	case KindAnd, KindOr:
		for i, m := range a.Parts {
			switch {
			case i == 0:
			case i == len(a.Parts)-1:
				text = append(text, r.Wording(" "+string(a.Kind)+" ").words...)
			default:
				text = append(text, ", "...)
			}
			text = m.Append(text, r)
		}
	default:
		text = r.AppendFigure(text, a.Kind, a.Value)
	}
	return text
}

// appendRange puts a range as it is read, with a unit that both ends have said once.
func (a Arg) appendRange(text []byte, r Reader) []byte {
	if len(a.Parts) != 2 {
		return text
	}
	most := a.Parts[1].Read(r)
	from := len(text)
	text = a.Parts[0].Append(text, r)
	if i := strings.LastIndexByte(most, ' '); i >= 0 && strings.HasSuffix(string(text[from:]), most[i:]) {
		text = text[:len(text)-len(most[i:])]
	}
	return append(append(text, r.Wording(" to ").words...), most...)
}

// plain is how the rules themselves read.
type plain struct{}

func (plain) Wording(english string) Wording { return NewWording(english) }
func (plain) Name(name string) string        { return name }

func (plain) AppendFigure(text []byte, kind Kind, x float64) []byte {
	if kind == KindMillilitres && x >= 950 {
		return append(strconv.AppendFloat(text, x/1000, 'f', 1, 64), " l"...)
	}
	text = strconv.AppendFloat(text, x, 'f', -1, 64)
	switch kind {
	case KindNumber, KindBareCentimetres:
		return text
	case KindOvenHeat, KindCelsius, KindCelsiusDifference:
		return append(text, " C"...)
	}
	return append(append(text, ' '), kind...)
}
