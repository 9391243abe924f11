package store_test

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"mabbin/core/fault"
	"mabbin/server/benchtest"
	"mabbin/server/demo"
	"mabbin/server/formats"
	"mabbin/server/store"
	"mabbin/server/store/storetest"

	"github.com/google/uuid"
)

// few are some rows of each table of the full kitchen, that hang together.
func few(t *testing.T) tampered {
	t.Helper()
	s := full(t)
	all, known := map[string][]map[string]any{}, map[any]bool{demo.Kitchen.ID.String(): true}
	a := opened(t, archive(t, s, demo.Kitchen.ID))
	for _, table := range store.Tables() {
		if err := a.Rows(table, func(raw json.RawMessage) error {
			var row map[string]any
			err := json.Unmarshal(raw, &row)
			all[table] = append(all[table], row)
			return err
		}); err != nil {
			t.Fatal(err)
		}
	}
	corrected := all["bake_correction"][0]["bake_id"]
	wanted := map[any]bool{corrected: true}
	pictured := ""
	for _, b := range append(all["bake"], all["watch"]...) {
		if b["picture_id"] != nil && pictured == "" {
			pictured = b["id"].(string)
		}
		if b["id"] == corrected || b["id"] == pictured || b["question"] != nil {
			for _, c := range []string{"card_id", "picture_id", "id"} {
				wanted[b[c]] = true
			}
		}
	}
	out := tampered{rows: map[string][]string{}, form: store.Form, picture: true}
	for _, table := range store.Tables() {
		for _, row := range all[table] {
			switch table {
			case "card", "bake", "picture":
				if !wanted[row["id"]] {
					continue
				}
			}
			hangs := len(out.rows[table]) < 4
			for c, x := range row {
				if strings.HasSuffix(c, "_id") && x != nil && c != "withdrawn_by_id" && c != "kitchen_id" && !known[x] {
					hangs = false
				}
			}
			if !hangs {
				continue
			}
			known[row["id"]] = true
			raw, err := json.Marshal(row)
			if err != nil {
				t.Fatal(err)
			}
			out.rows[table] = append(out.rows[table], string(raw))
		}
	}
	out.rows["own_row"] = []string{`{"kitchen_id":"` + demo.Kitchen.ID.String() +
		`","kind":"fruit","key":"plum","figures":{"water_pct":85}}`}
	out.rows["learning"] = []string{`{"kitchen_id":"` + demo.Kitchen.ID.String() +
		`","preferences":{"off":[],"left_out":[],"changed":[]}}`}
	out.rows["learnt"] = []string{`{"kitchen_id":"` + demo.Kitchen.ID.String() +
		`","version":1,"at":"2026-10-17T09:00:00Z","used":{"version":1,"bakes":4,"release":{"plum":1.2}}}`}
	for _, table := range store.Tables() {
		if len(out.rows[table]) == 0 {
			t.Fatalf("nothing of %s", table)
		}
	}
	return out
}

// poisons are what a column may be found to hold.
var poisons = []string{
	"null", `""`, "-1", "1e308", "0.5", `"infinity"`, `"0001-01-01T00:00:00Z"`, "[]", "{}", `[{}]`, "true", `"(\u0001"`,
	`"` + strings.Repeat("long ", 2000) + `"`, `"00000000-0000-4000-8000-0000000000aa"`,
	`{"style":"crumble","dish":null,"fruits":[]}`, `{"plan":{"stages":[]}}`, `[{"minutes":1e9,"oven_c":180}]`,
}

// Every column of every table, found with something else in it: it is refused, and nothing is kept; or it is kept, and
// then all of the kitchen can be read, listed and written down.
func TestEveryColumnMayBePoisoned(t *testing.T) {
	if testing.Short() {
		t.Skip("thousands of archives: it runs without the race detector")
	}
	good := few(t)
	s := storetest.Open(t)
	refused, kept := 0, 0
	for _, table := range store.Tables() {
		var row map[string]json.RawMessage
		if err := json.Unmarshal([]byte(good.rows[table][0]), &row); err != nil {
			t.Fatal(err)
		}
		for _, column := range slices.Sorted(maps.Keys(row)) {
			for _, poison := range poisons {
				bad := maps.Clone(row)
				bad[column] = json.RawMessage(poison)
				raw, err := json.Marshal(bad)
				if err != nil {
					t.Fatal(err)
				}
				from := good
				from.rows = maps.Clone(good.rows)
				from.rows[table] = append([]string{string(raw)}, good.rows[table][1:]...)
				k, err := s.Restore(t.Context(), uuid.New(), from, func(name string) string { return name })
				var faults fault.Faults
				switch {
				case errors.As(err, &faults):
					refused++
				case err != nil:
					t.Errorf("%s.%s = %.60s: %v is no fault of the archive", table, column, poison, err)
				default:
					kept++
					readAll(t, s, k)
					if err := s.RemoveKitchen(t.Context(), k.ID); err != nil {
						t.Fatal(err)
					}
				}
				if all, err := s.Kitchens(t.Context()); err != nil || len(all) != 0 {
					t.Fatalf("%s.%s = %.60s: %d kitchens are left, %v", table, column, poison, len(all), err)
				}
			}
		}
	}
	if refused < kept/2 || kept == 0 {
		t.Errorf("%d were refused, and %d kept", refused, kept)
	}
	t.Logf("%d were refused, and %d kept", refused, kept)
	if _, err := s.Restore(t.Context(), uuid.New(), good, func(name string) string { return name }); err != nil {
		t.Errorf("as it was: %v", err)
	}
}

// BenchmarkMemoryOfARestore brings in an archive whose rows are as large as they may be, and pretend to hold as much as
// they can.
func BenchmarkMemoryOfARestore(b *testing.B) {
	s := storetest.Open(b)
	const kitchen = `{"id":"00000000-0000-4000-8000-00000000c001","name":"Large"}`
	r := rand.New(rand.NewPCG(1, 1))
	many := func(of string) string {
		var all strings.Builder
		all.WriteString(`{"style":"crumble","fruits":[`)
		for all.Len() < 1_000_000 {
			fmt.Fprintf(&all, of+",", r.Uint32()) // no two are the same: it is not packed too well to be believed
		}
		return strings.TrimSuffix(all.String(), ",") + `]}`
	}
	var file bytes.Buffer
	w, err := formats.NewArchive(&file, wentIn)
	if err != nil {
		b.Fatal(err)
	}
	rows := map[string][]string{"kitchen": {kitchen}}
	for i, of := range []string{`{"share":%d}`, `{"key":"%d"}`, "[%d]", "%d", `{"%d":{}}`} {
		rows["card_version"] = append(
			rows["card_version"],
			fmt.Sprintf(`{"id":%q,"request":%s}`, uuid.UUID{15: byte(i)}, many(of)),
		)
	}
	for _, table := range []string{"kitchen", "card_version"} {
		for _, row := range rows[table] {
			if err := w.Row(table, json.RawMessage(row)); err != nil {
				b.Fatal(err)
			}
		}
	}
	if err := w.Close(); err != nil {
		b.Fatal(err)
	}
	b.Logf("%d bytes, packed", file.Len())
	for b.Loop() {
		benchtest.Peak(b, func() {
			a, err := formats.OpenArchive(bytes.NewReader(file.Bytes()), int64(file.Len()))
			if err == nil {
				_, err = s.Restore(b.Context(), uuid.New(), a, func(name string) string { return name })
			}
			if err == nil {
				b.Fatal("it is taken")
			}
		})
	}
}

// What no kitchen has, an archive can't bring in either.
func TestWhatNoKitchenHasIsRefused(t *testing.T) {
	good := few(t)
	s := storetest.Open(t)
	for _, c := range []struct{ table, column, value, pointer string }{
		{"stock", "content", `{"items":[{"key":"butter","g":-5}],"packs":{}}`, "/stock/0/content/items/0/g"},
		{"stock", "content", `{"items":[{"key":"butter","g":1e308}],"packs":{}}`, "/stock/0/content/items/0/g"},
		{"stock", "content", `{"items":[{"key":"butter","g":5,"until":"tomorrow"}],"packs":{}}`, "/stock/0/content/items/0/until"},
		{"stock", "content", `{"items":[],"packs":{"butter":null}}`, "/stock/0/content/packs/butter"},
		{"stock", "content", `{"items":[],"packs":null}`, "/stock/0/content"},
		{"stock_purchase", "lines", `[{"key":"butter","g":-1}]`, "/stock_purchase/0/lines/0/g"},
		{"day", "on_date", `"0001-01-01"`, "/day/0/on_date"},
		{"day", "on_date", `"infinity"`, "/day/0/on_date"},
		{"countdown", "steps", `[]`, "/countdown/0/steps"},
		{"countdown", "steps", `[{"at":"0001-01-01T00:00:00Z","kind":"x","text":"x","state":"waiting"}]`, "/countdown/0/steps/0/at"},
		{"bake", "batch", `"=1+1"`, "/bake/0/batch"},
		{"bake", "batch", `"` + strings.Repeat("A", 10_000) + `"`, "/bake/0/batch"},
		{"bake", "learnt", `-1`, "/bake/0/learnt"},
		{"bake", "version", `-1`, "/bake/0/version"},
		{"watch", "version", `-1`, "/watch/0/version"},
	} {
		bad := tampered{rows: maps.Clone(good.rows), form: good.form, picture: true}
		bad.rows[c.table] = slices.Clone(bad.rows[c.table])
		var row map[string]json.RawMessage
		if err := json.Unmarshal([]byte(bad.rows[c.table][0]), &row); err != nil {
			t.Fatal(err)
		}
		row[c.column] = json.RawMessage(c.value)
		raw, err := json.Marshal(row)
		if err != nil {
			t.Fatal(err)
		}
		bad.rows[c.table][0] = string(raw)
		_, err = s.Restore(t.Context(), uuid.New(), bad, func(name string) string { return name })
		var faults fault.Faults
		if !errors.As(err, &faults) ||
			!slices.ContainsFunc(faults, func(f fault.Fault) bool { return f.Pointer == c.pointer }) {
			t.Errorf("%s %s %.60s: %.300v", c.table, c.column, c.value, err)
		}
	}
}
