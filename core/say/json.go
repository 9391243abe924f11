package say

import (
	"encoding/json"
	"errors"
	"fmt"
	"strings"
)

// said is a line with values as it is sent: {"text": "Take {fruit} of it.", "values": {"fruit": {"g": 120}}}.
type said struct {
	Text   string                    `json:"text"`
	Values map[string]map[Kind]value `json:"values"`
}

// value is a figure, words, or the lines of a list.
type value = json.RawMessage

// MarshalJSON is the sentence as a string, or where it has values its text with their places, and the values.
func (l Line) MarshalJSON() ([]byte, error) {
	text, values := l.apart()
	if len(values) == 0 {
		return json.Marshal(text)
	}
	out := said{text, make(map[string]map[Kind]value, len(values))}
	for _, v := range values {
		sent, err := v.sent()
		if err != nil {
			return nil, fmt.Errorf("the value %q of a line: %w", v.place, err)
		}
		out.Values[v.place] = sent
	}
	return json.Marshal(out)
}

// sent is a value by its kind.
func (p placed) sent() (map[Kind]value, error) {
	var x any
	switch p.kind {
	case Words:
		x = Line(p.value)
	case And, Or:
		x = p.lines()
	case Range:
		_, ends := Line(p.value).apart()
		all := make([]map[Kind]value, len(ends))
		for i, e := range ends {
			var err error
			if all[i], err = e.sent(); err != nil {
				return nil, err
			}
		}
		x = all
	case Name, Given:
		x = p.value
	default:
		x = p.number()
	}
	raw, err := json.Marshal(x)
	return map[Kind]value{p.kind: raw}, err
}

// UnmarshalJSON reads what MarshalJSON wrote. A value of a kind that is not known is an error.
func (l *Line) UnmarshalJSON(raw []byte) error {
	var text string
	if json.Unmarshal(raw, &text) == nil {
		*l = Line(clean(text))
		return nil
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
		v, err := in.value(place)
		if err != nil {
			return err
		}
		values = append(values, v)
		rest = left
	}
	*l = F(Line(clean(in.Text)), values...)
	return nil
}

func (s said) value(place string) (Value, error) {
	sent, ok := s.Values[place]
	if !ok {
		return "", fmt.Errorf("the place %q of a line has no value", place)
	}
	v, err := read(sent)
	if err != nil {
		return "", fmt.Errorf("the value %q of a line %w", place, err)
	}
	return v, nil
}

// read is a value that was sent by its kind.
func read(sent map[Kind]value) (Value, error) {
	if len(sent) != 1 {
		return "", errors.New("is not of one kind")
	}
	for kind, raw := range sent {
		switch kind {
		case Weight, Depth, Length, Volume, Heat, Warmth, Step, Number:
			return decoded(raw, func(x float64) Value { return Value(string(kind) + part + figure(x)) })
		case Words:
			return decoded(raw, L)
		case Name, Given:
			return decoded(raw, func(s string) Value { return Value(string(kind) + part + clean(s)) })
		case And, Or:
			return decoded(raw, func(l []Line) Value { return joined(kind, l) })
		case Range:
			var ends []map[Kind]value
			if err := json.Unmarshal(raw, &ends); err != nil || len(ends) != 2 {
				return "", errors.New("is no range: give its two ends")
			}
			least, err := read(ends[0])
			most, err2 := read(ends[1])
			return To(least, most), errors.Join(err, err2)
		}
		return "", fmt.Errorf("is of no known kind: %q", kind)
	}
	return "", nil
}

func decoded[T any](raw value, as func(T) Value) (Value, error) {
	var x T
	if err := json.Unmarshal(raw, &x); err != nil {
		return "", fmt.Errorf("is not of its kind: %w", err)
	}
	return as(x), nil
}
