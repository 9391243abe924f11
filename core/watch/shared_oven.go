package watch

import (
	"context"
	"math"
	"slices"
	"time"

	"mabbin/core/bake"
	"mabbin/core/message"
)

// InOven is a dessert that shares an oven with others.
type InOven struct {
	Title string
	*Bake
}

// TwoSettings is an oven that is asked to be at two settings at once, by two desserts in it.
type TwoSettings struct {
	From  time.Time       `json:"from"`
	To    time.Time       `json:"to"`
	Text  message.Message `json:"text"`
	OvenC *float64        `json:"oven_c,omitempty"` // that serves both, tried on the model; nil: none does
}

const (
	sameC     = 1.0 // so near, two settings are one
	tryEveryC = 5.0
)

// period is a stage against the clock.
type period struct {
	from, to time.Time
	stage    bake.Stage
}

// periods are the stages in the oven from now on.
func (b *Bake) periods(now time.Time) (out []period) {
	at := b.StartedAt
	for _, s := range b.Stages {
		to := at.Add(minutes(s.Minutes))
		if to.After(now) && s.InOven() {
			out = append(out, period{at, to, s})
		}
		at = to
	}
	return out
}

// AtTwoSettings finds where desserts of one oven ask for two settings at once, from now on, and a temperature that
// serves both. It ends with ctx.
func AtTwoSettings(ctx context.Context, in []InOven, now time.Time) ([]TwoSettings, error) {
	var out []TwoSettings
	for i, a := range in {
		for _, b := range in[i+1:] {
			if !a.OutAt.IsZero() || !b.OutAt.IsZero() {
				continue
			}
			x, y, found := apart(a.periods(now), b.periods(now))
			if !found {
				continue
			}
			t := TwoSettings{From: latest(x.from, y.from, now), To: earlier(x.to, y.to)}
			wants := message.New(
				"{one} needs {heat} and {other} needs {otherHeat} in the same oven",
				message.Text(a.Title), message.OvenHeat(x.stage.OvenC), message.Text(b.Title), message.OvenHeat(y.stage.OvenC),
			)
			c, longer, ok, err := serveBoth(ctx, a, b, now)
			if err != nil {
				return nil, err
			}
			if ok {
				t.OvenC = &c
				t.Text = message.New(
					"{needs}. Both come out right at {heat}: {one} {minutes} min in all, {other} {otherMinutes} min",
					message.Part(wants), message.OvenHeat(c), message.Text(a.Title), message.Number(longer[0], 0),
					message.Text(b.Title), message.Number(longer[1], 0),
				)
			} else {
				t.Text = message.New("{needs}. No temperature suits both: put one in later", message.Part(wants))
			}
			out = append(out, t)
		}
	}
	return out, nil
}

// apart finds the first two stages that overlap and are not of one setting.
func apart(a, b []period) (x, y period, found bool) {
	for _, x := range a {
		for _, y := range b {
			if x.from.Before(y.to) && y.from.Before(x.to) &&
				(math.Abs(x.stage.OvenC-y.stage.OvenC) >= sameC || x.stage.Heating != y.stage.Heating) {
				return x, y, true
			}
		}
	}
	return period{}, period{}, false
}

func latest(all ...time.Time) time.Time { return slices.MaxFunc(all, time.Time.Compare) }

func earlier(a, b time.Time) time.Time {
	if a.Before(b) {
		return a
	}
	return b
}

// serveBoth looks for a temperature at which two desserts comes out right from now on, nearest to what they have; with
// the minutes of each in all.
func serveBoth(ctx context.Context, a, b InOven, now time.Time) (c float64, total [2]float64, ok bool, err error) {
	low, high := math.Inf(1), 0.0
	for _, x := range []InOven{a, b} {
		for _, p := range x.periods(now) {
			low, high = min(low, p.stage.OvenC), max(high, p.stage.OvenC)
		}
	}
	middle := (low + high) / 2
	var all []float64
	for t := tryEveryC * math.Ceil(low/tryEveryC); t <= high; t += tryEveryC {
		all = append(all, t)
	}
	slices.SortFunc(all, func(p, q float64) int {
		if math.Abs(p-middle) < math.Abs(q-middle) {
			return -1
		}
		return 1
	})
	for _, t := range all {
		if err := ctx.Err(); err != nil {
			return 0, total, false, err
		}
		right := true
		for i, x := range []InOven{a, b} {
			q, err := bake.PlanOf(x.AsPredicted())
			if err != nil {
				return 0, total, false, err
			}
			minute, unmet := q.Finish(x.at(t, now), x.Minute(now))
			total[i] = minute
			right = right && len(unmet) == 0
		}
		if right {
			return t, total, true, nil
		}
	}
	return 0, total, false, nil
}

// at is its stages with what is still to come at one temperature.
func (b *Bake) at(c float64, now time.Time) []bake.Stage {
	minute := b.Minute(now)
	out := bake.Elapsed(b.Stages, minute)
	begun := 0.0
	for _, s := range b.Stages {
		begun += s.Minutes
		if begun <= minute {
			continue
		}
		s.Minutes = min(s.Minutes, begun-minute)
		if s.InOven() {
			s.OvenC = c
		}
		out = append(out, s)
	}
	return out
}
