package httpapi

import (
	"context"
	"encoding/json"
	"runtime"
	"sync"

	"mabbin/api"
	"mabbin/app"
	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/fault"

	"github.com/google/uuid"
)

// summaryCache remembers what saved versions come to in short, for the tiles of a list: a version never changes, and
// in an oven that has not changed it comes to the same. The zero value is ready.
type summaryCache struct {
	mu  sync.Mutex
	all map[summaryOf]*api.Brief
}

// summaryOf is a version in a setting.
type summaryOf struct {
	version uuid.UUID
	setting string
}

// mostSummaries is how many are remembered: some 6 kB each, with their pictures.
const mostSummaries = 12000

// page is what the newest versions of cards come to, each simulated where it bakes; nil where one can't be
// calculated, which failed is reported. It ends with ctx.
func (s *summaryCache) page(
	ctx context.Context,
	cards []app.Card,
	settings []bake.Setting,
	failed func(app.Card, error),
) []*api.Brief {
	out := make([]*api.Brief, len(cards))
	free := make(chan struct{}, runtime.GOMAXPROCS(0))
	var wait sync.WaitGroup
	for i, c := range cards {
		if c.Unusable != nil {
			continue
		}
		key, found := s.look(c.Versions[0], settings[i])
		if out[i] = found; found != nil || ctx.Err() != nil {
			continue
		}
		free <- struct{}{}
		wait.Go(func() {
			defer func() { <-free }()
			if err := fault.Guard(func() (err error) {
				out[i], err = s.keep(ctx, key, c.Versions[0].Request, settings[i])
				return err
			}); err != nil && ctx.Err() == nil {
				failed(c, err)
			}
		})
	}
	wait.Wait()
	return out
}

// look finds what is remembered, and under what it is.
func (s *summaryCache) look(v app.Version, in bake.Setting) (summaryOf, *api.Brief) {
	setting, _ := json.Marshal(in)
	key := summaryOf{v.ID, string(setting)}
	s.mu.Lock()
	defer s.mu.Unlock()
	return key, s.all[key]
}

// keep works a dessert out as the Bench does, and remembers it.
func (s *summaryCache) keep(ctx context.Context, key summaryOf, r balance.Request, in bake.Setting) (
	*api.Brief, error,
) {
	a, err := bake.Dessert(ctx, bake.DessertRequest{Request: r, Setting: in})
	if err != nil {
		return nil, err
	}
	b := brief(&a.Balance)
	b.Verdict = shortVerdict(a.Verdict)
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.all == nil || len(s.all) >= mostSummaries {
		s.all = map[summaryOf]*api.Brief{}
	}
	s.all[key] = &b
	return &b, nil
}
