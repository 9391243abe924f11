package learn

import (
	"context"
	"math"
	"slices"
)

// Correction is what was learnt of one thing: C, and factors with the deviation of their logarithm.
type Correction struct {
	ParameterName
	Prior    float64 `json:"prior"`
	PriorSD  float64 `json:"prior_sd"`
	Estimate float64 `json:"estimate"`
	SD       float64 `json:"sd"`
	Bakes    int     `json:"bakes"` // that bear on it
	Used     bool    `json:"used"`
	Off      bool    `json:"off,omitempty"` // switched off by hand
	// Before and After are the mean error of these bakes, each left out, without it and with it; nil: nothing was reported
	// that could be off.
	Before *float64 `json:"before"`
	After  *float64 `json:"after"`
	Unit   Unit     `json:"unit"`
	Gain   float64  `json:"gain"` // of the log score, over these bakes

	asOffset *OvenEstimate // of an oven, with its heat
	bears    []int         // the bakes, by their places in the log
}

// Unit is what an error is counted in.
type Unit string

// The units of an error.
const (
	UnitMinutes Unit = "min"
	UnitSteps   Unit = "steps"
)

// scored is how well a bake was predicted.
type scored struct {
	ln             float64
	minutes, steps []float64 // how far off each answer was
}

func (s *scored) add(o scored) {
	s.ln += o.ln
	s.minutes, s.steps = append(s.minutes, o.minutes...), append(s.steps, o.steps...)
}

func mean(x []float64) *float64 {
	if len(x) == 0 {
		return nil
	}
	sum := 0.0
	for _, v := range x {
		sum += v
	}
	sum /= float64(len(x))
	return &sum
}

// judge holds an estimate against bakes that it did not see.
type judge struct {
	*estimate
	ctx  context.Context
	left []posterior // without each bake
	told []int       // bakes that teach
	// bears is, of each parameter, the bakes that it bears on
	bears []([]int)
	off   enabled // by hand
}

func newJudge(ctx context.Context, e *estimate, off []ParameterName) *judge {
	j := &judge{estimate: e, ctx: ctx, left: make([]posterior, len(e.bakes)), bears: make([][]int, len(e.all))}
	for k := range e.bakes {
		j.left[k] = e.without(k, false)
		o := &e.bakes[k]
		if !o.teaches() {
			continue
		}
		j.told = append(j.told, k)
		_, slopes := o.slopes(o.drivers(e.mean, e.own[k]))
		shares := o.shares(e.mean)
		n := o.surface.at(o.drivers(e.mean, e.own[k]))
		for i := range o.answers {
			a := &o.answers[i]
			err := a.error(o.surface.predict(a, &n, o.drivers(e.mean, e.own[k])))
			moves := map[int]float64{}
			for x, u := range o.uses {
				moves[u.param] += slopes[i][u.driver] * shares[x]
			}
			for p, by := range moves {
				if math.Abs(by)*e.all[p].sd >= bearsFrom*err && !slices.Contains(j.bears[p], k) {
					j.bears[p] = append(j.bears[p], k)
				}
			}
		}
	}
	j.off = make(enabled, len(e.all))
	for _, n := range off {
		if i, ok := e.at[n]; ok {
			for _, p := range e.group(i) {
				j.off[p] = true
			}
		}
	}
	return j
}

// bakesOf are the bakes that bear on a correction.
func (j *judge) bakesOf(group []int) (out []int) {
	for _, p := range group {
		for _, k := range j.bears[p] {
			if !slices.Contains(out, k) {
				out = append(out, k)
			}
		}
	}
	slices.Sort(out)
	return out
}

// score of bakes, each left out, with corrections on.
func (j *judge) score(bakes []int, on enabled) (sum scored) {
	for _, k := range bakes {
		v := j.outlook(k, j.with(j.left[k], on))
		for i, f := range v.predict() {
			a := &v.answers[i]
			s := scored{ln: a.lnChance(f)}
			switch {
			case a.word():
				s.steps = []float64{a.miss(f)}
			case a.minutes():
				s.minutes = []float64{a.miss(f)}
			}
			sum.add(s)
		}
	}
	return sum
}

func (s enabled) set(group []int, on bool) enabled {
	out := slices.Clone(s)
	for _, p := range group {
		out[p] = on
	}
	return out
}

// compared is a correction without and with it.
type compared struct{ without, with scored }

func (c compared) gain() float64 { return c.with.ln - c.without.ln }

func (j *judge) compare(group []int, on enabled) compared {
	bakes := j.bakesOf(group)
	return compared{j.score(bakes, on.set(group, false)), j.score(bakes, on.set(group, true))}
}

// groups are the corrections, each with its parameters.
func (j *judge) groups() (out [][]int) {
	for i := range j.all {
		if g := j.group(i); g[0] == i {
			out = append(out, g)
		}
	}
	return out
}

// used are the corrections that predict unseen bakes better: of all that may be used the worst is dropped, again and
// again.
func (j *judge) used() (enabled, error) {
	on := make(enabled, len(j.all))
	var left [][]int
	for _, g := range j.groups() {
		if !j.off[g[0]] && len(j.bakesOf(g)) >= fewestBakes {
			left = append(left, g)
			on = on.set(g, true)
		}
	}
	for len(left) > 0 {
		if err := j.ctx.Err(); err != nil {
			return nil, err
		}
		worst, least := -1, 0.0
		for i, g := range left {
			if x := j.compare(g, on).gain(); x <= 0 && (worst < 0 || x < least) {
				worst, least = i, x
			}
		}
		if worst < 0 {
			break
		}
		on = on.set(left[worst], false)
		left = slices.Delete(left, worst, worst+1)
	}
	return on, nil
}

// corrections are all that may be learnt, with what is used.
func (j *judge) corrections(on enabled, ovens []OvenEstimate) []Correction {
	out := make([]Correction, 0, len(j.all))
	byGroup := map[int]compared{}
	for _, g := range j.groups() {
		byGroup[g[0]] = j.compare(g, on)
	}
	for i, p := range j.all {
		g := j.group(i)
		c := Correction{ParameterName: p.ParameterName, Used: on[i], Off: j.off[i], Unit: UnitSteps, bears: j.bakesOf(g)}
		c.Bakes = len(c.bears)
		var variance, prior, at float64
		for _, a := range j.parts(i) {
			prior += j.all[a].sd * j.all[a].sd
			at += j.mean[a]
			for _, b := range j.parts(i) {
				variance += j.cov.at(a, b)
			}
		}
		c.PriorSD, c.SD = math.Sqrt(prior), math.Sqrt(variance)
		if p.Kind == OvenOffset {
			c.Prior, c.Estimate = p.mean, at
			if k := slices.IndexFunc(ovens, func(o OvenEstimate) bool { return o.Key == p.Key }); k >= 0 {
				c.asOffset = &ovens[k]
			}
		} else {
			c.Prior, c.Estimate = 1, math.Exp(at)
		}
		x := byGroup[g[0]]
		c.Gain = x.gain()
		c.Before, c.After = mean(x.without.steps), mean(x.with.steps)
		if oven := p.Kind == OvenOffset || p.Kind == HeatFactor; oven && len(x.with.minutes) > 0 {
			c.Unit, c.Before, c.After = UnitMinutes, mean(x.without.minutes), mean(x.with.minutes)
		}
		out = append(out, c)
	}
	return out
}
