package store

import (
	"context"
	"encoding/json"
	"maps"
	"slices"
	"strings"

	"github.com/jackc/pgx/v5"
	"github.com/pressly/goose/v3"
)

// MigrateTo migrates the database to a version, up or down.
func (s *Store) MigrateTo(ctx context.Context, version int64) error {
	return s.migrate(func(p *goose.Provider) error {
		now, err := p.GetDBVersion(ctx)
		if err != nil {
			return err
		}
		if now > version {
			_, err = p.DownTo(ctx, version)
		} else {
			_, err = p.UpTo(ctx, version)
		}
		return err
	})
}

// Lift brings a row of an archive of a form to today's.
func Lift(form int, table string, row map[string]json.RawMessage) { lift(form, table, row) }

// Lifts are the forms that have a lift to the next.
func Lifts() (forms []int) {
	for form := range lifts {
		forms = append(forms, form)
	}
	return forms
}

// PutRow puts a row into a table as it is, and Column reads one of its columns.
func (s *Store) PutRow(ctx context.Context, table string, row []byte) error {
	var columns map[string]json.RawMessage
	if err := json.Unmarshal(row, &columns); err != nil {
		return err
	}
	names := strings.Join(slices.Sorted(maps.Keys(columns)), ", ")
	_, err := s.pool.Exec(ctx, `insert into `+table+` (`+names+`) select `+names+
		` from jsonb_populate_record(null::`+table+`, $1)`, row)
	return err
}

// Column is a column of a row, as JSON.
func (s *Store) Column(ctx context.Context, table, column string, id any) (raw json.RawMessage, err error) {
	err = s.pool.QueryRow(ctx, `select to_jsonb(t) -> $2::text from `+table+` t where id = $1`, id, column).Scan(&raw)
	return raw, err
}

// RowsOf returns every row of a table, as JSON by column.
func (s *Store) RowsOf(ctx context.Context, table string) ([]map[string]json.RawMessage, error) {
	rows, err := s.pool.Query(ctx, `select to_jsonb(t) from `+table+` t`)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowTo[map[string]json.RawMessage])
}
