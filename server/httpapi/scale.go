package httpapi

import (
	"context"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"

	"mabbin/api"
	"mabbin/server/devices"
)

// ReadScale is what a kitchen's scale shows.
func (s Server) ReadScale(_ context.Context, req api.ReadScaleRequestObject) (api.ReadScaleResponseObject, error) {
	return api.ReadScale200JSONResponse(s.shown(req.Kitchen)), nil
}

// SetScale says what is weighed next, tares, or lets the simulation's hand pour.
func (s Server) SetScale(_ context.Context, req api.SetScaleRequestObject) (api.SetScaleResponseObject, error) {
	b, at := req.Body, s.Now()
	if b.Hand != nil {
		s.Scales.Hand(req.Kitchen, string(*b.Hand), at)
	}
	if b.Tare != nil && *b.Tare {
		s.Scales.Tare(req.Kitchen, at)
	}
	if b.WantedG != nil {
		s.Scales.Want(req.Kitchen, *b.WantedG)
	}
	return api.SetScale200JSONResponse(s.shown(req.Kitchen)), nil
}

func (s Server) shown(kitchen uuid.UUID) api.ScaleReading {
	x := s.Scales.Show(kitchen, s.Now())
	return api.ScaleReading{G: x.G, Settled: x.Settled, WantedG: x.WantedG, LeftG: x.LeftG, Verdict: api.ScaleReadingVerdict(x.Verdict)}
}

// A scale is looked at so often while somebody weighs.
const scaleEvery = 150 * time.Millisecond

// scaleStream is the server-sent events of a kitchen's scale: every reading that differs from the one before.
func (s Server) scaleStream(c *gin.Context) {
	kitchen, err := uuid.Parse(c.Param("kitchen"))
	if err != nil {
		refuse(c, http.StatusBadRequest, "The kitchen is not a UUID")
		return
	}
	ear, leave := s.Live.listen(kitchen) // which is closed as the server stops
	if ear == nil {
		refuse(c, http.StatusServiceUnavailable, "The server is stopping")
		return
	}
	defer leave()
	streaming(c)
	look, beat := time.NewTicker(scaleEvery), time.NewTicker(stillHere)
	defer look.Stop()
	defer beat.Stop()
	was := devices.Shown{G: -1}
	for {
		if now := s.Scales.Show(kitchen, s.Now()); now != was {
			was = now
			c.SSEvent("reading", s.shown(kitchen))
			c.Writer.Flush()
		}
		select {
		case <-c.Request.Context().Done():
			return
		case _, open := <-ear:
			if !open {
				return
			}
		case <-beat.C:
			c.SSEvent("beat", "")
			c.Writer.Flush()
		case <-look.C:
		}
	}
}
