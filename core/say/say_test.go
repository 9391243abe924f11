package say

import (
	"encoding/json"
	"strings"
	"testing"
)

// shouting reads in capitals, and weighs in pounds.
type shouting struct{ plain }

func (shouting) Sentence(s string) string {
	return strings.NewReplacer("Take", "NIMM", "of it", "DAVON", " and ", " UND ").Replace(s)
}
func (shouting) Called(name string) string { return strings.ToUpper(name) }
func (r shouting) Figure(kind Kind, x float64) string {
	if kind == Weight {
		return r.plain.Figure("Pfund", x/500)
	}
	return r.plain.Figure(kind, x)
}

var lines = []struct {
	line               Line
	plain, loud, wired string
}{
	{"Toss it.", "Toss it.", "Toss it.", `"Toss it."`},
	{"", "", "", `""`},
	{
		F("Take {fruit} of it, {deep} deep.", G(249.6), MM(7.25)), "Take 250 g of it, 7.3 mm deep.", "NIMM 0.5 Pfund DAVON, 7.3 mm deep.",
		`{"text":"Take {fruit} of it, {deep} deep.","values":{"deep":{"mm":7.3},"fruit":{"g":250}}}`,
	},
	{F("{much} at {heat}", ML(2140), C(179.9)), "2.1 l at 180 C", "2.1 l at 180 C", `{"text":"{much} at {heat}","values":{"heat":{"c":180},"much":{"ml":2140}}}`},
	{F("{n} %", N(-0.04, 1)), "0 %", "0 %", `{"text":"{n} %","values":{"n":{"n":0}}}`},
	{
		F("Of {what}: {how}", Called("plum"), L(F("take {g}", G(9.94)))), "Of plum: take 9.9 g", "Of PLUM: take 0.0198 Pfund",
		`{"text":"Of {what}: {how}","values":{"how":{"line":{"text":"take {g}","values":{"g":{"g":9.9}}}},"what":{"name":"plum"}}}`,
	},
	{
		F("{a}; {b}; {c}", All("x"), All("x", F("{g}", G(500)), "z"), Any("x", "y")), "x; x, 500 g and z; x or y", "x; x, 1 Pfund UND z; x or y",
		`{"text":"{a}; {b}; {c}","values":{"a":{"and":["x"]},"b":{"and":["x",{"text":"{g}","values":{"g":{"g":500}}},"z"]},"c":{"or":["x","y"]}}}`,
	},
	{F("{who} wrote", Text("Ida\x01\x02 {so}")), "Ida {so} wrote", "Ida {so} wrote", `{"text":"{who} wrote","values":{"who":{"as":"Ida {so}"}}}`},
	{
		F("give {a}, {b}, {c}", To(G(3), G(100)), To(C(180), N(3, 0)), To(L(F("{n} pieces", N(3, 0))), L(F("{n} pieces", N(60, 0))))), "give 3 to 100 g, 180 C to 3, 3 to 60 pieces", "give 0.006 to 0.2 Pfund, 180 C to 3, 3 to 60 pieces",
		`{"text":"give {a}, {b}, {c}","values":{"a":{"to":[{"g":3},{"g":100}]},"b":{"to":[{"c":180},{"n":3}]},"c":{"to":[{"line":{"text":"{n} pieces","values":{"n":{"n":3}}}},{"line":{"text":"{n} pieces","values":{"n":{"n":60}}}}]}}}`,
	},
	{F("{Fruit} and {Nothing}", Called("éclair plum"), L("")), "Éclair plum and ", "ÉCLAIR PLUM UND ", `{"text":"{Fruit} and {Nothing}","values":{"Fruit":{"name":"éclair plum"},"Nothing":{"line":""}}}`},
	{Sentences("", "One.", ""), "One.", "One.", `"One."`},
	{Sentences("One.", "", F("Take {g}.", G(2))), "One. Take 2 g.", "One. NIMM 0.004 Pfund.", `{"text":"{0} {1}","values":{"0":{"line":"One."},"1":{"line":{"text":"Take {g}.","values":{"g":{"g":2}}}}}}`},
}

func TestALineIsReadInPlainWordsAndInOthers(t *testing.T) {
	for _, c := range lines {
		if got := c.line.String(); got != c.plain {
			t.Errorf("%q reads %q, not %q", string(c.line), got, c.plain)
		}
		if got := c.line.Read(shouting{}); got != c.loud {
			t.Errorf("%q reads %q elsewhere, not %q", string(c.line), got, c.loud)
		}
	}
}

func TestALineIsSentAndReadBack(t *testing.T) {
	for _, c := range lines {
		raw, err := json.Marshal(c.line)
		if err != nil || string(raw) != c.wired {
			t.Errorf("%q is sent as %s (%v), not as %s", c.plain, raw, err, c.wired)
		}
		var back Line
		if err := json.Unmarshal(raw, &back); err != nil || back != c.line {
			t.Errorf("%s reads back as %q (%v), not %q", raw, string(back), err, string(c.line))
		}
	}
}

func TestALineThatIsNoneIsRefused(t *testing.T) {
	for raw, wants := range map[string]string{
		`3`:                                      "a text",
		`{"text":"Take {g}."}`:                   `"g" of a line has no value`,
		`{"text":"{g}","values":{"g":{"kg":1}}}`: `no value of a known kind`,
		`{"text":"{g}","values":{"g":{"g":"1"}}}`:           `cannot unmarshal`,
		`{"text":"{g}","values":{"g":{"and":[3]}}}`:         `a text`,
		`{"text":"{g}","values":{"g":{"to":[{"g":3}]}}}`:    `no value of a known kind`,
		`{"text":"{g}","values":{"g":{"to":[{"g":3},{}]}}}`: `no value of a known kind`,
	} {
		var l Line
		if err := json.Unmarshal([]byte(raw), &l); err == nil || !strings.Contains(err.Error(), wants) {
			t.Errorf("%s: %v, want %q in it", raw, err, wants)
		}
	}
}

func BenchmarkLineReadBack(b *testing.B) {
	raw, err := json.Marshal([]Line{"A sentence that has no values in it.", F("Take {fruit} of it, {deep} deep.", G(249.6), MM(7.25))})
	if err != nil {
		b.Fatal(err)
	}
	b.ReportAllocs()
	for b.Loop() {
		var back []Line
		if err := json.Unmarshal(raw, &back); err != nil {
			b.Fatal(err)
		}
	}
}

func FuzzLine(f *testing.F) {
	for _, c := range lines {
		f.Add(c.wired)
	}
	f.Add(`{"text":"{a}{a}{","values":{"a":{"as":"}"}}}`)
	f.Fuzz(func(t *testing.T, raw string) {
		var l, again Line
		if json.Unmarshal([]byte(raw), &l) != nil {
			return
		}
		sent, err := json.Marshal(l)
		if err != nil {
			t.Fatal(err)
		}
		if err := json.Unmarshal(sent, &again); err != nil || again.String() != l.String() {
			t.Errorf("%s becomes %s, which reads %q (%v), not %q", raw, sent, again.String(), err, l.String())
		}
	})
}
