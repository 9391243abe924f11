package httpapi

import (
	"context"

	"mabbin/api"
	"mabbin/core/balance"
	"mabbin/server/store"
)

// pageOfBakes is how many bakes the log gives at once, unless it is asked for another number.
const pageOfBakes = 50

// ListBakes lists the log, the last bake first.
func (s Server) ListBakes(ctx context.Context, req api.ListBakesRequestObject) (api.ListBakesResponseObject, error) {
	limit := pageOfBakes
	if req.Params.Limit != nil {
		limit = *req.Params.Limit
	}
	page, more, err := s.Store.Bakes(ctx, req.Kitchen, req.Params.Before, limit)
	if err != nil {
		return nil, err
	}
	return api.ListBakes200JSONResponse{Bakes: each(page, logged), More: more}, nil
}

// AddBake logs a bake. What was predicted is calculated here from the inputs, and both are frozen together.
func (s Server) AddBake(ctx context.Context, req api.AddBakeRequestObject) (api.AddBakeResponseObject, error) {
	b := req.Body
	predicted, err := balance.Solve(b.Request)
	if err != nil {
		return nil, under("/request", err)
	}
	kept, err := s.Store.AddBake(ctx, req.Kitchen, store.Bake{
		ID: b.Id, Title: b.Title, BakedAt: b.BakedAt, CardID: b.CardId, Version: b.Version, Request: b.Request, Result: *predicted,
		Setting: setting(b.Setting),
		Outcome: store.Outcome{
			Juice: (*string)(b.Outcome.Juice), Fruit: (*string)(b.Outcome.Fruit), Top: (*string)(b.Outcome.Top),
			BoiledOver: b.Outcome.BoiledOver, Note: text(b.Outcome.Note),
		},
	})
	if err != nil {
		return nil, err
	}
	return api.AddBake201JSONResponse(logged(kept)), nil
}

func logged(b store.Bake) api.Bake {
	return api.Bake{
		Id: b.ID, Title: b.Title, BakedAt: b.BakedAt, CardId: b.CardID, Version: b.Version, Request: b.Request, Predicted: brief(&b.Result),
		Setting: told(b.Setting),
		Outcome: api.Outcome{
			Juice: (*api.JuiceOutcome)(b.Juice), Fruit: (*api.OutcomeFruit)(b.Fruit), Top: (*api.OutcomeTop)(b.Top),
			BoiledOver: b.BoiledOver, Note: &b.Note,
		},
	}
}
