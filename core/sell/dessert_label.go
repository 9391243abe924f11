package sell

import (
	"strings"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/larder"
)

// DessertLabel is all that is printed in addition to a dessert that is sold.
type DessertLabel struct {
	Label
	Name     string  `json:"name"`
	NetG     float64 `json:"net_g"` // as baked, of the whole dish
	PortionG float64 `json:"portion_g"`
	Portions float64 `json:"portions"`
	Keeping
	// Nutrition is of 100 g and of a portion, where the kitchen prints it; an estimate from tables.
	Nutrition []NutritionRow `json:"nutrition,omitempty"`
}

// LabelFor is what is printed of a dessert that is baked so. An ingredient whose own label has to be read first is
// fault.Faults.
func LabelFor(name string, r balance.Request, d *bake.DessertAnswer, region Region) (*DessertLabel, error) {
	a := &d.Balance
	q := LabelRequest{Name: name, FinishedG: a.Portions.FinishedG, Region: region, Own: r.Own}
	for _, b := range a.Ticket {
		p := Part{Name: b.Key}
		for _, l := range b.Lines {
			if l.Key == waterKey {
				q.AddedWaterG += l.G
			} else if known(l.Key, r.Own) {
				p.Lines = append(p.Lines, Line{Key: l.Key, G: l.G})
			}
		}
		if len(p.Lines) > 0 {
			q.Parts = append(q.Parts, p)
		}
	}
	for _, f := range r.Fruits {
		if row, ok := r.Own.Fruit(f.Key); ok && named(name, row.Name) {
			q.Named = append(q.Named, f.Key)
		}
	}
	l, err := LabelOf(q)
	if err != nil {
		return nil, err
	}
	out := &DessertLabel{
		Label: *l, Name: name, NetG: a.Portions.FinishedG, PortionG: a.Portions.EachG, Portions: a.Portions.Count,
	}
	if out.Keeping, err = KeepingOf(r, d); err != nil {
		return nil, err
	}
	out.Text = l.plainText()
	return out, nil
}

func known(key string, own *larder.Own) bool {
	_, fruit := own.Fruit(key)
	_, other := own.Ingredient(key)
	return fruit || other
}

// named says whether a dessert's name has a fruit in it: "Damson and apple crumble" has "Apple, cooking".
func named(name, fruit string) bool {
	name = strings.ToLower(name)
	plain, _, _ := strings.Cut(larder.Plain(fruit), ",")
	for word := range strings.FieldsSeq(plain) {
		if len(word) >= shortestFruit && strings.Contains(name, word) {
			return true
		}
	}
	return false
}

// shortestFruit is the fewest letters of a fruit: fig.
const shortestFruit = 3
