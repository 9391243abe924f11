package e2e

import (
	"strings"
	"testing"

	. "github.com/chromedp/chromedp"
)

// The shopping list of a Saturday shows packs and prices. Ticked lines are added to the stock, and labels list the
// ingredients of each dessert.
func TestBuyingForASaturday(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+"/stock"), WaitVisible(id("buy-nothing")))
	do(
		t,
		ctx,
		storing("mabbin.wanted", `{"date":"2026-10-17","cards":[]}`),
		Navigate(url+"/stock"),
		WaitVisible(id("buy-gooseberry")),
	)
	reads(t, ctx, id("buy-butter"), "250 g", "400 g in stock", "usual packs")
	reads(t, ctx, id("buy-sum"), "€")
	before := text(t, ctx, id("buy-gooseberry"))
	do(t, ctx, click(id("for-card")), click(id("for-add-Gooseberry crumble")))
	changes(t, ctx, id("buy-gooseberry"), before)
	more := text(t, ctx, id("buy-gooseberry"))
	do(t, ctx, click(id("more-Gooseberry crumble")))
	changes(t, ctx, id("buy-gooseberry"), more)
	do(t, ctx, click(id("buy-gooseberry", " input")), click(id("take-in")))
	reads(t, ctx, id("buy-gooseberry"), "in stock")
	do(t, ctx, click(id("stock-items")))
	reads(t, ctx, id("stock-gooseberry"), "Gooseberry")

	// counted, and undone
	do(t, ctx, fill(id("stock-g-butter"), "120"))
	do(t, ctx, click(id("stock-buy")))
	reads(t, ctx, id("buy-butter"), "120 g in stock")
	do(t, ctx, click(id("stock-items")), click(id("undo")), click(id("stock-buy")))
	reads(t, ctx, id("buy-butter"), "400 g in stock")

	do(t, ctx, click(id("stock-items")), click(id("use-up-gooseberry")))
	reads(t, ctx, id("uses"), "Gooseberry crumble")
	if all := text(t, ctx, id("uses")); strings.Contains(all, "Plum betty") {
		t.Errorf("cards with gooseberries: %s", all)
	}
	do(t, ctx, Navigate(url+"/stock"), click(id("stock-labels")))
	reads(
		t,
		ctx,
		id("label-Gooseberry crumble"),
		"gooseberry",
		"WHEAT",
		"MILK",
		"Best before Monday 19 October",
		"batch 171026-",
	)
	reads(t, ctx, CSS("main"), "Apricot cobbler", "No label: Baking powder: read its label")
	do(t, ctx, fill(id("label-handled"), "Our kitchen handles nuts and sesame."))
	reads(t, ctx, id("label-Gooseberry crumble"), "Our kitchen handles nuts and sesame.")
	do(t, ctx, click(id("label-counter")))
	reads(t, ctx, id("label-Gooseberry crumble"), "Portion: about")
	do(t, ctx, click(id("label-nutrition")))
	reads(t, ctx, id("label-Gooseberry crumble"), "An estimate from tables", "of which saturates", "kcal")
	do(t, ctx, click(id("label-hand")))
	reads(
		t,
		ctx,
		id("label-Gooseberry crumble"),
		"To reheat",
		"Serve it warm",
		"To freeze: cool it",
		"h until hard",
	)
}

// A pack that one's own shop sells is what the list rounds up to.
func TestPacksOfOnesOwn(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+"/stock/items"), WaitVisible(id("stock-butter")))

	// A crate of windfalls: the card that takes them, in the dishes that use them up.
	do(t, ctx, click(id("use-up-apple_sharp")))
	reads(t, ctx, id("uses"), "Windfall apple ramekin", " × ", "left over")
	do(t, ctx, click(id("uses", " a")))
	do(
		t,
		ctx,
		WaitVisible(id("card-Windfall apple ramekin")),
		Navigate(url+"/stock/items"),
		WaitVisible(id("stock-butter")),
	)
	do(t, ctx, storing("mabbin.wanted", `{"date":"2026-10-17","cards":[]}`))
	do(t, ctx, Navigate(url+"/stock"), WaitVisible(id("buy-gooseberry")))
	before := text(t, ctx, id("buy-gooseberry"))
	do(
		t,
		ctx,
		Navigate(url+"/stock/items"),
		click(id("pack-of")),
		click(id("pack-of-gooseberry")),
		fill(id("pack-g"), "700"),
		click(id("pack-add")),
	)
	reads(t, ctx, id("packs-gooseberry"), "Gooseberry", "700 g")
	do(t, ctx, Navigate(url+"/stock"))
	changes(t, ctx, id("buy-gooseberry"), before)
	reads(t, ctx, id("buy-gooseberry"), "700 g")
}
