package learn

import (
	"math"
	"slices"
	"time"
)

// Change is an oven that seems to have changed on a day: repaired, moved, with a new seal.
type Change struct {
	ParameterName
	Since   time.Time `json:"since"`
	Bake    string    `json:"bake"` // the first one after it
	Change  float64   `json:"change"`
	SD      float64   `json:"sd"`
	LogOdds float64   `json:"log_odds"` // of its evidence, less the log of the days tried
}

// changes are the ovens that have changed, each at its likeliest day.
func (e *estimate) changes() []Change {
	out := []Change{}
	for i, p := range e.all {
		if p.Kind != OvenOffset {
			continue
		}
		var bakes []int
		for k := range e.bakes {
			if o := &e.bakes[k]; o.teaches() && o.oven() == i {
				bakes = append(bakes, k)
			}
		}
		slices.SortStableFunc(bakes, func(a, b int) int { return e.bakes[a].log.At.Compare(e.bakes[b].log.At) })
		if c, ok := e.changeOf(i, bakes); ok && c.LogOdds > changedFrom {
			out = append(out, c)
		}
	}
	return out
}

// changeOf is the likeliest change of one oven, whose bakes are in the order of their days.
func (e *estimate) changeOf(param int, bakes []int) (best Change, ok bool) {
	reds := make([]reduced, len(bakes))
	for i, k := range bakes {
		reds[i] = e.bakes[k].equations(e.mean, e.own[k], false).reduce()
	}
	days := 0
	for i := fewestOnOneSide; i+fewestOnOneSide <= len(bakes); i++ {
		days++
		c, found := e.changed(param, bakes[i:], reds[i:])
		if found && (!ok || c.LogOdds > best.LogOdds) {
			best, ok = c, true
		}
	}
	best.LogOdds -= math.Log(float64(max(1, days)))
	return best, ok
}

// changed is an offset more from some bakes on, by one step of Newton, with its evidence after Laplace.
func (e *estimate) changed(param int, later []int, reds []reduced) (Change, bool) {
	slope, curve := 0.0, 1/(changedOffsetSD*changedOffsetSD)
	cross := make([]float64, len(e.all))
	for x, k := range later {
		o := &e.bakes[k]
		i := slices.IndexFunc(o.uses, func(u use) bool { return u.param == param })
		slope += reds[x].slope[i]
		curve += reds[x].curve.at(i, i)
		for j, w := range o.uses {
			cross[w.param] += reds[x].curve.at(i, j)
		}
	}
	rest := curve - e.cov.quadratic(cross)
	if !(rest > 0) {
		return Change{}, false
	}
	first := e.bakes[later[0]].log
	return Change{
		ParameterName: e.all[param].ParameterName, Since: first.At, Bake: first.ID,
		Change: -slope / rest, SD: 1 / math.Sqrt(rest),
		LogOdds: slope*slope/(2*rest) - math.Log(rest*changedOffsetSD*changedOffsetSD)/2,
	}, true
}
