package app

import (
	"context"

	"mabbin/core/larder"
	"mabbin/core/reader"
	"mabbin/core/recipe"
	"mabbin/core/units"

	"github.com/google/uuid"
)

// Imports reads recipes that come in, with what a kitchen knows by name and the dishes that it has.
type Imports struct{ Equipment EquipmentStore }

// Read reads a recipe for a kitchen, which may be nil: nowhere yet. Errors of the text are fault.Faults of the whole.
func (i Imports) Read(ctx context.Context, kitchen *uuid.UUID, s reader.Source) (*recipe.Document, error) {
	var own *larder.Own
	var by units.Conventions
	var shelf []recipe.Shelf
	if kitchen != nil {
		k, err := i.Equipment.OneKitchen(ctx, *kitchen)
		if err != nil {
			return nil, err
		}
		by = units.Conventions{Cup: k.Cup, Spoon: k.Spoon, Eggs: k.Eggs, Containers: k.Containers}
		if own, err = i.Equipment.Own(ctx, *kitchen); err != nil {
			return nil, err
		}
		dishes, err := i.Equipment.Dishes(ctx, *kitchen)
		if err != nil {
			return nil, err
		}
		for _, d := range dishes {
			shelf = append(shelf, recipe.Shelf{Name: d.Name, Dish: d.Dish})
		}
	}
	p := larder.Vocabulary(own)
	r, err := reader.Read(s, p, by)
	if err != nil {
		return nil, err
	}
	return recipe.NewDocument(r, p, shelf), nil
}
