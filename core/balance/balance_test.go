package balance

import (
	"encoding/json"
	"fmt"
	"math"
	"os"
	"strconv"
	"strings"
	"testing"

	"mabbin/core/dish"
	"mabbin/core/fault"
	"mabbin/core/filling"
)

type workedCase struct {
	Name    string
	Request Request
	Expect  map[string]any
}

func workedCases(t testing.TB) []workedCase {
	t.Helper()
	b, err := os.ReadFile("testdata/balance-cases.json")
	if err != nil {
		t.Fatal(err)
	}
	var cases []workedCase
	if err := json.Unmarshal(b, &cases); err != nil {
		t.Fatal(err)
	}
	return cases
}

// agree compares what a case expects with the answer, field by field as they stand in JSON:
// 0.5 %, or 0.05 in the unit shown. What the answer has in addition to is not looked at.
func agree(t *testing.T, at string, want, got any) {
	t.Helper()
	switch w := want.(type) {
	case map[string]any:
		g, _ := got.(map[string]any)
		for k, v := range w {
			agree(t, at+"/"+k, v, g[k])
		}
	case []any:
		g, _ := got.([]any)
		if len(g) != len(w) {
			t.Errorf("%s has %d entries, want %d", at, len(g), len(w))
			return
		}
		for i, v := range w {
			agree(t, fmt.Sprintf("%s/%d", at, i), v, g[i])
		}
	case float64:
		g, ok := got.(float64)
		if !ok || math.Abs(g-w) > max(0.05, 0.005*math.Abs(w)) {
			t.Errorf("%s = %v, want %v", at, got, w)
		}
	default:
		if got != want {
			t.Errorf("%s = %v, want %v", at, got, want)
		}
	}
}

func asJSON(t *testing.T, v any) map[string]any {
	t.Helper()
	b, err := json.Marshal(v)
	if err != nil {
		t.Fatal(err)
	}
	var m map[string]any
	if err := json.Unmarshal(b, &m); err != nil {
		t.Fatal(err)
	}
	return m
}

func TestWorkedCases(t *testing.T) {
	for _, c := range workedCases(t) {
		t.Run(c.Name, func(t *testing.T) {
			a, err := Solve(c.Request)
			if err != nil {
				t.Fatal(err)
			}
			agree(t, "", c.Expect, asJSON(t, a))
		})
	}
}

// The juice and the set know nothing of styles: given what a dessert weighs, they must agree for every style.
func TestJuiceAndSetOfEveryStyle(t *testing.T) {
	for _, c := range workedCases(t) {
		t.Run(c.Name, func(t *testing.T) {
			number := func(m map[string]any, key string) float64 { v, _ := m[key].(float64); return v }
			want := c.Expect["ledger"].(map[string]any)
			d, err := resolve(c.Request)
			if _, later := fault.AsNotYet(err); err != nil && !later {
				t.Fatal(err)
			}
			// The dough's share of the soak is what is left when crumbs and dried fruit have had theirs.
			crumbs := 1.2 * c.Request.CrumbLayerG
			for _, e := range c.Request.Extras {
				if e.Key == "raisins" {
					crumbs += 0.7 * e.G
				}
			}
			s := d.filling.At(number(c.Expect, "fruit_g"), number(c.Expect, "sugar_g"),
				filling.Use{SteamedOffG: number(want, "steamed_off_g"), DoughSoakG: number(want, "soaked_up_g") - crumbs})
			agree(t, "/ledger", want, asJSON(t, s.Ledger))
			agree(t, "/acid_pct", c.Expect["acid_pct"], s.AcidPct)
			agree(t, "/juice_share_pct", c.Expect["juice_share_pct"], s.JuiceSharePct)
			score := number(c.Expect["set"].(map[string]any), "score")
			agree(
				t,
				"/set/score",
				score,
				s.Score([]filling.Dose{{Thickener: d.thickener, G: number(c.Expect, "thickener_g")}}, false),
			)
			if c.Request.Thickener.G == nil {
				agree(t, "/thickener_g", c.Expect["thickener_g"], s.Solve(score, d.thickener, nil, false))
			}
		})
	}
}

func gooseberries() Request {
	var r Request
	err := json.Unmarshal(
		[]byte(`{"dish":{"shape":"rectangle","length_cm":24,"width_cm":18,"depth_cm":5,"material":"stoneware"},
		"style":"crumble","topping":{"key":"crumble_classic"},"thickener":{"key":"cornflour"},"fruits":[{"key":"gooseberry","share":1}]}`),
		&r,
	)
	if err != nil {
		panic(err)
	}
	return r
}

func solve(t *testing.T, change func(*Request)) *Answer {
	t.Helper()
	r := gooseberries()
	change(&r)
	a, err := Solve(r)
	if err != nil {
		t.Fatal(err)
	}
	return a
}

func has(a *Answer, code string) bool {
	for _, r := range a.Remarks {
		if r.Code == code {
			return true
		}
	}
	return false
}

func ptr[T any](v T) *T { return &v }

func TestBothDirectionsOfTheSetMeet(t *testing.T) {
	for _, key := range []string{"cornflour", "wheat_flour", "wholemeal_flour", "tapioca_starch", "tapioca_granules", "arrowroot", "potato_starch", "waxy_maize", "rice_flour", "custard_powder"} {
		for _, target := range []float64{2, 3.6, 5, 8} {
			a := solve(t, func(r *Request) { r.Thickener.Key = key; r.SetTarget = &target })
			b := solve(t, func(r *Request) {
				r.Thickener = &ThickenerInput{Key: key, G: &a.ThickenerG}
				r.WeighedFruitG, r.SugarG = &a.FruitG, &a.SugarG
			})
			if math.Abs(b.Set.Score-target) > 0.01 {
				t.Errorf("%s: %.1f g were solved for a set of %.1f and read as %.3f", key, a.ThickenerG, target, b.Set.Score)
			}
		}
	}
}

func TestMixedThickenersAddUp(t *testing.T) {
	alone := solve(t, func(r *Request) { r.WeighedFruitG = ptr(800.0) })
	mixed := solve(t, func(r *Request) {
		r.WeighedFruitG = ptr(800.0)
		r.Thickener.With = []Quantity{{"wheat_flour", 10}}
	})
	saved := alone.ThickenerG - mixed.ThickenerG
	// 10 g of flour at 0.45, which acid weakens less than it does cornflour
	if want := 10 * 0.45 * (1 - 0.08*1.4/1.7) / (1 - 0.2*1.4/1.7); math.Abs(saved-want) > 0.01 {
		t.Errorf("10 g of flour save %.2f g of cornflour, want %.2f", saved, want)
	}
	if mixed.Set.Score != alone.Set.Score {
		t.Errorf("the set moved from %g to %g", alone.Set.Score, mixed.Set.Score)
	}
}

func TestWhatRaisesTheJuiceRaisesTheThickener(t *testing.T) {
	plain := solve(t, func(r *Request) { r.WeighedFruitG = ptr(800.0) })
	for name, change := range map[string]func(*Request){
		"frozen":                      func(r *Request) { r.Fruits[0].Frozen = true },
		"washed":                      func(r *Request) { r.Washed = true },
		"water":                       func(r *Request) { r.Liquids = []Quantity{{"water", 50}} },
		"light topping soaks up less": func(r *Request) { r.Topping.Amount = "light" },
		"a smaller cut":               func(r *Request) { r.Fruits[0].CutMM = 8 },
		"sweeter":                     func(r *Request) { r.Sweetness = "sweet" },
	} {
		a := solve(t, func(r *Request) { r.WeighedFruitG = ptr(800.0); change(r) })
		if a.JuiceG <= plain.JuiceG || a.ThickenerG <= plain.ThickenerG {
			t.Errorf(
				"%s: juice %.1f g after %.1f, thickener %.1f g after %.1f",
				name,
				a.JuiceG,
				plain.JuiceG,
				a.ThickenerG,
				plain.ThickenerG,
			)
		}
	}
}

func TestLedgerLinesRunToTheJuice(t *testing.T) {
	for _, c := range workedCases(t) {
		a, err := Solve(c.Request)
		if err != nil {
			continue
		}
		sum := 0.0
		for _, l := range a.LedgerLines {
			sum += l.G
			if math.Abs(sum-l.RunningG) > 1e-9 || l.Source.IsZero() || l.Basis == "" {
				t.Errorf("%s: line %+v, running sum %.3f", c.Name, l, sum)
			}
		}
		if math.Abs(sum-a.JuiceG) > 1e-6 {
			t.Errorf("%s: the lines come to %.3f g, the juice is %.3f g", c.Name, sum, a.JuiceG)
		}
	}
}

func TestTicketWeighsWhatTheAnswerSays(t *testing.T) {
	a := solve(t, func(r *Request) {
		r.Liquids, r.Extras = []Quantity{{"lemon_juice", 20}}, []Quantity{{"butter", 30}}
		r.CrumbLayerG = 12
	})
	sum := map[string]float64{}
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			sum[b.Key] += l.G
			if l.Shown == "" || l.Name == "" {
				t.Errorf("%s: a line without figure or name: %+v", b.Key, l)
			}
		}
	}
	for bowl, want := range map[string]float64{"fruit": a.FruitG + 50, "dry": a.SugarG + a.ThickenerG, "topping": a.ToppingG, "crumbs": 12} {
		if math.Abs(sum[bowl]-want) > 1e-6 {
			t.Errorf("the %s bowl weighs %.2f g, want %.2f", bowl, sum[bowl], want)
		}
	}
	if got := a.Allergens.Contains; len(got) != 2 || got[0] != "gluten-wheat" || got[1] != "milk" {
		t.Errorf("allergens %v, want wheat and milk", got)
	}
}

func TestBakersPercentagesCanBeChanged(t *testing.T) {
	a := solve(t, func(r *Request) {
		r.Topping.BakersPct = map[string]float64{"butter": 100, "salt": 0, "rolled_oats": 40}
	})
	lines := a.Ticket[len(a.Ticket)-1].Lines
	flour, g := lines[0].G, map[string]float64{}
	for _, l := range lines {
		g[l.Key] = l.G
	}
	if math.Abs(g["butter"]-flour) > 1e-9 || math.Abs(g["rolled_oats"]-0.4*flour) > 1e-9 {
		t.Errorf("flour %.1f g, but %v", flour, g)
	}
	if _, there := g["salt"]; there {
		t.Error("0 % of salt is on the ticket")
	}
	for change, verdict := range map[string]string{"butter 20": "topping_dusty", "butter 150": "topping_spreads", "caster_sugar 10": "topping_pale", "caster_sugar 120": "topping_candied"} {
		key, pct, _ := strings.Cut(change, " ")
		x, err := strconv.ParseFloat(pct, 64)
		if err != nil {
			t.Fatal(err)
		}
		if a := solve(t, func(r *Request) { r.Topping.BakersPct = map[string]float64{key: x} }); !has(a, verdict) {
			t.Errorf("%s: no remark %s; texture %+v", change, verdict, a.Topping.Texture)
		}
	}
}

func TestPurchase(t *testing.T) {
	a := solve(t, func(r *Request) {
		r.Fruits = []FruitInput{{Key: "apple_firm", Share: 1, Size: "medium", LossPct: 20}}
		r.WeighedFruitG = ptr(900.0)
	})
	b := a.Purchase[0]
	if want := 900 / 0.77 / 0.8; math.Abs(b.G-want) > 0.01 {
		t.Errorf("buy %.1f g, want %.1f", b.G, want)
	}
	if b.Count != 8 || math.Abs(b.LeftOverG-(8*202-b.G)*0.77*0.8) > 0.01 {
		t.Errorf("%+v: want 8 apples and what is left of them", b)
	}
	unpeeled := solve(t, func(r *Request) {
		r.Fruits = []FruitInput{{Key: "apple_firm", Share: 1, Peeled: ptr(false)}}
		r.WeighedFruitG = ptr(900.0)
	})
	if unpeeled.Purchase[0].G >= 900/0.77 {
		t.Errorf("unpeeled apples lose as much as peeled ones: %+v", unpeeled.Purchase[0])
	}
	if c := solve(t, func(*Request) {}).Purchase[0].Count; c != 0 {
		t.Errorf("gooseberries are counted: %g of them", c)
	}
}

func TestToleranceKeepsTheBand(t *testing.T) {
	a := solve(t, func(r *Request) { r.SetTarget = ptr(3.7) })
	if a.FruitToleranceG < 20 {
		t.Fatalf("give or take %g g", a.FruitToleranceG)
	}
	for _, off := range []float64{-a.FruitToleranceG, a.FruitToleranceG} {
		b := solve(t, func(r *Request) {
			r.WeighedFruitG, r.SugarG = ptr(a.FruitG+off), &a.SugarG
			r.Thickener.G = &a.ThickenerG
		})
		if b.Set.Band != a.Set.Band || b.Fit.HotHeadspaceMM < boilOverWarnMM {
			t.Errorf("%+.0f g of fruit: %s at %.1f mm", off, b.Set.Band, b.Fit.HotHeadspaceMM)
		}
	}
}

// However odd a request, the answer is finite numbers or an error.
func FuzzSolve(f *testing.F) {
	f.Add(24.0, 18.0, 5.0, 800.0, 150.0, 20.0, 1.0, 10.0, uint8(0))
	f.Add(3.0, 3.0, 20.0, 10.0, 0.0, 2000.0, 1000.0, 180.0, uint8(255))
	f.Add(100.0, 100.0, 1.0, 30000.0, 20000.0, 0.0, 0.1, 0.0, uint8(90))
	fruits, toppings := []string{
		"quince",
		"rhubarb",
		"sweetcorn",
		"gooseberry",
	}, []string{
		"crumble_classic",
		"crisp_oat_nut",
		"streusel_coarse",
	}
	f.Fuzz(func(t *testing.T, length, width, depth, fruit, sugar, thick, share, minutes float64, bits uint8) {
		r := gooseberries()
		r.Dish.LengthCM, r.Dish.WidthCM, r.Dish.DepthCM = length, width, depth
		r.Fruits = []FruitInput{
			{Key: fruits[bits%4], Share: share, Frozen: bits&4 > 0, CutMM: minutes},
			{Key: "plum", Share: 1},
		}
		r.Topping.Key = toppings[bits%3]
		r.Precook, r.Macerate = &PrecookInput{
			Minutes: minutes,
			Open:    bits&8 > 0,
		}, &MacerateInput{
			Minutes:       minutes,
			Juice:         []string{"keep", "leave", "reduce"}[bits%3],
			WithThickener: bits&16 > 0,
		}
		if bits&32 > 0 {
			r.WeighedFruitG = &fruit
		}
		if bits&64 > 0 {
			r.SugarG = &sugar
		}
		if bits&128 > 0 {
			r.Thickener.G = &thick
		}
		a, err := Solve(r)
		if err != nil {
			return
		}
		if _, err := json.Marshal(a); err != nil { // fails on NaN and infinity
			t.Errorf("%+v: %v", r, err)
		}
		if a.FruitG <= 0 || a.JuiceG < 0 || a.ThickenerG < 0 || a.SugarG < 0 || a.ToppingG <= 0 {
			t.Errorf("%+v: %+v", r, a)
		}
	})
}

// What was left out is named in the answer: which sugar and which thickener were taken.
func TestTheAnswerNamesTheSugarAndTheThickener(t *testing.T) {
	r := gooseberries()
	r.Thickener = nil
	for _, want := range [][2]string{{"caster_sugar", "cornflour"}, {"demerara_sugar", "arrowroot"}} {
		a, err := Solve(r)
		if err != nil {
			t.Fatal(err)
		}
		if got := [2]string{a.SugarKey, a.ThickenerKey}; got != want {
			t.Errorf("%v were taken, want %v", got, want)
		}
		r.SugarKey, r.Thickener = "demerara_sugar", &ThickenerInput{Key: "arrowroot"}
	}
}

func BenchmarkSolve(b *testing.B) {
	r := gooseberries()
	b.ReportAllocs()
	for b.Loop() {
		if _, err := Solve(r); err != nil {
			b.Fatal(err)
		}
	}
}

// A dish that was never filled with water leaves the fruit unsure; water settles it, and where its volume does not
// decide nothing is unsure.
func TestWhatWaterBuys(t *testing.T) {
	r := Request{
		Dish: dish.Dish{
			Shape:    dish.Rectangle,
			LengthCM: 24,
			WidthCM:  18,
			DepthCM:  5,
			Material: "stoneware",
		},
		Style:   "crumble",
		Fruits:  []FruitInput{{Key: "gooseberry", Share: 1}},
		Topping: ToppingInput{Key: "crumble_classic"},
	}
	unsure := func() (g, fruit float64) {
		t.Helper()
		a, err := Solve(r)
		if err != nil {
			t.Fatal(err)
		}
		return a.Fit.UnsureG, a.FruitG
	}
	g, before := unsure()
	if g < 40 || g > 200 {
		t.Errorf("by its sizes it is %.0f g unsure", g)
	}
	r.Dish.MeasuredML = 2160
	if g, after := unsure(); g != 0 || math.Abs(after-before) > 1 {
		t.Errorf("filled with water %.0f g unsure; %.0f g became %.0f", g, before, after)
	}
	r.Dish.MeasuredML = 0
	weighed := 900.0
	r.WeighedFruitG = &weighed
	if g, _ := unsure(); g != 0 {
		t.Errorf("weighed, and %.0f g unsure", g)
	}
}

// Fruit as bought is the fruit that is left of it, and what it is said to be bought as.
func TestFruitAsBought(t *testing.T) {
	whole := false
	mixed := func(r *Request) {
		r.Fruits = []FruitInput{{Key: "apple_firm", Share: 0.6, LossPct: 10}, {Key: "damson", Share: 0.4, Peeled: &whole}}
	}
	a := solve(t, func(r *Request) { mixed(r); r.BoughtFruitG = ptr(1000.0) })
	bought := 0.0
	for _, p := range a.Purchase {
		bought += p.G
	}
	if math.Abs(bought-1000) > 1e-6 || math.Abs(a.FruitBoughtG-1000) > 1e-6 || a.FruitG > 900 {
		t.Errorf("1000 g bought is %.1f g prepared and %.1f g to buy", a.FruitG, bought)
	}
	b := solve(t, func(r *Request) { mixed(r); r.WeighedFruitG = &a.FruitG })
	if math.Abs(b.ThickenerG-a.ThickenerG) > 1e-9 {
		t.Errorf("the same fruit takes %.3f g of thickener as bought, %.3f g prepared", a.ThickenerG, b.ThickenerG)
	}
	both := gooseberries()
	both.WeighedFruitG, both.BoughtFruitG = ptr(800.0), ptr(1000.0)
	if err := Check(both); err == nil || !strings.Contains(err.Error(), "/bought_fruit_g") {
		t.Errorf("given both ways: %v", err)
	}
}
