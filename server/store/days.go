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

// Resources is what a kitchen has reported of its hands, tiers and places; where it has reported nothing, the zero
// value.
func (s *Store) Resources(ctx context.Context, kitchen uuid.UUID) (day.Resources, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return day.Resources{}, err
	}
	return resourcesOf(ctx, s.pool, kitchen)
}

func resourcesOf(ctx context.Context, from querier, kitchen uuid.UUID) (h day.Resources, err error) {
	h, err = oneBy(ctx, from, pgx.RowTo[day.Resources], `select settings from resources where kitchen_id = $1`, kitchen)
	if errors.Is(err, app.ErrNotFound) {
		err = nil
	}
	return h, err
}

// SetResources replaces what a kitchen has for its days, in one transaction that locks the kitchen.
func (s *Store) SetResources(ctx context.Context, kitchen uuid.UUID, h day.Resources, when app.Precondition) error {
	_, err := updateStored(
		ctx,
		s,
		kitchen,
		when,
		resourcesOf,
		func(day.Resources) (day.Resources, error) { return h, nil },
		`insert into resources (kitchen_id, settings) values ($1, $2) on conflict (kitchen_id)
			do update set settings = excluded.settings`,
	)
	return err
}

const dayRead = `select on_date, request, schedule, schedule_of from day where kitchen_id = $1`

func scanDay(row pgx.CollectableRow) (d app.Day, err error) {
	var request, schedule []byte
	err = row.Scan(&d.Date, &request, &schedule, &d.ScheduleOf)
	if err == nil {
		d.Stored = true
		err = decoded(map[string]kept{"request": {request, &d.Orders}, "schedule": {schedule, &d.Schedule}})
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
		return app.Day{Date: date, Orders: day.Orders{Orders: []day.Order{}}}, nil
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
	ctx context.Context, kitchen uuid.UUID, date time.Time, a day.Orders, when app.Precondition,
) (out app.Day, err error) {
	err = s.holding(ctx, kitchen, func(tx pgx.Tx) error {
		now, err := dayOf(ctx, tx, kitchen, date)
		switch {
		case err == nil && now.Stored:
			err = when.Holds(now)
		case err == nil:
			err = when.HoldsWithout(now)
		}
		if err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `insert into day (kitchen_id, on_date, request) values ($1, $2, $3)
			on conflict (kitchen_id, on_date) do update set request = excluded.request`, kitchen, date, a)
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
		if now.Stored != planned.Stored || now.Stored && now.OrdersRevision() != planned.ScheduleOf {
			return &app.Conflict{Stored: now, Changed: true}
		}
		_, err = tx.Exec(
			ctx,
			`insert into day (kitchen_id, on_date, request, schedule, schedule_of) values ($1, $2, $3, $4, $5)
			on conflict (kitchen_id, on_date) do update set schedule = excluded.schedule, schedule_of = excluded.schedule_of`,
			kitchen,
			planned.Date,
			planned.Orders,
			planned.Schedule,
			planned.ScheduleOf,
		)
		if err == nil {
			stored, err = dayOf(ctx, tx, kitchen, planned.Date)
		}
		return err
	})
	return stored, err
}
