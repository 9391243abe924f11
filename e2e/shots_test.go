package e2e

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"mabbin/app"
	"mabbin/server/demo"

	. "github.com/chromedp/chromedp"
	"github.com/google/uuid"
)

// TestShots takes the pictures of docs/screenshots; make shots asks for it.
func TestShots(t *testing.T) {
	dir := os.Getenv("MABBIN_SHOTS")
	if dir == "" {
		t.Skip("make shots takes the pictures")
	}
	url, s, now := kitchenWithClock(t)
	learning := app.Learning{
		Store: s, Kitchens: s, Surfaces: app.NewSurfaces(), Clock: time.Now, Notify: func(uuid.UUID) {},
	}
	must(t, learning.Update(t.Context(), demo.Kitchen.ID, nil)) // as a server does when it starts
	ctx := tab(t, 1280, 800)
	take := func(name string, s ...step) {
		t.Helper()
		do(t, ctx, append(s, idle())...)
		shot(t, ctx, filepath.Join(dir, name+".png"))
	}
	take("rough-start", Navigate(url), click(id("dish-Small stoneware")), click(id("fruit-damson")))
	do(t, ctx, openCard(url, "Damson and apple crumble"))
	take("bench-juice", click(id("station-juice")))
	do(t, ctx, openCard(url, "Apricot cobbler"))
	take("bench-bake", click(id("station-bake")), WaitVisible(id("plan")), Click(id("scrubber")))
	do(t, ctx, openCard(url, "Damson and apple crumble"))
	var n touches
	take("ready-by", click(id("ready-by")), n.hour(id("ready-hour"), "19:00"), WaitVisible(id("ready-says")))
	do(t, ctx, click(id("ready-whenever")), KeyEvent("\x1b"))
	take(
		"weighing",
		click(id("station-juice")),
		act("weigh"),
		KeyEvent("  "),
		click(id("by-scale")),
		click(id("hand-spoon_in")),
		click(id("hand-spoon_in")),
		click(id("hand-spoon_in")),
		reading(),
	)
	take("bench-dark", act("weigh"), click(id("light")))
	do(t, ctx, click(id("light")))
	take("day", Navigate(url+demoSaturday), WaitVisible(id("day-lanes")), WaitVisible(id("lay")))
	take("day-work", click(id("as-work")), click(id("person-Bryony")), WaitVisible(id("work-now")))
	take("day-work", click(id("as-work")), click(id("person-Bryony")), WaitVisible(id("work-now")))
	do(t, ctx, storing("mabbin.wanted", `{"date":"2026-10-17","cards":[]}`))
	take("stock", Navigate(url+"/stock"), WaitVisible(id("buy-gooseberry")))
	take("cards", Navigate(url+"/cards"), WaitVisible(id("card-Gooseberry crumble")))
	take(
		"import-verdict",
		Navigate(url+"/cards/import"),
		paste(written),
		fill(id("container-2"), "250"),
		click(id("is-3-cornflour")),
		click(id("suggest-4")),
		click(id("import-dish")),
		click(id("import-dish-Iron skillet")),
		WaitVisible(id("verdict")),
	)
	take(
		"kitchen-ovens",
		Navigate(url+"/kitchen/ovens"),
		click(id("oven-row-Old range")),
		fill(id("trial-read-0"), "172"),
		fill(id("trial-read-1"), "169"),
		WaitVisible(id("trial-says")),
	)
	take("findings", Navigate(url+"/log"), click(id("teaches")), WaitVisible(id("chart-learnt")))
	take("kitchen-fruit", Navigate(url+"/kitchen/fruit"), click(id("row-damson")))
	for _, card := range []string{"Freezer cherry crisp", "Gooseberry crumble"} {
		do(t, ctx, Navigate(url+"/cards"), click(id("card-"+card, " .open")), click(id("station-bake")), click(id("propose")))
		reads(t, ctx, id("plan"), "Proposed:")
		do(t, ctx, act("into-oven"), WaitVisible(id("watched-"+card)))
		now.Add(int64(14 * time.Minute))
	}
	do(t, ctx, Navigate(url+"/watch"), click(id("watched-Freezer cherry crisp", ` [data-testid="probe-middle"]`)))
	poller := pollerOf(s, now)
	for range 24 {
		now.Add(int64(30 * time.Second))
		must(t, poller.Watch.Poll(t.Context()))
	}
	take(
		"watch",
		Navigate(url+"/watch"),
		WaitVisible(id("next-call")),
		click(id("watched-Freezer cherry crisp", ` [data-testid="done-turn"]`)),
		click(id("watched-Gooseberry crumble", ` [data-testid="trouble"]`)),
		click(id("trouble-boils_over")),
		WaitVisible(id("rescue-0")),
	)
	const cherry = "watched-Freezer cherry crisp"
	do(t, ctx, click(id("trouble-boils_over")), click(id(cherry, ` [data-testid="done-take_out"]`)))
	take(
		"baked-it",
		click(id(cherry, ` [data-testid="how-did-it-come-out"]`)),
		click(id("juice-spoonable")),
		click(id("fruit-tender")),
		click(id("top-golden")),
		click(id("more-questions")),
		fill(id("before_g"), "2410"),
		fill(id("after_g"), "2362"),
	)
	take(
		"log",
		click(id("log-it")),
		WaitNotPresent(id(cherry)),
		Navigate(url+"/log"),
		fill(id("log-words"), "rhubarb and"),
		WaitNotPresent(id("bake-Freezer cherry crisp")),
		click(id("open-bake")),
		WaitVisible(id("why", " h3")),
	)
	take("watch-phone", EmulateViewport(390, 844), Navigate(url+"/watch"), WaitVisible(id("next-call")))
	take("bench-phone", EmulateViewport(390, 844), Navigate(url), WaitVisible(id("figures")))
}

// reading waits until the scale stands still.
func reading() step { return WaitVisible(CSS(".shows.settled")) }
