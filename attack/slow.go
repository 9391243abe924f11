package main

import (
	"context"
	"fmt"
	"net"
	"slices"
	"strings"
	"sync"
	"time"
)

// slowClients is how many connections do next to nothing, of each kind.
const slowClients = 60

// slow has many connections that send or read next to nothing, while others want an answer.
func slow(ctx context.Context, m *machine, c *client) (report, error) {
	out := report{name: "slow clients"}
	k, err := newKitchen(c)
	if err != nil {
		return out, err
	}
	heads := []string{
		"GET /api/v1/larder HTTP/1.1\r\nHost: " + m.addr + "\r\nX-Slow: ",
		"POST /api/v1/balance HTTP/1.1\r\nHost: " + m.addr + "\r\nContent-Type: application/json\r\nContent-Length: 100000\r\n\r\n{",
		"GET /api/v1/larder HTTP/1.1\r\nHost: " + m.addr + "\r\n\r\n", // and reads nothing
	}
	var all sync.WaitGroup
	for _, head := range heads {
		for range slowClients {
			all.Go(func() { trickle(ctx, m.addr, head) })
		}
	}
	var actual []float64
	for ctx.Err() == nil {
		began := time.Now()
		if a := c.send("GET", k.base+"/stock", "", ""); a.code/100 != 2 {
			out.wrong = append(out.wrong, fmt.Sprintf("during slow clients: %d %.200s", a.code, a.body))
		}
		actual = append(actual, float64(time.Since(began).Milliseconds()))
		select {
		case <-ctx.Done():
		case <-time.After(20 * time.Millisecond):
		}
	}
	all.Wait()
	slices.Sort(actual)
	p95 := actual[len(actual)*95/100]
	out.says = fmt.Sprintf("%d connections; an answer during them takes %.0f ms (95 %%)", slowClients*len(heads), p95)
	const most = 500
	if p95 > most {
		out.wrong = append(out.wrong, out.says)
	}
	return out, nil
}

// trickle holds a connection, a byte a second.
func trickle(ctx context.Context, addr, head string) {
	for ctx.Err() == nil {
		conn, err := new(net.Dialer).DialContext(ctx, "tcp", addr)
		if err != nil {
			return
		}
		_, err = conn.Write([]byte(head))
		for err == nil && ctx.Err() == nil {
			select {
			case <-ctx.Done():
			case <-time.After(time.Second):
			}
			if !strings.HasSuffix(head, "\r\n\r\n") {
				_, err = conn.Write([]byte("1"))
			}
		}
		_ = conn.Close()
	}
}
