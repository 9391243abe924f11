package app

import (
	"context"

	"mabbin/core/fault"
	"mabbin/core/message"

	"github.com/google/uuid"
)

// KitchensStore takes kitchens away.
type KitchensStore interface {
	OneKitchen(ctx context.Context, kitchen uuid.UUID) (Kitchen, error)
	// RemoveKitchen takes a kitchen away with everything in it, or nothing of it.
	RemoveKitchen(ctx context.Context, kitchen uuid.UUID) error
}

// Kitchens is what is done with whole kitchens.
type Kitchens struct {
	Store  KitchensStore
	Notify Notify
	// Learning is stopped before its kitchen is deleted; nil: there is none.
	Learning interface{ Stop(kitchen uuid.UUID) }
}

// Remove takes a kitchen away with everything in it. Its name is asked for, so that nobody takes another one away.
func (k Kitchens) Remove(ctx context.Context, kitchen uuid.UUID, name string) error {
	there, err := k.Store.OneKitchen(ctx, kitchen)
	if err != nil {
		return err
	}
	if name != there.Name {
		return fault.Faults{
			{
				Pointer: "?name",
				Detail: message.New(
					"is {given}, but the kitchen is called {name}: enter its exact name to delete it for good",
					message.Text(name),
					message.Text(there.Name),
				),
			},
		}
	}
	if k.Learning != nil {
		k.Learning.Stop(kitchen)
	}
	if err := k.Store.RemoveKitchen(ctx, kitchen); err != nil {
		return err
	}
	k.Notify(kitchen)
	return nil
}
