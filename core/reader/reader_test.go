package reader

import (
	"strings"
	"testing"
	"unicode/utf8"

	"mabbin/core/larder"
	"mabbin/core/units"
)

func read(t *testing.T, text string) *Reading {
	t.Helper()
	r, err := Read(Source{Text: text}, larder.Vocabulary(nil), units.Conventions{})
	if err != nil {
		t.Fatal(err)
	}
	return r
}

// recipeWith is a plain crumble whose method ends with the given sentences.
func recipeWith(method string) string {
	return "Plum crumble\n\n900 g plums, stoned\n100 g caster sugar\n\nFor the topping:\n200 g plain flour\n100 g butter\n100 g demerara sugar\n\nMethod\n" + method
}

// A cooling hour, a time in a note and one of another way to make it are no bakes.
func TestOtherTimesAreNoBake(t *testing.T) {
	for method, want := range map[string]string{
		"Bake at 190C for 40 minutes. Cool for 2 hours.":                                        "bake 40 none, rest 120",
		"Bake at 350F for 30 to 40 minutes. Let it stand for half an hour.":                     "bake 35 none, rest 30",
		"Bake at 190C for 40 minutes.\n\nTo freeze: bake from frozen at 170C for 1 hour.":       "bake 40 none",
		"Bake at 190C for 40 minutes.\n\nTip: a slow cooker takes 4 hours on low.":              "bake 40 none",
		"Chill the topping for 20 minutes. Spread over and bake at gas 5 for 45 min.":           "chill 20, bake 45 none",
		"Cover with foil and bake at 180C for 25 minutes. Take off the foil, bake 20 minutes.":  "bake 25 foil, bake 20 none",
		"Bake for 45 minutes at 190C, with foil on for the first 20.":                           "bake 20 foil, bake 25 none",
		"Bake at 200C for 15 minutes. Turn the oven down to 180C and bake for 25 minutes more.": "bake 15 none, bake 25 none",
	} {
		var got []string
		for _, s := range read(t, recipeWith(method)).Steps {
			x := string(s.Kind) + " " + formatted((s.Minutes[0]+s.Minutes[1])/2)
			if s.Kind == Bake {
				x += " " + s.Cover
			}
			got = append(got, x)
		}
		if s := strings.Join(got, ", "); s != want {
			t.Errorf("%q gives %s, want %s", method, s, want)
		}
	}
}

// Fahrenheit, gas marks and fan ovens are recognised with and without their letters.
func TestHeatsAreRead(t *testing.T) {
	for method, want := range map[string]Heat{
		"Bake at 350 degrees for 40 minutes.":                        {F: 350},
		"Bake in a moderate oven, gas mark 4, for 40 minutes.":       {Gas: 4},
		"Heat the oven to 190C/170C fan/gas 5. Bake for 40 minutes.": {Gas: 5},
		"Oven to 170C fan. Bake for 40 minutes.":                     {Fan: true},
	} {
		steps := read(t, recipeWith(method)).Steps
		if len(steps) == 0 || steps[0].C == nil {
			t.Errorf("%q: no heat", method)
			continue
		}
		h := steps[0].Heat
		if h.F != want.F || h.Gas != want.Gas || h.Fan != want.Fan || *h.C < 170 || *h.C > 190 {
			t.Errorf("%q: %+v, %g C", method, h, *h.C)
		}
	}
}

// What the text leaves open is asked, and nothing that it says.
func TestWhatIsMissingIsAsked(t *testing.T) {
	r := read(t, recipeWith("Bake until golden."))
	if s := strings.Join(r.Ask, ", "); s != "dish, oven, minutes" {
		t.Errorf("asks %s", s)
	}
	if r.Dish != nil {
		t.Errorf("a dish out of nothing: %+v", *r.Dish)
	}
	r = read(t, recipeWith("Use a 24 cm round glass dish. Bake at 180C for 40 minutes."))
	if len(r.Ask) > 0 || r.Dish == nil || r.Dish.DiameterCM != 24 || r.Dish.Material != "glass" {
		t.Errorf("asks %v, dish %+v", r.Ask, r.Dish)
	}
}

// A recipe in another language, or written from right to left, is answered clearly: its lines are there and asked about.
func TestOtherLanguagesAreNotLost(t *testing.T) {
	r := read(
		t,
		"Zwetschgenstreusel\n\n900 g Zwetschgen\n150 g Mehl\n100 g Zucker\n80 g Butter\n\nBei 180 Grad 40 Minuten backen.",
	)
	if len(r.Lines) < 4 || len(r.Ask) == 0 {
		t.Errorf("%d lines, asks %v", len(r.Lines), r.Ask)
	}
	r = read(t, "פריך תפוחים\n\n900 g apples\n100 g sugar\n150 g flour\n80 g butter\n\nלאפות 40 דקות")
	if len(r.Lines) < 4 || r.Title != "פריך תפוחים" {
		t.Errorf("%+v", r.Lines)
	}
}

// FuzzRead reads whatever somebody pastes: it ends with a reading or a refusal, and keeps every line.
func FuzzRead(f *testing.F) {
	for _, c := range wantCases(f) {
		f.Add(c.Text)
	}
	f.Add("(\n((((\n1/0 cup flour\n2 ½½ l0 l½ cups\n- , ; and\nServes to\n")
	p := larder.Vocabulary(nil)
	f.Fuzz(func(t *testing.T, text string) {
		if !utf8.ValidString(text) || len(text) > 20_000 {
			return
		}
		r, err := Read(Source{Text: text}, p, units.Conventions{})
		if err != nil {
			return
		}
		for _, l := range r.Lines {
			for _, x := range l.Items {
				if x.G != nil && (*x.G < 0 || *x.G > 1e7 || *x.G != *x.G) {
					t.Errorf("%q weighs %g g", l.Text, *x.G)
				}
			}
		}
		for _, s := range r.Steps {
			for _, m := range s.Minutes {
				if m < 0 || m != m {
					t.Errorf("%s takes %g min", s.Kind, m)
				}
			}
		}
	})
}

// The method is shown as it was written, word for word.
func TestTheMethodStaysAsWritten(t *testing.T) {
	method := "Heat the oven to 190C. Rub 4 T butter in 1 c. flour. Bake 40 min. at 350° F. till golden."
	var got []string
	for _, s := range read(t, recipeWith(method)).Method {
		got = append(got, s.Text)
	}
	if s := strings.Join(got, " "); s != method {
		t.Errorf("%q is shown as %q", method, s)
	}
}
