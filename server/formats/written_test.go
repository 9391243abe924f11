package formats

import (
	"strings"
	"testing"

	"mabbin/core/larder"
	"mabbin/core/reader"
	"mabbin/core/recipe"
	"mabbin/core/units"
	"mabbin/server/render"
)

const cupsRecipe = `Gran's Plum Crumble
Serves 6

900 g plums, stoned
1/2 cup sugar
1 tsp Cornstarch

TOPPING
1 1/2 cups flour
1 stick cold butter
1/2 cup brown sugar
vanilla ice cream, to serve

Toss the plums with the sugar and cornstarch in a 9 x 9 inch glass dish. Rub in the butter and scatter over.
Bake at 375F for 45 minutes.`

// A mended recipe keeps its writer's order, words and units; only what was changed is written anew.
func TestAMendedRecipeStaysItsWriters(t *testing.T) {
	p := larder.Vocabulary(nil)
	r, err := reader.Read(reader.Source{Text: cupsRecipe}, p, units.Conventions{})
	if err != nil {
		t.Fatal(err)
	}
	d := recipe.NewDocument(r, p, nil)
	q := recipe.Request{Lines: d.Lines, Steps: d.Steps, Style: d.Style, Dish: d.Dish, Cup: d.Cup, Split: d.Split}
	v, err := recipe.Judge(t.Context(), q, p)
	if err != nil || v.Mended == nil || len(v.Changes) == 0 {
		t.Fatalf("%v, %+v", err, v)
	}
	for format, want := range map[recipe.Format][]string{
		recipe.FormatText: {
			"Gran's Plum Crumble\n", "TOPPING\n", "\n900 g plums, stoned\n", "tbsp cold butter\n", " Cornstarch\n", "Serves 6\n", "vanilla ice cream, to serve\n", "Bake at 375F for 45 minutes.", "Changed with Mabbin",
		},
		recipe.FormatJSONLD: {`"@type": "Recipe"`, `"TOPPING:"`, `"900 g plums, stoned"`},
		recipe.FormatHTML:   {"<h1>Gran&#39;s Plum Crumble</h1>", "<li>900 g plums, stoned</li>"},
	} {
		f, err := WriteWritten(format, recipe.Rewrite(*d, q, v), render.Reading{})
		if err != nil {
			t.Fatal(err)
		}
		for _, s := range want {
			if !strings.Contains(f.Content, s) {
				t.Errorf("%s: no %q in\n%s", format, s, f.Content)
			}
		}
		if strings.Contains(f.Content, "1 tsp Cornstarch") {
			t.Errorf("%s: the thickener is not changed in\n%s", format, f.Content)
		}
	}
	if _, err := WriteWritten(recipe.FormatCSV, recipe.Written{}, render.Reading{}); err == nil {
		t.Error("a recipe is written as a table")
	}
}
