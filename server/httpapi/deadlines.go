package httpapi

import (
	"cmp"
	"context"
	"errors"
	"io"
	"net/http"
	"strings"
	"sync"
	"time"

	"github.com/gin-gonic/gin"
)

// Deadlines bound how long a request may take. The zero value of each is the usual one.
type Deadlines struct {
	// Stalled is how long a caller may send nothing of a body, or take nothing of an answer.
	Stalled time.Duration
	// Quick is how long an answer may be worked on, counted from the end of the request's body.
	Quick time.Duration
	// Long is Quick for what is known to take its time: whole kitchens, whole logs, the search for what went wrong.
	Long time.Duration
}

func (d Deadlines) orUsual() Deadlines {
	return Deadlines{
		Stalled: cmp.Or(d.Stalled, 30*time.Second), Quick: cmp.Or(d.Quick, 30*time.Second), Long: cmp.Or(d.Long, time.Hour),
	}
}

// takesTime says of a path that its request or its answer may be long under way.
func takesTime(path string) bool {
	for _, ending := range []string{"/restore", "/backup.zip", "/bakes.csv", "/bakes.json", "/causes", "/day/plan"} {
		if strings.HasSuffix(path, ending) {
			return true
		}
	}
	return false
}

// streams says of a path that it is a stream: it lasts as long as somebody listens.
func streams(path string) bool { return strings.HasSuffix(path, "/live") }

// paced keeps a request alive as long as bytes move. The deadlines of the connection are set again with every read of
// the body and every write of the answer: large or slow transfers get through, and a stalled caller is disconnected.
// The time for the answer begins once the body has arrived.
func (s *server) paced(c *gin.Context) {
	conn := http.NewResponseController(c.Writer) // a recorder in a test has no deadlines, and needs none
	c.Writer = &pacedWriter{ResponseWriter: c.Writer, conn: conn, stalled: s.Deadlines.Stalled}
	arrived := func() {}
	if path := c.Request.URL.Path; !streams(path) {
		most := s.Deadlines.Quick
		if takesTime(path) {
			most = s.Deadlines.Long
		}
		ctx, cancel := context.WithCancelCause(c.Request.Context())
		defer cancel(context.Canceled)
		c.Request = c.Request.WithContext(answerContext{ctx})
		arrived = sync.OnceFunc(func() {
			timer := time.AfterFunc(most, func() { cancel(context.DeadlineExceeded) })
			context.AfterFunc(ctx, func() { timer.Stop() })
		})
	}
	if c.Request.Body != nil && c.Request.Body != http.NoBody {
		b := &pacedBody{ReadCloser: c.Request.Body, conn: conn, stalled: s.Deadlines.Stalled, arrived: arrived}
		b.moves()
		c.Request.Body = b
	} else {
		_ = conn.SetReadDeadline(time.Time{}) // while it is worked on nothing is expected
		arrived()
	}
	if c.Request.Method == http.MethodGet ||
		c.Request.Method == http.MethodDelete { // whatever body they bring is not read
		arrived()
	}
	c.Next()
}

// answerContext is the context of a request whose time for the answer is counted from the end of its body. Its error is
// context.DeadlineExceeded where that time is over.
type answerContext struct{ context.Context }

// Err returns nil while there is time, and why there is none after that.
func (a answerContext) Err() error {
	err := a.Context.Err()
	if err != nil && errors.Is(context.Cause(a.Context), context.DeadlineExceeded) {
		return context.DeadlineExceeded
	}
	return err
}

// pacedBody gives each read of a body its own time, and reports the end of it.
type pacedBody struct {
	io.ReadCloser
	conn    *http.ResponseController
	stalled time.Duration
	arrived func()
}

func (b *pacedBody) moves() { _ = b.conn.SetReadDeadline(time.Now().Add(b.stalled)) }

func (b *pacedBody) Read(p []byte) (int, error) {
	b.moves()
	n, err := b.ReadCloser.Read(p)
	if err != nil {
		if errors.Is(err, io.EOF) {
			_ = b.conn.SetReadDeadline(time.Time{}) // as above
		}
		b.arrived()
	}
	return n, err
}

// pacedWriter gives each write of an answer its own time.
type pacedWriter struct {
	gin.ResponseWriter
	conn    *http.ResponseController
	stalled time.Duration
}

// Unwrap leads to the connection.
func (w *pacedWriter) Unwrap() http.ResponseWriter { return w.ResponseWriter }

func (w *pacedWriter) moves() { _ = w.conn.SetWriteDeadline(time.Now().Add(w.stalled)) }

func (w *pacedWriter) Write(p []byte) (int, error) {
	w.moves()
	return w.ResponseWriter.Write(p)
}

func (w *pacedWriter) WriteString(p string) (int, error) {
	w.moves()
	return w.ResponseWriter.WriteString(p)
}

// Flush sends what was written.
func (w *pacedWriter) Flush() {
	w.moves()
	w.ResponseWriter.Flush()
}

// WriteHeaderNow sends the head of an answer.
func (w *pacedWriter) WriteHeaderNow() {
	w.moves()
	w.ResponseWriter.WriteHeaderNow()
}
