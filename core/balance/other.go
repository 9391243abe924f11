package balance

import (
	"fmt"
	"math"

	"mabbin/core/fault"
	"mabbin/core/message"
)

// OtherRequest is a dessert that is to be made in another dish, or in several.
type OtherRequest struct {
	Request Request     `json:"request"`
	Dishes  []StartDish `json:"dishes"` // with how many of each; the first one is the new dish
}

// OtherAnswer is the same dessert in other dishes, with what a single factor would have said.
type OtherAnswer struct {
	From    Answer          `json:"from"`
	Dishes  []OtherDish     `json:"dishes"`
	LeftG   float64         `json:"left_g"` // prepared fruit of the card, positive where the dishes take less
	LeftUse message.Message `json:"left_use"`
	Left    message.Message `json:"left"` // that in words
}

// OtherDish is the dessert in one of the dishes.
type OtherDish struct {
	ID      string  `json:"id"`
	Name    string  `json:"name"`
	Count   int     `json:"count"`
	Request Request `json:"request"`
	Answer  Answer  `json:"answer"` // of one
	Naive   []Naive `json:"naive"`
}

// PartCode is what of a dessert is weighed by itself.
type PartCode string

// The parts.
const (
	PartFruit     PartCode = "fruit"
	PartSugar     PartCode = "sugar"
	PartThickener PartCode = "thickener"
	PartTopping   PartCode = "topping"
	PartBase      PartCode = "base"
)

// Naive is what one factor for everything, the volumes' ratio, would weigh out, and how far that is off.
type Naive struct {
	Code     PartCode        `json:"code"`
	Name     message.Message `json:"name"`
	G        float64         `json:"g"`
	NaiveG   float64         `json:"naive_g"`
	ErrorPct float64         `json:"error_pct"`
	Far      bool            `json:"far"` // so far off that it shows at the table
}

// CheckOther finds every wrong field.
func CheckOther(q OtherRequest) error {
	var f fault.Faults
	f.Length("", "/dishes", len(q.Dishes), 1, mostDishes)
	for i, d := range q.Dishes {
		at := fmt.Sprintf("/dishes/%d", i)
		CheckDish(d.Dish, at+"/dish", &f)
		f.RangeAt(at, "/count", float64(d.Count), 0, 500, "")
	}
	f.Under("/request", Check(q.Request))
	return f.Err()
}

// Other makes the same dessert in other dishes: the filling follows the usable volume, the topping the area, the base
// floor and sides, and what was weighed among the fruit the filling. Never one factor.
func Other(q OtherRequest) (*OtherAnswer, error) {
	if err := CheckOther(q); err != nil {
		return nil, err
	}
	from, err := Solve(q.Request)
	if err != nil {
		return nil, fault.Under("/request", err)
	}
	out := &OtherAnswer{From: *from, Dishes: []OtherDish{}, LeftG: from.FruitG}
	for i, d := range q.Dishes {
		r, a, err := q.Request.moved(from, d)
		if err != nil {
			return nil, fault.Under(fmt.Sprintf("/dishes/%d", i), err)
		}
		count := max(1, d.Count)
		out.Dishes = append(
			out.Dishes,
			OtherDish{ID: d.ID, Name: d.Name, Count: count, Request: r, Answer: *a, Naive: naive(from, a)},
		)
		out.LeftG -= float64(count) * a.FruitG
	}
	out.LeftUse = UseFor(out.LeftG)
	out.Left = out.leftText()
	return out, nil
}

// moved is a dessert in another dish. What its card gives in grams for the filling goes by the filling; a thickness
// stays.
func (r Request) moved(from *Answer, d StartDish) (Request, *Answer, error) {
	r.Dish = d.Dish
	r = r.withFilling(d.Dish.Measure().VolumeML/from.Fit.VolumeML, from) // a first guess
	if r.FruitEntered() {                                                // the card's own fill of its dish is kept
		full := from.Fit.RawFillPct
		r.FillWithFruit()
		trial, err := Solve(r)
		if err != nil {
			return r, nil, err
		}
		g := trial.FruitG * full / trial.Fit.RawFillPct
		r.WeighFruit(g)
	}
	for range 4 { // extras take part in the stack, and follow it: a few turns settle them
		a, err := Solve(r)
		if err != nil {
			return r, nil, err
		}
		k := a.FruitG / from.FruitG
		next := r.withFilling(k, from)
		b, err := Solve(next)
		if err != nil {
			return r, nil, err
		}
		r = next
		if math.Abs(b.FruitG-a.FruitG) < 0.05 {
			return r, b, nil
		}
	}
	a, err := Solve(r)
	return r, a, err
}

// withFilling scales what a card weighs into the filling by k of the card's own amounts.
func (r Request) withFilling(k float64, from *Answer) Request {
	by := map[string]float64{}
	for _, b := range from.Ticket {
		if b.Key == "fruit" {
			for _, l := range b.Lines {
				by[l.Key] = l.G
			}
		}
	}
	scale := func(list []Quantity) []Quantity {
		out := make([]Quantity, len(list))
		for i, a := range list {
			out[i] = Quantity{a.Key, by[a.Key] * k}
		}
		return out
	}
	r.Liquids, r.Extras = scale(r.Liquids), scale(r.Extras)
	if r.SugarG != nil && r.Custard == nil {
		g := from.SugarG * k
		r.SugarG = &g
	}
	if r.Thickener != nil && (r.Thickener.G != nil || len(r.Thickener.With) > 0) {
		t := *r.Thickener
		if t.G != nil {
			g := from.ThickenerG * k
			t.G = &g
		}
		t.With = make([]Quantity, len(r.Thickener.With))
		for i, a := range r.Thickener.With {
			t.With[i] = Quantity{a.Key, lineG(from, "dry", a.Key) * k}
		}
		r.Thickener = &t
	}
	if r.CrumbLayerG > 0 {
		r.CrumbLayerG = lineG(from, "crumbs", "dry_breadcrumbs") * k
	}
	return r
}

func lineG(a *Answer, bowl, key string) float64 {
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			if b.Key == bowl && l.Key == key {
				return l.G
			}
		}
	}
	return 0
}

// naive weighs everything by the ratio of the volumes.
func naive(from, to *Answer) []Naive {
	k := to.Fit.VolumeML / from.Fit.VolumeML
	out := []Naive{}
	for _, x := range []struct {
		code    PartCode
		name    message.Message
		was, is float64
	}{
		{PartFruit, message.New("Fruit"), from.FruitG, to.FruitG},
		{PartSugar, message.New("Sugar"), from.SugarG, to.SugarG},
		{PartThickener, message.New("Thickener"), from.ThickenerG, to.ThickenerG},
		{PartTopping, message.New("Topping"), from.ToppingG, to.ToppingG},
		{PartBase, message.New("Base"), from.BaseG, to.BaseG},
	} {
		if x.is > ticketG {
			off := 100 * (k*x.was - x.is) / x.is
			out = append(out, Naive{x.code, x.name, x.is, k * x.was, off, math.Abs(off) > farOffPct})
		}
	}
	return out
}
