package httpapi

import (
	"errors"
	"net/http"
	"slices"
	"strings"

	"mabbin/api"
	"mabbin/app"
	"mabbin/core/balance"
	"mabbin/core/day"
	"mabbin/core/fault"
	"mabbin/core/message"

	"github.com/gin-gonic/gin"
)

func question(in api.BenchRequest) app.BenchQuestion {
	return app.BenchQuestion{
		Kitchen: in.Kitchen, Request: in.Request, Setting: setting(in.Setting), Weather: weather(in.Weather),
		Standing: or(in.Standing, nil), Keep: or(in.Keep, false),
	}
}

// benchFault finds what is wrong with the dessert that is on the Bench.
func benchFault(x api.BenchRequest) error { return fault.Under("/request", balance.Check(x.Request)) }

// bench answers all that the Bench shows for one change.
func (s *server) planBench(c *gin.Context) {
	in, ok := decode(s, c, benchFault)
	if !ok {
		return
	}
	out, err := s.bench.Plan(c, question(in))
	s.respondShown(c, out, err)
}

// whatIf bakes what is on the Bench with one thing changed.
func (s *server) whatIf(c *gin.Context) {
	in, ok := decode(s, c, func(x api.WhatIfRequest) error { return fault.Under("/bench", benchFault(x.Bench)) })
	if !ok {
		return
	}
	out, err := s.bench.WhatIf(c, question(in.Bench), in.If)
	s.respondShown(c, out, underBench("/bench", err))
}

// toAPIDetails is a text, where there is one.
func toAPIDetails(m message.Message) *message.Message {
	if m.IsZero() {
		return nil
	}
	return &m
}

// readyBy goes back from the hour at which what is on the Bench is wanted.
func (s *server) readyBy(c *gin.Context) {
	in, ok := decode(s, c, func(x api.ReadyByRequest) error { return fault.Under("/bench", benchFault(x.Bench)) })
	if !ok {
		return
	}
	r, err := s.bench.ReadyBy(c, question(in.Bench), s.Clock(), in.ReadyAt, day.Serve(in.Serve))
	s.respond(c, http.StatusOK, api.ReadyBy{
		InTime: r.InTime, ReadyAt: r.At(r.ReadyAt), NotBefore: r.At(r.NotBefore), StartAt: r.At(r.StartAt),
		InAt: r.At(r.InAt), SpareMin: r.SpareMin, Remedy: toAPIDetails(r.Remedy),
		Steps: each(r.Steps, func(x day.Step) api.ReadyStep {
			return api.ReadyStep{Kind: x.Kind, At: r.At(x.At), Minutes: x.Minutes, NeedsPerson: x.NeedsPerson, Text: x.Text}
		}),
	}, underBench("/bench", err))
}

// underBench is an error of a request that has what is on the Bench at a pointer: the fields of the Bench are there.
func underBench(at string, err error) error {
	if later, ok := fault.AsNotYet(err); ok {
		return &fault.NotYet{Pointer: at + later.Pointer, Detail: later.Detail}
	}
	var faults fault.Faults
	if !errors.As(err, &faults) {
		return err
	}
	out := slices.Clone(faults)
	for i, f := range out {
		for _, part := range []string{"/request", "/setting", "/weather", "/standing"} {
			if f.Pointer == part || strings.HasPrefix(f.Pointer, part+"/") {
				out[i].Pointer = at + f.Pointer
			}
		}
	}
	return out
}

// benchCost is what the ingredients of what is on the Bench cost.
func (s *server) benchCost(c *gin.Context) {
	in, ok := decode(s, c, benchFault)
	if !ok {
		return
	}
	out, err := s.bench.Cost(c, question(in))
	s.respond(c, http.StatusOK, out, err)
}

// benchOtherCosts is what it costs with one thing changed.
func (s *server) benchOtherCosts(c *gin.Context) {
	in, ok := decode(s, c, benchFault)
	if !ok {
		return
	}
	out, err := s.bench.OtherCosts(c, question(in))
	s.respond(c, http.StatusOK, api.OtherCosts{Others: out}, err)
}

// benchKeeping is how what is on the Bench is served, kept, warmed again and frozen.
func (s *server) benchKeeping(c *gin.Context) {
	in, ok := decode(s, c, benchFault)
	if !ok {
		return
	}
	out, err := s.bench.Keeping(c, question(in))
	s.respond(c, http.StatusOK, out, err)
}

// benchNutrition answers with the nutrition of the dessert on the Bench.
func (s *server) benchNutrition(c *gin.Context) {
	in, ok := decode(s, c, benchFault)
	if !ok {
		return
	}
	out, err := s.bench.Nutrition(c, question(in))
	s.respond(c, http.StatusOK, out, err)
}

// benchAlternatives shows each way where bakers disagree.
func (s *server) benchAlternatives(c *gin.Context) {
	in, ok := decode(s, c, benchFault)
	if !ok {
		return
	}
	out, err := s.bench.Alternatives(c, question(in))
	s.respond(c, http.StatusOK, out, err)
}
