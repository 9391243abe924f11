package message

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"
)

// MarshalJSON is the stored form: a text, or where there are arguments the format with its places and the values by
// their kinds: {"text": "Take {fruit} of it.", "values": {"fruit": {"g": 120}}}. What is answered is text: see
// server/render.
func (m Message) MarshalJSON() ([]byte, error) { return m.appendTo(nil), nil }

func (m Message) appendTo(b []byte) []byte {
	if len(m.Args) == 0 {
		return appendQuoted(b, m.Format)
	}
	type placed struct {
		place string
		arg   Arg
	}
	all := make([]placed, 0, len(m.Args))
	rest := m.Format
	for _, a := range m.Args {
		place, after, found := cutPlace(rest)
		if !found {
			break
		}
		all, rest = append(all, placed{place, a}), after
	}
	slices.SortStableFunc(all, func(x, y placed) int { return strings.Compare(x.place, y.place) })
	b = appendQuoted(append(b, `{"text":`...), m.Format)
	b = append(b, `,"values":{`...)
	for i, p := range all {
		if i > 0 {
			b = append(b, ',')
		}
		b = append(appendQuoted(b, p.place), ':')
		b = p.arg.appendTo(b)
	}
	return append(b, "}}"...)
}

// cutPlace finds the next place of a format, and what stands after it.
func cutPlace(format string) (place, after string, found bool) {
	_, rest, found := strings.Cut(format, "{")
	place, after, _ = strings.Cut(rest, "}")
	return place, after, found
}

// appendTo writes a value by its kind.
func (a Arg) appendTo(b []byte) []byte {
	b = append(appendQuoted(append(b, '{'), string(a.Kind)), ':')
	switch a.Kind {
	case KindMessage:
		b = a.Parts[0].appendTo(b)
	case KindName, KindText:
		b = appendQuoted(b, a.Text)
	case KindSequence:
		b = appendList(b, a.Parts, Message.appendTo)
		if a.Text != " " {
			b = appendQuoted(append(b, `,"sep":`...), a.Text)
		}
	case KindAnd, KindOr:
		b = appendList(b, a.Parts, Message.appendTo)
	case KindRange:
		b = appendList(b, a.Parts, func(m Message, b []byte) []byte { return m.Args[0].appendTo(b) })
	default:
		b = strconv.AppendFloat(b, a.Value, 'f', -1, 64)
	}
	return append(b, '}')
}

func appendList[T any](b []byte, all []T, appendTo func(T, []byte) []byte) []byte {
	b = append(b, '[')
	for i, x := range all {
		if i > 0 {
			b = append(b, ',')
		}
		b = appendTo(x, b)
	}
	return append(b, ']')
}

// appendQuoted writes a text as a JSON string. Most have nothing in them that has to be escaped.
func appendQuoted(b []byte, text string) []byte {
	for i := range len(text) {
		if c := text[i]; c < ' ' || c > '~' || c == '"' || c == '\\' || c == '<' || c == '>' || c == '&' {
			raw, _ := json.Marshal(text) // a string can always be written
			return append(b, raw...)
		}
	}
	b = append(append(b, '"'), text...)
	return append(b, '"')
}

// storedMessage is a message with arguments as it is stored.
type storedMessage struct {
	Text   string               `json:"text"`
	Values map[string]storedArg `json:"values"`
}

// storedArg is an argument as it is stored: one of them.
type storedArg struct {
	G    *float64     `json:"g"`
	MM   *float64     `json:"mm"`
	CM   *float64     `json:"cm"`
	CMN  *float64     `json:"cmn"`
	ML   *float64     `json:"ml"`
	C    *float64     `json:"c"`
	T    *float64     `json:"t"`
	DC   *float64     `json:"dc"`
	N    *float64     `json:"n"`
	Line *Message     `json:"line"`
	Name *string      `json:"name"`
	As   *string      `json:"as"`
	And  *[]Message   `json:"and"`
	Or   *[]Message   `json:"or"`
	To   *[]storedArg `json:"to"`
	Seq  *[]Message   `json:"seq"`
	Sep  *string      `json:"sep"`
}

// UnmarshalJSON reads what MarshalJSON wrote. A place without a value of a known kind is an error.
func (m *Message) UnmarshalJSON(raw []byte) error {
	if n := len(raw); n > 1 && raw[0] == '"' && bytes.IndexByte(raw, '\\') < 0 && utf8.Valid(raw) { // nothing is escaped
		*m = Message{Format: string(raw[1 : n-1])}
		return nil
	}
	if len(raw) > 0 && raw[0] == '"' {
		var text string
		err := json.Unmarshal(raw, &text)
		*m = Message{Format: text}
		return err
	}
	var in storedMessage
	if err := json.Unmarshal(raw, &in); err != nil {
		return fmt.Errorf("a message is a text, or a text with its values: %w", err)
	}
	out := Message{Format: in.Text}
	for rest := in.Text; ; {
		place, after, found := cutPlace(rest)
		if !found {
			break
		}
		a, err := in.Values[place].read()
		if err != nil {
			return fmt.Errorf("the place %q of a message %w", place, err)
		}
		out.Args, rest = append(out.Args, a), after
	}
	*m = out
	return nil
}

// read is the argument.
func (v storedArg) read() (Arg, error) {
	for _, x := range []struct {
		kind Kind
		is   *float64
	}{
		{KindGrams, v.G},
		{KindMillimetres, v.MM},
		{KindCentimetres, v.CM},
		{KindBareCentimetres, v.CMN},
		{KindMillilitres, v.ML},
		{KindOvenHeat, v.C},
		{KindCelsius, v.T},
		{KindCelsiusDifference, v.DC},
		{KindNumber, v.N},
	} {
		if x.is != nil {
			return Arg{Kind: x.kind, Value: *x.is}, nil
		}
	}
	switch {
	case v.Line != nil:
		return Part(*v.Line), nil
	case v.Name != nil:
		return Name(*v.Name), nil
	case v.As != nil:
		return Text(*v.As), nil
	case v.And != nil:
		return And(*v.And...), nil
	case v.Or != nil:
		return Or(*v.Or...), nil
	case v.Seq != nil:
		sep := " "
		if v.Sep != nil {
			sep = *v.Sep
		}
		return Arg{Kind: KindSequence, Text: sep, Parts: *v.Seq}, nil
	case v.To != nil && len(*v.To) == 2:
		least, err := (*v.To)[0].read()
		most, err2 := (*v.To)[1].read()
		return Range(least, most), errors.Join(err, err2)
	}
	return Arg{}, errors.New("has no value of a known kind")
}
