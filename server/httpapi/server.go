// Package httpapi is the HTTP face: the API and the built page. Its handlers decode and check a request once, call a
// use case, and encode the answer; no rule of the job lives here.
package httpapi

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net/http"
	"runtime/debug"
	"time"

	"mabbin/app"
	"mabbin/core/learn"
	"mabbin/core/message"
	"mabbin/server/devices"
	"mabbin/server/store"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
)

// Config is what the server needs.
type Config struct {
	Store  *store.Store
	Clock  app.Clock
	Events *Events         // nil: new ones
	Scales *devices.Scales // nil: new ones
	Log    *slog.Logger
	// Surfaces of bakes that are kept; nil: new ones.
	Surfaces learn.Keeper
	// LearnAtStart learns from the log of each kitchen whose log has not been learnt from yet, also when one is restored.
	LearnAtStart bool
	// Deadlines bound how long a request may take; the zero value: the usual ones.
	Deadlines Deadlines
}

// server answers the operations of the API.
type server struct {
	Config
	bench      app.Bench
	watch      app.OvenWatch
	cards      app.Cards
	log        app.Log
	days       app.Days
	countdowns app.Countdowns
	buying     app.Buying
	imports    app.Imports
	kitchens   app.Kitchens
	contract   operations
	readings   map[string][]any // what may be said of how somebody reads
	summaries  *summaryCache
	work       *work
	planning   chan struct{} // has one for each day that is being planned
	learning   *app.Learning
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
	if cfg.Surfaces == nil {
		cfg.Surfaces = app.NewSurfaces()
	}
	cfg.Deadlines = cfg.Deadlines.orUsual()
	contract, readings, err := readContract()
	if err != nil {
		return nil, err
	}
	s := &server{
		Config: cfg, contract: contract, readings: readings, summaries: new(summaryCache), work: new(work),
		planning: make(chan struct{}, plannedAtOnce),
		imports:  app.Imports{Equipment: cfg.Store},
		bench:    app.Bench{Kitchens: cfg.Store, Stock: cfg.Store, Shelf: cfg.Store},
		watch:    OvenWatch(cfg),
		cards:    app.Cards{Store: cfg.Store, Kitchens: cfg.Store, Clock: cfg.Clock},
		kitchens: app.Kitchens{Store: cfg.Store, Notify: func(k uuid.UUID) {
			cfg.Events.Changed(k)
			cfg.Scales.Free(k)
		}},
		days: app.Days{
			Store: cfg.Store, Equipment: cfg.Store, Cards: cfg.Store, Ovens: cfg.Store, Learning: cfg.Store, Clock: cfg.Clock,
			Baked:  app.NewBakedCards(),
			Notify: cfg.Events.Changed,
		},
		countdowns: app.Countdowns{
			Store: cfg.Store, Bench: app.Bench{Kitchens: cfg.Store}, Clock: cfg.Clock, Notify: cfg.Events.Changed,
		},
		log: app.Log{
			Store: cfg.Store, Watch: cfg.Store, Stock: cfg.Store, Kitchens: cfg.Store, Clock: cfg.Clock,
		},
	}
	s.learning = learning(cfg)
	s.learning.StartWork = s.beginLearning
	s.log.Changed = func(k uuid.UUID) { s.learning.Start(k) }
	s.kitchens.Learning = s.learning
	s.buying = app.Buying{
		Store:    cfg.Store,
		Kitchens: cfg.Store,
		Cards:    cfg.Store,
		Days:     s.days,
		Log:      cfg.Store,
		Clock:    cfg.Clock,
		Notify:   cfg.Events.Changed,
	}
	if cfg.LearnAtStart {
		s.learning.AtStart(cfg.Store.Kitchens)
	}
	r.Use(s.logged, s.recovered, secure, s.paced)
	r.GET("/healthz", func(c *gin.Context) { c.JSON(http.StatusOK, gin.H{"status": "alive"}) })
	r.GET("/readyz", s.ready)
	s.routes(r.Group("/api/v1", s.limit, s.parameters))
	r.NoRoute(s.page(dist))
	r.NoMethod(func(c *gin.Context) {
		s.refuse(
			c,
			http.StatusMethodNotAllowed,
			message.New("This address does not allow {method}", message.Text(c.Request.Method)),
		)
	})
	return r, nil
}

// OvenWatch is the watch of a server, for whoever reads its probes in addition to it.
func OvenWatch(cfg Config) app.OvenWatch {
	return app.OvenWatch{
		Store:       cfg.Store,
		Kitchens:    cfg.Store,
		Clock:       cfg.Clock,
		Notify:      cfg.Events.Changed,
		Filter:      learning(cfg).Filter,
		Thermometer: devices.ReadSimulated,
	}
}

func learning(cfg Config) *app.Learning {
	return &app.Learning{
		Store: cfg.Store, Kitchens: cfg.Store, Surfaces: cfg.Surfaces, Clock: cfg.Clock, Notify: cfg.Events.Changed,
		Failed: func(kitchen uuid.UUID, err error) {
			cfg.Log.Error("the findings of a log can't be calculated", "kitchen", kitchen, "error", err)
		},
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
		s.refuse(c, http.StatusInternalServerError, message.New("Something went wrong; details are in the server's log"))
	}()
	c.Next()
}

// logged writes one line for each request into the server's log: no query, for it may hold what somebody looks for.
func (s *server) logged(c *gin.Context) {
	began := time.Now()
	defer func() { s.logRequest(c, time.Since(began)) }() // also of one that was broken off
	c.Next()
}

func (s *server) logRequest(c *gin.Context, actual time.Duration) {
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
		actual.Milliseconds(),
		"bytes",
		c.Writer.Size(),
	}
	if len(c.Errors) > 0 {
		line = append(line, "error", c.Errors.String())
	}
	s.Log.Log(c.Request.Context(), level, "request", line...)
}

func (s *server) ready(c *gin.Context) {
	ctx, cancel := context.WithTimeout(c.Request.Context(), 2*time.Second)
	defer cancel()
	if err := s.Store.Ping(ctx); err != nil {
		s.refuse(c, http.StatusServiceUnavailable, message.New("The database can't be reached"))
		return
	}
	c.JSON(http.StatusOK, gin.H{"status": "ready"})
}
