package bake

import (
	"errors"
	"math"
	"slices"
	"strings"
	"testing"

	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/fault"
	"mabbin/core/message"
)

func gooseberries() balance.Request {
	return balance.Request{
		Dish: dish.Dish{
			Shape:    dish.Rectangle,
			LengthCM: 24,
			WidthCM:  18,
			DepthCM:  5,
			Material: "stoneware",
		},
		Style:   "crumble",
		Fruits:  []balance.FruitInput{{Key: "gooseberry", Share: 1}},
		Topping: balance.ToppingInput{Key: "crumble_classic"},
	}
}

func TestTheSteamOfTheBakeIsInTheLedger(t *testing.T) {
	a, err := Dessert(t.Context(), DessertRequest{Request: gooseberries()})
	if err != nil {
		t.Fatal(err)
	}
	plain, err := balance.Solve(gooseberries())
	if err != nil {
		t.Fatal(err)
	}
	want := a.Plan.Answer.End.SteamedOffG + plain.Ledger.SteamedOffG/2
	if got := a.Balance.Ledger.SteamedOffG; math.Abs(got-want) > agreeG {
		t.Errorf("the ledger has %.1f g of steam, the bake and half the plain rule %.1f", got, want)
	}
	if len(a.Plan.Unmet) > 0 || a.Balance.Set.Band != "spoonable" {
		t.Errorf("%s: unmet %v, %s", a.Plan.Words(), a.Plan.Unmet, a.Balance.Set.Band)
	}
	t.Log(a.Plan.Words())
}

func TestSchoolsDifferInNumbers(t *testing.T) {
	q := DessertRequest{Request: gooseberries()}
	q.Request.Style, q.Request.Base = "pie", &balance.BaseInput{Key: "shortcrust"}
	all, err := Alternatives(t.Context(), q)
	if err != nil {
		t.Fatal(err)
	}
	by, chosen := map[string]Alternative{}, map[string]int{}
	for _, s := range all {
		by[s.Question+" "+s.Key] = s
		if s.Chosen {
			chosen[s.Question]++
		}
	}
	for _, question := range []string{"fat", "ratio", "coverage", "base", "cover", "sugar"} {
		if chosen[question] != 1 {
			t.Errorf("%s: %d ways are chosen", question, chosen[question])
		}
	}
	if by["ratio equal"].FatPct <= by["ratio two"].FatPct || by["coverage gaps"].SteamG <= by["coverage all"].SteamG ||
		by["cover foil"].Colour >= by["cover open"].Colour {
		t.Errorf("%s, %s", by["coverage gaps"].Effect, by["cover foil"].Effect)
	}
	if by["sugar none"].SugarPct >= by["sugar fruit"].SugarPct || by["fat melted"].LumpMM <= by["fat cold"].LumpMM ||
		by["base par_bake"].Base <= by["base raw"].Base {
		t.Errorf("%s, %s", by["base par_bake"].Effect, by["base raw"].Effect)
	}
}

func TestOnesOwnStagesAreBakedAsTheyAre(t *testing.T) {
	q := DessertRequest{Request: gooseberries(), Setting: Setting{Stages: []Stage{{Minutes: 20, OvenC: 160}}}}
	short, err := Dessert(t.Context(), q)
	if err != nil {
		t.Fatal(err)
	}
	if len(short.Plan.Unmet) < 2 || short.Plan.Minutes != 20 {
		t.Errorf("twenty minutes at 160: %v", short.Plan.Unmet)
	}
	frozen := gooseberries()
	frozen.Fruits[0].Frozen = true
	q.Request, q.Setting.Stages = frozen, []Stage{{Minutes: 150, OvenC: 180}}
	cold, err := Dessert(t.Context(), q)
	if err != nil {
		t.Fatal(err)
	}
	q.Request = gooseberries()
	fresh, _ := Dessert(t.Context(), q)
	if minute(cold.Plan.Answer.Events.MiddleBubbles) <= minute(fresh.Plan.Answer.Events.MiddleBubbles)+5 {
		t.Errorf(
			"frozen bubbles after %g, fresh after %g",
			minute(cold.Plan.Answer.Events.MiddleBubbles),
			minute(fresh.Plan.Answer.Events.MiddleBubbles),
		)
	}
}

func TestACustardSetsAndNeedNotBoil(t *testing.T) {
	bars := func(c balance.CustardInput) *DessertAnswer {
		q := DessertRequest{Request: gooseberries(), Setting: Setting{Heating: "fan"}}
		q.Request.Style, q.Request.Base, q.Request.Topping, q.Request.Custard = "bar", &balance.BaseInput{
			Key:      "bar_dough",
			ParBaked: true,
		}, balance.ToppingInput{
			Key: "bar_dough",
		}, &c
		a, err := Dessert(t.Context(), q)
		if err != nil {
			t.Fatal(err)
		}
		return a
	}
	flour, bare := bars(balance.CustardInput{}), bars(balance.CustardInput{Egg: 100, Sugar: 100})
	if flour.Bake.Thickener.FullAtC != 82 || flour.Plan.Answer.End.SetShare < leastSet ||
		slices.ContainsFunc(flour.Plan.Unmet, message.New("the middle does not bubble").Equal) {
		t.Errorf("%s: set %.2f, %v", flour.Plan.Words(), flour.Plan.Answer.End.SetShare, flour.Plan.Unmet)
	}
	if hot := slices.Max(
		bare.Plan.Answer.Curves.MiddleC,
	); hot > custardDoneC &&
		!slices.ContainsFunc(bare.Plan.Unmet, message.New("the custard curdles").Equal) {
		t.Errorf("%s: the middle reaches %.0f C and nothing is said: %v", bare.Plan.Words(), hot, bare.Plan.Unmet)
	}
	q := PlanRequest{Custard: true, BareEgg: true}
	if now := q.unmet(clockState{set: 1, hottest: 96}); now.irreversible() == 0 {
		t.Errorf("at 96 C it says %v", q.words(now))
	}
}

// A change on the Bench bakes the dessert as it stands, with the stages that it has.
func BenchmarkDessertAsEntered(b *testing.B) {
	q := DessertRequest{Request: gooseberries(), Setting: Setting{Stages: []Stage{{Minutes: 50, OvenC: 180}}}}
	for b.Loop() {
		if _, err := Dessert(b.Context(), q); err != nil {
			b.Fatal(err)
		}
	}
}

// Berries fall: that is as they are, and no word of a fault.
func TestBerriesThatFallComeRight(t *testing.T) {
	r := gooseberries()
	r.Fruits = []balance.FruitInput{{Key: "raspberry", Share: 1}}
	a, err := Dessert(
		t.Context(),
		DessertRequest{Request: r, Setting: Setting{Stages: []Stage{{Minutes: 55, OvenC: 180}}}},
	)
	if err != nil {
		t.Fatal(err)
	}
	if text := a.Verdict.Summary.String(); !a.Verdict.Right || a.Expected().Fruit != "mush" ||
		!strings.Contains(text, "soft fruit") {
		t.Errorf("%s fruit: %s", a.Expected().Fruit, text)
	}
}

// What is weighed is what comes to the table, and what left it on the way: steam, the water of topping and base, what
// was poured away or boiled off.
func TestMassClosesThroughTheBake(t *testing.T) {
	for name, change := range map[string]func(*balance.Request){
		"crumble": func(*balance.Request) {},
		"bars": func(r *balance.Request) {
			r.Style, r.Base, r.Topping = "bar", &balance.BaseInput{Key: "bar_dough"}, balance.ToppingInput{Key: "bar_dough"}
		},
		"custard": func(r *balance.Request) {
			r.Style, r.Base, r.Custard = "bar", &balance.BaseInput{Key: "shortbread"}, &balance.CustardInput{}
			r.Topping, r.Thickener = balance.ToppingInput{Key: "streusel_coarse"}, nil
		},
		"mixture, drained": func(r *balance.Request) {
			r.Fruits = []balance.FruitInput{{Key: "rhubarb", Share: 0.6}, {Key: "strawberry", Share: 0.4, Frozen: true}}
			r.Macerate = &balance.MacerateInput{Minutes: 60, Juice: "leave"}
		},
		"cobbler": func(r *balance.Request) { r.Style, r.Topping = "cobbler", balance.ToppingInput{Key: "biscuit_drop"} },
		"pie with late nuts": func(r *balance.Request) {
			r.Style, r.Base = "pie", &balance.BaseInput{Key: "shortcrust"}
			r.Late = []balance.ToppingInput{{Key: "praline_nut"}}
		},
		"bare": func(r *balance.Request) { r.Topping = balance.ToppingInput{Key: "none"} },
		"betty": func(r *balance.Request) {
			r.Style, r.Topping = "betty", balance.ToppingInput{Key: "betty_bread", Layers: 3}
		},
	} {
		r := gooseberries()
		change(&r)
		a, err := Dessert(t.Context(), DessertRequest{Request: r})
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		weighed := 0.0
		for _, b := range a.Balance.Ticket {
			if b.Key != "ready" && b.Key != "before" && b.Key != "after" && b.Key != "seal" {
				for _, l := range b.Lines {
					weighed += l.G
				}
			}
		}
		l, p := a.Balance.Ledger, a.Balance.Portions
		left := p.FinishedG + p.DriedOffG + l.SteamedOffG + l.DrainedWaterG + l.DrainedSugarG + l.PrecookOffG
		if math.Abs(weighed-left) > 0.2 {
			t.Errorf("%s: %.1f g are weighed, %.1f g are accounted for", name, weighed, left)
		}
		if name != "bare" && (p.DriedOffG < 1 || p.DriedOffG > 120) {
			t.Errorf("%s: topping and base gave off %.1f g", name, p.DriedOffG)
		}
	}
}

// A filling that is frozen and too deep to get hot is refused with the reason; thawed, or in a wider dish, it is
// planned.
func TestADeepFrozenFillingIsRefused(t *testing.T) {
	cold := FreezerC
	q := DessertRequest{Request: balance.Request{
		Dish:  dish.Dish{Shape: dish.Square, LengthCM: 20, DepthCM: 20, Material: "stoneware"},
		Style: "crumble", Fruits: []balance.FruitInput{{Key: "gooseberry", Share: 1}},
		Topping: balance.ToppingInput{Key: "crumble_classic"},
	}}
	thawed := q
	q.Setting.FillingC = &cold
	var faults fault.Faults
	if _, err := Dessert(t.Context(), q); !errors.As(err, &faults) || faults[0].Pointer != "/setting/filling_c" {
		t.Errorf("20 cm of frozen gooseberries: %v", err)
	}
	if _, err := Dessert(t.Context(), thawed); err != nil {
		t.Errorf("thawed: %v", err)
	}
	q.Request.Dish.DepthCM = 6
	if _, err := Dessert(t.Context(), q); err != nil {
		t.Errorf("6 cm deep: %v", err)
	}
}

// BenchmarkDessertThatIsHuge prints what the largest desserts cost.
func BenchmarkDessertThatIsHuge(b *testing.B) {
	most := 30000.0
	for name, q := range map[string]balance.Request{
		"30 kg": {Dish: dish.Dish{Shape: dish.Square, LengthCM: 60, DepthCM: 20, Material: "stoneware"}, WeighedFruitG: &most},
		"20 cm": {Dish: dish.Dish{Shape: dish.Square, LengthCM: 20, DepthCM: 20, Material: "stoneware"}},
	} {
		q.Style, q.Topping.Key = "crumble", "crumble_classic"
		q.Fruits = []balance.FruitInput{{Key: "gooseberry", Share: 1}}
		b.Run(name, func(b *testing.B) {
			for b.Loop() {
				if _, err := Dessert(b.Context(), DessertRequest{Request: q}); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
