package e2e

import (
	"fmt"
	"testing"
	"time"

	. "github.com/chromedp/chromedp"
)

// touches counts what a hand does: a touch, or a field that is filled in.
type touches int

func (n *touches) click(sel CSS) step {
	*n++
	return click(sel)
}

// hour sets a field for a time of day, as its picker does.
func (n *touches) hour(sel CSS, clock string) step {
	*n++
	return Steps(
		WaitVisible(sel),
		Evaluate[Void](fmt.Sprintf(
			`(() => { const e = document.querySelector(%q); e.value = %q; e.dispatchEvent(new Event('input')) })()`, sel, clock,
		)),
		idle(),
	)
}

// Guests in four hours, and a kitchen that was opened for the first time: from nothing to what to weigh, and to when it
// goes into the oven.
func TestFromAnEmptyKitchenToTheHourItGoesIn(t *testing.T) {
	t.Parallel()
	var n touches
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		Navigate(serveBare(t)),
		n.click(id("habit-british")),
		WaitNotPresent(id("first-day")),
		n.click(id("typical-oblong_small")),
		n.click(id("fruit-plum")),
		n.click(id("style-crumble")),
	)
	reads(t, ctx, id("figures"), "Fruit", "spoonable")
	if n > 9 {
		t.Errorf("%d touches to what to weigh: 9 at most", n)
	}
	at := time.Now().Add(4 * time.Hour).Format("15:04")
	do(t, ctx, n.click(id("ready-by")), n.hour(id("ready-hour"), at))
	reads(t, ctx, id("ready-says"), "Into the oven at", "reserve")
	reads(t, ctx, id("ready-steps"), "Prepare the fruit", "Heat the oven", "Into the oven", "Ready")
	if n > 12 {
		t.Errorf("%d touches to when it goes in: 12 at most", n)
	}

	// called out on the watch from the first thing on
	do(t, ctx, n.click(id("ready-watch")))
	reads(t, ctx, CSS("main"), "Prepare the fruit", "Heat the oven", "Into the oven")
	if n > 14 {
		t.Errorf("%d touches from nothing to calls on the watch: 14 at most", n)
	}
	first := text(t, ctx, id("next-call", " h2"))
	do(t, ctx, click(id("call-done")))
	changes(t, ctx, id("next-call", " h2"), first)
	do(t, ctx, click(id("off-the-way")))
	reads(t, ctx, id("nothing-in"), "Nothing is in the oven")
	do(t, ctx, click(CSS(`nav a[href="/"]`)), click(id("ready-by")))

	// Cold and set takes longer; what can't be ready says how early it could be; and whenever asks for no hour.
	soon := time.Now().Add(20 * time.Minute).Format("15:04")
	do(t, ctx, click(id("serve-cold")))
	reads(t, ctx, id("ready-steps"), "into the fridge", "Cut it")
	do(t, ctx, n.hour(id("ready-hour"), soon))
	reads(t, ctx, id("ready-says"), "Not before", "if you start now")
	do(t, ctx, click(id("ready-whenever")), KeyEvent("\x1b"))
	reads(t, ctx, id("ready-by"), "Ready by")
}

// A recipe from a magazine, in a dish that is on the shelf: pasted, judged, saved as a card, and in the simulation.
func TestFromARecipeToASavedCardOnPaper(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	var n touches
	do(
		t,
		ctx,
		Navigate(url),
		n.click(CSS(`header a[href="/cards"]`)),
		n.click(id("import")),
		paste("Plum crumble\nServes 6\n900 g plums, stoned\n120 g caster sugar\n20 g cornflour\n\nFor the topping:\n"+
			"200 g plain flour\n100 g butter\n100 g caster sugar\n\nBake at 190 C for 50 minutes."),
	)
	n += 2 // pasted, and read
	do(
		t,
		ctx,
		n.click(id("import-dish")),
		n.click(id("import-dish-Small stoneware")),
		n.click(id("open-as_written")),
		n.click(id("save")),
	)
	reads(t, ctx, id("save-state"), "version 1")
	do(t, ctx, n.click(id("away-card")))
	if n > 12 {
		t.Errorf("%d touches to a saved card on paper: 12 at most", n)
	}

	// how the writer had it is kept with the card
	do(t, ctx, act("new"))
	do(t, ctx, openCard(url, "Plum crumble"))
	reads(t, ctx, id("as-written"), "Serves 6")
	do(t, ctx, click(id("as-written")+" summary"))
	reads(t, ctx, id("as-written"), "Bake at 190 C for 50 minutes")
}

// On a tablet, from the cards into the oven.
func TestFromACardIntoTheOvenOnATablet(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1024, 768)
	var n touches
	do(
		t,
		ctx,
		Navigate(url),
		n.click(CSS(`header a[href="/cards"]`)),
		n.click(id("card-Gooseberry crumble", " .open")),
		n.click(id("more")),
		n.click(id("into-oven")),
		WaitVisible(id("watched-Gooseberry crumble")),
	)
	if n > 10 {
		t.Errorf("%d touches into the oven: 10 at most", n)
	}
}

// A card among the others is asked for at an hour, without a touch to what lies on the Bench.
func TestACardIsReadyByAnHour(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	var n touches
	at := time.Now().Add(5 * time.Hour).Format("15:04")
	do(
		t,
		ctx,
		openCard(url, "Apricot cobbler"),
		Navigate(url+"/cards"),
		click(id("more-Damson and apple crumble")),
		click(id("card-ready-by")),
		n.hour(id("ready-hour"), at),
	)
	reads(t, ctx, id("ready-steps"), "Prepare the fruit", "Into the oven", "Ready")
	do(t, ctx, click(id("ready-watch")))
	reads(t, ctx, CSS("main"), "Damson and apple crumble", "Prepare the fruit")
	do(t, ctx, click(CSS(`nav a[href="/"]`)))
	reads(t, ctx, id("figures"), "Fruit")
	if v, err := Run(
		ctx,
		Evaluate[string](`document.querySelector('[data-testid="dessert-name"]').value`),
	); err != nil ||
		v != "Apricot cobbler" {
		t.Errorf("on the Bench lies %q (%v)", v, err)
	}
}
