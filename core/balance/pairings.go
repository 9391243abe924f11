package balance

import (
	"cmp"
	"fmt"
	"slices"

	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// PairingsRequest asks what goes with some fruits.
type PairingsRequest struct {
	Fruits  []string    `json:"fruits"`          // keys
	FruitG  float64     `json:"fruit_g"`         // prepared, for the amounts
	Month   int         `json:"month,omitempty"` // 1 to 12; left out: nothing is said of the season
	Present []string    `json:"taken,omitempty"` // keys of what is in it already
	Own     *larder.Own `json:"own,omitempty"`
}

// Pairings is what goes with some fruits: what suits most of them first.
type Pairings struct {
	Seasons    []Season          `json:"seasons"`
	Offers     []Offer           `json:"offers"`
	ServedWith []message.Message `json:"served_with"`
}

// Season is when a fruit is in season.
type Season struct {
	Fruit string          `json:"fruit"`
	Now   bool            `json:"now"`
	Text  message.Message `json:"text"`
}

// PairingKind is what sort of thing goes with a fruit.
type PairingKind string

// The kinds.
const (
	PairSpice  PairingKind = "spice"
	PairHerb   PairingKind = "herb"
	PairNut    PairingKind = "nut"
	PairFruit  PairingKind = "fruit"
	PairLiquid PairingKind = "liquid"
)

// pairDried is a dried fruit: reported as a fruit, and given by a weight of its own.
var pairDried = PairingKind("dried")

// Offer is something that goes with the fruit.
type Offer struct {
	Kind PairingKind     `json:"kind"`
	Key  string          `json:"key,omitempty"` // left out: the tables do not know it
	Name message.Message `json:"name"`
	G    float64         `json:"g"` // for this much fruit
	Text message.Message `json:"text"`
}

// How much of each kind goes with a kilogram of fruit, in g, and of what is stronger than its kind. Working figures.
var (
	perKG  = map[PairingKind]float64{PairSpice: 2.5, PairHerb: 6, PairNut: 50, PairLiquid: 40, pairDried: 60}
	strong = map[string]float64{
		"cloves": 0.6, "star_anise": 1, "nutmeg": 0.8, "cardamom": 1.5, "black_pepper": 1, "smoked_paprika": 1.5,
		"vanilla_extract": 5, "almond_extract": 1.5, "lemon_zest": 6, "orange_zest": 6, "rum": 25, "vinegar": 10,
	}
)

// CheckPairings finds every wrong field.
func CheckPairings(q PairingsRequest) error {
	var f fault.Faults
	const most = 12
	f.Length("", "/fruits", len(q.Fruits), 1, most)
	for i, key := range q.Fruits {
		fruit, ok := q.Own.Fruit(key)
		known(fruit, ok, key, fmt.Sprintf("/fruits/%d", i), "", "fruit", &f)
	}
	f.Range("/fruit_g", q.FruitG, 0, mostFruitG, "g")
	f.Range("/month", float64(q.Month), 0, 12, "")
	q.Own.Check("/own", &f)
	return f.Err()
}

// Pair finds what goes with the fruits. A bad request is fault.Faults.
func Pair(q PairingsRequest) (*Pairings, error) {
	if err := CheckPairings(q); err != nil {
		return nil, err
	}
	out := &Pairings{Seasons: []Season{}, Offers: []Offer{}, ServedWith: []message.Message{}}
	suits := map[string][]message.Message{} // names of the fruits that an offer suits
	served := map[string]bool{}
	id := func(o Offer) string { return string(o.Kind) + " " + o.Name.Format }
	for _, key := range q.Fruits {
		fruit, _ := q.Own.Fruit(key)
		p, ok := larder.Pairings.Get(q.tableKey(key))
		if !ok {
			continue
		}
		if q.Month > 0 {
			out.Seasons = append(out.Seasons, seasonOf(fruit, p, q.Month))
		}
		for _, list := range []struct {
			kind PairingKind
			all  []larder.Paired
		}{
			{PairSpice, p.Spices}, {PairHerb, p.Herbs}, {PairNut, p.Nuts}, {PairFruit, p.Fruits}, {PairLiquid, p.Liquids},
		} {
			for _, x := range list.all {
				kind := list.kind
				if _, fruit := larder.Fruits.Get(x.Key); kind == PairFruit && !fruit {
					kind = pairDried
				}
				o := Offer{Kind: list.kind, Key: x.Key, Name: message.New(x.Name), G: amountOf(kind, x.Key, q.FruitG)}
				if slices.Contains(q.Fruits, x.Key) || slices.Contains(q.Present, x.Key) {
					continue
				}
				if len(suits[id(o)]) == 0 {
					out.Offers = append(out.Offers, o)
				}
				suits[id(o)] = append(suits[id(o)], message.Value(larder.Called(fruit.Name)))
			}
		}
		for _, s := range p.ServedWith {
			if !served[s] {
				served[s] = true
				out.ServedWith = append(out.ServedWith, message.New(s))
			}
		}
	}
	for i, o := range out.Offers {
		out.Offers[i].Text = message.New("goes with {fruit}", message.And(suits[id(o)]...))
	}
	slices.SortStableFunc(out.Offers, func(a, b Offer) int { return cmp.Compare(len(suits[id(b)]), len(suits[id(a)])) })
	return out, nil
}

// tableKey is the table's fruit that one of the kitchen's own is a copy of.
func (q PairingsRequest) tableKey(key string) string {
	if q.Own == nil {
		return key
	}
	if own, ok := q.Own.Fruits[key]; ok && own.CopyOf != "" {
		return own.CopyOf
	}
	return key
}

func amountOf(kind PairingKind, key string, fruitG float64) float64 {
	g, ok := strong[key]
	if !ok {
		g = perKG[kind]
	}
	return g * fruitG / 1000
}

var months = [...]message.Message{
	message.New("January"), message.New("February"), message.New("March"), message.New("April"), message.New("May"),
	message.New("June"), message.New("July"), message.New("August"), message.New("September"), message.New("October"),
	message.New("November"), message.New("December"),
}

func seasonOf(f larder.Fruit, p larder.Pairing, month int) Season {
	s := Season{Fruit: f.Key, Now: p.InSeason(month)}
	from, to := message.Part(months[p.From-1]), message.Part(months[p.To-1])
	if s.Now {
		s.Text = message.New("{Fruit} is in season in the north: {from} to {to}.", larder.Called(f.Name), from, to)
	} else {
		s.Text = message.New("{Fruit} is out of season in the north ({from} to {to}): frozen works as well.",
			larder.Called(f.Name), from, to)
	}
	return s
}
