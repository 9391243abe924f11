package sell

import (
	"math"
	"slices"

	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// UseUpRequest is something that must go, and a dessert that has it in.
type UseUpRequest struct {
	Request balance.Request
	Dishes  []balance.StartDish // with how many there are of each
	Key     string
	G       float64 // of it, as it was bought
	Own     *larder.Own
}

// UseUp is a batch of the dessert that uses it up, each dish balanced for itself.
type UseUp struct {
	Dishes []CrowdDish     `json:"dishes"`
	UsesG  float64         `json:"uses_g"` // as it was bought
	LeftG  float64         `json:"left_g"`
	Text   message.Message `json:"text"`

	// Trouble is how good a way it is, to put several in order: what is left over, with a share for each dish and kind
	// of dish; less is better.
	Trouble float64 `json:"-"`
}

// useUpSteps is how finely what must go is divided among dishes.
const useUpSteps = 500

// aDish is how much of what must go another dish, or another kind of them, has to use up to be worth its trouble. A
// working figure.
const aDish = 0.03

// UseUpWith finds the dishes that use it up: as much of it as is worth their number. It is nil where the dessert has
// none of it in, or too much even in the smallest dish. A bad request is fault.Faults.
func UseUpWith(q UseUpRequest) (*UseUp, error) {
	var f fault.Faults
	if f.Range("/g", q.G, 0.1, 1e6, "g"); f.Err() != nil {
		return nil, f.Err()
	}
	in, err := balance.Other(balance.OtherRequest{Request: q.Request, Dishes: q.Dishes})
	if err != nil {
		return nil, err
	}
	step := q.G / useUpSteps
	uses, there := make([]float64, len(in.Dishes)), make([]int, len(in.Dishes))
	best := make([][]int, useUpSteps+1) // how many of each dish, by the steps that they use
	best[0] = make([]int, len(in.Dishes))
	for i := range in.Dishes {
		d := &in.Dishes[i]
		uses[i], there[i] = needOf(q.Key, d.Request, &d.Answer, q.Own), max(1, q.Dishes[i].Count)
		takes := int(math.Ceil(uses[i]/step - 1e-9))
		if uses[i] <= 0 || takes > useUpSteps {
			continue
		}
		for range there[i] {
			for k := useUpSteps; k >= takes; k-- {
				from := best[k-takes]
				if from == nil || from[i] >= there[i] || best[k] != nil && total(best[k]) <= total(from)+1 {
					continue
				}
				best[k] = slices.Clone(from)
				best[k][i]++
			}
		}
	}
	most, least := 0, math.Inf(1)
	for k, of := range best {
		if k == 0 || of == nil {
			continue
		}
		kinds := len(of) - len(slices.DeleteFunc(slices.Clone(of), func(n int) bool { return n > 0 }))
		if x := float64(useUpSteps-k)/useUpSteps + aDish*float64(total(of)+kinds); x < least {
			most, least = k, x
		}
	}
	if most == 0 {
		return nil, nil
	}
	out := &UseUp{Dishes: []CrowdDish{}, Trouble: least}
	var dishes []message.Message
	for i, n := range best[most] {
		if n > 0 {
			d := in.Dishes[i]
			out.Dishes = append(out.Dishes, CrowdDish{d.ID, d.Name, n, int(math.Floor(d.Answer.Portions.Count + 1e-9))})
			out.UsesG += float64(n) * uses[i]
			dishes = append(dishes, message.New("{n} × {dish}", message.Count(n), message.Text(d.Name)))
		}
	}
	out.LeftG = max(0, q.G-out.UsesG)
	much := func(g float64) message.Arg { return amountOf(q.Key, g, q.Own) }
	if out.LeftG < worthLeftG/2 && out.LeftG < q.G/20 {
		out.Text = message.New("{dishes}: uses all of it.", message.And(dishes...))
	} else {
		out.Text = message.New(
			"{dishes}: uses {uses}, {left} left over.",
			message.And(dishes...),
			much(out.UsesG),
			much(out.LeftG),
		)
	}
	return out, nil
}

func total(counts []int) (sum int) {
	for _, n := range counts {
		sum += n
	}
	return sum
}

// needOf is how much of something a dessert takes, as it is bought.
func needOf(key string, r balance.Request, a *balance.Answer, own *larder.Own) (g float64) {
	for _, l := range Needs(r, a, 1) {
		if l.Key == key {
			g += l.bought(own)
		}
	}
	return g
}

// amountOf is how much of a thing it is: eggs by the piece, to a half.
func amountOf(key string, g float64, own *larder.Own) message.Arg {
	if i, ok := own.Ingredient(key); ok && i.Role == "egg" && i.PieceG > 0 {
		return message.Part(message.New("{n} eggs", message.Number(math.Round(2*g/i.PieceG)/2, 1)))
	}
	return message.Grams(g)
}
