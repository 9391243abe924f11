package store

import (
	"context"
	"errors"

	"mabbin/app"
	"mabbin/core/sell"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// Pantry is what a kitchen has in store; where it has told nothing, it is empty.
func (s *Store) Pantry(ctx context.Context, kitchen uuid.UUID) (sell.Store, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return sell.Store{}, err
	}
	return pantryOf(ctx, s.pool, kitchen)
}

func pantryOf(ctx context.Context, from querier, kitchen uuid.UUID) (sell.Store, error) {
	p, err := oneBy(ctx, from, pgx.RowTo[sell.Store], `select has from pantry where kitchen_id = $1`, kitchen)
	if errors.Is(err, app.ErrNotFound) {
		return sell.Store{Stock: []sell.InStore{}, Packs: map[string][]sell.Pack{}}, nil
	}
	return p, err
}

// UpdatePantry changes what a kitchen has in store, in one transaction that holds the kitchen.
func (s *Store) UpdatePantry(
	ctx context.Context, kitchen uuid.UUID, when app.If, change func(sell.Store) (sell.Store, error),
) (out sell.Store, err error) {
	return updateKept(ctx, s, kitchen, when, pantryOf, change, `insert into pantry (kitchen_id, has) values ($1, $2)
		on conflict (kitchen_id) do update set has = excluded.has`)
}

// updateKept changes the one thing of its kind that is kept of a kitchen, in one transaction that holds the kitchen.
func updateKept[T any](
	ctx context.Context, s *Store, kitchen uuid.UUID, when app.If,
	read func(context.Context, querier, uuid.UUID) (T, error), change func(T) (T, error), write string,
) (out T, err error) {
	err = s.holding(ctx, kitchen, func(tx pgx.Tx) error {
		now, err := read(ctx, tx, kitchen)
		if err == nil {
			err = when.Holds(now)
		}
		if err == nil {
			out, err = change(now)
		}
		if err != nil {
			return err
		}
		_, err = tx.Exec(ctx, write, kitchen, out)
		return err
	})
	return out, err
}

// holding does something in one transaction that holds the kitchen.
func (s *Store) holding(ctx context.Context, kitchen uuid.UUID, what func(pgx.Tx) error) error {
	return s.inTx(ctx, func(tx pgx.Tx) error {
		var id uuid.UUID
		if err := tx.QueryRow(ctx, `select id from kitchen where id = $1 for update`, kitchen).Scan(&id); err != nil {
			return err
		}
		return what(tx)
	})
}
