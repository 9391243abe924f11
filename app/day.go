package app

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"time"

	"mabbin/core/balance"
	"mabbin/core/day"
	"mabbin/core/fault"
	"mabbin/core/learn"
	"mabbin/core/oven"
	"mabbin/core/sell"

	"github.com/google/uuid"
)

// Day is one day of a kitchen: what is wanted, and how it was planned last.
type Day struct {
	Date       time.Time // its midnight, UTC: a date is no moment
	Stored     bool      // something is kept of it
	Orders     day.Orders
	Schedule   *day.Schedule // nil: not yet
	ScheduleOf string        // the revision of what was wanted then
	Baking     []day.Baking  // what is in an oven by now
}

// Outdated says whether it was planned for something else than what is wanted and what happens now.
func (d Day) Outdated() bool {
	return d.Schedule != nil && (d.ScheduleOf != d.OrdersRevision() || d.Schedule.Differs(d.Baking))
}

// OrdersRevision is the revision of what a plan depends on. What was sold changes no plan.
func (d Day) OrdersRevision() string {
	d.Orders.Sold = nil
	return RevisionOf(d)
}

// DayStore keeps days, and what a kitchen has for them.
type DayStore interface {
	Resources(ctx context.Context, kitchen uuid.UUID) (day.Resources, error)
	SetResources(ctx context.Context, kitchen uuid.UUID, h day.Resources, when Precondition) error
	Day(ctx context.Context, kitchen uuid.UUID, date time.Time) (Day, error)
	Days(ctx context.Context, kitchen uuid.UUID, from, to time.Time) ([]Day, error)
	SetDay(ctx context.Context, kitchen uuid.UUID, date time.Time, a day.Orders, when Precondition) (Day, error)
	// SetPlan saves the plan of a day as it was read, and returns the day as it is stored then; where its orders have
	// changed since, it is a Conflict.
	SetPlan(ctx context.Context, kitchen uuid.UUID, planned Day) (Day, error)
}

// EquipmentStore reads a kitchen's shelf.
type EquipmentStore interface {
	KitchenStore
	Dishes(ctx context.Context, kitchen uuid.UUID) ([]KitchenDish, error)
	Ovens(ctx context.Context, kitchen uuid.UUID) ([]KitchenOven, error)
}

// Days is what is done with days.
type Days struct {
	Store     DayStore
	Equipment EquipmentStore
	Cards     CardStore
	Ovens     interface {
		Watched(ctx context.Context, kitchen uuid.UUID) ([]Watched, error)
	}
	Learning interface {
		LearningPreferences(ctx context.Context, kitchen uuid.UUID) (learn.Preferences, error)
	}
	Clock  Clock // of the kitchen: its hours are those of its place
	Baked  *BakedCards
	Notify Notify
}

// Open is a day; one of which nothing is kept yet has the orders that come every week.
func (d Days) Open(ctx context.Context, kitchen uuid.UUID, date time.Time) (Day, error) {
	now, err := d.Store.Day(ctx, kitchen, date)
	if err != nil {
		return now, err
	}
	if now.Stored {
		now.Baking, err = d.baking(ctx, kitchen, now)
		return now, err
	}
	before, err := d.Store.Days(ctx, kitchen, date.AddDate(0, 0, -7*day.RepeatWeeks), date.AddDate(0, 0, -7))
	if err != nil {
		return now, err
	}
	for _, x := range before { // the last one counts
		if x.Date.Weekday() == date.Weekday() {
			now.Orders = x.Orders.Repeated()
		}
	}
	return now, nil
}

// SetOrders keeps what is wanted of a day.
func (d Days) SetOrders(
	ctx context.Context,
	kitchen uuid.UUID,
	date time.Time,
	a day.Orders,
	when Precondition,
) (Day, error) {
	if err := day.CheckOrders(a); err != nil {
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

// ResourceSettings is what a kitchen has for its days, with what is usual where it has stored nothing.
type ResourceSettings struct {
	day.Resources
	Revision string
	Outside  []day.Vessel // what its dishes take where nobody has measured them
}

// Resources is what a kitchen has for its days.
func (d Days) Resources(ctx context.Context, kitchen uuid.UUID) (ResourceSettings, error) {
	stored, err := d.Store.Resources(ctx, kitchen)
	if err != nil {
		return ResourceSettings{}, err
	}
	ovens, err := d.Equipment.Ovens(ctx, kitchen)
	if err != nil {
		return ResourceSettings{}, err
	}
	var ids []string
	for _, o := range ovens {
		if o.Kind != oven.Camp { // coals are planned by no clock
			ids = append(ids, o.ID.String())
		}
	}
	out := ResourceSettings{Resources: stored.Usual(ids), Revision: RevisionOf(stored), Outside: []day.Vessel{}}
	dishes, err := d.Equipment.Dishes(ctx, kitchen)
	for _, x := range dishes {
		out.Outside = append(out.Outside, day.UsualOutside(shelfDish(x)))
	}
	return out, err
}

func shelfDish(x KitchenDish) day.KitchenDish {
	return day.KitchenDish{ID: x.ID.String(), Name: x.Name, Dish: x.Dish, Count: x.Count}
}

// SetResources keeps what a kitchen has for its days.
func (d Days) SetResources(ctx context.Context, kitchen uuid.UUID, h day.Resources, when Precondition) error {
	if err := day.CheckResources(h); err != nil {
		return err
	}
	return d.Store.SetResources(ctx, kitchen, h, when)
}

// ReadLines reads orders as they are pasted, by the names of the kitchen's cards.
func (d Days) ReadLines(
	ctx context.Context, kitchen uuid.UUID, date time.Time, text string, among day.Orders,
) ([]day.Order, []day.UnreadLine, error) {
	cards, _, err := d.Cards.Cards(ctx, kitchen, CardFilter{})
	if err != nil {
		return nil, nil, err
	}
	known := make([]day.KnownCard, 0, len(cards))
	for _, c := range cards {
		if c.Unusable != nil {
			continue
		}
		r := c.Versions[0].Request
		x := r.Dish
		known = append(known, day.KnownCard{
			ID: c.ID.String(), Name: c.Name, LengthCM: max(x.LengthCM, x.WidthCM), WidthCM: min(x.LengthCM, x.WidthCM),
			Portions: func() float64 {
				a, err := balance.Solve(r)
				if err != nil {
					return 0
				}
				return a.Portions.Count
			},
		})
	}
	orders, unread := day.ReadLines(text, known, among, date.Weekday())
	return orders, unread, nil
}

// Proposal is how much to make of a card on a day.
type Proposal struct {
	Card uuid.UUID
	Name string
	sell.HowMany
}

// HowMany proposes how much to make on a date of each card that was sold on this weekday before.
func (d Days) HowMany(ctx context.Context, kitchen uuid.UUID, date time.Time) ([]Proposal, error) {
	before, err := d.Store.Days(ctx, kitchen, date.AddDate(0, 0, -7*sell.SalesWeeks), date.AddDate(0, 0, -1))
	if err != nil {
		return nil, err
	}
	sold := map[string][]sell.Sold{}
	for _, x := range before {
		if x.Date.Weekday() != date.Weekday() {
			continue
		}
		for _, s := range x.Orders.Sold {
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
