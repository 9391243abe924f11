package httpapi

import (
	"sync"

	"github.com/google/uuid"

	"mabbin/api"
	"mabbin/core/balance"
	"mabbin/core/diet"
	"mabbin/server/store"
)

// briefs remembers what saved versions come to: a version never changes. The zero value is ready.
type briefs struct {
	mu  sync.Mutex
	all map[uuid.UUID]*known
}

// known is a version's answer in short, and which diets it suits.
type known struct {
	brief api.Brief
	suits map[diet.Diet]bool
}

// mostBriefs is how many are remembered: some 6 kB each, with their pictures.
const mostBriefs = 12000

// of is what a version comes to; nil where it can't be calculated.
func (b *briefs) of(v store.Version) *known {
	b.mu.Lock()
	k, ok := b.all[v.ID]
	b.mu.Unlock()
	if ok {
		return k
	}
	if a, err := balance.Solve(v.Request); err == nil {
		k = &known{brief(a), map[diet.Diet]bool{}}
		for _, d := range diet.All {
			k.suits[d] = diet.Suits(a, d)
		}
	}
	b.mu.Lock()
	defer b.mu.Unlock()
	if b.all == nil || len(b.all) >= mostBriefs {
		b.all = map[uuid.UUID]*known{}
	}
	b.all[v.ID] = k
	return k
}
