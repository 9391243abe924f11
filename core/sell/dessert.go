package sell

import (
	"cmp"
	"math"
	"slices"

	"mabbin/core/balance"
	"mabbin/core/larder"
)

// What a dessert is priced by until a kitchen says otherwise: working figures.
const (
	wantedSharePct = 30.0
	minorPerUnit   = 100
	pricedG        = 1000.0
	dearest        = 2
)

// DessertCost is what a dessert of the Bench costs by the kitchen's own prices: its ingredients alone.
type DessertCost struct {
	Cost
	Portions float64  `json:"portions"`
	Dearest  []string `json:"dearest"` // keys of the lines that cost most
}

// OfDessert prices what is on a dessert's ticket.
func OfDessert(r balance.Request, a *balance.Answer) (*DessertCost, error) {
	q := CostRequest{Prices: map[string]Price{}, Portions: a.Portions.Count, WantedSharePct: wantedSharePct, Own: r.Own}
	states := map[string]string{}
	for _, f := range r.Fruits {
		switch {
		case f.Frozen:
			states[f.Key] = "frozen"
		case f.Peeled != nil && !*f.Peeled:
			states[f.Key] = "unpeeled"
		default:
			states[f.Key] = "peeled"
		}
	}
	grams := map[string]float64{}
	var order []string
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			if _, fruit := r.Own.Fruit(l.Key); !fruit {
				if _, known := r.Own.Ingredient(l.Key); !known {
					continue
				}
			}
			if l.Key == waterKey { // out of the tap
				continue
			}
			if _, seen := grams[l.Key]; !seen {
				order = append(order, l.Key)
			}
			grams[l.Key] += l.G
		}
	}
	for _, key := range order {
		q.Lines = append(q.Lines, Line{Key: key, G: grams[key], State: states[key]})
		if minor, ok := priceOf(key, r.Own); ok {
			per := pricedG
			q.Prices[key] = Price{PackG: &per, Minor: minor}
		}
	}
	c, err := CostOf(q)
	if err != nil {
		return nil, err
	}
	out := &DessertCost{Cost: *c, Portions: a.Portions.Count, Dearest: []string{}}
	lines := slices.DeleteFunc(slices.Clone(c.Lines), func(l CostLine) bool { return l.Minor == nil || *l.Minor == 0 })
	slices.SortStableFunc(lines, func(a, b CostLine) int { return cmp.Compare(*b.Minor, *a.Minor) })
	for _, l := range lines[:min(len(lines), dearest)] {
		out.Dearest = append(out.Dearest, l.Key)
	}
	return out, nil
}

// priceOf is a kitchen's price of a kilogram, in minor units.
func priceOf(key string, own *larder.Own) (int64, bool) {
	price, ok := own.Price(key)
	return int64(math.Round(price * minorPerUnit)), ok
}
