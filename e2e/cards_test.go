package e2e

import (
	"context"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	cdpbrowser "github.com/chromedp/cdproto/browser"
	. "github.com/chromedp/chromedp"
)

const written = `Gran's plum crumble
900g/2lb plums, halved and stoned
1/2 cup caster sugar
1 punnet raspberries
1 tsp cornflower
60 g lemon zest

For the topping:
1 1/2 cups plain flour, scooped
1 stick cold butter
1/2 cup demerara
salt

Method
1. Heat the oven to 190C.
2. Bake for 40 to 50 minutes.`

// paste puts text into the import page and has it read.
func paste(text string) step {
	return Steps(
		WaitVisible(id("pasted")),
		SetValue(id("pasted"), text),
		Focus(id("pasted")),
		KeyEvent("\n"),
		click(id("read")),
	)
}

// An inherited card: understood line by line, its doubtful lines answered, judged as it is written, and mended.
func TestImportingAnInheritedCard(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+"/cards"), click(id("import")), paste(written))
	reads(t, ctx, id("line-0"), "900 g Plum", "as bought")
	reads(t, ctx, CSS(".cups"), "US cups, because it counts butter in sticks")
	reads(t, ctx, id("line-1"), "103 g Caster sugar", "205 g a cup of 236.6 ml")
	do(t, ctx, click(id("cups-metric")))
	reads(t, ctx, id("line-1"), "108 g Caster sugar", "217 g a cup of 250 ml")
	reads(t, ctx, id("line-5"), "225 g", "Plain flour", "scooped")
	reads(t, ctx, id("text-line-6"), "1 1/2 cups plain flour")
	reads(t, ctx, id("import-steps"), "Bake at 190 °C: 40 to 50 min")
	reads(t, ctx, id("open-questions"), "3 questions")
	if s := text(t, ctx, id("verdict")); s != "" {
		t.Errorf("judged before the questions were answered: %s", s)
	}

	do(t, ctx, fill(id("container-2"), "250"))
	reads(t, ctx, id("line-2"), "250 g Raspberry", "as entered for this kitchen")
	reads(t, ctx, id("ask-3-unknown_ingredient"), "Is it Cornflour")
	do(t, ctx, click(id("is-3-cornflour")))
	reads(t, ctx, id("ask-4-slip"), "60 g of lemon zest", "Usual is up to", "Perhaps 6 g")
	do(t, ctx, click(id("suggest-4")))
	reads(t, ctx, id("waits"), "Choose a dish")
	do(t, ctx, click(id("import-dish")), click(id("import-dish-Iron skillet")))
	reads(t, ctx, id("version-as_written"), "runny")
	reads(t, ctx, id("verdict"), "The juice will be runny; a crumble is usually spoonable")
	reads(t, ctx, id("changes"), "Thickener:", "runny to spoonable")
	reads(t, ctx, id("version-mended"), "spoonable")
	reads(t, ctx, id("version-own"), "spoonable")

	// Another dish, another verdict; a line written anew is read again.
	do(t, ctx, click(id("import-dish")), click(id("import-dish-Rolled-rim pie dish")))
	reads(t, ctx, id("verdict"), "will boil over")
	reads(t, ctx, id("changes"), "Prepared fruit:", "below the rim")
	do(
		t,
		ctx,
		click(id("import-dish")),
		click(id("import-dish-Iron skillet")),
		click(id("edit-1")),
		fill(id("text-1"), "150 g caster sugar"),
	)
	reads(t, ctx, id("line-1"), "150 g Caster sugar")

	// On the Bench as written, then mended by one touch, which can be undone.
	do(t, ctx, click(id("open-as_written")))
	reads(t, ctx, id("figures"), "runny")
	reads(t, ctx, id("line-topping-butter"), "113 g")
	reads(t, ctx, id("station-bake"), "190 °C, 45 min")
	reads(t, ctx, id("written"), "Smallest change that fixes it", "Thickener")
	do(t, ctx, click(id("mend")))
	reads(t, ctx, id("figures"), "spoonable")
	do(t, ctx, click(id("undo")))
	reads(t, ctx, id("figures"), "runny")
	do(t, ctx, click(id("own-way")))
	reads(t, ctx, id("figures"), "spoonable")

	// What was asked once is remembered.
	do(t, ctx, Navigate(url+"/cards/import"), paste("2 punnets raspberries\n100 g oats\n50 g butter\n50 g caster sugar"))
	reads(t, ctx, id("line-0"), "500 g Raspberry")
}

// A recipe with a base is judged whole, several things on a line are all read, and a named sort is asked about once.
func TestImportingARecipeWithABase(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+"/cards/import"), paste(`Oxlip bars
80 g each plain flour, rolled oats and butter
30 g caster sugar
2 large Nonesuch apples
60 g sugar
8 g cornflour`))
	reads(t, ctx, id("line-0"), "80 g Plain", "80 g Rolled oats", "80 g Butter")
	reads(t, ctx, id("ask-2-unknown_ingredient"), "Which kind of fruit", "nonesuch apples")
	do(
		t,
		ctx,
		click(id("is-2-apple_sharp")),
		click(id("import-style")),
		click(id("import-style-bar")),
		click(id("import-dish")),
		click(id("import-dish-Square tin")),
	)
	reads(t, ctx, id("line-2"), "nonesuch apples")
	reads(t, ctx, id("assumed"), "press two thirds of it")
	reads(t, ctx, id("version-as_written"), "base", "180 g")
	do(t, ctx, click(id("import-clear")), paste("5 Nonesuch apples\n100 g oats\n50 g butter\n50 g caster sugar"))
	reads(t, ctx, id("line-0"), "nonesuch apples", "as bought")
}

// A whole recipe with a base and two heats is read without a question: its steps, its dish, and what is only served with
// it. A line that is moved and a step that is corrected change the verdict, and the card is saved with its stages.
func TestImportingAWholeRecipe(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(t, ctx, Navigate(url+"/cards/import"), paste(`Rhubarb crumble pie
Serves 8. Prep 40 minutes, cooling 3 hours.

The case
200 g plain flour
110 g cold butter
45 ml cold water

Inside
900 g rhubarb
180 g caster sugar
30 g cornflour

Rubble
120 g plain flour
70 g butter
60 g demerara sugar

To serve: thick cream

Roll out the pastry, line a 23 cm metal tart tin, 4 cm deep, with it and chill for 30 minutes. Line with paper and
beans and bake at 190C for 15 minutes; take out the beans and bake for 8 minutes more.
Cut the rhubarb into 2 cm pieces and toss with the sugar and cornflour. Pile into the case and cover with the rubble.
Bake at 200C for 20 minutes. Turn the oven down to 180C and bake for 30 minutes more, until golden and bubbling.
Leave for 3 hours before you cut it.`))
	reads(t, ctx, id("import-steps"), "Chill the base: 30 min", "Par-bake the base at 190 °C: 23 min, with weights first",
		"Bake at 200 °C: 20 min", "Bake at 180 °C: 30 min", "Let it stand: 180 min")
	reads(t, ctx, id("recipe-dish"), "In 23 cm round, 4 deep, as in the recipe")
	reads(t, ctx, id("bowl-0"), "Base")
	reads(t, ctx, id("bowl-6"), "Topping")
	reads(t, ctx, id("line-9"), "thick cream", "served with it")
	reads(t, ctx, id("version-as_written"), "base", "355 g")
	reads(t, ctx, id("verdict"), "Its bake as written: 200 °C, 20 min; then 180 °C, 30 min")

	do(t, ctx, click(id("bowl-8")), click(id("bowl-8-out")))
	reads(t, ctx, id("version-as_written"), "topping", "190 g")
	do(t, ctx, click(id("step-3")), fill(id("step-minutes"), "40"), click(id("bowl-8")), click(id("bowl-8-topping")))
	reads(t, ctx, id("verdict"), "then 180 °C, 40 min")
	reads(t, ctx, id("version-as_written"), "topping", "250 g")
	do(t, ctx, click(id("open-as_written")))
	reads(t, ctx, id("station-bake"), "180 °C, 60 min")
}

// Recipe data as files: JSON-LD inside a page, a table, and what can't be read.
func TestImportingFiles(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	dir := t.TempDir()
	file := func(name, content string) string {
		path := filepath.Join(dir, name)
		must(t, os.WriteFile(path, []byte(content), 0o600))
		return path
	}
	upload := func(path string) step {
		return Steps(WaitReady(id("file")), SetUploadFiles(id("file"), []string{path}), idle())
	}
	do(t, ctx, Navigate(url+"/cards/import"), upload(file("broken.json", "{\n\"@type\": Recipe}")))
	reads(t, ctx, id("import-problem"), "line 2", "not JSON")
	do(
		t,
		ctx,
		upload(
			file(
				"page.html",
				`<html><head><script type="application/ld+json">{"@type":"Recipe","name":"Pear <b>crisp</b>","recipeIngredient":["6 pears","80 g sugar","2 tbsp cornstarch","1 cup oats","<script>alert(1)<\/script>100 g butter","1 cup brown sugar"]}</script></head></html>`,
			),
		),
	)
	reads(t, ctx, CSS(".lines"), "6 pears", "as bought")
	reads(t, ctx, id("line-4"), "100 g Butter")
	if name, err := Run(ctx, Value(id("import-name"))); err != nil || name != "Pear crisp" {
		t.Errorf("name %q, %v", name, err)
	}
	do(
		t,
		ctx,
		click(id("import-clear")),
		upload(
			file(
				"list.csv",
				"bowl,ingredient,grams\nfilling,damsons,900\nfilling,caster sugar,180\ntopping,plain flour,200\ntopping,butter,100\ntopping,caster sugar,100\n",
			),
		),
	)
	reads(t, ctx, id("line-0"), "900 g Damson")
	reads(t, ctx, id("bowl-3"), "Topping")
	do(t, ctx, click(id("import-dish")), click(id("import-dish-Small stoneware")))
	reads(t, ctx, id("version-as_written"), "juice")
}

// A card that is given away comes back whole.
func TestACardGoesOutAndComesBack(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	dir := t.TempDir()
	_, err := CallBrowser(ctx, cdpbrowser.SetDownloadBehavior, cdpbrowser.SetDownloadBehaviorParams{
		Behavior:         cdpbrowser.SetDownloadBehaviorBehaviorAllow,
		DownloadPath:     dir,
		BrowserContextID: FromContext(ctx).BrowserContextID,
	})
	must(t, err)
	do(t, ctx, openCard(url, "Pear and blackberry streusel"))
	reads(t, ctx, id("figures"), "939 g", "16 g")
	for form, name := range map[string]string{"jsonld": "pear-and-blackberry-streusel.json", "html": "pear-and-blackberry-streusel.html", "csv": "pear-and-blackberry-streusel.csv"} {
		do(t, ctx, click(id("files")), click(id("away-"+form)))
		path := arrives(t, ctx, filepath.Join(dir, name))
		do(
			t,
			ctx,
			act("new"),
			Navigate(url+"/cards/import"),
			WaitReady(id("file")),
			SetUploadFiles(id("file"), []string{path}),
			WaitVisible(id("figures")),
			idle(),
		)
		reads(t, ctx, id("figures"), "934 g", "17 g")
		reads(t, ctx, id("line-fruit-lemon_juice"), "25 g")
		reads(t, ctx, id("station-bake"), "165 °C, 35 min")
	}
	do(t, ctx, click(id("files")), click(id("away-text")))
	b, err := os.ReadFile(arrives(t, ctx, filepath.Join(dir, "pear-and-blackberry-streusel.txt")))
	must(t, err)
	for _, want := range []string{"Pear and blackberry streusel", "For the topping:", "654 g pear", "17 g tapioca starch", "Bake at 165 C"} {
		if !strings.Contains(string(b), want) {
			t.Errorf("no %q in\n%s", want, b)
		}
	}
}

// arrives waits until a file has been downloaded whole.
func arrives(t testing.TB, ctx context.Context, path string) string {
	t.Helper()
	for ctx.Err() == nil {
		if s, err := os.Stat(path); err == nil && s.Size() > 0 {
			return path
		}
		time.Sleep(20 * time.Millisecond)
	}
	t.Fatalf("%s did not arrive", path)
	return ""
}

// The gallery is narrowed by what cards are; a card is named, copied, put away, and each is taken back.
func TestTheGalleryOfCards(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		Navigate(url+"/cards"),
		WaitVisible(id("card-Plum betty")),
		fill(id("find-card"), "cobbler"),
		WaitNotPresent(id("card-Plum betty")),
	)
	reads(t, ctx, id("card-Apricot cobbler"), "cobbler · apricot", "saucy", "6 portions", "24 cm round, 4.5 deep")
	do(
		t,
		ctx,
		click(id("narrow")),
		click(id("seek-shape")),
		click(id("seek-shape-oval")),
		WaitNotPresent(id("card-Apricot cobbler")),
		WaitVisible(id("card-Pumpkin and sweetcorn cobbler")),
	)
	do(t, ctx, click(id("seek-diet")), click(id("seek-diet-vegan")))
	reads(t, ctx, id("no-card"), "No card matches")
	do(t, ctx, click(id("no-card", " button")), click(id("more-Gooseberry crumble")))
	reads(t, ctx, id("versions-beside"), "Version 1", "Version 2", "Gooseberry 1027 g 974 g", "Planned result")
	do(t, ctx, click(id("card-tags")), click(id("tag-picnic")))
	reads(t, ctx, CSS(".el-dialog .el-select__selection"), "picnic")
	do(t, ctx, fill(id("card-name"), "Green crumble"), click(id("rename")))
	reads(t, ctx, CSS(".el-dialog__title"), "Green crumble")
	do(
		t,
		ctx,
		click(id("put-away")),
		WaitNotPresent(id("card-Gooseberry crumble")),
		WaitNotPresent(id("card-Green crumble")),
	)
	reads(t, ctx, id("lately"), "Green crumble is archived")
	do(
		t,
		ctx,
		click(id("undo")),
		WaitVisible(id("card-Green crumble")),
		click(id("undo")),
		WaitVisible(id("card-Gooseberry crumble")),
	)
	reads(t, ctx, id("lately"), "Undone: Gooseberry crumble is now called Green crumble")
	do(t, ctx, Reload(), WaitVisible(id("card-Gooseberry crumble")), KeyEvent("r"), WaitVisible(id("card-Green crumble")))
	reads(t, ctx, id("lately"), "Redone: Gooseberry crumble is now called Green crumble")
	do(t, ctx, click(id("more-Green crumble")), click(id("copy-card")))
	reads(t, ctx, id("card-Green crumble, copy"), "crumble · gooseberry")
	do(
		t,
		ctx,
		click(id("undo")),
		WaitNotPresent(id("card-Green crumble, copy")),
		click(id("more-Green crumble")),
		click(id("version-1")),
	)
	reads(t, ctx, id("save-state"), "version 1")
}

// An unknown ingredient is added where it is met: with the most similar one and its label. It is known from then on.
func TestTakingInOnesOwn(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		Navigate(url+"/cards/import"),
		paste("900 g plums\n100 g plain flour\n60 g butter\n50 g zanthium meal"),
		click(id("own-3")),
		WaitVisible(id("own-like")),
		click(id("own-like")),
		click(id("own-like-ground_almonds")),
		fill(id("own-thing-fat_pct"), "40"),
		click(id("own-thing-keep")),
	)
	reads(t, ctx, id("line-3"), "50 g", "anthium meal")
	do(t, ctx, click(id("import-clear")), paste("500 g plums\n20 g zanthium meal"))
	reads(t, ctx, id("line-1"), "20 g", "anthium meal")
	do(t, ctx, Navigate(url+"/kitchen/ingredients"), fill(id("find-row"), "zanthium"))
	reads(t, ctx, CSS("main"), "anthium meal")
}

// What no list knows is taken in from the list that it is missed in, and used at once.
func TestOnesOwnFromTheListsOfTheBench(t *testing.T) {
	t.Parallel()
	url, _ := kitchen(t)
	ctx := tab(t, 1280, 800)
	do(
		t,
		ctx,
		Navigate(url),
		fill(id("find-fruit"), "loganberry"),
		click(id("own-fruit")),
		click(id("own-like")),
		click(id("own-like-raspberry")),
		click(id("own-thing-keep")),
		click(id("dish-Small stoneware")),
		click(id("style-crisp")),
	)
	reads(t, ctx, id("line-fruit-loganberry"), "loganberry")
	do(
		t,
		ctx,
		click(id("station-topping")),
		click(id("add-part")),
		click(id("own-part")),
		fill(id("own-thing-name"), "Oxlip granola"),
		click(id("own-like")),
		click(id("own-like-rolled_oats")),
		click(id("own-thing-keep")),
	)
	reads(t, ctx, id("line-topping-oxlip_granola"), "Oxlip granola")
}
