package filling

import (
	"mabbin/core/larder"
	"mabbin/core/message"
)

// Band is how a filling stands on the spoon when it is cold.
type Band string

// The bands, from thin to thick.
const (
	Runny     Band = "runny"
	Saucy     Band = "saucy"
	Spoonable Band = "spoonable"
	Mounds    Band = "mounds"
	Slices    Band = "slices"
	Stodgy    Band = "stodgy"
)

// Bands are all of them, in words.
var Bands = message.Choices{
	message.Choose(Runny, "runny"), message.Choose(Saucy, "saucy"), message.Choose(Spoonable, "spoonable"),
	message.Choose(Mounds, "sets in mounds"), message.Choose(Slices, "slices"), message.Choose(Stodgy, "stodgy"),
}

// Label is the band in words.
func (b Band) Label() message.Message { return Bands.Label(string(b)) }

// Apart is how many bands thicker b is than another; negative where it is thinner.
func (b Band) Apart(than Band) int { return b.index() - than.index() }

func (b Band) index() int {
	for i, x := range Scale {
		if x.Band == b {
			return i
		}
	}
	return 0
}

// Scale is the set scale: each band with the score it ends at. The last one has no end but is drawn to ScaleEnd.
var Scale = []struct {
	Band Band
	UpTo float64
}{{Runny, 1.5}, {Saucy, 3.0}, {Spoonable, 4.4}, {Mounds, 5.6}, {Slices, 8.5}, {Stodgy, ScaleEnd}}

const (
	// ScaleEnd is where the drawn scale ends.
	ScaleEnd = 10.0
	// scoreMost is the highest score that is reported: all above is the same spoonful of paste.
	scoreMost = 99.0
	// leastJuiceG keeps the score finite where there is next to no juice to hold.
	leastJuiceG = 1.0
)

// BandOf is the band of a score. A score on a border is in the thinner band.
func BandOf(score float64) Band { return Scale[bandIndex(score)].Band }

// HotBandOf is the band at oven heat, about one thinner.
func HotBandOf(score float64) Band { return Scale[max(0, bandIndex(score)-1)].Band }

func bandIndex(score float64) int {
	for i, b := range Scale {
		// Runny ends below its border, all others on theirs. The hair's breadth is for solved scores.
		if score <= b.UpTo+1e-9 && (i > 0 || score < b.UpTo) {
			return i
		}
	}
	return len(Scale) - 1
}

// Body is the share of the usual thickening that a filling needs: where fruit rather than juice fills the dish, less.
func (s State) Body() float64 { return min(1, max(0.70, 0.55+0.45*s.JuiceSharePct/40)) }

// Dose is grams of one thickener.
type Dose struct {
	Thickener larder.Thickener
	G         float64
}

// Strength is what a gram of the thickener does in this filling, as grams of cornflour.
func (s State) Strength(t larder.Thickener, longBoil bool) float64 {
	k := t.Strength * t.AcidFactor(s.AcidPct) * (1 - s.LostShare)
	if longBoil {
		k *= t.OverBoil
	}
	return k
}

// Score is the set: grams of working thickener, as cornflour, to 100 g of juice, over the body. Mixed thickeners and
// natural pectin add up.
func (s State) Score(doses []Dose, longBoil bool) float64 {
	sum := s.PectinEqG
	for _, d := range doses {
		sum += d.G * s.Strength(d.Thickener, longBoil)
	}
	return min(scoreMost, 100*sum/max(leastJuiceG, s.JuiceG)/s.Body())
}

// Solve is the grams of t that bring the set to score, in addition to the given doses. Zero where they and the fruit's
// own pectin do that already.
func (s State) Solve(score float64, t larder.Thickener, beside []Dose, longBoil bool) float64 {
	sum := score * max(leastJuiceG, s.JuiceG) * s.Body() / 100
	sum -= s.PectinEqG
	for _, d := range beside {
		sum -= d.G * s.Strength(d.Thickener, longBoil)
	}
	return max(0, sum/s.Strength(t, longBoil))
}
