package httpapi

import (
	"encoding/json"
	"flag"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"mabbin/api"
	"mabbin/attack/hostile"
	"mabbin/server/wire"
)

var (
	hostileRequests = flag.Int("hostile", 1000, "how many requests the hostile caller sends")
	hostileSeed     = flag.Uint64("hostile-seed", 1, "from where it draws them")
)

// mostHostile is how many are sent where time is short.
const mostHostile = 300

// No request that somebody makes up is answered as a fault of the server, whatever is wrong with it.
func TestNoRequestIsAFaultOfTheServer(t *testing.T) {
	n := *hostileRequests
	if testing.Short() {
		n = min(n, mostHostile)
	}
	h, to := newHostile(t, *hostileSeed)
	answers := map[int]int{}
	for i := range n {
		r := h.Request()
		w := httptest.NewRecorder()
		to.ServeHTTP(w, asReceived(t, r))
		answers[w.Code]++
		switch {
		case w.Code >= http.StatusInternalServerError:
			t.Errorf("request %d: %s\n%d %.600s", i, r, w.Code, w.Body)
		case w.Code >= http.StatusBadRequest:
			var p api.Problem
			if err := json.Unmarshal(w.Body.Bytes(), &p); err != nil || p.Title == "" || p.Status != w.Code ||
				w.Header().Get("Content-Type") != "application/problem+json" {
				t.Errorf("request %d: %s\n%d is no problem: %.600s", i, r, w.Code, w.Body)
			}
		}
		if t.Failed() && i > 50 {
			break
		}
	}
	for status, least := range map[int]int{http.StatusOK: n / 20, http.StatusBadRequest: n / 5} {
		if answers[status] < least {
			t.Errorf("only %d of %d were answered by %d: %v", answers[status], n, status, answers)
		}
	}
	t.Logf("%d requests: %v", n, answers)
}

// BenchmarkHostile prints the longest that any of the hostile requests took.
func BenchmarkHostile(b *testing.B) {
	h, to := newHostile(b, *hostileSeed)
	var longest time.Duration
	var which hostile.Request
	for b.Loop() {
		for range *hostileRequests {
			r := h.Request()
			q := asReceived(b, r)
			began := time.Now()
			to.ServeHTTP(httptest.NewRecorder(), q)
			if actual := time.Since(began); actual > longest {
				longest, which = actual, r
			}
		}
	}
	b.ReportMetric(float64(longest.Milliseconds()), "longest-ms")
	b.Logf("the longest was %.300s", which)
}

// newHostile is a hostile caller of the demo kitchen, and the server that is called.
func newHostile(t testing.TB, seed uint64) (*hostile.Caller, http.Handler) {
	t.Helper()
	h, mine := theYard(t)
	doc, err := wire.Contract()
	if err != nil {
		t.Fatal(err)
	}
	if w := call(h, "POST", mine+"/watch", hostile.Start); w.Code != 201 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	get := func(path string) string { return call(h, "GET", path, "").Body.String() }
	return hostile.New(seed, doc, mine[strings.LastIndex(mine, "/")+1:], get), h
}

// asReceived is a request as a server receives it.
func asReceived(t testing.TB, r hostile.Request) *http.Request {
	t.Helper()
	out, err := r.HTTP(t.Context(), "http://127.0.0.1/")
	if err != nil {
		t.Fatal(err)
	}
	if out.Body == nil {
		out.Body = http.NoBody
	}
	return out
}
