package e2e

import (
	"net/http/httptest"
	"testing"
	"time"

	. "github.com/chromedp/chromedp"
)

// Where there is no line, the page opens, and the cards that were looked at last can be read.
func TestCardsAreReadWithoutALine(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	installed := Poll[Void](
		`navigator.serviceWorker.ready.then((r) => r.active?.state === "activated")`,
		WithPollingTimeout(60*time.Second),
	)
	do(t, ctx, Navigate(url+"/cards"), WaitVisible(id("card-Plum betty")), installed)
	do(t, ctx, Navigate(url+"/cards"), WaitVisible(id("card-Plum betty")), idle()) // by the worker: it keeps what it sees
	srv, _ := servers.Load(url)
	srv.(*httptest.Server).CloseClientConnections()
	srv.(*httptest.Server).Close()
	do(t, ctx, Navigate(url+"/cards"), WaitVisible(id("card-Plum betty")))
	reads(t, ctx, id("card-Gooseberry crumble"), "974 g fruit", "8 portions")
}
