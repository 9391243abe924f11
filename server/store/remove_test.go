package store_test

import (
	"context"
	"errors"
	"testing"
	"time"

	"mabbin/app"
	"mabbin/server/demo"
	"mabbin/server/store"
	"mabbin/server/store/storetest"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// waiting waits until another connection to a database waits for a lock.
func waiting(t *testing.T, c *pgx.Conn) {
	t.Helper()
	for n := 0; n == 0; {
		err := c.QueryRow(t.Context(), `select count(*) from pg_stat_activity
			where datname = current_database() and wait_event_type = 'Lock'`).Scan(&n)
		if err != nil {
			t.Fatal(err)
		}
	}
}

// A kitchen that is deleted while something in it changes is deleted afterwards: neither is stopped by the other. Each
// change is held where the deletion, in another order, would have the other half of what it needs.
func TestAKitchenIsDeletedDuringChanges(t *testing.T) {
	for name, change := range map[string][2]string{
		"what its log teaches": {
			`select from kitchen for no key update`,
			`insert into learning (kitchen_id, posterior) select id, '{}' from kitchen
				on conflict (kitchen_id) do update set posterior = '{}'`,
		},
		"a dessert in the oven": {`select from watch for update`, `update watch_call set snoozes = snoozes + 1`},
		"a corrected bake":      {`select from bake for update`, `update bake_correction set at = at where false`},
		"what it has in stock":  {`select from kitchen for no key update`, `update stock set content = content`},
	} {
		t.Run(name, func(t *testing.T) {
			dsn := storetest.DSN(t)
			s, err := store.OpenWithin(t.Context(), dsn, store.Limits{Lock: time.Minute})
			if err != nil {
				t.Fatal(err)
			}
			t.Cleanup(s.Close)
			if err := s.Migrate(t.Context()); err != nil {
				t.Fatal(err)
			}
			if _, err := demo.Load(t.Context(), s, wentIn); err != nil {
				t.Fatal(err)
			}
			oven := app.OvenWatch{
				Store: s, Kitchens: s, Clock: func() time.Time { return wentIn }, Notify: func(uuid.UUID) {},
				Filter: (&app.Learning{Store: s, Kitchens: s, Clock: func() time.Time { return wentIn }}).Filter,
			}
			if _, err := oven.PutIn(t.Context(), demo.Kitchen.ID, app.IntoOven{
				ID: uuid.New(), Title: "Plum crisp", Request: request,
			}); err != nil {
				t.Fatal(err)
			}
			other, err := pgx.Connect(t.Context(), dsn)
			if err != nil {
				t.Fatal(err)
			}
			t.Cleanup(func() { _ = other.Close(context.Background()) })
			tx, err := other.Begin(t.Context())
			if err != nil {
				t.Fatal(err)
			}
			if _, err := tx.Exec(t.Context(), change[0]); err != nil {
				t.Fatal(err)
			}
			deleted := make(chan error, 1)
			go func() { deleted <- s.RemoveKitchen(t.Context(), demo.Kitchen.ID) }()
			waiting(t, other)
			if _, err := tx.Exec(t.Context(), change[1]); err != nil {
				t.Errorf("the change is stopped: %v", err)
			}
			if err := tx.Commit(t.Context()); err != nil {
				t.Errorf("the change is not saved: %v", err)
			}
			if err := <-deleted; err != nil {
				t.Errorf("the deletion is stopped: %v", err)
			}
			if _, err := s.OneKitchen(t.Context(), demo.Kitchen.ID); !errors.Is(err, app.ErrNotFound) {
				t.Errorf("it is still there: %v", err)
			}
		})
	}
}
