package httpapi

import (
	"context"
	"slices"
	"time"

	"github.com/google/uuid"

	"mabbin/api"
	"mabbin/core/bake"
	"mabbin/core/baked"
	"mabbin/core/watch"
	"mabbin/server/store"
)

// snoozeMin is how long a call is put off, unless it is said.
const snoozeMin = 3.0

// ListWatch is what is in the ovens and what cools.
func (s Server) ListWatch(ctx context.Context, req api.ListWatchRequestObject) (api.ListWatchResponseObject, error) {
	all, err := s.Store.Watched(ctx, req.Kitchen)
	if err != nil {
		return nil, err
	}
	return api.ListWatch200JSONResponse{Now: s.Now(), Desserts: each(all, s.watched), Afterwards: watch.After()}, nil
}

// StartWatch puts a dessert into the oven.
func (s Server) StartWatch(ctx context.Context, req api.StartWatchRequestObject) (api.StartWatchResponseObject, error) {
	b := req.Body
	q := bake.DessertRequest{Request: b.Request, Setting: b.Setting}
	began, err := watch.Start(q)
	if err != nil {
		return nil, err
	}
	weighed := []baked.Weighed{}
	if b.Weighed != nil {
		weighed = *b.Weighed
	}
	err = s.Store.StartWatch(ctx, req.Kitchen, store.Watched{
		ID: b.Id, Title: b.Title, CardID: b.CardId, Version: b.Version, OvenID: b.OvenId,
		Question: q, Answer: began.Answer, Stages: began.Answer.Plan.Stages, StartedAt: s.Now(), Weighed: weighed,
	}, began.Calls)
	if err != nil {
		return nil, err
	}
	w, err := s.looked(ctx, req.Kitchen, b.Id)
	return api.StartWatch201JSONResponse(w), err
}

// looked is one dessert after a change, of which everybody is told.
func (s Server) looked(ctx context.Context, kitchen, id uuid.UUID) (api.Watched, error) {
	s.Live.Changed(kitchen)
	w, err := s.Store.OneWatched(ctx, kitchen, id)
	if err != nil {
		return api.Watched{}, err
	}
	return s.watched(w), nil
}

// EndWatch takes a dessert off the watch.
func (s Server) EndWatch(ctx context.Context, req api.EndWatchRequestObject) (api.EndWatchResponseObject, error) {
	if err := s.Store.EndWatch(ctx, req.Kitchen, req.Dessert, s.Now()); err != nil {
		return nil, err
	}
	s.Live.Changed(req.Kitchen)
	return api.EndWatch204Response{}, nil
}

// BackOnWatch takes that back.
func (s Server) BackOnWatch(ctx context.Context, req api.BackOnWatchRequestObject) (api.BackOnWatchResponseObject, error) {
	if err := s.Store.BackOnWatch(ctx, req.Kitchen, req.Dessert); err != nil {
		return nil, err
	}
	w, err := s.looked(ctx, req.Kitchen, req.Dessert)
	return api.BackOnWatch200JSONResponse(w), err
}

// AnswerCall notes what became of a call.
func (s Server) AnswerCall(ctx context.Context, req api.AnswerCallRequestObject) (api.AnswerCallResponseObject, error) {
	now := s.Now()
	var err error
	switch req.Body.Answer {
	case api.CallAnswerAnswerSnooze:
		minutes := snoozeMin
		if m := req.Body.Minutes; m != nil {
			minutes = *m
		}
		err = s.Store.SnoozeCall(ctx, req.Kitchen, req.Dessert, req.Call, now.Add(time.Duration(minutes*float64(time.Minute))))
	case api.CallAnswerAnswerUndo:
		err = s.Store.UndoCall(ctx, req.Kitchen, req.Dessert, req.Call)
	default:
		err = s.Store.AnswerCall(ctx, req.Kitchen, req.Dessert, req.Call, string(req.Body.Answer), now)
	}
	if err != nil {
		return nil, err
	}
	w, err := s.looked(ctx, req.Kitchen, req.Dessert)
	return api.AnswerCall200JSONResponse(w), err
}

// Rescue tries what may help from where a bake stands.
func (s Server) Rescue(ctx context.Context, req api.RescueRequestObject) (api.RescueResponseObject, error) {
	w, err := s.Store.OneWatched(ctx, req.Kitchen, req.Dessert)
	if err != nil {
		return nil, err
	}
	p, err := bake.PlanOf(w.AsWentIn())
	if err != nil {
		return nil, err
	}
	off := 0.0
	if req.Body.OffMin != nil {
		off = *req.Body.OffMin
	}
	out, err := watch.Rescue(p, watch.Behind(w.Stages, s.minute(w)), string(req.Body.Trouble), off)
	if err != nil {
		return nil, err
	}
	return api.Rescue200JSONResponse(out), nil
}

// ChangeWatch gives a bake other stages from now on.
func (s Server) ChangeWatch(ctx context.Context, req api.ChangeWatchRequestObject) (api.ChangeWatchResponseObject, error) {
	w, err := s.Store.OneWatched(ctx, req.Kitchen, req.Dessert)
	if err != nil {
		return nil, err
	}
	next, err := watch.Changed(w.AsWentIn(), w.Stages, req.Body.Stages, s.minute(w))
	if err != nil {
		return nil, err
	}
	if err := s.Store.ChangeWatch(ctx, req.Kitchen, req.Dessert, req.Body.Stages, next.Calls, s.Now()); err != nil {
		return nil, err
	}
	one, err := s.looked(ctx, req.Kitchen, req.Dessert)
	return api.ChangeWatch200JSONResponse(one), err
}

// SetProbe puts a probe into a dessert, moves it, or takes it out.
func (s Server) SetProbe(ctx context.Context, req api.SetProbeRequestObject) (api.SetProbeResponseObject, error) {
	if err := s.Store.SetProbe(ctx, req.Kitchen, req.Dessert, string(req.Body.Place)); err != nil {
		return nil, err
	}
	w, err := s.looked(ctx, req.Kitchen, req.Dessert)
	return api.SetProbe200JSONResponse(w), err
}

// Simulate drives the simulation of one dessert.
func (s Server) Simulate(ctx context.Context, req api.SimulateRequestObject) (api.SimulateResponseObject, error) {
	if x := req.Body.Speed; x != nil {
		if err := s.Store.SetSpeed(ctx, req.Kitchen, req.Dessert, int(*x)); err != nil {
			return nil, err
		}
	}
	if open := req.Body.DoorMin; open != nil {
		w, err := s.Store.OneWatched(ctx, req.Kitchen, req.Dessert)
		if err == nil {
			err = s.Store.OpenDoor(ctx, req.Kitchen, req.Dessert, store.Door{At: s.minute(w), Open: *open})
		}
		if err != nil {
			return nil, err
		}
	}
	w, err := s.looked(ctx, req.Kitchen, req.Dessert)
	return api.Simulate200JSONResponse(w), err
}

// minute is how long a dessert has been in; 0 where somebody has put the clock back meanwhile.
func (s Server) minute(w store.Watched) float64 { return max(0, s.Now().Sub(w.StartedAt).Minutes()) }

func (s Server) watched(w store.Watched) api.Watched {
	a := w.Answer.Plan.Answer
	minute := s.minute(w)
	open := slices.ContainsFunc(w.Doors, func(d store.Door) bool { return d.At <= minute && minute < d.At+d.Open })
	return api.Watched{
		Id: w.ID, Title: w.Title, CardId: w.CardID, Version: w.Version, OvenId: w.OvenID, Request: w.AsWentIn().Request, Stages: w.Stages,
		StartedAt: w.StartedAt, OutAt: w.OutAt, PlanMinutes: w.Answer.Plan.Minutes, Curves: a.Curves, BoilingPointC: a.BoilingPointC,
		JuiceColour: w.Answer.Balance.Cutaway.JuiceColour, Probe: api.WatchedProbe(w.Place), Estimate: w.Estimate, Speed: w.Speed, DoorOpen: &open,
		Readings: append([]bake.Point{}, w.Readings...),
		Calls: each(w.Calls, func(c store.Call) api.WatchCall {
			return api.WatchCall{
				Id: c.ID, Kind: c.Kind, DueAt: c.DueAt, Says: c.Says, Caution: c.Caution, State: api.WatchCallState(c.State),
				AnsweredAt: c.AnsweredAt, Snoozes: c.Snoozes,
			}
		}),
	}
}
