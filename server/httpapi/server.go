// Package httpapi is the HTTP face: the API and the built page. Its handlers decode and check a request once, call a
// use case, and encode the answer; no rule of the job lives here.
package httpapi

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"runtime/debug"
	"strings"
	"time"

	"mabbin/app"
	"mabbin/core/message"
	"mabbin/server/devices"
	"mabbin/server/formats"
	"mabbin/server/store"

	"github.com/gin-gonic/gin"
)

// Config is what the server needs.
type Config struct {
	Store  *store.Store
	Clock  app.Clock
	Events *Events         // nil: new ones
	Scales *devices.Scales // nil: new ones
	Log    *slog.Logger
}

// server answers the operations of the API.
type server struct {
	Config
	desk      app.Bench
	watch     app.OvenWatch
	cards     app.Cards
	log       app.Log
	contract  operations
	summaries *summaryCache
	progress  *progress
}

// New is the whole of what is served: health, the API and the page in dist.
func New(cfg Config, dist fs.FS) (*gin.Engine, error) {
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.HandleMethodNotAllowed = true
	r.ContextWithFallback = true // a *gin.Context handed on as a context.Context must end with its request
	if err := r.SetTrustedProxies(nil); err != nil {
		return nil, err
	}
	if cfg.Events == nil {
		cfg.Events = new(Events)
	}
	if cfg.Scales == nil {
		cfg.Scales = new(devices.Scales)
	}
	contract, err := readOperations()
	if err != nil {
		return nil, err
	}
	s := &server{
		Config: cfg, contract: contract, summaries: new(summaryCache), progress: new(progress),
		desk:  app.Bench{Kitchens: cfg.Store},
		watch: OvenWatch(cfg),
		cards: app.Cards{Store: cfg.Store, Kitchens: cfg.Store, Clock: cfg.Clock},
		log:   app.Log{Store: cfg.Store, Watch: cfg.Store, Kitchens: cfg.Store, Clock: cfg.Clock},
	}
	r.Use(s.logged, s.recovered, secure)
	r.GET("/healthz", func(c *gin.Context) { c.JSON(http.StatusOK, gin.H{"status": "alive"}) })
	r.GET("/readyz", s.ready)
	s.routes(r.Group("/api/v1", s.limit, s.parameters))
	r.NoRoute(s.page(dist))
	r.NoMethod(func(c *gin.Context) {
		s.refuse(
			c,
			http.StatusMethodNotAllowed,
			message.New("This address does not take {method}", message.Text(c.Request.Method)),
		)
	})
	return r, nil
}

// OvenWatch is the watch of a server, for whoever reads its probes beside it.
func OvenWatch(cfg Config) app.OvenWatch {
	return app.OvenWatch{
		Store:       cfg.Store,
		Kitchens:    cfg.Store,
		Clock:       cfg.Clock,
		Notify:      cfg.Events.Changed,
		Thermometer: devices.ReadSimulated,
	}
}

// recovered answers for a handler that panicked, and notes why. An answer that was broken off on purpose is broken off.
func (s *server) recovered(c *gin.Context) {
	defer func() {
		what := recover()
		if what == nil {
			return
		}
		if err, ok := what.(error); ok && errors.Is(err, http.ErrAbortHandler) {
			panic(what) // net/http closes the connection
		}
		s.Log.Error("panic", "what", fmt.Sprint(what), "path", c.Request.URL.Path, "stack", string(debug.Stack()))
		s.refuse(c, http.StatusInternalServerError, message.New("Something went wrong here; it is in the server's log"))
	}()
	c.Next()
}

// logged writes one line for each request into the server's log: no query, for it may hold what somebody looks for.
func (s *server) logged(c *gin.Context) {
	began := time.Now()
	defer func() { s.logRequest(c, time.Since(began)) }() // also of one that was broken off
	c.Next()
}

func (s *server) logRequest(c *gin.Context, took time.Duration) {
	level := slog.LevelInfo
	if c.Writer.Status() >= http.StatusInternalServerError {
		level = slog.LevelError
	}
	line := []any{
		"method",
		c.Request.Method,
		"path",
		c.Request.URL.Path,
		"status",
		c.Writer.Status(),
		"ms",
		took.Milliseconds(),
		"bytes",
		c.Writer.Size(),
	}
	if len(c.Errors) > 0 {
		line = append(line, "error", c.Errors.String())
	}
	s.Log.Log(c.Request.Context(), level, "request", line...)
}

func (s *server) ready(c *gin.Context) {
	ctx, cancel := context.WithTimeout(c, 2*time.Second)
	defer cancel()
	if err := s.Store.Ping(ctx); err != nil {
		s.refuse(c, http.StatusServiceUnavailable, message.New("The database can't be reached"))
		return
	}
	c.JSON(http.StatusOK, gin.H{"status": "ready"})
}

// secure sets the headers that keep the page to itself. Element Plus sets inline styles on its elements, so styles
// may be inline; scripts never.
func secure(c *gin.Context) {
	h := c.Writer.Header()
	h.Set(
		"Content-Security-Policy",
		"default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self'; "+
			"connect-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
	)
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("X-Frame-Options", "DENY")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Cross-Origin-Resource-Policy", "same-origin")
	h.Set("Permissions-Policy", "camera=(), microphone=(), geolocation=(), screen-wake-lock=(self)")
}

// The largest requests: a card is some 2 kB. A file to be imported may have 2 MB, and more while it is a string of
// JSON.
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
	return path == restorePath || strings.HasSuffix(path, "/backup.zip") || strings.HasSuffix(path, "/bakes.csv") ||
		strings.HasSuffix(path, "/bakes.json")
}

// limit refuses large requests, and those that another site's page sent.
func (s *server) limit(c *gin.Context) {
	most := bodyLimit(c.Request.URL.Path)
	if c.Request.ContentLength > most {
		s.tooLarge(c, most)
		return
	}
	if !loopback(c.Request.Host) {
		s.refuse(c, http.StatusMisdirectedRequest, message.New("Mabbin answers this machine only, as 127.0.0.1 or localhost"))
		return
	}
	if site := c.GetHeader("Sec-Fetch-Site"); site == "cross-site" || site == "same-site" {
		s.refuse(c, http.StatusForbidden, message.New("Requests from other sites are not answered"))
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
