package e2e

import (
	"context"
	"image"
	"image/png"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"mabbin/app"
	"mabbin/server/demo"
	"mabbin/server/store/storetest"

	. "github.com/chromedp/chromedp"
	"github.com/jackc/pgx/v5"
)

// One dessert from the ticket to the log: weighed by the scale, baked with a probe in it at sixty times the speed,
// taken out, reported with a picture, explained, put right and taken back, and compared.
func TestFromTheTicketToTheLog(t *testing.T) {
	t.Parallel()
	url, s, now := kitchenWithClock(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, openCard(url, "Gooseberry crumble"), act("weigh"))
	reads(t, ctx, id("weigh-next"), "Fruit bowl · 1 of 7", "Gooseberry")

	// The scale swings, and ticks a line when it stands still at the right weight.
	do(t, ctx, click(id("by-scale")))
	reads(t, ctx, id("scale-says"), "to go")
	pour := func(next string) {
		t.Helper()
		reads(t, ctx, id("scale-says"), "to go") // it is at zero again
		do(t, ctx, click(id("hand-pour")))
		now.Add(int64(4 * time.Second))
		reads(t, ctx, id("weigh-next"), next)
	}
	pour("2 of 7")
	reads(t, ctx, id("scale-says"), "to go")
	do(t, ctx, click(id("hand-pour")), click(id("hand-spoon_in")))
	now.Add(int64(4 * time.Second))
	reads(t, ctx, id("scale-says"), "too much")
	reads(t, ctx, id("weigh-next"), "2 of 7")
	do(t, ctx, click(id("hand-spoon_out")))
	now.Add(int64(4 * time.Second))
	reads(t, ctx, id("weigh-next"), "3 of 7")

	// A reload in the middle loses nothing.
	do(t, ctx, Navigate(url), WaitVisible(id("weigh-next")))
	reads(t, ctx, id("weigh-next"), "3 of 7")
	reads(t, ctx, id("scale-says"), "to go")
	pour("4 of 7")
	pour("5 of 7")
	pour("6 of 7")
	pour("7 of 7")
	pour("All 7 weighed")
	reads(t, ctx, id("all-weighed"), "to check before baking")
	do(t, ctx, WaitEnabled(id("weighed-into-oven")), click(id("weighed-into-oven")))
	reads(t, ctx, id("next-call"), "Gooseberry crumble")

	// A probe in the middle, the door left open, and an hour in a minute.
	do(
		t,
		ctx,
		click(id("probe-middle")),
		click(id("simulation")),
		click(id("speed-60")),
		WaitVisible(id("open-door")),
		click(id("open-door")),
	)
	reads(t, ctx, id("simulation"), "60 × faster, the door is open")
	poller := pollerOf(s, now)
	for range 40 {
		must(t, poller.Advance(t.Context(), time.Second))
	}
	do(t, ctx, Navigate(url+"/watch"), idle())
	reads(t, ctx, id("estimate"), "By the probe, the oven is", "Reminders are adjusted")
	reads(t, ctx, id("state"), "min")
	do(t, ctx, click(id("speed-1")), click(id("done-take_out")))
	reads(t, ctx, id("state"), "out since")

	// Reported, with a picture.
	picture := filepath.Join(t.TempDir(), "crumble.png")
	f, err := os.Create(picture)
	must(t, err)
	must(t, png.Encode(f, image.NewGray(image.Rect(0, 0, 320, 240))))
	must(t, f.Close())
	notes := filepath.Join(t.TempDir(), "notes.png")
	must(t, os.WriteFile(notes, []byte("no picture at all"), 0o600))
	do(
		t,
		ctx,
		click(id("how-did-it-come-out")),
		click(id("juice-runny")),
		click(id("top-pale")),
		SetUploadFiles(id("picture-file"), []string{notes}),
	)
	reads(t, ctx, CSS(`.ask [role="alert"]`), "use a JPEG or PNG")
	do(
		t,
		ctx,
		SetUploadFiles(id("picture-file"), []string{picture}),
		WaitVisible(id("picture-away")),
		click(id("trace")),
		fill(id("made-by"), "Tamsin"),
		fill(id("lot-gooseberry"), "June, Hollow Field"),
		click(id("log-it")),
	)
	reads(t, ctx, id("nothing-in"), "Nothing is in the oven")
	do(t, ctx, Navigate(url+"/log"), click(id("open-bake")))
	reads(t, ctx, id("batch"), "Batch ", "made by Tamsin", "gooseberry: June, Hollow Field")
	do(t, ctx, click(id("seek-June, Hollow Field")), WaitNotPresent(id("bake-Raspberry cream bars")))
	reads(t, ctx, id("bake-Gooseberry crumble"), "Gooseberry crumble")
	page, _, err := s.Bakes(t.Context(), demo.Kitchen.ID, app.BakeFilter{}, nil, 1)
	must(t, err)
	b := page[0]
	if b.Picture == nil || b.Happened == nil || len(b.Happened.Weighed) != 7 || len(b.Happened.Readings) < 20 ||
		*b.Juice != "runny" {
		t.Fatalf("logged is %+v, %+v", b.Outcome, b.Happened)
	}
	for _, w := range b.Happened.Weighed {
		if w.G < 0.97*w.PlannedG-0.3 || w.G > 1.03*w.PlannedG+0.3 {
			t.Errorf("%s: %g of %g g", w.Name, w.G, w.PlannedG)
		}
	}

	// In the log, with why; put right, and taken back.
	do(t, ctx, Navigate(url+"/log"), WaitVisible(CSS(".thumb")), click(id("open-bake")))
	reads(t, ctx, id("how-it-went"), "dots: probe readings", "Weighed:")
	reads(
		t,
		ctx,
		id("why"),
		"Possible causes",
		"thinner than planned",
		"Expected from the model",
		"Already predicted: not set everywhere",
	) // it was taken out too soon
	do(
		t,
		ctx,
		click(id("more-Gooseberry crumble")),
		click(id("correct")),
		click(id("juice-saucy")),
		fill(id("note"), "Thickened overnight."),
		click(id("log-it")),
	)
	reads(t, ctx, id("lately"), "is corrected")
	reads(t, ctx, id("told-before"), "juice, cold: runny → saucy", "note: not logged → “Thickened overnight.”")
	do(t, ctx, click(id("undo")))
	reads(t, ctx, id("bake-Gooseberry crumble"), "Runny, thinner")
	do(t, ctx, click(id("redo")))
	reads(t, ctx, id("bake-Gooseberry crumble"), "saucy")
	do(t, ctx, click(id("undo")), click(id("lately-fine")), WaitNotPresent(id("lately")))
	reads(t, ctx, id("bake-Gooseberry crumble"), "Runny, thinner")

	// Side by side with another.
	do(
		t,
		ctx,
		click(id("more-Gooseberry crumble")),
		click(id("choose-Gooseberry crumble")),
		click(id("more-Plum betty")),
		click(id("choose-Plum betty")),
		click(id("compare")),
	)
	reads(
		t,
		ctx,
		id("side-by-side"),
		"Gooseberry crumble",
		"Plum betty",
		"crumble betty",
		"Planned result",
		"Result",
	)
	if words := text(t, ctx, id("side-by-side")); strings.Contains(words, "Dish material") {
		t.Error("what is the same is shown unasked")
	}
	do(t, ctx, click(id("also-same")))
	if n := strings.Count(text(t, ctx, id("side-by-side")), " g "); n < 10 {
		t.Errorf("%d weights", n)
	}
}

// A kitchen is taken away as one file and brought in as a second one; a new one begins empty.
func TestAKitchenIsBackedUpAndBroughtIn(t *testing.T) {
	t.Parallel()
	dsn := storetest.DSN(t)
	s := storeAt(t, dsn)
	url := serve(t, s)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+"/kitchen/backup"), WaitVisible(id("backup")))
	zip := filepath.Join(t.TempDir(), "yard.zip")
	r, err := http.Get(url + "/api/v1/kitchens/" + demo.Kitchen.ID.String() + "/backup.zip")
	must(t, err)
	raw, err := io.ReadAll(r.Body)
	must(t, err)
	must(t, r.Body.Close())
	must(t, os.WriteFile(zip, raw[:len(raw)/2], 0o600))
	do(t, ctx, SetUploadFiles(id("restore"), []string{zip}))
	reads(t, ctx, id("restore-refused"), "Nothing was imported")

	// Held up, it says so and how far it is, and it can be stopped.
	must(t, os.WriteFile(zip, raw, 0o600))
	other, err := pgx.Connect(t.Context(), dsn)
	must(t, err)
	defer func() { _ = other.Close(context.WithoutCancel(t.Context())) }()
	held, err := other.Begin(t.Context())
	must(t, err)
	_, err = held.Exec(t.Context(), `lock table card_version in exclusive mode`)
	must(t, err)
	do(t, ctx, SetUploadFiles(id("restore"), []string{zip}))
	reads(t, ctx, CSS(".work"), "Importing, ", "%")
	do(t, ctx, Click(id("stop-work")))
	reads(t, ctx, id("restore-refused"), "Stopped. Nothing was imported")
	must(t, held.Rollback(t.Context()))
	if k, err := s.Kitchens(t.Context()); err != nil || len(k) != 1 {
		t.Errorf("%d kitchens, %v", len(k), err)
	}

	// Cut off from the server it goes on there, and the page finds out what came of it.
	again, err := other.Begin(t.Context())
	must(t, err)
	_, err = again.Exec(t.Context(), `lock table card_version in exclusive mode`)
	must(t, err)
	do(t, ctx, SetUploadFiles(id("restore"), []string{zip}))
	reads(t, ctx, CSS(".work"), "Importing, ", "%")
	cutOff(url)
	must(t, again.Rollback(t.Context()))
	reads(t, ctx, id("restored"), "Oxlip Yard, restored is restored")
	if k, err := s.Kitchens(t.Context()); err != nil || len(k) != 2 {
		t.Errorf("%d kitchens, %v", len(k), err)
	}
	do(
		t,
		ctx,
		click(id("go-Oxlip Yard, restored")),
		WaitVisible(CSS("header")),
		Navigate(url+"/log"),
		WaitVisible(id("open-bake")),
	)
	reads(t, ctx, CSS("header .kitchen"), "Oxlip Yard, restored")
	do(
		t,
		ctx,
		Navigate(url+"/kitchen/backup"),
		click(id("add-kitchen")),
		fill(id("new-name"), "Back room"),
		click(id("name-it")),
		WaitVisible(CSS("header")),
		Navigate(url+"/log"),
		idle(),
	)
	reads(t, ctx, CSS("main"), "No bakes yet")
	reads(t, ctx, CSS("header .kitchen"), "Back room")

	// One is taken away for good: by its name alone, and the page goes to another.
	do(t, ctx, Navigate(url+"/kitchen/backup"), click(id("remove-Back room")))
	reads(t, ctx, id("remove-kitchen"), "Delete Back room?", "for good", "Download a backup")
	if file := os.Getenv("MABBIN_LOOK"); file != "" {
		shot(t, ctx, file)
	}
	do(t, ctx, fill(id("remove-name"), "Back"), WaitVisible(CSS("[data-testid=remove-for-good]:disabled")))
	do(t, ctx, fill(id("remove-name"), "Back room"), Click(id("remove-for-good")))
	do(t, ctx, WaitVisible(id("dish-Iron skillet"))) // the Bench of the one that is left
	reads(t, ctx, CSS("header .kitchen"), "Oxlip Yard")
	if k, err := s.Kitchens(t.Context()); err != nil || len(k) != 2 {
		t.Errorf("%d kitchens, %v", len(k), err)
	}
}
