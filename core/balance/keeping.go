package balance

import (
	"mabbin/core/larder"
	"mabbin/core/message"
)

// Storage is something made ahead or left over, and what becomes of it.
type Storage struct {
	Name message.Message `json:"name"`
	Text message.Message `json:"text"`
}

// ahead is what can be made days before, and how it keeps.
func (p *plan) ahead() []Storage {
	out := []Storage{}
	if t := p.wanted.Topping; !t.None() {
		out = append(out, p.made(t.Name, message.New(t.MakeAhead)))
	}
	for _, w := range p.dessert.late {
		out = append(out, p.made(w.Topping.Name, message.New(w.Topping.MakeAhead)))
	}
	if p.under.G > 0 {
		out = append(
			out,
			p.made(p.base.Name, message.New("lined and chilled 2 days, frozen 1 month; par-baked 1 day, airtight")),
		)
	}
	if p.custard == nil && p.thickener.Freeze != "" {
		out = append(
			out,
			Storage{message.New("The filling, frozen"), p.book.New("thickener: {freezes}", message.Word(p.thickener.Freeze))},
		)
	}
	return out
}

// AfterFreezer is what its thickener does where the dessert was frozen; zero: it holds, or there is none.
func (a *Answer) AfterFreezer(r Request) message.Message {
	if r.Thickener == nil || a.ThickenerG <= 0 {
		return message.Message{}
	}
	t, ok := larder.Thickeners.Get(r.Thickener.Key)
	if !ok || t.Freeze == "holds" {
		return message.Message{}
	}
	return message.New("the thickener {does} after freezing", message.Word(t.Freeze))
}

// made is a thing of the tables that is made ahead.
func (p *plan) made(name string, how message.Message) Storage {
	return Storage{p.book.New("{Name}", larder.Called(name)), how}
}

// Reviving a dried-out portion: fruit juice round its edge, in g, and warmth. Working figures.
const (
	reviveJuiceG = 20.0
	reviveMin    = 15.0
	reviveC      = 160.0
)

// leftovers is what is left of each thing, and a use for it.
func (p *plan) leftovers(a *Answer) []Storage {
	var out []Storage
	for _, b := range a.Purchase {
		if !b.Use.IsZero() {
			out = append(
				out,
				Storage{p.book.New("{much} of prepared {fruit}", message.Grams(b.LeftOverG), larder.Called(b.Name)), b.Use},
			)
		}
	}
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			if i, ok := p.req.Own.Ingredient(l.Key); ok && i.Role == "egg" {
				if _, left := cracked(p.conventions(), i, l.G); left >= eggLeftG {
					out = append(
						out,
						Storage{p.book.New("{much} of {egg}", message.Grams(left), larder.Called(l.Name)), eggUses[i.Key]},
					)
				}
			}
		}
	}
	if p.base.UpTheSides || p.wanted.Topping.Family == "pastry" {
		out = append(
			out,
			Storage{
				message.New("Dough trimmings"),
				message.New("press together once and cut leaves for the top, or bake them with cinnamon sugar"),
			},
		)
	}
	out = append(
		out,
		Storage{
			message.New("A portion that has dried out the next day"),
			p.book.New(
				"spoon {juice} of fruit juice round the edge and warm it {minutes} min at {heat} under foil; take the foil off for the last third",
				message.Grams(reviveJuiceG),
				message.Number(reviveMin, 0),
				message.OvenHeat(reviveC),
			),
		},
	)
	return out
}

// carrying is how it travels: one list a style, so that an answer makes none anew.
func (p *plan) carrying() []message.Message {
	switch {
	case p.custard != nil:
		return carryCold
	case p.style.Slices:
		return carrySet
	}
	return carryWarm
}

var (
	carryLevel = message.New("Keep the dish level on a non-slip cloth, with something packed on both sides.")
	carryWarm  = []message.Message{
		message.New(
			"It travels best cold and set. Warm, leave the lid open by a finger: under a tight lid the top turns soggy.",
		),
		carryLevel,
		message.New(
			"Re-crisp it on arrival, 10 min at {heat}. Carry cream and custard in a cold box.",
			message.OvenHeat(180),
		),
	}
	carrySet = []message.Message{
		message.New("Carry it cold and set in its tin, and cut it on arrival: cut pieces dry out and lean on each other."),
		carryLevel,
	}
	carryCold = []message.Message{
		message.New("Keep it in a cold box at 5 C or below all the way: it contains egg."),
		carryLevel,
	}
)

// Served is something to serve with a dessert.
type Served struct {
	Name  message.Message `json:"name"`
	EachG float64         `json:"each_g"` // a portion
	AllG  float64         `json:"all_g"`
}

type served struct {
	name message.Message
	g    float64
}

// in addition to are the usual accompaniments, in g a portion. Handbook practice.
var besides = []served{
	{message.New("pouring cream"), 40},
	{message.New("warm custard"), 70},
	{message.New("ice cream"), 60},
	{message.New("soured cream or yogurt"), 45},
}

// besidesSavoury are those of a savoury dessert.
var besidesSavoury = []served{
	{message.New("dressed green leaves"), 40},
	{message.New("soured cream or yogurt"), 30},
}

func beside(portions float64, size string, savoury bool) []Served {
	besides := besides
	if savoury {
		besides = besidesSavoury
	}
	out := make([]Served, len(besides))
	for i, b := range besides {
		each := b.g * portionShare[size]
		out[i] = Served{b.name, each, each * portions}
	}
	return out
}
