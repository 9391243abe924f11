package app

import (
	"context"

	"mabbin/core/bake"
	"mabbin/core/dish"
	"mabbin/core/larder"
	"mabbin/core/learn"
	"mabbin/core/oven"
	"mabbin/core/units"

	"github.com/google/uuid"
)

// Kitchen is one kitchen and how it measures.
type Kitchen struct {
	ID   uuid.UUID
	Name string
	units.Settings
}

// KitchenDish is a dish on a kitchen's shelf.
type KitchenDish struct {
	ID    uuid.UUID
	Name  string
	Dish  dish.Dish
	Count int // of it
}

// KitchenOven is one of a kitchen's ovens.
type KitchenOven struct {
	ID   uuid.UUID
	Name string
	oven.Oven
}

// Setting is where and how long a dessert bakes, as it is kept with a card or a bake; each part may be open.
type Setting struct {
	OvenID  *uuid.UUID
	OvenC   *float64
	Minutes *float64
	Shelf   string       // low, middle or high; empty: the middle
	Stages  []bake.Stage // none: one stage, by the two above
	// FillingC and DishC are how hot they go in; nil: by what was done to the fruit.
	FillingC *float64
	DishC    *float64
}

// Weather is what there is round a camp oven, today.
type Weather struct {
	Wind string // calm, breeze or windy
	Cold bool
	Wet  bool
	Fuel string // briquettes or lumps
	// Stacked says that two pots stand one on the other.
	Stacked bool
}

// KitchenStore reads what a kitchen is.
type KitchenStore interface {
	OneKitchen(ctx context.Context, kitchen uuid.UUID) (Kitchen, error)
	// OneOven finds an oven, also one that was taken away.
	OneOven(ctx context.Context, kitchen, oven uuid.UUID) (KitchenOven, error)
	Own(ctx context.Context, kitchen uuid.UUID) (*larder.Own, error)
	// Learnt are the corrections that its log has taught.
	Learnt(ctx context.Context, kitchen uuid.UUID) (learn.Used, error)
}
