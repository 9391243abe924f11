package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"os"
	"strings"
	"testing"
	"time"

	"mabbin/app"
	"mabbin/server/demo"

	"github.com/chromedp/cdproto/input"
	. "github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// From an empty bench to the log, by picking, typing, dragging and keys.
func TestFromFruitToLog(t *testing.T) {
	t.Parallel()
	url, s := kitchen(t)
	ctx := tab(t, 1280, 800)

	// Three touches give a whole answer.
	do(t, ctx, Navigate(url), click(id("dish-Small stoneware")), click(id("fruit-gooseberry")), click(id("style-crumble")))
	reads(t, ctx, id("figures"), "973 g", "±", "spoonable", "6 mm", "376 g")
	reads(t, ctx, id("line-dry-cornflour"), "21 g", "Cornflour")
	reads(t, ctx, id("ledger"), "Juice to thicken", "g")
	reads(t, ctx, id("remark-headspace_limits"), "The space below the rim limits")

	// Type the thickener, and the set follows; drag the set, and the thickener follows.
	do(t, ctx, fill(id("thickener-g"), "5"))
	reads(t, ctx, id("figures"), "runny")
	reads(t, ctx, id("remark-set_off_style"), "usually spoonable")
	dragSet(t, ctx, 6.4)
	reads(t, ctx, id("figures"), "slices")
	do(t, ctx, Focus(id("set-handle")), KeyEvent(kb.ArrowLeft), idle())
	reads(t, ctx, id("figures"), "slices")
	do(t, ctx, click(id("usual-set")))
	reads(t, ctx, id("line-dry-cornflour"), "21 g")

	// Inches and fractions are understood, and what can't be used stays and says why.
	do(t, ctx, click(id("station-dish")), fill(id("dish-length"), "9 1/2 in"))
	reads(t, ctx, id("station-dish"), "24.1 × 18 cm")
	do(t, ctx, fill(id("dish-length"), "4 m"))
	reads(t, ctx, id("problem"), "3 to 100")
	do(t, ctx, click(id("undo")))
	reads(t, ctx, id("station-dish"), "24.1 × 18 cm")

	// Topping and oven.
	do(t, ctx, click(id("station-topping")), click(id("amount-generous")))
	reads(t, ctx, id("depths"), "20 mm on")
	do(t, ctx, click(id("station-bake")), fill(id("oven-c"), "gas 4"), fill(id("minutes"), "45"))
	reads(t, ctx, id("station-bake"), "180 °C, 45 min")

	// Weigh by keys: Space ticks the next line.
	do(t, ctx, act("weigh"), KeyEvent("  "))
	reads(t, ctx, CSS(".ticket header"), "2 of 7 weighed")
	do(t, ctx, KeyEvent(kb.Escape))

	// Save, change, save again: a new version, and the first one stays.
	do(t, ctx, fill(id("dessert-name"), "Gooseberry, Thursday"), click(id("save")))
	reads(t, ctx, id("save-state"), "version 1")
	do(t, ctx, click(id("station-juice")), click(id("sweetness-sweet")))
	reads(t, ctx, id("save-state"), "version 1, changed")
	do(t, ctx, click(id("save")))
	reads(t, ctx, id("save-state"), "version 2")
	cards, _, err := s.Cards(t.Context(), demo.Kitchen.ID, app.CardFilter{})
	must(t, err)
	whole, err := s.Card(t.Context(), demo.Kitchen.ID, cards[0].ID)
	must(t, err)
	if whole.Name != "Gooseberry, Thursday" || len(whole.Versions) != 2 || whole.Versions[1].Request.Sweetness == "sweet" {
		t.Errorf("kept: %+v", whole)
	}

	// Baked it, and the log has what came out compared with what was predicted.
	do(
		t,
		ctx,
		act("baked"),
		click(id("juice-saucy")),
		click(id("fruit-tender")),
		click(id("top-golden")),
		fill(id("note"), "Took it out early"),
		click(id("log-it")),
	)
	do(t, ctx, Navigate(url+"/log"), click(id("bake-Gooseberry, Thursday", ` [data-testid="open-bake"]`)))
	reads(
		t,
		ctx,
		id("bake-Gooseberry, Thursday"),
		"version 2",
		"Predicted: spoonable",
		"Saucy, thinner than planned",
		"Next time: bake it until the middle bubbles",
		"fruit tender",
		"top golden",
		"Took it out early",
	)

	// The card opens again as it was saved.
	do(t, ctx, Navigate(url+"/cards"), click(id("card-Gooseberry, Thursday", " .plain")), click(id("version-1")))
	reads(t, ctx, id("save-state"), "version 1")
}

// What is on the bench outlives a reload.
func TestReloadKeepsWhatWasEntered(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url), click(id("dish-Iron skillet")), click(id("fruit-plum")), click(id("style-crisp")))
	do(t, ctx, click(id("station-fruit")), fill(id("weighed"), "2 lb"))
	reads(t, ctx, id("figures"), "907 g")
	do(t, ctx, Reload(), idle())
	reads(t, ctx, id("figures"), "907 g")
}

// What the server refuses is put aside with its reason, and what waits behind it is saved; it can be put right, taken
// away as a file, or dropped.
func TestWhatIsRefusedBlocksNothing(t *testing.T) {
	t.Parallel()
	url, s := kitchen(t)
	ctx := tab(t, 1280, 800)
	dish := func(n int, name string, depth int) string {
		return fmt.Sprintf(
			`{"what":%q,"path":"/api/v1/kitchens/%s/dishes","body":{"id":"00000000-0000-4000-8000-0000000000%02d",
			"name":%q,"dish":{"shape":"square","length_cm":20,"depth_cm":%d,"material":"glass"}}}`,
			name,
			demo.Kitchen.ID,
			n,
			name,
			depth,
		)
	}
	parcels := "[" + dish(1, "Deep one", 99) + "," + dish(2, "Good one", 5) + "," + dish(3, "Deeper one", 98) + "]"
	do(t, ctx, Navigate(url), idle(), storing("mabbin.outbox", parcels), Reload())
	reads(t, ctx, id("put-aside"), "Not saved: Deep one.", "99", "1 to 20", "Not saved: Deeper one.")
	if file := os.Getenv("MABBIN_LOOK"); file != "" {
		shot(t, ctx, file)
	}
	first := CSS("[data-testid=refused]:first-child ")
	do(
		t, ctx,
		fill(first+CSS("[data-testid='refused-dish, depth cm']"), "6"),
		click(first+CSS("[data-testid=refused-again]")),
	)
	reads(t, ctx, id("put-aside"), "Not saved: Deeper one.")
	do(t, ctx, Reload(), click(id("refused-drop")), click(id("refused-drop")), WaitNotPresent(id("put-aside")))
	dishes, err := s.Dishes(t.Context(), demo.Kitchen.ID)
	must(t, err)
	var names []string
	for _, d := range dishes {
		names = append(names, d.Name)
	}
	if all := strings.Join(names, ", "); !strings.Contains(all, "Deep one") || !strings.Contains(all, "Good one") ||
		strings.Contains(all, "Deeper one") {
		t.Errorf("in the kitchen are %s", all)
	}
}

// The database is away while saving: the page keeps what was entered, says so, and saves when it is back.
func TestSavesWhenTheDatabaseIsBack(t *testing.T) {
	t.Parallel()
	url, s, away := kitchenWithSwitch(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url), click(id("dish-Iron skillet")), click(id("fruit-plum")), click(id("style-crisp")))
	away.Store(true)
	do(t, ctx, fill(id("dessert-name"), "Plum in the dark"), click(id("save")))
	reads(t, ctx, id("not-saved"), "Not saved yet", "Plum in the dark", "database can't be reached")
	reads(t, ctx, id("save-state"), "not saved yet")
	away.Store(false)
	reads(t, ctx, id("saved"), "Plum in the dark")
	cards, _, err := s.Cards(t.Context(), demo.Kitchen.ID, app.CardFilter{})
	must(t, err)
	if cards[0].Name != "Plum in the dark" {
		t.Errorf("the newest card is %q", cards[0].Name)
	}
}

// dragSet drags the set's marker to a score.
func dragSet(t testing.TB, ctx context.Context, score float64) {
	t.Helper()
	raw, err := Run(
		ctx,
		Evaluate[string](
			`JSON.stringify((e => (e.scrollIntoView({ block: 'center' }), (b => [b.x, b.y, b.width])(e.getBoundingClientRect())))(document.querySelector('.scale .track')))`,
		),
	)
	must(t, err)
	var box [3]float64
	must(t, json.Unmarshal([]byte(raw), &box))
	do(t, ctx, DragAndDropXY(box[0]+20, box[1]+20, box[0]+box[2]*score/10, box[1]+20, 6), idle())
}

// The fruit is drawn to a level in the picture, by hand and by keys; what it weighs is asked of the core, and one
// undo takes a draw back.
func TestTheFruitIsDrawnToALevel(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		openCard(url, "Gooseberry crumble"),
		WaitVisible(id("fruit-handle")),
		Sleep(time.Second),
		idle(),
	) // the bake has reported its steam by then
	before := text(t, ctx, id("line-fruit-gooseberry"))
	raw, err := Run(
		ctx,
		Evaluate[string](
			`JSON.stringify((b => [b.x + b.width / 2, b.y + b.height / 2])(document.querySelector('[data-testid="fruit-handle"]').getBoundingClientRect()))`,
		),
	)
	must(t, err)
	var at [2]float64
	must(t, json.Unmarshal([]byte(raw), &at))
	down := func(typ input.DispatchMouseEventType, by float64) step {
		return MouseEvent(typ, at[0], at[1]+by, ButtonLeft)
	}
	// held still for longer than keys may pause, it is one draw all the same
	do(t, ctx, down(MousePressed, 0), down(MouseMoved, 15), idle())
	changes(t, ctx, id("line-fruit-gooseberry"), before)
	half := text(t, ctx, id("line-fruit-gooseberry"))
	do(t, ctx, Sleep(1200*time.Millisecond), down(MouseMoved, 45), down(MouseReleased, 45), idle())
	changes(t, ctx, id("line-fruit-gooseberry"), half)
	reads(t, ctx, id("figures"), "as weighed")
	do(t, ctx, click(id("undo")))
	reads(t, ctx, id("line-fruit-gooseberry"), before)
	do(t, ctx, Focus(id("fruit-handle")), KeyEvent(kb.ArrowUp), idle())
	changes(t, ctx, id("line-fruit-gooseberry"), before)
	do(t, ctx, click(id("undo")))
	reads(t, ctx, id("line-fruit-gooseberry"), before)
}
