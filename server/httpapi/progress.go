package httpapi

import (
	"context"
	"net/http"
	"sync"

	"mabbin/api"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
)

// progress is the long pieces of work that are under way, by the ids that their callers gave them.
type progress struct {
	mu  sync.Mutex
	all map[uuid.UUID]api.Work
}

// begin enters a piece of work, where it has an id. tick notes how far it is, and is an error as soon as nobody waits
// for it any more; over takes it off again.
func (w *progress) begin(ctx context.Context, id *uuid.UUID) (tick func(done, of int64) error, over func()) {
	if id == nil {
		return func(int64, int64) error { return ctx.Err() }, func() {}
	}
	note := func(how api.Work) {
		w.mu.Lock()
		defer w.mu.Unlock()
		if w.all == nil {
			w.all = map[uuid.UUID]api.Work{}
		}
		w.all[*id] = how
	}
	return func(done, of int64) error {
			note(api.Work{Done: done, Of: of})
			return ctx.Err()
		}, func() {
			w.mu.Lock()
			defer w.mu.Unlock()
			delete(w.all, *id)
		}
}

// howFar says how far a piece of work is.
func (s *server) howFar(c *gin.Context) {
	s.progress.mu.Lock()
	defer s.progress.mu.Unlock()
	s.respond(c, http.StatusOK, s.progress.all[id(c, "work")], nil)
}
