package larder

import (
	"testing"

	"mabbin/core/units"
)

func TestEverySynonymMeansSomething(t *testing.T) {
	p := Vocabulary(nil)
	for _, s := range Synonyms.All() {
		if _, ok := p.Get(s.Key); !ok {
			t.Errorf("%q means %q, which is not there", s.Name, s.Key)
		}
		if l := p.ReadLine("100 g "+s.Name, units.Conventions{}); l.Ingredient == nil || *l.Ingredient != s.Key {
			t.Errorf("%q is understood as %+v, want %s", s.Name, l, s.Key)
		}
	}
}

func TestOwnFiguresStandInForTheTables(t *testing.T) {
	own := &Own{
		Fruits: map[string]OwnRow{
			"windfall_russet": {CopyOf: "apple_firm", Name: "Windfall russet", Values: map[string]float64{"acid_pct": 0.8}},
			"gooseberry":      {Values: map[string]float64{"release_fresh": 0.7}},
		},
		Ingredients: map[string]OwnRow{"wheat_flour": {Values: map[string]float64{"g_per_us_cup": 140}}},
	}
	f, ok := own.Fruit("windfall_russet")
	base, _ := Fruits.Get("apple_firm")
	if !ok || f.AcidPct != 0.8 || f.WaterPct != base.WaterPct || f.Name != "Windfall russet" ||
		f.Key != "windfall_russet" ||
		f.CompositionBasis != Kitchen {
		t.Errorf("%+v", f)
	}
	if g, _ := own.Fruit("gooseberry"); g.ReleaseFresh != 0.7 || g.Name != "Gooseberry" {
		t.Errorf("%+v", g)
	}
	if p, _ := own.Fruit("plum"); p.CompositionBasis == Kitchen {
		t.Error("a fruit without a figure of its own is said to have one")
	}
	words := Vocabulary(own)
	if l := words.ReadLine("1 cup flour", units.Conventions{}); l.G == nil || *l.G != 140 {
		t.Errorf("a cup of flour by the kitchen's own figure: %+v", l)
	}
	if l := words.ReadLine(
		"2 windfall russets",
		units.Conventions{},
	); l.Ingredient == nil ||
		*l.Ingredient != "windfall_russet" {
		t.Errorf("a fruit of its own: %+v", l)
	}
	if _, ok := (*Own)(nil).Fruit("gooseberry"); !ok {
		t.Error("no kitchen, no gooseberry")
	}
}
