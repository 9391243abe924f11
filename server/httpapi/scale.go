package httpapi

import (
	"context"
	"time"

	"github.com/gin-gonic/gin"

	"mabbin/api"
	"mabbin/server/devices"
)

// ReadScale is what a kitchen's scale shows.
func (s Server) ReadScale(_ context.Context, req api.ReadScaleRequestObject) (api.ReadScaleResponseObject, error) {
	return api.ReadScale200JSONResponse(shown(s.Scales.Show(req.Kitchen, s.Now()))), nil
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
	return api.SetScale200JSONResponse(shown(s.Scales.Show(req.Kitchen, s.Now()))), nil
}

func shown(x devices.Shown) api.ScaleReading {
	return api.ScaleReading{G: x.G, Settled: x.Settled, WantedG: x.WantedG, LeftG: x.LeftG, Verdict: api.ScaleReadingVerdict(x.Verdict)}
}

// A scale is looked at so often while somebody weighs. A reading that stays the same is sent again after so many looks: what happened
// between two of them may have come to the same.
const (
	scaleEvery = 150 * time.Millisecond
	sameAgain  = 3
)

// scaleStream is the server-sent events of a kitchen's scale.
func (s Server) scaleStream(c *gin.Context) {
	kitchen, ear, leave := s.tune(c)
	if ear == nil {
		return
	}
	defer leave()
	look := time.NewTicker(scaleEvery)
	defer look.Stop()
	was, same := devices.Shown{}, 0
	for {
		now := s.Scales.Show(kitchen, s.Now())
		if same++; now != was || same > sameAgain {
			was, same = now, 0
			c.SSEvent("reading", shown(now))
			c.Writer.Flush()
		}
		select {
		case <-c.Request.Context().Done():
			return
		case _, open := <-ear:
			if !open {
				return
			}
		case <-look.C:
		}
	}
}
