package httpapi

import (
	"context"
	"slices"
	"strings"

	"mabbin/api"
	"mabbin/core/balance"
	"mabbin/core/compare"
	"mabbin/core/diet"
	"mabbin/server/store"
)

// pageOfCards is how many cards are listed at once, unless another number is asked for.
const pageOfCards = 60

// ListCards lists a kitchen's cards that are sought, each with its newest version in short.
func (s Server) ListCards(ctx context.Context, req api.ListCardsRequestObject) (api.ListCardsResponseObject, error) {
	p := req.Params
	q := store.CardsSought{
		Words: strings.TrimSpace(text(p.Words)), Style: text(p.Style), Fruit: text(p.Fruit), Shape: text((*string)(p.Shape)), Archived: p.Archived != nil && *p.Archived,
	}
	from, limit := 0, pageOfCards
	if p.From != nil {
		from = *p.From
	}
	if p.Limit != nil {
		limit = *p.Limit
	}
	calculated := p.Diet != nil || p.Most != nil // what the database can't tell
	if !calculated {
		q.From, q.Limit = from, limit
	}
	page, err := s.Store.Cards(ctx, req.Kitchen, q)
	if err != nil {
		return nil, err
	}
	out := api.CardPage{}
	if calculated {
		page = slices.DeleteFunc(page, func(c store.Card) bool {
			x := s.briefs.of(c.Versions[0])
			return x == nil || p.Diet != nil && !x.suits[diet.Diet(*p.Diet)] || p.Most != nil && x.brief.Ingredients > *p.Most
		})
		out.All = len(page)
		page = page[min(from, len(page)):min(from+limit, len(page))]
	} else if out.All, err = s.Store.CountCards(ctx, req.Kitchen, q); err != nil {
		return nil, err
	}
	out.Cards = each(page, func(c store.Card) api.CardListed {
		listed := api.CardListed{Id: c.ID, Name: c.Name, Newest: version(c.Versions[0])}
		if x := s.briefs.of(c.Versions[0]); x != nil {
			listed.Brief = &x.brief
		}
		return listed
	})
	return api.ListCards200JSONResponse(out), nil
}

// NameCard gives a card another name, puts it away, or takes it out again.
func (s Server) NameCard(ctx context.Context, req api.NameCardRequestObject) (api.NameCardResponseObject, error) {
	c, err := s.Store.NameCard(ctx, req.Kitchen, req.Card, req.Body.Name, req.Body.Archived)
	if err != nil {
		return nil, err
	}
	return api.NameCard200JSONResponse(card(c)), nil
}

// CompareVersions lays two versions of a card beside each other.
func (s Server) CompareVersions(ctx context.Context, req api.CompareVersionsRequestObject) (api.CompareVersionsResponseObject, error) {
	c, err := s.Store.Card(ctx, req.Kitchen, req.Card)
	if err != nil {
		return nil, err
	}
	var sides [2]compare.Side
	for i, n := range []int{req.Version, req.Other} {
		at := slices.IndexFunc(c.Versions, func(v store.Version) bool { return v.Number == n })
		if at < 0 {
			return nil, store.ErrNotFound
		}
		v := c.Versions[at]
		sides[i] = compare.Side{Request: v.Request, OvenC: v.OvenC, Minutes: v.Minutes, Shelf: v.Shelf, Stages: v.Stages}
		if sides[i].Answer, err = balance.Solve(v.Request); err != nil {
			return nil, err
		}
		if v.OvenID != nil {
			o, err := s.Store.OneOven(ctx, req.Kitchen, *v.OvenID)
			if err != nil {
				return nil, err
			}
			sides[i].Oven = o.Name
		}
	}
	return api.CompareVersions200JSONResponse(compare.Of(sides[0], sides[1])), nil
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
	return api.Card{Id: c.ID, Name: c.Name, Archived: c.Archived, Versions: each(c.Versions, version)}
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
	different := map[string]bool{}
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			different[l.Key] = true
		}
	}
	return api.Brief{
		Ingredients: len(different),
		FruitG:      a.FruitG, SugarG: a.SugarG, ThickenerG: a.ThickenerG, ToppingG: a.ToppingG, Band: a.Set.Band,
		Portions: a.Portions.Count, HotHeadspaceMm: a.Fit.HotHeadspaceMM, Cutaway: a.Cutaway,
	}
}
