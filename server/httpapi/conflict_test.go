package httpapi

import (
	"bytes"
	"encoding/json"
	"image"
	"image/color"
	"image/jpeg"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"testing"

	"mabbin/api"

	"github.com/google/uuid"
)

// on sends a change that is made upon a revision.
func on(h http.Handler, method, path, revision, body string) *httptest.ResponseRecorder {
	r := httptest.NewRequest(method, "http://127.0.0.1"+path, strings.NewReader(body))
	r.Header.Set("Content-Type", "application/json")
	r.Header.Set("If-Match", `"`+revision+`"`)
	w := httptest.NewRecorder()
	h.ServeHTTP(w, r)
	return w
}

const oneDish = `{"name":"Tin","count":1,"dish":{"shape":"square","length_cm":20,"depth_cm":5,"material":"glass"}}`

// An id that comes again with the same is the same; with something else it is refused, and what is kept is reported.
func TestAnIDUsedAgainForSomethingElseIsRefused(t *testing.T) {
	h, base := theYard(t)
	fresh := uuid.NewString
	card, firstVersion := fresh(), fresh()
	get[api.Card](t, call(h, "POST", base+"/cards",
		`{"id":"`+card+`","version_id":"`+firstVersion+`","name":"Ours","setting":{},"request":`+crumble+`}`), 201)
	bake := fresh()
	logged := `{"id":"` + bake + `","title":"Ours","baked_at":"2026-10-01T12:00:00.123456Z","setting":{"minutes":40},"outcome":{"juice":"saucy"},"request":` + crumble + `}`
	get[api.Bake](t, call(h, "POST", base+"/bakes", logged), 201)
	kitchenID := fresh()
	for what, c := range map[string]struct{ path, body, other, stored string }{
		"a kitchen": {"/api/v1/kitchens", `{"id":"` + kitchenID + `","name":"Yard"}`, `{"id":"` + kitchenID + `","name":"Garden"}`, `"name":"Yard"`},
		"a dish": {
			base + "/dishes", `{"id":"` + firstVersion + `",` + oneDish[1:],
			`{"id":"` + firstVersion + `",` + strings.Replace(oneDish, ":20", ":22", 1)[1:], `"length_cm":20`,
		},
		"a version": {
			base + "/cards/" + card + "/versions", `{"id":"` + bake + `","setting":{"minutes":40},"request":` + crumble + `}`,
			`{"id":"` + bake + `","setting":{"minutes":41},"request":` + crumble + `}`, `"minutes":40`,
		},
		"a card": {
			base + "/cards", `{"id":"` + card + `","version_id":"` + firstVersion + `","name":"Ours","setting":{},"request":` + crumble + `}`,
			`{"id":"` + card + `","version_id":"` + firstVersion + `","name":"Ours","setting":{},"request":` + strings.Replace(crumble, "gooseberry", "plum", 1) + `}`,
			`"key":"gooseberry"`,
		},
		"a bake": {base + "/bakes", logged, strings.Replace(logged, "saucy", "runny", 1), `"juice":"saucy"`},
		"a bake under way": {
			base + "/watch", `{"id":"` + wentIn + `","title":"Mine","setting":{"stages":[{"minutes":50,"oven_c":190}]},"request":` + crumble + `}`,
			`{"id":"` + wentIn + `","title":"Yours","setting":{"stages":[{"minutes":50,"oven_c":190}]},"request":` + crumble + `}`, `"title":"Mine"`,
		},
	} {
		for i := range 2 {
			if w := call(h, "POST", c.path, c.body); w.Code != 201 {
				t.Errorf("%s, sent %d times: %d %s", what, i+1, w.Code, w.Body)
			}
		}
		w := call(h, "POST", c.path, c.other)
		var p api.Problem
		if err := json.Unmarshal(w.Body.Bytes(), &p); err != nil || w.Code != 409 || p.Sent == nil {
			t.Errorf("%s, another under its id: %d %s", what, w.Code, w.Body)
		}
		if stored, _ := json.Marshal(p.Stored); !strings.Contains(string(stored), c.stored) {
			t.Errorf("%s: %s is told as what is kept", what, stored)
		}
	}
	// What belongs to another kitchen, or to another card, makes nothing, and nothing half.
	elsewhere := "/api/v1/kitchens/" + kitchenID
	for path, body := range map[string]string{
		"/dishes": `{"id":"` + firstVersion + `",` + oneDish[1:],
		"/bakes":  logged,
		"/cards":  `{"id":"` + fresh() + `","version_id":"` + firstVersion + `","name":"Half","setting":{},"request":` + crumble + `}`,
	} {
		if w := call(h, "POST", elsewhere+path, body); w.Code != 409 {
			t.Errorf("%s with another's id: %d %s", path, w.Code, w.Body)
		}
		if body := call(h, "GET", elsewhere+path, "").Body.String(); strings.Contains(body, `"id"`) {
			t.Errorf("%s is made all the same: %s", path, body)
		}
	}
}

// Pictures and corrections have ids of their own, too.
func TestAPictureAndACorrectionAreKeptOnce(t *testing.T) {
	h, base := theYard(t)
	picture := func(c color.Color) []byte {
		img := image.NewRGBA(image.Rect(0, 0, 30, 20))
		img.Set(1, 1, c)
		var b bytes.Buffer
		if err := jpeg.Encode(&b, img, nil); err != nil {
			t.Fatal(err)
		}
		return b.Bytes()
	}
	at := base + "/pictures/" + uuid.NewString()
	for _, c := range []struct {
		of   color.Color
		code int
	}{{color.White, 201}, {color.White, 201}, {color.Black, 409}} {
		if w := send(h, at, "image/jpeg", picture(c.of)); w.Code != c.code {
			t.Errorf("%v: %d %s", c.of, w.Code, w.Body)
		}
	}
	page := get[api.BakePage](t, call(h, "GET", base+"/bakes", ""), 200)
	first, second := base+"/bakes/"+page.Bakes[0].Id.String()+"/outcome", base+"/bakes/"+page.Bakes[1].Id.String()+"/outcome"
	id := uuid.NewString()
	correction := func(id, juice string) string {
		return `{"correction_id":"` + id + `","outcome":{"juice":"` + juice + `","note":"Put right"}}`
	}
	for i, c := range []struct {
		path, id, juice string
		code            int
	}{
		{first, id, "runny", 200},
		{first, id, "runny", 200},
		{first, id, "saucy", 409},
		{second, id, "runny", 409},
		{first, uuid.NewString(), "mounds", 200},
		{first, id, "runny", 200}, // late, and still the same
		{first, id, "mounds", 409},
	} {
		if w := call(h, "PUT", c.path, correction(c.id, c.juice)); w.Code != c.code {
			t.Errorf("step %d: %d %s", i, w.Code, w.Body)
		}
	}
	b := get[api.Bake](t, call(h, "GET", strings.TrimSuffix(first, "/outcome"), ""), 200)
	if string(*b.Outcome.Juice) != "mounds" || len(b.Corrections) != 2 {
		t.Errorf("%s after %d corrections", *b.Outcome.Juice, len(b.Corrections))
	}
}

// Of two tablets that change one thing the second is reported what the first one made of it.
func TestTwoTabletsChangeOneThing(t *testing.T) {
	h, base := theYard(t)
	dishes := get[[]api.KitchenDish](t, call(h, "GET", base+"/dishes", ""), 200)
	ovens := get[[]api.KitchenOven](t, call(h, "GET", base+"/ovens", ""), 200)
	kitchens := get[[]api.Kitchen](t, call(h, "GET", "/api/v1/kitchens", ""), 200)
	cards := get[api.CardPage](t, call(h, "GET", base+"/cards", ""), 200)
	bakes := get[api.BakePage](t, call(h, "GET", base+"/bakes", ""), 200)
	settings, _ := json.Marshal(kitchens[0].Settings)
	oven := func(name string) string {
		return `{"name":"` + name + `","oven":{"kind":"oven","heating":"fan","offset_c":0,"give_or_take_c":5}}`
	}
	for what, c := range map[string]struct{ path, revision, mine, theirs, stored string }{
		"a dish": {
			"/dishes/" + dishes[0].Id.String(), dishes[0].Revision, strings.Replace(oneDish, "Tin", "Mine", 1),
			strings.Replace(oneDish, "Tin", "Theirs", 1), `"name":"Theirs"`,
		},
		"an oven": {"/ovens/" + ovens[0].Id.String(), ovens[0].Revision, oven("Mine"), oven("Theirs"), `"name":"Theirs"`},
		"settings": {
			"/settings", kitchens[0].Revision, strings.Replace(string(settings), `"heat":"c"`, `"heat":"f"`, 1),
			strings.Replace(string(settings), `"heat":"c"`, `"heat":"gas"`, 1), `"heat":"gas"`,
		},
		"a card": {"/cards/" + cards.Cards[0].Id.String(), cards.Cards[0].Revision, `{"name":"Mine"}`, `{"name":"Theirs"}`, `"name":"Theirs"`},
		"a note": {
			"/bakes/" + bakes.Bakes[0].Id.String() + "/outcome", bakes.Bakes[0].Revision,
			`{"correction_id":"` + uuid.NewString() + `","outcome":{"note":"Mine"}}`,
			`{"correction_id":"` + uuid.NewString() + `","outcome":{"note":"Theirs"}}`, `"note":"Theirs"`,
		},
	} {
		if w := on(h, "PUT", base+c.path, c.revision, c.theirs); w.Code != 200 {
			t.Fatalf("%s, theirs: %d %s", what, w.Code, w.Body)
		}
		w := on(h, "PUT", base+c.path, c.revision, c.mine)
		var p struct {
			Stored struct{ Revision string }
			Sent   any
		}
		if err := json.Unmarshal(
			w.Body.Bytes(),
			&p,
		); err != nil || w.Code != http.StatusPreconditionFailed ||
			p.Sent == nil ||
			!strings.Contains(w.Body.String(), c.stored) {
			t.Errorf("%s, mine upon what was: %d %s", what, w.Code, w.Body)
		}
		if w := on(h, "PUT", base+c.path, p.Stored.Revision, c.mine); w.Code != 200 {
			t.Errorf("%s, mine upon what is: %d %s", what, w.Code, w.Body)
		}
	}
}

// However many change one thing upon the same, one does.
func TestOneOfManyWritersWins(t *testing.T) {
	h, base := theYard(t)
	dish := get[[]api.KitchenDish](t, call(h, "GET", base+"/dishes", ""), 200)[0]
	var all sync.WaitGroup
	codes := make([]int, 8)
	for i := range codes {
		all.Go(func() {
			body := strings.Replace(oneDish, "Tin", "Tin "+string(rune('a'+i)), 1)
			codes[i] = on(h, "PUT", base+"/dishes/"+dish.Id.String(), dish.Revision, body).Code
		})
	}
	all.Wait()
	won := 0
	for _, code := range codes {
		switch code {
		case 200:
			won++
		case http.StatusPreconditionFailed:
		default:
			t.Errorf("answered %d", code)
		}
	}
	if won != 1 {
		t.Errorf("%d of them were taken", won)
	}
}

// A kitchen is taken away by its name alone, with everything in it, and no other one with it.
func TestAKitchenIsTakenAwayByItsName(t *testing.T) {
	h, base := theYard(t)
	const other = "00000000-0000-4000-8000-00000000a100"
	get[api.Kitchen](t, call(h, "POST", "/api/v1/kitchens", `{"id":"`+other+`","name":"Another"}`), 201)
	for name, code := range map[string]int{"": 400, "?name=Another": 400, "?name=": 400} {
		if w := call(h, "DELETE", base+name, ""); w.Code != code {
			t.Errorf("%q: %d %s", name, w.Code, w.Body)
		}
	}
	if w := call(h, "DELETE", base+"?name=Oxlip+Yard", ""); w.Code != 204 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	for _, path := range []string{"/cards", "/bakes", "/watch", "/dishes", "/scale", "/backup.zip"} {
		if w := call(h, "GET", base+path, ""); w.Code != 404 {
			t.Errorf("%s: %d %.100s", path, w.Code, w.Body)
		}
	}
	left := get[[]api.Kitchen](t, call(h, "GET", "/api/v1/kitchens", ""), 200)
	if len(left) != 1 || left[0].Name != "Another" {
		t.Errorf("%+v are left", left)
	}
	if w := call(h, "DELETE", base+"?name=Oxlip+Yard", ""); w.Code != 404 {
		t.Errorf("twice: %d %s", w.Code, w.Body)
	}
}
