package httpapi

import (
	"context"
	"encoding/json"
	"fmt"
	"log/slog"
	"math"
	"net/http"
	"slices"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"mabbin/api"
	"mabbin/core/compare"
	"mabbin/server/demo"
	"mabbin/server/store"
	"mabbin/server/store/storetest"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

func TestCardsAreFoundByWhatTheyAre(t *testing.T) {
	h, base := theYard(t)
	for query, want := range map[string]int{
		"": 13, "words=CRUMBLE": 3, "words=%25": 0, "style=bar": 2, "fruit=apple_firm": 1, "fruit=rhubarb": 1, "shape=oval": 2, "shape=round&style=cobbler": 1,
		"diet=nut_free&style=crisp": 0, "diet=egg_free&style=bar": 1, "archived=true": 0, "most=6&style=pie": 0, "most=99": 13,
	} {
		p := get[api.CardPage](t, call(h, "GET", base+"/cards?"+query, ""), 200)
		if p.All != want || len(p.Cards) != want {
			names := []string{}
			for _, c := range p.Cards {
				names = append(names, c.Name)
			}
			t.Errorf("%s: %d, want %d: %v", query, p.All, want, names)
		}
	}
	first := get[api.CardPage](t, call(h, "GET", base+"/cards?limit=5", ""), 200)
	rest := get[api.CardPage](t, call(h, "GET", base+"/cards?from=5&limit=50", ""), 200)
	if first.All != 13 || len(first.Cards) != 5 || len(rest.Cards) != 8 ||
		slices.ContainsFunc(rest.Cards, func(c api.ListedCard) bool { return c.Id == first.Cards[4].Id }) {
		t.Errorf("%d and %d of %d", len(first.Cards), len(rest.Cards), first.All)
	}
	for i, c := range first.Cards[1:] {
		if c.Newest.SavedAt.After(first.Cards[i].Newest.SavedAt) {
			t.Errorf("%s is not in its place", c.Name)
		}
	}
	if b := first.Cards[0].Brief; b == nil || b.Ingredients < 3 {
		t.Errorf("%+v", b)
	}
	if w := call(h, "GET", base+"/cards?shape=star", ""); w.Code != 400 {
		t.Errorf("a star: %d", w.Code)
	}
}

// A tile tells what the Bench tells: the same grams, portions and band, in the card's own oven.
func TestATileTellsWhatTheBenchTells(t *testing.T) {
	h, base := theYard(t)
	for _, c := range get[api.CardPage](t, call(h, "GET", base+"/cards?limit=50", ""), 200).Cards {
		body, err := json.Marshal(map[string]any{
			"kitchen": demo.Kitchen.ID, "request": c.Newest.Request, "setting": c.Newest.Setting,
		})
		if err != nil {
			t.Fatal(err)
		}
		w := call(h, "POST", "/api/v1/bench", string(body))
		var a struct {
			Balance struct {
				FruitG, SugarG, ThickenerG, ToppingG float64
				Set                                  struct{ Band string }
				Portions                             struct{ Count float64 }
			}
		}
		names := strings.NewReplacer(
			`"fruit_g"`,
			`"FruitG"`,
			`"sugar_g"`,
			`"SugarG"`,
			`"thickener_g"`,
			`"ThickenerG"`,
			`"topping_g"`,
			`"ToppingG"`,
		)
		if w.Code != 200 || json.Unmarshal([]byte(names.Replace(w.Body.String())), &a) != nil {
			t.Fatalf("%s: %d %.300s", c.Name, w.Code, w.Body)
		}
		b := a.Balance
		same := func(tile, bench float64) bool { // the Bench answers with the digits that are shown
			return math.Abs(tile-bench) <= 1e-4*math.Abs(tile)
		}
		if c.Brief == nil || !same(c.Brief.FruitG, b.FruitG) || !same(c.Brief.SugarG, b.SugarG) ||
			!same(c.Brief.ThickenerG, b.ThickenerG) || !same(c.Brief.ToppingG, b.ToppingG) ||
			string(c.Brief.Band) != b.Set.Band || c.Brief.Portions != b.Portions.Count {
			t.Errorf("%s: the tile tells %+v, the Bench %+v", c.Name, c.Brief, b)
		}
	}
}

// Cards carry the occasions that they are for, in the kitchen's own words, and are found by them.
func TestCardsAreFoundByOccasion(t *testing.T) {
	h, base := theYard(t)
	found := func(query string) api.CardPage {
		return get[api.CardPage](t, call(h, "GET", base+"/cards?"+query, ""), 200)
	}
	if p := found("tag=MARKET"); p.All != 2 || !slices.Contains(p.Tags, "market") {
		t.Errorf("%d for the market, of %v", p.All, p.Tags)
	}
	if p := found("words=open+gard"); p.All != 1 {
		t.Errorf("%d by a word of a tag", p.All)
	}
	card := base + "/cards/" + found("words=plum").Cards[0].Id.String()
	c := get[api.Card](t, call(h, "PUT", card, `{"tags":["  birthday ","Birthday","bank   holiday"]}`), 200)
	if strings.Join(c.Tags, "|") != "birthday|bank holiday" || c.Name != "Plum betty" {
		t.Errorf("%+v", c.Tags)
	}
	if p := found("tag=birthday"); p.All != 1 || strings.Join(p.Cards[0].Tags, "|") != "birthday|bank holiday" {
		t.Errorf("%+v", p)
	}
	if w := call(
		h,
		"PUT",
		card,
		`{"tags":["   "]}`,
	); w.Code != 422 && w.Code != 400 ||
		!strings.Contains(w.Body.String(), "/tags/0") {
		t.Errorf("an empty tag: %d %s", w.Code, w.Body)
	}
	if c := get[api.Card](t, call(h, "PUT", card, `{"tags":[]}`), 200); len(c.Tags) != 0 {
		t.Errorf("%v", c.Tags)
	}
}

func TestACardIsNamedPutAwayAndCompared(t *testing.T) {
	h, base := theYard(t)
	found := get[api.CardPage](t, call(h, "GET", base+"/cards?words=gooseberry", ""), 200)
	card := base + "/cards/" + found.Cards[0].Id.String()
	if c := get[api.Card](
		t,
		call(h, "PUT", card, `{"name":"Green crumble"}`),
		200,
	); c.Name != "Green crumble" || c.Archived ||
		len(c.Versions) != 2 {
		t.Errorf("%+v", c)
	}
	if c := get[api.Card](t, call(h, "PUT", card, `{"archived":true}`), 200); !c.Archived || c.Name != "Green crumble" {
		t.Errorf("%+v", c)
	}
	if p := get[api.CardPage](t, call(h, "GET", base+"/cards?archived=true", ""), 200); len(p.Cards) != 1 {
		t.Errorf("%d put away", len(p.Cards))
	}
	rows := get[[]compare.Row](t, call(h, "GET", card+"/versions/1/compared-with/2", ""), 200)
	sweeter := slices.ContainsFunc(rows, func(r compare.Row) bool {
		return r.Name.String() == "sweetness of the filling" && !r.A.Equal(r.B)
	})
	if !sweeter {
		t.Errorf("%+v", rows)
	}
	for path, code := range map[string]int{card + "/versions/1/compared-with/7": 404, base + "/cards/" + demo.Kitchen.ID.String() + "/versions/1/compared-with/2": 404} {
		if w := call(h, "GET", path, ""); w.Code != code {
			t.Errorf("%s: %d", path, w.Code)
		}
	}
	if w := call(h, "PUT", card, `{"name":""}`); w.Code != 400 || !strings.Contains(w.Body.String(), "#/name") {
		t.Errorf("no name: %d %s", w.Code, w.Body)
	}
	if w := call(h, "PUT", base+"/cards/"+demo.Kitchen.ID.String(), `{"archived":true}`); w.Code != 404 {
		t.Errorf("no card: %d", w.Code)
	}
}

// A page of 5,000 cards, whole and by a diet that each has to be calculated for once, and those that use something up.
func BenchmarkAPageOfManyCards(b *testing.B) {
	dsn := storetest.DSN(b)
	s, err := store.Open(b.Context(), dsn)
	if err != nil {
		b.Fatal(err)
	}
	defer s.Close()
	if err := s.Migrate(b.Context()); err != nil {
		b.Fatal(err)
	}
	if _, err := demo.Load(b.Context(), s, time.Now()); err != nil {
		b.Fatal(err)
	}
	c, err := pgx.Connect(b.Context(), dsn)
	if err != nil {
		b.Fatal(err)
	}
	defer func() { _ = c.Close(context.Background()) }()
	for i := range 5000 {
		id, v := uuid.New(), uuid.New()
		if _, err := c.Exec(b.Context(), `with one as (insert into card (id, kitchen_id, name) values ($1, $2, $3))
			insert into card_version (id, kitchen_id, card_id, number, request, saved_at)
			select $4, kitchen_id, $1, 1, request, now() - $5 * interval '1 minute' from card_version where card_id <> $1 limit 1`, id, demo.Kitchen.ID, fmt.Sprint("Card ", i), v, i); err != nil {
			b.Fatal(err)
		}
	}
	h, err := New(Config{Store: s, Log: slog.New(slog.DiscardHandler), Clock: time.Now}, fstest.MapFS{"index.html": {}})
	if err != nil {
		b.Fatal(err)
	}
	for name, path := range map[string]string{
		"first": "/cards", "words": "/cards?words=49", "diet": "/cards?diet=nut_free", "used-up": "/stock/butter/uses",
	} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				if w := call(h, http.MethodGet, "/api/v1/kitchens/"+demo.Kitchen.ID.String()+path, ""); w.Code != 200 {
					b.Fatal(w.Code, w.Body)
				}
			}
		})
	}
}
