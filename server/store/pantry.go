package store

import (
	"context"
	"errors"
	"time"

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

// writePantry saves what a kitchen has in stock.
const writePantry = `insert into pantry (kitchen_id, has) values ($1, $2)
	on conflict (kitchen_id) do update set has = excluded.has`

// UpdatePantry changes what a kitchen has in stock, in one transaction that locks the kitchen.
func (s *Store) UpdatePantry(
	ctx context.Context, kitchen uuid.UUID, when app.If, change func(sell.Store) (sell.Store, error),
) (out sell.Store, err error) {
	return updateKept(ctx, s, kitchen, when, pantryOf, change, writePantry)
}

// AddStock adds a purchase to the stock, in one transaction that locks the kitchen. The same id twice is the same
// purchase and is added once; another purchase under it is an app.Conflict.
func (s *Store) AddStock(
	ctx context.Context,
	kitchen, id uuid.UUID,
	lines []sell.Line,
	at time.Time,
	change func(sell.Store) (sell.Store, error),
) (out sell.Store, err error) {
	err = s.holding(ctx, kitchen, func(tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, `insert into stock_purchase (kitchen_id, id, lines, added_at) values ($1, $2, $3, $4)
			on conflict do nothing`, kitchen, id, lines, at)
		if err != nil {
			return err
		}
		if out, err = pantryOf(ctx, tx, kitchen); err != nil {
			return err
		}
		if tag.RowsAffected() == 0 {
			before, err := oneBy(ctx, tx, pgx.RowTo[[]sell.Line],
				`select lines from stock_purchase where kitchen_id = $1 and id = $2`, kitchen, id)
			if err != nil {
				return err
			}
			return app.Same(lines, before, out)
		}
		if out, err = change(out); err != nil {
			return err
		}
		_, err = tx.Exec(ctx, writePantry, kitchen, out)
		return err
	})
	return out, err
}

// updateKept changes the one document of its kind that a kitchen has, in one transaction that locks the kitchen.
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

// holding runs do in one transaction that locks the kitchen against every other holding, and against its removal. Rows
// that refer to the kitchen can still be added meanwhile.
func (s *Store) holding(ctx context.Context, kitchen uuid.UUID, do func(pgx.Tx) error) error {
	return s.inTx(ctx, func(tx pgx.Tx) error {
		var id uuid.UUID
		err := tx.QueryRow(ctx, `select id from kitchen where id = $1 for no key update`, kitchen).Scan(&id)
		if err != nil {
			return err
		}
		return do(tx)
	})
}
