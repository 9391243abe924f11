package httpapi

import (
	"context"
	"errors"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"mabbin/api"
	"mabbin/app"
	"mabbin/server/demo"
	"mabbin/server/store/storetest"

	"github.com/gin-gonic/gin"
	"github.com/google/uuid"
)

func TestHowFarAPieceOfWorkIs(t *testing.T) {
	id, now := uuid.New(), time.Date(2026, 10, 1, 0, 0, 0, 0, time.UTC)
	w := new(work)
	if far, known := w.look(id); known || far.State != api.WorkStateUnknown {
		t.Errorf("before it is begun it is %+v", far)
	}
	ctx, p, err := w.begin(t.Context(), id, now)
	if err != nil {
		t.Fatal(err)
	}
	if err := w.tick(ctx, p, 3, 28); err != nil {
		t.Error(err)
	}
	if far, _ := w.look(id); far.State != api.WorkStateRunning || far.Done != 3 || far.Of != 28 {
		t.Errorf("%+v", far)
	}
	if _, _, err := w.begin(t.Context(), id, now); !errors.Is(err, app.ErrRunning) {
		t.Errorf("begun twice: %v", err)
	}
	p.stop()
	if err := w.tick(ctx, p, 4, 28); !errors.Is(err, context.Canceled) {
		t.Errorf("it is stopped, and goes on: %v", err)
	}
	w.end(p, now, func(reported *api.Work) { reported.State = api.WorkStateFailed })
	if far, _ := w.look(id); far.State != api.WorkStateFailed {
		t.Errorf("it is over: %+v", far)
	}
	if _, _, err := w.begin(t.Context(), uuid.New(), now.Add(2*workKept)); err != nil {
		t.Error(err)
	}
	if _, known := w.look(id); known {
		t.Error("what is over is kept for ever")
	}
}

// Who asks for a bake's why with an id can ask by it how far it is; nothing of it stays.
func TestWorkOverHTTP(t *testing.T) {
	h, base := theYard(t)
	id := uuid.NewString()
	bakes := get[struct{ Bakes []struct{ ID string } }](t, call(h, "GET", base+"/bakes", ""), 200)
	r := httptest.NewRequest(http.MethodGet, "http://127.0.0.1"+base+"/bakes/"+bakes.Bakes[0].ID+"/causes", http.NoBody)
	r.Header.Set("X-Work", id)
	w := httptest.NewRecorder()
	h.ServeHTTP(w, r)
	if w.Code != 200 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	if far := get[api.Work](t, call(h, "GET", "/api/v1/work/"+id, ""), 200); far.State != api.WorkStateDone {
		t.Errorf("%+v", far)
	}
	if w := call(h, "GET", "/api/v1/work/mine", ""); w.Code != 400 || !strings.Contains(w.Body.String(), "work") {
		t.Errorf("%d %s", w.Code, w.Body)
	}
}

// A download that fails in its midst is a failed download: its connection is closed before its end.
func TestADownloadThatFailsIsNeverWhole(t *testing.T) {
	s := storetest.Open(t)
	if _, err := demo.Load(t.Context(), s, time.Date(2026, 10, 1, 0, 0, 0, 0, time.UTC)); err != nil {
		t.Fatal(err)
	}
	h := newServer(t, s).(*gin.Engine)
	h.GET("/api/v1/kitchens/:kitchen/broken", func(c *gin.Context) {
		failing := &server{Config: Config{Store: s, Log: slog.New(slog.DiscardHandler)}}
		failing.download(c, "text/plain", func(to io.Writer) error {
			_, err := to.Write(make([]byte, 1<<16))
			return errors.Join(err, errors.New("the database went away"))
		})
	})
	srv := httptest.NewServer(h)
	defer srv.Close()
	res, err := http.Get(srv.URL + "/api/v1/kitchens/" + demo.Kitchen.ID.String() + "/broken")
	if err != nil {
		t.Fatal(err)
	}
	defer func() { _ = res.Body.Close() }()
	if raw, err := io.ReadAll(res.Body); err == nil {
		t.Errorf("%d bytes came, as if they were all", len(raw))
	}
}
