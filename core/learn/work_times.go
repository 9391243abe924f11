package learn

import (
	"math"
	"slices"

	"mabbin/core/day"
	"mabbin/core/message"
)

const (
	handsSD    = 0.40 // of the logarithm of took over planned, before anything is known
	handsError = 0.30 // of one time, the scale of Student's t
	handsFar   = 1.25 // of a logarithm: what is further off was ticked off at another time than it was done
)

// WorkTimeEstimate is what the days have reported of one kind of task.
type WorkTimeEstimate struct {
	Kind   string
	Factor float64 // on the working minutes
	SD     float64 // of its logarithm
	Times  int
	Used   bool // it predicts times that it did not see better, and is more than its own uncertainty
}

// EstimateWorkTimes is what the times that were reported teach of each kind of task, by its kind.
func EstimateWorkTimes(told []day.ActualTime) []WorkTimeEstimate {
	by := map[string][]float64{}
	for _, t := range told {
		if x := math.Log(float64(t.Actual) / float64(t.Planned)); math.Abs(x) <= handsFar {
			by[t.Kind] = append(by[t.Kind], x)
		}
	}
	out := []WorkTimeEstimate{}
	for kind, seen := range by {
		at, variance := handsOf(seen)
		h := WorkTimeEstimate{Kind: kind, Factor: math.Exp(at), SD: math.Sqrt(variance), Times: len(seen)}
		gain := 0.0
		for i, x := range seen {
			others := slices.Delete(slices.Clone(seen), i, i+1)
			m, v := handsOf(others)
			gain += lnHands(x-m, v) - lnHands(x, handsSD*handsSD)
		}
		h.Used = len(seen) >= fewestBakes && gain > 0 && math.Abs(at) >= standsFrom*h.SD
		out = append(out, h)
	}
	slices.SortFunc(out, func(a, b WorkTimeEstimate) int {
		if a.Kind < b.Kind {
			return -1
		}
		return 1
	})
	return out
}

// handsOf is the likeliest logarithm behind some, and its variance: Student's errors, by reweighting.
func handsOf(seen []float64) (at, variance float64) {
	for range rounds {
		weights, sum := 1/(handsSD*handsSD), 0.0
		for _, x := range seen {
			z := (x - at) / handsError
			w := (studentDF + 1) / (studentDF + z*z) / (handsError * handsError)
			weights, sum = weights+w, sum+w*x
		}
		at, variance = sum/weights, 1/weights
	}
	return at, variance
}

// lnHands is the log density of a time that is so far off, where its mean is unsure.
func lnHands(off, variance float64) float64 {
	s := math.Sqrt(handsError*handsError + variance)
	return lnStudent(off/s) - math.Log(s)
}

// Finding is what the days teach of a kind of task, in a sentence; off: it is switched off by hand.
func (h WorkTimeEstimate) Finding(off bool) Finding {
	of := message.Value(message.Word(day.TaskName(h.Kind)))
	l := Finding{ParameterName: ParameterName{WorkTime, h.Kind}, Of: of, Bakes: h.Times, State: StateAgrees}
	switch {
	case off:
		l.State = StateOff
	case h.Times < fewestBakes:
		l.State = StateFew
		l.Text = message.New("{n} logged: too few for a result.", message.Count(h.Times))
		return l
	case h.Used:
		l.State = StateUsed
	default:
		l.Text = message.New("{n} times, in agreement with the working figures.", message.Count(h.Times))
		return l
	}
	by := h.Factor - 1
	l.Text = message.New(
		pick(
			by,
			"“{Of}” takes {by} % (±{sd} %) less time here than the working figure, from {n} times.",
			"“{Of}” takes {by} % (±{sd} %) more time here than the working figure, from {n} times.",
		),
		message.Part(of), message.Number(100*math.Abs(by), 0), message.Number(100*h.SD, 0), message.Count(h.Times),
	)
	return l
}
