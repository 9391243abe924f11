package larder

import (
	"fmt"
	"strings"
)

// Pairing is what goes with a fruit, and when it is in season. It is offered, and never imposed.
type Pairing struct {
	Key                                  string // of the fruit
	From, To                             int    // months in the north; From after To goes over the new year
	Spices, Herbs, Nuts, Fruits, Liquids []Paired
	ServedWith                           []string
	Basis                                Basis
}

// Paired is one thing that goes with a fruit: its name, and its key where the tables know it.
type Paired struct{ Name, Key string }

// Pairings are what goes with which fruit.
var Pairings = read("pairings", func(p Pairing) string { return p.Key }, parsePairing)

// InSeason says whether a month, 1 to 12, is one of its season in the north.
func (p Pairing) InSeason(month int) bool {
	if p.From <= p.To {
		return month >= p.From && month <= p.To
	}
	return month >= p.From || month <= p.To
}

func parsePairing(r *row) Pairing {
	p := Pairing{
		Key: r.text("key"), Spices: r.paired("spices"), Herbs: r.paired("herbs"), Nuts: r.paired("nuts"),
		Fruits: r.paired("with_fruit"), Liquids: r.paired("liquids"), ServedWith: r.list("served_with"),
		Basis: Basis(r.text("basis")),
	}
	if _, err := fmt.Sscanf(r.text("months_north"), "%d-%d", &p.From, &p.To); err != nil {
		r.fail(fmt.Errorf("column months_north: %w", err))
	}
	return p
}

func (r *row) list(column string) []string {
	if r.text(column) == "" {
		return nil
	}
	return strings.Split(r.text(column), ";")
}

// pairedKeys are those of the words that stand for something else in a recipe.
var pairedKeys = map[string]string{
	"lemon": "lemon_juice", "lime": "lemon_juice", "orange": "orange_juice", "cherry": "cherry_sour",
	"pine nut": "", "cashew": "", "macadamia": "", "saffron": "", "fennel seed": "", "lime zest": "lemon_zest",
}

func (r *row) paired(column string) (out []Paired) {
	for _, name := range r.list(column) {
		key, reported := pairedKeys[name]
		if s, ok := Synonyms.Get(name); ok && !reported {
			key = s.Key
		}
		if key == "" && column == "herbs" {
			key = "fresh_herbs"
		}
		out = append(out, Paired{name, key})
	}
	return out
}
