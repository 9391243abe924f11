package e2e

import (
	"encoding/json"
	"fmt"
	"os"
	"regexp"
	"strings"
	"testing"
	"unicode"

	"github.com/chromedp/cdproto/page"
	. "github.com/chromedp/chromedp"

	"mabbin/core/measure"
	"mabbin/core/wording"
)

// A kitchen reads its own English and its own decimal mark, and what was written by hand stays as it was written.
func TestAKitchenReadsItsOwnWords(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+"/shelf/kitchen"), click(id("english-us")), click(id("decimal-comma")))
	reads(t, ctx, id("sample"), "cornstarch", "7,5 g", "2,1 l")

	do(t, ctx, Navigate(url+"/cards"), click(id("card-Damson and apple crumble", " .open")), click(id("station-juice")))
	reads(t, ctx, id("line-dry-cornflour"), "Cornstarch")
	reads(t, ctx, id("line-topping-wheat_flour"), "All-purpose flour")
	do(t, ctx, fill(id("thickener-g"), "22,5"))
	reads(t, ctx, id("line-dry-cornflour"), "23 g")
	do(t, ctx, fill(id("thickener-g"), "7.5"))
	reads(t, ctx, id("line-dry-cornflour"), "7,5 g")

	do(t, ctx, Navigate(url+"/shelf/stores"))
	reads(t, ctx, CSS("main"), "All-purpose (plain) flour", "Cornstarch (UK: cornflour)")
	do(t, ctx, Navigate(url+"/shelf/kitchen"), click(id("english-uk")), click(id("decimal-point")), Navigate(url+"/shelf/stores"))
	reads(t, ctx, CSS("main"), "Plain (all-purpose) flour", "Cornflour (US: cornstarch)")
}

// The page and what the server prints read alike, whatever the kitchen's settings.
func TestThePageReadsAsThePrinterDoes(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	s := measure.Metric
	do(t, ctx, Navigate(url+"/shelf/kitchen"))
	for _, set := range []struct {
		key, value string
		in         *string
	}{
		{"weights", "oz", &s.Weights},
		{"decimal", "comma", (*string)(&s.Decimal)},
		{"heat", "f", &s.Heat},
		{"english", "us", (*string)(&s.English)},
		{"lengths", "in", &s.Lengths},
		{"heat", "gas", &s.Heat},
		{"heat", "fan", &s.Heat},
		{"weights", "g", &s.Weights},
	} {
		*set.in = set.value
		do(t, ctx, click(id(fmt.Sprintf("%s-%s", set.key, set.value))))
		r := wording.For(s)
		reads(t, ctx, id("sample"), r.Weight(376), r.MM(15), r.Text("cornflour"), r.Weight(7.5), r.Heat(180))
	}
}

// Every text that any view shows stands in the catalogue that a translator works in.
func TestEveryTextIsInTheCatalogue(t *testing.T) {
	t.Parallel()
	raw, err := os.ReadFile("../web/src/texts/en.json")
	must(t, err)
	var catalogue map[string][]string
	must(t, json.Unmarshal(raw, &catalogue))
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	_, err = Call(ctx, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{Source: "window.textsSeen = new Set()"})
	must(t, err)
	missing := map[string]string{}
	seen := 0
	everyView(url, func(view string, s ...step) {
		t.Helper()
		do(t, ctx, append(s, idle())...)
		raw, err := Run(ctx, Evaluate[string](`JSON.stringify([...window.textsSeen])`))
		must(t, err)
		var texts []string
		must(t, json.Unmarshal([]byte(raw), &texts))
		seen = max(seen, len(texts))
		if raw, err := Run(ctx, Evaluate[bool](`/\[object |"values"|\{[a-zA-Z0-9]+\}/.test(document.body.innerHTML)`)); err != nil || raw {
			t.Errorf("%s: a sentence is shown that was not read: %v", view, err)
		}
		for _, x := range texts {
			if _, known := catalogue[x]; !known && strings.ContainsFunc(placeless.ReplaceAllString(x, ""), unicode.IsLetter) {
				missing[x] = view
			}
		}
	})
	if seen < 200 {
		t.Errorf("only %d texts were asked for", seen)
	}
	for x, view := range missing {
		t.Errorf("%s: %q is in no catalogue", view, x)
	}
}

var placeless = regexp.MustCompile(`\{[^}]*\}`)
