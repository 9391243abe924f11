package e2e

import (
	"context"
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"mabbin/core/larder"
	"mabbin/server/demo"

	"github.com/chromedp/cdproto/emulation"
	. "github.com/chromedp/chromedp"
)

// sharedDay is a day for which nothing is wanted yet.
const sharedDay = "/day/2026-10-22"

// bought is a line of the list as it stands there.
type bought struct{ Key, Says, Price string }

// boughtLines are the lines of the list.
func boughtLines(t *testing.T, ctx context.Context) (out []bought) {
	t.Helper()
	raw, err := Run(
		ctx,
		Evaluate[string](`JSON.stringify([...document.querySelectorAll('label[data-testid^=buy-]')].map((l) => ({
		Key: l.dataset.testid.slice(4), Says: l.querySelector('.text').textContent, Price: l.querySelector('.price').textContent })))`),
	)
	must(t, err)
	must(t, json.Unmarshal([]byte(raw), &out))
	return out
}

// cents of a price as it is written; 0 where there is none.
func cents(t *testing.T, price string) int {
	t.Helper()
	digits := regexp.MustCompile(`[0-9]+\.[0-9]{2}`).FindString(price)
	if digits == "" {
		return 0
	}
	x, err := strconv.ParseFloat(digits, 64)
	must(t, err)
	return int(math.Round(100 * x))
}

// byHand is what a line costs by the prices of the kitchen: each pack rounded by itself, as it is at the till.
func byHand(line bought, own larder.Own) (minor int, known bool) {
	row, ok := own.Fruits[line.Key]
	if !ok {
		row, ok = own.Ingredients[line.Key]
	}
	price, priced := row.Values["price_per_kg"]
	if !ok || !priced || strings.HasPrefix(line.Says, "enough") {
		return 0, false
	}
	size := regexp.MustCompile(`(?:(\d+) × )?([\d.]+) (k?g)`)
	for _, m := range size.FindAllStringSubmatch(line.Says, -1) {
		n := 1
		if m[1] != "" {
			n, _ = strconv.Atoi(m[1])
		}
		g, _ := strconv.ParseFloat(m[2], 64)
		if m[3] == "kg" {
			g *= 1000
		}
		minor += n * int(math.Round(100*price*g/1000))
		known = true
	}
	return minor, known
}

// onPaper is what of a page is printed.
func onPaper(t *testing.T, ctx context.Context, media string) {
	t.Helper()
	_, err := Call(ctx, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{Media: media})
	must(t, err)
}

// Three cards and sixty portions, from the orders to the list, the labels and the counter cards, into the oven and the
// log, to what was left over; what is to be paid is the sum of its lines, and each line that of its packs by hand.
func TestSixtyPortionsFromTheListToTheCount(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t, ctx, Navigate(url+sharedDay), WaitVisible(id("add-order")), click(id("jot")),
		fill(id("order-lines"), "4 gooseberry crumble 13:00\n2 plum betty 15:00\n2 fig and orange bars 16:00 cold"),
		click(id("order-read")), WaitVisible(id("lay")),
	)
	reads(t, ctx, id("day-orders"), "Gooseberry crumble", "Plum betty", "Fig and orange bars")

	// the list, and what it comes to by hand
	do(
		t, ctx, storing("mabbin.wanted", `{"date":"2026-10-22","cards":[]}`), Navigate(url+"/stock"),
		WaitVisible(id("buy-gooseberry")), idle(),
	)
	res, err := http.Get(url + "/api/v1/kitchens/" + demo.Kitchen.ID.String() + "/own")
	must(t, err)
	defer func() { must(t, res.Body.Close()) }()
	var own larder.Own
	must(t, json.NewDecoder(res.Body).Decode(&own))
	sum, checked := 0, 0
	for _, l := range boughtLines(t, ctx) {
		sum += cents(t, l.Price)
		if hand, known := byHand(l, own); known {
			checked++
			if off := hand - cents(t, l.Price); off < -1 || off > 1 { // what is loose is weighed finer than it is written
				t.Errorf("%s, %s: %s on the list, %d by hand", l.Key, l.Says, l.Price, hand)
			}
		}
	}
	if checked < 5 {
		t.Errorf("%d lines were checked by hand", checked)
	}
	if all := cents(t, text(t, ctx, id("buy-sum"))); all != sum {
		t.Errorf("%d cents to be paid, the lines come to %d", all, sum)
	}
	onPaper(t, ctx, "print")
	reads(t, ctx, CSS("main"), "Shopping list", "Gooseberry")
	if onSheet := text(t, ctx, CSS("main")); strings.Contains(onSheet, "Copy") {
		t.Errorf("a control is on paper: %s", onSheet)
	}
	onPaper(t, ctx, "screen")

	// labels and counter cards
	do(t, ctx, click(id("stock-labels")))
	reads(t, ctx, CSS("main"), "Plum betty No label", "read its label") // no unread allergen is printed
	onPaper(t, ctx, "print")
	reads(t, ctx, id("label-Gooseberry crumble"), "Ingredients:", "Best before", "batch")
	onPaper(t, ctx, "screen")
	do(t, ctx, click(id("label-counter")))
	onPaper(t, ctx, "print")
	reads(t, ctx, id("label-Gooseberry crumble"), "Portion: about", "Contains")
	onPaper(t, ctx, "screen")

	// baked and logged: the store has less
	do(t, ctx, click(id("stock-items")), WaitVisible(id("stock-butter")))
	before := stocked(t, ctx, "butter")
	do(
		t, ctx, openCard(url, "Gooseberry crumble"), act("baked"), WaitVisible(id("baked-it")),
		click(id("juice-spoonable")), click(id("log-it")), WaitNotVisible(id("baked-it")), idle(),
		Navigate(url+"/stock/items"), WaitVisible(id("stock-butter")),
	)
	if after := stocked(t, ctx, "butter"); after >= before {
		t.Errorf("%g g of butter before the bake, %g after it", before, after)
	}

	// counted at closing
	do(t, ctx, Navigate(url+sharedDay), WaitVisible(id("lay")), click(id("count-Plum betty")))
	reads(t, ctx, id("sold-Plum betty"), "sold out")
	do(t, ctx, click(id("sold-Plum betty", ` [data-testid="one-more-left"]`)))
	reads(t, ctx, id("sold-Plum betty"), "1 of")
}

// stocked is how much of something is in store, g.
func stocked(t *testing.T, ctx context.Context, key string) float64 {
	t.Helper()
	raw, err := Run(ctx, Evaluate[string](fmt.Sprintf(`document.querySelector(%q).value`, id("stock-g-"+key))))
	must(t, err)
	x, err := strconv.ParseFloat(strings.TrimSpace(strings.ReplaceAll(raw, ",", "")), 64)
	must(t, err)
	return x
}
