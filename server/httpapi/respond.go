package httpapi

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"os"
	"slices"
	"strconv"
	"syscall"

	"mabbin/api"
	"mabbin/app"
	"mabbin/core/day"
	"mabbin/core/learn"
	"mabbin/core/message"
	"mabbin/core/sell"
	"mabbin/core/units"
	"mabbin/core/watch"
	"mabbin/server/render"
	"mabbin/server/wire"

	"github.com/gin-gonic/gin"
)

const readingKey = "mabbin.reading"

// reading is how whoever asks reads: as the request says, else as the kitchen in its path does, else the usual way.
func (s *server) reading(c *gin.Context) render.Reading {
	if known, ok := c.Get(readingKey); ok {
		return known.(render.Reading) //nolint:forcetypeassert // nothing else is kept under it
	}
	var r render.Reading
	if c.Param("kitchen") != "" {
		if k, err := s.Store.OneKitchen(c, kitchenOf(c)); err == nil { // else it is said in the usual words
			r = render.For(k.Settings)
		}
	}
	for name, to := range map[string]*string{
		"english": (*string)(&r.English), "weights": &r.Weights, "heat": &r.Heat, "lengths": &r.Lengths,
		"cup": (*string)(&r.Cup), "decimal": (*string)(&r.Decimal),
	} {
		if x := c.Query(name); x != "" && slices.Contains(s.readings[name], any(x)) { // else as if it were not said
			*to = x
		}
	}
	if r.English == units.UK { // as the zero value has it
		r.English = ""
	}
	c.Set(readingKey, r)
	return r
}

// respond answers with v as whoever asks reads it, or with what is wrong.
func (s *server) respond(c *gin.Context, status int, v any, err error) {
	s.respondBy(c, status, v, err, wire.Encode)
}

// respondShown is respond for an answer that is shown, and not calculated with.
func (s *server) respondShown(c *gin.Context, v any, err error) {
	s.respondBy(c, http.StatusOK, v, err, wire.EncodeShown)
}

func (s *server) respondBy(
	c *gin.Context, status int, v any, err error, encode func(any, render.Reading) ([]byte, error),
) {
	if err == nil {
		var raw []byte
		if raw, err = encode(v, s.reading(c)); err == nil {
			raw = compressed(c, raw)
			c.Header("Content-Length", strconv.Itoa(len(raw))) // it need not be parted into chunks
			c.Data(status, "application/json", raw)
			return
		}
	}
	s.fail(c, err)
}

// respondNoContent answers that it is done.
func (s *server) respondNoContent(c *gin.Context, err error) {
	if err != nil {
		s.fail(c, err)
		return
	}
	c.Status(http.StatusNoContent)
	c.Writer.WriteHeaderNow()
}

// statusLeft stands in the server's log for a request whose caller left.
const statusLeft = 499

// retryAfter is in how many seconds to ask again what could not be answered now.
const retryAfter = "5"

// errBroken is a request whose body did not come whole.
var errBroken = errors.New("the request was interrupted")

// bodyError is an error of reading a request's body: too large, or broken off on its way.
func bodyError(err error) error {
	var over *http.MaxBytesError
	if err == nil || errors.As(err, &over) {
		return err
	}
	return fmt.Errorf("%w: %w", errBroken, err)
}

// fail turns an error into a problem.
func (s *server) fail(c *gin.Context, err error) {
	if errors.Is(err, context.Canceled) && c.Request.Context().Err() != nil { // nobody waits for it any more
		c.AbortWithStatus(statusLeft)
		return
	}
	p := problemOf(err, s.reading(c))
	var conflict *app.Conflict
	if errors.As(err, &conflict) {
		s.conflict(c, conflict)
		return
	}
	if p.Status >= http.StatusInternalServerError || p.Status == http.StatusConflict {
		_ = c.Error(err)
	}
	if p.Status == http.StatusServiceUnavailable {
		c.Header("Retry-After", retryAfter)
	}
	problem(c, p)
}

// conflict answers with what is stored, in addition to what was sent: whoever asked can choose.
func (s *server) conflict(c *gin.Context, x *app.Conflict) {
	status, title := http.StatusConflict, message.New("Something else is saved under this id; nothing was changed")
	if x.Changed {
		status = http.StatusPreconditionFailed
		title = message.New("It was changed elsewhere in the meantime; nothing was saved")
	}
	p := wire.Refusal(status, title, render.Reading{})
	var stored any
	switch k := x.Stored.(type) {
	case app.Kitchen:
		stored = kitchen(k)
	case app.KitchenDish:
		stored = shelfDish(k)
	case app.KitchenOven:
		stored = shelfOven(k)
	case app.Card:
		stored = card(k)
	case app.Day:
		stored = toAPIDay(k)
	case day.Resources:
		stored = k
	case app.BakeRecord:
		stored = toAPIBake(k)
	case app.Watched:
		stored = s.watched(k)
	case app.Countdown:
		stored = toAPICountdown(k)
	case sell.Stock:
		stored = toAPIStock(k)
	case learn.Preferences:
		stored = k
	case app.Picture:
		stored = api.Picture{Id: k.ID, Width: k.Width, Height: k.Height}
	}
	for to, what := range map[*any]any{&p.Stored: stored, &p.Sent: json.RawMessage(c.GetString(bodyKey))} {
		if raw, err := wire.Encode(what, s.reading(c)); err == nil {
			*to = json.RawMessage(raw)
		}
	}
	problem(c, p)
}

// refusals are the problems that are about no single field, by their errors: the first that fits is reported.
var refusals = []struct {
	is     error
	status int
	title  message.Message
}{
	{errStopped, http.StatusConflict, message.New("Stopped; nothing was saved")},
	{app.ErrNotFound, http.StatusNotFound, message.New("Not found in this kitchen")},
	{watch.ErrNoCall, http.StatusNotFound, message.New("Not found in this kitchen")},
	{watch.ErrOut, http.StatusConflict, message.New("It is already out of the oven")},
	{
		app.ErrUnusable, http.StatusConflict,
		message.New("The stored data can't be read any more"),
	},
	{app.ErrRunning, http.StatusConflict, message.New("It is already running: wait, then try again")},
	{app.ErrIDInUse, http.StatusConflict, message.New("The id belongs to something else: use a new id")},
	{app.ErrNameInUse, http.StatusConflict, message.New("The name is already in use")},
	{app.ErrRefused, http.StatusConflict, message.New("It refers to something that is not in this kitchen")},
	{
		app.ErrFull, http.StatusInsufficientStorage,
		message.New("The disk is full: nothing was saved. Make room, and save again"),
	},
	{
		syscall.ENOSPC, http.StatusInsufficientStorage,
		message.New("The disk is full: nothing was saved. Make room, and save again"),
	},
	{
		errPlanning, http.StatusServiceUnavailable,
		message.New("Other days are being planned: try again in a few seconds"),
	},
	{app.ErrUnavailable, http.StatusServiceUnavailable, message.New("The database can't be reached; nothing was saved")},
	{app.ErrBusy, http.StatusServiceUnavailable, message.New("It took too long and was stopped; nothing was saved")},
	{
		context.DeadlineExceeded, http.StatusServiceUnavailable,
		message.New("It took too long and was stopped; nothing was saved"),
	},
}

// problemOf is what an error is reported as, as somebody reads.
func problemOf(err error, r render.Reading) api.Problem {
	if p, ours := wire.ProblemOf(err, r); ours {
		return p
	}
	refusal := func(status int, title message.Message) api.Problem {
		return wire.Refusal(status, title, render.Reading{})
	}
	var over *http.MaxBytesError
	switch {
	case errors.As(err, &over):
		return tooLarge(over.Limit)
	case errors.Is(err, errBroken) && errors.Is(err, os.ErrDeadlineExceeded):
		return refusal(http.StatusRequestTimeout, message.New("The upload stalled; nothing was saved"))
	case errors.Is(err, errBroken):
		return refusal(http.StatusBadRequest, message.New("The upload was interrupted; nothing was saved"))
	}
	for _, r := range refusals {
		if errors.Is(err, r.is) {
			return refusal(r.status, r.title)
		}
	}
	return refusal(
		http.StatusInternalServerError,
		message.New("Something went wrong; details are in the server's log"),
	)
}

func tooLarge(most int64) api.Problem {
	return wire.Refusal(
		http.StatusRequestEntityTooLarge,
		message.New("The request is larger than {most} MB", message.Count(int(most>>20))),
		render.Reading{},
	)
}

// refuse answers with a problem that is about no single field.
func (s *server) refuse(c *gin.Context, status int, title message.Message) {
	// without a look at the kitchen: it may be what is missing
	problem(c, wire.Refusal(status, title, render.Reading{}))
}

func problem(c *gin.Context, p api.Problem) {
	c.Header("Content-Type", "application/problem+json")
	c.AbortWithStatusJSON(p.Status, p)
}
