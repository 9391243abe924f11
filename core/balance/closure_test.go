package balance

import (
	"math"
	"strings"
	"testing"
)

// What is weighed is what stands on the table, what steamed off, and what was poured away or boiled off: for every
// style, with all that can be added to it.
func TestMassCloses(t *testing.T) {
	added := map[string]func(*Request){
		"plain":    func(*Request) {},
		"washed":   func(r *Request) { r.Washed = true },
		"simmered": func(r *Request) { r.Precook = &PrecookAsked{Minutes: 6, Open: true} },
		"drained":  func(r *Request) { r.Macerate = &MacerateAsked{Minutes: 60, Juice: "leave", WithThickener: true} },
		"with more": func(r *Request) {
			r.Liquids, r.Extras = []Asked{{Key: "whole_milk", G: 60}}, []Asked{{Key: "raisins", G: 40}}
		},
		"with crumb": func(r *Request) { r.CrumbLayerG = 30 },
		"mixed thickeners": func(r *Request) {
			r.Thickener = &ThickenerAsked{Key: "tapioca_starch", With: []Asked{{Key: "cornflour", G: 6}}}
		},
		"late":          func(r *Request) { r.Late = []ToppingAsked{{Key: "praline_nut"}} },
		"steam is told": func(r *Request) { r.SteamedOffG = number(55) },
		"given": func(r *Request) {
			r.SugarG = number(90)
			r.Thickener = &ThickenerAsked{Key: "cornflour", G: number(22)}
		},
		"cream in a custard": func(r *Request) {
			r.Style, r.Custard, r.Base = "bar", &CustardAsked{}, &BaseAsked{Key: "bar_dough"}
			r.Topping.Key, r.Liquids = "bar_dough", []Asked{{Key: "whole_milk", G: 80}}
		},
		"a custard with sugar and flour of one's own": func(r *Request) {
			r.Style, r.Custard, r.Base = "bar", &CustardAsked{}, &BaseAsked{Key: "bar_dough"}
			r.Topping.Key, r.SugarG, r.Thickener = "bar_dough", number(150), &ThickenerAsked{Key: "wheat_flour", G: number(45)}
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
			if how := b.How.String(); b.Key == "topping" &&
				(strings.Contains(how, "ub ") || !strings.Contains(how, "Stir the oil")) {
				t.Errorf("%s with oil: %s", key, how)
			}
		}
	}
}
