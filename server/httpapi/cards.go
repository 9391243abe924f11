package httpapi

import (
	"context"

	"mabbin/api"
	"mabbin/core/balance"
	"mabbin/server/store"
)

// ListCards lists a kitchen's cards, each with its newest version in short.
func (s Server) ListCards(ctx context.Context, req api.ListCardsRequestObject) (api.ListCardsResponseObject, error) {
	all, err := s.Store.Cards(ctx, req.Kitchen)
	if err != nil {
		return nil, err
	}
	return api.ListCards200JSONResponse(each(all, func(c store.Card) api.CardListed {
		out := api.CardListed{Id: c.ID, Name: c.Name, Newest: version(c.Versions[0])}
		if a, err := balance.Solve(c.Versions[0].Request); err == nil {
			b := brief(a)
			out.Brief = &b
		}
		return out
	})), nil
}

// GetCard is one card with all its versions.
func (s Server) GetCard(ctx context.Context, req api.GetCardRequestObject) (api.GetCardResponseObject, error) {
	c, err := s.Store.Card(ctx, req.Kitchen, req.Card)
	if err != nil {
		return nil, err
	}
	return api.GetCard200JSONResponse(card(c)), nil
}

// AddCard saves a new card.
func (s Server) AddCard(ctx context.Context, req api.AddCardRequestObject) (api.AddCardResponseObject, error) {
	b := req.Body
	c, err := s.Store.AddCard(ctx, req.Kitchen, b.Id, b.Name, store.Version{
		ID: b.VersionId, SavedAt: s.Now(), Request: b.Request, Setting: setting(b.Setting), Note: text(b.Note),
	})
	if err != nil {
		return nil, err
	}
	return api.AddCard201JSONResponse(card(c)), nil
}

// AddVersion saves a further version of a card.
func (s Server) AddVersion(ctx context.Context, req api.AddVersionRequestObject) (api.AddVersionResponseObject, error) {
	b := req.Body
	c, err := s.Store.AddVersion(ctx, req.Kitchen, req.Card, store.Version{
		ID: b.Id, SavedAt: s.Now(), Request: b.Request, Setting: setting(b.Setting), Note: text(b.Note),
	})
	if err != nil {
		return nil, err
	}
	return api.AddVersion201JSONResponse(card(c)), nil
}

func card(c store.Card) api.Card {
	return api.Card{Id: c.ID, Name: c.Name, Versions: each(c.Versions, version)}
}

func version(v store.Version) api.Version {
	return api.Version{Id: v.ID, Number: v.Number, SavedAt: v.SavedAt, Request: v.Request, Setting: told(v.Setting), Note: v.Note}
}

func setting(s api.Setting) store.Setting {
	out := store.Setting{OvenID: s.OvenId, OvenC: s.OvenC, Minutes: s.Minutes, FillingC: s.FillingC, DishC: s.DishC}
	if s.Shelf != nil {
		out.Shelf = string(*s.Shelf)
	}
	if s.Stages != nil {
		out.Stages = *s.Stages
	}
	return out
}

func told(s store.Setting) api.Setting {
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

func text(p *string) string {
	if p == nil {
		return ""
	}
	return *p
}

// brief is an answer in short.
func brief(a *balance.Answer) api.Brief {
	return api.Brief{
		FruitG: a.FruitG, SugarG: a.SugarG, ThickenerG: a.ThickenerG, ToppingG: a.ToppingG, Band: a.Set.Band,
		Portions: a.Portions.Count, HotHeadspaceMm: a.Fit.HotHeadspaceMM, Cutaway: a.Cutaway,
	}
}
