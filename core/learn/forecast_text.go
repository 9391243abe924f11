package learn

import (
	"math"
	"slices"

	"mabbin/core/bake"
	"mabbin/core/message"
)

// DessertForecast is what is predicted of a dessert, in words.
type DessertForecast struct {
	Middle message.Message `json:"middle"` // when its middle bubbles
	Cold   message.Message `json:"cold"`   // how its juice stands
	Top    message.Message `json:"top,omitzero"`
	// Likely is how likely it is that a dessert which is right by its verdict comes out so; zero where that is likely
	// enough to go without saying.
	Likely message.Message `json:"likely,omitzero"`
	// TopSpread is how its top may come out, from pale to burnt; empty: bare.
	TopSpread []Shade         `json:"top_spread,omitempty"`
	Basis     message.Message `json:"basis"`        // what the ranges are from
	Ask       message.Message `json:"ask,omitzero"` // what would narrow them most; zero: nothing would by much
	Forecast  Forecast        `json:"forecast"`
}

// Shade is one colour that a top may have.
type Shade struct {
	Word   message.Message `json:"word"`
	Chance float64         `json:"chance"` // 0 to 1
	Colour string          `json:"colour"` // of the crust, sRGB
}

// Of puts a forecast into words; bakes is how many it was learnt from, probed that a probe has reported of it already.
func (f *Forecast) Of(bakes int, probed bool) DessertForecast {
	out := DessertForecast{
		Middle: message.New("{range} min", message.Range(
			message.Number(math.Floor(f.MiddleBubbles.P05), 0), message.Number(math.Ceil(f.MiddleBubbles.P95), 0))),
		Cold:     f.ComesOut.Juice.likeliest(bake.JuiceWords),
		Forecast: *f,
	}
	if f.Right < surelyRight {
		out.Likely = message.New("about {n} % likely",
			message.Number(100*likelyStep*math.Floor(max(likelyStep, f.Right)/likelyStep), 0))
	}
	if top := f.ComesOut.Top; top != nil {
		out.Top = top.likeliest(bake.TopWords)
		for i, w := range bake.TopWords {
			out.TopSpread = append(out.TopSpread, Shade{message.Value(message.Word(w)), top.P[i], bake.TopColours[i]})
		}
	}
	known := bakes >= fewestBakes
	switch {
	case probed && known:
		out.Basis = message.New("90 % range, from the probe and the {n} bakes in your log.", message.Count(bakes))
	case probed:
		out.Basis = message.New("90 % range, from the probe.")
	case known:
		out.Basis = message.New("90 % range, from the {n} bakes in your log.", message.Count(bakes))
	default:
		out.Basis = message.New("90 % range of kitchens in general: your own log has too few bakes yet.")
	}
	return out
}

// A verdict is shown with its likelihood below the first of these, in steps of the second.
const (
	surelyRight = 0.9
	likelyStep  = 0.05
)

// said is the chance from which a word is reported of.
const said = 0.15

// likeliest returns the words that may come, the likeliest first, with their chances in steps of 10 %. Where it leads
// with another word than the one with the highest chance, it adds how far that may be off.
func (c *Chances) likeliest(scale []string) message.Message {
	if best := slices.Index(c.P, slices.Max(c.P)); scale[best] != c.Word {
		var others []message.Message
		for i, p := range c.P {
			if p >= said && scale[i] != c.Word {
				others = append(others, message.New(scale[i]))
			}
		}
		return message.New("{word}, but perhaps {others}", message.Word(c.Word), message.Or(others...))
	}
	order := make([]int, len(c.P))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int {
		if c.P[a] > c.P[b] {
			return -1
		}
		return 1
	})
	var all []message.Message
	for k, i := range order {
		if k > 0 && c.P[i] < said {
			break
		}
		all = append(all, message.New("{word} ({n} %)", message.Word(scale[i]),
			message.Number(10*min(9, max(1, math.Round(10*c.P[i]))), 0)))
	}
	return message.Join(", ", all...)
}
