package e2e

import (
	"testing"
)

// Two desserts in one oven need two temperatures. That is shown before the second goes in, with a temperature that
// suits both. The Watch shows it as long as it lasts, with a timeline of the oven.
func TestAnOvenAtTwoTemperatures(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		openCard(url, "Gooseberry crumble"),
		act("into-oven"),
		openCard(url, "Gooseberry crumble"),
		click(id("station-bake")),
		fill(id("stage-c-0"), "200"),
		fill(id("dessert-name"), "Second crumble"),
		act("into-oven"),
	)
	reads(
		t,
		ctx,
		id("two-settings-before"),
		"The oven is in use",
		"needs 190 °C",
		"needs 200 °C",
		"Both come out right at",
	)
	do(t, ctx, click(id("oven-anyway")))
	reads(
		t,
		ctx,
		id("two-settings"),
		"Gooseberry crumble needs 190 °C",
		"Second crumble needs 200 °C",
		"Both come out right at",
	)
	reads(t, ctx, id("oven-timeline"), "Old range", "Gooseberry crumble, 190 °C", "Second crumble, 200 °C")
}
