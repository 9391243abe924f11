package sell

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// Part is a part of a dessert: its filling, its topping.
type Part struct {
	Name  string `json:"name"`
	Lines []Line `json:"lines"`
}

// Region is where a label is read.
type Region string

// The regions whose lists of allergens are known.
const (
	EU Region = "eu"
	US Region = "us"
)

var regions = message.Words(EU, US)

// LabelRequest is a dessert whose label is wanted.
type LabelRequest struct {
	Name        string      `json:"name"`
	Parts       []Part      `json:"parts"`
	AddedWaterG float64     `json:"added_water_g,omitempty"`
	FinishedG   float64     `json:"finished_g"`
	Named       []string    `json:"named,omitempty"` // fruits that its name has
	Region      Region      `json:"region"`
	Own         *larder.Own `json:"own,omitempty"`
}

// Ingredient is one of the list.
type Ingredient struct {
	Key       string      `json:"key"`
	Name      larder.Name `json:"name"`
	Pct       float64     `json:"pct"` // of all that went in and the water that is left
	Allergens []string    `json:"allergens"`
}

// Share is how much of a named fruit went in, in percent of the finished weight.
type Share struct {
	Key string  `json:"key"`
	Pct float64 `json:"pct"`
}

// Label is what stands on a label about what is in it.
type Label struct {
	Ingredients []Ingredient    `json:"ingredients"`
	Contains    []string        `json:"contains"`
	Quid        []Share         `json:"quid"`
	Text        message.Message `json:"text"`
}

const (
	listedWater = 0.05 // of the finished weight: less is not listed
	waterKey    = "water"
)

// How many fruits a dessert's name may have, and how many bowls are reported apart.
const (
	mostNamed = 20
	mostParts = 50
)

// notNamedIn are allergens of the tables that a region's list does not have.
var notNamedIn = map[Region][]string{US: {"gluten-oats", "gluten-rye", "gluten-barley", "gluten-spelt", "sulphites"}}

// CheckLabel finds every wrong field; an ingredient whose own label has to be read is one.
func CheckLabel(q LabelRequest) error {
	var f fault.Faults
	q.Own.Check("/own", &f)
	f.Among("", "/region", string(q.Region), regions)
	f.Range("/finished_g", q.FinishedG, 1, 1e6, "g")
	f.Range("/added_water_g", q.AddedWaterG, 0, 1e6, "g")
	f.Length("", "/named", len(q.Named), 0, mostNamed)
	f.Length("", "/parts", len(q.Parts), 0, mostParts)
	n := 0
	for i, p := range q.Parts {
		for k, l := range p.Lines {
			n++
			at := fmt.Sprintf("/parts/%d/lines/%d", i, k)
			l.check(at, q.Own, &f)
			if x, ok := q.Own.Ingredient(l.Key); ok && x.AllergenOnPack && l.G > 0 {
				f.Add(at+"/key", message.New("{name}: read its label, and enter its allergens under Kitchen, Ingredients",
					message.Name(larder.Name(x.Name))))
			}
		}
	}
	if n == 0 || n > mostLines {
		f.Add("/parts", message.New("have {n} lines: enter 1 to {most}", message.Count(n), message.Count(mostLines)))
	}
	return f.Err()
}

// LabelOf is what stands on a label. A bad request is fault.Faults.
func LabelOf(q LabelRequest) (*Label, error) {
	if err := CheckLabel(q); err != nil {
		return nil, err
	}
	grams, all := map[string]float64{}, 0.0
	for _, p := range q.Parts {
		for _, l := range p.Lines {
			grams[l.Key] += l.G
			all += l.G
		}
	}
	if water := max(0, min(q.AddedWaterG, q.FinishedG-all)); water >= listedWater*q.FinishedG {
		grams[waterKey] += water
		all += water
	}
	out := &Label{Ingredients: []Ingredient{}, Contains: []string{}, Quid: []Share{}}
	for key, g := range grams {
		if g <= 0 || all <= 0 {
			continue
		}
		out.Ingredients = append(out.Ingredients, q.ingredient(key, 100*g/all))
	}
	slices.SortFunc(out.Ingredients, func(a, b Ingredient) int {
		return cmp.Or(cmp.Compare(grams[b.Key], grams[a.Key]), cmp.Compare(a.Name, b.Name))
	})
	for _, key := range q.Named {
		if g := grams[key]; g > 0 {
			out.Quid = append(out.Quid, Share{key, math.Round(1000*g/q.FinishedG) / 10})
		}
	}
	text := make([]message.Message, 0, len(out.Ingredients))
	for _, x := range out.Ingredients {
		for _, a := range x.Allergens {
			if !slices.Contains(out.Contains, a) {
				out.Contains = append(out.Contains, a)
			}
		}
		text = append(text, x.describe(out.Quid, message.Name(x.Name)))
	}
	out.Text = message.Join(", ", text...)
	return out, nil
}

// plainText is the list with names as shops have them: "apple" and not "Apple, firm (keeps its shape)".
func (l *Label) plainText() message.Message {
	text := make([]message.Message, len(l.Ingredients))
	for i, x := range l.Ingredients {
		name, _, _ := strings.Cut(larder.Plain(string(x.Name)), ",")
		text[i] = x.describe(l.Quid, message.Name(larder.Name(name)))
	}
	return message.New("{list}.", message.Part(message.Join(", ", text...)))
}

func (q LabelRequest) ingredient(key string, pct float64) Ingredient {
	x := Ingredient{Key: key, Pct: pct, Allergens: []string{}, Name: larder.Name(key)}
	if f, ok := q.Own.Fruit(key); ok {
		x.Name = larder.Name(f.Name)
		return x
	}
	i, ok := q.Own.Ingredient(key)
	if !ok {
		return x
	}
	x.Name = larder.Name(i.Name)
	for _, a := range i.Allergens {
		if !slices.Contains(notNamedIn[q.Region], a) {
			x.Allergens = append(x.Allergens, a)
		}
	}
	return x
}

// describe is an ingredient in the list, its allergens set off by capitals, a named fruit with its share.
func (x Ingredient) describe(quid []Share, name message.Arg) message.Message {
	text := message.Value(name)
	if len(x.Allergens) > 0 {
		set := make([]message.Message, len(x.Allergens))
		for i, a := range x.Allergens {
			name, _, _ := strings.Cut(string(larder.AllergenName(a)), " (")
			set[i] = message.Value(message.Text(strings.ToUpper(name)))
		}
		text = message.New("{name} ({allergens})", name, message.Part(message.Join(", ", set...)))
	}
	for _, s := range quid {
		if s.Key == x.Key {
			text = message.New("{what} {share} %", message.Part(text), message.Number(s.Pct, 1))
		}
	}
	return text
}
