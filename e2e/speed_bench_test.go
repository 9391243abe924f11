package e2e

import (
	"bytes"
	"compress/gzip"
	"fmt"
	"io"
	"net/http"
	"slices"
	"testing"
	"time"

	. "github.com/chromedp/chromedp"
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

// The script that the Bench needs, packed, and how soon a warm start shows its figures. The promises are 250 kB and a
// second.
func BenchmarkStartOfTheBench(b *testing.B) {
	url, _, _ := kitchenWithClock(b)
	ctx := tab(b, 1280, 800)
	do(b, ctx, openCard(url, "Gooseberry crumble"), WaitVisible(id("figures")))
	loaded, err := Run(
		ctx,
		Evaluate[[]string](`performance.getEntriesByType('resource').map((r) => r.name).filter((n) => n.endsWith('.js'))`),
	)
	must(b, err)
	do(b, ctx, Navigate(url), WaitVisible(id("figures")))
	kept, err := Run(
		ctx,
		Evaluate[[]string](`performance.getEntriesByType('resource').map((r) => r.name).filter((n) => n.endsWith('.js'))`),
	)
	must(b, err)
	if len(kept) > 0 && len(kept) < len(loaded) { // what the Bench alone asks for
		loaded = kept
	}
	packed := 0
	for _, name := range loaded {
		r, err := http.Get(name)
		must(b, err)
		raw, err := io.ReadAll(r.Body)
		must(b, err)
		must(b, r.Body.Close())
		var z bytes.Buffer
		w := gzip.NewWriter(&z)
		_, err = w.Write(raw)
		must(b, err)
		must(b, w.Close())
		packed += z.Len()
	}
	b.ReportMetric(float64(packed)/1000, "kB-gzip")
	const starts = 9
	var took []float64
	for range starts {
		from := time.Now()
		do(b, ctx, Navigate(url), WaitVisible(id("figures")))
		took = append(took, float64(time.Since(from).Milliseconds()))
	}
	slices.Sort(took)
	b.ReportMetric(took[starts/2], "ms-p50")
	b.ReportMetric(took[starts-1], "ms-most")
}
