package sell

import (
	"math"
	"slices"

	"mabbin/core/message"
)

// Sold is what was sold of a dessert on one day, in portions.
type Sold struct {
	WeeksAgo float64
	Made     int
	Left     int // 0: sold out, so that more may have been wanted
}

// HowMany is how many portions to make next time, by what was sold on this weekday.
type HowMany struct {
	Make   int             `json:"make"`
	Median int             `json:"median"`
	Low    int             `json:"low"` // 8 in 10 days lie between low and high
	High   int             `json:"high"`
	Days   int             `json:"days"`
	Guess  bool            `json:"guess"` // too few days to tell
	Text   message.Message `json:"text"`
}

// How what was sold is learnt from. Working figures.
const (
	lastDays      = 8
	halfLifeWeeks = 4.0
	fewDays       = 4
	lowShare      = 0.1
	usualShare    = 0.3 // of a portion's price are its ingredients: what is left over costs that, what is missed the rest
	mostPortions  = 2000
)

// spreads are how far days may differ, each with how likely it is beforehand: from a weather-beaten stall to a steady
// counter.
var spreads = []struct{ spread, likely float64 }{{3, 0.05}, {8, 0.2}, {20, 0.35}, {80, 0.4}}

const meanSteps, meanReach, meanPriorSD = 61, 4.0, 0.7

// Propose weighs demands for a dessert by what was sold on a weekday, the newest days most: a negative binomial whose
// mean and spread are not known. A day on which all was sold tells that at least so much was wanted. The number made
// balances what a missed portion would have earned against what one left over costs; price and cost are of a portion,
// in any unit, 0: as usual. Days are reported in any order.
func Propose(days []Sold, price, cost float64) (HowMany, bool) {
	days = slices.Clone(days)
	slices.SortStableFunc(days, func(a, b Sold) int { return int(math.Copysign(1, a.WeeksAgo-b.WeeksAgo)) })
	days = slices.DeleteFunc(days, func(d Sold) bool { return d.Made <= 0 })
	days = days[:min(len(days), lastDays)]
	if len(days) == 0 {
		return HowMany{}, false
	}
	chances := demand(days)
	at := func(share float64) int {
		sum := 0.0
		for n, p := range chances {
			if sum += p; sum >= share {
				return n
			}
		}
		return len(chances) - 1
	}
	if price <= 0 || cost < 0 || cost >= price {
		price, cost = 1, usualShare
	}
	out := HowMany{
		Make: at((price - cost) / price), Median: at(0.5), Low: at(lowShare), High: at(1 - lowShare), Days: len(days),
		Guess: len(days) < fewDays,
	}
	low, high := message.Count(out.Low), message.Count(out.High)
	if out.Guess {
		out.Text = message.New("Make {make}: a rough estimate from {days} {day}; demand may be between {low} and {high}.",
			message.Count(out.Make), message.Count(out.Days), message.Word(plural(out.Days)), low, high)
		return out, true
	}
	loses := "a missed sale costs more than a portion left over"
	if out.Make <= out.Median {
		loses = "a portion left over costs more than a missed sale"
	}
	out.Text = message.New(
		"Make {make}. On half of such days demand is {median} or fewer, on 80 % between {low} and {high}; {loses}.",
		message.Count(out.Make), message.Count(out.Median), low, high, message.Word(loses),
	)
	return out, true
}

func plural(n int) string {
	if n == 1 {
		return "day"
	}
	return "days"
}

// demand is how likely each number of portions is to be wanted.
func demand(days []Sold) []float64 {
	made, most := 0.0, 0
	for _, d := range days {
		made += float64(d.Made) / float64(len(days))
		most = max(most, d.Made)
	}
	size := min(mostPortions, 6*most+30)
	out := make([]float64, size)
	total := 0.0
	for i := range meanSteps {
		off := (2*float64(i)/(meanSteps-1) - 1) * math.Log(meanReach)
		mean := made * math.Exp(off)
		for _, s := range spreads {
			p := negativeBinomial(mean, s.spread, size)
			weight := s.likely * math.Exp(-off*off/(2*meanPriorSD*meanPriorSD))
			for _, d := range days {
				weight *= math.Pow(likely(p, d), math.Exp2(-d.WeeksAgo/halfLifeWeeks))
			}
			total += weight
			for n := range out {
				out[n] += weight * p[n]
			}
		}
	}
	for n := range out {
		out[n] /= total
	}
	return out
}

// likely is how likely a day's sales are; where all was sold, at least so much was wanted.
func likely(p []float64, d Sold) float64 {
	sold := min(max(0, d.Made-d.Left), len(p)-1)
	if d.Left > 0 {
		return max(p[sold], 1e-12)
	}
	sum := 1.0
	for _, x := range p[:sold] {
		sum -= x
	}
	return max(sum, 1e-12)
}

// negativeBinomial is the chance of each count up to size-1, by its mean and spread: a large spread is Poisson.
func negativeBinomial(mean, spread float64, size int) []float64 {
	p := make([]float64, size)
	q := mean / (mean + spread)
	p[0] = math.Pow(1-q, spread)
	for n := 1; n < size; n++ {
		p[n] = p[n-1] * q * (float64(n-1) + spread) / float64(n)
	}
	return p
}

// SalesWeeks is how many weeks of sales of a weekday are used. Working figure: half a year, so that a season is in it.
const SalesWeeks = 26
