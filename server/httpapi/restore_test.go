package httpapi

import (
	"bytes"
	"context"
	"io"
	"net/http"
	"net/http/httptest"
	"os"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"mabbin/api"
	"mabbin/server/store"

	"github.com/google/uuid"
)

const workID = "00000000-0000-4000-8000-00000000b001"

// bringIn sends an archive under the id of a piece of work.
func bringIn(h http.Handler, id string, body io.Reader) *httptest.ResponseRecorder {
	r := httptest.NewRequest(http.MethodPost, "http://127.0.0.1"+restorePath, body)
	r.Header.Set("Content-Type", "application/zip")
	r.Header.Set("X-Work", id)
	w := httptest.NewRecorder()
	h.ServeHTTP(w, r)
	return w
}

func kitchensOf(t *testing.T, h http.Handler) int {
	t.Helper()
	return len(get[[]api.Kitchen](t, call(h, "GET", "/api/v1/kitchens", ""), 200))
}

// ended waits until a piece of work is no longer under way.
func ended(t *testing.T, h http.Handler, id string) api.Work {
	t.Helper()
	for {
		reported := get[api.Work](t, call(h, "GET", "/api/v1/work/"+id, ""), 200)
		if reported.State != api.WorkStateRunning {
			return reported
		}
		time.Sleep(10 * time.Millisecond)
	}
}

// whenAllIsRead runs what is given once the last byte of a body has been taken.
type whenAllIsRead struct {
	io.Reader
	once sync.Once
	then func()
}

func (w *whenAllIsRead) Read(p []byte) (int, error) {
	n, err := w.Reader.Read(p)
	if err != nil {
		w.once.Do(w.then)
	}
	return n, err
}

// A restore whose caller is cut off goes on, can be asked for, and sent again it makes no second kitchen.
func TestARestoreSurvivesItsCaller(t *testing.T) {
	s := openYard(t, yardCopy(t), store.Limits{})
	h, base := newServer(t, s), theYards
	zip := call(h, "GET", base+"/backup.zip", "").Body.Bytes()

	ctx, leave := context.WithCancel(t.Context())
	body := &whenAllIsRead{Reader: bytes.NewReader(zip), then: leave}
	r := httptest.NewRequest(http.MethodPost, "http://127.0.0.1"+restorePath, body).WithContext(ctx)
	r.Header.Set("Content-Type", "application/zip")
	r.Header.Set("X-Work", workID)
	h.ServeHTTP(httptest.NewRecorder(), r)

	reported := ended(t, h, workID)
	if reported.State != api.WorkStateDone || reported.Kitchen == nil {
		t.Fatalf("%+v", reported)
	}
	if again := get[api.Kitchen](t, bringIn(h, workID, bytes.NewReader(zip)), 201); again.Id != reported.Kitchen.Id {
		t.Errorf("sent again it is %v, and was %v", again.Id, reported.Kitchen.Id)
	}
	if n := kitchensOf(t, h); n != 2 {
		t.Errorf("%d kitchens", n)
	}
	// asked of a server that has begun since
	fresh := newServer(t, s)
	if reported := ended(t, fresh, workID); reported.State != api.WorkStateDone || reported.Kitchen == nil {
		t.Errorf("after a restart: %+v", reported)
	}
}

// What fails, breaks off or is stopped says so, keeps nothing, and leaves no file behind.
func TestARestoreThatFailsLeavesNothing(t *testing.T) {
	h, base := theYard(t)
	zip := call(h, "GET", base+"/backup.zip", "").Body.Bytes()
	t.Setenv("TMPDIR", t.TempDir())
	broken := io.MultiReader(bytes.NewReader(zip[:len(zip)/2]), failing{})
	if w := bringIn(h, workID, broken); w.Code != http.StatusBadRequest {
		t.Errorf("broken off on its way: %d %s", w.Code, w.Body)
	}
	if reported := ended(t, h, workID); reported.State != api.WorkStateFailed || reported.Problem == nil {
		t.Errorf("%+v", reported)
	}
	half := uuid.NewString()
	if w := bringIn(h, half, bytes.NewReader(zip[:len(zip)/2])); w.Code != http.StatusBadRequest {
		t.Errorf("half of it: %d %s", w.Code, w.Body)
	}
	stopped := uuid.NewString()
	body := &whenAllIsRead{Reader: bytes.NewReader(zip), then: func() {
		if w := call(h, "DELETE", "/api/v1/work/"+stopped, ""); w.Code != http.StatusNoContent {
			t.Errorf("%d %s", w.Code, w.Body)
		}
	}}
	if w := bringIn(h, stopped, body); w.Code != http.StatusConflict {
		t.Errorf("stopped: %d %s", w.Code, w.Body)
	}
	if n := kitchensOf(t, h); n != 1 {
		t.Errorf("%d kitchens", n)
	}
	if left, _ := filepath.Glob(filepath.Join(os.TempDir(), "*")); len(left) > 0 {
		t.Errorf("files are left: %v", left)
	}
}

type failing struct{}

func (failing) Read([]byte) (int, error) { return 0, io.ErrUnexpectedEOF }

// Of two who bring the same kitchen in at once one does, and the other is reported.
func TestOneRestoreOfAKitchenAtATime(t *testing.T) {
	h, base := theYard(t)
	zip := call(h, "GET", base+"/backup.zip", "").Body.Bytes()
	answers := make([]int, 4)
	var all sync.WaitGroup
	for i := range answers {
		all.Go(func() { answers[i] = bringIn(h, uuid.NewString(), bytes.NewReader(zip)).Code })
	}
	all.Wait()
	made := 0
	for _, code := range answers {
		switch code {
		case http.StatusCreated:
			made++
		case http.StatusConflict, http.StatusServiceUnavailable: // under way; no connection was free for too long
		default:
			t.Errorf("answered %d", code)
		}
	}
	if n := kitchensOf(t, h); made == 0 || n != 1+made {
		t.Errorf("%d were made, and %d kitchens are there", made, n)
	}
}
