package store

import (
	"context"
	"slices"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"mabbin/core/bake"
	"mabbin/core/baked"
	"mabbin/core/say"
	"mabbin/core/watch"
)

// Watched is a dessert that is in the oven, or out of it and not yet at the table.
type Watched struct {
	ID        uuid.UUID
	Title     string
	CardID    *uuid.UUID
	Version   *int
	OvenID    *uuid.UUID
	Question  bake.DessertRequest
	Answer    bake.DessertAnswer
	Stages    []bake.Stage
	StartedAt time.Time
	OutAt     *time.Time
	Place     string          // of a probe; empty without one
	Estimate  *watch.Estimate // what it told last
	Readings  []bake.Point
	Calls     []Call
	Weighed   []baked.Weighed // by the scale, before it went in
	Speed     int             // minutes of the bake to a minute; more than 1 in the simulation alone
	Doors     []Door
}

// Door is how long the door of a simulated oven stood open, in minutes of the bake.
type Door struct {
	At   float64 `json:"at"`
	Open float64 `json:"open"`
}

// AsWentIn is the dessert's request with the steam that was predicted for it.
func (w Watched) AsWentIn() bake.DessertRequest {
	q := w.Question
	steam := w.Answer.Plan.Answer.End.SteamedOffG
	q.Request.SteamedOffG = &steam
	return q
}

// Call is a call with what became of it.
type Call struct {
	ID         uuid.UUID
	Kind       string
	DueAt      time.Time
	Says       say.Line
	Caution    say.Line
	State      string // waiting, done, skipped or withdrawn
	AnsweredAt *time.Time
	Snoozes    int
}

// Answers to a call.
const (
	Waiting = "waiting"
	Done    = "done"
	Skipped = "skipped"
)

// StartWatch puts a dessert into the oven with its calls. The same id twice, also from two tablets at once, is the same
// dessert: the conflict is left to every unique key of the table, for any of them may see it first.
func (s *Store) StartWatch(ctx context.Context, kitchen uuid.UUID, w Watched, calls []watch.Call) error {
	if err := s.known(ctx, kitchen); err != nil {
		return err
	}
	return s.inTx(ctx, func(tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, `insert into watch (id, kitchen_id, title, card_id, version, oven_id, question, answer, stages, started_at, weighed)
			values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, coalesce($11, '[]'::jsonb)) on conflict do nothing`,
			w.ID, kitchen, w.Title, w.CardID, w.Version, w.OvenID, w.Question, w.Answer, w.Stages, w.StartedAt, w.Weighed)
		if err != nil || tag.RowsAffected() == 0 {
			return err
		}
		return addCalls(ctx, tx, kitchen, w.ID, w.StartedAt, calls)
	})
}

func addCalls(ctx context.Context, tx pgx.Tx, kitchen, of uuid.UUID, from time.Time, calls []watch.Call) error {
	for _, c := range calls {
		due := from.Add(time.Duration(c.Due * float64(time.Minute)))
		if _, err := tx.Exec(ctx, `insert into watch_call (id, kitchen_id, watch_id, kind, due_at, says, caution) values ($1, $2, $3, $4, $5, $6, $7)`,
			uuid.New(), kitchen, of, c.Kind, due, c.Says, c.Caution); err != nil {
			return err
		}
	}
	return nil
}

const watchColumns = `id, title, card_id, version, oven_id, question, answer, stages, started_at, out_at, probe, estimate, weighed, speed, doors`

// Watched lists what is in the kitchen's ovens or cooling, in the order it went in, with its calls in the order they are due.
func (s *Store) Watched(ctx context.Context, kitchen uuid.UUID) ([]Watched, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return nil, err
	}
	return s.watched(ctx, `kitchen_id = $1 and ended_at is null`, kitchen)
}

// OneWatched is one dessert of the watch, also one that has ended.
func (s *Store) OneWatched(ctx context.Context, kitchen, id uuid.UUID) (Watched, error) {
	found, err := s.watched(ctx, `kitchen_id = $1 and id = $2`, kitchen, id)
	if err == nil && len(found) == 0 {
		err = ErrNotFound
	}
	if err != nil {
		return Watched{}, err
	}
	return found[0], nil
}

// watched reads those that a condition is true of.
func (s *Store) watched(ctx context.Context, where string, args ...any) ([]Watched, error) {
	rows, err := s.pool.Query(ctx, `select `+watchColumns+` from watch where `+where+` order by started_at, id`, args...)
	if err != nil {
		return nil, kind(err)
	}
	out, err := pgx.CollectRows(rows, func(row pgx.CollectableRow) (Watched, error) {
		w := Watched{Calls: []Call{}}
		err := row.Scan(&w.ID, &w.Title, &w.CardID, &w.Version, &w.OvenID, &w.Question, &w.Answer, &w.Stages, &w.StartedAt, &w.OutAt, &w.Place, &w.Estimate, &w.Weighed, &w.Speed, &w.Doors)
		return w, err
	})
	if err != nil || len(out) == 0 {
		return out, kind(err)
	}
	ids := make([]uuid.UUID, len(out))
	for i, w := range out {
		ids[i] = w.ID
	}
	for i, w := range out {
		if w.Place == "" {
			continue
		}
		if out[i].Readings, err = s.Readings(ctx, w.ID); err != nil {
			return nil, err
		}
	}
	rows, err = s.pool.Query(ctx, `select watch_id, id, kind, due_at, says, caution, state, answered_at, snoozes from watch_call
		where watch_id = any($1) and state <> 'withdrawn' order by due_at, id`, ids)
	if err != nil {
		return nil, kind(err)
	}
	var of uuid.UUID
	var c Call
	_, err = pgx.ForEachRow(rows, []any{&of, &c.ID, &c.Kind, &c.DueAt, &c.Says, &c.Caution, &c.State, &c.AnsweredAt, &c.Snoozes}, func() error {
		i := slices.Index(ids, of)
		out[i].Calls = append(out[i].Calls, c)
		return nil
	})
	return out, kind(err)
}

// AnswerCall notes that a call was done or skipped at a time. Answered twice, by two tablets at once, it stays as it was answered
// first. What is taken out sooner or later than planned moves what comes after it.
func (s *Store) AnswerCall(ctx context.Context, kitchen, of, call uuid.UUID, answer string, at time.Time) error {
	return s.inTx(ctx, func(tx pgx.Tx) error {
		if err := lockWatch(ctx, tx, kitchen, of); err != nil {
			return err
		}
		var was, kind string
		var due time.Time
		if err := tx.QueryRow(ctx, `select state, kind, due_at from watch_call where watch_id = $1 and id = $2`, of, call).Scan(&was, &kind, &due); err != nil {
			return err
		}
		if was != Waiting {
			return nil
		}
		if _, err := tx.Exec(ctx, `update watch_call set state = $2, answered_at = $3 where id = $1`, call, answer, at); err != nil {
			return err
		}
		if kind != watch.TakeOut || answer != Done {
			return nil
		}
		if _, err := tx.Exec(ctx, `update watch set out_at = greatest($2, started_at) where id = $1`, of, at); err != nil {
			return err
		}
		// what was to be done in the oven is over, and the rest begins now
		if _, err := tx.Exec(ctx, `update watch_call set state = 'withdrawn' where watch_id = $1 and state = 'waiting' and kind not in ('fridge', 'ready')`, of); err != nil {
			return err
		}
		_, err := tx.Exec(ctx, `update watch_call set due_at = due_at + ($2::timestamptz - $3::timestamptz) where watch_id = $1 and state = 'waiting'`, of, at, due)
		return err
	})
}

// UndoCall takes an answer back. What was taken out is in again.
func (s *Store) UndoCall(ctx context.Context, kitchen, of, call uuid.UUID) error {
	return s.inTx(ctx, func(tx pgx.Tx) error {
		if err := lockWatch(ctx, tx, kitchen, of); err != nil {
			return err
		}
		var kind string
		var due, at time.Time
		err := tx.QueryRow(ctx, `select kind, due_at, answered_at from watch_call where watch_id = $1 and id = $2 and state in ('done', 'skipped')`, of, call).Scan(&kind, &due, &at)
		if err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, `update watch_call set state = 'waiting', answered_at = null where id = $1`, call); err != nil || kind != watch.TakeOut {
			return err
		}
		if _, err := tx.Exec(ctx, `update watch set out_at = null where id = $1`, of); err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `update watch_call set due_at = due_at - ($2::timestamptz - $3::timestamptz) where watch_id = $1 and state = 'waiting' and kind in ('fridge', 'ready')`, of, at, due)
		return err
	})
}

// SnoozeCall puts a call off until a time.
func (s *Store) SnoozeCall(ctx context.Context, kitchen, of, call uuid.UUID, until time.Time) error {
	return changedOne(s.pool.Exec(ctx, `update watch_call set due_at = greatest(due_at, $4), snoozes = snoozes + 1 where kitchen_id = $1 and watch_id = $2 and id = $3 and state = 'waiting'`,
		kitchen, of, call, until))
}

// ChangeWatch gives what is in the oven other stages from now on: the calls that are to come are withdrawn, and those given come
// in their place. What is overdue still has to be answered, but for the end of the bake, which is another now.
func (s *Store) ChangeWatch(ctx context.Context, kitchen, of uuid.UUID, stages []bake.Stage, calls []watch.Call, now time.Time) error {
	return s.inTx(ctx, func(tx pgx.Tx) error {
		if err := lockWatch(ctx, tx, kitchen, of); err != nil {
			return err
		}
		var from time.Time
		if err := tx.QueryRow(ctx, `update watch set stages = $2 where id = $1 and out_at is null returning started_at`, of, stages).Scan(&from); err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, `update watch_call set state = 'withdrawn' where watch_id = $1 and state = 'waiting'
			and (due_at > $2 or kind in ('take_out', 'fridge', 'ready', 'look'))`, of, now); err != nil {
			return err
		}
		// what is done once was done, or is overdue already
		var turned bool
		if err := tx.QueryRow(ctx, `select exists (select from watch_call where watch_id = $1 and kind = $2 and state <> 'withdrawn')`, of, watch.Turn).Scan(&turned); err != nil {
			return err
		}
		if turned {
			calls = slices.DeleteFunc(slices.Clone(calls), func(c watch.Call) bool { return c.Kind == watch.Turn })
		}
		return addCalls(ctx, tx, kitchen, of, from, calls)
	})
}

// EndWatch takes a dessert off the watch.
func (s *Store) EndWatch(ctx context.Context, kitchen, of uuid.UUID, at time.Time) error {
	return changedOne(s.pool.Exec(ctx, `update watch set ended_at = coalesce(ended_at, $3) where kitchen_id = $1 and id = $2`, kitchen, of, at))
}

// BackOnWatch puts a dessert back on the watch.
func (s *Store) BackOnWatch(ctx context.Context, kitchen, of uuid.UUID) error {
	return changedOne(s.pool.Exec(ctx, `update watch set ended_at = null where kitchen_id = $1 and id = $2`, kitchen, of))
}

// lockWatch holds a dessert of the watch, so that two tablets answer one after the other.
func lockWatch(ctx context.Context, tx pgx.Tx, kitchen, of uuid.UUID) error {
	var id uuid.UUID
	return tx.QueryRow(ctx, `select id from watch where kitchen_id = $1 and id = $2 for update`, kitchen, of).Scan(&id)
}
