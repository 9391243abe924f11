package store

import (
	"context"
	"errors"

	"mabbin/app"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// Ovens lists a kitchen's ovens by name, without those that are gone.
func (s *Store) Ovens(ctx context.Context, kitchen uuid.UUID) ([]app.KitchenOven, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return nil, err
	}
	rows, err := s.pool.Query(ctx, ovenRead+` where kitchen_id = $1 and not gone order by name`, kitchen)
	if err != nil {
		return nil, kind(err)
	}
	out, err := pgx.CollectRows(rows, scanOven)
	return out, kind(err)
}

const ovenRead = `select id, name, kind, heating, offset_c, give_or_take_c, dial, runners, bottom_heat,
	diameter_cm from oven`

func scanOven(row pgx.CollectableRow) (o app.KitchenOven, err error) {
	err = row.Scan(
		&o.ID,
		&o.Name,
		&o.Kind,
		&o.Heating,
		&o.OffsetC,
		&o.GiveOrTakeC,
		&o.Dial,
		&o.Runners,
		&o.BottomHeat,
		&o.DiameterCM,
	)
	return o, err
}

// OneOven is one oven, also one that is gone.
func (s *Store) OneOven(ctx context.Context, kitchen, id uuid.UUID) (app.KitchenOven, error) {
	return oneBy(ctx, s.pool, scanOven, ovenRead+` where kitchen_id = $1 and id = $2`, kitchen, id)
}

// SetOven adds an oven, changes it, or puts it back.
func (s *Store) SetOven(ctx context.Context, kitchen uuid.UUID, o app.KitchenOven, when app.Precondition) error {
	return s.changingLog(ctx, kitchen, func(tx pgx.Tx) error {
		now, err := oneBy(ctx, tx, scanOven, ovenRead+` where kitchen_id = $1 and id = $2 for update`, kitchen, o.ID)
		switch {
		case err == nil:
			err = when.Holds(now)
		case errors.Is(err, app.ErrNotFound): // a new one
			err = when.HoldsWithout(nil)
		}
		if err != nil {
			return err
		}
		return changedOne(
			tx.Exec(
				ctx,
				`insert into oven (id, kitchen_id, name, kind, heating, offset_c, give_or_take_c, dial, runners, bottom_heat,
				diameter_cm)
		values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)
		on conflict (id) do update set name = excluded.name, kind = excluded.kind, heating = excluded.heating,
		offset_c = excluded.offset_c,
			give_or_take_c = excluded.give_or_take_c, dial = excluded.dial, runners = excluded.runners,
			bottom_heat = excluded.bottom_heat,
			diameter_cm = excluded.diameter_cm, gone = false
		where oven.kitchen_id = excluded.kitchen_id`,
				o.ID,
				kitchen,
				o.Name,
				o.Kind,
				o.Heating,
				o.OffsetC,
				o.GiveOrTakeC,
				o.Dial,
				o.Runners,
				o.BottomHeat,
				o.DiameterCM,
			),
		)
	})
}

// RemoveOven takes an oven away. Cards and the log still point at it.
func (s *Store) RemoveOven(ctx context.Context, kitchen, id uuid.UUID) error {
	return changedOne(
		s.pool.Exec(ctx, `update oven set gone = true where kitchen_id = $1 and id = $2 and not gone`, kitchen, id),
	)
}
