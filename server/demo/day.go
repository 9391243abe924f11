package demo

import (
	"context"
	"time"

	"mabbin/core/day"
	"mabbin/core/larder"
	"mabbin/core/sell"
	"mabbin/server/store"
)

// resources is what Oxlip Yard has for its days.
var resources = day.Resources{
	People: []day.Person{
		{ID: "Bryony", Hours: []day.Span{{From: 7 * 60, To: 15 * 60}}, Breaks: []day.Span{{From: 11*60 + 30, To: 12 * 60}}},
		{
			ID:     "Tamsin",
			Hours:  []day.Span{{From: 8*60 + 30, To: 16 * 60}},
			Breaks: []day.Span{{From: 13*60 + 30, To: 14 * 60}},
		},
	},
	Ovens: []day.OvenCapacity{
		{
			Oven: benchOven.ID.String(), WarmCPerMin: 10, CoolCPerMin: 4,
			Tiers: []day.Tier{
				{ID: "1", Shelf: "low", WidthCM: 46, DepthCM: 36}, {ID: "2", Shelf: "middle", WidthCM: 46, DepthCM: 36},
			},
		},
		{
			Oven: oldRange.ID.String(), WarmCPerMin: 7, CoolCPerMin: 2.5,
			Tiers: []day.Tier{{ID: "1", Shelf: "middle", WidthCM: 50, DepthCM: 38}},
		},
	},
	Places:  []day.Place{{ID: "rack", AreaCM2: 5000}, {ID: "fridge", AreaCM2: 6000}},
	WashMin: 10,
}

// rates are what else a dessert costs the kitchen.
var rates = sell.Rates{MinorPerKWh: 32, PackagingMinor: 8}

// stock is what Oxlip Yard has in: windfalls that will not wait, and what is always there.
func stock(now time.Time) sell.Stock {
	came, soon := now.AddDate(0, 0, -1).Format(time.DateOnly), now.AddDate(0, 0, 3).Format(time.DateOnly)
	return sell.Stock{
		Items: []sell.StockItem{
			{Key: "apple_sharp", G: 4200, Since: came, Until: soon},
			{Key: "wheat_flour", G: 2600},
			{Key: "caster_sugar", G: 900},
			{Key: "butter", G: 400},
			{Key: "double_cream", G: 300, Since: came, Until: soon},
		},
		Packs: map[string][]sell.Pack{},
		Rates: rates,
	}
}

// saturday is what is wanted on the first Saturday after the demo was loaded. One dish is wanted twice at noon.
var saturday = []struct {
	card       string
	called     string
	dishes     int
	hour, past int
	serve      day.Serve
	place      string
	weekly     bool
}{
	{"Fig and orange bars", "", 1, 15, 30, day.Cold, "Counter", true},
	{"Damson and apple crumble", "", 1, 12, 0, day.Warm, "Counter", true},
	{"Gooseberry crumble", "", 1, 12, 30, day.Hot, "Table 4", false},
	{"Apricot cobbler", "", 1, 12, 45, day.Hot, "Counter", true},
	{"Gooseberry crumble", "Gooseberry crumble 2", 1, 13, 0, day.Hot, "Table 9", false},
	{"Freezer cherry crisp", "", 1, 13, 30, day.Warm, "Counter", false},
	{"Windfall apple ramekin", "", 6, 14, 30, day.Hot, "Potting shed party", false},
	{"Plum betty", "", 1, 15, 30, day.Warm, "Counter", true},
}

// lastSaturdays are what was made and what was left on the Saturdays before, the last one first: a month of sales.
var lastSaturdays = [][]struct {
	card       string
	made, left int
}{
	{{"Damson and apple crumble", 8, 0}, {"Apricot cobbler", 9, 2}, {"Plum betty", 9, 4}, {"Fig and orange bars", 14, 1}},
	{{"Damson and apple crumble", 8, 1}, {"Apricot cobbler", 9, 3}, {"Plum betty", 9, 5}, {"Fig and orange bars", 14, 0}},
	{{"Damson and apple crumble", 8, 0}, {"Apricot cobbler", 9, 1}, {"Fig and orange bars", 14, 2}},
	{{"Damson and apple crumble", 8, 0}, {"Apricot cobbler", 9, 2}, {"Fig and orange bars", 14, 0}},
	{{"Damson and apple crumble", 8, 2}, {"Fig and orange bars", 14, 3}},
}

// prices are what a kilogram costs Oxlip Yard; what it grows behind the nursery has none.
var prices = map[larder.Kind]map[string]float64{
	"fruit": {
		"gooseberry":  5.2,
		"damson":      3.8,
		"plum":        2.9,
		"cherry_sour": 6.4,
		"apricot":     4.6,
		"fig":         7.5,
		"apple_sharp": 1.9,
	},
	"ingredient": {
		"wheat_flour":       0.95,
		"butter":            8.8,
		"caster_sugar":      1.7,
		"light_brown_sugar": 2.1,
		"demerara_sugar":    2.4,
		"rolled_oats":       1.4,
		"cornflour":         3.6,
		"hazelnuts":         12.5,
		"egg":               4.2,
		"double_cream":      5.6,
		"salt":              0.6,
		"tapioca_starch":    4.4,
		"arrowroot":         9,
		"baking_powder":     6.5,
		"bicarbonate":       4.2,
		"buttermilk":        2.2,
		"heavy_cream":       5.2,
		"soured_cream":      4.8,
		"whole_milk":        1.2,
		"cider":             3.4,
		"shortcrust_pastry": 5.1,
		"lemon_juice":       6,
	},
}

// loadDay puts the kitchen's resources and its Saturday in, unless they are there already.
func loadDay(ctx context.Context, s *store.Store, now time.Time) error {
	if h, err := s.Resources(ctx, Kitchen.ID); err != nil || len(h.People) > 0 {
		return err
	}
	if err := s.SetResources(ctx, Kitchen.ID, resources, ""); err != nil {
		return err
	}
	for of, rows := range prices {
		for key, price := range rows {
			row := larder.OwnRow{Values: map[string]float64{"price_per_kg": price}}
			if err := s.SetOwn(ctx, Kitchen.ID, of, key, row); err != nil {
				return err
			}
		}
	}
	if _, err := s.UpdateStock(ctx, Kitchen.ID, "", func(sell.Stock) (sell.Stock, error) {
		return stock(now), nil
	}); err != nil {
		return err
	}
	today := time.Date(now.Year(), now.Month(), now.Day(), 0, 0, 0, 0, time.UTC)
	next := today.AddDate(0, 0, 1)
	for next.Weekday() != time.Saturday {
		next = next.AddDate(0, 0, 1)
	}
	a := day.Orders{Orders: []day.Order{}}
	for _, o := range saturday {
		called := o.called
		if called == "" {
			called = o.card
		}
		a.Orders = append(a.Orders, day.Order{
			ID: called, Card: id(o.card).String(), Dishes: o.dishes, Due: 60*o.hour + o.past, Serve: o.serve, Place: o.place,
			Weekly: o.weekly,
		})
	}
	if _, err := s.SetDay(ctx, Kitchen.ID, next, a, ""); err != nil {
		return err
	}
	for weeks, of := range lastSaturdays {
		past := day.Orders{Orders: []day.Order{}}
		for _, x := range of {
			past.Sold = append(past.Sold, day.Sold{Card: id(x.card).String(), Made: x.made, Left: x.left})
		}
		if _, err := s.SetDay(ctx, Kitchen.ID, next.AddDate(0, 0, -7*(weeks+1)), past, ""); err != nil {
			return err
		}
	}
	return nil
}
