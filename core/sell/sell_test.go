package sell

import (
	"encoding/json"
	"math"
	"math/rand/v2"
	"os"
	"reflect"
	"slices"
	"strings"
	"testing"

	"mabbin/core/larder"
)

// worked are the worked cases of one calculation.
func worked[Q any](t testing.TB, name string, each func(name string, q Q, expect map[string]any)) {
	t.Helper()
	raw, err := os.ReadFile("testdata/sell-cases.json")
	if err != nil {
		t.Fatal(err)
	}
	var some map[string]json.RawMessage
	if err := json.Unmarshal(raw, &some); err != nil {
		t.Fatal(err)
	}
	var all []struct {
		Name    string
		Request Q
		Expect  map[string]any
	}
	if err := json.Unmarshal(some[name], &all); err != nil || len(all) == 0 {
		t.Fatal(err, len(all))
	}
	for _, c := range all {
		each(c.Name, c.Request, c.Expect)
	}
}

// agrees holds an answer against what is expected: money exactly, weights to 0.06 g, percentages to 0.05.
func agrees(t *testing.T, at string, got, want any) {
	t.Helper()
	switch w := want.(type) {
	case map[string]any:
		g, ok := got.(map[string]any)
		if !ok {
			t.Errorf("%s: %v, want %v", at, got, want)
			return
		}
		for k, x := range w {
			agrees(t, at+"/"+k, g[k], x)
		}
	case []any:
		g, ok := got.([]any)
		if !ok || len(g) != len(w) {
			t.Errorf("%s: %v, want %v", at, got, want)
			return
		}
		for i, x := range w {
			agrees(t, at, g[i], x)
		}
	case float64:
		g, ok := got.(float64)
		may := 0.06
		if strings.HasSuffix(at, "minor") || strings.HasSuffix(at, "count") {
			may = 0
		}
		if !ok || math.Abs(g-w) > may {
			t.Errorf("%s: %v, want %v", at, got, want)
		}
	default:
		if !reflect.DeepEqual(got, want) {
			t.Errorf("%s: %v, want %v", at, got, want)
		}
	}
}

func asJSON(t testing.TB, x any) any {
	t.Helper()
	raw, err := json.Marshal(x)
	if err != nil {
		t.Fatal(err)
	}
	var out any
	if err := json.Unmarshal(raw, &out); err != nil {
		t.Fatal(err)
	}
	return out
}

func TestWorkedSums(t *testing.T) {
	worked(t, "cost", func(name string, q CostRequest, expect map[string]any) {
		a, err := CostOf(q)
		if err != nil {
			t.Fatal(err)
		}
		agrees(t, name, asJSON(t, a), any(expect))
	})
	worked(t, "shopping", func(name string, q ShoppingRequest, expect map[string]any) {
		a, err := ShoppingList(q)
		if err != nil {
			t.Fatal(err)
		}
		agrees(t, name, asJSON(t, a), any(expect))
	})
	worked(t, "label", func(name string, q LabelRequest, expect map[string]any) {
		a, err := LabelOf(q)
		if err != nil {
			t.Fatal(err)
		}
		agrees(t, name, asJSON(t, a), any(expect))
	})
}

// By hand: a crumble of six lines with yield, packs and tax.
func TestASumByHand(t *testing.T) {
	g := func(x float64) *float64 { return &x }
	q := CostRequest{
		Lines: []Line{
			{Key: "rhubarb", G: 850},
			{Key: "caster_sugar", G: 150},
			{Key: "cornflour", G: 20},
			{Key: "wheat_flour", G: 240},
			{Key: "butter", G: 120},
			{Key: "egg", G: 58},
		},
		Prices: map[string]Price{
			"rhubarb": {PackG: g(400), Minor: 180}, "caster_sugar": {PackG: g(1000), Minor: 170},
			"cornflour": {PackG: g(500), Minor: 150}, "wheat_flour": {PackG: g(1500), Minor: 120},
			"butter": {PackG: g(250), Minor: 230}, "egg": {PieceG: g(58), Minor: 35},
		},
		Oven:     &OvenUse{KW: 2.5, WarmMin: 12, HoldMin: 50, Duty: 0.5, MinorPerKWh: 30, Share: 1},
		Portions: 8, WantedSharePct: 30, TaxPct: 20, EndingMinor: 5,
	}
	a, err := CostOf(q)
	if err != nil {
		t.Fatal(err)
	}
	rhubarb, _ := larder.Fruits.Get("rhubarb")
	bought := 850 / rhubarb.YieldUnpeeled * 1.02
	food := bought*180/400 + 150*.17 + 20*.3 + 240*.08 + 120*.92 + 35
	if math.Abs(float64(a.Ingredients)-food) > 0.5 || a.Oven != 46 { // 2.5 x (12 + 25) / 60 x 30 = 46.25
		t.Errorf("ingredients %d, by hand %.2f; oven %d", a.Ingredients, food, a.Oven)
	}
	net := food / 8 / 0.3 * 1.2
	if want := int64(5 * math.Ceil(net/5)); *a.Price != want {
		t.Errorf("price %d, by hand %d", *a.Price, want)
	}
	q.Lines = append(q.Lines, Line{Key: "nutmeg", G: 1})
	if b, err := CostOf(q); err != nil || b.Total != nil || !slices.Equal(b.Unpriced, []string{"nutmeg"}) {
		t.Errorf("%+v, %v", b, err)
	}
}

// What is bought and in store covers what is needed, what is left over is the rest, and no other packs are cheaper.
func TestTheListCovers(t *testing.T) {
	rng := rand.New(rand.NewPCG(3, 4))
	keys := []string{"plum", "butter", "wheat_flour", "caster_sugar", "rhubarb"}
	for range 300 {
		q := ShoppingRequest{Packs: map[string][]Pack{}}
		for _, k := range keys {
			q.Needs = append(q.Needs, Line{Key: k, G: float64(1 + rng.IntN(3000))}, Line{Key: k, G: float64(rng.IntN(400))})
			q.Stock = append(q.Stock, Stored{k, float64(rng.IntN(1500))})
			for range rng.IntN(4) {
				q.Packs[k] = append(q.Packs[k], Pack{float64(50 * (1 + rng.IntN(30))), int64(20 + rng.IntN(400))})
			}
		}
		a, err := ShoppingList(q)
		if err != nil {
			t.Fatal(err)
		}
		for _, b := range a.Buy {
			if b.LeftG < -1e-6 || math.Abs(b.StockG+b.BoughtG-b.NeedG-b.LeftG) > 1e-6 {
				t.Fatalf("%+v", b)
			}
			if len(q.Packs[b.Key]) == 0 || b.ShortG == 0 {
				continue
			}
			for _, p := range q.Packs[b.Key] {
				if alone := p.Minor * int64(math.Ceil(b.ShortG/p.G)); alone < *b.Minor {
					t.Fatalf("%+v costs %d, and %g g packs alone %d", b, *b.Minor, p.G, alone)
				}
			}
		}
	}
}

func TestLabels(t *testing.T) {
	q := LabelRequest{
		Name: "Plum crumble", FinishedG: 900, Named: []string{"plum"}, Region: "us",
		Parts: []Part{{Lines: []Line{{Key: "plum", G: 700}, {Key: "rolled_oats", G: 100}, {Key: "butter", G: 60}}}},
	}
	a, err := LabelOf(q)
	if err != nil {
		t.Fatal(err)
	}
	if text := a.Text.String(); !slices.Equal(a.Contains, []string{"milk"}) || !strings.Contains(text, "Plum 77.8 %") ||
		!strings.Contains(text, "Butter (MILK)") {
		t.Errorf("%s, %v", text, a.Contains)
	}
	q.Region = "eu"
	if a, err := LabelOf(q); err != nil || !slices.Equal(a.Contains, []string{"gluten-oats", "milk"}) {
		t.Errorf("%+v, %v", a, err)
	}
	// What has to be read on a packet is asked, and nothing is printed.
	q.Parts[0].Lines = append(q.Parts[0].Lines, Line{Key: "mixed_spice", G: 3})
	if _, err := LabelOf(q); err == nil || !strings.Contains(err.Error(), "/parts/0/lines/3/key") {
		t.Errorf("an unread label: %v", err)
	}
	none := []string{}
	q.Own = &larder.Own{Ingredients: map[string]larder.OwnRow{"mixed_spice": {Allergens: &none}}}
	if _, err := LabelOf(q); err != nil {
		t.Errorf("a label that was read: %v", err)
	}
}

func TestBadSums(t *testing.T) {
	zero := 0.0
	for want, err := range map[string]error{
		"/portions":         CheckCost(CostRequest{Lines: []Line{{Key: "plum", G: 1}}, WantedSharePct: 30}),
		"/lines/0/key":      CheckCost(CostRequest{Lines: []Line{{Key: "gravel", G: 1}}, WantedSharePct: 30, Portions: 1}),
		"/prices/plum/pack": CheckCost(CostRequest{Lines: []Line{{Key: "plum", G: 1}}, Prices: map[string]Price{"plum": {PackG: &zero}}, WantedSharePct: 30, Portions: 1}),
		"/store/0/g":        CheckShopping(ShoppingRequest{Needs: []Line{{Key: "plum", G: 1}}, Stock: []Stored{{"plum", -1}}}),
		"/needs":            CheckShopping(ShoppingRequest{}),
		"/region":           CheckLabel(LabelRequest{Region: "moon", FinishedG: 100, Parts: []Part{{Lines: []Line{{Key: "plum", G: 1}}}}}),
		"/finished_g":       CheckLabel(LabelRequest{Region: "eu", Parts: []Part{{Lines: []Line{{Key: "plum", G: 1}}}}}),
	} {
		if err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%s: %v", want, err)
		}
	}
}

func FuzzShopping(f *testing.F) {
	worked(f, "shopping", func(_ string, q ShoppingRequest, _ map[string]any) {
		raw, err := json.Marshal(q)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(raw)
	})
	f.Fuzz(func(t *testing.T, raw []byte) {
		var q ShoppingRequest
		if json.Unmarshal(raw, &q) != nil {
			return
		}
		a, err := ShoppingList(q)
		if err != nil {
			return
		}
		for _, b := range a.Buy {
			if b.LeftG < -1e-3 || math.IsNaN(b.LeftG) {
				t.Errorf("%+v", b)
			}
		}
	})
}

// A list over two hundred cards.
func BenchmarkShopping(b *testing.B) {
	var q ShoppingRequest
	worked(b, "shopping", func(_ string, x ShoppingRequest, _ map[string]any) {
		if q.Packs == nil {
			q.Packs = map[string][]Pack{}
		}
		for range 50 {
			q.Needs = append(q.Needs, x.Needs...)
		}
		for k, p := range x.Packs {
			q.Packs[k] = p
		}
	})
	b.ReportAllocs()
	for b.Loop() {
		if _, err := ShoppingList(q); err != nil {
			b.Fatal(err)
		}
	}
}
