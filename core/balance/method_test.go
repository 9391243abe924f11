package balance

import (
	"fmt"
	"math"
	"strings"
	"testing"
)

// methodOf is a dessert's method, a line a step.
func methodOf(t *testing.T, change func(*Request)) (*Answer, string) {
	t.Helper()
	a := solve(t, change)
	var b strings.Builder
	for _, x := range a.Method {
		b.WriteString(x.Code + ": " + x.Text.String() + "\n")
	}
	return a, b.String()
}

// Everything that is weighed is put somewhere, and nothing is reported that is not there.
func TestTheMethodSaysWhereEachThingGoes(t *testing.T) {
	for name, c := range map[string]struct {
		change func(*Request)
		has    []string
		hasNot []string
	}{
		"spice, nuts, butter and lemon": {
			func(r *Request) {
				r.Extras = []Quantity{{Key: "cinnamon", G: 2}, {Key: "walnuts", G: 40}, {Key: "butter", G: 20}}
				r.Liquids = []Quantity{{Key: "lemon_juice", G: 15}}
			},
			[]string{
				"Mix sugar, cornflour and ground cinnamon", "Fold in walnuts", "Dot the butter", "Toss it with the lemon juice",
				"same bowl",
			},
			nil,
		},
		"a slurry": {
			func(r *Request) { r.Thickener = &ThickenerInput{Key: "arrowroot"} },
			[]string{"Stir the arrowroot", "Toss the fruit with the sugar"},
			[]string{"Mix sugar"},
		},
		"nothing that thickens": {
			func(r *Request) { r.Thickener.G = ptr(0.0) },
			[]string{"Toss the fruit with the sugar"},
			[]string{"cornflour", "thickener"},
		},
		"sugar that is already in": {
			func(r *Request) { r.Macerate = &MacerateInput{Minutes: 45, Juice: "leave"} },
			[]string{"macerate: Toss with the sugar", "Toss the fruit with the cornflour"},
			[]string{"Mix sugar"},
		},
		"juice thickened first": {
			func(r *Request) { r.Macerate = &MacerateInput{Minutes: 45, Juice: "thicken"} },
			[]string{"Stir the cornflour into the cold juice", "Fold the fruit into the thickened juice"},
			[]string{"Toss the fruit with the cornflour", "Mix sugar"},
		},
		"a machine with a small bowl": {
			func(r *Request) { r.Topping.Tool, r.Topping.BowlML = "processor", 600 },
			[]string{"Pulse the cold fat", "in 2 batches"},
			[]string{"Rub the cold fat"},
		},
		"a machine with a large bowl": {
			func(r *Request) { r.Topping.Tool, r.Topping.BowlML = "processor", 4000 },
			[]string{"Pulse the cold fat"},
			[]string{"lots"},
		},
		"the tough one alone": {
			func(r *Request) {
				r.Fruits = []FruitInput{{Key: "quince", Share: 0.4}, {Key: "apple_firm", Share: 0.6}}
				r.Precook = &PrecookInput{Minutes: 15, Fruits: []string{"quince"}}
			},
			[]string{"Cook the quince first, 15 min on the hob, under a lid"},
			[]string{"Cook the quince and"},
		},
		"a betty": {
			func(r *Request) {
				r.Style, r.Topping = "betty", ToppingInput{Key: "betty_bread", Layers: 3}
				r.Liquids = []Quantity{{Key: "water", G: 80}}
			},
			[]string{"3 layers", "Pour the water over before the last crumbs", "over the fruit of each layer"},
			[]string{"Stir in water", "toss the fruit", "Scrape all"},
		},
		"a bought sheet": {
			func(r *Request) {
				r.Style, r.Base, r.Topping = "pie", &BaseInput{Key: "bought_shortcrust", EggSeal: true}, ToppingInput{Key: "streusel_coarse"}
			},
			[]string{"unroll it", "Brush the inside of the base"},
			[]string{"Rub in, bring together"},
		},
		"bare": {
			func(r *Request) { r.Topping = ToppingInput{Key: "none"} },
			[]string{"a skewer goes in"},
			[]string{"topping", "golden", "strew"},
		},
		"savoury": {
			func(r *Request) {
				r.Style, r.Sweetness = "cobbler", "savoury"
				r.Fruits = []FruitInput{{Key: "courgette", Share: 1}}
				r.Topping = ToppingInput{Key: "biscuit_drop"}
				r.Extras = []Quantity{{Key: "onion", G: 120}, {Key: "garlic", G: 6}, {Key: "salt", G: 6}}
			},
			[]string{"Soften the onion and garlic", "Mix cornflour and", "salt"},
			nil,
		},
	} {
		_, text := methodOf(t, c.change)
		for _, want := range c.has {
			if !strings.Contains(text, want) {
				t.Errorf("%s: no %q in\n%s", name, want, text)
			}
		}
		for _, not := range c.hasNot {
			if strings.Contains(text, not) {
				t.Errorf("%s: %q in\n%s", name, not, text)
			}
		}
	}
}

// Steps with a knife, heat or raw egg are not for a child.
func TestAHelperIsKeptFromKnivesHeatAndRawEgg(t *testing.T) {
	a := solve(t, func(r *Request) {
		r.Style, r.Base, r.Finishes = "pie", &BaseInput{
			Key:      "shortcrust",
			ParBaked: true,
			EggSeal:  true,
		}, []string{
			"egg_wash",
		}
		r.Fruits = []FruitInput{{Key: "apple_firm", Share: 1}}
		r.Precook = &PrecookInput{Minutes: 5}
	})
	helps := 0
	for _, x := range a.Method {
		switch x.Code {
		case "par_bake", "seal", "fruit", "precook", "finish", "bake":
			if x.Helper {
				t.Errorf("%s is given to a helper: %s", x.Code, x.Text)
			}
		}
		if x.Helper {
			helps++
		}
	}
	if helps == 0 {
		t.Error("nothing is left for a helper")
	}
}

// What goes into the dish from the bowl is what was weighed into it, less what was left behind or boiled off.
func TestWhatIsScrapedIsWhatIsInTheBowl(t *testing.T) {
	a, text := methodOf(t, func(r *Request) { r.Macerate = &MacerateInput{Minutes: 60, Juice: "leave"} })
	weighed := 0.0
	for _, b := range a.Ticket {
		if b.Key == "fruit" || b.Key == "dry" {
			for _, l := range b.Lines {
				weighed += l.G
			}
		}
	}
	in := weighed - a.Ledger.DrainedWaterG - a.Ledger.DrainedSugarG
	if a.Ledger.DrainedWaterG < 20 {
		t.Fatalf("nothing was left behind: %+v", a.Ledger)
	}
	for off := -1.0; off <= 1; off++ {
		if strings.Contains(text, fmt.Sprintf("Scrape all %.0f g into the dish", math.Round(in+off))) {
			return
		}
	}
	t.Errorf("%.0f g are in the bowl, and the method says\n%s", in, text)
}

// A biscuit that is too dry to roll is crumbled over the fruit.
func TestACrumblyBiscuitIsCrumbled(t *testing.T) {
	for key, want := range map[string]string{
		"biscuit_crumbly": "Crumble it over the fruit", "biscuit_rolled": "Pat or roll it out", "biscuit_drop": "by the spoonful",
	} {
		_, text := methodOf(t, func(r *Request) { r.Style, r.Topping.Key = "cobbler", key })
		if !strings.Contains(text, want) {
			t.Errorf("%s: no %q in %s", key, want, text)
		}
	}
}
