package message

import (
	"errors"
	"slices"
	"testing"
)

func TestChoices(t *testing.T) {
	c := Choices{Choose("hot", "hot"), Choose("cold", "cold and set")}.Usually("cold")
	if !c.Has("hot") || c.Has("warm") || c.Has("") {
		t.Error("what is among them")
	}
	if c.Label("cold").String() != "cold and set" || !c.Label("warm").IsZero() {
		t.Errorf("%q, %q", c.Label("cold"), c.Label("warm"))
	}
	if !slices.Equal(c.Values(), []string{"hot", "cold"}) || c[0].Usual || !c[1].Usual {
		t.Errorf("%+v", c)
	}
	if w := Words("a", "b"); w.Label("b").String() != "b" || len(w) != 2 {
		t.Errorf("%+v", w)
	}
}

func TestErrors(t *testing.T) {
	kind := errors.New("kind")
	err := Error{Message: New("is {n}", Count(3)), Kind: kind}
	if err.Error() != "is 3" || !errors.Is(err, kind) || Of(err).Format != "is {n}" {
		t.Errorf("%v, %+v", err, Of(err))
	}
	if plain := Of(errors.New("100 % {gone}")); plain.String() != "100 % {gone}" {
		t.Errorf("another error is %q", plain)
	}
	if e := Errorf("is {n}", Count(4)); e.Error() != "is 4" || errors.Is(e, kind) {
		t.Error(e)
	}
}

// A book makes the messages that the plain functions make.
func TestABookWritesTheSame(t *testing.T) {
	for _, b := range []*Book{new(Book), NewBook(2)} {
		for name, pair := range map[string][2]Message{
			"new":       {b.New("{a} of {b}", Grams(3), Celsius(5)), New("{a} of {b}", Grams(3), Celsius(5))},
			"part":      {b.New("{a}", b.Part(New("x"))), New("{a}", Part(New("x")))},
			"range":     {b.New("{a}", b.Range(Count(1), Count(2))), New("{a}", Range(Count(1), Count(2)))},
			"join":      {b.Join("; ", New("x"), Message{}, New("y")), Join("; ", New("x"), Message{}, New("y"))},
			"sentences": {b.Sentences(New("x."), New("y.")), Sentences(New("x."), New("y."))},
		} {
			if !pair[0].Equal(pair[1]) {
				t.Errorf("%s: %q, want %q", name, pair[0], pair[1])
			}
		}
	}
}

func TestFiguresAreRounded(t *testing.T) {
	for name, c := range map[string][2]Arg{
		"centimetres":        {Centimetres(9.26), {Kind: KindCentimetres, Value: 9.3}},
		"bare centimetres":   {BareCentimetres(9.24), {Kind: KindBareCentimetres, Value: 9.2}},
		"a temperature":      {Celsius(71.4), {Kind: KindCelsius, Value: 71}},
		"a difference":       {CelsiusDifference(2.6), {Kind: KindCelsiusDifference, Value: 3}},
		"exactly":            {Exactly(KindGrams, 1.23456), {Kind: KindGrams, Value: 1.235}},
		"a little":           {Grams(9.94), {Kind: KindGrams, Value: 9.9}},
		"more than a little": {Grams(9.96), {Kind: KindGrams, Value: 10}},
		"no minus nothing":   {Number(-0.2, 0), {Kind: KindNumber, Value: 0}},
	} {
		if c[0].Kind != c[1].Kind || c[0].Value != c[1].Value {
			t.Errorf("%s: %+v, want %+v", name, c[0], c[1])
		}
	}
}
