package store_test

import (
	"testing"
	"time"

	"mabbin/app"
	"mabbin/core/outcome"
	"mabbin/server/demo"
	"mabbin/server/store"
	"mabbin/server/store/storetest"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

func TestTheLogIsSearched(t *testing.T) {
	s := storetest.Open(t)
	if _, err := demo.Load(t.Context(), s, wentIn); err != nil {
		t.Fatal(err)
	}
	ovens, err := s.Ovens(t.Context(), demo.Kitchen.ID)
	if err != nil {
		t.Fatal(err)
	}
	for name, c := range map[string]struct {
		q    app.BakeFilter
		want int
	}{
		"all":                    {app.BakeFilter{}, 54},
		"a word of the title":    {app.BakeFilter{Words: "gooseberry"}, 6},
		"in the middle of one":   {app.BakeFilter{Words: "STREUS"}, 4},
		"a word of the note":     {app.BakeFilter{Words: "tray"}, 1},
		"a sign of a pattern":    {app.BakeFilter{Words: "%"}, 0},
		"what came out":          {app.BakeFilter{Juice: "runny"}, 2},
		"both":                   {app.BakeFilter{Words: "crumble", Juice: "spoonable"}, 4},
		"in an oven":             {app.BakeFilter{Oven: &ovens[0].ID}, 24},
		"in an oven of nobody's": {app.BakeFilter{Oven: &uuid.UUID{}}, 0},
	} {
		page, more, err := s.Bakes(t.Context(), demo.Kitchen.ID, c.q, nil, 100)
		if err != nil || len(page) != c.want || more {
			t.Errorf("%s: %d bakes, %v", name, len(page), err)
		}
		lines := 0
		if err := s.EachLine(
			t.Context(),
			demo.Kitchen.ID,
			c.q,
			func(l outcome.Line) error { lines++; return nil },
		); err != nil ||
			lines != c.want {
			t.Errorf("%s: %d lines, %v", name, lines, err)
		}
	}
	first, _, err := s.Bakes(t.Context(), demo.Kitchen.ID, app.BakeFilter{Words: "crumble"}, nil, 2)
	if err != nil {
		t.Fatal(err)
	}
	rest, _, err := s.Bakes(t.Context(), demo.Kitchen.ID, app.BakeFilter{Words: "crumble"}, &first[1].ID, 50)
	if err != nil || len(rest) != 13 || !rest[0].BakedAt.Before(first[1].BakedAt) {
		t.Errorf("%d more, %v", len(rest), err)
	}
}

// The first page of a long log, whole and searched: the promise is 30 ms at 100,000 bakes.
func BenchmarkFirstPageOfALongLog(b *testing.B) {
	dsn := storetest.DSN(b)
	s, err := store.Open(b.Context(), dsn)
	if err != nil {
		b.Fatal(err)
	}
	defer s.Close()
	if err := s.Migrate(b.Context()); err != nil {
		b.Fatal(err)
	}
	if _, err := demo.Load(b.Context(), s, time.Now()); err != nil {
		b.Fatal(err)
	}
	c, err := pgx.Connect(b.Context(), dsn)
	if err != nil {
		b.Fatal(err)
	}
	defer func() { _ = c.Close(b.Context()) }()
	for _, sql := range []string{
		`insert into bake (id, kitchen_id, title, baked_at, request, result, juice, note)
			select gen_random_uuid(), kitchen_id, title || ' ' || n, baked_at - n * interval '1 hour', request, result, juice, note
			from (select * from bake limit 1) one, generate_series(1, 100000) n`,
		`analyze bake`,
	} {
		if _, err := c.Exec(b.Context(), sql); err != nil {
			b.Fatal(err)
		}
	}
	for name, q := range map[string]app.BakeFilter{"whole": {}, "searched": {Words: "99999"}} {
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				if page, _, err := s.Bakes(b.Context(), demo.Kitchen.ID, q, nil, 50); err != nil || len(page) == 0 {
					b.Fatal(len(page), err)
				}
			}
		})
	}
}
