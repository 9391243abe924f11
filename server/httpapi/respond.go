package httpapi

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"os"
	"slices"
	"syscall"

	"mabbin/api"
	"mabbin/app"
	"mabbin/core/measure"
	"mabbin/core/message"
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
	if r.English == measure.UK { // as the zero value has it
		r.English = ""
	}
	c.Set(readingKey, r)
	return r
}

// respond answers with v as whoever asks reads it, or with what is wrong.
func (s *server) respond(c *gin.Context, status int, v any, err error) {
	if err == nil {
		var raw []byte
		if raw, err = wire.Encode(v, s.reading(c)); err == nil {
			c.Data(status, "application/json", raw)
			return
		}
	}
	s.fail(c, err)
}

// nothing answers that it is done.
func (s *server) nothing(c *gin.Context, err error) {
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
var errBroken = errors.New("the request broke off")

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
	if p, ours := wire.ProblemOf(err, s.reading(c)); ours {
		problem(c, p)
		return
	}
	var over *http.MaxBytesError
	switch {
	case c.Request.Context().Err() != nil && errors.Is(err, context.Canceled): // nobody waits for it any more
		c.AbortWithStatus(statusLeft)
	case errors.As(err, &over):
		s.tooLarge(c, over.Limit)
	case errors.Is(err, os.ErrDeadlineExceeded) && errors.Is(err, errBroken):
		s.refuse(c, http.StatusRequestTimeout, message.New("The request stood still on its way; nothing was saved"))
	case errors.Is(err, errBroken):
		s.refuse(c, http.StatusBadRequest, message.New("The request broke off on its way; nothing was saved"))
	case errors.Is(err, app.ErrNotFound), errors.Is(err, watch.ErrNoCall):
		s.refuse(c, http.StatusNotFound, message.New("There is no such thing in this kitchen"))
	case errors.Is(err, watch.ErrOut):
		s.refuse(c, http.StatusConflict, message.New("It is out of the oven already"))
	case errors.Is(err, app.ErrUnusable):
		_ = c.Error(err)
		s.refuse(
			c,
			http.StatusConflict,
			message.New("What is kept of this dessert can't be used any more: take it off the watch"),
		)
	case errors.Is(err, app.ErrTaken):
		s.refuse(c, http.StatusConflict, message.New("There is already one of that name"))
	case errors.Is(err, app.ErrRefused):
		_ = c.Error(err)
		s.refuse(c, http.StatusConflict, message.New("It points at something that is not in this kitchen"))
	case errors.Is(err, app.ErrFull), errors.Is(err, syscall.ENOSPC):
		_ = c.Error(err)
		s.refuse(
			c,
			http.StatusInsufficientStorage,
			message.New("The disk is full: nothing was saved. Make room, and save again"),
		)
	case errors.Is(err, app.ErrUnavailable):
		_ = c.Error(err)
		c.Header("Retry-After", retryAfter)
		s.refuse(c, http.StatusServiceUnavailable, message.New("The database can't be reached; nothing was saved"))
	case errors.Is(err, app.ErrBusy), errors.Is(err, context.DeadlineExceeded):
		_ = c.Error(err)
		c.Header("Retry-After", retryAfter)
		s.refuse(c, http.StatusServiceUnavailable, message.New("It took too long and was stopped; nothing was saved"))
	default:
		_ = c.Error(err)
		s.refuse(c, http.StatusInternalServerError, message.New("Something went wrong here; it is in the server's log"))
	}
}

func (s *server) tooLarge(c *gin.Context, most int64) {
	s.refuse(
		c,
		http.StatusRequestEntityTooLarge,
		message.New("The request is larger than {most} MB", message.Count(int(most>>20))),
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
