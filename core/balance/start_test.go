package balance

import (
	"math"
	"strings"
	"testing"

	"mabbin/core/dish"
	"mabbin/core/larder"
)

var shelf = []StartDish{
	{
		ID:   "small",
		Name: "Small",
		Dish: dish.Dish{Shape: dish.Rectangle, LengthCM: 24, WidthCM: 18, DepthCM: 5, Material: "stoneware"},
	},
	{
		ID:   "long",
		Name: "Long",
		Dish: dish.Dish{Shape: dish.Rectangle, LengthCM: 32, WidthCM: 22, DepthCM: 6, Material: "stoneware"},
	},
	{
		ID:    "ramekin",
		Name:  "Ramekin",
		Count: 12,
		Dish:  dish.Dish{Shape: dish.Round, LengthCM: 9, DepthCM: 4.5, Material: "stoneware"},
	},
}

func start(t *testing.T, change func(*StartRequest)) *StartAnswer {
	t.Helper()
	q := StartRequest{Style: "crumble", Fruits: []FruitInput{{Key: "gooseberry", Share: 1}}, Dishes: shelf}
	change(&q)
	a, err := Start(q)
	if err != nil {
		t.Fatal(err)
	}
	if len(a.Options) == 0 {
		t.Fatal("no way was found")
	}
	for _, o := range a.Options {
		sum := 0.0
		for _, u := range o.Uses {
			sum += float64(u.Count) * u.FruitG
			for _, d := range shelf {
				if d.ID == u.ID && u.Count > max(1, d.Count) {
					t.Errorf("%d of %s, of which there are %d", u.Count, u.Name, d.Count)
				}
			}
		}
		if math.Abs(sum-o.FruitG) > 0.01 || len(o.Uses) == 0 {
			t.Errorf("the dishes hold %g g, the way says %g", sum, o.FruitG)
		}
	}
	return a
}

func TestFromAnAmountOfFruit(t *testing.T) {
	a := start(t, func(q *StartRequest) { q.FruitG = ptr(970.0) })
	if best := a.Options[0]; len(best.Uses) != 1 || best.Uses[0].ID != "small" || best.LeftG > 30 {
		t.Errorf("970 g of gooseberries: %+v", best)
	}
	a = start(t, func(q *StartRequest) { q.FruitG = ptr(2700.0) })
	if best := a.Options[0]; best.LeftG > 300 {
		t.Errorf("2.7 kg: %+v", best)
	}
	a = start(t, func(q *StartRequest) { q.FruitG = ptr(9000.0) })
	best := a.Options[0]
	if best.LeftG < 1000 || best.LeftUse.IsZero() || math.Abs(best.LeftG+best.FruitG-9000) > 0.1 {
		t.Errorf("9 kg is more than the shelf holds: %+v", best)
	}
	a = start(t, func(q *StartRequest) { q.FruitG, q.BoughtG = nil, ptr(1000.0) })
	if math.Abs(a.PreparedG-960) > 0.1 {
		t.Errorf("1 kg of gooseberries as bought is %g g prepared, want 960", a.PreparedG)
	}
}

func TestFromPortions(t *testing.T) {
	for _, want := range []float64{4, 9, 12, 16} {
		a := start(t, func(q *StartRequest) { q.Portions = &want })
		best := a.Options[0]
		if best.Portions < want || best.Portions > want+3 {
			t.Errorf("%g portions: %+v", want, best)
		}
	}
	hearty := start(t, func(q *StartRequest) { q.Portions, q.Portion = ptr(6.0), "hearty" }).Options[0]
	usual := start(t, func(q *StartRequest) { q.Portions = ptr(6.0) }).Options[0]
	if hearty.FruitG <= usual.FruitG || hearty.EachG != 260 {
		t.Errorf("hearty %+v, usual %+v", hearty, usual)
	}
}

func TestStartNamesWhatIsWrong(t *testing.T) {
	for text, q := range map[string]StartRequest{
		"use one of": {Style: "crumble", Fruits: []FruitInput{{Key: "plum", Share: 1}}, Dishes: shelf, FruitG: ptr(500.0), Portions: ptr(3.0)},
		"0 entries":  {Style: "crumble", Fruits: []FruitInput{{Key: "plum", Share: 1}}, FruitG: ptr(500.0)},
		"/portions":  {Style: "crumble", Fruits: []FruitInput{{Key: "plum", Share: 1}}, Dishes: shelf, Portions: ptr(0.0)},
		"/fruits/0":  {Style: "crumble", Fruits: []FruitInput{{Key: "plumb", Share: 1}}, Dishes: shelf, Portions: ptr(4.0)},
	} {
		if _, err := Start(q); err == nil || !strings.Contains(err.Error(), text) {
			t.Errorf("%v, want %q in it", err, text)
		}
	}
}

func TestSchoolsShowWhatEachWayComesTo(t *testing.T) {
	r := gooseberries()
	r.Fruits = []FruitInput{{Key: "apple_firm", Share: 1}}
	r.Macerate = &MacerateInput{Minutes: 60, Juice: "leave", WithThickener: true}
	all, err := Alternatives(r)
	if err != nil {
		t.Fatal(err)
	}
	by := map[string]Alternative{}
	for _, s := range all {
		by[string(s.Question)+" "+s.Key] = s
	}
	keep, leave, reduce := by["macerate keep"], by["macerate leave"], by["macerate reduce"]
	if !leave.Chosen || keep.Chosen || leave.SugarLostG <= 0 || leave.ThickenerLost <= 0 || keep.SugarLostG != 0 ||
		reduce.SugarLostG != 0 {
		t.Errorf("keep %+v, leave %+v", keep, leave)
	}
	if !(leave.JuiceG < reduce.JuiceG && reduce.JuiceG < keep.JuiceG) {
		t.Errorf("juice: leave %g, reduce %g, keep %g", leave.JuiceG, reduce.JuiceG, keep.JuiceG)
	}
	if raw, open := by["precook raw"], by["precook open"]; !raw.Chosen || open.DrivenOffG <= 0 {
		t.Errorf("raw %+v, open %+v", raw, open)
	}
	if m := keep.Macerate; m == nil || m.Juice != "keep" || m.Minutes != 60 || !m.WithThickener ||
		by["macerate none"].Macerate != nil || by["precook raw"].Precook != nil {
		t.Errorf("keep every drop goes on from what is asked: %+v", m)
	}
	if p, u := by["peel peeled"], by["peel unpeeled"]; !p.Chosen || p.BuyG <= u.BuyG {
		t.Errorf("peeled %+v, unpeeled %+v", p, u)
	}
}

// A microwave drives little off: who cooks in one and goes over to an open pan goes to the hob.
func TestAnOpenPanIsNoMicrowave(t *testing.T) {
	r := gooseberries()
	r.Precook = &PrecookInput{Minutes: 5, Where: "microwave"}
	all, err := Alternatives(r)
	if err != nil {
		t.Fatal(err)
	}
	for _, s := range all {
		switch {
		case s.Question == AskPrecook && s.Key == "open" && (s.Precook.Where != "" || !s.Precook.Open || s.Precook.Minutes != 5),
			s.Question == AskPrecook && s.Key == "covered" && s.Precook.Where != "microwave":
			t.Errorf("%s: %+v", s.Key, s.Precook)
		}
	}
}

func TestMeasuredReleaseAndOwnFiguresAreUsed(t *testing.T) {
	r := gooseberries()
	plain, _ := Solve(r)
	r.Fruits[0].MeasuredRelease = 0.9
	wet, err := Solve(r)
	if err != nil || wet.Ledger.ReleasedG <= plain.Ledger.ReleasedG || wet.ThickenerG <= plain.ThickenerG {
		t.Errorf("released %g, then %g, %v", plain.Ledger.ReleasedG, wet.Ledger.ReleasedG, err)
	}
	r = gooseberries()
	r.Own = ownRelease(0.2)
	dry, err := Solve(r)
	if err != nil || dry.Ledger.ReleasedG >= plain.Ledger.ReleasedG || dry.Ticket[0].Lines[0].Basis != "kitchen" {
		t.Errorf("released %g, %v", dry.Ledger.ReleasedG, err)
	}
	r.Own = ownRelease(3)
	if _, err := Solve(r); err == nil || !strings.Contains(err.Error(), "/own/fruits/gooseberry/values/release_fresh") {
		t.Errorf("%v", err)
	}
}

func TestEggsAreCrackedWhole(t *testing.T) {
	r := gooseberries()
	r.Topping.BakersPct = map[string]float64{"egg": 18}
	a, err := Solve(r)
	if err != nil {
		t.Fatal(err)
	}
	for _, l := range a.Ticket[2].Lines {
		if l.Key == "egg" {
			if !strings.Contains(l.Pieces.String(), "crack 1 egg") || !strings.Contains(l.Pieces.String(), "brush it on") {
				t.Errorf("%.0f g of egg: %q", l.G, l.Pieces)
			}
			return
		}
	}
	t.Error("no egg on the ticket")
}

func ownRelease(x float64) *larder.Own {
	return &larder.Own{Fruits: map[string]larder.OwnRow{"gooseberry": {Values: map[string]float64{"release_fresh": x}}}}
}
