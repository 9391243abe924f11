package httpapi

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"image"
	"image/jpeg"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"mabbin/api"
	"mabbin/core/compare"
	"mabbin/server/demo"
	"mabbin/server/store"
	"mabbin/server/store/storetest"
)

// theYard is a server with the demo kitchen, and the path of that.
func theYard(t testing.TB) (http.Handler, string) {
	t.Helper()
	return newServer(t, openYard(t, yardCopy(t), store.Limits{})), theYards
}

// yardCopy names a database of the test's own with the demo's kitchen in it.
func yardCopy(t testing.TB) string {
	t.Helper()
	return storetest.Copy(t, "yard", loadYard)
}

func loadYard(ctx context.Context, s *store.Store) error {
	_, err := demo.Load(ctx, s, time.Date(2026, 10, 1, 0, 0, 0, 0, time.UTC))
	return err
}

// theYards is where the demo kitchen's things are.
var theYards = "/api/v1/kitchens/" + demo.Kitchen.ID.String()

// yardStore is a store with the demo kitchen in a database, within limits.
func yardStore(t testing.TB, dsn string, l store.Limits) *store.Store {
	t.Helper()
	s := openYard(t, dsn, l)
	if err := errors.Join(s.Migrate(t.Context()), loadYard(t.Context(), s)); err != nil {
		t.Fatal(err)
	}
	return s
}

func openYard(t testing.TB, dsn string, l store.Limits) *store.Store {
	t.Helper()
	s, err := store.OpenWithin(t.Context(), dsn, l)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(s.Close)
	return s
}

// send sends something that is no JSON.
func send(h http.Handler, path, kind string, body []byte) *httptest.ResponseRecorder {
	r := httptest.NewRequest(http.MethodPost, "http://127.0.0.1"+path, bytes.NewReader(body))
	r.Header.Set("Content-Type", kind)
	w := httptest.NewRecorder()
	h.ServeHTTP(w, r)
	return w
}

// get is the answer to a request that has to succeed.
func get[T any](t testing.TB, w *httptest.ResponseRecorder, status int) (out T) {
	t.Helper()
	if w.Code != status {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	if err := json.Unmarshal(w.Body.Bytes(), &out); err != nil {
		t.Fatalf("%v: %s", err, w.Body)
	}
	return out
}

func TestABakeWithAPicturePutRight(t *testing.T) {
	h, base := theYard(t)
	var raw bytes.Buffer
	if err := jpeg.Encode(&raw, image.NewGray(image.Rect(0, 0, 40, 30)), nil); err != nil {
		t.Fatal(err)
	}
	const picture, bakeID = "00000000-0000-4000-8000-0000000000b1", "00000000-0000-4000-8000-0000000000b2"
	if p := get[api.Picture](
		t,
		send(h, base+"/pictures/"+picture, "image/jpeg", raw.Bytes()),
		201,
	); p.Width != 40 ||
		p.Height != 30 {
		t.Errorf("%+v", p)
	}
	for name, w := range map[string]*httptest.ResponseRecorder{
		"no picture":   send(h, base+"/pictures/00000000-0000-4000-8000-0000000000b3", "image/jpeg", []byte("<svg/>")),
		"no archive":   send(h, restorePath, "application/zip", []byte("PK")),
		"nobody's id":  call(h, "PUT", base+"/bakes/"+bakeID+"/outcome", `{"correction_id":"`+picture+`","outcome":{"juice":"wet"}}`),
		"no such word": call(h, "PUT", base+"/scale", `{"hand":"throw"}`),
	} {
		if p := get[api.Problem](t, w, 400); p.Errors == nil || len(*p.Errors) == 0 {
			t.Errorf("%s: %s", name, w.Body)
		}
	}
	if w := call(
		h,
		"GET",
		base+"/pictures/"+picture+"?small=true",
		"",
	); w.Code != 200 || w.Header().Get("Content-Type") != "image/jpeg" ||
		w.Body.Len() == 0 {
		t.Errorf("%d %v", w.Code, w.Header())
	}
	if w := call(h, "GET", "/api/v1/kitchens/"+picture+"/pictures/"+picture, ""); w.Code != 404 {
		t.Error("another kitchen sees it")
	}

	b := get[api.Bake](
		t,
		call(
			h,
			"POST",
			base+"/bakes",
			`{"id":"`+bakeID+`","title":"Crumble","baked_at":"2026-09-30T12:00:00Z","request":`+crumble+`,
		"setting":{"oven_c":180,"minutes":20},"outcome":{"juice":"runny","top":"pale","fruit":"hard","picture_id":"`+picture+`"}}`,
		),
		201,
	)
	if b.Outcome.PictureId == nil || b.Outcome.PictureId.String() != picture || len(b.Corrections) != 0 {
		t.Errorf("%+v", b.Outcome)
	}
	// Twenty minutes were too short, already in the prediction.
	why := get[struct {
		Expected struct{ Juice, Top string }
		Wrong    []string
		OnPaper  []string `json:"predicted"`
	}](t, call(h, "GET", base+"/bakes/"+bakeID+"/causes", ""), 200)
	if why.Expected.Top != "pale" || len(why.Wrong) != 3 ||
		!strings.Contains(strings.Join(why.OnPaper, ";"), "not set everywhere") {
		t.Errorf("%+v", why)
	}
	b = get[api.Bake](
		t,
		call(
			h,
			"PUT",
			base+"/bakes/"+bakeID+"/outcome",
			`{"correction_id":"`+picture+`","outcome":{"juice":"saucy","note":"It stood up overnight."}}`,
		),
		200,
	)
	if *b.Outcome.Juice != "saucy" || b.Outcome.PictureId != nil || len(b.Corrections) != 1 ||
		*b.Corrections[0].Was.Juice != "runny" ||
		b.Corrections[0].Was.PictureId == nil {
		t.Errorf("%+v", b)
	}
	if w := call(h, "GET", base+"/bakes/"+picture, ""); w.Code != 404 {
		t.Errorf("no such bake: %d", w.Code)
	}

	// In addition to another, line by line.
	page := get[api.BakePage](t, call(h, "GET", base+"/bakes?limit=2", ""), 200)
	rows := get[[]compare.Row](
		t,
		call(h, "GET", base+"/bakes/"+bakeID+"/compared-with/"+page.Bakes[1].Id.String(), ""),
		200,
	)
	found := 0
	for _, r := range rows {
		if r.Part.String() == "Bake" && r.Name.String() == "oven" && r.A.IsZero() && !r.B.IsZero() ||
			r.Part.String() == "Result" && r.Name.String() == "juice, cold" && r.A.String() == "saucy" {
			found++
		}
	}
	if len(rows) < 15 || found != 2 {
		t.Errorf("%+v", rows)
	}
}

func TestTheLogAndTheKitchenAreTakenAway(t *testing.T) {
	h, base := theYard(t)
	log := get[struct {
		Format string
		Bakes  []api.Bake
	}](t, call(h, "GET", base+"/bakes.json", ""), 200)
	if log.Format != "mabbin-log" || len(log.Bakes) < 50 || log.Bakes[0].BakedAt.Before(log.Bakes[1].BakedAt) {
		t.Errorf("%s, %d bakes", log.Format, len(log.Bakes))
	}
	zip := call(h, "GET", base+"/backup.zip", "")
	if zip.Code != 200 || zip.Header().Get("Content-Type") != "application/zip" {
		t.Fatalf("%d %v", zip.Code, zip.Header())
	}
	k := get[api.Kitchen](t, send(h, restorePath, "application/zip", zip.Body.Bytes()), 201)
	if k.Name != "Oxlip Yard, restored" || k.Id == demo.Kitchen.ID {
		t.Errorf("%+v", k)
	}
	again := get[struct{ Bakes []api.Bake }](t, call(h, "GET", "/api/v1/kitchens/"+k.Id.String()+"/bakes.json", ""), 200)
	if len(again.Bakes) != len(log.Bakes) {
		t.Errorf("%d of %d bakes", len(again.Bakes), len(log.Bakes))
	}

	// A new kitchen is empty, and nobody's log is in it.
	const id = "00000000-0000-4000-8000-0000000000c1"
	for range 2 {
		if k := get[api.Kitchen](
			t,
			call(h, "POST", "/api/v1/kitchens", `{"id":"`+id+`","name":"Back room"}`),
			201,
		); k.Name != "Back room" ||
			k.Settings.Cup == "" {
			t.Errorf("%+v", k)
		}
	}
	if p := get[api.BakePage](t, call(h, "GET", "/api/v1/kitchens/"+id+"/bakes", ""), 200); len(p.Bakes) != 0 {
		t.Errorf("%d bakes", len(p.Bakes))
	}
	for _, path := range []string{"/bakes.json", "/bakes.csv", "/backup.zip"} {
		if w := call(h, "GET", "/api/v1/kitchens/00000000-0000-4000-8000-0000000000c2"+path, ""); w.Code != 404 {
			t.Errorf("%s of no kitchen: %d", path, w.Code)
		}
	}
}

func TestTheScaleOverHTTP(t *testing.T) {
	h, base := theYard(t)
	if r := get[api.ScaleReading](
		t,
		call(h, "PUT", base+"/scale", `{"wanted_g":250,"tare":true}`),
		200,
	); r.Verdict != "short" ||
		r.WantedG != 250 {
		t.Errorf("%+v", r)
	}
	if r := get[api.ScaleReading](
		t,
		call(h, "PUT", base+"/scale", `{"wanted_g":0,"hand":"clear"}`),
		200,
	); r.Verdict != "" {
		t.Errorf("%+v", r)
	}
	if r := get[api.ScaleReading](t, call(h, "GET", base+"/scale", ""), 200); r.WantedG != 0 {
		t.Errorf("%+v", r)
	}
}

// What was baked before there was anything to look back on has a cost as well: by the prices of its day.
func TestLoggedBakesHaveTheirCost(t *testing.T) {
	h, base := theYard(t)
	bakes := get[api.BakePage](t, call(h, "GET", base+"/bakes?words=apricot", ""), 200).Bakes
	if len(bakes) == 0 {
		t.Fatal("no apricots were baked")
	}
	for _, b := range bakes {
		if b.Cost == nil || b.Cost.Currency != "€" || b.Cost.Of.Portion == nil || *b.Cost.Of.Portion < 50 {
			t.Errorf("%s: %+v", b.Title, b.Cost)
		}
	}
}
