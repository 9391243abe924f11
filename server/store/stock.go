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

// Stock is what a kitchen has in store; where it has reported nothing, it is empty.
func (s *Store) Stock(ctx context.Context, kitchen uuid.UUID) (sell.Stock, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return sell.Stock{}, err
	}
	return stockOf(ctx, s.pool, kitchen)
}

func stockOf(ctx context.Context, from querier, kitchen uuid.UUID) (sell.Stock, error) {
	p, err := oneBy(ctx, from, pgx.RowTo[sell.Stock], `select content from stock where kitchen_id = $1`, kitchen)
	if errors.Is(err, app.ErrNotFound) {
		return sell.Stock{Items: []sell.StockItem{}, Packs: map[string][]sell.Pack{}}, nil
	}
	return p, err
}

// writeStock saves what a kitchen has in stock.
const writeStock = `insert into stock (kitchen_id, content) values ($1, $2)
	on conflict (kitchen_id) do update set content = excluded.content`

// UpdateStock changes what a kitchen has in stock, in one transaction that locks the kitchen.
func (s *Store) UpdateStock(
	ctx context.Context, kitchen uuid.UUID, when app.Precondition, change func(sell.Stock) (sell.Stock, error),
) (out sell.Stock, err error) {
	return updateStored(ctx, s, kitchen, when, stockOf, change, writeStock)
}

// AddStock adds a purchase to the stock, in one transaction that locks the kitchen. The same id twice is the same
// purchase and is added once; another purchase under it is an app.Conflict.
func (s *Store) AddStock(
	ctx context.Context,
	kitchen, id uuid.UUID,
	lines []sell.Line,
	at time.Time,
	change func(sell.Stock) (sell.Stock, error),
) (out sell.Stock, err error) {
	err = s.holding(ctx, kitchen, func(tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, `insert into stock_purchase (kitchen_id, id, lines, added_at) values ($1, $2, $3, $4)
			on conflict do nothing`, kitchen, id, lines, at)
		if err != nil {
			return err
		}
		if out, err = stockOf(ctx, tx, kitchen); err != nil {
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
		_, err = tx.Exec(ctx, writeStock, kitchen, out)
		return err
	})
	return out, err
}

// updateStored changes the one document of its kind that a kitchen has, in one transaction that locks the kitchen.
func updateStored[T any](
	ctx context.Context, s *Store, kitchen uuid.UUID, when app.Precondition,
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
