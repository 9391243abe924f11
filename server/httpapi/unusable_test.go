package httpapi

import (
	"log/slog"
	"strconv"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"mabbin/api"
	"mabbin/server/demo"
	"mabbin/server/store"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// brokenBy opens a store with the demo kitchen, and what breaks a row in it past every rule.
func brokenBy(t *testing.T) (*store.Store, func(table, sql string, args ...any)) {
	t.Helper()
	dsn := yardCopy(t)
	return openYard(t, dsn, store.Limits{}), func(table, sql string, args ...any) {
		t.Helper()
		c, err := pgx.Connect(t.Context(), dsn)
		if err != nil {
			t.Fatal(err)
		}
		defer func() { _ = c.Close(t.Context()) }()
		for _, one := range []string{`alter table ` + table + ` disable trigger user`, sql, `alter table ` + table + ` enable trigger user`} {
			given := args
			if one != sql {
				given = nil
			}
			if _, err := c.Exec(t.Context(), one, given...); err != nil {
				t.Fatal(err)
			}
		}
	}
}

// A dessert whose data can't be used any more is shown as such, and can be taken off; the others, and other kitchens,
// notice nothing.
func TestADessertThatCannotBeUsedHarmsNoOther(t *testing.T) {
	for what, sql := range map[string]string{
		"no stages":           `update watch set stages = '[]' where id = $1`,
		"a prediction of old": `update watch set answer = '{"plan":7}' where id = $1`,
		"no curves":           `update watch set answer = jsonb_set(answer, '{plan,answer,curves,minute}', '[]') where id = $1`,
		"another request":     `update watch set question = '{"request":{"dish":"round"}}' where id = $1`,
	} {
		t.Run(what, func(t *testing.T) {
			s, spoil := brokenBy(t)
			var now clock
			now.at.Store(time.Date(2026, 10, 1, 12, 0, 0, 0, time.UTC).Unix())
			cfg := Config{Store: s, Log: slog.New(slog.DiscardHandler), Clock: now.now, Events: new(Events)}
			h, err := New(cfg, fstest.MapFS{"index.html": {}})
			if err != nil {
				t.Fatal(err)
			}
			const elsewhere = "00000000-0000-4000-8000-00000000e001"
			get[api.Kitchen](t, call(h, "POST", "/api/v1/kitchens", `{"id":"`+elsewhere+`","name":"Elsewhere"}`), 201)
			mine := "/api/v1/kitchens/" + demo.Kitchen.ID.String() + "/watch"
			goesIn := func(base string) string {
				id := uuid.NewString()
				body := `{"id":"` + id + `","title":"Crumble","setting":{"stages":[{"minutes":50,"oven_c":190}]},"request":` + crumble + `}`
				get[api.WatchedDessert](t, call(h, "POST", base, body), 201)
				get[api.WatchedDessert](t, call(h, "PUT", base+"/"+id+"/probe", `{"place":"middle"}`), 200)
				return id
			}
			bad, good := goesIn(mine), goesIn(mine)
			other := goesIn("/api/v1/kitchens/" + elsewhere + "/watch")
			spoil("watch", sql, bad)

			for range 8 { // a probe drops out now and then
				now.pass(1)
				if err := OvenWatch(cfg).Poll(t.Context()); err == nil || !strings.Contains(err.Error(), bad) {
					t.Errorf("the round of the probes tells nothing of it: %v", err)
				}
			}
			list := get[api.Watch](t, call(h, "GET", mine, ""), 200)
			if len(list.Unusable) != 1 || list.Unusable[0].Id.String() != bad || len(list.Desserts) != 1 ||
				list.Desserts[0].Id.String() != good || len(list.Desserts[0].Readings) == 0 {
				t.Errorf("%d can't be used, %d can", len(list.Unusable), len(list.Desserts))
			}
			there := get[api.Watch](t, call(h, "GET", "/api/v1/kitchens/"+elsewhere+"/watch", ""), 200)
			if len(there.Desserts) != 1 || there.Desserts[0].Id.String() != other || len(there.Desserts[0].Readings) == 0 {
				t.Errorf("another kitchen's probe was not read: %d desserts", len(there.Desserts))
			}
			if w := call(h, "POST", mine+"/"+bad+"/rescue", `{"trouble":"pale"}`); w.Code != 409 ||
				!strings.Contains(w.Body.String(), "can't be read") {
				t.Errorf("%d %s", w.Code, w.Body)
			}
			if w := call(h, "DELETE", mine+"/"+bad, ""); w.Code != 204 {
				t.Errorf("it can't be taken off: %d %s", w.Code, w.Body)
			}
			if list := get[api.Watch](t, call(h, "GET", mine, ""), 200); len(list.Unusable) != 0 {
				t.Error("it is still there")
			}
		})
	}
}

// A card and a bake that can't be read any more are named, and everything else of the kitchen is there: lists, exports,
// other cards.
func TestWhatCannotBeReadIsNamed(t *testing.T) {
	s, spoil := brokenBy(t)
	h := newServer(t, s)
	cards := get[api.CardPage](t, call(h, "GET", theYards+"/cards", ""), 200)
	bakes := get[api.BakePage](t, call(h, "GET", theYards+"/bakes?limit=100", ""), 200)
	if len(cards.Unusable)+len(bakes.Unusable) > 0 || len(bakes.Bakes) != 54 {
		t.Fatalf("%d cards, %d bakes of %d can't be used", len(cards.Unusable), len(bakes.Unusable), len(bakes.Bakes))
	}
	card, bake := cards.Cards[0], bakes.Bakes[3]
	spoil("card_version", `update card_version set request = '{"dish":"round"}' where card_id = $1`, card.Id)
	spoil("bake", `update bake set result = '{"set":[1]}', details = '{"rim_min":"soon"}' where id = $1`, bake.Id)
	now := get[api.CardPage](t, call(h, "GET", theYards+"/cards", ""), 200)
	if len(now.Cards) != len(cards.Cards)-1 || len(now.Unusable) != 1 || now.Unusable[0].Title != card.Name {
		t.Errorf("%d cards of %d, %+v", len(now.Cards), len(cards.Cards), now.Unusable)
	}
	log := get[api.BakePage](t, call(h, "GET", theYards+"/bakes?limit=100", ""), 200)
	if len(log.Bakes) != 53 || len(log.Unusable) != 1 || log.Unusable[0].Title != bake.Title {
		t.Errorf("%d bakes, %+v", len(log.Bakes), log.Unusable)
	}
	for _, path := range []string{"/cards/" + card.Id.String(), "/bakes/" + bake.Id.String(), "/bakes/" + bake.Id.String() + "/causes"} {
		if w := call(h, "GET", theYards+path, ""); w.Code != 409 || !strings.Contains(w.Body.String(), "can't be read") {
			t.Errorf("%s: %d %.200s", path, w.Code, w.Body)
		}
	}
	for path, wants := range map[string]string{"/bakes.csv": "54 bakes", "/bakes.json": `"count":54`, "/backup.zip": "contents.json"} {
		if w := call(h, "GET", theYards+path, ""); w.Code != 200 || !strings.Contains(w.Body.String(), wants) {
			t.Errorf("%s: %d", path, w.Code)
		}
	}
}

// Only so many desserts run ahead of the clock at once; the next one is reported why it does not.
func TestOnlySoManyRunAhead(t *testing.T) {
	h, base := theYard(t)
	var last string
	for i := range 5 {
		id := uuid.NewString()
		body := `{"id":"` + id + `","title":"Crumble","setting":{"stages":[{"minutes":50,"oven_c":190}]},"request":` + crumble + `}`
		get[api.WatchedDessert](t, call(h, "POST", base+"/watch", body), 201)
		w := call(h, "PUT", base+"/watch/"+id+"/simulation", `{"speed":60}`)
		if i < 4 && w.Code != 200 || i == 4 && (w.Code != 400 || !strings.Contains(w.Body.String(), "#/speed")) {
			t.Errorf("dessert %d: %d %s", i+1, w.Code, w.Body)
		}
		last = id
	}
	if w := call(h, "PUT", base+"/watch/"+last+"/simulation", `{"speed":1}`); w.Code != 200 {
		t.Errorf("as fast as the clock: %d %s", w.Code, w.Body)
	}
}

// What is wrong in very many places is reported in an answer that somebody can read.
func TestManyFaultsAreShortened(t *testing.T) {
	h := newServer(t, away(t))
	for _, body := range []string{
		"{" + strings.Repeat(`"a/b":1,`, 1) + `"` + strings.Repeat("/", 100_000) + `":1}`,
		strings.Replace(crumble, "{", `{"own":{"fruits":{"plum":{"values":{`+strings.Repeat(`"/":-1,`, 1)+manyKeys(9000)+`}}}},`, 1),
	} {
		w := call(h, "POST", "/api/v1/balance", body)
		if w.Code != 400 || w.Body.Len() > 60_000 {
			t.Errorf("%d, %d bytes: %.200s", w.Code, w.Body.Len(), w.Body)
		}
	}
}

func manyKeys(n int) string {
	all := make([]string, n)
	for i := range all {
		all[i] = `"/` + strconv.Itoa(i) + `":-1`
	}
	return strings.Join(all, ",")
}
