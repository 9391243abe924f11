package httpapi

import (
	"net/http"
	"slices"
	"strings"
	"testing"

	"mabbin/api"
	"mabbin/core/sell"
)

// A dessert on the Bench tells how it keeps and freezes, and what it costs in other dishes, in the words of its
// kitchen; a bad one names its field in each.
func TestTheBenchSells(t *testing.T) {
	h, yard := theYard(t)
	kitchen := strings.TrimPrefix(yard, "/api/v1/kitchens/")
	body := `{"kitchen":"` + kitchen + `","setting":{},"request":` + crumble + `}`
	k := get[sell.Keeping](t, call(h, http.MethodPost, "/api/v1/bench/keeping", body), http.StatusOK)
	for text, want := range map[string]string{
		k.Rewarm.String(): "74 °C", k.Freeze.String(): "until hard", k.Hold.String(): "63 °C", k.Keep.String(): "days",
		k.Serve.String(): "Serve it",
	} {
		if !strings.Contains(text, want) {
			t.Errorf("%q, want %q in it", text, want)
		}
	}
	others := get[api.OtherCosts](
		t,
		call(h, http.MethodPost, "/api/v1/bench/cost/alternatives", body),
		http.StatusOK,
	).Others
	dishes := slices.DeleteFunc(slices.Clone(others), func(o sell.OtherCost) bool { return o.Kind != sell.InDish })
	if len(dishes) < 5 || len(others) == len(dishes) {
		t.Errorf("%d other dishes of %d changes", len(dishes), len(others))
	}
	outlook := get[api.DessertForecast](t, call(h, http.MethodPost, "/api/v1/bench/forecast", body), http.StatusOK)
	if len(outlook.TopSpread) != 4 || outlook.Ask.IsZero() {
		t.Errorf("%+v", outlook)
	}
	bad := strings.Replace(body, "gooseberry", "moss", 1)
	for _, path := range []string{"/api/v1/bench/keeping", "/api/v1/bench/cost/alternatives", "/api/v1/bench/forecast"} {
		if w := call(h, http.MethodPost, path, bad); w.Code < 400 || !strings.Contains(w.Body.String(), "/fruits/0/key") {
			t.Errorf("%s: %d %s", path, w.Code, w.Body)
		}
	}
}

// What is in store is used up by a card in dishes of the shelf; what is not there is not found.
func TestWhatIsInStoreIsUsedUp(t *testing.T) {
	h, yard := theYard(t)
	uses := get[api.CardUses](t, call(h, http.MethodGet, yard+"/stock/apple_sharp/uses", ""), http.StatusOK).Uses
	if len(uses) == 0 || uses[0].Name != "Windfall apple ramekin" || uses[0].UsesG+uses[0].LeftG < 4199 ||
		uses[0].LeftG > 1000 {
		t.Errorf("%+v", uses)
	}
	butter := get[api.CardUses](t, call(h, http.MethodGet, yard+"/stock/butter/uses", ""), http.StatusOK).Uses
	if len(butter) < 4 {
		t.Errorf("%d cards use butter up", len(butter))
	}
	if w := call(h, http.MethodGet, yard+"/stock/moonshine/uses", ""); w.Code != http.StatusNotFound {
		t.Errorf("moonshine: %d %s", w.Code, w.Body)
	}
}

// What was learnt is kept with how sure it is: the Bench predicts by it without the log, and a watch says that there is
// something new.
func TestForecastsUseTheFindings(t *testing.T) {
	h, yard := theYard(t)
	kitchen := strings.TrimPrefix(yard, "/api/v1/kitchens/")
	body := `{"kitchen":"` + kitchen + `","setting":{},"request":` + crumble + `}`
	predicted := func() api.DessertForecast {
		return get[api.DessertForecast](t, call(h, http.MethodPost, "/api/v1/bench/forecast", body), http.StatusOK)
	}
	before := predicted()
	if !strings.Contains(before.Basis.String(), "kitchens in general") {
		t.Errorf("before anything was learnt: %s", before.Basis)
	}
	watched := get[api.Watch](t, call(h, http.MethodGet, yard+"/watch", ""), http.StatusOK)
	text := `{"off":[],"left_out":[],"changed":[]}`
	get[api.KitchenFindings](t, call(h, http.MethodPut, yard+"/findings", text), http.StatusOK)
	x := learnt(t, h, yard)
	if len(x.Histories) < 2 || x.Histories[0].Kind != "oven_offset" || len(x.Histories[0].Points) < 3 ||
		!strings.Contains(x.Histories[0].Points[0].Text.String(), ": ") {
		t.Errorf("%d histories: %+v", len(x.Histories), x.Histories)
	}
	after := predicted()
	wide := func(o api.DessertForecast) float64 { return o.Forecast.SetScore.P95 - o.Forecast.SetScore.P05 }
	if !strings.Contains(after.Basis.String(), "in your log") || wide(after) > wide(before)*1.01 {
		t.Errorf("%s, %g wide, before %g", after.Basis, wide(after), wide(before))
	}
	if now := get[api.Watch](t, call(h, http.MethodGet, yard+"/watch", ""), http.StatusOK); now.Learnt <= watched.Learnt {
		t.Errorf("learnt %d times, before %d", now.Learnt, watched.Learnt)
	}
}
