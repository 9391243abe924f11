package learn

import (
	"math"
	"slices"
)

// posterior is what is thought of the parameters: normal.
type posterior struct {
	mean []float64
	cov  matrix
}

// enabled say of each parameter whether what was learnt of it is used.
type enabled []bool

// with is a belief in which what is off is as the tables have it, as unsure as before anything was reported.
func (e *estimate) with(b posterior, on enabled) posterior {
	out := posterior{slices.Clone(b.mean), b.cov.clone()}
	for i, p := range e.all {
		if on[i] {
			continue
		}
		out.mean[i] = p.mean
		for j := range e.all {
			out.cov.set(i, j, 0)
			out.cov.set(j, i, 0)
		}
		out.cov.set(i, i, p.sd*p.sd)
	}
	return out
}

// without is what would be thought had a bake not been reported, by one step of Newton; with testsAlone, had its fruit
// not been tested.
func (e *estimate) without(k int, testsAlone bool) posterior {
	o := &e.bakes[k]
	if testsAlone && len(o.tests) == 0 || !testsAlone && !o.teaches() && len(o.tests) == 0 {
		return posterior{e.mean, e.cov}
	}
	curve, slope := e.curve.clone(), make([]float64, len(e.all))
	o.gather(o.equations(e.mean, e.own[k], testsAlone).reduce(), slope, curve, -1)
	l, ok := curve.cholesky()
	if !ok { // rounding: as if it had not been left out
		return posterior{e.mean, e.cov}
	}
	out := posterior{slices.Clone(e.mean), l.inverse()}
	for i, x := range l.solve(slope) { // slope is that of the bake, negative: what holds it where it is
		out.mean[i] -= x
	}
	return out
}

// outlook is what is thought of one bake before it is reported of: of its parameters and its own deviations, jointly.
// Its fruit's test is known beforehand.
type outlook struct {
	*observed
	params []int     // of the estimate, that come first
	mean   []float64 // of all parameters
	own    [deviations]float64
	cov    matrix // of params, then of the deviations
}

// outlook of a bake, by a belief in which the bake itself is not.
func (e *estimate) outlook(k int, b posterior) outlook {
	o := &e.bakes[k]
	v := outlook{observed: o, mean: slices.Clone(b.mean)}
	for _, u := range o.uses {
		if !slices.Contains(v.params, u.param) {
			v.params = append(v.params, u.param)
		}
	}
	n := len(v.params)
	v.cov = newMatrix(n + deviations)
	for i, p := range v.params {
		for j, q := range v.params {
			v.cov.set(i, j, b.cov.at(p, q))
		}
	}
	for i, x := range o.variance {
		v.cov.set(n+i, n+i, x)
	}
	for _, t := range o.tests {
		v.condition(t)
	}
	return v
}

// condition takes a test of the fruit in.
func (v *outlook) condition(t test) {
	n := len(v.params)
	by := make([]float64, n+deviations)
	by[n+1] = 1
	for _, u := range v.uses {
		if u.driver == byRelease && u.fruit == t.fruit {
			by[slices.Index(v.params, u.param)] = 1
		}
	}
	v.observe(by, t.ln-v.testOf(t, v.mean, v.own), releaseTestSD*releaseTestSD)
}

// observe takes an observation in, after Kalman: how it changes with each unknown, how far it is from the
// prediction, and its variance.
func (v *outlook) observe(by []float64, off, variance float64) {
	reach := v.cov.times(by)
	sum := dot(by, reach) + variance
	for i := range reach {
		*v.unknown(i) += reach[i] / sum * off
	}
	next := v.cov.clone()
	for i := range reach {
		for j := range reach {
			next.add(i, j, -reach[i]*reach[j]/sum)
		}
	}
	v.cov = next
}

// unknown is one of what the covariance is of: a parameter, then a deviation of the bake.
func (v *outlook) unknown(i int) *float64 {
	if n := len(v.params); i >= n {
		return &v.own[i-n]
	}
	return &v.mean[v.params[i]]
}

// read takes in what was reported of the bake so far: the filter of Kalman, each round about where the last one came
// to, in which an answer counts by its weight.
func (v *outlook) read() {
	before := outlook{observed: v.observed, params: v.params, mean: slices.Clone(v.mean), own: v.own, cov: v.cov}
	for range readRounds {
		d := v.drivers(v.mean, v.own)
		y, slopes := v.slopes(d)
		shares := v.shares(v.mean)
		at := outlook{observed: v.observed, params: v.params, mean: v.mean, own: v.own}
		*v = outlook{
			observed: v.observed, params: v.params, mean: slices.Clone(before.mean), own: before.own, cov: before.cov,
		}
		for i := range v.answers {
			a := &v.answers[i]
			by := v.by(slopes[i], shares)
			predicted := y[i]
			for k, x := range by {
				predicted += x * (*v.unknown(k) - *at.unknown(k))
			}
			err := a.error(y[i])
			v.observe(by, a.value-predicted, err*err/a.weight(y[i]))
		}
	}
}

// by is how an answer changes with each unknown, by how it does with each driver.
func (v *outlook) by(slopes drivers, shares []float64) []float64 {
	n := len(v.params)
	out := make([]float64, n+deviations)
	for j, u := range v.uses {
		out[slices.Index(v.params, u.param)] += slopes[u.driver] * shares[j]
	}
	for k, driver := range ownDrivers {
		out[n+k] = slopes[driver]
	}
	return out
}

// prediction is an answer before it is reported: its most likely value, and the variance that parameters and deviations
// leave it.
type prediction struct{ value, variance float64 }

// predict each answer of a bake.
func (v *outlook) predict() []prediction { return v.predictAt(v.drivers(v.mean, v.own)) }

// predictAt is each answer about other drivers.
func (v *outlook) predictAt(d drivers) []prediction {
	out := make([]prediction, len(v.answers))
	y, slopes := v.slopes(d)
	shares := v.shares(v.mean)
	for i := range v.answers {
		out[i] = prediction{y[i], max(0, v.cov.quadratic(v.by(slopes[i], shares)))}
	}
	return out
}

// lnChance of an answer that was predicted so: over all that it might have been.
func (a *answer) lnChance(f prediction) float64 {
	if a.word() {
		return a.lnDensityWith(f.value, a.sd, f.variance)
	}
	const reach, half = 4.0, 10
	err, sd := a.error(f.value), math.Sqrt(f.variance)
	sum, weights := 0.0, 0.0
	for i := -half; i <= half; i++ {
		z := reach * float64(i) / half
		w := math.Exp(-z * z / 2)
		sum += w * math.Exp(a.lnDensityWith(f.value+z*sd, err, 0))
		weights += w
	}
	return math.Log(max(1e-300, sum/weights))
}

// miss is how far what was reported is from what was predicted: minutes, or whole words.
func (a *answer) miss(f prediction) float64 {
	if a.word() {
		return math.Abs(a.value - float64(wordIndex(f.value, len(a.scale))))
	}
	return math.Abs(a.value - f.value)
}

// wordIndex is the word at a place.
func wordIndex(at float64, words int) int { return min(words-1, max(0, int(math.Floor(at)))) }
