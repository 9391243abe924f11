package httpapi

import (
	"net/http"
	"strings"

	"mabbin/api"
	"mabbin/app"
	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/diet"
	"mabbin/core/fault"

	"github.com/gin-gonic/gin"
)

// pageOfCards is how many cards are listed at once, unless another number is asked for.
const pageOfCards = 60

// listCards lists a kitchen's cards that are sought, each with its newest version in short.
func (s *server) listCards(c *gin.Context) {
	p, err := query[api.ListCardsParams](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	page, all, err := s.cards.List(c, kitchenOf(c), app.CardFilter{
		Words: strings.TrimSpace(
			or(p.Words, ""),
		),
		Style: or(p.Style, ""),
		Fruit: or(p.Fruit, ""),
		Shape: string(or(p.Shape, "")),
		Diet: diet.Diet(
			or(p.Diet, ""),
		),
		Most:     or(p.Most, 0),
		Archived: or(p.Archived, false),
		From:     or(p.From, 0),
		Limit:    or(p.Limit, pageOfCards),
		Tag:      or(p.Tag, ""),
	})
	if err != nil {
		s.fail(c, err)
		return
	}
	settings, err := s.cards.Settings(c, kitchenOf(c), page)
	if err != nil {
		s.fail(c, err)
		return
	}
	tags, err := s.Store.CardTags(c, kitchenOf(c))
	listed, unusable := []api.ListedCard{}, []api.Unusable{}
	failed := func(x app.Card, err error) {
		s.Log.Error("a card can't be calculated", "card", x.ID, "error", err)
	}
	for i, b := range s.summaries.page(c, page, settings, failed) {
		x := page[i]
		if x.Unusable != nil {
			failed(x, x.Unusable)
			unusable = append(unusable, api.Unusable{Id: x.ID, Title: x.Name, StartedAt: x.Versions[0].SavedAt})
			continue
		}
		listed = append(listed, api.ListedCard{
			Id:        x.ID,
			Name:      x.Name,
			Tags:      x.Tags,
			Newest:    version(x.Versions[0]),
			MadeOf:    x.Versions[0].Request.MadeOf(),
			DishSizes: x.Versions[0].Request.Dish.Sizes(),
			Brief:     b,
			Revision:  app.RevisionOf(x),
		})
	}
	s.respond(c, http.StatusOK, api.CardPage{All: all, Tags: tags, Cards: listed, Unusable: unusable}, err)
}

// getCard is one card with all its versions.
func (s *server) getCard(c *gin.Context) {
	found, err := s.Store.Card(c, kitchenOf(c), id(c, "card"))
	s.respond(c, http.StatusOK, card(found), err)
}

// addCard saves a new card.
func (s *server) addCard(c *gin.Context) {
	in, ok := decode(s, c, func(x api.NewCard) error { return fault.Under("/request", balance.Check(x.Request)) })
	if !ok {
		return
	}
	kept, err := s.cards.Save(
		c,
		kitchenOf(c),
		in.Id,
		in.Name,
		app.Version{
			ID: in.VersionId, Request: in.Request, Setting: setting(in.Setting), Note: or(in.Note, ""), Original: in.Original,
		},
	)
	s.respond(c, http.StatusCreated, card(kept), err)
}

// addVersion saves a further version of a card.
func (s *server) addVersion(c *gin.Context) {
	in, ok := decode(s, c, func(x api.NewVersion) error { return fault.Under("/request", balance.Check(x.Request)) })
	if !ok {
		return
	}
	kept, err := s.cards.SaveVersion(
		c,
		kitchenOf(c),
		id(c, "card"),
		app.Version{
			ID: in.Id, Request: in.Request, Setting: setting(in.Setting), Note: or(in.Note, ""), Original: in.Original,
		},
	)
	s.respond(c, http.StatusCreated, card(kept), err)
}

// changeCard gives a card another name or other tags, puts it away, or takes it out again.
func (s *server) changeCard(c *gin.Context) {
	in, ok := decode[api.ChangeCardJSONRequestBody](s, c, nil)
	if !ok {
		return
	}
	found, err := s.cards.Change(
		c,
		kitchenOf(c),
		id(c, "card"),
		app.CardChange{Name: in.Name, Archived: in.Archived, Tags: in.Tags},
		when(c),
	)
	s.respond(c, http.StatusOK, card(found), err)
}

// compareVersions compares two versions of a card.
func (s *server) compareVersions(c *gin.Context) {
	rows, err := s.cards.Compare(c, kitchenOf(c), id(c, "card"), number(c, "version"), number(c, "other"))
	s.respond(c, http.StatusOK, rows, err)
}

func card(c app.Card) api.Card {
	return api.Card{
		Id: c.ID, Name: c.Name, Archived: c.Archived, Tags: c.Tags, Versions: each(c.Versions, version),
		Revision: app.RevisionOf(c),
	}
}

func version(v app.Version) api.Version {
	return api.Version{
		Id:       v.ID,
		Number:   v.Number,
		SavedAt:  v.SavedAt,
		Request:  v.Request,
		Setting:  toAPISetting(v.Setting),
		Note:     v.Note,
		Original: v.Original,
	}
}

func setting(s api.Setting) app.Setting {
	return app.Setting{
		OvenID:   s.OvenId,
		OvenC:    s.OvenC,
		Minutes:  s.Minutes,
		FillingC: s.FillingC,
		DishC:    s.DishC,
		Shelf:    string(or(s.Shelf, "")),
		Stages:   or(s.Stages, nil),
	}
}

func toAPISetting(s app.Setting) api.Setting {
	out := api.Setting{OvenId: s.OvenID, OvenC: s.OvenC, Minutes: s.Minutes, FillingC: s.FillingC, DishC: s.DishC}
	if s.Shelf != "" {
		shelf := api.SettingShelf(s.Shelf)
		out.Shelf = &shelf
	}
	if len(s.Stages) > 0 {
		out.Stages = &s.Stages
	}
	return out
}

// or is what a pointer points at, or something else where it points at nothing.
func or[T any](p *T, other T) T {
	if p == nil {
		return other
	}
	return *p
}

// each maps a list; the answer is never null in JSON.
func each[A, B any](list []A, f func(A) B) []B {
	out := make([]B, len(list))
	for i, x := range list {
		out[i] = f(x)
	}
	return out
}

// shortVerdict is a verdict in short; nil: none was given.
func shortVerdict(v bake.Verdict) *api.ShortVerdict {
	if v.Summary.IsZero() {
		return nil
	}
	return &api.ShortVerdict{Level: api.ShortVerdictLevel(v.Level), Summary: v.Summary}
}

// brief is an answer in short.
func brief(a *balance.Answer) api.Brief {
	return api.Brief{
		Text:        a.Brief(),
		Ingredients: a.Ingredients(),
		FruitG:      a.FruitG, SugarG: a.SugarG, ThickenerG: a.ThickenerG, ToppingG: a.ToppingG, Band: a.Set.Band,
		Portions: a.Portions.Count, HotHeadspaceMm: a.Fit.HotHeadspaceMM, Cutaway: a.Cutaway,
	}
}
