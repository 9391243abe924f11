package formats

import (
	"bytes"
	"strings"
	"testing"

	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/recipe"
	"mabbin/core/units"
	"mabbin/server/render"
)

// printable are desserts that are short and long to tell.
func printable() map[string]balance.Request {
	return map[string]balance.Request{
		"short": {
			Dish: dish.Dish{
				Shape:    dish.Rectangle,
				LengthCM: 24,
				WidthCM:  18,
				DepthCM:  5,
				Material: "stoneware",
			},
			Style:   "crumble",
			Fruits:  []balance.FruitInput{{Key: "gooseberry", Share: 1}},
			Topping: balance.ToppingInput{Key: "crumble_classic"},
		},
		"long": {
			Dish: dish.Dish{
				Shape:         dish.Round,
				LengthCM:      24,
				DepthCM:       4.5,
				FloorLengthCM: 19,
				Material:      "enamel",
			},
			Style:       "pie",
			CrumbLayerG: 20,
			Fruits: []balance.FruitInput{
				{Key: "apple_sharp", Share: 0.4},
				{Key: "apple_soft", Share: 0.3},
				{Key: "blackberry", Share: 0.3},
			},
			Liquids: []balance.Quantity{
				{Key: "lemon_juice", G: 15},
			},
			Extras: []balance.Quantity{{Key: "ginger", G: 2}, {Key: "butter", G: 20}, {Key: "orange_zest", G: 4}},
			Topping: balance.ToppingInput{
				Key: "crumble_classic",
			},
			Late:     []balance.ToppingInput{{Key: "praline_nut"}},
			Base:     &balance.BaseInput{Key: "shortcrust"},
			Finishes: []string{"egg_wash", "icing_sugar"},
		},
		"cut": {
			Dish: dish.Dish{Shape: dish.Oval, LengthCM: 30, WidthCM: 20, DepthCM: 6, Material: "stoneware"}, Style: "cobbler",
			Fruits: []balance.FruitInput{{Key: "peach", Share: 1}}, Topping: balance.ToppingInput{Key: "biscuit_rolled"},
		},
	}
}

func TestEverySheetIsOnePage(t *testing.T) {
	us := render.For(units.Settings{Weights: "oz", Lengths: "in", Heat: "f", English: units.US})
	for name, r := range printable() {
		a, err := balance.Solve(r)
		if err != nil {
			t.Fatal(err)
		}
		for _, paper := range []Paper{A4, Letter} {
			for _, sheet := range []Sheet{TicketSheet, CardSheet, CuttingSheet} {
				raw, err := Print{
					recipe.Card{Name: "Müsli & “oats”, 1½ dishes", Request: r, OvenC: 190, Minutes: 50, Note: "Serve it lukewarm."},
					a,
					sheet,
					paper,
					us,
				}.PDF()
				if err != nil {
					t.Fatalf("%s, %s, %s: %v", name, sheet, paper, err)
				}
				if !bytes.HasPrefix(raw, []byte("%PDF-")) || bytes.Count(raw, []byte("/Type /Page\n")) != 1 || len(raw) < 5000 {
					t.Errorf("%s, %s, %s: %d bytes, %d pages", name, sheet, paper, len(raw), bytes.Count(raw, []byte("/Type /Page\n")))
				}
			}
		}
	}
}

// What does not fit is made smaller; it never runs off the page.
func TestASheetEndsOnItsPage(t *testing.T) {
	for name, r := range printable() {
		a, err := balance.Solve(r)
		if err != nil {
			t.Fatal(err)
		}
		for sheet := range layouts {
			p := Print{recipe.Card{Name: "Crumble", Request: r}, a, sheet, A4, render.Reading{}}
			s, err := p.press()
			if err != nil {
				t.Fatal(err)
			}
			if ends := layouts[sheet](s); ends > s.h-margin/2 {
				t.Errorf("%s, %s: it ends at %.0f of %.0f points, at %.2f of its size", name, sheet, ends, s.h, s.k)
			}
		}
	}
}

// How a recipe that came in had it stands overleaf, on as many pages as it needs.
func TestAsItWasWrittenStandsOverleaf(t *testing.T) {
	crumble := printable()["short"]
	a, err := balance.Solve(crumble)
	if err != nil {
		t.Fatal(err)
	}
	step := strings.Repeat("Rub the butter into the flour with cold hands. ", 30)
	for pages, steps := range map[int][]string{2: {"Bake it."}, 5: {step, step, step, step, step, step}} {
		raw, err := Print{
			recipe.Card{Name: "Crumble", Request: crumble, Original: &recipe.Original{Serves: "Serves 6", Method: steps}},
			a, CardSheet, A4,
			render.Reading{},
		}.PDF()
		if err != nil {
			t.Fatal(err)
		}
		if n := bytes.Count(raw, []byte("/Type /Page\n")); n != pages {
			t.Errorf("%d steps are on %d pages, want %d", len(steps), n, pages)
		}
	}
}

func TestWhatIsNotPrinted(t *testing.T) {
	crumble := printable()["short"]
	a, _ := balance.Solve(crumble)
	p := Print{Card: recipe.Card{Request: crumble}, Answer: a, Sheet: TicketSheet, Paper: "napkin"}
	if _, err := p.PDF(); err == nil {
		t.Error("it is printed on a napkin")
	}
	p.Paper, p.Sheet = A4, "poster"
	if _, err := p.PDF(); err == nil {
		t.Error("a poster is printed")
	}
}
