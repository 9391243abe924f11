package e2e

import (
	"testing"

	. "github.com/chromedp/chromedp"
)

// What goes with the fruit is offered with its grams, put in by a touch, and taken back.
func TestWhatGoesWithTheFruit(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		openCard(url, "Damson and apple crumble"),
		click(id("station-fruit")),
		click(id("goes-with")),
	)
	reads(t, ctx, id("pairings"), "season in the north", "Spices", "Serve with")
	do(t, ctx, click(id("offer-hazelnuts")))
	reads(t, ctx, id("line-fruit-hazelnuts"), "Hazelnuts")
	do(t, ctx, WaitNotPresent(id("offer-hazelnuts")), click(id("undo")), WaitVisible(id("offer-hazelnuts")))
	do(t, ctx, WaitNotPresent(id("line-fruit-hazelnuts")), click(id("offer-blackberry")))
	reads(t, ctx, id("line-fruit-blackberry"), "Blackberry")
	reads(t, ctx, id("buy"), "blackberry")
	do(t, ctx, act("weigh"))
	reads(t, ctx, id("method"), "Suitable for a helper or child", "Scrape all", "min at 190")
}

// A dish can be bare, crumbs can lie between the fruit, and either is reported and taken back.
func TestBareAndBetween(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		openCard(url, "Rhubarb and strawberry crumble"),
		click(id("station-topping")),
		click(id("layers-2")),
	)
	reads(t, ctx, id("station-topping"), "7 mm")
	do(t, ctx, act("weigh"))
	reads(t, ctx, id("method"), "2 layers of", "with fruit between")
	do(t, ctx, act("weigh"), click(id("topping")), click(id("topping-none")), WaitNotPresent(id("bowl-topping")))
	reads(t, ctx, id("station-topping"), "no topping")
	reads(t, ctx, id("verdict"), "fruit")
	do(t, ctx, click(id("undo")), WaitVisible(id("bowl-topping")))
	reads(t, ctx, id("bowl-topping"), "equal weights")
}

// A base is sealed with egg, its rim crimped, and shapes are cut from what is kept back; bought pastry is not made.
func TestABaseInItsWays(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		openCard(url, "Pear and redcurrant seed pie"),
		click(id("station-topping")),
		click(id("egg-seal")),
	)
	reads(t, ctx, id("bowl-seal"), "Egg", "To seal the base")
	do(t, ctx, click(id("crimped")), fill(id("cut-cut_outs"), "12"))
	reads(t, ctx, id("plan-shell"), "crimp it", "12 cut-outs of 3 cm")
	do(t, ctx, click(id("base")), click(id("base-bought_shortcrust")))
	reads(t, ctx, id("bowl-base"), "Shortcrust pastry sheet")
	do(t, ctx, act("weigh"))
	reads(t, ctx, id("method"), "unroll it", "Brush the inside of the base")
}

// What is at hand changes the method, a small bowl makes lots of it, and a lighter way shows its price.
func TestToolsAndLighterWays(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		openCard(url, "Gooseberry crumble"),
		click(id("station-topping")),
		click(id("disagree-fat")),
		click(id("way-tool-processor")),
		fill(id("bowl-ml"), "500"),
		act("weigh"),
	)
	reads(t, ctx, id("method"), "Pulse the cold fat", "batches: fill the bowl to 60 %")
	do(t, ctx, act("weigh"), click(id("station-finish")), click(id("disagree-lighter")))
	reads(t, ctx, id("way-lighter-fat"), "a fifth less butter", "a portion has", "browning", "less crunch")
	do(t, ctx, click(id("way-lighter-topping")))
	reads(t, ctx, id("carrying"), "leave the lid open", "Re-crisp it on arrival")
	do(t, ctx, click(id("station-topping")), WaitVisible(CSS(`[data-testid="amount-light"][aria-pressed="true"]`)))
	do(t, ctx, click(id("station-juice")), click(id("sugar-key")), click(id("sugar-key-dark_brown_sugar")))
	reads(t, ctx, id("line-dry-dark_brown_sugar"), "Dark brown sugar")
}

// What bakers do about frozen fruit is shown with its minutes, and taken by a touch: with fewer minutes to the boil, the
// card's own do.
func TestFrozenFruit(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, openCard(url, "Freezer cherry crisp"), click(id("station-bake")), click(id("disagree-cover")))
	reads(t, ctx, id("verdict"), "the middle does not bubble")
	for _, way := range []string{"as_it_is", "stand", "thaw", "warm", "wider"} {
		reads(t, ctx, id("way-frozen-"+way), "bubbles after")
	}
	do(t, ctx, click(id("way-frozen-thaw")),
		WaitVisible(CSS(`[data-testid="way-frozen-thaw"][aria-pressed="true"]`)))
	reads(t, ctx, id("verdict"), "Comes out right")
	do(t, ctx, click(id("undo")))
	reads(t, ctx, id("verdict"), "the middle does not bubble")
}

// Over coals: the ring is drawn, two pots share the coals between them, lumps go by the eye, and nothing is covered.
func TestOverCoals(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		openCard(url, "Pear pandowdy"),
		click(id("station-bake")),
		WaitVisible(id("cover-0-foil")),
		click(id("oven")),
		click(id("oven-Yard camp oven")),
		WaitVisible(id("rings")),
		WaitNotPresent(id("cover-0-foil")),
	)
	reads(t, ctx, id("rings"), "On the lid", "Below")
	reads(t, ctx, id("hand"), "4 to 6 seconds", "use a thermometer")
	do(t, ctx, click(id("stacked")), click(id("fuel-lumps")))
	reads(t, ctx, id("rings"), "Between")
	reads(t, ctx, id("fire"), "Lump wood is not counted", "Two pots", "three pebbles")
}
