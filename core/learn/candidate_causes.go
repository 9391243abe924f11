package learn

import (
	"math"

	"mabbin/core/message"
)

// candidateCause is one thing that may have been otherwise, far more than from bake to bake.
type candidateCause struct {
	code     CauseCode
	sd       float64 // C, ln of a factor, minutes, or steps
	driver   int     // -1: not of the bake, but of what was noted
	positive bool    // it can't be less than nothing
	says     func(float64) message.Message
}

// candidateCauses are looked at one at a time. Working figures.
var candidateCauses = []candidateCause{
	{causeOven, 20, byOven, false, func(x float64) message.Message {
		return message.New(
			pick(x, "The oven was about {degrees} cooler than its dial", "The oven was about {degrees} hotter than its dial"),
			message.CelsiusDifference(math.Round(math.Abs(x))),
		)
	}},
	{causeFruit, 0.4, byRelease, false, func(x float64) message.Message {
		return message.New(
			pick(x, "The fruit released about {share} % less juice", "The fruit released about {share} % more juice"), share(x),
		)
	}},
	{causeThickener, 0.7, byThickener, false, func(x float64) message.Message {
		return message.New(pick(
			x,
			"The thickener worked about {share} % less: some of it stayed in the bowl, formed lumps, or is old",
			"The thickener worked about {share} % more: a heaped measure, or a stronger kind",
		), share(x))
	}},
	{causeColour, 0.5, byColour, false, func(x float64) message.Message {
		return message.New(
			pick(x, "The topping browned about {share} % more slowly", "The topping browned about {share} % faster"), share(x),
		)
	}},
	{causeRipeness, 0.6, bySoftness, false, func(x float64) message.Message {
		return message.New(pick(
			x, "The fruit was harder than usual, or cut larger", "The fruit was softer than usual, or cut smaller",
		))
	}},
	{causeDelay, 10, -1, true, func(x float64) message.Message {
		return message.New(
			"The clock started about {n} min early, or the oven was not hot when the dish went in", message.Number(x, 0),
		)
	}},
	{causeWarm, 1, -1, true, func(float64) message.Message {
		return message.New("The juice was judged before it had cooled: juice thickens until it is cold")
	}},
}

func pick(x float64, below, above string) string {
	if x < 0 {
		return below
	}
	return above
}

// share is how much a factor is off, %, of its logarithm.
func share(ln float64) message.Arg { return message.Number(100*math.Abs(math.Expm1(ln)), 0) }
