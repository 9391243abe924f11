package bake

import (
	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// Stations are what each part of the work comes to, in a line.
type Stations struct {
	Dish    message.Message `json:"dish"`
	Fruit   message.Message `json:"fruit"`
	Juice   message.Message `json:"juice"`
	Topping message.Message `json:"topping"`
	Bake    message.Message `json:"bake"`
	Finish  message.Message `json:"finish"`
	Weighed message.Message `json:"weighed"`
	Stages  message.Message `json:"stages"` // of the bake, a sentence each
}

// stations tells them; given says that the stages were entered.
func (a *DessertAnswer) stations(q DessertRequest, given bool) Stations {
	r, b := q.Request, &a.Balance
	material, _ := larder.Materials.Get(r.Dish.Material)
	return Stations{
		Dish: message.New("{sizes}, {material}, {volume}", message.Part(r.Dish.Sizes()),
			larder.Called(material.Name), message.Millilitres(b.Fit.VolumeML)),
		Fruit:   message.New("{g} {fruits}", message.Grams(b.FruitG), message.Part(r.FruitNames())),
		Juice:   juiceLine(r, b),
		Topping: toppingLine(r, b),
		Bake:    a.Plan.line(q.Setting, given),
		Finish:  finishLine(r),
		Weighed: b.Weighed(),
		Stages:  a.Plan.Words(),
	}
}

func juiceLine(r balance.Request, b *balance.Answer) message.Message {
	band := message.Part(b.Set.Band.Label())
	if r.Custard != nil {
		return message.New("{band}, set by the custard's egg and flour", band)
	}
	t, _ := r.Own.Thickener(b.ThickenerKey)
	return message.New("{band}, {g} {thickener}", band, message.Grams(b.ThickenerG), larder.Called(t.Name))
}

func toppingLine(r balance.Request, b *balance.Answer) message.Message {
	t, _ := r.Own.Topping(r.Topping.Key)
	all := []message.Message{message.Value(message.Grams(b.ToppingG))}
	if b.Topping.ThicknessMM > 0 {
		all = append(all, message.Value(message.Millimetres(b.Topping.ThicknessMM)))
	}
	line := message.Join(", ", append(all, message.Value(message.Name(larder.Plain(t.Name))))...)
	if b.BaseG > 0 {
		line = message.Join("; ", line, message.New("base {g}", message.Grams(b.BaseG)))
	}
	return line
}

// line tells a plan by its temperature and its minutes, and where it is baked; what is proposed with what was entered
// so far.
func (p *Plan) line(s Setting, given bool) message.Message {
	heat, minutes := message.OvenHeat(p.OvenC), message.Number(p.Minutes, 0)
	if !given {
		var entered message.Message
		switch {
		case s.EnteredC != nil:
			entered = message.Value(message.OvenHeat(*s.EnteredC))
		case s.EnteredMin != nil:
			entered = message.New("{n} min", message.Number(*s.EnteredMin, 0))
		}
		return message.Join("; ", entered, message.New("proposed: {heat}, {n} min", heat, minutes))
	}
	line := message.New("{heat}, {n} min", heat, minutes)
	if s.OvenName != "" {
		line = message.Join(", ", line, message.Value(message.Text(s.OvenName)))
	}
	return line
}

func finishLine(r balance.Request) message.Message {
	all := make([]message.Message, 0, len(r.Finishes))
	for _, key := range r.Finishes {
		f, _ := larder.Finishes.Get(key)
		all = append(all, message.Value(larder.Called(f.Name)))
	}
	if len(all) == 0 {
		return message.New("wash, rest, cut, keep")
	}
	return message.Join(", ", all...)
}
