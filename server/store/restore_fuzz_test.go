package store_test

import (
	"encoding/json"
	"errors"
	"strings"
	"testing"
	"time"

	"mabbin/app"
	"mabbin/core/fault"
	"mabbin/core/outcome"
	"mabbin/server/demo"
	"mabbin/server/store"
	"mabbin/server/store/storetest"

	"github.com/google/uuid"
)

// FuzzRestore gives a restore a row of a table that somebody has changed: it is refused with faults that name it, or it
// is kept, and then all of the kitchen can be read, listed and written down. Never half of it, and never a panic.
func FuzzRestore(f *testing.F) {
	const kitchenID = "00000000-0000-4000-8000-00000000f001"
	kitchen := `{"id":"` + kitchenID + `","name":"K"}`
	seeds(f, kitchenID)
	for _, broken := range []struct{ table, row string }{
		{"watch", `{"id":"x","stages":[],"started_at":"infinity"}`},
		{"card", `{"id":"00000000-0000-4000-8000-00000000f002","kitchen_id":"` + kitchenID + `","name":"","tags":[""]}`},
		{"bake", `{"id":"00000000-0000-4000-8000-00000000f003","kitchen_id":"` + kitchenID + `","baked_at":"-infinity","title":"x"}`},
		{"kitchen", `null`},
		{"dish", `[]`},
		{"own_row", `{"kind":"fruit","key":"plum","row":{}}`},
		{"", `{`},
	} {
		f.Add(broken.table, []byte(broken.row))
	}
	s := storetest.Open(f)
	f.Fuzz(func(t *testing.T, table string, row []byte) {
		if len(row) > 1<<16 {
			return
		}
		rows := map[string][]string{"kitchen": {kitchen}}
		if table == "kitchen" {
			rows = map[string][]string{}
		}
		rows[table] = append(rows[table], string(row))
		k, err := s.Restore(t.Context(), uuid.New(), tampered{rows: rows}, func(name string) string { return name })
		var faults fault.Faults
		switch {
		case errors.As(err, &faults):
			if all, err := s.Kitchens(t.Context()); err != nil || len(all) != 0 {
				t.Fatalf("%s %s: %d kitchens are left, %v", table, row, len(all), err)
			}
			return
		case err != nil:
			t.Fatalf("%s %s: %v is no fault of the archive", table, row, err)
		}
		readAll(t, s, k)
		if err := s.RemoveKitchen(t.Context(), k.ID); err != nil {
			t.Fatal(err)
		}
	})
}

// seeds are the rows of the demo kitchen, a few of each table, as rows of another kitchen.
func seeds(f *testing.F, kitchenID string) {
	f.Helper()
	s := storetest.Open(f)
	if _, err := demo.Load(f.Context(), s, time.Date(2026, 10, 1, 0, 0, 0, 0, time.UTC)); err != nil {
		f.Fatal(err)
	}
	n := map[string]int{}
	if err := s.BackUp(f.Context(), demo.Kitchen.ID, func(table string, row json.RawMessage) error {
		if n[table]++; n[table] <= 2 {
			f.Add(table, []byte(strings.ReplaceAll(string(row), demo.Kitchen.ID.String(), kitchenID)))
		}
		return nil
	}, func(app.Picture) error { return nil }); err != nil {
		f.Fatal(err)
	}
}

// readAll reads a kitchen as the page does, and encodes it as the server does.
func readAll(t *testing.T, s *store.Store, k app.Kitchen) {
	t.Helper()
	ctx := t.Context()
	read := func(what string, v any, err error) {
		t.Helper()
		if err != nil {
			t.Fatalf("%s can't be read: %v", what, err)
		}
		if _, err := json.Marshal(v); err != nil {
			t.Fatalf("%s can't be written: %v", what, err)
		}
	}
	one, err := s.OneKitchen(ctx, k.ID)
	read("the kitchen", one, err)
	dishes, err := s.Dishes(ctx, k.ID)
	read("the dishes", dishes, err)
	ovens, err := s.Ovens(ctx, k.ID)
	read("the ovens", ovens, err)
	own, err := s.Own(ctx, k.ID)
	read("the own figures", own, err)
	cards, _, err := s.Cards(ctx, k.ID, app.CardFilter{})
	read("the cards", cards, err)
	tags, err := s.CardTags(ctx, k.ID)
	read("the tags", tags, err)
	watched, err := s.Watched(ctx, k.ID)
	read("the oven watch", watched, err)
	bakes, _, err := s.Bakes(ctx, k.ID, app.BakeFilter{}, nil, 50)
	read("the log", bakes, err)
	read("the log's lines", nil, s.EachLine(ctx, k.ID, app.BakeFilter{}, func(outcome.Line) error { return nil }))
	read("a backup", nil, s.BackUp(ctx, k.ID, func(string, json.RawMessage) error { return nil },
		func(app.Picture) error { return nil }))
}
