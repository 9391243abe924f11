package balance

import (
	"math"
	"strings"
	"testing"

	"mabbin/core/larder"
)

// What is weighed is what stands on the table, what steamed off, and what was poured away or boiled off: for every
// style, with all that can be added to it.
func TestMassCloses(t *testing.T) {
	added := map[string]func(*Request){
		"plain":    func(*Request) {},
		"washed":   func(r *Request) { r.Washed = true },
		"simmered": func(r *Request) { r.Precook = &PrecookInput{Minutes: 6, Open: true} },
		"drained":  func(r *Request) { r.Macerate = &MacerateInput{Minutes: 60, Juice: "leave", WithThickener: true} },
		"with more": func(r *Request) {
			r.Liquids, r.Extras = []Quantity{{Key: "whole_milk", G: 60}}, []Quantity{{Key: "raisins", G: 40}}
		},
		"with crumb": func(r *Request) { r.CrumbLayerG = 30 },
		"mixed thickeners": func(r *Request) {
			r.Thickener = &ThickenerInput{Key: "tapioca_starch", With: []Quantity{{Key: "cornflour", G: 6}}}
		},
		"late":          func(r *Request) { r.Late = []ToppingInput{{Key: "praline_nut"}} },
		"steam is told": func(r *Request) { r.SteamedOffG = number(55) },
		"given": func(r *Request) {
			r.SugarG = number(90)
			r.Thickener = &ThickenerInput{Key: "cornflour", G: number(22)}
		},
		"cream in a custard": func(r *Request) {
			r.Style, r.Custard, r.Base = "bar", &CustardInput{}, &BaseInput{Key: "bar_dough"}
			r.Topping.Key, r.Liquids = "bar_dough", []Quantity{{Key: "whole_milk", G: 80}}
		},
		"a custard with sugar and flour of one's own": func(r *Request) {
			r.Style, r.Custard, r.Base = "bar", &CustardInput{}, &BaseInput{Key: "bar_dough"}
			r.Topping.Key, r.SugarG, r.Thickener = "bar_dough", number(150), &ThickenerInput{Key: "wheat_flour", G: number(45)}
		},
	}
	for name, change := range added {
		r := gooseberries()
		change(&r)
		a, err := Solve(r)
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		weighed := 0.0
		for _, b := range a.Ticket {
			for _, l := range b.Lines {
				weighed += l.G
			}
		}
		l := a.Ledger
		accounted := a.Portions.FinishedG + l.SteamedOffG + l.DrainedWaterG + l.DrainedSugarG + l.PrecookOffG - l.WashWaterG
		if math.Abs(weighed-accounted) > 0.2 {
			t.Errorf("%s: %.1f g are weighed, %.1f g are accounted for: %+v", name, weighed, accounted, l)
		}
	}
}

func number(x float64) *float64 { return &x }

// Oil is stirred in: there is nothing cold to rub.
func TestOilIsNotRubbedIn(t *testing.T) {
	for _, key := range []string{"crumble_classic", "biscuit_drop", "bar_dough"} {
		r := gooseberries()
		r.Topping.Key, r.Topping.Fat = key, "sunflower_oil"
		a, err := Solve(r)
		if err != nil {
			t.Fatal(err)
		}
		for _, b := range a.Ticket {
			if how := b.Instructions.String(); b.Key == "topping" &&
				(strings.Contains(how, "ub ") || !strings.Contains(how, "Stir the oil")) {
				t.Errorf("%s with oil: %s", key, how)
			}
		}
	}
}

// More of one thing is more of what it does, in every style: sugar sweetens, juice wants thickener, thickener sets,
// acid sharpens, a bigger dish takes more. Never the other way about, whatever the amounts.
func TestMoreIsMore(t *testing.T) {
	for _, style := range larder.Styles.All() {
		start := func() Request {
			r := gooseberries()
			r.Style, r.Topping = style.Key, ToppingInput{Key: style.Topping}
			if style.Base != "" {
				r.Base = &BaseInput{Key: style.Base}
			}
			return r
		}
		for name, c := range map[string]struct {
			from, to, step float64
			set            func(*Request, float64)
			rises          func(*Answer) float64
		}{
			"sugar sweetens": {
				0, 400, 20, func(r *Request, x float64) { r.SugarG, r.WeighedFruitG = &x, number(800) },
				func(a *Answer) float64 { return a.SugarPct },
			},
			"juice wants thickener": {
				0.2, 0.9, 0.02,
				func(r *Request, x float64) { r.Fruits[0].MeasuredRelease, r.WeighedFruitG = x, number(800) },
				func(a *Answer) float64 { return a.ThickenerG },
			},
			"liquid wants thickener": {
				0, 300, 15,
				func(r *Request, x float64) {
					r.Liquids, r.WeighedFruitG, r.SugarG = []Quantity{{Key: "water", G: x}}, number(800), number(120)
				},
				func(a *Answer) float64 { return a.ThickenerG },
			},
			"thickener sets": {
				0, 60, 3,
				func(r *Request, x float64) {
					r.Thickener = &ThickenerInput{Key: "cornflour", G: &x}
					r.WeighedFruitG = number(800)
				},
				func(a *Answer) float64 { return a.Set.Score },
			},
			"sharp fruit wants sugar": {
				0, 60, 5,
				func(r *Request, x float64) {
					r.Fruits[0].Key, r.WeighedFruitG, r.Liquids = "pear_firm", number(800), []Quantity{{Key: "lemon_juice", G: x}}
				},
				func(a *Answer) float64 { return a.SugarTargetPct },
			},
			"a deeper dish takes more": {
				4, 9, 0.25, func(r *Request, x float64) { r.Dish.DepthCM = x },
				func(a *Answer) float64 { return a.FruitG + 0.001*a.Fit.VolumeML },
			},
			"a longer dish takes more": {
				18, 40, 1, func(r *Request, x float64) { r.Dish.LengthCM = x },
				func(a *Answer) float64 { return a.FruitG },
			},
			"steam leaves less to set": {
				0, 120, 10,
				func(r *Request, x float64) { r.SteamedOffG, r.WeighedFruitG, r.SugarG = &x, number(800), number(120) },
				func(a *Answer) float64 { return -a.ThickenerG },
			},
		} {
			was := math.Inf(-1)
			for x := c.from; x <= c.to+1e-9; x += c.step {
				r := start()
				c.set(&r, x)
				a, err := Solve(r)
				if err != nil {
					t.Fatalf("%s, %s at %g: %v", style.Key, name, x, err)
				}
				now := c.rises(a)
				if now < was-1e-6 {
					t.Errorf("%s, %s: at %g it falls from %.4f to %.4f", style.Key, name, x, was, now)
				}
				was = now
			}
		}
	}
}
