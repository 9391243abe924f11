package balance

import (
	"mabbin/core/filling"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// Question is where bakers go different ways with the fruit.
type Question string

// The questions.
const (
	AskMacerate Question = "macerate"
	AskPrecook  Question = "precook"
	AskPeel     Question = "peel"
)

// Alternative is one way of doing something that bakers disagree about, with what it comes to for the same fruit.
type Alternative struct {
	Question      Question        `json:"question"`
	Key           string          `json:"key"`
	Name          message.Message `json:"name"`
	Precook       *PrecookInput   `json:"precook,omitempty"`  // as a request has it that goes this way
	Macerate      *MacerateInput  `json:"macerate,omitempty"` // the same
	Chosen        bool            `json:"chosen"`
	JuiceG        float64         `json:"juice_g"`
	ThickenerG    float64         `json:"thickener_g"`
	SugarLostG    float64         `json:"sugar_lost_g"`     // left behind with drained juice
	ThickenerLost float64         `json:"thickener_lost_g"` // left behind
	DrivenOffG    float64         `json:"driven_off_g"`     // by cooking or boiling down
	BuyG          float64         `json:"buy_g"`            // of all fruit, as bought
	Band          filling.Band    `json:"band"`
	Effect        message.Message `json:"effect"` // what is lost or bought by it, where that is anything
}

// What is too little to tell, g.
const (
	leastReportedG          = 0.5
	leastReportedThickenerG = 0.05
)

// effect is what is lost or bought by a way.
func (s Alternative) effect() message.Message {
	var all []message.Message
	if s.Question == AskPeel {
		all = append(all, message.New("buy {much}", message.Grams(s.BuyG)))
	}
	if s.DrivenOffG >= leastReportedG {
		all = append(all, message.New("{much} boiled off", message.Grams(s.DrivenOffG)))
	}
	if s.SugarLostG >= leastReportedG {
		all = append(all, message.New("{much} of sugar lost", message.Grams(s.SugarLostG)))
	}
	if s.ThickenerLost >= leastReportedThickenerG {
		all = append(all, message.New("{much} of thickener lost", message.Grams(s.ThickenerLost)))
	}
	return message.Join(", ", all...)
}

// The minutes that a school is shown for while none are set.
const (
	shownMacerateMin = 45.0
	shownPrecookMin  = 8.0
)

// Alternatives shows what each way of doing comes to: the fruit and everything else stay as they are.
func Alternatives(r Request) ([]Alternative, error) {
	d, err := resolve(r)
	if err != nil {
		return nil, err
	}
	a, err := Solve(r)
	if err != nil {
		return nil, err
	}
	r.WeighFruit(a.FruitG)
	var out []Alternative
	try := func(s Alternative, change func(*Request)) error {
		q := r
		q.Fruits = append([]FruitInput{}, r.Fruits...)
		change(&q)
		b, err := Solve(q)
		if err != nil {
			return err
		}
		s.Precook, s.Macerate = q.Precook, q.Macerate
		s.JuiceG, s.ThickenerG, s.SugarLostG, s.Band = b.JuiceG, b.ThickenerG, b.Ledger.DrainedSugarG, b.Set.Band
		s.DrivenOffG = b.Ledger.PrecookOffG
		if s.Key == filling.Reduce || s.Key == filling.Thicken {
			s.DrivenOffG += b.Ledger.DrainedWaterG
		}
		if q.Macerate != nil && q.Macerate.WithThickener && b.Ledger.ReleasedG > 0 {
			s.ThickenerLost = b.ThickenerG * b.lostShare
		}
		for _, p := range b.Purchase {
			s.BuyG += p.G
		}
		s.Effect = s.effect()
		out = append(out, s)
		return nil
	}
	for _, s := range []tried{
		{Alternative{
			Question: AskMacerate, Key: "none", Name: message.New("no standing time"),
			Chosen: d.filling.Macerate.Minutes <= 0,
		}, func(q *Request) { q.Macerate = nil }},
		d.macerate(filling.Keep, message.New("keep all the juice")),
		d.macerate(filling.Leave, message.New("leave the juice in the bowl")),
		d.macerate(filling.Reduce, message.New("boil it down to half and put it back")),
		d.macerate(filling.Thicken, message.New("thicken it in the pan and fold in the raw fruit")),
		{Alternative{
			Question: AskPrecook, Key: "raw", Name: message.New("raw: firmer"),
			Chosen: d.filling.Precook.Minutes <= 0,
		}, func(q *Request) { q.Precook = nil }},
		d.precook("covered", message.New("under a lid, in the oven or microwave"), false),
		d.precook("open", message.New("in an open pan on the hob"), true),
		d.precookTough(),
	} {
		if s.change == nil {
			continue
		}
		if err := try(s.Alternative, s.change); err != nil {
			return nil, err
		}
	}
	if d.peelable() {
		peeled := true
		for _, f := range r.Fruits {
			peeled = peeled && (f.Peeled == nil || *f.Peeled)
		}
		for _, p := range []bool{true, false} {
			name := map[bool]message.Message{true: message.New("peeled"), false: message.New("skins left on")}[p]
			if err := try(
				Alternative{
					Question: AskPeel,
					Key:      map[bool]string{true: "peeled", false: "unpeeled"}[p],
					Name:     name,
					Chosen:   p == peeled,
				},
				func(q *Request) {
					for i := range q.Fruits {
						q.Fruits[i].Peeled = &p
					}
				},
			); err != nil {
				return nil, err
			}
		}
	}
	return out, nil
}

// tried is a school and how a request is changed to it.
type tried struct {
	Alternative
	change func(*Request)
}

func (d *dessert) macerate(juice string, name message.Message) tried {
	now := d.filling.Macerate
	minutes := now.Minutes
	if minutes <= 0 {
		minutes = shownMacerateMin
	}
	chosen := now.Minutes > 0 && (now.Juice == juice || now.Juice == "" && juice == filling.Keep)
	return tried{
		Alternative{Question: AskMacerate, Key: juice, Name: name, Chosen: chosen},
		func(q *Request) {
			q.Macerate = &MacerateInput{Minutes: minutes, Juice: juice, WithThickener: now.WithThickener}
		},
	}
}

// precookTough cooks only the tough fruits of a mixture first; without a change where there is nothing to choose.
func (d *dessert) precookTough() tried {
	var tough []string
	names := []message.Message{}
	for _, p := range d.filling.Pieces {
		if p.Fruit.Precook != "none" && p.Fruit.Precook != "" {
			tough = append(tough, p.Fruit.Key)
			names = append(names, message.Value(larder.Called(p.Fruit.Name)))
		}
	}
	if len(tough) == 0 || len(tough) == len(d.filling.Pieces) {
		return tried{}
	}
	minutes := d.filling.Precook.Minutes
	if minutes <= 0 {
		minutes = shownPrecookMin
	}
	return tried{
		Alternative{
			Question: AskPrecook, Key: "tough", Name: message.New("the {tough} alone, under a lid", message.And(names...)),
			Chosen: d.req.Precook != nil && len(d.req.Precook.Fruits) > 0,
		},
		func(q *Request) {
			q.Precook = &PrecookInput{Minutes: minutes, Where: d.precookedIn(false), Fruits: tough}
		},
	}
}

// precookedIn is where the fruit is cooked already; empty: on the hob. A microwave has no open pan.
func (d *dessert) precookedIn(open bool) string {
	if d.req.Precook == nil || open && d.req.Precook.Where == microwave {
		return ""
	}
	return d.req.Precook.Where
}

func (d *dessert) precook(key string, name message.Message, open bool) tried {
	now := d.filling.Precook
	minutes := now.Minutes
	if minutes <= 0 {
		minutes = shownPrecookMin
	}
	return tried{
		Alternative{
			Question: AskPrecook,
			Key:      key,
			Name:     name,
			Chosen:   now.Minutes > 0 && now.Open == open && len(d.req.Precook.Fruits) == 0,
		},
		func(q *Request) {
			q.Precook = &PrecookInput{Minutes: minutes, Open: open, Where: d.precookedIn(open)}
		},
	}
}

func (d *dessert) peelable() bool {
	for _, p := range d.filling.Pieces {
		if p.Fruit.Peelable() {
			return true
		}
	}
	return false
}
