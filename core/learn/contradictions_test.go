package learn

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"sync"
	"testing"

	"mabbin/core/bake"
	"mabbin/core/internal/sample"
)

// contradictions are the pairs of statements about one dessert that do not go together.
func contradictions(q bake.DessertRequest, a *bake.DessertAnswer, f *Forecast) (all []string) {
	note := func(so bool, what string, args ...any) {
		if so {
			all = append(all, fmt.Sprintf(what, args...))
		}
	}
	v, end, borders := a.Verdict, a.Plan.Answer.End, a.Borders()
	remarked := func(codes ...string) bool {
		for _, r := range a.Balance.Remarks {
			if slices.Contains(codes, r.Code) {
				return true
			}
		}
		return false
	}
	if v.Right {
		for _, x := range []struct {
			of       string
			chances  *Chances
			expected string
		}{
			{"juice", &f.ComesOut.Juice, v.Expected.Juice},
			{"fruit", &f.ComesOut.Fruit, v.Expected.Fruit},
			{"top", f.ComesOut.Top, v.Expected.Top},
			{"base", f.ComesOut.Base, v.Expected.Base},
		} {
			if x.chances != nil {
				note(x.chances.Word != x.expected, "right with %s %s, and the forecast is %s %.2f",
					x.expected, x.of, x.chances.Word, x.chances.P)
			}
		}
		note(remarked("boils_over", "may_boil_over", "set_off_style", "topping_thick", "topping_thin"),
			"right next to a remark that says otherwise")
		note(f.Right < 0.5, "right, and likely only %.2f", f.Right)
	}
	note(remarked("precook_required", "precook_advised") && len(q.Request.Fruits) == 1 && end.FruitMinutes >= a.Tender,
		"cook the fruit first, and it is tender")
	note(
		remarked("wet_base", "slow_floor") && a.Bake.Base != nil && end.Base >= borders.Base[1],
		"a slow base that is crisp",
	)
	for _, step := range a.Balance.Method {
		text := step.Text.String()
		note(strings.Contains(text, " 0 min"), "%s: %s", step.Code, text)
		note(strings.Contains(text, "brown underneath") && end.Base < borders.Base[1], "a brown base at %.2f", end.Base)
		note(strings.Contains(text, "Cool it") && a.Plan.ThickestMin > 0, "what is spooned is cooled to be cut")
	}
	note(v.Mend != nil && v.Mend.Result.IsZero(), "a mend without its result")
	return all
}

// No statement about a dessert contradicts another: the verdict, the forecast next to it, the remarks and the method.
func TestNoStatementContradictsAnother(t *testing.T) {
	if testing.Short() {
		t.Skip("a sweep of hundreds of plans: it runs without the race detector")
	}
	var lock sync.Mutex
	count, likely, likelyWord := 0, []float64{}, []float64{}
	sample.Each(t, func(n int, q bake.DessertRequest, a *bake.DessertAnswer) {
		q.Setting.Stages = a.Plan.Stages
		m, err := Forecaster{}.Forecast(t.Context(), LoggedBake{ID: "now", At: simulatedFrom, Oven: "range", Request: q})
		lock.Lock()
		defer lock.Unlock()
		if err != nil {
			t.Errorf("dessert %d: %v", n, err)
			return
		}
		if a.Verdict.Right {
			likely = append(likely, m.Forecast.Right)
			likelyWord = append(likelyWord, slices.Max(m.Forecast.ComesOut.Juice.P))
		}
		for _, what := range contradictions(q, a, &m.Forecast) {
			count++
			t.Errorf("dessert %d, %s: %s", n, sample.Kind(q), what)
		}
	})
	slices.Sort(likely)
	slices.Sort(likelyWord)
	t.Logf(
		"%d contradictions in %d desserts; the right ones are likely by %.2f to %.2f, middle %.2f; their juice %.2f to %.2f, middle %.2f",
		count,
		sample.Count,
		likely[0],
		likely[len(likely)-1],
		likely[len(likely)/2],
		likelyWord[0],
		likelyWord[len(likelyWord)-1],
		likelyWord[len(likelyWord)/2],
	)
}

// The chance of a right dessert is what many bakes in ovens and with fruit as they may be come to.
func TestTheChanceIsThatOfManyBakes(t *testing.T) {
	for n := range 5 {
		q := desserts()[n]
		v, err := Forecaster{}.outlook(t.Context(), LoggedBake{ID: "now", At: simulatedFrom, Oven: "range", Request: q})
		if err != nil {
			t.Fatal(err)
		}
		l, ok := v.cov.cholesky()
		if !ok {
			t.Fatal("no root of the covariance")
		}
		w, right := &v.surface.window, 0
		z := normals(v.cov.n + 1)
		for _, draw := range z {
			param, own := slices.Clone(v.mean), v.own
			for k := range v.cov.n {
				x := dot(l.row(k)[:k+1], draw[:k+1])
				if k < len(v.params) {
					param[v.params[k]] += x
				} else {
					own[k-len(v.params)] += x
				}
			}
			d := v.drivers(param, own)
			exactly := func(x float64) normal { return normal{x, 1e-9} }
			right += int(math.Round(w.chance(d[byOven], d[byHeat], exactly(d[byColour]), exactly(d[bySoftness]))))
		}
		if drawn, got := float64(right)/float64(len(z)), v.likelyRight(); math.Abs(drawn-got) > 0.06 {
			t.Errorf("dessert %d: the chance is %.3f, of %d draws %.3f are right", n, got, len(z), drawn)
		}
	}
}

// A forecast leads with the verdict's word where that is as good as the likeliest, and says what else it may be.
func TestTheWordThatAForecastLeadsWith(t *testing.T) {
	c := Chances{Steps: 2.2, P: []float64{0, 0.2, 0.35, 0.45, 0, 0}}
	for verdict, want := range map[string]string{
		"spoonable": "spoonable, but perhaps saucy or mounds", "runny": "mounds (50 %), spoonable (40 %), saucy (20 %)",
	} {
		c.lead(bake.JuiceWords, verdict)
		if text := c.likeliest(bake.JuiceWords).String(); text != want {
			t.Errorf("%s: %q, want %q", verdict, text, want)
		}
	}
}
