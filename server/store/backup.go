package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	"mabbin/app"
	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/outcome"
	"mabbin/core/watch"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
)

// table is one table of a kitchen as it is backed up: what is pointed at comes before what points at it.
type table struct {
	name  string
	rows  string                                            // of one kitchen, $1, as JSON
	check func(row map[string]json.RawMessage) fault.Faults // beside what the database itself checks
}

func plainRows(name, order string) string {
	return fmt.Sprintf(`select to_jsonb(t) from %s t where kitchen_id = $1 order by %s`, name, order)
}

// tables of a kitchen. Pictures' bytes go beside their rows.
var tables = []table{
	{"kitchen", `select to_jsonb(t) from kitchen t where id = $1`, column[map[string]float64]("containers", nil)},
	{"dish", plainRows("dish", "id"), whole(func(d dish.Dish, f *fault.Faults) { balance.CheckDish(d, "", f) })},
	{"oven", plainRows("oven", "id"), nil},
	{"own_row", plainRows("own_row", "kind, key"), whole(checkOwnRow)},
	{"card", plainRows("card", "id"), nil},
	{
		"card_version",
		plainRows("card_version", "card_id, number"),
		all(column("request", balance.Check), column("stages", bake.CheckStages)),
	},
	{"picture", `select to_jsonb(t) - 'jpeg' - 'small' from picture t where kitchen_id = $1 order by id`, nil},
	{
		"bake",
		plainRows("bake", "baked_at, id"),
		all(column("request", balance.Check), column[balance.Answer]("result", nil), column("stages", bake.CheckStages),
			column("told", checkTold), column[outcome.Happened]("happened", nil)),
	},
	{"bake_correction", plainRows("bake_correction", "id"), column[app.Outcome]("was", nil)},
	{
		"watch",
		plainRows("watch", "started_at, id"),
		all(
			column("question", bake.CheckDessert),
			column("answer", checkAnswer),
			column("stages", bake.CheckStages),
			column[[]outcome.Weighed]("weighed", nil),
			column[[]watch.Door]("doors", nil),
		),
	},
	{"watch_call", plainRows("watch_call", "id"), nil},
	{
		"watch_reading",
		`select to_jsonb(t) from watch_reading t where watch_id in (select id from watch where kitchen_id = $1)
			order by watch_id, minute`,
		nil,
	},
}

// Tables are the names of what is backed up, in their order.
func Tables() []string {
	out := make([]string, len(tables))
	for i, t := range tables {
		out[i] = t.name
	}
	return out
}

type rowCheck = func(map[string]json.RawMessage) fault.Faults

// column checks that a column of JSON is what the program reads it as; null is left alone.
func column[T any](name string, check func(T) error) rowCheck {
	return func(row map[string]json.RawMessage) fault.Faults {
		raw, ok := row[name]
		if !ok || string(raw) == "null" {
			return nil
		}
		var v T
		if err := json.Unmarshal(raw, &v); err != nil {
			return fault.Faults{
				{Pointer: "/" + name, Detail: message.New("is not what belongs there: {why}", message.Part(message.Of(err)))},
			}
		}
		if check == nil {
			return nil
		}
		var f fault.Faults
		f.Under("/"+name, check(v))
		return f
	}
}

// whole checks a row as one thing.
func whole[T any](check func(T, *fault.Faults)) rowCheck {
	return func(row map[string]json.RawMessage) (f fault.Faults) {
		raw, err := json.Marshal(row)
		var v T
		if err == nil {
			err = json.Unmarshal(raw, &v)
		}
		if err != nil {
			return fault.Faults{{Detail: message.New("is not what belongs there: {why}", message.Part(message.Of(err)))}}
		}
		check(v, &f)
		return f
	}
}

func all(checks ...rowCheck) rowCheck {
	return func(row map[string]json.RawMessage) (f fault.Faults) {
		for _, c := range checks {
			f = append(f, c(row)...)
		}
		return f
	}
}

// checkAnswer finds what would stop whoever reads on from what was predicted: a plan without stages or without curves.
func checkAnswer(a bake.DessertAnswer) error {
	var f fault.Faults
	f.Under("/plan/stages", bake.CheckStages(a.Plan.Stages))
	c := a.Plan.Answer.Curves
	n := len(c.Minute)
	for _, curve := range [][]float64{c.MiddleC, c.ColdestC, c.RimC, c.SurfaceC, c.FloorC, c.Fruit, c.Colour, c.Base} {
		if n == 0 || len(curve) != n {
			f.Add("/plan/answer/curves", message.New("are not of one length: each has a point for each minute"))
			break
		}
	}
	return f.Err()
}

func checkTold(t outcome.Told) error {
	var f fault.Faults
	t.Check("", &f)
	return f.Err()
}

type ownRow struct {
	Kind, Key string
	CopyOf    string `json:"copy_of"`
	Name      string
	Figures   map[string]float64
	Allergens *[]string
}

func checkOwnRow(r ownRow, f *fault.Faults) {
	larder.OwnRow{CopyOf: r.CopyOf, Name: r.Name, Values: r.Figures, Allergens: r.Allergens}.Check("", r.Key, r.Kind, f)
}

// BackUp reads a whole kitchen as it is at one moment: every row of every table, in order, and after it the pictures.
func (s *Store) BackUp(
	ctx context.Context,
	kitchen uuid.UUID,
	row func(table string, row json.RawMessage) error,
	picture func(app.Picture) error,
) error {
	if err := s.known(ctx, kitchen); err != nil {
		return err
	}
	return kind(
		pgx.BeginTxFunc(
			ctx,
			s.pool,
			pgx.TxOptions{IsoLevel: pgx.RepeatableRead, AccessMode: pgx.ReadOnly},
			func(tx pgx.Tx) error {
				for _, t := range tables {
					rows, err := tx.Query(ctx, t.rows, kitchen)
					if err != nil {
						return err
					}
					var raw json.RawMessage
					if _, err := pgx.ForEachRow(rows, []any{&raw}, func() error { return row(t.name, raw) }); err != nil {
						return err
					}
				}
				rows, err := tx.Query(
					ctx,
					`select id, width, height, jpeg, small from picture where kitchen_id = $1 order by id`,
					kitchen,
				)
				if err != nil {
					return err
				}
				var p app.Picture
				_, err = pgx.ForEachRow(
					rows,
					[]any{&p.ID, &p.Width, &p.Height, &p.JPEG, &p.Small},
					func() error { return picture(p) },
				)
				return err
			},
		),
	)
}

// Backed is a kitchen's archive as it is read: every table's rows in their order, and pictures by their ids.
type Backed interface {
	// Form is the version of its rows.
	Form() int
	// Rows hands over the rows of a table; none where it is not there.
	Rows(table string, row func(json.RawMessage) error) error
	Picture(id string) (jpeg, small []byte, err error)
}

// Restore makes a kitchen of an archive, all of it or nothing. Where the kitchen is here already, a second one is
// made beside it, with ids of its own. What is wrong with the archive is fault.Faults.
func (s *Store) Restore(ctx context.Context, from Backed, asNew func(name string) string) (app.Kitchen, error) {
	var k app.Kitchen
	err := s.inTx(ctx, func(tx pgx.Tx) error {
		r := restoring{tx: tx, from: from, asNew: asNew, watches: map[uuid.UUID]bool{}}
		for _, t := range tables {
			if err := r.table(ctx, t); err != nil {
				return err
			}
		}
		if r.kitchen == uuid.Nil {
			return fault.Faults{{Pointer: "/kitchen", Detail: message.New("there is no kitchen in it")}}
		}
		k.ID = r.kitchen
		return nil
	})
	if errors.Is(err, app.ErrRefused) || errors.Is(err, app.ErrTaken) {
		return k, fault.Faults{
			{Detail: message.New("something in it does not fit together: {why}", message.Part(message.Of(err)))},
		}
	}
	if err != nil {
		return k, err
	}
	return s.OneKitchen(ctx, k.ID)
}

// restoring is an archive on its way in.
type restoring struct {
	tx      pgx.Tx
	from    Backed
	asNew   func(name string) string
	kitchen uuid.UUID // as it is here
	was     uuid.UUID // as it is in the archive
	watches map[uuid.UUID]bool
}

// mostFaults is how many wrong rows are told before the rest is left unread.
const mostFaults = 10

func (r *restoring) table(ctx context.Context, t table) error {
	known, err := r.columns(ctx, t.name)
	if err != nil {
		return err
	}
	n := -1
	var wrong fault.Faults
	err = r.from.Rows(t.name, func(raw json.RawMessage) error {
		n++
		at := fmt.Sprintf("/%s/%d", t.name, n)
		var row columns
		if err := json.Unmarshal(raw, &row); err != nil || row == nil {
			wrong.Add(at, message.New("is no row"))
			return wrong
		}
		if len(row) == 0 {
			wrong.Add(at, message.New("is an empty row"))
			return wrong
		}
		for c, value := range row {
			kind, ok := known[c]
			if !ok {
				wrong.Add(at+"/"+c, message.New("is not known here: the archive is from a newer Mabbin"))
				return wrong
			}
			if kind == "timestamp with time zone" {
				checkMoment(at+"/"+c, value, &wrong)
			}
		}
		lift(r.from.Form(), t.name, row)
		if t.check != nil {
			if wrong.Under(at, t.check(row).Err()); len(wrong) > mostFaults {
				return wrong
			}
		}
		if len(wrong) > 0 {
			return nil
		}
		var was string // pictures' files keep their names
		_ = json.Unmarshal(row["id"], &was)
		if err := r.own(ctx, t.name, row, at); err != nil {
			return err
		}
		return r.insert(ctx, t.name, row, was, at)
	})
	if err == nil {
		err = wrong.Err()
	}
	return err
}

// The years that a moment of a kitchen may be of: what lies outside stops lists and clocks.
const (
	firstYear = 1970
	lastYear  = 2200
)

// checkMoment notes a moment that no clock has told: infinity, a year of another age, a word.
func checkMoment(at string, raw json.RawMessage, f *fault.Faults) {
	if string(raw) == "null" {
		return
	}
	var moment time.Time
	if err := json.Unmarshal(raw, &moment); err != nil || moment.Year() < firstYear || moment.Year() > lastYear {
		f.Add(at, message.New("is no moment of the years {from} to {to}: give one as in {example}",
			message.Count(firstYear), message.Count(lastYear), message.Text("2026-10-01T12:00:00Z")))
	}
}

// columns are a table's columns and of which type each is.
func (r *restoring) columns(ctx context.Context, name string) (map[string]string, error) {
	rows, err := r.tx.Query(
		ctx,
		`select column_name::text, data_type::text from information_schema.columns
			where table_schema = current_schema() and table_name = $1`,
		name,
	)
	if err != nil {
		return nil, err
	}
	out := map[string]string{}
	var column, kind string
	_, err = pgx.ForEachRow(rows, []any{&column, &kind}, func() error {
		out[column] = kind
		return nil
	})
	return out, err
}

// own makes a row the restored kitchen's: its ids are other ones where the kitchen is a second one, and it can belong
// to no other kitchen.
func (r *restoring) own(ctx context.Context, name string, row map[string]json.RawMessage, at string) error {
	id := func(c string) (uuid.UUID, error) {
		var x uuid.UUID
		if err := json.Unmarshal(row[c], &x); err != nil {
			return x, fault.Faults{{Pointer: at + "/" + c, Detail: message.New("is no id")}}
		}
		return x, nil
	}
	if name == "kitchen" {
		if r.was != uuid.Nil {
			return fault.Faults{{Pointer: at, Detail: message.New("is a second kitchen: an archive holds one")}}
		}
		var err error
		if r.was, err = id("id"); err != nil {
			return err
		}
		r.kitchen = r.was
		var here bool
		if err := r.tx.QueryRow(ctx, `select exists (select from kitchen where id = $1)`, r.was).Scan(&here); err != nil {
			return err
		}
		if here {
			r.kitchen = uuid.New()
			var title string
			_ = json.Unmarshal(row["name"], &title)
			row["name"], _ = json.Marshal(r.asNew(title))
		}
	} else if _, has := row["kitchen_id"]; has {
		x, err := id("kitchen_id")
		if err != nil {
			return err
		}
		if x != r.was || r.was == uuid.Nil {
			return fault.Faults{{Pointer: at + "/kitchen_id", Detail: message.New("is another kitchen's")}}
		}
	}
	switch name {
	case "watch":
		x, err := id("id")
		if err != nil {
			return err
		}
		r.watches[x] = true
	case "watch_reading": // which has no kitchen of its own
		if x, err := id("watch_id"); err != nil || !r.watches[x] {
			return fault.Faults{{Pointer: at + "/watch_id", Detail: message.New("is not on this kitchen's watch")}}
		}
	}
	if r.kitchen == r.was {
		return nil
	}
	for c, raw := range row {
		if c != "id" && !strings.HasSuffix(c, "_id") || string(raw) == "null" {
			continue
		}
		x, err := id(c)
		if err != nil {
			return err
		}
		row[c], _ = json.Marshal(r.here(x))
	}
	return nil
}

// here is the id that something of the archive has in this kitchen: the same for the same each time.
func (r *restoring) here(x uuid.UUID) uuid.UUID {
	switch {
	case x == r.was:
		return r.kitchen
	case r.kitchen == r.was:
		return x
	}
	return uuid.NewSHA1(r.kitchen, x[:])
}

func (r *restoring) insert(ctx context.Context, name string, row map[string]json.RawMessage, was, at string) error {
	args := []any{nil}
	cols := slices.Sorted(maps.Keys(row))
	values := slices.Clone(cols)
	if name == "picture" {
		jpeg, small, err := r.from.Picture(was)
		if err != nil {
			return fault.Faults{
				{Pointer: at, Detail: message.New("its picture is missing: {why}", message.Part(message.Of(err)))},
			}
		}
		cols, values = append(cols, "jpeg", "small"), append(values, "$2", "$3")
		args = append(args, jpeg, small)
	}
	raw, err := json.Marshal(row)
	if err != nil {
		return err
	}
	args[0] = raw
	_, err = r.tx.Exec(ctx, fmt.Sprintf(`insert into %s (%s) select %s from jsonb_populate_record(null::%s, $1)`,
		name, strings.Join(cols, ", "), strings.Join(values, ", "), name), args...)
	var pg *pgconn.PgError
	if errors.As(err, &pg) && pg.Code[:2] == "22" { // a value that its column does not take
		return fault.Faults{{Pointer: at, Detail: message.New("has a value that does not belong there: {why}",
			message.Text(pg.Message))}}
	}
	if err != nil {
		return fmt.Errorf("%s: %w", at, kind(err))
	}
	return nil
}
