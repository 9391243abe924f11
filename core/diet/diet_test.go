package diet

import (
	"math"
	"slices"
	"strings"
	"testing"

	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/larder"
)

var crumble = balance.Request{
	Dish: dish.Dish{Shape: dish.Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5, Material: "stoneware"}, Style: "crisp",
	Fruits: []balance.FruitInput{{Key: "plum", Share: 1}}, Topping: balance.ToppingInput{Key: "crisp_oat_nut"},
}

func TestEverySwapIsOfTheTables(t *testing.T) {
	for _, s := range swaps {
		if _, ok := larder.Ingredients.Get(s.from); !ok {
			t.Errorf("no %s", s.from)
		}
		sum := 0.0
		for _, p := range s.to {
			if _, ok := larder.Ingredients.Get(p.Key); !ok {
				t.Errorf("%s: no %s", s.from, p.Key)
			}
			sum += p.Pct
		}
		if sum < 0.3 || sum > 1.3 || s.costs.IsZero() {
			t.Errorf("%s goes to %g of its weight, and costs %q", s.from, sum, s.costs)
		}
	}
}

func grams(t *testing.T, r balance.Request) map[string]float64 {
	t.Helper()
	a, err := balance.Solve(r)
	if err != nil {
		t.Fatal(err)
	}
	out := map[string]float64{}
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			if b.Key == "topping" {
				out[l.Key] = l.G
				i, _ := larder.Ingredients.Get(l.Key)
				out["fat"] += l.G * i.FatPct / 100
			}
		}
	}
	return out
}

func TestASwapKeepsTheFat(t *testing.T) {
	before := grams(t, crumble)
	for _, s := range Swaps() {
		if s.From != "rolled_oats" && s.From != "hazelnuts" && s.From != "butter" {
			continue
		}
		r, err := Swapped(SwapRequest{crumble, s.Index})
		if err != nil {
			t.Errorf("%s to %s: %v", s.From, s.To, err)
			continue
		}
		after := grams(t, r)
		if after[s.From] != 0 || math.Abs(after["fat"]-before["fat"]) > 0.2*before["fat"] {
			t.Errorf("%s to %s: %g g are left, fat %g, before %g", s.From, s.To, after[s.From], after["fat"], before["fat"])
		}
	}
	if _, err := Swapped(SwapRequest{crumble, 999}); err == nil || !strings.Contains(err.Error(), "/index") {
		t.Errorf("%v", err)
	}
}

func TestADietNamesEveryWrongField(t *testing.T) {
	r := crumble
	r.Style = "soup"
	_, err := Propose(Request{Request: r, Diets: []Diet{"paleo"}})
	if err == nil || !strings.Contains(err.Error(), "/diets/0") || !strings.Contains(err.Error(), "/request/style") {
		t.Errorf("%v", err)
	}
	if _, err := Propose(Request{Request: crumble}); err == nil || !strings.Contains(err.Error(), "/diets") {
		t.Errorf("%v", err)
	}
}

func TestGlutenThatIsLeftIsSaid(t *testing.T) {
	r := crumble
	r.Thickener = &balance.ThickenerInput{Key: "wheat_flour"}
	r.Topping.BakersPct = map[string]float64{"wheat_flour": 0, "gf_flour_blend": 100}
	a, err := balance.Solve(r)
	if err != nil {
		t.Fatal(err)
	}
	for _, x := range a.Remarks {
		if x.Code == "gluten_left" {
			return
		}
	}
	t.Error("a gluten-free flour thickened with wheat passes without a word")
}

func TestWhatSuitsADiet(t *testing.T) {
	r := balance.Request{
		Dish: dish.Dish{Shape: dish.Square, LengthCM: 20, DepthCM: 5, Material: "glass"}, Style: "crumble",
		Fruits: []balance.FruitInput{{Key: "plum", Share: 1}}, Topping: balance.ToppingInput{Key: "crumble_classic"},
	}
	suits := func(r balance.Request) (out []Diet) {
		a, err := balance.Solve(r)
		if err != nil {
			t.Fatal(err)
		}
		for _, d := range All() {
			if Suits(a, d) {
				out = append(out, d)
			}
		}
		return out
	}
	if got := suits(r); !slices.Equal(got, []Diet{EggFree, NutFree}) {
		t.Errorf("butter and wheat suit %v", got)
	}
	p, err := Propose(Request{Request: r, Diets: []Diet{Vegan}})
	if err != nil {
		t.Fatal(err)
	}
	if got := suits(p.Request); !slices.Contains(got, Vegan) || !slices.Contains(got, DairyFree) {
		t.Errorf("made vegan it suits %v", got)
	}
	honey := p.Request
	honey.Liquids = append(slices.Clone(honey.Liquids), balance.Quantity{Key: "honey", G: 20})
	if got := suits(honey); slices.Contains(got, Vegan) {
		t.Errorf("with honey it suits %v", got)
	}
}

// A custard bar pan with a thickener, washes, liquids and crumbs is changed in each of its parts, and suits in the end.
func TestEveryPartIsChanged(t *testing.T) {
	flourG := 30.0
	bar := balance.Request{
		Dish: dish.Dish{Shape: dish.Square, LengthCM: 23, DepthCM: 5, Material: "thin_metal"}, Style: "bar",
		Fruits: []balance.FruitInput{{Key: "raspberry", Share: 1}}, Topping: balance.ToppingInput{Key: "bar_dough"},
		Base: &balance.BaseInput{Key: "bar_dough"}, Custard: &balance.CustardInput{},
		Finishes: []string{"egg_wash"}, Greasing: "butter",
	}
	cobbler := balance.Request{
		Dish: dish.Dish{Shape: dish.Round, LengthCM: 26, DepthCM: 5, Material: "cast_iron"}, Style: "cobbler",
		Fruits:      []balance.FruitInput{{Key: "apricot", Share: 1}},
		Topping:     balance.ToppingInput{Key: "biscuit_drop", Liquids: []balance.LiquidInput{{Key: "buttermilk", Share: 1}}},
		Thickener:   &balance.ThickenerInput{Key: "wheat_flour", G: &flourG},
		Liquids:     []balance.Quantity{{Key: "double_cream", G: 60}, {Key: "whole_milk", G: 40}},
		Extras:      []balance.Quantity{{Key: "butter", G: 20}},
		CrumbLayerG: 40,
	}
	for name, c := range map[string]struct {
		request balance.Request
		diets   []Diet
		where   []string
		left    int // of what has no swap: at most
	}{
		"bars":    {bar, []Diet{Vegan}, []string{"custard", "finish"}, 0},
		"cobbler": {cobbler, []Diet{Vegan, GlutenFree}, []string{"topping", "thickener", "fruit", "crumbs"}, 1},
	} {
		p, err := Propose(Request{Request: c.request, Diets: c.diets})
		if err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		var where []string
		for _, x := range p.Changes {
			where = append(where, x.Where)
			if x.Costs.IsZero() {
				t.Errorf("%s: the change of %q says nothing of what it costs", name, x.From)
			}
		}
		for _, want := range c.where {
			if !slices.Contains(where, want) {
				t.Errorf("%s: nothing is changed at %q: %v", name, want, where)
			}
		}
		if len(p.Left) > c.left {
			t.Errorf("%s: %v stay", name, p.Left)
		}
		a, err := balance.Solve(p.Request)
		if err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		for _, d := range c.diets {
			if len(p.Left) == 0 && !Suits(a, d) {
				t.Errorf("%s: changed, it is not %s", name, d)
			}
		}
	}
	p, err := Propose(Request{Request: cobbler, Diets: []Diet{GlutenFree}})
	if err != nil {
		t.Fatal(err)
	}
	was, _ := larder.Thickeners.Get("wheat_flour")
	if x := p.Request.Thickener; x == nil || x.Key != "cornflour" || x.G == nil ||
		math.Abs(*x.G-flourG*was.Strength) > 1e-9 {
		t.Errorf("30 g of flour became %+v", x)
	}
	if p.Request.CrumbLayerG != 0 {
		t.Error("breadcrumbs stay in a gluten-free dessert")
	}
	if c := cobbler.Liquids; len(c) != 2 || c[0].Key != "double_cream" {
		t.Errorf("the request itself is changed: %+v", c)
	}
}
