package store

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"time"

	"mabbin/app"
	"mabbin/core/bake"
	"mabbin/core/watch"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

var _ app.WatchStore = (*Store)(nil)

// StartWatch keeps a dessert that went in, with its calls. The same id twice, also from two tablets at once, is the
// same dessert: the conflict is left to every unique key of the table, for any of them may see it first.
func (s *Store) StartWatch(ctx context.Context, w app.Watched) error {
	if err := s.known(ctx, w.Kitchen); err != nil {
		return err
	}
	return s.inTx(ctx, func(tx pgx.Tx) error {
		tag, err := tx.Exec(
			ctx,
			`insert into watch (id, kitchen_id, title, card_id, version, oven_id, question, answer, stages, started_at, weighed,
				forecast)
			values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, coalesce($11, '[]'::jsonb), $12) on conflict do nothing`,
			w.ID,
			w.Kitchen,
			w.Title,
			w.CardID,
			w.Version,
			w.OvenID,
			w.Request,
			w.Predicted,
			w.Stages,
			w.StartedAt,
			w.Weighed,
			w.Forecast,
		)
		if err != nil || tag.RowsAffected() == 0 {
			return err
		}
		return saveCalls(ctx, tx, w, nil)
	})
}

const watchRead = `select id, kitchen_id, title, card_id, version, oven_id, question, answer, stages, started_at,
	out_at, ended_at, probe, estimate, forecast,
	weighed, speed, doors from watch where `

// Watched lists what is in the kitchen's ovens or cooling, in the order it went in.
func (s *Store) Watched(ctx context.Context, kitchen uuid.UUID) ([]app.Watched, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return nil, err
	}
	return readWatched(ctx, s.pool, watchRead+`kitchen_id = $1 and ended_at is null order by started_at, id`, kitchen)
}

const oneWatched = watchRead + `kitchen_id = $1 and id = $2`

// OneWatched is one dessert of the watch, also one that has ended.
func (s *Store) OneWatched(ctx context.Context, kitchen, id uuid.UUID) (app.Watched, error) {
	w, err := exactlyOne(readWatched(ctx, s.pool, oneWatched, kitchen, id))
	if err == nil && w.Unusable != nil {
		err = fmt.Errorf("%w: %w", app.ErrUnusable, w.Unusable)
	}
	return w, err
}

func exactlyOne(found []app.Watched, err error) (app.Watched, error) {
	if err == nil && len(found) == 0 {
		err = app.ErrNotFound
	}
	if err != nil {
		return app.Watched{}, err
	}
	return found[0], nil
}

// querier is the pool, or a transaction.
type querier interface {
	Query(ctx context.Context, sql string, args ...any) (pgx.Rows, error)
}

// readWatched reads desserts with their calls, in the order they are due, and their probes' readings.
func readWatched(ctx context.Context, from querier, sql string, args ...any) ([]app.Watched, error) {
	rows, err := from.Query(ctx, sql, args...)
	if err != nil {
		return nil, kind(err)
	}
	out, err := pgx.CollectRows(rows, scanWatched)
	if err != nil || len(out) == 0 {
		return out, kind(err)
	}
	ids := make([]uuid.UUID, len(out))
	for i, w := range out {
		ids[i] = w.ID
	}
	rows, err = from.Query(
		ctx,
		`select watch_id, id, kind, due_at, text, caution, state, answered_at, snoozes, withdrawn_by_id from watch_call
		where watch_id = any($1) order by due_at, id`,
		ids,
	)
	if err != nil {
		return nil, kind(err)
	}
	var of, id uuid.UUID
	var by *uuid.UUID
	var at *time.Time
	var c watch.Call
	_, err = pgx.ForEachRow(
		rows,
		[]any{&of, &id, &c.Kind, &c.DueAt, &c.Text, &c.Caution, &c.State, &at, &c.Snoozes, &by},
		func() error {
			c.ID, c.AnsweredAt, c.WithdrawnBy = watch.CallID(id), orZero(at), watch.CallID(orZero(by))
			w := &out[slices.Index(ids, of)]
			w.Calls = append(w.Calls, c)
			return nil
		},
	)
	if err != nil {
		return nil, kind(err)
	}
	rows, err = from.Query(
		ctx,
		`select watch_id, minute::float8, c::float8 from watch_reading where watch_id = any($1) order by minute`,
		ids,
	)
	if err != nil {
		return nil, kind(err)
	}
	var p bake.Point
	_, err = pgx.ForEachRow(rows, []any{&of, &p.Minute, &p.C}, func() error {
		w := &out[slices.Index(ids, of)]
		w.Readings = append(w.Readings, p)
		return nil
	})
	return out, kind(err)
}

func scanWatched(row pgx.CollectableRow) (app.Watched, error) {
	var w app.Watched
	var out, ended *time.Time
	var request, predicted, stages, estimate, forecast, weighed, doors []byte
	err := row.Scan(
		&w.ID,
		&w.Kitchen,
		&w.Title,
		&w.CardID,
		&w.Version,
		&w.OvenID,
		&request,
		&predicted,
		&stages,
		&w.StartedAt,
		&out,
		&ended,
		&w.Probe,
		&estimate,
		&forecast,
		&weighed,
		&w.Speed,
		&doors,
	)
	w.OutAt, w.EndedAt = orZero(out), orZero(ended)
	if err != nil {
		return w, err
	}
	w.Unusable = decoded(map[string]kept{
		"question": {request, &w.Request},
		"answer":   {predicted, &w.Predicted},
		"stages":   {stages, &w.Stages},
		"estimate": {
			estimate,
			&w.Estimate,
		},
		"forecast": {forecast, &w.Forecast},
		"weighed":  {weighed, &w.Weighed},
		"doors":    {doors, &w.Doors},
	})
	if w.Unusable == nil {
		w.Unusable = errors.Join(bake.CheckStages(w.Stages), checkAnswer(w.Predicted))
	}
	if w.Unusable != nil {
		w.Unusable = errors.New(w.Unusable.Error()) // its faults are none of the request that reads it
	}
	return w, nil
}

func orZero[T any](p *T) (zero T) {
	if p == nil {
		return zero
	}
	return *p
}

// orNull is a time, or NULL for the zero one.
func orNull(t time.Time) *time.Time {
	if t.IsZero() {
		return nil
	}
	return &t
}

// UpdateWatched loads a dessert, hands it to change, and saves it, in one transaction that holds its row.
func (s *Store) UpdateWatched(
	ctx context.Context,
	kitchen, id uuid.UUID,
	change func(*app.Watched) error,
) (app.Watched, error) {
	var w app.Watched
	err := s.inTx(ctx, func(tx pgx.Tx) (err error) {
		if w, err = exactlyOne(readWatched(ctx, tx, oneWatched+` for update`, kitchen, id)); err != nil {
			return err
		}
		before, readings := slices.Clone(w.Calls), slices.Clone(w.Readings)
		if err := change(&w); err != nil {
			return err
		}
		if w.Unusable != nil { // the rest stays as it is
			_, err = tx.Exec(ctx, `update watch set ended_at = $2 where id = $1`, w.ID, orNull(w.EndedAt))
			return err
		}
		_, err = tx.Exec(
			ctx,
			`update watch set stages = $2, started_at = $3, out_at = $4, ended_at = $5, probe = $6, estimate = $7, speed = $8,
			doors = coalesce($9, '[]'::jsonb), forecast = $10 where id = $1`,
			w.ID,
			w.Stages,
			w.StartedAt,
			orNull(w.OutAt),
			orNull(w.EndedAt),
			w.Probe,
			w.Estimate,
			w.Speed,
			w.Doors,
			w.Forecast,
		)
		if err != nil {
			return err
		}
		if err := saveCalls(ctx, tx, w, before); err != nil {
			return err
		}
		return saveReadings(ctx, tx, w, readings)
	})
	if err != nil || w.Unusable != nil {
		return w, err
	}
	return s.OneWatched(ctx, kitchen, id)
}

// saveCalls keeps the calls that are not as they were; a new one gets its id.
func saveCalls(ctx context.Context, tx pgx.Tx, w app.Watched, before []watch.Call) error {
	was := make(map[watch.CallID]watch.Call, len(before))
	for _, c := range before {
		was[c.ID] = c
	}
	batch := &pgx.Batch{}
	for _, c := range w.Calls {
		if old, kept := was[c.ID]; kept && sameCall(old, c) {
			continue
		}
		if c.ID == (watch.CallID{}) {
			c.ID = watch.CallID(uuid.New())
		}
		var by *uuid.UUID
		if c.WithdrawnBy != (watch.CallID{}) {
			by = (*uuid.UUID)(&c.WithdrawnBy)
		}
		batch.Queue(
			`insert into watch_call (id, kitchen_id, watch_id, kind, due_at, text, caution, state, answered_at, snoozes,
				withdrawn_by_id)
			values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)
			on conflict (id) do update set due_at = excluded.due_at, state = excluded.state, answered_at = excluded.answered_at,
				snoozes = excluded.snoozes, withdrawn_by_id = excluded.withdrawn_by_id`,
			uuid.UUID(c.ID),
			w.Kitchen,
			w.ID,
			c.Kind,
			c.DueAt,
			c.Text,
			c.Caution,
			c.State,
			orNull(c.AnsweredAt),
			c.Snoozes,
			by,
		)
	}
	return tx.SendBatch(ctx, batch).Close()
}

// sameCall says whether nothing has happened to a call.
func sameCall(a, b watch.Call) bool {
	return a.DueAt.Equal(b.DueAt) && a.State == b.State && a.AnsweredAt.Equal(b.AnsweredAt) && a.Snoozes == b.Snoozes &&
		a.WithdrawnBy == b.WithdrawnBy
}

// saveReadings adds the readings that are new; where the probe was moved, those of its old place go.
func saveReadings(ctx context.Context, tx pgx.Tx, w app.Watched, before []bake.Point) error {
	if len(w.Readings) < len(before) {
		if _, err := tx.Exec(ctx, `delete from watch_reading where watch_id = $1`, w.ID); err != nil {
			return err
		}
		before = nil
	}
	for _, p := range w.Readings[len(before):] {
		if _, err := tx.Exec(
			ctx,
			`insert into watch_reading (watch_id, minute, c) values ($1, $2, $3) on conflict do nothing`,
			w.ID,
			p.Minute,
			p.C,
		); err != nil {
			return err
		}
	}
	return nil
}

// Probed names what went into an oven since a time and has a probe in it, of all kitchens.
func (s *Store) Probed(ctx context.Context, since time.Time) ([]app.WatchedID, error) {
	return list[app.WatchedID](
		ctx,
		s,
		`select kitchen_id as kitchen, id from watch where probe <> '' and out_at is null and ended_at is null
			and started_at > $1 order by started_at`,
		since,
	)
}

// Ahead names what went in since a time and runs faster than the clock, of all kitchens.
func (s *Store) Ahead(ctx context.Context, since time.Time) ([]app.WatchedID, error) {
	return list[app.WatchedID](
		ctx,
		s,
		`select kitchen_id as kitchen, id from watch where speed > 1 and ended_at is null and started_at > $1
			order by started_at`,
		since,
	)
}

// ThinReadings keeps one reading a minute of bakes that started between two times.
func (s *Store) ThinReadings(ctx context.Context, from, to time.Time) error {
	_, err := s.pool.Exec(ctx, `delete from watch_reading r using watch w
		where w.id = r.watch_id and w.started_at between $1 and $2
		and exists (select from watch_reading before where before.watch_id = r.watch_id
		and floor(before.minute) = floor(r.minute) and before.minute < r.minute)`, from, to)
	return kind(err)
}

// SweepWatch deletes bakes that went off the Watch before a time. The log keeps their results.
func (s *Store) SweepWatch(ctx context.Context, before time.Time) error {
	_, err := s.pool.Exec(ctx, `delete from watch where ended_at < $1`, before)
	return kind(err)
}
