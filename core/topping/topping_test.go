package topping

import (
	"math"
	"strings"
	"testing"

	"mabbin/core/larder"
	"mabbin/core/message"
)

func row(t *testing.T, key string) larder.Topping {
	t.Helper()
	x, ok := larder.Toppings.Get(key)
	if !ok {
		t.Fatalf("no topping %s", key)
	}
	return x
}

func TestSizeFollowsAreaAndThickness(t *testing.T) {
	classic := Spec{Topping: row(t, "crumble_classic")}
	standard := Size(classic, 432)
	if math.Abs(standard.G-375.84) > 1e-9 {
		t.Errorf("432 cm2 take %g g, want 375.84", standard.G)
	}
	for amount, factor := range map[Amount]float64{Light: 0.75, Standard: 1, Generous: 1.3} {
		w := classic
		w.Amount = amount
		if got := Size(w, 864).G; math.Abs(got-2*factor*standard.G) > 1e-9 {
			t.Errorf("%s on twice the area: %g g", amount, got)
		}
	}
	w := classic
	w.Amount, w.ThicknessMM = Generous, 30
	if got := Size(w, 432).G; math.Abs(got-2*standard.G) > 1e-9 {
		t.Errorf("30 mm given by hand: %g g, want twice 15 mm", got)
	}
}

func TestPartsAddUpToTheTopping(t *testing.T) {
	for _, x := range larder.Toppings.All() {
		s := Size(Spec{Topping: x, BakersPct: map[string]float64{"cinnamon": 3}}, 500)
		sum := 0.0
		for _, p := range s.Parts {
			sum += p.G
		}
		if math.Abs(sum-s.G) > 1e-6 {
			t.Errorf("%s: the parts weigh %g g, the topping %g g", x.Key, sum, s.G)
		}
	}
}

func TestTheTablesOwnCrumbsReadWell(t *testing.T) {
	for _, x := range larder.Toppings.All() {
		if x.Family != "crumble" && x.Family != "crisp" && x.Family != "streusel" {
			continue
		}
		if r := Size(Spec{Topping: x}, 400).Read(); r.Fat != Crumbly || r.Sugar != Sweet {
			t.Errorf("%s, as it stands in the table, reads as %+v", x.Key, r)
		}
	}
}

// What a crumb comes to is reported with the borders that it is judged by, and with what single ingredients do to it.
func TestATexturesWords(t *testing.T) {
	of := func(key string, pct map[string]float64) string {
		return Size(Spec{Topping: row(t, key), BakersPct: pct}, 400).ReadIn(new(message.Book)).Text.String()
	}
	for text, want := range map[string][]string{
		of("crumble_equal", map[string]float64{"cornmeal": 20}): {"14 to 29 % holds together", "12 to 38 %", "crunchy.", "crisps the crumb."},
		of("crumble_classic", nil):                              {"Fat ", "crumbly", "browns well"},
		of("biscuit_rolled", nil):                               {"Hydration 65 %: rolls out and cuts", "Below 52 %", "up to 76 %", "up to 105 %"},
	} {
		for _, w := range want {
			if !strings.Contains(text, w) {
				t.Errorf("%q is not in %q", w, text)
			}
		}
	}
	if text := of("crumble_classic", map[string]float64{"cornmeal": 2}); strings.Contains(text, "crisps") {
		t.Errorf("a spoon of cornmeal is not tasted: %s", text)
	}
	for _, d := range Doughs {
		if is := stiffnessOf(d.HydrationPct); is != d.Is {
			t.Errorf("a dough of %g %% is %s, and offered as %s", d.HydrationPct, is, d.Is)
		}
	}
}
