package httpapi

import (
	"bufio"
	"context"
	"encoding/json"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync/atomic"
	"testing"
	"testing/fstest"
	"time"

	"mabbin/api"
	"mabbin/core/watch"
	"mabbin/server/demo"
	"mabbin/server/store/storetest"
)

// clock is a time that a test sets.
type clock struct{ at atomic.Int64 }

func (c *clock) now() time.Time { return time.Unix(c.at.Load(), 0).UTC() }

// pass lets minutes pass.
func (c *clock) pass(minutes float64) { c.at.Add(int64(minutes * 60)) }

const wentIn = "00000000-0000-4000-8000-0000000000aa"

// A bake of fifty minutes from oven to table, by a clock of its own: called, rescued, taken out, cooled.
func TestABakeIsWatched(t *testing.T) {
	s := storetest.Open(t)
	var now clock
	now.at.Store(time.Date(2026, 10, 1, 12, 0, 0, 0, time.UTC).Unix())
	if _, err := demo.Load(t.Context(), s, now.now()); err != nil {
		t.Fatal(err)
	}
	live := new(Events)
	h, err := New(
		Config{Store: s, Log: slog.New(slog.DiscardHandler), Clock: now.now, Events: live},
		fstest.MapFS{"index.html": {}},
	)
	if err != nil {
		t.Fatal(err)
	}
	base := "/api/v1/kitchens/" + demo.Kitchen.ID.String() + "/watch"
	srv := httptest.NewServer(h)
	defer srv.Close()
	defer live.Close()
	reported := listen(t, srv.URL+base+"/live")
	<-reported // as it connects

	start := `{"id":"` + wentIn + `","title":"Gooseberry crumble","setting":{"stages":[{"minutes":50,"oven_c":190}]},"request":` + crumble + `}`
	for range 2 {
		if w := call(h, "POST", base, start); w.Code != 201 {
			t.Fatalf("%d %s", w.Code, w.Body)
		}
	}
	<-reported
	find := func(kind watch.Kind) api.WatchCall {
		t.Helper()
		var all api.Watch
		if w := call(
			h,
			"GET",
			base,
			"",
		); json.Unmarshal(w.Body.Bytes(), &all) != nil || len(all.Desserts) != 1 ||
			!all.Now.Equal(now.now()) {
			t.Fatalf("%d %s", w.Code, w.Body)
		}
		for _, c := range all.Desserts[0].Calls {
			if c.Kind == string(kind) {
				return c
			}
		}
		t.Fatalf("no call %s", kind)
		return api.WatchCall{}
	}
	answer := func(c api.WatchCall, body string) {
		t.Helper()
		if w := call(h, "POST", base+"/"+wentIn+"/calls/"+c.Id.String(), body); w.Code != 200 {
			t.Errorf("%d %s", w.Code, w.Body)
		}
	}
	now.pass(26)
	turn := find(watch.Turn)
	if turn.DueAt.After(now.now()) {
		t.Errorf("the turn is due at %v, it is %v", turn.DueAt, now.now())
	}
	answer(turn, `{"answer":"snooze","minutes":2}`)
	if again := find(watch.Turn); !again.DueAt.Equal(now.now().Add(2*time.Minute)) || again.Snoozes != 1 {
		t.Errorf("%+v", again)
	}
	answer(turn, `{"answer":"done"}`)

	// The server is killed and comes back: the watch is as it was, to the last call.
	before := call(h, "GET", base, "").Body.String()
	back, err := New(Config{Store: s, Log: slog.New(slog.DiscardHandler), Clock: now.now}, fstest.MapFS{"index.html": {}})
	if err != nil {
		t.Fatal(err)
	}
	if after := call(back, "GET", base, "").Body.String(); after != before || !strings.Contains(after, `"state":"done"`) {
		t.Errorf("before %s\nand after %s", before, after)
	}

	// The clock is put back an hour, and forward again: nothing is lost, and nothing is done twice.
	now.pass(-60)
	if w := call(h, "GET", base, ""); w.Code != 200 || strings.Count(w.Body.String(), `"state":"done"`) != 1 {
		t.Errorf("an hour earlier: %d %s", w.Code, w.Body)
	}
	if w := call(h, "POST", base+"/"+wentIn+"/rescue", `{"trouble":"dark_raw"}`); w.Code != 400 {
		t.Errorf("a rescue before it went in: %d %s", w.Code, w.Body)
	}
	now.pass(60)
	if after := call(h, "GET", base, "").Body.String(); after != before {
		t.Errorf("the clock went back and forth\nbefore %s\nand after %s", before, after)
	}

	// The top is dark and the middle still: what helps is tried from where it stands, and the calls follow it.
	now.pass(12)
	w := call(h, "POST", base+"/"+wentIn+"/rescue", `{"trouble":"dark_raw"}`)
	var ways []api.Rescue
	if err := json.Unmarshal(
		w.Body.Bytes(),
		&ways,
	); err != nil || len(ways) < 3 || !ways[0].Works ||
		len(ways[0].Stages) < 2 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	stages, _ := json.Marshal(map[string]any{"stages": ways[0].Stages})
	if w := call(
		h,
		"PUT",
		base+"/"+wentIn+"/stages",
		string(stages),
	); w.Code != 200 ||
		!strings.Contains(w.Body.String(), `"kind":"cover"`) {
		t.Errorf("%d %s", w.Code, w.Body)
	}
	out := find(watch.TakeOut)
	if left := out.DueAt.Sub(now.now()).Minutes(); left < ways[0].Minutes-0.1 || left > ways[0].Minutes+0.1 {
		t.Errorf("out in %g min, proposed were %g", left, ways[0].Minutes)
	}
	if w := call(
		h,
		"POST",
		base+"/"+wentIn+"/rescue",
		`{"trouble":"oven_off","off_min":200}`,
	); w.Code != 400 ||
		!strings.Contains(w.Body.String(), "#/off_min") {
		t.Errorf("off for longer than it was in: %d %s", w.Code, w.Body)
	}
	now.pass(ways[0].Minutes)
	answer(out, `{"answer":"done"}`)
	if ready := find(watch.Ready); !ready.DueAt.After(now.now()) {
		t.Errorf("ready at %v", ready.DueAt)
	}
	if w := call(h, "DELETE", base+"/"+wentIn, ""); w.Code != 204 {
		t.Errorf("%d %s", w.Code, w.Body)
	}
	if w := call(h, "GET", base, ""); !strings.Contains(w.Body.String(), `"desserts":[]`) {
		t.Error(w.Body)
	}
	if w := call(
		h,
		"POST",
		base+"/"+wentIn,
		"",
	); w.Code != 200 ||
		!strings.Contains(call(h, "GET", base, "").Body.String(), wentIn) {
		t.Errorf("taken back: %d %s", w.Code, w.Body)
	}
	for path, code := range map[string]int{base + "/00000000-0000-4000-8000-0000000000ff": 404} {
		if w := call(h, "DELETE", path, ""); w.Code != code {
			t.Errorf("%s: %d %s", path, w.Code, w.Body)
		}
	}
}

// listen opens a stream of events and counts them.
func listen(t *testing.T, url string) chan struct{} {
	t.Helper()
	ctx, cancel := context.WithTimeout(t.Context(), 30*time.Second)
	t.Cleanup(cancel)
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, url, nil)
	if err != nil {
		t.Fatal(err)
	}
	res, err := http.DefaultClient.Do(req)
	if err != nil {
		t.Fatal(err)
	}
	if kind := res.Header.Get(
		"Content-Type",
	); res.StatusCode != http.StatusOK ||
		!strings.HasPrefix(kind, "text/event-stream") {
		t.Fatalf("%d %s", res.StatusCode, kind)
	}
	reported := make(chan struct{}, 100)
	go func() {
		defer func() { _ = res.Body.Close() }()
		for lines := bufio.NewScanner(res.Body); lines.Scan(); {
			if lines.Text() == "event:changed" {
				reported <- struct{}{}
			}
		}
		close(reported)
	}()
	return reported
}

func TestAStreamEndsWithTheServer(t *testing.T) {
	var l Events
	ear, leave := l.listen(demo.Kitchen.ID)
	l.Changed(demo.Kitchen.ID)
	l.Changed(demo.Kitchen.ID)
	if _, open := <-ear; !open || len(ear) != 0 {
		t.Error("two changes before a look are told twice")
	}
	l.Close()
	if _, open := <-ear; open {
		t.Error("it goes on")
	}
	leave()
	if late, _ := l.listen(demo.Kitchen.ID); late != nil {
		t.Error("somebody is let in who would wait forever")
	}
}
