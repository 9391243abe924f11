package recipe

import (
	"encoding/json"
	"math"
	"os"
	"strings"
	"testing"

	"mabbin/core/bake"
	"mabbin/core/dish"
	"mabbin/core/reader"
	"mabbin/core/units"
)

// imported reads a whole recipe and judges it, in a dish of the test's where it names none.
func imported(t *testing.T, text string) (*Document, Request, *Verdict) {
	t.Helper()
	r, err := reader.Read(reader.Source{Text: text}, pantry, units.Conventions{})
	if err != nil {
		t.Fatal(err)
	}
	d := NewDocument(r, pantry, nil)
	q := Request{
		Lines: d.Lines, Steps: d.Steps, Style: d.Style, Savoury: d.Savoury, Split: d.Split, Dishes: d.Dishes, Dish: d.Dish,
		Cup: d.Cup, Spoon: d.Spoon,
	}
	if q.Dish == nil {
		q.Dish = &dish.Dish{Shape: dish.Oval, LengthCM: 30, WidthCM: 21, DepthCM: 5.5, Material: "stoneware"}
	}
	v, err := Judge(t.Context(), q, pantry)
	if err != nil {
		t.Fatal(err)
	}
	return d, q, v
}

// Every worked recipe is judged, or says what it waits for; and what mends its bake does mend it.
func TestWorkedRecipesAreJudged(t *testing.T) {
	raw, err := os.ReadFile("../reader/testdata/recipe-cases.json")
	if err != nil {
		t.Fatal(err)
	}
	var cases []struct{ Name, Text string }
	if err := json.Unmarshal(raw, &cases); err != nil {
		t.Fatal(err)
	}
	mends := 0
	for _, c := range cases {
		if strings.HasPrefix(c.Text, "<") {
			continue // server/formats takes its recipe out of the page
		}
		_, q, v := imported(t, c.Text)
		if v.AsWritten == nil {
			if v.Open == 0 && len(v.Waits) == 0 {
				t.Errorf("%s is not judged, and does not say why: %s", c.Name, v.Cannot)
			}
			continue
		}
		if v.Baked == nil || v.Baked.Mend == nil {
			continue
		}
		mends++
		again, err := bake.WrittenBake(t.Context(), v.AsWritten.Request, bake.Setting{
			Stages: v.Baked.Mend.Stages, Fire: fireOf(q.Steps, q.Dish.LengthCM),
		})
		if err != nil {
			t.Fatal(err)
		}
		if again.Mend != nil || again.Verdict.MoreMin > 0 {
			t.Errorf("%s: after %q it still reads %q", c.Name, v.Baked.Mend.Text, again.Verdict.Summary)
		}
	}
	if mends < 5 {
		t.Errorf("only %d bakes were mended", mends)
	}
}

// What the method says of a dish, a base, the fruit and the eggs is in the dessert.
func TestTheMethodReachesTheDessert(t *testing.T) {
	_, _, v := imported(t, `Plum pots
600 g plums, stoned
60 g caster sugar
12 g cornflour

Topping
120 g plain flour
60 g cold butter
60 g demerara sugar

Cook the plums with the sugar in a covered pan for 5 minutes. Stir in the cornflour. Divide between six 200 ml ramekins
and cover with the topping. Bake at 190C for 25 minutes.`)
	if r := v.AsWritten; r == nil || math.Abs(r.Answer.FruitG-600*0.94/6) > 6 || math.Abs(r.Answer.ToppingG-40) > 0.5 {
		t.Fatalf("one of six: %+v", v)
	}
	if p := v.AsWritten.Request.Precook; p == nil || p.Minutes != 5 || p.Open {
		t.Errorf("cooked first: %+v", p)
	}
	_, _, v = imported(t, `Pear custard bars
Crust
200 g plain flour
100 g butter
50 g icing sugar
Filling
500 g pears, peeled and sliced
3 large eggs
150 g caster sugar
30 g plain flour
120 ml double cream

Press the crust into a 20 x 30 cm tin and bake at 180C for 18 minutes. Scatter the pears over. Whisk the sugar and flour
with the eggs and cream and pour over. Bake for 40 minutes, until set. Cool for 2 hours and cut into 16.`)
	a := v.AsWritten
	if a == nil || a.Request.Custard == nil || a.Request.Base == nil || !a.Request.Base.ParBaked {
		t.Fatalf("%+v", v)
	}
	eggs := 0.0
	for _, b := range a.Answer.Ticket {
		for _, l := range b.Lines {
			if l.Key == "egg" {
				eggs += l.G
			}
		}
	}
	if math.Abs(eggs-150) > 15 || math.Abs(a.Answer.SugarG-150) > 1 {
		t.Errorf("%.0f g of egg, %.0f g of sugar", eggs, a.Answer.SugarG)
	}
}

// A savoury filling gets no sugar, and neither cream nor fruit juice is served with it.
func TestASavouryRecipeStaysSavoury(t *testing.T) {
	d, _, v := imported(t, `Courgette and tomato crumble
2 onions, sliced
600 g courgettes, sliced 1 cm thick
400 g tomatoes
2 tbsp olive oil
1 tsp salt

Topping
120 g plain flour
60 g butter
60 g cheddar, grated

Soften the onions in the oil for 10 minutes in a pan, add the courgettes and tomatoes and tip into a 2 litre dish. Scatter
the topping over. Bake at 190C for 40 minutes.`)
	if !d.Savoury || v.AsWritten == nil || v.AsWritten.Request.Sweetness != "savoury" || v.AsWritten.Answer.SugarG > 1 {
		t.Fatalf("savoury %v: %+v", d.Savoury, v)
	}
	if own := v.Own.Answer.SugarG; own > 20 {
		t.Errorf("%.0f g of sugar in Mabbin's version", own)
	}
}
