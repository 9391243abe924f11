package store

import (
	"context"
	"errors"
	"fmt"
	"slices"

	"mabbin/app"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

const versionColumns = `v.id, v.number, v.saved_at, v.request, v.oven_id, v.oven_c, v.minutes, v.shelf,
	v.filling_c, v.dish_c, v.stages, v.note, v.original`

// Cards lists a kitchen's cards that are sought, with their newest versions, the last saved first, and how many there
// are.
func (s *Store) Cards(ctx context.Context, kitchen uuid.UUID, q app.CardFilter) (page []app.Card, all int, err error) {
	if err := s.known(ctx, kitchen); err != nil {
		return nil, 0, err
	}
	where, args := cardsWhere(q, kitchen)
	if err := s.pool.QueryRow(ctx, `select count(*) from card c `+newestOf+where, args...).Scan(&all); err != nil {
		return nil, 0, kind(err)
	}
	sql := newestOf + where + ` order by place`
	if q.Limit > 0 {
		args = append(args, q.From, q.Limit)
		sql += fmt.Sprintf(` offset $%d limit $%d`, len(args)-1, len(args))
	}
	// which they are first, and then what is in them: a page does not carry every card through the sorting
	page, err = s.cards(ctx, `select c.id, c.name, c.archived, c.tags, `+versionColumns+`
		from (select c.id, v.id as version, row_number() over (order by v.saved_at desc, c.name, c.id) as place
		from card c `+sql+`) found
		join card c on c.id = found.id join card_version v on v.id = found.version order by place`, args...)
	return page, all, err
}

// newestOf joins each card with its newest version.
const newestOf = `cross join lateral (select * from card_version where card_id = c.id
	order by number desc limit 1) v where `

// cardsWhere is the condition on a kitchen's cards, with its arguments.
func cardsWhere(q app.CardFilter, kitchen uuid.UUID) (sql string, args []any) {
	sql, args = `c.kitchen_id = $1 and c.archived = $2`, []any{kitchen, q.Archived}
	also := func(condition string, wanted bool, arg any) {
		if wanted {
			args = append(args, arg)
			sql += fmt.Sprintf(" and "+condition, len(args))
		}
	}
	also(`(c.name ilike '%%' || $%[1]d || '%%' or array_to_string(c.tags, ' ') ilike '%%' || $%[1]d || '%%')`,
		q.Words != "", likeWords.Replace(q.Words))
	also(`exists (select from unnest(c.tags) tag where lower(tag) = lower($%d))`, q.Tag != "", q.Tag)
	also(`v.request ->> 'style' = $%d`, q.Style != "", q.Style)
	also(`v.request -> 'fruits' @> jsonb_build_array(jsonb_build_object('key', $%d::text))`, q.Fruit != "", q.Fruit)
	also(`v.request #>> '{dish,shape}' = $%d`, q.Shape != "", q.Shape)
	also(`v.summary -> 'suits' ? $%d`, q.Diet != "", string(q.Diet))
	also(`(v.summary ->> 'ingredients')::int <= $%d`, q.Most > 0, q.Most)
	return sql, args
}

// Unsummarised lists newest versions of a kitchen whose summaries are missing or older than a version.
func (s *Store) Unsummarised(ctx context.Context, kitchen uuid.UUID, than, limit int) ([]app.Version, error) {
	found, err := s.cards(
		ctx,
		`select c.id, c.name, c.archived, c.tags, `+versionColumns+` from card c `+newestOf+`c.kitchen_id = $1
		and (v.summary is null or (v.summary ->> 'version')::int < $2) order by v.id limit $3`,
		kitchen,
		than,
		limit,
	)
	out := make([]app.Version, len(found))
	for i, c := range found {
		out[i] = c.Versions[0]
	}
	return out, err
}

// SetSummary keeps what was worked out of a version.
func (s *Store) SetSummary(ctx context.Context, version uuid.UUID, x app.CardSummary) error {
	return changedOne(s.pool.Exec(ctx, `update card_version set summary = $2 where id = $1`, version, x))
}

// CardTags lists the tags of a kitchen's cards, in the order of the alphabet.
func (s *Store) CardTags(ctx context.Context, kitchen uuid.UUID) ([]string, error) {
	rows, err := s.pool.Query(ctx, `select min(tag) from card, unnest(tags) tag where kitchen_id = $1 and not archived
		group by lower(tag) order by lower(tag)`, kitchen)
	if err != nil {
		return nil, kind(err)
	}
	tags, err := pgx.CollectRows(rows, pgx.RowTo[string])
	return tags, kind(err)
}

// ChangeCard changes a card as a whole; nil leaves a thing as it is.
func (s *Store) ChangeCard(
	ctx context.Context, kitchen, card uuid.UUID, c app.CardChange, when app.Precondition,
) (app.Card, error) {
	err := s.inTx(ctx, func(tx pgx.Tx) error {
		now := app.Card{ID: card}
		err := tx.QueryRow(ctx, `select name, archived, tags from card where kitchen_id = $1 and id = $2 for update`,
			kitchen, card).Scan(&now.Name, &now.Archived, &now.Tags)
		if err == nil {
			err = when.Holds(now)
		}
		if err != nil {
			return err
		}
		return changedOne(
			tx.Exec(
				ctx,
				`update card set name = coalesce($3, name), archived = coalesce($4, archived), tags = coalesce($5, tags)
				where kitchen_id = $1 and id = $2`,
				kitchen,
				card,
				c.Name,
				c.Archived,
				c.Tags,
			),
		)
	})
	if err != nil {
		return app.Card{}, err
	}
	return s.Card(ctx, kitchen, card)
}

// Card is one card with every version.
func (s *Store) Card(ctx context.Context, kitchen, card uuid.UUID) (app.Card, error) {
	found, err := s.cards(ctx, `select c.id, c.name, c.archived, c.tags, `+versionColumns+`
		from card c join card_version v on v.card_id = c.id
		where c.kitchen_id = $1 and c.id = $2 order by v.number desc`, kitchen, card)
	if err != nil {
		return app.Card{}, err
	}
	if len(found) == 0 {
		return app.Card{}, app.ErrNotFound
	}
	whole := found[0]
	whole.Versions = nil
	for _, one := range found { // a version that can't be used is left out; the others are the card
		if one.Unusable == nil {
			whole.Versions = append(whole.Versions, one.Versions...)
		}
	}
	if len(whole.Versions) == 0 {
		return app.Card{}, fmt.Errorf("%w: %w", app.ErrUnusable, found[0].Unusable)
	}
	whole.Unusable = nil
	return whole, nil
}

// cards reads rows of a card's id and name and one of its versions.
func (s *Store) cards(ctx context.Context, sql string, args ...any) ([]app.Card, error) {
	rows, err := s.pool.Query(ctx, sql, args...)
	if err != nil {
		return nil, kind(err)
	}
	out, err := pgx.CollectRows(rows, func(row pgx.CollectableRow) (app.Card, error) {
		c := app.Card{Versions: make([]app.Version, 1)}
		v := &c.Versions[0]
		var request, stages, original []byte
		err := row.Scan(
			&c.ID,
			&c.Name,
			&c.Archived,
			&c.Tags,
			&v.ID,
			&v.Number,
			&v.SavedAt,
			&request,
			&v.OvenID,
			&v.OvenC,
			&v.Minutes,
			&v.Shelf,
			&v.FillingC,
			&v.DishC,
			&stages,
			&v.Note,
			&original,
		)
		c.Unusable = decoded(map[string]kept{
			"request": {request, &v.Request}, "stages": {stages, &v.Stages}, "original": {original, &v.Original},
		})
		return c, err
	})
	return out, kind(err)
}

// AddCard saves a card with its first version. The same ids twice are the same card; where something else is kept under
// one of them it is an app.Conflict.
func (s *Store) AddCard(
	ctx context.Context,
	kitchen, card uuid.UUID,
	name string,
	first app.Version,
	x app.CardSummary,
) (app.Card, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return app.Card{}, err
	}
	err := once(func() error {
		return s.inTx(ctx, func(tx pgx.Tx) error {
			tag, err := tx.Exec(
				ctx,
				`insert into card (id, kitchen_id, name) values ($1, $2, $3) on conflict (id) do nothing`,
				card,
				kitchen,
				name,
			)
			if err != nil || tag.RowsAffected() == 0 {
				return err
			}
			added, err := addVersion(ctx, tx, kitchen, card, first, x)
			if err == nil && !added {
				err = app.ErrIDInUse // a card without any version is none
			}
			return err
		})
	})
	if err != nil {
		return app.Card{}, err
	}
	return s.sameVersion(ctx, kitchen, card, first)
}

// sameVersion is a card in which a version is kept as it was sent.
func (s *Store) sameVersion(ctx context.Context, kitchen, card uuid.UUID, sent app.Version) (app.Card, error) {
	c, err := s.Card(ctx, kitchen, card)
	if errors.Is(err, app.ErrNotFound) {
		return c, app.ErrIDInUse
	}
	if err != nil {
		return c, err
	}
	at := slices.IndexFunc(c.Versions, func(v app.Version) bool { return v.ID == sent.ID })
	if at < 0 {
		return c, &app.Conflict{Stored: c}
	}
	kept := c.Versions[at]
	sent.Number, sent.SavedAt = kept.Number, kept.SavedAt
	return c, app.Same(sent, kept, c)
}

// AddVersion saves a further version of a card. The same id twice is the same version; another version under it is an
// app.Conflict.
func (s *Store) AddVersion(
	ctx context.Context,
	kitchen, card uuid.UUID,
	v app.Version,
	x app.CardSummary,
) (app.Card, error) {
	err := s.inTx(ctx, func(tx pgx.Tx) error {
		var id uuid.UUID // locks the card: two tablets that save at once get two numbers
		if err := tx.QueryRow(ctx, `select id from card where kitchen_id = $1 and id = $2 for update`, kitchen, card).
			Scan(&id); err != nil {
			return err
		}
		_, err := addVersion(ctx, tx, kitchen, card, v, x)
		return err
	})
	if err != nil {
		return app.Card{}, err
	}
	return s.sameVersion(ctx, kitchen, card, v)
}

// addVersion adds a version; false where its id is there already.
func addVersion(
	ctx context.Context, tx pgx.Tx, kitchen, card uuid.UUID, v app.Version, x app.CardSummary,
) (bool, error) {
	tag, err := tx.Exec(
		ctx,
		`insert into card_version (id, kitchen_id, card_id, number, request, oven_id, oven_c, minutes, shelf, filling_c,
			dish_c, stages, note, saved_at, summary, original)
		select $1, $2, $3, coalesce(max(number), 0) + 1, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15
		from card_version where card_id = $3
		on conflict (id) do nothing`,
		v.ID,
		kitchen,
		card,
		v.Request,
		v.OvenID,
		v.OvenC,
		v.Minutes,
		v.Shelf,
		v.FillingC,
		v.DishC,
		v.Stages,
		v.Note,
		v.SavedAt,
		x,
		v.Original,
	)
	return tag.RowsAffected() > 0, err
}
