package store

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"mabbin/core/bake"
	"mabbin/core/balance"
)

// Setting is where and how long a dessert bakes; each part may be open.
type Setting struct {
	OvenID  *uuid.UUID
	OvenC   *float64
	Minutes *float64
	Shelf   string       // low, middle or high; empty: the middle
	Stages  []bake.Stage // none: one stage, by the two above
	// FillingC and DishC are how hot they go in; nil: by what was done to the fruit.
	FillingC *float64
	DishC    *float64
}

// Version is one saved state of a card. It is never changed.
type Version struct {
	ID      uuid.UUID
	Number  int
	SavedAt time.Time
	Request balance.Request
	Setting
	Note string
}

// Card is a card with versions, the newest first.
type Card struct {
	ID       uuid.UUID
	Name     string
	Versions []Version
}

const versionColumns = `v.id, v.number, v.saved_at, v.request, v.oven_id, v.oven_c, v.minutes, v.shelf, v.filling_c, v.dish_c, v.stages, v.note`

// Cards lists a kitchen's cards with their newest versions, the last saved first.
func (s *Store) Cards(ctx context.Context, kitchen uuid.UUID) ([]Card, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return nil, err
	}
	return s.cards(ctx, `select * from (
			select distinct on (c.id) c.id, c.name, `+versionColumns+`
			from card c join card_version v on v.card_id = c.id
			where c.kitchen_id = $1 order by c.id, v.number desc) newest (card_id, name, id, number, saved_at, request, oven_id, oven_c, minutes, shelf, filling_c, dish_c, stages, note)
		order by saved_at desc, name`, kitchen)
}

// Card is one card with every version.
func (s *Store) Card(ctx context.Context, kitchen, card uuid.UUID) (Card, error) {
	found, err := s.cards(ctx, `select c.id, c.name, `+versionColumns+`
		from card c join card_version v on v.card_id = c.id
		where c.kitchen_id = $1 and c.id = $2 order by v.number desc`, kitchen, card)
	if err != nil {
		return Card{}, err
	}
	if len(found) == 0 {
		return Card{}, ErrNotFound
	}
	whole := found[0]
	for _, more := range found[1:] {
		whole.Versions = append(whole.Versions, more.Versions...)
	}
	return whole, nil
}

// cards reads rows of a card's id and name and one of its versions.
func (s *Store) cards(ctx context.Context, sql string, args ...any) ([]Card, error) {
	rows, err := s.pool.Query(ctx, sql, args...)
	if err != nil {
		return nil, kind(err)
	}
	out, err := pgx.CollectRows(rows, func(row pgx.CollectableRow) (Card, error) {
		c := Card{Versions: make([]Version, 1)}
		v := &c.Versions[0]
		err := row.Scan(&c.ID, &c.Name, &v.ID, &v.Number, &v.SavedAt, &v.Request, &v.OvenID, &v.OvenC, &v.Minutes, &v.Shelf, &v.FillingC, &v.DishC, &v.Stages, &v.Note)
		return c, err
	})
	return out, kind(err)
}

// AddCard saves a card with its first version. The same ids twice are the same card.
func (s *Store) AddCard(ctx context.Context, kitchen, card uuid.UUID, name string, first Version) (Card, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return Card{}, err
	}
	err := s.inTx(ctx, func(tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, `insert into card (id, kitchen_id, name) values ($1, $2, $3) on conflict (id) do nothing`, card, kitchen, name)
		if err != nil || tag.RowsAffected() == 0 {
			return err
		}
		return addVersion(ctx, tx, kitchen, card, first)
	})
	if err != nil {
		return Card{}, err
	}
	return s.Card(ctx, kitchen, card)
}

// AddVersion saves a further version of a card. The same id twice is the same version.
func (s *Store) AddVersion(ctx context.Context, kitchen, card uuid.UUID, v Version) (Card, error) {
	err := s.inTx(ctx, func(tx pgx.Tx) error {
		var id uuid.UUID // locks the card: two tablets that save at once get two numbers
		if err := tx.QueryRow(ctx, `select id from card where kitchen_id = $1 and id = $2 for update`, kitchen, card).Scan(&id); err != nil {
			return err
		}
		return addVersion(ctx, tx, kitchen, card, v)
	})
	if err != nil {
		return Card{}, err
	}
	return s.Card(ctx, kitchen, card)
}

func addVersion(ctx context.Context, tx pgx.Tx, kitchen, card uuid.UUID, v Version) error {
	_, err := tx.Exec(ctx, `insert into card_version (id, kitchen_id, card_id, number, request, oven_id, oven_c, minutes, shelf, filling_c, dish_c, stages, note, saved_at)
		select $1, $2, $3, coalesce(max(number), 0) + 1, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13 from card_version where card_id = $3
		on conflict (id) do nothing`, v.ID, kitchen, card, v.Request, v.OvenID, v.OvenC, v.Minutes, v.Shelf, v.FillingC, v.DishC, v.Stages, v.Note, v.SavedAt)
	return err
}
