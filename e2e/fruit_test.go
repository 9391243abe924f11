package e2e

import (
	"testing"

	. "github.com/chromedp/chromedp"
)

// A crate of windfalls, forty covers, one dish: all three are where a baker starts.
func TestStartingFromFruitAndFromPortions(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		Navigate(url),
		click(id("from-fruit")),
		fill(id("start-fruit"), "6 lb"),
		click(id("fruit-gooseberry")),
		click(id("style-crumble")),
	)
	reads(t, ctx, id("option-0"), "portions", "fruit")
	reads(t, ctx, CSS(".options"), "left over")
	do(t, ctx, click(id("start-bought")))
	reads(t, ctx, id("option-0"), "2613 g fruit")
	do(t, ctx, click(id("take-0-0")))
	reads(t, ctx, id("figures"), "Fruit", "spoonable")

	// A dish and an amount of fruit, in one start: the amount is not lost, and may be given either way on the Bench.
	do(
		t,
		ctx,
		act("new"),
		click(id("from-fruit")),
		fill(id("start-fruit"), "800"),
		click(id("start-prepared")),
		click(id("dish-Small stoneware")),
		click(id("fruit-apple_firm")),
		click(id("style-crumble")),
	)
	reads(t, ctx, id("figures"), "Fruit 800 g")
	do(t, ctx, click(id("station-fruit")), click(id("weigh-bought")))
	reads(t, ctx, id("buy"), "Buy")
	do(t, ctx, fill(id("bought"), "500"))
	reads(t, ctx, id("figures"), "Fruit 3")
	do(t, ctx, click(id("undo")))
	reads(t, ctx, id("figures"), "Fruit 800 g")

	do(
		t,
		ctx,
		act("new"),
		click(id("from-portions")),
		fill(id("start-portions"), "10"),
		click(id("start-tasting")),
		click(id("fruit-plum")),
		click(id("style-crisp")),
	)
	reads(t, ctx, id("option-0"), "portions of 110 g", "buy")
	do(t, ctx, fill(id("start-portions"), "300"))
	reads(t, ctx, id("no-way"), "No dish or pair of dishes")
	do(t, ctx, fill(id("start-portions"), "8"), click(id("start-standard")))
	reads(t, ctx, id("option-0"), "portions of 180 g")
	do(t, ctx, click(id("take-0-0")))
	reads(t, ctx, id("figures"), "Portions 8")
}

// From the shop to the dish: count, size, peel, bruises, what is over; acid; dried fruit; cooking it first; leaving
// it to stand; and how juicy it is today. Each moves the figures.
func TestFruitFromShopToDish(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		Navigate(url),
		click(id("dish-Small stoneware")),
		click(id("fruit-apple_watery")),
		click(id("style-crumble")),
		click(id("station-fruit")),
	)
	reads(t, ctx, id("remark-bland"), "lemon juice", "from 1")
	reads(t, ctx, id("buy"), "Buy", "medium")
	buy := text(t, ctx, id("buy"))
	do(t, ctx, click(id("size-apple_watery-small")))
	reads(t, ctx, id("buy"), "small", "left over (prepared)")
	do(t, ctx, click(id("peeled-apple_watery")), fill(id("loss-apple_watery"), "20"))
	reads(t, ctx, id("remark-windfalls"), "cut out bruises")
	changes(t, ctx, id("buy"), buy)

	// Lemon juice against browning: the remark goes, sugar and thickener follow, and it is reported in lemons.
	before := text(t, ctx, id("line-dry-caster_sugar"))
	do(t, ctx, click(id("add-liquids")), click(id("add-liquids-lemon_juice")))
	reads(t, ctx, id("line-fruit-lemon_juice"), "20 g", "from 1/2 lemon")
	changes(t, ctx, id("line-dry-caster_sugar"), before)
	do(t, ctx, click(id("add-extras")), click(id("add-extras-raisins")), fill(id("extras-raisins"), "1/2 cup"))
	reads(t, ctx, id("line-fruit-raisins"), "77 g")

	// Cook it first: each way with its numbers, and the ledger has it.
	do(t, ctx, click(id("school-precook-open")), fill(id("precook"), "10"))
	reads(t, ctx, id("school-precook-open"), "boiled off")
	do(t, ctx, click(id("station-juice")))
	reads(t, ctx, id("ledger-precook_off"), "−")
	do(t, ctx, click(id("undo")), click(id("undo")))

	// Left to stand: kept, left behind, boiled down.
	do(
		t,
		ctx,
		click(id("macerate")),
		click(id("school-macerate-leave")),
		fill(id("macerate-minutes"), "1 h"),
		click(id("macerate-thickener")),
	)
	reads(t, ctx, id("ledger-drained_water"), "removed", "−")
	reads(t, ctx, id("school-macerate-leave"), "of sugar lost", "of thickener lost")
	reads(t, ctx, id("remark-thickener_lost"), "stays behind")
	do(t, ctx, click(id("school-macerate-reduce")))
	reads(t, ctx, id("school-macerate-reduce"), "boiled off")
	do(t, ctx, click(id("school-macerate-keep")))
	reads(t, ctx, id("ledger"), "Juice from the fruit")

	// How juicy is today's crate?
	do(t, ctx, click(id("station-fruit")), click(id("test-apple_watery")), fill(id("test-juice-apple_watery"), "12"))
	reads(t, ctx, CSS(".test"), "hardly more than")
	do(t, ctx, fill(id("test-juice-apple_watery"), "75"))
	reads(t, ctx, id("tested-apple_watery"), "juicier than usual")
	do(t, ctx, click(id("untest-apple_watery")))

	// The bowl overrides it all.
	do(t, ctx, fill(id("weighed"), "800"))
	reads(t, ctx, id("figures"), "800 g")
}

// A slip of the pen is asked about, with what is usual and what was likely meant, and changes nothing.
func TestASlipOnTheBenchIsAskedAbout(t *testing.T) {
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
		click(id("station-fruit")),
		click(id("add-extras")),
		click(id("add-extras-lemon_zest")),
		fill(id("extras-lemon_zest"), "60"),
	)
	reads(
		t,
		ctx,
		id("remark-slip_lemon_zest"),
		"60 g of lemon zest: is that correct",
		"Usual is up to",
		"6 g",
		"Nothing was changed",
	)
	reads(t, ctx, id("line-fruit-lemon_zest"), "60 g", "from 10 lemons")
	do(t, ctx, click(id("station-topping")), fill(id("pct-salt"), "10"))
	reads(t, ctx, id("remark-slip_salt"), "correct?")
	do(t, ctx, click(id("station-bake")), fill(id("oven-c"), "90"), fill(id("minutes"), "5"))
	reads(t, ctx, CSS(".bake"), "Is 90 °C correct?", "Is 5 min in the oven correct?")
}

// Eggs by the fraction: how many to crack, what is left, and for what.
func TestEggsAreCounted(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		Navigate(url),
		click(id("dish-Small stoneware")),
		click(id("fruit-plum")),
		click(id("style-crumble")),
		click(id("station-topping")),
		click(id("add-part")),
		click(id("add-part-egg")),
		fill(id("pct-egg"), "15"),
	)
	reads(t, ctx, id("line-topping-egg"), "crack 1 egg", "left over", "brush it on")
}
