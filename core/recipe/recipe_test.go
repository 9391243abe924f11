package recipe

import (
	"math"
	"slices"
	"strings"
	"testing"

	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/parse"
	"mabbin/core/units"
)

var (
	pantry    = larder.Vocabulary(nil)
	stoneware = dish.Dish{Shape: dish.Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5, Material: "stoneware"}
	metric    = units.Conventions{Cup: units.MetricCup, Spoon: units.MetricSpoon}
)

func asked(text string) (out []LineRequest) {
	for l := range strings.Lines(text) {
		if l = strings.TrimSpace(l); l != "" {
			out = append(out, LineRequest{Text: l})
		}
	}
	return out
}

const plain = `900 g gooseberries
150 g sugar
20 g cornflour
200 g plain flour
100 g cold butter
100 g demerara sugar
a pinch of salt`

func read(t *testing.T, text string) []Row {
	t.Helper()
	rows, err := ReadText(pantry, text, metric, nil)
	if err != nil {
		t.Fatal(err)
	}
	return rows
}

func bowls(rows []Row) string {
	var s []string
	for _, r := range rows {
		if r.Heading == "" {
			s = append(s, string(r.Bowl))
		}
	}
	return strings.Join(s, " ")
}

func TestLinesFindTheirBowls(t *testing.T) {
	for name, c := range map[string]struct{ text, want string }{
		"by what they are": {plain, "filling filling filling topping topping topping topping"},
		"by headings": {
			"For the crumble topping:\n100 g flour\n50 g butter\n50 g sugar\nFor the filling:\n900 g plums\n80 g sugar\n30 g butter\nTo serve:\n200 ml cream",
			"topping topping topping filling filling filling finish",
		},
		"topping first":          {"150 g flour\n75 g butter\n75 g sugar\n800 g plums\n60 g sugar", "topping topping topping filling filling"},
		"flour as the thickener": {"800 g plums\n2 tbsp flour\n60 g sugar\n150 g oats\n80 g butter", "filling filling filling topping topping"},
		"a base":                 {"Base\n200 g flour\nFilling\n500 g plums", "base filling"},
	} {
		if got := bowls(read(t, c.text)); got != c.want {
			t.Errorf("%s: %s, want %s", name, got, c.want)
		}
	}
}

func codes(r Row) (out []string) {
	for _, q := range r.Questions {
		out = append(out, q.Code)
	}
	return out
}

func TestSlipsAreAskedAboutAndNeverChanged(t *testing.T) {
	for line, want := range map[string]struct {
		in      string
		suggest float64
	}{
		"60 g lemon zest":            {plain, 6},
		"1 tbsp salt":                {plain, 6.09},
		"200 g baking powder":        {plain, 2},
		"150 g cornflour":            {"900 g plums\n100 g flour\n50 g butter", 15},
		"50 g cinnamon":              {plain, 5},
		"900 g butter":               {"900 g plums\n200 g flour\n100 g demerara sugar", 90},
		"3 kg salt":                  {plain, 3},
		"20 tsp vanilla extract":     {"900 g plums\n100 g flour\n50 g butter", 0.85},
		"2 kg granulated sugar":      {"900 g plums\n1 tbsp cornflour", 200},
		"4 tbsp bicarbonate of soda": {"900 g plums\n100 g flour\n50 g butter", 5.6},
	} {
		rows := read(t, want.in+"\n"+line)
		last := rows[len(rows)-1]
		if !slices.Contains(codes(last), parse.AskSlip) {
			t.Errorf("%s: asks %v, not about a slip (%s)", line, codes(last), last.Bowl)
			continue
		}
		q := last.Questions[0]
		if q.SuggestG == nil || math.Abs(*q.SuggestG-want.suggest) > 0.25*want.suggest {
			t.Errorf("%s: %s", line, q.Text)
		}
		sure, err := Read(pantry, append(asked(want.in), LineRequest{Text: line, Sure: true}), "", metric, nil)
		if err != nil || len(sure[len(sure)-1].Questions) != 0 || *sure[len(sure)-1].G != *last.G {
			t.Errorf("%s, surely: %+v, %v", line, sure[len(sure)-1], err)
		}
	}
	for _, r := range read(t, plain+"\n1 tsp cinnamon\n1/4 tsp salt\n2 tsp baking powder") {
		if len(r.Questions) > 0 {
			t.Errorf("usual amounts are asked about: %+v", r)
		}
	}
}

func TestAnswersCloseQuestions(t *testing.T) {
	g := 240.0
	lines := []LineRequest{
		{Text: "1 punnet strawberries"},
		{Text: "100 g coconut sugar"},
		{Text: "salt"},
		{Text: "400 g / 10 oz plums"},
		{Text: "3 unicorns"},
	}
	rows, err := Read(pantry, lines, "", metric, nil)
	if err != nil || Open(rows) != 5 {
		t.Fatalf("%d questions, %v", Open(rows), err)
	}
	lines[0].G, lines[1].Key, lines[2].Out, lines[3].Sure = &g, "demerara_sugar", true, true
	lines[4].Key, lines[4].G = "plum", &g
	rows, err = Read(pantry, lines, "", metric, nil)
	if err != nil || Open(rows) != 0 || *rows[0].G != 240 || *rows[1].Ingredient != "demerara_sugar" ||
		*rows[4].Ingredient != "plum" {
		t.Errorf("%d questions left, %v: %+v", Open(rows), err, rows)
	}
	if _, err := Read(
		pantry,
		[]LineRequest{{Text: "x", Key: "unicorn"}, {Text: "y", Bowl: "bucket"}},
		"",
		metric,
		nil,
	); err == nil || !strings.Contains(err.Error(), "/lines/0/key") ||
		!strings.Contains(err.Error(), "/lines/1/bowl") {
		t.Errorf("a wrong answer: %v", err)
	}
}

func judge(t *testing.T, text string) *Verdict {
	t.Helper()
	v, err := Judge(
		t.Context(),
		Request{Lines: asked(text), Style: "crumble", Dish: &stoneware, Cup: metric.Cup, Spoon: metric.Spoon},
		pantry,
	)
	if err != nil {
		t.Fatal(err)
	}
	if v.Open > 0 {
		t.Fatalf("open: %+v", v.Rows)
	}
	return v
}

func TestAsWrittenIsWhatWasWritten(t *testing.T) {
	v := judge(t, plain)
	a := v.AsWritten.Answer
	if a.FruitG != 900 || a.SugarG != 150 || math.Abs(a.ThickenerG-20) > 0.01 || math.Abs(a.ToppingG-400.3) > 0.1 {
		t.Errorf("fruit %g, sugar %g, thickener %g, topping %g", a.FruitG, a.SugarG, a.ThickenerG, a.ToppingG)
	}
	grams := map[string]float64{}
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			grams[b.Key+" "+l.Key] = l.G
		}
	}
	for k, want := range map[string]float64{"topping wheat_flour": 200, "topping butter": 100, "topping demerara_sugar": 100, "topping salt": 0.3} {
		if math.Abs(grams[k]-want) > 0.1 {
			t.Errorf("%s is %g g, want %g", k, grams[k], want)
		}
	}
	v = judge(t, "6 large apples\n100 g sugar\n30 g flour\nTopping\n120 g flour\n60 g butter\n60 g caster sugar")
	if f, _ := larder.Fruits.Get("apple_firm"); math.Abs(v.AsWritten.Answer.FruitG-6*f.LargeG*f.YieldPeeled) > 0.1 {
		t.Errorf("six apples as bought are %g g prepared", v.AsWritten.Answer.FruitG)
	}
}

func TestTheSmallestChangeMends(t *testing.T) {
	for name, c := range map[string]struct {
		text    string
		wrong   []string
		changes []string
	}{
		"runny":        {"850 g gooseberries\n190 g sugar\n1 tsp cornflour\n170 g flour\n85 g butter\n85 g caster sugar", []string{"set_off_style"}, []string{"thickener"}},
		"stodgy":       {"850 g gooseberries\n190 g sugar\n48 g cornflour\n170 g flour\n85 g butter\n85 g caster sugar", []string{"set_off_style"}, []string{"thickener"}},
		"too sweet":    {"850 g strawberries\n400 g sugar\n40 g cornflour\n170 g flour\n85 g butter\n85 g caster sugar", []string{"too_sweet"}, []string{"sugar", "thickener"}},
		"overflowing":  {"1.4 kg gooseberries\n350 g sugar\n35 g cornflour\n170 g flour\n85 g butter\n85 g caster sugar", []string{"boils_over"}, []string{"fruit", "thickener"}},
		"thin topping": {"900 g gooseberries\n190 g sugar\n22 g cornflour\n70 g flour\n35 g butter\n35 g caster sugar", []string{"topping_thin"}, []string{"thickness"}},
		"dusty":        {"850 g gooseberries\n190 g sugar\n22 g cornflour\n200 g flour\n30 g butter\n85 g caster sugar", []string{"topping_dusty"}, []string{"fat"}},
		"right":        {"900 g gooseberries\n200 g sugar\n20 g cornflour\n170 g flour\n85 g butter\n85 g caster sugar", nil, nil},
	} {
		v := judge(t, c.text)
		var wrong, changes []string
		for _, r := range v.Wrong {
			wrong = append(wrong, r.Code)
		}
		for _, x := range v.Changes {
			changes = append(changes, string(x.Code))
			if x.From == x.To || x.Effect.IsZero() || x.Mends.IsZero() {
				t.Errorf("%s: a change that says nothing: %+v", name, x)
			}
		}
		for _, w := range c.wrong {
			if !slices.Contains(wrong, w) {
				t.Errorf("%s: is said to be %v, want %s among it", name, wrong, w)
			}
		}
		if c.wrong == nil && (len(wrong) > 0 || len(changes) > 0) {
			t.Errorf("%s: %v, %v", name, wrong, changes)
		}
		for _, x := range changes {
			if !slices.Contains(c.changes, x) {
				t.Errorf("%s: changes %v, want only %v", name, changes, c.changes)
			}
		}
		if left := Wrong(&v.Mended.Answer); len(left) > 0 {
			t.Errorf("%s: mended by %v, and still %v", name, changes, left)
		}
	}
}

func TestWhatCannotBeJudgedSaysWhy(t *testing.T) {
	for text, says := range map[string]string{
		"100 g flour\n50 g butter":                            "no fruit",
		"900 g plums\nTopping\n100 g butter":                  "needs flour",
		"900 g plums\nBase\n100 g butter\nTopping\n50 g oats": "a base of",
	} {
		v, err := Judge(t.Context(), Request{Lines: asked(text), Style: "crumble", Dish: &stoneware}, pantry)
		if err != nil || len(v.Rows) == 0 || !strings.Contains(v.Cannot.String(), says) {
			t.Errorf("%q: %+v, %v, want %q", text, v, err, says)
		}
	}
	if v := judge(
		t,
		"900 g plums\n80 g sugar\n20 g cornflour\n120 g oats\n60 g butter\n60 g light brown sugar",
	); v.AsWritten == nil ||
		math.Abs(v.AsWritten.Answer.ToppingG-240) > 0.1 {
		t.Errorf("a topping without flour: %s", v.Cannot)
	}
	many := make([]LineRequest, MaxLines+1)
	if _, err := Read(pantry, many, "", metric, nil); err == nil || !strings.Contains(err.Error(), "501 entries") {
		t.Errorf("%v", err)
	}
	if _, err := Measure(MeasureRequest{Text: strings.Repeat("1 g salt\n", 600)}, pantry); err == nil {
		t.Error("600 lines were read")
	}
}

func FuzzJudge(f *testing.F) {
	f.Add(plain, 24.0)
	f.Add("900 kg plums\n1 g flour\n1 g butter", 5.0)
	f.Add("Topping\n3 eggs\n1 lemon, juiced\n", 90.0)
	f.Fuzz(func(t *testing.T, text string, length float64) {
		if len(text) > 2000 {
			return
		}
		d := stoneware
		d.LengthCM = length
		lines := asked(text)
		for i := range lines {
			lines[i].Sure = true
		}
		q := Request{Lines: lines, Style: "crumble", Dish: &d}
		if Check(q) != nil {
			return
		}
		v, err := Judge(t.Context(), q, pantry)
		if err != nil {
			if _, later := fault.AsNotYet(err); !later && !strings.HasPrefix(err.Error(), "/") {
				t.Errorf("%q: %v", text, err)
			}
			return
		}
		if v.Mended != nil && math.IsNaN(v.Mended.Answer.JuiceG) {
			t.Errorf("%q is NaN", text)
		}
	})
}

func TestOwnIsLeftToMabbin(t *testing.T) {
	v := judge(t, "700 g gooseberries\n300 g sugar\n20 g cornflour\n100 g flour\n85 g butter\n85 g caster sugar")
	plain, err := balance.Solve(
		balance.Request{
			Dish:    stoneware,
			Style:   "crumble",
			Fruits:  []balance.FruitInput{{Key: "gooseberry", Share: 1}},
			Topping: v.Own.Request.Topping,
		},
	)
	if err != nil || math.Abs(v.Own.Answer.FruitG-plain.FruitG) > 1e-6 {
		t.Errorf("own: %g, %v", v.Own.Answer.FruitG, err)
	}
}
