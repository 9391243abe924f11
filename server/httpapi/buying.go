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

func storeTold(x sell.Store) api.StoreKept { return api.StoreKept{Store: x, Revision: app.Revision(x)} }

// getStore is what a kitchen has in store.
func (s *server) getStore(c *gin.Context) {
	x, err := s.Store.Pantry(c, kitchenOf(c))
	s.respond(c, http.StatusOK, storeTold(x), err)
}

// setStore keeps what a kitchen has in store.
func (s *server) setStore(c *gin.Context) {
	in, ok := decode[sell.Store](s, c, nil)
	if !ok {
		return
	}
	x, err := s.buying.Set(c, kitchenOf(c), in, when(c))
	s.respond(c, http.StatusOK, storeTold(x), err)
}

// takeIn puts what was bought into the store.
func (s *server) takeIn(c *gin.Context) {
	in, ok := decode[api.BoughtLines](s, c, nil)
	if !ok {
		return
	}
	x, err := s.buying.TakeIn(c, kitchenOf(c), in.Id, in.Lines)
	s.respond(c, http.StatusOK, storeTold(x), err)
}

// listUses are cards that use up what there is of something.
func (s *server) listUses(c *gin.Context) {
	all, err := s.buying.UseUp(c, kitchenOf(c), c.Param("key"))
	s.respond(c, http.StatusOK, api.CardUses{Uses: each(all, func(x app.CardUse) api.CardUse {
		return api.CardUse{Card: x.Card, Name: x.Name, UsesG: x.UsesG, LeftG: x.LeftG, Says: x.Says}
	})}, err)
}

// toBuy is what to buy for some cards.
func (s *server) toBuy(c *gin.Context) {
	of, _, ok := s.wantedCards(c)
	if !ok {
		return
	}
	list, err := s.buying.List(c, kitchenOf(c), of)
	s.respond(c, http.StatusOK, list, err)
}

// labels are what is printed beside some cards.
func (s *server) labels(c *gin.Context) {
	of, on, ok := s.wantedCards(c)
	if !ok {
		return
	}
	all, err := s.buying.Labels(c, kitchenOf(c), on, of)
	r := s.reading(c)
	s.respond(c, http.StatusOK, api.CardLabels{Labels: each(all, func(x app.CardLabel) api.CardLabel {
		out := api.CardLabel{Card: x.Card, Name: x.Name, Batch: x.Batch, Label: x.Label}
		if x.Why != nil {
			why := r.Text(whyOf(x.Why))
			out.Why = &why
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
	said := make([]message.Message, len(faults))
	for i, f := range faults {
		said[i] = f.Detail
	}
	return message.Join("; ", said...)
}

// wantedCards are the cards of a request: those it names, and those of its day.
func (s *server) wantedCards(c *gin.Context) (of []app.WantedCard, on time.Time, ok bool) {
	on = s.Clock()
	in, ok := decode[api.WantedCards](s, c, nil)
	if !ok {
		return nil, on, false
	}
	of = each(
		or(in.Cards, nil),
		func(x api.WantedCard) app.WantedCard { return app.WantedCard{Card: x.Card, Dishes: x.Dishes} },
	)
	if in.Date != nil {
		date, err := time.Parse(time.DateOnly, *in.Date)
		if err == nil {
			var day []app.WantedCard
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
