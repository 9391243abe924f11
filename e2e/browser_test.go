// Package e2e drives the real page in a real browser, against a real server and database.
package e2e

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log"
	"log/slog"
	"net"
	"net/http/httptest"
	neturl "net/url"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"mabbin/server/demo"
	"mabbin/server/devices"
	"mabbin/server/httpapi"
	"mabbin/server/store"
	"mabbin/server/store/storetest"
	"mabbin/web"

	"github.com/chromedp/cdproto/emulation"
	cdplog "github.com/chromedp/cdproto/log"
	"github.com/chromedp/cdproto/runtime"
	. "github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

type step = Action[Void]

var browser context.Context // one Chromium for the package, a tab per test

func TestMain(m *testing.M) { os.Exit(run(m)) } // os.Exit skips defers, so they are in run

func run(m *testing.M) int {
	profile, err := os.MkdirTemp("", "mabbin-browser")
	if err != nil {
		log.Print(err)
		return 1
	}
	defer func() { _ = os.RemoveAll(profile) }()
	ctx, stop, err := chromium(profile)
	if err != nil {
		log.Print(err)
		return 1
	}
	defer stop()
	browser = ctx
	return m.Run()
}

// chromium starts a browser with a profile's folder. Never give it a timeout: that would end it.
func chromium(profile string, more ...ExecAllocatorOption) (ctx context.Context, stop func(), err error) {
	actx, end := NewExecAllocator(
		context.Background(),
		slices.Concat(DefaultExecAllocatorOptions[:], []ExecAllocatorOption{
			ExecPath("/usr/bin/chromium"),
			NoSandbox, // needed as root
			DisableGPU,
			WindowSize(1280, 800),
			UserDataDir(profile),
			Flag("disable-quic", true),
			Flag("disable-component-update", true),
			Flag("lang", "en-GB"),
		}, more)...)
	ctx, cancel := NewContext(actx)
	return ctx, func() { cancel(); end() }, Do(ctx)
}

// kitchen serves the page with the demo kitchen in a database of its own.
func kitchen(t testing.TB) (url string, s *store.Store) {
	t.Helper()
	s = loaded(t)
	return serveStore(t, s, time.Now), s
}

// loaded is a store of the test's own with the demo kitchen.
func loaded(t testing.TB) *store.Store {
	t.Helper()
	s, err := store.Open(t.Context(), storetest.Copy(t, "demo", func(ctx context.Context, s *store.Store) error {
		_, err := demo.Load(ctx, s, demoMonday)
		return err
	}))
	must(t, err)
	t.Cleanup(s.Close)
	return s
}

// demoMonday is when the demo kitchen was set up.
var demoMonday = time.Date(2026, 10, 12, 9, 0, 0, 0, time.UTC)

// kitchenWithSwitch is a kitchen whose database can be taken away: the server reaches it through a relay.
func kitchenWithSwitch(t testing.TB) (url string, s *store.Store, away *atomic.Bool) {
	t.Helper()
	dsn := storetest.DSN(t)
	relayed, away := relay(t, dsn)
	s = storeAt(t, relayed)
	return serve(t, s), s, away
}

// storeAt opens the store of a connection string, up to date.
func storeAt(t testing.TB, dsn string) *store.Store {
	t.Helper()
	s, err := store.Open(t.Context(), dsn)
	must(t, err)
	t.Cleanup(s.Close)
	must(t, s.Migrate(t.Context()))
	return s
}

// relay passes connections on to the server of a connection string; while away it ends them all.
func relay(t testing.TB, dsn string) (relayed string, away *atomic.Bool) {
	t.Helper()
	u, err := neturl.Parse(dsn)
	must(t, err)
	to := u.Host
	l, err := net.Listen("tcp", "127.0.0.1:0")
	must(t, err)
	t.Cleanup(func() { _ = l.Close() })
	away = new(atomic.Bool)
	pass := func(dst, src net.Conn) {
		defer func() { _, _ = dst.Close(), src.Close() }()
		buf := make([]byte, 32<<10)
		for !away.Load() {
			_ = src.SetReadDeadline(time.Now().Add(50 * time.Millisecond))
			n, err := src.Read(buf)
			if n > 0 {
				if _, err := dst.Write(buf[:n]); err != nil {
					return
				}
			}
			if err != nil && !errors.Is(err, os.ErrDeadlineExceeded) {
				return
			}
		}
	}
	go func() {
		for {
			c, err := l.Accept()
			if err != nil {
				return
			}
			d, err := net.Dial("tcp", to)
			if err != nil || away.Load() {
				_ = c.Close()
				continue
			}
			go pass(d, c)
			go pass(c, d)
		}
	}()
	u.Host = l.Addr().String()
	return u.String(), away
}

// kitchenWithClock is a kitchen whose time goes as it does, and is put forward by what is added, in nanoseconds.
func kitchenWithClock(t testing.TB) (url string, s *store.Store, ahead *atomic.Int64) {
	t.Helper()
	ahead = new(atomic.Int64)
	s = loaded(t)
	return serveStore(t, s, func() time.Time { return time.Now().Add(time.Duration(ahead.Load())) }), s, ahead
}

// pollerOf reads the server's probes by that clock, when a test wants it.
func pollerOf(s *store.Store, ahead *atomic.Int64) devices.Poller {
	return devices.Poller{Watch: httpapi.OvenWatch(httpapi.Config{
		Store: s, Clock: func() time.Time { return time.Now().Add(time.Duration(ahead.Load())) }, Events: new(httpapi.Events),
	})}
}

// serve serves the page with the demo kitchen put into a store.
func serve(t testing.TB, s *store.Store) string {
	t.Helper()
	_, err := demo.Load(t.Context(), s, demoMonday)
	must(t, err)
	return serveStore(t, s, time.Now)
}

// serveBare serves the page with nothing in its database.
func serveBare(t testing.TB) string {
	t.Helper()
	return serveStore(t, storetest.Open(t), time.Now)
}

func serveStore(t testing.TB, s *store.Store, now func() time.Time) string {
	t.Helper()
	events := new(httpapi.Events)
	h, err := httpapi.New(
		httpapi.Config{Store: s, Clock: now, Events: events, Log: slog.New(slog.DiscardHandler)},
		web.Dist(),
	)
	must(t, err)
	srv := httptest.NewServer(h)
	t.Cleanup(srv.Close)
	t.Cleanup(events.Close) // first: a stream is not over before it is reported
	servers.Store(srv.URL, srv)
	return srv.URL
}

// servers are those that run, by their addresses.
var servers sync.Map

// cutOff breaks every line to a server, in the midst of whatever goes over it.
func cutOff(url string) {
	if srv, ok := servers.Load(url); ok {
		srv.(*httptest.Server).CloseClientConnections()
	}
}

// tab opens a tab with storage of its own and fails the test on whatever the page complains about.
func tab(t testing.TB, width, height int64) context.Context {
	t.Helper()
	return tabOf(t, browser, width, height)
}

func tabOf(t testing.TB, browser context.Context, width, height int64) context.Context {
	t.Helper()
	ctx, cancel := NewContext(browser, WithNewBrowserContext())
	t.Cleanup(cancel)
	must(t, Listen(ctx, func(ev any) {
		switch e := ev.(type) {
		case *cdplog.EventEntryAdded: // what the page's Content-Security-Policy has refused
			if e.Entry.Source == cdplog.EntrySourceSecurity && e.Entry.Level == cdplog.EntryLevelError {
				t.Errorf("page: %s", e.Entry.Text)
			}
		case *runtime.EventExceptionThrown:
			t.Errorf("page: %s %v", e.ExceptionDetails.Text, e.ExceptionDetails.Exception)
		case *runtime.EventConsoleAPICalled:
			if e.Type == runtime.ConsoleAPICalledTypeError || e.Type == runtime.ConsoleAPICalledTypeWarning {
				for _, a := range e.Args {
					t.Errorf("console.%s: %s%s", e.Type, a.Value, a.Description)
				}
			}
		}
	}))
	_, err := Call(ctx, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{
		Features: []*emulation.MediaFeature{{Name: "prefers-reduced-motion", Value: "reduce"}},
	})
	must(t, err)
	_, err = Call(ctx, emulation.SetFocusEmulationEnabled, emulation.SetFocusEmulationEnabledParams{Enabled: true})
	must(t, err) // focus events also when another tab is in front
	must(t, Do(ctx, EmulateViewport(width, height)))
	ctx, cancel = context.WithTimeout(ctx, 180*time.Second)
	t.Cleanup(cancel)
	return ctx
}

func must(t testing.TB, err error) {
	t.Helper()
	if err != nil {
		t.Fatal(err)
	}
}

func do(t testing.TB, ctx context.Context, s ...step) {
	t.Helper()
	if err := Do(ctx, s...); err != nil {
		shot(t, ctx, filepath.Join(os.TempDir(), "mabbin-failed-"+strings.ReplaceAll(t.Name(), "/", "-")+".png"))
		t.Fatal(err)
	}
}

// text is what a user reads in an element.
func text(t testing.TB, ctx context.Context, sel CSS) string {
	t.Helper()
	v, err := Run(
		ctx,
		Evaluate[string](fmt.Sprintf(`(document.querySelector(%q)?.innerText ?? '').replace(/\s+/g, ' ').trim()`, sel)),
	)
	must(t, err)
	return v
}

// reads waits until an element's text has each of the words in it.
func reads(t testing.TB, ctx context.Context, sel CSS, words ...string) {
	t.Helper()
	for _, w := range words {
		want, _ := json.Marshal(w)
		wait := Poll[Void](
			fmt.Sprintf(`(document.querySelector(%q)?.innerText ?? '').replace(/\s+/g, ' ').includes(%s)`, sel, want),
			WithPollingTimeout(30*time.Second),
		)
		if err := Do(ctx, wait); err != nil {
			shot(t, ctx, filepath.Join(os.TempDir(), "mabbin-failed-"+strings.ReplaceAll(t.Name(), "/", "-")+".png"))
			t.Fatalf("%s reads %q, want %q in it (%v)", sel, text(t, ctx, sel), w, err)
		}
	}
}

// changes waits until an element's text is another one than it was.
func changes(t testing.TB, ctx context.Context, sel CSS, was string) {
	t.Helper()
	wait := Poll[Void](
		fmt.Sprintf(`(document.querySelector(%q)?.innerText ?? '').replace(/\s+/g, ' ').trim() !== %q`, sel, was),
		WithPollingTimeout(30*time.Second),
	)
	if err := Do(ctx, wait); err != nil {
		t.Errorf("%s still reads %q", sel, was)
	}
}

// id is the selector of a data-testid; rest goes on from there.
func id(testid string, rest ...string) CSS {
	return CSS(`[data-testid="` + testid + `"]` + strings.Join(rest, ""))
}

// idle: mounted, fonts loaded, the last touch dealt with, no request under way, page updated.
func idle() step { return WaitReady(CSS("html[data-idle]")) }

// goTo goes from one view to another as a link of the page does: it is not loaded anew.
func goTo(path string) step {
	return Evaluate[Void](fmt.Sprintf(
		`history.pushState(null, '', %q); dispatchEvent(new PopStateEvent('popstate', { state: null })); undefined`, path))
}

// click waits until an element stands still, then clicks it.
func click(sel CSS) step { return Steps(WaitVisible(sel), still(sel), Click(sel), idle()) }

// act does what the Bench offers: what is next stands there, the rest is behind More.
func act(testid string) step {
	return Steps(
		WaitVisible(id("more")),
		Evaluate[Void](
			`document.querySelector('[data-testid="`+testid+`"]') || document.querySelector('[data-testid="more"]').click()`,
		),
		click(id(testid)),
	)
}

// openCard opens a card from the list of cards on the Bench.
func openCard(url, name string) step {
	return Steps(Navigate(url+"/cards"), click(id("card-"+name, " .open")))
}

// fill replaces an input's text and leaves it.
func fill(sel CSS, s string) step {
	return Steps(
		WaitVisible(sel),
		Focus(sel),
		Evaluate[Void](fmt.Sprintf(`document.querySelector(%q).select()`, sel)),
		KeyEvent(s+kb.Tab),
		idle(),
	)
}

// still waits until an element's box is the same in two looks running, so that a click lands on it.
func still(sel CSS) step {
	return Poll[Void](fmt.Sprintf(`(() => { const e = document.querySelector(%q); if (!e) return false
		e.scrollIntoView({ block: 'nearest' })
		const b = JSON.stringify(e.getBoundingClientRect()), same = window.__box === b; window.__box = b; return same })()`, sel),
		WithPollingInterval(30*time.Millisecond))
}

func shot(t testing.TB, ctx context.Context, file string) {
	t.Helper()
	c, cancel := context.WithTimeout(context.WithoutCancel(ctx), 30*time.Second)
	defer cancel()
	png, err := Run(c, CaptureScreenshot())
	if err == nil {
		err = os.WriteFile(file, png, 0o600)
	}
	if err != nil {
		t.Logf("no screenshot: %v", err)
	}
}

// storing puts something into the page's storage.
func storing(key, value string) step {
	return Steps(Evaluate[Void](fmt.Sprintf("localStorage.setItem(%q, %q)", key, value)))
}
