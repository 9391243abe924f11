package store

import (
	"context"
	"fmt"
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
	Archived bool
	Versions []Version
}

const versionColumns = `v.id, v.number, v.saved_at, v.request, v.oven_id, v.oven_c, v.minutes, v.shelf, v.filling_c, v.dish_c, v.stages, v.note`

// CardsSought is which cards are wanted; the zero value is all that are not put away.
type CardsSought struct {
	Words    string // somewhere in the name
	Style    string
	Fruit    string // key
	Shape    string // of the dish
	Archived bool   // those that are put away, in the place of the others
	From     int    // so many of them left out
	Limit    int    // so many at most; 0: all
}

// Cards lists a kitchen's cards that are sought, with their newest versions, the last saved first.
func (s *Store) Cards(ctx context.Context, kitchen uuid.UUID, q CardsSought) ([]Card, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return nil, err
	}
	sql, args := q.where(kitchen)
	sql = newestOf + sql + ` order by place`
	if q.Limit > 0 {
		args = append(args, q.From, q.Limit)
		sql += fmt.Sprintf(` offset $%d limit $%d`, len(args)-1, len(args))
	}
	// which they are first, and then what is in them: a page does not carry every card through the sorting
	return s.cards(ctx, `select c.id, c.name, c.archived, `+versionColumns+` from (select c.id, v.id as version, row_number() over (order by v.saved_at desc, c.name, c.id) as place from card c `+sql+`) found
		join card c on c.id = found.id join card_version v on v.id = found.version order by place`, args...)
}

// newestOf joins each card with its newest version.
const newestOf = `cross join lateral (select * from card_version where card_id = c.id order by number desc limit 1) v where `

// CountCards is how many cards are sought.
func (s *Store) CountCards(ctx context.Context, kitchen uuid.UUID, q CardsSought) (n int, err error) {
	sql, args := q.where(kitchen)
	err = s.pool.QueryRow(ctx, `select count(*) from card c `+newestOf+sql, args...).Scan(&n)
	return n, kind(err)
}

// where is the condition on a kitchen's cards, with its arguments.
func (q CardsSought) where(kitchen uuid.UUID) (sql string, args []any) {
	sql, args = `c.kitchen_id = $1 and c.archived = $2`, []any{kitchen, q.Archived}
	also := func(condition string, wanted string, arg any) {
		if wanted != "" {
			args = append(args, arg)
			sql += fmt.Sprintf(" and "+condition, len(args))
		}
	}
	also(`c.name ilike '%%' || $%d || '%%'`, q.Words, likeWords.Replace(q.Words))
	also(`v.request ->> 'style' = $%d`, q.Style, q.Style)
	also(`v.request -> 'fruits' @> jsonb_build_array(jsonb_build_object('key', $%d::text))`, q.Fruit, q.Fruit)
	also(`v.request #>> '{dish,shape}' = $%d`, q.Shape, q.Shape)
	return sql, args
}

// NameCard gives a card another name, or puts it away, or takes it out again; nil leaves that as it is.
func (s *Store) NameCard(ctx context.Context, kitchen, card uuid.UUID, name *string, archived *bool) (Card, error) {
	err := changedOne(s.pool.Exec(ctx, `update card set name = coalesce($3, name), archived = coalesce($4, archived) where kitchen_id = $1 and id = $2`, kitchen, card, name, archived))
	if err != nil {
		return Card{}, err
	}
	return s.Card(ctx, kitchen, card)
}

// Card is one card with every version.
func (s *Store) Card(ctx context.Context, kitchen, card uuid.UUID) (Card, error) {
	found, err := s.cards(ctx, `select c.id, c.name, c.archived, `+versionColumns+`
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
		err := row.Scan(&c.ID, &c.Name, &c.Archived, &v.ID, &v.Number, &v.SavedAt, &v.Request, &v.OvenID, &v.OvenC, &v.Minutes, &v.Shelf, &v.FillingC, &v.DishC, &v.Stages, &v.Note)
		return c, err
	})
	return out, kind(err)
}

// AddCard saves a card with its first version. The same ids twice are the same card.
func (s *Store) AddCard(ctx context.Context, kitchen, card uuid.UUID, name string, first Version) (Card, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return Card{}, err
	}
	err := once(func() error {
		return s.inTx(ctx, func(tx pgx.Tx) error {
			tag, err := tx.Exec(ctx, `insert into card (id, kitchen_id, name) values ($1, $2, $3) on conflict (id) do nothing`, card, kitchen, name)
			if err != nil || tag.RowsAffected() == 0 {
				return err
			}
			return addVersion(ctx, tx, kitchen, card, first)
		})
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
