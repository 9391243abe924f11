package app

import (
	"context"
	"errors"
	"time"

	"mabbin/core/day"
	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/core/sell"
	"mabbin/core/units"

	"github.com/google/uuid"
)

// StockStore keeps what a kitchen has in store.
type StockStore interface {
	Stock(ctx context.Context, kitchen uuid.UUID) (sell.Stock, error)
	// UpdatePantry changes it, in one transaction that holds it.
	UpdateStock(
		ctx context.Context,
		kitchen uuid.UUID,
		when Precondition,
		change func(sell.Stock) (sell.Stock, error),
	) (sell.Stock, error)
	// AddStock changes it for a purchase, once for each id.
	AddStock(
		ctx context.Context, kitchen, id uuid.UUID, lines []sell.Line, at time.Time,
		change func(sell.Stock) (sell.Stock, error),
	) (sell.Stock, error)
}

// Buying is what is done about buying and selling.
type Buying struct {
	Store    StockStore
	Kitchens KitchenStore
	Cards    CardStore
	Days     Days
	Log      interface {
		BatchesOn(ctx context.Context, kitchen uuid.UUID, on time.Time) ([]Batch, error)
	}
	Clock  Clock
	Notify Notify
}

// Batch is the number of a logged bake, and its card.
type Batch struct {
	Number string
	Card   *uuid.UUID
}

// CardCount is a card, so many times.
type CardCount struct {
	Card   uuid.UUID
	Dishes int
}

// Set keeps what a kitchen has in store.
func (b Buying) Set(ctx context.Context, kitchen uuid.UUID, s sell.Stock, when Precondition) (sell.Stock, error) {
	own, err := b.Kitchens.Own(ctx, kitchen)
	if err != nil {
		return s, err
	}
	if err := sell.CheckStock(s, own); err != nil {
		return s, err
	}
	return b.update(ctx, kitchen, when, func(sell.Stock) (sell.Stock, error) { return s, nil })
}

// TakeIn adds a purchase to the stock. The same id twice is the same purchase.
func (b Buying) TakeIn(ctx context.Context, kitchen, id uuid.UUID, lines []sell.Line) (sell.Stock, error) {
	own, err := b.Kitchens.Own(ctx, kitchen)
	if err != nil {
		return sell.Stock{}, err
	}
	if err := sell.CheckPurchase(lines, own); err != nil {
		return sell.Stock{}, err
	}
	now := b.Clock()
	s, err := b.Store.AddStock(ctx, kitchen, id, lines, now, func(s sell.Stock) (sell.Stock, error) {
		s = s.TakeIn(lines, now)
		return s, sell.CheckStock(s, own)
	})
	if err == nil {
		b.Notify(kitchen)
	}
	return s, err
}

func (b Buying) update(
	ctx context.Context, kitchen uuid.UUID, when Precondition, change func(sell.Stock) (sell.Stock, error),
) (sell.Stock, error) {
	s, err := b.Store.UpdateStock(ctx, kitchen, when, change)
	if err == nil {
		b.Notify(kitchen)
	}
	return s, err
}

// OfDay are the cards that are wanted on a day.
func (b Buying) OfDay(ctx context.Context, kitchen uuid.UUID, date time.Time) ([]CardCount, error) {
	d, err := b.Days.Open(ctx, kitchen, date)
	if err != nil {
		return nil, err
	}
	out := make([]CardCount, 0, len(d.Orders.Orders))
	for _, o := range d.Orders.Orders {
		card, err := uuid.Parse(o.Card)
		if err == nil {
			out = append(out, CardCount{card, o.Dishes})
		}
	}
	return out, nil
}

// List is what to buy for some cards, less what there is.
func (b Buying) List(ctx context.Context, kitchen uuid.UUID, of []CardCount) (*sell.List, error) {
	all, err := b.baked(ctx, kitchen, of)
	if err != nil {
		return nil, err
	}
	s, err := b.Store.Stock(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	own, err := b.Kitchens.Own(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	return sell.ListFor(all, s, own)
}

// baked are cards with their bakes; one that is gone, or can't be baked, is named.
func (b Buying) baked(ctx context.Context, kitchen uuid.UUID, of []CardCount) ([]sell.Baked, error) {
	var f fault.Faults
	var out []sell.Baked
	err := b.eachCard(ctx, kitchen, of, func(i int, x day.PlannedOrder, err error) {
		if err != nil {
			f.Add(pointer("/cards", i, "/card"), message.New("is a card that was deleted or can’t be baked"))
			return
		}
		out = append(out, sell.Baked{Request: x.Dessert.Request, Answer: &x.Answer.Balance, Dishes: of[i].Dishes})
	})
	if err != nil {
		return nil, err
	}
	return out, f.Err()
}

// eachCard simulates each card; reported are those that can't be, with why.
func (b Buying) eachCard(
	ctx context.Context, kitchen uuid.UUID, of []CardCount, tell func(i int, x day.PlannedOrder, why error),
) error {
	bake, err := b.baker(ctx, kitchen)
	if err != nil {
		return err
	}
	for i, w := range of {
		x, err := bake(b.Cards.Card(ctx, kitchen, w.Card))
		if ctx.Err() != nil {
			return ctx.Err()
		}
		tell(i, x, err)
	}
	return nil
}

// baker simulates cards of a kitchen; one that could not be had is not baked.
func (b Buying) baker(ctx context.Context, kitchen uuid.UUID) (func(Card, error) (day.PlannedOrder, error), error) {
	k, err := b.Kitchens.OneKitchen(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	used, err := b.Kitchens.Learnt(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	return func(card Card, err error) (x day.PlannedOrder, _ error) {
		if err != nil {
			return x, err
		}
		x.ID = card.Name
		err = b.Days.Baked.work(ctx, k, used, nil, card.Versions[0], &x)
		if err == nil && x.Answer == nil {
			err = ErrUnusable
		}
		return x, err
	}, nil
}

// CardLabel is the label of a card, or why there is none.
type CardLabel struct {
	Batch  string
	Card   uuid.UUID
	Name   string
	Label  *sell.DessertLabel
	Reason error
}

// Labels are what is printed of some cards, by the list of allergens of the kitchen's region.
func (b Buying) Labels(
	ctx context.Context, kitchen uuid.UUID, on time.Time, of []CardCount,
) ([]CardLabel, error) {
	k, err := b.Kitchens.OneKitchen(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	region := sell.EU
	if k.English == units.US {
		region = sell.US
	}
	logged, err := b.Log.BatchesOn(ctx, kitchen, on)
	if err != nil {
		return nil, err
	}
	s, err := b.Store.Stock(ctx, kitchen)
	if err != nil {
		return nil, err
	}
	next := len(logged)
	batches := map[uuid.UUID]string{}
	for _, x := range logged {
		if x.Card != nil {
			batches[*x.Card] = x.Number
		}
	}
	out := []CardLabel{}
	err = b.eachCard(ctx, kitchen, of, func(i int, x day.PlannedOrder, why error) {
		card := of[i].Card
		if batches[card] == "" && why == nil {
			batches[card] = sell.BatchNumber(on, next)
			next++
		}
		if errors.Is(why, ErrNotFound) {
			why = message.Error{Message: message.New("There is no such card"), Kind: ErrNotFound}
		}
		l := CardLabel{Card: card, Name: x.ID, Batch: batches[card], Reason: why}
		if why == nil {
			l.Label, l.Reason = sell.LabelFor(x.ID, x.Dessert.Request, x.Answer, region)
			if l.Label != nil && s.Labels.Nutrition {
				l.Label.Nutrition = sell.NutritionOf(x.Dessert.Request, &x.Answer.Balance).Rows
			}
		}
		out = append(out, l)
	})
	return out, err
}
