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
	dishes := make([]balance.StartDish, len(shelf))
	for k, d := range shelf {
		dishes[k] = balance.StartDish{ID: d.ID.String(), Name: d.Name, Count: d.Count, Dish: d.Dish}
	}
	cards, _, err := b.Cards.Cards(ctx, kitchen, CardFilter{Limit: cardsTried})
	if err != nil {
		return nil, err
	}
	of := make([]WantedCard, len(cards))
	for k, c := range cards {
		of[k] = WantedCard{c.ID, 1}
	}
	out := []CardUse{}
	err = b.eachCard(ctx, kitchen, of, func(k int, x day.Ordered, why error) {
		if why != nil || !uses(key, x) {
			return // what can't be baked uses nothing up
		}
		q := sell.UseUpRequest{Request: x.Dessert.Request, Dishes: dishes, Key: key, G: s.Stock[i].G, Own: own}
		if len(dishes) == 0 {
			q.Dishes = []balance.StartDish{{ID: x.ID, Name: x.ID, Dish: q.Request.Dish}}
		}
		found, err := sell.UseUpWith(q)

		if err == nil && found != nil {
			out = append(out, CardUse{of[k].Card, x.ID, found})
		}
	})
	slices.SortStableFunc(out, func(a, b CardUse) int { return cmp.Compare(a.Trouble, b.Trouble) })
	return out[:min(len(out), usesTold)], err
}

func uses(key string, x day.Ordered) bool {
	return slices.ContainsFunc(sell.Needs(x.Dessert.Request, &x.Answer.Balance, 1), func(l sell.Line) bool {
		return l.Key == key
	})
}
