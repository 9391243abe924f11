package httpapi

import (
	"context"

	"mabbin/api"
	"mabbin/server/store"
)

// ListKitchens lists every kitchen.
func (s Server) ListKitchens(ctx context.Context, _ api.ListKitchensRequestObject) (api.ListKitchensResponseObject, error) {
	all, err := s.Store.Kitchens(ctx)
	if err != nil {
		return nil, err
	}
	return api.ListKitchens200JSONResponse(each(all, kitchen)), nil
}

func kitchen(k store.Kitchen) api.Kitchen {
	return api.Kitchen{Id: k.ID, Name: k.Name, Settings: k.Settings}
}

// SetSettings changes how a kitchen measures.
func (s Server) SetSettings(ctx context.Context, req api.SetSettingsRequestObject) (api.SetSettingsResponseObject, error) {
	k, err := s.Store.SetSettings(ctx, req.Kitchen, *req.Body)
	if err != nil {
		return nil, err
	}
	return api.SetSettings200JSONResponse(kitchen(k)), nil
}

// ListDishes lists a kitchen's dishes.
func (s Server) ListDishes(ctx context.Context, req api.ListDishesRequestObject) (api.ListDishesResponseObject, error) {
	all, err := s.Store.Dishes(ctx, req.Kitchen)
	if err != nil {
		return nil, err
	}
	return api.ListDishes200JSONResponse(each(all, shelfDish)), nil
}

// AddDish puts a dish on the shelf.
func (s Server) AddDish(ctx context.Context, req api.AddDishRequestObject) (api.AddDishResponseObject, error) {
	d := store.ShelfDish{ID: req.Body.Id, Name: req.Body.Name, Dish: req.Body.Dish, Count: 1}
	if n := req.Body.Count; n != nil {
		d.Count = *n
	}
	if err := s.Store.AddDish(ctx, req.Kitchen, d); err != nil {
		return nil, err
	}
	return api.AddDish201JSONResponse(shelfDish(d)), nil
}

// ChangeDish changes a dish on the shelf.
func (s Server) ChangeDish(ctx context.Context, req api.ChangeDishRequestObject) (api.ChangeDishResponseObject, error) {
	d := store.ShelfDish{ID: req.Dish, Name: req.Body.Name, Dish: req.Body.Dish, Count: req.Body.Count}
	if err := s.Store.ChangeDish(ctx, req.Kitchen, d); err != nil {
		return nil, err
	}
	return api.ChangeDish200JSONResponse(shelfDish(d)), nil
}

// RemoveDish takes a dish off the shelf.
func (s Server) RemoveDish(ctx context.Context, req api.RemoveDishRequestObject) (api.RemoveDishResponseObject, error) {
	if err := s.Store.RemoveDish(ctx, req.Kitchen, req.Dish); err != nil {
		return nil, err
	}
	return api.RemoveDish204Response{}, nil
}

func shelfDish(d store.ShelfDish) api.ShelfDish {
	bySizes := d.Dish
	bySizes.MeasuredML = 0
	return api.ShelfDish{
		Id: d.ID, Name: d.Name, Dish: d.Dish, Count: d.Count,
		VolumeMl: d.Dish.Measure().VolumeML, ComputedMl: bySizes.Measure().VolumeML,
	}
}
