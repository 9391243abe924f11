package e2e

import (
	"strings"
	"testing"
	"time"

	"mabbin/app"
	"mabbin/server/demo"

	. "github.com/chromedp/chromedp"
)

// From the Bench into the oven: calls in their order, answered on one tablet and seen on the other, a rescue, and the
// log.
func TestTheOvenWatch(t *testing.T) {
	t.Parallel()
	url, s, now := kitchenWithClock(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+"/watch"), idle())
	reads(t, ctx, id("nothing-in"), "Nothing is in the oven")
	do(
		t,
		ctx,
		openCard(url, "Damson and apple crumble"),
		click(id("station-bake")),
		click(id("propose")),
		WaitVisible(id("verdict")),
	)
	reads(t, ctx, id("plan"), "Proposed:")
	do(t, ctx, act("into-oven"))
	reads(t, ctx, id("next-call"), "Turn the dish", "Damson and apple crumble", "Old range", "in")
	reads(
		t,
		ctx,
		id("watched-Damson and apple crumble"),
		"min left",
		"Check: is the middle bubbling",
		"Take it out",
		"Ready to serve",
	)

	// A second tablet shows the same, and is reported without asking.
	other := tab(t, 800, 1280)
	do(t, other, Navigate(url+"/cards"), idle(), WaitNotPresent(id("due")))
	now.Add(int64(24 * time.Minute))
	do(t, other, Navigate(url+"/cards"), idle())
	reads(t, other, id("due"), "Turn the dish")
	do(t, ctx, Navigate(url+"/watch"), idle())
	reads(t, ctx, id("call-left"), "ago")
	do(t, other, click(id("due-done")))
	reads(t, ctx, id("next-call"), "Check: is the middle bubbling")
	reads(t, ctx, id("call-turn"), "done")

	// Undone, snoozed by a key, skipped.
	do(t, ctx, click(id("undo-turn")))
	reads(t, ctx, id("next-call"), "Turn the dish")
	do(t, ctx, KeyEvent("m"), idle())
	reads(t, ctx, id("call-left"), "in 3 min")
	do(t, ctx, KeyEvent("x"), idle())
	reads(t, ctx, id("call-turn"), "skipped")

	// The probe reads the middle on the server's rounds; slipped out, it is not believed.
	poller := pollerOf(s, now)
	read := func(times int, every time.Duration) {
		for range times {
			now.Add(int64(every))
			must(t, poller.Watch.Poll(t.Context()))
		}
		do(t, ctx, Navigate(url+"/watch"), WaitVisible(id("next-call")))
	}
	do(t, ctx, click(id("probe-middle")))
	read(10, 20*time.Second)
	reads(t, ctx, id("estimate"), "By the probe, the oven is", "±", "planned")
	do(t, ctx, click(id("probe-air")))
	read(10, 10*time.Second)
	reads(t, ctx, id("estimate"), "not fit any oven")
	do(t, ctx, click(id("probe-none")), WaitNotPresent(id("estimate")))

	// Something is wrong: each way is tried, the first is taken, and the calls move.
	before := text(t, ctx, id("call-take_out"))
	do(t, ctx, click(id("trouble")), click(id("trouble-oven_off")), fill(id("off-min"), "12"))
	reads(t, ctx, id("rescue"), "Switch the oven on", "min from now", "It will come out right")
	do(t, ctx, click(id("rescue-0")), WaitNotPresent(id("rescue")))
	changes(t, ctx, id("call-take_out"), before)

	// Out, and into the log; the browser that was closed meanwhile shows it all.
	now.Add(int64(40 * time.Minute))
	do(t, ctx, Navigate(url+"/watch"), click(id("done-take_out")))
	reads(t, ctx, id("state"), "out since")
	if words := text(t, ctx, id("watched-Damson and apple crumble")); strings.Contains(words, "Something went wrong") {
		t.Error("it is out, and can still be rescued in the oven")
	}
	do(
		t,
		ctx,
		click(id("how-did-it-come-out")),
		click(id("juice-spoonable")),
		click(id("top-golden")),
		click(id("more-questions")),
		click(id("sweetness-right")),
		click(id("again-yes")),
		fill(id("before_g"), "2410"),
		fill(id("after_g"), "2500"),
		click(id("log-it")),
	)
	reads(t, ctx, CSS(`.ask [role="alert"]`), "check both weights")
	do(t, ctx, fill(id("after_g"), "2362"), click(id("log-it")))
	reads(t, ctx, id("nothing-in"), "Nothing is in the oven")
	log, _, err := s.Bakes(t.Context(), demo.Kitchen.ID, app.BakeFilter{}, nil, 1)
	must(t, err)
	if b := log[0]; b.Title != "Damson and apple crumble" || *b.Juice != "spoonable" || len(b.Stages) < 2 ||
		b.OvenID == nil {
		t.Errorf("logged is %+v", b)
	}
	do(t, ctx, Navigate(url+"/log"), click(id("open-bake")))
	reads(
		t,
		ctx,
		id("how-it-went"),
		"in the oven",
		"lost as steam",
		"48 g",
		"Take it out (done at",
		"Turn the dish (skipped",
		"Make it the same way again",
	)

	// Found again by its words and by what came out.
	do(t, ctx, fill(id("log-words"), "strawberries were"), WaitNotPresent(id("bake-Damson and apple crumble")))
	reads(t, ctx, id("bake-Rhubarb and strawberry crumble"), "Runny")
	do(t, ctx, fill(id("log-words"), "quince"))
	reads(t, ctx, id("none-found"), "No bake matches")
	do(t, ctx, fill(id("log-words"), " "), click(id("log-juice")), click(id("log-juice-saucy")))
	reads(t, ctx, id("bake-Freezer cherry crisp"), "Saucy")
	csv, err := Run(
		ctx,
		Evaluate[string](
			`fetch(document.querySelector('[data-testid="log-csv"]').href).then((r) => r.text())`,
			EvalAwaitPromise,
		),
	)
	must(t, err)
	if rows := strings.Split(
		strings.TrimSpace(csv),
		"\n",
	); len(rows) < 8 || !strings.Contains(rows[1], "Damson and apple crumble,") ||
		!strings.Contains(rows[1], ",2410,2362,yes,") {
		t.Errorf("%d rows: %s", len(rows), csv)
	}
}
