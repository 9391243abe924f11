package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"testing"
	"time"

	"mabbin/app"
	"mabbin/server/demo"

	"github.com/chromedp/cdproto/input"
	. "github.com/chromedp/chromedp"
)

type box struct{ X, Y, W, H float64 }

// boxOf is where an element is, once it stands still in sight.
func boxOf(t *testing.T, ctx context.Context, sel CSS) (b box) {
	t.Helper()
	do(
		t,
		ctx,
		WaitVisible(sel),
		idle(),
		still(sel),
		Sleep(60*time.Millisecond),
		idle(),
		still(sel),
	) // answers move what is below them
	raw, err := Run(
		ctx,
		Evaluate[string](
			fmt.Sprintf(
				`(() => { const e = document.querySelector(%q), b = (e.closest('.el-input__wrapper') ?? e).getBoundingClientRect(); return JSON.stringify({ X: b.x, Y: b.y, W: b.width, H: b.height }) })()`,
				sel,
			),
		),
	)
	must(t, err)
	must(t, json.Unmarshal([]byte(raw), &b))
	return b
}

// touch puts a finger down on the way through points, and lifts it.
func touch(t *testing.T, ctx context.Context, points ...[2]float64) {
	t.Helper()
	send := func(kind input.DispatchTouchEventType, at ...*input.TouchPoint) {
		_, err := Call(ctx, input.DispatchTouchEvent, input.DispatchTouchEventParams{Type: kind, TouchPoints: at})
		must(t, err)
	}
	for i, p := range points {
		kind := input.DispatchTouchEventTypeTouchMove
		if i == 0 {
			kind = input.DispatchTouchEventTypeTouchStart
		}
		send(kind, &input.TouchPoint{X: p[0], Y: p[1]})
	}
	send(input.DispatchTouchEventTypeTouchEnd)
	do(t, ctx, idle())
}

// tap touches an element, which has to be large enough for a floury finger.
func tap(t *testing.T, ctx context.Context, sel CSS) {
	t.Helper()
	b := boxOf(t, ctx, sel)
	if b.W < 43 || b.H < 43 {
		t.Errorf("%s is %.0f × %.0f px: a finger wants 44", sel, b.W, b.H)
	}
	touch(t, ctx, [2]float64{b.X + b.W/2, b.Y + b.H/2})
}

// A new dessert, from its dish to the log, by touch alone, on a tablet and on a phone.
func TestTheWholePathByTouchAlone(t *testing.T) {
	t.Parallel()
	for name, size := range map[string][2]int64{"tablet": {800, 1280}, "phone": {390, 844}} {
		t.Run(name, func(t *testing.T) {
			url, s, _ := kitchenWithClock(t)
			ctx := tab(t, size[0], size[1])
			do(
				t,
				ctx,
				EmulateViewport(size[0], size[1], EmulateMobile, EmulateTouch),
				Navigate(url),
				WaitVisible(id("dish-Small stoneware")),
				idle(),
			)
			tap(t, ctx, id("dish-Small stoneware"))
			tap(t, ctx, id("fruit-gooseberry"))
			tap(t, ctx, id("style-crumble"))
			reads(t, ctx, id("figures"), "Fruit", "spoonable")

			// The set by its handle, the fruit by the pad: one and a half pounds.
			tap(t, ctx, id("station-juice"))
			b := boxOf(t, ctx, id("set-handle"))
			before := text(t, ctx, id("figures"))
			x, y := b.X+b.W/2, b.Y+b.H/2
			touch(t, ctx, [2]float64{x, y}, [2]float64{x + 10, y}, [2]float64{x + 40, y})
			changes(t, ctx, id("figures"), before)
			do(t, ctx, Sleep(700*time.Millisecond)) // a finger that comes down while the page still glides only stops it
			tap(t, ctx, id("station-fruit"))
			tap(t, ctx, id("weighed"))
			for _, k := range []string{"1", "½", "lb"} {
				tap(t, ctx, id("pad-"+k))
			}
			reads(t, ctx, id("pad-shows"), "1½ lb")
			tap(t, ctx, id("pad-done"))
			do(t, ctx, WaitNotPresent(id("pad")))
			reads(t, ctx, id("figures"), "Fruit 680 g")
			tap(t, ctx, id("undo"))
			tap(t, ctx, id("redo"))
			reads(t, ctx, id("figures"), "Fruit 680 g")

			tap(t, ctx, id("station-topping"))
			tap(t, ctx, id("amount-generous"))
			tap(t, ctx, id("station-bake"))
			do(t, ctx, WaitVisible(id("plan")))
			tap(t, ctx, id("save"))
			reads(t, ctx, id("save-state"), "version 1")
			tap(t, ctx, id("weigh"))
			for range 3 {
				tap(t, ctx, id("weigh-done"))
			}
			tap(t, ctx, id("weigh"))
			tap(t, ctx, id("more"))
			tap(t, ctx, id("into-oven"))
			tap(t, ctx, id("done-take_out"))
			tap(t, ctx, id("how-did-it-come-out"))
			tap(t, ctx, id("juice-spoonable"))
			tap(t, ctx, id("log-it"))
			reads(t, ctx, id("nothing-in"), "Nothing is in the oven")
			page, _, err := s.Bakes(t.Context(), demo.Kitchen.ID, app.BakeFilter{Words: "Gooseberry crumble"}, nil, 1)
			must(t, err)
			if b := page[0]; b.CardID == nil || b.Juice == nil || *b.Juice != "spoonable" || b.Result.FruitG < 679 ||
				b.Result.FruitG > 682 {
				t.Errorf("logged is %+v, %.0f g", b.Outcome, b.Result.FruitG)
			}
		})
	}
}
