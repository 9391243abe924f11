package balance

import (
	"slices"
	"strings"
	"testing"

	"mabbin/core/larder"
)

func TestWhatGoesWithAFruit(t *testing.T) {
	p, err := Pair(
		PairingsRequest{Fruits: []string{"apple_firm", "blackberry"}, FruitG: 1000, Month: 11, Present: []string{"cinnamon"}},
	)
	if err != nil {
		t.Fatal(err)
	}
	offer := func(key string) *Offer {
		i := slices.IndexFunc(p.Offers, func(o Offer) bool { return o.Key == key })
		if i < 0 {
			return nil
		}
		return &p.Offers[i]
	}
	if offer("cinnamon") != nil || offer("apple_firm") != nil || offer("blackberry") != nil {
		t.Errorf("what is in it is offered: %+v", p.Offers)
	}
	hazelnuts := offer("hazelnuts")
	if hazelnuts == nil || hazelnuts.G != 50 || hazelnuts.Text.String() != "goes with apple and blackberry" {
		t.Errorf("%+v", hazelnuts)
	}
	if cloves := offer("cloves"); cloves == nil || cloves.G > 1 {
		t.Errorf("%+v", cloves)
	}
	if len(p.Seasons) != 2 || !p.Seasons[0].Now || p.Seasons[1].Now ||
		!strings.Contains(p.Seasons[1].Text.String(), "frozen") {
		t.Errorf("%+v", p.Seasons)
	}
	if first := p.Offers[0].Text.String(); first != "goes with apple and blackberry" {
		t.Errorf("the first offer %s", first)
	}
	if _, err := Pair(
		PairingsRequest{Fruits: []string{"unicorn"}},
	); err == nil ||
		!strings.Contains(err.Error(), "/fruits/0") {
		t.Errorf("%v", err)
	}
}

// Every fruit of the tables has its pairing, or is a vegetable that waits for one, and what is offered is weighed.
func TestPairingsAreOfTheTables(t *testing.T) {
	for _, p := range larder.Pairings.All() {
		if _, ok := larder.Fruits.Get(p.Key); !ok {
			t.Errorf("%s is no fruit of the tables", p.Key)
		}
		for _, list := range [][]larder.Paired{p.Spices, p.Herbs, p.Nuts, p.Liquids} {
			for _, x := range list {
				if _, ok := larder.Ingredients.Get(x.Key); x.Key != "" && !ok {
					t.Errorf("%s with %s: %s is no ingredient", p.Key, x.Name, x.Key)
				}
			}
		}
		for _, x := range p.Fruits {
			_, fruit := larder.Fruits.Get(x.Key)
			if _, ok := larder.Ingredients.Get(x.Key); x.Key != "" && !ok && !fruit {
				t.Errorf("%s with %s: %s is not in the tables", p.Key, x.Name, x.Key)
			}
		}
		if p.InSeason(p.From) != true || p.InSeason(p.To) != true {
			t.Errorf("%s: %d to %d", p.Key, p.From, p.To)
		}
	}
}
