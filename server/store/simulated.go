package store

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// SetSpeed lets a dessert's time run so many times as fast.
func (s *Store) SetSpeed(ctx context.Context, kitchen, of uuid.UUID, speed int) error {
	return changedOne(s.pool.Exec(ctx, `update watch set speed = $3 where kitchen_id = $1 and id = $2`, kitchen, of, speed))
}

// OpenDoor notes that the door of a dessert's oven is opened.
func (s *Store) OpenDoor(ctx context.Context, kitchen, of uuid.UUID, d Door) error {
	return changedOne(s.pool.Exec(ctx, `update watch set doors = doors || $3::jsonb where kitchen_id = $1 and id = $2 and out_at is null and jsonb_array_length(doors) < 50`, kitchen, of, []Door{d}))
}

// RunFaster moves every dessert whose time runs faster back, with its calls: by what passed since the last time, less what passed on
// the clock. It names the kitchens that it happened in.
func (s *Store) RunFaster(ctx context.Context, passed time.Duration) ([]uuid.UUID, error) {
	var kitchens []uuid.UUID
	err := s.inTx(ctx, func(tx pgx.Tx) error {
		rows, err := tx.Query(ctx, `with moved as (
				update watch set started_at = started_at - (speed - 1) * $1::interval, out_at = out_at - (speed - 1) * $1::interval
				where speed > 1 and ended_at is null returning id, kitchen_id, speed
			), calls as (
				update watch_call c set due_at = due_at - (m.speed - 1) * $1::interval, answered_at = answered_at - (m.speed - 1) * $1::interval
				from moved m where c.watch_id = m.id
			) select distinct kitchen_id from moved`, passed)
		if err != nil {
			return err
		}
		kitchens, err = pgx.CollectRows(rows, pgx.RowTo[uuid.UUID])
		return err
	})
	return kitchens, err
}
