// Package sell is the sums of buying and selling: what a dessert costs, what to buy, what stands on its label. Money is
// whole minor units; what is divided is kept as a fraction and rounded once, half up, where it is shown.
package sell

import (
	"fmt"
	"math/big"

	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// Line is an ingredient by its prepared weight, g.
type Line struct {
	Key string  `json:"key"`
	G   float64 `json:"g"`
	// State of a fruit: peeled, unpeeled or frozen; left out: peeled for pome fruit, else unpeeled.
	State string `json:"state,omitempty"`
}

// Price is what so much of something costs: by the pack or by the piece.
type Price struct {
	PackG  *float64 `json:"pack_g,omitempty"`
	PieceG *float64 `json:"piece_g,omitempty"`
	Minor  int64    `json:"minor"`
}

// OvenUse is what an oven does for a dessert.
type OvenUse struct {
	KW          float64 `json:"kw"`
	WarmMin     float64 `json:"warm_min"`
	HoldMin     float64 `json:"hold_min"`
	Duty        float64 `json:"duty"` // of the power, while it holds
	MinorPerKWh float64 `json:"minor_per_kwh"`
	Share       float64 `json:"share"` // of what is in it
}

// LabourUse is what hands do for it.
type LabourUse struct {
	Minutes   float64 `json:"minutes"`
	MinorPerH float64 `json:"minor_per_h"`
}

// CostRequest is a dessert that is to be priced.
type CostRequest struct {
	Lines          []Line           `json:"lines"`
	Prices         map[string]Price `json:"prices"`
	Oven           *OvenUse         `json:"oven,omitempty"`
	Hands          *LabourUse       `json:"hands,omitempty"`
	PackagingMinor float64          `json:"packaging_minor,omitempty"` // a portion
	Portions       float64          `json:"portions"`
	WantedSharePct float64          `json:"wanted_share_pct"` // of the ingredients in the price
	TaxPct         float64          `json:"tax_pct,omitempty"`
	EndingMinor    int64            `json:"ending_minor,omitempty"` // prices are multiples of it; left out: 1
	Own            *larder.Own      `json:"own,omitempty"`
}

// CostLine is what one ingredient costs; nil: it has no price.
type CostLine struct {
	Key     string  `json:"key"`
	BoughtG float64 `json:"bought_g"`
	Minor   *int64  `json:"minor"`
}

// Cost is what a dessert costs, each part by itself. With anything unpriced there is no total.
type Cost struct {
	Lines       []CostLine `json:"lines"`
	Ingredients int64      `json:"ingredients_minor"`
	Oven        int64      `json:"oven_minor"`
	Hands       int64      `json:"hands_minor"`
	Packaging   int64      `json:"packaging_minor"`
	Total       *int64     `json:"total_minor"`
	Portion     *int64     `json:"portion_minor"`
	Price       *int64     `json:"price_minor"`
	FoodShare   *float64   `json:"food_share_pct"`
	Unpriced    []string   `json:"unpriced"`
}

// washing is what is lost of fresh fruit when it is washed and picked over: a working figure.
const washing = 1.02

const mostLines = 500

// bought is as bought: fresh fruit by its yield and what washing takes, all else as it is.
func (l Line) bought(own *larder.Own) float64 {
	f, fruit := own.Fruit(l.Key)
	if !fruit || l.State == "frozen" {
		return l.G
	}
	peeled := l.State == "peeled" || l.State == "" && f.Group == "pome"
	return l.G / f.Yield(peeled) * washing
}

func (l Line) check(at string, own *larder.Own, f *fault.Faults) {
	f.RangeAt(at, "/g", l.G, 0, 1e6, "g")
	f.OneOfAt(at, "/state", l.State, "", "peeled", "unpeeled", "frozen")
	_, fruit := own.Fruit(l.Key)
	if _, known := own.Ingredient(l.Key); !known && !fruit {
		f.Add(at+"/key", fault.NoSuch(message.New("fruit or ingredient"), l.Key))
	}
}

// CheckCost finds every wrong field.
func CheckCost(q CostRequest) error {
	var f fault.Faults
	q.Own.Check("/own", &f)
	if !f.Length("", "/lines", len(q.Lines), 1, mostLines) {
		return f.Err()
	}
	for i, l := range q.Lines {
		l.check(fmt.Sprintf("/lines/%d", i), q.Own, &f)
	}
	f.Length("", "/prices", len(q.Prices), 0, mostKinds)
	for key, p := range q.Prices {
		at := "/prices/" + fault.Key(key)
		if p.PackG == nil == (p.PieceG == nil) {
			f.Add(at, message.New("has both or neither of pack_g and piece_g: use one of the two"))
		}
		for field, g := range map[string]*float64{"/pack_g": p.PackG, "/piece_g": p.PieceG} {
			if g != nil {
				f.RangeAt(at, field, *g, 0.01, 1e6, "g")
			}
		}
		f.RangeAt(at, "/minor", float64(p.Minor), 0, 1e9, "")
	}
	if o := q.Oven; o != nil {
		f.Range("/oven/kw", o.KW, 0, 100, "")
		f.Range("/oven/warm_min", o.WarmMin, 0, 1440, "min")
		f.Range("/oven/hold_min", o.HoldMin, 0, 1440, "min")
		f.Range("/oven/duty", o.Duty, 0, 1, "")
		f.Range("/oven/minor_per_kwh", o.MinorPerKWh, 0, 1e6, "")
		f.Range("/oven/share", o.Share, 0, 1, "")
	}
	if h := q.Hands; h != nil {
		f.Range("/hands/minutes", h.Minutes, 0, 10000, "min")
		f.Range("/hands/minor_per_h", h.MinorPerH, 0, 1e7, "")
	}
	f.Range("/packaging_minor", q.PackagingMinor, 0, 1e6, "")
	f.Range("/portions", q.Portions, 0.1, 10000, "")
	f.Range("/wanted_share_pct", q.WantedSharePct, 1, 100, "%")
	f.Range("/tax_pct", q.TaxPct, 0, 100, "%")
	f.Range("/ending_minor", float64(q.EndingMinor), 0, 100000, "")
	return f.Err()
}

// exact is a figure as a fraction.
func exact(x float64) *big.Rat {
	r := new(big.Rat)
	r.SetFloat64(x)
	return r
}

func times(all ...*big.Rat) *big.Rat {
	out := big.NewRat(1, 1)
	for _, x := range all {
		out.Mul(out, x)
	}
	return out
}

// halfUp is a fraction in whole minor units.
func halfUp(x *big.Rat) int64 {
	twice := times(x, big.NewRat(2, 1))
	twice.Add(twice, big.NewRat(1, 1))
	return floor(times(twice, big.NewRat(1, 2)))
}

func floor(x *big.Rat) int64 {
	q := new(big.Int)
	q.Div(x.Num(), x.Denom()) // the denominator is positive: rounded down
	return q.Int64()
}

// CostOf is what a dessert costs. A bad request is fault.Faults.
func CostOf(q CostRequest) (*Cost, error) {
	if err := CheckCost(q); err != nil {
		return nil, err
	}
	out := &Cost{Lines: []CostLine{}, Unpriced: []string{}}
	ingredients := new(big.Rat)
	for _, l := range q.Lines {
		line := CostLine{Key: l.Key, BoughtG: l.bought(q.Own)}
		if p, priced := q.Prices[l.Key]; priced {
			per := p.PackG
			if per == nil {
				per = p.PieceG
			}
			costs := times(exact(line.BoughtG), big.NewRat(p.Minor, 1), new(big.Rat).Inv(exact(*per)))
			ingredients.Add(ingredients, costs)
			minor := halfUp(costs)
			line.Minor = &minor
		} else {
			out.Unpriced = append(out.Unpriced, l.Key)
		}
		out.Lines = append(out.Lines, line)
	}
	oven, hands := new(big.Rat), new(big.Rat)
	if o := q.Oven; o != nil {
		minutes := new(big.Rat).Add(exact(o.WarmMin), times(exact(o.HoldMin), exact(o.Duty)))
		oven = times(exact(o.KW), minutes, big.NewRat(1, 60), exact(o.MinorPerKWh), exact(o.Share))
	}
	if h := q.Hands; h != nil {
		hands = times(exact(h.Minutes), big.NewRat(1, 60), exact(h.MinorPerH))
	}
	packaging := times(exact(q.PackagingMinor), exact(q.Portions))
	out.Ingredients, out.Oven, out.Hands, out.Packaging = halfUp(
		ingredients,
	), halfUp(
		oven,
	), halfUp(
		hands,
	), halfUp(
		packaging,
	)
	if len(out.Unpriced) == 0 {
		out.sum(q, ingredients, oven, hands, packaging)
	}
	return out, nil
}

// sum adds up what is priced whole.
func (c *Cost) sum(q CostRequest, ingredients, oven, hands, packaging *big.Rat) {
	total := new(big.Rat)
	for _, x := range []*big.Rat{ingredients, oven, hands, packaging} {
		total.Add(total, x)
	}
	aPortion := new(big.Rat).Inv(exact(q.Portions))
	sum, portion := halfUp(total), halfUp(times(total, aPortion))
	c.Total, c.Portion = &sum, &portion
	food := times(ingredients, aPortion)
	tax := new(big.Rat).Add(big.NewRat(1, 1), times(exact(q.TaxPct), big.NewRat(1, 100)))
	price := times(food, big.NewRat(100, 1), new(big.Rat).Inv(exact(q.WantedSharePct)), tax)
	ending := max(1, q.EndingMinor)
	steps := times(price, big.NewRat(1, ending))
	n := floor(steps)
	if new(big.Rat).SetInt64(n).Cmp(steps) < 0 {
		n++
	}
	shown := n * ending
	c.Price = &shown
	if shown == 0 {
		return
	}
	share, _ := times(food, big.NewRat(100, 1), tax, big.NewRat(1, shown)).Float64()
	c.FoodShare = &share
}
