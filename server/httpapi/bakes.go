package httpapi

import (
	"context"
	"strings"
	"time"

	"mabbin/api"
	"mabbin/core/bake"
	"mabbin/core/baked"
	"mabbin/core/balance"
	"mabbin/core/fault"
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
	q := store.Sought{Words: strings.TrimSpace(text(req.Params.Words)), Juice: text((*string)(req.Params.Juice)), Oven: req.Params.Oven}
	page, more, err := s.Store.Bakes(ctx, req.Kitchen, q, req.Params.Before, limit)
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
		return nil, fault.Under("/request", err)
	}
	out, err := outcome(b.Outcome)
	if err != nil {
		return nil, err
	}
	var went *baked.Happened
	if b.WatchId != nil {
		w, err := s.Store.OneWatched(ctx, req.Kitchen, *b.WatchId)
		if err != nil {
			return nil, err
		}
		went = s.happened(w)
	}
	kept, err := s.Store.AddBake(ctx, req.Kitchen, store.Bake{
		ID: b.Id, Title: b.Title, BakedAt: b.BakedAt, CardID: b.CardId, Version: b.Version, Request: b.Request, Result: *predicted,
		Setting:  setting(b.Setting),
		Outcome:  out,
		Happened: went,
	})
	if err != nil {
		return nil, err
	}
	return api.AddBake201JSONResponse(logged(kept)), nil
}

// outcome is what was told, checked.
func outcome(o api.Outcome) (store.Outcome, error) {
	out := store.Outcome{
		Juice: (*string)(o.Juice), Fruit: (*string)(o.Fruit), Top: (*string)(o.Top), BoiledOver: o.BoiledOver, Note: text(o.Note), Picture: o.PictureId,
	}
	if o.Told != nil {
		out.Told = *o.Told
	}
	var f fault.Faults
	out.Told.Check("/outcome/told", &f)
	return out, f.Err()
}

func outcomeTold(o store.Outcome) api.Outcome {
	return api.Outcome{
		Juice: (*api.JuiceOutcome)(o.Juice), Fruit: (*api.OutcomeFruit)(o.Fruit), Top: (*api.OutcomeTop)(o.Top),
		BoiledOver: o.BoiledOver, Note: &o.Note, Told: &o.Told, PictureId: o.Picture,
	}
}

func logged(b store.Bake) api.Bake {
	return api.Bake{
		Id: b.ID, Title: b.Title, BakedAt: b.BakedAt, CardId: b.CardID, Version: b.Version, Request: b.Request, Predicted: brief(&b.Result),
		Setting: told(b.Setting), Outcome: outcomeTold(b.Outcome), Happened: b.Happened,
		Corrections: each(b.Corrections, func(c store.Correction) api.Correction { return api.Correction{At: c.At, Was: outcomeTold(c.Was)} }),
	}
}

// GetBake is one bake in full.
func (s Server) GetBake(ctx context.Context, req api.GetBakeRequestObject) (api.GetBakeResponseObject, error) {
	b, err := s.Store.OneBake(ctx, req.Kitchen, req.Bake)
	if err != nil {
		return nil, err
	}
	return api.GetBake200JSONResponse(logged(b)), nil
}

// CorrectBake puts right what was told of a bake.
func (s Server) CorrectBake(ctx context.Context, req api.CorrectBakeRequestObject) (api.CorrectBakeResponseObject, error) {
	out, err := outcome(req.Body.Outcome)
	if err != nil {
		return nil, err
	}
	b, err := s.Store.CorrectBake(ctx, req.Kitchen, req.Bake, req.Body.CorrectionId, out, s.Now())
	if err != nil {
		return nil, err
	}
	return api.CorrectBake200JSONResponse(logged(b)), nil
}

// happened is how a bake went on the watch.
func (s Server) happened(w store.Watched) *baked.Happened {
	a := w.Answer.Plan.Answer
	since := func(t time.Time) float64 { return t.Sub(w.StartedAt).Minutes() }
	h := &baked.Happened{
		Minutes: s.minute(w), PlannedMin: w.Answer.Plan.Minutes, Stages: w.Stages, Readings: append([]bake.Point{}, w.Readings...),
		Events: a.Events, End: a.End, Minute: a.Curves.Minute, MiddleC: a.Curves.MiddleC, Weighed: w.Weighed,
	}
	if w.OutAt != nil {
		h.Minutes = since(*w.OutAt)
	}
	h.Calls = each(w.Calls, func(c store.Call) baked.Answered {
		out := baked.Answered{Kind: c.Kind, Says: c.Says, Due: since(c.DueAt), State: c.State}
		if c.AnsweredAt != nil {
			at := since(*c.AnsweredAt)
			out.At = &at
		}
		return out
	})
	return h
}
