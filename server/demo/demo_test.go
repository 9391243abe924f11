package demo

import (
	"cmp"
	"math"
	"slices"
	"strings"
	"testing"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/diet"
	"mabbin/core/larder"
)

// Every style has a card, and each card stands as its style does and fits its dish.
func TestEveryCardIsRight(t *testing.T) {
	styles := map[string]int{}
	for _, c := range cards {
		for _, r := range c.versions {
			styles[r.Style]++
			a, err := balance.Solve(r)
			if err != nil {
				t.Fatalf("%s: %v", c.name, err)
			}
			for _, x := range a.Remarks {
				if x.Level == balance.Warning {
					t.Errorf("%s: %s %s", c.name, x.Text, x.Reason)
				}
			}
		}
	}
	for _, s := range larder.Styles.All() {
		if styles[s.Key] == 0 {
			t.Errorf("no card of a %s", s.Key)
		}
	}
}

// The proposals for every diet, and for all of them together, on every card: nothing that is left out is in it, what
// has no swap is said, the juice stands as it did, and the doughs keep their fat.
func TestDietProposalsOnEveryCard(t *testing.T) {
	begin := map[diet.Diet][]string{
		diet.Vegan:      {"milk", "egg"},
		diet.DairyFree:  {"milk"},
		diet.EggFree:    {"egg"},
		diet.GlutenFree: {"gluten"},
		diet.NutFree:    {"nut"},
	}
	for _, c := range cards {
		r := c.versions[len(c.versions)-1]
		for _, diets := range append([][]diet.Diet{diet.All(), {diet.Vegan, diet.GlutenFree}}, each(diet.All())...) {
			p, err := diet.Propose(diet.Request{Request: r, Diets: diets})
			if err != nil {
				t.Errorf("%s, %v: %v", c.name, diets, err)
				continue
			}
			for _, d := range diets {
				for _, a := range p.Answer.Allergens.Contains {
					bad := slices.ContainsFunc(begin[d], func(s string) bool { return strings.HasPrefix(a, s) })
					if bad && len(p.Left) == 0 {
						t.Errorf("%s, %v: still contains %s: %+v", c.name, diets, a, p.Changes)
					}
				}
			}
			if p.Answer.Set.Band != p.Before.Set.Band && r.Custard == nil {
				t.Errorf("%s, %v: %s became %s", c.name, diets, p.Before.Set.Band, p.Answer.Set.Band)
			}
			if x, y := fat(p.Before, "topping"), fat(p.Answer, "topping"); math.Abs(x-y) > 0.35*x+2 {
				t.Errorf("%s, %v: the topping had %.0f g of fat and has %.0f: %+v", c.name, diets, x, y, p.Changes)
			}
			for _, x := range p.Changes {
				if x.From.IsZero() || x.Costs.IsZero() || x.From.Equal(x.To) {
					t.Errorf("%s, %v: %+v says nothing", c.name, diets, x)
				}
			}
			if testing.Verbose() {
				t.Logf("%s, %v: %+v LEFT %+v LABEL %v", c.name, diets, p.Changes, p.Left, p.CheckLabel)
			}
		}
	}
}

func each(all []diet.Diet) (out [][]diet.Diet) {
	for _, d := range all {
		out = append(out, []diet.Diet{d})
	}
	return out
}

func fat(a balance.Answer, bowl string) float64 {
	g := 0.0
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			if i, ok := larder.Ingredients.Get(l.Key); ok && b.Key == bowl {
				g += l.G * i.FatPct / 100
			}
		}
	}
	return g
}

// What the planner proposes for each card, to be read as a baker would.
func TestAPlanForEveryCard(t *testing.T) {
	for _, c := range cards {
		r := c.versions[len(c.versions)-1]
		a, err := bake.Dessert(t.Context(), bake.DessertRequest{Request: r, Setting: c.setting()})
		if err != nil {
			t.Errorf("%s: %v", c.name, err)
			continue
		}
		if a.Plan.Minutes < 15 || a.Plan.Minutes > 120 || a.Plan.Answer.End.SteamedOffG <= 0 {
			t.Errorf("%s: %s", c.name, a.Plan.Words())
		}
		t.Logf(
			"%s (%s): %s; colour %.2f, set %.2f, base %.2f, fruit %.0f of %.0f to %.0f; unmet %v; out then %.0f min",
			c.name,
			c.oven.Heating,
			a.Plan.Words(),
			a.Plan.Answer.End.Colour,
			a.Plan.Answer.End.SetShare,
			a.Plan.Answer.End.Base,
			a.Plan.Answer.End.FruitMinutes,
			a.Tender,
			a.Mush,
			a.Plan.Unmet,
			a.Plan.ServeFrom,
		)
		for _, w := range a.Plan.Remedies {
			t.Logf("    %s: %.0f C, %.0f min, settles %v %v", w.Name, w.OvenC, w.Minutes, w.Settles, w.Unmet)
		}
	}
}

// A month of bakes, of every card, that a café might have had: most come out well, and some as the yard's own truths
// make them.
func TestAMonthOfBakes(t *testing.T) {
	all, err := month()
	if err != nil {
		t.Fatal(err)
	}
	cardsSeen, tops, juices, pictures, watched, days := map[string]int{}, map[string]int{}, map[string]int{}, 0, 0, map[int]bool{}
	for _, m := range all {
		cardsSeen[m.Title]++
		days[int(m.ago.Hours()/24)] = true
		if m.Juice != nil {
			juices[*m.Juice]++
		}
		if m.Top != nil {
			tops[*m.Top]++
		}
		if m.picture != nil {
			pictures++
		}
		if m.Happened != nil {
			watched++
		}
	}
	t.Log(len(all), cardsSeen, tops, juices, pictures, watched)
	if len(all) < 40 || len(cardsSeen) != len(cards) || len(days) < 22 || pictures < 5 || watched < 10 {
		t.Errorf(
			"%d bakes of %d cards on %d days, %d pictures, %d watched",
			len(all),
			len(cardsSeen),
			len(days),
			pictures,
			watched,
		)
	}
	if tops["golden"] < len(all)/4 || tops["golden"] == tops["pale"]+tops["golden"]+tops["dark"] {
		t.Errorf("tops: %v", tops)
	}
}

// The cards of the demo come out right as they are written, but for one that is a little short and one that is far too
// short: a newcomer sees each level of the verdict.
func TestTheCardsShowEachVerdict(t *testing.T) {
	meant := map[string]bake.Level{"Windfall apple ramekin": bake.Nearly, "Freezer cherry crisp": bake.Wrong}
	for _, c := range cards {
		for n := range c.versions {
			q := bake.DessertRequest{Request: c.version(n + 1), Setting: c.setting()}
			q.Setting.Stages = []bake.Stage{{Minutes: c.minutes, OvenC: c.ovenC, Heating: c.oven.Heating}}
			a, err := bake.Dessert(t.Context(), q)
			if err != nil {
				t.Fatal(err)
			}
			if a.Verdict.Level != cmp.Or(meant[c.name], bake.Right) {
				t.Errorf("%s, version %d: %v", c.name, n+1, a.Verdict.Summary)
			}
		}
	}
}
