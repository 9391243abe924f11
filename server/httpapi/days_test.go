package httpapi

import (
	"encoding/json"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"mabbin/api"
	"mabbin/server/demo"
	"mabbin/server/store/storetest"
)

// aKitchen is the demo kitchen at noon of a Monday.
func aKitchen(t *testing.T) (h http.Handler, base string) {
	t.Helper()
	s := storetest.Open(t)
	now := time.Date(2026, 10, 12, 12, 0, 0, 0, time.UTC)
	if _, err := demo.Load(t.Context(), s, now); err != nil {
		t.Fatal(err)
	}
	h, err := New(
		Config{Store: s, Log: slog.New(slog.DiscardHandler), Clock: func() time.Time { return now }},
		fstest.MapFS{"index.html": {}},
	)
	if err != nil {
		t.Fatal(err)
	}
	return h, "/api/v1/kitchens/" + demo.Kitchen.ID.String()
}

func upon(h http.Handler, method, path, body, revision string) *httptest.ResponseRecorder {
	r := httptest.NewRequest(method, "http://127.0.0.1"+path, strings.NewReader(body))
	r.Header.Set("Content-Type", "application/json")
	r.Header.Set("If-Match", revision)
	w := httptest.NewRecorder()
	h.ServeHTTP(w, r)
	return w
}

func TestADayIsStoredAndPlanned(t *testing.T) {
	h, base := aKitchen(t)
	saturday := base + "/days/2026-10-17"
	d := get[api.Day](t, call(h, "GET", saturday, ""), 200)
	if len(d.Request.Orders) != 8 || d.Schedule != nil {
		t.Fatalf("the demo's Saturday: %+v", d)
	}
	card := d.Request.Orders[0].Card
	order := func(id, more string) string {
		return `{"id":"` + id + `","card":"` + card + `","dishes":1,"due_min":720,"serve":"warm"` + more + `}`
	}
	for name, c := range map[string]struct{ path, body, says string }{
		"no date":         {base + "/days/2026-13-40", `{"orders":[]}`, "is not a date"},
		"no card":         {saturday, `{"orders":[{"id":"x","card":"00000000-0000-4000-8000-000000000001","dishes":1,"due_min":720,"serve":"hot"}]}`, "/orders/0/card"},
		"one name twice":  {saturday, `{"orders":[` + order("x", "") + `,` + order("x", "") + `]}`, "/orders/1/id"},
		"no dishes":       {saturday, `{"orders":[{"id":"x","card":"` + card + `","dishes":0,"due_min":720,"serve":"hot"}]}`, "/orders/0/dishes"},
		"an unknown word": {saturday, `{"orders":[` + order("x", `,"tepid":1`) + `]}`, "tepid"},
	} {
		if w := call(h, "PUT", c.path, c.body); w.Code < 400 || w.Code >= 500 || !strings.Contains(w.Body.String(), c.says) {
			t.Errorf("%s: %d %s", name, w.Code, w.Body)
		}
	}
	// of two tablets the second sees what the first one did
	one := `{"orders":[` + order("Lunch", `,"weekly":true`) + `]}`
	first := get[api.Day](t, upon(h, "PUT", saturday, one, d.Revision), 200)
	if w := upon(
		h,
		"PUT",
		saturday,
		`{"orders":[]}`,
		d.Revision,
	); w.Code != 412 ||
		!strings.Contains(w.Body.String(), "Lunch") {
		t.Errorf("upon what was there before: %d %s", w.Code, w.Body)
	}
	schedule := get[api.Day](t, call(h, "POST", saturday+"/schedule", `{"iterations":60}`), 200)
	if schedule.Schedule == nil || schedule.Stale || schedule.Revision != first.Revision ||
		!schedule.Schedule.Plan.Feasible {
		t.Fatalf("laid: %+v", schedule.Schedule)
	}
	if again := get[api.Day](t, upon(h, "PUT", saturday, `{"orders":[]}`, schedule.Revision), 200); !again.Stale {
		t.Error("with other orders the plan is not of yesterday")
	}
	// what comes every week is there the week after
	get[api.Day](t, call(h, "PUT", saturday, one), 200)
	if next := get[api.Day](t, call(h, "GET", base+"/days/2026-10-24", ""), 200); len(next.Request.Orders) != 1 {
		t.Errorf("a week later: %+v", next.Request)
	}
	get[api.Day](t, call(h, "POST", saturday+"/schedule", `{"iterations":60}`), 200)
	if w := call(h, "GET", saturday+"/day.csv", ""); w.Code != 200 || !strings.Contains(w.Body.String(), "Lunch") {
		t.Errorf("the table: %d %s", w.Code, w.Body)
	}
	w := call(h, "GET", base+"/calendar.ics", "")
	if text := w.Body.String(); strings.Count(text, "\n") != strings.Count(text, "\r\n") {
		t.Error("a line of the calendar does not end with CRLF")
	}
	if w.Code != 200 || !strings.Contains(w.Body.String(), "BEGIN:VEVENT") ||
		strings.Contains(w.Body.String(), "DTSTART:20261017T120000Z") {
		t.Errorf("the calendar, by the clock on the wall: %d %.400s", w.Code, w.Body)
	}
}

// A bake that is logged takes what it used out of the store, once.
func TestALoggedBakeTakesFromTheStore(t *testing.T) {
	h, base := aKitchen(t)
	butter := func() float64 {
		for _, x := range get[api.StockSettings](t, call(h, "GET", base+"/stock", ""), 200).Stock.Items {
			if x.Key == "butter" {
				return x.G
			}
		}
		return 0
	}
	before := butter()
	logged := `{"id":"00000000-0000-4000-8000-00000000b001","title":"Gooseberry crumble","baked_at":"2026-10-12T11:00:00Z",` +
		`"setting":{},"outcome":{},"request":` + crumble + `}`
	get[api.Bake](t, call(h, "POST", base+"/bakes", logged), 201)
	after := butter()
	if after >= before-50 || after <= 0 {
		t.Errorf("%.0f g of butter were there, and %.0f g are", before, after)
	}
	get[api.Bake](t, call(h, "POST", base+"/bakes", logged), 201)
	if twice := butter(); twice != after {
		t.Errorf("logged twice it takes twice: %.0f g, then %.0f g", after, twice)
	}
	for body, text := range map[string]string{
		`{"items":[{"key":"moonshine","g":5}],"packs":{}}`: "/items/0/key",
		`{"items":[{"key":"butter","g":-5}],"packs":{}}`:   "/items/0/g",
	} {
		if w := call(
			h,
			"PUT",
			base+"/stock",
			body,
		); w.Code != 400 && w.Code != 422 ||
			!strings.Contains(w.Body.String(), text) {
			t.Errorf("%s: %d %s", body, w.Code, w.Body)
		}
	}
}

// What is in the oven by the watch is in the day, and what changes there makes the day's plan one of before.
func TestTheWatchMovesTheDay(t *testing.T) {
	h, base := aKitchen(t)
	today := base + "/days/2026-10-12"
	card := get[api.Day](t, call(h, "GET", base+"/days/2026-10-17", ""), 200).Request.Orders[1].Card
	c := get[api.Card](t, call(h, "GET", base+"/cards/"+card, ""), 200)
	tea := `{"orders":[{"id":"Tea","card":"` + card + `","dishes":1,"due_min":1020,"serve":"warm"}]}`
	get[api.Day](t, call(h, "PUT", today, tea), 200)
	schedule := get[api.Day](t, call(h, "POST", today+"/schedule", `{"iterations":60}`), 200)
	if schedule.Stale || len(schedule.Schedule.Baking) != 0 {
		t.Fatalf("nothing is in an oven: %+v", schedule.Schedule.Baking)
	}
	request, err := json.Marshal(c.Versions[0].Request)
	if err != nil {
		t.Fatal(err)
	}
	in := `{"id":"00000000-0000-4000-8000-00000000c001","title":"Tea","card_id":"` + card +
		`","version":1,"setting":{"stages":[{"minutes":50,"oven_c":190}]},"request":` + string(request) + `}`
	if w := call(h, "POST", base+"/watch", in); w.Code != 201 {
		t.Fatalf("into the oven: %d %s", w.Code, w.Body)
	}
	if now := get[api.Day](t, call(h, "GET", today, ""), 200); !now.Stale {
		t.Error("it is in the oven at noon, and the day was laid for later")
	}
	schedule = get[api.Day](t, call(h, "POST", today+"/schedule", `{"iterations":60}`), 200)
	if schedule.Stale || len(schedule.Schedule.Baking) != 1 {
		t.Fatalf("laid with it: %v, %+v", schedule.Stale, schedule.Schedule.Baking)
	}
	for _, x := range schedule.Schedule.Plan.Schedule {
		if x.Task == "Tea.bake" && (x.Start != 720 || x.End != 770) {
			t.Errorf("it is in from 12:00 for 50 min: %+v", x)
		}
	}
	if len(schedule.Schedule.Moved) == 0 {
		t.Error("it moved, and nothing says so")
	}
}

// What was left at closing tells how much to make on the same weekday, and changes no plan.
func TestWhatWasSoldTellsHowManyToMake(t *testing.T) {
	h, base := aKitchen(t)
	saturday := base + "/days/2026-10-17"
	reported := get[[]api.HowMany](t, call(h, "GET", saturday+"/how-many", ""), 200)
	if len(reported) != 4 || reported[0].Name != "Apricot cobbler" || reported[0].Days != 4 || reported[0].Guess {
		t.Fatalf("a month of Saturdays: %+v", reported)
	}
	if monday := get[[]api.HowMany](t, call(h, "GET", base+"/days/2026-10-12/how-many", ""), 200); len(monday) != 0 {
		t.Errorf("Saturdays tell nothing of a Monday: %+v", monday)
	}
	one := `{"orders":[{"id":"Lunch","card":"` + reported[0].Card.String() + `","dishes":1,"due_min":720,"serve":"warm"}]}`
	get[api.Day](t, call(h, "PUT", saturday, one), 200)
	schedule := get[api.Day](t, call(h, "POST", saturday+"/schedule", `{"iterations":30}`), 200)
	schedule.Request.Sold = append(schedule.Request.Sold, api.DaySold{Card: reported[0].Card.String(), Made: 9, Left: 9})
	body, err := json.Marshal(schedule.Request)
	if err != nil {
		t.Fatal(err)
	}
	if counted := get[api.Day](t, call(h, "PUT", saturday, string(body)), 200); counted.Stale {
		t.Error("to count what is left lays no day anew")
	}
	later := get[[]api.HowMany](t, call(h, "GET", base+"/days/2026-10-24/how-many", ""), 200)
	if later[0].Median >= reported[0].Median {
		t.Errorf("nobody wanted one: %d after %d", later[0].Median, reported[0].Median)
	}
	schedule.Request.Sold[0].Left = 12
	body, _ = json.Marshal(schedule.Request)
	if w := call(h, "PUT", saturday, string(body)); w.Code != 400 || !strings.Contains(w.Body.String(), "/sold/0/left") {
		t.Errorf("more left than made: %d %s", w.Code, w.Body)
	}
}

// Each logged bake has a number of its day, however often it is sent; from a lot one finds the bakes it went into.
func TestFromALotToItsBakes(t *testing.T) {
	h, base := aKitchen(t)
	log := func(id, lot string) api.Bake {
		return get[api.Bake](t, call(h, "POST", base+"/bakes", `{"id":"00000000-0000-4000-8000-00000000d00`+id+
			`","title":"Trace `+id+`","baked_at":"2026-10-12T11:00:00Z","setting":{},"request":`+crumble+
			`,"outcome":{"details":{"made_by":"Tamsin","lots":{"butter":"`+lot+`"}}}}`), 201)
	}
	one, two, again := log("1", "L-77"), log("2", "L-78"), log("1", "L-77")
	if !strings.HasPrefix(one.Batch, "121026-") || one.Batch == two.Batch || again.Batch != one.Batch {
		t.Errorf("batches %q, %q and once more %q", one.Batch, two.Batch, again.Batch)
	}
	for words, want := range map[string]string{"L-78": "Trace 2", one.Batch: "Trace 1"} {
		found := get[api.BakePage](t, call(h, "GET", base+"/bakes?words="+words, ""), 200).Bakes
		if len(found) != 1 || found[0].Title != want {
			t.Errorf("with %s: %d bakes", words, len(found))
		}
	}
	long := strings.Repeat("x", 90)
	if w := call(
		h,
		"POST",
		base+"/bakes",
		`{"id":"00000000-0000-4000-8000-00000000d009","title":"Long","baked_at":"2026-10-12T11:00:00Z",`+
			`"setting":{},"request":`+crumble+`,"outcome":{"details":{"lots":{"butter":"`+long+`"}}}}`,
	); w.Code != 400 {
		t.Errorf("a lot of 90 letters: %d %s", w.Code, w.Body)
	}
	card := get[api.Day](t, call(h, "GET", base+"/days/2026-10-17", ""), 200).Request.Orders[0].Card
	labels := get[api.CardLabels](
		t,
		call(h, "POST", base+"/labels", `{"cards":[{"card":"`+card+`","dishes":1}]}`),
		200,
	).Labels
	if len(labels) != 1 || !strings.HasPrefix(labels[0].Batch, "121026-") || labels[0].Batch <= two.Batch {
		t.Errorf("the next label is of %+v", labels)
	}
}
