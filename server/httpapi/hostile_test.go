package httpapi

import (
	"encoding/json"
	"flag"
	"fmt"
	"maps"
	"math/rand/v2"
	"net/http"
	"net/http/httptest"
	"net/url"
	"slices"
	"strings"
	"testing"
	"time"

	"mabbin/api"
	"mabbin/server/wire"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/google/uuid"
)

var (
	hostileRequests = flag.Int("hostile", 1000, "how many requests the hostile caller sends")
	hostileSeed     = flag.Uint64("hostile-seed", 1, "from where it draws them")
)

// mostHostile is how many are sent where time is short.
const mostHostile = 300

// No request that somebody makes up is answered as a fault of the server, whatever is wrong with it.
func TestNoRequestIsAFaultOfTheServer(t *testing.T) {
	n := *hostileRequests
	if testing.Short() {
		n = min(n, mostHostile)
	}
	h := newHostile(t, *hostileSeed)
	answers := map[int]int{}
	for i := range n {
		r := h.request()
		w := httptest.NewRecorder()
		h.to.ServeHTTP(w, r.http())
		answers[w.Code]++
		switch {
		case w.Code >= http.StatusInternalServerError:
			t.Errorf("request %d: %s\n%d %.600s", i, r, w.Code, w.Body)
		case w.Code >= http.StatusBadRequest:
			var p api.Problem
			if err := json.Unmarshal(w.Body.Bytes(), &p); err != nil || p.Title == "" || p.Status != w.Code ||
				w.Header().Get("Content-Type") != "application/problem+json" {
				t.Errorf("request %d: %s\n%d is no problem: %.600s", i, r, w.Code, w.Body)
			}
		}
		if t.Failed() && i > 50 {
			break
		}
	}
	for status, least := range map[int]int{http.StatusOK: n / 20, http.StatusBadRequest: n / 5} {
		if answers[status] < least {
			t.Errorf("only %d of %d were answered by %d: %v", answers[status], n, status, answers)
		}
	}
	t.Logf("%d requests: %v", n, answers)
}

// BenchmarkHostile prints the longest that any of the hostile requests took.
func BenchmarkHostile(b *testing.B) {
	h := newHostile(b, *hostileSeed)
	var longest time.Duration
	var which madeUp
	for b.Loop() {
		for range *hostileRequests {
			r := h.request()
			q := r.http()
			began := time.Now()
			h.to.ServeHTTP(httptest.NewRecorder(), q)
			if took := time.Since(began); took > longest {
				longest, which = took, r
			}
		}
	}
	b.ReportMetric(float64(longest.Milliseconds()), "longest-ms")
	b.Logf("the longest was %.300s", which)
}

// hostile makes up requests to every operation of the contract, from right ones to utter nonsense.
type hostile struct {
	*rand.Rand

	to    http.Handler
	paths []string
	doc   *openapi3.T
	there map[string][]string // ids of what there is, by the parameters that they are given as
	ids   []string            // of all that, and of what there is not
	bases map[string]string
	evil  float64 // how likely each value of a request is nonsense
}

func newHostile(t testing.TB, seed uint64) *hostile {
	h, mine := theYard(t)
	doc, err := wire.Contract()
	if err != nil {
		t.Fatal(err)
	}
	kitchen := mine[strings.LastIndex(mine, "/")+1:]
	start := `{"id":"` + wentIn + `","title":"Mine","setting":{"stages":[{"minutes":50,"oven_c":190}]},"request":` + crumble + `}`
	if w := call(h, "POST", mine+"/watch", start); w.Code != 201 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	out := &hostile{
		Rand: rand.New(rand.NewPCG(seed, 0)), to: h, doc: doc,
		there: map[string][]string{"kitchen": {kitchen}, "dessert": {wentIn}},
		ids:   []string{kitchen, wentIn, uuid.NewString(), uuid.Nil.String()},
	}
	for name, list := range map[string]string{
		"dish": "/dishes", "oven": "/ovens", "card": "/cards?limit=20", "bake": "/bakes?limit=20", "call": "/watch",
	} {
		body := call(h, "GET", mine+list, "").Body.String()
		for _, part := range strings.Split(body, `"id":"`)[1:] {
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
	card, plan := `{"name":"x","request":`+crumble+`}`, `{"request":`+crumble+`,"setting":{}}`
	out.bases = map[string]string{
		"bench":             plan,
		"whatIf":            `{"bench":` + plan + `}`,
		"benchAlternatives": plan,
		"balance":           crumble,
		"planBake":          plan,
		"simulateBake": `{"dish":{"shape":"square","length_cm":20,"depth_cm":5,"material":"glass"},"filling":{"mass_g":900},
			"stages":[{"minutes":40,"oven_c":180}]}`,
		"balanceAlternatives": crumble,
		"exportCard":          `{"format":"jsonld","card":` + card + `}`,
		"printSheet":          `{"card":` + card + `}`,
		"proposeDiet":         `{"request":` + crumble + `,"diets":["vegan"]}`,
		"start":               `{"fruit_g":900,"dishes":[],"fruits":[{"key":"plum","share":1}],"style":"crumble"}`,
		"readAmount":          `{"text":"2 cups","kind":"mass"}`,
		"measure":             `{"text":"200 g plums\n100 g flour"}`,
		"importRecipe":        `{"filename":"a.txt","content":"Plum crumble\n\n900 g plums\n150 g flour\n100 g butter\n80 g sugar"}`,
		"fruitTest":           `{"fruit":"plum","fruit_g":200,"sugar_g":200,"juice_g":120}`,
		"addCard":             `{"name":"Card","setting":{},"request":` + crumble + `}`,
		"addVersion":          `{"setting":{},"request":` + crumble + `}`,
		"addBake":             `{"title":"Bake","baked_at":"2026-10-01T12:00:00Z","setting":{},"outcome":{},"request":` + crumble + `}`,
		"startWatch":          start,
		"answerCall":          `{"answer":"done"}`,
		"rescue":              `{"trouble":"pale"}`,
		"changeWatch":         `{"stages":[{"minutes":9,"oven_c":100}]}`,
	}
	return out
}

// madeUp is a request before it is one, so that a failing one can be told.
type madeUp struct{ method, address, kind, body string }

func (m madeUp) String() string {
	return fmt.Sprintf("%s %s %q %.2000q", m.method, m.address, m.kind, m.body)
}

func (m madeUp) http() *http.Request {
	r := httptest.NewRequest(m.method, "http://127.0.0.1/", strings.NewReader(m.body))
	path, query, _ := strings.Cut(m.address, "?")
	unescaped, err := url.PathUnescape(path)
	if err != nil {
		unescaped = path
	}
	r.URL.Path, r.URL.RawPath, r.URL.RawQuery = unescaped, path, query
	if m.kind != "" {
		r.Header.Set("Content-Type", m.kind)
	}
	return r
}

func (h *hostile) likely(p float64) bool { return h.Float64() < p }

func oneOf[T any](h *hostile, of []T) T { return of[h.IntN(len(of))] }

func (h *hostile) request() madeUp {
	h.evil = oneOf(h, []float64{0, 0, 0.01, 0.03, 0.1, 0.5})
	path := oneOf(h, h.paths)
	item := h.doc.Paths.Value(path)
	operations := item.Operations()
	method := oneOf(h, slices.Sorted(maps.Keys(operations)))
	o := operations[method]
	m := madeUp{method: method, address: path}
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
			m.address = strings.ReplaceAll(m.address, "{"+p.Value.Name+"}", url.PathEscape(text))
		case p.Value.In == openapi3.ParameterInQuery && h.likely(0.6):
			query.Add(p.Value.Name, h.text(p.Value.Schema.Value))
		}
	}
	if len(query) > 0 {
		m.address += "?" + query.Encode()
	}
	if o.RequestBody == nil {
		return m
	}
	content := o.RequestBody.Value.Content
	m.kind = "application/json"
	if of := content.Get(m.kind); of != nil && of.Schema.Value.Type.Is(openapi3.TypeObject) {
		var base any
		if raw := h.bases[o.OperationID]; raw != "" && h.likely(0.8) {
			if err := json.Unmarshal([]byte(raw), &base); err != nil {
				panic(o.OperationID + ": " + err.Error())
			}
		}
		var b strings.Builder
		h.write(&b, of.Schema.Value, base, 0)
		m.body = b.String()
		if h.likely(h.evil / 4) {
			m.body = m.body[:h.IntN(len(m.body)+1)]
		}
	} else {
		m.kind = slices.Sorted(maps.Keys(content))[0]
		m.kind = strings.Replace(m.kind, "*", "jpeg", 1)
		m.body = oneOf(h, []string{"", "PK\x03\x04", "\xff\xd8\xff\xe0", strings.Repeat("x", 5000)})
	}
	if h.likely(h.evil / 4) {
		m.kind = oneOf(h, []string{"", "text/plain", "application/json; charset=utf-16", "application/zip"})
	}
	return m
}

// text is a parameter's value, out of JSON.
func (h *hostile) text(s *openapi3.Schema) string {
	var b strings.Builder
	h.write(&b, s, nil, 0)
	text := b.String()
	if strings.HasPrefix(text, `"`) {
		text = strings.Trim(text, `"`)
	}
	return text
}

// write writes a value of a schema, or nonsense in its place; base is what to begin with, where there is something.
func (h *hostile) write(b *strings.Builder, s *openapi3.Schema, base any, depth int) {
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

func (h *hostile) word(s *openapi3.Schema) string {
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

func (h *hostile) writeObject(b *strings.Builder, s *openapi3.Schema, base any, depth int) {
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

func (h *hostile) writeArray(b *strings.Builder, s *openapi3.Schema, base any, depth int) {
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
func (h *hostile) nonsense(s *openapi3.Schema) string {
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
