package e2e

import (
	"fmt"
	"strings"
	"testing"

	. "github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// middle is the range of minutes that is predicted for the middle's bubbling.
func middle(t *testing.T, says string) (low, high int) {
	t.Helper()
	if _, err := fmt.Sscanf(says, "%d to %d min", &low, &high); err != nil {
		t.Fatalf("%q: %v", says, err)
	}
	return low, high
}

// A kitchen whose oven runs cool: five bakes are logged with the minutes that were noted, the sixth is predicted later
// and more narrowly, and as before when the lesson is switched off. A copy of the kitchen has learnt the same.
func TestFiveBakesOfACoolOven(t *testing.T) {
	t.Parallel()
	ctx := tab(t, 1280, 800)
	url := serveBare(t)
	do(
		t, ctx, Navigate(url), click(id("habit-british")), WaitNotPresent(id("first-day")),
		click(id("typical-oblong_small")), click(id("fruit-plum")), click(id("style-crumble")), click(id("station-bake")),
	)
	reads(t, ctx, id("forecast-basis"), "kitchens in general")
	low, high := middle(t, text(t, ctx, id("forecast-middle")))
	noted := (low+high)/2 + 12
	for i := range 5 {
		do(t, ctx, act("baked"), WaitVisible(id("baked-it")))
		if i == 0 { // once opened, the other questions stay so
			do(t, ctx, click(id("more-questions")))
		}
		do(
			t, ctx, fill(id("rim_min"), fmt.Sprint(noted-11+i%2)), fill(id("middle_min"), fmt.Sprint(noted+i%3-1)),
			click(id("log-it")), WaitNotVisible(id("baked-it")), idle(),
		)
	}
	reads(t, ctx, id("forecast-basis"), "from the 5 bakes in your log")
	l, h := middle(t, text(t, ctx, id("forecast-middle")))
	if l <= low || h-l >= high-low {
		t.Errorf("foreseen %d to %d min, after five bakes of about %d min %d to %d", low, high, noted, l, h)
	}
	if noted < l || noted > h {
		t.Errorf("noted about %d min, foreseen %d to %d", noted, l, h)
	}

	do(t, ctx, Navigate(url+"/log"), click(id("teaches")))
	reads(t, ctx, id("lesson-oven_offset"), "The oven is", "±", "cooler than its dial", "from 5 bakes", "used")
	do(t, ctx, Focus(id("chart-oven_offset")), KeyEvent(kb.ArrowLeft))
	reads(t, ctx, id("chart-oven_offset-said"), "cooler (90 % range")
	do(t, ctx, click(id("use-oven_offset")))
	reads(t, ctx, id("lesson-oven_offset"), "off: table value used")
	do(t, ctx, Navigate(url), click(id("station-bake")))
	reads(t, ctx, id("forecast-basis"), "log")
	if off, _ := middle(t, text(t, ctx, id("forecast-middle"))); off >= l {
		t.Errorf("switched off it is foreseen from %d min on, as when it was on: %d", off, l)
	}
	do(t, ctx, Navigate(url+"/log"), click(id("teaches")), click(id("use-oven_offset")))
	reads(t, ctx, id("lesson-oven_offset"), "used")
	if says := text(t, ctx, id("learnt-summary")); !strings.Contains(says, "From 5 bakes") {
		t.Errorf("%q", says)
	}
}
