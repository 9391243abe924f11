package httpapi

import (
	"errors"
	"net/http"
	"time"

	"mabbin/api"
	"mabbin/app"
	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/core/sell"

	"github.com/gin-gonic/gin"
)

func toAPIStock(x sell.Stock) api.StockSettings {
	return api.StockSettings{Stock: x, Revision: app.RevisionOf(x)}
}

// getStore is what a kitchen has in store.
func (s *server) getStore(c *gin.Context) {
	x, err := s.Store.Stock(c, kitchenOf(c))
	s.respond(c, http.StatusOK, toAPIStock(x), err)
}

// setStore keeps what a kitchen has in store.
func (s *server) setStore(c *gin.Context) {
	in, ok := decode[sell.Stock](s, c, nil)
	if !ok {
		return
	}
	x, err := s.buying.Set(c, kitchenOf(c), in, when(c))
	s.respond(c, http.StatusOK, toAPIStock(x), err)
}

// takeIn puts what was bought into the store.
func (s *server) takeIn(c *gin.Context) {
	in, ok := decode[api.Purchase](s, c, nil)
	if !ok {
		return
	}
	x, err := s.buying.TakeIn(c, kitchenOf(c), in.Id, in.Lines)
	s.respond(c, http.StatusOK, toAPIStock(x), err)
}

// listUses are cards that use up what there is of something.
func (s *server) listUses(c *gin.Context) {
	all, err := s.buying.UseUp(c, kitchenOf(c), c.Param("key"))
	s.respond(c, http.StatusOK, api.CardUses{Uses: each(all, func(x app.CardUse) api.CardUse {
		return api.CardUse{Card: x.Card, Name: x.Name, UsesG: x.UsesG, LeftG: x.LeftG, Text: x.Text}
	})}, err)
}

// toBuy is what to buy for some cards.
func (s *server) toBuy(c *gin.Context) {
	of, _, ok := s.cardCounts(c)
	if !ok {
		return
	}
	list, err := s.buying.List(c, kitchenOf(c), of)
	s.respond(c, http.StatusOK, list, err)
}

// labels are what is printed in addition to some cards.
func (s *server) labels(c *gin.Context) {
	of, on, ok := s.cardCounts(c)
	if !ok {
		return
	}
	all, err := s.buying.Labels(c, kitchenOf(c), on, of)
	r := s.reading(c)
	s.respond(c, http.StatusOK, api.CardLabels{Labels: each(all, func(x app.CardLabel) api.CardLabel {
		out := api.CardLabel{Card: x.Card, Name: x.Name, Batch: x.Batch, Label: x.Label}
		if x.Reason != nil {
			why := r.Text(whyOf(x.Reason))
			out.Reason = &why
		}
		return out
	})}, err)
}

// whyOf is an error in words, without where in a request it was found.
func whyOf(err error) message.Message {
	var faults fault.Faults
	if !errors.As(err, &faults) {
		return message.Of(err)
	}
	text := make([]message.Message, len(faults))
	for i, f := range faults {
		text[i] = f.Detail
	}
	return message.Join("; ", text...)
}

// cardCounts are the cards of a request: those it names, and those of its day.
func (s *server) cardCounts(c *gin.Context) (of []app.CardCount, on time.Time, ok bool) {
	on = s.Clock()
	in, ok := decode[api.CardCounts](s, c, nil)
	if !ok {
		return nil, on, false
	}
	of = each(
		or(in.Cards, nil),
		func(x api.CardCount) app.CardCount { return app.CardCount{Card: x.Card, Dishes: x.Dishes} },
	)
	if in.Date != nil {
		date, err := time.Parse(time.DateOnly, *in.Date)
		if err == nil {
			var day []app.CardCount
			day, err = s.buying.OfDay(c, kitchenOf(c), date)
			of, on = append(of, day...), date
		}
		if err != nil {
			s.fail(c, err)
			return nil, on, false
		}
	}
	return of, on, true
}
