package sell

import (
	"errors"
	"math"
	"math/rand/v2"
	"reflect"
	"testing"
	"time"

	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/fault"
	"mabbin/core/larder"
)

// randomCard is a dessert of anything that the tables have; false where such a one can't be balanced.
func randomCard(t *testing.T, chance *rand.Rand) (balance.Request, *balance.Answer, bool) {
	t.Helper()
	one := func(keys []string) string { return keys[chance.IntN(len(keys))] }
	r := balance.Request{
		Dish: dish.Dish{
			Shape: dish.Rectangle, LengthCM: 18 + 20*chance.Float64(), WidthCM: 15 + 10*chance.Float64(),
			DepthCM: 4 + 3*chance.Float64(), Material: "stoneware",
		},
		Style:     one(larder.Styles.Keys()),
		Topping:   balance.ToppingInput{Key: one(larder.Toppings.Keys())},
		Thickener: &balance.ThickenerInput{Key: one(larder.Thickeners.Keys())},
	}
	for range 1 + chance.IntN(3) {
		f := balance.FruitInput{Key: one(larder.Fruits.Keys()), Share: 0.2 + chance.Float64(), Frozen: chance.IntN(4) == 0}
		if chance.IntN(2) == 0 {
			peeled := chance.IntN(2) == 0
			f.Peeled = &peeled
		}
		r.Fruits = append(r.Fruits, f)
	}
	for range chance.IntN(3) {
		r.Extras = append(r.Extras, balance.Quantity{Key: one(larder.Ingredients.Keys()), G: 60 * chance.Float64()})
	}
	a, err := balance.Solve(r)
	if err != nil && !errors.As(err, new(fault.Faults)) && !errors.As(err, new(*fault.NotYet)) {
		t.Fatal(err)
	}
	return r, a, err == nil
}

// Of any cards, in any store, with any packs: what there was and what is bought is what the tickets weigh, as bought,
// and what is left over; and when it is bought and baked, the store holds just that.
func TestNothingIsLostBetweenListStoreAndTickets(t *testing.T) {
	chance := rand.New(rand.NewPCG(19, 26))
	tried := 0
	for tried < 150 {
		var cards []Baked
		for range 1 + chance.IntN(4) {
			if r, a, ok := randomCard(t, chance); ok {
				cards = append(cards, Baked{r, a, 1 + chance.IntN(6)})
			}
		}
		if len(cards) == 0 {
			continue
		}
		tried++
		needs, used := map[string]float64{}, []Line{}
		for _, c := range cards {
			for _, l := range Needs(c.Request, c.Answer, float64(c.Dishes)) {
				needs[l.Key] += l.bought(nil)
				used = append(used, l)
			}
		}
		s := Stock{Packs: map[string][]Pack{}, Rates: Rates{TaxPct: 20}}
		for key, g := range needs {
			switch chance.IntN(4) {
			case 0:
				s.Items = append(s.Items, StockItem{Key: key, G: math.Round(2 * g * chance.Float64())})
			case 1:
				s.Packs[key] = []Pack{{G: 50 + math.Round(400*chance.Float64())}, {G: 1000}}
			}
		}
		l, err := ListFor(cards, s, nil)
		if err != nil {
			t.Fatal(err)
		}
		bought, left := []Line{}, map[string]float64{}
		for _, section := range l.Sections {
			for _, b := range section.Lines {
				if off := b.StockG + b.BoughtG - b.LeftG - needs[b.Key]; math.Abs(off) > 0.1 {
					t.Errorf("%s: %.2f in store, %.2f bought, %.2f left, and %.2f is needed",
						b.Key, b.StockG, b.BoughtG, b.LeftG, needs[b.Key])
				}
				if b.BoughtG > 0 {
					bought = append(bought, Line{Key: b.Key, G: b.BoughtG})
				}
				left[b.Key] = b.LeftG
			}
		}
		if len(left) != len(needs) {
			t.Errorf("%d lines for %d things", len(left), len(needs))
		}
		after := s.TakeIn(bought, time.Time{}).TakeOut(used, nil)
		for _, x := range after.Items {
			if math.Abs(x.G-left[x.Key]) > 0.2 {
				t.Errorf("%s: %.1f g in store when all is baked, %.1f were to be left over", x.Key, x.G, left[x.Key])
			}
			delete(left, x.Key)
		}
		for key, g := range left {
			if g >= worthG+0.1 {
				t.Errorf("%s: %.1f g were to be left over, and none is there", key, g)
			}
		}
		if !reflect.DeepEqual(after.Rates, s.Rates) || len(after.Packs) != len(s.Packs) {
			t.Errorf("baking changed what the kitchen reckons by: %+v", after.Rates)
		}
	}
}
