package balance

import (
	"mabbin/core/filling"
	"mabbin/core/say"
)

// School is one way of doing something that bakers disagree about, with what it comes to for the same fruit.
type School struct {
	Question      string       `json:"question"` // macerate, precook or peel
	Key           string       `json:"key"`
	Name          say.Line     `json:"name"`
	Minutes       float64      `json:"minutes,omitempty"`
	Chosen        bool         `json:"chosen"`
	JuiceG        float64      `json:"juice_g"`
	ThickenerG    float64      `json:"thickener_g"`
	SugarLostG    float64      `json:"sugar_lost_g"`     // left behind with drained juice
	ThickenerLost float64      `json:"thickener_lost_g"` // left behind
	DrivenOffG    float64      `json:"driven_off_g"`     // by cooking or boiling down
	BuyG          float64      `json:"buy_g"`            // of all fruit, as bought
	Band          filling.Band `json:"band"`
}

// The minutes that a school is shown for while none are set.
const (
	shownMacerateMin = 45.0
	shownPrecookMin  = 8.0
)

// Schools shows what each way of doing comes to: the fruit and everything else stay as they are.
func Schools(r Request) ([]School, error) {
	d, err := look(r)
	if err != nil {
		return nil, err
	}
	a, err := Solve(r)
	if err != nil {
		return nil, err
	}
	r.WeighedFruitG = &a.FruitG
	var out []School
	try := func(s School, change func(*Request)) error {
		q := r
		q.Fruits = append([]FruitAsked{}, r.Fruits...)
		change(&q)
		b, err := Solve(q)
		if err != nil {
			return err
		}
		s.JuiceG, s.ThickenerG, s.SugarLostG, s.Band = b.JuiceG, b.ThickenerG, b.Ledger.DrainedSugarG, b.Set.Band
		s.DrivenOffG = b.Ledger.PrecookOffG
		if s.Key == filling.Reduce {
			s.DrivenOffG += b.Ledger.DrainedWaterG
		}
		if q.Macerate != nil && q.Macerate.WithThickener && b.Ledger.ReleasedG > 0 {
			s.ThickenerLost = b.ThickenerG * b.lostShare
		}
		for _, p := range b.Purchase {
			s.BuyG += p.G
		}
		out = append(out, s)
		return nil
	}
	for _, s := range []tried{
		{School{Question: "macerate", Key: "none", Name: "not left to stand", Chosen: d.filling.Macerate.Minutes <= 0}, func(q *Request) { q.Macerate = nil }},
		d.macerate(filling.Keep, "keep every drop"),
		d.macerate(filling.Leave, "leave the juice in the bowl"),
		d.macerate(filling.Reduce, "boil it down to half, and back in"),
		{School{Question: "precook", Key: "raw", Name: "raw: keeps its bite", Chosen: d.filling.Precook.Minutes <= 0}, func(q *Request) { q.Precook = nil }},
		d.precook("covered", "under a lid, in the oven or microwave", false),
		d.precook("open", "in an open pan on the hob", true),
	} {
		if err := try(s.School, s.change); err != nil {
			return nil, err
		}
	}
	if d.peelable() {
		peeled := true
		for _, f := range r.Fruits {
			peeled = peeled && (f.Peeled == nil || *f.Peeled)
		}
		for _, p := range []bool{true, false} {
			name := map[bool]say.Line{true: "peeled", false: "skins left on"}[p]
			if err := try(School{Question: "peel", Key: map[bool]string{true: "peeled", false: "unpeeled"}[p], Name: name, Chosen: p == peeled}, func(q *Request) {
				for i := range q.Fruits {
					q.Fruits[i].Peeled = &p
				}
			}); err != nil {
				return nil, err
			}
		}
	}
	return out, nil
}

// tried is a school and how a request is changed to it.
type tried struct {
	School
	change func(*Request)
}

func (d *dessert) macerate(juice string, name say.Line) tried {
	now := d.filling.Macerate
	minutes := now.Minutes
	if minutes <= 0 {
		minutes = shownMacerateMin
	}
	chosen := now.Minutes > 0 && (now.Juice == juice || now.Juice == "" && juice == filling.Keep)
	return tried{School{Question: "macerate", Key: juice, Name: name, Minutes: minutes, Chosen: chosen}, func(q *Request) {
		q.Macerate = &MacerateAsked{Minutes: minutes, Juice: juice, WithThickener: now.WithThickener}
	}}
}

func (d *dessert) precook(key string, name say.Line, open bool) tried {
	now := d.filling.Precook
	minutes := now.Minutes
	if minutes <= 0 {
		minutes = shownPrecookMin
	}
	return tried{School{Question: "precook", Key: key, Name: name, Minutes: minutes, Chosen: now.Minutes > 0 && now.Open == open}, func(q *Request) {
		q.Precook = &PrecookAsked{Minutes: minutes, Open: open}
	}}
}

func (d *dessert) peelable() bool {
	for _, p := range d.filling.Pieces {
		if p.Fruit.Peelable() {
			return true
		}
	}
	return false
}
