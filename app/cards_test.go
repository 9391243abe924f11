package app

import (
	"errors"
	"slices"
	"strings"
	"testing"

	"mabbin/core/diet"
	"mabbin/core/oven"

	"github.com/google/uuid"
)

func TestACardIsSavedWithWhatListsNeed(t *testing.T) {
	box, now := newCardBox(), newClock()
	cards := Cards{Store: box, Kitchens: kitchens{}, Clock: now.now}
	kitchen, card, version := uuid.New(), uuid.New(), uuid.New()
	c, err := cards.Save(t.Context(), kitchen, card, "Gooseberry crumble", Version{ID: version, Request: crumble()})
	if err != nil || len(c.Versions) != 1 || !c.Versions[0].SavedAt.Equal(now.at) {
		t.Fatalf("%+v, %v", c, err)
	}
	s := box.summaries[version]
	if s.Version != SummaryVersion || s.Ingredients < 5 || !slices.Contains(s.Suits, diet.EggFree) ||
		slices.Contains(s.Suits, diet.Vegan) {
		t.Errorf("%+v", s)
	}
	bad := crumble()
	bad.Style = "soup"
	if _, err := cards.Save(
		t.Context(),
		kitchen,
		uuid.New(),
		"Soup",
		Version{ID: uuid.New(), Request: bad},
	); !has(
		err,
		"/request/style",
	) {
		t.Errorf("soup: %v", err)
	}
	if _, err := cards.SaveVersion(
		t.Context(),
		kitchen,
		card,
		Version{ID: uuid.New(), Request: bad},
	); !has(
		err,
		"/request/style",
	) {
		t.Errorf("a version of soup: %v", err)
	}
	if len(box.cards) != 1 || len(box.cards[0].Versions) != 1 {
		t.Errorf("something wrong was kept: %+v", box.cards)
	}
	if _, err := cards.SaveVersion(
		t.Context(),
		kitchen,
		uuid.New(),
		Version{ID: uuid.New(), Request: crumble()},
	); !errors.Is(
		err,
		ErrNotFound,
	) {
		t.Errorf("a version of no card: %v", err)
	}
}

// What a filter computes is caught up on for cards that have it not, once; a filter that needs nothing computes
// nothing.
func TestListsCatchUpOnSummaries(t *testing.T) {
	box := newCardBox()
	cards := Cards{Store: box, Clock: newClock().now}
	for range 3 * atOnce / 2 {
		v := Version{ID: uuid.New(), Request: crumble()}
		if _, err := box.AddCard(t.Context(), uuid.Nil, uuid.New(), "old", v, CardSummary{}); err != nil {
			t.Fatal(err)
		}
	}
	made := func() (n int) {
		for _, s := range box.summaries {
			if s.Version == SummaryVersion {
				n++
			}
		}
		return n
	}
	if _, all, err := cards.List(
		t.Context(),
		uuid.Nil,
		CardFilter{Words: "x"},
	); err != nil || all != len(box.cards) ||
		made() != 0 {
		t.Errorf("%d of %d, %d made, %v", all, len(box.cards), made(), err)
	}
	if _, _, err := cards.List(
		t.Context(),
		uuid.Nil,
		CardFilter{Diet: diet.Vegan},
	); err != nil ||
		made() != len(box.cards) {
		t.Errorf("%d of %d made, %v", made(), len(box.cards), err)
	}
	if box.listed.Diet != diet.Vegan {
		t.Errorf("listed by %+v", box.listed)
	}
}

func TestTagsAreTidied(t *testing.T) {
	for name, c := range map[string]struct {
		in    []string
		want  string
		wrong string
	}{
		"blanks and twice":  {[]string{" picnic ", "Picnic", "long   table"}, "picnic|long table", ""},
		"none":              {[]string{}, "", ""},
		"nothing in one":    {[]string{"ok", " "}, "", "/tags/1"},
		"a novel":           {[]string{strings.Repeat("a", tagLong+1)}, "", "/tags/0"},
		"letters, no bytes": {[]string{strings.Repeat("ö", tagLong)}, strings.Repeat("ö", tagLong), ""},
		"too many":          {strings.Fields("a b c d e f g h i j k l m"), "", "/tags"},
	} {
		box := newCardBox()
		card := uuid.New()
		if _, err := box.AddCard(t.Context(), uuid.Nil, card, "C", Version{ID: uuid.New()}, CardSummary{}); err != nil {
			t.Fatal(err)
		}
		c2, err := Cards{Store: box}.Change(t.Context(), uuid.Nil, card, CardChange{Tags: &c.in}, "")
		if c.wrong != "" {
			if !has(err, c.wrong) || box.cards[0].Tags != nil {
				t.Errorf("%s: %v, %v kept", name, err, box.cards[0].Tags)
			}
			continue
		}
		if err != nil || strings.Join(c2.Tags, "|") != c.want {
			t.Errorf("%s: %v, %v", name, c2.Tags, err)
		}
	}
}

func TestVersionsAreCompared(t *testing.T) {
	oven := KitchenOven{ID: uuid.New(), Name: "Bench oven"}
	k := kitchens{id: uuid.New(), ovens: []KitchenOven{oven}}
	box := newCardBox()
	cards := Cards{Store: box, Kitchens: k, Clock: newClock().now}
	card := uuid.New()
	hot := 190.0
	if _, err := cards.Save(
		t.Context(),
		k.id,
		card,
		"C",
		Version{ID: uuid.New(), Request: crumble(), Setting: Setting{OvenID: &oven.ID, OvenC: &hot}},
	); err != nil {
		t.Fatal(err)
	}
	sweeter := crumble()
	sweeter.Sweetness = "sweet"
	if _, err := cards.SaveVersion(t.Context(), k.id, card, Version{ID: uuid.New(), Request: sweeter}); err != nil {
		t.Fatal(err)
	}
	rows, err := cards.Compare(t.Context(), k.id, card, 1, 2)
	if err != nil {
		t.Fatal(err)
	}
	changed := 0
	for _, r := range rows {
		if !r.A.Equal(r.B) {
			changed++
		}
	}
	if changed < 2 || changed == len(rows) {
		t.Errorf("%d of %d rows differ", changed, len(rows))
	}
	if _, err := cards.Compare(t.Context(), k.id, card, 1, 9); !errors.Is(err, ErrNotFound) {
		t.Errorf("version 9: %v", err)
	}
	broken := Cards{Store: box, Kitchens: kitchens{id: k.id}, Clock: newClock().now}
	if _, err := broken.Compare(t.Context(), k.id, card, 1, 2); !errors.Is(err, ErrNotFound) {
		t.Errorf("an oven that is not there: %v", err)
	}
}

// A page's cards bake in their own ovens, as the kitchen knows them.
func TestAPageKnowsItsOvens(t *testing.T) {
	one := KitchenOven{ID: uuid.New(), Oven: oven.Oven{Kind: oven.Indoor, Heating: "fan", OffsetC: 4}}
	k := kitchens{id: uuid.New(), altitude: 500, ovens: []KitchenOven{one}}
	cards := Cards{Store: newCardBox(), Kitchens: k}
	in := func(s Setting) Card { return Card{ID: uuid.New(), Versions: []Version{{Setting: s}}} }
	hot, minutes := 180.0, 40.0
	got, err := cards.Settings(t.Context(), k.id, []Card{
		in(Setting{OvenID: &one.ID, OvenC: &hot, Minutes: &minutes}), in(Setting{}), in(Setting{OvenID: &one.ID}),
	})
	if err != nil || len(got) != 3 {
		t.Fatalf("%+v, %v", got, err)
	}
	if got[0].OvenOffsetC != 4 || len(got[0].Stages) != 1 || got[1].OvenOffsetC != 0 || got[2].Heating != "fan" ||
		got[1].AltitudeM != 500 {
		t.Errorf("%+v", got)
	}
	nobody := uuid.New()
	if _, err := cards.Settings(t.Context(), k.id, []Card{in(Setting{OvenID: &nobody})}); !errors.Is(err, ErrNotFound) {
		t.Errorf("nobody's oven: %v", err)
	}
}
