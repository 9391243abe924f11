package learn

import (
	"errors"
	"math"
	"slices"
	"strings"
	"testing"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/message"
	"mabbin/core/outcome"
)

func plums() bake.DessertRequest {
	return bake.DessertRequest{Request: balance.Request{
		Dish: dish.Dish{
			Shape:    dish.Rectangle,
			LengthCM: 24,
			WidthCM:  18,
			DepthCM:  5,
			Material: "stoneware",
		},
		Style:   "crumble",
		Fruits:  []balance.FruitInput{{Key: "plum", Share: 1}},
		Topping: balance.ToppingInput{Key: "crumble_classic"},
	}}
}

// came bakes a dessert in a kitchen with a truth of its own, and tells what a baker would.
func came(t *testing.T, q bake.DessertRequest, is Deviation) (bake.DessertRequest, Outcome) {
	t.Helper()
	plan, err := bake.Dessert(t.Context(), q)
	if err != nil {
		t.Fatal(err)
	}
	a, err := is.Simulate(t.Context(), q, plan)
	if err != nil {
		t.Fatal(err)
	}
	q.Setting.Stages = plan.Plan.Stages
	e := a.Plan.Answer.Events
	before := 3000.0
	after := before - a.Balance.Ledger.SteamedOffG - a.Plan.Answer.End.DriedOffG
	return q, Outcome{
		Words: a.Expected(),
		Details: outcome.Details{
			RimMin:    e.RimBubbles,
			MiddleMin: e.MiddleBubbles,
			BeforeG:   &before,
			AfterG:    &after,
			Base:      a.Expected().Base,
		},
	}
}

func TestWhatWasOtherwiseIsFound(t *testing.T) {
	for name, c := range map[string]struct {
		is   Deviation
		code CauseCode
		next string
	}{
		"a cool oven":       {Deviation{OvenC: -30}, "oven", "Calibrate the oven"},
		"a hot oven":        {Deviation{OvenC: 30}, "oven", "Calibrate the oven"},
		"juicy fruit":       {Deviation{Release: 0.4}, "fruit", "of thickener instead of"},
		"lost thickener":    {Deviation{Thickener: -0.3}, "thickener", "Scrape all of it"},
		"a slow top":        {Deviation{Colour: -0.6}, "colour", "uncovered and hotter"},
		"a quick top":       {Deviation{Colour: 0.6}, "colour", "Check earlier"},
		"hard windfalls":    {Deviation{Softness: -0.88}, "ripeness", "Cut it smaller"},
		"as it was thought": {Deviation{}, "", ""},
	} {
		q := plums()
		if c.code == "colour" && c.is.Colour < 0 || c.code == "ripeness" { // taken out as soon as it may be
			q.Request.Fruits[0].Key = "apple_firm"
			q.Setting.Stages = []bake.Stage{{Minutes: 46, OvenC: 172}}
		}
		q, told := came(t, q, c.is)
		e, err := Explain(t.Context(), q, told, nil)
		if err != nil {
			t.Fatal(err)
		}
		var codes []CauseCode
		for _, x := range e.Causes {
			codes = append(codes, x.Code)
			if x.Text.IsZero() || x.Evidence.IsZero() || x.Next.IsZero() || len(x.Explains) == 0 {
				t.Errorf("%s: %+v says too little", name, x)
			}
		}
		if c.code == "" {
			if len(codes) > 0 {
				t.Errorf("%s: %v", name, codes)
			}
			continue
		}
		// much juice and little thickener look alike on the spoon, as do a quick top and an oven that is a little hot
		at := slices.Index(codes, c.code)
		if at < 0 || at > 0 && c.code != "fruit" && c.code != "thickener" && c.code != "colour" {
			t.Errorf("%s: came %+v, expected %+v, and the causes are %+v", name, told.Words, e.Expected, e.Causes)
			continue
		}
		for _, x := range e.Causes {
			if x.Code == c.code && !strings.Contains(x.Next.String(), c.next) {
				t.Errorf("%s: next is %q", name, x.Next)
			}
		}
		t.Log(name, e.Wrong, e.Causes[0].Text, e.Causes[0].Evidence, e.Causes[0].Next)
	}
}

// The weights stay what they were: another truth finds the same in the bowls.
func TestAnotherTruthFindsTheSameInTheBowls(t *testing.T) {
	q := plums()
	q.Request.Thickener = &balance.ThickenerInput{Key: "arrowroot", With: []balance.Quantity{{Key: "cornflour", G: 6}}}
	plan, err := bake.Dessert(t.Context(), q)
	if err != nil {
		t.Fatal(err)
	}
	for _, is := range []Deviation{{}, {Release: 0.3}, {OvenC: 20}} {
		a, err := is.Simulate(t.Context(), q, plan)
		if err != nil {
			t.Fatal(err)
		}
		if d := math.Abs(
			a.Balance.FruitG-plan.Balance.FruitG,
		) + math.Abs(
			a.Balance.ThickenerG-plan.Balance.ThickenerG,
		) + math.Abs(
			a.Balance.SugarG-plan.Balance.SugarG,
		); d > 0.5 {
			t.Errorf(
				"%+v: %.1f %.1f %.1f g, and planned were %.1f %.1f %.1f",
				is,
				a.Balance.FruitG,
				a.Balance.SugarG,
				a.Balance.ThickenerG,
				plan.Balance.FruitG,
				plan.Balance.SugarG,
				plan.Balance.ThickenerG,
			)
		}
		if is == (Deviation{}) && math.Abs(a.Balance.Set.Score-plan.Balance.Set.Score) > 0.05 {
			t.Errorf("as it was thought it sets to %.2f, planned were %.2f", a.Balance.Set.Score, plan.Balance.Set.Score)
		}
		if is.Release > 0 && a.Balance.Set.Score >= plan.Balance.Set.Score {
			t.Error("more juice, and it stands as well")
		}
	}
}

func TestWhatIsWrongOnPaperIsSaid(t *testing.T) {
	q := plums()
	q.Setting.Stages = []bake.Stage{{Minutes: 12, OvenC: 180}}
	over := true
	e, err := Explain(
		t.Context(),
		q,
		Outcome{
			Words:   bake.Words{Juice: "runny", Fruit: "hard", Top: "pale", BoiledOver: &over},
			Details: outcome.Details{Base: "raw", Sweetness: "sharp"},
		},
		nil,
	)
	if err != nil {
		t.Fatal(err)
	}
	for _, want := range []string{"thinner", "fruit hard", "topping pale", "boiled over", "base raw", "too sharp"} {
		if !strings.Contains(message.Join("; ", e.Wrong...).String(), want) {
			t.Errorf("%v, without %s", e.Wrong, want)
		}
	}
	if all := message.Join("; ", e.Predicted...).
		String(); !strings.Contains(all, "not set everywhere") ||
		!strings.Contains(all, "the fruit is hard") {
		t.Errorf("twelve minutes, and on paper it was %v", e.Predicted)
	}
	if _, err := Explain(t.Context(), bake.DessertRequest{}, Outcome{}, nil); err == nil {
		t.Error("nothing is explained")
	}
}

func TestExplainingTellsHowFarItIsAndStops(t *testing.T) {
	q := plums()
	q.Setting.Stages = []bake.Stage{{Minutes: 12, OvenC: 180}}
	var seen, all int
	if _, err := Explain(t.Context(), q, Outcome{Words: bake.Words{Top: "pale"}}, func(done, of int) error {
		if done != seen {
			t.Fatalf("bake %d after %d", done, seen)
		}
		seen, all = done+1, of
		return nil
	}); err != nil || seen != all || all == 0 {
		t.Errorf("%d of %d, %v", seen, all, err)
	}
	stop := errors.New("enough")
	calls := 0
	if _, err := Explain(t.Context(), q, Outcome{}, func(done, _ int) error {
		calls++
		if done == 3 {
			return stop
		}
		return nil
	}); !errors.Is(err, stop) || calls != 4 {
		t.Errorf("stopped at the fourth bake it went on to %d, and said %v", calls, err)
	}
}
