package bake_test

import (
	"fmt"
	"slices"
	"strings"
	"sync"
	"testing"

	"mabbin/core/bake"
	"mabbin/core/internal/sample"
)

// A plan that is right keeps a margin: a minute less, or an oven a little cooler, and it is right still.
func TestAPlanHasAMargin(t *testing.T) {
	if testing.Short() {
		t.Skip("a sweep of hundreds of plans: it runs without the race detector")
	}
	var lock sync.Mutex
	var right, nearly, wrong, minuteLess, threeWrong, threeCooler, fiveWrong int
	whys, minutes := map[string]int{}, map[string][]float64{}
	sample.Each(t, func(n int, q bake.DessertRequest, a *bake.DessertAnswer) {
		level := func(less, coolerC float64) bake.Level {
			again := q
			again.Setting.OvenOffsetC -= coolerC
			again.Setting.Stages = slices.Clone(a.Plan.Stages)
			again.Setting.Stages[len(again.Setting.Stages)-1].Minutes -= less
			b, err := bake.Dessert(t.Context(), again)
			if err != nil {
				t.Errorf("dessert %d: %v", n, err)
				return bake.Wrong
			}
			return b.Verdict.Level
		}
		var levels [4]bake.Level
		if a.Verdict.Right {
			levels = [4]bake.Level{level(1, 0), level(3, 0), level(0, 3), level(0, 5)}
		}
		lock.Lock()
		defer lock.Unlock()
		kind := sample.Kind(q)
		minutes[kind] = append(minutes[kind], a.Plan.Minutes)
		if !a.Verdict.Right {
			if a.Verdict.Nearly {
				nearly++
			} else {
				wrong++
			}
			whys[kind+": "+a.Verdict.Summary.String()]++
			return
		}
		right++
		e, b := a.Plan.Answer.End, a.Borders()
		if a.Bake.Topping != nil && (e.Colour < b.Top[0] || e.Colour > b.Top[2]) ||
			a.Bake.Base != nil && (e.Base < b.Base[0] || e.Base > b.Base[2]) ||
			e.FruitMinutes > 1.5*b.Fruit[2] || e.SteamedOffG > 0.15*a.Bake.Filling.MassG {
			t.Errorf("dessert %d is called right: colour %.2f, base %.2f, fruit %.0f min", n, e.Colour, e.Base, e.FruitMinutes)
		}
		count := func(n *int, so bool) {
			if so {
				*n++
			}
		}
		count(&minuteLess, levels[0] == bake.Right)
		count(&threeWrong, levels[1] == bake.Wrong)
		count(&threeCooler, levels[2] == bake.Right)
		count(&fiveWrong, levels[3] == bake.Wrong)
	})
	share := func(n int) float64 { return 100 * float64(n) / float64(max(1, right)) }
	t.Logf(
		"right %d, nearly %d, wrong %d; right still a minute less %.0f %%, 3 K cooler %.0f %%; wrong three minutes less %.0f %%, 5 K cooler %d",
		right,
		nearly,
		wrong,
		share(minuteLess),
		share(threeCooler),
		share(threeWrong),
		fiveWrong,
	)
	for kind, all := range minutes {
		slices.Sort(all)
		t.Logf("%-9s %3d plans, %.0f to %.0f min, middle %.0f", kind, len(all), all[0], all[len(all)-1], all[len(all)/2])
	}
	for _, why := range slices.Sorted(func(yield func(string) bool) {
		for k, n := range whys {
			if !yield(fmt.Sprintf("%3d %s", n, k)) {
				return
			}
		}
	}) {
		t.Log(strings.TrimSpace(why))
	}
	if share(minuteLess) < 90 || share(threeCooler) < 90 || share(threeWrong) > 5 || fiveWrong > 0 {
		t.Error("plans that are right have no margin")
	}
}
