package e2e

import (
	"strings"
	"testing"

	. "github.com/chromedp/chromedp"
)

// What a portion costs, by the kitchen's own prices; what has none is named, and a price given on the Shelf counts.
func TestWhatAPortionCosts(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, openCard(url, "Gooseberry crumble"), click(id("station-finish")))
	reads(
		t,
		ctx,
		id("cost"),
		"per portion",
		"for 8: ingredients €",
		"oven €",
		"packaging €",
		"Largest items: gooseberry",
		"butter",
	)
	do(t, ctx, click(id("cost-others")))
	reads(
		t,
		ctx,
		id("other-costs"),
		"in Long gratin",
		"less",
		"in Ramekin",
		"more",
		"Butter: plant-based baking block",
		"no price",
	)
	reads(t, ctx, id("sells-for"), "Sold at €", "ingredients are", "of it")
	do(t, ctx, openCard(url, "Pear pandowdy"), click(id("station-finish")))
	reads(t, ctx, id("cost"), "for what has a price", "Without one", "pear")
	do(t, ctx, Navigate(url+"/stock/items"), fill(id("rate-minor_per_h"), "18"))
	do(t, ctx, openCard(url, "Gooseberry crumble"), click(id("station-finish")))
	reads(t, ctx, id("cost"), "hands €")
	before := text(t, ctx, id("cost", " .sum"))

	// What is baked today keeps today's cost, whatever butter costs tomorrow.
	cost := func() string {
		do(t, ctx, Navigate(url+"/log"), fill(id("log-words"), "gooseberry"), click(id("open-bake")))
		return text(t, ctx, id("bake-cost"))
	}
	do(t, ctx, act("baked"), click(id("log-it")), WaitNotVisible(id("baked-it")), idle())
	that := cost()
	if !strings.Contains(that, "€") || !strings.Contains(that, "per portion, at the prices of that day") {
		t.Errorf("%q", that)
	}
	do(t, ctx, Navigate(url+"/kitchen/ingredients"), click(id("row-butter")), fill(id("own-price_per_kg"), "19"))
	do(t, ctx, openCard(url, "Gooseberry crumble"), click(id("station-finish")))
	reads(t, ctx, id("cost"), "per portion", "Largest items: gooseberry")
	if now := text(t, ctx, id("cost", " .sum")); now == before {
		t.Errorf("with butter at more than twice its price it still costs %s", now)
	}
	if now := cost(); now != that {
		t.Errorf("baked at %s, and now it was %s", that, now)
	}
}

// What is in a portion follows the dessert: more sugar, more energy.
func TestWhatIsInAPortion(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, openCard(url, "Gooseberry crumble"), click(id("station-finish")), click(id("nutrients")))
	reads(
		t,
		ctx,
		id("nutrition"),
		"kcal per portion of",
		"of which saturates",
		"of which sugars",
		"estimate from composition tables",
	)
	before := text(t, ctx, id("nutrition", " .sum"))
	do(t, ctx, click(id("station-juice")), click(id("sweetness-sweet")), click(id("station-finish")))
	changes(t, ctx, id("nutrition", " .sum"), before)
}
