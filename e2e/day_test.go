package e2e

import (
	"context"
	"fmt"
	"io"
	"net/http"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"mabbin/server/demo"

	. "github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// demoSaturday is the Saturday after the one day on which the tests' demo was loaded.
const demoSaturday = "/day/2026-10-17"

// Eight orders are planned; the clash is solved by a way that was tried, an order is dragged, and both are undone.
func TestASaturdayIsPlanned(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+demoSaturday), WaitVisible(id("day-lanes")), WaitVisible(id("lay")))
	reads(t, ctx, id("day-says"), "1 of 8")
	do(t, ctx, click(id("way-another_dish")), WaitVisible(id("lay")))
	reads(t, ctx, id("day-says"), "All orders are ready on time")
	reads(t, ctx, id("way-taken"), "use one more dish like Small stoneware")
	if seen := text(t, ctx, CSS("main")); strings.Contains(seen, "Dry cloths") {
		t.Error("the sheets for paper stand below the picture")
	}

	// later by dragging its flag, and by a key
	dragBy(t, ctx, id("flag-Plum betty"), 60)
	do(t, ctx, WaitVisible(id("lay")))
	later := text(t, ctx, id("flag-Plum betty", " strong"))
	if later <= "15:30" {
		t.Errorf("dragged to the right, it is wanted at %s", later)
	}
	do(t, ctx, Focus(id("flag-Plum betty")), KeyEvent(kb.ArrowLeft), idle(), WaitVisible(id("lay")))
	do(t, ctx, click(id("undo")), WaitVisible(id("lay")), click(id("undo")), WaitVisible(id("lay")))
	reads(t, ctx, id("flag-Plum betty", " strong"), "15:30")
	do(t, ctx, click(id("undo")), WaitVisible(id("lay")))
	reads(t, ctx, id("day-says"), "1 of 8")
}

// Orders are added by a card and pasted; an oven that is not in use takes nothing.
func TestOrdersComeIn(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		Navigate(url+"/day/2026-10-20"),
		click(id("add-order")),
		click(id("order-card")),
		click(id("order-card-Apricot cobbler")),
		fill(id("order-dishes"), "2"),
		click(id("order-hot")),
	)
	reads(t, ctx, id("order-portions"), "12 portions, 6 from each dish")
	do(
		t,
		ctx,
		fill(id("order-dishes"), "1"),
		click(id("order-keep")),
		WaitVisible(id("lay")),
	)
	reads(t, ctx, id("day-says"), "All orders are ready on time")
	do(
		t,
		ctx,
		click(id("jot")),
		fill(id("order-lines"), "gooseberry crumble 13:00\nlasagne 12:00"),
		click(id("order-read")),
	)
	reads(t, ctx, CSS(".el-dialog:has([data-testid=order-lines])"), "lasagne", "No card")
	do(t, ctx, KeyEvent("\x1b"), WaitVisible(id("lay")))
	reads(t, ctx, id("day-orders"), "Apricot cobbler", "Gooseberry crumble")
	reads(t, ctx, id("order-Apricot cobbler"), "Comes out right")
	do(t, ctx, click(id("open-Bench oven")), WaitVisible(id("lay")))
	reads(t, ctx, id("day-lanes"), "Old range")
	reads(t, ctx, id("order-Gooseberry crumble"), "In at")
	if lanes := text(t, ctx, id("day-lanes")); strings.Contains(lanes, "Bench oven") {
		t.Errorf("the oven that is not in use has a lane: %s", lanes)
	}
	do(t, ctx, click(id("as-lists")))
	reads(t, ctx, id("day-sheets"), "Into Old range", "Out of Old range")

	// kept as a usual day, and taken for another one, twice: no two orders have one name
	do(t, ctx, click(id("usual")), fill(id("usual-name"), "Short day"), click(id("usual-keep")))
	reads(t, ctx, id("usual-Short day"), "13:00 Gooseberry crumble")
	do(t, ctx, Navigate(url+"/day/2026-10-21"), click(id("usual")), click(id("take-Short day")), WaitVisible(id("lay")))
	do(t, ctx, click(id("usual")), click(id("take-Short day")), WaitVisible(id("lay")))
	reads(t, ctx, id("day-orders"), "Apricot cobbler", "Apricot cobbler 2", "Gooseberry crumble 2")
}

// A day runs: what is in the oven stays, a bake that runs long moves the rest, and it says by how much.
func TestADayRuns(t *testing.T) {
	t.Parallel()
	url, _, ahead := kitchenWithClock(t)
	ctx := tab(t, 1280, 800)
	at := time.Now().AddDate(0, 0, 1)
	nine := time.Date(at.Year(), at.Month(), at.Day(), 9, 0, 0, 0, time.Local)
	clock := func(hour, minute int) { // the server's
		ahead.Store(int64(time.Until(nine.Add(time.Duration(hour-9)*time.Hour + time.Duration(minute)*time.Minute))))
	}
	clock(9, 0)
	do(
		t,
		ctx,
		Navigate(url+"/day/"+nine.Format(time.DateOnly)),
		click(id("jot")),
		fill(id("order-lines"), "gooseberry crumble 12:00\nfreezer cherry crisp 13:00\napricot cobbler 13:45"),
		click(id("order-read")),
		WaitVisible(id("lay")),
	)
	reads(t, ctx, id("day-says"), "All orders are ready on time")
	bar := id("bar-Gooseberry crumble.bake")
	in := regexp.MustCompile(`^(\d\d):(\d\d) to (\d\d:\d\d)`).FindStringSubmatch(attribute(t, ctx, bar, "title"))
	if in == nil {
		t.Fatal("its bar does not say when it is in the oven")
	}
	hour, _ := strconv.Atoi(in[1])
	minute, _ := strconv.Atoi(in[2])
	clock(hour, minute+5)
	do(t, ctx, Navigate(url+"/day/"+nine.Format(time.DateOnly)), click(bar), click(id("longer")), WaitVisible(id("lay")))
	reads(t, ctx, id("one-thing"), in[1]+":"+in[2]+" to")
	if now := attribute(
		t,
		ctx,
		bar,
		"title",
	); strings.Contains(now, "to "+in[3]) ||
		!strings.HasPrefix(now, in[1]+":"+in[2]) {
		t.Errorf("ten minutes longer: %s, was %v", now, in)
	}
	reads(t, ctx, id("day-moved"), "Gooseberry crumble comes out at")
	do(t, ctx, click(id("undo")), WaitVisible(id("lay")))
	if now := attribute(t, ctx, bar, "title"); !strings.Contains(now, "to "+in[3]) {
		t.Errorf("undone: %s, was %v", now, in)
	}
}

func attribute(t testing.TB, ctx context.Context, sel CSS, name string) string {
	t.Helper()
	s, err := Run(ctx, Evaluate[string](fmt.Sprintf(`document.querySelector(%q)?.getAttribute(%q) ?? ''`, sel, name)))
	must(t, err)
	return s
}

var uids = regexp.MustCompile(`(?m)^UID:(.+)$`)

// The calendar of a day keeps the identity of each thing: a second import moves it, and does not double it.
func TestTheCalendarIsImportedTwice(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+demoSaturday), WaitVisible(id("day-lanes")), WaitVisible(id("lay")))
	fetch := func() string {
		r, err := http.Get(url + "/api/v1/kitchens/" + demo.Kitchen.ID.String() + "/days/2026-10-17/day.ics")
		must(t, err)
		defer func() { _ = r.Body.Close() }()
		raw, err := io.ReadAll(r.Body)
		must(t, err)
		return string(raw)
	}
	identities := func(file string) (all []string) {
		for _, m := range uids.FindAllStringSubmatch(file, -1) {
			all = append(all, strings.TrimSpace(m[1]))
		}
		slices.Sort(all)
		return all
	}
	first := fetch()
	if n := strings.Count(first, "BEGIN:VALARM"); n < 10 || !strings.Contains(first, "DTSTART:20261017T") {
		t.Errorf("%d alarms in\n%.600s", n, first)
	}
	before := identities(first)
	if len(slices.Compact(slices.Clone(before))) != len(before) {
		t.Error("two things have one identity")
	}
	do(t, ctx, Focus(id("flag-Apricot cobbler")), KeyEvent(kb.ArrowRight), idle(), WaitVisible(id("lay")))
	after := identities(fetch())
	same := 0
	for _, uid := range after {
		if slices.Contains(before, uid) {
			same++
		}
	}
	if same < len(before)*8/10 {
		t.Errorf("%d of %d things have kept their identity", same, len(before))
	}
}

// dragBy drags something by its left end, so many pixels to the right.
func dragBy(t testing.TB, ctx context.Context, sel CSS, px float64) {
	t.Helper()
	at, err := Run(ctx, Evaluate[[]float64](fmt.Sprintf(
		`(b => [b.left + 4, b.top + b.height / 2])(document.querySelector(%q).getBoundingClientRect())`, sel)))
	must(t, err)
	do(
		t,
		ctx,
		MouseEvent(MousePressed, at[0], at[1], ButtonLeft),
		MouseEvent(MouseMoved, at[0]+px/2, at[1], ButtonLeft),
		MouseEvent(MouseMoved, at[0]+px, at[1], ButtonLeft),
		MouseEvent(MouseReleased, at[0]+px, at[1], ButtonLeft),
		idle(),
	)
}

// What was left is counted by touches, and a Saturday's sales tell how much to make.
func TestClosing(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+demoSaturday), WaitVisible(id("lay")))
	reads(t, ctx, id("how-many-Damson and apple crumble"), "Make ", "On half of such days")
	do(t, ctx, click(id("count-Plum betty")))
	reads(t, ctx, id("sold-Plum betty"), "sold out, 9 made")
	more := id("sold-Plum betty", ` [data-testid="one-more-left"]`)
	do(t, ctx, click(more), click(more))
	reads(t, ctx, id("sold-Plum betty"), "2 of 9 left")
	do(t, ctx, click(id("undo")))
	reads(t, ctx, id("sold-Plum betty"), "1 of 9 left")
	do(t, ctx, Navigate(url+"/day/2026-10-24"))
	reads(t, ctx, id("how-many-Plum betty"), "a rough estimate")
}
