package learn

import (
	"cmp"
	"math"
	"slices"
	"time"

	"mabbin/core/larder"
)

// The deviations of one bake, which no other has.
var ownDrivers = [...]int{byOven, byRelease, byThickener, byColour, bySoftness, byDepth}

const deviations = len(ownDrivers)

// observed is a bake of the log as the estimate sees it.
type observed struct {
	log     *LoggedBake
	surface *Surface
	answers []answer
	tests   []test
	// parameters that bear on it, with the driver and the fruit of each
	uses     []use
	variance [deviations]float64
	offsetC  float64 // of the oven, as the bake was calculated with
}

// use is a parameter's part in a bake.
type use struct {
	param, driver, fruit int // fruit is -1 where it is of no single one
}

// test is a measured release, ln of it to the table's.
type test struct {
	fruit int
	ln    float64
}

// oven is the parameter of its offset.
func (o *observed) oven() int { return o.uses[0].param }

func (o *observed) teaches() bool { return len(o.answers) > 0 && !o.log.LeftOut }

// estimate is the most likely truth behind a log, and how sure it is.
type estimate struct {
	parameters
	bakes []observed
	mean  []float64
	own   [][deviations]float64
	curve matrix // of the parameters, their bakes' deviations integrated out
	cov   matrix // its inverse
}

const year = 365.25 * 24 * time.Hour

// newEstimate sets up the parameters of a log; surfaces are those of its bakes.
func newEstimate(q LogRequest, surfaces []*Surface) *estimate {
	e := &estimate{parameters: parameters{at: map[ParameterName]int{}}}
	now := q.Now
	for i := range q.Bakes {
		if now.Before(q.Bakes[i].At) && q.Now.IsZero() {
			now = q.Bakes[i].At
		}
	}
	for i := range q.Bakes {
		b, s := &q.Bakes[i], surfaces[i]
		o := observed{log: b, surface: s, offsetC: b.Request.Setting.OvenOffsetC}
		o.answers = answersOf(b, s)
		add := func(param, driver, fruit int) { o.uses = append(o.uses, use{param, driver, fruit}) }
		add(e.index(OvenOffset, b.Oven, offsetSD), byOven, -1)
		add(e.index(HeatFactor, b.Oven, heatSD), byHeat, -1)
		if s.dose != "" {
			add(e.index(Thickener, s.dose, thickenerSD), byThickener, -1)
		}
		add(e.index(Steam, "", steamSD), bySteam, -1)
		if s.topping != "" {
			add(e.index(Colour, s.topping, colourSD), byColour, -1)
		}
		for k, f := range s.fruits {
			add(e.index(Softness, f.key, softnessSD), bySoftness, k)
			add(e.index(Release, larder.AllFruit, releaseAllSD), byRelease, k)
			add(e.index(Release, f.key, releaseFruitSD), byRelease, k)
			if lot := b.Lots[f.key]; lot != "" {
				add(e.index(Release, f.key+"|"+lot, releaseLotSD), byRelease, k)
			}
			if m := b.Request.Request.Fruits[k].MeasuredRelease; m > 0 && !b.LeftOut {
				o.tests = append(o.tests, test{k, math.Log(m / f.table)})
			}
		}
		years := max(0, now.Sub(b.At).Hours()/year.Hours())
		sd := [deviations]float64{
			bakeOvenSD, bakeReleaseSD, bakeThickenerSD, bakeColourSD, bakeSoftnessSD, bakeDepthSD,
		}
		for k := range sd {
			o.variance[k] = sd[k] * sd[k]
		}
		o.variance[0] += ovenDriftC * ovenDriftC * years
		o.variance[1] += releaseDrift * releaseDrift * years
		e.bakes = append(e.bakes, o)
	}
	e.ovensAsMeasured()
	for _, p := range e.all {
		e.mean = append(e.mean, p.mean)
	}
	e.own = make([][deviations]float64, len(e.bakes))
	return e
}

// ovensAsMeasured takes each oven's prior from the bake that knew it latest.
func (e *estimate) ovensAsMeasured() {
	latest := make([]*observed, 0, len(e.bakes))
	for i := range e.bakes {
		latest = append(latest, &e.bakes[i])
	}
	slices.SortStableFunc(latest, func(a, b *observed) int { return a.log.At.Compare(b.log.At) })
	for _, o := range latest {
		p := &e.all[o.oven()]
		p.mean = o.log.Request.Setting.OvenOffsetC
		p.sd = cmp.Or(o.log.Request.Setting.OffByC, offsetSD)
	}
}

// lnRelease is the logarithm of a fruit's release to its table's, without the bake's own.
func (o *observed) lnRelease(fruit int, mean []float64) (ln float64) {
	for _, u := range o.uses {
		if u.driver == byRelease && u.fruit == fruit {
			ln += mean[u.param]
		}
	}
	return ln
}

// shares is how much of each use reaches its driver: of a mix, the fruit's part of the juice or of the bite.
func (o *observed) shares(mean []float64) []float64 {
	juice := make([]float64, len(o.surface.fruits))
	sum := 0.0
	for k, f := range o.surface.fruits {
		juice[k] = f.juice * math.Exp(o.lnRelease(k, mean))
		sum += juice[k]
	}
	out := make([]float64, len(o.uses))
	for i, u := range o.uses {
		out[i] = 1
		switch u.driver {
		case byRelease:
			out[i] = juice[u.fruit] / max(1e-9, sum)
		case bySoftness:
			out[i] = o.surface.fruits[u.fruit].share
		}
	}
	return out
}

// drivers of a bake: its parameters and its own deviations.
func (o *observed) drivers(mean []float64, own [deviations]float64) (d drivers) {
	d[byOven] = -o.offsetC
	mixed := 0.0
	ln := [8]float64{}
	fruits := o.surface.fruits
	more := ln[:]
	if len(fruits) > len(more) {
		more = make([]float64, len(fruits))
	}
	for _, u := range o.uses {
		switch u.driver {
		case byRelease:
			more[u.fruit] += mean[u.param]
		case bySoftness:
			d[bySoftness] += fruits[u.fruit].share * mean[u.param]
		default:
			d[u.driver] += mean[u.param]
		}
	}
	for k, f := range fruits {
		mixed += f.juice * math.Exp(more[k])
	}
	if mixed > 0 {
		d[byRelease] = math.Log(mixed)
	}
	for i, k := range ownDrivers {
		d[k] += own[i]
	}
	return d
}

// testOf is a measured release as parameters and deviations have it.
func (o *observed) testOf(t test, mean []float64, own [deviations]float64) float64 {
	return own[1] + o.lnRelease(t.fruit, mean)
}

func testAnswer(t test) *answer {
	return &answer{of: "measured_release", value: t.ln, sd: releaseTestSD}
}

// misfit of a bake: -ln of its likelihood and of its deviations' prior.
func (o *observed) misfit(mean []float64, own [deviations]float64) (sum float64) {
	for k, u := range own {
		sum += u * u / (2 * o.variance[k])
	}
	if o.teaches() {
		d := o.drivers(mean, own)
		n := o.surface.at(d)
		for i := range o.answers {
			a := &o.answers[i]
			sum -= a.lnDensity(o.surface.predict(a, &n, d))
		}
	}
	for _, t := range o.tests {
		sum -= testAnswer(t).lnDensity(o.testOf(t, mean, own))
	}
	return sum
}

// steps of the drivers, by which slopes are taken.
var driverStep = drivers{0.25, 0.005, 0.01, 0.01, 0.01, 0.01, 0.01, 0.01}

// slopes are how each answer changes with each driver.
func (o *observed) slopes(d drivers) (y []float64, by []drivers) {
	y, by = make([]float64, len(o.answers)), make([]drivers, len(o.answers))
	n := o.surface.at(d)
	for i := range o.answers {
		y[i] = o.surface.predict(&o.answers[i], &n, d)
	}
	for k, h := range driverStep {
		up, down := d, d
		up[k] += h
		down[k] -= h
		a, b := o.surface.at(up), o.surface.at(down)
		for i := range o.answers {
			x := &o.answers[i]
			by[i][k] = (o.surface.predict(x, &a, up) - o.surface.predict(x, &b, down)) / (2 * h)
		}
	}
	return y, by
}

// misfit of the whole log.
func (e *estimate) misfit(mean []float64, own [][deviations]float64) (sum float64) {
	for i, p := range e.all {
		x := (mean[i] - p.mean) / p.sd
		sum += x * x / 2
	}
	for i := range e.bakes {
		sum += e.bakes[i].misfit(mean, own[i])
	}
	return sum
}

// point is a state of the estimate.
type point struct {
	mean []float64
	own  [][deviations]float64
	fit  float64
}

// prior are the equations of the priors at a point.
func (e *estimate) prior(mean []float64) (slope []float64, curve matrix) {
	slope, curve = make([]float64, len(e.all)), newMatrix(len(e.all))
	for i, p := range e.all {
		slope[i] = (mean[i] - p.mean) / (p.sd * p.sd)
		curve.set(i, i, 1/(p.sd*p.sd))
	}
	return slope, curve
}

// climb finds the most likely truth from a point on, after Levenberg and Marquardt.
func (e *estimate) climb(from point, most int) point {
	at := from
	damp := 1e-3
	for range most {
		slope, curve := e.prior(at.mean)
		eqs, reds := make([]equations, len(e.bakes)), make([]reduced, len(e.bakes))
		for i := range e.bakes {
			eqs[i] = e.bakes[i].equations(at.mean, at.own[i], false)
			reds[i] = eqs[i].reduce()
			e.bakes[i].gather(reds[i], slope, curve, 1)
		}
		better := false
		for range 6 {
			next, step := e.step(at, damp, slope, curve, eqs, reds)
			next.fit = e.misfit(next.mean, next.own)
			if next.fit < at.fit {
				better = at.fit-next.fit > 1e-6 || step > 1e-3
				at, damp = next, max(1e-9, damp/10)
				break
			}
			damp = max(1e-3, damp*10)
		}
		if !better {
			break
		}
	}
	return at
}

// step is one step down, no parameter by more than it may; and how long it was, in prior deviations.
func (e *estimate) step(
	at point, damp float64, slope []float64, curve matrix, eqs []equations, reds []reduced,
) (next point, longest float64) {
	damped := curve.clone()
	for i, p := range e.all {
		damped.add(i, i, damp*max(1/(p.sd*p.sd), curve.at(i, i)))
	}
	l, ok := damped.cholesky()
	if !ok {
		return at, 0
	}
	move := l.solve(slope)
	for i, p := range e.all {
		longest = max(longest, math.Abs(move[i])/p.sd)
	}
	k := 1.0
	if longest > longestStepSD {
		k = longestStepSD / longest
	}
	next = point{mean: slices.Clone(at.mean), own: slices.Clone(at.own)}
	for i := range move {
		next.mean[i] -= k * move[i]
	}
	for b := range e.bakes {
		q := eqs[b]
		rest := slices.Clone(q.slope[q.n:])
		for i, u := range e.bakes[b].uses {
			for j := range deviations {
				rest[j] -= q.curve.at(i, q.n+j) * move[u.param]
			}
		}
		for j, x := range reds[b].own.solve(rest) {
			next.own[b][j] -= k * x
		}
	}
	return next, k * longest
}

// solve finds the estimate: from the priors, and from each oven's offset far to either side.
func (e *estimate) solve() {
	start := point{mean: slices.Clone(e.mean), own: slices.Clone(e.own)}
	best := point{fit: math.Inf(1)}
	try := func(mean []float64) {
		p := point{mean: mean, own: slices.Clone(start.own)}
		p.fit = e.misfit(p.mean, p.own)
		if p = e.climb(p, rounds); p.fit < best.fit-1e-9 {
			best = p
		}
	}
	try(slices.Clone(start.mean))
	for i, p := range e.all {
		if p.Kind != OvenOffset || !e.taught(i) {
			continue
		}
		for _, k := range []float64{-startsAtSD, startsAtSD} {
			mean := slices.Clone(start.mean)
			mean[i] += k * p.sd
			try(mean)
		}
	}
	e.stand(best)
}

// taught says whether anything was reported of a bake that uses a parameter.
func (e *estimate) taught(param int) bool {
	return slices.ContainsFunc(e.bakes, func(o observed) bool {
		return o.teaches() && slices.ContainsFunc(o.uses, func(u use) bool { return u.param == param })
	})
}

// stand takes a point as the estimate, with its curvature.
func (e *estimate) stand(p point) {
	e.mean, e.own = p.mean, p.own
	slope, curve := e.prior(p.mean)
	for i := range e.bakes {
		o := &e.bakes[i]
		o.gather(o.equations(p.mean, p.own[i], false).reduce(), slope, curve, 1)
	}
	e.curve = curve
	l, _ := curve.cholesky() // the priors are in it
	e.cov = l.inverse()
}
