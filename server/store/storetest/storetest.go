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
	"sync"
	"syscall"
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
func DSN(t testing.TB) string { return copied(t, "template1") }

// Open is a migrated store in a database of its own.
func Open(t testing.TB) *store.Store {
	t.Helper()
	s, err := store.Open(t.Context(), Copy(t, "migrated", func(context.Context, *store.Store) error { return nil }))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(s.Close)
	return s
}

// Copy names a database that goes away with the test and begins as fill leaves a migrated store: it is asked once a
// process, and each test has a copy. key tells what is filled in one way from what is filled in another.
func Copy(t testing.TB, key string, fill func(context.Context, *store.Store) error) string {
	t.Helper()
	dsn := server(t)
	once, _ := templates.LoadOrStore(key, sync.OnceValues(func() (string, error) { return template(dsn, fill) }))
	name, err := once.(func() (string, error))()
	if err != nil {
		t.Fatal(err)
	}
	return copied(t, name)
}

// templates are the databases that others are copies of, by key.
var templates sync.Map

const templateName = "mabbin_template_"

// template makes a database to be copied. It stays when the process ends, and the next one takes it away.
func template(dsn string, fill func(context.Context, *store.Store) error) (string, error) {
	ctx := context.Background()
	if err := sweep(ctx, dsn); err != nil {
		return "", err
	}
	name := fmt.Sprintf("%s%d_%d", templateName, os.Getpid(), time.Now().UnixNano())
	if err := run(ctx, dsn, "create database "+name); err != nil {
		return "", err
	}
	of, err := at(dsn, name)
	if err != nil {
		return "", err
	}
	s, err := store.Open(ctx, of)
	if err != nil {
		return "", err
	}
	err = errors.Join(s.Migrate(ctx), fill(ctx, s))
	s.Close()
	return name, errors.Join(err, run(ctx, dsn, "alter database "+name+" allow_connections false"))
}

// sweep takes away the templates of processes that are no more.
func sweep(ctx context.Context, dsn string) error {
	c, err := pgx.Connect(ctx, dsn)
	if err != nil {
		return err
	}
	defer func() { _ = c.Close(ctx) }()
	rows, err := c.Query(ctx, "select datname from pg_database where datname like $1", templateName+"%")
	if err != nil {
		return err
	}
	names, err := pgx.CollectRows(rows, pgx.RowTo[string])
	if err != nil {
		return err
	}
	for _, name := range names {
		var pid, n int
		if _, err := fmt.Sscanf(name, templateName+"%d_%d", &pid, &n); err != nil {
			continue
		}
		if errors.Is(syscall.Kill(pid, 0), syscall.ESRCH) {
			_, _ = c.Exec(ctx, "drop database if exists "+name) // another process may be doing so
		}
	}
	return nil
}

// copied makes a database as a copy of another; it goes away with the test.
func copied(t testing.TB, of string) string {
	t.Helper()
	dsn := server(t)
	name := fmt.Sprintf("mabbin_test_%d_%d", os.Getpid(), time.Now().UnixNano())
	if err := run(t.Context(), dsn, "create database "+name+" template "+of); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		if err := drop(dsn, name); err != nil {
			t.Error(err)
		}
	})
	to, err := at(dsn, name)
	if err != nil {
		t.Fatal(err)
	}
	return to
}

// drop takes a database away. Our own lines to it are cut; what cleans up in it by itself is another role's, and is
// waited for.
func drop(dsn, name string) (err error) {
	cut := "select pg_terminate_backend(pid) from pg_stat_activity where usename = current_user and datname = '" + name + "'"
	for range 120 {
		if err = errors.Join(
			run(context.Background(), dsn, cut),
			run(context.Background(), dsn, "drop database "+name),
		); err == nil {
			return nil
		}
		time.Sleep(500 * time.Millisecond)
	}
	return err
}

func run(ctx context.Context, dsn, sql string) error {
	c, err := pgx.Connect(ctx, dsn)
	if err != nil {
		return err
	}
	defer func() { _ = c.Close(ctx) }()
	_, err = c.Exec(ctx, sql)
	return err
}

// at is a connection string to another database of the same server.
func at(dsn, name string) (string, error) {
	u, err := url.Parse(dsn)
	if err != nil {
		return "", err
	}
	u.Path = "/" + name
	return u.String(), nil
}
