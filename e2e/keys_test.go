package e2e

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"mabbin/app"
	"mabbin/server/demo"

	. "github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// tabTo presses Tab until an element has the focus, and fails where nobody would see that it has.
func tabTo(t *testing.T, ctx context.Context, sel CSS) {
	t.Helper()
	for range 160 {
		do(t, ctx, KeyEvent(kb.Tab))
		at, err := Run(ctx, Evaluate[string](fmt.Sprintf(`(() => {
			const e = document.activeElement
			if (!e || e === document.body) return 'nothing'
			const s = getComputedStyle(e), b = e.getBoundingClientRect(), w = e.closest('.el-input__wrapper, .el-select__wrapper, .el-textarea, label')
			const ring = (x) => x && (getComputedStyle(x).outlineStyle !== 'none' || getComputedStyle(x).boxShadow !== 'none')
			const seen = ring(e) || ring(w) || e.matches('input[type=checkbox], summary')
			if (!seen && b.width > 1) return 'unseen: ' + (e.dataset.testid || e.className || e.tagName) + ' ' + s.outlineStyle
			return e.matches(%q) ? 'here' : ''
		})()`, sel)))
		must(t, err)
		switch {
		case at == "here":
			return
		case strings.HasPrefix(at, "unseen"):
			t.Errorf("on the way to %s: %s", sel, at)
		}
	}
	shot(t, ctx, "/tmp/mabbin-failed-tab.png")
	t.Fatalf("Tab never comes to %s", sel)
}

// press presses a key and waits until what it does is done.
func press(keys string) step { return Steps(KeyEvent(keys), idle()) }

// A new dessert, from its dish to the log, without a pointer: dish, fruit, style, set, topping, bake, ticket, save,
// log.
func TestTheWholePathByKeysAlone(t *testing.T) {
	t.Parallel()
	url, s, _ := kitchenWithClock(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url), WaitVisible(id("dish-Small stoneware")), idle())
	tabTo(t, ctx, id("dish-Small stoneware"))
	do(t, ctx, press(kb.Enter))
	tabTo(t, ctx, id("find-fruit"))
	do(t, ctx, press("damson"+kb.Enter))
	tabTo(t, ctx, id("style-crumble"))
	do(t, ctx, press(kb.Enter))
	reads(t, ctx, id("figures"), "Fruit")

	// The set, by its handle; the topping; undone and done again.
	do(t, ctx, press("3"))
	tabTo(t, ctx, id("set-handle"))
	reads(t, ctx, id("figures"), "Thickener 18 g", "Topping 376 g")
	do(t, ctx, press(kb.ArrowRight+kb.ArrowRight+kb.ArrowRight+kb.ArrowRight+kb.ArrowRight))
	reads(t, ctx, id("figures"), "Thickener 2") // 20 g or more
	do(t, ctx, press("4"))
	tabTo(t, ctx, id("amount-generous"))
	do(t, ctx, press(" "))
	reads(t, ctx, id("figures"), "Topping 489 g")
	do(t, ctx, press("u"))
	reads(t, ctx, id("figures"), "Topping 376 g")
	do(t, ctx, press("r"))
	reads(t, ctx, id("figures"), "Topping 489 g")

	// The bake, the ticket, the card.
	do(t, ctx, press("5"), WaitVisible(id("plan")))
	reads(t, ctx, id("plan"), "min")
	do(t, ctx, press("t"), WaitVisible(id("weigh-next")), press("   "))
	reads(t, ctx, id("weigh-next"), "4 of")
	do(t, ctx, press(kb.Backspace))
	reads(t, ctx, id("weigh-next"), "3 of")
	do(t, ctx, press(kb.Escape), WaitNotPresent(id("weigh-next")), press("s"))
	reads(t, ctx, id("save-state"), "version 1")

	// Into the oven, out of it, into the log.
	do(t, ctx, press("i"), WaitVisible(id("oven-anyway")))
	tabTo(t, ctx, id("oven-anyway"))
	do(t, ctx, press(" "), WaitVisible(id("next-call")), press("d"))
	do(t, ctx, press("b"), WaitVisible(id("figures")), press("w"), WaitVisible(id("log-it")))
	tabTo(t, ctx, id("juice-spoonable"))
	do(t, ctx, press(" "))
	tabTo(t, ctx, CSS("#note"))
	do(t, ctx, press("Keys only"))
	tabTo(t, ctx, id("log-it"))
	do(
		t,
		ctx,
		press(kb.Enter),
		Poll[Void](`![...document.querySelectorAll(".el-dialog")].some((d) => d.checkVisibility())`),
	)
	do(t, ctx, press("l"), WaitVisible(id("open-bake")))
	reads(t, ctx, id("bake-Damson crumble"), "As planned: spoonable", "Keys only")
	page, _, err := s.Bakes(t.Context(), demo.Kitchen.ID, app.BakeFilter{Words: "Keys only"}, nil, 1)
	must(t, err)
	if len(page) != 1 || page[0].CardID == nil || page[0].Version == nil {
		t.Errorf("logged is %+v", page)
	}
}

// A key is changed to one's own, refused where it is taken, kept over a reload, and given back.
func TestKeysAreChanged(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+"/cards"), WaitVisible(id("card-Plum betty")), KeyEvent("?"), WaitVisible(id("key-the log")))
	do(t, ctx, click(id("key-the log")), KeyEvent("b"))
	reads(t, ctx, CSS(`[role="alert"]`), "B is already used for “the Bench”")
	do(t, ctx, click(id("key-the log")), KeyEvent("g"))
	reads(t, ctx, id("key-the log"), "G")
	do(
		t,
		ctx,
		Navigate(url+"/cards"),
		WaitVisible(id("card-Plum betty")),
		KeyEvent("l"),
		idle(),
		KeyEvent("g"),
		WaitVisible(id("open-bake")),
	)
	do(t, ctx, KeyEvent("?"), click(id("usual-keys")))
	reads(t, ctx, id("key-the log"), "L")
}
