package httpapi

import (
	"context"
	"errors"
	"io"
	"os"

	"mabbin/api"
	"mabbin/core/fault"
	"mabbin/core/say"
	"mabbin/server/demo"
	"mabbin/server/formats"
	"mabbin/server/store"
)

// AddKitchen makes a kitchen with nothing in it.
func (s Server) AddKitchen(ctx context.Context, req api.AddKitchenRequestObject) (api.AddKitchenResponseObject, error) {
	k, err := s.Store.NewKitchen(ctx, req.Body.Id, req.Body.Name)
	if err != nil {
		return nil, err
	}
	return api.AddKitchen201JSONResponse(kitchen(k)), nil
}

// LoadDemo loads the demo kitchen.
func (s Server) LoadDemo(ctx context.Context, _ api.LoadDemoRequestObject) (api.LoadDemoResponseObject, error) {
	if _, err := demo.Load(ctx, s.Store, s.Now()); err != nil {
		return nil, err
	}
	k, err := s.Store.OneKitchen(ctx, demo.Kitchen.ID)
	if err != nil {
		return nil, err
	}
	return api.LoadDemo201JSONResponse(kitchen(k)), nil
}

// BackUp is a whole kitchen as one archive, written as it is read.
func (s Server) BackUp(ctx context.Context, req api.BackUpRequestObject) (api.BackUpResponseObject, error) {
	if _, err := s.Store.OneKitchen(ctx, req.Kitchen); err != nil {
		return nil, err
	}
	return api.BackUp200ApplicationzipResponse{Body: piped(func(to io.Writer) error {
		w, err := formats.NewArchive(to, s.Now())
		if err != nil {
			return err
		}
		err = s.Store.BackUp(ctx, req.Kitchen, w.Row, func(p store.Picture) error { return w.Picture(p.ID.String(), p.JPEG, p.Small) })
		return errors.Join(err, w.Close())
	})}, nil
}

// piped is what write writes, while it is read. Closed, it ends the writing.
func piped(write func(io.Writer) error) io.ReadCloser {
	out, in := io.Pipe()
	go func() { in.CloseWithError(write(in)) }()
	return out
}

// RestoreKitchen makes a kitchen of an archive: all of it, or nothing.
func (s Server) RestoreKitchen(ctx context.Context, req api.RestoreKitchenRequestObject) (api.RestoreKitchenResponseObject, error) {
	f, err := os.CreateTemp("", "mabbin-restore-*.zip") // a zip is read from its end
	if err != nil {
		return nil, err
	}
	defer func() { _, _ = f.Close(), os.Remove(f.Name()) }()
	size, err := io.Copy(f, req.Body)
	if err != nil {
		return nil, err
	}
	a, err := formats.OpenArchive(f, size)
	if err != nil {
		return nil, archiveFault(err)
	}
	tick, over := s.works.begin(ctx, req.Params.XWork)
	defer over()
	a.Tick = tick
	k, err := s.Store.Restore(ctx, a, func(name string) string { return shortened(name, 65) + ", restored" })
	if err != nil {
		return nil, archiveFault(err)
	}
	return api.RestoreKitchen201JSONResponse(kitchen(k)), nil
}

func archiveFault(err error) error {
	if errors.Is(err, context.Canceled) { // nobody waits for it any more
		return err
	}
	if errors.Is(err, formats.ErrArchive) {
		return fault.Faults{{Detail: say.Why(err)}}
	}
	return err
}

func shortened(s string, most int) string {
	if r := []rune(s); len(r) > most {
		return string(r[:most])
	}
	return s
}
