package main

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"syscall"
	"time"
)

// machine is the copy that is attacked: a database server and a server of its own, which are killed and started again.
type machine struct {
	root, folder, binary string
	addr, dsn            string

	mu      sync.Mutex
	process *exec.Cmd
	exited  chan struct{} // closed once the process has ended
	peakMB  float64       // of all processes until now

	panics, races atomic.Int64
	log           *os.File
}

// newMachine makes the copy's folder and starts its database. binary is the server that is attacked.
func newMachine(root, binary string) (*machine, error) {
	folder := filepath.Join(root, "var", "attack")
	if err := os.MkdirAll(folder, 0o755); err != nil {
		return nil, err
	}
	log, err := os.Create(filepath.Join(folder, "server.log"))
	if err != nil {
		return nil, err
	}
	port, err := freePort()
	if err != nil {
		return nil, err
	}
	m := &machine{root: root, folder: folder, binary: binary, addr: fmt.Sprintf("127.0.0.1:%d", port), log: log}
	_ = m.script("pg-stop.sh").Run() // of an attack before, that was broken off
	if err := os.RemoveAll(filepath.Join(folder, "pg")); err != nil {
		return nil, err
	}
	if m.dsn, err = m.startDatabase(); err != nil {
		return nil, err
	}
	return m, nil
}

func freePort() (int, error) {
	l, err := new(net.ListenConfig).Listen(context.Background(), "tcp", "127.0.0.1:0")
	if err != nil {
		return 0, err
	}
	defer func() { _ = l.Close() }()
	at, ok := l.Addr().(*net.TCPAddr)
	if !ok {
		return 0, errors.New("no port of TCP")
	}
	return at.Port, nil
}

func (m *machine) script(name string) *exec.Cmd {
	c := exec.CommandContext(context.Background(), filepath.Join(m.root, "scripts", name))
	c.Env = append(os.Environ(), "MABBIN_PGDIR="+filepath.Join(m.folder, "pg"))
	return c
}

// startDatabase starts the copy's own PostgreSQL, also after it was killed, and returns its connection string.
func (m *machine) startDatabase() (string, error) {
	out, err := m.script("pg-start.sh").Output()
	if err != nil {
		return "", fmt.Errorf("the database does not start: %w", err)
	}
	return strings.TrimSpace(string(out)), nil
}

// killDatabase kills the copy's PostgreSQL, and every process of it.
func (m *machine) killDatabase() error {
	raw, err := os.ReadFile(filepath.Join(m.folder, "pg", "data", "postmaster.pid"))
	if err != nil {
		return err
	}
	line, _, _ := strings.Cut(string(raw), "\n")
	pid, err := strconv.Atoi(strings.TrimSpace(line))
	if err != nil {
		return err
	}
	return syscall.Kill(pid, syscall.SIGKILL)
}

// demo loads the demo kitchen.
func (m *machine) demo() error {
	c := exec.CommandContext(context.Background(), m.binary, "demo")
	c.Env = append(os.Environ(), "MABBIN_DB="+m.dsn)
	out, err := c.CombinedOutput()
	if err != nil {
		return fmt.Errorf("the demo kitchen is not loaded: %w: %s", err, out)
	}
	return nil
}

// start starts the server and waits until it is ready.
func (m *machine) start() error {
	c := exec.CommandContext(context.Background(), m.binary, "serve", "-addr", m.addr)
	c.Env = append(os.Environ(), "MABBIN_DB="+m.dsn, "GORACE=halt_on_error=0")
	errs, err := c.StderrPipe()
	if err != nil {
		return err
	}
	if err := c.Start(); err != nil {
		return err
	}
	exited := make(chan struct{})
	go func() {
		m.read(errs)
		_ = c.Wait()
		close(exited)
	}()
	m.mu.Lock()
	m.process, m.exited = c, exited
	m.mu.Unlock()
	for began := time.Now(); time.Since(began) < time.Minute; time.Sleep(50 * time.Millisecond) {
		select {
		case <-exited:
			return errors.New("the server has ended: see " + m.log.Name())
		default:
		}
		r, err := http.Get("http://" + m.addr + "/readyz") //nolint:noctx // it is asked again
		if err != nil {
			continue
		}
		_ = r.Body.Close()
		if r.StatusCode == http.StatusOK {
			return nil
		}
	}
	return errors.New("the server is not ready: see " + m.log.Name())
}

// read keeps what the server writes, and counts panics and races in it.
func (m *machine) read(from io.Reader) {
	lines := bufio.NewScanner(from)
	lines.Buffer(nil, 1<<20)
	for lines.Scan() {
		text := lines.Text()
		if strings.Contains(text, `"msg":"panic"`) || strings.HasPrefix(text, "panic:") ||
			strings.HasPrefix(text, "fatal error:") {
			m.panics.Add(1)
		}
		if strings.Contains(text, "WARNING: DATA RACE") {
			m.races.Add(1)
		}
		if !strings.Contains(text, `"msg":"request"`) || strings.Contains(text, `"level":"ERROR"`) {
			_, _ = fmt.Fprintln(m.log, text)
		}
	}
}

// kill kills the server and waits until it is gone.
func (m *machine) kill() {
	m.remember()
	m.mu.Lock()
	c, exited := m.process, m.exited
	m.mu.Unlock()
	_ = c.Process.Kill()
	<-exited
}

// close stops server and database.
func (m *machine) close() {
	m.remember()
	m.mu.Lock()
	c, exited := m.process, m.exited
	m.mu.Unlock()
	if c != nil {
		_ = c.Process.Signal(syscall.SIGTERM)
		<-exited
	}
	_ = m.script("pg-stop.sh").Run()
	_ = m.log.Close()
}

// status is a line of the process's status, in kB.
func (m *machine) status(name string) float64 {
	m.mu.Lock()
	defer m.mu.Unlock()
	if m.process == nil {
		return 0
	}
	raw, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", m.process.Process.Pid))
	if err != nil {
		return 0
	}
	for line := range strings.Lines(string(raw)) {
		if rest, is := strings.CutPrefix(line, name+":"); is {
			kb, _ := strconv.ParseFloat(strings.TrimSuffix(strings.TrimSpace(rest), " kB"), 64)
			return kb
		}
	}
	return 0
}

// remember notes the most memory that the process has held.
func (m *machine) remember() {
	mb := m.status("VmHWM") / 1024
	m.mu.Lock()
	m.peakMB = max(m.peakMB, mb)
	m.mu.Unlock()
}

// ticksPerSecond is in what /proc counts processor time.
const ticksPerSecond = 100

// processor is the processor time that the server has taken.
func (m *machine) processor() time.Duration {
	m.mu.Lock()
	defer m.mu.Unlock()
	raw, err := os.ReadFile(fmt.Sprintf("/proc/%d/stat", m.process.Process.Pid))
	if err != nil {
		return 0
	}
	_, rest, _ := strings.Cut(string(raw), ") ")
	fields := strings.Fields(rest)
	const user, system = 11, 12 // of what follows the name
	if len(fields) <= system {
		return 0
	}
	u, _ := strconv.ParseInt(fields[user], 10, 64)
	s, _ := strconv.ParseInt(fields[system], 10, 64)
	return time.Duration(u+s) * time.Second / ticksPerSecond
}
