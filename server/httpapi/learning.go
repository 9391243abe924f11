package httpapi

import (
	"context"
	"net/http"

	"mabbin/api"
	"mabbin/app"
	"mabbin/core/learn"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
)

// getLearnt is what a kitchen's log teaches.
func (s *server) getLearnt(c *gin.Context) {
	p, err := query[api.GetLearntParams](c)
	s.atWork(c, p.XWork, err, func(ctx context.Context, tick learn.Tick) {
		x, err := s.learning.Learn(ctx, kitchenOf(c), tick)
		s.respond(c, http.StatusOK, learntTold(x), err)
	})
}

// setLearnt keeps what a kitchen says of what its log teaches.
func (s *server) setLearnt(c *gin.Context) {
	in, ok := decode(s, c, learn.CheckSays)
	if !ok {
		return
	}
	x, err := s.learning.Say(c, kitchenOf(c), in, when(c))
	s.respond(c, http.StatusOK, learntTold(x), err)
}

func learntTold(x *app.LearntNow) api.KitchenLearnt {
	if x == nil {
		return api.KitchenLearnt{}
	}
	out := api.KitchenLearnt{
		Says: x.Says, Revision: app.Revision(x.Says), Lessons: x.Lessons, Summary: x.Score.Says(),
		Noticed: each(x.Noticed, func(n app.NoticedChange) api.NoticedChange {
			return api.NoticedChange{Oven: n.Oven, Since: n.Since, Says: n.Says}
		}),
		Points: []api.LearntPoint{}, Unclear: x.Unclear, Histories: x.Histories,
	}
	for _, f := range x.Foreseen() {
		id, _ := uuid.Parse(f.ID)
		out.Points = append(out.Points, api.LearntPoint{
			Id: id, Title: x.Names[id], At: f.At, Told: f.Told, Before: f.Before, After: f.After, Low: f.Low, High: f.High,
			Odd: f.Odd, Says: f.Says,
		})
	}
	return out
}

// benchForecast is what is foreseen of what is on the Bench.
func (s *server) benchForecast(c *gin.Context) {
	in, ok := decode(s, c, benchFault)
	if !ok {
		return
	}
	out, err := s.learning.Foresee(c, question(in))
	s.respond(c, http.StatusOK, out, err)
}
