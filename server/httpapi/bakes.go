package httpapi

import (
	"context"
	"errors"
	"io"
	"strings"
	"time"

	"mabbin/api"
	"mabbin/core/bake"
	"mabbin/core/baked"
	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/server/formats"
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

// ExportLog is the log as a table. It is written as it is read, so that a long log takes no more memory than a short one.
func (s Server) ExportLog(ctx context.Context, req api.ExportLogRequestObject) (api.ExportLogResponseObject, error) {
	if _, _, err := s.Store.Bakes(ctx, req.Kitchen, store.Sought{}, nil, 1); err != nil {
		return nil, err
	}
	out, in := io.Pipe()
	go func() {
		w, err := formats.NewLogWriter(in)
		if err == nil {
			err = errors.Join(s.Store.EachLine(ctx, req.Kitchen, store.Sought{}, w.Line), w.Close())
		}
		in.CloseWithError(err)
	}()
	return api.ExportLog200TextcsvResponse{Body: out}, nil
}

// AddBake logs a bake. What was predicted is calculated here from the inputs, and both are frozen together.
func (s Server) AddBake(ctx context.Context, req api.AddBakeRequestObject) (api.AddBakeResponseObject, error) {
	b := req.Body
	predicted, err := balance.Solve(b.Request)
	if err != nil {
		return nil, fault.Under("/request", err)
	}
	told := baked.Told{}
	if b.Outcome.Told != nil {
		told = *b.Outcome.Told
	}
	var f fault.Faults
	told.Check("/outcome/told", &f)
	if err := f.Err(); err != nil {
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
		Setting: setting(b.Setting),
		Outcome: store.Outcome{
			Juice: (*string)(b.Outcome.Juice), Fruit: (*string)(b.Outcome.Fruit), Top: (*string)(b.Outcome.Top),
			BoiledOver: b.Outcome.BoiledOver, Note: text(b.Outcome.Note), Told: told,
		},
		Happened: went,
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
			BoiledOver: b.BoiledOver, Note: &b.Note, Told: &b.Told,
		},
		Happened: b.Happened,
	}
}

// happened is how a bake went on the watch.
func (s Server) happened(w store.Watched) *baked.Happened {
	a := w.Answer.Plan.Answer
	since := func(t time.Time) float64 { return t.Sub(w.StartedAt).Minutes() }
	h := &baked.Happened{
		Minutes: s.minute(w), PlannedMin: w.Answer.Plan.Minutes, Stages: w.Stages, Readings: append([]bake.Point{}, w.Readings...),
		Events: a.Events, End: a.End, Minute: a.Curves.Minute, MiddleC: a.Curves.MiddleC,
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
