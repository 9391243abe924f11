package e2e

import (
	"strings"
	"testing"

	. "github.com/chromedp/chromedp"
)

// A person picks a name, sees what is to be done now with its amounts, ticks it and gets the next thing; another tablet
// sees the tick. What was ticked by mistake is taken back.
func TestADayIsWorked(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+demoSaturday), WaitVisible(id("lay")), click(id("as-work")), click(id("person-Bryony")))
	reads(t, ctx, id("work-now"), "First, Bryony")
	first := text(t, ctx, id("work-now", " .what"))
	if seen := text(t, ctx, id("work-detail")); !strings.ContainsAny(seen, "0123456789") {
		t.Errorf("what is needed: %q", seen)
	}
	do(t, ctx, click(id("work-done")), WaitVisible(id("work-ticked")), WaitVisible(id("lay")))
	if second := text(t, ctx, id("work-now", " .what")); second == first {
		t.Errorf("ticked, %q is still to be done", first)
	}
	reads(t, ctx, id("work-ticked", " summary"), "Done: 1 of")

	other := tab(t, 820, 1180)
	do(t, other, Navigate(url+demoSaturday), WaitVisible(id("lay")), click(id("as-work")), click(id("person-Bryony")))
	reads(t, other, id("work-ticked", " summary"), "Done: 1 of")
	do(t, other, click(id("work-ticked", " summary")), click(id("work-ticked", " button")), WaitVisible(id("lay")))
	reads(t, other, id("work-now", " .what"), first)
	reads(t, ctx, id("work-now", " .what"), first) // the change reaches it
	before := text(t, ctx, id("work-now"))
	do(t, ctx, click(id("work-later")), idle(), WaitVisible(id("lay")))
	if after := text(t, ctx, id("work-now")); after == before {
		t.Errorf("5 min later, it is still %q", after)
	}
}
