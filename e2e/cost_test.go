package e2e

import (
	"testing"

	. "github.com/chromedp/chromedp"
)

// What a portion costs, by the kitchen's own prices; what has none is named, and a price given on the Shelf counts.
func TestWhatAPortionCosts(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, openCard(url, "Gooseberry crumble"), click(id("station-finish")))
	reads(t, ctx, id("cost"), "Nothing of it has a price yet")
	price := func(list, row, much string) step {
		return Steps(
			Navigate(url+"/shelf/"+list),
			click(id("row-"+row)),
			fill(id("own-price_per_kg"), much),
		)
	}
	do(t, ctx, Navigate(url+"/shelf/fruit"), click(id("row-gooseberry")), fill(id("own-price_per_kg"), "6"))
	do(t, ctx, Navigate(url), click(id("station-finish")))
	reads(t, ctx, id("cost"), "for what has a price", "Without one", "butter", "Most of it: gooseberry")
	for row, much := range map[string]string{
		"butter": "9", "wheat_flour": "1", "caster_sugar": "1.5", "cornflour": "4", "salt": "0.5",
	} {
		do(t, ctx, price("stores", row, much))
	}
	do(t, ctx, Navigate(url), click(id("station-finish")))
	reads(t, ctx, id("cost"), "a portion", "for 8, ingredients alone", "Most of it: gooseberry", "butter")
}
