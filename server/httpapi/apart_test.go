package httpapi

import (
	"bytes"
	"encoding/json"
	"image"
	"image/jpeg"
	"net/http"
	"regexp"
	"strings"
	"testing"

	"mabbin/api"

	"github.com/gin-gonic/gin"
)

// notMine are the bodies for each route to a thing of a kitchen: all that would be right in its own. A route that is
// added has to be added here.
var notMine = map[string]string{
	"POST /watch/countdowns/:countdown/steps/:step": `{"answer":"done"}`,
	"DELETE /watch/countdowns/:countdown":           "",
	"PUT /dishes/:dish":                             `{"name":"Stolen","count":1,"dish":{"shape":"square","length_cm":20,"depth_cm":5,"material":"glass"}}`,
	"DELETE /dishes/:dish":                          "",
	"PUT /ovens/:oven":                              `{"name":"Stolen","oven":{"kind":"oven","heating":"fan","offset_c":0,"give_or_take_c":5}}`,
	"DELETE /ovens/:oven":                           "",
	"GET /cards/:card":                              "",
	"PUT /cards/:card":                              `{"name":"Stolen"}`,
	"POST /cards/:card/versions": `{"id":"00000000-0000-4000-8000-00000000a001","setting":{},"request":` +
		crumble + `}`,
	"GET /cards/:card/versions/:version/compared-with/:other": "",
	"DELETE /watch/:dessert":                                  "",
	"POST /watch/:dessert":                                    "",
	"POST /watch/:dessert/calls/:call":                        `{"answer":"done"}`,
	"POST /watch/:dessert/rescue":                             `{"trouble":"pale"}`,
	"PUT /watch/:dessert/stages":                              `{"stages":[{"minutes":9,"oven_c":100}]}`,
	"PUT /watch/:dessert/probe":                               `{"place":"middle"}`,
	"PUT /watch/:dessert/simulation":                          `{"speed":10}`,
	"GET /bakes/:bake":                                        "",
	"PUT /bakes/:bake/outcome":                                `{"correction_id":"00000000-0000-4000-8000-00000000a002","outcome":{"juice":"runny"}}`,
	"GET /bakes/:bake/causes":                                 "",
	"GET /bakes/:bake/compared-with/:other":                   "",
	"GET /pictures/:picture":                                  "",
	"POST /pictures/:picture":                                 "a picture",
}

// byKey are routes to a thing that is called by a key, the same in each kitchen.
var byKey = regexp.MustCompile(
	`^((PUT|DELETE) /own/:kind/:key|GET /stock/:key/uses|(GET|PUT|POST) /days/:date.*|PUT /watch/countdowns/:countdown)$`,
)

// No route to a thing of one kitchen reads or changes it under another's address.
func TestNoRouteReachesIntoAnotherKitchen(t *testing.T) {
	h, mine := theYard(t)
	const other = "/api/v1/kitchens/00000000-0000-4000-8000-00000000a000"
	get[api.Kitchen](t, call(h, "POST", "/api/v1/kitchens",
		`{"id":"00000000-0000-4000-8000-00000000a000","name":"Another"}`), 201)
	start := `{"id":"` + wentIn + `","title":"Mine","setting":{"stages":[{"minutes":50,"oven_c":190}]},"request":` + crumble + `}`
	if w := call(h, "POST", mine+"/watch", start); w.Code != 201 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	var picture bytes.Buffer
	if err := jpeg.Encode(&picture, image.NewGray(image.Rect(0, 0, 40, 30)), nil); err != nil {
		t.Fatal(err)
	}
	const pictureID = "00000000-0000-4000-8000-00000000a003"
	get[api.Picture](t, send(h, mine+"/pictures/"+pictureID, "image/jpeg", picture.Bytes()), 201)

	all := func() (out string) {
		for _, list := range []string{"/dishes", "/ovens", "/own", "/cards?limit=200", "/watch", "/bakes?limit=100"} {
			w := call(h, "GET", mine+list, "")
			if w.Code != 200 {
				t.Fatalf("%s: %d %s", list, w.Code, w.Body)
			}
			out += w.Body.String()
		}
		return out
	}
	firstID := func(list, field string) string {
		var rows any
		if err := json.Unmarshal(call(h, "GET", mine+list, "").Body.Bytes(), &rows); err != nil {
			t.Fatal(err)
		}
		if whole, ok := rows.(map[string]any); ok {
			rows = whole[field]
		}
		return rows.([]any)[0].(map[string]any)["id"].(string)
	}
	var watched api.Watch
	if err := json.Unmarshal(call(h, "GET", mine+"/watch", "").Body.Bytes(), &watched); err != nil {
		t.Fatal(err)
	}
	ids := strings.NewReplacer(
		":dish", firstID("/dishes", ""), ":oven", firstID("/ovens", ""), ":card", firstID("/cards", "cards"),
		":version", "1", ":bake", firstID("/bakes", "bakes"), ":picture", pictureID,
		":countdown", wentIn, ":step", "0", ":dessert", wentIn, ":call", watched.Desserts[0].Calls[0].Id.String(),
	)

	e := gin.New()
	new(server).routes(e.Group(""))
	before := all()
	tried := 0
	for _, r := range e.Routes() {
		path, ok := strings.CutPrefix(r.Path, "/kitchens/:kitchen")
		route := r.Method + " " + path
		if !ok || !strings.Contains(path, ":") || byKey.MatchString(route) {
			continue
		}
		body, known := notMine[route]
		if !known {
			t.Errorf("%s: no body to try it with", route)
			continue
		}
		second := "1"
		if strings.Contains(path, ":bake") {
			second = firstID("/bakes", "bakes")
		}
		address := other + strings.ReplaceAll(ids.Replace(path), ":other", second)
		w := call(h, r.Method, address, body)
		if path == "/pictures/:picture" && r.Method == http.MethodPost {
			w = send(h, address, "image/jpeg", picture.Bytes())
		}
		if w.Code < 400 || w.Code >= 500 || w.Code == 400 {
			t.Errorf("%s: %d %.200s", route, w.Code, w.Body)
		}
		tried++
	}
	if tried != len(notMine) {
		t.Errorf("%d routes were tried, %d are written down", tried, len(notMine))
	}
	if after := all(); after != before {
		t.Error("something of the first kitchen has changed")
	}
	// What is called by a key is each kitchen's own.
	if w := call(h, "PUT", other+"/own/fruit/plum", `{"values":{"water_pct":50}}`); w.Code >= 300 {
		t.Errorf("%d %s", w.Code, w.Body)
	}
	if w := call(h, "DELETE", other+"/own/fruit/plum", ""); w.Code >= 300 {
		t.Errorf("%d %s", w.Code, w.Body)
	}
	if after := all(); after != before {
		t.Error("the first kitchen's own figures have changed")
	}
}
