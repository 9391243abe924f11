package httpapi

import (
	"bytes"
	"context"
	"errors"

	"mabbin/api"
	"mabbin/core/fault"
	"mabbin/core/say"
	"mabbin/server/formats"
	"mabbin/server/store"
)

// AddPicture keeps a picture, written anew.
func (s Server) AddPicture(ctx context.Context, req api.AddPictureRequestObject) (api.AddPictureResponseObject, error) {
	p, err := formats.ReadPicture(req.Body)
	if errors.Is(err, formats.ErrPicture) {
		return nil, fault.Faults{{Detail: say.Why(err)}}
	}
	if err != nil {
		return nil, err
	}
	if err := s.Store.AddPicture(ctx, req.Kitchen, store.Picture{ID: req.Picture, Width: p.Width, Height: p.Height, JPEG: p.JPEG, Small: p.Small}, s.Now()); err != nil {
		return nil, err
	}
	return api.AddPicture201JSONResponse{Id: req.Picture, Width: p.Width, Height: p.Height}, nil
}

// GetPicture is a picture as it is shown. What has an id never changes.
func (s Server) GetPicture(ctx context.Context, req api.GetPictureRequestObject) (api.GetPictureResponseObject, error) {
	jpeg, err := s.Store.PictureOf(ctx, req.Kitchen, req.Picture, req.Params.Small != nil && *req.Params.Small)
	if err != nil {
		return nil, err
	}
	return api.GetPicture200ImagejpegResponse{Body: bytes.NewReader(jpeg), ContentLength: int64(len(jpeg))}, nil
}
