package sell

import (
	"cmp"
	"context"
	"slices"

	"mabbin/core/balance"
	"mabbin/core/diet"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// OtherCost is what a portion costs when one thing is changed.
type OtherCost struct {
	Kind CostKind        `json:"kind"`
	Text message.Message `json:"text"`
	// Portion is what one costs, and More by how much that is more; nil: something in it has no price.
	Portion *int64 `json:"portion_minor"`
	More    *int64 `json:"more_minor"`
	// Unpriced are the keys of what has none.
	Unpriced []string `json:"unpriced"`
	// Texture is what a swap costs in addition to money; empty: nothing.
	Texture message.Message `json:"texture,omitzero"`
}

// CostKind is what is changed of a dessert to see what it costs then.
type CostKind string

// The kinds of changes.
const (
	InDish   CostKind = "dish"
	WithSwap CostKind = "swap"
)

// OtherCosts prices a dessert in each of the other dishes and with each swap of its topping, the cheapest portion
// first; oven and hands as they are. A bad request is fault.Faults; it ends with ctx.
func OtherCosts(
	ctx context.Context, r balance.Request, a *balance.Answer, dishes []balance.StartDish, rates Rates, w Work,
) ([]OtherCost, error) {
	now, err := OfDessert(r, a, rates, w)
	if err != nil {
		return nil, err
	}
	out := []OtherCost{}
	add := func(kind CostKind, text, texture message.Message, r balance.Request, a *balance.Answer) error {
		if err := ctx.Err(); err != nil {
			return err
		}
		c, err := OfDessert(r, a, rates, w)
		if err != nil {
			return err
		}
		x := OtherCost{Kind: kind, Text: text, Portion: c.Portion, Unpriced: c.Unpriced, Texture: texture}
		if c.Portion != nil && now.Portion != nil {
			more := *c.Portion - *now.Portion
			x.More = &more
		}
		out = append(out, x)
		return nil
	}
	if len(dishes) > 0 {
		in, err := balance.Other(balance.OtherRequest{Request: r, Dishes: dishes})
		if err != nil {
			return nil, err
		}
		for i := range in.Dishes {
			d := &in.Dishes[i]
			text := message.New("in {dish}", message.Text(d.Name))
			if err := add(InDish, text, message.Message{}, d.Request, &d.Answer); err != nil {
				return nil, err
			}
		}
	}
	for _, s := range diet.Swaps() {
		if !slices.Contains(weighed(a), s.From) {
			continue
		}
		q, err := diet.Swapped(diet.SwapRequest{Request: r, Index: s.Index})
		if err != nil {
			continue // this dough can't have it
		}
		swapped, err := balance.Solve(q)
		if err != nil || slices.Equal(weighed(a), weighed(swapped)) {
			continue // it was not in the topping
		}
		from, _ := r.Own.Ingredient(s.From)
		text := message.New("{From}: {to}", message.Name(larder.Name(from.Name)), message.Part(s.To))
		if err := add(WithSwap, text, s.Costs, q, swapped); err != nil {
			return nil, err
		}
	}
	slices.SortStableFunc(out, func(x, y OtherCost) int {
		if x.Portion == nil || y.Portion == nil {
			return cmp.Compare(len(x.Unpriced), len(y.Unpriced))
		}
		return cmp.Compare(*x.Portion, *y.Portion)
	})
	return out, nil
}

// weighed are the keys of a dessert's ingredients, in the order of its ticket.
func weighed(a *balance.Answer) (out []string) {
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			out = append(out, l.Key)
		}
	}
	return out
}
