// Package store keeps kitchens, their dishes, ovens, cards and bakes in PostgreSQL. Every query is scoped by kitchen.
package store

import (
	"context"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"net"
	"time"

	"mabbin/app"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/jackc/pgx/v5/stdlib"
	"github.com/pressly/goose/v3"
	"github.com/pressly/goose/v3/lock"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Store is a connection to the database.
type Store struct{ pool *pgxpool.Pool }

// Open connects. It does not wait for the database: Ping does.
func Open(ctx context.Context, dsn string) (*Store, error) {
	cfg, err := pgxpool.ParseConfig(dsn)
	if err != nil {
		return nil, err
	}
	cfg.ConnConfig.ConnectTimeout = 10 * time.Second
	pool, err := pgxpool.NewWithConfig(ctx, cfg)
	if err != nil {
		return nil, err
	}
	return &Store{pool}, nil
}

// Close ends every connection.
func (s *Store) Close() { s.pool.Close() }

// Ping asks whether the database answers.
func (s *Store) Ping(ctx context.Context) error { return kind(s.pool.Ping(ctx)) }

// Migrate brings the schema up to date, one server at a time.
func (s *Store) Migrate(ctx context.Context) error {
	return s.migrate(func(p *goose.Provider) error {
		_, err := p.Up(ctx)
		return err
	})
}

func (s *Store) migrate(do func(*goose.Provider) error) error {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	db := stdlib.OpenDBFromPool(s.pool)
	defer db.Close()
	locker, err := lock.NewPostgresSessionLocker()
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectPostgres, db, dir, goose.WithSessionLocker(locker))
	if err != nil {
		return err
	}
	if err := do(p); err != nil {
		return kind(fmt.Errorf("migrate: %w", err))
	}
	return nil
}

// kind puts one of the package's errors in front of what the driver said.
func kind(err error) error {
	if err == nil {
		return nil
	}
	var pg *pgconn.PgError
	var connect *pgconn.ConnectError
	var network net.Error
	switch {
	case errors.Is(err, pgx.ErrNoRows):
		return app.ErrNotFound
	case errors.As(err, &pg):
		switch {
		case pg.Code == "23505":
			return fmt.Errorf("%w: %s", app.ErrTaken, pg.ConstraintName)
		case pg.Code[:2] == "23" || pg.Code[:2] == "22": // against a constraint; a value that its column does not take
			return fmt.Errorf("%w: %s %s", app.ErrRefused, pg.ConstraintName, pg.Message)
		case pg.Code == "53100":
			return fmt.Errorf("%w: %w", app.ErrFull, err)
		case pg.Code == "57014" || pg.Code == "55P03" || pg.Code[:2] == "40": // timed out, not to be had, in each other's way
			return fmt.Errorf("%w: %w", app.ErrBusy, err)
		case pg.Code[:2] == "57" || pg.Code[:2] == "08" || pg.Code[:2] == "53": // shutting down, connection, out of resources
			return fmt.Errorf("%w: %w", app.ErrUnavailable, err)
		}
		return err
	case errors.As(err, &connect), errors.As(err, &network), pgconn.SafeToRetry(err), errors.Is(err, net.ErrClosed):
		return fmt.Errorf("%w: %w", app.ErrUnavailable, err)
	}
	return err
}

// inTx runs do in one transaction: all of it is kept, or nothing.
func (s *Store) inTx(ctx context.Context, do func(pgx.Tx) error) error {
	return kind(pgx.BeginFunc(ctx, s.pool, do))
}

// once adds something by its id, which may race with itself: sent from two places at once, the second may first see the
// first one's name as taken. On a second try the id is there, and what is left is taken by another.
func once(add func() error) error {
	err := add()
	if errors.Is(err, app.ErrTaken) {
		return add()
	}
	return err
}

// list collects rows into structs by column name.
func list[T any](ctx context.Context, s *Store, sql string, args ...any) ([]T, error) {
	rows, err := s.pool.Query(ctx, sql, args...)
	if err != nil {
		return nil, kind(err)
	}
	out, err := pgx.CollectRows(rows, pgx.RowToStructByName[T])
	return out, kind(err)
}
