package e2e

import (
	"context"
	"os"
	"strings"
	"testing"

	. "github.com/chromedp/chromedp"
)

// axe looks at the page as it stands, and fails the test on what is serious.
func axe(t *testing.T, ctx context.Context, view string) {
	t.Helper()
	src, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	must(t, err)
	do(t, ctx, Evaluate[Void](string(src)))
	found, err := Run(ctx, Evaluate[string](`axe.run(document, { resultTypes: ['violations'] }).then((r) => r.violations
		.filter((v) => v.impact === 'serious' || v.impact === 'critical')
		.flatMap((v) => v.nodes.map((n) => v.id + ' (' + v.impact + '): ' + n.target.join(' ') + ': ' + (n.any[0] ?? n.all[0] ?? n.none[0])?.message))
		.join('\n'))`, EvalAwaitPromise))
	must(t, err)
	for _, line := range strings.Split(found, "\n") {
		if line != "" {
			t.Errorf("%s: %s", view, line)
		}
	}
}

// Every view, light and dark, wide and narrow: nothing serious stands in anybody's way.
func TestNothingStandsInAnybodysWay(t *testing.T) {
	t.Parallel()
	for _, light := range []string{"light", "dark"} {
		t.Run(light, func(t *testing.T) {
			t.Parallel()
			url, _ := kitchen(t)
			ctx := tab(t, 1280, 800)
			look := func(view string, s ...step) {
				t.Helper()
				do(t, ctx, append(s, idle())...)
				axe(t, ctx, view+", "+light)
				if small, err := Run(ctx, Evaluate[string](`[...document.querySelectorAll('main *')]
					.filter((e) => e.checkVisibility() && parseFloat(getComputedStyle(e).fontSize) * (e.getScreenCTM?.()?.a ?? 1) < 11.99 &&
						[...e.childNodes].some((n) => n.nodeType === 3 && n.data.trim()))
					.map((e) => e.textContent.trim().slice(0, 30) + " (" + (parseFloat(getComputedStyle(e).fontSize) * (e.getScreenCTM?.()?.a ?? 1)).toFixed(1) + " px)").slice(0, 5).join(', ')`)); err != nil || small != "" {
					t.Errorf("%s: smaller than 12 px: %s, %v", view, small, err)
				}
				// the Bench is scrolled as a whole: nothing in it has a scroll of its own
				if inner, err := Run(ctx, Evaluate[string](`[...document.querySelectorAll('.bench:not(.weighing) *')]
					.filter((e) => /auto|scroll/.test(getComputedStyle(e).overflowY) && e.scrollHeight > e.clientHeight + 1)
					.map((e) => e.className).join(', ')`)); err != nil || inner != "" {
					t.Errorf("%s: %s scrolls by itself, %v", view, inner, err)
				}
			}
			do(t, ctx, Navigate(url), WaitVisible(id("dish-Small stoneware")))
			if light == "dark" {
				do(t, ctx, click(id("light")))
			}
			everyView(url, look)
			narrow(t, ctx, url, look)
		})
	}
}

// everyView looks at each view as it is on a wide screen, and last at the watch with something on it.
func everyView(url string, look func(string, ...step)) {
	look("rough start", Navigate(url), WaitVisible(id("dish-Small stoneware")))
	look("start from fruit", click(id("from-fruit")))
	look("bench", openCard(url, "Damson and apple crumble"), WaitVisible(id("figures")))
	for _, s := range []string{"dish", "fruit", "juice", "topping", "bake", "finish"} {
		look("bench, "+s, click(id("station-"+s)))
	}
	look("weighing", act("weigh"), WaitVisible(id("weigh-next")))
	look("not weighing", act("weigh"))
	for path, sel := range map[string]CSS{
		"/cards": id("card-Plum betty"), "/cards/import": id("pasted"), "/watch": id("nothing-in"), "/log": id("open-bake"), "/kitchen/dishes": id("dish-Oval glass"), "/kitchen/ovens": id("oven-row-Old range"),
		demoSaturday: id("lay"), "/stock": id("buy-nothing"), "/stock/items": id("stock-butter"), "/kitchen/people": id("add-person"), "/kitchen/fruit": id("row-damson"), "/kitchen/ingredients": CSS("h1"), "/kitchen/units": id("sample"), "/kitchen/backup": id("backup"), "/how-it-bakes": CSS("h1"),
	} {
		look(path, goTo(path), WaitVisible(sel))
	}
	look("a bake in full", goTo("/log"), click(id("open-bake")), WaitVisible(id("why", " h3")))
	look("putting right", click(CSS(`[data-testid^="more-"]`)), click(id("correct")), WaitVisible(id("log-it")))
	look(
		"a card in full",
		goTo("/cards"),
		click(id("more-Gooseberry crumble")),
		WaitVisible(id("versions-beside")),
	)
	look(
		"watch",
		openCard(url, "Gooseberry crumble"),
		click(id("station-bake")),
		WaitVisible(id("verdict")),
		act("into-oven"),
		WaitVisible(id("next-call")),
	)
	look("watch, in trouble", click(id("trouble")), click(id("probe-middle")), click(id("simulation")))
}

// narrow looks at the main views on a phone, where nothing may be wider than it is.
func narrow(t *testing.T, ctx context.Context, url string, look func(string, ...step)) {
	t.Helper()
	for path, sel := range map[string]CSS{"/": id("figures"), "/cards": id("card-Plum betty"), "/watch": id("next-call"), "/log": id("open-bake"), demoSaturday: id("lay"), "/stock/items": id("stock-butter"), "/kitchen/dishes": id("dish-Oval glass")} {
		look(path+", phone", EmulateViewport(390, 844, EmulateMobile), goTo(path), WaitVisible(sel))
		if wide, err := Run(ctx, Evaluate[int](`document.documentElement.scrollWidth`)); err != nil || wide > 390 {
			t.Errorf("%s is %d px wide on a phone of 390: %v", path, wide, err)
		}
	}
}
