package store

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"mabbin/core/bake"
	"mabbin/core/watch"
)

// Probed is a dessert with a probe in it, of whichever kitchen.
type Probed struct {
	Kitchen uuid.UUID
	Watched
}

// Probed lists what is in an oven with a probe in it.
func (s *Store) Probed(ctx context.Context) ([]Probed, error) {
	rows, err := s.pool.Query(ctx, `select kitchen_id, id, question, answer, stages, started_at, probe, doors from watch
		where probe <> '' and out_at is null and ended_at is null order by started_at`)
	if err != nil {
		return nil, kind(err)
	}
	out, err := pgx.CollectRows(rows, func(row pgx.CollectableRow) (p Probed, err error) {
		err = row.Scan(&p.Kitchen, &p.ID, &p.Question, &p.Answer, &p.Stages, &p.StartedAt, &p.Place, &p.Doors)
		return p, err
	})
	return out, kind(err)
}

// SetProbe puts a probe into a dessert, moves it, or takes it out (an empty place). What another place has told is forgotten.
func (s *Store) SetProbe(ctx context.Context, kitchen, of uuid.UUID, place string) error {
	return s.inTx(ctx, func(tx pgx.Tx) error {
		if err := lockWatch(ctx, tx, kitchen, of); err != nil {
			return err
		}
		var was string
		if err := tx.QueryRow(ctx, `select probe from watch where id = $1`, of).Scan(&was); err != nil || was == place {
			return err
		}
		if _, err := tx.Exec(ctx, `update watch set probe = $2, estimate = null where id = $1`, of, place); err != nil {
			return err
		}
		_, err := tx.Exec(ctx, `delete from watch_reading where watch_id = $1`, of)
		return err
	})
}

// AddReading keeps a reading; the same minute twice is one.
func (s *Store) AddReading(ctx context.Context, of uuid.UUID, p bake.Point) error {
	_, err := s.pool.Exec(ctx, `insert into watch_reading (watch_id, minute, c) values ($1, $2, $3) on conflict do nothing`, of, p.Minute, p.C)
	return kind(err)
}

// Readings are those of one dessert, by minute.
func (s *Store) Readings(ctx context.Context, of uuid.UUID) ([]bake.Point, error) {
	return list[bake.Point](ctx, s, `select minute::float8, c::float8 from watch_reading where watch_id = $1 order by minute`, of)
}

// SetEstimate keeps what the probe told last.
func (s *Store) SetEstimate(ctx context.Context, of uuid.UUID, e watch.Estimate) error {
	_, err := s.pool.Exec(ctx, `update watch set estimate = $2 where id = $1`, of, e)
	return kind(err)
}

// ThinReadings keeps one reading a minute of what is older than a day, so that they do not grow without bound.
func (s *Store) ThinReadings(ctx context.Context, now time.Time) error {
	_, err := s.pool.Exec(ctx, `delete from watch_reading r using watch w
		where w.id = r.watch_id and w.started_at between $1::timestamptz - interval '8 days' and $1::timestamptz - interval '1 day'
		and exists (select from watch_reading before where before.watch_id = r.watch_id and floor(before.minute) = floor(r.minute) and before.minute < r.minute)`, now)
	return kind(err)
}

// SweepWatch forgets what went off the watch a month ago: the log keeps how it went.
func (s *Store) SweepWatch(ctx context.Context, now time.Time) error {
	_, err := s.pool.Exec(ctx, `delete from watch where ended_at < $1::timestamptz - interval '30 days'`, now)
	return kind(err)
}
