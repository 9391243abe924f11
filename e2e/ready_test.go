package e2e

import (
	"fmt"
	"testing"
	"time"

	. "github.com/chromedp/chromedp"
)

// touches counts what a hand does: a touch, or a field that is filled in.
type touches int

func (n *touches) click(sel CSS) step {
	*n++
	return click(sel)
}

// hour sets a field for a time of day, as its picker does.
func (n *touches) hour(sel CSS, clock string) step {
	*n++
	return Steps(
		WaitVisible(sel),
		Evaluate[Void](fmt.Sprintf(
			`(() => { const e = document.querySelector(%q); e.value = %q; e.dispatchEvent(new Event('input')) })()`, sel, clock,
		)),
		idle(),
	)
}

// Guests in four hours, and a kitchen that was opened for the first time: from nothing to what to weigh, and to when it
// goes into the oven.
func TestFromAnEmptyKitchenToTheHourItGoesIn(t *testing.T) {
	t.Parallel()
	var n touches
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		Navigate(serveBare(t)),
		n.click(id("habit-british")),
		WaitNotPresent(id("first-day")),
		n.click(id("typical-oblong_small")),
		n.click(id("fruit-plum")),
		n.click(id("style-crumble")),
	)
	reads(t, ctx, id("figures"), "Fruit", "spoonable")
	if n > 9 {
		t.Errorf("%d touches to what to weigh: 9 at most", n)
	}
	at := time.Now().Add(4 * time.Hour).Format("15:04")
	do(t, ctx, n.click(id("ready-by")), n.hour(id("ready-hour"), at))
	reads(t, ctx, id("ready-says"), "Into the oven at", "in hand")
	reads(t, ctx, id("ready-steps"), "Prepare the fruit", "Heat the oven", "Into the oven", "Ready")
	if n > 12 {
		t.Errorf("%d touches to when it goes in: 12 at most", n)
	}

	// Cold and set takes longer; what can't be ready says how early it could be; and whenever asks for no hour.
	soon := time.Now().Add(20 * time.Minute).Format("15:04")
	do(t, ctx, click(id("serve-cold")))
	reads(t, ctx, id("ready-steps"), "Into the fridge", "Cut it")
	do(t, ctx, n.hour(id("ready-hour"), soon))
	reads(t, ctx, id("ready-says"), "Not before", "if you begin now")
	do(t, ctx, click(id("ready-whenever")), KeyEvent("\x1b"))
	reads(t, ctx, id("ready-by"), "Ready by")
}
