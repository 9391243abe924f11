package formats

import (
	"encoding/json"
	"errors"
	"reflect"
	"strings"
	"testing"

	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/reader"
	"mabbin/core/recipe"
	"mabbin/core/topping"
	"mabbin/core/units"
)

func ptr[T any](v T) *T { return &v }

// whole is a card with every kind of field in it.
var whole = recipe.Card{
	Name: `Damson & "apple", late`, OvenC: 185, Minutes: 45, Note: "<b>Stone</b> them",
	Request: balance.Request{
		Dish: dish.Dish{
			Shape:         dish.Oval,
			LengthCM:      30,
			WidthCM:       21,
			DepthCM:       5.5,
			FloorLengthCM: 26,
			FloorWidthCM:  17,
			MeasuredML:    2150,
			Material:      "glass",
		},
		Style: "crumble",
		Fruits: []balance.FruitInput{
			{Key: "damson", Share: 0.6, Frozen: true, MeasuredRelease: 0.5},
			{Key: "orchard_apple", Share: 0.4, Peeled: ptr(false), CutMM: 12, Size: "large", LossPct: 15},
		},
		Washed: true,
		Precook: &balance.PrecookInput{
			Minutes: 6,
			Where:   "oven",
		},
		Macerate: &balance.MacerateInput{Minutes: 30, Juice: "reduce", WithThickener: true},
		Liquids: []balance.Quantity{
			{Key: "lemon_juice", G: 20},
		},
		Extras:      []balance.Quantity{{Key: "raisins", G: 50}},
		CrumbLayerG: 30,
		WeighedFruitG: ptr(
			940.5,
		),
		Sweetness:   "tart",
		SugarG:      ptr(120.0),
		SetTarget:   ptr(3.9),
		LongBoil:    true,
		SteamedOffG: ptr(70.0),
		Thickener: &balance.ThickenerInput{
			Key:  "arrowroot",
			G:    ptr(12.0),
			With: []balance.Quantity{{Key: "cornflour", G: 5}},
		},
		Topping: balance.ToppingInput{
			Key:         "crumble_oat",
			Amount:      topping.Generous,
			ThicknessMM: 17,
			BakersPct:   map[string]float64{"butter": 90, "hazelnuts": 20},
		},
		Portion: "hearty",
		Cup:     "metric",
		Spoon:   "australian",
		Eggs:    "uk",
		Own: &larder.Own{
			Fruits: map[string]larder.OwnRow{
				"orchard_apple": {CopyOf: "apple_firm", Name: "Orchard apple", Values: map[string]float64{"acid_pct": 0.7}},
			},
			Ingredients: map[string]larder.OwnRow{"butter": {Values: map[string]float64{"price_per_kg": 8.5}}},
		},
	},
}

func TestEveryFormKeepsTheCardWhole(t *testing.T) {
	for _, f := range []recipe.Format{recipe.FormatJSONLD, recipe.FormatHTML, recipe.FormatCSV} {
		file, err := written(t, f, whole)
		if err != nil {
			t.Fatal(err)
		}
		d, err := Find(file.Name, file.Content)
		if err != nil {
			t.Fatalf("%s: %v\n%s", f, err, file.Content)
		}
		if d.Format != f || d.Card == nil || !reflect.DeepEqual(*d.Card, whole) {
			got, _ := json.Marshal(d.Card)
			want, _ := json.Marshal(whole)
			t.Errorf("%s came back as %s\n%s\nwant\n%s", f, d.Format, got, want)
		}
		if n := len(d.Source.Ingredients); n < 8 {
			t.Errorf("%s: %d lines for others to read", f, n)
		}
	}
}

// read finds a recipe and reads it.
func read(t *testing.T, name, content string, own *larder.Own) *recipe.Document {
	t.Helper()
	found, err := Find(name, content)
	if err != nil {
		t.Fatal(err)
	}
	p := larder.Vocabulary(own)
	r, err := reader.Read(found.Source, p, units.Conventions{Cup: units.MetricCup})
	if err != nil {
		t.Fatal(err)
	}
	return recipe.NewDocument(r, p, nil)
}

// baked is the first stage of a recipe's bake.
func baked(t *testing.T, d *recipe.Document) (c, minutes float64) {
	t.Helper()
	stages, missing := recipe.StagesOf(d.Steps)
	if len(stages) == 0 || len(missing) > 0 {
		t.Fatalf("no bake: %v", missing)
	}
	return stages[0].OvenC, stages[0].Minutes
}

// What is given away as text is understood again, line by line and bowl by bowl.
func TestTextIsReadAgain(t *testing.T) {
	file, err := written(t, recipe.FormatText, whole)
	if err != nil {
		t.Fatal(err)
	}
	d := read(t, "", file.Content, whole.Request.Own)
	if c, minutes := baked(t, d); d.Name != whole.Name || c != 185 || minutes != 45 {
		t.Fatalf("%+v", d)
	}
	v, err := recipe.Judge(
		t.Context(),
		recipe.Request{Lines: d.Lines, Style: "crumble", Cup: "metric", Own: whole.Request.Own},
		larder.Vocabulary(whole.Request.Own),
	)
	if err != nil || v.Open > 0 {
		t.Fatalf("%d questions, %v: %+v", v.Open, err, v.Rows)
	}
	in := map[recipe.Bowl]int{}
	for _, r := range v.Rows {
		in[r.Bowl]++
	}
	if in[recipe.Topping] != 6 || in[recipe.Filling] != 8 {
		t.Errorf("bowls: %v\n%s", in, file.Content)
	}
}

const page1 = `<!doctype html><html><head><title>x</title>
<script type="application/ld+json">{broken</script>
<script type="application/ld+json">{"@context":"https://schema.org","@graph":[{"@type":"WebPage"},{"@type":["Recipe"],"name":"Plum &amp; oat crisp",
"recipeYield":["6","6 bowls"],"recipeIngredient":["900 g plums","<img src=x onerror=alert(1)>100 g sugar","3 tbsp cornflour &frac12;"],
"recipeInstructions":[{"@type":"HowToSection","itemListElement":[{"@type":"HowToStep","text":"Heat the oven to 190C/gas 5."},{"@type":"HowToStep","text":"Bake for 40-50 minutes."}]}]}]}</script>
</head><body><script>alert(2)</script></body></html>`

func TestRecipesOfOthersAreRead(t *testing.T) {
	d := read(t, "plum.html", page1, nil)
	if c, minutes := baked(t, d); d.Name != "Plum & oat crisp" || d.Style != "crisp" || c != 190 || minutes != 45 ||
		len(d.Lines) != 3 || d.Lines[1].Text != "100 g sugar" {
		t.Errorf("%+v", d)
	}
	d = read(
		t,
		"",
		`<html><body itemscope itemtype="https://schema.org/Recipe"><h1 itemprop="name">Pear crumble</h1><li itemprop="recipeIngredient">6 <b>pears</b></li><li itemprop="recipeIngredient">100 g sugar</li></body></html>`,
		nil,
	)
	if d.Name != "Pear crumble" || len(d.Lines) != 2 || d.Lines[0].Text != "6 pears" {
		t.Errorf("%+v", d)
	}
	d = read(t, "list.csv", "Section;Ingredient;Quantity;Unit\nfilling;plums;900;g\ntopping;plain flour;1 1/2;cups\n", nil)
	if len(d.Lines) != 2 || d.Lines[1].Text != "1 1/2 cups plain flour" || d.Lines[1].Bowl != recipe.Topping {
		t.Errorf("%+v", d)
	}
	d = read(
		t,
		"",
		"Gran's crumble\nServes 6\n\n900 g plums\n100 g sugar\n50 g butter\n\nMethod\nBake at 350F for 1 hour.\n",
		nil,
	)
	if c, minutes := baked(t, d); d.Name != "Gran's crumble" || len(d.Lines) != 3 || minutes != 60 || int(c) != 177 {
		t.Errorf("%+v", d)
	}
	d = read(
		t,
		"page.html",
		`<html><head><title>x</title><script>var a = "900 g"</script></head><body><nav>Home</nav><h1>Damson crisp</h1>
<ul><li>900 g damsons</li><li>150 g caster sugar</li><li>100 g oats</li><li>80 g butter</li></ul><p>Bake at 180C for 40 minutes.</p></body></html>`,
		nil,
	)
	if c, minutes := baked(t, d); d.Name != "Damson crisp" || len(d.Lines) != 4 || c != 180 || minutes != 40 {
		t.Errorf("a page without recipe data: %+v", d)
	}
}

func TestWhatCannotBeReadNamesTheLine(t *testing.T) {
	for text, c := range map[string]struct{ file, content string }{
		"is empty":           {"", "  \n "},
		"line 3":             {"x.json", "{\n\"@type\": \"Recipe\",\n\"name\": oops}"},
		"not CSV":            {"x.csv", "name,grams\nplums,\"900\nbutter,100\n"},
		"no column":          {"x.csv", "colour,grams\nred,900\n"},
		"line 2: is not UTF": {"", "plums\n\xff\xfe"},
		"schema.org Recipe":  {"x.html", "<html><body><p>plums</p></body></html>"},
		"2 MB":               {"", strings.Repeat("900 g plums\n", 200000)},
		"500":                {"x.csv", "name,grams\n" + strings.Repeat("plums,900\n", 501)},
		"its mabbin:card":    {"", `{"@type":"Recipe","name":"x","recipeIngredient":["1 g salt"],"mabbin:card":{"name":"x","request":{"style":"soup"}}}`},
		"line 2: \"nonsense": {"", "bowl,key,name,grams,value\ncard,/name,,,nonsense\n"},
		"zero bytes":         {"x.pdf", "%PDF\x00\x01"},
	} {
		_, err := Find(c.file, c.content)
		if err == nil || !strings.Contains(err.Error(), text) {
			t.Errorf("%q: %v, want %q in it", c.content[:min(len(c.content), 40)], err, text)
		}
	}
}

func TestHostileHTMLIsText(t *testing.T) {
	c := whole
	c.Name = `</script><script>alert(1)</script>`
	file, err := written(t, recipe.FormatHTML, c)
	if err != nil {
		t.Fatal(err)
	}
	if n := strings.Count(strings.ToLower(file.Content), "<script"); n != 1 {
		t.Errorf("%d scripts in the page:\n%s", n, file.Content)
	}
	d, err := Find(file.Name, file.Content)
	if err != nil || d.Card == nil || d.Card.Name != c.Name {
		t.Errorf("%+v, %v", d, err)
	}
}

func FuzzRead(f *testing.F) {
	for _, form := range []recipe.Format{recipe.FormatJSONLD, recipe.FormatHTML, recipe.FormatCSV, recipe.FormatText} {
		file, _ := written(f, form, whole)
		f.Add(file.Name, file.Content)
	}
	f.Add("x.html", page1)
	f.Add("x.csv", "bowl,key,value\ncard,/request/dish/0/1/2,1\n")
	f.Add("", `[[[[{"@type":"Recipe"}]]]]`)
	f.Fuzz(func(t *testing.T, name, content string) {
		d, err := Find(name, content)
		if err != nil {
			var faults fault.Faults
			if !errors.As(err, &faults) {
				t.Errorf("%v", err)
			}
			return
		}
		if n := len(
			d.Source.Ingredients,
		); n > MaxLines ||
			d.Card == nil && n == 0 && d.Source.Text == "" && d.Format == recipe.FormatText {
			t.Errorf("%d lines", n)
		}
		for _, l := range d.Source.Ingredients {
			if strings.ContainsAny(l, "\n\r") || len([]rune(l)) > longest {
				t.Errorf("%q", l)
			}
		}
	})
}

// written is a card in a form, with the weights of its plain answer.
func written(t testing.TB, f recipe.Format, c recipe.Card) (File, error) {
	t.Helper()
	a, err := balance.Solve(c.Request)
	if err != nil {
		t.Fatal(err)
	}
	return Write(f, c, a)
}
