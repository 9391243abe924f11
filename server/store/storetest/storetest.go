// Package storetest gives a test a database of its own.
package storetest

import (
	"context"
	"errors"
	"fmt"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"strings"
	"testing"
	"time"

	"mabbin/server/store"

	"github.com/jackc/pgx/v5"
)

// server is the connection string of the server: MABBIN_TEST_DB, or the project's own, started if need be.
func server(t testing.TB) string {
	t.Helper()
	if dsn := os.Getenv("MABBIN_TEST_DB"); dsn != "" {
		return dsn
	}
	_, here, _, _ := runtime.Caller(0)
	start := filepath.Join(filepath.Dir(here), "../../../scripts/pg-start.sh")
	out, err := exec.CommandContext(t.Context(), start, "test").Output()
	if err != nil {
		t.Fatalf("no database: run make test, or scripts/pg-start.sh to see why: %v", err)
	}
	return strings.TrimSpace(string(out))
}

// DSN makes an empty database that goes away with the test, and names it.
func DSN(t testing.TB) string {
	t.Helper()
	dsn := server(t)
	name := fmt.Sprintf("mabbin_test_%d_%d", os.Getpid(), time.Now().UnixNano())
	exec := func(ctx context.Context, sql string) error {
		c, err := pgx.Connect(ctx, dsn)
		if err != nil {
			return err
		}
		defer func() { _ = c.Close(ctx) }()
		_, err = c.Exec(ctx, sql)
		return err
	}
	if err := exec(t.Context(), "create database "+name); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		// our own lines are cut; what cleans up in it by itself is another role's, and is waited for
		var err error
		for range 120 {
			cut := "select pg_terminate_backend(pid) from pg_stat_activity where usename = current_user and datname = '" + name + "'"
			if err = errors.Join(
				exec(context.Background(), cut),
				exec(context.Background(), "drop database "+name),
			); err == nil {
				return
			}
			time.Sleep(500 * time.Millisecond)
		}
		t.Error(err)
	})
	u, err := url.Parse(dsn)
	if err != nil {
		t.Fatal(err)
	}
	u.Path = "/" + name
	return u.String()
}

// Open is a migrated store in a database of its own.
func Open(t testing.TB) *store.Store {
	t.Helper()
	s, err := store.Open(t.Context(), DSN(t))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(s.Close)
	if err := s.Migrate(t.Context()); err != nil {
		t.Fatal(err)
	}
	return s
}
