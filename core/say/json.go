package say

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"
)

// MarshalJSON is the sentence as a string, or where it has values its text with their places, and the values by their
// kinds: {"text": "Take {fruit} of it.", "values": {"fruit": {"g": 120}}}.
func (l Line) MarshalJSON() ([]byte, error) { return l.appended(nil), nil }

func (l Line) appended(b []byte) []byte {
	text, values := l.apart()
	if len(values) == 0 {
		return quoted(b, text)
	}
	b = quoted(append(b, `{"text":`...), text)
	b = append(b, `,"values":{`...)
	slices.SortFunc(values, func(x, y placed) int { return strings.Compare(x.place, y.place) })
	for i, v := range values {
		if i > 0 {
			b = append(b, ',')
		}
		b = append(quoted(b, v.place), ':')
		b = v.appended(b)
	}
	return append(b, "}}"...)
}

// appended is a value by its kind.
func (p placed) appended(b []byte) []byte {
	b = append(quoted(append(b, '{'), string(p.kind)), ':')
	switch p.kind {
	case Words:
		b = Line(p.value).appended(b)
	case Name, Given:
		b = quoted(b, p.value)
	case And, Or:
		b = list(b, p.lines(), Line.appended)
	case Range:
		_, ends := Line(p.value).apart()
		b = list(b, ends, placed.appended)
	default:
		b = append(b, p.value...) // number wrote it
	}
	return append(b, '}')
}

func list[T any](b []byte, all []T, appended func(T, []byte) []byte) []byte {
	b = append(b, '[')
	for i, x := range all {
		if i > 0 {
			b = append(b, ',')
		}
		b = appended(x, b)
	}
	return append(b, ']')
}

// quoted is a text as a JSON string. Most have nothing in them that has to be escaped.
func quoted(b []byte, text string) []byte {
	for i := range len(text) {
		if c := text[i]; c < ' ' || c > '~' || c == '"' || c == '\\' || c == '<' || c == '>' || c == '&' {
			raw, _ := json.Marshal(text) // a string can always be written
			return append(b, raw...)
		}
	}
	b = append(append(b, '"'), text...)
	return append(b, '"')
}

// said is a line with values as it was sent.
type said struct {
	Text   string           `json:"text"`
	Values map[string]value `json:"values"`
}

// value is a value as it was sent: one of them.
type value struct {
	G    *float64 `json:"g"`
	MM   *float64 `json:"mm"`
	CM   *float64 `json:"cm"`
	ML   *float64 `json:"ml"`
	C    *float64 `json:"c"`
	T    *float64 `json:"t"`
	DC   *float64 `json:"dc"`
	N    *float64 `json:"n"`
	Line *Line    `json:"line"`
	Name *string  `json:"name"`
	As   *string  `json:"as"`
	And  *[]Line  `json:"and"`
	Or   *[]Line  `json:"or"`
	To   []value  `json:"to"`
}

// UnmarshalJSON reads what MarshalJSON wrote. A place without a value of a known kind is an error.
func (l *Line) UnmarshalJSON(raw []byte) error {
	if n := len(raw); n > 1 && raw[0] == '"' && bytes.IndexByte(raw, '\\') < 0 && utf8.Valid(raw) { // most lines: nothing in it is escaped
		*l = Line(raw[1 : n-1])
		return nil
	}
	if len(raw) > 0 && raw[0] == '"' {
		var text string
		err := json.Unmarshal(raw, &text)
		*l = Line(clean(text))
		return err
	}
	var in said
	if err := json.Unmarshal(raw, &in); err != nil {
		return fmt.Errorf("a line is a text, or a text with its values: %w", err)
	}
	var values []Value
	for rest := in.Text; ; {
		_, after, found := strings.Cut(rest, "{")
		if !found {
			break
		}
		place, left, _ := strings.Cut(after, "}")
		v, err := in.Values[place].read()
		if err != nil {
			return fmt.Errorf("the place %q of a line %w", place, err)
		}
		values = append(values, v)
		rest = left
	}
	*l = F(Line(clean(in.Text)), values...)
	return nil
}

// read is the value.
func (v value) read() (Value, error) {
	for _, x := range []struct {
		kind Kind
		is   *float64
	}{{Weight, v.G}, {Depth, v.MM}, {Length, v.CM}, {Volume, v.ML}, {Heat, v.C}, {Warmth, v.T}, {Step, v.DC}, {Number, v.N}} {
		if x.is != nil {
			return Value(string(x.kind) + part + figure(*x.is)), nil
		}
	}
	switch {
	case v.Line != nil:
		return L(*v.Line), nil
	case v.Name != nil:
		return Called(*v.Name), nil
	case v.As != nil:
		return Text(*v.As), nil
	case v.And != nil:
		return All(*v.And...), nil
	case v.Or != nil:
		return Any(*v.Or...), nil
	case len(v.To) == 2:
		least, err := v.To[0].read()
		most, err2 := v.To[1].read()
		return To(least, most), errors.Join(err, err2)
	}
	return "", errors.New("has no value of a known kind")
}
