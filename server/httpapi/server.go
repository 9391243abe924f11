// Package httpapi is the HTTP face: the API and the built page. No rule of the job lives here.
package httpapi

import (
	"context"
	"errors"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
	sloggin "github.com/samber/slog-gin"

	"mabbin/api"
	"mabbin/core/say"
	"mabbin/server/devices"
	"mabbin/server/formats"
	"mabbin/server/store"
)

// Server answers the operations of the API.
type Server struct {
	Store  *store.Store
	Now    func() time.Time
	Live   *Live
	Scales *devices.Scales

	briefs *briefs
	works  *works
}

var _ api.StrictServerInterface = Server{}

// New is the whole of what is served: health, the API and the page in dist.
func New(s Server, dist fs.FS, log *slog.Logger) (*gin.Engine, error) {
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.HandleMethodNotAllowed = true
	r.ContextWithFallback = true // a *gin.Context handed on as a context.Context must end with its request
	if err := r.SetTrustedProxies(nil); err != nil {
		return nil, err
	}
	if s.Live == nil {
		s.Live = new(Live)
	}
	if s.Scales == nil {
		s.Scales = new(devices.Scales)
	}
	s.briefs = new(briefs)
	s.works = new(works)
	check, err := validate()
	if err != nil {
		return nil, err
	}
	r.Use(sloggin.NewWithConfig(log, sloggin.Config{DefaultLevel: slog.LevelInfo, ClientErrorLevel: slog.LevelInfo, ServerErrorLevel: slog.LevelError, WithRequestID: true}))
	r.Use(gin.CustomRecoveryWithWriter(nil, func(c *gin.Context, what any) {
		log.Error("panic", "what", what, "path", c.Request.URL.Path)
		refuse(c, http.StatusInternalServerError, "Something went wrong here; it is in the server's log")
	}), secure)

	r.GET("/healthz", func(c *gin.Context) { c.JSON(http.StatusOK, gin.H{"status": "alive"}) })
	r.GET("/readyz", s.ready)
	h := api.NewStrictHandlerWithOptions(s, nil, api.StrictGinServerOptions{
		RequestErrorHandlerFunc:  answerError,
		HandlerErrorFunc:         answerError,
		ResponseErrorHandlerFunc: answerError,
	})
	api.RegisterHandlersWithOptions(r.Group("", limit, check), h, api.GinServerOptions{
		ErrorHandler: func(c *gin.Context, err error, status int) { refuse(c, status, say.Why(err)) },
	})
	r.GET("/api/v1/kitchens/:kitchen/watch/live", limit, s.stream)
	r.GET("/api/v1/kitchens/:kitchen/scale/live", limit, s.scaleStream)
	r.NoRoute(servePage(dist))
	r.NoMethod(func(c *gin.Context) {
		refuse(c, http.StatusMethodNotAllowed, say.F("This address does not take {method}", say.Text(c.Request.Method)))
	})
	return r, nil
}

func (s Server) ready(c *gin.Context) {
	ctx, cancel := context.WithTimeout(c, 2*time.Second)
	defer cancel()
	if err := s.Store.Ping(ctx); err != nil {
		refuse(c, http.StatusServiceUnavailable, "The database can't be reached")
		return
	}
	c.JSON(http.StatusOK, gin.H{"status": "ready"})
}

// secure sets the headers that keep the page to itself. Element Plus sets inline styles on its elements, so styles
// may be inline; scripts never.
func secure(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("Content-Security-Policy", "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self'; "+
		"connect-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("X-Frame-Options", "DENY")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Cross-Origin-Resource-Policy", "same-origin")
	h.Set("Permissions-Policy", "camera=(), microphone=(), geolocation=(), screen-wake-lock=(self)")
}

// The largest requests: a card is some 2 kB. A file to be imported may have 2 MB, and more while it is a string of JSON.
const (
	maxBody   = 1 << 20
	maxImport = 3*formats.MaxBytes + 4096
)

func bodyLimit(path string) int64 {
	switch {
	case path == "/api/v1/import":
		return maxImport
	case path == restorePath:
		return formats.MaxArchive
	case strings.Contains(path, "/pictures/"):
		return formats.MaxPicture + 1
	}
	return maxBody
}

const restorePath = "/api/v1/kitchens/restore"

// takesTime says of a path that its request or its answer may be long under way: whole kitchens, and whole logs.
func takesTime(path string) bool {
	return path == restorePath || strings.HasSuffix(path, "/backup.zip") || strings.HasSuffix(path, "/bakes.csv") || strings.HasSuffix(path, "/bakes.json")
}

// limit refuses large requests, and those that another site's page sent.
func limit(c *gin.Context) {
	most := bodyLimit(c.Request.URL.Path)
	if c.Request.ContentLength > most {
		tooLarge(c, most)
		return
	}
	if !loopback(c.Request.Host) {
		refuse(c, http.StatusMisdirectedRequest, "Mabbin answers this machine only, as 127.0.0.1 or localhost")
		return
	}
	if site := c.GetHeader("Sec-Fetch-Site"); site == "cross-site" || site == "same-site" {
		refuse(c, http.StatusForbidden, "Requests from other sites are not answered")
		return
	}
	if takesTime(c.Request.URL.Path) {
		patient(c)
	}
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, most)
}

// loopback says whether a Host header names this machine: a name that was made to point here does not.
func loopback(hostport string) bool {
	host, _, err := net.SplitHostPort(hostport)
	if err != nil {
		host = hostport
	}
	ip := net.ParseIP(strings.Trim(host, "[]"))
	return host == "localhost" || ip != nil && ip.IsLoopback()
}

// answerError turns what a handler returned into a problem.
func answerError(c *gin.Context, err error) {
	if p, ours := api.ProblemOf(err); ours {
		problem(c, p)
		return
	}
	var over *http.MaxBytesError
	switch {
	case errors.Is(err, context.Canceled) && c.Request.Context().Err() != nil: // nobody waits for it any more
		c.AbortWithStatus(statusLeft)
	case errors.As(err, &over):
		tooLarge(c, over.Limit)
	case errors.Is(err, store.ErrNotFound):
		refuse(c, http.StatusNotFound, "There is no such thing in this kitchen")
	case errors.Is(err, store.ErrTaken):
		refuse(c, http.StatusConflict, "There is already one of that name")
	case errors.Is(err, store.ErrRefused):
		_ = c.Error(err)
		refuse(c, http.StatusConflict, "It points at something that is not in this kitchen")
	case errors.Is(err, store.ErrAway), errors.Is(err, context.DeadlineExceeded):
		_ = c.Error(err)
		refuse(c, http.StatusServiceUnavailable, "The database can't be reached; nothing was saved")
	default:
		_ = c.Error(err)
		refuse(c, http.StatusInternalServerError, "Something went wrong here; it is in the server's log")
	}
}

// statusLeft stands in the server's log for a request whose caller left.
const statusLeft = 499

func tooLarge(c *gin.Context, most int64) {
	refuse(c, http.StatusRequestEntityTooLarge, say.F("The request is larger than {most} MB", say.Count(int(most>>20))))
}

// refuse answers with a problem that is about no single field.
func refuse(c *gin.Context, status int, title say.Line) {
	problem(c, api.Problem{Type: "about:blank", Title: title, Status: status})
}

func problem(c *gin.Context, p api.Problem) {
	c.Header("Content-Type", "application/problem+json")
	c.AbortWithStatusJSON(p.Status, p)
}
