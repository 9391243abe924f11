package recipe

import (
	"maps"
	"math"
	"slices"
	"strconv"
	"strings"

	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/parse"
	"mabbin/core/reader"
	"mabbin/core/units"
)

// Written is a recipe as its writer would read it: in its own order and units, with what was changed.
type Written struct {
	Title, Yield string
	Parts        []WrittenPart
	Method       []string
	Changes      []message.Message // what was changed, and why; empty: nothing
}

// WrittenPart is a list of ingredients under its heading, which may be empty.
type WrittenPart struct {
	Heading string
	Lines   []string
}

// Rewrite writes a judged recipe, mended, in the writer's own order and units: cups stay cups. What nothing was changed
// of stands as it was written.
func Rewrite(d Document, q Request, v *Verdict) Written {
	w := Written{Title: d.Name, Yield: d.Yield}
	ratios := map[string]float64{}
	added := map[string]float64{}
	if v.AsWritten != nil && v.Mended != nil {
		ratios, added = changed(v.AsWritten, v.Mended)
	}
	by := q.Conventions()
	headings := headingsOf(d)
	for i, r := range v.Rows {
		if r.Out && r.Bowl != Serve && r.Bowl != Greasing || r.Heading != "" {
			continue
		}
		h := ""
		if i < len(q.Lines) && q.Lines[i].At >= 0 {
			h = headings[q.Lines[i].At]
		}
		if n := len(w.Parts); n == 0 || w.Parts[n-1].Heading != h {
			w.Parts = append(w.Parts, WrittenPart{Heading: h})
		}
		part := &w.Parts[len(w.Parts)-1]
		part.Lines = append(part.Lines, rewritten(r, ratios, by, q.Own))
	}
	for _, key := range slices.Sorted(maps.Keys(added)) {
		if len(w.Parts) > 0 {
			w.Parts[0].Lines = append(w.Parts[0].Lines, amount(key, added[key], "", by, q.Own)+" "+nameOf(key, q.Own))
		}
	}
	if d.Reading != nil {
		w.Method = paragraphs(d.Reading.Method)
	}
	for _, c := range v.Changes {
		w.Changes = append(w.Changes, message.New("{what}: {effect}", message.Part(c.Name), message.Part(c.Effect)))
	}
	if v.Baked != nil && v.Baked.Mend != nil {
		w.Changes = append(w.Changes, message.New("Bake it {change}.", message.Part(v.Baked.Mend.Text)))
	}
	return w
}

// headingsOf are the headings that each line of a reading stands under.
func headingsOf(d Document) map[int]string {
	out := map[int]string{}
	if d.Reading == nil {
		return out
	}
	h := ""
	for i, l := range d.Reading.Lines {
		if l.Kind == reader.HeadingLine {
			h = l.Text
		}
		out[i] = h
	}
	return out
}

func paragraphs(sentences []reader.Sentence) (out []string) {
	last := -1
	for _, s := range sentences {
		if s.Paragraph != last {
			out = append(out, s.Text)
			last = s.Paragraph
			continue
		}
		out[len(out)-1] += " " + s.Text
	}
	return out
}

// part is an ingredient of one part of a dessert.
func part(bowl, key string) string {
	if bowl != "topping" && bowl != "base" {
		bowl = "filling"
	}
	return bowl + " " + key
}

// changed compares the weights of two versions: the ratios of what is in both, and the weights, in g, of what only
// the second has.
func changed(from, to *Version) (ratios, added map[string]float64) {
	was, is := weights(from.Answer), weights(to.Answer)
	ratios, added = map[string]float64{}, map[string]float64{}
	for k, g := range is {
		switch {
		case was[k] > 0:
			ratios[k] = g / was[k]
		case g >= 1 && strings.HasPrefix(k, "filling "):
			added[strings.TrimPrefix(k, "filling ")] = g
		}
	}
	return ratios, added
}

func weights(a balance.Answer) map[string]float64 {
	out := map[string]float64{}
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			out[part(b.Key, l.Key)] += l.G
		}
	}
	return out
}

// leastChange is the share by which an amount must change to be written anew.
const leastChange = 0.02

// rewritten is a line with its amount as it was changed, in its writer's unit.
func rewritten(r Row, ratios map[string]float64, by units.Conventions, own *larder.Own) string {
	text := strings.TrimSpace(strings.ReplaceAll(r.Text, "\n", " "))
	if r.Ingredient == nil || r.G == nil || len(r.Also) > 0 {
		return text
	}
	bowl := "filling"
	if r.Bowl == Topping || r.Bowl == Base {
		bowl = string(r.Bowl)
	}
	k, ok := ratios[part(bowl, *r.Ingredient)]
	if !ok || math.Abs(k-1) < leastChange {
		return text
	}
	rest, _, ok := parse.StartsWithAmount(text)
	if !ok {
		return text
	}
	rest = strings.TrimSpace(rest)
	if n := len(text) - len(rest); n > 0 && strings.EqualFold(text[n:], rest) {
		rest = text[n:] // with the writer's capitals
	}
	if strings.HasPrefix(rest, "(") {
		if _, after, closed := strings.Cut(rest, ")"); closed {
			rest = strings.TrimSpace(after) // the same amount in other units
		}
	}
	return amount(*r.Ingredient, k**r.G, r.Unit, by, own) + " " + rest
}

// amount is a weight as it is written in a unit: cups and spoons stay such, and so do ounces and pounds.
func amount(key string, g float64, unit string, by units.Conventions, own *larder.Own) string {
	switch unit {
	case "cup", "tbsp", "tsp", "stick":
		d := larder.DensityOf(key)
		if i, ok := own.Ingredient(key); ok {
			d = i.Density()
		}
		if h, ok := by.Spoons(g, d); ok {
			return h.Text
		}
	case "oz", "lb":
		return units.Fraction(math.Round(4*g/units.MassG(unit))/4) + " " + unit
	}
	if g < 10 {
		return strconv.FormatFloat(math.Round(10*g)/10, 'f', -1, 64) + " g"
	}
	return strconv.FormatFloat(math.Round(g), 'f', -1, 64) + " g"
}
