package sell

import (
	"fmt"
	"math"
	"slices"

	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/core/oven"
	"mabbin/core/topping"
)

// CrowdRequest is a dessert for so many portions, in the dishes that there are.
type CrowdRequest struct {
	Request    balance.Request     `json:"request"`
	Dishes     []balance.StartDish `json:"dishes"` // with how many there are of each
	Portions   int                 `json:"portions"`
	ReservePct *float64            `json:"reserve_pct,omitempty"` // nil: 5
	MixG       float64             `json:"mix_g,omitempty"`       // the most topping that is mixed at once; 0: any amount
	BowlML     float64             `json:"bowl_ml,omitempty"`     // of the bowl that it is mixed in; 0: unknown
	// Tiers are those of the ovens, all of them; none: not reported.
	Tiers []CrowdTier `json:"tiers,omitempty"`
}

// CrowdTier is how much room there is on a tier of an oven.
type CrowdTier struct {
	WidthCM float64 `json:"width_cm"`
	DepthCM float64 `json:"depth_cm"`
}

// Crowd is which dishes to take, and how the rest of it goes.
type Crowd struct {
	Dishes   []CrowdDish       `json:"dishes"`
	Portions int               `json:"portions"` // that these dishes give
	Spare    int               `json:"spare"`    // beyond what is wanted
	Missing  int               `json:"missing"`  // where all dishes together are too few
	FruitG   float64           `json:"fruit_g"`
	ToppingG float64           `json:"topping_g"`
	Mixes    int               `json:"mixes"`
	Loads    int               `json:"loads"` // of the ovens, one after another; 0: unknown
	Text     []message.Message `json:"text"`
}

// CrowdDish is one of the dishes, so many times.
type CrowdDish struct {
	ID       string `json:"id"`
	Name     string `json:"name"`
	Count    int    `json:"count"`
	Portions int    `json:"portions"` // of one
}

// What a crowd is calculated with. Working figures.
const (
	crowdReservePct = 5.0
	mostCrowd       = 2000
	mostTiers       = 60
	hotC            = 63.0 // 57 or 60 by other codes
	hotHours        = 2
	carriedColdC    = 8.0
)

// CheckCrowd finds every wrong field.
func CheckCrowd(q CrowdRequest) error {
	var f fault.Faults
	f.Range("/portions", float64(q.Portions), 1, mostCrowd, "")
	if q.ReservePct != nil {
		f.Range("/reserve_pct", *q.ReservePct, 0, 100, "%")
	}
	if q.MixG != 0 {
		f.Range("/mix_g", q.MixG, 100, 1e5, "g")
	}
	if q.BowlML != 0 {
		f.Range("/bowl_ml", q.BowlML, 200, 2e5, "ml")
	}
	if !f.Length("", "/tiers", len(q.Tiers), 0, mostTiers) {
		return f.Err()
	}
	for i, t := range q.Tiers {
		at := fmt.Sprintf("/tiers/%d", i)
		f.RangeAt(at, "/width_cm", t.WidthCM, 10, 200, "cm")
		f.RangeAt(at, "/depth_cm", t.DepthCM, 10, 200, "cm")
	}
	f.Under("", balance.CheckOther(balance.OtherRequest{Request: q.Request, Dishes: q.Dishes}))
	return f.Err()
}

// ForCrowd chooses the fewest dishes whose portions are enough, and of those the ones that leave least over; of what
// each holds, by the balance in that dish.
func ForCrowd(q CrowdRequest) (*Crowd, error) {
	if err := CheckCrowd(q); err != nil {
		return nil, err
	}
	in, err := balance.Other(balance.OtherRequest{Request: q.Request, Dishes: q.Dishes})
	if err != nil {
		return nil, err
	}
	reserve := crowdReservePct
	if q.ReservePct != nil {
		reserve = *q.ReservePct
	}
	need := int(math.Ceil(float64(q.Portions)*(1+reserve/100) - 1e-9))
	each, there := make([]int, len(in.Dishes)), make([]int, len(in.Dishes))
	for i, d := range in.Dishes {
		each[i], there[i] = int(math.Floor(d.Answer.Portions.Count+1e-9)), max(1, q.Dishes[i].Count)
	}
	out := &Crowd{Dishes: []CrowdDish{}, Text: []message.Message{}}
	for i, n := range fewest(each, there, need) {
		if n == 0 {
			continue
		}
		d := in.Dishes[i]
		out.Dishes = append(out.Dishes, CrowdDish{d.ID, d.Name, n, each[i]})
		out.Portions += n * each[i]
		out.FruitG += float64(n) * d.Answer.FruitG
		out.ToppingG += float64(n) * d.Answer.ToppingG
	}
	out.Spare, out.Missing = max(0, out.Portions-q.Portions), max(0, q.Portions-out.Portions)
	out.Mixes = 1
	t, _ := q.Request.Own.Topping(q.Request.Topping.Key)
	if most := topping.MostMixG(q.MixG, q.BowlML, t.DensityGPerML); most > 0 {
		out.Mixes = max(1, int(math.Ceil(out.ToppingG/most-1e-9)))
	}
	out.loads(q)
	out.describe(q)
	return out, nil
}

// loads is how often the ovens are filled: dishes that take a third of a load leave room for two thirds of others.
func (c *Crowd) loads(q CrowdRequest) {
	share := 0.0
	for _, d := range c.Dishes {
		i := slices.IndexFunc(q.Dishes, func(x balance.StartDish) bool { return x.ID == d.ID })
		length, width := q.Dishes[i].Dish.Outside()
		room := 0
		for _, t := range q.Tiers {
			room += oven.Fit(t.WidthCM, t.DepthCM, length, width)
		}
		if room == 0 {
			return // one stands in no oven: nothing is said of loads
		}
		share += float64(d.Count) / float64(room)
	}
	c.Loads = int(math.Ceil(share - 1e-9))
}

// fewest is how many of each dish reach a number of portions: the fewest dishes, then the least left over. Where all of
// them do not reach it, it is all of them.
func fewest(each, there []int, need int) []int {
	all, most := 0, 0
	for i := range each {
		all += each[i] * there[i]
		most = max(most, each[i])
	}
	if all < need {
		return there
	}
	const none = math.MaxInt32
	size := need + most + 1
	dishes := make([]int, size) // to reach exactly so many portions
	chosen := make([][]int, size)
	for k := range dishes {
		dishes[k] = none
	}
	dishes[0], chosen[0] = 0, make([]int, len(each))
	for i := range each {
		for range min(there[i], need) {
			for k := size - 1; k >= each[i] && each[i] > 0; k-- {
				from := k - each[i]
				if dishes[from] != none && chosen[from][i] < there[i] && dishes[from]+1 < dishes[k] {
					dishes[k] = dishes[from] + 1
					chosen[k] = append([]int{}, chosen[from]...)
					chosen[k][i]++
				}
			}
		}
	}
	best := need
	for k := need; k < size; k++ {
		if dishes[k] < dishes[best] {
			best = k
		}
	}
	return chosen[best]
}

func (c *Crowd) describe(q CrowdRequest) {
	dishes := make([]message.Message, len(c.Dishes))
	for i, d := range c.Dishes {
		dishes[i] = message.New("{n} × {dish}", message.Count(d.Count), message.Text(d.Name))
	}
	if c.Missing > 0 {
		c.Text = append(c.Text, message.New(
			"All dishes together make {n} portions, {missing} too few. Bake twice, or use another dish.",
			message.Count(c.Portions), message.Count(c.Missing),
		))
	} else {
		c.Text = append(c.Text, message.New("{dishes}: {n} portions, {spare} extra.", message.And(dishes...),
			message.Count(c.Portions), message.Count(c.Spare)))
	}
	if c.ToppingG > 0 {
		c.Text = append(
			c.Text,
			message.New("Topping for all: {g}{mixes}.", message.Grams(c.ToppingG), message.Word(c.mixWords())),
		)
	}
	switch {
	case c.Loads == 1:
		c.Text = append(c.Text, message.New("Everything fits into the ovens at once."))
	case c.Loads > 1:
		c.Text = append(
			c.Text,
			message.New(
				"The ovens are filled {n} times, one load after another: plan it under Day.",
				message.Count(c.Loads),
			),
		)
	}
	c.Text = append(c.Text, hold())
	carry := message.New(
		"Carry dishes level and do not stack them on the topping. Let runny desserts set first, as they spill.",
	)
	if q.Request.Custard != nil {
		carry = message.New(
			"Carry it level, and keep it below {cold} all the way: it contains egg.",
			message.Celsius(carriedColdC),
		)
	}
	c.Text = append(c.Text, carry)
}

// hold is how a dessert is kept warm.
func hold() message.Message {
	return message.New(
		"On a warm buffet keep it at {hot} or above, at most {n} hours for a good crust. Some local food codes allow a little less: "+
			"follow yours.",
		message.Celsius(hotC),
		message.Count(hotHours),
	)
}

func (c *Crowd) mixWords() string {
	if c.Mixes == 1 {
		return ", in one mix"
	}
	return fmt.Sprintf(", in %d mixes", c.Mixes)
}
