package httpapi

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"

	"github.com/google/uuid"

	"mabbin/api"
	"mabbin/core/bake"
	"mabbin/core/compare"
	"mabbin/core/learn"
	"mabbin/core/watch"
	"mabbin/server/formats"
	"mabbin/server/store"
)

// ExportLog is the log as a table. It is written as it is read, so that a long log takes no more memory than a short one.
func (s Server) ExportLog(ctx context.Context, req api.ExportLogRequestObject) (api.ExportLogResponseObject, error) {
	if _, err := s.Store.OneKitchen(ctx, req.Kitchen); err != nil {
		return nil, err
	}
	return api.ExportLog200TextcsvResponse{Body: piped(func(to io.Writer) error {
		w, err := formats.NewLogWriter(to)
		if err != nil {
			return err
		}
		return errors.Join(s.Store.EachLine(ctx, req.Kitchen, store.Sought{}, w.Line), w.Close())
	})}, nil
}

// ExplainBake says what the model expects of a bake, and what may have been otherwise.
func (s Server) ExplainBake(ctx context.Context, req api.ExplainBakeRequestObject) (api.ExplainBakeResponseObject, error) {
	b, err := s.Store.OneBake(ctx, req.Kitchen, req.Bake)
	if err != nil {
		return nil, err
	}
	q, err := s.asBaked(ctx, req.Kitchen, b)
	if err != nil {
		return nil, err
	}
	tick, over := s.works.begin(ctx, req.Params.XWork)
	defer over()
	e, err := learn.Explain(q, learn.Came{Words: words(b.Outcome), Told: b.Told, Happened: b.Happened},
		func(done, of int) error { return tick(int64(done), int64(of)) })
	if err != nil {
		return nil, err
	}
	return api.ExplainBake200JSONResponse(*e), nil
}

// asBaked is a bake as it can be baked on paper again: in its oven as it is known by now, by the stages as they were.
func (s Server) asBaked(ctx context.Context, kitchen uuid.UUID, b store.Bake) (bake.DessertRequest, error) {
	k, err := s.Store.OneKitchen(ctx, kitchen)
	if err != nil {
		return bake.DessertRequest{}, err
	}
	q := bake.DessertRequest{Request: b.Request, Setting: bake.Setting{AltitudeM: k.AltitudeM, Shelf: b.Shelf, FillingC: b.FillingC, DishC: b.DishC, Stages: b.Stages}}
	if b.OvenID != nil {
		o, err := s.Store.OneOven(ctx, kitchen, *b.OvenID)
		if err != nil {
			return q, err
		}
		q.Setting.Heating, q.Setting.OvenOffsetC, q.Setting.OffByC = o.Heating, o.OffsetC, o.GiveOrTakeC
	}
	if b.Happened != nil && len(b.Happened.Stages) > 0 {
		q.Setting.Stages = watch.Behind(b.Happened.Stages, b.Happened.Minutes)
	}
	if len(q.Setting.Stages) == 0 && b.OvenC != nil && b.Minutes != nil {
		q.Setting.Stages = []bake.Stage{{Minutes: *b.Minutes, OvenC: *b.OvenC, Heating: q.Setting.Heating}}
	}
	return q, nil
}

func words(o store.Outcome) bake.Words {
	return bake.Words{Juice: text(o.Juice), Fruit: text(o.Fruit), Top: text(o.Top), Base: o.Told.Base, BoiledOver: o.BoiledOver}
}

// CompareBakes lays two bakes beside each other.
func (s Server) CompareBakes(ctx context.Context, req api.CompareBakesRequestObject) (api.CompareBakesResponseObject, error) {
	var sides [2]compare.Side
	for i, id := range []uuid.UUID{req.Bake, req.Other} {
		b, err := s.Store.OneBake(ctx, req.Kitchen, id)
		if err != nil {
			return nil, err
		}
		sides[i] = compare.Side{
			Request: b.Request, Answer: &b.Result, OvenC: b.OvenC, Minutes: b.Minutes, Shelf: b.Shelf, Stages: b.Stages,
			Words: words(b.Outcome), Told: b.Told, Happened: b.Happened,
		}
		if b.OvenID != nil {
			o, err := s.Store.OneOven(ctx, req.Kitchen, *b.OvenID)
			if err != nil {
				return nil, err
			}
			sides[i].Oven = o.Name
		}
	}
	return api.CompareBakes200JSONResponse(compare.Of(sides[0], sides[1])), nil
}

// ExportLogWhole is the log with everything that is kept of each bake. It is written as it is read.
func (s Server) ExportLogWhole(ctx context.Context, req api.ExportLogWholeRequestObject) (api.ExportLogWholeResponseObject, error) {
	if _, err := s.Store.OneKitchen(ctx, req.Kitchen); err != nil {
		return nil, err
	}
	return wholeLog{piped(func(to io.Writer) error { return s.writeLog(ctx, to, req.Kitchen) })}, nil
}

// wholeLog answers with a log as it comes.
type wholeLog struct{ io.ReadCloser }

// VisitExportLogWholeResponse writes it.
func (l wholeLog) VisitExportLogWholeResponse(w http.ResponseWriter) error {
	defer func() { _ = l.Close() }() // who stops reading stops the writing
	w.Header().Set("Content-Type", "application/json")
	w.WriteHeader(http.StatusOK)
	_, err := io.Copy(w, l)
	return err
}

// writeLog writes the log as a JSON document, page by page.
func (s Server) writeLog(ctx context.Context, to io.Writer, kitchen uuid.UUID) error {
	if _, err := io.WriteString(to, `{"format":"mabbin-log","version":1,"bakes":[`); err != nil {
		return err
	}
	sep := "\n"
	var before *uuid.UUID
	for more := true; more; {
		var page []store.Bake
		var err error
		if page, more, err = s.Store.Bakes(ctx, kitchen, store.Sought{}, before, pageOfBakes); err != nil {
			return err
		}
		for _, b := range page {
			raw, err := json.Marshal(logged(b))
			if err != nil {
				return err
			}
			if _, err := fmt.Fprintf(to, "%s%s", sep, raw); err != nil {
				return err
			}
			sep, before = ",\n", &b.ID
		}
	}
	_, err := io.WriteString(to, "\n]}\n")
	return err
}
