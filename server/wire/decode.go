// Package wire is how requests come in and answers go out, over HTTP and on the command line alike: decoded and checked
// against the contract once, encoded as somebody reads, and reported as a problem where a request can't be used.
package wire

import (
	"bytes"
	stdjson "encoding/json"
	"errors"
	"fmt"
	"iter"
	"slices"
	"strconv"
	"strings"
	"sync"

	"mabbin/api"
	"mabbin/core/fault"
	"mabbin/core/message"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"
	jsonv1 "github.com/go-json-experiment/json/v1"
)

// Contract is the API description, parsed once.
var Contract = sync.OnceValues(func() (*openapi3.T, error) {
	doc, err := api.GetSpec()
	if err != nil {
		return nil, fmt.Errorf("api description: %w", err)
	}
	return doc, nil
})

// Schema is one of the contract's by its name.
func Schema(name string) (*openapi3.Schema, error) {
	doc, err := Contract()
	if err != nil {
		return nil, err
	}
	ref := doc.Components.Schemas[name]
	if ref == nil {
		return nil, fmt.Errorf("api description: no schema %q", name)
	}
	return ref.Value, nil
}

// strict is how a request is read: as encoding/json reads, but for unknown and repeated names and broken texts.
var strict = json.JoinOptions(
	jsonv1.DefaultOptionsV1(),
	json.RejectUnknownMembers(true),
	json.MatchCaseInsensitiveNames(false),
	jsontext.AllowDuplicateNames(false),
	jsontext.AllowInvalidUTF8(false),
)

// Decode reads a request whose bounds the contract knows. in addition to, where it is not nil, finds what else is wrong
// with it, so that one answer names every wrong field: it is asked only where something is wrong already, for the use
// case checks its own input. The error is fault.Faults.
func Decode[T any](schema *openapi3.Schema, body []byte, besides func(T) error) (T, error) {
	var v T
	if err := errors.Join(json.Unmarshal(body, &v, strict), noNUL(body)); err != nil {
		return v, faultsOf(schema, body, err, besides)
	}
	var tree any // the contract's bounds are checked on a tree
	if err := stdjson.Unmarshal(body, &tree); err != nil || schema.VisitJSON(tree, openapi3.MultiErrors()) != nil {
		return v, faultsOf(schema, body, err, besides)
	}
	return v, nil
}

// DecodeChecked reads a request whose every bound the rules of the job check themselves, and say better than the
// contract could: a dessert, a bake. check is the rules'; it is asked only where the request can't be read, for the
// rules check their own input. A test holds the rules to be no laxer than the contract.
func DecodeChecked[T any](schema *openapi3.Schema, body []byte, check func(T) error) (T, error) {
	var v T
	if err := errors.Join(json.Unmarshal(body, &v, strict), noNUL(body)); err != nil {
		return v, faultsOf(schema, body, err, check)
	}
	return v, nil
}

// noNUL is an error for a body with a NUL in one of its texts, which no database keeps.
func noNUL(body []byte) error {
	if !bytes.Contains(body, []byte(`\u0000`)) {
		return nil
	}
	isBad := func(t jsontext.Token) bool { return t.Kind() == '"' && strings.ContainsRune(t.String(), 0) }
	for pointer := range pointersOf(body, isBad) { // the first is enough
		return fault.Faults{{Pointer: pointer, Detail: message.New("contains a NUL character: remove it")}}
	}
	return nil
}

// pointersOf yields the pointers of the tokens of a body that are what is looked for, up to its end or to what can't be
// read.
func pointersOf(body []byte, is func(jsontext.Token) bool) iter.Seq[string] {
	return func(yield func(string) bool) {
		d := jsontext.NewDecoder(bytes.NewReader(body), strict)
		for {
			t, err := d.ReadToken()
			if err != nil || is(t) && !yield(string(d.StackPointer())) {
				return
			}
		}
	}
}

// tooLarge finds the numbers of a body that no field can hold.
func tooLarge(body []byte) (found fault.Faults) {
	isBad := func(t jsontext.Token) bool {
		if t.Kind() != '0' {
			return false
		}
		_, err := strconv.ParseFloat(t.String(), 64)
		return err != nil
	}
	for pointer := range pointersOf(body, isBad) {
		found.Add(pointer, message.New("is a number that is too large"))
	}
	return found
}

// faultsOf is everything that is wrong with a request that could not be used: by the contract, and in addition to it.
// Of two faults of one field the first is kept: the contract's words come before the rules'.
func faultsOf[T any](schema *openapi3.Schema, body []byte, cause error, besides func(T) error) error {
	if len(bytes.TrimSpace(body)) == 0 {
		return fault.Faults{{Detail: message.New("the request has no body: send JSON")}}
	}
	if found := tooLarge(body); len(found) > 0 {
		return found
	}
	var tree any
	if err := stdjson.Unmarshal(body, &tree); err != nil {
		return fault.Faults{{Detail: message.New("is not JSON: {why}", message.Text(err.Error()))}}
	}
	var found fault.Faults
	if err := schema.VisitJSON(tree, openapi3.MultiErrors()); err != nil {
		found = flatten("", err)
	}
	if len(found) == 0 && cause != nil && !errors.As(cause, &found) {
		found = fault.Faults{strictFault(cause)}
	}
	if besides == nil {
		return found
	}
	var v T
	_ = stdjson.Unmarshal(body, &v) // it goes on after a wrong type, so the rest of the request is there to be checked
	var more fault.Faults
	if !errors.As(besides(v), &more) {
		return found
	}
	for _, m := range more {
		if !slices.ContainsFunc(
			found,
			func(f fault.Fault) bool { return f.Pointer == m.Pointer || strings.HasPrefix(m.Pointer, f.Pointer+"/") },
		) {
			found = append(found, m)
		}
	}
	return found
}

// strictFault is a fault that only the strict reading sees: a name that is there twice, a text that is no UTF-8.
func strictFault(err error) fault.Fault {
	var semantic *json.SemanticError
	var syntactic *jsontext.SyntacticError
	var misfit *jsonv1.UnmarshalTypeError // a number that is no whole one, or too large for its field
	switch {
	case errors.Is(err, jsontext.ErrDuplicateName) && errors.As(err, &syntactic):
		return fault.Fault{
			Pointer: string(syntactic.JSONPointer),
			Detail:  message.New("is there twice: remove one of them"),
		}
	case errors.As(err, &syntactic):
		return fault.Fault{
			Pointer: string(syntactic.JSONPointer),
			Detail:  message.New("can't be read: {why}", message.Text(syntactic.Err.Error())),
		}
	case errors.As(err, &misfit):
		pointer := ""
		for part := range strings.SplitSeq(misfit.Field, ".") {
			pointer += "/" + fault.Key(part)
		}
		return fault.Fault{
			Pointer: pointer,
			Detail:  message.New("is a {given}, which is not possible here", message.Text(misfit.Value)),
		}
	case errors.As(err, &semantic):
		return fault.Fault{
			Pointer: string(semantic.JSONPointer),
			Detail:  message.New("can't be used: it is not a {kind}", message.Text(fmt.Sprint(semantic.GoType))),
		}
	}
	return fault.Fault{Detail: message.New("can't be read: {why}", message.Text(err.Error()))}
}

// Check notes what the contract finds wrong with a value at a pointer.
func Check(schema *openapi3.Schema, value any, at string) fault.Faults {
	if err := schema.VisitJSON(value, openapi3.MultiErrors()); err != nil {
		return flatten(at, err)
	}
	return nil
}

// flatten makes one fault of each bad field in the validator's tree of errors.
func flatten(base string, err error) fault.Faults {
	switch e := err.(type) { //nolint:errorlint // walks the tree itself, level by level
	case openapi3.MultiError:
		var out fault.Faults
		for _, one := range e {
			out = append(out, flatten(base, one)...)
		}
		return out
	case *openapi3.SchemaError:
		at := base
		for _, k := range e.JSONPointer() {
			at += "/" + fault.Key(k)
		}
		if e.Origin != nil {
			if inner := flatten(base, e.Origin); len(inner) > 0 {
				return inner
			}
		}
		if name, unknown := unknownKey(e); unknown {
			at += "/" + fault.Key(name)
		}
		return fault.Faults{{Pointer: at, Detail: plain(e, unitOf(at))}}
	}
	var multi openapi3.MultiError
	if errors.As(err, &multi) {
		return flatten(base, multi)
	}
	return fault.Faults{{Pointer: base, Detail: message.Value(message.Text(err.Error()))}}
}

// unknownKey is the key that the description does not have. The validator points at its object and names it in words.
func unknownKey(e *openapi3.SchemaError) (string, bool) {
	if e.SchemaField != "properties" {
		return "", false
	}
	rest, unsupported := strings.CutPrefix(e.Reason, "property \"")
	name, _, quoted := strings.Cut(rest, "\" is unsupported")
	return name, unsupported && quoted
}

// unitOf is what a field is measured in, by its name.
func unitOf(pointer string) message.Kind {
	for ending, unit := range map[string]message.Kind{
		"_g": message.KindGrams, "_mm": message.KindMillimetres, "_cm": message.KindCentimetres,
		"_ml": message.KindMillilitres, "_c": message.KindCelsius,
	} {
		if strings.HasSuffix(pointer, ending) {
			return unit
		}
	}
	return message.KindNumber
}

// plain says a schema's complaint so that it names what would be right.
func plain(e *openapi3.SchemaError, unit message.Kind) message.Message {
	s := e.Schema
	value := func() message.Arg {
		if x, is := e.Value.(float64); is {
			return message.Exactly(unit, x)
		}
		b, err := stdjson.Marshal(e.Value)
		if err != nil || len(b) > 60 {
			return message.Word("too long to show")
		}
		return message.Text(string(b))
	}
	switch e.SchemaField {
	case "minimum", "maximum":
		if s.Min != nil && s.Max != nil {
			span := message.Range(message.Exactly(unit, *s.Min), message.Exactly(unit, *s.Max))
			return message.New("is {given}: enter {range}", value(), span)
		}
	case "enum":
		words := make([]string, 0, len(s.Enum))
		for _, w := range s.Enum {
			if w != "" {
				words = append(words, fmt.Sprint(w))
			}
		}
		return message.New("is {given}: give one of {words}", value(), message.Text(strings.Join(words, ", ")))
	case "type":
		return message.New("is {given}: use {type}", value(), message.Part(article(s.Type.Slice())))
	case "properties":
		return message.New("is unknown: remove it, or see the API description for its name")
	case "nullable":
		return message.New("is null: remove it, or use {type}", message.Part(article(s.Type.Slice())))
	case "required":
		return message.New("is missing")
	}
	return message.Value(message.Text(e.Reason))
}

// article puts a or an before the words for a JSON type.
func article(types []string) message.Message {
	words := make([]message.Message, len(types))
	for i, t := range types {
		words[i] = message.New(typeWords[t])
	}
	return message.Value(message.Or(words...))
}

// typeWords are the types of JSON.
var typeWords = map[string]string{
	"array": "a list", "boolean": "true or false", "integer": "a whole number", "null": "nothing",
	"number": "a number", "object": "an object", "string": "a text",
}

// Each splits a JSON document into its requests: itself, or the members of its list.
func Each(doc []byte) (requests []stdjson.RawMessage, list bool, err error) {
	doc = bytes.TrimSpace(doc)
	if len(doc) > 0 && doc[0] == '[' {
		err := stdjson.Unmarshal(doc, &requests)
		return requests, true, err
	}
	if !stdjson.Valid(doc) {
		var v any
		return nil, false, stdjson.Unmarshal(doc, &v)
	}
	return []stdjson.RawMessage{doc}, false, nil
}
