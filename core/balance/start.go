package balance

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"mabbin/core/dish"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// StartRequest is a dessert that is begun from an amount of fruit or from portions: which of the kitchen's dishes,
// and how many of them? Exactly one of FruitG, BoughtG and Portions is given.
type StartRequest struct {
	Style    string       `json:"style"`
	Fruits   []FruitInput `json:"fruits"`
	Topping  string       `json:"topping,omitempty"` // left out: the style's own
	Portion  string       `json:"portion,omitempty"`
	FruitG   *float64     `json:"fruit_g,omitempty"`  // prepared
	BoughtG  *float64     `json:"bought_g,omitempty"` // as bought
	Portions *float64     `json:"portions,omitempty"`
	Dishes   []StartDish  `json:"dishes"`
	Own      *larder.Own  `json:"own,omitempty"`
}

// StartDish is a dish of the kitchen and how many it has of it.
type StartDish struct {
	ID    string    `json:"id"`
	Name  string    `json:"name"`
	Count int       `json:"count,omitempty"` // left out: one
	Dish  dish.Dish `json:"dish"`
}

// StartAnswer is the ways to go about it, the best first.
type StartAnswer struct {
	PreparedG float64  `json:"prepared_g"` // of fruit, where it was begun from that
	Options   []Option `json:"options"`
}

// Option is one way: so many of these dishes.
type Option struct {
	Uses      []Used          `json:"uses"`
	FruitG    float64         `json:"fruit_g"` // prepared, in all of them
	BuyG      float64         `json:"buy_g"`   // as bought
	Portions  float64         `json:"portions"`
	EachG     float64         `json:"each_g"` // a portion
	LeftG     float64         `json:"left_g"` // prepared fruit
	LeftUse   message.Message `json:"left_use"`
	FillPct   float64         `json:"fill_pct"`   // of the usual fruit in each
	UsualFill bool            `json:"usual_fill"` // which is as much as usual
	Text      message.Message `json:"text"`
}

// Used is a dish of an option.
type Used struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	Count  int     `json:"count"`
	FruitG float64 `json:"fruit_g"` // in each
}

const (
	mostDishes   = 60
	mostOfOne    = 48
	leastFill    = 0.80 // of the usual fruit: below, the dish is the wrong one
	perDish      = 0.04 // of the amount: what one dish more has to save, to be worth washing up
	mostOptions  = 6
	underfillTax = 0.5 // of the amount, for a fill at nothing
)

// Start finds the ways. A bad request is fault.Faults, a style that is not calculated yet a *fault.NotYet.
func Start(q StartRequest) (*StartAnswer, error) {
	if err := CheckStart(q); err != nil {
		return nil, err
	}
	sizes := make([]sized, 0, len(q.Dishes))
	for _, d := range q.Dishes {
		a, err := Solve(q.in(d.Dish, nil))
		if err != nil {
			continue // a dish too flat for this topping is none of the ways
		}
		sizes = append(sizes, sized{d, a})
	}
	out := &StartAnswer{Options: []Option{}}
	if len(sizes) == 0 {
		return out, nil
	}
	var want float64
	size := func(s sized) float64 { return s.full.FruitG }
	switch {
	case q.Portions != nil:
		want, size = *q.Portions, func(s sized) float64 { return s.full.Portions.FinishedG / s.full.Portions.EachG }
	case q.FruitG != nil:
		want = *q.FruitG
	default:
		first := sizes[0].full
		prepared, bought := 0.0, 0.0
		for _, p := range first.Purchase {
			prepared += p.PreparedG
			bought += p.G
		}
		want = *q.BoughtG * prepared / bought
	}
	if q.Portions == nil {
		out.PreparedG = want
	}
	for _, w := range ways(sizes, want, size, q.Portions != nil) {
		o, err := q.option(w, want)
		if err != nil {
			return nil, err
		}
		out.Options = append(out.Options, o)
	}
	return out, nil
}

// sized is a dish filled as usual.
type sized struct {
	StartDish
	full *Answer
}

// option is a choice of dishes, at most two kinds of them, filled to a share of the usual.
type option struct {
	dishes [2]sized
	n      [2]int
	fill   float64
	score  float64
}

// ways are the best choices: little left over, few dishes, well filled.
func ways(sizes []sized, want float64, size func(sized) float64, covers bool) []option {
	var all []option
	consider := func(w option) {
		hold := 0.0
		for i, n := range w.n {
			if n > 0 {
				hold += float64(n) * size(w.dishes[i])
			}
		}
		w.fill = min(1, want/hold)
		if w.fill < leastFill && (!covers || w.n[0]+w.n[1] > 1) {
			return
		}
		left := max(0, want-hold)
		if covers && left > 0.02*want {
			return // fewer portions than asked for are none of the ways
		}
		w.fill = max(w.fill, leastFill)
		w.score = left/want + perDish*float64(w.n[0]+w.n[1]) + underfillTax*(1-w.fill)
		if w.n[1] > 0 {
			w.score += perDish / 2
		}
		all = append(all, w)
	}
	most := func(s sized) int {
		return min(max(1, s.Count), mostOfOne, int(math.Ceil(want/size(s)/leastFill)))
	}
	for i, a := range sizes {
		for n := 1; n <= most(a); n++ {
			consider(option{dishes: [2]sized{a}, n: [2]int{n}})
			for _, b := range sizes[i+1:] {
				for m := 1; m <= most(b); m++ {
					consider(option{dishes: [2]sized{a, b}, n: [2]int{n, m}})
				}
			}
		}
	}
	slices.SortStableFunc(all, func(a, b option) int { return cmp.Compare(a.score, b.score) })
	return all[:min(len(all), mostOptions)]
}

// option calculates a way.
func (q StartRequest) option(w option, want float64) (Option, error) {
	o := Option{FillPct: 100 * w.fill, Uses: []Used{}}
	for i, n := range w.n {
		if n == 0 {
			continue
		}
		s := w.dishes[i]
		g := s.full.FruitG * w.fill
		a := s.full
		if w.fill < 1 {
			var err error
			if a, err = Solve(q.in(s.Dish, &g)); err != nil {
				return o, err
			}
		}
		o.Uses = append(o.Uses, Used{ID: s.ID, Name: s.Name, Count: n, FruitG: g})
		o.FruitG += float64(n) * g
		o.Portions += float64(n) * a.Portions.FinishedG / a.Portions.EachG
		o.EachG = a.Portions.EachG
		for _, p := range a.Purchase {
			o.BuyG += float64(n) * p.G
		}
	}
	o.Portions = max(1, math.Floor(o.Portions+0.25)) // a spoon less in each is nobody's loss
	if q.Portions == nil {
		o.LeftG = max(0, want-o.FruitG)
		o.LeftUse = UseFor(o.LeftG)
	}
	o.UsualFill = o.usualFill()
	o.Text = o.describe(q.Portions != nil, q.FruitG != nil || q.BoughtG != nil)
	return o, nil
}

// in is the dessert in one dish, with the fruit left to the dish or weighed.
func (q StartRequest) in(d dish.Dish, fruitG *float64) Request {
	top := q.Topping
	if top == "" {
		top = larder.StyleOf(q.Style).Topping
	}
	return Request{
		Dish:          d,
		Style:         q.Style,
		Fruits:        q.Fruits,
		Topping:       ToppingInput{Key: top},
		Portion:       q.Portion,
		WeighedFruitG: fruitG,
		Own:           q.Own,
	}
}

// CheckStart finds every wrong field.
func CheckStart(q StartRequest) error {
	var f fault.Faults
	given := 0
	for _, x := range []struct {
		at     string
		v      *float64
		lo, hi float64
		unit   string
	}{{"/fruit_g", q.FruitG, 20, 100000, "g"}, {"/bought_g", q.BoughtG, 20, 200000, "g"}, {
		"/portions", q.Portions,
		1, 1000, "",
	}} {
		if x.v != nil {
			given++
			f.Range(x.at, *x.v, x.lo, x.hi, x.unit)
		}
	}
	if given != 1 {
		f.Add("/fruit_g", message.New("use one of fruit_g, bought_g and portions, not {n} of them", message.Count(given)))
	}
	f.Length("", "/dishes", len(q.Dishes), 1, mostDishes)
	for i, d := range q.Dishes {
		at := fmt.Sprintf("/dishes/%d", i)
		CheckDish(d.Dish, at+"/dish", &f)
		f.RangeAt(at, "/count", float64(d.Count), 0, 500, "")
	}
	if err := f.Err(); err != nil {
		return err
	}
	if err := Check(q.in(q.Dishes[0].Dish, nil)); err != nil {
		return err
	}
	return nil
}
