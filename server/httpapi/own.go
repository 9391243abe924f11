package httpapi

import (
	"context"

	"github.com/google/uuid"

	"mabbin/api"
	"mabbin/core/fault"
	"mabbin/core/larder"
)

// ListOwn lists what a kitchen knows better than the tables.
func (s Server) ListOwn(ctx context.Context, req api.ListOwnRequestObject) (api.ListOwnResponseObject, error) {
	own, err := s.Store.Own(ctx, req.Kitchen)
	if err != nil {
		return nil, err
	}
	return api.ListOwn200JSONResponse(*own), nil
}

// SetOwn keeps figures of the kitchen's own.
func (s Server) SetOwn(ctx context.Context, req api.SetOwnRequestObject) (api.SetOwnResponseObject, error) {
	var f fault.Faults
	req.Body.Check("", req.Key, req.Kind, &f)
	if err := f.Err(); err != nil {
		return nil, err
	}
	if err := s.Store.SetOwn(ctx, req.Kitchen, req.Kind, req.Key, *req.Body); err != nil {
		return nil, err
	}
	own, err := s.own(ctx, req.Kitchen)
	return api.SetOwn200JSONResponse(own), err
}

// DropOwn goes back to the table's figures.
func (s Server) DropOwn(ctx context.Context, req api.DropOwnRequestObject) (api.DropOwnResponseObject, error) {
	if err := s.Store.DropOwn(ctx, req.Kitchen, req.Kind, req.Key); err != nil {
		return nil, err
	}
	own, err := s.own(ctx, req.Kitchen)
	return api.DropOwn200JSONResponse(own), err
}

func (s Server) own(ctx context.Context, kitchen uuid.UUID) (larder.Own, error) {
	own, err := s.Store.Own(ctx, kitchen)
	if err != nil {
		return larder.Own{}, err
	}
	return *own, nil
}
