package store

import (
	"context"

	"mabbin/core/larder"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// Own is what a kitchen knows better than the tables.
func (s *Store) Own(ctx context.Context, kitchen uuid.UUID) (*larder.Own, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return nil, err
	}
	rows, err := list[struct {
		Kind              larder.Kind
		Key, CopyOf, Name string
		Figures           map[string]float64
		Allergens         *[]string
	}](ctx, s, `select kind, key, copy_of, name, figures, allergens from own_row where kitchen_id = $1`, kitchen)
	if err != nil {
		return nil, err
	}
	own := &larder.Own{Fruits: map[string]larder.OwnRow{}, Ingredients: map[string]larder.OwnRow{}}
	for _, r := range rows {
		own.Rows(r.Kind)[r.Key] = larder.OwnRow{
			CopyOf: r.CopyOf, Name: r.Name, Values: r.Figures, Allergens: r.Allergens,
		}
	}
	return own, nil
}

// SetOwn saves a row of a kitchen's own, of one of the larder's kinds, in the place of the one it had.
func (s *Store) SetOwn(ctx context.Context, kitchen uuid.UUID, of larder.Kind, key string, r larder.OwnRow) error {
	if r.Values == nil {
		r.Values = map[string]float64{}
	}
	return s.changingLog(ctx, kitchen, func(tx pgx.Tx) error {
		_, err := tx.Exec(
			ctx,
			`insert into own_row (kitchen_id, kind, key, copy_of, name, figures, allergens)
			values ($1, $2, $3, $4, $5, $6, $7)
			on conflict (kitchen_id, kind, key) do update set copy_of = excluded.copy_of, name = excluded.name,
			figures = excluded.figures, allergens = excluded.allergens, changed_at = now()`,
			kitchen,
			of,
			key,
			r.CopyOf,
			r.Name,
			r.Values,
			r.Allergens,
		)
		return err
	})
}

// DropOwn goes back to the table's figures.
func (s *Store) DropOwn(ctx context.Context, kitchen uuid.UUID, of larder.Kind, key string) error {
	return s.changingLog(ctx, kitchen, func(tx pgx.Tx) error {
		return changedOne(
			tx.Exec(ctx, `delete from own_row where kitchen_id = $1 and kind = $2 and key = $3`, kitchen, of, key),
		)
	})
}
