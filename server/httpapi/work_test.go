package httpapi

import (
	"context"
	"errors"
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"

	"mabbin/api"
)

func TestHowFarAPieceOfWorkIs(t *testing.T) {
	id := uuid.New()
	w := new(works)
	s := Server{works: w}
	far := func() api.Work {
		a, err := s.HowFar(t.Context(), api.HowFarRequestObject{Work: id})
		if err != nil {
			t.Fatal(err)
		}
		return api.Work(a.(api.HowFar200JSONResponse))
	}
	ctx, leave := context.WithCancel(t.Context())
	tick, over := w.begin(ctx, &id)
	if err := tick(3, 28); err != nil || far() != (api.Work{Done: 3, Of: 28}) {
		t.Errorf("%+v, %v", far(), err)
	}
	leave()
	if err := tick(4, 28); !errors.Is(err, context.Canceled) {
		t.Errorf("nobody waits for it, and it goes on: %v", err)
	}
	over()
	if far() != (api.Work{}) {
		t.Errorf("it is over, and still there: %+v", far())
	}
	if tick, over := w.begin(t.Context(), nil); tick(1, 2) != nil || len(w.all) != 0 {
		t.Error("work without an id is noted")
	} else {
		over()
	}
}

// Who asks for a bake's why with an id can ask by it how far it is; nothing of it stays.
func TestWorkOverHTTP(t *testing.T) {
	h, base := theYard(t)
	id := uuid.NewString()
	bakes := get[struct{ Bakes []struct{ ID string } }](t, call(h, "GET", base+"/bakes", ""), 200)
	r := httptest.NewRequest(http.MethodGet, "http://127.0.0.1"+base+"/bakes/"+bakes.Bakes[0].ID+"/why", http.NoBody)
	r.Header.Set("X-Work", id)
	w := httptest.NewRecorder()
	h.ServeHTTP(w, r)
	if w.Code != 200 {
		t.Fatalf("%d %s", w.Code, w.Body)
	}
	if far := get[api.Work](t, call(h, "GET", "/api/v1/work/"+id, ""), 200); far != (api.Work{}) {
		t.Errorf("%+v", far)
	}
	if w := call(h, "GET", "/api/v1/work/mine", ""); w.Code != 400 || !strings.Contains(w.Body.String(), "work") {
		t.Errorf("%d %s", w.Code, w.Body)
	}
}

// full is an answer that nobody reads any more.
type full struct{ http.ResponseWriter }

func (full) Write([]byte) (int, error) { return 0, io.ErrClosedPipe }

// Who stops reading a download stops the writing of it: nothing is left that waits for a reader.
func TestADownloadThatIsLeftEnds(t *testing.T) {
	for name, answer := range map[string]func(io.ReadCloser, http.ResponseWriter) error{
		"backup.zip": func(r io.ReadCloser, w http.ResponseWriter) error {
			return api.BackUp200ApplicationzipResponse{Body: r}.VisitBackUpResponse(w)
		},
		"bakes.csv": func(r io.ReadCloser, w http.ResponseWriter) error {
			return api.ExportLog200TextcsvResponse{Body: r}.VisitExportLogResponse(w)
		},
		"bakes.json": func(r io.ReadCloser, w http.ResponseWriter) error {
			return wholeLog{r}.VisitExportLogWholeResponse(w)
		},
	} {
		ended := make(chan struct{}, 1)
		body := piped(func(to io.Writer) error {
			for {
				if _, err := to.Write(make([]byte, 1<<16)); err != nil {
					ended <- struct{}{}
					return err
				}
			}
		})
		if err := answer(body, full{httptest.NewRecorder()}); err == nil {
			t.Errorf("%s: nobody read it, and that is no error", name)
		}
		select {
		case <-ended:
		case <-time.After(20 * time.Second):
			t.Errorf("%s is still written", name)
		}
	}
}
