package httpapi

import (
	"context"
	"errors"
	"net/http"
	"sync"
	"time"

	"mabbin/api"
	"mabbin/app"
	"mabbin/core/learn"
	"mabbin/server/render"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
)

// work is the long pieces of work that are under way, and those that are over since not long, by the ids that their
// callers gave them. The zero value is ready.
type work struct {
	mu  sync.Mutex
	all map[uuid.UUID]*piece
}

// piece is one long piece of work.
type piece struct {
	told  api.Work
	stop  context.CancelFunc
	ended time.Time     // zero while it is under way
	over  chan struct{} // closed as it ends
}

// workKept is how long the end of a piece of work can be asked for.
const workKept = time.Hour

// begin enters a piece of work that ends with the returned context. Where one of its id is under way, that one is
// returned with app.ErrUnderWay.
func (w *work) begin(ctx context.Context, id uuid.UUID, now time.Time) (context.Context, *piece, error) {
	w.mu.Lock()
	defer w.mu.Unlock()
	for old, p := range w.all {
		if !p.ended.IsZero() && now.Sub(p.ended) > workKept {
			delete(w.all, old)
		}
	}
	if p := w.all[id]; p != nil && p.ended.IsZero() {
		return nil, p, app.ErrRunning
	}
	if w.all == nil {
		w.all = map[uuid.UUID]*piece{}
	}
	ctx, stop := context.WithCancel(ctx)
	p := &piece{told: api.Work{State: api.WorkStateRunning}, stop: stop, over: make(chan struct{})}
	w.all[id] = p
	return ctx, p, nil
}

// tick notes how far a piece of work is, and is an error as soon as it is to stop.
func (w *work) tick(ctx context.Context, p *piece, done, of int64) error {
	w.mu.Lock()
	defer w.mu.Unlock()
	p.told.Done, p.told.Of = done, of
	return ctx.Err()
}

// end notes how a piece of work has ended.
func (w *work) end(p *piece, now time.Time, reported func(*api.Work)) {
	p.stop()
	w.mu.Lock()
	defer w.mu.Unlock()
	p.ended = now
	reported(&p.told)
	close(p.over)
}

// look is how far a piece of work is; false for one that is not known here.
func (w *work) look(id uuid.UUID) (api.Work, bool) {
	w.mu.Lock()
	defer w.mu.Unlock()
	p, ok := w.all[id]
	if !ok {
		return api.Work{State: api.WorkStateUnknown}, false
	}
	return p.told, true
}

// watchedWork begins a piece of work that lasts as long as its request; over ends it. Without an id nobody can ask for
// it.
func (s *server) watchedWork(c *gin.Context, id *uuid.UUID) (
	ctx context.Context, tick func(done, of int) error, over func(), err error,
) {
	if id == nil {
		return c, func(int, int) error { return c.Err() }, func() {}, nil
	}
	ctx, p, err := s.work.begin(c.Request.Context(), *id, s.Clock())
	if err != nil {
		return nil, nil, nil, err
	}
	return ctx, func(done, of int) error { return s.work.tick(ctx, p, int64(done), int64(of)) }, func() {
		s.work.end(p, s.Clock(), func(w *api.Work) { w.State = api.WorkStateDone })
	}, nil
}

// atWork does a piece of work that lasts as long as its request and tells how far it is; err is that of reading its id.
func (s *server) atWork(c *gin.Context, id *uuid.UUID, err error, do func(context.Context, learn.Tick)) {
	if err != nil {
		s.fail(c, err)
		return
	}
	ctx, tick, over, err := s.watchedWork(c, id)
	if err != nil {
		s.fail(c, err)
		return
	}
	defer over()
	do(ctx, tick)
}

// beginLearning enters a learning in the background, which can be followed and stopped by its id.
func (s *server) beginLearning(ctx context.Context, id uuid.UUID) (context.Context, learn.Tick, func(error)) {
	of, p, err := s.work.begin(ctx, id, s.Clock())
	if err != nil { // never: the id is new
		return ctx, func(int, int) error { return ctx.Err() }, func(error) {}
	}
	tick := func(done, all int) error { return s.work.tick(of, p, int64(done), int64(all)) }
	return of, tick, func(failed error) {
		s.work.end(p, s.Clock(), func(w *api.Work) {
			w.State = api.WorkStateDone
			if failed != nil {
				problem := problemOf(failed, render.Reading{})
				w.State, w.Problem = api.WorkStateFailed, &problem
			}
		})
	}
}

// howFar says how far a piece of work is, and what came of it.
func (s *server) howFar(c *gin.Context) {
	reported, known := s.work.look(id(c, "work"))
	if !known { // it may have ended before this server began
		k, err := s.Store.Restored(c, id(c, "work"))
		switch {
		case err == nil:
			made := kitchen(k)
			reported.State, reported.Kitchen = api.WorkStateDone, &made
		case !errors.Is(err, app.ErrNotFound):
			s.fail(c, err)
			return
		}
	}
	s.respond(c, http.StatusOK, reported, nil)
}

// stopWork stops a piece of work. What it has begun is taken back.
func (s *server) stopWork(c *gin.Context) {
	s.work.mu.Lock()
	p := s.work.all[id(c, "work")]
	s.work.mu.Unlock()
	if p == nil {
		s.respondNoContent(c, app.ErrNotFound)
		return
	}
	p.stop()
	s.respondNoContent(c, nil)
}
