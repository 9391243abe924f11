package sell

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"
	"time"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/larder"
)

// A dessert is priced by what is on its ticket, fruit as bought; what has no price is named, and there is no total.
func TestADessertHasItsCost(t *testing.T) {
	price := func(p float64) larder.OwnRow { return larder.OwnRow{Values: map[string]float64{"price_per_kg": p}} }
	r := balance.Request{
		Dish:    dish.Dish{Shape: dish.Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5, Material: "stoneware"},
		Style:   "crumble",
		Fruits:  []balance.FruitInput{{Key: "apple_firm", Share: 1}},
		Topping: balance.ToppingInput{Key: "crumble_classic"},
		Own: &larder.Own{
			Fruits: map[string]larder.OwnRow{"apple_firm": price(3)},
			Ingredients: map[string]larder.OwnRow{
				"butter": price(9), "wheat_flour": price(1), "caster_sugar": price(1.5), "cornflour": price(4),
			},
		},
	}
	a, err := balance.Solve(r)
	if err != nil {
		t.Fatal(err)
	}
	c, err := OfDessert(r, a, Rates{}, Work{})
	if err != nil || c.Total != nil || !slices.Equal(c.Unpriced, []string{"salt"}) {
		t.Fatalf("%+v, %v", c, err)
	}
	r.Own.Ingredients["salt"] = price(0.5)
	c, err = OfDessert(r, a, Rates{}, Work{})
	if err != nil || c.Total == nil || c.Dearest[0] != "apple_firm" {
		t.Fatalf("%+v, %v", c, err)
	}
	taxed, err := OfDessert(r, a, Rates{TaxPct: 10}, Work{})
	if err != nil || taxed.Margin == nil || *taxed.Margin != int64(math.Round(float64(*taxed.Price)/1.1))-*taxed.Portion {
		t.Errorf("of %v a portion that costs %v, %v are left", taxed.Price, taxed.Portion, taxed.Margin)
	}
	apples := a.FruitBoughtG * 1.02 * 0.3
	for _, l := range c.Lines {
		if l.Key == "apple_firm" && (float64(*l.Minor) < apples-1 || float64(*l.Minor) > apples+1) {
			t.Errorf("apples cost %d, by hand %.1f", *l.Minor, apples)
		}
	}
}

func crumble(t *testing.T) (balance.Request, *balance.Answer) {
	t.Helper()
	r := balance.Request{
		Dish:    dish.Dish{Shape: dish.Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5, Material: "stoneware"},
		Style:   "crumble",
		Fruits:  []balance.FruitInput{{Key: "apple_firm", Share: 0.7}, {Key: "damson", Share: 0.3}},
		Topping: balance.ToppingInput{Key: "crumble_classic"},
	}
	a, err := balance.Solve(r)
	if err != nil {
		t.Fatal(err)
	}
	return r, a
}

// What the list buys and what was in store is what the tickets weigh, as bought, and what is said to be left over.
func TestTheListConserves(t *testing.T) {
	r, a := crumble(t)
	s := Stock{Items: []StockItem{{Key: "butter", G: 300}, {Key: "apple_firm", G: 1e5}, {Key: "wheat_flour", G: 40}}}
	for dishes := 1; dishes <= 12; dishes++ {
		l, err := ListFor([]Baked{{r, a, dishes}, {r, a, 1}}, s, nil)
		if err != nil {
			t.Fatal(err)
		}
		needs := map[string]float64{}
		for _, x := range Needs(r, a, float64(dishes+1)) {
			needs[x.Key] += x.bought(nil)
		}
		n := 0
		for _, section := range l.Sections {
			for _, b := range section.Lines {
				n++
				if got := b.StockG + b.BoughtG - b.LeftG; math.Abs(got-needs[b.Key]) > 0.5 {
					t.Errorf("%d dishes: %s: %.1f of %.1f g", dishes, b.Key, got, needs[b.Key])
				}
				if b.BoughtG == 0 && b.Text.String() != "in stock" || b.LeftG < -0.5 || b.Name == "" {
					t.Errorf("%d dishes: %+v", dishes, b)
				}
			}
		}
		if n != len(needs) {
			t.Errorf("%d lines for %d things", n, len(needs))
		}
	}
	// what was bought comes in, and what was baked goes out
	in := s.TakeIn([]Line{{Key: "butter", G: 250}, {Key: "salt", G: 500}}, time.Date(2026, 10, 17, 9, 0, 0, 0, time.UTC))
	if in.Items[0].G != 550 || in.Items[3] != (StockItem{Key: "salt", G: 500, Since: "2026-10-17"}) ||
		s.Items[0].G != 300 {
		t.Errorf("%+v", in.Items)
	}
	out := in.TakeOut(Needs(r, a, 20), nil)
	for _, x := range out.Items {
		if x.Key == "butter" || x.Key == "wheat_flour" || x.G < 0 {
			t.Errorf("twenty dishes leave %+v", x)
		}
	}
}

// A list of nothing is empty, and what a store can't hold is named.
func TestBadStores(t *testing.T) {
	if l, err := ListFor(nil, Stock{}, nil); err != nil || len(l.Sections) != 0 {
		t.Errorf("%+v, %v", l, err)
	}
	err := CheckStock(Stock{
		Items: []StockItem{{Key: "moonshine", G: 5}, {Key: "butter", G: -5, Since: "last week"}},
		Packs: map[string][]Pack{"butter": {{G: 0, Minor: -1}}},
	}, nil)
	for _, want := range []string{"/items/0/key", "/items/1/g", "/items/1/since", "/packs/butter/0/g", "/packs/butter/0/minor"} {
		if err == nil || !strings.Contains(fmt.Sprintf("%+v", err), want) {
			t.Errorf("%s is not named in %v", want, err)
		}
	}
}

// The label names what a shop calls it, sets allergens off and says the share of the fruits in the name.
func TestADessertsLabel(t *testing.T) {
	r, a := crumble(t)
	baked := func() *bake.DessertAnswer {
		d, err := bake.Dessert(t.Context(), bake.DessertRequest{Request: r})
		if err != nil {
			t.Fatal(err)
		}
		d.Balance = *a
		return d
	}
	l, err := LabelFor("Damson and apple crumble", r, baked(), "eu")
	if err != nil {
		t.Fatal(err)
	}
	text := l.Text.String()
	for _, want := range []string{"apple ", "damson ", "(WHEAT)", "butter (MILK)", " %"} {
		if !strings.Contains(text, want) {
			t.Errorf("%q is not in %q", want, text)
		}
	}
	if len(l.Quid) != 2 || l.NetG != a.Portions.FinishedG || l.KeepDays != 2 ||
		strings.Contains(text, "keeps its shape") {
		t.Errorf("%+v: %s", l.Quid, text)
	}
	if warm := l.Rewarm.String(); !strings.Contains(warm, "from the fridge") || !strings.Contains(warm, " min, until") {
		t.Errorf("how it is warmed again: %s", warm)
	}
	r.Topping.Key, r.Style = "biscuit_drop", "cobbler"
	if a, err = balance.Solve(r); err != nil {
		t.Fatal(err)
	}
	if _, err := LabelFor("Cobbler", r, baked(), "eu"); err == nil || !strings.Contains(err.Error(), "Baking powder") {
		t.Errorf("baking powder, whose own label nobody has read: %v", err)
	}
}

// By hand: an hour's oven of 2.5 kW that warms for 20 min and holds 40 at half of it is 1.6667 kWh; half an hour of
// hands; packaging a portion. Tax and ending are of the price alone.
func TestOvenHandsAndPackaging(t *testing.T) {
	r, a := crumble(t)
	for _, l := range Needs(r, a, 1) {
		if r.Own == nil {
			r.Own = &larder.Own{Fruits: map[string]larder.OwnRow{}, Ingredients: map[string]larder.OwnRow{}}
		}
		row := larder.OwnRow{Values: map[string]float64{"price_per_kg": 2}}
		if _, fruit := larder.Fruits.Get(l.Key); fruit {
			r.Own.Fruits[l.Key] = row
		} else {
			r.Own.Ingredients[l.Key] = row
		}
	}
	plain, err := OfDessert(r, a, Rates{}, Work{})
	if err != nil {
		t.Fatal(err)
	}
	rates := Rates{
		MinorPerKWh:    30,
		MinorPerHour:   1500,
		PackagingMinor: 10,
		TaxPct:         10,
		EndingMinor:    50,
		WantedSharePct: 25,
	}
	c, err := OfDessert(r, a, rates, Work{WarmMin: 20, HoldMin: 40, HandsMin: 30})
	if err != nil {
		t.Fatal(err)
	}
	if c.Oven != 50 || c.Hands != 750 || c.Packaging != int64(math.Round(10*a.Portions.Count)) ||
		plain.Oven+plain.Hands != 0 {
		t.Errorf("oven %d, hands %d, packaging %d", c.Oven, c.Hands, c.Packaging)
	}
	if sum := c.Ingredients + c.Oven + c.Hands + c.Packaging; c.Total == nil || max(*c.Total-sum, sum-*c.Total) > 2 {
		t.Errorf("all together %v, its parts %d", c.Total, sum)
	}
	if c.Price == nil || *c.Price%50 != 0 || float64(*c.Price) < 1.1*float64(c.Ingredients)/a.Portions.Count/0.25 {
		t.Errorf("the price is %v", c.Price)
	}
	if err := CheckStock(Stock{Rates: Rates{TaxPct: 300, MinorPerKWh: -1}}, nil); err == nil ||
		!strings.Contains(fmt.Sprintf("%+v", err), "/rates/tax_pct") {
		t.Errorf("three times its price in tax: %v", err)
	}
}

// Packs of one's own are rounded up to; without a price of the pack or of the kilogram nothing is counted as nothing.
func TestPacksOfTheKitchen(t *testing.T) {
	r, a := crumble(t)
	butter := func(s Stock, own *larder.Own) ListLine {
		l, err := ListFor([]Baked{{Request: r, Answer: a, Dishes: 1}}, s, own)
		if err != nil {
			t.Fatal(err)
		}
		for _, x := range l.Sections {
			for _, line := range x.Lines {
				if line.Key == "butter" {
					return line
				}
			}
		}
		t.Fatal("no butter is bought")
		return ListLine{}
	}
	packs := Stock{Packs: map[string][]Pack{"butter": {{G: 170}}}}
	if l := butter(packs, nil); l.Minor != nil || math.Mod(l.BoughtG, 170) != 0 || l.Guessed {
		t.Errorf("packs of 170 g without a price: %+v", l)
	}
	own := &larder.Own{Ingredients: map[string]larder.OwnRow{"butter": {Values: map[string]float64{"price_per_kg": 10}}}}
	if l := butter(packs, own); l.Minor == nil || *l.Minor != int64(l.BoughtG) {
		t.Errorf("at 10 a kilogram, a cent a gram: %+v", l)
	}
	packs.Packs["butter"][0].Minor = 199
	if l := butter(packs, own); *l.Minor != 199*int64(l.BoughtG/170) {
		t.Errorf("at the pack's own price: %+v", l)
	}
}
