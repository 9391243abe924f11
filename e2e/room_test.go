package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/cdproto/emulation"
	. "github.com/chromedp/chromedp"
)

// collisions are the words on the page that run over other words, or out of the window at its side.
const collisions = `(() => {
	const known = new Map();
	// seen is where what is in an element can be seen at all, and whether that is scrolled, or put over the page.
	const seen = (e) => {
		if (!e) return { left: -1e9, top: -1e9, right: 1e9, bottom: 1e9, laid: false, scrolled: false };
		if (known.has(e)) return known.get(e);
		const is = { ...seen(e.parentElement) }, s = getComputedStyle(e);
		if (s.position === 'sticky' || s.position === 'fixed') is.laid = true;
		if (s.overflowX !== 'visible' && e !== document.documentElement && e !== document.body) {
			const b = e.getBoundingClientRect();
			Object.assign(is, { left: Math.max(is.left, b.left), top: Math.max(is.top, b.top), scrolled: true });
			Object.assign(is, { right: Math.min(is.right, b.right), bottom: Math.min(is.bottom, b.bottom) });
		}
		known.set(e, is);
		return is;
	};
	const shown = [];
	const walk = document.createTreeWalker(document.querySelector('main'), NodeFilter.SHOW_TEXT);
	for (let n; (n = walk.nextNode()); ) {
		if (!n.data.trim()) continue;
		const of = n.parentElement;
		if (of.closest('svg, .visually-hidden, [aria-hidden="true"], canvas') || !of.checkVisibility({ visibilityProperty: true, opacityProperty: true })) continue;
		const { left, top, right, bottom, laid, scrolled } = seen(of);
		if (laid) continue;
		const range = document.createRange();
		range.selectNodeContents(n);
		for (const r of range.getClientRects()) {
			const b = { l: Math.max(r.left, left), t: Math.max(r.top, top), r: Math.min(r.right, right), b: Math.min(r.bottom, bottom), n, says: n.data.trim().slice(0, 40), scrolled };
			if (b.r - b.l > 3 && b.b - b.t > 3) shown.push(b);
		}
	}
	shown.sort((a, b) => a.t - b.t);
	const found = shown.filter((b) => !b.scrolled && b.r > innerWidth + 1).map((b) => 'out at the side: ' + b.says);
	shown.forEach((a, i) => {
		for (let j = i + 1; j < shown.length && shown[j].t < a.b; j++) {
			const b = shown[j], w = Math.min(a.r, b.r) - Math.max(a.l, b.l), h = Math.min(a.b, b.b) - Math.max(a.t, b.t);
			if (a.n !== b.n && w > 3 && h > 0.4 * Math.min(a.b - a.t, b.b - b.t)) found.push('"' + a.says + '" on "' + b.says + '"');
		}
	});
	return found.slice(0, 12).join('\n');
})()`

// Words keep clear of each other in every view: for readers with large type, at twice the size, by tablet and on a
// phone.
func TestWordsKeepClearOfEachOther(t *testing.T) {
	t.Parallel()
	large, stop, err := chromium(t.TempDir(), Flag("blink-settings", "defaultFontSize=24"))
	must(t, err)
	t.Cleanup(stop)
	url, _ := kitchen(t)
	views := map[string]CSS{
		"/":               id("figures"),
		"/cards":          id("card-Plum betty"),
		"/watch":          id("nothing-in"),
		"/log":            id("open-bake"),
		demoSaturday:      id("lay"),
		"/stock":          id("buy-nothing"),
		"/stock/items":    id("stock-butter"),
		"/kitchen/dishes": id("dish-Oval glass"),
		"/kitchen/ovens":  id("oven-row-Old range"),
		"/kitchen/people": id("add-person"),
		"/kitchen/fruit": id(
			"row-damson",
		),
		"/kitchen/ingredients": id("row-butter"),
		"/kitchen/units":       id("sample"),
		"/kitchen/backup":      id("backup"),
	}
	stations := []string{"dish", "fruit", "juice", "topping", "bake", "finish"}
	for _, as := range []struct {
		name     string
		large    bool
		american bool
		sizes    [][2]int64
	}{
		{"24 px type", true, false, [][2]int64{{1280, 800}}},
		{"twice the size, and a phone", false, false, [][2]int64{{640, 400}, {390, 844}}},
		{"American, and on a tablet", false, true, [][2]int64{{1280, 800}, {1024, 768}}},
	} {
		t.Run(as.name, func(t *testing.T) {
			in := browser
			if as.large {
				in = large
			}
			ctx := tabOf(t, in, as.sizes[0][0], as.sizes[0][1])
			if as.american {
				do(
					t,
					ctx,
					Navigate(url+"/kitchen/units"),
					click(id("english-us")),
					click(id("heat-f")),
					click(id("weights-spoons")),
					click(id("lengths-in")),
				)
			}
			do(t, ctx, openCard(url, "Damson and apple crumble"))
			look := func(view string, to ...step) {
				t.Helper()
				do(t, ctx, append(to, idle())...)
				for _, size := range as.sizes {
					do(t, ctx, EmulateViewport(size[0], size[1]), idle())
					found, err := Run(ctx, Evaluate[string](collisions))
					must(t, err)
					if found != "" {
						t.Errorf("%s, %d × %d:\n%s", view, size[0], size[1], found)
					}
				}
			}
			for path, sel := range views {
				look(path, goTo(path), WaitVisible(sel))
			}
			do(t, ctx, goTo("/"))
			for _, s := range stations {
				look("station "+s, click(id("station-"+s)))
			}
		})
	}
}

// What has changed is marked, not what came with the page, and the marks go by themselves.
func TestChangedFiguresAreMarkedForAMoment(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, openCard(url, "Damson and apple crumble"), WaitNotPresent(CSS(".moved")))
	do(t, ctx, Navigate(url), WaitVisible(id("figures")), idle())
	if n, err := Run(ctx, Evaluate[int](`document.querySelectorAll('.moved').length`)); err != nil || n != 0 {
		t.Errorf("%d figures are marked as the page opens (%v)", n, err)
	}
	do(t, ctx, click(id("station-juice")), click(id("sweetness-tart")))
	do(t, ctx, WaitVisible(CSS(`[data-testid="figures"] .moved`)))
	do(t, ctx, WaitNotPresent(CSS(".moved")))
}

// A sheet printed from the Bench tells the heat, the minutes and the hour, though the bake is only proposed, and is
// light.
func TestThePrintedTicket(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	var n touches
	do(
		t,
		ctx,
		Navigate(url+"/kitchen/units"),
		click(id("light")),
		openCard(url, "Gooseberry crumble"),
		click(id("station-bake")),
		click(id("propose")),
		click(id("ready-by")),
		n.hour(id("ready-hour"), "19:00"),
		WaitVisible(id("ready-says")),
		KeyEvent("\x1b"),
	)
	_, err := Call(ctx, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{Media: "print"})
	must(t, err)
	reads(
		t,
		ctx,
		CSS("main"),
		"Gooseberry crumble",
		"Comes out right",
		" min at 190 °C.",
		"In at ",
		"ready at",
		"Method",
		"☐",
	)
	controls := `[...document.querySelectorAll('button, input, select, .handle')].filter((e) => e.getClientRects().length).map((e) => e.outerHTML).join(', ')`
	if on, err := Run(ctx, Evaluate[string](controls)); err != nil || on != "" {
		t.Errorf("controls on paper: %s (%v)", on, err)
	}
	if c, err := Run(
		ctx,
		Evaluate[string](`getComputedStyle(document.querySelector('.ticket')).backgroundColor`),
	); err != nil ||
		c != "rgb(250, 252, 252)" {
		t.Errorf("the paper is %s (%v)", c, err)
	}
}

// One verdict in one wording: on the tile, on the Bench and on the watch.
func TestOneVerdictEverywhere(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, openCard(url, "Gooseberry crumble"), WaitVisible(id("verdict")))
	reads(t, ctx, id("verdict"), "Comes out right")
	says := strings.TrimSpace(strings.TrimPrefix(text(t, ctx, id("verdict")), "✓"))
	do(t, ctx, Navigate(url+"/cards"))
	reads(t, ctx, id("card-Gooseberry crumble"), says)
	do(t, ctx, openCard(url, "Gooseberry crumble"), act("into-oven"))
	reads(t, ctx, id("watched-verdict"), says)
}
