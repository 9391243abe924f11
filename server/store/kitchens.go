package store

import (
	"cmp"
	"context"
	"errors"

	"mabbin/app"
	"mabbin/core/units"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/pgxpool"
)

// Kitchens lists every kitchen, the oldest first.
func (s *Store) Kitchens(ctx context.Context) ([]app.Kitchen, error) {
	return list[app.Kitchen](ctx, s, kitchenRead+` order by created_at, name`)
}

const kitchenRead = `select id, name, cup, spoon, eggs, weights, heat, lengths, currency, containers, altitude_m,
	english, "decimal" from kitchen`

// OneKitchen is one kitchen.
func (s *Store) OneKitchen(ctx context.Context, id uuid.UUID) (app.Kitchen, error) {
	found, err := list[app.Kitchen](ctx, s, kitchenRead+` where id = $1`, id)
	if err == nil && len(found) == 0 {
		err = app.ErrNotFound
	}
	if err != nil {
		return app.Kitchen{}, err
	}
	return found[0], nil
}

// SetSettings changes how a kitchen measures, and answers with the kitchen.
func (s *Store) SetSettings(
	ctx context.Context, kitchen uuid.UUID, x units.Settings, when app.Precondition,
) (app.Kitchen, error) {
	x = complete(x)
	k := app.Kitchen{ID: kitchen, Settings: x}
	err := s.inTx(ctx, func(tx pgx.Tx) error {
		now, err := one[app.Kitchen](ctx, tx, kitchenRead+` where id = $1 for update`, kitchen)
		if err == nil {
			err = when.Holds(now)
		}
		if err != nil {
			return err
		}
		if now.AltitudeM != x.AltitudeM {
			if err := logChanged(ctx, tx, kitchen); err != nil {
				return err
			}
		}
		return tx.QueryRow(ctx, `update kitchen set cup = $2, spoon = $3, eggs = $4, weights = $5, heat = $6,
		lengths = $7, currency = $8, containers = $9, altitude_m = $10, english = $11, "decimal" = $12
		where id = $1 returning name`, kitchen, x.Cup, x.Spoon, x.Eggs, x.Weights, x.Heat, x.Lengths, x.Currency,
			x.Containers, x.AltitudeM, x.English, x.Decimal).
			Scan(&k.Name)
	})
	return k, err
}

// RenameKitchen gives a kitchen another name, and answers with the kitchen.
func (s *Store) RenameKitchen(
	ctx context.Context, kitchen uuid.UUID, name string, when app.Precondition,
) (app.Kitchen, error) {
	var k app.Kitchen
	err := s.inTx(ctx, func(tx pgx.Tx) error {
		var err error
		k, err = one[app.Kitchen](ctx, tx, kitchenRead+` where id = $1 for update`, kitchen)
		if err == nil {
			err = when.Holds(k)
		}
		if err != nil {
			return err
		}
		k.Name = name
		_, err = tx.Exec(ctx, `update kitchen set name = $2 where id = $1`, kitchen, name)
		return err
	})
	return k, err
}

// complete fills in what was left out of settings.
func complete(x units.Settings) units.Settings {
	if x.Containers == nil {
		x.Containers = map[string]float64{}
	}
	x.English = cmp.Or(x.English, units.UK)
	x.Decimal = cmp.Or(x.Decimal, units.Point)
	return x
}

// AddKitchen adds a kitchen, or leaves it as it is where its id is known. It reports whether it was added.
func (s *Store) AddKitchen(ctx context.Context, k app.Kitchen) (bool, error) {
	k.Settings = complete(k.Settings)
	tag, err := s.pool.Exec(
		ctx,
		`insert into kitchen (id, name, cup, spoon, eggs, weights, heat, lengths, currency, containers, altitude_m,
			english, "decimal")
		values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13) on conflict (id) do nothing`,
		k.ID,
		k.Name,
		k.Cup,
		k.Spoon,
		k.Eggs,
		k.Weights,
		k.Heat,
		k.Lengths,
		k.Currency,
		k.Containers,
		k.AltitudeM,
		k.English,
		k.Decimal,
	)
	return tag.RowsAffected() == 1, kind(err)
}

// NewKitchen makes a kitchen with nothing in it, or finds the one that has the id and the name; where it has another
// one, it is an app.Conflict.
func (s *Store) NewKitchen(
	ctx context.Context, id uuid.UUID, name string, settings units.Settings,
) (app.Kitchen, error) {
	k := app.Kitchen{ID: id, Name: name, Settings: complete(settings)}
	added, err := s.AddKitchen(ctx, k)
	if err != nil || added {
		return k, err
	}
	there, err := s.OneKitchen(ctx, id)
	if err != nil {
		return there, err
	}
	return there, app.Same(name, there.Name, there)
}

// RemoveKitchen deletes a kitchen with everything in it, in one transaction. It locks the kitchen first, as every other
// change does, and then what other changes lock: of two at once one waits for the other, and neither stops both.
func (s *Store) RemoveKitchen(ctx context.Context, kitchen uuid.UUID) error {
	return s.whole(ctx, func(c *pgxpool.Conn) error {
		return pgx.BeginFunc(ctx, c, func(tx pgx.Tx) error {
			if _, err := tx.Exec(ctx, `select from kitchen where id = $1 for update`, kitchen); err != nil {
				return err
			}
			for _, table := range []string{"card", "bake", "watch", "countdown"} {
				sql := `select from ` + table + ` where kitchen_id = $1 order by id for update`
				if _, err := tx.Exec(ctx, sql, kitchen); err != nil {
					return err
				}
			}
			// a table that refers to another comes before it
			for _, table := range []string{
				"learnt", "learning", "stock_purchase",
				"stock", "countdown", "day", "resources", "watch_call", "watch", "bake_correction", "bake", "picture",
				"card_version",
				"card", "oven", "dish", "own_row",
			} {
				if _, err := tx.Exec(ctx, `delete from `+table+` where kitchen_id = $1`, kitchen); err != nil {
					return err
				}
			}
			_, err := tx.Exec(ctx, `delete from kitchen where id = $1`, kitchen)
			return err
		})
	})
}

// known is app.ErrNotFound for a kitchen that is not there, so that an empty list is never mistaken for one.
func (s *Store) known(ctx context.Context, kitchen uuid.UUID) error {
	var one int
	return kind(s.pool.QueryRow(ctx, `select 1 from kitchen where id = $1`, kitchen).Scan(&one))
}

// Dishes lists a kitchen's dishes by name.
func (s *Store) Dishes(ctx context.Context, kitchen uuid.UUID) ([]app.KitchenDish, error) {
	if err := s.known(ctx, kitchen); err != nil {
		return nil, err
	}
	rows, err := s.pool.Query(ctx, dishRead+` where kitchen_id = $1 order by name`, kitchen)
	if err != nil {
		return nil, kind(err)
	}
	out, err := pgx.CollectRows(rows, scanDish)
	return out, kind(err)
}

const dishRead = `select id, name, shape, length_cm, width_cm, depth_cm, floor_length_cm, floor_width_cm, measured_ml,
	material, count from dish`

func scanDish(row pgx.CollectableRow) (app.KitchenDish, error) {
	var d app.KitchenDish
	x := &d.Dish
	err := row.Scan(
		&d.ID,
		&d.Name,
		&x.Shape,
		&x.LengthCM,
		&x.WidthCM,
		&x.DepthCM,
		&x.FloorLengthCM,
		&x.FloorWidthCM,
		&x.MeasuredML,
		&x.Material,
		&d.Count,
	)
	return d, err
}

// dishValues are what is kept of a dish, its kitchen first.
func dishValues(kitchen uuid.UUID, d app.KitchenDish) []any {
	x := d.Dish
	return []any{
		kitchen, d.ID, d.Name, x.Shape, x.LengthCM, x.WidthCM, x.DepthCM, x.FloorLengthCM, x.FloorWidthCM, x.MeasuredML,
		x.Material, d.Count,
	}
}

// AddDish puts a dish on the shelf. The same id twice is the same dish; another dish under it is an app.Conflict.
func (s *Store) AddDish(ctx context.Context, kitchen uuid.UUID, d app.KitchenDish) error {
	if err := s.known(ctx, kitchen); err != nil {
		return err
	}
	d.Count = max(1, d.Count)
	added := false
	err := once(func() error {
		tag, err := s.pool.Exec(
			ctx,
			`insert into dish (kitchen_id, id, name, shape, length_cm, width_cm, depth_cm, floor_length_cm, floor_width_cm,
				measured_ml, material, count)
			values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12) on conflict (id) do nothing`,
			dishValues(kitchen, d)...)
		added = tag.RowsAffected() > 0
		return kind(err)
	})
	if err != nil || added {
		return err
	}
	there, err := oneBy(ctx, s.pool, scanDish, dishRead+` where kitchen_id = $1 and id = $2`, kitchen, d.ID)
	if errors.Is(err, app.ErrNotFound) {
		return app.ErrIDInUse
	}
	if err != nil {
		return err
	}
	return app.Same(d, there, there)
}

// ChangeDish changes a dish on the shelf. Cards have their own copy of it.
func (s *Store) ChangeDish(ctx context.Context, kitchen uuid.UUID, d app.KitchenDish, when app.Precondition) error {
	return s.inTx(ctx, func(tx pgx.Tx) error {
		now, err := oneBy(ctx, tx, scanDish, dishRead+` where kitchen_id = $1 and id = $2 for update`, kitchen, d.ID)
		if err == nil {
			err = when.Holds(now)
		}
		if err != nil {
			return err
		}
		tag, err := tx.Exec(
			ctx,
			`update dish set name = $3, shape = $4, length_cm = $5, width_cm = $6, depth_cm = $7, floor_length_cm = $8,
		floor_width_cm = $9, measured_ml = $10, material = $11, count = $12 where kitchen_id = $1 and id = $2`,
			dishValues(kitchen, d)...)
		return changedOne(tag, err)
	})
}

// RemoveDish takes a dish off the shelf. Cards have their own copy of it.
func (s *Store) RemoveDish(ctx context.Context, kitchen, id uuid.UUID) error {
	return changedOne(s.pool.Exec(ctx, `delete from dish where kitchen_id = $1 and id = $2`, kitchen, id))
}

// changedOne is app.ErrNotFound where a change found nothing to change.
func changedOne(tag pgconn.CommandTag, err error) error {
	if err == nil && tag.RowsAffected() == 0 {
		return app.ErrNotFound
	}
	return kind(err)
}
