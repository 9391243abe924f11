package store

import (
	"context"
	"errors"
	"time"

	"mabbin/app"
	"mabbin/core/day"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// House is what a kitchen has told of its hands, tiers and places; where it has told nothing, the zero value.
func (s *Store) House(ctx context.Context, kitchen uuid.UUID) (day.House, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return day.House{}, err
	}
	return houseOf(ctx, s.pool, kitchen)
}

func houseOf(ctx context.Context, from querier, kitchen uuid.UUID) (h day.House, err error) {
	h, err = oneBy(ctx, from, pgx.RowTo[day.House], `select has from house where kitchen_id = $1`, kitchen)
	if errors.Is(err, app.ErrNotFound) {
		err = nil
	}
	return h, err
}

// SetHouse keeps it in the place of what was told before.
func (s *Store) SetHouse(ctx context.Context, kitchen uuid.UUID, h day.House, when app.If) error {
	if err := s.known(ctx, kitchen); err != nil {
		return err
	}
	return s.inTx(ctx, func(tx pgx.Tx) error {
		now, err := houseOf(ctx, tx, kitchen)
		if err == nil {
			err = when.Holds(now)
		}
		if err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `insert into house (kitchen_id, has) values ($1, $2)
			on conflict (kitchen_id) do update set has = excluded.has`, kitchen, h)
		return err
	})
}

const dayRead = `select on_date, asked, laid, laid_of from day where kitchen_id = $1`

func scanDay(row pgx.CollectableRow) (d app.Day, err error) {
	var asked, laid []byte
	err = row.Scan(&d.Date, &asked, &laid, &d.LaidOf)
	if err == nil {
		d.Kept = true
		err = decoded(map[string]kept{"asked": {asked, &d.Asked}, "laid": {laid, &d.Laid}})
	}
	return d, err
}

// Day is one day; where nothing is kept of it, it is empty.
func (s *Store) Day(ctx context.Context, kitchen uuid.UUID, date time.Time) (app.Day, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return app.Day{}, err
	}
	return dayOf(ctx, s.pool, kitchen, date, "")
}

func dayOf(ctx context.Context, from querier, kitchen uuid.UUID, date time.Time, lock string) (app.Day, error) {
	d, err := oneBy(ctx, from, scanDay, dayRead+` and on_date = $2`+lock, kitchen, date)
	if errors.Is(err, app.ErrNotFound) {
		return app.Day{Date: date, Asked: day.Asked{Orders: []day.Wanted{}}}, nil
	}
	return d, err
}

// Days lists what is kept of the days from one to another, in their order.
func (s *Store) Days(ctx context.Context, kitchen uuid.UUID, from, to time.Time) ([]app.Day, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return nil, err
	}
	rows, err := s.pool.Query(ctx, dayRead+` and on_date between $2 and $3 order by on_date`, kitchen, from, to)
	if err != nil {
		return nil, kind(err)
	}
	out, err := pgx.CollectRows(rows, scanDay)
	return out, kind(err)
}

// SetDay keeps what is wanted of a day; how it was laid stays until it is laid anew.
func (s *Store) SetDay(
	ctx context.Context, kitchen uuid.UUID, date time.Time, a day.Asked, when app.If,
) (out app.Day, err error) {
	if err := s.known(ctx, kitchen); err != nil {
		return app.Day{}, err
	}
	err = s.inTx(ctx, func(tx pgx.Tx) error {
		now, err := dayOf(ctx, tx, kitchen, date, ` for update`)
		if err == nil {
			err = when.Holds(now)
		}
		if err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `insert into day (kitchen_id, on_date, asked) values ($1, $2, $3)
			on conflict (kitchen_id, on_date) do update set asked = excluded.asked`, kitchen, date, a)
		if err == nil {
			out, err = dayOf(ctx, tx, kitchen, date, "")
		}
		return err
	})
	return out, err
}

// SetLaid keeps how a day was laid. Where what is wanted of it has changed meanwhile, nothing is kept.
func (s *Store) SetLaid(
	ctx context.Context, kitchen uuid.UUID, date time.Time, laid *day.Laid, of string,
) error {
	return s.inTx(ctx, func(tx pgx.Tx) error {
		now, err := dayOf(ctx, tx, kitchen, date, ` for update`)
		if err != nil || app.Revision(now) != of {
			return err
		}
		_, err = tx.Exec(ctx, `insert into day (kitchen_id, on_date, asked, laid, laid_of) values ($1, $2, $3, $4, $5)
			on conflict (kitchen_id, on_date) do update set laid = excluded.laid, laid_of = excluded.laid_of`,
			kitchen, date, now.Asked, laid, of)
		return err
	})
}
