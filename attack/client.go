package main

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"strings"
	"sync"
	"time"
)

// answer is what came back; code 0: nothing did.
type answer struct {
	code  int
	retry bool // it says when to come again
	body  []byte
}

// later says that it is to be asked for again, with the same id.
func (a answer) later() bool {
	return a.code == 0 || a.code == http.StatusServiceUnavailable && a.retry
}

// into reads the answer.
func (a answer) into(v any) error {
	if a.code/100 != 2 {
		return fmt.Errorf("status %d: %.300s", a.code, a.body)
	}
	return json.Unmarshal(a.body, v)
}

// client sends requests to the copy and counts what comes back.
type client struct {
	base string
	http *http.Client

	mu       sync.Mutex
	requests int
	faults   []string // answers of 500 and more that are no 503 with Retry-After
}

// patience is how long an answer is waited for.
const patience = 90 * time.Second

func newClient(addr string) *client {
	return &client{base: "http://" + addr, http: &http.Client{Timeout: patience}}
}

// mostFaults is how many faults are shown.
const mostFaults = 10

func (c *client) do(r *http.Request) answer {
	w, err := c.http.Do(r)
	if err != nil {
		c.count(r, answer{})
		return answer{}
	}
	defer func() { _ = w.Body.Close() }()
	body, err := io.ReadAll(w.Body)
	a := answer{code: w.StatusCode, retry: w.Header.Get("Retry-After") != "", body: body}
	if err != nil {
		a.code = 0
	}
	c.count(r, a)
	return a
}

func (c *client) count(r *http.Request, a answer) {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.requests++
	if a.code >= http.StatusInternalServerError && !a.later() && a.code != http.StatusInsufficientStorage &&
		len(c.faults) < mostFaults {
		c.faults = append(c.faults, fmt.Sprintf("%s %s: %d %.300s", r.Method, r.URL, a.code, a.body))
	}
}

// send sends JSON; match is the revision that it is made from, where it is not empty.
func (c *client) send(method, path, body, match string) answer {
	r, err := http.NewRequestWithContext(context.Background(), method, c.base+path, strings.NewReader(body))
	if err != nil {
		return answer{}
	}
	if body != "" {
		r.Header.Set("Content-Type", "application/json")
	}
	if match != "" {
		r.Header.Set("If-Match", match)
	}
	return c.do(r)
}

// until posts something, again and again with the same content, until it is answered.
func (c *client) until(ctx context.Context, path, body string) answer {
	for {
		a := c.send("POST", path, body, "")
		if !a.later() || ctx.Err() != nil {
			return a
		}
		time.Sleep(100 * time.Millisecond)
	}
}

// take forgets what was counted and returns it.
func (c *client) take() (requests int, faults []string) {
	c.mu.Lock()
	defer c.mu.Unlock()
	requests, faults = c.requests, c.faults
	c.requests, c.faults = 0, nil
	return requests, faults
}
