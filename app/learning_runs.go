package app

import (
	"context"
	"errors"
	"sync"
	"time"

	"github.com/google/uuid"
)

const (
	// learningMost is how long one learning may take.
	learningMost = 15 * time.Minute
	// learningAtOnce is how many kitchens' logs one server learns from at the same time: each takes a core for seconds.
	learningAtOnce = 2
)

// learningRuns are the kitchens whose logs are being learnt from, or wait for it. The zero value is ready.
type learningRuns struct {
	mu  sync.Mutex
	all map[uuid.UUID]*learningRun
	// free has a place for each learning that may be under way.
	free chan struct{}
}

// learningRun is the learning of one kitchen. It ends once nothing has changed since it was begun last.
type learningRun struct {
	id    uuid.UUID
	stop  context.CancelFunc
	asked bool // for a look at what has changed
}

// begin enters a run of a kitchen. Where there is one, it is asked to look once more, and begin returns it and false.
func (r *learningRuns) begin(kitchen uuid.UUID) (run *learningRun, ctx context.Context, began bool) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if run = r.all[kitchen]; run != nil {
		run.asked = true
		return run, nil, false
	}
	if r.all == nil {
		r.all = map[uuid.UUID]*learningRun{}
	}
	ctx, stop := context.WithTimeout(context.Background(), learningMost)
	run = &learningRun{id: uuid.New(), stop: stop, asked: true}
	r.all[kitchen] = run
	return run, ctx, true
}

// places returns free, which is made when it is asked for first.
func (r *learningRuns) places() chan struct{} {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.free == nil {
		r.free = make(chan struct{}, learningAtOnce)
	}
	return r.free
}

// end ends a run, unless it was asked for once more and may go on.
func (r *learningRuns) end(kitchen uuid.UUID, run *learningRun, goOn bool) (ended bool) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if run.asked && goOn {
		run.asked = false
		return false
	}
	delete(r.all, kitchen)
	run.stop()
	return true
}

// Place waits for a place among the learnings that are under way at once; free gives it back. Where none gets free in
// time, it is ErrBusy.
func (l *Learning) Place(ctx context.Context, wait time.Duration) (free func(), err error) {
	places := l.runs.places()
	waited := time.NewTimer(wait)
	defer waited.Stop()
	select {
	case places <- struct{}{}:
		return func() { <-places }, nil
	case <-waited.C:
		return nil, ErrBusy
	case <-ctx.Done():
		return nil, ctx.Err()
	}
}

// Start learns from a kitchen's log in the background, unless that is under way, and returns the id of that work. It
// goes on until nothing has changed since.
func (l *Learning) Start(kitchen uuid.UUID) uuid.UUID {
	run, ctx, began := l.runs.begin(kitchen)
	if !began {
		return run.id
	}
	ended := func(error) {}
	tick := func(int, int) error { return ctx.Err() }
	if l.StartWork != nil {
		ctx, tick, ended = l.StartWork(ctx, run.id)
	}
	go func() {
		var err error
		for goOn := true; !l.runs.end(kitchen, run, goOn); goOn = err == nil {
			err = l.untilCurrent(ctx, kitchen, tick)
		}
		ended(err)
		if err != nil && !errors.Is(err, ErrNotFound) && !errors.Is(err, context.Canceled) && l.Failed != nil {
			l.Failed(kitchen, err)
		}
	}()
	return run.id
}

// untilCurrent learns from a kitchen's log until nothing has changed since.
func (l *Learning) untilCurrent(ctx context.Context, kitchen uuid.UUID, tick func(done, of int) error) error {
	free, err := l.Place(ctx, learningMost)
	if err != nil {
		return err
	}
	defer free()
	for {
		state, err := l.Store.LearningState(ctx, kitchen)
		if err != nil || state.Current() {
			return err
		}
		if err := l.Update(ctx, kitchen, tick); err != nil {
			return err
		}
	}
}

// Stop stops learning from a kitchen's log: the kitchen is deleted.
func (l *Learning) Stop(kitchen uuid.UUID) {
	l.runs.mu.Lock()
	defer l.runs.mu.Unlock()
	if run := l.runs.all[kitchen]; run != nil {
		run.stop()
	}
}

// AtStart learns from the log of each kitchen whose log has changed since it was learnt from.
func (l *Learning) AtStart(kitchens func(context.Context) ([]Kitchen, error)) {
	go func() {
		ctx := context.Background()
		all, err := kitchens(ctx)
		if err != nil {
			l.Failed(uuid.Nil, err)
		}
		for _, k := range all {
			if state, err := l.Store.LearningState(ctx, k.ID); err == nil && !state.Current() {
				l.Start(k.ID)
			}
		}
	}()
}
