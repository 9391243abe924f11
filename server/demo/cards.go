package demo

import (
	"context"
	"fmt"
	"time"

	"mabbin/app"
	"mabbin/core/balance"
	"mabbin/core/topping"
	"mabbin/server/store"
)

// demoCard is a card with the requests of its versions, oldest first.
type demoCard struct {
	name     string
	oven     app.KitchenOven
	ovenC    float64
	minutes  float64
	notes    []string
	versions []balance.Request
}

// occasions are what the yard bakes a card for.
var occasions = map[string][]string{
	"Gooseberry crumble":             {"Sunday"},
	"Freezer cherry crisp":           {"freezer"},
	"Rhubarb and strawberry crumble": {"long table"},
	"Windfall apple ramekin":         {"school", "open garden"},
	"Pumpkin and sweetcorn cobbler":  {"staff lunch"},
	"Fig and orange bars":            {"market", "picnic"},
	"Raspberry cream bars":           {"market"},
	"Plum betty":                     {"Sunday", "freezer"},
}

func ptr[T any](v T) *T { return &v }

var cards = []demoCard{
	{
		"Gooseberry crumble",
		oldRange,
		190,
		56,
		[]string{"First try: sharp.", "A little sweeter."},
		[]balance.Request{
			{
				Dish:   dishNamed("Small stoneware"),
				Style:  "crumble",
				Fruits: []balance.FruitInput{{Key: "gooseberry", Share: 1}},
				Thickener: &balance.ThickenerInput{
					Key: "cornflour",
				},
				Topping:   balance.ToppingInput{Key: "crumble_classic"},
				Sweetness: "tart",
			},
			{
				Dish:   dishNamed("Small stoneware"),
				Style:  "crumble",
				Fruits: []balance.FruitInput{{Key: "gooseberry", Share: 1}},
				Thickener: &balance.ThickenerInput{
					Key: "cornflour",
				},
				Topping: balance.ToppingInput{Key: "crumble_classic"},
			},
		},
	},
	{
		"Damson and apple crumble",
		oldRange,
		190,
		47,
		[]string{"Stoned damsons, apple for body."},
		[]balance.Request{
			{
				Dish: dishNamed(
					"Oval glass",
				),
				Style:     "crumble",
				Sweetness: "sweet",
				Fruits: []balance.FruitInput{
					{Key: "damson", Peeled: ptr(false), Share: 0.6},
					{Key: "apple_firm", Share: 0.4, Size: "medium"},
				},
				Thickener: &balance.ThickenerInput{Key: "cornflour"},
				Topping:   balance.ToppingInput{Key: "crumble_oat"},
			},
		},
	},
	{
		"Freezer cherry crisp",
		benchOven,
		165,
		55, // as if the cherries were thawed: far too short, and the demo shows what the verdict makes of that
		[]string{"Straight from the freezer; arrowroot keeps it clear."},
		[]balance.Request{
			{
				Dish: dishNamed(
					"Square tin",
				),
				Style:     "crisp",
				Fruits:    []balance.FruitInput{{Key: "cherry_sour", Share: 1, Frozen: true}},
				Thickener: &balance.ThickenerInput{Key: "arrowroot"},
				Topping:   balance.ToppingInput{Key: "crisp_oat_nut"},
			},
		},
	},
	{
		"Rhubarb and strawberry crumble",
		oldRange,
		190,
		62,
		[]string{"For the long table, twelve at least."},
		[]balance.Request{
			{
				Dish: dishNamed(
					"Long gratin",
				),
				Style: "crumble",
				Fruits: []balance.FruitInput{
					{Key: "rhubarb", Peeled: ptr(false), Share: 0.55, CutMM: 25},
					{Key: "strawberry", Share: 0.45},
				},
				Thickener: &balance.ThickenerInput{
					Key: "cornflour",
				},
				Extras:  []balance.Quantity{{Key: "crystallised_ginger", G: 25}},
				Topping: balance.ToppingInput{Key: "crumble_equal"},
			},
		},
	},
	{
		"Pear and blackberry streusel",
		benchOven,
		165,
		35,
		[]string{"Lemon as the pears are cut."},
		[]balance.Request{
			{
				Dish: dishNamed(
					"Iron skillet",
				),
				Style:  "crumble",
				Washed: true,
				Fruits: []balance.FruitInput{{Key: "pear_firm", Share: 0.7, Size: "medium"}, {Key: "blackberry", Share: 0.3}},
				Liquids: []balance.Quantity{
					{Key: "lemon_juice", G: 25},
				},
				Thickener: &balance.ThickenerInput{Key: "tapioca_starch"},
				Topping:   balance.ToppingInput{Key: "streusel_coarse"},
			},
		},
	},
	{
		"Windfall apple ramekin",
		benchOven,
		165,
		24, // a minute or two short
		[]string{"One each; good for finding out what the crate is like."},
		[]balance.Request{
			{
				Dish: dishNamed(
					"Ramekin",
				),
				Style:   "crisp",
				Portion: "tasting",
				Fruits:  []balance.FruitInput{{Key: "apple_sharp", Share: 1, Size: "small", LossPct: 20}},
				Liquids: []balance.Quantity{
					{Key: "lemon_juice", G: 4},
				},
				Thickener: &balance.ThickenerInput{Key: "cornflour"},
				Topping:   balance.ToppingInput{Key: "crisp_oat_nut", Amount: topping.Light},
			},
		},
	},
	{
		"Apricot cobbler",
		oldRange,
		205,
		34,
		[]string{"Drop biscuit with soured cream. Juice enough to spoon over."},
		[]balance.Request{
			{
				Dish:      dishNamed("Rolled-rim pie dish"),
				Style:     "cobbler",
				Fruits:    []balance.FruitInput{{Key: "apricot", Peeled: ptr(false), Share: 1}},
				Thickener: &balance.ThickenerInput{Key: "tapioca_starch"},
				Finishes:  []string{"milk_wash"},
				Topping: balance.ToppingInput{
					Key:     "biscuit_drop",
					Liquids: []balance.LiquidInput{{Key: "soured_cream", Share: 0.4}, {Key: "whole_milk", Share: 0.6}},
				},
			},
		},
	},
	{
		"Pumpkin and sweetcorn cobbler",
		benchOven,
		185,
		24,
		[]string{"Staff lunch in autumn. Seeds from the potting shed's own pumpkins go in the dough."},
		[]balance.Request{
			{
				Dish:      dishNamed("Oval glass"),
				Style:     "cobbler",
				Sweetness: "savoury",
				Fruits:    []balance.FruitInput{{Key: "pumpkin", Share: 0.72, CutMM: 15}, {Key: "sweetcorn", Share: 0.28}},
				Precook:   &balance.PrecookInput{Minutes: 9, Where: "oven"},
				Liquids:   []balance.Quantity{{Key: "double_cream", G: 120}},
				Extras:    []balance.Quantity{{Key: "fresh_herbs", G: 7}, {Key: "nutmeg", G: 1}},
				Thickener: &balance.ThickenerInput{Key: "potato_starch"},
				Greasing:  "butter",
				Topping: balance.ToppingInput{
					Key:       "biscuit_rolled",
					BakersPct: map[string]float64{"caster_sugar": 3, "pumpkin_seeds": 18},
					Liquids:   []balance.LiquidInput{{Key: "soured_cream", Share: 0.4}, {Key: "whole_milk", Share: 0.6}},
				},
			},
		},
	},
	{
		"Pear pandowdy",
		oldRange,
		200,
		48,
		[]string{"Dry cider instead of syrup. Push the crust into it when it calls."},
		[]balance.Request{
			{
				Dish:   dishNamed("Iron skillet"),
				Style:  "pandowdy",
				Fruits: []balance.FruitInput{{Key: "pear_firm", Share: 1}},
				Liquids: []balance.Quantity{
					{Key: "cider", G: 90},
					{Key: "lemon_juice", G: 20},
				},
				Extras: []balance.Quantity{{Key: "cardamom", G: 1}, {Key: "butter", G: 20}},
				Thickener: &balance.ThickenerInput{
					Key: "wheat_flour",
				},
				Topping:  balance.ToppingInput{Key: "bought_lid"},
				Finishes: []string{"egg_wash"},
			},
		},
	},
	{
		"Plum betty",
		oldRange,
		190,
		50,
		[]string{"Yesterday's bread; covered for the first half."},
		[]balance.Request{
			{
				Dish: dishNamed(
					"Square tin",
				),
				Style:   "betty",
				Fruits:  []balance.FruitInput{{Key: "plum", Peeled: ptr(false), Share: 1}},
				Liquids: []balance.Quantity{{Key: "orange_juice", G: 80}},
				Extras: []balance.Quantity{
					{Key: "orange_zest", G: 6},
				},
				Thickener: &balance.ThickenerInput{Key: "cornflour"},
				Topping:   balance.ToppingInput{Key: "betty_bread"},
			},
		},
	},
	{
		"Fig and orange bars",
		benchOven,
		160,
		39,
		[]string{"Half the dough below, half on top. Cold in the pan before the knife."},
		[]balance.Request{
			{
				Dish: dishNamed(
					"Square tin",
				),
				Style:  "bar",
				Fruits: []balance.FruitInput{{Key: "fig", Share: 1}},
				Extras: []balance.Quantity{{Key: "orange_zest", G: 4}},
				Thickener: &balance.ThickenerInput{
					Key: "cornflour",
				},
				Topping: balance.ToppingInput{Key: "bar_dough", ThicknessMM: 6},
				Base:    &balance.BaseInput{Key: "bar_dough", ThicknessMM: 6},
			},
		},
	},
	{
		"Raspberry cream bars",
		benchOven,
		150,
		42,
		[]string{"Market Saturdays. Out when the middle trembles; fridge within two hours."},
		[]balance.Request{
			{
				Dish:    dishNamed("Square tin"),
				Style:   "bar",
				Fruits:  []balance.FruitInput{{Key: "raspberry", Share: 1}},
				Custard: &balance.CustardInput{Egg: 100, Sugar: 130, Flour: 14, Salt: 1, Starch: "cornflour"},
				Topping: balance.ToppingInput{
					Key:    "crumble_oat",
					Amount: topping.Light,
				},
				Base:     &balance.BaseInput{Key: "shortbread"},
				Finishes: []string{"icing_sugar"},
			},
		},
	},
	{
		"Pear and redcurrant seed pie",
		oldRange,
		190,
		54,
		[]string{"For guests who eat no nuts: seeds in the toffee, oats under the pears to drink the juice."},
		[]balance.Request{
			{
				Dish:  dishNamed("Rolled-rim pie dish"),
				Style: "pie",
				Fruits: []balance.FruitInput{
					{Key: "pear_firm", Share: 0.75, Size: "large"},
					{Key: "redcurrant", Share: 0.25},
				},
				Extras:      []balance.Quantity{{Key: "cardamom", G: 1.5}},
				CrumbLayerG: 18,
				Thickener:   &balance.ThickenerInput{Key: "arrowroot"},
				Topping: balance.ToppingInput{
					Key:    "crumble_oat",
					Amount: topping.Light,
				},
				Late: []balance.ToppingInput{{
					Key:       "praline_nut",
					Amount:    topping.Light,
					BakersPct: map[string]float64{"walnuts": 0, "pumpkin_seeds": 80},
				}},
				Base: &balance.BaseInput{Key: "shortcrust"},
			},
		},
	},
}

func (c demoCard) load(ctx context.Context, s *store.Store, now time.Time) error {
	for i := range c.versions {
		r := c.version(i + 1)
		if err := balance.Check(r); err != nil {
			return err
		}
		v := app.Version{
			ID: id(fmt.Sprint(c.name, i)), SavedAt: now.AddDate(0, 0, -30+9*i), Request: r, Note: c.notes[i],
			Setting: app.Setting{OvenID: &c.oven.ID, OvenC: &c.ovenC, Minutes: &c.minutes},
		}
		if i == 0 {
			if _, err := s.AddCard(ctx, Kitchen.ID, id(c.name), c.name, v, app.Summarise(r)); err != nil {
				return err
			}
			if tags := occasions[c.name]; len(tags) > 0 {
				if _, err := s.ChangeCard(ctx, Kitchen.ID, id(c.name), app.CardChange{Tags: &tags}, ""); err != nil {
					return err
				}
			}
			continue
		}
		if _, err := s.AddVersion(ctx, Kitchen.ID, id(c.name), v, app.Summarise(r)); err != nil {
			return err
		}
	}
	return nil
}

// version is the request of one of a card's versions.
func (c demoCard) version(n int) balance.Request {
	r := c.versions[n-1]
	r.Cup, r.Spoon = "metric", "metric"
	return r
}

func cardNamed(name string) (demoCard, error) {
	for _, c := range cards {
		if c.name == name {
			return c, nil
		}
	}
	return demoCard{}, fmt.Errorf("demo: no card %s", name)
}
