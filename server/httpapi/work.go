package httpapi

import (
	"context"
	"sync"

	"github.com/google/uuid"

	"mabbin/api"
)

// works are the long pieces of work that are under way, by the ids that their callers gave them.
type works struct {
	mu  sync.Mutex
	all map[uuid.UUID]api.Work
}

// begin enters a piece of work, where it has an id. tick notes how far it is, and is an error as soon as nobody waits for it
// any more; over takes it off again.
func (w *works) begin(ctx context.Context, id *uuid.UUID) (tick func(done, of int64) error, over func()) {
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

// HowFar says how far a piece of work is.
func (s Server) HowFar(_ context.Context, req api.HowFarRequestObject) (api.HowFarResponseObject, error) {
	s.works.mu.Lock()
	defer s.works.mu.Unlock()
	return api.HowFar200JSONResponse(s.works.all[req.Work]), nil
}
