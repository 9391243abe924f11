package balance

import "mabbin/core/message"

// UseFor is what becomes of prepared fruit that is left over.
func UseFor(g float64) message.Message {
	for _, u := range leftOver {
		if g < u.under {
			return u.use
		}
	}
	return leftOver[len(leftOver)-1].use
}

// leftOver are the uses of left-over fruit, by what there is of it, in g.
var leftOver = []struct {
	under float64
	use   message.Message
}{
	{5, message.Message{}},
	{60, message.New("a snack, or for porridge")},
	{200, message.New("stew it with a spoon of sugar: a sauce for reheated portions")},
	{600, message.New("toss it with a tenth of its weight in sugar and freeze it flat for the next dessert")},
	{
		1e9,
		message.New("enough for another dish: bake that too, or freeze the fruit flat with a tenth of its weight in sugar"),
	},
}
