package app

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"time"

	"mabbin/core/day"
	"mabbin/core/fault"
	"mabbin/core/learn"
	"mabbin/core/oven"
	"mabbin/core/sell"

	"github.com/google/uuid"
)

// Day is one day of a kitchen: what is wanted, and how it was laid last.
type Day struct {
	Date   time.Time // its midnight, UTC: a date is no moment
	Kept   bool      // something is kept of it
	Asked  day.Asked
	Laid   *day.Laid    // nil: not yet
	LaidOf string       // the revision of what was wanted then
	Baking []day.Baking // what is in an oven by now
}

// Outdated says whether it was laid for something else than what is wanted and what happens now.
func (d Day) Outdated() bool {
	return d.Laid != nil && (d.LaidOf != d.OrdersRevision() || d.Laid.RunsOtherwise(d.Baking))
}

// OrdersRevision is the revision of what a plan depends on. What was sold changes no plan.
func (d Day) OrdersRevision() string {
	d.Asked.Sold = nil
	return Revision(d)
}

// DayStore keeps days, and what a kitchen has for them.
type DayStore interface {
	House(ctx context.Context, kitchen uuid.UUID) (day.House, error)
	SetHouse(ctx context.Context, kitchen uuid.UUID, h day.House, when If) error
	Day(ctx context.Context, kitchen uuid.UUID, date time.Time) (Day, error)
	Days(ctx context.Context, kitchen uuid.UUID, from, to time.Time) ([]Day, error)
	SetDay(ctx context.Context, kitchen uuid.UUID, date time.Time, a day.Asked, when If) (Day, error)
	// SetPlan saves the plan of a day as it was read, and returns the day as it is stored then; where its orders have
	// changed since, it is a Conflict.
	SetPlan(ctx context.Context, kitchen uuid.UUID, planned Day) (Day, error)
}

// ShelfStore reads a kitchen's shelf.
type ShelfStore interface {
	KitchenStore
	Dishes(ctx context.Context, kitchen uuid.UUID) ([]ShelfDish, error)
	Ovens(ctx context.Context, kitchen uuid.UUID) ([]ShelfOven, error)
}

// Days is what is done with days.
type Days struct {
	Store DayStore
	Shelf ShelfStore
	Cards CardStore
	Ovens interface {
		Watched(ctx context.Context, kitchen uuid.UUID) ([]Watched, error)
	}
	Learning interface {
		LearningSays(ctx context.Context, kitchen uuid.UUID) (learn.Says, error)
	}
	Clock  Clock // of the kitchen: its hours are those of its place
	Baked  *BakedCards
	Notify Notify
}

// weeksBack is how far back a day is sought whose orders come every week.
const weeksBack = 5

// Open is a day; one of which nothing is kept yet has the orders that come every week.
func (d Days) Open(ctx context.Context, kitchen uuid.UUID, date time.Time) (Day, error) {
	now, err := d.Store.Day(ctx, kitchen, date)
	if err != nil {
		return now, err
	}
	if now.Kept {
		now.Baking, err = d.baking(ctx, kitchen, now)
		return now, err
	}
	before, err := d.Store.Days(ctx, kitchen, date.AddDate(0, 0, -7*weeksBack), date.AddDate(0, 0, -7))
	if err != nil {
		return now, err
	}
	for _, x := range before { // the last one counts
		if x.Date.Weekday() == date.Weekday() {
			now.Asked = x.Asked.Repeated()
		}
	}
	return now, nil
}

// Want keeps what is wanted of a day.
func (d Days) Want(ctx context.Context, kitchen uuid.UUID, date time.Time, a day.Asked, when If) (Day, error) {
	if err := day.CheckAsked(a); err != nil {
		return Day{}, err
	}
	var f fault.Faults
	cards := map[string]bool{}
	for i, o := range a.Orders {
		id, err := uuid.Parse(o.Card)
		if err == nil && !cards[o.Card] {
			_, err = d.Cards.Card(ctx, kitchen, id)
		}
		if err != nil {
			f.Add(pointer("/orders", i, "/card"), fault.NoSuch(cardWord, o.Card))
		}
		cards[o.Card] = true
	}
	if err := f.Err(); err != nil {
		return Day{}, err
	}
	kept, err := d.Store.SetDay(ctx, kitchen, date, a, when)
	if err == nil {
		d.Notify(kitchen)
	}
	return kept, err
}

// HouseKept is what a kitchen has for its days, with what is usual where it has told nothing.
type HouseKept struct {
	day.House
	Revision string
	Outside  []day.HouseDish // what its dishes take where nobody has measured them
}

// House is what a kitchen has for its days.
func (d Days) House(ctx context.Context, kitchen uuid.UUID) (HouseKept, error) {
	told, err := d.Store.House(ctx, kitchen)
	if err != nil {
		return HouseKept{}, err
	}
	ovens, err := d.Shelf.Ovens(ctx, kitchen)
	if err != nil {
		return HouseKept{}, err
	}
	var ids []string
	for _, o := range ovens {
		if o.Kind != oven.Camp { // coals are laid by no clock
			ids = append(ids, o.ID.String())
		}
	}
	out := HouseKept{House: told.Usual(ids), Revision: Revision(told), Outside: []day.HouseDish{}}
	dishes, err := d.Shelf.Dishes(ctx, kitchen)
	for _, x := range dishes {
		out.Outside = append(out.Outside, day.UsualOutside(shelfDish(x)))
	}
	return out, err
}

func shelfDish(x ShelfDish) day.ShelfDish {
	return day.ShelfDish{ID: x.ID.String(), Name: x.Name, Dish: x.Dish, Count: x.Count}
}

// SetHouse keeps what a kitchen has for its days.
func (d Days) SetHouse(ctx context.Context, kitchen uuid.UUID, h day.House, when If) error {
	if err := day.CheckHouse(h); err != nil {
		return err
	}
	return d.Store.SetHouse(ctx, kitchen, h, when)
}

// ReadLines reads orders as they are jotted down, by the names of the kitchen's cards.
func (d Days) ReadLines(
	ctx context.Context, kitchen uuid.UUID, text string, among day.Asked,
) ([]day.Wanted, []day.Unread, error) {
	cards, _, err := d.Cards.Cards(ctx, kitchen, CardFilter{})
	if err != nil {
		return nil, nil, err
	}
	known := make([]day.Known, 0, len(cards))
	for _, c := range cards {
		if c.Unusable != nil {
			continue
		}
		x := c.Versions[0].Request.Dish
		known = append(known, day.Known{
			ID: c.ID.String(), Name: c.Name, LengthCM: max(x.LengthCM, x.WidthCM), WidthCM: min(x.LengthCM, x.WidthCM),
		})
	}
	orders, unread := day.ReadLines(text, known, among)
	return orders, unread, nil
}

// Proposal is how much to make of a card on a day.
type Proposal struct {
	Card uuid.UUID
	Name string
	sell.HowMany
}

// soldSince is how far back sales of a weekday are looked at.
const soldSince = 26 * 7 * 24 * time.Hour

// HowMany proposes how much to make on a date of each card that was sold on this weekday before.
func (d Days) HowMany(ctx context.Context, kitchen uuid.UUID, date time.Time) ([]Proposal, error) {
	before, err := d.Store.Days(ctx, kitchen, date.Add(-soldSince), date.AddDate(0, 0, -1))
	if err != nil {
		return nil, err
	}
	sold := map[string][]sell.Sold{}
	for _, x := range before {
		if x.Date.Weekday() != date.Weekday() {
			continue
		}
		for _, s := range x.Asked.Sold {
			weeks := date.Sub(x.Date).Hours() / (7 * 24)
			sold[s.Card] = append(sold[s.Card], sell.Sold{WeeksAgo: weeks, Made: s.Made, Left: s.Left})
		}
	}
	out := []Proposal{}
	for id, days := range sold {
		card, err := uuid.Parse(id)
		if err != nil {
			continue
		}
		c, err := d.Cards.Card(ctx, kitchen, card)
		if errors.Is(err, ErrNotFound) || errors.Is(err, ErrUnusable) {
			continue
		}
		if err != nil {
			return nil, err
		}
		if h, ok := sell.Propose(days, 0, 0); ok {
			out = append(out, Proposal{card, c.Name, h})
		}
	}
	slices.SortFunc(out, func(a, b Proposal) int { return cmp.Compare(a.Name, b.Name) })
	return out, nil
}
