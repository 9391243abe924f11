package store

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"strings"
	"time"

	"mabbin/app"
	"mabbin/core/outcome"
	"mabbin/core/sell"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgxpool"
)

const bakeColumns = `id, title, baked_at, card_id, version, request, result, oven_id, oven_c, minutes, shelf,
	filling_c, dish_c, stages, juice, fruit, top, boiled_over, note, details, actual, picture_id, learnt, batch, cost`

// bakeRead is what scanBake reads.
const bakeRead = bakeColumns + `, (select coalesce(jsonb_agg(jsonb_build_object('at', at, 'was', was)
	order by at desc, id), '[]') from bake_correction where bake_id = bake.id)`

// listedRead is what scanBake reads of a list: results with their figures, and without what they say, which is most
// of them.
var listedRead = strings.Replace(
	bakeRead,
	", result,",
	`, result - '{ledger_lines,remarks,sources,cutting,method,checks,ahead,leftovers,beside}'::text[],`,
	1,
)

// where is the condition on a kitchen's bakes, with its arguments.
func bakesWhere(q app.BakeFilter, kitchen uuid.UUID) (sql string, args []any) {
	sql, args = `kitchen_id = $1`, []any{kitchen}
	also := func(condition string, arg any) {
		args = append(args, arg)
		sql += fmt.Sprintf(" and "+condition, len(args))
	}
	if q.Words != "" {
		also(
			`concat_ws(' ', title, note, batch, details ->> 'made_by', details ->> 'lots') ilike '%%' || $%d || '%%'`,
			likeWords.Replace(q.Words),
		)
	}
	if q.Juice != "" {
		also(`juice = $%d`, q.Juice)
	}
	if q.Oven != nil {
		also(`oven_id = $%d`, *q.Oven)
	}
	return sql, args
}

// likeWords takes the signs of a pattern as they are.
var likeWords = strings.NewReplacer(`\`, `\\`, `%`, `\%`, `_`, `\_`)

// Bakes lists up to limit of the bakes that are sought, the last first; with before, those baked before that one. It
// reports whether there are more. Their results have their figures and tickets, and none of their sentences: OneBake
// has them.
func (s *Store) Bakes(
	ctx context.Context,
	kitchen uuid.UUID,
	q app.BakeFilter,
	before *uuid.UUID,
	limit int,
) (page []app.BakeRecord, more bool, err error) {
	if err := s.known(ctx, kitchen); err != nil {
		return nil, false, err
	}
	sql, args := bakesWhere(q, kitchen)
	if before != nil {
		args = append(args, *before)
		sql += fmt.Sprintf(
			` and (baked_at, id) < (select baked_at, id from bake where kitchen_id = $1 and id = $%d)`,
			len(args),
		)
	}
	args = append(args, limit+1)
	rows, err := s.pool.Query(
		ctx,
		`select `+listedRead+` from bake where `+sql+fmt.Sprintf(` order by baked_at desc, id desc limit $%d`, len(args)),
		args...)
	if err != nil {
		return nil, false, kind(err)
	}
	page, err = pgx.CollectRows(rows, scanBake)
	if len(page) > limit {
		page, more = page[:limit], true
	}
	return page, more, kind(err)
}

// EachLine reads the bakes that are sought, the last first, one after the other.
func (s *Store) EachLine(
	ctx context.Context,
	kitchen uuid.UUID,
	q app.BakeFilter,
	line func(outcome.Line) error,
) error {
	if err := s.known(ctx, kitchen); err != nil {
		return err
	}
	sql, args := bakesWhere(q, kitchen)
	return s.whole(ctx, func(c *pgxpool.Conn) error {
		rows, err := c.Query(
			ctx,
			`select title, baked_at, coalesce(batch, ''), version, coalesce((select name from oven where id = oven_id), ''),
				coalesce(result #>> '{set,band}', ''),
			oven_c, minutes, juice, fruit, top, boiled_over, details, note from bake where `+sql+`
			order by baked_at desc, id desc`,
			args...)
		if err != nil {
			return err
		}
		var l outcome.Line
		var details []byte
		_, err = pgx.ForEachRow(
			rows,
			[]any{
				&l.Title,
				&l.BakedAt,
				&l.Batch,
				&l.Version,
				&l.Oven,
				&l.Predicted,
				&l.OvenC,
				&l.Minutes,
				&l.Juice,
				&l.Fruit,
				&l.Top,
				&l.BoiledOver,
				&details,
				&l.Note,
			},
			func() error {
				l.Details = outcome.Details{}
				_ = decoded(map[string]kept{"details": {details, &l.Details}}) // what can't be read is not reported
				return line(l)
			},
		)
		return err
	})
}

func scanBake(row pgx.CollectableRow) (app.BakeRecord, error) {
	var b app.BakeRecord
	var request, result, stages, details, actual, cost, corrections []byte
	var batch *string
	var learnt *int
	err := row.Scan(
		&b.ID,
		&b.Title,
		&b.BakedAt,
		&b.CardID,
		&b.Version,
		&request,
		&result,
		&b.OvenID,
		&b.OvenC,
		&b.Minutes,
		&b.Shelf,
		&b.FillingC,
		&b.DishC,
		&stages,
		&b.Juice,
		&b.Fruit,
		&b.Top,
		&b.BoiledOver,
		&b.Note,
		&details,
		&actual,
		&b.Picture,
		&learnt,
		&batch,
		&cost,
		&corrections,
	)
	if batch != nil {
		b.Batch = *batch
	}
	if learnt != nil {
		b.Learnt = *learnt
	}
	b.Unusable = decoded(map[string]kept{
		"request": {request, &b.Request}, "result": {result, &b.Result}, "stages": {stages, &b.Stages},
		"details": {details, &b.Details}, "actual": {actual, &b.Happened}, "corrections": {corrections, &b.Corrections},
		"cost": {cost, &b.Cost},
	})
	return b, err
}

// BatchesOn are the batch numbers of a day, each with the card that was baked.
func (s *Store) BatchesOn(ctx context.Context, kitchen uuid.UUID, on time.Time) ([]app.Batch, error) {
	rows, err := s.pool.Query(
		ctx,
		`select batch, card_id from bake where kitchen_id = $1 and batch like $2 || '-%' order by baked_at, id`,
		kitchen,
		sell.BatchPrefix(on),
	)
	if err != nil {
		return nil, kind(err)
	}
	out, err := pgx.CollectRows(rows, pgx.RowToStructByPos[app.Batch])
	return out, kind(err)
}

// mostTries is how often a bake looks for a free batch number: those of an archive may have gaps.
const mostTries = 20

// insertBake writes a bake under the day's next batch number. It reports whether it did: false means that a bake with
// this id exists already.
func insertBake(ctx context.Context, tx pgx.Tx, kitchen uuid.UUID, b app.BakeRecord) (inserted bool, err error) {
	on := b.BakedAt.Local()
	for try := range mostTries {
		var n int
		var there bool
		if err := tx.QueryRow(
			ctx,
			`select (select count(*) from bake where kitchen_id = $1 and batch like $2 || '-%'),
				exists (select from bake where id = $3)`,
			kitchen,
			sell.BatchPrefix(on),
			b.ID,
		).Scan(&n, &there); err != nil || there {
			return false, err
		}
		tag, err := tx.Exec(
			ctx,
			`insert into bake (kitchen_id, `+bakeColumns+`) values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13,
				$14, $15, $16, $17, $18, $19, $20, $21, $22, $23, $24, $25, $26)
			on conflict do nothing`,
			kitchen,
			b.ID,
			b.Title,
			b.BakedAt,
			b.CardID,
			b.Version,
			b.Request,
			b.Result,
			b.OvenID,
			b.OvenC,
			b.Minutes,
			b.Shelf,
			b.FillingC,
			b.DishC,
			b.Stages,
			b.Juice,
			b.Fruit,
			b.Top,
			b.BoiledOver,
			b.Note,
			b.Details,
			b.Happened,
			b.Picture,
			b.Learnt,
			sell.BatchNumber(on, n+try),
			b.Cost,
		)
		if err != nil || tag.RowsAffected() > 0 {
			return err == nil, err
		}
	}
	return false, nil
}

// AddBake logs a bake and takes what it used out of the stock, in one transaction that locks the kitchen. The same id
// twice is the same bake and uses nothing twice; another bake under it is an app.Conflict.
func (s *Store) AddBake(
	ctx context.Context, kitchen uuid.UUID, b app.BakeRecord, takeOut func(sell.Stock) sell.Stock,
) (app.BakeRecord, error) {
	inserted := false
	err := s.holding(ctx, kitchen, func(tx pgx.Tx) (err error) {
		if inserted, err = insertBake(ctx, tx, kitchen, b); err != nil || !inserted {
			return err
		}
		if err := logChanged(ctx, tx, kitchen); err != nil || takeOut == nil {
			return err
		}
		stock, err := stockOf(ctx, tx, kitchen)
		if err != nil || len(stock.Items) == 0 {
			return err
		}
		_, err = tx.Exec(ctx, writeStock, kitchen, takeOut(stock))
		return err
	})
	if err != nil {
		return app.BakeRecord{}, err
	}
	there, err := s.OneBake(ctx, kitchen, b.ID)
	if errors.Is(err, app.ErrNotFound) {
		return there, app.ErrIDInUse
	}
	if err != nil || inserted {
		return there, err
	}
	first := there.Outcome // as it was reported when the bake was logged
	if n := len(there.Corrections); n > 0 {
		first = there.Corrections[n-1].Was
	}
	return there, app.Same(
		[]any{b.Title, b.BakedAt.UnixMicro(), b.Request, b.Setting, b.Outcome},
		[]any{there.Title, there.BakedAt.UnixMicro(), there.Request, there.Setting, first},
		there,
	)
}

// OneBake is one bake of the log.
func (s *Store) OneBake(ctx context.Context, kitchen, id uuid.UUID) (app.BakeRecord, error) {
	rows, err := s.pool.Query(ctx, `select `+bakeRead+` from bake where kitchen_id = $1 and id = $2`, kitchen, id)
	if err != nil {
		return app.BakeRecord{}, kind(err)
	}
	b, err := pgx.CollectExactlyOneRow(rows, scanBake)
	if err == nil && b.Unusable != nil {
		err = fmt.Errorf("%w: %w", app.ErrUnusable, b.Unusable)
	}
	return b, kind(err)
}

// CorrectBake puts right what was reported of a bake, and keeps what was reported until then. The same correction twice
// is the same one; another correction under its id is an app.Conflict.
func (s *Store) CorrectBake(
	ctx context.Context,
	kitchen, id, correction uuid.UUID,
	now app.Outcome,
	at time.Time,
	when app.Precondition,
) (app.BakeRecord, error) {
	var changed error
	err := s.holding(ctx, kitchen, func(tx pgx.Tx) error {
		var was app.Outcome
		err := tx.QueryRow(ctx, `select juice, fruit, top, boiled_over, note, details, picture_id from bake
			where kitchen_id = $1 and id = $2 for update`, kitchen, id).
			Scan(&was.Juice, &was.Fruit, &was.Top, &was.BoiledOver, &was.Note, &was.Details, &was.Picture)
		if err != nil {
			return err
		}
		tag, err := tx.Exec(
			ctx,
			`insert into bake_correction (id, kitchen_id, bake_id, picture_id, at, was) values ($1, $2, $3, $4,
				greatest($5, (select max(at) + interval '1 microsecond' from bake_correction where bake_id = $3)), $6)
				on conflict do nothing`, // after those before it, whatever the clock tells
			correction,
			kitchen,
			id,
			was.Picture,
			at,
			was,
		)
		if err != nil {
			return err
		}
		if tag.RowsAffected() == 0 {
			return sameCorrection(ctx, tx, id, correction, now, was)
		}
		if changed = when.Holds(app.BakeRecord{Outcome: was}); changed != nil {
			return changed
		}
		_, err = tx.Exec(
			ctx,
			`update bake set juice = $3, fruit = $4, top = $5, boiled_over = $6, note = $7, details = $8, picture_id = $9
				where kitchen_id = $1 and id = $2`,
			kitchen,
			id,
			now.Juice,
			now.Fruit,
			now.Top,
			now.BoiledOver,
			now.Note,
			now.Details,
			now.Picture,
		)
		if err != nil {
			return err
		}
		return logChanged(ctx, tx, kitchen)
	})
	var conflict *app.Conflict
	if errors.As(err, &conflict) {
		b, failed := s.OneBake(ctx, kitchen, id)
		return b, cmp.Or(failed, error(&app.Conflict{Stored: b, Changed: changed != nil}))
	}
	if err != nil {
		return app.BakeRecord{}, err
	}
	return s.OneBake(ctx, kitchen, id)
}

// sameCorrection is an app.Conflict where a correction that is kept has reported something else, or of another bake.
func sameCorrection(ctx context.Context, tx pgx.Tx, bake, correction uuid.UUID, sent, now app.Outcome) error {
	reported, err := oneBy(ctx, tx, pgx.RowTo[app.Outcome], `select coalesce((select next.was from bake_correction next
		where next.bake_id = this.bake_id and next.at > this.at order by next.at limit 1), $3::jsonb)
		from bake_correction this where this.id = $1 and this.bake_id = $2`, correction, bake, now)
	if errors.Is(err, app.ErrNotFound) {
		return &app.Conflict{}
	}
	if err != nil {
		return err
	}
	return app.Same(sent, reported, nil)
}
