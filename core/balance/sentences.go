package balance

import (
	"math"
	"slices"

	"mabbin/core/larder"
	"mabbin/core/message"
)

// What is too little to tell, g or times.
const (
	leastLeftG    = 5.0
	leastUnsureG  = 10.0
	leastFaster   = 1.01
	usualFillPct  = 99.9
	farOffPct     = 10.0 // of a naive factor
	unsurePercent = 100 * volumeUnsure
)

// describe is what to buy of one fruit.
func (b Purchase) describe(to *message.Book) message.Message {
	buy := to.New("Buy {much} {fruit}", message.Grams(b.G), larder.Called(b.Name))
	if b.Count > 0 {
		buy = to.Join(", ", buy, to.New("{n} {size}", message.Number(b.Count, 0), message.Word(b.Size)))
	}
	over := message.Message{}
	if b.LeftOverG >= leastLeftG {
		over = to.New("{much} left over (prepared): {use}", message.Grams(b.LeftOverG), to.Part(b.Use))
	}
	return to.New("{what}.", to.Part(to.Join("; ", buy, over)))
}

// uncertaintyText is how far the fruit may be off because the dish was never filled with water; empty where that is
// little.
func uncertaintyText(g float64) message.Message {
	if g < leastUnsureG {
		return message.Message{}
	}
	return message.New(
		"Computed from its sizes, the volume of the dish is known to ±{share} % (±{much} of fruit). Weigh it full of water once for an exact figure.",
		message.Number(unsurePercent, 0),
		message.Grams(g),
	)
}

// browningText is how much faster the finishes make the top brown; empty where they do not.
func browningText(factor float64) message.Message {
	if factor <= leastFaster {
		return message.Message{}
	}
	return message.New(
		"The top browns {times} × as fast: cover it earlier or use a lower shelf.",
		message.Number(factor, 1),
	)
}

// leftText is what becomes of the card's fruit in other dishes.
func (o *OtherAnswer) leftText() message.Message {
	switch {
	case o.LeftG >= leastLeftG:
		return message.New("{much} of the prepared fruit is left: {use}.", message.Grams(o.LeftG), message.Part(o.LeftUse))
	case o.LeftG <= -leastLeftG:
		return message.New("It needs {much} more prepared fruit than the card.", message.Grams(-o.LeftG))
	}
	return message.New("The fruit fits exactly.")
}

// describe is what a way to begin comes to; forPortions and fromFruit are what it was begun from.
func (o Option) describe(forPortions, fromFruit bool) message.Message {
	head := message.New(
		"{n} portions of {each}, {fruit} fruit",
		message.Number(math.Round(o.Portions), 0),
		message.Grams(o.EachG),
		message.Grams(o.FruitG),
	)
	if forPortions {
		head = message.New("{what}: buy {much}", message.Part(head), message.Grams(o.BuyG))
	}
	if !o.usualFill() {
		head = message.New("{what}, filled to {share} % of the usual", message.Part(head), message.Number(o.FillPct, 0))
	}
	left := message.Message{}
	switch {
	case o.LeftG >= leastLeftG:
		left = message.New("{much} left over: {use}.", message.Grams(o.LeftG), message.Part(o.LeftUse))
	case fromFruit:
		left = message.New("Nothing left over.")
	}
	return message.Sentences(message.New("{what}.", message.Part(head)), left)
}

func (o Option) usualFill() bool { return o.FillPct >= usualFillPct }

// MadeOf is what a dessert is, in a few words: its style and its fruit.
func (r Request) MadeOf() message.Message {
	return message.New("{style} · {fruits}", message.Word(r.Style), message.Part(r.FruitNames()))
}

// FruitNames are the fruits, each once.
func (r Request) FruitNames() message.Message {
	all := make([]message.Message, 0, len(r.Fruits))
	for _, f := range r.Fruits {
		row, _ := r.Own.Fruit(f.Key)
		if name := message.Value(larder.Called(row.Name)); !slices.ContainsFunc(all, name.Equal) {
			all = append(all, name)
		}
	}
	return message.Join(", ", all...)
}

// Brief is an answer in a few words.
func (a *Answer) Brief() message.Message {
	portions := message.New("{n} portions", message.Number(a.Portions.Count, 1))
	if a.Portions.Count == 1 {
		portions = message.New("1 portion")
	}
	return message.New(
		"{g} fruit, {band}, {portions}",
		message.Grams(a.FruitG), message.Part(a.Set.Band.Label()), message.Part(portions),
	)
}

// Weighed is what goes into a dessert, and how it stands.
func (a *Answer) Weighed() message.Message {
	return message.New(
		"{fruit} fruit, {sugar} sugar, {thickener} thickener, {topping} topping: {band}",
		message.Grams(a.FruitG), message.Grams(a.SugarG), message.Grams(a.ThickenerG), message.Grams(a.ToppingG),
		message.Part(a.Set.Band.Label()),
	)
}
