package learn

import (
	"context"
	"math"
	"runtime"
	"slices"
	"sync"
	"sync/atomic"
	"time"

	"mabbin/core/message"
)

// Result is what a log teaches.
type Result struct {
	Corrections []Correction    `json:"corrections"`
	Ovens       []OvenEstimate  `json:"ovens"`
	Changes     []Change        `json:"changes"`
	Predictions []Prediction    `json:"predictions"`
	Score       PredictionScore `json:"score"`
	Model       Model           `json:"model"`

	learned *estimate
}

// OvenEstimate is an oven's offset and heat as one figure: the offset that comes to the same where the middle bubbles.
type OvenEstimate struct {
	Key         string  `json:"key"`
	AsOffsetC   float64 `json:"as_offset_c"`
	SD          float64 `json:"sd"`
	PriorSD     float64 `json:"prior_sd"`
	CPerLnHeat  float64 `json:"c_per_ln_heat"`
	Correlation float64 `json:"correlation"` // of offset and heat
	Bakes       int     `json:"bakes"`
}

// PredictionScore is how well bakes were predicted, each by all others.
type PredictionScore struct {
	Bakes   int      `json:"bakes"`
	Answers int      `json:"answers"`
	Before  Scored   `json:"before"`
	After   Scored   `json:"after"`
	Held    Coverage `json:"held"`
}

// Scored is a log score with mean errors; nil: nothing was reported that could be off.
type Scored struct {
	LogScore float64  `json:"log_score"`
	Minutes  *float64 `json:"min"`
	Steps    *float64 `json:"steps"`
}

// Coverage is how many of the minutes that were reported put in the ranges that were predicted without them.
type Coverage struct {
	Of  int `json:"of"`
	P50 int `json:"p50"`
	P90 int `json:"p90"`
}

// Learn estimates what a log teaches, and predicts each of its bakes. A bad request is fault.Faults. It ends with ctx;
// tick is reported after each bake and may be nil, and so may keep.
func Learn(ctx context.Context, q LogRequest, keep Keeper, tick Tick) (*Result, error) {
	if err := CheckLog(q); err != nil {
		return nil, err
	}
	surfaces, err := surfacesOf(ctx, q.Bakes, keep, tick)
	if err != nil {
		return nil, err
	}
	e := newEstimate(q, surfaces)
	e.solve()
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	j := newJudge(ctx, e, q.Off)
	on, err := j.used()
	if err != nil {
		return nil, err
	}
	ovens := j.ovens()
	out := &Result{
		Corrections: j.corrections(on, ovens), Ovens: ovens, Changes: e.changes(),
		Predictions: make([]Prediction, len(e.bakes)), Model: modelConstants(), learned: e,
	}
	err = inParallel(ctx, len(e.bakes), func(k int) error {
		out.Predictions[k] = j.prediction(k, on)
		return nil
	})
	if err != nil {
		return nil, err
	}
	out.Score = j.total(on, out.Predictions)
	return out, nil
}

// surfacesOf runs the bakes.
func surfacesOf(ctx context.Context, bakes []LoggedBake, keep Keeper, tick Tick) ([]*Surface, error) {
	out := make([]*Surface, len(bakes))
	done := 0
	var told sync.Mutex
	return out, inParallel(ctx, len(bakes), func(k int) error {
		s, err := surfaceOf(ctx, bakes[k].Request, keep)
		if err != nil {
			return err
		}
		out[k] = s
		told.Lock()
		defer told.Unlock()
		if done++; tick == nil {
			return nil
		}
		return tick(done, len(bakes))
	})
}

// inParallel does n pieces of work on all cores, until one of them fails.
func inParallel(ctx context.Context, n int, work func(int) error) error {
	ctx, stop := context.WithCancelCause(ctx)
	defer stop(nil)
	var next atomic.Int64
	var all sync.WaitGroup
	for range min(n, runtime.GOMAXPROCS(0)) {
		all.Go(func() {
			for {
				k := int(next.Add(1)) - 1
				if k >= n || ctx.Err() != nil {
					return
				}
				if err := work(k); err != nil {
					stop(err)
					return
				}
			}
		})
	}
	all.Wait()
	return context.Cause(ctx)
}

func (j *judge) ovens() []OvenEstimate {
	out := []OvenEstimate{}
	for i, p := range j.all {
		if p.Kind != OvenOffset {
			continue
		}
		h := j.at[ParameterName{HeatFactor, p.Key}]
		per, as, n := 0.0, 0.0, 0
		for _, k := range j.told {
			o := &j.bakes[k]
			if o.oven() != i {
				continue
			}
			if x, ok := o.perHeat(o.drivers(j.mean, j.own[k])); ok {
				per += x
				as += o.offsetC + o.surface.asOffset(j.mean[i]-o.offsetC, j.mean[h])
				n++
			}
		}
		if n == 0 {
			continue
		}
		per /= float64(n)
		vo, vh, c := j.cov.at(i, i), j.cov.at(h, h), j.cov.at(i, h)
		out = append(out, OvenEstimate{
			Key: p.Key, CPerLnHeat: per, Bakes: len(j.bakesOf([]int{i, h})),
			AsOffsetC:   as / float64(n),
			SD:          math.Sqrt(ovenWiden * max(0, vo+per*per*vh+2*per*c)),
			PriorSD:     math.Hypot(p.sd, per*j.all[h].sd),
			Correlation: c / math.Sqrt(vo*vh),
		})
	}
	return out
}

// perHeat is how many C of offset come to the same, where the middle bubbles, as a heat e times as strong; false where
// neither moves it.
func (o *observed) perHeat(d drivers) (float64, bool) {
	slope := func(by int) float64 {
		up, down := d, d
		up[by] += driverStep[by]
		down[by] -= driverStep[by]
		return (o.surface.at(up).ln[ofMiddle] - o.surface.at(down).ln[ofMiddle]) / (2 * driverStep[by])
	}
	c := slope(byOven)
	if c >= 0 {
		return 0, false
	}
	return slope(byHeat) / c, true
}

// asOffset is the offset, with heat as the model has it, at which the middle bubbles when it does with these.
func (s *Surface) asOffset(offset, heat float64) float64 {
	p := &s.heat[ofMiddle]
	want := p.at(offset, heat)
	first, last := p.x[0], p.x[len(p.x)-1]
	h := (last - first) / float64(len(p.x)-1)
	lo, hi := first, last
	switch {
	case want > p.v[1][0]: // beyond the edge: along its slope
		return first - (want-p.v[1][0])*h/(p.v[1][0]-p.v[1][1])
	case want < p.v[1][len(p.x)-1]:
		return last + (p.v[1][len(p.x)-1]-want)*h/(p.v[1][len(p.x)-2]-p.v[1][len(p.x)-1])
	}
	for range 30 {
		if mid := (lo + hi) / 2; p.at(mid, 0) > want {
			lo = mid
		} else {
			hi = mid
		}
	}
	return (lo + hi) / 2
}

// ForecastCheck is a time that somebody noted compared with what was predicted without it.
type ForecastCheck struct {
	ID        string          `json:"id"`
	At        time.Time       `json:"at"`
	LoggedMin float64         `json:"logged_min"` // min, when the middle bubbled
	Before    float64         `json:"before"`     // min, by the tables
	After     float64         `json:"after"`      // min, by what the other bakes teach
	Low       float64         `json:"low"`        // min, of the 90 % range
	High      float64         `json:"high"`       // min, of the 90 % range
	Odd       bool            `json:"odd"`
	Text      message.Message `json:"text"`
}

// ForecastChecks are the times of the middle's bubbling that were noted, the first bake first.
func (l *Result) ForecastChecks() []ForecastCheck {
	out := []ForecastCheck{}
	for _, p := range l.Predictions {
		if p.LOO == nil || p.middle == nil {
			continue
		}
		r := p.LOO.MiddleBubbles
		f := ForecastCheck{
			ID:        p.ID,
			At:        p.at,
			LoggedMin: *p.middle,
			Before:    p.Before.MiddleBubbles.Value,
			After:     r.Value,
			Low:       r.P05,
			High:      r.P95,
			Odd:       slices.Contains(p.Odd, toldMiddle),
		}
		f.Text = message.New(
			"logged {logged} min, predicted {range} min; with the tables alone {before} min",
			message.Number(f.LoggedMin, 0),
			message.Range(message.Number(f.Low, 0), message.Number(f.High, 0)),
			message.Number(f.Before, 0),
		)
		out = append(out, f)
	}
	return out
}

func (j *judge) total(on enabled, all []Prediction) PredictionScore {
	before, after := j.score(j.told, make(enabled, len(j.all))), j.score(j.told, on)
	s := PredictionScore{
		Bakes:  len(j.told),
		Before: Scored{before.ln, mean(before.minutes), mean(before.steps)},
		After:  Scored{after.ln, mean(after.minutes), mean(after.steps)},
	}
	for _, k := range j.told {
		o := &j.bakes[k]
		s.Answers += len(o.answers)
		for i := range o.answers {
			a := &o.answers[i]
			if !a.minutes() {
				continue
			}
			r := all[k].LOO.MiddleBubbles
			if a.of == toldRim {
				r = all[k].LOO.RimBubbles
			}
			s.Held.Of++
			if a.value >= r.P25 && a.value <= r.P75 {
				s.Held.P50++
			}
			if a.value >= r.P05 && a.value <= r.P95 {
				s.Held.P90++
			}
		}
	}
	return s
}
