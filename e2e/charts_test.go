package e2e

import (
	"strings"
	"testing"

	. "github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// The log is drawn: each bake is reported by the arrow keys, the filter counts, and the same stands in a table.
func TestTheLogIsDrawn(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+"/log"), click(id("draw")), WaitVisible(id("chart-minutes")))
	do(t, ctx, Focus(id("chart-minutes")), KeyEvent(kb.ArrowRight))
	reads(t, ctx, id("chart-minutes-said"), "planned", "actual")
	first := text(t, ctx, id("chart-minutes-said"))
	do(t, ctx, KeyEvent(kb.ArrowRight))
	changes(t, ctx, id("chart-minutes-said"), first)
	do(t, ctx, Focus(id("chart-steps")), KeyEvent(kb.ArrowRight))
	reads(t, ctx, id("chart-steps-said"), "planned")
	do(t, ctx, click(id("chart-table", " summary")))
	reads(t, ctx, id("chart-table"), "Planned, min", "Plum betty", "Gooseberry crumble")
	do(t, ctx, fill(id("log-words"), "plum betty"))
	reads(t, ctx, id("chart-table"), "Plum betty")
	do(t, ctx, Poll[Void](`!document.querySelector('[data-testid="chart-table"]').innerText.includes('Gooseberry')`))
	if table := text(t, ctx, id("chart-table")); strings.Contains(table, "Apricot") {
		t.Errorf("other bakes are in the table: %s", table)
	}
	axe(t, ctx, "the charts")
}
