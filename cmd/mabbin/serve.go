package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"runtime/debug"
	"syscall"
	"time"

	"mabbin/app"
	"mabbin/server/demo"
	"mabbin/server/devices"
	"mabbin/server/httpapi"
	"mabbin/server/store"
	"mabbin/web"

	"gopkg.in/natefinch/lumberjack.v2"
)

// withStore opens the database that MABBIN_DB names, brings it up to date and hands it to do.
func withStore(ctx context.Context, do func(*store.Store) error) error {
	dsn := os.Getenv("MABBIN_DB")
	if dsn == "" {
		return errors.New("MABBIN_DB is not set: set it to a PostgreSQL connection string, or use make demo")
	}
	s, err := store.Open(ctx, dsn)
	if err != nil {
		return errors.New("MABBIN_DB is not a PostgreSQL connection string") // the driver's words would show the password
	}
	defer s.Close()
	if err := s.Migrate(ctx); err != nil {
		return err
	}
	return do(s)
}

func loadDemo(ctx context.Context, reset bool, out io.Writer) error {
	return withStore(ctx, func(s *store.Store) error {
		if reset {
			if err := demo.Reset(ctx, s, time.Now()); err != nil {
				return err
			}
			fmt.Fprintf(out, "The demo kitchen %s was loaded again.\n", demo.Kitchen.Name)
			return nil
		}
		added, err := demo.Load(ctx, s, time.Now())
		if added {
			fmt.Fprintf(out, "The demo kitchen %s is loaded.\n", demo.Kitchen.Name)
		}
		return err
	})
}

// How large the request log grows, and how many old ones are kept.
const (
	logMegabytes = 10
	logFiles     = 5
)

// softMemory is from where on the garbage is collected more often, in bytes: a large picture or archive then costs time
// rather than memory. GOMEMLIMIT sets another.
const softMemory = 200 << 20

// serve answers until ctx ends, then lets requests under way finish.
func serve(ctx context.Context, addr, logFile string, out io.Writer) error {
	l, err := listen(ctx, addr)
	if err != nil {
		return err
	}
	if os.Getenv("GOMEMLIMIT") == "" {
		debug.SetMemoryLimit(softMemory)
	}
	return withStore(ctx, func(s *store.Store) error {
		logTo := io.WriteCloser(os.Stderr)
		if logFile != "" { // a full one is put aside, and the oldest of them goes
			logTo = &lumberjack.Logger{Filename: logFile, MaxSize: logMegabytes, MaxBackups: logFiles}
			defer func() { _ = logTo.Close() }()
		}
		log := slog.New(slog.NewJSONHandler(logTo, nil))
		cfg := httpapi.Config{
			Store: s, Clock: time.Now, Events: new(httpapi.Events), Log: log, LearnAtStart: true,
			Surfaces: app.NewSurfaces(),
		}
		h, err := httpapi.New(cfg, web.Dist())
		if err != nil {
			return err
		}
		srv := &http.Server{
			Handler: h, ReadHeaderTimeout: 5 * time.Second, ReadTimeout: 15 * time.Second, WriteTimeout: 30 * time.Second,
			IdleTimeout: 2 * time.Minute, MaxHeaderBytes: 1 << 16,
		}
		srv.RegisterOnShutdown(cfg.Events.Close)
		go devices.Poller{Watch: httpapi.OvenWatch(cfg), Log: log, Clock: time.Now}.Run(ctx)
		stopped := make(chan error, 1)
		go func() {
			<-ctx.Done()
			patience, cancel := context.WithTimeout(context.Background(), 10*time.Second)
			defer cancel()
			stopped <- srv.Shutdown(patience)
		}()
		fmt.Fprintf(out, "Mabbin is at http://%s - Ctrl-C stops it.\n", l.Addr())
		if err := srv.Serve(l); !errors.Is(err, http.ErrServerClosed) {
			return err
		}
		return <-stopped
	})
}

// listen takes a loopback address: nobody outside this machine is meant to reach a kitchen without a password.
func listen(ctx context.Context, addr string) (net.Listener, error) {
	host, port, err := net.SplitHostPort(addr)
	if err != nil {
		return nil, fmt.Errorf("-addr %q is not an address: use the form 127.0.0.1:8080", addr)
	}
	if ip := net.ParseIP(host); host != "localhost" && (ip == nil || !ip.IsLoopback()) {
		return nil, fmt.Errorf("-addr %q is not on loopback: Mabbin serves this machine only, use 127.0.0.1:%s", addr, port)
	}
	l, err := new(net.ListenConfig).Listen(ctx, "tcp", addr)
	if errors.Is(err, syscall.EADDRINUSE) {
		return nil, fmt.Errorf(
			"port %s is in use by another program: stop that program, or choose another port with MABBIN_PORT=8081 make demo",
			port,
		)
	}
	return l, err
}
