package httpapi

import (
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"mabbin/server/store"
)

// BenchmarkRequests holds a balance beside a bare answer of the same server, over loopback: the promise is half of the
// requests a second.
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
	for _, c := range []struct{ name, method, path, body string }{
		{"bare", http.MethodGet, "/healthz", ""},
		{"balance", http.MethodPost, "/api/v1/balance", crumble},
		{"refused", http.MethodPost, "/api/v1/balance", strings.Replace(crumble, "gooseberry", "moss", 1)},
	} {
		b.Run(c.name, func(b *testing.B) {
			b.ReportAllocs()
			b.SetParallelism(4)
			from := time.Now()
			b.RunParallel(func(p *testing.PB) {
				for p.Next() {
					r, err := http.NewRequestWithContext(b.Context(), c.method, srv.URL+c.path, strings.NewReader(c.body))
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
			})
			b.ReportMetric(float64(b.N)/time.Since(from).Seconds(), "req/s")
		})
	}
}
