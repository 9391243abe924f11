package balance

import (
	"errors"
	"math"
	"strings"
	"testing"

	"mabbin/core/fault"
)

func TestRemarksSayWhatIsThere(t *testing.T) {
	cases := map[string]struct {
		change func(*Request)
		codes  []string
		not    []string
	}{
		"boils over": {
			func(r *Request) { r.WeighedFruitG = ptr(1500.0) },
			[]string{"boils_over"},
			[]string{"may_boil_over"},
		},
		"near the rim": {
			func(r *Request) { r.WeighedFruitG = ptr(1090.0) },
			[]string{"may_boil_over"},
			[]string{"boils_over"},
		},
		"less fruit than usual": {
			func(*Request) {},
			[]string{"headspace_limits", "thermal_shock", "hot_syrup"},
			[]string{"boils_over", "set_off_style"},
		},
		"an iron pan, lined with paper": {
			func(r *Request) { r.Dish.Material, r.Greasing = "cast_iron", "sling" },
			[]string{"hot_handle", "paper_heat"},
			nil,
		},
		"quince": {
			func(r *Request) { r.Fruits[0].Key = "quince" },
			[]string{"precook_required", "browns_in_air"},
			nil,
		},
		"quince, cooked": {
			func(r *Request) { r.Fruits[0].Key = "quince"; r.Precook = &PrecookInput{Minutes: 20} },
			nil,
			[]string{"precook_required"},
		},
		"apple with lemon": {
			func(r *Request) { r.Fruits[0].Key = "apple_firm"; r.Liquids = []Quantity{{"lemon_juice", 15}} },
			nil,
			[]string{"browns_in_air"},
		},
		"130 %": {
			func(r *Request) { r.Fruits = []FruitInput{{Key: "plum", Share: 0.9}, {Key: "apple_firm", Share: 0.4}} },
			[]string{"shares_scaled"},
			nil,
		},
		"60 and 40": {
			func(r *Request) { r.Fruits = []FruitInput{{Key: "plum", Share: 60}, {Key: "apple_firm", Share: 40}} },
			nil,
			[]string{"shares_scaled"},
		},
		"half a kilo of cornflour": {
			func(r *Request) { r.Thickener.G = ptr(500.0) },
			[]string{"slip_cornflour", "set_off_style"},
			nil,
		},
		"no thickener": {
			func(r *Request) { r.Thickener.G = ptr(0.0) },
			[]string{"unthickened"},
			[]string{"acid_weakens", "set_off_style"},
		},
		"no thickener in what is cut": {
			func(r *Request) { r.Style, r.Base, r.Thickener.G = "pie", &BaseInput{Key: "shortcrust"}, ptr(0.0) },
			[]string{"set_off_style"},
			[]string{"unthickened"},
		},
		"one band from the usual": {
			func(r *Request) { r.SetTarget = ptr(4.8) },
			nil,
			[]string{"set_off_style"},
		},
		"far from what the baker wants": {
			func(r *Request) { r.SetTarget, r.Thickener.G = ptr(5.0), ptr(8.0) },
			[]string{"set_off_style"},
			nil,
		},
		"sweet, as it was asked for": {
			func(r *Request) { r.Sweetness, r.SugarG = "tart", ptr(190.0) },
			nil,
			[]string{"too_sweet"},
		},
		"honey": {
			func(r *Request) { r.Liquids = []Quantity{{Key: "honey", G: 40}} },
			[]string{"honey_infants"},
			nil,
		},
		"a dry betty": {
			func(r *Request) { r.Style, r.Topping = "betty", ToppingInput{Key: "betty_bread"} },
			[]string{"betty_dry"},
			nil,
		},
		"a betty that is poured over": {
			func(r *Request) {
				r.Style, r.Topping, r.Liquids = "betty", ToppingInput{Key: "betty_bread"}, []Quantity{{Key: "water", G: 70}}
			},
			nil,
			[]string{"betty_dry"},
		},
		"nuts alone": { // their own fat binds them
			func(r *Request) {
				r.Topping.BakersPct = map[string]float64{"wheat_flour": 0, "walnuts": 100, "butter": 5, "caster_sugar": 40}
			},
			nil,
			[]string{"topping_dusty"},
		},
		"bare": {
			func(r *Request) { r.Topping = ToppingInput{Key: "none"} },
			nil,
			[]string{"topping_thin", "unusual_topping", "topping_dusty"},
		},
		"topping thin": {
			func(r *Request) { r.Topping.ThicknessMM = 4 },
			[]string{"topping_thin"},
			[]string{"topping_thick"},
		},
		"topping thick": {func(r *Request) { r.Topping.ThicknessMM = 25 }, []string{"topping_thick"}, nil},
		"windfalls":     {func(r *Request) { r.Fruits[0].LossPct = 10 }, []string{"windfalls"}, nil},
		"slimy": {
			func(r *Request) { r.Thickener.Key = "arrowroot"; r.Liquids = []Quantity{{"double_cream", 50}} },
			[]string{"slimy_with_dairy"},
			nil,
		},
		"pear and raspberry": {
			func(r *Request) { r.Fruits = []FruitInput{{Key: "pear_firm", Share: 1}, {Key: "raspberry", Share: 1}} },
			[]string{"uneven_mixture"},
			nil,
		},
		"a puddle in a tray": {
			func(r *Request) { r.WeighedFruitG = ptr(200.0) },
			[]string{"dish_half_empty", "topping_thick"},
			nil,
		},
		"too much sugar": {
			func(r *Request) { r.SugarG = ptr(900.0) },
			[]string{"slip_caster_sugar", "too_sweet"},
			nil,
		},
	}
	for name, c := range cases {
		a := solve(t, c.change)
		for _, code := range c.codes {
			if !has(a, code) {
				t.Errorf("%s: no remark %s", name, code)
			}
		}
		for _, code := range c.not {
			if has(a, code) {
				t.Errorf("%s: there is a remark %s", name, code)
			}
		}
	}
}

func TestBadRequestsNameEveryField(t *testing.T) {
	cases := map[string]struct {
		change   func(*Request)
		pointers string
	}{
		"several at once": {
			func(r *Request) {
				r.Dish.LengthCM = -1
				r.Fruits[0].Key = "gozeberry"
				r.Topping.Key = "x"
				r.Portion = "huge"
			},
			"/dish/length_cm /fruits/0/key /topping/key /portion",
		},
		"no fruit":          {func(r *Request) { r.Fruits = nil }, "/fruits"},
		"shares of nothing": {func(r *Request) { r.Fruits[0].Share = 0 }, "/fruits"},
		"negative share":    {func(r *Request) { r.Fruits[0].Share = -1 }, "/fruits/0/share /fruits"},
		"not a number":      {func(r *Request) { r.SugarG = ptr(math.NaN()) }, "/sugar_g"},
		"absurd thickener":  {func(r *Request) { r.Thickener.G = ptr(1e9) }, "/thickener/g"},
		"unknown words": {
			func(r *Request) { r.Style = "flan"; r.Sweetness = "very"; r.Cup = "big" },
			"/style /sweetness /cup",
		},
		"the 100 % changed": {
			func(r *Request) { r.Topping.BakersPct = map[string]float64{"wheat_flour": 50} },
			"/topping/bakers_pct/wheat_flour",
		},
		"no room for fruit": {func(r *Request) { r.Dish.DepthCM = 1.2; r.Topping.Amount = "generous" }, "/topping"},
	}
	for name, c := range cases {
		r := gooseberries()
		c.change(&r)
		_, err := Solve(r)
		var faults fault.Faults
		if !errors.As(err, &faults) {
			t.Errorf("%s: %v is no list of faults", name, err)
			continue
		}
		var got []string
		for _, f := range faults {
			got = append(got, f.Pointer)
		}
		if strings.Join(got, " ") != c.pointers {
			t.Errorf("%s: faults at %v, want %s", name, got, c.pointers)
		}
	}
}

func TestAnUnusualToppingIsSaidSo(t *testing.T) {
	a := solve(t, func(r *Request) { r.Topping.Key = "biscuit_drop" })
	if !has(a, "unusual_topping") || has(a, "topping_thin") {
		t.Errorf("remarks: %v", a.Remarks)
	}
}

// What nobody bakes is answered all the same, with finite figures and the remark that says what is odd.
func TestOddCardsAreAnsweredSensibly(t *testing.T) {
	cases := map[string]struct {
		change func(*Request)
		code   string
	}{
		"no butter": {func(r *Request) { r.Topping.BakersPct = map[string]float64{"butter": 0} }, "topping_dusty"},
		"a gluten-free dough in wheat": {func(r *Request) {
			r.Topping.BakersPct = map[string]float64{"wheat_flour": 0, "gf_flour_blend": 100}
			r.Thickener.Key = "wheat_flour"
		}, "gluten_left"},
		"a custard without an egg": {func(r *Request) {
			r.Style, r.Topping, r.Base = "bar", ToppingInput{Key: "bar_dough"}, &BaseInput{Key: "bar_dough"}
			r.Custard = &CustardInput{Sugar: 100, Flour: 30}
			r.Thickener = nil
		}, "no_egg"},
	}
	for name, c := range cases {
		a := solve(t, c.change)
		if c.code != "" && !has(a, c.code) {
			t.Errorf("%s: no remark %s in %v", name, c.code, a.Remarks)
		}
		for _, g := range []float64{a.FruitG, a.ToppingG, a.ThickenerG, a.Set.Score, a.Topping.Texture.FatPct} {
			if math.IsNaN(g) || math.IsInf(g, 0) || g < 0 {
				t.Errorf("%s: %v", name, g)
			}
		}

	}
	thick := gooseberries()
	thick.Topping.ThicknessMM = 80
	if _, err := Solve(thick); err == nil || !strings.Contains(err.Error(), "no room for fruit") {
		t.Errorf("a topping thicker than the dish is deep: %v", err)
	}
}

func TestADoughTakesItsPiecesBetweenFatAndLiquid(t *testing.T) {
	cobbler := func(pieces map[string]float64) string {
		a := solve(t, func(r *Request) {
			r.Style, r.Topping = "cobbler", ToppingInput{Key: "biscuit_drop", BakersPct: pieces}
		})
		for _, x := range a.Method {
			if x.Code == "topping" {
				return x.Text.String()
			}
		}
		return ""
	}
	with := cobbler(map[string]float64{"cheddar": 40, "fresh_herbs": 5, "walnuts": 20})
	fat, fold, liquid := strings.Index(
		with,
		"Rub the cold fat",
	), strings.Index(
		with,
		"Fold in the hard cheese, fresh herbs and walnuts",
	), strings.Index(
		with,
		"Add the liquid",
	)
	if fat < 0 || fold < fat || liquid < fold || !strings.Contains(with, "Toast the nuts first") ||
		strings.Contains(with, "go in last") {
		t.Errorf("the method says %q", with)
	}
	if without := cobbler(nil); without == "" || strings.Contains(without, "Fold in") {
		t.Errorf("with nothing to fold in the method says %q", without)
	}
}
