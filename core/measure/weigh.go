package measure

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// weigh turns the amount into grams.
func (r *reading) weigh(t Thing) {
	if len(r.terms) == 0 {
		if len(r.other) == 0 {
			if purpose := r.purpose(); purpose != "" {
				r.say("%s: not weighed here", purpose)
				return
			}
			r.ask(AskAmount, fmt.Sprintf("How much %s? Write the grams, or leave the line out.", strings.ToLower(t.Name)), nil)
			return
		}
		r.terms, r.other = r.other, nil
	}
	// A weight is surer than what it stands beside.
	if len(r.other) > 0 && r.other[0].weight() && (!r.terms[0].weight() || r.terms[0].imperial() && !r.other[0].imperial()) {
		r.terms, r.other = r.other, r.terms
	}
	low, high, ok := r.sum(t, r.terms, true)
	if !ok {
		return
	}
	g := (low + high) / 2
	if high > low {
		r.LowG, r.HighG = low, high
		r.say("the middle of %s to %s g", Shown(low), Shown(high))
	}
	r.Unit = r.terms[0].unit
	r.G = &g
	counted := r.Unit == "" || len(r.other) > 0 && r.other[0].unit == "" || r.each
	r.AsBought = t.Fruit && (counted || r.preparedLater())
	if r.AsBought {
		r.say("as bought")
	}
	r.compare(t, g)
}

// purpose is what a thing without an amount is for: greasing, dusting, serving, or to taste.
func (r *reading) purpose() string {
	for _, w := range []string{"to taste", "greasing", "grease", "dusting", "to dust", "to serve", "serving", "to finish", "sprinkling", "rolling"} {
		if strings.Contains(r.Note, w) {
			return r.Note
		}
	}
	return ""
}

// preparedLater says whether the note peels or cores what has been weighed: "1 kg apples, peeled and cored".
func (r *reading) preparedLater() bool {
	if r.Unit == "cup" || strings.Contains(r.Note, "weigh") { // "prepared weight", "weighed after peeling"
		return false
	}
	for _, w := range words(r.Note) {
		if preparing[w] {
			return true
		}
	}
	return false
}

// preparing are the words for what is taken off a fruit.
var preparing = map[string]bool{
	"peeled": true, "cored": true, "stoned": true, "pitted": true, "trimmed": true, "hulled": true, "topped": true, "destoned": true, "deseeded": true,
}

// compare flags a second notation that says something else.
func (r *reading) compare(t Thing, g float64) {
	if len(r.other) == 0 || r.other[0].unit == "" {
		return
	}
	low, high, ok := r.sum(t, r.other, false)
	if !ok {
		return
	}
	other, may := (low+high)/2, oldOunce
	if !r.other[0].weight() || !r.terms[0].weight() {
		may = cupShare
	}
	if off := math.Abs(g-other) / max(g, other); off > may {
		r.ask(AskDisagree, fmt.Sprintf("The two amounts disagree: %s g, and %s g by the other. Which is meant?", Shown(g), Shown(other)), &other)
	}
}

// sum adds the terms of an amount up, in g. With aloud, it says and asks.
func (r *reading) sum(t Thing, terms []term, aloud bool) (low, high float64, ok bool) {
	quiet := *r
	to := r
	if !aloud {
		quiet.Questions, quiet.said = nil, nil
		to = &quiet
	}
	for _, x := range terms {
		each, ok := to.gramsOf(t, x)
		if !ok {
			return 0, 0, false
		}
		low += x.low * each
		high += x.high * each
	}
	return low, high, true
}

// gramsOf is what one of a term's units weighs.
func (r *reading) gramsOf(t Thing, x term) (float64, bool) {
	switch {
	case x.unit == "", x.unit == "stick" && t.Fruit: // a stick of rhubarb is a piece of it
		return r.pieceG(t, x)
	case x.unit == "knob" && t.Key != "butter", x.unit == "stick" && t.Role != "fat":
		r.ask(AskUnit, fmt.Sprintf("A %s is a measure of butter. How many grams of %s?", x.unit, strings.ToLower(t.Name)), nil)
		return 0, false
	case x.unit == "handful" && t.Fruit:
		r.say("a handful of 60 g")
		return gHandful, true
	case containers[x.unit] || x.unit == "handful":
		return r.containerG(t, x)
	case massG[x.unit] > 0:
		if g := massG[x.unit]; x.unit == "knob" || x.unit == "pinch" {
			r.say("a %s of %s g", x.unit, Shown(g))
		} else if words, ok := weightWords[x.unit]; ok {
			r.say("%s g %s", trim(math.Round(100*g)/100), words)
		}
		return massG[x.unit], true
	}
	ml, isVolume := r.by.volumeML(x.unit)
	if !isVolume {
		r.ask(AskUnit, fmt.Sprintf("%q is no unit known here: give grams, spoons or cups.", x.unit), nil)
		return 0, false
	}
	return r.volumeG(t, x, ml)
}

// volumeG is what one spoon or cup weighs, by the packing that was asked for or is usual.
func (r *reading) volumeG(t Thing, x term, ml float64) (float64, bool) {
	d, how := t.Density.CupGPerML, t.Density.Packing
	spoon := strings.HasPrefix(x.unit, "t")
	if spoon {
		d, how = t.Density.TspGPerML, ""
	}
	if d == 0 {
		d = t.Density.TspGPerML // the other way about: a cup of what is only spooned
	}
	if d == 0 {
		r.ask(AskDensity, fmt.Sprintf("How heavy a %s of %s is, is not known here. How many grams?", unitName(x.unit), strings.ToLower(t.Name)), nil)
		return 0, false
	}
	if !spoon {
		if how == "" && t.Density.ScoopedGPerML > 0 {
			how = "spooned"
		}
		switch {
		case r.pack == "scooped" && t.Density.ScoopedGPerML > 0:
			d, how = t.Density.ScoopedGPerML, "scooped"
		case r.pack == "packed" && t.Density.PackedGPerML > 0:
			d, how = t.Density.PackedGPerML, "packed"
		case r.pack == "sifted":
			d, how = d*sifted, "sifted"
		case r.pack == "spooned" && t.Density.Packing == "packed":
			d, how = t.Density.CupGPerML, "packed: no other figure is known"
		}
	}
	if x.fill != "" {
		d *= fills[x.fill]
		r.say("%s: %s of a level one", x.fill, trim(fills[x.fill]))
	}
	what := fmt.Sprintf("%s g a %s of %s ml", Shown(d*ml), unitName(x.unit), trim(math.Round(10*ml)/10))
	if metric := x.unit == "ml" || x.unit == "cl" || x.unit == "dl" || x.unit == "l"; metric {
		what = fmt.Sprintf("%.2f g a ml", d)
	}
	if how != "" {
		what += ", " + how
	}
	r.say("%s", what)
	return d * ml, true
}

// pieceG is what one piece weighs, by its size.
func (r *reading) pieceG(t Thing, x term) (float64, bool) {
	if t.Key == "egg" {
		g := r.by.EggG(x.size)
		r.say("%s g an egg without its shell", Shown(g))
		if crack := math.Ceil(x.high - 1e-9); crack > x.high {
			r.say("crack %s, %s g are left: whisk it, it is the wash", trim(crack), Shown((crack-x.high)*g))
		}
		return g, true
	}
	size := x.size
	if size == "extra large" {
		size = "large"
	}
	g, ok := t.PieceG[size]
	if !ok {
		g, ok = t.PieceG[""]
	}
	if !ok || g == 0 {
		r.ask(AskPiece, fmt.Sprintf("What one %s weighs is not known here. How many grams in all?", strings.ToLower(t.Name)), nil)
		return 0, false
	}
	if size == "" && t.Fruit {
		size = "medium"
	}
	r.say("%s", strings.TrimSpace(fmt.Sprintf("%s g each %s", Shown(g), size)))
	return g, true
}

// containerG is what the kitchen has said that one of its tins, punnets or bags holds.
func (r *reading) containerG(t Thing, x term) (float64, bool) {
	for _, k := range []string{x.unit + " " + t.Key, x.unit} {
		if g := r.by.Containers[k]; g > 0 {
			r.say("%s g a %s, as this kitchen said", Shown(g), x.unit)
			return g, true
		}
	}
	r.ask(AskContainer, fmt.Sprintf("How many grams are in one %s of %s? It is asked once and remembered.", x.unit, strings.ToLower(t.Name)), nil)
	r.Questions[len(r.Questions)-1].Container = strings.TrimSpace(x.unit + " " + t.Key)
	return 0, false
}

var weightWords = map[string]string{"oz": "an ounce", "lb": "a pound", "stick": "a stick"}

func unitName(unit string) string {
	if full, ok := map[string]string{"tbsp": "tablespoon", "tsp": "teaspoon", "pt": "pint", "qt": "quart", "l": "litre", "fl oz": "fluid ounce", "dsp": "dessertspoon"}[unit]; ok {
		return full
	}
	return unit
}

func trim(x float64) string { return strconv.FormatFloat(x, 'f', -1, 64) }
