package parse

import (
	"math"
	"strings"

	"mabbin/core/message"
	"mabbin/core/units"
)

// weigh turns the amount into grams.
func (r *reading) weigh(t Thing) {
	if len(r.terms) == 0 {
		if len(r.other) == 0 {
			if purpose := r.purpose(); purpose != "" && purpose != "to taste" {
				r.say(message.New("{purpose}: not weighed", message.Word(purpose)))
				return
			}
			r.ask(AskAmount, message.New("How much {name}? Write the grams, or leave the line out.", lower(t)), nil)
			return
		}
		r.terms, r.other = r.other, nil
	}
	// A weight is surer than what it is next to.
	if len(r.other) > 0 && r.other[0].weight() &&
		(!r.terms[0].weight() || r.terms[0].imperial() && !r.other[0].imperial()) {
		r.terms, r.other = r.other, r.terms
	}
	low, high, ok := r.sum(t, r.terms, true)
	if !ok {
		return
	}
	g := (low + high) / 2
	if high > low {
		r.LowG, r.HighG = low, high
		r.say(message.New("the middle of {range}", message.Range(message.Grams(low), message.Grams(high))))
	}
	r.Unit = r.terms[0].unit
	if r.tin && t.Fruit && !r.dry && strings.Contains(r.Note, "drained") {
		g *= DrainedShare
		r.say(message.New("drained: {share} % of what is in the tin", message.Number(100*DrainedShare, 0)))
	}
	r.G = &g
	if g == 0 {
		r.ask(
			AskAmount,
			message.New("The amount of {name} is 0. Write the grams, or leave the line out.", lower(t)),
			nil,
		)
		return
	}
	counted := r.Unit == "" || len(r.other) > 0 && r.other[0].unit == "" || r.each
	r.AsBought = t.Fruit && !r.tin && (counted || r.preparedLater())
	if r.AsBought {
		r.say(message.New("as bought"))
	}
	r.compare(t, g)
}

// purpose is what a thing without an amount is for: greasing, dusting, serving, or to taste, which is asked about.
func (r *reading) purpose() string {
	for _, w := range []string{
		"to taste", "greasing", "grease", "dusting", "to dust", "to serve", "serving",
		"to finish", "sprinkling", "rolling",
	} {
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
	"peeled":   true,
	"cored":    true,
	"stoned":   true,
	"pitted":   true,
	"trimmed":  true,
	"hulled":   true,
	"topped":   true,
	"destoned": true,
	"deseeded": true,
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
		r.ask(
			AskDisagree,
			message.New(
				"The two amounts differ: {one} and {other}. Which one is correct?",
				message.Grams(g),
				message.Grams(other),
			),
			&other,
		)
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
		r.ask(
			AskUnit,
			message.New("A {unit} is a measure of butter. How many grams of {name}?", unitName(x.unit), lower(t)),
			nil,
		)
		return 0, false
	case x.unit == "handful" && t.Fruit:
		r.say(message.New("a handful of 60 g"))
		return gHandful, true
	case containers[x.unit] || x.unit == "handful":
		return r.containerG(t, x)
	case units.MassG(x.unit) > 0:
		g := units.MassG(x.unit)
		if x.unit == "knob" || x.unit == "pinch" {
			g *= max(r.pinch, smallShare)
			r.say(message.New("a {unit} of {much}", unitName(x.unit), message.Grams(g)))
		} else if words, ok := weightWords[x.unit]; ok {
			r.say(message.New("{n} g {each}", message.Number(g, 2), message.Part(words)))
		}
		return g, true
	}
	ml, isVolume := r.by.VolumeML(x.unit)
	if !isVolume {
		r.ask(
			AskUnit,
			message.New("\"{written}\" is not a known unit: use grams, spoons or cups.", message.Text(x.unit)),
			nil,
		)
		return 0, false
	}
	return r.volumeG(t, x, ml)
}

// What is measured by the hand and through the sieve.
const (
	gHandful = 60.0 // of berries
	sifted   = 0.92 // sifted into the cup, to spooned; working figure
)

// volumeG is what one spoon or cup weighs, by the packing that was asked for or is usual.
func (r *reading) volumeG(t Thing, x term, ml float64) (float64, bool) {
	d, how := t.Density.CupGPerML, message.New(t.Density.Packing)
	spoon := strings.HasPrefix(x.unit, "t")
	if spoon {
		d, how = t.Density.TspGPerML, message.Message{}
	}
	if d == 0 {
		d = t.Density.TspGPerML // the other way about: a cup of what is only spooned
	}
	if d == 0 {
		r.ask(
			AskDensity,
			message.New("The weight of a {unit} of {name} is not known. How many grams is it?", unitName(x.unit), lower(t)),
			nil,
		)
		return 0, false
	}
	if !spoon {
		if how.IsZero() && t.Density.ScoopedGPerML > 0 {
			how = message.New("spooned")
		}
		switch {
		case r.pack == "scooped" && t.Density.ScoopedGPerML > 0:
			d, how = t.Density.ScoopedGPerML, message.New("scooped")
		case r.pack == "packed" && t.Density.PackedGPerML > 0:
			d, how = t.Density.PackedGPerML, message.New("packed")
		case r.pack == lightlyPacked && t.Density.PackedGPerML > 0:
			d, how = (t.Density.LooseGPerML+t.Density.PackedGPerML)/2, message.New("lightly packed")
		case r.pack == "sifted":
			d, how = d*sifted, message.New("sifted")
		case r.pack == "spooned" && t.Density.Packing == "packed":
			d, how = t.Density.CupGPerML, message.New("packed: the only known figure")
		}
	}
	if x.fill != "" {
		d *= fills[x.fill]
		r.say(message.New("{fill}: {share} of a level one", message.Word(x.fill), message.Number(fills[x.fill], 2)))
	}
	what := message.New("{much} a {unit} of {ml} ml", message.Grams(d*ml), unitName(x.unit), message.Number(ml, 1))
	if metric := x.unit == "ml" || x.unit == "cl" || x.unit == "dl" || x.unit == "l"; metric {
		what = message.New("{n} g a ml", message.Number(d, 2))
	}
	r.say(message.Join(", ", what, how))
	return d * ml, true
}

// pieceG is what one piece weighs, by its size.
func (r *reading) pieceG(t Thing, x term) (float64, bool) {
	if t.Key == "egg" {
		g := r.by.EggG(x.size)
		r.say(message.New("{much} an egg without its shell", message.Grams(g)))
		if crack := math.Ceil(x.high - 1e-9); crack > x.high {
			r.say(
				message.New(
					"crack {eggs}, {much} are left over to brush the top with",
					message.Number(crack, 0),
					message.Grams((crack-x.high)*g),
				),
			)
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
		r.ask(AskPiece, message.New("The weight of one {name} is not known. How many grams in all?", lower(t)), nil)
		return 0, false
	}
	if size == "" && t.Fruit {
		size = "medium"
	}
	r.say(eachWeighs(g, size))
	return g, true
}

// containerG is what the kitchen has said that one of its tins, punnets or bags holds.
func (r *reading) containerG(t Thing, x term) (float64, bool) {
	for _, k := range []string{x.unit + " " + t.Key, x.unit} {
		if g := r.by.Containers[k]; g > 0 {
			r.say(message.New("{much} a {unit}, as entered for this kitchen", message.Grams(g), unitName(x.unit)))
			return g, true
		}
	}
	r.ask(
		AskContainer,
		message.New(
			"How many grams are in one {unit} of {name}? Your answer is remembered.",
			unitName(x.unit),
			lower(t),
		),
		nil,
	)
	r.Questions[len(r.Questions)-1].Container = strings.TrimSpace(x.unit + " " + t.Key)
	return 0, false
}

var weightWords = map[string]message.Message{
	"oz":    message.New("an ounce"),
	"lb":    message.New("a pound"),
	"stick": message.New("a stick"),
}

func lower(t Thing) message.Arg { return message.Name(strings.ToLower(Unbracketed(t.Name))) }

func eachWeighs(g float64, size string) message.Message {
	if size == "" {
		return message.New("{much} each", message.Grams(g))
	}
	return message.New("{much} each {size}", message.Grams(g), message.Word(size))
}

func unitName(unit string) message.Arg {
	if full, ok := map[string]message.Message{
		"tbsp": message.New("tablespoon"), "tsp": message.New("teaspoon"),
		"pt": message.New("pint"), "qt": message.New("quart"), "l": message.New("litre"),
		"fl oz": message.New("fluid ounce"), "dsp": message.New("dessertspoon"),
	}[unit]; ok {
		return message.Part(full)
	}
	return message.Word(unit)
}
