package httpapi

import (
	"context"
	"math"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"mabbin/server/store"
	"mabbin/server/store/storetest"
	"mabbin/server/wire"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/jackc/pgx/v5"
)

// sentAs names the property of the contract that a column is filled from: by table and column, the schema and the
// property. A column that is not sent but computed is not here.
var sentAs = map[string]string{
	"kitchen.currency":       "Settings.currency",
	"kitchen.altitude_m":     "Settings.altitude_m",
	"dish.name":              "NewDish.name",
	"dish.count":             "NewDish.count",
	"dish.length_cm":         "Dish.length_cm",
	"dish.depth_cm":          "Dish.depth_cm",
	"dish.measured_ml":       "Dish.measured_ml",
	"oven.name":              "OvenChange.name",
	"oven.offset_c":          "Oven.offset_c",
	"oven.give_or_take_c":    "Oven.give_or_take_c",
	"oven.runners":           "Oven.runners",
	"card.name":              "NewCard.name",
	"card_version.oven_c":    "Setting.oven_c",
	"card_version.minutes":   "Setting.minutes",
	"card_version.filling_c": "Setting.filling_c",
	"card_version.dish_c":    "Setting.dish_c",
	"card_version.note":      "NewCard.note",
	"bake.title":             "NewBake.title",
	"bake.version":           "NewBake.version",
	"bake.oven_c":            "Setting.oven_c",
	"bake.minutes":           "Setting.minutes",
	"bake.filling_c":         "Setting.filling_c",
	"bake.dish_c":            "Setting.dish_c",
	"bake.note":              "Outcome.note",
	"watch.title":            "WatchStart.title",
	"watch.version":          "WatchStart.version",
	"countdown.title":        "CountdownStart.title",
	"own_row.name":           "OwnRow.name",
	"own_row.copy_of":        "OwnRow.copy_of",
}

// computed are columns with bounds that no request fills: the program computes them, or they are parts of a path.
var computed = map[string]bool{
	"kitchen.name":         true, // in a request without a schema of its own: TestTheKitchensNameIsBounded
	"dish.width_cm":        true,
	"dish.floor_length_cm": true,
	"dish.floor_width_cm":  true,
	"oven.diameter_cm":     true, // 0, or more
	"card_version.number":  true,
	"picture.width":        true,
	"picture.height":       true,
	"picture.jpeg":         true,
	"picture.small":        true,
	"watch_call.kind":      true,
	"watch_call.text":      true,
	"watch_call.says":      true,
	"watch_call.caution":   true,
	"watch_reading.c":      true,
	"watch_call.snoozes":   true,
	"watch.speed":          true,
	"own_row.key":          true,
	"learnt.version":       true,
	"learning.times":       true,
	"bake.learnt":          true,
	"countdown.digest":     true,
	"dish.material":        true,
	"own_row.figures":      true,
}

// limitOfColumn is what a column takes: numbers, or the length of a text.
type limitOfColumn struct {
	low, high float64
	length    bool
}

var columnBound = regexp.MustCompile(`(length\()?"?(\w+)"?(?:::text)?(\))? (>=|<=|>) \(?'?(-?[0-9.]+)`)

// limitsOfColumns are what the columns of the database take, by its checks and its types.
func limitsOfColumns(t *testing.T, c *pgx.Conn) map[string]limitOfColumn {
	t.Helper()
	out := map[string]limitOfColumn{}
	rows, err := c.Query(t.Context(), `select table_name || '.' || column_name from information_schema.columns
		where table_schema = 'public' and data_type = 'integer' and table_name <> 'goose_db_version'`)
	if err != nil {
		t.Fatal(err)
	}
	var column, check string
	if _, err := pgx.ForEachRow(rows, []any{&column}, func() error {
		out[column] = limitOfColumn{low: math.MinInt32, high: math.MaxInt32}
		return nil
	}); err != nil {
		t.Fatal(err)
	}
	rows, err = c.Query(t.Context(), `select conrelid::regclass::text, pg_get_constraintdef(oid) from pg_constraint
		where contype = 'c' and connamespace = 'public'::regnamespace`)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := pgx.ForEachRow(rows, []any{&column, &check}, func() error {
		for _, m := range columnBound.FindAllStringSubmatch(check, -1) {
			name := column + "." + m[2]
			x, there := out[name]
			if !there {
				x = limitOfColumn{low: math.Inf(-1), high: math.Inf(1)}
			}
			at, err := strconv.ParseFloat(m[5], 64)
			if err != nil {
				return err
			}
			x.length = m[1] != ""
			if m[4] == "<=" {
				x.high = min(x.high, at)
			} else {
				x.low = max(x.low, at)
			}
			out[name] = x
		}
		return nil
	}); err != nil {
		t.Fatal(err)
	}
	return out
}

// What the contract lets through, the column takes: a request that is no fault by the contract is none of the database.
func TestTheContractIsNoLaxerThanTheColumns(t *testing.T) {
	dsn := storetest.Copy(t, "migrated", func(context.Context, *store.Store) error { return nil })
	c, err := pgx.Connect(t.Context(), dsn)
	if err != nil {
		t.Fatal(err)
	}
	defer func() { _ = c.Close(context.Background()) }()
	columns := limitsOfColumns(t, c)
	if len(columns) < 40 {
		t.Fatalf("only %d columns have bounds: the checks are not read as they are written", len(columns))
	}
	doc, err := wire.Contract()
	if err != nil {
		t.Fatal(err)
	}
	for column, limit := range columns {
		as, sent := sentAs[column]
		if !sent {
			if !computed[column] {
				t.Errorf("%s has bounds, and nobody says what it is sent as", column)
			}
			continue
		}
		property := propertyOf(t, doc, as)
		switch {
		case limit.length:
			if property.MaxLength == nil || float64(*property.MaxLength) > limit.high ||
				float64(property.MinLength) < limit.low {
				t.Errorf("%s takes texts of %g to %g letters, and %s may have other ones", column, limit.low, limit.high, as)
			}
		case property.Min == nil || property.Max == nil || *property.Min < limit.low || *property.Max > limit.high:
			t.Errorf("%s takes %g to %g, and %s may be %v to %v", column, limit.low, limit.high, as,
				number64(property.Min), number64(property.Max))
		}
	}
	for column := range sentAs {
		if _, there := columns[column]; !there {
			t.Errorf("%s has no bounds in the database", column)
		}
	}
}

func number64(x *float64) any {
	if x == nil {
		return "anything"
	}
	return *x
}

// propertyOf is a property of the contract by its schema and its name.
func propertyOf(t *testing.T, doc *openapi3.T, as string) *openapi3.Schema {
	t.Helper()
	schema, name, _ := strings.Cut(as, ".")
	of := doc.Components.Schemas[schema]
	if of == nil || of.Value.Properties[name] == nil {
		t.Fatalf("the contract has no %s", as)
	}
	return of.Value.Properties[name].Value
}
