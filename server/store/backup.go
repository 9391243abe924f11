package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"mabbin/app"
	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/day"
	"mabbin/core/dish"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/learn"
	"mabbin/core/message"
	"mabbin/core/outcome"
	"mabbin/core/oven"
	"mabbin/core/recipe"
	"mabbin/core/sell"
	"mabbin/core/units"
	"mabbin/core/watch"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgxpool"
)

// table is one table of a kitchen as it is backed up: what is pointed at comes before what points at it.
type table struct {
	name  string
	rows  string                                            // of one kitchen, $1, as JSON
	check func(row map[string]json.RawMessage) fault.Faults // in addition to what the database itself checks
}

func plainRows(name, order string) string {
	return fmt.Sprintf(`select to_jsonb(t) from %s t where kitchen_id = $1 order by %s`, name, order)
}

// tables of a kitchen. Pictures' bytes go in addition to their rows.
var tables = []table{
	{"kitchen", `select to_jsonb(t) from kitchen t where id = $1`, column("containers", checkContainers)},
	{"dish", plainRows("dish", "id"), whole(func(d dish.Dish, f *fault.Faults) { balance.CheckDish(d, "", f) })},
	{"oven", plainRows("oven", "id"), whole(func(o oven.Oven, f *fault.Faults) { o.Check("", f) })},
	{"own_row", plainRows("own_row", "kind, key"), whole(checkOwnRow)},
	{"card", plainRows("card", "id"), column("tags", checkTags)},
	{
		"card_version",
		`select to_jsonb(t) - 'summary' from card_version t where kitchen_id = $1 order by card_id, number`,
		all(column("request", balance.Check), column("stages", bake.CheckStages),
			column[recipe.Original]("original", nil)),
	},
	{"resources", plainRows("resources", "kitchen_id"), column("settings", day.CheckResources)},
	{
		"day",
		plainRows("day", "on_date"),
		all(column("on_date", checkDate), column("request", day.CheckOrders), column[day.Schedule]("schedule", nil)),
	},
	{"stock", plainRows("stock", "kitchen_id"), column("content", checkStock)},
	{"stock_purchase", plainRows("stock_purchase", "id"), column("lines", checkPurchase)},
	{
		"learning", // what was learnt is learnt anew
		`select to_jsonb(t) - '{` + strings.Join(learntColumns, ",") + `}'::text[] from learning t where kitchen_id = $1`,
		column("preferences", learn.CheckPreferences),
	},
	{"learnt", plainRows("learnt", "version"), all(column("version", checkVersion), column[learn.Used]("used", nil))},
	{"countdown", plainRows("countdown", "id"), column("steps", checkSteps)},
	{"picture", `select to_jsonb(t) - 'jpeg' - 'small' from picture t where kitchen_id = $1 order by id`, nil},
	{
		"bake",
		plainRows("bake", "baked_at, id"),
		all(column("request", balance.Check), column[balance.Answer]("result", nil), column("stages", bake.CheckStages),
			column("details", checkDetails), column[outcome.ActualBake]("actual", nil), column[*app.BakeCost]("cost", nil),
			column("version", checkVersion), column("learnt", checkVersion), column("batch", checkBatch)),
	},
	{"bake_correction", plainRows("bake_correction", "id"), column("was", checkOutcome)},
	{
		"watch",
		plainRows("watch", "started_at, id"),
		all(
			column("version", checkVersion),
			column("question", bake.CheckDessert),
			column("answer", checkAnswer),
			column("stages", bake.CheckStages),
			column[*watch.Estimate]("estimate", nil),
			column[*learn.DessertForecast]("forecast", nil),
			column[[]outcome.Weighed]("weighed", nil),
			column[[]watch.Door]("doors", nil),
		),
	},
	{
		"watch_call",
		plainRows("watch_call", "id"),
		all(column[message.Message]("text", nil), column[message.Message]("caution", nil)),
	},
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
				{Pointer: "/" + name, Detail: message.New("does not belong there: {why}", message.Part(message.Of(err)))},
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
			return fault.Faults{{Detail: message.New("does not belong there: {why}", message.Part(message.Of(err)))}}
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
			f.Add("/plan/answer/curves", message.New("have different lengths: each needs one point per minute"))
			break
		}
	}
	return f.Err()
}

func checkContainers(c map[string]float64) error {
	var f fault.Faults
	units.CheckContainers("", c, &f)
	return f.Err()
}

// checkStock checks what a kitchen has in stock. What it has of its own is not known here: any key may be one.
func checkStock(s sell.Stock) error {
	if s.Items == nil || s.Packs == nil {
		return fault.Faults{{Detail: message.New("has no stock or no packs: use an empty list and an empty object")}}
	}
	for key, packs := range s.Packs {
		if packs == nil {
			return fault.Faults{{Pointer: "/packs/" + fault.Key(key), Detail: message.New("is null: remove it")}}
		}
	}
	return amounts(sell.CheckStock(s, nil))
}

func checkPurchase(lines []sell.Line) error {
	return fault.Within("/lines", amounts(sell.CheckPurchase(lines, nil)))
}

// amounts leaves out of faults those of keys.
func amounts(err error) error {
	var faults fault.Faults
	if !errors.As(err, &faults) {
		return err
	}
	return slices.DeleteFunc(faults, func(f fault.Fault) bool {
		return strings.HasSuffix(f.Pointer, "/key")
	}).Err()
}

// checkDate checks the date of a day.
func checkDate(on string) error {
	d, err := time.Parse(time.DateOnly, on)
	if err != nil {
		return fault.Faults{{Detail: message.New("is not a date: use the form 2026-10-17")}}
	}
	var f fault.Faults
	app.CheckMoment("", d, &f)
	return f.Err()
}

// checkVersion checks the number of a version; 0 is that of no version.
func checkVersion(n int64) error {
	var f fault.Faults
	f.Range("", float64(n), 0, math.MaxInt32, "")
	return f.Err()
}

func checkBatch(batch string) error {
	var f fault.Faults
	sell.CheckBatchNumber("", batch, &f)
	return f.Err()
}

// mostSteps is how many calls a countdown has at most.
const mostSteps = 101

// checkSteps checks the calls of a countdown.
func checkSteps(steps []app.CountdownStep) error {
	var f fault.Faults
	f.Length("", "", len(steps), 1, mostSteps)
	for i, x := range steps {
		at := fmt.Sprintf("/%d", i)
		app.CheckMoment(at+"/at", x.At, &f)
		f.OneOf(at+"/state", string(x.State), string(watch.Waiting), string(watch.Done), string(watch.Skipped))
		f.Length(at, "/kind", len(x.Kind), 1, 40)
		if x.Text.IsZero() {
			f.Add(at+"/text", message.New("is missing"))
		}
	}
	return f.Err()
}

func checkTags(tags []string) error {
	_, err := app.TidyTags(tags)
	return fault.Within("/tags", err)
}

func checkOutcome(o app.Outcome) error {
	var f fault.Faults
	o.Details.Check("/details", &f)
	return f.Err()
}

func checkDetails(t outcome.Details) error {
	var f fault.Faults
	t.Check("", &f)
	return f.Err()
}

type ownRow struct {
	Kind      larder.Kind
	Key       string
	CopyOf    string `json:"copy_of"`
	Name      string
	Figures   map[string]float64
	Allergens *[]string
}

func checkOwnRow(r ownRow, f *fault.Faults) {
	row := larder.OwnRow{CopyOf: r.CopyOf, Name: r.Name, Values: r.Figures, Allergens: r.Allergens}
	row.Check("", r.Key, r.Kind, f)
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
	return s.whole(ctx, func(c *pgxpool.Conn) error {
		options := pgx.TxOptions{IsoLevel: pgx.RepeatableRead, AccessMode: pgx.ReadOnly}
		return pgx.BeginTxFunc(ctx, c, options, func(tx pgx.Tx) error {
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
		})
	})
}
