package httpapi

import (
	"sync"

	"mabbin/api"
	"mabbin/app"
	"mabbin/core/balance"

	"github.com/google/uuid"
)

// summaryCache remembers what saved versions come to in short, for the tiles of a list: a version never changes. The
// zero value is ready.
type summaryCache struct {
	mu  sync.Mutex
	all map[uuid.UUID]*api.Brief
}

// mostSummaries is how many are remembered: some 6 kB each, with their pictures.
const mostSummaries = 12000

// of is what a version comes to; nil where it can't be calculated.
func (s *summaryCache) of(v app.Version) *api.Brief {
	s.mu.Lock()
	b, ok := s.all[v.ID]
	s.mu.Unlock()
	if ok {
		return b
	}
	if a, err := balance.Solve(v.Request); err == nil {
		b = new(api.Brief)
		*b = brief(a)
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.all == nil || len(s.all) >= mostSummaries {
		s.all = map[uuid.UUID]*api.Brief{}
	}
	s.all[v.ID] = b
	return b
}
