package httpapi

import (
	"context"

	"mabbin/api"
	"mabbin/core/fault"
	"mabbin/core/oven"
	"mabbin/server/store"
)

// MeasureOven says how far off an oven is.
func (s Server) MeasureOven(_ context.Context, req api.MeasureOvenRequestObject) (api.MeasureOvenResponseObject, error) {
	m, err := oven.Measure(*req.Body)
	if err != nil {
		return nil, err
	}
	return api.MeasureOven200JSONResponse(m), nil
}

// ListOvens lists a kitchen's ovens.
func (s Server) ListOvens(ctx context.Context, req api.ListOvensRequestObject) (api.ListOvensResponseObject, error) {
	all, err := s.Store.Ovens(ctx, req.Kitchen)
	if err != nil {
		return nil, err
	}
	return api.ListOvens200JSONResponse(each(all, shelfOven)), nil
}

// SetOven adds, changes or puts back an oven.
func (s Server) SetOven(ctx context.Context, req api.SetOvenRequestObject) (api.SetOvenResponseObject, error) {
	var f fault.Faults
	req.Body.Oven.Check("/oven", &f)
	if err := f.Err(); err != nil {
		return nil, err
	}
	o := store.Oven{ID: req.Oven, Name: req.Body.Name, Oven: req.Body.Oven}
	if err := s.Store.SetOven(ctx, req.Kitchen, o); err != nil {
		return nil, err
	}
	return api.SetOven200JSONResponse(shelfOven(o)), nil
}

// RemoveOven takes an oven away.
func (s Server) RemoveOven(ctx context.Context, req api.RemoveOvenRequestObject) (api.RemoveOvenResponseObject, error) {
	if err := s.Store.RemoveOven(ctx, req.Kitchen, req.Oven); err != nil {
		return nil, err
	}
	return api.RemoveOven204Response{}, nil
}

func shelfOven(o store.Oven) api.ShelfOven {
	return api.ShelfOven{Id: o.ID, Name: o.Name, Oven: o.Oven, OffByC: o.OffBy()}
}
