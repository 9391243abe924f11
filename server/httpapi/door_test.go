package httpapi

import (
	"encoding/csv"
	"encoding/json"
	"errors"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"mabbin/api"
	"mabbin/core/fault"

	"github.com/gin-gonic/gin"
)

// What comes in at the door: bodies of their kind, from this page; what goes out is nobody's to keep.
func TestTheDoor(t *testing.T) {
	h, base := theYard(t)
	for what, c := range map[string]struct {
		method, path, body string
		header             map[string]string
		code               int
	}{
		"as it should be":           {"POST", "/api/v1/balance", crumble, map[string]string{"Content-Type": "application/json; charset=utf-8"}, 200},
		"from this page":            {"POST", "/api/v1/balance", crumble, map[string]string{"Content-Type": "application/json", "Origin": "http://127.0.0.1", "Sec-Fetch-Site": "same-origin"}, 200},
		"a form of another site":    {"POST", "/api/v1/balance", crumble, map[string]string{"Content-Type": "text/plain"}, 415},
		"without a kind":            {"POST", "/api/v1/balance", crumble, nil, 415},
		"another port of this host": {"POST", "/api/v1/balance", crumble, map[string]string{"Content-Type": "application/json", "Origin": "http://127.0.0.1:9999"}, 403},
		"an origin that hides":      {"POST", "/api/v1/balance", crumble, map[string]string{"Content-Type": "application/json", "Origin": "null"}, 403},
		"another site's page":       {"GET", base + "/cards", "", map[string]string{"Sec-Fetch-Site": "cross-site"}, 403},
		"deleting from elsewhere":   {"DELETE", base + "?name=Oxlip+Yard", "", map[string]string{"Origin": "http://elsewhere.example"}, 403},
		"an archive that is none":   {"POST", "/api/v1/kitchens/restore", "x", map[string]string{"Content-Type": "application/json"}, 415},
	} {
		r := httptest.NewRequest(c.method, "http://127.0.0.1"+c.path, strings.NewReader(c.body))
		for name, value := range c.header {
			r.Header.Set(name, value)
		}
		w := httptest.NewRecorder()
		h.ServeHTTP(w, r)
		if w.Code != c.code || w.Header().Get("Cache-Control") != "no-store" {
			t.Errorf("%s: %d, kept %q: %.200s", what, w.Code, w.Header().Get("Cache-Control"), w.Body)
		}
	}
	for _, path := range []string{"/backup.zip", "/bakes.csv", "/bakes.json", "/cards", "/bakes"} {
		if w := call(h, "GET", base+path, ""); w.Header().Get("Cache-Control") != "no-store" {
			t.Errorf("%s may be kept", path)
		}
	}
}

// A log that was cut off does not have the line that says how long it is.
func TestTheLogEndsWithItsCount(t *testing.T) {
	h, base := theYard(t)
	rows, err := csv.NewReader(strings.NewReader(call(h, "GET", base+"/bakes.csv", "").Body.String())).ReadAll()
	if err != nil {
		t.Fatal(err)
	}
	last := rows[len(rows)-1]
	if last[0] != "end" || last[1] != "54 bakes" || len(rows) != 56 {
		t.Errorf("%d rows, the last %q", len(rows), last)
	}
	var whole struct {
		Bakes []json.RawMessage
		Count int
	}
	if err := json.Unmarshal(call(h, "GET", base+"/bakes.json", "").Body.Bytes(), &whole); err != nil ||
		whole.Count != len(whole.Bakes) || whole.Count != 54 {
		t.Errorf("%d of %d bakes, %v", len(whole.Bakes), whole.Count, err)
	}
}

// A cell that a spreadsheet would run says that it is text, in the log and in a card; a card reads back as it was.
func TestNoCellIsAFormula(t *testing.T) {
	h, base := theYard(t)
	const formula, shell = `=HYPERLINK(\"x\")`, ` +cmd|' /C calc'!A0`
	bake := `{"id":"00000000-0000-4000-8000-00000000cc01","title":"` + formula + `","baked_at":"2026-10-01T12:00:00Z",
		"setting":{},"outcome":{"note":"` + shell + `"},"request":` + crumble + `}`
	get[api.Bake](t, call(h, "POST", base+"/bakes", bake), 201)
	own := strings.Replace(crumble, "{", `{"own":{"fruits":{"sloe_x":{"copy_of":"plum","name":"`+formula+`"}}},`, 1)
	own = strings.Replace(own, `"gooseberry"`, `"sloe_x"`, 1)
	f := get[api.ExportedFile](t, call(h, "POST", "/api/v1/export",
		`{"format":"csv","card":{"name":"@SUM(1)","request":`+own+`}}`), 200)
	for what, table := range map[string]string{"the log": call(h, "GET", base+"/bakes.csv", "").Body.String(), "a card": f.Content} {
		rows, err := csv.NewReader(strings.NewReader(table)).ReadAll()
		if err != nil {
			t.Fatal(err)
		}
		found := false
		for _, row := range rows {
			for _, cell := range row {
				if bare := strings.TrimLeft(cell, " \t\r\n"); bare != "" && strings.ContainsAny(bare[:1], "=+-@") {
					t.Errorf("%s: %q would be run", what, cell)
				}
				found = found || strings.Contains(cell, "HYPERLINK")
			}
		}
		if !found {
			t.Errorf("%s: the name is lost", what)
		}
	}
	back := get[api.ImportedDocument](t, call(h, "POST", "/api/v1/import",
		`{"filename":"card.csv","content":`+quoted(f.Content)+`}`), 200)
	if back.Card == nil || back.Card.Name != "@SUM(1)" ||
		back.Card.Request.Own.Fruits["sloe_x"].Name != `=HYPERLINK("x")` {
		t.Errorf("it reads back as %+v", back.Card)
	}
}

func quoted(s string) string {
	raw, _ := json.Marshal(s)
	return string(raw)
}

// A panic in a piece of work is its error, with its place; in an answer it is that answer alone.
func TestAPanicEndsItsPieceAlone(t *testing.T) {
	err := fault.Guard(func() error { panic("the whisk broke") })
	if err == nil || !strings.Contains(err.Error(), "the whisk broke") || !strings.Contains(err.Error(), "door_test.go") {
		t.Errorf("%v", err)
	}
	kept := errors.New("kept")
	if err := fault.Guard(func() error { return kept }); !errors.Is(err, kept) {
		t.Errorf("%v", err)
	}
	var log strings.Builder
	s := &server{Config: Config{Log: slog.New(slog.NewTextHandler(&log, nil))}}
	e := gin.New()
	e.GET("/broken", s.logged, s.recovered, func(*gin.Context) { panic("the whisk broke") })
	w := httptest.NewRecorder()
	e.ServeHTTP(w, httptest.NewRequest(http.MethodGet, "http://127.0.0.1/broken?words=secret", nil))
	if w.Code != http.StatusInternalServerError || !strings.Contains(log.String(), "the whisk broke") ||
		!strings.Contains(log.String(), "door_test.go") || strings.Contains(log.String(), "secret") {
		t.Errorf("%d %s", w.Code, log.String())
	}
}
