package app

import (
	"context"
	"errors"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/outcome"
	"mabbin/core/watch"

	"github.com/google/uuid"
)

// IntoOven is a dessert that is put into an oven.
type IntoOven struct {
	ID      uuid.UUID
	Title   string
	CardID  *uuid.UUID
	Version *int
	Request balance.Request
	Setting Setting
	Weather Weather
	Weighed []outcome.Weighed
}

// PutIn starts the clock of a dessert: it is simulated in its oven as the kitchen knows it, and its calls are
// written. The same id twice is the same dessert.
func (o OvenWatch) PutIn(ctx context.Context, kitchen uuid.UUID, in IntoOven) (Watched, error) {
	setting, err := BakeSetting(ctx, o.Kitchens, kitchen, in.Setting, in.Weather)
	if err != nil {
		return Watched{}, err
	}
	b, err := watch.Start(ctx, bake.DessertRequest{Request: in.Request, Setting: setting}, o.Clock())
	if err != nil {
		return Watched{}, err
	}
	w := Watched{
		ID:      in.ID,
		Kitchen: kitchen,
		Title:   in.Title,
		CardID:  in.CardID,
		Version: in.Version,
		OvenID:  in.Setting.OvenID,
		Weighed: in.Weighed,
		Bake:    *b,
	}
	see, err := o.filter(ctx, w)
	if err != nil {
		return Watched{}, err
	}
	if _, err := w.UpdateForecast(ctx, see); err != nil {
		return Watched{}, err
	}
	if err := o.Store.StartWatch(ctx, w); err != nil {
		return Watched{}, err
	}
	o.Notify(kitchen)
	there, err := o.Store.OneWatched(ctx, kitchen, in.ID)
	if errors.Is(err, ErrNotFound) {
		return there, ErrIDInUse
	}
	if err != nil {
		return there, err
	}
	return there, Same([]any{in.Title, in.Request}, []any{there.Title, there.Request.Request}, there)
}
