package learn

import (
	"math"

	"mabbin/core/bake"
	"mabbin/core/message"
)

// question is something that could be reported of a bake.
type question struct {
	answers []answer
	trouble float64 // that it makes, to that of a word
	asks    message.Message
}

// questions are what could be reported of a bake.
func (v *outlook) questions() []question {
	word := func(of string, scale []string, sd float64, asks string) question {
		return question{[]answer{{of: of, scale: scale, sd: sd}}, 1, message.New(asks)}
	}
	out := []question{}
	if v.surface.dose != "" {
		out = append(out, word(toldJuice, bake.JuiceWords, wordSD, "log how thick the juice was when cold"))
	}
	if v.surface.topping != "" {
		out = append(out, word(toldTop, bake.TopWords, wordSD, "log the colour of the top"))
	}
	probe := question{nil, troubleProbe, message.New("use a probe in the middle while it bakes")}
	for _, c := range bake.CrossedC {
		probe.answers = append(probe.answers, answer{of: toldReadings, c: c})
	}
	return append(out,
		question{[]answer{{of: toldMiddle}}, troubleNoting, message.New("note when the middle begins to bubble")},
		question{
			[]answer{{of: toldWeight}}, troubleScale, message.New("weigh it before and after baking"),
		},
		probe)
}

// ask is what would narrow most how the next such bake is predicted; zero: nothing would by much.
func (v *outlook) ask() message.Message {
	before := v.unsure()
	if before < surelyKnown {
		return message.Message{}
	}
	best, least := message.Message{}, narrowsFrom
	for _, q := range v.questions() {
		told := v.knowing(q.answers)
		if gain := (before - told.unsure()) / before / q.trouble; gain > least {
			best, least = q.asks, gain
		}
	}
	return best
}

// knowing is what would be thought when that had been reported, whatever it was.
func (v *outlook) knowing(told []answer) outlook {
	o := *v.observed
	o.answers = told
	out := outlook{observed: &o, params: v.params, mean: append([]float64(nil), v.mean...), own: v.own, cov: v.cov}
	y, slopes := out.slopes(out.drivers(out.mean, out.own))
	shares := out.shares(out.mean)
	for i := range told {
		a := &told[i]
		if a.of == toldWeight {
			a.value = y[i]
		}
		err := a.error(y[i])
		out.observe(out.by(slopes[i], shares), 0, err*err)
	}
	return out
}

// unsure is how unsure the next such bake is, by what the parameters leave it: minutes, juice and top, each to what
// matters of it.
func (v *outlook) unsure() (sum float64) {
	o := *v.observed
	o.answers = []answer{{of: toldMiddle}, {of: toldJuice}, {of: toldTop}}
	x := outlook{observed: &o, params: v.params, mean: v.mean, own: v.own, cov: v.cov}
	_, slopes := x.slopes(x.drivers(x.mean, x.own))
	shares := x.shares(x.mean)
	for i := range o.answers {
		if o.answers[i].of == toldTop && o.surface.topping == "" || o.answers[i].of == toldJuice && o.surface.dose == "" {
			continue
		}
		by := x.by(slopes[i], shares)
		clear(by[len(x.params):]) // its own deviations no other bake has
		matters := wordSD
		if o.answers[i].of == toldMiddle {
			matters = middleSD
		}
		sum += math.Min(x.cov.quadratic(by)/(matters*matters), 100)
	}
	return sum
}
