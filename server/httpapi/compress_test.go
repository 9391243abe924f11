package httpapi

import (
	"compress/gzip"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/andybalholm/brotli"
)

// asking is an answer to somebody who accepts compressions.
func asking(h http.Handler, path, accepts string) *httptest.ResponseRecorder {
	r := httptest.NewRequest(http.MethodGet, "http://127.0.0.1"+path, nil)
	r.Header.Set("Accept-Encoding", accepts)
	w := httptest.NewRecorder()
	h.ServeHTTP(w, r)
	return w
}

// A file of the page comes as the build has compressed it, in the way that is accepted, and as it is where none is.
func TestThePageComesCompressed(t *testing.T) {
	plain := strings.Repeat("let a = 1\n", 500)
	h, err := New(Config{Store: away(t), Log: slog.New(slog.DiscardHandler), Clock: time.Now}, fstest.MapFS{
		"index.html": {Data: []byte("the page")}, "assets/a.js": {Data: []byte(plain)},
		"assets/a.js.br": {Data: []byte("as brotli")}, "assets/a.js.gz": {Data: []byte("as gzip")},
		"assets/b.js": {Data: []byte("small")},
	})
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct{ path, accepts, encoding, body string }{
		{"/assets/a.js", "gzip, deflate, br, zstd", "br", "as brotli"},
		{"/assets/a.js", "gzip, deflate", "gzip", "as gzip"},
		{"/assets/a.js", "gzip, br;q=0", "gzip", "as gzip"},
		{"/assets/a.js", "", "", plain},
		{"/assets/b.js", "gzip, br", "", "small"},
	} {
		w := asking(h, c.path, c.accepts)
		if w.Code != 200 || w.Header().Get("Content-Encoding") != c.encoding || w.Body.String() != c.body ||
			!strings.HasPrefix(w.Header().Get("Content-Type"), "text/javascript") ||
			!strings.Contains(w.Header().Get("Cache-Control"), "immutable") {
			t.Errorf("%s for %q: %d %v %.40q", c.path, c.accepts, w.Code, w.Header(), w.Body)
		}
	}
}

// A long answer is compressed, and is what it is without; a short one is not worth it.
func TestLongAnswersComeCompressed(t *testing.T) {
	h := newServer(t, away(t))
	plain := asking(h, "/api/v1/larder", "").Body.String()
	for encoding, open := range map[string]func(io.Reader) (io.Reader, error){
		"br":   func(r io.Reader) (io.Reader, error) { return brotli.NewReader(r), nil },
		"gzip": func(r io.Reader) (io.Reader, error) { return gzip.NewReader(r) },
	} {
		for range 2 { // a writer is used again
			w := asking(h, "/api/v1/larder", encoding)
			if w.Header().Get("Content-Encoding") != encoding || w.Body.Len() > len(plain)/3 || w.Header().Get("Vary") == "" {
				t.Errorf("%s: %d of %d bytes, %v", encoding, w.Body.Len(), len(plain), w.Header())
			}
			r, err := open(w.Body)
			if err != nil {
				t.Fatal(err)
			}
			if got, err := io.ReadAll(r); err != nil || string(got) != plain {
				t.Errorf("%s: another answer, %v", encoding, err)
			}
		}
	}
	if w := asking(h, "/healthz", "br"); w.Header().Get("Content-Encoding") != "" {
		t.Errorf("a short one: %v", w.Header())
	}
}
