package main

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"os/exec"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"mabbin/api"
	"mabbin/server/demo"
	"mabbin/server/store/storetest"
)

// The test's own binary is the program, when it is asked to be: so that it can be killed.
func TestMain(m *testing.M) {
	if addr := os.Getenv("MABBIN_TEST_SERVE"); addr != "" {
		if err := serve(context.Background(), addr, os.DevNull, io.Discard); err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
		os.Exit(0)
	}
	os.Exit(m.Run())
}

// program is a server that runs in a process of its own.
type program struct {
	t    *testing.T
	addr string
	dsn  string
	cmd  *exec.Cmd
}

func (p *program) start() {
	p.t.Helper()
	p.cmd = exec.Command(os.Args[0])
	p.cmd.Env = append(os.Environ(), "MABBIN_TEST_SERVE="+p.addr, "MABBIN_DB="+p.dsn)
	p.cmd.Stderr = os.Stderr
	if err := p.cmd.Start(); err != nil {
		p.t.Fatal(err)
	}
	for range 600 {
		if r, err := http.Get("http://" + p.addr + "/readyz"); err == nil {
			_ = r.Body.Close()
			if r.StatusCode == http.StatusOK {
				return
			}
		}
		time.Sleep(50 * time.Millisecond)
	}
	p.t.Fatal("it never got ready")
}

// kill ends it as a power cut does.
func (p *program) kill() {
	_ = p.cmd.Process.Kill()
	_ = p.cmd.Wait()
}

// ask sends a request and reads its answer; false where none came.
func (p *program) ask(method, path, body string, out any) (status int, ok bool) {
	req, err := http.NewRequestWithContext(p.t.Context(), method, "http://"+p.addr+path, bytes.NewBufferString(body))
	if err != nil {
		return 0, false
	}
	req.Header.Set("Content-Type", "application/json")
	r, err := http.DefaultClient.Do(req)
	if err != nil {
		return 0, false
	}
	defer func() { _ = r.Body.Close() }()
	raw, err := io.ReadAll(r.Body)
	if err != nil {
		return 0, false
	}
	if out != nil {
		_ = json.Unmarshal(raw, out)
	}
	return r.StatusCode, true
}

// A server is killed in mid-bake, again and again, while two tablets send what they send until they are answered: in
// the end there is one dessert, every call was answered once, and one bake is in the log.
func TestKilledInMidBakeNothingIsLostOrDoubled(t *testing.T) {
	dsn := storetest.DSN(t)
	t.Setenv("MABBIN_DB", dsn)
	if err := loadDemo(t.Context(), false, io.Discard); err != nil {
		t.Fatal(err)
	}
	l, err := new(net.ListenConfig).Listen(t.Context(), "tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	p := &program{t: t, addr: l.Addr().String(), dsn: dsn}
	_ = l.Close()
	p.start()
	defer p.kill()

	base := "/api/v1/kitchens/" + demo.Kitchen.ID.String()
	const id, request = "00000000-0000-4000-8000-0000000000d1", `"request":{"dish":{"shape":"square","length_cm":20,"depth_cm":5,"material":"glass"},"style":"crumble",
		"topping":{"key":"crumble_classic"},"fruits":[{"key":"plum","share":1}]}`
	start := `{"id":"` + id + `","title":"Plum crumble","setting":{"stages":[{"minutes":20,"oven_c":190,"cover":"foil"},{"minutes":30,"oven_c":190}]},` + request + `}`
	// until sends a request until it is answered, as the page does; the server is killed under it.
	until := func(method, path, body string, want int) {
		for range 200 {
			if status, ok := p.ask(method, path, body, nil); ok && status < 500 {
				if status != want {
					t.Errorf("%s %s: %d, want %d", method, path, status, want)
				}
				return
			}
			time.Sleep(50 * time.Millisecond)
		}
		t.Errorf("%s %s was never answered", method, path)
	}
	var tablets sync.WaitGroup
	both := func(method, path, body string, want int) {
		for range 2 {
			tablets.Go(func() { until(method, path, body, want) })
		}
		time.Sleep(15 * time.Millisecond)
		p.kill()
		p.start()
		tablets.Wait()
	}
	both("POST", base+"/watch", start, 201)
	var w api.Watch
	if _, ok := p.ask("GET", base+"/watch", "", &w); !ok || len(w.Desserts) != 1 {
		t.Fatalf("%d desserts", len(w.Desserts))
	}
	calls := w.Desserts[0].Calls
	for _, c := range calls {
		both("POST", base+"/watch/"+id+"/calls/"+c.Id.String(), `{"answer":"done"}`, 200)
	}
	bake := strings.NewReplacer(`"id":"`+id+`"`, `"id":"`+id+`","watch_id":"`+id+`","baked_at":"2026-10-01T12:00:00Z","outcome":{"juice":"saucy"}`,
		`"setting":{"stages":[{"minutes":20,"oven_c":190,"cover":"foil"},{"minutes":30,"oven_c":190}]}`, `"setting":{"oven_c":190,"minutes":50}`).
		Replace(start)
	both("POST", base+"/bakes", bake, 201)

	w = api.Watch{}
	p.ask("GET", base+"/watch", "", &w)
	if len(w.Desserts) != 1 || w.Desserts[0].OutAt == nil || len(w.Desserts[0].Calls) != len(calls) {
		t.Fatalf("%d desserts, %d calls of %d", len(w.Desserts), len(w.Desserts[0].Calls), len(calls))
	}
	done := 0
	for _, c := range w.Desserts[0].Calls {
		same := slices.ContainsFunc(calls, func(x api.WatchCall) bool { return x.Id == c.Id })
		if !same || c.AnsweredAt == nil || c.State != "done" && c.State != "withdrawn" {
			t.Errorf("call %s is %s, answered at %v", c.Kind, c.State, c.AnsweredAt)
		}
		if c.State == "done" {
			done++
		}
		if c.Snoozes != 0 {
			t.Errorf("call %s was put off %d times, and nobody did", c.Kind, c.Snoozes)
		}
	}
	if done < 3 { // the foil, the look, out: what was withdrawn was so by one of them
		t.Errorf("%d of %d calls were done", done, len(calls))
	}
	var b api.Bake
	if status, _ := p.ask(
		"GET",
		base+"/bakes/"+id,
		"",
		&b,
	); status != 200 || b.Actual == nil ||
		len(b.Actual.Calls) == 0 {
		t.Fatalf("%d: the log has %+v", status, b)
	}
	logged := map[string]int{}
	for _, c := range b.Actual.Calls {
		if logged[c.Kind+fmt.Sprint(c.Due)]++; c.At == nil && c.State == "done" {
			t.Errorf("the log has %s as done, at no time", c.Kind)
		}
	}
	for call, n := range logged {
		if n != 1 {
			t.Errorf("the log has %s %d times", call, n)
		}
	}
	var page api.BakePage
	p.ask("GET", base+"/bakes?words=Plum+crumble", "", &page)
	if len(page.Bakes) != 1 {
		t.Errorf("%d bakes in the log", len(page.Bakes))
	}
}
