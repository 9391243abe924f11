package parse

import (
	"slices"
	"strings"

	"mabbin/core/message"
)

// mixtures are names for several fruits at once, with what is usually in them, in equal parts: a working table.
var mixtures = map[string][]string{
	"mixed berry":        {"raspberries", "blackberries", "blueberries"},
	"berry mix":          {"raspberries", "blackberries", "blueberries"},
	"mixed summer berry": {"raspberries", "strawberries", "redcurrants", "blackberries"},
	"summer berry":       {"raspberries", "strawberries", "redcurrants", "blackberries"},
	"mixed red berry":    {"raspberries", "strawberries", "redcurrants"},
	"forest berry":       {"raspberries", "blackberries", "blueberries", "redcurrants"},
	"mixed currant":      {"redcurrants", "blackcurrants"},
}

// mixture reads a line that asks for a mixture by its name: each fruit of it has its part, and can be changed.
func (r *reading) mixture(rest string) bool {
	one := reading{p: r.p, by: r.by, Line: Line{Text: r.Text, Questions: []Question{}}, terms: slices.Clone(r.terms)}
	var name []string
	for _, w := range singular(words(one.takeApart(rest))) {
		if !asides[w] || w == "mixed" {
			name = append(name, w)
		}
	}
	parts := mixtures[strings.Join(name, " ")]
	if len(parts) == 0 || len(r.terms) == 0 {
		return false
	}
	frozen := strings.Contains(rest, "frozen")
	for i, part := range parts {
		x := reading{p: r.p, by: r.by, Line: Line{Text: r.Text, Questions: []Question{}}, terms: slices.Clone(r.terms)}
		t, ok := x.thing(part)
		if ok {
			x.weigh(t)
		}
		if x.Ingredient == nil || x.G == nil {
			r.Also = nil
			return false
		}
		g := *x.G / float64(len(parts))
		if i > 0 {
			r.Also = append(r.Also, Also{*x.Ingredient, x.Name, g, message.Join("; ", x.said...)})
			continue
		}
		r.Ingredient, r.Name, r.G, r.Unit, r.Frozen = x.Ingredient, x.Name, &g, x.Unit, frozen
		r.say(message.New("a mixture in equal parts: {parts}. Change the shares on the Bench",
			message.Text(strings.Join(parts, ", "))))
	}
	return true
}
