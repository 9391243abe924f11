package httpapi

import (
	"encoding/json"
	"io"
	"math"
	"net/http"
	"regexp"
	"strconv"
	"strings"
	"unicode/utf8"

	"mabbin/app"
	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/server/wire"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
)

// operations are the contract's, by method and by path as the router has it.
type operations map[string]operation

// operation is one of the contract's with the parameters of its path.
type operation struct {
	*openapi3.Operation
	path openapi3.Parameters
}

var pathParameter = regexp.MustCompile(`\{(\w+)\}`)

// readContract is the contract's operations, and the words that each part of a reading may have.
func readContract() (operations, map[string][]any, error) {
	doc, err := wire.Contract()
	if err != nil {
		return nil, nil, err
	}
	readings := map[string][]any{}
	for _, p := range doc.Components.Parameters {
		if p.Value.In == openapi3.ParameterInQuery {
			readings[p.Value.Name] = p.Value.Schema.Value.Enum
		}
	}
	all := operations{}
	for path, item := range doc.Paths.Map() {
		for method, o := range item.Operations() {
			all[method+" "+pathParameter.ReplaceAllString(path, ":$1")] = operation{o, item.Parameters}
		}
	}
	return all, readings, nil
}

// of is the operation of a request; false for one that is not in the contract.
func (o operations) of(c *gin.Context) (operation, bool) {
	found, ok := o[c.Request.Method+" "+c.FullPath()]
	return found, ok
}

// parameters checks the parameters of a request's path, query and header against the contract, once, and keeps the
// query and header for the handler.
func (s *server) parameters(c *gin.Context) {
	o, ok := s.contract.of(c)
	if !ok {
		return
	}
	values := map[string]any{}
	var found fault.Faults
	for _, p := range append(o.path[:len(o.path):len(o.path)], o.Parameters...) {
		text := c.Query(p.Value.Name)
		switch p.Value.In {
		case openapi3.ParameterInPath:
			text = c.Param(p.Value.Name)
		case openapi3.ParameterInHeader:
			text = c.GetHeader(p.Value.Name)
		}
		if text == "" && !p.Value.Required {
			continue
		}
		schema := p.Value.Schema.Value
		if !utf8.ValidString(text) || strings.ContainsRune(text, 0) {
			found.Add("?"+p.Value.Name, message.New("is not valid UTF-8 text"))
			continue
		}
		value := typed(schema, text)
		faults := wire.Check(schema, value, "?"+p.Value.Name)
		if schema.Format == "uuid" && len(faults) == 0 && uuid.Validate(text) != nil {
			faults.Add(
				"?"+p.Value.Name,
				message.New("is not a UUID: use the form of {example}", message.Text("3f2b8c1e-52a4-4d0b-9b1e-0a11b0a75a2d")),
			)
		}
		found = append(found, faults...)
		if p.Value.In != openapi3.ParameterInPath {
			values[p.Value.Name] = value
		}
	}
	if err := found.Err(); err != nil {
		s.fail(c, err)
		return
	}
	c.Set(parametersKey, values)
}

// Under these a request's parameters, and its body, are kept with it.
const (
	parametersKey = "mabbin.parameters"
	bodyKey       = "mabbin.body"
)

// when returns the condition of a change: the If-Match header without its quotes.
func when(c *gin.Context) app.Precondition {
	return app.Precondition(strings.Trim(c.GetHeader("If-Match"), `"`))
}

// typed is a parameter's text as its schema has it; a text that is no such thing stays one, and the schema refuses it.
func typed(schema *openapi3.Schema, text string) any {
	switch {
	case schema.Type.Is(openapi3.TypeInteger): // its digits alone: 1e3 is no way to write a number into an address
		if x, err := strconv.ParseInt(text, 10, 32); err == nil {
			return float64(x)
		}
	case schema.Type.Is(openapi3.TypeNumber):
		if x, err := strconv.ParseFloat(text, 64); err == nil && !math.IsNaN(x) && !math.IsInf(x, 0) {
			return x
		}
	case schema.Type.Is(openapi3.TypeBoolean):
		if b, err := strconv.ParseBool(text); err == nil {
			return b
		}
	}
	return text
}

// query is the parameters of a request's query and header.
func query[T any](c *gin.Context) (T, error) {
	var out T
	raw, err := json.Marshal(c.GetStringMap(parametersKey))
	if err != nil {
		return out, err
	}
	return out, json.Unmarshal(raw, &out)
}

// id is an id in a request's path, which has been checked.
func id(c *gin.Context, name string) uuid.UUID {
	x, _ := uuid.Parse(c.Param(name)) // it has been checked
	return x
}

func kitchenOf(c *gin.Context) uuid.UUID { return id(c, "kitchen") }

// number is a whole number in a request's path, which has been checked.
func number(c *gin.Context, name string) int {
	n, _ := strconv.Atoi(c.Param(name)) // it has been checked
	return n
}

// decode reads the body of a request, once, and checks it against the contract, once. Where it can't be used it answers
// with the problem, and is false. in addition to finds what else is wrong, so that one answer names every wrong field.
func decode[T any](s *server, c *gin.Context, besides func(T) error) (T, bool) {
	return decodeBy(s, c, besides, wire.Decode[T])
}

// decodeChecked reads a body whose bounds the rules of the job check themselves.
func decodeChecked[T any](s *server, c *gin.Context, check func(T) error) (T, bool) {
	return decodeBy(s, c, check, wire.DecodeChecked[T])
}

func decodeBy[T any](
	s *server,
	c *gin.Context,
	check func(T) error,
	by func(*openapi3.Schema, []byte, func(T) error) (T, error),
) (in T, ok bool) {
	o, known := s.contract.of(c)
	if !known || o.RequestBody == nil {
		s.refuse(c, http.StatusInternalServerError, message.New("This address is not in the API description"))
		return in, false
	}
	body, err := io.ReadAll(c.Request.Body)
	c.Set(bodyKey, string(body))
	if err = bodyError(err); err == nil {
		in, err = by(o.RequestBody.Value.Content.Get("application/json").Schema.Value, body, check)
	}
	if err != nil {
		s.fail(c, err)
		return in, false
	}
	return in, true
}
