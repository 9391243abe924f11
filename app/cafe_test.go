package app

import (
	"context"
	"reflect"
	"slices"
	"testing"
	"time"

	"mabbin/core/day"
	"mabbin/core/dish"
	"mabbin/core/larder"
	"mabbin/core/oven"
	"mabbin/core/sell"

	"github.com/google/uuid"
)

// pricedShelf is a kitchen with dishes and prices.
type pricedShelf struct {
	kitchens
	dishes []KitchenDish
	own    *larder.Own
}

func (s pricedShelf) Dishes(context.Context, uuid.UUID) ([]KitchenDish, error) { return s.dishes, nil }

func (s pricedShelf) Ovens(context.Context, uuid.UUID) ([]KitchenOven, error) { return s.ovens, nil }
func (s pricedShelf) Own(context.Context, uuid.UUID) (*larder.Own, error)     { return s.own, nil }

// calendar keeps days in memory.
type calendar struct {
	house day.Resources
	days  []Day
}

func (c *calendar) at(date time.Time) int {
	return slices.IndexFunc(c.days, func(d Day) bool { return d.Date.Equal(date) })
}

func (c *calendar) Resources(context.Context, uuid.UUID) (day.Resources, error) { return c.house, nil }

func (c *calendar) SetResources(_ context.Context, _ uuid.UUID, h day.Resources, _ Precondition) error {
	c.house = h
	return nil
}

func (c *calendar) Day(_ context.Context, _ uuid.UUID, date time.Time) (Day, error) {
	if i := c.at(date); i >= 0 {
		return c.days[i], nil
	}
	return Day{Date: date}, nil
}

func (c *calendar) Days(_ context.Context, _ uuid.UUID, from, to time.Time) (out []Day, err error) {
	for _, d := range c.days {
		if !d.Date.Before(from) && !d.Date.After(to) {
			out = append(out, d)
		}
	}
	slices.SortFunc(out, func(a, b Day) int { return a.Date.Compare(b.Date) })
	return out, nil
}

func (c *calendar) SetDay(
	_ context.Context,
	_ uuid.UUID,
	date time.Time,
	a day.Orders,
	_ Precondition,
) (Day, error) {
	d := Day{Date: date, Stored: true, Orders: a}
	if i := c.at(date); i >= 0 {
		d.Schedule, d.ScheduleOf = c.days[i].Schedule, c.days[i].ScheduleOf
		c.days[i] = d
		return d, nil
	}
	c.days = append(c.days, d)
	return d, nil
}

func (c *calendar) SetPlan(_ context.Context, _ uuid.UUID, planned Day) (Day, error) {
	planned.Stored = true
	if i := c.at(planned.Date); i >= 0 {
		c.days[i].Schedule, c.days[i].ScheduleOf = planned.Schedule, planned.ScheduleOf
		return c.days[i], nil
	}
	c.days = append(c.days, planned)
	return planned, nil
}

// batches are the numbers of a day.
type batches []Batch

func (b batches) BatchesOn(context.Context, uuid.UUID, time.Time) ([]Batch, error) { return b, nil }

// cafe is a kitchen with a card, dishes, an oven, prices, days and what is in store.
type cafe struct {
	Buying
	desk    Bench
	kitchen uuid.UUID
	card    uuid.UUID
	shelf   pricedShelf
	days    *calendar
	stock   *stock
	told    int
}

var saturday = time.Date(2026, 10, 17, 0, 0, 0, 0, time.UTC)

func newCafe(t *testing.T) *cafe {
	t.Helper()
	price := func(x float64) larder.OwnRow { return larder.OwnRow{Values: map[string]float64{"price_per_kg": x}} }
	small := crumble().Dish
	c := &cafe{kitchen: uuid.New(), card: uuid.New(), days: &calendar{}}
	c.shelf = pricedShelf{
		kitchens: kitchens{id: c.kitchen, ovens: []KitchenOven{
			{ID: uuid.New(), Name: "Deck", Oven: oven.Oven{Kind: oven.Indoor, Heating: "conventional"}},
		}},
		dishes: []KitchenDish{
			{ID: uuid.New(), Name: "Small stoneware", Count: 3, Dish: small},
			{ID: uuid.New(), Name: "Ramekin", Count: 6, Dish: dish.Dish{
				Shape: dish.Round, LengthCM: 9, DepthCM: 4.5, Material: "stoneware",
			}},
		},
		own: &larder.Own{
			Fruits: map[string]larder.OwnRow{"gooseberry": price(5)},
			Ingredients: map[string]larder.OwnRow{
				"butter": price(9), "wheat_flour": price(1), "caster_sugar": price(1.5), "cornflour": price(4), "salt": price(1),
			},
		},
	}
	box := newCardBox()
	r := crumble()
	r.Own = c.shelf.own
	if _, err := box.AddCard(
		t.Context(),
		c.kitchen,
		c.card,
		"Gooseberry crumble",
		Version{ID: uuid.New(), Request: r},
		CardSummary{},
	); err != nil {
		t.Fatal(err)
	}
	c.stock = &stock{now: sell.Stock{Items: []sell.StockItem{
		{Key: "gooseberry", G: 2600, Until: "2026-10-18"}, {Key: "butter", G: 250},
	}}}
	clock := &clock{at: saturday.Add(8 * time.Hour)}
	notify := func(uuid.UUID) { c.told++ }
	c.Buying = Buying{
		Store: c.stock, Kitchens: c.shelf, Cards: box, Log: batches{}, Clock: clock.now, Notify: notify,
		Days: Days{
			Store: c.days, Equipment: c.shelf, Cards: box, Ovens: &ovenShelf{}, Learning: untaught{}, Clock: clock.now,
			Baked: NewBakedCards(), Notify: notify,
		},
	}
	c.desk = Bench{Kitchens: c.shelf, Stock: c.stock, Shelf: c.shelf}
	return c
}

// What is bought for a day comes into the store on its day, and goes out with what is baked; a bad line keeps nothing.
func TestBuyingForADay(t *testing.T) {
	c := newCafe(t)
	asked := day.Orders{
		Orders: []day.Order{{ID: "Noon", Card: c.card.String(), Dishes: 2, Due: 12 * 60, Serve: day.Warm}},
	}
	if _, err := c.Days.SetOrders(t.Context(), c.kitchen, saturday, asked, ""); err != nil {
		t.Fatal(err)
	}
	of, err := c.OfDay(t.Context(), c.kitchen, saturday)
	if err != nil || len(of) != 1 || of[0] != (CardCount{c.card, 2}) {
		t.Fatalf("%+v, %v", of, err)
	}
	list, err := c.List(t.Context(), c.kitchen, of)
	if err != nil || len(list.Sections) == 0 || list.Minor <= 0 || list.Unpriced != 0 {
		t.Fatalf("%+v, %v", list, err)
	}
	var bought []sell.Line
	for _, s := range list.Sections {
		for _, l := range s.Lines {
			if l.BoughtG > 0 {
				bought = append(bought, sell.Line{Key: l.Key, G: l.BoughtG})
			}
		}
	}
	s, err := c.TakeIn(t.Context(), c.kitchen, uuid.New(), bought)
	i := slices.IndexFunc(s.Items, func(x sell.StockItem) bool { return x.Key == "wheat_flour" })
	if err != nil || i < 0 || s.Items[i].Since != "2026-10-17" || c.told == 0 {
		t.Fatalf("%+v, %v", s, err)
	}
	if again, err := c.List(t.Context(), c.kitchen, of); err != nil || again.Minor != 0 {
		t.Errorf("all is there, and %d are to be paid; %v", again.Minor, err)
	}
	before := c.stock.now
	if _, err := c.TakeIn(
		t.Context(),
		c.kitchen,
		uuid.New(),
		[]sell.Line{{Key: "moonshine", G: 5}},
	); !has(
		err,
		"/lines/0/key",
	) {
		t.Errorf("moonshine: %v", err)
	}
	if _, err := c.Set(
		t.Context(),
		c.kitchen,
		sell.Stock{Rates: sell.Rates{TaxPct: 300}},
		"",
	); !has(
		err,
		"/rates/tax_pct",
	) {
		t.Errorf("three times the price for tax: %v", err)
	}
	if len(c.stock.now.Items) != len(before.Items) {
		t.Error("a bad line was kept")
	}
	if _, err := c.List(t.Context(), c.kitchen, []CardCount{{uuid.New(), 1}}); !has(err, "/cards/0/card") {
		t.Errorf("a card that is gone: %v", err)
	}
}

// Labels have numbers of their day, nutrients where the kitchen prints them, and a reason where there is none.
func TestLabelsOfCards(t *testing.T) {
	c := newCafe(t)
	gone := uuid.New()
	c.Log = batches{{Number: "171026-A", Card: &c.card}}
	of := []CardCount{{c.card, 1}, {gone, 1}}
	all, err := c.Labels(t.Context(), c.kitchen, saturday, of)
	if err != nil || len(all) != 2 || all[0].Label == nil || all[0].Batch != "171026-A" || all[1].Reason == nil ||
		all[1].Label != nil {
		t.Fatalf("%+v, %v", all, err)
	}
	if all[0].Label.Nutrition != nil || all[0].Label.Freeze.IsZero() || all[0].Label.Rewarm.IsZero() {
		t.Errorf("%+v", all[0].Label)
	}
	c.stock.now.Labels.Nutrition = true
	all, err = c.Labels(t.Context(), c.kitchen, saturday, of[:1])
	if err != nil || len(all[0].Label.Nutrition) != 9 {
		t.Errorf("%+v, %v", all[0].Label.Nutrition, err)
	}
}

// What is in store is used up in dishes of the shelf; without any, in the card's own.
func TestACardUsesUpWhatIsThere(t *testing.T) {
	c := newCafe(t)
	uses, err := c.UseUp(t.Context(), c.kitchen, "gooseberry")
	if err != nil || len(uses) != 1 || uses[0].Card != c.card || uses[0].UsesG < 2000 {
		t.Fatalf("%+v, %v", uses, err)
	}
	c.shelf.dishes = nil
	c.Days.Equipment = c.shelf
	if alone, err := c.UseUp(
		t.Context(),
		c.kitchen,
		"gooseberry",
	); err != nil || len(alone) != 1 ||
		alone[0].Dishes[0].Count != 1 {
		t.Errorf("in the card's own dish: %+v, %v", alone, err)
	}
	if _, err := c.UseUp(t.Context(), c.kitchen, "salt"); err == nil {
		t.Error("what is not in store is used up")
	}
}

// What is on the Bench is priced by the kitchen's rates, in other dishes too, and tells how it keeps; a logged bake
// keeps what it cost on its day.
func TestTheBenchKnowsWhatItCosts(t *testing.T) {
	c := newCafe(t)
	r := crumble()
	r.Own = c.shelf.own
	q := BenchQuestion{Kitchen: &c.kitchen, Request: r}
	plain, err := c.desk.Cost(t.Context(), q)
	if err != nil || plain.Total == nil || plain.Oven != 0 {
		t.Fatalf("%+v, %v", plain, err)
	}
	c.stock.now.Rates = sell.Rates{MinorPerKWh: 30, MinorPerHour: 1500}
	all, err := c.desk.Cost(t.Context(), q)
	if err != nil || all.Oven <= 0 || all.Hands <= 0 || *all.Total <= *plain.Total {
		t.Errorf("with oven and hands: %+v, %v", all, err)
	}
	others, err := c.desk.OtherCosts(t.Context(), q)
	if err != nil ||
		!slices.ContainsFunc(others, func(o sell.OtherCost) bool { return o.Text.String() == "in Ramekin" }) ||
		slices.ContainsFunc(others, func(o sell.OtherCost) bool { return o.Text.String() == "in Small stoneware" }) {
		t.Errorf("%+v, %v", others, err)
	}
	if k, err := c.desk.Keeping(t.Context(), q); err != nil || k.KeepDays < 1 || k.Serve.IsZero() {
		t.Errorf("%+v, %v", k, err)
	}
	if n, err := c.desk.Nutrition(t.Context(), q); err != nil || len(n.Rows) != 9 {
		t.Errorf("%+v, %v", n, err)
	}
	heat, minutes := 190.0, 50.0
	log := Log{Store: &logBook{stock: c.stock}, Stock: c.stock, Kitchens: c.shelf, Clock: c.Clock}
	b, err := log.Add(t.Context(), c.kitchen, BakeRecord{
		ID: uuid.New(), BakedAt: saturday, Request: r, Setting: Setting{OvenC: &heat, Minutes: &minutes},
	}, nil)
	if err != nil || b.Cost == nil || b.Cost.Ingredients != plain.Ingredients || b.Cost.Oven <= 0 {
		t.Errorf("%+v, %v", b.Cost, err)
	}
	c.shelf.own = nil
	log.Kitchens = c.shelf
	free, err := log.Add(t.Context(), c.kitchen, BakeRecord{ID: uuid.New(), BakedAt: saturday, Request: crumble()}, nil)
	if err != nil || free.Cost != nil {
		t.Errorf("without a price: %+v, %v", free.Cost, err)
	}
}

// A day of which nothing is kept has last week's standing orders; what is wanted has to be there; it is planned, and
// what was sold proposes how much to make.
func TestADayAtTheCafe(t *testing.T) {
	c := newCafe(t)
	d := c.Days
	orders := []day.Order{
		{ID: "Noon", Card: c.card.String(), Dishes: 1, Due: 12 * 60, Serve: day.Warm, Weekly: true},
		{ID: "Party", Card: c.card.String(), Dishes: 1, Due: 15 * 60, Serve: day.Warm},
	}
	if _, err := d.SetOrders(t.Context(), c.kitchen, saturday, day.Orders{Orders: orders}, ""); err != nil {
		t.Fatal(err)
	}
	next, err := d.Open(t.Context(), c.kitchen, saturday.AddDate(0, 0, 7))
	if err != nil || next.Stored || len(next.Orders.Orders) != 1 || next.Orders.Orders[0].ID != "Noon" {
		t.Errorf("a week later: %+v, %v", next.Orders, err)
	}
	nobody := day.Orders{
		Orders: []day.Order{{ID: "Noon", Card: uuid.NewString(), Dishes: 1, Due: 720, Serve: day.Warm}},
	}
	if _, err := d.SetOrders(t.Context(), c.kitchen, saturday, nobody, ""); !has(err, "/orders/0/card") {
		t.Errorf("nobody's card: %v", err)
	}
	planned, err := d.Schedule(t.Context(), c.kitchen, saturday, SchedulingJob{Iterations: 20})
	if err != nil || planned.Schedule == nil || len(planned.Schedule.Orders) != 2 || !planned.Schedule.Orders[0].InTime ||
		planned.Outdated() {
		t.Fatalf("%+v, %v", planned.Schedule, err)
	}
	again, err := d.Schedule(t.Context(), c.kitchen, saturday, SchedulingJob{
		Progress: func(float64, day.Objective) { t.Error("nothing has changed, and the day is searched again") },
	})
	if err != nil || !reflect.DeepEqual(again.Schedule.Plan.Schedule, planned.Schedule.Plan.Schedule) {
		t.Errorf("planned again with nothing changed, it is another plan: %v", err)
	}
	kept, err := d.Open(t.Context(), c.kitchen, saturday)
	if err != nil || kept.Schedule == nil || kept.Outdated() {
		t.Errorf("%+v, %v", kept.Schedule, err)
	}
	read, unread, err := d.ReadLines(
		t.Context(),
		c.kitchen,
		saturday,
		"2 gooseberry crumble 13:30\nsomething else",
		day.Orders{},
	)
	if err != nil || len(read) != 1 || read[0].Dishes != 2 || read[0].Due != 13*60+30 || len(unread) != 1 {
		t.Errorf("%+v, %+v, %v", read, unread, err)
	}
	for week := range 6 {
		sold := day.Orders{Sold: []day.Sold{{Card: c.card.String(), Made: 16, Left: 2 + week%2}}}
		if _, err := d.SetOrders(t.Context(), c.kitchen, saturday.AddDate(0, 0, -7*(week+1)), sold, ""); err != nil {
			t.Fatal(err)
		}
	}
	many, err := d.HowMany(t.Context(), c.kitchen, saturday)
	if err != nil || len(many) != 1 || many[0].Name != "Gooseberry crumble" {
		t.Errorf("%+v, %v", many, err)
	}
	resources, err := d.Resources(t.Context(), c.kitchen)
	if err != nil || len(resources.Ovens) != 1 || len(resources.Outside) != 2 || len(resources.People) == 0 {
		t.Errorf("what is usual: %+v, %v", resources, err)
	}
	bad := resources.Resources
	bad.BowlML = 3
	if err := d.SetResources(t.Context(), c.kitchen, bad, ""); !has(err, "/bowl_ml") {
		t.Errorf("a bowl of 3 ml: %v", err)
	}
}
