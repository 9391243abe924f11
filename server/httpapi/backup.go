package httpapi

import (
	"context"
	"errors"
	"io"
	"net/http"
	"os"

	"mabbin/api"
	"mabbin/app"
	"mabbin/server/formats"
	"mabbin/server/wire"

	"github.com/gin-gonic/gin"
)

// backUp is a whole kitchen as one archive, written as it is read.
func (s *server) backUp(c *gin.Context) {
	s.download(c, "application/zip", func(to io.Writer) error {
		w, err := formats.NewArchive(to, s.Clock())
		if err != nil {
			return err
		}
		err = s.Store.BackUp(
			c,
			kitchenOf(c),
			w.Row,
			func(p app.Picture) error { return w.Picture(p.ID.String(), p.JPEG, p.Small) },
		)
		if err != nil {
			return err // what is not ended is no archive
		}
		return w.Close()
	})
}

// restoreKitchen makes a kitchen of an archive: all of it, or nothing.
func (s *server) restoreKitchen(c *gin.Context) {
	p, err := query[api.RestoreKitchenParams](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	tick, over := s.progress.begin(c, p.XWork)
	defer over()
	k, err := s.restored(c, c.Request.Body, tick)
	s.respond(c, http.StatusCreated, kitchen(k), err)
}

func (s *server) restored(ctx context.Context, from io.Reader, tick func(done, of int64) error) (app.Kitchen, error) {
	f, err := os.CreateTemp("", "mabbin-restore-*.zip") // a zip is read from its end
	if err != nil {
		return app.Kitchen{}, err
	}
	defer func() { _, _ = f.Close(), os.Remove(f.Name()) }()
	size, err := io.Copy(f, from)
	if err != nil {
		return app.Kitchen{}, err
	}
	a, err := formats.OpenArchive(f, size)
	if err != nil {
		return app.Kitchen{}, archiveFault(err)
	}
	a.Tick = tick
	k, err := s.Store.Restore(ctx, a, func(name string) string { return shortened(name, 65) + ", restored" })
	return k, archiveFault(err)
}

func archiveFault(err error) error {
	if errors.Is(err, formats.ErrArchive) && !errors.Is(err, context.Canceled) { // else nobody waits for it any more
		return wire.BodyFault(err)
	}
	return err
}

func shortened(s string, most int) string {
	if r := []rune(s); len(r) > most {
		return string(r[:most])
	}
	return s
}
