package bake

import "mabbin/core/filling"

// Words are how a dessert came out, in the words of the log. Empty is not told, or there is nothing to tell.
type Words struct {
	Juice      string `json:"juice,omitempty"`
	Fruit      string `json:"fruit,omitempty"`
	Top        string `json:"top,omitempty"`
	Base       string `json:"base,omitempty"`
	BoiledOver *bool  `json:"boiled_over,omitempty"`
}

// The words of a scale from little to much.
var (
	JuiceWords = []string{"runny", "saucy", "spoonable", "mounds", "slices", "stodgy"}
	FruitWords = []string{"hard", "bite", "tender", "mush"}
	TopWords   = []string{"pale", "golden", "dark", "burnt"}
	BaseWords  = []string{"raw", "soft", "crisp", "burnt"}
)

// Where one word ends and the next begins, by the clocks. Working figures, beside those of a plan.
const (
	hardBelow  = 0.6 // of the minutes until it is tender
	burntTop   = 2.2
	rawBelow   = 0.5 // of a baked base
	overflowMM = 0.0 // headspace while it boils
)

// Expected puts a bake on paper into the words that a baker is asked for afterwards.
func (a *DessertAnswer) Expected() Words {
	e := a.Plan.Answer.End
	w := Words{
		Juice: string(filling.BandOf(a.Balance.Set.Score * e.SetShare)),
		Fruit: wordAt(FruitWords, e.FruitMinutes, hardBelow*a.Tender, a.Tender, a.Mush),
		Top:   wordAt(TopWords, e.Colour, paleBelow, darkOver, burntTop),
	}
	if a.Bake.Base != nil {
		w.Base = wordAt(BaseWords, e.Base, rawBelow, bakedFrom, burntOver)
	}
	over := a.Balance.Fit.HotHeadspaceMM < overflowMM
	w.BoiledOver = &over
	return w
}

// wordAt is the word of a figure: each but the last ends at a border.
func wordAt(words []string, x float64, borders ...float64) string {
	for i, b := range borders {
		if x < b {
			return words[i]
		}
	}
	return words[len(words)-1]
}
