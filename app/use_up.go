package app

import (
	"cmp"
	"context"
	"slices"

	"mabbin/core/balance"
	"mabbin/core/day"
	"mabbin/core/sell"

	"github.com/google/uuid"
)

// CardUse is a card that uses something up.
type CardUse struct {
	Card uuid.UUID
	Name string
	*sell.UseUp
}

// The most cards that are tried, and told.
const (
	cardsTried = 100
	usesTold   = 6
)

// UseUp finds the cards that use up what there is of something, those first that leave little, in few dishes;
// each in the dishes of the shelf that take the most of it.
func (b Buying) UseUp(ctx context.Context, kitchen uuid.UUID, key string) ([]CardUse, error) {
	s, err := b.Store.Pantry(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	i := slices.IndexFunc(s.Stock, func(x sell.InStore) bool { return x.Key == key })
	if i < 0 {
		return nil, ErrNotFound
	}
	own, err := b.Kitchens.Own(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	shelf, err := b.Days.Shelf.Dishes(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	dishes := startDishes(shelf)
	cards, _, err := b.Cards.Cards(ctx, kitchen, CardFilter{Limit: cardsTried})
	if err != nil {
		return nil, err
	}
	bake, err := b.baker(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	out := []CardUse{}
	for _, c := range cards {
		x, err := bake(c, c.Unusable)
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		if err != nil || !uses(key, x) {
			continue // what can't be baked uses nothing up
		}
		q := sell.UseUpRequest{Request: x.Dessert.Request, Dishes: dishes, Key: key, G: s.Stock[i].G, Own: own}
		if len(dishes) == 0 {
			q.Dishes = []balance.StartDish{{ID: x.ID, Name: x.ID, Dish: q.Request.Dish}}
		}
		if found, err := sell.UseUpWith(q); err == nil && found != nil {
			out = append(out, CardUse{c.ID, x.ID, found})
		}
	}
	slices.SortStableFunc(out, func(a, b CardUse) int { return cmp.Compare(a.Trouble, b.Trouble) })
	return out[:min(len(out), usesTold)], nil
}

// startDishes are the dishes of a shelf, with how many there are of each.
func startDishes(shelf []ShelfDish) []balance.StartDish {
	out := make([]balance.StartDish, len(shelf))
	for i, d := range shelf {
		out[i] = balance.StartDish{ID: d.ID.String(), Name: d.Name, Count: d.Count, Dish: d.Dish}
	}
	return out
}

func uses(key string, x day.Ordered) bool {
	return slices.ContainsFunc(sell.Needs(x.Dessert.Request, &x.Answer.Balance, 1), func(l sell.Line) bool {
		return l.Key == key
	})
}
