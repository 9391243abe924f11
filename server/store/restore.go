package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"
	"time"

	"mabbin/app"
	"mabbin/core/fault"
	"mabbin/core/message"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/pgxpool"
)

// Backed is a kitchen's archive as it is read: every table's rows in their order, and pictures by their ids.
type Backed interface {
	// Form is the version of its rows.
	Form() int
	// Rows hands over the rows of a table; none where it is not there.
	Rows(table string, row func(json.RawMessage) error) error
	// Picture is a picture as it may be kept, and nothing in it but what is seen.
	Picture(id string) (app.Picture, error)
}

// Restored is the kitchen that a piece of work has made, if it has.
func (s *Store) Restored(ctx context.Context, work uuid.UUID) (app.Kitchen, error) {
	var id uuid.UUID
	if err := s.pool.QueryRow(ctx, `select kitchen_id from restored where work_id = $1`, work).Scan(&id); err != nil {
		return app.Kitchen{}, kind(err)
	}
	return s.OneKitchen(ctx, id)
}

// Restore makes a kitchen of an archive, all of it or nothing, under the id of the piece of work: done twice it is done
// once. Where the kitchen is here already, a second one is made in addition to it, with ids of its own; where it is
// being restored just now, it is app.ErrUnderWay. What is wrong with the archive is fault.Faults.
func (s *Store) Restore(
	ctx context.Context, work uuid.UUID, from Backed, asNew func(name string) string,
) (app.Kitchen, error) {
	if k, err := s.Restored(ctx, work); !errors.Is(err, app.ErrNotFound) {
		return k, err
	}
	// everything is checked before anything is begun: a transaction stays open no longer than it must
	check := checking{from: from}
	for _, t := range tables {
		known, err := s.columns(ctx, t.name)
		if err != nil {
			return app.Kitchen{}, err
		}
		if err := check.table(t, known); err != nil {
			return app.Kitchen{}, err
		}
	}
	if check.kitchens == 0 {
		return app.Kitchen{}, fault.Faults{{Pointer: "/kitchen", Detail: message.New("there is no kitchen in it")}}
	}
	var k app.Kitchen
	err := s.whole(ctx, func(c *pgxpool.Conn) error {
		return pgx.BeginFunc(ctx, c, func(tx pgx.Tx) error {
			r := restoring{tx: tx, from: from, asNew: asNew, watches: map[uuid.UUID]bool{}}
			for _, t := range tables {
				if err := r.table(ctx, t); err != nil {
					return err
				}
			}
			k.ID = r.kitchen
			_, err := tx.Exec(ctx, `insert into restored (work_id, kitchen_id) values ($1, $2)`, work, r.kitchen)
			return err
		})
	})
	if errors.Is(err, app.ErrRefused) || errors.Is(err, app.ErrNameInUse) {
		if k, already := s.Restored(ctx, work); already == nil { // by another who was sent the same
			return k, nil
		}
		return k, fault.Faults{
			{Detail: message.New("its parts do not fit together: {why}", message.Part(message.Of(err)))},
		}
	}
	if err != nil {
		return k, err
	}
	return s.OneKitchen(ctx, k.ID)
}

// mostFaults is how many wrong rows are reported before the rest is left unread.
const mostFaults = 10

// checking reads an archive through once, and keeps nothing.
type checking struct {
	from     Backed
	kitchens int
}

// table checks each row of a table by the rules that the program keeps such a thing by.
func (c *checking) table(t table, known map[string]string) error {
	n := -1
	var wrong fault.Faults
	err := c.from.Rows(tableIn(c.from.Form(), t.name), func(raw json.RawMessage) error {
		n++
		at := fmt.Sprintf("/%s/%d", t.name, n)
		row, err := c.row(t, raw, at, known)
		if err != nil {
			return errors.Join(append(wrong, err...).Err())
		}
		if t.name == "kitchen" {
			c.kitchens++
		}
		if t.check != nil {
			wrong.Under(at, t.check(row).Err())
		}
		if len(wrong) > mostFaults {
			return wrong
		}
		return nil
	})
	if err == nil {
		err = wrong.Err()
	}
	return err
}

// row is a row as today's program has it; where it is none, it is faults.
func (c *checking) row(t table, raw json.RawMessage, at string, known map[string]string) (columns, fault.Faults) {
	var wrong fault.Faults
	var row columns
	if err := json.Unmarshal(raw, &row); err != nil || row == nil {
		wrong.Add(at, message.New("is not a row"))
		return nil, wrong
	}
	if len(row) == 0 {
		wrong.Add(at, message.New("is an empty row"))
		return nil, wrong
	}
	for name, value := range row {
		kind, ok := known[name]
		if !ok {
			wrong.Add(at+"/"+name, message.New("is unknown: the archive is from a newer version of Mabbin"))
			return nil, wrong
		}
		switch kind {
		case "timestamp with time zone":
			checkMoment(at+"/"+name, value, &wrong)
		case "real", "double precision", "integer": // the database takes the words infinity and NaN for numbers
			var number *float64
			if json.Unmarshal(value, &number) != nil {
				wrong.Add(at+"/"+name, message.New("is not a number"))
			}
		}
	}
	lift(c.from.Form(), t.name, row)
	return row, wrong
}

// restoring is an archive on its way in, that has been checked.
type restoring struct {
	tx      pgx.Tx
	from    Backed
	asNew   func(name string) string
	kitchen uuid.UUID // as it is here
	was     uuid.UUID // as it is in the archive
	watches map[uuid.UUID]bool
}

func (r *restoring) table(ctx context.Context, t table) error {
	n := -1
	return r.from.Rows(tableIn(r.from.Form(), t.name), func(raw json.RawMessage) error {
		n++
		at := fmt.Sprintf("/%s/%d", t.name, n)
		var row columns
		if err := json.Unmarshal(raw, &row); err != nil {
			return err
		}
		lift(r.from.Form(), t.name, row)
		switch t.name { // what is computed is computed again
		case "card_version":
			delete(row, "summary")
		case "learning":
			for _, column := range learntColumns {
				delete(row, column)
			}
		}
		var was string // pictures' files keep their names
		_ = json.Unmarshal(row["id"], &was)
		if err := r.own(ctx, t.name, row, at); err != nil {
			return err
		}
		return r.insert(ctx, t.name, row, was, at)
	})
}

// checkMoment notes a moment that no clock has reported: infinity, a year of another age, a word.
func checkMoment(at string, raw json.RawMessage, f *fault.Faults) {
	if string(raw) == "null" {
		return
	}
	var moment time.Time
	_ = json.Unmarshal(raw, &moment) // what is none is of the first year of all
	app.CheckMoment(at, moment, f)
}

// columns are a table's columns and of which type each is.
func (s *Store) columns(ctx context.Context, name string) (map[string]string, error) {
	rows, err := s.pool.Query(
		ctx,
		`select column_name::text, data_type::text from information_schema.columns
			where table_schema = current_schema() and table_name = $1`,
		name,
	)
	if err != nil {
		return nil, kind(err)
	}
	out := map[string]string{}
	var column, of string
	_, err = pgx.ForEachRow(rows, []any{&column, &of}, func() error {
		out[column] = of
		return nil
	})
	return out, kind(err)
}

// own makes a row the restored kitchen's: its ids are other ones where the kitchen is a second one, and it can belong
// to no other kitchen.
func (r *restoring) own(ctx context.Context, name string, row map[string]json.RawMessage, at string) error {
	id := func(c string) (uuid.UUID, error) {
		var x uuid.UUID
		if err := json.Unmarshal(row[c], &x); err != nil {
			return x, fault.Faults{{Pointer: at + "/" + c, Detail: message.New("is not an id")}}
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
		var mine bool // of two at once the second would wait for the first, and then be made of nothing new
		if err := r.tx.QueryRow(ctx, `select pg_try_advisory_xact_lock(hashtextextended($1, 0))`, r.was.String()).
			Scan(&mine); err != nil {
			return err
		}
		if !mine {
			return app.ErrRunning
		}
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
			return fault.Faults{{Pointer: at + "/kitchen_id", Detail: message.New("belongs to another kitchen")}}
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
			return fault.Faults{{Pointer: at + "/watch_id", Detail: message.New("is not on this kitchen's Watch")}}
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
	switch name { // ids within
	case "resources":
		within(row, "settings", func(settings columns) { r.each(settings, "ovens", "oven") })
	case "learning":
		within(row, "preferences", func(text columns) {
			r.each(text, "changed", "oven")
			r.each(text, "off", "key")
			var left []string
			if json.Unmarshal(text["left_out"], &left) == nil {
				for i := range left {
					left[i] = r.hereText(left[i])
				}
				text["left_out"], _ = json.Marshal(left)
			}
		})
	case "learnt":
		within(row, "used", func(used columns) {
			within(used, "ovens", func(ovens columns) {
				for key, o := range maps.Clone(ovens) {
					delete(ovens, key)
					ovens[r.hereText(key)] = o
				}
			})
		})
	case "day":
		within(row, "request", func(request columns) { r.each(request, "orders", "card") })
		delete(row, "schedule") // it is planned again
	}
	if name == "bake_correction" { // the picture that it had before
		within(row, "was", func(was columns) {
			var x uuid.UUID
			if json.Unmarshal(was["picture_id"], &x) == nil {
				was["picture_id"], _ = json.Marshal(r.here(x))
			}
		})
	}
	return nil
}

// each gives the things of a list the ids that they have here.
func (r *restoring) each(in columns, list, field string) {
	var all []columns
	if json.Unmarshal(in[list], &all) != nil {
		return
	}
	for _, x := range all {
		var id uuid.UUID
		if json.Unmarshal(x[field], &id) == nil {
			x[field], _ = json.Marshal(r.here(id))
		}
	}
	in[list], _ = json.Marshal(all)
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

// hereText is the same of an id that is a text; another text stays.
func (r *restoring) hereText(x string) string {
	id, err := uuid.Parse(x)
	if err != nil {
		return x
	}
	return r.here(id).String()
}

func (r *restoring) insert(ctx context.Context, name string, row map[string]json.RawMessage, was, at string) error {
	args := []any{nil}
	cols := slices.Sorted(maps.Keys(row))
	values := slices.Clone(cols)
	if name == "picture" {
		p, err := r.from.Picture(was)
		if errors.Is(err, context.Canceled) || errors.Is(err, context.DeadlineExceeded) {
			return err
		}
		if err != nil {
			return fault.Faults{
				{Pointer: at, Detail: message.New("its picture can't be used: {why}", message.Part(message.Of(err)))},
			}
		}
		row["width"], row["height"] = json.RawMessage(strconv.Itoa(p.Width)), json.RawMessage(strconv.Itoa(p.Height))
		cols = slices.Sorted(maps.Keys(row))
		cols, values = append(cols, "jpeg", "small"), append(slices.Clone(cols), "$2", "$3")
		args = append(args, p.JPEG, p.Small)
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
		return fault.Faults{{Pointer: at, Detail: message.New("has an invalid value: {why}",
			message.Text(pg.Message))}}
	}
	if err != nil {
		return fmt.Errorf("%s: %w", at, kind(err))
	}
	return nil
}
