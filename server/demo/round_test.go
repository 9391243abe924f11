package demo

import (
	"math"
	"testing"

	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/reader"
	"mabbin/core/recipe"
	"mabbin/core/units"
	"mabbin/server/formats"
)

// A card that is written as plain text and read again is the same dessert: what a baker passes on by hand survives it,
// with its base, its custard and its doughs.
func TestEveryCardReadsBackFromItsText(t *testing.T) {
	pantry := larder.Vocabulary(nil)
	by := units.Conventions{Cup: units.MetricCup, Spoon: units.MetricSpoon, Eggs: units.UKEggs}
	for _, c := range cards {
		r := c.version(len(c.versions))
		a, err := balance.Solve(r)
		if err != nil {
			t.Fatal(err)
		}
		text := formats.WriteText(recipe.Card{Name: c.name, Request: r, OvenC: c.ovenC, Minutes: c.minutes}, a)
		read, err := reader.Read(reader.Source{Text: text}, pantry, by)
		if err != nil {
			t.Fatalf("%s: %v", c.name, err)
		}
		d := recipe.NewDocument(read, pantry, nil)
		if d.Name != c.name || d.Style != r.Style {
			t.Errorf("%s is read as %q, a %s", c.name, d.Name, d.Style)
		}
		for i := range d.Lines {
			d.Lines[i].Sure = true
		}
		v, err := recipe.Judge(t.Context(), recipe.Request{
			Lines: d.Lines, Style: r.Style, Dish: &r.Dish, Cup: by.Cup, Spoon: by.Spoon, Eggs: by.Eggs,
		}, pantry)
		if err != nil {
			t.Fatal(err)
		}
		for _, row := range v.Rows {
			for _, q := range row.Questions {
				t.Errorf("%s: %q asks: %s", c.name, row.Text, q.Text)
			}
		}
		if v.AsWritten == nil {
			t.Errorf("%s is not judged: %s", c.name, v.Cannot)
			continue
		}
		back := v.AsWritten.Answer
		near := func(what string, was, is float64) {
			t.Helper()
			if math.Abs(was-is) > 0.02*was+1.5 {
				t.Errorf("%s: %s was %.1f g and is %.1f g", c.name, what, was, is)
			}
		}
		near("the fruit", a.FruitG, back.FruitG)
		near("the base", a.BaseG, back.BaseG)
		near("the topping", a.ToppingG, back.ToppingG)
		if r.Custard == nil {
			near("the sugar", a.SugarG, back.SugarG)
			near("the thickener", a.ThickenerG, back.ThickenerG)
		}
		// what is done to the fruit is in the method, and not in its lines; a late topping is one with the first there
		if r.Custard == nil && !r.Washed && r.Precook == nil && len(r.Late) == 0 {
			near("the juice", a.JuiceG, back.JuiceG)
		}
	}
}
