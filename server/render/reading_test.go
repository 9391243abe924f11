package render

import (
	"strings"
	"testing"

	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/units"
)

func TestAmericanWordsStandForBritishOnes(t *testing.T) {
	for british, want := range map[string]string{
		"Plain (all-purpose) flour":                         "All-purpose (plain) flour",
		"Cornflour (US: cornstarch)":                        "Cornstarch (UK: cornflour)",
		"toss the cornflour with the caster sugar":          "toss the cornstarch with the superfine sugar",
		"The colour of the top: colours early, coloured":    "The color of the top: colors early, colored",
		"Pre-cook on the hob, 4 min":                        "Pre-cook on the stove, 4 min",
		"Bicarbonate of soda; baking powder":                "Baking soda; baking powder",
		"a dish of stoneware, 2.1 litres; keep it in a tin": "a dish of stoneware, 2.1 liters; keep it in a can",
		"Stone fruit, and biscuits":                         "Stone fruit, and biscuits",
		"Nothing to say":                                    "Nothing to say",
		"":                                                  "",
	} {
		if got := American(british); got != want {
			t.Errorf("%q reads %q, not %q", british, got, want)
		}
	}
}

func TestEveryPairIsFoundAndIsUnlike(t *testing.T) {
	seen := map[string]bool{}
	for _, p := range Pairs {
		if p.British == "" || p.American == "" || p.British != strings.ToLower(p.British) || seen[p.British] {
			t.Errorf("%q, %q: empty, in capitals, or there twice", p.British, p.American)
		}
		seen[p.British] = true
		if strings.HasSuffix(p.British, "-") != strings.HasSuffix(p.American, "-") {
			t.Errorf("%q, %q: only one has an open ending", p.British, p.American)
		}
		if stem := strings.TrimSuffix(p.British, "-"); American(stem) != strings.TrimSuffix(p.American, "-") {
			t.Errorf("%q reads %q, not %q", stem, American(stem), p.American)
		}
	}
}

// A baker who reads American words also types them: what a name becomes is understood as the same thing.
func TestAmericanNamesAreUnderstood(t *testing.T) {
	us := For(units.Settings{English: units.US})
	pantry := larder.Vocabulary(nil)
	for _, i := range larder.Ingredients.All() {
		name := us.Label(i.Name)
		if name == (Reading{}).Label(i.Name) {
			continue
		}
		got := pantry.ReadLine("100 g "+name, units.Conventions{})
		if got.Ingredient == nil || *got.Ingredient != i.Key {
			t.Errorf("%q is taken for %+v, not for %s", name, got, i.Key)
		}
	}
}

func TestFiguresReadAsTheKitchenDoes(t *testing.T) {
	gb, us := Reading{}, For(units.Settings{Weights: "oz", Lengths: "in", Heat: "f", English: units.US})
	comma := For(units.Settings{Decimal: units.Comma, Heat: "gas"})
	fan := For(units.Settings{Heat: "fan"})
	for _, c := range []struct{ got, want string }{
		{gb.Weight(376), "376 g"},
		{gb.Weight(7.26), "7.3 g"},
		{us.Weight(376), "13.3 oz"},
		{us.Weight(7.26), "0.26 oz"},
		{us.Weight(907.184), "32 oz"},
		{comma.Weight(7.26), "7,3 g"},
		{gb.Figure(message.KindMillimetres, 15.4), "15 mm"},
		{gb.Figure(message.KindMillimetres, 3.52), "3.5 mm"},
		{us.Figure(message.KindMillimetres, 15), "5/8 in"},
		{gb.CM(24), "24 cm"},
		{us.CM(22.86), "9 in"},
		{us.Text(message.New("It is set at 82 to 92 C, 10 to 15 mm deep.")), "It is set at 180 to 198 °F, 3/8 to 5/8 in deep."},
		{gb.Text(message.New("It is set at 82 to 92 C.")), "It is set at 82 to 92 °C."},
		{gb.Figure(message.KindOvenHeat, 180), "180 °C"},
		{us.Figure(message.KindOvenHeat, 180), "355 °F"},
		{comma.Figure(message.KindOvenHeat, 135), "gas ½"},
		{comma.Figure(message.KindOvenHeat, 180), "gas 4"},
		{fan.Figure(message.KindOvenHeat, 180), "fan 160 °C"},
		{comma.Number(47.25), "47,3"},
		{gb.Number(-0.01), "0"},
		{gb.Text(message.New("Take out 120 g of fruit, or use a dish of 2.1 l.")), "Take out 120 g of fruit, or use a dish of 2.1 l."},
		{us.Text(message.New("Colour it at 200 C, 15 mm thick, 120 g in 22.86 cm.")), "Color it at 392 °F, 5/8 in thick, 4.2 oz in 9 in."},
		{comma.Text(message.New("A dish of 2.1 l, 7.3 g of cornflour.")), "A dish of 2,1 l, 7,3 g of cornflour."},
		{comma.Text(message.New("{much} of {name}, {deep} deep, in {dish}", message.Grams(7.26), message.Name("Cornflour"), message.Millimetres(9.52), message.Millilitres(2140))), "7,3 g of Cornflour, 9,5 mm deep, in 2,1 l"},
		{us.Text(message.New("{much} of {name}, {colour} deep, in {dish}", message.Grams(120), message.Name("Cornflour"), message.Millimetres(15), message.Millilitres(2140))), "4.2 oz of Cornstarch, 5/8 in deep, in 2.3 quarts"},
		{us.Text(message.New("{who} says: turn it down by {degrees}, to {heat}", message.Text("Colour 15 mm"), message.CelsiusDifference(30), message.OvenHeat(170))), "Colour 15 mm says: turn it down by 55 °F, to 340 °F"},
		{comma.Text(message.New("by {degrees}, to {heat}", message.CelsiusDifference(30), message.OvenHeat(180))), "by 30 °C, to gas 4"},
		{us.Text(message.New("Keep it at 5 C or below.")), "Keep it at 41 °F or below."},
		{comma.Text(message.New("Keep it at 5 C or below.")), "Keep it at 5 °C or below."},
		{fan.Text(message.New("Cook the middle to 71 C.")), "Cook the middle to 71 °C."},
		{us.Label("Cornflour (US: cornstarch)"), "Cornstarch"},
		{gb.Label("Cornflour (US: cornstarch)"), "Cornflour"},
		{gb.Label("Apple, sour (a (nested) one) from the yard"), "Apple, sour one) from the yard"},
		{gb.Label("("), "("},
		{gb.Label("(mine)"), "(mine)"},
		{gb.Label("??!"), "??!"},
		{gb.Label("Plum (from aunt"), "Plum (from aunt"},
	} {
		if c.got != c.want {
			t.Errorf("%q, not %q", c.got, c.want)
		}
	}
}

func FuzzText(f *testing.F) {
	f.Add("Take out 120 g at 200 C, 15.5 mm of cornflour (US: cornstarch)")
	f.Add("9999999999999999999999999999999999999999 g 1.1.1.1 COLOUR")
	f.Fuzz(func(t *testing.T, s string) {
		all := For(units.Settings{Weights: "oz", Lengths: "in", Heat: "gas", English: units.US, Decimal: units.Comma})
		if all.Words(s) == "" && s != "" {
			t.Errorf("%q reads as nothing", s)
		}
		if (Reading{}).Label(s) == "" && s != "" {
			t.Errorf("the name %q reads as nothing", s)
		}
	})
}

func TestInchesAreThoseOfARuler(t *testing.T) {
	inches := Reading{Lengths: "in"}
	for in, want := range map[float64]string{
		0: "0", 0.004: "0", 0.03: "1/16", 0.12: "1/8", 0.19: "1/4", 0.59: "5/8", 0.98: "1", 9.45: "9 1/2", 13: "13",
		-0.6: "-5/8", -13: "-13",
	} {
		if got := inches.CM(in * units.CMInch); got != want+" in" {
			t.Errorf("%g in is %q, want %q", in, got, want)
		}
		if got := inches.Figure(message.KindMillimetres, 10*in*units.CMInch); got != want+" in" {
			t.Errorf("%g in, in mm, is %q, want %q", in, got, want)
		}
	}
}

// Every kind of figure has a form in every reading, and no figure is without one.
func TestEveryFigureHasAForm(t *testing.T) {
	for _, weights := range []string{"g", "oz", "spoons"} {
		for _, heat := range []string{"c", "f", "gas", "fan"} {
			for _, lengths := range []string{"cm", "in"} {
				forms := For(units.Settings{Weights: weights, Heat: heat, Lengths: lengths}).Forms()
				for _, kind := range []message.Kind{
					message.KindGrams, message.KindMillimetres, message.KindCentimetres, message.KindMillilitres,
					message.KindOvenHeat, message.KindCelsius, message.KindCelsiusDifference, message.KindNumber,
				} {
					if f := forms[kind]; len(f) == 0 || f[len(f)-1].Below != 0 {
						t.Errorf("%s, %s, %s: figures of %q have the form %+v", weights, heat, lengths, kind, f)
					}
				}
			}
		}
	}
}

func TestAnOvenReadsTheNearestGasMark(t *testing.T) {
	for c, want := range map[float64]string{20: "¼", 110: "¼", 121: "½", 136: "1", 150: "2", 181: "4", 184.9: "4", 186: "5", 240: "9", 400: "9"} {
		if got := (Reading{Heat: "gas"}).Figure(message.KindOvenHeat, c); got != "gas "+want {
			t.Errorf("%g C is mark %s, want %s", c, got, want)
		}
	}
}
