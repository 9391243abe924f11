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
					"is {given}, and the kitchen is {name}: give its name, as it is written, to take it away for good",
					message.Text(name),
					message.Text(there.Name),
				),
			},
		}
	}
	if err := k.Store.RemoveKitchen(ctx, kitchen); err != nil {
		return err
	}
	k.Notify(kitchen)
	return nil
}
