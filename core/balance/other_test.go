package balance

import (
	"math"
	"strings"
	"testing"
)

func TestAnotherDishIsNeverOneFactor(t *testing.T) {
	r := gooseberries()
	r.Extras = []Quantity{{"crystallised_ginger", 20}, {"salt", 2}}
	r.SugarG = ptr(210.0)
	a, err := Other(
		OtherRequest{
			Request: r,
			Dishes: []StartDish{
				{ID: "long", Name: "Long", Dish: shelf[1].Dish},
				{ID: "ramekin", Name: "Ramekin", Count: 6, Dish: shelf[2].Dish},
			},
		},
	)
	if err != nil {
		t.Fatal(err)
	}
	long, small := a.Dishes[0], a.Dishes[1]
	if math.Abs(long.Answer.FruitG/a.From.FruitG-long.Request.Extras[0].G/20) > 0.002 ||
		math.Abs(*long.Request.SugarG/210-long.Answer.FruitG/a.From.FruitG) > 0.002 {
		t.Errorf(
			"ginger %g g and sugar %g g with %g g of fruit, from %g",
			long.Request.Extras[0].G,
			*long.Request.SugarG,
			long.Answer.FruitG,
			a.From.FruitG,
		)
	}
	if want := a.From.ToppingG * long.Answer.Fit.RimAreaCM2 / a.From.Fit.RimAreaCM2; math.Abs(
		long.Answer.ToppingG-want,
	) > 0.1 {
		t.Errorf("topping %g g, want %g by the area", long.Answer.ToppingG, want)
	}
	for _, n := range long.Naive {
		if n.Code == "topping" && math.Abs(n.ErrorPct) < 5 {
			t.Errorf("a deeper dish, and one factor is only %g %% off for the topping", n.ErrorPct)
		}
	}
	if left := a.From.FruitG - long.Answer.FruitG - 6*small.Answer.FruitG; math.Abs(a.LeftG-left) > 0.01 {
		t.Errorf("left %g, want %g", a.LeftG, left)
	}
	if a.From.Set.Band != long.Answer.Set.Band {
		t.Errorf("%s became %s", a.From.Set.Band, long.Answer.Set.Band)
	}
}

func TestAWeighedCardKeepsItsFill(t *testing.T) {
	r := gooseberries()
	r.WeighedFruitG = ptr(700.0)
	a, err := Other(OtherRequest{Request: r, Dishes: []StartDish{{ID: "long", Dish: shelf[1].Dish}}})
	if err != nil {
		t.Fatal(err)
	}
	if g := a.Dishes[0].Answer; g.FruitG < 1.3*700 || g.Fit.LimitedBy != byWeight {
		t.Errorf("%g g of fruit, by %s", g.FruitG, g.Fit.LimitedBy)
	}
	r.Dish.DepthCM = -1
	if _, err := Other(
		OtherRequest{Request: r},
	); err == nil || !strings.Contains(err.Error(), "/request/dish/depth_cm") ||
		!strings.Contains(err.Error(), "/dishes") {
		t.Errorf("%v", err)
	}
}
