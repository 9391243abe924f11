package e2e

import (
	"context"
	"fmt"
	"slices"
	"sync"
	"testing"
	"time"

	"github.com/chromedp/cdproto/network"
	. "github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// follows measures, in the page, from a key on one element until what another one shows has changed and is painted: a
// message that is posted before a frame is painted comes after it. It answers with milliseconds for each of n presses,
// which alternate so that every one of them changes something.
const follows = `(async (press, shown, n) => {
	const el = document.querySelector(press), out = []
	const painted = () => new Promise((done) => {
		const { port1, port2 } = new MessageChannel()
		port1.onmessage = done
		port2.postMessage('')
	})
	const look = () => document.querySelector(shown)?.getAttribute('aria-label') ?? document.querySelector(shown)?.textContent
	el.focus()
	for (let i = 0; i < n; i++) {
		const was = look(), from = performance.now()
		document.querySelector(press).dispatchEvent(new KeyboardEvent('keydown', { key: i %% 2 ? 'ArrowLeft' : 'ArrowRight', shiftKey: true, bubbles: true }))
		while (look() === was && performance.now() - from < 5000) await new Promise(requestAnimationFrame)
		await painted()
		out.push(performance.now() - from)
		await new Promise((r) => setTimeout(r, 250))
	}
	return out
})(%q, %q, 40)`

// From the hand to the picture, in the real page: the promise is a tenth of a second.
func BenchmarkHandToPicture(b *testing.B) {
	url, _ := kitchen(b)
	ctx := tab(b, 1280, 800)
	do(b, ctx, openCard(url, "Gooseberry crumble"))
	for _, c := range []struct{ name, station, press, shown string }{
		{"a stage of the bake", "bake", `[data-testid="stage-0"]`, `[data-testid="strip"] svg`},
		{"the set", "juice", `[data-testid="set-handle"]`, `[data-testid="line-dry-cornflour"]`},
		{"the fruit's level", "fruit", `[data-testid="fruit-handle"]`, `[data-testid="figures"]`},
		{"the topping's thickness", "topping", `[data-testid="thickness-handle"]`, `[data-testid="figures"]`},
	} {
		b.Run(c.name, func(b *testing.B) {
			do(b, ctx, click(id("station-"+c.station)), WaitVisible(CSS(c.press)))
			for b.Loop() {
				ms, err := Run(ctx, Evaluate[[]float64](fmt.Sprintf(follows, c.press, c.shown), EvalAwaitPromise))
				must(b, err)
				slices.Sort(ms)
				b.ReportMetric(ms[len(ms)/2], "ms-p50")
				b.ReportMetric(ms[len(ms)*95/100], "ms-p95")
			}
		})
	}
}

// fetched counts what a tab fetches, on the wire: headers and bodies as they came.
type fetched struct {
	mu       sync.Mutex
	requests int
	bytes    float64
	largest  map[string]float64
	names    map[network.RequestID]string
}

func fetchedBy(b *testing.B, ctx context.Context) *fetched {
	b.Helper()
	f := &fetched{largest: map[string]float64{}, names: map[network.RequestID]string{}}
	must(b, Listen(ctx, func(ev any) {
		f.mu.Lock()
		defer f.mu.Unlock()
		switch e := ev.(type) {
		case *network.EventRequestWillBeSent:
			f.names[e.RequestID] = e.Request.Method + " " + e.Request.URL
		case *network.EventLoadingFinished:
			f.requests++
			f.bytes += e.EncodedDataLength
			f.largest[f.names[e.RequestID]] = e.EncodedDataLength
		}
	}))
	_, err := Call(ctx, network.Enable, network.EnableParams{})
	must(b, err)
	return f
}

func (f *fetched) since(requests int, bytes float64) (moreRequests int, moreBytes float64) {
	f.mu.Lock()
	defer f.mu.Unlock()
	return f.requests - requests, f.bytes - bytes
}

// A first visit to the Bench, until a dessert's figures are there, and a change of it: what they fetch on the wire. The
// promises are 200 kB in 20 requests, and 5 kB.
func BenchmarkOnTheWire(b *testing.B) {
	url, _ := kitchen(b)
	for b.Loop() {
		ctx := tab(b, 1280, 800) // with a cache of its own, which is empty
		f := fetchedBy(b, ctx)
		do(b, ctx, Navigate(url), WaitVisible(id("dish-Small stoneware")), idle())
		n, bytes := f.since(0, 0)
		b.ReportMetric(float64(n), "requests-first")
		b.ReportMetric(bytes/1000, "kB-first")
		if testing.Verbose() {
			f.mu.Lock()
			for name, x := range f.largest {
				b.Logf("%6.1f kB %s", x/1000, name)
			}
			f.mu.Unlock()
		}
		do(b, ctx, openCard(url, "Gooseberry crumble"), click(id("station-juice")), WaitVisible(id("set-handle")), idle())
		n, bytes = f.since(0, 0)
		do(b, ctx, Focus(id("set-handle")), KeyEvent(kb.ArrowRight), idle())
		n, bytes = f.since(n, bytes)
		b.ReportMetric(float64(n), "requests-change")
		b.ReportMetric(bytes/1000, "kB-change")
	}
}

// How soon a warm start shows the Bench's figures. The promise is a second.
func BenchmarkStartOfTheBench(b *testing.B) {
	url, _, _ := kitchenWithClock(b)
	ctx := tab(b, 1280, 800)
	do(b, ctx, openCard(url, "Gooseberry crumble"), WaitVisible(id("figures")))
	const starts = 9
	var actual []float64
	for range starts {
		from := time.Now()
		do(b, ctx, Navigate(url), WaitVisible(id("figures")))
		actual = append(actual, float64(time.Since(from).Milliseconds()))
	}
	slices.Sort(actual)
	b.ReportMetric(actual[starts/2], "ms-p50")
	b.ReportMetric(actual[starts-1], "ms-most")
}
