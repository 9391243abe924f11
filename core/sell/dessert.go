package sell

import (
	"cmp"
	"math"
	"math/big"
	"slices"

	"mabbin/core/balance"
	"mabbin/core/larder"
)

// What a dessert is priced by until a kitchen says otherwise: working figures.
const (
	wantedSharePct = 30.0
	endingMinor    = 10
	minorPerUnit   = 100
	pricedG        = 1000.0
	dearest        = 2
)

// DessertCost is what a dessert of the Bench costs by the kitchen's own prices and rates.
type DessertCost struct {
	Cost
	Portions float64  `json:"portions"`
	Dearest  []string `json:"dearest"` // keys of the lines that cost most
	// Margin is what is left of the price of a portion without tax, when all that it costs is paid; nil: no price.
	Margin *int64 `json:"margin_minor"`
}

// OfDessert prices what is on a dessert's ticket, its oven and its hands as far as the kitchen has reported its rates.
func OfDessert(r balance.Request, a *balance.Answer, rates Rates, w Work) (*DessertCost, error) {
	q := CostRequest{Prices: map[string]Price{}, Portions: a.Portions.Count, Own: r.Own}
	rates.of(&q, w)
	q.Lines = Needs(r, a, 1)
	for _, l := range q.Lines {
		if minor, ok := priceOf(l.Key, r.Own); ok {
			per := pricedG
			q.Prices[l.Key] = Price{PackG: &per, Minor: minor}
		}
	}
	c, err := CostOf(q)
	if err != nil {
		return nil, err
	}
	out := &DessertCost{Cost: *c, Portions: a.Portions.Count, Dearest: []string{}}
	if c.Price != nil {
		tax := new(big.Rat).Add(big.NewRat(1, 1), times(exact(q.TaxPct), big.NewRat(1, 100)))
		net := halfUp(times(big.NewRat(*c.Price, 1), new(big.Rat).Inv(tax)))
		margin := net - *c.Portion
		out.Margin = &margin
	}
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
