// Package store keeps kitchens, their dishes, ovens, cards and bakes in PostgreSQL. Every query is scoped by kitchen.
package store

import (
	"cmp"
	"context"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net"
	"strconv"
	"strings"
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

// Store is a connection to the database. What reads or writes a whole kitchen has connections of its own, so that
// however many of it are under way, there is room for what is short.
type Store struct{ pool, long *pgxpool.Pool }

// Limits bound what the database is asked. The zero value of each is the usual one.
type Limits struct {
	Statement time.Duration // how long one short statement may take
	Lock      time.Duration // how long one waits for another's change
	Idle      time.Duration // how long a transaction may stand still
	Whole     time.Duration // how long one statement over a whole kitchen may take
	Short     int32         // connections for short pieces of work
	Long      int32         // and for those over a whole kitchen
}

// usual are the limits unless others are asked for.
var usual = Limits{
	Statement: 10 * time.Second, Lock: 5 * time.Second, Idle: time.Minute, Whole: 15 * time.Minute, Short: 10, Long: 3,
}

// Open connects. It does not wait for the database: Ping does.
func Open(ctx context.Context, dsn string) (*Store, error) { return OpenWithin(ctx, dsn, usual) }

// OpenWithin connects with limits of its own.
func OpenWithin(ctx context.Context, dsn string, l Limits) (*Store, error) {
	short, err := connect(ctx, dsn, l, l.Statement, cmp.Or(l.Short, usual.Short))
	if err != nil {
		return nil, err
	}
	long, err := connect(ctx, dsn, l, l.Whole, cmp.Or(l.Long, usual.Long))
	if err != nil {
		short.Close()
		return nil, err
	}
	return &Store{short, long}, nil
}

func connect(ctx context.Context, dsn string, l Limits, statement time.Duration, most int32) (*pgxpool.Pool, error) {
	cfg, err := pgxpool.ParseConfig(dsn)
	if err != nil {
		return nil, err
	}
	cfg.MaxConns = most
	cfg.MaxConnIdleTime = 5 * time.Minute
	cfg.PingTimeout = 5 * time.Second
	cfg.ConnConfig.ConnectTimeout = 10 * time.Second
	for name, most := range map[string]time.Duration{
		"statement_timeout":                   cmp.Or(statement, usual.Statement),
		"lock_timeout":                        cmp.Or(l.Lock, usual.Lock),
		"idle_in_transaction_session_timeout": cmp.Or(l.Idle, usual.Idle),
	} {
		cfg.ConnConfig.RuntimeParams[name] = strconv.FormatInt(most.Milliseconds(), 10)
	}
	return pgxpool.NewWithConfig(ctx, cfg)
}

// Close ends every connection.
func (s *Store) Close() {
	s.pool.Close()
	s.long.Close()
}

// waitForLong is how long a piece of work over a whole kitchen waits for those that are under way.
const waitForLong = 5 * time.Second

// whole hands over a connection for work over a whole kitchen; where all are taken for too long it is app.ErrBusy.
func (s *Store) whole(ctx context.Context, do func(*pgxpool.Conn) error) error {
	// of its own: the context of a request is used again for another one, maybe while this timer fires
	waits, cancel := context.WithTimeout(context.WithoutCancel(ctx), waitForLong)
	defer cancel()
	c, err := s.long.Acquire(waits)
	if err != nil {
		if waits.Err() != nil && ctx.Err() == nil {
			return fmt.Errorf("%w: %w", app.ErrBusy, err)
		}
		return kind(err)
	}
	defer c.Release()
	return kind(do(c))
}

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
	db := stdlib.OpenDBFromPool(s.long)
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
	case errors.Is(err, context.Canceled):
		return err
	case errors.Is(err, context.DeadlineExceeded) && !errors.As(err, &connect): // it is a net.Error, too
		return fmt.Errorf("%w: %w", app.ErrBusy, err)
	case errors.As(err, &pg):
		switch {
		case pg.Code == "23503" && strings.HasSuffix(pg.ConstraintName, "_kitchen_id_fkey"): // deleted meanwhile
			return app.ErrNotFound
		case pg.Code == "23505":
			return fmt.Errorf("%w: %s", app.ErrNameInUse, pg.ConstraintName)
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
	case errors.As(err, &connect), errors.As(err, &network), pgconn.SafeToRetry(err), errors.Is(err, net.ErrClosed),
		errors.Is(err, io.EOF), errors.Is(err, io.ErrUnexpectedEOF):
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
	if errors.Is(err, app.ErrNameInUse) {
		return add()
	}
	return err
}

// kept is a column of JSON, and what it is read into.
type kept struct {
	raw  []byte
	into any
}

// decoded reads columns of JSON; an error names those that are not what the program reads them as. NULL is left alone.
func decoded(columns map[string]kept) error {
	var wrong []error
	for name, c := range columns {
		if c.raw == nil {
			continue
		}
		if err := json.Unmarshal(c.raw, c.into); err != nil {
			wrong = append(wrong, fmt.Errorf("%s: %w", name, err))
		}
	}
	return errors.Join(wrong...)
}

// oneBy is one row; where there is none, it is app.ErrNotFound.
func oneBy[T any](ctx context.Context, from querier, scan pgx.RowToFunc[T], sql string, args ...any) (T, error) {
	rows, err := from.Query(ctx, sql, args...)
	if err != nil {
		var none T
		return none, kind(err)
	}
	out, err := pgx.CollectExactlyOneRow(rows, scan)
	return out, kind(err)
}

// one is one row as a struct by column name.
func one[T any](ctx context.Context, from querier, sql string, args ...any) (T, error) {
	return oneBy(ctx, from, pgx.RowToStructByName[T], sql, args...)
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
