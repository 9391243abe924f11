package httpapi

import (
	"net/http"
	"sync"
	"time"

	"mabbin/core/message"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
)

// Events tells the open pages of a kitchen that its watch has changed. What changed they ask for: nothing is lost
// with a connection, for whoever comes back looks at everything again. The zero value is ready.
type Events struct {
	mu      sync.Mutex
	ears    map[uuid.UUID]map[chan struct{}]bool
	streams int
	closed  bool
}

// mostStreams is how many pages are reported at once: each holds a connection.
const mostStreams = 400

// listen is a channel that is filled whenever something changes, and how to leave; nil after Close.
func (l *Events) listen(kitchen uuid.UUID) (ear chan struct{}, leave func()) {
	l.mu.Lock()
	defer l.mu.Unlock()
	if l.closed || l.streams >= mostStreams {
		return nil, nil
	}
	l.streams++
	ear = make(chan struct{}, 1)
	if l.ears == nil {
		l.ears = map[uuid.UUID]map[chan struct{}]bool{}
	}
	if l.ears[kitchen] == nil {
		l.ears[kitchen] = map[chan struct{}]bool{}
	}
	l.ears[kitchen][ear] = true
	return ear, func() {
		l.mu.Lock()
		defer l.mu.Unlock()
		delete(l.ears[kitchen], ear)
		l.streams--
		if len(l.ears[kitchen]) == 0 {
			delete(l.ears, kitchen)
		}
	}
}

// Changed calls everybody who listens to a kitchen. Who has not looked since the last call is called once.
func (l *Events) Changed(kitchen uuid.UUID) {
	l.mu.Lock()
	defer l.mu.Unlock()
	for ear := range l.ears[kitchen] {
		select {
		case ear <- struct{}{}:
		default:
		}
	}
}

// Close ends every stream, so that the server can stop.
func (l *Events) Close() {
	l.mu.Lock()
	defer l.mu.Unlock()
	l.closed = true
	for _, ears := range l.ears {
		for ear := range ears {
			close(ear)
		}
	}
	l.ears = nil
}

// stillHere is how often a stream says that it lives, so that a page notices when it does not.
const stillHere = 15 * time.Second

// watchEvents is the server-sent events of a kitchen's watch.
func (s *server) watchEvents(c *gin.Context) {
	ear, leave := s.tune(c)
	if ear == nil {
		return
	}
	defer leave()
	beat := time.NewTicker(stillHere)
	defer beat.Stop()
	c.SSEvent("changed", "")
	c.Writer.Flush()
	for {
		select {
		case <-c.Request.Context().Done():
			return
		case _, open := <-ear:
			if !open {
				return
			}
			c.SSEvent("changed", "")
		case <-beat.C:
			c.SSEvent("beat", "")
		}
		c.Writer.Flush()
	}
}

// tune begins a stream of a kitchen's; ear is closed as the server stops, and nil where there is nothing to hear.
func (s *server) tune(c *gin.Context) (ear chan struct{}, leave func()) {
	kitchen, err := uuid.Parse(c.Param("kitchen")) // streams are not in the contract
	if err != nil {
		s.refuse(c, http.StatusBadRequest, message.New("The kitchen is not a UUID"))
		return nil, nil
	}
	ear, leave = s.Events.listen(kitchen)
	if ear == nil {
		s.refuse(
			c,
			http.StatusServiceUnavailable,
			message.New("Too many pages are open, or the server is stopping"),
		)
		return nil, nil
	}
	c.Header("Content-Type", "text/event-stream")
	c.Header("Cache-Control", "no-store")
	c.Header("X-Accel-Buffering", "no")
	return ear, leave
}
