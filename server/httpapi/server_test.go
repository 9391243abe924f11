package httpapi

import (
	"encoding/json"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"os"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"mabbin/api"
	"mabbin/server/demo"
	"mabbin/server/store"
	"mabbin/server/store/storetest"
)

const crumble = `{"dish":{"shape":"rectangle","length_cm":24,"width_cm":18,"depth_cm":5,"material":"stoneware"},"style":"crumble",
	"topping":{"key":"crumble_classic"},"fruits":[{"key":"gooseberry","share":1}]}`

func newServer(t testing.TB, s *store.Store) http.Handler {
	t.Helper()
	log := slog.New(slog.DiscardHandler)
	if testing.Verbose() {
		log = slog.New(slog.NewTextHandler(os.Stderr, nil))
	}
	page := fstest.MapFS{"index.html": {Data: []byte("the page")}, "assets/a.js": {Data: []byte("1")}}
	h, err := New(Config{
		Store: s, Log: log, Clock: func() time.Time { return time.Date(2026, 10, 1, 0, 0, 0, 0, time.UTC) },
		Deadlines: Deadlines{Quick: time.Hour}, // a slow machine that looks for races is no fault of the server
	}, page)
	if err != nil {
		t.Fatal(err)
	}
	return h
}

// away is a store whose database is not there.
func away(t testing.TB) *store.Store {
	t.Helper()
	s, err := store.Open(t.Context(), "postgres://nobody@127.0.0.1:1/none?sslmode=disable")
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(s.Close)
	return s
}

func call(h http.Handler, method, path, body string) *httptest.ResponseRecorder {
	r := httptest.NewRequest(method, "http://127.0.0.1"+path, strings.NewReader(body))
	r.Header.Set("Content-Type", "application/json")
	w := httptest.NewRecorder()
	h.ServeHTTP(w, r)
	return w
}

func TestBadRequestsGetProblems(t *testing.T) {
	h := newServer(t, away(t))
	cases := []struct {
		name, method, path, body string
		status                   int
		says                     []string
	}{
		{
			"every wrong field",
			"POST",
			"/api/v1/balance",
			`{"dish":{"shape":"rectangle","length_cm":0,"width_cm":18,"depth_cm":"deep","material":"tin"},"style":"crumble","topping":{"key":"x"},"fruits":[],"colour":1}`,
			400,
			[]string{"#/dish/length_cm", "#/dish/depth_cm", "#/dish/material", "#/topping/key", "#/fruits", "#/colour"},
		},
		{
			"a floor wider than the rim",
			"POST",
			"/api/v1/balance",
			strings.Replace(crumble, `"depth_cm":5`, `"depth_cm":5,"floor_length_cm":30`, 1),
			400,
			[]string{"#/dish/floor_length_cm", "swapped"},
		},
		{
			"a dish of 4 m",
			"POST",
			"/api/v1/balance",
			strings.Replace(crumble, `:24`, `:400`, 1),
			400,
			[]string{"#/dish/length_cm", "3 to 100"},
		},
		{
			"a custard on a crumble",
			"POST",
			"/api/v1/balance",
			strings.Replace(crumble, "{", `{"custard":{},`, 1),
			400,
			[]string{"#/custard", "bars and pies"},
		},
		{"no JSON", "POST", "/api/v1/balance", `{"dish":`, 400, []string{"not JSON"}},
		{"nothing at all", "POST", "/api/v1/balance", ``, 400, []string{"#"}},
		{"5 MB", "POST", "/api/v1/balance", `{"x":"` + strings.Repeat("a", 5<<20) + `"}`, 413, []string{"1 MB"}},
		{"no amount", "POST", "/api/v1/amount", `{"text":"a lot","kind":"mass"}`, 400, []string{"#/text", "no number"}},
		{"no kitchen", "GET", "/api/v1/kitchens/x/cards", ``, 400, []string{"kitchen"}},
		{"no such address", "GET", "/api/v1/flour", ``, 404, []string{"Unknown API"}},
		{"database away", "GET", "/api/v1/kitchens", ``, 503, []string{"nothing was saved"}},
		{"not ready", "GET", "/readyz", ``, 503, []string{"database"}},
	}
	for _, c := range cases {
		w := call(h, c.method, c.path, c.body)
		if w.Code != c.status || w.Header().Get("Content-Type") != "application/problem+json" {
			t.Errorf("%s: status %d, %s: %s", c.name, w.Code, w.Header().Get("Content-Type"), w.Body)
		}
		var p api.Problem
		if err := json.Unmarshal(w.Body.Bytes(), &p); err != nil {
			t.Fatalf("%s: %v", c.name, err)
		}
		all := p.Title
		if p.Errors != nil {
			for _, e := range *p.Errors {
				all += "; " + e.Pointer + " " + e.Detail
			}
		}
		for _, s := range c.says {
			if !strings.Contains(all, s) {
				t.Errorf("%s: %q is not in %s", c.name, s, all)
			}
		}
	}
}

func TestTheCalculationsNeedNoDatabase(t *testing.T) {
	h := newServer(t, away(t))
	if w := call(
		h,
		"POST",
		"/api/v1/balance",
		crumble,
	); w.Code != 200 ||
		!strings.Contains(w.Body.String(), `"fruit_g":973.4`) {
		t.Errorf("%d %s", w.Code, w.Body)
	}
	if w := call(
		h,
		"POST",
		"/api/v1/print.pdf",
		`{"paper":"letter","card":{"name":"Crumble","request":`+crumble+`}}`,
	); w.Code != 200 || w.Header().Get("Content-Type") != "application/pdf" ||
		!strings.HasPrefix(w.Body.String(), "%PDF-") {
		t.Errorf("%d %s", w.Code, w.Header())
	}
	if w := call(
		h,
		"POST",
		"/api/v1/print.pdf",
		`{"card":{"name":"Crumble","request":`+strings.Replace(crumble, "crumble_classic", "roux", 1)+`}}`,
	); w.Code != 400 ||
		!strings.Contains(w.Body.String(), "#/card/request/topping/key") {
		t.Errorf("%d %s", w.Code, w.Body)
	}
	// Too full is an answer with a warning; half a kilo of thickener is asked about.
	full := strings.Replace(crumble, "{", `{"weighed_fruit_g":2500,"thickener":{"key":"cornflour","g":500},`, 1)
	if w := call(
		h,
		"POST",
		"/api/v1/balance",
		full,
	); w.Code != 200 || !strings.Contains(w.Body.String(), "boils_over") ||
		!strings.Contains(w.Body.String(), "slip_cornflour") {
		t.Errorf("%d %s", w.Code, w.Body)
	}
	if w := call(
		h,
		"POST",
		"/api/v1/amount",
		`{"text":"1 1/2 cups","kind":"mass","ingredient":"wheat_flour","cup":"us"}`,
	); !strings.Contains(
		w.Body.String(),
		`"value":187.5`,
	) {
		t.Errorf("%d %s", w.Code, w.Body)
	}
	if w := call(h, "GET", "/api/v1/larder", ""); w.Code != 200 || strings.Contains(w.Body.String(), "null") {
		t.Errorf("the larder: %d", w.Code)
	}
}

func TestThePageIsServedSafely(t *testing.T) {
	h := newServer(t, away(t))
	for path, status := range map[string]int{"/": 200, "/cards": 200, "/assets/a.js": 200, "/assets/none.js": 404, "/healthz": 200} {
		w := call(h, "GET", path, "")
		if w.Code != status || !strings.Contains(w.Header().Get("Content-Security-Policy"), "script-src 'self'") ||
			w.Header().Get("X-Content-Type-Options") != "nosniff" {
			t.Errorf("%s: %d %v", path, w.Code, w.Header())
		}
	}
	r := httptest.NewRequest(http.MethodGet, "http://elsewhere.example/api/v1/larder", nil)
	w := httptest.NewRecorder()
	if h.ServeHTTP(w, r); w.Code != http.StatusMisdirectedRequest {
		t.Errorf("another name for this machine: %d", w.Code)
	}
	r = httptest.NewRequest(http.MethodGet, "http://127.0.0.1/api/v1/larder", nil)
	r.Header.Set("Sec-Fetch-Site", "cross-site")
	w = httptest.NewRecorder()
	if h.ServeHTTP(w, r); w.Code != http.StatusForbidden {
		t.Errorf("another site's page: %d", w.Code)
	}
}

func TestACardIsKeptAndABakeFreezesItsPrediction(t *testing.T) {
	s := storetest.Open(t)
	if _, err := demo.Load(t.Context(), s, time.Date(2026, 10, 1, 0, 0, 0, 0, time.UTC)); err != nil {
		t.Fatal(err)
	}
	h := newServer(t, s)
	base := "/api/v1/kitchens/" + demo.Kitchen.ID.String()
	body := `{"id":"00000000-0000-4000-8000-000000000001","version_id":"00000000-0000-4000-8000-000000000002","name":"Ours","setting":{"minutes":45},"request":` + crumble + `}`
	for range 2 { // sent twice is saved once
		w := call(h, "POST", base+"/cards", body)
		var c api.Card
		if err := json.Unmarshal(
			w.Body.Bytes(),
			&c,
		); err != nil || w.Code != 201 || c.Name != "Ours" || len(c.Versions) != 1 ||
			*c.Versions[0].Setting.Minutes != 45 {
			t.Fatalf("%d %s", w.Code, w.Body)
		}
	}
	bad := strings.Replace(strings.Replace(body, "gooseberry", "gozebery", 1), `"name":"Ours"`, `"name":""`, 1)
	if w := call(
		h,
		"POST",
		base+"/cards",
		bad,
	); w.Code != 400 || !strings.Contains(w.Body.String(), "#/request/fruits/0/key") ||
		!strings.Contains(w.Body.String(), "#/name") {
		t.Errorf("%d %s", w.Code, w.Body)
	}
	bake := `{"id":"00000000-0000-4000-8000-000000000003","title":"Ours","baked_at":"2026-10-01T12:00:00Z","card_id":"00000000-0000-4000-8000-000000000001",
		"version":1,"setting":{},"outcome":{"juice":"saucy"},"request":` + crumble + `}`
	if w := call(
		h,
		"POST",
		base+"/bakes",
		bake,
	); w.Code != 201 ||
		!strings.Contains(w.Body.String(), `"band":"spoonable"`) {
		t.Errorf("%d %s", w.Code, w.Body)
	}
	if w := call(
		h,
		"POST",
		base+"/bakes",
		strings.NewReplacer(`0003"`, `0004"`, `"version":1`, `"version":7`).Replace(bake),
	); w.Code != 409 {
		t.Errorf("a version that is not there: %d %s", w.Code, w.Body)
	}
	var page api.BakePage
	w := call(h, "GET", base+"/bakes?limit=2", "")
	if err := json.Unmarshal(w.Body.Bytes(), &page); err != nil || len(page.Bakes) != 2 || !page.More {
		t.Fatalf("%v %s", err, w.Body)
	}
	w = call(h, "GET", base+"/bakes?limit=100&before="+page.Bakes[1].Id.String(), "")
	rest := api.BakePage{}
	if err := json.Unmarshal(w.Body.Bytes(), &rest); err != nil || len(rest.Bakes) != 53 || rest.More {
		t.Errorf("%v: %d more", err, len(rest.Bakes))
	}
}

// A file of a dessert tells the bake that it was made for, its cover and all.
func TestAFileTellsTheBakeThatItIsOf(t *testing.T) {
	h := newServer(t, away(t))
	w := call(h, "POST", "/api/v1/export", `{"format":"text","card":{"name":"Gooseberry crumble","request":`+crumble+`},
		"stages":[{"minutes":20,"oven_c":185,"cover":"foil"},{"minutes":25,"oven_c":185}]}`)
	f := get[api.ExportedFile](t, w, 200)
	for _, want := range []string{"20 min at 185 C, under foil.", "Then 25 min at 185 C, uncovered.", "It is done when"} {
		if !strings.Contains(f.Content, want) {
			t.Errorf("no %q in\n%s", want, f.Content)
		}
	}
	w = call(
		h,
		"POST",
		"/api/v1/export",
		`{"format":"text","card":{"name":"x","request":`+crumble+`},"stages":[{"minutes":-1,"oven_c":185}]}`,
	)
	if w.Code != 400 || !strings.Contains(w.Body.String(), "#/stages/0/minutes") {
		t.Errorf("a minute less than none: %d %s", w.Code, w.Body)
	}
}
