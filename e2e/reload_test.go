package e2e

import (
	"testing"

	. "github.com/chromedp/chromedp"
)

// A reload in the middle, a closed tab and a lost line: what was entered is there again, and can still be undone.
func TestAReloadInTheMiddleLosesNothing(t *testing.T) {
	t.Parallel()
	url, _, away := kitchenWithSwitch(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		openCard(url, "Gooseberry crumble"),
		click(id("station-juice")),
		click(id("sweetness-sweet")),
		click(id("station-topping")),
		click(id("amount-light")),
	)
	reads(t, ctx, id("save-state"), "version 2, changed")
	before := text(t, ctx, id("line-dry-caster_sugar"))
	do(t, ctx, Navigate(url), WaitVisible(id("figures")))
	reads(t, ctx, id("save-state"), "version 2, changed")
	reads(t, ctx, id("line-dry-caster_sugar"), before)
	do(t, ctx, click(id("undo")), click(id("undo")), click(id("redo")))
	reads(t, ctx, id("line-dry-caster_sugar"), "g Caster sugar")

	// The weigh-off and its checks, the questions after a bake.
	do(t, ctx, act("weigh"), WaitVisible(id("weigh-next")), KeyEvent("  "), click(id("check-preheated")))
	reads(t, ctx, id("weigh-next"), "3 of 7")
	do(t, ctx, Navigate(url), WaitVisible(id("weigh-next")))
	reads(t, ctx, id("weigh-next"), "3 of 7")
	if on, err := Run(
		ctx,
		Evaluate[bool](`document.querySelector('[data-testid="check-preheated"]').checked`),
	); err != nil ||
		!on {
		t.Errorf("the check is lost: %v", err)
	}
	do(
		t,
		ctx,
		act("baked"),
		click(id("juice-saucy")),
		click(id("top-dark")),
		fill(id("note"), "Half told"),
		Navigate(url),
		WaitVisible(id("weigh-next")),
		act("baked"),
	)
	for _, sel := range []CSS{id("juice-saucy", `[aria-pressed="true"]`), id("top-dark", `[aria-pressed="true"]`)} {
		do(t, ctx, WaitVisible(sel))
	}

	// The database goes away while it is sent: it waits here, over a reload, and goes when it is back.
	away.Store(true)
	do(t, ctx, click(id("log-it")))
	reads(t, ctx, id("not-saved"), "Not saved yet")
	do(t, ctx, Navigate(url))
	reads(t, ctx, id("not-saved"), "Not saved yet")
	away.Store(false)
	do(t, ctx, WaitVisible(id("saved")))
	do(t, ctx, Navigate(url+"/log"), WaitVisible(id("open-bake")))
	reads(t, ctx, id("bake-Gooseberry crumble"), "Saucy, thinner than planned", "topping dark", "Half told")
}

// The first day: nothing is there, and in a dish, a fruit and a style the whole answer is. What water buys is said,
// the kitchen gets a name and keeps what was put together before it had one; or somebody looks around in a made-up
// one first.
func TestTheFirstDay(t *testing.T) {
	t.Parallel()
	url := serveBare(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		Navigate(url),
		WaitVisible(id("first-day")),
		click(id("typical-oblong_small")),
		click(id("fruit-plum")),
		click(id("style-crumble")),
	)
	reads(t, ctx, id("figures"), "Fruit", "spoonable")
	do(t, ctx, click(id("station-dish")))
	reads(t, ctx, id("unsure"), "of fruit)", "full of water once")
	do(t, ctx, Navigate(url+"/cards"))
	reads(t, ctx, CSS("main"), "There is no kitchen yet")
	do(
		t,
		ctx,
		Navigate(url),
		act("new"),
		fill(id("first-name"), "Back room"),
		click(id("habit-british")),
		WaitNotPresent(id("first-day")),
	)
	do(t, ctx, Navigate(url+"/cards"))
	reads(t, ctx, CSS("main"), "No cards yet")
	do(
		t,
		ctx,
		Navigate(url),
		click(id("typical-square")),
		click(id("fruit-plum")),
		click(id("style-crumble")),
		click(id("save")),
	)
	reads(t, ctx, id("save-state"), "version 1")

	other := tab(t, 1280, 800)
	do(t, other, Navigate(serveBare(t)), click(id("look-around")), WaitVisible(id("dish-Small stoneware")))
	reads(t, other, CSS("header .kitchen"), "Oxlip Yard")
}

// What is put in the place of an unsaved dessert takes nothing away: undo brings it back, over a reload, and redo
// goes on again.
func TestAnotherDessertCanBeUndone(t *testing.T) {
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
		fill(id("dessert-name"), "Plums of today"),
	)
	reads(t, ctx, id("bowl-fruit"), "Plum")
	do(t, ctx, act("new"), WaitVisible(id("dish-Small stoneware")), Navigate(url))
	reads(t, ctx, id("undo"), "Plums of today, removed from the Bench")
	do(t, ctx, click(id("undo")))
	reads(t, ctx, id("bowl-fruit"), "Plum")
	do(t, ctx, openCard(url, "Gooseberry crumble"))
	reads(t, ctx, id("save-state"), "version 2")
	reads(t, ctx, id("bowl-fruit"), "Gooseberry")
	do(t, ctx, click(id("undo")))
	reads(t, ctx, id("bowl-fruit"), "Plum")
	reads(t, ctx, id("save-state"), "not saved as a card")
	do(t, ctx, click(id("redo")))
	reads(t, ctx, id("bowl-fruit"), "Gooseberry")
	if s := text(t, ctx, id("save-state")); s != "version 2" {
		t.Errorf("the card that came back reads %q, and nothing in it was changed", s)
	}
}
