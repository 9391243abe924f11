package httpapi

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"

	"mabbin/api"
	"mabbin/app"
	"mabbin/core/fault"
	"mabbin/server/formats"
	"mabbin/server/render"
	"mabbin/server/wire"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
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

// restoreKitchen makes a kitchen of an archive: all of it, or nothing. Once the archive is here it goes on without its
// caller, who can ask by its id what came of it, and send it again: with the same id it is done once.
func (s *server) restoreKitchen(c *gin.Context) {
	p, err := query[api.RestoreKitchenParams](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	id := or(p.XWork, uuid.New())
	if k, err := s.Store.Restored(c, id); !errors.Is(err, app.ErrNotFound) {
		s.respond(c, http.StatusCreated, kitchen(k), err)
		return
	}
	ctx, cancel := context.WithTimeout(context.WithoutCancel(c.Request.Context()), s.Deadlines.Long)
	ctx, piece, err := s.work.begin(ctx, id, s.Clock())
	if err != nil {
		cancel()
		_, _ = io.Copy(io.Discard, c.Request.Body) // sent again by a browser whose line broke: it is the same
		s.answerRestore(c, id, piece)
		return
	}
	f, size, err := received(c.Request.Body)
	read := s.reading(c)
	go func() {
		defer cancel()
		var k app.Kitchen
		failed := err
		if failed == nil {
			defer func() { _ = f.Close() }()
			failed = fault.Guard(func() (err error) {
				k, err = s.restored(ctx, id, f, size, piece)
				return err
			})
		}
		if failed != nil {
			s.Log.Warn("a restore has failed", "work", id, "error", failed)
		}
		s.endRestore(read, piece, k, failed)
	}()
	s.answerRestore(c, id, piece)
}

// answerRestore waits for a restore, and answers with what came of it. It goes on where its caller leaves.
func (s *server) answerRestore(c *gin.Context, id uuid.UUID, p *piece) {
	select {
	case <-p.over:
	case <-c.Request.Context().Done():
		s.fail(c, c.Request.Context().Err())
		return
	}
	if reported, _ := s.work.look(id); reported.Problem != nil {
		problem(c, *reported.Problem)
	} else {
		s.respond(c, http.StatusCreated, reported.Kitchen, nil)
	}
}

// endRestore notes what came of a restore, for whoever asks for it.
func (s *server) endRestore(read render.Reading, p *piece, k app.Kitchen, failed error) {
	s.work.end(p, s.Clock(), func(w *api.Work) {
		if failed == nil {
			made := kitchen(k)
			w.State, w.Kitchen = api.WorkStateDone, &made
			if s.LearnAtStart {
				s.learning.Start(k.ID)
			}
			return
		}
		problem := problemOf(failed, read)
		w.State, w.Problem = api.WorkStateFailed, &problem
	})
}

// received keeps what is sent in a file that has no name: it is gone with whoever has it open, however that ends.
func received(from io.Reader) (f *os.File, size int64, err error) {
	f, err = os.CreateTemp("", "mabbin-restore-*.zip") // a zip is read from its end
	if err != nil {
		return nil, 0, err
	}
	if err = os.Remove(f.Name()); err == nil {
		size, err = io.Copy(f, bodyReader{from})
	}
	if err != nil {
		_ = f.Close()
		return nil, 0, err
	}
	return f, size, nil
}

// bodyReader tells an error of reading a body from one of writing it down.
type bodyReader struct{ io.Reader }

func (b bodyReader) Read(p []byte) (int, error) {
	n, err := b.Reader.Read(p)
	if err != nil && !errors.Is(err, io.EOF) {
		err = bodyError(err)
	}
	return n, err
}

func (s *server) restored(ctx context.Context, id uuid.UUID, f *os.File, size int64, p *piece) (app.Kitchen, error) {
	a, err := formats.OpenArchive(f, size)
	if err != nil {
		return app.Kitchen{}, archiveFault(err)
	}
	a.Tick = func(done, of int64) error { return s.work.tick(ctx, p, done, of) }
	k, err := s.Store.Restore(ctx, id, a, func(name string) string { return shortened(name, 65) + ", restored" })
	if ctx.Err() != nil && err != nil {
		err = fmt.Errorf("%w: %w", errStopped, err)
	}
	return k, archiveFault(err)
}

// errStopped is a piece of work that somebody has stopped.
var errStopped = errors.New("stopped")

func archiveFault(err error) error {
	if errors.Is(err, formats.ErrArchive) && !errors.Is(err, errStopped) {
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
