package app

import (
	"context"

	"github.com/google/uuid"
)

// atOnce is how many summaries are made between two looks at the database.
const atOnce = 200

// List is the cards that a filter asks for. What a filter needs was worked out when each card was saved; a card from
// before that, or from an archive, is caught up on here, once.
func (c Cards) List(ctx context.Context, kitchen uuid.UUID, f CardFilter) (page []Card, all int, err error) {
	for f.computed() {
		old, err := c.Store.Unsummarised(ctx, kitchen, SummaryVersion, atOnce)
		if err != nil {
			return nil, 0, err
		}
		for _, v := range old {
			if err := c.Store.SetSummary(ctx, v.ID, Summarise(v.Request)); err != nil {
				return nil, 0, err
			}
		}
		if len(old) < atOnce {
			break
		}
	}
	return c.Store.Cards(ctx, kitchen, f)
}
