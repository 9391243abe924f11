package store

import (
	"context"
	"errors"

	"mabbin/app"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

const wayRead = `select id, title, ready_at, steps, asked from on_the_way where kitchen_id = $1`

func scanWay(row pgx.CollectableRow) (w app.OnTheWay, err error) {
	var steps []byte
	if err = row.Scan(&w.ID, &w.Title, &w.ReadyAt, &steps, &w.Asked); err == nil {
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

// SetOnTheWay saves a countdown. The same id twice is the same countdown: what was saved first stays. Another one under
// its id is an app.Conflict, and another kitchen's is app.ErrIDTaken.
func (s *Store) SetOnTheWay(ctx context.Context, kitchen uuid.UUID, w app.OnTheWay) error {
	if err := s.known(ctx, kitchen); err != nil {
		return err
	}
	tag, err := s.pool.Exec(ctx, `insert into on_the_way (id, kitchen_id, title, ready_at, steps, asked)
		values ($1, $2, $3, $4, $5, $6) on conflict (id) do nothing`, w.ID, kitchen, w.Title, w.ReadyAt, w.Steps, w.Asked)
	if err != nil || tag.RowsAffected() > 0 {
		return kind(err)
	}
	there, err := oneBy(ctx, s.pool, scanWay, wayRead+` and id = $2`, kitchen, w.ID)
	if errors.Is(err, app.ErrNotFound) {
		return app.ErrIDTaken
	}
	if err != nil {
		return err
	}
	return app.Same([]string{w.Title, w.Asked}, []string{there.Title, there.Asked}, there)
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
