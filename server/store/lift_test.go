package store_test

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"reflect"
	"strings"
	"testing"

	"mabbin/server/formats"
	"mabbin/server/store"
	"mabbin/server/store/storetest"

	"github.com/google/uuid"
)

// kept is a row as it was kept in a form.
func kept(t *testing.T, form int, table string) (raw []byte, row map[string]json.RawMessage) {
	t.Helper()
	raw, err := os.ReadFile(filepath.Join("testdata", "forms", fmt.Sprint(form), table+".json"))
	if err != nil {
		t.Fatal(err)
	}
	if err := json.Unmarshal(raw, &row); err != nil {
		t.Fatal(err)
	}
	return raw, row
}

func sameJSON(t *testing.T, what string, got, want json.RawMessage) {
	t.Helper()
	var a, b any
	if err := json.Unmarshal(got, &a); err != nil {
		t.Fatalf("%s: %v: %s", what, err, got)
	}
	if err := json.Unmarshal(want, &b); err != nil {
		t.Fatal(err)
	}
	if !reflect.DeepEqual(a, b) {
		t.Errorf("%s is %s, want %s", what, got, want)
	}
}

// Every older form has a kept sample, and is lifted to what is read today.
func TestOlderRowsAreLifted(t *testing.T) {
	if formats.ArchiveForm != store.Form {
		t.Errorf("archives are of form %d, the store's is %d", formats.ArchiveForm, store.Form)
	}
	for _, form := range store.Lifts() {
		samples, err := filepath.Glob(filepath.Join("testdata", "forms", fmt.Sprint(form), "*.json"))
		if err != nil || len(samples) == 0 {
			t.Errorf("form %d has no kept sample: %v", form, err)
		}
		for _, file := range samples {
			table := strings.TrimSuffix(filepath.Base(file), ".json")
			_, row := kept(t, form, table)
			for is, was := range former {
				if table == was {
					table = is
				}
			}
			store.Lift(form, table, row)
			_, want := kept(t, store.Form, table)
			for column := range row {
				sameJSON(t, fmt.Sprintf("form %d, %s.%s", form, table, column), row[column], want[column])
			}
		}
	}
	_, row := kept(t, store.Form, "card_version")
	row["request"] = json.RawMessage(`{"greasing":"butter"}`) // a film, today
	store.Lift(store.Form, "card_version", row)
	sameJSON(t, "a row of today", row["request"], json.RawMessage(`{"greasing":"butter"}`))
}

// The migration makes of what is kept here what the lift makes of an archive.
func TestMigrationAndLiftAgree(t *testing.T) {
	s, err := store.Open(t.Context(), storetest.DSN(t))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(s.Close)
	ctx := t.Context()
	if err := s.MigrateTo(ctx, 14); err != nil {
		t.Fatal(err)
	}
	for _, table := range []string{"kitchen", "card", "card_version"} {
		raw, row := kept(t, 3, table)
		if table == "card" { // the database of that form had this column already
			row["tags"] = json.RawMessage(`[]`)
			if raw, err = json.Marshal(row); err != nil {
				t.Fatal(err)
			}
		}
		if err := s.PutRow(ctx, table, raw); err != nil {
			t.Fatalf("%s: %v", table, err)
		}
	}
	column := func() json.RawMessage {
		raw, err := s.Column(ctx, "card_version", "request", "00000000-0000-4000-8000-00000000e003")
		if err != nil {
			t.Fatal(err)
		}
		return raw
	}
	_, old := kept(t, 3, "card_version")
	_, today := kept(t, store.Form, "card_version")
	if err := s.Migrate(ctx); err != nil {
		t.Fatal(err)
	}
	sameJSON(t, "after the migration", column(), today["request"])
	if err := s.MigrateTo(ctx, 14); err != nil {
		t.Fatal(err)
	}
	sameJSON(t, "taken back", column(), old["request"])
}

// former are the names of tables in form 4.
var former = map[string]string{"resources": "house", "stock": "pantry", "countdown": "on_the_way"}

// The migration to plain names makes of every table what the lift makes of it.
func TestTheNamesOfFormFiveAreAlikeInMigrationAndLift(t *testing.T) {
	s, err := store.Open(t.Context(), storetest.DSN(t))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(s.Close)
	ctx := t.Context()
	if err := s.MigrateTo(ctx, 26); err != nil {
		t.Fatal(err)
	}
	tables := []string{
		"kitchen",
		"house",
		"pantry",
		"on_the_way",
		"day",
		"learning",
		"bake",
		"bake_correction",
		"watch",
		"watch_call",
	}
	for _, table := range tables {
		raw, row := kept(t, 4, table)
		if table == "kitchen" {
			row["created_at"] = json.RawMessage(`"2026-10-01T12:00:00Z"`)
			if raw, err = json.Marshal(row); err != nil {
				t.Fatal(err)
			}
		}
		if err := s.PutRow(ctx, table, raw); err != nil {
			t.Fatalf("%s: %v", table, err)
		}
	}
	if err := s.Migrate(ctx); err != nil {
		t.Fatal(err)
	}
	for _, table := range []string{"resources", "stock", "countdown", "day", "learning", "bake", "bake_correction", "watch", "watch_call"} {
		_, want := kept(t, store.Form, table)
		rows, err := s.RowsOf(ctx, table)
		if err != nil || len(rows) != 1 {
			t.Fatalf("%s: %d rows, %v", table, len(rows), err)
		}
		for column := range want {
			if column != "logged_at" {
				sameJSON(t, table+"."+column, rows[0][column], want[column])
			}
		}
	}
}

// An older archive comes in as it was meant.
func TestAnOlderArchiveIsLiftedAsItComesIn(t *testing.T) {
	s := storetest.Open(t)
	rows := map[string][]string{}
	for _, table := range []string{"kitchen", "card", "card_version"} {
		raw, _ := kept(t, 3, table)
		rows[table] = []string{string(raw)}
	}
	k, err := s.Restore(t.Context(), uuid.New(), tampered{rows: rows, form: 3}, func(name string) string { return name })
	if err != nil {
		t.Fatal(err)
	}
	_, today := kept(t, store.Form, "card_version")
	raw, err := s.Column(t.Context(), "card_version", "request", "00000000-0000-4000-8000-00000000e003")
	if err != nil {
		t.Fatal(err)
	}
	sameJSON(t, "restored", raw, today["request"])
	readAll(t, s, k)
}
