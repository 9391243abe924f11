package httpapi

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"net/http"
	"slices"
	"strings"

	"mabbin/api"
	"mabbin/app"
	"mabbin/core/balance"
	"mabbin/core/compare"
	"mabbin/core/fault"
	"mabbin/core/learn"
	"mabbin/server/formats"
	"mabbin/server/render"
	"mabbin/server/wire"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
)

// pageOfBakes is how many bakes the log gives at once, unless it is asked for another number.
const pageOfBakes = 50

// listBakes lists the log, the last bake first.
func (s *server) listBakes(c *gin.Context) {
	p, err := query[api.ListBakesParams](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	q := app.BakeFilter{Words: strings.TrimSpace(or(p.Words, "")), Juice: string(or(p.Juice, "")), Oven: p.Oven}
	page, more, err := s.Store.Bakes(c, kitchenOf(c), q, p.Before, or(p.Limit, pageOfBakes))
	out := api.BakePage{Bakes: []api.Bake{}, Unusable: []api.Unusable{}, More: more}
	for _, b := range page {
		if b.Unusable == nil {
			out.Bakes = append(out.Bakes, toAPIBake(b))
			continue
		}
		s.Log.Error("a bake of the log can't be used", "bake", b.ID, "error", b.Unusable)
		out.Unusable = append(out.Unusable, unusableBake(b))
	}
	s.respond(c, http.StatusOK, out, err)
}

// charted is how many bakes a chart has at most.
const charted = 300

// chartBakes is where the last bakes stand, the first of them first.
func (s *server) chartBakes(c *gin.Context) {
	p, err := query[api.ChartBakesParams](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	q := app.BakeFilter{Words: strings.TrimSpace(or(p.Words, "")), Juice: string(or(p.Juice, "")), Oven: p.Oven}
	page, _, err := s.Store.Bakes(c, kitchenOf(c), q, nil, charted)
	out := api.BakeChart{Bakes: []api.ChartedBake{}}
	for _, b := range slices.Backward(page) {
		if b.Unusable == nil {
			out.Bakes = append(out.Bakes, api.ChartedBake{
				Id: b.ID, Title: b.Title, At: b.BakedAt, OvenId: b.OvenID, Point: b.Point(),
			})
		}
	}
	s.respond(c, http.StatusOK, out, err)
}

func unusableBake(b app.BakeRecord) api.Unusable {
	return api.Unusable{Id: b.ID, Title: b.Title, StartedAt: b.BakedAt}
}

// addBake logs a bake.
func (s *server) addBake(c *gin.Context) {
	in, ok := decode(s, c, func(x api.NewBake) error { return fault.Under("/request", balance.Check(x.Request)) })
	if !ok {
		return
	}
	kept, err := s.log.Add(c, kitchenOf(c), app.BakeRecord{
		ID: in.Id, Title: in.Title, BakedAt: in.BakedAt, CardID: in.CardId, Version: in.Version, Request: in.Request,
		Setting: setting(in.Setting), Outcome: outcomeOf(in.Outcome),
	}, in.WatchId)
	s.respond(c, http.StatusCreated, toAPIBake(kept), err)
}

// getBake is one bake in full.
func (s *server) getBake(c *gin.Context) {
	b, err := s.Store.OneBake(c, kitchenOf(c), id(c, "bake"))
	s.respond(c, http.StatusOK, toAPIBake(b), err)
}

// correctBake puts right what was reported of a bake.
func (s *server) correctBake(c *gin.Context) {
	in, ok := decode[api.CorrectBakeJSONRequestBody](s, c, nil)
	if !ok {
		return
	}
	b, err := s.log.Correct(c, kitchenOf(c), id(c, "bake"), in.CorrectionId, outcomeOf(in.Outcome), when(c))
	s.respond(c, http.StatusOK, toAPIBake(b), err)
}

// explainBake says what the model expects of a bake, and what may have been otherwise.
func (s *server) explainBake(c *gin.Context) {
	p, err := query[api.ExplainBakeParams](c)
	s.atWork(c, p.XWork, err, func(ctx context.Context, tick learn.Tick) {
		e, err := s.log.Explain(ctx, kitchenOf(c), id(c, "bake"), tick)
		s.respond(c, http.StatusOK, e, err)
	})
}

// compareBakes compares two bakes.
func (s *server) compareBakes(c *gin.Context) {
	rows, err := s.log.Compare(c, kitchenOf(c), id(c, "bake"), id(c, "other"))
	s.respond(c, http.StatusOK, rows, err)
}

// outcomeOf is what was reported.
func outcomeOf(o api.Outcome) app.Outcome {
	out := app.Outcome{
		Juice: (*string)(
			o.Juice,
		),
		Fruit:      (*string)(o.Fruit),
		Top:        (*string)(o.Top),
		BoiledOver: o.BoiledOver,
		Note:       or(o.Note, ""),
		Picture:    o.PictureId,
	}
	if o.Details != nil {
		out.Details = *o.Details
	}
	return out
}

func toAPIOutcome(o app.Outcome) api.Outcome {
	return api.Outcome{
		Juice: (*api.JuiceOutcome)(o.Juice), Fruit: (*api.OutcomeFruit)(o.Fruit), Top: (*api.OutcomeTop)(o.Top),
		BoiledOver: o.BoiledOver, Note: &o.Note, Details: &o.Details, PictureId: o.Picture,
	}
}

func toAPIBake(b app.BakeRecord) api.Bake {
	return api.Bake{
		Id:        b.ID,
		Title:     b.Title,
		BakedAt:   b.BakedAt,
		Batch:     b.Batch,
		CardId:    b.CardID,
		Version:   b.Version,
		Learnt:    b.Learnt,
		Request:   b.Request,
		Predicted: brief(&b.Result),
		Setting:   toAPISetting(b.Setting),
		Outcome:   toAPIOutcome(b.Outcome),
		Revision:  app.RevisionOf(b),
		Verdict:   b.Verdict(),
		Report:    compare.HowItWent(&b.Result, b.Details, b.Happened, b.Learnt),
		Actual:    b.Happened,
		Cost:      toAPICost(b.Cost),
		Corrections: each(
			b.Corrections,
			func(c app.Correction) api.Correction { return api.Correction{At: c.At, Was: toAPIOutcome(c.Was)} },
		),
	}
}

func toAPICost(c *app.BakeCost) *api.BakeCost {
	if c == nil {
		return nil
	}
	return &api.BakeCost{Currency: c.Currency, Of: c.DessertCost}
}

// exportLogCSV is the log as a table.
func (s *server) exportLogCSV(c *gin.Context) {
	s.download(c, "text/csv", func(to io.Writer) error {
		w, err := formats.NewLogWriter(to)
		if err != nil {
			return err
		}
		if err := s.Store.EachLine(c, kitchenOf(c), app.BakeFilter{}, w.Line); err != nil {
			return errors.Join(err, w.Close())
		}
		return errors.Join(w.End(), w.Close())
	})
}

// exportLogJSON is the log with everything that is kept of each bake.
func (s *server) exportLogJSON(c *gin.Context) {
	r := s.reading(c)
	s.download(c, "application/json", func(to io.Writer) error { return s.writeLog(c, to, kitchenOf(c), r) })
}

// download answers with what write writes, as it is written, so that what is long takes no more memory than what is
// short.
func (s *server) download(c *gin.Context, mediaType string, write func(io.Writer) error) {
	if _, err := s.Store.OneKitchen(c, kitchenOf(c)); err != nil {
		s.fail(c, err)
		return
	}
	to := bufio.NewWriterSize(starts{c.Writer, func() {
		c.Header("Content-Type", mediaType)
		c.Status(http.StatusOK)
	}}, downloadBuffer)
	err := write(struct{ io.Writer }{to}) // a csv.Writer would take the buffer for its own, and flush it
	if err == nil {
		err = to.Flush()
	}
	switch {
	case err == nil:
	case !c.Writer.Written():
		s.fail(c, err)
	default:
		_ = c.Error(err)
		panic(http.ErrAbortHandler) // it is not whole: the connection says so
	}
}

// downloadBuffer is how much of a download is held back: what fails before there is so much of it is a problem, and no
// broken download.
const downloadBuffer = 32 << 10

// starts writes an answer, and calls head before the first of it.
type starts struct {
	gin.ResponseWriter
	head func()
}

func (b starts) Write(p []byte) (int, error) {
	if !b.Written() {
		b.head()
	}
	return b.ResponseWriter.Write(p)
}

// writeLog writes the log as a JSON document, page by page.
func (s *server) writeLog(ctx context.Context, to io.Writer, kitchen uuid.UUID, r render.Reading) error {
	if _, err := io.WriteString(to, `{"format":"mabbin-log","version":1,"bakes":[`); err != nil {
		return err
	}
	sep, count := "\n", 0
	var before *uuid.UUID
	for more := true; more; {
		var page []app.BakeRecord
		var err error
		if page, more, err = s.Store.Bakes(ctx, kitchen, app.BakeFilter{}, before, pageOfBakes); err != nil {
			return err
		}
		for _, b := range page {
			var reported any = unusableBake(b)
			if b.Unusable == nil {
				reported = toAPIBake(b)
			}
			raw, err := wire.Encode(reported, r)
			if err != nil {
				return err
			}
			if _, err := fmt.Fprintf(to, "%s%s", sep, raw); err != nil {
				return err
			}
			sep, before = ",\n", &b.ID
			count++
		}
	}
	_, err := fmt.Fprintf(to, "\n],\"count\":%d}\n", count)
	return err
}

// addPicture keeps a picture, written anew.
func (s *server) addPicture(c *gin.Context) {
	p, err := formats.ReadPicture(bodyReader{c.Request.Body})
	if errors.Is(err, formats.ErrPicture) {
		err = wire.BodyFault(err)
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	kept := app.Picture{ID: id(c, "picture"), Width: p.Width, Height: p.Height, JPEG: p.JPEG, Small: p.Small}
	err = s.Store.AddPicture(c, kitchenOf(c), kept, s.Clock())
	s.respond(c, http.StatusCreated, api.Picture{Id: kept.ID, Width: kept.Width, Height: kept.Height}, err)
}

// getPicture is a picture as it is shown. What has an id never changes.
func (s *server) getPicture(c *gin.Context) {
	p, err := query[api.GetPictureParams](c)
	var jpeg []byte
	if err == nil {
		jpeg, err = s.Store.PictureOf(c, kitchenOf(c), id(c, "picture"), or(p.Small, false))
	}
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Data(http.StatusOK, "image/jpeg", jpeg)
}
