package httpapi

import (
	"net/http"
	"time"

	"mabbin/api"
	"mabbin/server/devices"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
)

// readScale is what a kitchen's scale shows.
func (s *server) readScale(c *gin.Context) {
	if _, err := s.Store.OneKitchen(c, kitchenOf(c)); err != nil {
		s.fail(c, err)
		return
	}
	s.respond(c, http.StatusOK, shown(s.Scales.Show(kitchenOf(c), s.Clock())), nil)
}

// setScale says what is weighed next, tares, or lets the simulation's hand pour.
func (s *server) setScale(c *gin.Context) {
	b, ok := decode[api.ScaleChange](s, c, nil)
	if !ok {
		return
	}
	kitchen, at := kitchenOf(c), s.Clock()
	if _, err := s.Store.OneKitchen(c, kitchen); err != nil {
		s.fail(c, err)
		return
	}
	if b.Hand != nil {
		s.Scales.Hand(kitchen, devices.Hand(*b.Hand), at)
	}
	if b.Tare != nil && *b.Tare {
		s.Scales.Tare(kitchen, at)
	}
	if b.WantedG != nil {
		s.Scales.Want(kitchen, *b.WantedG, at)
	}
	s.respond(c, http.StatusOK, shown(s.Scales.Show(kitchen, s.Clock())), nil)
}

func shown(x devices.Shown) api.ScaleReading {
	return api.ScaleReading{
		G:       x.G,
		Settled: x.Settled,
		WantedG: x.WantedG,
		LeftG:   x.LeftG,
		Verdict: api.ScaleReadingVerdict(x.Verdict),
	}
}

// A scale is looked at so often while somebody weighs. A reading that stays the same is sent again after so many
// looks: what happened between two of them may have come to the same.
const (
	scaleEvery = 150 * time.Millisecond
	sameAgain  = 3
)

// scaleEvents is the server-sent events of a kitchen's scale.
func (s *server) scaleEvents(c *gin.Context) {
	if k, err := uuid.Parse(c.Param("kitchen")); err == nil { // no scale is set up for a kitchen that is not there
		if _, err := s.Store.OneKitchen(c, k); err != nil {
			s.fail(c, err)
			return
		}
	}
	ear, leave := s.tune(c)
	if ear == nil {
		return
	}
	defer leave()
	look := time.NewTicker(scaleEvery)
	defer look.Stop()
	was, same := devices.Shown{}, 0
	for {
		now := s.Scales.Show(kitchenOf(c), s.Clock())
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
