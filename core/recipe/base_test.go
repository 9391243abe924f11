package recipe

import (
	"math"
	"strings"
	"testing"

	"mabbin/core/bake"
	"mabbin/core/dish"
)

var (
	pieDish = dish.Dish{Shape: dish.Round, LengthCM: 24, DepthCM: 4.5, FloorLengthCM: 19, Material: "enamel"}
	barTin  = dish.Dish{Shape: dish.Square, LengthCM: 23, DepthCM: 5, Material: "heavy_metal"}
)

func judged(t *testing.T, text, style string, d dish.Dish) *Verdict {
	t.Helper()
	stages := []bake.Stage{{Minutes: 50, OvenC: 190}}
	v, err := Judge(t.Context(), Request{
		Lines: asked(
			text,
		),
		Style:   style,
		Dish:    &d,
		Cup:     metric.Cup,
		Spoon:   metric.Spoon,
		Setting: &bake.Setting{Stages: stages},
	}, pantry)
	if err != nil {
		t.Fatal(err)
	}
	for _, r := range v.Rows {
		for _, q := range r.Questions {
			t.Fatalf("%q asks %s", r.Text, q.Text)
		}
	}
	if !v.Cannot.IsZero() {
		t.Fatalf("not judged: %s", v.Cannot)
	}
	return v
}

// grams are what the ticket weighs, by bowl and ingredient.
func weighed(v *Version) map[string]float64 {
	out := map[string]float64{}
	for _, b := range v.Answer.Ticket {
		for _, l := range b.Lines {
			out[b.Key+" "+l.Key] += l.G
		}
	}
	return out
}

// What people bring with a base is judged as it is written, to the gram.
func TestRecipesWithABaseAreJudged(t *testing.T) {
	const filling = "\n700 g plums\n110 g sugar\n20 g cornflour\n"
	for name, c := range map[string]struct {
		text, style string
		dish        dish.Dish
		topping     string // as whose kind it is taken
		base        string
		weighs      map[string]float64
	}{
		"a shell and a crumble": {
			"For the pastry:\n200 g plain flour\n110 g butter\n40 g water\nFilling:" + filling +
				"Crumble topping:\n100 g plain flour\n60 g butter\n50 g caster sugar",
			"pie", pieDish, "crumble_classic", "shortcrust",
			map[string]float64{"base wheat_flour": 200, "base butter": 110, "topping wheat_flour": 100, "topping butter": 60},
		},
		"a shell, without headings": {
			"200 g plain flour\n110 g butter\n40 g water" + filling + "100 g plain flour\n60 g butter\n50 g caster sugar",
			"pie", pieDish, "crumble_classic", "shortcrust",
			map[string]float64{"base wheat_flour": 200, "topping wheat_flour": 100},
		},
		"one dough for both": {
			"Base and topping:\n240 g plain flour\n165 g butter\n105 g light brown sugar\nFilling:" + filling,
			"bar", barTin, "bar_dough", "bar_dough",
			map[string]float64{"base wheat_flour": 160, "topping wheat_flour": 80, "topping light_brown_sugar": 35},
		},
		"one dough for both, without a word": {
			"240 g plain flour\n165 g butter\n105 g light brown sugar" + filling,
			"bar", barTin, "bar_dough", "bar_dough",
			map[string]float64{"base butter": 110},
		},
		"crumbs pressed": {
			"Base:\n200 g digestive biscuit crumbs\n85 g butter\nFilling:" + filling +
				"Topping:\n80 g plain flour\n40 g rolled oats\n60 g butter\n50 g light brown sugar",
			"bar", barTin, "crumble_oat", "crumb_crust",
			map[string]float64{"base digestive_crumbs": 200, "topping rolled_oats": 40},
		},
		"a bought sheet": {
			"320 g shortcrust pastry\n" + filling + "100 g plain flour\n60 g butter\n50 g caster sugar",
			"pie", pieDish, "crumble_classic", "bought_shortcrust",
			map[string]float64{"base shortcrust_pastry": 320},
		},
		"white sugar crumbs are no lid": {
			"Pastry:\n200 g plain flour\n110 g butter\n40 g water\nFilling:" + filling +
				"Topping:\n150 g plain flour\n75 g butter\n75 g granulated sugar",
			"pie", pieDish, "crumble_classic", "shortcrust",
			map[string]float64{"topping white_sugar": 75},
		},
		"more sugar than flour": {
			"Filling:" + filling + "Topping:\n80 g plain flour\n70 g butter\n160 g demerara sugar",
			"crumble", stoneware, "crumble_equal", "",
			map[string]float64{"topping demerara_sugar": 160, "topping wheat_flour": 80},
		},
		"a biscuit with its own milk": {
			"Filling:" + filling + "Topping:\n200 g plain flour\n2 tsp baking powder\n80 g butter\n30 g caster sugar\n150 ml milk",
			"cobbler", stoneware, "biscuit_drop", "",
			map[string]float64{"topping whole_milk": 154.7, "topping wheat_flour": 200},
		},
		"nothing on top": {
			"Base:\n200 g plain flour\n110 g butter\n40 g water\nFilling:" + filling, "pie", pieDish, "none", "shortcrust",
			map[string]float64{"base butter": 110},
		},
	} {
		t.Run(name, func(t *testing.T) {
			v := judged(t, c.text, c.style, c.dish)
			r := v.AsWritten.Request
			if r.Topping.Key != c.topping {
				t.Errorf("its topping is taken for %s, want %s", r.Topping.Key, c.topping)
			}
			base := ""
			if r.Base != nil {
				base = r.Base.Key
			}
			if base != c.base {
				t.Errorf("its base is taken for %q, want %q", base, c.base)
			}
			g := weighed(v.AsWritten)
			for key, want := range c.weighs {
				if math.Abs(g[key]-want) > 0.006*want {
					t.Errorf("%s: %.1f g, want %.1f", key, g[key], want)
				}
			}
			if v.Baked == nil || v.Mended == nil || v.Own == nil {
				t.Error("it is not baked, mended or done anew")
			}
		})
	}
}

// What is taken as usual is reported.
func TestAssumptionsAreReported(t *testing.T) {
	v := judged(
		t,
		"240 g plain flour\n165 g butter\n105 g light brown sugar\n700 g plums\n110 g sugar\n20 g cornflour",
		"bar",
		barTin,
	)
	if len(v.Assumed) != 1 || !strings.Contains(v.Assumed[0].String(), "two thirds") {
		t.Errorf("%v", v.Assumed)
	}
	if v := judged(t, plain, "crumble", stoneware); len(v.Assumed) != 0 {
		t.Errorf("%v", v.Assumed)
	}
}

// Brown sugar stays brown.
func TestTheSugarThatWasWrittenIsWeighed(t *testing.T) {
	v := judged(
		t,
		"900 g plums\n120 g dark brown sugar\n20 g sugar\n20 g cornflour\n200 g plain flour\n100 g butter\n100 g caster sugar",
		"crumble",
		stoneware,
	)
	if g := weighed(v.AsWritten); math.Abs(g["dry dark_brown_sugar"]-140) > 0.1 {
		t.Errorf("%v", g)
	}
}
