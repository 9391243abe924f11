// Package demo is the demo kitchen: Oxlip Yard, a café behind a plant nursery. All of it is made up.
package demo

import (
	"context"
	"errors"
	"fmt"
	"time"

	"mabbin/app"
	"mabbin/core/dish"
	"mabbin/core/oven"
	"mabbin/core/units"
	"mabbin/server/store"

	"github.com/google/uuid"
)

// id is the same for the same name each time, so that loading twice is loading once.
func id(name string) uuid.UUID {
	return uuid.NewSHA1(uuid.MustParse("6f1d0c1e-52a4-4d0b-9b1e-0a11b0a75a2d"), []byte(name))
}

// Kitchen is the demo kitchen.
var Kitchen = app.Kitchen{ID: id("Oxlip Yard"), Name: "Oxlip Yard", Settings: units.Metric}

// Load fills the demo kitchen, unless it is there already, and reports whether it did. Bakes are dated back from now.
func Load(ctx context.Context, s *store.Store, now time.Time) (bool, error) {
	added, err := s.AddKitchen(ctx, Kitchen)
	if err != nil {
		return false, fmt.Errorf("demo kitchen: %w", err)
	}
	// What is there already is left as it is; a load that was broken off is finished.
	for _, d := range shelf {
		if err := s.AddDish(
			ctx,
			Kitchen.ID,
			app.KitchenDish{ID: id(d.name), Name: d.name, Dish: d.dish, Count: max(1, d.count)},
		); ofItsOwn(err) != nil {
			return added, fmt.Errorf("dish %s: %w", d.name, err)
		}
	}
	for _, o := range ovens {
		if _, err := s.OneOven(ctx, Kitchen.ID, o.ID); err == nil {
			continue
		}
		if err := s.SetOven(ctx, Kitchen.ID, o, ""); err != nil {
			return added, fmt.Errorf("oven %s: %w", o.Name, err)
		}
	}
	for _, c := range cards {
		if err := c.load(ctx, s, now); ofItsOwn(err) != nil {
			return added, fmt.Errorf("card %s: %w", c.name, err)
		}
	}
	if err := loadDay(ctx, s, now); err != nil {
		return added, fmt.Errorf("day: %w", err)
	}
	return added, loadMonth(ctx, s, now)
}

// ofItsOwn is an error, but for a thing that is there already and was changed since, or was loaded at another time.
func ofItsOwn(err error) error {
	var conflict *app.Conflict
	if errors.As(err, &conflict) {
		return nil
	}
	return err
}

// Reset takes the demo kitchen away and loads it afresh.
func Reset(ctx context.Context, s *store.Store, now time.Time) error {
	if err := s.RemoveKitchen(ctx, Kitchen.ID); err != nil {
		return err
	}
	_, err := Load(ctx, s, now)
	return err
}

type shelfDish struct {
	name  string
	dish  dish.Dish
	count int
}

var shelf = []shelfDish{
	{"Small stoneware", dish.Dish{Shape: dish.Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5, Material: "stoneware"}, 1},
	{
		"Long gratin",
		dish.Dish{
			Shape:         dish.Rectangle,
			LengthCM:      32,
			WidthCM:       22,
			DepthCM:       6,
			FloorLengthCM: 30,
			FloorWidthCM:  20,
			MeasuredML:    3750,
			Material:      "stoneware",
		},
		1,
	},
	{
		"Oval glass",
		dish.Dish{
			Shape:         dish.Oval,
			LengthCM:      30,
			WidthCM:       21,
			DepthCM:       5.5,
			FloorLengthCM: 26,
			FloorWidthCM:  17,
			MeasuredML:    2150,
			Material:      "glass",
		},
		1,
	},
	{"Square tin", dish.Dish{Shape: dish.Square, LengthCM: 23, DepthCM: 5, Material: "heavy_metal"}, 2},
	{"Iron skillet", dish.Dish{Shape: dish.Round, LengthCM: 26, DepthCM: 5, FloorLengthCM: 22, Material: "cast_iron"}, 1},
	{
		"Rolled-rim pie dish",
		dish.Dish{Shape: dish.Round, LengthCM: 24, DepthCM: 4.5, FloorLengthCM: 19, Material: "enamel"},
		1,
	},
	{"Ramekin", dish.Dish{Shape: dish.Round, LengthCM: 9, DepthCM: 4.5, FloorLengthCM: 8, Material: "stoneware"}, 12},
}

func dishNamed(name string) dish.Dish {
	for _, d := range shelf {
		if d.name == name {
			return d.dish
		}
	}
	panic("demo: no dish " + name)
}

var (
	benchOven = app.KitchenOven{
		ID:   id("Bench oven"),
		Name: "Bench oven",
		Oven: oven.Oven{Kind: oven.Indoor, Heating: "fan", GiveOrTakeC: 4, Runners: 5},
	}
	oldRange = app.KitchenOven{
		ID:   id("Old range"),
		Name: "Old range",
		Oven: oven.Oven{
			Kind:        oven.Indoor,
			Heating:     "conventional",
			OffsetC:     -8,
			GiveOrTakeC: 6,
			Dial:        "gas",
			Runners:     3,
			BottomHeat:  true,
		},
	}
	campOven = app.KitchenOven{
		ID:   id("Yard camp oven"),
		Name: "Yard camp oven",
		Oven: oven.Oven{Kind: oven.Camp, Heating: "conventional", DiameterCM: 30},
	}
	ovens = []app.KitchenOven{benchOven, oldRange, campOven}
)
