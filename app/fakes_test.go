package app

import (
	"context"
	"slices"
	"strings"
	"sync"
	"time"

	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/larder"
	"mabbin/core/learn"
	"mabbin/core/sell"
	"mabbin/core/watch"

	"github.com/google/uuid"
)

// crumble is a dessert that balances.
func crumble() balance.Request {
	return balance.Request{
		Dish:    dish.Dish{Shape: dish.Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5, Material: "stoneware"},
		Style:   "crumble",
		Fruits:  []balance.FruitInput{{Key: "gooseberry", Share: 1}},
		Topping: balance.ToppingInput{Key: "crumble_classic"},
	}
}

// clock is a clock that is set by hand.
type clock struct{ at time.Time }

func (c *clock) now() time.Time { return c.at }

func (c *clock) pass(d time.Duration) { c.at = c.at.Add(d) }

func newClock() *clock { return &clock{time.Date(2026, 10, 1, 12, 0, 0, 0, time.UTC)} }

// kitchens is one kitchen with some ovens.
type kitchens struct {
	id       uuid.UUID
	altitude float64
	ovens    []KitchenOven
}

func (k kitchens) OneKitchen(_ context.Context, id uuid.UUID) (Kitchen, error) {
	out := Kitchen{ID: k.id, Name: "Oxlip Yard"}
	out.AltitudeM = k.altitude
	if id != k.id {
		return out, ErrNotFound
	}
	return out, nil
}

func (k kitchens) OneOven(_ context.Context, kitchen, id uuid.UUID) (KitchenOven, error) {
	i := slices.IndexFunc(k.ovens, func(o KitchenOven) bool { return o.ID == id })
	if kitchen != k.id || i < 0 {
		return KitchenOven{}, ErrNotFound
	}
	return k.ovens[i], nil
}

func (k kitchens) Learnt(context.Context, uuid.UUID) (learn.Used, error) { return learn.Used{}, nil }
func (k kitchens) Own(context.Context, uuid.UUID) (*larder.Own, error)   { return nil, nil }

// untaught is a kitchen whose log has taught nothing.
type untaught struct{ LearningStore }

func (untaught) LearningPreferences(context.Context, uuid.UUID) (learn.Preferences, error) {
	return learn.Preferences{}, nil
}

func (untaught) Posterior(context.Context, uuid.UUID) (learn.Posterior, error) {
	return learn.Posterior{}, nil
}

// cardBox keeps cards in memory, in the order in which they were saved.
type cardBox struct {
	cards     []Card
	summaries map[uuid.UUID]CardSummary // by version
	listed    CardFilter
}

func newCardBox() *cardBox { return &cardBox{summaries: map[uuid.UUID]CardSummary{}} }

func (b *cardBox) at(id uuid.UUID) int {
	return slices.IndexFunc(b.cards, func(c Card) bool { return c.ID == id })
}

func (b *cardBox) AddCard(
	ctx context.Context, _, card uuid.UUID, name string, first Version, s CardSummary,
) (Card, error) {
	if b.at(card) < 0 {
		first.Number = 1
		b.cards = append(b.cards, Card{ID: card, Name: name, Versions: []Version{first}})
		b.summaries[first.ID] = s
	}
	return b.Card(ctx, uuid.Nil, card)
}

func (b *cardBox) AddVersion(ctx context.Context, _, card uuid.UUID, v Version, s CardSummary) (Card, error) {
	i := b.at(card)
	if i < 0 {
		return Card{}, ErrNotFound
	}
	v.Number = len(b.cards[i].Versions) + 1
	b.cards[i].Versions = append([]Version{v}, b.cards[i].Versions...)
	b.summaries[v.ID] = s
	return b.Card(ctx, uuid.Nil, card)
}

func (b *cardBox) Card(_ context.Context, _, card uuid.UUID) (Card, error) {
	i := b.at(card)
	if i < 0 {
		return Card{}, ErrNotFound
	}
	return b.cards[i], nil
}

func (b *cardBox) Cards(_ context.Context, _ uuid.UUID, f CardFilter) ([]Card, int, error) {
	b.listed = f
	return b.cards, len(b.cards), nil
}

func (b *cardBox) Unsummarised(_ context.Context, _ uuid.UUID, than, limit int) (out []Version, err error) {
	for _, c := range b.cards {
		if v := c.Versions[0]; b.summaries[v.ID].Version < than && len(out) < limit {
			out = append(out, v)
		}
	}
	return out, nil
}

func (b *cardBox) SetSummary(_ context.Context, version uuid.UUID, s CardSummary) error {
	b.summaries[version] = s
	return nil
}

func (b *cardBox) ChangeCard(ctx context.Context, _, card uuid.UUID, c CardChange, _ Precondition) (Card, error) {
	i := b.at(card)
	if i < 0 {
		return Card{}, ErrNotFound
	}
	if c.Name != nil {
		b.cards[i].Name = *c.Name
	}
	if c.Archived != nil {
		b.cards[i].Archived = *c.Archived
	}
	if c.Tags != nil {
		b.cards[i].Tags = *c.Tags
	}
	return b.Card(ctx, uuid.Nil, card)
}

func (b *cardBox) CardTags(context.Context, uuid.UUID) ([]string, error) { return nil, nil }

// ovenShelf keeps what is in the ovens in memory. A change that fails keeps nothing, as a transaction does.
type ovenShelf struct {
	mu     sync.Mutex
	all    []Watched
	broken error // of whatever tidies
	tidied int
}

func (s *ovenShelf) at(id uuid.UUID) int {
	return slices.IndexFunc(s.all, func(w Watched) bool { return w.ID == id })
}

func (s *ovenShelf) StartWatch(_ context.Context, w Watched) error {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.at(w.ID) < 0 {
		name(&w)
		s.all = append(s.all, w)
	}
	return nil
}

// name gives new calls their ids, as a store does.
func name(w *Watched) {
	w.Calls = slices.Clone(w.Calls)
	for i := range w.Calls {
		if w.Calls[i].ID == (watch.CallID{}) {
			w.Calls[i].ID = watch.CallID(uuid.New())
		}
	}
}

func (s *ovenShelf) Watched(context.Context, uuid.UUID) ([]Watched, error) { return s.all, nil }

func (s *ovenShelf) OneWatched(_ context.Context, kitchen, id uuid.UUID) (Watched, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if i := s.at(id); i >= 0 && s.all[i].Kitchen == kitchen {
		return s.all[i], nil
	}
	return Watched{}, ErrNotFound
}

func (s *ovenShelf) UpdateWatched(
	_ context.Context, kitchen, id uuid.UUID, change func(*Watched) error,
) (Watched, error) {
	s.mu.Lock()
	defer s.mu.Unlock()
	i := s.at(id)
	if i < 0 || s.all[i].Kitchen != kitchen {
		return Watched{}, ErrNotFound
	}
	w := s.all[i]
	w.Calls = slices.Clone(w.Calls)
	if err := change(&w); err != nil {
		return Watched{}, err
	}
	name(&w)
	s.all[i] = w
	return w, nil
}

func (s *ovenShelf) Probed(context.Context, time.Time) (out []WatchedID, err error) {
	for _, w := range s.all {
		if w.Probe != "" {
			out = append(out, WatchedID{w.Kitchen, w.ID})
		}
	}
	return out, nil
}

func (s *ovenShelf) Ahead(context.Context, time.Time) (out []WatchedID, err error) {
	for _, w := range s.all {
		if w.Speed > 1 {
			out = append(out, WatchedID{w.Kitchen, w.ID})
		}
	}
	return out, nil
}

func (s *ovenShelf) ThinReadings(context.Context, time.Time, time.Time) error {
	s.tidied++
	return s.broken
}
func (s *ovenShelf) SweepPictures(context.Context, time.Time) error { s.tidied++; return nil }
func (s *ovenShelf) SweepWatch(context.Context, time.Time) error    { s.tidied++; return s.broken }

// logBook keeps the log in memory.
type logBook struct {
	bakes []BakeRecord
	stock *stock // nil: the kitchen keeps none
}

func (l *logBook) AddBake(
	_ context.Context, _ uuid.UUID, b BakeRecord, takeOut func(sell.Stock) sell.Stock,
) (BakeRecord, error) {
	if i := slices.IndexFunc(l.bakes, func(x BakeRecord) bool { return x.ID == b.ID }); i >= 0 {
		return l.bakes[i], nil
	}
	l.bakes = append(l.bakes, b)
	if l.stock != nil && takeOut != nil {
		l.stock.now = takeOut(l.stock.now)
	}
	return b, nil
}

func (l *logBook) OneBake(_ context.Context, _, id uuid.UUID) (BakeRecord, error) {
	if i := slices.IndexFunc(l.bakes, func(x BakeRecord) bool { return x.ID == id }); i >= 0 {
		return l.bakes[i], nil
	}
	return BakeRecord{}, ErrNotFound
}

func (l *logBook) CorrectBake(
	ctx context.Context, kitchen, id, _ uuid.UUID, now Outcome, at time.Time, _ Precondition,
) (BakeRecord, error) {
	b, err := l.OneBake(ctx, kitchen, id)
	if err != nil {
		return b, err
	}
	b.Corrections = append([]Correction{{At: at, Was: b.Outcome}}, b.Corrections...)
	b.Outcome = now
	l.bakes[slices.IndexFunc(l.bakes, func(x BakeRecord) bool { return x.ID == id })] = b
	return b, nil
}

// has says whether an error names a field.
func has(err error, pointer string) bool { return err != nil && strings.Contains(err.Error(), pointer) }

// stock is what a kitchen has in stock, with the purchases that were added to it.
type stock struct {
	now   sell.Stock
	added map[uuid.UUID]bool
}

func (p *stock) AddStock(
	_ context.Context, _, id uuid.UUID, _ []sell.Line, _ time.Time, change func(sell.Stock) (sell.Stock, error),
) (sell.Stock, error) {
	if p.added[id] {
		return p.now, nil
	}
	next, err := change(p.now)
	if err == nil {
		if p.added == nil {
			p.added = map[uuid.UUID]bool{}
		}
		p.now, p.added[id] = next, true
	}
	return p.now, err
}

func (p *stock) Stock(context.Context, uuid.UUID) (sell.Stock, error) { return p.now, nil }

func (p *stock) UpdateStock(
	_ context.Context, _ uuid.UUID, _ Precondition, change func(sell.Stock) (sell.Stock, error),
) (s sell.Stock, err error) {
	next, err := change(p.now)
	if err == nil {
		p.now = next
	}
	return p.now, err
}
