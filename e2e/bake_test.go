package e2e

import (
	"strings"
	"testing"

	"mabbin/app"
	"mabbin/server/demo"

	"github.com/chromedp/cdproto/page"
	. "github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// A dessert that will not come out right is not put into the oven without a word, and asked about once.
func TestTheOvenIsAskedAboutOnce(t *testing.T) {
	t.Parallel()
	url, s := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, openCard(url, "Damson and apple crumble"), click(id("station-bake")), fill(id("minutes"), "25"))
	reads(t, ctx, id("verdict"), "the top is pale", "min more")
	do(t, ctx, act("into-oven"))
	reads(t, ctx, id("ask-oven"), "Start the bake?", "the top is pale", "min more")
	do(t, ctx, click(id("ask-mend")))
	reads(t, ctx, id("verdict"), "Comes out right")
	if w, err := s.Watched(t.Context(), demo.Kitchen.ID); err != nil || len(w) != 0 {
		t.Errorf("%d desserts are in the oven, %v", len(w), err)
	}
	// As it is, all the same; and what comes out right goes in without a question.
	do(
		t,
		ctx,
		fill(id("minutes"), "24"),
		act("into-oven"),
		click(id("oven-anyway")),
		WaitVisible(id("watched-Damson and apple crumble")),
		click(id("off-the-watch")),
		WaitVisible(id("nothing-in")),
	)
	do(
		t,
		ctx,
		openCard(url, "Apricot cobbler"),
		WaitVisible(id("verdict")),
		idle(),
		act("into-oven"),
		WaitVisible(id("watched-Apricot cobbler")),
	)
	// On the Bench again it asks how it came out.
	do(t, ctx, Navigate(url), click(id("baked")), WaitVisible(id("baked-it")))
}

// The simulated bake: proposed, read by pointer and keys, stretched, covered, split, kept with the card.
func TestTheBakeOnTheBench(t *testing.T) {
	t.Parallel()
	url, s := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		Navigate(url),
		click(id("dish-Small stoneware")),
		click(id("fruit-gooseberry")),
		click(id("style-crumble")),
		click(id("station-bake")),
	)
	reads(t, ctx, id("plan"), "Proposed:", "Start checking", "Let it stand")
	reads(t, ctx, id("plan-end"), "starch 100 % set", "fruit tender", "lost as steam")
	reads(t, ctx, id("station-bake"), "proposed:")

	// Read the curves by the pointer and by keys.
	do(t, ctx, Focus(id("scrubber")), KeyEvent(kb.ArrowRight+kb.ArrowRight), idle())
	reads(t, ctx, id("reading"), "2 min: middle", "floor")
	do(t, ctx, Click(id("scrubber")), idle())
	reads(t, ctx, id("reading"), "min: middle")
	// The cutaway follows: warm, then bubbling at the rim, then at the middle.
	reads(t, ctx, id("cut-at"), "warming up")
	do(t, ctx, Focus(id("scrubber")), KeyEvent(strings.Repeat(kb.ArrowRight, 15)), idle())
	reads(t, ctx, id("cut-at"), "rim bubbling")
	do(t, ctx, Focus(id("scrubber")), KeyEvent(strings.Repeat(kb.ArrowRight, 40)), idle())
	reads(t, ctx, id("cut-at"), "middle bubbling")
	do(t, ctx, click(id("at-table")), WaitNotPresent(id("moment")))

	// Kept with the card, the stages are its own; a stage is stretched by keys and covered.
	do(t, ctx, click(id("take-plan")))
	reads(t, ctx, id("plan"), "As entered:")
	reads(t, ctx, id("strip"), "180 °C, 54 min")
	do(t, ctx, Focus(id("stage-0")), KeyEvent(kb.ArrowLeft+kb.ArrowLeft), idle())
	reads(t, ctx, id("strip"), "180 °C, 52 min")
	do(t, ctx, click(id("cover-0-foil")))
	reads(t, ctx, id("strip"), "foil, 52 min")
	do(t, ctx, fill(id("stage-c-0"), "gas 2"), fill(id("stage-min-0"), "20"))
	reads(t, ctx, id("strip"), "150 °C", "foil, 20 min")
	do(t, ctx, click(id("split-0")))
	reads(t, ctx, id("strip"), "foil, 10 min")
	do(t, ctx, fill(id("dessert-name"), "Baked on paper"), click(id("save")))
	reads(t, ctx, id("save-state"), "version 1")
	cards, _, err := s.Cards(t.Context(), demo.Kitchen.ID, app.CardFilter{})
	must(t, err)
	if n := len(cards[0].Versions[0].Stages); n < 2 || cards[0].Versions[0].Stages[0].Cover != "foil" {
		t.Errorf("%d stages are kept: %+v", n, cards[0].Versions[0].Stages)
	}

	// A boiling filling in a hot skillet bubbles sooner.
	do(t, ctx, click(id("filling-boiling")), click(id("dish-start-hot from the stove")))
	do(
		t,
		ctx,
		Poll[Void](
			`document.querySelector('[data-testid="strip"] svg').getAttribute('aria-label').match(/middle bubbles after (\d+)/)?.[1] < 40`,
		),
	)

	// Baked as written, a bake that can't come out says so.
	do(t, ctx, openCard(url, "Freezer cherry crisp"), click(id("station-bake")),
		fill(id("minutes"), "40"))
	reads(t, ctx, id("unmet"), "middle does not bubble", "fruit is hard")
	do(t, ctx, click(id("propose")))
	reads(t, ctx, id("plan"), "Proposed:")
	if words := text(t, ctx, id("plan")); strings.Contains(words, "As entered") {
		t.Error(words)
	}
	do(t, ctx, click(id("undo")))
	reads(t, ctx, id("station-bake"), "165 °C, 40 min")
}

// One touch changes one thing: the other bake is dotted on the strip, what moves is reported, the card stays as it is.
func TestWhatIf(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		Navigate(url),
		click(id("dish-Small stoneware")),
		click(id("fruit-gooseberry")),
		click(id("style-crumble")),
		click(id("station-bake")),
		click(id("if-cold")),
	)
	reads(t, ctx, id("what-moves"), "fruit straight from the fridge", "middle bubbles", "golden")
	do(t, ctx, WaitVisible(id("ghost")), Click(id("scrubber")), idle())
	reads(t, ctx, id("reading"), "fruit straight from the fridge (dotted)")
	moves := text(t, ctx, id("what-moves"))
	for _, w := range [][2]string{{"dish", "thin metal"}, {"cooler", "20 °C less"}, {"foil", "first half"}, {"shallow", "shallower, wider"}, {"fan", "with the fan"}} {
		do(t, ctx, click(id("if-"+w[0])))
		reads(t, ctx, id("what-moves"), w[1])
		changes(t, ctx, id("what-moves"), moves)
	}
	reads(t, ctx, id("plan"), "Proposed:")
	do(t, ctx, click(id("hold")), click(id("take-plan")), fill(id("stage-min-0"), "20"))
	reads(t, ctx, id("what-moves"), "the plan kept to compare")
	do(t, ctx, click(id("forget")))
	do(t, ctx, WaitNotPresent(id("ghost")))
}

// searchesNeverEnd lets the page's searches for better stages be under way until they are broken off.
const searchesNeverEnd = `window.searches = 0
window.fetch = ((real) => async (r, init) => {
	const asked = r instanceof Request && r.url.includes('/api/v1/bench') ? await r.clone().json() : {}
	if (!asked.standing || asked.keep) return real(r, init)
	window.searches++
	return new Promise((_, gone) => r.signal.addEventListener('abort', () => gone(r.signal.reason)))
})(window.fetch)`

// Better stages are looked for once nothing changes any more. What is changed meanwhile does not wait for them.
func TestAChangeDoesNotWaitForASearch(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	_, err := Call(ctx, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{
		Source: searchesNeverEnd,
	})
	must(t, err)
	do(t, ctx, openCard(url, "Gooseberry crumble"), click(id("station-bake")), click(id("propose")))
	reads(t, ctx, id("plan"), "Proposed:")
	firmer := Evaluate[Void](`document.querySelector('[data-testid="set-handle"]').dispatchEvent(
		new KeyboardEvent('keydown', { key: 'ArrowRight', shiftKey: true, bubbles: true })), undefined`)
	do(t, ctx, click(id("station-juice")), firmer, Poll[Void](`window.searches > 0`))
	was := text(t, ctx, id("line-dry-cornflour"))
	do(t, ctx, firmer)
	changes(t, ctx, id("line-dry-cornflour"), was)
}
