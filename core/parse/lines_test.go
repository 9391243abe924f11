package parse_test

import (
	"fmt"
	"math"
	"os"
	"strconv"
	"strings"
	"testing"

	"mabbin/core/larder"
	"mabbin/core/parse"
	"mabbin/core/units"
)

// lines are what bakers write, with what it is understood to be: key, grams, and the codes of what is asked.
func lines(t testing.TB) [][]string {
	t.Helper()
	b, err := os.ReadFile("testdata/lines.tsv")
	if err != nil {
		t.Fatal(err)
	}
	var out [][]string
	for l := range strings.Lines(string(b)) {
		out = append(out, strings.Split(strings.TrimSuffix(l, "\n"), "\t"))
	}
	return out
}

func TestLinesAsBakersWriteThem(t *testing.T) {
	p := larder.Vocabulary(nil)
	all := lines(t)
	if len(all) < 150 {
		t.Errorf("only %d lines", len(all))
	}
	for _, want := range all {
		l := p.ReadLine(want[0], units.Conventions{Cup: units.USCup})
		key, g := "-", "-"
		if l.Ingredient != nil {
			key = *l.Ingredient
		}
		if l.Heading != "" {
			key = "heading"
		}
		if l.G != nil {
			g = fmt.Sprintf("%.4g", *l.G)
		}
		var asks []string
		for _, q := range l.Questions {
			asks = append(asks, q.Code)
		}
		if key != want[1] || g != want[2] || strings.Join(asks, " ") != want[3] {
			t.Errorf("%q is %s, %s g, asks %v; want %v", want[0], key, g, asks, want[1:])
		}
		if l.Ingredient == nil && l.Heading == "" && len(l.Questions) == 0 {
			t.Errorf("%q is neither understood nor asked about", want[0])
		}
	}
}

// A line that asks for the same of several things loses none of them.
func TestSeveralThingsOnALine(t *testing.T) {
	p := larder.Vocabulary(nil)
	for line, want := range map[string]string{
		"100 g each butter, flour and sugar":                 "butter 100 wheat_flour 100 white_sugar 100",
		"100g each of butter, plain flour, and caster sugar": "butter 100 wheat_flour 100 caster_sugar 100",
		"butter, plain flour and demerara sugar, 120 g each": "butter 120 wheat_flour 120 demerara_sugar 120",
		"1/2 tsp each of ground cinnamon, nutmeg & salt":     "cinnamon 1.3 nutmeg 1.1 salt 3",
		"1 tbsp each cornflour and lemon juice":              "cornflour 8 lemon_juice 15",
		"2 eggs plus 1 yolk":                                 "egg 100 egg_yolk 17",
		"250 g each blackberries and raspberries, frozen":    "blackberry 250 raspberry 250",
		"60 g each walnuts and unicorn dust":                 "?",
		"2 tins each of apricots and peaches":                "?",
	} {
		l := p.ReadLine(line, units.Conventions{Cup: units.USCup})
		if want == "?" {
			if l.Ingredient != nil || len(l.Also) > 0 || len(l.Questions) == 0 {
				t.Errorf("%q: %+v, and nothing is asked", line, l)
			}
			continue
		}
		if l.Ingredient == nil || l.G == nil {
			t.Errorf("%q: %+v", line, l.Questions)
			continue
		}
		got := fmt.Sprintf("%s %.2g", *l.Ingredient, *l.G)
		if *l.G >= 10 {
			got = fmt.Sprintf("%s %.0f", *l.Ingredient, *l.G)
		}
		for _, a := range l.Also {
			if a.G >= 10 {
				got += fmt.Sprintf(" %s %.0f", a.Ingredient, a.G)
			} else {
				got += fmt.Sprintf(" %s %.2g", a.Ingredient, a.G)
			}
		}
		if got != want {
			t.Errorf("%q is %s, want %s", line, got, want)
		}
	}
}

// The kind of a named sort is asked for with every kind to choose from, and with the name to remember it by.
func TestANamedSortIsAskedAboutOnce(t *testing.T) {
	l := larder.Vocabulary(nil).ReadLine("4 Nonesuch Pippin apples, peeled", units.Conventions{})
	if len(l.Questions) != 1 || len(l.Questions[0].SuggestKey) < 4 || l.Questions[0].Sort != "nonesuch pippin apples" {
		t.Fatalf("%+v", l.Questions)
	}
	own := &larder.Own{
		Fruits: map[string]larder.OwnRow{"nonesuch_pippin": {CopyOf: "apple_sharp", Name: "nonesuch pippin apples"}},
	}
	l = larder.Vocabulary(own).ReadLine("4 Nonesuch Pippin apples, peeled", units.Conventions{})
	if l.Ingredient == nil || *l.Ingredient != "nonesuch_pippin" || !l.AsBought {
		t.Errorf("%+v", l)
	}
}

// A pint is the kitchen's.
func TestAPintIsTheKitchens(t *testing.T) {
	p := larder.Vocabulary(nil)
	us := p.ReadLine("1 pint water", units.Conventions{Cup: units.USCup})
	uk := p.ReadLine("1 pint water", units.Conventions{Cup: units.MetricCup, Eggs: units.UKEggs})
	if us.G == nil || uk.G == nil || *us.G > 480 || *uk.G < 560 {
		t.Errorf("a pint of water is %v g in the US, %v g in Britain", *us.G, *uk.G)
	}
}

func TestALineSaysWhatItTookForGranted(t *testing.T) {
	p := larder.Vocabulary(nil)
	for line, text := range map[string]string{
		"2 1/4 cups plain flour, scooped": "142 g a cup of 236.6 ml, scooped",
		"1 cup sifted flour":              "sifted",
		"1 cup flour":                     "spooned",
		"1 cup brown sugar":               "packed",
		"3 large apples":                  "firm apples",
		"2-3 tbsp cornflour":              "the middle of 16 to 24 g",
		"1 heaped tbsp flour":             "1.5 of a level one",
		"2.5 eggs":                        "crack 3, 25 g are left",
		"caster or granulated sugar 50 g": "the first of the two",
		"2 limes, juiced":                 "one lime = 0.6 lemon",
		"a knob of butter":                "15 g",
	} {
		if l := p.ReadLine(line, units.Conventions{}); !strings.Contains(l.As.String(), text) {
			t.Errorf("%q says %q, want %q in it", line, l.As, text)
		}
	}
}

func TestTheKitchensOwnMeasuresAreUsed(t *testing.T) {
	p := larder.Vocabulary(nil)
	for _, c := range []struct {
		line string
		by   units.Conventions
		want float64
	}{
		{"2 large eggs", units.Conventions{Cup: units.MetricCup}, 116},
		{"2 large eggs", units.Conventions{Cup: units.USCup}, 100},
		{"2 large eggs", units.Conventions{Cup: units.MetricCup, Eggs: units.USEggs}, 100},
		{"1 egg", units.Conventions{Cup: units.MetricCup}, 50},
		{"1 cup milk", units.Conventions{Cup: units.MetricCup}, 257.8},
		{"1 tbsp water", units.Conventions{Spoon: units.AustralianSpoon}, 20},
		{"1 punnet strawberries", units.Conventions{Containers: map[string]float64{"punnet": 250}}, 250},
		{"2 punnets strawberries", units.Conventions{Containers: map[string]float64{"punnet": 250, "punnet strawberry": 400}}, 800},
		{"1 tin peaches", units.Conventions{Containers: map[string]float64{"tin": 240}}, 240},
	} {
		l := p.ReadLine(c.line, c.by)
		if l.G == nil || math.Abs(*l.G-c.want) > 0.005*c.want {
			t.Errorf("%q by %+v: %+v, want %g g", c.line, c.by, l, c.want)
		}
	}
}

func TestCloseMissesAreOfferedNotTaken(t *testing.T) {
	p := larder.Vocabulary(nil)
	for line, key := range map[string]string{
		"100 g rasberries": "raspberry", "sugr 50 g": "white_sugar", "1 tsp cinamon": "cinnamon", "cornflower 20 g": "cornflour",
		"2 tbsp tapyoca starch": "tapioca_starch", "100 g coconut sugar": "white_sugar",
	} {
		l := p.ReadLine(line, units.Conventions{})
		if l.Ingredient != nil || len(l.Questions) != 1 || len(l.Questions[0].SuggestKey) == 0 ||
			l.Questions[0].SuggestKey[0] != key {
			t.Errorf("%q: %+v, want to be asked whether it is %s", line, l, key)
		}
	}
	l := p.ReadAs("2 tbsp tapyoca starch", mustGet(t, p, "tapioca_starch"), units.Conventions{})
	if l.G == nil || math.Abs(*l.G-15) > 0.1 || len(l.Questions) != 0 {
		t.Errorf("told what it is: %+v", l)
	}
}

func mustGet(t *testing.T, p *parse.Vocabulary, key string) parse.Thing {
	t.Helper()
	x, ok := p.Get(key)
	if !ok {
		t.Fatalf("no %s", key)
	}
	return x
}

func FuzzReadLine(f *testing.F) {
	p := larder.Vocabulary(&larder.Own{})
	for _, s := range []string{"2 1/4 cups plain flour, scooped", "juice of ½ lemon", "2 (14-oz) cans peaches", "400 g / 10 oz plums", "1 cup plus 2 tbsp", "-", "(((", "1/0", "a", "half a dozen and a half", "2 x 2 x 2 x", "\xff\xfe", "٣ cups", strings.Repeat("1 cup plus ", 40)} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		for _, l := range p.ReadLines(s, units.Conventions{}) {
			if l.G != nil && (math.IsNaN(*l.G) || math.IsInf(*l.G, 0) || *l.G < 0) {
				t.Errorf("%q weighs %s", s, strconv.FormatFloat(*l.G, 'g', -1, 64))
			}
		}
	})
}

func BenchmarkReadThousandLines(b *testing.B) {
	p := larder.Vocabulary(nil)
	var text strings.Builder
	all := lines(b)
	for i := range 1000 {
		text.WriteString(all[i%len(all)][0] + "\n")
	}
	b.ReportAllocs()
	for b.Loop() {
		p.ReadLines(text.String(), units.Conventions{})
	}
}

func BenchmarkReadMegabyteOfAnything(b *testing.B) {
	p := larder.Vocabulary(nil)
	s := strings.Repeat("1 cup plus (½ x 3/4 of -- \x00 juice and ", 1<<20/38)
	for b.Loop() {
		p.ReadLines(s, units.Conventions{})
	}
}
