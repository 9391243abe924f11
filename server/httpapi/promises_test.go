package httpapi

import (
	"fmt"
	"net/http"
	"strings"
	"sync"
	"testing"
	"time"

	"mabbin/api"
	"mabbin/server/store"

	"github.com/google/uuid"
)

// inStock returns how many grams of an ingredient a kitchen has in stock.
func inStock(t *testing.T, h http.Handler, base, key string) float64 {
	t.Helper()
	for _, x := range get[api.StockSettings](t, call(h, "GET", base+"/stock", ""), 200).Stock.Items {
		if x.Key == key {
			return x.G
		}
	}
	return 0
}

// together runs do n times at once and returns what each answered.
func together(n int, do func(i int) int) (codes map[int]int) {
	codes = map[int]int{}
	var mu sync.Mutex
	var all sync.WaitGroup
	for i := range n {
		all.Go(func() {
			code := do(i)
			mu.Lock()
			codes[code]++
			mu.Unlock()
		})
	}
	all.Wait()
	return codes
}

func aBake(id string) string {
	return `{"id":"` + id + `","title":"Ours","baked_at":"2026-10-01T12:00:00Z","setting":{"minutes":40},"outcome":{},` +
		`"request":` + crumble + `}`
}

// The same bake, sent several times at once, is logged once and taken out of the stock once.
func TestOneBakeIsTakenOutOfTheStockOnce(t *testing.T) {
	h, base := theYard(t)
	get[api.StockSettings](
		t,
		call(h, "PUT", base+"/stock", `{"items":[{"key":"butter","g":90000}],"rates":{},"packs":{}}`),
		200,
	)
	get[api.Bake](t, call(h, "POST", base+"/bakes", aBake(uuid.NewString())), 201)
	used := 90000 - inStock(t, h, base, "butter")
	if used <= 0 {
		t.Fatal("a crumble uses no butter")
	}
	const rounds = 6
	for range rounds {
		id := uuid.NewString()
		codes := together(4, func(int) int { return call(h, "POST", base+"/bakes", aBake(id)).Code })
		if codes[201] != 4 {
			t.Errorf("answered %v", codes)
		}
	}
	if left := inStock(t, h, base, "butter"); left < 90000-(rounds+1)*used-0.01 || left > 90000-(rounds+1)*used+0.01 {
		t.Errorf("%g g of butter are left after %d bakes of %g g", left, rounds+1, used)
	}
}

// While the stock can't be changed, a bake is not logged either; sent again, both happen.
func TestABakeWithoutItsStockIsNotLogged(t *testing.T) {
	h, base, other := yardWithin(t, store.Limits{Lock: 50 * time.Millisecond})
	before := inStock(t, h, base, "butter")
	held, err := other.Begin(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	if _, err := held.Exec(t.Context(), `select from stock for update`); err != nil {
		t.Fatal(err)
	}
	id := uuid.NewString()
	if w := call(h, "POST", base+"/bakes", aBake(id)); !later(w) {
		t.Errorf("with a locked stock: %d %s", w.Code, w.Body)
	}
	if w := call(h, "GET", base+"/bakes/"+id, ""); w.Code != 404 {
		t.Errorf("\"nothing was saved\", and there is: %d", w.Code)
	}
	if err := held.Rollback(t.Context()); err != nil {
		t.Fatal(err)
	}
	get[api.Bake](t, call(h, "POST", base+"/bakes", aBake(id)), 201)
	if after := inStock(t, h, base, "butter"); after >= before {
		t.Errorf("%g g of butter, %g g before the bake", after, before)
	}
}

// A purchase that is sent again is added once; another one under its id is refused with the stock as it is.
func TestAPurchaseIsAddedOnce(t *testing.T) {
	h, base := theYard(t)
	before, id := inStock(t, h, base, "butter"), uuid.NewString()
	bought := `{"id":"` + id + `","lines":[{"key":"butter","g":500}]}`
	if codes := together(
		4,
		func(int) int { return call(h, "POST", base+"/stock/purchases", bought).Code },
	); codes[200] != 4 {
		t.Errorf("answered %v", codes)
	}
	if after := inStock(t, h, base, "butter"); after != before+500 {
		t.Errorf("%g g after 500 g were added to %g g", after, before)
	}
	if w := call(h, "POST", base+"/stock/purchases", strings.Replace(bought, ":500", ":250", 1)); w.Code != 409 {
		t.Errorf("another purchase under its id: %d %s", w.Code, w.Body)
	}
	if w := call(
		h,
		"POST",
		base+"/stock/purchases",
		`{"lines":[]}`,
	); w.Code != 400 ||
		!strings.Contains(w.Body.String(), "#/id") {
		t.Errorf("without an id: %d %s", w.Code, w.Body)
	}
}

// A countdown that is sent again is the same one; another under its id is refused, also in another kitchen.
func TestACountdownIsStartedOnce(t *testing.T) {
	h, base := theYard(t)
	const elsewhere = "00000000-0000-4000-8000-00000000a100"
	get[api.Kitchen](t, call(h, "POST", "/api/v1/kitchens", `{"id":"`+elsewhere+`","name":"Another"}`), 201)
	at, start := "/watch/countdowns/"+uuid.NewString(), func(hour string) string {
		return `{"title":"Crumble","ready":{"bench":{"setting":{},"request":` + crumble + `},"serve":"warm","ready_at":"2026-10-01T` +
			hour + `:00:00Z"}}`
	}
	for i, c := range []struct {
		path, hour string
		code       int
	}{
		{base, "12", 204},
		{base, "12", 204},
		{base, "13", 409},
		{"/api/v1/kitchens/" + elsewhere, "12", 409},
	} {
		if w := call(h, "PUT", c.path+at, start(c.hour)); w.Code != c.code {
			t.Errorf("step %d: %d, want %d: %s", i, w.Code, c.code, w.Body)
		}
	}
}

// Of many who change one document of a kitchen from the same revision one does, also where it is not saved yet.
func TestOneOfManyWritersOfADocumentWins(t *testing.T) {
	h, base := theYard(t)
	card := firstCard(t, h, base)
	resources := get[api.ResourceSettings](t, call(h, "GET", base+"/resources", ""), 200)
	newDay := get[api.Day](t, call(h, "GET", base+"/days/2026-12-24", ""), 200)
	for what, c := range map[string]struct {
		path, revision string
		body           func(i int) string
	}{
		"the resources": {"/resources", resources.Revision, func(i int) string {
			return fmt.Sprintf(`{"wash_min":%d,"ovens":[],"people":[],"places":[],"mixers":1}`, i)
		}},
		"a day that is not saved": {"/days/2026-12-24", newDay.Revision, func(i int) string {
			return fmt.Sprintf(`{"orders":[{"id":"x","card":"%s","dishes":1,"due_min":%d,"serve":"warm"}]}`, card, 600+i)
		}},
	} {
		codes := together(10, func(i int) int { return on(h, "PUT", base+c.path, c.revision, c.body(i)).Code })
		if codes[200] != 1 || codes[412] != 9 {
			t.Errorf("%s: answered %v", what, codes)
		}
	}
}

// "If-Match: *" is for what exists.
func TestAnyRevisionMeansThatItExists(t *testing.T) {
	h, base := theYard(t)
	oven := `{"name":"New","oven":{"kind":"oven","heating":"fan","offset_c":0,"give_or_take_c":5}}`
	get[api.Day](t, call(h, "PUT", base+"/days/2026-12-25", `{"orders":[]}`), 200)
	there := get[[]api.KitchenOven](t, call(h, "GET", base+"/ovens", ""), 200)[0].Id.String()
	for _, c := range []struct {
		path, body string
		code       int
	}{
		{"/ovens/" + uuid.NewString(), oven, 412},
		{"/ovens/" + there, oven, 200},
		{"/days/2026-12-24", `{"orders":[]}`, 412},
		{"/days/2026-12-25", `{"orders":[]}`, 200},
		{"/cards/" + firstCard(t, h, base), `{"name":"Mine"}`, 200},
	} {
		if w := upon(h, "PUT", base+c.path, c.body, "*"); w.Code != c.code {
			t.Errorf("%s: %d, want %d: %s", c.path, w.Code, c.code, w.Body)
		}
	}
}

// A plan that is answered is stored: also after portions were counted, and for orders that come every week. One whose
// orders changed meanwhile is refused.
func TestAPlanIsStoredOrRefused(t *testing.T) {
	h, base := theYard(t)
	const saturday, next = "/days/2026-10-17", "/days/2026-10-24"
	card := firstCard(t, h, base)
	orders := func(due int, more string) string {
		return fmt.Sprintf(`{"orders":[{"id":"x","card":"%s","dishes":1,"due_min":%d,"serve":"warm","weekly":true}]%s}`,
			card, due, more)
	}
	planned := func(at string) {
		t.Helper()
		lay := get[api.Day](t, call(h, "POST", base+at+"/schedule", `{"iterations":20}`), 200)
		if now := get[api.Day](t, call(h, "GET", base+at, ""), 200); now.Schedule == nil || now.Stale || lay.Stale ||
			len(now.Request.Orders) != 1 || lay.Revision != now.Revision {
			t.Errorf("%s is answered as planned, and stored as %+v", at, now)
		}
	}
	get[api.Day](t, call(h, "PUT", base+saturday, orders(720, `,"sold":[{"card":"`+card+`","made":8,"left":1}]`)), 200)
	planned(saturday)
	get[api.Day](t, call(h, "PUT", base+saturday, orders(780, `,"sold":[{"card":"`+card+`","made":8,"left":1}]`)), 200)
	planned(saturday)
	planned(next)

	answered := make(chan int)
	go func() {
		answered <- call(h, "POST", base+saturday+"/schedule", `{"iterations":0,"time_limit_ms":1500,"afresh":true}`).Code
	}()
	for due := 600; ; due++ { // until it is answered, so that the orders change while it is planned
		get[api.Day](t, call(h, "PUT", base+saturday, orders(due, "")), 200)
		select {
		case code := <-answered:
			if code != http.StatusPreconditionFailed {
				t.Errorf("its orders changed, and it is answered %d", code)
			}
			return
		default:
		}
	}
}

// A stage without time is refused when a card is saved; a day with a card that has one from before is planned.
func TestAStageWithoutTime(t *testing.T) {
	h, base := theYard(t)
	const setting = `"setting":{"stages":[{"minutes":0,"oven_c":180}]}`
	card := firstCard(t, h, base)
	for path, body := range map[string]string{
		"/cards":                       `{"id":"` + uuid.NewString() + `","version_id":"` + uuid.NewString() + `","name":"None",` + setting + `,"request":` + crumble + `}`,
		"/cards/" + card + "/versions": `{"id":"` + uuid.NewString() + `",` + setting + `,"request":` + crumble + `}`,
	} {
		w := call(h, "POST", base+path, body)
		if w.Code != 400 || !strings.Contains(w.Body.String(), "#/setting/stages/0/minutes") {
			t.Errorf("%s: %d %s", path, w.Code, w.Body)
		}
	}
	long := strings.Repeat(`{"minutes":2000,"oven_c":180},`, 3)
	w := call(h, "POST", base+"/cards/"+card+"/versions", `{"id":"`+uuid.NewString()+`","setting":{"stages":[`+
		long[:len(long)-1]+`]},"request":`+crumble+`}`)
	if w.Code != 400 || !strings.Contains(w.Body.String(), "#/setting/stages") {
		t.Errorf("100 hours: %d %s", w.Code, w.Body)
	}
}

// The dishes of a day are limited when its orders are saved.
func TestADayHoldsSoManyDishes(t *testing.T) {
	h, base := theYard(t)
	card := firstCard(t, h, base)
	var orders []string
	for i := range 4 {
		orders = append(orders, fmt.Sprintf(`{"id":"%d","card":"%s","dishes":40,"due_min":720,"serve":"warm"}`, i, card))
	}
	w := call(h, "PUT", base+"/days/2026-12-24", `{"orders":[`+strings.Join(orders, ",")+`]}`)
	if w.Code != 400 || !strings.Contains(w.Body.String(), "#/orders") || !strings.Contains(w.Body.String(), "120") {
		t.Errorf("160 dishes: %d %s", w.Code, w.Body)
	}
	get[api.Day](t, call(h, "PUT", base+"/days/2026-12-24", `{"orders":[`+strings.Join(orders[:3], ",")+`]}`), 200)
}

// Problems name the field: also for a number that is too large, a key with "/" or "~", and a field inside a request
// within another request.
func TestProblemsNameTheField(t *testing.T) {
	h, base := theYard(t)
	bad := strings.Replace(crumble, `"style":"crumble"`, `"style":"soup"`, 1)
	for _, c := range []struct{ method, path, body, pointer string }{
		{"POST", "/api/v1/balance", strings.Replace(crumble, ":24", ":1e400", 1), `"#/dish/length_cm"`},
		{"PUT", base + "/days/2026-12-24", `{"orders":[{"id":"x","card":"x","dishes":1e30,"due_min":1,"serve":"warm"}]}`, `"#/orders/0/dishes"`},
		{"PUT", base + "/days/2026-12-24", `{"orders":[],"sold":[{"card":"x","made":1e400,"left":0}]}`, `"#/sold/0/made"`},
		{"POST", base + "/bakes", strings.Replace(aBake(uuid.NewString()), `"setting"`, `"card_id":"`+uuid.NewString()+`","version":2147483648,"setting"`, 1), `"#/version"`},
		{"PUT", base + "/stock", `{"items":[{"key":"butter","g":1e308}],"packs":{}}`, `"#/items/0/g"`},
		{"PUT", base + "/stock", `{"items":[{"key":"butter","g":1},{"key":"butter","g":1}],"packs":{}}`, `"#/items/1/key"`},
		{"PUT", base + "/stock", `{"items":[],"packs":{"a/b~c":[{"g":0,"minor":1}]}}`, `"#/packs/a~1b~0c/0/g"`},
		{"POST", base + "/stock/purchases", `{"id":"` + uuid.NewString() + `","lines":[{"key":"butter","g":1e308}]}`, `"#/lines/0/g"`},
		{"POST", "/api/v1/bench/ready-by", `{"bench":{"setting":{},"request":` + bad + `},"serve":"warm","ready_at":"2026-10-01T12:00:00Z"}`, `"#/bench/request/style"`},
		{"PUT", base + "/watch/countdowns/" + uuid.NewString(), `{"title":"x","ready":{"bench":{"setting":{},"request":` +
			strings.Replace(crumble, `"share":1`, `"share":0`, 1) + `},"serve":"warm","ready_at":"2026-10-01T12:00:00Z"}}`, `"#/ready/bench/request/fruits`},
		{"PUT", base + "/watch/countdowns/" + uuid.NewString(), `{"title":"x","ready":{"bench":{"setting":{},"request":` + crumble +
			`},"serve":"warm","ready_at":"2027-10-01T12:00:00Z"}}`, `"#/ready/ready_at"`},
	} {
		w := call(h, c.method, c.path, c.body)
		if w.Code != 400 || !strings.Contains(w.Body.String(), `"pointer":`+c.pointer) {
			t.Errorf("%s %s: %d, want %s in %s", c.method, c.path, w.Code, c.pointer, w.Body)
		}
	}
}

// A card that is gone has an entry with the reason among the labels, and takes no batch number.
func TestALabelOfACardThatIsGone(t *testing.T) {
	h, base := theYard(t)
	there := firstCard(t, h, base)
	body := `{"cards":[{"card":"` + uuid.NewString() + `","dishes":1},{"card":"` + there + `","dishes":1}]}`
	all := get[api.CardLabels](t, call(h, "POST", base+"/labels", body), 200).Labels
	if len(all) != 2 || all[0].Reason == nil || all[0].Batch != "" || all[0].Label != nil {
		t.Fatalf("the one that is gone: %+v", all)
	}
	alone := get[api.CardLabels](
		t,
		call(h, "POST", base+"/labels", `{"cards":[{"card":"`+there+`","dishes":1}]}`),
		200,
	).Labels
	if all[1].Batch != alone[0].Batch || all[1].Batch == "" {
		t.Errorf("batch %q beside it, and %q alone", all[1].Batch, alone[0].Batch)
	}
}

// A bake is in an oven for as long as a forecast can take, and no longer.
func TestABakeHasItsLength(t *testing.T) {
	h, base := theYard(t)
	start := `{"id":"` + wentIn + `","title":"Mine","setting":{"stages":[{"minutes":50,"oven_c":190}]},"request":` + crumble + `}`
	if w := call(h, "POST", base+"/watch", start); w.Code != 201 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	for minutes, code := range map[string]int{"400": 200, "2000": 400} {
		w := call(h, "PUT", base+"/watch/"+wentIn+"/stages", `{"stages":[{"minutes":`+minutes+`,"oven_c":150}]}`)
		if w.Code != code {
			t.Errorf("%s min: %d %s", minutes, w.Code, w.Body)
		}
	}
	long := strings.Replace(start, `:50`, `:2000`, 1)
	if w := call(h, "POST", base+"/watch", strings.Replace(long, wentIn, uuid.NewString(), 1)); w.Code != 400 ||
		!strings.Contains(w.Body.String(), "480") {
		t.Errorf("into the oven for 2,000 min: %d %s", w.Code, w.Body)
	}
}
