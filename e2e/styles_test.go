package e2e

import (
	"testing"

	. "github.com/chromedp/chromedp"
)

// Each style of the family, begun by three touches: its own topping and base, its band, its layers.
func TestEveryStyleIsBegunByThreeTouches(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	for _, c := range []struct{ dish, fruit, style, stands, topping, base string }{
		{"Small stoneware", "plum", "crumble", "spoonable", "Rubbed-in crumble", ""},
		{"Small stoneware", "plum", "crisp", "spoonable", "Oat and nut crisp", ""},
		{"Iron skillet", "apricot", "cobbler", "saucy", "Drop biscuit", ""},
		{"Iron skillet", "pear_firm", "pandowdy", "saucy", "Puff pastry", ""},
		{"Square tin", "plum", "betty", "saucy", "Buttered fresh breadcrumbs", ""},
		{"Square tin", "fig", "bar", "slices", "Crumble bar dough", "Crumble bar dough, pressed"},
		{"Rolled-rim pie dish", "apple_sharp", "pie", "slices", "Coarse streusel", "Shortcrust shell"},
	} {
		do(t, ctx, Navigate(url), click(id("dish-"+c.dish)), click(id("fruit-"+c.fruit)), click(id("style-"+c.style)))
		reads(t, ctx, id("figures"), c.stands)
		reads(t, ctx, id("bowl-topping"), c.topping)
		if c.base != "" {
			reads(t, ctx, id("bowl-base"), c.base)
		}
		do(t, ctx, act("new"))
	}
}

// A cobbler lives by its water: texture, liquid, mix, and what is folded in.
func TestABiscuitFollowsItsLiquid(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		Navigate(url),
		click(id("dish-Iron skillet")),
		click(id("fruit-apricot")),
		click(id("style-cobbler")),
		click(id("station-topping")),
	)
	reads(t, ctx, id("dough"), "Hydration 90 %", "drops from a spoon")
	reads(t, ctx, id("line-topping-whole_milk"), "by feel")
	butter := text(t, ctx, id("line-topping-butter"))
	do(t, ctx, click(id("liquid-instead")), click(id("instead-heavy_cream")))
	reads(t, ctx, id("line-topping-heavy_cream"), "cream")
	changes(t, ctx, id("line-topping-butter"), butter)
	do(t, ctx, click(id("dough-rolls")))
	reads(t, ctx, id("dough"), "Hydration 65 %", "rolls out and cuts")
	reads(t, ctx, id("remark-dough_rolls"), "change the hydration")
	do(t, ctx, fill(id("hydration"), "200"))
	reads(t, ctx, id("dough"), "a runny batter")
	do(t, ctx, click(id("dough-drops")), click(id("liquid-mix")), click(id("mix-buttermilk")))
	reads(t, ctx, id("line-topping-bicarbonate"), "Bicarbonate")
	do(t, ctx, click(id("add-part")), click(id("add-part-cheddar")), fill(id("pct-cheddar"), "30"))
	reads(t, ctx, id("line-topping-cheddar"), "cheese")
	// savoury: no sugar in the filling
	do(t, ctx, click(id("station-juice")), click(id("sweetness-savoury")))
	reads(t, ctx, id("figures"), "Sugar 0 g")
	do(
		t,
		ctx,
		click(id("station-topping")),
		click(id("add-part")),
		click(id("add-part-fresh_herbs")),
		fill(id("pct-fresh_herbs"), "3"),
	)
	reads(t, ctx, id("line-topping-fresh_herbs"), "herbs")
	// what went in of the liquid is kept with the bake
	do(
		t,
		ctx,
		act("baked"),
		fill(id("went-in-buttermilk"), "90 g"),
		fill(id("note"), "Sticky"),
		click(id("log-it")),
		Navigate(url+"/log"),
	)
	reads(t, ctx, CSS("main"), "90 g of", "buttermilk went in. Sticky")
}

// Bars with a custard, a pie with crumbs under and praline late, finishes, the check before the door, and the method.
func TestBasesCustardLateToppingsAndFinish(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, openCard(url, "Raspberry cream bars"))
	reads(t, ctx, id("bowl-custard"), "Egg", "crack 3 eggs", "Cornflour")
	reads(t, ctx, id("figures"), "slices")
	do(t, ctx, click(id("station-juice")), fill(id("custard-egg"), "0"), fill(id("custard-flour"), "0"))
	reads(t, ctx, id("problem"), "will not set")
	do(t, ctx, click(id("undo")), click(id("undo")), click(id("station-bake")))
	reads(t, ctx, CSS(".bake"), "71 °C or more", "within 2 hours")

	do(
		t,
		ctx,
		openCard(url, "Pear and redcurrant seed pie"),
		click(id("station-topping")),
	)
	reads(t, ctx, id("remark-wet_base"), "Prick it and line it")
	reads(t, ctx, id("bowl-late1"), "Toffee nuts")
	do(t, ctx, click(id("station-finish")))
	reads(t, ctx, CSS(".finish"), "On top, before baking", "On top, after baking")
	do(t, ctx, click(id("finish-egg_wash")), click(id("finish-icing_sugar")))
	reads(t, ctx, id("colour"), "1.3 ×")
	reads(t, ctx, id("bowl-before"), "Egg")
	reads(t, ctx, id("bowl-after"), "Icing sugar")
	portions := text(t, ctx, CSS(".finish"))
	do(t, ctx, click(id("portion-hearty")))
	reads(t, ctx, id("beside"), "pouring cream", "warm custard")
	changes(t, ctx, CSS(".finish"), portions)
	reads(t, ctx, id("ahead"), "Shortcrust shell", "frozen 1 month")
	reads(t, ctx, id("leftovers"), "trimmings", "fruit juice")
	do(t, ctx, act("weigh"))
	reads(t, ctx, id("method"), "Make the base", "line the dish", "Heap the fruit", "Cut it lukewarm")
	reads(t, ctx, id("checks"), "Spice and flavour", "Egg wash", "oven is up to temperature", "rim is wiped")
	do(t, ctx, click(id("check-tray")), act("weigh"))

	// Another style for the same fruit brings its own topping, and undo brings all of it back.
	do(t, ctx, click(id("station-dish")), click(id("to-cobbler")))
	reads(t, ctx, id("bowl-topping"), "Drop biscuit")
	do(t, ctx, click(id("undo")))
	reads(t, ctx, id("bowl-base"), "Shortcrust shell")
}

// The same dessert in another dish, and in several at once: never one factor.
func TestTheSameInAnotherDish(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		openCard(url, "Damson and apple crumble"),
		click(id("station-dish")),
		click(id("other")),
		click(id("more-Long gratin")),
	)
	reads(t, ctx, id("other-Long gratin"), "simple scaling", "difference", "Topping", "portions")
	reads(t, ctx, id("other-left"), "more prepared fruit than the card")
	do(t, ctx, click(id("more-Ramekin")), click(id("more-Ramekin")))
	reads(t, ctx, id("other-Ramekin"), "2 × Ramekin", "In each")
	do(t, ctx, fill(id("crowd-portions"), "40"), click(id("crowd")))
	reads(
		t,
		ctx,
		id("crowd-says"),
		"1 × Long gratin",
		"extra",
		"Topping for all",
		"follow yours",
		"Carry dishes level",
	)
	do(t, ctx, fill(id("crowd-portions"), "400"), click(id("crowd")))
	reads(t, ctx, id("crowd-says"), "too few. Bake twice")
	do(t, ctx, click(id("take-Long gratin")))
	reads(t, ctx, id("station-dish"), "32 × 22 cm")
	do(t, ctx, click(id("undo")))
	reads(t, ctx, id("station-dish"), "30 × 21 cm oval")
}

// A diet: what changes, what it costs, what stays and what the label has to tell.
func TestChangingACardForADiet(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		openCard(url, "Pear pandowdy"),
		click(id("diet")),
		click(id("diet-nut_free")),
	)
	reads(t, ctx, id("diet-fits"), "No change needed")
	do(t, ctx, click(id("diet-gluten_free")), click(id("diet-vegan")))
	reads(
		t,
		ctx,
		id("diet-changes"),
		"plain flour → cornflour",
		"shortcrust pastry sheet or ready shell stays",
		"no known swap",
		"butter → oil",
	)
	reads(t, ctx, id("diets"), "does not rule out cross-contact", "Check the label")
	do(t, ctx, click(id("take-diet")))
	reads(t, ctx, id("bowl-dry"), "Cornflour")
	do(t, ctx, click(id("undo")))
	reads(t, ctx, id("bowl-dry"), "Plain flour")

	// One's own sheet, by its label, has the remedy.
	do(
		t,
		ctx,
		Navigate(url+"/kitchen/ingredients"),
		fill(id("find-row"), "shortcrust"),
		click(id("row-shortcrust_pastry")),
		click(id("copy")),
		fill(id("own-name"), "Sheet without gluten"),
		click(id("own-keep")),
	)
	reads(t, ctx, CSS(".edit"), "based on shortcrust pastry sheet", "Allergens (from the label)")
}

// Cutting plans are drawn on the dish, and odd sizes answer sensibly.
func TestCuttingPlans(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, openCard(url, "Fig and orange bars"), click(id("station-topping")))
	reads(t, ctx, id("plan-bars"), "pieces of", "wipe the knife")
	do(t, ctx, fill(id("cut-long"), "6"), fill(id("cut-wide"), "3"))
	reads(t, ctx, id("plan-bars"), "6 by 3: 18 pieces")
	do(
		t,
		ctx,
		openCard(url, "Pumpkin and sweetcorn cobbler"),
		click(id("station-topping")),
	)
	reads(t, ctx, id("plan-biscuits"), "of 6 cm", "from the scraps")
	do(t, ctx, fill(id("cut-cutter_cm"), "40"))
	reads(t, ctx, id("plan-biscuits"), "wider than the dish")
	do(t, ctx, click(id("dough-drops")))
	reads(t, ctx, id("plan-drops"), "spoonfuls", "gaps for the steam")
	do(t, ctx, click(id("topping")), click(id("topping-pastry_lid")))
	reads(t, ctx, id("plan-lid"), "vents")
	do(t, ctx, click(id("lattice")))
	reads(t, ctx, id("plan-lattice"), "strips")
	do(
		t,
		ctx,
		openCard(url, "Pear and redcurrant seed pie"),
		click(id("station-topping")),
	)
	reads(t, ctx, id("plan-shell"), "a disc of 31 cm", "dried beans")
}

// An ingredient swapped by what it does.
func TestSwappingAnIngredient(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		Navigate(url),
		click(id("dish-Small stoneware")),
		click(id("fruit-plum")),
		click(id("style-crisp")),
		click(id("station-topping")),
	)
	reads(t, ctx, id("bowl-topping"), "Hazelnuts")
	do(t, ctx, click(id("swap")), click(CSS(`[data-testid^="swap-hazelnuts-"]`)))
	reads(t, ctx, id("swapped"), "pumpkin seeds", "toast them first")
	reads(t, ctx, id("line-topping-pumpkin_seeds"), "Pumpkin seeds")
	do(t, ctx, click(id("undo")))
	reads(t, ctx, id("bowl-topping"), "Hazelnuts")
}

// Where bakers disagree, each way is a switch with its numbers.
func TestWhereBakersDisagree(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		openCard(url, "Pear and redcurrant seed pie"),
		click(id("station-topping")),
		click(id("disagree-fat")),
	)
	reads(t, ctx, id("way-fat-melted"), "lumps of 16 mm", "3 min by hand")
	reads(t, ctx, id("way-ratio-equal"), "% fat")
	reads(t, ctx, id("way-coverage-all"), "steam")
	reads(t, ctx, id("way-base-raw"), "1 = crisp")
	do(t, ctx, click(id("way-base-par_bake")))
	reads(t, ctx, id("way-base-par_bake"), "1 = crisp")
	do(t, ctx, WaitVisible(CSS(`[data-testid="way-base-par_bake"][aria-pressed="true"]`)), click(id("way-ratio-equal")))
	reads(t, ctx, id("bowl-topping"), "equal weights")
	do(t, ctx, click(id("fat-sunflower_oil")))
	reads(t, ctx, id("line-topping-sunflower_oil"), "Sunflower oil")
	do(t, ctx, click(id("station-bake")), click(id("disagree-cover")), click(id("way-cover-foil")))
	reads(t, ctx, id("strip"), "foil")
	do(t, ctx, click(id("station-juice")), click(id("disagree-sugar")), click(id("way-sugar-none")))
	reads(t, ctx, id("figures"), "Sugar 0 g")
	do(t, ctx, click(id("station-fruit")), click(id("school-peel-unpeeled")))
	reads(t, ctx, id("bowl-fruit"), "unpeeled")
}

// Another thickener in addition to the first: the first makes up what is missing; a long boil wants more.
func TestTwoThickeners(t *testing.T) {
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
		click(id("station-juice")),
	)
	reads(t, ctx, id("line-dry-cornflour"), "Cornflour")
	alone := text(t, ctx, id("line-dry-cornflour"))
	do(t, ctx, click(id("beside")), fill(id("beside-g-0"), "8 g"))
	reads(t, ctx, id("bowl-dry"), "8 g")
	changes(t, ctx, id("line-dry-cornflour"), alone)
	do(t, ctx, click(id("beside-out-0")))
	reads(t, ctx, id("line-dry-cornflour"), alone)
	// Arrowroot loses strength when it boils on.
	do(t, ctx, click(id("thickener")), click(id("thickener-arrowroot")))
	soon := text(t, ctx, id("line-dry-arrowroot"))
	do(t, ctx, click(id("long-boil")))
	changes(t, ctx, id("line-dry-arrowroot"), soon)
}
