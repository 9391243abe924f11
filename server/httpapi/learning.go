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
	x, err := s.learning.Current(c, kitchenOf(c))
	s.respond(c, http.StatusOK, toAPIFindings(x), err)
}

// setLearnt saves what a kitchen says of what its log teaches.
func (s *server) setLearnt(c *gin.Context) {
	in, ok := decode(s, c, learn.CheckPreferences)
	if !ok {
		return
	}
	x, err := s.learning.SetPreferences(c, kitchenOf(c), in, when(c))
	s.respond(c, http.StatusOK, toAPIFindings(x), err)
}

func toAPIFindings(x *app.CurrentFindings) api.KitchenFindings {
	if x == nil {
		return api.KitchenFindings{}
	}
	out := api.KitchenFindings{
		Preferences: x.Preferences, Revision: app.RevisionOf(x.Preferences), Findings: x.Items, Summary: x.Summary,
		OvenChanges: each(x.OvenChanges, func(n app.OvenChange) api.NoticedOvenChange {
			return api.NoticedOvenChange{Oven: n.Oven, Since: n.Since, Text: n.Text}
		}),
		Points: []api.ForecastCheck{}, Unclear: x.Unclear, Histories: x.Histories, Updating: x.Updating,
	}
	if x.Updating {
		out.Work = &x.Work
	}
	for _, f := range x.Points {
		id, _ := uuid.Parse(f.ID)
		out.Points = append(out.Points, api.ForecastCheck{
			Id: id, Title: f.Title, At: f.At, LoggedMin: f.LoggedMin, Before: f.Before, After: f.After, Low: f.Low, High: f.High,
			Odd: f.Odd, Text: f.Text,
		})
	}
	return out
}

// benchForecast is what is predicted of what is on the Bench.
func (s *server) benchForecast(c *gin.Context) {
	in, ok := decode(s, c, benchFault)
	if !ok {
		return
	}
	out, err := s.learning.Forecast(c, question(in))
	s.respond(c, http.StatusOK, out, err)
}
