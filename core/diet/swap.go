package diet

import (
	"bytes"
	_ "embed"
	"encoding/csv"

	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// swap is one remedy for an ingredient.
type swap struct {
	from  string
	to    []larder.Part // Pct is grams for each gram
	costs message.Message
}

//go:embed data/swaps.csv
var swapsCSV []byte

// swaps are parsed once. The table is part of the program: its test looks at every row.
var swaps = func() []swap {
	rows, err := csv.NewReader(bytes.NewReader(swapsCSV)).ReadAll()
	if err != nil {
		panic("diet: swaps: " + err.Error())
	}
	out := make([]swap, 0, len(rows))
	for _, r := range rows[1:] {
		to, err := larder.ParseParts(r[1])
		if err != nil {
			panic("diet: swaps: " + err.Error())
		}
		out = append(out, swap{r[0], to, message.New(r[2])})
	}
	return out
}()

// Swap is one remedy for an ingredient, as it is offered.
type Swap struct {
	Index int             `json:"index"`
	From  string          `json:"from"` // key
	To    message.Message `json:"to"`   // in words
	Costs message.Message `json:"costs"`
}

// Swaps lists every swap, in the order of the table.
func Swaps() []Swap {
	out := make([]Swap, len(swaps))
	c := changing{}
	for n, s := range swaps {
		out[n] = Swap{n, s.from, c.words(s), s.costs}
	}
	return out
}

// SwapRequest puts one swap into a dessert's topping.
type SwapRequest struct {
	Request balance.Request `json:"request"`
	Index   int             `json:"index"`
}

// CheckSwap finds every wrong field.
func CheckSwap(q SwapRequest) error {
	var f fault.Faults
	f.Range("/index", float64(q.Index), 0, float64(len(swaps)-1), "")
	f.Under("/request", balance.Check(q.Request))
	return f.Err()
}

// Swapped is a dessert with one ingredient of its topping swapped, by what the two do: water and fat are kept.
func Swapped(q SwapRequest) (balance.Request, error) {
	if err := CheckSwap(q); err != nil {
		return balance.Request{}, err
	}
	s := swaps[q.Index]
	c := changing{q: Request{Request: q.Request}, p: &Proposal{Request: q.Request}, only: &s}
	r := q.Request
	r.Topping = c.dough("topping", r.Topping)
	return r, balance.Check(r)
}
