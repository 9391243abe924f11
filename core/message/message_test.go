package message

import (
	"encoding/json"
	"strings"
	"testing"
)

// shouting reads in capitals, and weighs in pounds.
type shouting struct{ plain }

func (shouting) Wording(s string) Wording {
	return NewWording(strings.NewReplacer("Take", "NIMM", "of it", "DAVON", " and ", " UND ").Replace(s))
}
func (shouting) Name(name string) string { return strings.ToUpper(name) }
func (r shouting) AppendFigure(text []byte, kind Kind, x float64) []byte {
	if kind == KindGrams {
		return r.plain.AppendFigure(text, "Pfund", x/500)
	}
	return r.plain.AppendFigure(text, kind, x)
}

var messages = []struct {
	message             Message
	plain, loud, stored string
}{
	{New("Toss it."), "Toss it.", "Toss it.", `"Toss it."`},
	{Message{}, "", "", `""`},
	{New("a {brace} alone"), "a {brace} alone", "a {brace} alone", `"a {brace} alone"`},
	{
		New("Take {fruit} of it, {deep} deep.", Grams(249.6), Millimetres(7.25)),
		"Take 250 g of it, 7.3 mm deep.", "NIMM 0.5 Pfund DAVON, 7.3 mm deep.",
		`{"text":"Take {fruit} of it, {deep} deep.","values":{"deep":{"mm":7.3},"fruit":{"g":250}}}`,
	},
	{
		New("{much} at {heat}", Millilitres(2140), OvenHeat(179.9)), "2.1 l at 180 C", "2.1 l at 180 C",
		`{"text":"{much} at {heat}","values":{"heat":{"c":180},"much":{"ml":2140}}}`,
	},
	{New("{n} %", Number(-0.04, 1)), "0 %", "0 %", `{"text":"{n} %","values":{"n":{"n":0}}}`},
	{
		New(
			"Of {what}: {how}",
			Name("plum"),
			Part(New("take {g}", Grams(9.94))),
		),
		"Of plum: take 9.9 g",
		"Of PLUM: take 0.0198 Pfund",
		`{"text":"Of {what}: {how}","values":{"how":{"line":{"text":"take {g}","values":{"g":{"g":9.9}}}},"what":{"name":"plum"}}}`,
	},
	{
		New("{a}; {b}; {c}", And(New("x")), And(New("x"), New("{g}", Grams(500)), New("z")), Or(New("x"), New("y"))),
		"x; x, 500 g and z; x or y",
		"x; x, 1 Pfund UND z; x or y",
		`{"text":"{a}; {b}; {c}","values":{"a":{"and":["x"]},"b":{"and":["x",{"text":"{g}","values":{"g":{"g":500}}},"z"]},"c":{"or":["x","y"]}}}`,
	},
	{
		New("{who} wrote", Text("Ida {so}")),
		"Ida {so} wrote",
		"Ida {so} wrote",
		`{"text":"{who} wrote","values":{"who":{"as":"Ida {so}"}}}`,
	},
	{
		New(
			"give {a}, {b}",
			Range(Grams(3), Grams(100)),
			Range(Part(New("{n} pieces", Count(3))), Part(New("{n} pieces", Count(60)))),
		),
		"give 3 to 100 g, 3 to 60 pieces",
		"give 0.006 to 0.2 Pfund, 3 to 60 pieces",
		`{"text":"give {a}, {b}","values":{"a":{"to":[{"g":3},{"g":100}]},"b":{"to":[{"line":{"text":"{n} pieces","values":{"n":{"n":3}}}},{"line":{"text":"{n} pieces","values":{"n":{"n":60}}}}]}}}`,
	},
	{
		New("{Fruit} and {Nothing}", Name("éclair plum"), Part(Message{})), "Éclair plum and ", "ÉCLAIR PLUM UND ",
		`{"text":"{Fruit} and {Nothing}","values":{"Fruit":{"name":"éclair plum"},"Nothing":{"line":""}}}`,
	},
	{Sentences(Message{}, New("One."), Message{}), "One.", "One.", `"One."`},
	{
		Sentences(New("One."), Message{}, New("Take {g}.", Grams(2))), "One. Take 2 g.", "One. NIMM 0.004 Pfund.",
		`{"text":"{all}","values":{"all":{"seq":["One.",{"text":"Take {g}.","values":{"g":{"g":2}}}]}}}`,
	},
	{
		Join("; ", New("one"), New("two")), "one; two", "one; two",
		`{"text":"{all}","values":{"all":{"seq":["one","two"],"sep":"; "}}}`,
	},
}

func TestAMessageReadsInPlainWordsAndInOthers(t *testing.T) {
	for _, c := range messages {
		if got := c.message.String(); got != c.plain {
			t.Errorf("%+v reads %q, not %q", c.message, got, c.plain)
		}
		if got := c.message.Read(shouting{}); got != c.loud {
			t.Errorf("%+v reads %q elsewhere, not %q", c.message, got, c.loud)
		}
	}
}

func TestAMessageIsStoredAndReadBack(t *testing.T) {
	for _, c := range messages {
		raw, err := json.Marshal(c.message)
		if err != nil || string(raw) != c.stored {
			t.Errorf("%q is stored as %s (%v), not as %s", c.plain, raw, err, c.stored)
		}
		var back Message
		if err := json.Unmarshal(raw, &back); err != nil || !back.Equal(c.message) {
			t.Errorf("%s reads back as %+v (%v), not %+v", raw, back, err, c.message)
		}
	}
}

func TestOnlyEqualMessagesAreEqual(t *testing.T) {
	for i, a := range messages {
		for j, b := range messages {
			if a.message.Equal(b.message) != (i == j) {
				t.Errorf("%q and %q: equal is %v", a.plain, b.plain, i != j)
			}
		}
	}
}

func TestAStoredMessageThatIsNoneIsRefused(t *testing.T) {
	for raw, wants := range map[string]string{
		`3`:                                      "a text",
		`{"text":"Take {g}."}`:                   `"g" of a message has no value`,
		`{"text":"{g}","values":{"g":{"kg":1}}}`: `no value of a known kind`,
		`{"text":"{g}","values":{"g":{"g":"1"}}}`:           `cannot unmarshal`,
		`{"text":"{g}","values":{"g":{"and":[3]}}}`:         `a text`,
		`{"text":"{g}","values":{"g":{"to":[{"g":3}]}}}`:    `no value of a known kind`,
		`{"text":"{g}","values":{"g":{"to":[{"g":3},{}]}}}`: `no value of a known kind`,
	} {
		var m Message
		if err := json.Unmarshal([]byte(raw), &m); err == nil || !strings.Contains(err.Error(), wants) {
			t.Errorf("%s: %v, want %q in it", raw, err, wants)
		}
	}
}

// What was stored before sequences were one argument is read as it was.
func TestAnOlderSequenceIsRead(t *testing.T) {
	raw := `{"text":"{0} {1}","values":{"0":{"line":"One."},"1":{"line":{"text":"Take {g}.","values":{"g":{"g":2}}}}}}`
	var m Message
	if err := json.Unmarshal([]byte(raw), &m); err != nil || m.String() != "One. Take 2 g." {
		t.Errorf("%q, %v", m, err)
	}
}

func FuzzStoredMessage(f *testing.F) {
	for _, c := range messages {
		f.Add(c.stored)
	}
	f.Add(`{"text":"{a}{a}{","values":{"a":{"as":"}"}}}`)
	f.Fuzz(func(t *testing.T, raw string) {
		var m, again Message
		if json.Unmarshal([]byte(raw), &m) != nil {
			return
		}
		stored, err := json.Marshal(m)
		if err != nil {
			t.Fatal(err)
		}
		if err := json.Unmarshal(stored, &again); err != nil || again.String() != m.String() {
			t.Errorf("%s becomes %s, which reads %q (%v), not %q", raw, stored, again.String(), err, m.String())
		}
	})
}
