package store

import (
	"context"
	"time"

	"mabbin/app"

	"github.com/google/uuid"
)

// AddPicture keeps a picture. It goes with a bake when the bake's outcome names it. The same id twice is the same
// picture; another picture under it is an app.Conflict, and another kitchen's is app.ErrNotFound.
func (s *Store) AddPicture(ctx context.Context, kitchen uuid.UUID, p app.Picture, at time.Time) error {
	if err := s.known(ctx, kitchen); err != nil {
		return err
	}
	tag, err := s.pool.Exec(
		ctx,
		`insert into picture (id, kitchen_id, width, height, jpeg, small, added_at) values ($1, $2, $3, $4, $5, $6, $7)
			on conflict do nothing`,
		p.ID,
		kitchen,
		p.Width,
		p.Height,
		p.JPEG,
		p.Small,
		at,
	)
	if err != nil || tag.RowsAffected() > 0 {
		return kind(err)
	}
	there := app.Picture{ID: p.ID}
	err = s.pool.QueryRow(ctx, `select width, height, jpeg from picture where kitchen_id = $1 and id = $2`, kitchen, p.ID).
		Scan(&there.Width, &there.Height, &there.JPEG)
	if err != nil {
		return kind(err)
	}
	return app.Same(p.JPEG, there.JPEG, there)
}

// PictureOf is a picture as it is shown, the small one or the whole.
func (s *Store) PictureOf(ctx context.Context, kitchen, id uuid.UUID, small bool) (jpeg []byte, err error) {
	column := "jpeg"
	if small {
		column = "small"
	}
	err = s.pool.QueryRow(ctx, `select `+column+` from picture where kitchen_id = $1 and id = $2`, kitchen, id).Scan(&jpeg)
	return jpeg, kind(err)
}

// SweepPictures deletes pictures that were added before a time and that no bake uses.
func (s *Store) SweepPictures(ctx context.Context, before time.Time) error {
	_, err := s.pool.Exec(ctx, `delete from picture p where added_at < $1
		and not exists (select from bake where picture_id = p.id) and not exists (select from bake_correction
		where picture_id = p.id)`, before)
	return kind(err)
}
