package store

import (
	"context"
	"errors"

	"mabbin/app"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

const countdownColumns = `select id, title, ready_at, steps, digest from countdown where kitchen_id = $1`

func scanCountdown(row pgx.CollectableRow) (w app.Countdown, err error) {
	var steps []byte
	if err = row.Scan(&w.ID, &w.Title, &w.ReadyAt, &steps, &w.Digest); err == nil {
		err = decoded(map[string]kept{"steps": {steps, &w.Steps}})
	}
	return w, err
}

// Countdowns lists what is on its way into a kitchen's ovens, what is wanted first at first.
func (s *Store) Countdowns(ctx context.Context, kitchen uuid.UUID) ([]app.Countdown, error) {
	rows, err := s.pool.Query(ctx, countdownColumns+` order by ready_at, id`, kitchen)
	if err != nil {
		return nil, kind(err)
	}
	out, err := pgx.CollectRows(rows, scanCountdown)
	return out, kind(err)
}

// SetCountdown saves a countdown. The same id twice is the same countdown: what was saved first stays. Another one
// under its id is an app.Conflict, and another kitchen's is app.ErrIDTaken.
func (s *Store) SetCountdown(ctx context.Context, kitchen uuid.UUID, w app.Countdown) error {
	if err := s.known(ctx, kitchen); err != nil {
		return err
	}
	tag, err := s.pool.Exec(ctx, `insert into countdown (id, kitchen_id, title, ready_at, steps, digest)
		values ($1, $2, $3, $4, $5, $6) on conflict (id) do nothing`, w.ID, kitchen, w.Title, w.ReadyAt, w.Steps, w.Digest)
	if err != nil || tag.RowsAffected() > 0 {
		return kind(err)
	}
	there, err := oneBy(ctx, s.pool, scanCountdown, countdownColumns+` and id = $2`, kitchen, w.ID)
	if errors.Is(err, app.ErrNotFound) {
		return app.ErrIDInUse
	}
	if err != nil {
		return err
	}
	return app.Same([]string{w.Title, w.Digest}, []string{there.Title, there.Digest}, there)
}

// UpdateCountdown changes a dessert on its way, in one transaction that holds it.
func (s *Store) UpdateCountdown(
	ctx context.Context, kitchen, id uuid.UUID, change func(*app.Countdown) error,
) error {
	return s.inTx(ctx, func(tx pgx.Tx) error {
		w, err := oneBy(ctx, tx, scanCountdown, countdownColumns+` and id = $2 for update`, kitchen, id)
		if err == nil {
			err = change(&w)
		}
		if err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `update countdown set steps = $3 where kitchen_id = $1 and id = $2`, kitchen, id, w.Steps)
		return err
	})
}

// DeleteCountdown takes a dessert off its way.
func (s *Store) DeleteCountdown(ctx context.Context, kitchen, id uuid.UUID) error {
	return changedOne(s.pool.Exec(ctx, `delete from countdown where kitchen_id = $1 and id = $2`, kitchen, id))
}
