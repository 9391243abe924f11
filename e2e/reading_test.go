package e2e

import (
	"fmt"
	"regexp"
	"strings"
	"testing"

	"mabbin/core/message"
	"mabbin/core/units"
	"mabbin/server/render"

	. "github.com/chromedp/chromedp"
)

// A kitchen reads its own English and its own decimal mark, and what was written by hand stays as it was written.
func TestAKitchenReadsItsOwnWords(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+"/kitchen/units"), click(id("english-us")), click(id("decimal-comma")))
	reads(t, ctx, id("sample"), "cornstarch", "7,5 g", "2,1 l")

	do(t, ctx, openCard(url, "Damson and apple crumble"), click(id("station-juice")))
	reads(t, ctx, id("line-dry-cornflour"), "Cornstarch")
	reads(t, ctx, id("line-topping-wheat_flour"), "All-purpose flour")
	do(t, ctx, fill(id("thickener-g"), "22,5"))
	reads(t, ctx, id("line-dry-cornflour"), "23 g")
	do(t, ctx, fill(id("thickener-g"), "7.5"))
	reads(t, ctx, id("line-dry-cornflour"), "7,5 g")

	do(t, ctx, Navigate(url+"/kitchen/ingredients"))
	reads(t, ctx, CSS("main"), "All-purpose (plain) flour", "Cornstarch (UK: cornflour)")
	do(
		t,
		ctx,
		Navigate(url+"/kitchen/units"),
		click(id("english-uk")),
		click(id("decimal-point")),
		Navigate(url+"/kitchen/ingredients"),
	)
	reads(t, ctx, CSS("main"), "Plain (all-purpose) flour", "Cornflour (US: cornstarch)")
}

// The page and what the server prints read alike, whatever the kitchen's settings.
func TestThePageReadsAsThePrinterDoes(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	s := units.Metric
	do(t, ctx, Navigate(url+"/kitchen/units"))
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
		r := render.For(s)
		sample := []string{r.Weight(376), r.Weight(7.5), r.CM(24), r.Text(message.New("cornflour"))}
		for kind, x := range map[message.Kind]float64{
			message.KindMillimetres: 15, message.KindMillilitres: 2100, message.KindOvenHeat: 180, message.KindCelsius: 21,
		} {
			sample = append(sample, r.Figure(kind, x))
		}
		reads(t, ctx, id("sample"), sample...)
	}
}

// Whatever a view shows is a finished sentence, and in an American kitchen an American one.
func TestEveryViewSpeaksInFinishedSentences(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+"/kitchen/units"), click(id("english-us")))
	seen := 0
	everyView(url, func(view string, s ...step) {
		t.Helper()
		do(t, ctx, append(s, idle())...)
		html, err := Run(ctx, Evaluate[string](`document.body.innerHTML`))
		must(t, err)
		if found := unread.FindString(html); found != "" {
			t.Errorf("%s: a sentence is shown that was not read: %s", view, found)
		}
		text, err := Run(ctx, Evaluate[string](`document.body.innerText`))
		must(t, err)
		seen = max(seen, len(text))
		if found := british.FindString(
			bracketed.ReplaceAllString(text, ""),
		); found != "" && !strings.Contains(view, "kitchen") &&
			!strings.Contains(view, "how-it-bakes") { // where the words are chosen, and a document
			t.Errorf("%s: %q is shown to an American", view, found)
		}
	})
	if seen < 2000 {
		t.Errorf("the longest view has %d letters", seen)
	}
}

var (
	unread  = regexp.MustCompile(`\[object [A-Z]|"values"|\{[a-zA-Z0-9]+\}|undefined`)
	british = regexp.MustCompile(
		`(?i)\b(cornflour|caster sugar|icing sugar|plain flour|colour|hob|litres?|centimetres?|bicarbonate)\b`,
	)
	bracketed = regexp.MustCompile(`\((UK|US): [^)]*\)|“[^”]*”`)
)
