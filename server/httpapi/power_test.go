package httpapi

import (
	"fmt"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"mabbin/server/demo"
	"mabbin/server/store"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// cluster is a database server of a test's own, that can be paused and killed.
type cluster struct {
	t   *testing.T
	dir string
	dsn string
}

func ownCluster(t *testing.T) *cluster {
	t.Helper()
	dir, err := os.MkdirTemp("/var/tmp", "mabbin-cluster") // the database's user must get in
	if err != nil {
		t.Fatal(err)
	}
	c := &cluster{t: t, dir: dir}
	t.Cleanup(func() {
		c.signal(syscall.SIGCONT)
		_, _ = c.script("pg-stop.sh").Output()
		_ = os.RemoveAll(dir)
	})
	if err := os.Chmod(dir, 0o755); err != nil { //nolint:gosec // as above
		t.Fatal(err)
	}
	c.start()
	return c
}

func (c *cluster) script(name string) *exec.Cmd {
	_, here, _, _ := runtime.Caller(0)
	cmd := exec.Command(filepath.Join(filepath.Dir(here), "../../scripts", name))
	cmd.Env = append(os.Environ(), "MABBIN_PGDIR="+filepath.Join(c.dir, "pg"))
	return cmd
}

// start starts it, at the port that it had.
func (c *cluster) start() {
	c.t.Helper()
	cmd := c.script("pg-start.sh")
	if c.dsn != "" {
		_, rest, _ := strings.Cut(c.dsn, "127.0.0.1:")
		port, _, _ := strings.Cut(rest, "/")
		cmd.Env = append(cmd.Env, "MABBIN_PGPORT="+port)
	}
	out, err := cmd.Output()
	if err != nil {
		c.t.Fatalf("no database: %v %s", err, out)
	}
	c.dsn = strings.TrimSpace(string(out))
}

// signal sends a signal to the server and all of its processes.
func (c *cluster) signal(s syscall.Signal) {
	raw, err := os.ReadFile(filepath.Join(c.dir, "pg", "data", "postmaster.pid"))
	if err != nil {
		return // it does not run
	}
	line, _, _ := strings.Cut(string(raw), "\n")
	postmaster, err := strconv.Atoi(line)
	if err != nil {
		c.t.Fatal(err)
	}
	stats, _ := filepath.Glob("/proc/[0-9]*/stat")
	for _, file := range stats {
		raw, err := os.ReadFile(file)
		if err != nil {
			continue // it has ended since
		}
		_, rest, _ := strings.Cut(string(raw), ") ")
		var state string
		var parent int
		if _, err := fmt.Sscan(rest, &state, &parent); err == nil && parent == postmaster {
			pid, _ := strconv.Atoi(filepath.Base(filepath.Dir(file)))
			_ = syscall.Kill(pid, s)
		}
	}
	_ = syscall.Kill(postmaster, s)
}

// A database that stands still is reported as busy, within the time that an answer has, and goes on where it was;
// killed under the writes it comes back with every one that was acknowledged, and none twice.
func TestTheDatabaseStandsStillAndIsKilled(t *testing.T) {
	db := ownCluster(t)
	s := yardStore(t, db.dsn, store.Limits{})
	if who, err := pgx.Connect(t.Context(), db.dsn); err == nil { // the server's own role, on a disk that is checked
		var super, roles, databases bool
		var sums string
		err := who.QueryRow(t.Context(), `select rolsuper, rolcreaterole, rolcreatedb, current_setting('data_checksums')
			from pg_roles where rolname = current_user`).Scan(&super, &roles, &databases, &sums)
		if err != nil || super || roles || databases || sums != "on" {
			t.Errorf("superuser %v, makes roles %v, databases %v, checksums %s, %v", super, roles, databases, sums, err)
		}
		_ = who.Close(t.Context())
	}
	patient := pacedServer(t, s, nil, Deadlines{})
	hasty := pacedServer(t, s, nil, Deadlines{Quick: 200 * time.Millisecond})
	base := theYards
	save := func(h http.Handler, id string) int {
		w := call(h, "POST", base+"/dishes",
			`{"id":"`+id+`",`+strings.Replace(oneDish, "Tin", id, 1)[1:])
		if w.Code != http.StatusCreated && !later(w) {
			t.Errorf("%d %s", w.Code, w.Body)
		}
		return w.Code
	}
	acknowledged := map[string]bool{}
	write := func(n int) {
		for range n {
			if id := uuid.NewString(); save(patient, id) == http.StatusCreated {
				acknowledged[id] = true
			}
		}
	}
	write(20)

	db.signal(syscall.SIGSTOP)
	paused := uuid.NewString()
	if code := save(hasty, paused); code != http.StatusServiceUnavailable {
		t.Errorf("while it stood still: %d", code)
	}
	db.signal(syscall.SIGCONT)
	for save(patient, paused) != http.StatusCreated { // sent again, as the page does
		time.Sleep(50 * time.Millisecond)
	}
	acknowledged[paused] = true

	for range 3 {
		killed := make(chan struct{})
		go func() {
			defer close(killed)
			db.signal(syscall.SIGKILL)
		}()
		write(30)
		<-killed
		db.start()
		write(5)
	}
	if len(acknowledged) < 30 {
		t.Errorf("only %d were acknowledged", len(acknowledged))
	}
	dishes, err := s.Dishes(t.Context(), demo.Kitchen.ID)
	if err != nil {
		t.Fatal(err)
	}
	there := map[string]int{}
	for _, d := range dishes {
		there[d.ID.String()]++
	}
	for id := range acknowledged {
		if there[id] != 1 {
			t.Errorf("a dish that was acknowledged is there %d times", there[id])
		}
	}
	t.Logf("%d were acknowledged", len(acknowledged))
}
