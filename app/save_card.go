package app

import (
	"context"

	"mabbin/core/balance"
	"mabbin/core/fault"

	"github.com/google/uuid"
)

// Save keeps a new card with its first version, or with the same ids finds the one that is kept.
func (c Cards) Save(ctx context.Context, kitchen, card uuid.UUID, name string, v Version) (Card, error) {
	if err := checkVersion(v); err != nil {
		return Card{}, err
	}
	v.SavedAt = c.Clock()
	return c.Store.AddCard(ctx, kitchen, card, name, v, Summarise(v.Request))
}

// SaveVersion keeps a further version of a card.
func (c Cards) SaveVersion(ctx context.Context, kitchen, card uuid.UUID, v Version) (Card, error) {
	if err := checkVersion(v); err != nil {
		return Card{}, err
	}
	v.SavedAt = c.Clock()
	return c.Store.AddVersion(ctx, kitchen, card, v, Summarise(v.Request))
}

// checkVersion finds every wrong field of a version that is saved.
func checkVersion(v Version) error {
	var f fault.Faults
	if err := balance.Check(v.Request); err != nil {
		if _, notYet := fault.AsNotYet(err); notYet {
			return fault.Under("/request", err)
		}
		f.Under("/request", err)
	}
	f.Under("", CheckSetting(v.Setting))
	return f.Err()
}
