package main

import (
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"

	"mabbin/core/fault"

	"go.yaml.in/yaml/v3"
)

// What the rules check is asked of the rules: each number, list and map of a sample is made far too large, each word of
// a list is made none, and the fault names what it may be. Where a rule with a least above zero takes zero or
// nothing all the same, that stands for what is left out. A part that several requests have in common has the widest of
// their bounds.

// limited are the pairs of words by which the contract bounds something, each with what is far too much of it.
var limited = []struct {
	low, high string
	tooMuch   any
	nothing   any
}{
	{"minimum", "maximum", float64(tooMuch), 0.0},
	{"minItems", "maxItems", make([]any, tooMany), []any{}},
	{"minProperties", "maxProperties", many(), map[string]any{}},
}

const (
	tooMuch = 1e12
	tooMany = 10_001
)

func many() map[string]any {
	out := make(map[string]any, tooMany)
	for i := range tooMany {
		out[strconv.Itoa(i)] = nil
	}
	return out
}

// withBounds is a contract with the bounds of the rules in their places, by samples of its requests.
func withBounds(contract string, samples map[string][]sample) (string, error) {
	var doc yaml.Node
	if err := yaml.Unmarshal([]byte(contract), &doc); err != nil {
		return "", err
	}
	if len(doc.Content) == 0 {
		return contract, nil
	}
	w := walk{schemas: value(value(doc.Content[0], "components"), "schemas"), found: map[*yaml.Node]*bounds{}}
	for _, name := range slices.Sorted(maps.Keys(samples)) {
		for _, x := range samples[name] {
			if err := w.sample(name, x); err != nil {
				return "", fmt.Errorf("%s: %w", name, err)
			}
		}
	}
	lines := strings.Split(contract, "\n")
	should, err := w.written(lines)
	if err != nil {
		return "", err
	}
	places := slices.SortedFunc(maps.Keys(should), func(a, b *yaml.Node) int { // from the end, so that places stay
		return cmp.Or(cmp.Compare(b.Line, a.Line), cmp.Compare(b.Column, a.Column))
	})
	for _, n := range places {
		line, at := lines[n.Line-1], n.Column-1
		end := at + len(n.Value)
		if n.Kind == yaml.SequenceNode {
			end = at + strings.Index(line[at:], "]") + 1
		}
		lines[n.Line-1] = line[:at] + should[n] + line[end:]
	}
	return strings.Join(lines, "\n"), nil
}

// written are the places of the contract that the rules decide, with what is to stand there. An enumeration that bears
// the name of choices or constants has them from there.
func (w *walk) written(lines []string) (map[*yaml.Node]string, error) {
	should := map[*yaml.Node]string{}
	for schema, b := range w.found {
		if enum := value(schema, "enum"); enum != nil && b.words != nil && !named(lines[enum.Line-1]) {
			values, err := enumerated(b.words, "", b.nothing || slices.Contains(b.words, ""))
			if err != nil {
				return nil, err
			}
			should[enum] = values
		}
		for _, l := range limited {
			low, high := value(schema, l.low), value(schema, l.high)
			switch {
			case high == nil || !b.known:
				continue
			case low != nil:
				should[low] = figure(b.low())
			case b.low() > 0:
				return nil, fmt.Errorf("line %d: the rules have %s %g, and the contract has none", high.Line, l.low, b.low())
			}
			should[high] = figure(b.High)
		}
	}
	return should, nil
}

func figure(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }

// enumerated are values as the contract has them, in one line, with the empty one before them where that is one.
func enumerated[T comparable](values []T, none T, orNone bool) (string, error) {
	values = slices.DeleteFunc(slices.Clone(values), func(v T) bool { return v == none })
	if orNone {
		values = slices.Insert(values, 0, none)
	}
	var list yaml.Node
	if err := list.Encode(values); err != nil {
		return "", err
	}
	list.Style = yaml.FlowStyle
	raw, err := yaml.Marshal(&list)
	return strings.TrimSpace(string(raw)), err
}

// bounds are those that rules have of one field.
type bounds struct {
	fault.Bounds

	known   bool // else the rules have none
	nothing bool // is taken too: it may be left out
	words   []string
}

func (b *bounds) low() float64 {
	if b.nothing {
		return min(b.Low, 0)
	}
	return b.Low
}

// walk goes through the schemas of the contract in addition to samples of the requests.
type walk struct {
	schemas *yaml.Node
	found   map[*yaml.Node]*bounds // by the schema of the field
}

func (w *walk) sample(name string, s sample) error {
	schema := value(w.schemas, name)
	if schema == nil {
		return errors.New("is not in the contract")
	}
	if err := s.check([]byte(s.base)); err != nil {
		return fmt.Errorf("the sample is refused: %w", err)
	}
	w.through(schema, s, nil)
	return nil
}

// through goes through what a sample has of a schema.
func (w *walk) through(schema *yaml.Node, s sample, at []string) {
	if len(at) > deepest {
		return
	}
	if ref := value(schema, "$ref"); ref != nil {
		schema = value(w.schemas, ref.Value[strings.LastIndex(ref.Value, "/")+1:])
	}
	w.ask(schema, s, at)
	if items := value(schema, "items"); items != nil {
		w.through(items, s, append(slices.Clone(at), "0"))
	}
	if others := value(schema, "additionalProperties"); others != nil && others.Kind == yaml.MappingNode {
		for _, key := range s.keys(at) {
			w.through(others, s, append(slices.Clone(at), key))
		}
	}
	properties := value(schema, "properties")
	for i := 0; properties != nil && i < len(properties.Content); i += 2 {
		w.through(properties.Content[i+1], s, append(slices.Clone(at), properties.Content[i].Value))
	}
}

const deepest = 7

// ask asks for the bounds, or the words, of a field that the contract has some of.
func (w *walk) ask(schema *yaml.Node, s sample, at []string) {
	for _, l := range limited {
		if value(schema, l.high) != nil {
			w.note(schema, s, at, l.tooMuch, l.nothing)
		}
	}
	if value(schema, "enum") != nil {
		w.note(schema, s, at, "no such word", "")
	}
}

// note notes what the rules say of a field that has what cannot be right, and whether they take it where it is empty.
func (w *walk) note(schema *yaml.Node, s sample, at []string, wrong, nothing any) {
	f, there := s.faultAt(at, wrong)
	if !there {
		return
	}
	b := w.found[schema]
	if b == nil {
		b = new(bounds)
		w.found[schema] = b
	}
	if none, _ := s.faultAt(at, nothing); none == nil {
		b.nothing = true
	}
	switch {
	case f == nil:
	case f.OneOf != nil:
		b.words = f.OneOf
	case f.Outside == nil:
	case b.known:
		b.Low, b.High = min(b.Low, f.Outside.Low), max(b.High, f.Outside.High)
	default:
		b.Bounds, b.known = *f.Outside, true
	}
}

// value is what a mapping has under a key; nil where it has nothing.
func value(of *yaml.Node, key string) *yaml.Node {
	if of == nil {
		return nil
	}
	for i := 0; i+1 < len(of.Content) && of.Kind == yaml.MappingNode; i += 2 {
		if of.Content[i].Value == key {
			return of.Content[i+1]
		}
	}
	return nil
}

// faultAt is what the rules find wrong with a field of the sample that has a value, nil where that is nothing; false
// where the sample has no such field.
func (s sample) faultAt(at []string, v any) (f *fault.Fault, there bool) {
	changed, there := s.with(at, v)
	if !there {
		return nil, false
	}
	var all fault.Faults
	_ = errors.As(s.check(changed), &all)
	for i := range all {
		if all[i].Pointer == "/"+strings.Join(at, "/") {
			return &all[i], true
		}
	}
	return nil, true
}

// with is the sample with another value in a field; false where it has no such field.
func (s sample) with(at []string, v any) (changed []byte, there bool) {
	tree := s.tree()
	if !put(tree, at, v) {
		return nil, false
	}
	changed, err := json.Marshal(tree)
	return changed, err == nil
}

// tree is the sample as JSON has it.
func (s sample) tree() (tree any) {
	_ = json.Unmarshal([]byte(s.base), &tree) // its rule has read it
	return tree
}

// keys are the names in a map of the sample.
func (s sample) keys(at []string) []string {
	tree := s.tree()
	for _, name := range at {
		in, _ := tree.(map[string]any)
		tree = in[name]
	}
	in, _ := tree.(map[string]any)
	return slices.Sorted(maps.Keys(in))
}

// put sets a field of a tree; false where what it is in is not there.
func put(tree any, pointer []string, v any) bool {
	at := tree
	for i, name := range pointer {
		last := i == len(pointer)-1
		switch in := at.(type) {
		case map[string]any:
			if last {
				in[name] = v
				return true
			}
			at = in[name]
		case []any:
			if len(in) == 0 {
				return false
			}
			if last {
				in[0] = v
				return true
			}
			at = in[0]
		default:
			return false
		}
	}
	return false
}
