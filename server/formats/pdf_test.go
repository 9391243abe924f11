package formats

import (
	"bytes"
	"testing"

	"mabbin/core/balance"
	"mabbin/core/dish"
)

func TestATicketIsOnePage(t *testing.T) {
	crumble := balance.Request{
		Dish: dish.Dish{Shape: dish.Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5, Material: "stoneware"}, Style: "crumble",
		Fruits: []balance.FruitAsked{{Key: "gooseberry", Share: 1}}, Topping: balance.ToppingAsked{Key: "crumble_classic"},
	}
	pie := balance.Request{
		Dish: dish.Dish{Shape: dish.Round, LengthCM: 24, DepthCM: 4.5, FloorLengthCM: 19, Material: "enamel"}, Style: "pie", CrumbLayerG: 20,
		Fruits:  []balance.FruitAsked{{Key: "apple_sharp", Share: 0.4}, {Key: "apple_soft", Share: 0.3}, {Key: "blackberry", Share: 0.3}},
		Liquids: []balance.Asked{{Key: "lemon_juice", G: 15}}, Extras: []balance.Asked{{Key: "ginger", G: 2}, {Key: "butter", G: 20}, {Key: "orange_zest", G: 4}},
		Topping: balance.ToppingAsked{Key: "crumble_classic"}, Late: []balance.ToppingAsked{{Key: "praline_nut"}}, Base: &balance.BaseAsked{Key: "shortcrust"}, Finishes: []string{"egg_wash", "icing_sugar"},
	}
	for name, r := range map[string]balance.Request{"short": crumble, "long": pie} {
		a, err := balance.Solve(r)
		if err != nil {
			t.Fatal(err)
		}
		for _, paper := range []Paper{A4, Letter} {
			raw, err := WritePDF(Card{Name: "Müsli & “oats”, 1½ dishes", Request: r, OvenC: 190, Minutes: 50}, a, paper)
			if err != nil {
				t.Fatalf("%s, %s: %v", name, paper, err)
			}
			if !bytes.HasPrefix(raw, []byte("%PDF-")) || bytes.Count(raw, []byte("/Type /Page\n")) != 1 || len(raw) < 5000 {
				t.Errorf("%s, %s: %d bytes, %d pages", name, paper, len(raw), bytes.Count(raw, []byte("/Type /Page\n")))
			}
		}
	}
	a, _ := balance.Solve(crumble)
	if _, err := WritePDF(Card{Request: crumble}, a, "napkin"); err == nil {
		t.Error("it is printed on a napkin")
	}
}
