package plausibility

import (
	"strings"
	"testing"

	"mabbin/core/message"
)

func bowlOf(things ...Thing) []Thing { return things }

func TestSlipsAreAskedAbout(t *testing.T) {
	fruit := Thing{Key: "plum", G: 900}
	flour, butter := Thing{Key: "wheat_flour", G: 200}, Thing{Key: "butter", G: 100}
	for name, c := range map[string]struct {
		part    Part
		bowl    []Thing
		at      int
		says    []string
		suggest float64
	}{
		"ten times the zest":          {Filling, bowlOf(fruit, Thing{Key: "lemon_zest", G: 60}), 1, []string{"60 g of lemon zest", "5 times the usual 0.6 %"}, 6},
		"salt by the tablespoon":      {Dough, bowlOf(Thing{Key: "wheat_flour", G: 350}, butter, Thing{Key: "salt", G: 18, Unit: "tbsp"}), 2, []string{"18 g of fine salt", "1.3 % of its bowl"}, 6},
		"a kilogram of baking powder": {Dough, bowlOf(flour, butter, Thing{Key: "baking_powder", G: 8000, Unit: "kg"}), 2, []string{"8000 g of baking powder", "8 % of the flour"}, 8},
		"thickener for a dozen":       {Filling, bowlOf(fruit, Thing{Key: "cornflour", G: 250}), 1, []string{"250 g of cornflour", "6 % of the fruit, as cornflour"}, 25},
		"sugar enough for jam":        {Filling, bowlOf(fruit, Thing{Key: "caster_sugar", G: 900}), 1, []string{"900 g of caster sugar", "60 % of the fruit"}, 90},
		"cinnamon out of the jar":     {Filling, bowlOf(fruit, Thing{Key: "cinnamon", G: 40}), 1, []string{"40 g of ground cinnamon", "2.5 % of its bowl"}, 4},
		"fat without end":             {Dough, bowlOf(flour, Thing{Key: "butter", G: 1000}), 1, []string{"1000 g of butter", "150 % of the dry ingredients"}, 100},
		"salt alone in its bowl":      {Dough, bowlOf(Thing{Key: "salt", G: 2000}), 0, []string{"2000 g of fine salt", ""}, 0},
	} {
		got := Find(c.part, c.bowl, nil)
		if len(got) != 1 || got[0].Index != c.at {
			t.Errorf("%s: %+v", name, got)
			continue
		}
		for _, want := range c.says {
			if !strings.Contains(message.Sentences(got[0].Text, got[0].Usual).String(), want) {
				t.Errorf("%s: %q, %q, without %q", name, got[0].Text, got[0].Usual, want)
			}
		}
		if c.suggest > 0 && (got[0].SuggestG < 0.99*c.suggest || got[0].SuggestG > 1.01*c.suggest) {
			t.Errorf("%s: likely meant were %g g, and it says %g", name, c.suggest, got[0].SuggestG)
		}
	}
}

func TestWhatIsUsualPasses(t *testing.T) {
	for name, c := range map[string]struct {
		part Part
		bowl []Thing
	}{
		"a plain filling":           {Filling, bowlOf(Thing{Key: "plum", G: 900}, Thing{Key: "caster_sugar", G: 150}, Thing{Key: "cornflour", G: 25}, Thing{Key: "cinnamon", G: 3}, Thing{Key: "lemon_zest", G: 4})},
		"a custard's sugar":         {Filling, bowlOf(Thing{Key: "rhubarb", G: 500}, Thing{Key: "caster_sugar", G: 340}, Thing{Key: "egg", G: 200})},
		"a rich topping":            {Dough, bowlOf(Thing{Key: "wheat_flour", G: 100}, Thing{Key: "butter", G: 100}, Thing{Key: "demerara_sugar", G: 100}, Thing{Key: "salt", G: 2})},
		"a biscuit":                 {Dough, bowlOf(Thing{Key: "wheat_flour", G: 250}, Thing{Key: "baking_powder", G: 12}, Thing{Key: "butter", G: 90}, Thing{Key: "buttermilk", G: 200}, Thing{Key: "salt", G: 4})},
		"a drop of vanilla":         {Filling, bowlOf(Thing{Key: "pear", G: 100}, Thing{Key: "vanilla_extract", G: 0.9})},
		"nothing":                   {Filling, nil},
		"something that nobody has": {Dough, bowlOf(Thing{Key: "moonstone", G: 40000})},
	} {
		if got := Find(c.part, c.bowl, nil); len(got) != 0 {
			t.Errorf("%s: %+v", name, got)
		}
	}
}

// However much of it is in the bowl, a slip does not stretch what it is measured against.
func TestASlipDoesNotExcuseItself(t *testing.T) {
	for _, g := range []float64{20, 60, 150, 900} {
		if got := Find(Filling, bowlOf(Thing{Key: "apple_firm", G: 700}, Thing{Key: "salt", G: g}), nil); len(got) != 1 {
			t.Errorf("%g g of salt on 700 g of apple: %+v", g, got)
		}
	}
}
