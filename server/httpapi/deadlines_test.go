package httpapi

import (
	"bufio"
	"bytes"
	"fmt"
	"image"
	"image/jpeg"
	"io"
	"log/slog"
	"net"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"mabbin/core/units"
	"mabbin/server/demo"
	"mabbin/server/store"
	"mabbin/server/store/storetest"

	"github.com/gin-gonic/gin"
)

// short is the time that a connection of these tests has, unless what is served says otherwise.
const short = 150 * time.Millisecond

// served is a handler on a real connection with short deadlines.
func served(t *testing.T, h http.Handler) *httptest.Server {
	t.Helper()
	srv := httptest.NewUnstartedServer(h)
	srv.Config.ReadTimeout, srv.Config.WriteTimeout = short, short
	srv.Start()
	t.Cleanup(srv.Close)
	return srv
}

// pacedServer is a server with deadlines of its own.
func pacedServer(t *testing.T, s *store.Store, events *Events, d Deadlines) *gin.Engine {
	t.Helper()
	h, err := New(Config{
		Store: s, Log: slog.New(slog.DiscardHandler), Clock: time.Now, Events: events, Deadlines: d,
	}, fstest.MapFS{"index.html": {Data: []byte("the page")}})
	if err != nil {
		t.Fatal(err)
	}
	return h
}

func TestAStreamOutlivesEveryDeadline(t *testing.T) {
	events := new(Events)
	srv := served(t, pacedServer(t, away(t), events, Deadlines{Stalled: short, Quick: short, Long: short}))
	r, err := http.Get(srv.URL + "/api/v1/kitchens/" + demo.Kitchen.ID.String() + "/watch/live")
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { events.Close(); _ = r.Body.Close() })
	lines := bufio.NewScanner(r.Body)
	next := func() string {
		for lines.Scan() {
			if what, ok := strings.CutPrefix(lines.Text(), "event:"); ok {
				return what
			}
		}
		t.Fatalf("the stream has ended: %v", lines.Err())
		return ""
	}
	for range 4 {
		if got := next(); got != "changed" {
			t.Fatalf("%q was told", got)
		}
		time.Sleep(2 * short) // longer than every deadline of the connection
		events.Changed(demo.Kitchen.ID)
	}
}

// slowly hands out what it has in a few pieces, each after a while.
type slowly struct {
	raw   []byte
	piece int
}

func (s *slowly) Read(p []byte) (int, error) {
	if len(s.raw) == 0 {
		return 0, io.EOF
	}
	time.Sleep(short / 2)
	n := copy(p, s.raw[:min(len(s.raw), s.piece)])
	s.raw = s.raw[n:]
	return n, nil
}

func TestASlowUploadComesThrough(t *testing.T) {
	s := storetest.Open(t)
	if _, err := s.NewKitchen(t.Context(), demo.Kitchen.ID, "Slow line", units.Metric); err != nil {
		t.Fatal(err)
	}
	const quick, pieces = 20 * short, 44 // half of short apart: longer than an answer may take
	srv := served(t, pacedServer(t, s, nil, Deadlines{Quick: quick}))
	var picture bytes.Buffer
	if err := jpeg.Encode(&picture, image.NewGray(image.Rect(0, 0, 640, 480)), nil); err != nil {
		t.Fatal(err)
	}
	began := time.Now()
	r, err := http.Post(srv.URL+"/api/v1/kitchens/"+demo.Kitchen.ID.String()+
		"/pictures/00000000-0000-4000-8000-00000000d001", "image/jpeg",
		&slowly{picture.Bytes(), picture.Len()/pieces + 1})
	if err != nil {
		t.Fatal(err)
	}
	defer func() { _ = r.Body.Close() }()
	if actual := time.Since(began); r.StatusCode != http.StatusCreated || actual < quick {
		t.Errorf("after %v: %s", actual, r.Status)
	}
}

func TestAnUploadThatStandsStillIsLetGo(t *testing.T) {
	srv := served(t, pacedServer(t, away(t), nil, Deadlines{Stalled: short}))
	conn, err := net.Dial("tcp", srv.Listener.Addr().String())
	if err != nil {
		t.Fatal(err)
	}
	defer func() { _ = conn.Close() }()
	_, _ = fmt.Fprintf(conn, "POST /api/v1/balance HTTP/1.1\r\nHost: %s\r\nContent-Type: application/json\r\n"+
		"Content-Length: 1000\r\n\r\n{\"dish\":", srv.Listener.Addr())
	r, err := http.ReadResponse(bufio.NewReader(conn), nil)
	if err != nil {
		t.Fatal(err)
	}
	defer func() { _ = r.Body.Close() }()
	if r.StatusCode != http.StatusRequestTimeout {
		t.Errorf("it is answered by %s", r.Status)
	}
}

// A body whose pieces are broken is one that broke off, and none of the server's faults.
func TestABrokenBodyIsTheCallersFault(t *testing.T) {
	srv := served(t, pacedServer(t, away(t), nil, Deadlines{}))
	for what, body := range map[string]string{
		"no length of a piece":   "zz\r\n{}\r\n0\r\n\r\n",
		"a piece without an end": "5\r\n{}\r\n0\r\n\r\n",
		"half":                   "40\r\n{\"dish\":",
	} {
		conn, err := net.Dial("tcp", srv.Listener.Addr().String())
		if err != nil {
			t.Fatal(err)
		}
		_, _ = fmt.Fprintf(conn, "POST /api/v1/balance HTTP/1.1\r\nHost: %s\r\nContent-Type: application/json\r\n"+
			"Transfer-Encoding: chunked\r\n\r\n%s", srv.Listener.Addr(), body)
		_ = conn.(*net.TCPConn).CloseWrite()
		r, err := http.ReadResponse(bufio.NewReader(conn), nil)
		if err != nil {
			t.Fatalf("%s: %v", what, err)
		}
		if r.StatusCode != http.StatusBadRequest {
			t.Errorf("%s is answered by %s", what, r.Status)
		}
		_, _ = r.Body.Close(), conn.Close()
	}
}

// longDownload serves many megabytes through the deadlines of a server, and tells how its writing ended.
func longDownload(t *testing.T, stalled time.Duration) (url string, ended chan error) {
	t.Helper()
	ended = make(chan error, 1)
	s := &server{Config: Config{Deadlines: Deadlines{Stalled: stalled}.orUsual()}}
	e := gin.New()
	e.GET("/long", s.paced, func(c *gin.Context) {
		piece := make([]byte, 1<<20)
		for range 64 {
			if _, err := c.Writer.Write(piece); err != nil {
				ended <- err
				return
			}
		}
		ended <- nil
	})
	return served(t, e).URL + "/long", ended
}

func TestASlowDownloadComesThrough(t *testing.T) {
	url, ended := longDownload(t, time.Minute)
	r, err := http.Get(url)
	if err != nil {
		t.Fatal(err)
	}
	defer func() { _ = r.Body.Close() }()
	for range 4 {
		time.Sleep(short)
		if _, err := io.CopyN(io.Discard, r.Body, 8<<20); err != nil {
			t.Fatal(err)
		}
	}
	if n, err := io.Copy(io.Discard, r.Body); err != nil || n != 32<<20 {
		t.Errorf("%d bytes were left, %v", n, err)
	}
	if err := <-ended; err != nil {
		t.Error(err)
	}
}

func TestAReaderThatStandsStillIsLetGo(t *testing.T) {
	url, ended := longDownload(t, short)
	r, err := http.Get(url)
	if err != nil {
		t.Fatal(err)
	}
	defer func() { _ = r.Body.Close() }()
	if err := <-ended; err == nil { // it has read nothing
		t.Error("64 MB went to a reader that takes none")
	}
}

// What takes longer than its time is stopped, and answered as such.
func TestAnAnswerHasItsTime(t *testing.T) {
	h := pacedServer(t, away(t), nil, Deadlines{Quick: time.Nanosecond})
	w := call(h, "POST", "/api/v1/bake/plan", `{"request":`+crumble+`,"setting":{"heating":"fan"}}`)
	if w.Code != http.StatusServiceUnavailable || !strings.Contains(w.Body.String(), "took too long") ||
		w.Header().Get("Retry-After") == "" {
		t.Errorf("%d %v %s", w.Code, w.Header(), w.Body)
	}
}
