// Package hostile makes up requests that no page would send.
package hostile

import (
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"math/rand/v2"
	"net/http"
	"net/url"
	"slices"
	"strings"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/google/uuid"
)

// InOven is the dessert that is on the watch of the kitchen that is called, and Start is how it was put there.
const (
	InOven = "00000000-0000-4000-8000-0000000000aa"
	Start  = `{"id":"` + InOven + `","title":"Mine","setting":{"stages":[{"minutes":50,"oven_c":190}]},"request":` + Crumble + `}`
	// Crumble is a dessert that is right.
	Crumble = `{"dish":{"shape":"rectangle","length_cm":24,"width_cm":18,"depth_cm":5,"material":"stoneware"},"style":"crumble",
	"topping":{"key":"crumble_classic"},"fruits":[{"key":"gooseberry","share":1}]}`
)

// Caller makes up requests to every operation of the contract, from right ones to utter nonsense. The same seed makes
// up the same requests, for the same things that are there.
type Caller struct {
	*rand.Rand

	paths []string
	doc   *openapi3.T
	there map[string][]string // ids of what there is, by the parameters that they are given as
	ids   []string            // of all that, and of what there is not
	bases map[string]string
	evil  float64 // how likely each value of a request is nonsense
}

// Get asks a server for something and returns the body of its answer.
type Get func(path string) string

// New is a caller who knows a kitchen and what is in it. A dessert with the id InOven is on its watch.
func New(seed uint64, doc *openapi3.T, kitchen string, get Get) *Caller {
	mine := "/api/v1/kitchens/" + kitchen
	out := &Caller{
		Rand: rand.New(rand.NewPCG(seed, 0)), doc: doc, //nolint:gosec // the same each time
		there: map[string][]string{"kitchen": {kitchen}, "dessert": {InOven}},
		ids:   []string{kitchen, InOven, uuid.NewString(), uuid.Nil.String()},
	}
	for name, list := range map[string]string{
		"dish": "/dishes", "oven": "/ovens", "card": "/cards?limit=20", "bake": "/bakes?limit=20", "call": "/watch",
	} {
		for _, part := range strings.Split(get(mine+list), `"id":"`)[1:] {
			out.ids, out.there[name] = append(out.ids, part[:36]), append(out.there[name], part[:36])
		}
	}
	out.there["other"] = append([]string{"1", "2"}, out.there["bake"]...)
	out.there["version"] = []string{"1", "1", "2"}
	slices.Sort(out.ids)
	// streams never end, and a demo kitchen is made but once
	for _, p := range slices.Sorted(maps.Keys(doc.Paths.Map())) {
		if !strings.HasSuffix(p, "/live") && !strings.HasSuffix(p, "/demo") {
			out.paths = append(out.paths, p)
		}
	}
	card, plan := `{"name":"x","request":`+Crumble+`}`, `{"request":`+Crumble+`,"setting":{}}`
	out.bases = map[string]string{
		"bench":             plan,
		"whatIf":            `{"bench":` + plan + `}`,
		"benchAlternatives": plan,
		"balance":           Crumble,
		"planBake":          plan,
		"simulateBake": `{"dish":{"shape":"square","length_cm":20,"depth_cm":5,"material":"glass"},"filling":{"mass_g":900},
			"stages":[{"minutes":40,"oven_c":180}]}`,
		"balanceAlternatives": Crumble,
		"exportCard":          `{"format":"jsonld","card":` + card + `}`,
		"printSheet":          `{"card":` + card + `}`,
		"proposeDiet":         `{"request":` + Crumble + `,"diets":["vegan"]}`,
		"start":               `{"fruit_g":900,"dishes":[],"fruits":[{"key":"plum","share":1}],"style":"crumble"}`,
		"readAmount":          `{"text":"2 cups","kind":"mass"}`,
		"measure":             `{"text":"200 g plums\n100 g flour"}`,
		"importRecipe":        `{"filename":"a.txt","content":"Plum crumble\n\n900 g plums\n150 g flour\n100 g butter\n80 g sugar"}`,
		"fruitTest":           `{"fruit":"plum","fruit_g":200,"sugar_g":200,"juice_g":120}`,
		"addCard":             `{"name":"Card","setting":{},"request":` + Crumble + `}`,
		"addVersion":          `{"setting":{},"request":` + Crumble + `}`,
		"addBake":             `{"title":"Bake","baked_at":"2026-10-01T12:00:00Z","setting":{},"outcome":{},"request":` + Crumble + `}`,
		"startWatch":          Start,
		"answerCall":          `{"answer":"done"}`,
		"rescue":              `{"trouble":"pale"}`,
		"changeWatch":         `{"stages":[{"minutes":9,"oven_c":100}]}`,
	}
	return out
}

// Request is a request before it is sent, so that a failing one can be shown.
type Request struct {
	Method, Address, Kind, Body string
	Operation                   string // of the contract, by its id
}

// String shows a request, shortened.
func (m Request) String() string {
	return fmt.Sprintf("%s %s %q %.2000q", m.Method, m.Address, m.Kind, m.Body)
}

// HTTP is the request as it is sent to a server.
func (m Request) HTTP(ctx context.Context, server string) (*http.Request, error) {
	r, err := http.NewRequestWithContext(ctx, m.Method, server, strings.NewReader(m.Body))
	if err != nil {
		return nil, err
	}
	path, query, _ := strings.Cut(m.Address, "?")
	unescaped, err := url.PathUnescape(path)
	if err != nil {
		unescaped = path
	}
	r.URL.Path, r.URL.RawPath, r.URL.RawQuery = unescaped, path, query
	if m.Kind != "" {
		r.Header.Set("Content-Type", m.Kind)
	}
	return r, nil
}

func (h *Caller) likely(p float64) bool { return h.Float64() < p }

func oneOf[T any](h *Caller, of []T) T { return of[h.IntN(len(of))] }

// Request makes up the next request.
func (h *Caller) Request() Request {
	h.evil = oneOf(h, []float64{0, 0, 0.01, 0.03, 0.1, 0.5})
	path := oneOf(h, h.paths)
	item := h.doc.Paths.Value(path)
	operations := item.Operations()
	method := oneOf(h, slices.Sorted(maps.Keys(operations)))
	o := operations[method]
	m := Request{Method: method, Address: path, Operation: o.OperationID}
	query := url.Values{}
	for _, p := range append(item.Parameters[:len(item.Parameters):len(item.Parameters)], o.Parameters...) {
		switch {
		case p.Value.In == openapi3.ParameterInPath:
			text := h.text(p.Value.Schema.Value)
			if there := h.there[p.Value.Name]; len(there) > 0 && !h.likely(h.evil/2) {
				text = oneOf(h, there)
			}
			if text == "" {
				text = "-"
			}
			m.Address = strings.ReplaceAll(m.Address, "{"+p.Value.Name+"}", url.PathEscape(text))
		case p.Value.In == openapi3.ParameterInQuery && h.likely(0.6):
			query.Add(p.Value.Name, h.text(p.Value.Schema.Value))
		}
	}
	if len(query) > 0 {
		m.Address += "?" + query.Encode()
	}
	if o.RequestBody == nil {
		return m
	}
	content := o.RequestBody.Value.Content
	m.Kind = "application/json"
	if of := content.Get(m.Kind); of != nil && of.Schema.Value.Type.Is(openapi3.TypeObject) {
		var base any
		if raw := h.bases[o.OperationID]; raw != "" && h.likely(0.8) {
			if err := json.Unmarshal([]byte(raw), &base); err != nil {
				panic(o.OperationID + ": " + err.Error())
			}
		}
		var b strings.Builder
		h.write(&b, of.Schema.Value, base, 0)
		m.Body = b.String()
		if h.likely(h.evil / 4) {
			m.Body = m.Body[:h.IntN(len(m.Body)+1)]
		}
	} else {
		m.Kind = slices.Sorted(maps.Keys(content))[0]
		m.Kind = strings.Replace(m.Kind, "*", "jpeg", 1)
		m.Body = oneOf(h, []string{"", "PK\x03\x04", "\xff\xd8\xff\xe0", strings.Repeat("x", 5000)})
	}
	if h.likely(h.evil / 4) {
		m.Kind = oneOf(h, []string{"", "text/plain", "application/json; charset=utf-16", "application/zip"})
	}
	return m
}

// text is a parameter's value, out of JSON.
func (h *Caller) text(s *openapi3.Schema) string {
	var b strings.Builder
	h.write(&b, s, nil, 0)
	text := b.String()
	if strings.HasPrefix(text, `"`) {
		text = strings.Trim(text, `"`)
	}
	return text
}

// write writes a value of a schema, or nonsense in its place; base is what to begin with, where there is something.
func (h *Caller) write(b *strings.Builder, s *openapi3.Schema, base any, depth int) {
	if h.likely(h.evil) {
		b.WriteString(h.nonsense(s))
		return
	}
	switch {
	case s.Type.Is(openapi3.TypeObject):
		h.writeObject(b, s, base, depth)
	case s.Type.Is(openapi3.TypeArray):
		h.writeArray(b, s, base, depth)
	case base != nil:
		raw, _ := json.Marshal(base)
		b.Write(raw)
	case s.Type.Is(openapi3.TypeBoolean):
		fmt.Fprint(b, h.likely(0.5))
	case s.Type.Is(openapi3.TypeNumber), s.Type.Is(openapi3.TypeInteger):
		least, most := -1000.0, 1000.0
		if s.Min != nil {
			least, most = *s.Min, max(most, *s.Min+1)
		}
		if s.Max != nil {
			least, most = min(least, *s.Max), *s.Max
		}
		x := oneOf(h, []float64{least, most, least + h.Float64()*(most-least)})
		if s.Type.Is(openapi3.TypeInteger) {
			x = float64(int(x))
		}
		raw, _ := json.Marshal(x)
		b.Write(raw)
	default:
		raw, _ := json.Marshal(h.word(s))
		b.Write(raw)
	}
}

// words are texts that mean something somewhere.
var words = []string{
	"gooseberry", "plum", "apple", "crumble_classic", "cornflour", "butter", "caster_sugar", "crumble", "200 g plums",
	"Ours", "(", "", "2 cups", "oats", "water", "x",
}

func (h *Caller) word(s *openapi3.Schema) string {
	switch {
	case len(s.Enum) > 0:
		return fmt.Sprint(oneOf(h, s.Enum))
	case s.Format == "uuid":
		if h.likely(0.2) {
			return uuid.NewString()
		}
		return oneOf(h, h.ids)
	case s.Format == "date-time":
		return oneOf(h, []string{"2026-10-01T12:00:00Z", "2026-10-01T12:00:00.5+02:00"})
	}
	return oneOf(h, words)
}

func (h *Caller) writeObject(b *strings.Builder, s *openapi3.Schema, base any, depth int) {
	from, _ := base.(map[string]any)
	var parts []string
	field := func(name string, of *openapi3.Schema, base any) {
		var v strings.Builder
		h.write(&v, of, base, depth+1)
		key, _ := json.Marshal(name)
		parts = append(parts, string(key)+":"+v.String())
	}
	for _, name := range slices.Sorted(maps.Keys(s.Properties)) {
		is, there := from[name]
		wanted := there || slices.Contains(s.Required, name) || depth < 5 && base == nil && h.likely(0.2) || h.likely(0.04)
		if wanted && !h.likely(h.evil/2) {
			field(name, s.Properties[name].Value, is)
		}
	}
	if more := s.AdditionalProperties.Schema; more != nil {
		for range h.IntN(3) {
			field(oneOf(h, words), more.Value, nil)
		}
	}
	if h.likely(h.evil/2) && len(parts) > 0 {
		parts = append(parts, oneOf(h, parts)) // twice
	}
	if h.likely(h.evil / 2) {
		parts = append(parts, `"no/such~name":1`)
	}
	b.WriteString("{" + strings.Join(parts, ",") + "}")
}

func (h *Caller) writeArray(b *strings.Builder, s *openapi3.Schema, base any, depth int) {
	from, _ := base.([]any)
	n := len(from)
	if base == nil && depth < 6 {
		n = h.IntN(4)
	}
	if s.MaxItems != nil && h.likely(h.evil) {
		n = int(*s.MaxItems) + h.IntN(3) - 1
	}
	parts := make([]string, 0, n)
	for i := range max(0, n) {
		var v strings.Builder
		var is any
		if i < len(from) {
			is = from[i]
		}
		h.write(&v, s.Items.Value, is, depth+1)
		parts = append(parts, v.String())
	}
	b.WriteString("[" + strings.Join(parts, ",") + "]")
}

// nonsense is a value that is wrong, at the edge, or too much.
func (h *Caller) nonsense(s *openapi3.Schema) string {
	if s.Min != nil && h.likely(0.1) {
		return fmt.Sprint(*s.Min - 1e-9)
	}
	if s.Max != nil && h.likely(0.1) {
		return fmt.Sprint(*s.Max + 1)
	}
	if h.likely(0.02) { // deep, long or many
		n := 10 + h.IntN(20000)
		return oneOf(h, []string{
			strings.Repeat("[", n) + strings.Repeat("]", n), strings.Repeat(`{"a":`, n) + "1" + strings.Repeat("}", n),
			`"` + strings.Repeat("/", n) + `"`, `"` + strings.Repeat("é", n) + `"`,
			"[" + strings.Repeat("{},", n) + "{}]", "{" + strings.Repeat(`"a/b~c":1,`, n) + `"x":0}`,
		})
	}
	return oneOf(h, []string{
		"null",
		"true",
		"-0.0",
		"1e22",
		"-1e22",
		"1e308",
		"1e-308",
		"1e400",
		"0",
		"-1",
		"9007199254740993",
		"2147483648",
		"0.1",
		`""`,
		`" "`,
		`"\u0000"`,
		`"a\u0000b"`,
		`"\ud800"`,
		"\"\xff\xfe\"",
		`"(`,
		`"("`,
		`"=1+1"`,
		`"<script>"`,
		`"'; drop table card;--"`,
		`"0000-00-00T00:00:00Z"`,
		`"0000-01-01T00:00:00Z"`,
		`"9999-12-31T23:59:59.999999999Z"`,
		`"infinity"`,
		`"2026-10-01"`,
		`"not-a-uuid"`,
		`"urn:uuid:00000000-0000-4000-8000-000000000001"`,
		`"{00000000-0000-4000-8000-000000000001}"`,
		`"%"`,
		`"\\"`,
		`"NaN"`,
		`"1e3"`,
		`"0x10"`,
		"{}",
		"[]",
		"[null]",
		"[[]]",
		`{"a":1,"a":2}`,
		"{",
		"]",
		"nul",
		"",
		`"` + strings.Repeat("long ", 400) + `"`,
		`"🥧🥧🥧"`,
		`"\u202e"`,
		`"\r\n\t"`,
	})
}
