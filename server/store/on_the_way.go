package store

import (
	"context"

	"mabbin/app"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

const wayRead = `select id, title, ready_at, steps from on_the_way where kitchen_id = $1`

func scanWay(row pgx.CollectableRow) (w app.OnTheWay, err error) {
	var steps []byte
	if err = row.Scan(&w.ID, &w.Title, &w.ReadyAt, &steps); err == nil {
		err = decoded(map[string]kept{"steps": {steps, &w.Steps}})
	}
	return w, err
}

// OnTheWay lists what is on its way into a kitchen's ovens, what is wanted first at first.
func (s *Store) OnTheWay(ctx context.Context, kitchen uuid.UUID) ([]app.OnTheWay, error) {
	rows, err := s.pool.Query(ctx, wayRead+` order by ready_at, id`, kitchen)
	if err != nil {
		return nil, kind(err)
	}
	out, err := pgx.CollectRows(rows, scanWay)
	return out, kind(err)
}

// SetOnTheWay keeps a dessert on its way. The same id twice is the same dessert: what was kept first stays.
func (s *Store) SetOnTheWay(ctx context.Context, kitchen uuid.UUID, w app.OnTheWay) error {
	if err := s.known(ctx, kitchen); err != nil {
		return err
	}
	_, err := s.pool.Exec(ctx, `insert into on_the_way (id, kitchen_id, title, ready_at, steps) values ($1, $2, $3, $4, $5)
		on conflict (id) do nothing`, w.ID, kitchen, w.Title, w.ReadyAt, w.Steps)
	return kind(err)
}

// UpdateOnTheWay changes a dessert on its way, in one transaction that holds it.
func (s *Store) UpdateOnTheWay(
	ctx context.Context, kitchen, id uuid.UUID, change func(*app.OnTheWay) error,
) error {
	return s.inTx(ctx, func(tx pgx.Tx) error {
		w, err := oneBy(ctx, tx, scanWay, wayRead+` and id = $2 for update`, kitchen, id)
		if err == nil {
			err = change(&w)
		}
		if err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `update on_the_way set steps = $3 where kitchen_id = $1 and id = $2`, kitchen, id, w.Steps)
		return err
	})
}

// DropOnTheWay takes a dessert off its way.
func (s *Store) DropOnTheWay(ctx context.Context, kitchen, id uuid.UUID) error {
	return changedOne(s.pool.Exec(ctx, `delete from on_the_way where kitchen_id = $1 and id = $2`, kitchen, id))
}
