// Package api is the contract: the description of every request and answer in openapi.yaml, what is generated from it,
// and the one way in which a request is checked against it, over HTTP and on the command line alike.
package api

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"
	"sync"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/openapi3filter"

	"mabbin/core/fault"
	"mabbin/core/say"
)

//go:generate go tool -modfile=../tools/go.mod oapi-codegen -config oapi-codegen.yaml -o api.gen.go openapi.yaml

// spec is the embedded description, parsed once.
var spec = sync.OnceValues(GetSpec)

// Decode reads one request that the description calls schema. Every wrong field is found at once: those that do not
// match the description and those that check finds beside them. The error is fault.Faults or what check returned.
func Decode[T any](schema string, body []byte, check func(T) error) (T, error) {
	var v T
	doc, err := spec()
	if err != nil {
		return v, fmt.Errorf("api description: %w", err)
	}
	ref := doc.Components.Schemas[schema]
	if ref == nil {
		return v, fmt.Errorf("api description: no schema %q", schema)
	}
	var tree any
	if err := json.Unmarshal(body, &tree); err != nil {
		return v, fault.Faults{{Detail: say.F("is not JSON: {why}", say.Text(err.Error()))}}
	}
	return v, Beside(described(ref, tree), body, &v, check)
}

func described(ref *openapi3.SchemaRef, tree any) fault.Faults {
	if err := ref.Value.VisitJSON(tree, openapi3.MultiErrors()); err != nil {
		return Flatten("", err)
	}
	return nil
}

// Beside decodes body into v as far as it goes and joins what check finds to the faults already found. Of two faults
// of one field the first is kept: the description's words come before the core's.
func Beside[T any](found fault.Faults, body []byte, v *T, check func(T) error) error {
	var wrongType *json.UnmarshalTypeError
	// The decoder goes on after a wrong type, so the rest of the request is there to be checked.
	if err := json.Unmarshal(body, v); err != nil && !errors.As(err, &wrongType) {
		return fault.Faults{{Detail: say.F("is not JSON: {why}", say.Text(err.Error()))}}
	}
	err := check(*v)
	var more fault.Faults
	if len(found) == 0 || !errors.As(err, &more) {
		if len(found) > 0 {
			return found
		}
		return err
	}
	for _, m := range more {
		known := func(f fault.Fault) bool {
			return f.Pointer == m.Pointer || strings.HasPrefix(m.Pointer, f.Pointer+"/")
		}
		if !slices.ContainsFunc(found, known) {
			found = append(found, m)
		}
	}
	return found
}

// Flatten makes one fault of each bad field in the validator's tree of errors.
func Flatten(base string, err error) fault.Faults {
	switch e := err.(type) { //nolint:errorlint // walks the tree itself, level by level
	case openapi3.MultiError:
		var out fault.Faults
		for _, one := range e {
			out = append(out, Flatten(base, one)...)
		}
		return out
	case *openapi3filter.RequestError:
		if e.Parameter != nil {
			base = "?" + e.Parameter.Name
		}
		if e.Err == nil {
			return fault.Faults{{Pointer: base, Detail: say.Line(e.Reason)}}
		}
		return Flatten(base, e.Err)
	case *openapi3.SchemaError:
		at := base
		for _, k := range e.JSONPointer() {
			at += "/" + strings.NewReplacer("~", "~0", "/", "~1").Replace(k)
		}
		if e.Origin != nil {
			if inner := Flatten(base, e.Origin); len(inner) > 0 {
				return inner
			}
		}
		if name, unknown := unknownKey(e); unknown {
			at += "/" + name
		}
		return fault.Faults{{Pointer: at, Detail: plain(e)}}
	}
	var multi openapi3.MultiError
	if errors.As(err, &multi) {
		return Flatten(base, multi)
	}
	if errors.Is(err, io.EOF) {
		return fault.Faults{{Pointer: base, Detail: "the request has no body: send JSON"}}
	}
	return fault.Faults{{Pointer: base, Detail: say.Only(say.Text(err.Error()))}}
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

// plain says a schema's complaint so that it names what would be right.
func plain(e *openapi3.SchemaError) say.Line {
	s := e.Schema
	value := func() say.Value {
		b, err := json.Marshal(e.Value)
		if err != nil || len(b) > 60 {
			return say.L("too long to show")
		}
		return say.Text(string(b))
	}
	switch e.SchemaField {
	case "minimum", "maximum":
		if s.Min != nil && s.Max != nil {
			return say.F("is {given}: give {range}", value(), say.To(say.Exactly(say.Number, *s.Min), say.Exactly(say.Number, *s.Max)))
		}
	case "enum":
		words := make([]string, 0, len(s.Enum))
		for _, w := range s.Enum {
			if w != "" {
				words = append(words, fmt.Sprint(w))
			}
		}
		return say.F("is {given}: give one of {words}", value(), say.Text(strings.Join(words, ", ")))
	case "type":
		return say.F("is {given}: give {type}", value(), say.L(article(s.Type.Slice())))
	case "properties":
		return "is not known here: leave it out, or see the API description for its name"
	case "required":
		return "is missing"
	}
	return say.Line(e.Reason)
}

// ProblemOf is an error as an RFC 9457 problem, or false for one that is no fault of the request.
func ProblemOf(err error) (Problem, bool) {
	var faults fault.Faults
	later, notYet := fault.AsNotYet(err)
	switch {
	case notYet:
		return problem("urn:mabbin:problem:not-yet", "Not calculated yet", 422, fault.Faults{{Pointer: later.Pointer, Detail: later.Detail}}), true
	case errors.As(err, &faults):
		return problem("about:blank", "The request can't be used as it is", 400, faults), true
	}
	return Problem{}, false
}

func problem(kind string, title say.Line, status int, faults fault.Faults) Problem {
	fields := make([]FieldProblem, len(faults))
	for i, f := range faults {
		fields[i] = FieldProblem{Pointer: fragment(f.Pointer), Detail: f.Detail}
	}
	return Problem{Type: kind, Title: title, Status: status, Errors: &fields}
}

// fragment is a pointer as a URI fragment; a query parameter keeps its question mark.
func fragment(pointer string) string {
	if strings.HasPrefix(pointer, "?") {
		return pointer
	}
	return "#" + pointer
}

// Each splits a JSON document into its requests: itself, or the members of its list.
func Each(doc []byte) (requests []json.RawMessage, list bool, err error) {
	doc = bytes.TrimSpace(doc)
	if len(doc) > 0 && doc[0] == '[' {
		err := json.Unmarshal(doc, &requests)
		return requests, true, err
	}
	if !json.Valid(doc) {
		var v any
		return nil, false, json.Unmarshal(doc, &v)
	}
	return []json.RawMessage{doc}, false, nil
}

// article puts a or an before the words for a JSON type.
func article(types []string) say.Line {
	words := make([]say.Line, len(types))
	for i, t := range types {
		words[i] = typeWords[t]
	}
	return say.Only(say.Any(words...))
}

// typeWords are the types of JSON.
var typeWords = map[string]say.Line{
	"array": "a list", "boolean": "true or false", "integer": "a whole number", "null": "nothing", "number": "a number", "object": "an object", "string": "a text",
}
