package app

import (
	"cmp"
	"context"
	"slices"

	"mabbin/core/balance"
	"mabbin/core/sell"

	"github.com/google/uuid"
)

// CardUse is a card that uses something up.
type CardUse struct {
	Card uuid.UUID
	Name string
	*sell.UseUp
}

// How many cards are looked at, the last saved first; with how many of them that have it in dishes are tried; and how
// many of those are answered.
const (
	cardsLookedAt = 400
	cardsTried    = 100
	reportedUses  = 6
)

// UseUp finds the cards that use up what there is of something, those first that leave little, in few dishes;
// each in the dishes of the shelf that take the most of it. Cards are balanced and not baked: what they use does not
// depend on their bake.
func (b Buying) UseUp(ctx context.Context, kitchen uuid.UUID, key string) ([]CardUse, error) {
	s, err := b.Store.Stock(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	i := slices.IndexFunc(s.Items, func(x sell.StockItem) bool { return x.Key == key })
	if i < 0 {
		return nil, ErrNotFound
	}
	own, err := b.Kitchens.Own(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	used, err := b.Kitchens.Learnt(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	shelf, err := b.Days.Equipment.Dishes(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	dishes := startDishes(shelf)
	filter := CardFilter{Limit: cardsLookedAt}
	if _, fruit := own.Fruit(key); fruit {
		filter.Fruit = key
	}
	cards, _, err := b.Cards.Cards(ctx, kitchen, filter)
	if err != nil {
		return nil, err
	}
	out, tried := []CardUse{}, 0
	for _, c := range cards {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		if c.Unusable != nil || tried == cardsTried {
			continue
		}
		r := c.Versions[0].Request
		r.Own = used.On(r.Own)
		a, err := balance.Solve(r)
		if err != nil || !uses(key, r, a) {
			continue // what can't be balanced uses nothing up
		}
		tried++
		q := sell.UseUpRequest{Request: r, Dishes: dishes, Key: key, G: s.Items[i].G, Own: own}
		if len(dishes) == 0 {
			q.Dishes = []balance.StartDish{{ID: c.Name, Name: c.Name, Dish: r.Dish}}
		}
		if found, err := sell.UseUpWith(q); err == nil && found != nil {
			out = append(out, CardUse{c.ID, c.Name, found})
		}
	}
	slices.SortStableFunc(out, func(a, b CardUse) int { return cmp.Compare(a.Trouble, b.Trouble) })
	return out[:min(len(out), reportedUses)], nil
}

// startDishes are the dishes of a shelf, with how many there are of each.
func startDishes(shelf []KitchenDish) []balance.StartDish {
	out := make([]balance.StartDish, len(shelf))
	for i, d := range shelf {
		out[i] = balance.StartDish{ID: d.ID.String(), Name: d.Name, Count: d.Count, Dish: d.Dish}
	}
	return out
}

func uses(key string, r balance.Request, a *balance.Answer) bool {
	return slices.ContainsFunc(sell.Needs(r, a, 1), func(l sell.Line) bool { return l.Key == key })
}
