package httpapi

import (
	"context"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"testing"
	"testing/iotest"
	"time"

	"mabbin/server/store"
	"mabbin/server/store/storetest"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// yardWithin is the demo kitchen with limits of its own on what the database is asked, and a second line to the same
// database.
func yardWithin(t *testing.T, l store.Limits) (http.Handler, string, *pgx.Conn) {
	t.Helper()
	dsn := storetest.DSN(t)
	s := yardStore(t, dsn, l)
	other, err := pgx.Connect(t.Context(), dsn)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = other.Close(context.Background()) })
	return newServer(t, s), theYards, other
}

// later is whether an answer says that it is to be asked for again later.
func later(w *httptest.ResponseRecorder) bool {
	return w.Code == http.StatusServiceUnavailable && w.Header().Get("Retry-After") != ""
}

// A change that another holds up is given up after its time, and says so; what reads goes on meanwhile.
func TestAHeldRowIsGivenUp(t *testing.T) {
	h, base, other := yardWithin(t, store.Limits{Lock: 50 * time.Millisecond})
	held, err := other.Begin(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	if _, err := held.Exec(t.Context(), `update card set name = name`); err != nil {
		t.Fatal(err)
	}
	body := `{"id":"` + uuid.NewString() + `","setting":{},"request":` + crumble + `}`
	card := firstCard(t, h, base)
	if w := call(
		h,
		"POST",
		base+"/cards/"+card+"/versions",
		body,
	); !later(w) ||
		!strings.Contains(w.Body.String(), "too long") {
		t.Errorf("held up: %d %v %s", w.Code, w.Header(), w.Body)
	}
	if w := call(h, "GET", base+"/cards", ""); w.Code != 200 {
		t.Errorf("reading: %d", w.Code)
	}
	if err := held.Rollback(t.Context()); err != nil {
		t.Fatal(err)
	}
	if w := call(h, "POST", base+"/cards/"+card+"/versions", body); w.Code != 201 {
		t.Errorf("after it: %d %s", w.Code, w.Body)
	}
}

func firstCard(t *testing.T, h http.Handler, base string) string {
	t.Helper()
	body := call(h, "GET", base+"/cards", "").Body.String()
	_, rest, ok := strings.Cut(body, `"id":"`)
	if !ok {
		t.Fatal(body)
	}
	return rest[:36]
}

// stalls takes the first bytes of an answer, and then no more until it is let go.
type stalls struct {
	*httptest.ResponseRecorder
	began, letGo chan struct{}
	once         sync.Once
}

func (s *stalls) Write(p []byte) (int, error) {
	s.once.Do(func() { close(s.began) })
	<-s.letGo
	return 0, iotest.ErrTimeout
}

// However many backups stand still, what is short is answered; one backup too many is reported to come again.
func TestStalledBackupsLeaveRoom(t *testing.T) {
	h, base, _ := yardWithin(t, store.Limits{Short: 2, Long: 2})
	letGo := make(chan struct{})
	var all sync.WaitGroup
	for range 2 {
		w := &stalls{ResponseRecorder: httptest.NewRecorder(), began: make(chan struct{}), letGo: letGo}
		all.Go(func() {
			defer func() { _ = recover() }() // its connection is closed, which a recorder has none of
			h.ServeHTTP(w, httptest.NewRequest(http.MethodGet, "http://127.0.0.1"+base+"/backup.zip", nil))
		})
		<-w.began
	}
	for range 10 {
		if w := call(h, "GET", base+"/dishes", ""); w.Code != 200 {
			t.Errorf("a short one: %d %s", w.Code, w.Body)
		}
	}
	for _, path := range []string{"/backup.zip", "/bakes.csv"} {
		if w := call(h, "GET", base+path, ""); !later(w) || w.Header().Get("Content-Type") != "application/problem+json" {
			t.Errorf("%s, one too many: %d %v", path, w.Code, w.Header())
		}
	}
	close(letGo)
	all.Wait()
	if w := call(h, "GET", base+"/backup.zip", ""); w.Code != 200 || w.Body.Len() == 0 {
		t.Errorf("after them: %d", w.Code)
	}
}

// A database that is shut down under the requests is reported as away, with when to come again; nothing is half done,
// and everything goes on as it is back.
func TestTheDatabaseGoesInTheMidst(t *testing.T) {
	h, base, other := yardWithin(t, store.Limits{})
	stop, stopped := make(chan struct{}), make(chan struct{})
	go func() {
		defer close(stopped)
		for {
			select {
			case <-stop:
				return
			default: // as a shutdown does with every one of them
				_, _ = other.Exec(context.Background(), `select pg_terminate_backend(pid) from pg_stat_activity
					where datname = current_database() and pid <> pg_backend_pid()`)
			}
		}
	}()
	answers := map[int]int{}
	saved := map[string]bool{}
	for i := 0; i < 400 && (answers[503] < 20 || answers[201] < 5); i++ {
		id := uuid.NewString()
		body := `{"id":"` + id + `","version_id":"` + uuid.NewString() + `","name":"Under way","setting":{},"request":` + crumble + `}`
		w := call(h, "POST", base+"/cards", body)
		answers[w.Code]++
		if w.Code == 201 {
			saved[id] = true
		} else if !later(w) {
			t.Errorf("%d %s", w.Code, w.Body)
		}
	}
	close(stop)
	<-stopped
	for id := range saved {
		w := call(h, "GET", base+"/cards/"+id, "")
		for later(w) { // each line that was cut is found to be so once
			w = call(h, "GET", base+"/cards/"+id, "")
		}
		if w.Code != 200 || !strings.Contains(w.Body.String(), `"number":1`) {
			t.Errorf("a card that was saved is not there: %d %s", w.Code, w.Body)
		}
	}
	if answers[503] == 0 {
		t.Errorf("it was never away: %v", answers)
	}
	var half int
	err := other.QueryRow(t.Context(), `select count(*) from card where not exists
		(select from card_version where card_id = card.id)`).Scan(&half)
	if err != nil || half != 0 {
		t.Errorf("%d cards are without a version, %v", half, err)
	}
}

// A disk without room is reported as one, and nothing is kept.
func TestAFullDiskSaysSo(t *testing.T) {
	h, base, other := yardWithin(t, store.Limits{})
	if _, err := other.Exec(t.Context(), `create function no_room() returns trigger language plpgsql as
		$$ begin raise exception 'could not extend file: No space left on device' using errcode = 'disk_full'; end $$;
		create trigger no_room before insert on dish for each row execute function no_room()`); err != nil {
		t.Fatal(err)
	}
	w := call(h, "POST", base+"/dishes", `{"id":"`+uuid.NewString()+`",`+oneDish[1:])
	if w.Code != http.StatusInsufficientStorage || !strings.Contains(w.Body.String(), "disk is full") {
		t.Errorf("%d %s", w.Code, w.Body)
	}
	if body := call(h, "GET", base+"/dishes", "").Body.String(); strings.Contains(body, `"Tin"`) {
		t.Error("it is kept all the same")
	}
}
