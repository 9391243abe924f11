package httpapi

import (
	"net/http"

	"mabbin/api"
	"mabbin/app"
	"mabbin/core/learn"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
)

// getLearnt answers what is known of what a kitchen's log teaches.
func (s *server) getLearnt(c *gin.Context) {
	x, err := s.learning.Known(c, kitchenOf(c))
	s.respond(c, http.StatusOK, learntTold(x), err)
}

// setLearnt saves what a kitchen says of what its log teaches.
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
		Says: x.Says, Revision: app.Revision(x.Says), Lessons: x.Lessons, Summary: x.Summary,
		Noticed: each(x.Noticed, func(n app.NoticedChange) api.NoticedChange {
			return api.NoticedChange{Oven: n.Oven, Since: n.Since, Says: n.Says}
		}),
		Points: []api.LearntPoint{}, Unclear: x.Unclear, Histories: x.Histories, Updating: x.Updating,
	}
	if x.Updating {
		out.Work = &x.Work
	}
	for _, f := range x.Points {
		id, _ := uuid.Parse(f.ID)
		out.Points = append(out.Points, api.LearntPoint{
			Id: id, Title: f.Title, At: f.At, Told: f.Told, Before: f.Before, After: f.After, Low: f.Low, High: f.High,
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
