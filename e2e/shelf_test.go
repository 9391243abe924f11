package e2e

import (
	"os"
	"strings"
	"testing"

	"mabbin/app"
	"mabbin/server/demo"

	. "github.com/chromedp/chromedp"
)

// Measuring with water is the first way to a dish's volume, and the Bench follows it.
func TestMeasuringADishWithWater(t *testing.T) {
	t.Parallel()
	url, s := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+"/kitchen"), click(id("dish-Iron skillet")))
	reads(t, ctx, CSS(".water"), "zero the scale", "Fill it with cold water")
	do(t, ctx, fill(id("water-ml"), "2 l"), click(id("keep")))
	reads(t, ctx, id("dish-Iron skillet"), "2.0 l", "measured")
	reads(t, ctx, id("water-says"), "2.3 l computed from its sizes", "12 % less")
	do(t, ctx, Navigate(url), click(id("dish-Iron skillet")), click(id("fruit-plum")), click(id("style-crumble")))
	reads(t, ctx, id("station-dish"), "2.0 l")

	// A new dish; one that can't be is refused and keeps what was entered; off the shelf and back.
	do(
		t,
		ctx,
		Navigate(url+"/kitchen"),
		click(id("add-dish")),
		fill(id("dish-name"), "Blue bowl"),
		click(id("shape-round")),
		fill(id("dish-depth"), "40"),
		click(id("keep")),
	)
	reads(t, ctx, id("kitchen-problem"), "1 to 20")
	do(t, ctx, fill(id("dish-depth"), "4"), fill(id("dish-count"), "3"), click(id("keep")))
	reads(t, ctx, id("dish-Blue bowl"), "× 3", "24 cm round, 4 deep")
	do(t, ctx, click(id("take-off")))
	reads(t, ctx, id("kitchen-said"), "Blue bowl deleted")
	do(t, ctx, Navigate(url+"/kitchen"), click(id("undo"))) // after a reload, too
	reads(t, ctx, id("kitchen-said"), "Undone: Blue bowl deleted")
	reads(t, ctx, id("dish-Blue bowl"), "× 3")
	do(t, ctx, click(id("undo")), click(id("undo")))
	reads(t, ctx, id("dish-Iron skillet"), "2.3 l", "from sizes")
	do(t, ctx, KeyEvent("rr")) // pressed twice, faster than it is kept
	reads(t, ctx, id("dish-Iron skillet"), "2.0 l", "measured")
	reads(t, ctx, id("dish-Blue bowl"), "× 3")
	dishes, err := s.Dishes(t.Context(), demo.Kitchen.ID)
	must(t, err)
	if len(dishes) != 8 {
		t.Errorf("%d dishes", len(dishes))
	}
}

// The kitchen's own figures is next to the table's, are used, and can be taken back; a fruit of its own is one to
// bake with.
func TestAKitchensOwnFigures(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+"/kitchen/fruit"), click(id("row-gooseberry")))
	reads(t, ctx, CSS(".edit"), "Juice released, fresh", "working figure of this project", "food composition tables")
	do(t, ctx, fill(id("own-release_fresh"), "0.8"))
	reads(t, ctx, id("row-gooseberry"), "own")
	do(t, ctx, Navigate(url), click(id("dish-Small stoneware")), click(id("fruit-gooseberry")), click(id("style-crumble")))
	reads(t, ctx, id("line-dry-cornflour"), "Cornflour")
	if s := text(t, ctx, id("line-dry-cornflour")); strings.HasPrefix(s, "21 ") {
		t.Errorf("the kitchen's own release changed nothing: %s", s)
	}
	do(t, ctx, Navigate(url+"/kitchen/fruit"), click(id("row-gooseberry")), fill(id("own-release_fresh"), "7"))
	reads(t, ctx, CSS(".edit"), "0.02 to 0.95")
	do(t, ctx, click(id("drop-own")))
	reads(t, ctx, id("kitchen-said"), "own figures reset")
	do(t, ctx, click(id("undo")))
	reads(t, ctx, id("row-gooseberry"), "own")
	do(t, ctx, click(id("redo")))
	do(t, ctx, Navigate(url))
	reads(t, ctx, id("line-dry-cornflour"), "21 g")

	// A packet that binds half as much takes twice as much, and a change of another table is undone where it is shown.
	do(t, ctx, Navigate(url+"/kitchen/ingredients"), click(id("kind-thickener")), click(id("row-cornflour")),
		fill(id("own-strength"), "0.5"))
	reads(t, ctx, id("row-cornflour"), "own")
	do(t, ctx, Navigate(url))
	reads(t, ctx, id("line-dry-cornflour"), "41 g")
	do(t, ctx, Navigate(url+"/kitchen/ingredients"), click(id("undo")))
	reads(t, ctx, id("kitchen-said"), "strength")

	do(
		t,
		ctx,
		Navigate(url+"/kitchen/fruit"),
		click(id("row-apple_firm")),
		click(id("copy")),
		fill(id("own-name"), "Nursery russet"),
		click(id("own-keep")),
	)
	reads(t, ctx, CSS(".edit"), "Nursery russet", "based on apple")
	do(t, ctx, fill(id("own-acid_pct"), "0.9"), fill(id("own-price_per_kg"), "2.4"))
	do(
		t,
		ctx,
		Navigate(url),
		act("new"),
		click(id("dish-Small stoneware")),
		fill(id("find-fruit"), "russet"),
		click(CSS(`.rows [data-testid^="fruit-own-"]`)),
		click(id("style-crumble")),
	)
	reads(t, ctx, id("bowl-fruit"), "Nursery russet")
	do(t, ctx, click(id("station-juice")))
	reads(t, ctx, CSS(".juice"), "0.9 % acid")

	do(t, ctx, Navigate(url+"/kitchen/ingredients"), fill(id("find-row"), "flour"), click(id("row-wheat_flour")))
	reads(t, ctx, id("allergens"), "wheat (gluten)", "does not rule out cross-contact")
	do(t, ctx, fill(id("find-row"), "gluten"), click(id("row-gf_flour_blend")))
	reads(t, ctx, id("allergens"), "not known", "Check the label")
}

// One switch in the kitchen's settings changes what is read everywhere, and how a bare number is understood.
func TestOneSwitchForWhatIsRead(t *testing.T) {
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
		fill(id("oven-c"), "180"),
	)
	reads(t, ctx, id("line-topping-butter"), "93 g")
	do(t, ctx, Navigate(url+"/kitchen/units"), click(id("weights-oz")), click(id("heat-f")), click(id("lengths-in")))
	reads(t, ctx, id("sample"), "13.3 oz", "5/8 in", "355 °F")
	do(t, ctx, Navigate(url))
	reads(t, ctx, id("figures"), "34.3 oz", "1/4 in")
	reads(t, ctx, id("line-topping-butter"), "3.3 oz")
	reads(t, ctx, id("station-bake"), "355 °F")
	reads(t, ctx, id("station-dish"), "9 1/2 × 7 1/8 in")
	reads(t, ctx, id("remark-headspace_limits"), "1/4 in")
	do(t, ctx, click(id("station-bake")), fill(id("oven-c"), "400"))
	reads(t, ctx, id("station-bake"), "400 °F")
	do(t, ctx, click(id("station-dish")), fill(id("dish-length"), "10"))
	reads(t, ctx, id("station-dish"), "10 × 7 1/8 in")
	do(t, ctx, click(id("station-topping")), fill(id("thickness"), "0.5"))
	reads(t, ctx, id("station-topping"), "1/2 in")
	do(t, ctx, fill(id("thickness"), "1.5 cm"))
	reads(t, ctx, id("station-topping"), "5/8 in")

	do(t, ctx, Navigate(url+"/kitchen/units"), click(id("weights-spoons")), click(id("heat-gas")), click(id("cup-us")))
	do(t, ctx, Navigate(url))
	reads(t, ctx, id("line-dry-cornflour"), "tbsp", "g")
	reads(t, ctx, id("station-bake"), "gas 6")
	do(t, ctx, click(id("station-bake")), fill(id("oven-c"), "4"))
	reads(t, ctx, id("station-bake"), "gas 4")

	// A setting is undone with its words.
	do(t, ctx, Navigate(url+"/kitchen/units"), click(id("undo")))
	reads(t, ctx, id("kitchen-said"), "Undone: Cup: 236.6 ml, US")
	do(t, ctx, click(id("redo")))

	// Eggs and cups of the card follow the kitchen, too.
	do(
		t,
		ctx,
		Navigate(url+"/kitchen/units"),
		click(id("eggs-us")),
		click(id("weights-g")),
		Navigate(url+"/cards/import"),
		paste("3 large eggs\n1 cup milk\n1 kg plums"),
	)
	reads(t, ctx, id("line-0"), "150 g Egg")
	reads(t, ctx, id("line-1"), "244 g Whole milk")
}

// How far off an oven is, by melting sugar and by a thermometer; its plans allow for it.
func TestMeasuringAnOven(t *testing.T) {
	t.Parallel()
	url, s := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+"/kitchen/ovens"), click(id("add-oven")), fill(id("oven-name"), "Loft oven"))
	do(t, ctx, fill(id("trial-read-0"), "194"), fill(id("trial-read-1"), "198"))
	reads(t, ctx, id("trial-says"), "16 °C hotter", "Uncertainty ±3")
	do(t, ctx, click(id("by-sugar")), fill(id("trial-dry"), "170"), fill(id("trial-melts"), "160"))
	reads(t, ctx, CSS(`[aria-label="Calibrate the oven"]`), "enter a setting above that")
	do(t, ctx, fill(id("trial-melts"), "175"))
	reads(t, ctx, id("trial-says"), "14 °C hotter")
	do(
		t,
		ctx,
		click(id("trial-take")),
		click(id("bottom-heat")),
		click(id("dial-gas")),
		fill(id("runners"), "4"),
		click(id("keep-oven")),
	)
	reads(t, ctx, id("oven-row-Loft oven"), "14 °C hotter", "bottom heat", "4 shelf positions", "±6")
	if ovens, err := s.Ovens(
		t.Context(),
		demo.Kitchen.ID,
	); err != nil || len(ovens) != 4 || ovens[1].OffsetC != 14 ||
		ovens[1].Dial != "gas" {
		t.Errorf("%+v, %v", ovens, err)
	}

	// The same stages in it are hotter than in an oven that nobody knows; the dial says what to turn it to.
	do(
		t,
		ctx,
		Navigate(url),
		click(id("dish-Small stoneware")),
		click(id("fruit-gooseberry")),
		click(id("style-crumble")),
		click(id("station-bake")),
		click(id("take-plan")),
	)
	reads(t, ctx, id("plan-end"), "±10 °C")
	unknown := text(t, ctx, id("plan-end"))
	do(t, ctx, click(id("oven")), click(id("oven-Loft oven")))
	reads(t, ctx, id("plan-end"), "±6 °C")
	reads(t, ctx, id("told-0"), "Dial: gas", "14 °C hotter than its dial")
	reads(t, ctx, id("shelf-height-low"), "low (1)")
	changes(t, ctx, id("plan-end"), unknown)
	do(t, ctx, click(id("shelf-height-low")), fill(id("dessert-name"), "Loft crumble"), click(id("save")))
	reads(t, ctx, id("save-state"), "version 1")
	if cards, _, err := s.Cards(
		t.Context(),
		demo.Kitchen.ID,
		app.CardFilter{},
	); err != nil ||
		cards[0].Versions[0].Shelf != "low" {
		t.Errorf("%+v, %v", cards[0].Versions[0].Setting, err)
	}

	// Taken away, it is put back by a touch.
	do(
		t,
		ctx,
		Navigate(url+"/kitchen/ovens"),
		click(id("oven-row-Loft oven")),
		click(id("take-oven")),
		WaitNotPresent(id("oven-row-Loft oven")),
		click(id("undo")),
	)
	reads(t, ctx, id("oven-row-Loft oven"), "14 °C hotter")
}

// Coals are counted for each stage, with the weather, and it is said what can hurt.
func TestACampOvenOverCoals(t *testing.T) {
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
		click(id("oven")),
		click(id("oven-Yard camp oven")),
	)
	reads(t, ctx, id("told-0"), "briquettes on the lid", "below, under the rim")
	reads(t, ctx, id("fire"), "Fresh coals", "carbon monoxide", "Turn pot and lid at 15")
	reads(t, ctx, id("plan-end"), "±20 °C")
	calm := text(t, ctx, id("told-0"))
	do(t, ctx, click(id("wind-windy")), click(id("weather-cold")))
	reads(t, ctx, id("plan"), "Proposed:")
	changes(t, ctx, id("told-0"), calm)
}

// Water boils cooler up a mountain, and the plan knows it.
func TestTheHeightOfTheKitchen(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+"/kitchen/units"), fill(id("altitude"), "1800"))
	do(
		t,
		ctx,
		Navigate(url),
		click(id("dish-Small stoneware")),
		click(id("fruit-gooseberry")),
		click(id("style-crumble")),
		click(id("station-bake")),
	)
	reads(t, ctx, id("plan"), "Boiling point here 95")
}

// A dish that is put on the shelf from the Bench is taken off again by the Shelf's undo.
func TestADishKeptFromTheBenchCanBeTakenBack(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		Navigate(url),
		click(id("dish-Iron skillet")),
		click(id("fruit-plum")),
		click(id("style-crisp")),
		click(id("station-dish")),
	)
	do(t, ctx, fill(id("dish-length"), "25"), fill(id("dish-name"), "Lent skillet"), click(id("keep-dish")))
	do(
		t,
		ctx,
		Navigate(url+"/kitchen"),
		WaitVisible(id("dish-Lent skillet")),
		click(id("undo")),
		WaitNotPresent(id("dish-Lent skillet")),
	)
	reads(t, ctx, id("kitchen-said"), "Undone: Lent skillet saved in the kitchen.")
	do(t, ctx, click(id("redo")), WaitVisible(id("dish-Lent skillet")))
}

// Two tablets change one dish: whoever comes second sees both, and chooses.
func TestTwoTabletsChangeADish(t *testing.T) {
	t.Parallel()
	url, s := kitchen(t)
	ctx := tab(t, 1280, 800)
	elsewhere := func(count int) {
		t.Helper()
		dishes, err := s.Dishes(t.Context(), demo.Kitchen.ID)
		must(t, err)
		for _, d := range dishes {
			if d.Name == "Ramekin" {
				d.Count = count
				must(t, s.ChangeDish(t.Context(), demo.Kitchen.ID, d, ""))
			}
		}
	}
	do(t, ctx, Navigate(url+"/kitchen"), click(id("dish-Ramekin")))
	elsewhere(8)
	do(t, ctx, fill(id("dish-count"), "10"), Click(id("keep")), WaitVisible(id("keep-mine")))
	reads(t, ctx, id("clash"), "Ramekin has been changed elsewhere", "count", "8", "10")
	if file := os.Getenv("MABBIN_LOOK"); file != "" {
		shot(t, ctx, file)
	}
	do(t, ctx, click(id("keep-mine")))
	reads(t, ctx, id("dish-Ramekin"), "× 10")
	elsewhere(6)
	do(t, ctx, fill(id("dish-count"), "11"), Click(id("keep")), click(id("keep-theirs")))
	reads(t, ctx, id("dish-Ramekin"), "× 6")
	reads(t, ctx, id("kitchen-problem"), "The version saved elsewhere was kept")
}
