package httpapi

import (
	"errors"
	"net/http"
	"time"

	"mabbin/api"
	"mabbin/app"
	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/day"
	"mabbin/core/fault"
	"mabbin/core/watch"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
)

// listWatch is what is in the ovens and what cools.
func (s *server) listWatch(c *gin.Context) {
	all, err := s.Store.Watched(c, kitchenOf(c))
	out := api.Watch{
		Now: s.Clock(), Desserts: []api.WatchedDessert{}, Unusable: []api.Unusable{}, SalvageTips: watch.After(),
		SnoozeMin: int(app.UsualSnooze.Minutes()),
	}
	for _, w := range all {
		reported := api.WatchedDessert{}
		if w.Unusable == nil {
			w.Unusable = fault.Guard(func() error {
				reported = s.watched(w)
				return nil
			})
		}
		if w.Unusable != nil {
			s.Log.Error("a dessert on the Watch can't be used", "dessert", w.ID, "error", w.Unusable)
			out.Unusable = append(out.Unusable, api.Unusable{Id: w.ID, Title: w.Title, StartedAt: w.StartedAt})
			continue
		}
		out.Desserts = append(out.Desserts, reported)
	}
	ways, also := s.Store.Countdowns(c, kitchenOf(c))
	out.Countdowns = each(ways, toAPICountdown)
	learnt, unknown := s.Store.LearntTimes(c, kitchenOf(c))
	out.Learnt = learnt
	s.respond(c, http.StatusOK, out, errors.Join(err, also, unknown))
}

func toAPICountdown(w app.Countdown) api.Countdown {
	return api.Countdown{
		Id: w.ID, Title: w.Title, ReadyAt: w.ReadyAt, Steps: each(w.Steps, func(x app.CountdownStep) api.CountdownStep {
			return api.CountdownStep{At: x.At, Kind: x.Kind, Text: x.Text, State: x.State}
		}),
	}
}

// startCountdown puts the way back from an hour on the watch.
func (s *server) startCountdown(c *gin.Context) {
	in, ok := decode(
		s,
		c,
		func(x api.CountdownStart) error { return fault.Under("/ready/bench", benchFault(x.Ready.Bench)) },
	)
	if !ok {
		return
	}
	err := s.countdowns.Start(
		c, kitchenOf(c), id(c, "countdown"), in.Title, question(in.Ready.Bench), in.Ready.ReadyAt, day.Serve(in.Ready.Serve),
	)
	s.respondNoContent(c, fault.Under("/ready", underBench("/bench", err)))
}

// answerStep answers a call of a dessert on its way.
func (s *server) answerStep(c *gin.Context) {
	in, ok := decode[api.CallAnswer](s, c, nil)
	if !ok {
		return
	}
	s.respondNoContent(
		c,
		s.countdowns.Answer(c, kitchenOf(c), id(c, "countdown"), number(c, "step"), app.Answer(in.Answer)),
	)
}

// deleteCountdown takes a dessert off its way.
func (s *server) deleteCountdown(c *gin.Context) {
	s.respondNoContent(c, s.countdowns.Drop(c, kitchenOf(c), id(c, "countdown")))
}

// startWatch puts a dessert into the oven.
func (s *server) startWatch(c *gin.Context) {
	in, ok := decode(s, c, func(x api.WatchStart) error { return fault.Under("/request", balance.Check(x.Request)) })
	if !ok {
		return
	}
	w, err := s.watch.PutIn(c, kitchenOf(c), intoOven(in))
	s.respond(c, http.StatusCreated, s.watched(w), err)
}

func intoOven(in api.WatchStart) app.IntoOven {
	return app.IntoOven{
		ID: in.Id, Title: in.Title, CardID: in.CardId, Version: in.Version, Request: in.Request,
		Setting: setting(in.Setting), Weather: weather(in.Weather), Weighed: or(in.Weighed, nil),
	}
}

// sharedOvens says which ovens are asked to be at two settings.
func (s *server) sharedOvens(c *gin.Context) {
	in, ok := decode(s, c, func(x api.SharedOvensJSONRequestBody) error {
		if x.Next == nil {
			return nil
		}
		return fault.Under("/next/request", balance.Check(x.Next.Request))
	})
	if !ok {
		return
	}
	var next *app.IntoOven
	if in.Next != nil {
		n := intoOven(*in.Next)
		next = &n
	}
	out, err := s.watch.SharedOvens(c, kitchenOf(c), next)
	s.respond(c, http.StatusOK, out, err)
}

func weather(w *api.Weather) app.Weather {
	if w == nil {
		return app.Weather{}
	}
	return app.Weather{
		Wind: string(or(w.Wind, "")), Cold: or(w.Cold, false), Wet: or(w.Wet, false),
		Fuel: string(or(w.Fuel, "")), Stacked: or(w.Stacked, false),
	}
}

// endWatch takes a dessert off the watch.
func (s *server) endWatch(c *gin.Context) {
	s.respondNoContent(c, s.watch.End(c, kitchenOf(c), id(c, "dessert")))
}

// reopenWatch takes that back.
func (s *server) reopenWatch(c *gin.Context) {
	w, err := s.watch.Reopen(c, kitchenOf(c), id(c, "dessert"))
	s.respond(c, http.StatusOK, s.watched(w), err)
}

// answerCall notes what became of a call.
func (s *server) answerCall(c *gin.Context) {
	in, ok := decode[api.CallAnswer](s, c, nil)
	if !ok {
		return
	}
	snooze := time.Duration(or(in.Minutes, 0) * float64(time.Minute))
	w, err := s.watch.AnswerCall(
		c,
		kitchenOf(c),
		id(c, "dessert"),
		watch.CallID(id(c, "call")),
		app.Answer(in.Answer),
		snooze,
	)
	s.respond(c, http.StatusOK, s.watched(w), err)
}

// rescue tries what may help from where a bake stands.
func (s *server) rescue(c *gin.Context) {
	in, ok := decode[api.Trouble](s, c, nil)
	if !ok {
		return
	}
	ways, err := s.watch.Rescue(c, kitchenOf(c), id(c, "dessert"), watch.Trouble(in.Trouble), or(in.OffMin, 0))
	s.respond(c, http.StatusOK, ways, err)
}

// replan gives a bake other stages from now on.
func (s *server) replan(c *gin.Context) {
	in, ok := decode[api.ChangeWatchJSONRequestBody](s, c, nil)
	if !ok {
		return
	}
	w, err := s.watch.Replan(c, kitchenOf(c), id(c, "dessert"), in.Stages)
	s.respond(c, http.StatusOK, s.watched(w), err)
}

// setProbe puts a probe into a dessert, moves it, or takes it out.
func (s *server) setProbe(c *gin.Context) {
	in, ok := decode[api.SetProbeJSONRequestBody](s, c, nil)
	if !ok {
		return
	}
	w, err := s.watch.SetProbe(c, kitchenOf(c), id(c, "dessert"), in.Place)
	s.respond(c, http.StatusOK, s.watched(w), err)
}

// simulate drives the simulation of one dessert.
func (s *server) simulate(c *gin.Context) {
	in, ok := decode[api.SimulateJSONRequestBody](s, c, nil)
	if !ok {
		return
	}
	w, err := s.watch.Simulate(c, kitchenOf(c), id(c, "dessert"), watch.Speed(or(in.Speed, 0)), or(in.DoorMin, 0))
	s.respond(c, http.StatusOK, s.watched(w), err)
}

func (s *server) watched(w app.Watched) api.WatchedDessert {
	a := w.Predicted.Plan.Answer
	open := w.DoorOpen(s.Clock())
	out := api.WatchedDessert{
		Id:            w.ID,
		Title:         w.Title,
		CardId:        w.CardID,
		Version:       w.Version,
		OvenId:        w.OvenID,
		Request:       w.AsPredicted().Request,
		Stages:        w.Stages,
		StartedAt:     w.StartedAt,
		OutAt:         toAPITime(w.OutAt),
		PlanMinutes:   w.Predicted.Plan.Minutes,
		Curves:        a.Curves,
		BoilingPointC: a.BoilingPointC,
		JuiceColour:   w.Predicted.Balance.Cutaway.JuiceColour,
		Verdict:       shortVerdict(w.Predicted.Verdict),
		Probe:         w.Probe,
		Estimate:      w.Estimate,
		Forecast:      w.Forecast,
		Speed:         int(w.Speed),
		DoorOpen:      &open,
		Readings:      append([]bake.Point{}, w.Readings...),
		Calls:         []api.WatchCall{},
	}
	for _, x := range w.CurrentCalls() {
		out.Calls = append(out.Calls, api.WatchCall{
			Id: uuid.UUID(
				x.ID,
			),
			Kind:       string(x.Kind),
			DueAt:      x.DueAt,
			Text:       x.Text,
			Caution:    x.Caution,
			State:      x.State,
			AnsweredAt: toAPITime(x.AnsweredAt),
			Snoozes:    x.Snoozes,
		})
	}
	return out
}

// toAPITime is a time, or nothing for the zero one.
func toAPITime(t time.Time) *time.Time {
	if t.IsZero() {
		return nil
	}
	return &t
}
