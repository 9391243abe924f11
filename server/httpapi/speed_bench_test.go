package httpapi

import (
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"slices"
	"strings"
	"sync"
	"testing"
	"testing/fstest"
	"time"

	"mabbin/server/store"
)

// BenchmarkRequests holds a balance in addition to a bare answer of the same server, over loopback. They take turns,
// and the middle of the turns is reported: what else the machine does falls on both.
func BenchmarkRequests(b *testing.B) {
	s, err := store.Open(b.Context(), "postgres://nobody@127.0.0.1:1/none?sslmode=disable")
	if err != nil {
		b.Fatal(err)
	}
	defer s.Close()
	h, err := New(Config{Store: s, Log: slog.New(slog.DiscardHandler), Clock: time.Now}, fstest.MapFS{"index.html": {}})
	if err != nil {
		b.Fatal(err)
	}
	srv := httptest.NewServer(h)
	defer srv.Close()
	client := &http.Client{Transport: &http.Transport{MaxIdleConnsPerHost: 64}}
	ask := func(method, path, body string) {
		r, err := http.NewRequestWithContext(b.Context(), method, srv.URL+path, strings.NewReader(body))
		if err != nil {
			b.Error(err)
			return
		}
		r.Header.Set("Content-Type", "application/json")
		res, err := client.Do(r)
		if err != nil {
			b.Error(err)
			return
		}
		_, _ = io.Copy(io.Discard, res.Body)
		_ = res.Body.Close()
	}
	// turn is how many answers a second eight callers get.
	turn := func(method, path, body string) float64 {
		const callers, each = 8, 100
		from := time.Now()
		var calls sync.WaitGroup
		for range callers {
			calls.Go(func() {
				for range each {
					ask(method, path, body)
				}
			})
		}
		calls.Wait()
		return callers * each / time.Since(from).Seconds()
	}
	bare := func() float64 { return turn(http.MethodGet, "/healthz", "") }
	for name, body := range map[string]string{
		"balance": crumble, "refused": strings.Replace(crumble, "gooseberry", "moss", 1),
	} {
		b.Run(name, func(b *testing.B) {
			var rates, shares []float64
			for b.Loop() {
				beside := bare()
				rates = append(rates, turn(http.MethodPost, "/api/v1/balance", body))
				shares = append(shares, rates[len(rates)-1]/beside)
			}
			slices.Sort(rates)
			slices.Sort(shares)
			b.ReportMetric(rates[len(rates)/2], "req/s")
			b.ReportMetric(shares[len(shares)/2], "of-bare")
		})
	}
}
