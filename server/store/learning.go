package store

import (
	"context"
	"errors"
	"time"

	"mabbin/app"
	"mabbin/core/learn"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// LearningPreferences is what a kitchen says of what its log teaches; where it has said nothing, it is empty.
func (s *Store) LearningPreferences(ctx context.Context, kitchen uuid.UUID) (learn.Preferences, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return learn.Preferences{}, err
	}
	return learningPreferences(ctx, s.pool, kitchen)
}

func learningPreferences(ctx context.Context, from querier, kitchen uuid.UUID) (learn.Preferences, error) {
	x, err := oneBy(
		ctx,
		from,
		pgx.RowTo[learn.Preferences],
		`select preferences from learning where kitchen_id = $1`,
		kitchen,
	)
	if errors.Is(err, app.ErrNotFound) {
		return learn.Preferences{Off: []learn.ParameterName{}, LeftOut: []string{}, Changed: []learn.ChangedOven{}}, nil
	}
	return x, err
}

// UpdateLearningPreferences changes it, in one transaction that holds the kitchen.
func (s *Store) UpdateLearningPreferences(
	ctx context.Context,
	kitchen uuid.UUID,
	when app.Precondition,
	change func(learn.Preferences) (learn.Preferences, error),
) (out learn.Preferences, err error) {
	return updateStored(
		ctx,
		s,
		kitchen,
		when,
		learningPreferences,
		change,
		`insert into learning (kitchen_id, preferences, changes)
		values ($1, $2, 1) on conflict (kitchen_id) do update
		set preferences = excluded.preferences, changes = learning.changes + 1`,
	)
}

// logChanged counts a change of a kitchen's log, or of what it is read with: what it teaches has to be learnt again. It
// belongs into a transaction that has locked the kitchen.
func logChanged(ctx context.Context, tx pgx.Tx, kitchen uuid.UUID) error {
	_, err := tx.Exec(ctx, `insert into learning (kitchen_id, changes) values ($1, 1)
		on conflict (kitchen_id) do update set changes = learning.changes + 1`, kitchen)
	return err
}

// changingLog runs do in one transaction that locks the kitchen, and counts it as a change of what its log is read
// with.
func (s *Store) changingLog(ctx context.Context, kitchen uuid.UUID, do func(pgx.Tx) error) error {
	return s.holding(ctx, kitchen, func(tx pgx.Tx) error {
		if err := do(tx); err != nil {
			return err
		}
		return logChanged(ctx, tx, kitchen)
	})
}

// learntColumns are those of the table learning that are computed: no archive has them, and none brings them in.
var learntColumns = []string{"posterior", "times", "findings", "changes", "learnt_of"}

// LearningState is what was learnt last from a kitchen's log, and whether it has changed since. Findings of another
// version of the program count as none.
func (s *Store) LearningState(ctx context.Context, kitchen uuid.UUID) (app.LearningState, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return app.LearningState{}, err
	}
	state := app.LearningState{
		Preferences: learn.Preferences{
			Off:     []learn.ParameterName{},
			LeftOut: []string{},
			Changed: []learn.ChangedOven{},
		},
		LearntOf: -1,
	}
	var preferences, findings []byte
	err := s.pool.QueryRow(ctx, `select preferences, findings, changes, learnt_of from learning
		where kitchen_id = $1`, kitchen).
		Scan(&preferences, &findings, &state.Changes, &state.LearntOf)
	if err = kind(err); err != nil && !errors.Is(err, app.ErrNotFound) {
		return state, err
	}
	if err := decoded(map[string]kept{"preferences": {preferences, &state.Preferences}}); err != nil {
		return state, err
	}
	if findings == nil || decoded(map[string]kept{"findings": {findings, &state.Findings}}) != nil {
		state.Findings, state.LearntOf = app.NoFindings(), -1
	}
	return state, nil
}

// Learnt are the corrections that a kitchen's log has taught; where it has taught none, the tables.
func (s *Store) Learnt(ctx context.Context, kitchen uuid.UUID) (learn.Used, error) {
	return learntNow(ctx, s.pool, kitchen)
}

func learntNow(ctx context.Context, from querier, kitchen uuid.UUID) (learn.Used, error) {
	u, err := oneBy(ctx, from, pgx.RowTo[learn.Used],
		`select used || jsonb_build_object('version', version) from learnt where kitchen_id = $1
		order by version desc limit 1`, kitchen)
	if errors.Is(err, app.ErrNotFound) {
		return learn.Used{}, nil
	}
	return u, err
}

// Posterior is what was learnt last; the zero value where nothing was, or by another form of it.
func (s *Store) Posterior(ctx context.Context, kitchen uuid.UUID) (learn.Posterior, error) {
	p, err := oneBy(ctx, s.pool, pgx.RowTo[*learn.Posterior],
		`select posterior from learning where kitchen_id = $1`, kitchen)
	if errors.Is(err, app.ErrNotFound) || err == nil && p == nil {
		return learn.Posterior{}, nil
	}
	if err != nil {
		return learn.Posterior{}, err
	}
	return *p, nil
}

// LearntTimes counts how often something else was learnt from a log.
func (s *Store) LearntTimes(ctx context.Context, kitchen uuid.UUID) (int, error) {
	return learntTimes(ctx, s.pool, kitchen)
}

func learntTimes(ctx context.Context, from querier, kitchen uuid.UUID) (int, error) {
	n, err := oneBy(ctx, from, pgx.RowTo[int], `select times from learning where kitchen_id = $1`, kitchen)
	if errors.Is(err, app.ErrNotFound) {
		return 0, nil
	}
	return n, err
}

// SetLearnt stores what was learnt of the log at a count of its changes: corrections as a new version where they differ
// from those that are stored, and what else was learnt. changed says that either differs from what was there.
func (s *Store) SetLearnt(
	ctx context.Context, kitchen uuid.UUID, at time.Time, of int64, u learn.Used, p learn.Posterior, f app.Findings,
) (stored learn.Used, changed bool, err error) {
	err = s.holding(ctx, kitchen, func(tx pgx.Tx) error {
		before, err := learntTimes(ctx, tx, kitchen)
		if err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `insert into learning (kitchen_id, posterior, findings, learnt_of, times)
			values ($1, $2, $3, $4, 1) on conflict (kitchen_id) do update set posterior = excluded.posterior,
			findings = excluded.findings, learnt_of = excluded.learnt_of,
			times = learning.times + (learning.posterior is distinct from excluded.posterior
				or learning.findings is distinct from excluded.findings)::integer`, kitchen, p, f, of)
		if err != nil {
			return err
		}
		after, err := learntTimes(ctx, tx, kitchen)
		if err != nil {
			return err
		}
		changed = after != before
		if stored, err = learntNow(ctx, tx, kitchen); err != nil || stored.Same(u) {
			return err
		}
		u.Version, changed = stored.Version+1, true
		stored = u
		_, err = tx.Exec(
			ctx, `insert into learnt (kitchen_id, version, at, used) values ($1, $2, $3, $4)`, kitchen, u.Version, at, u,
		)
		return err
	})
	return stored, changed, err
}
