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

// SetHouse replaces what a kitchen has for its days, in one transaction that locks the kitchen.
func (s *Store) SetHouse(ctx context.Context, kitchen uuid.UUID, h day.House, when app.If) error {
	_, err := updateKept(ctx, s, kitchen, when, houseOf, func(day.House) (day.House, error) { return h, nil },
		`insert into house (kitchen_id, has) values ($1, $2) on conflict (kitchen_id) do update set has = excluded.has`)
	return err
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
	return dayOf(ctx, s.pool, kitchen, date)
}

func dayOf(ctx context.Context, from querier, kitchen uuid.UUID, date time.Time) (app.Day, error) {
	d, err := oneBy(ctx, from, scanDay, dayRead+` and on_date = $2`, kitchen, date)
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

// SetDay saves the orders of a day, in one transaction that locks the kitchen. The plan stays until the day is planned
// again.
func (s *Store) SetDay(
	ctx context.Context, kitchen uuid.UUID, date time.Time, a day.Asked, when app.If,
) (out app.Day, err error) {
	err = s.holding(ctx, kitchen, func(tx pgx.Tx) error {
		now, err := dayOf(ctx, tx, kitchen, date)
		switch {
		case err == nil && now.Kept:
			err = when.Holds(now)
		case err == nil:
			err = when.HoldsWithout(now)
		}
		if err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `insert into day (kitchen_id, on_date, asked) values ($1, $2, $3)
			on conflict (kitchen_id, on_date) do update set asked = excluded.asked`, kitchen, date, a)
		if err == nil {
			out, err = dayOf(ctx, tx, kitchen, date)
		}
		return err
	})
	return out, err
}

// SetPlan saves the plan of a day, in one transaction that locks the kitchen, and returns the day as it is stored then.
// planned is the day that was planned. Where its orders are no longer those of the stored day, nothing is saved and it
// is an app.Conflict. Orders that come every week are saved with the first plan of their day.
func (s *Store) SetPlan(ctx context.Context, kitchen uuid.UUID, planned app.Day) (stored app.Day, err error) {
	err = s.holding(ctx, kitchen, func(tx pgx.Tx) error {
		now, err := dayOf(ctx, tx, kitchen, planned.Date)
		if err != nil {
			return err
		}
		if now.Kept != planned.Kept || now.Kept && now.OrdersRevision() != planned.LaidOf {
			return &app.Conflict{Stored: now, Changed: true}
		}
		_, err = tx.Exec(ctx, `insert into day (kitchen_id, on_date, asked, laid, laid_of) values ($1, $2, $3, $4, $5)
			on conflict (kitchen_id, on_date) do update set laid = excluded.laid, laid_of = excluded.laid_of`,
			kitchen, planned.Date, planned.Asked, planned.Laid, planned.LaidOf)
		if err == nil {
			stored, err = dayOf(ctx, tx, kitchen, planned.Date)
		}
		return err
	})
	return stored, err
}
