package bake

import (
	"context"
	"errors"
	"slices"
	"sync"

	"mabbin/core/fault"
	"mabbin/core/message"
)

// Remedy is something else that was tried on the model where no plan meets everything.
type Remedy struct {
	Code    string            `json:"code"`
	Name    message.Message   `json:"name"`
	Minutes float64           `json:"minutes"`
	OvenC   float64           `json:"oven_c"`
	Settles bool              `json:"settles"`
	Unmet   []message.Message `json:"unmet"`
	Result  message.Message   `json:"result"` // what comes of it: minutes, top, fruit, base
	Stages  []Stage           `json:"stages"`
	// Change is what one touch does to the card; nil where there is more to do than that.
	Change *Change `json:"change,omitempty"`
}

// What the remedies change. Working figures.
const (
	simmeredC   = 85.0 // fruit that comes hot from the hob
	simmerShare = 0.6  // of what makes it tender, done on the hob
	wider       = 1.5  // the area of a shallower dish
	hotStartC   = 30.0
	wayEvery    = 30.0
	lowShelf    = "low"
	bottomOnly  = "bottom"
	darkMetal   = "dark_metal" // the quick one
	wayReachC   = 15.0         // from the usual oven
)

// remedy is one thing to do differently. It is not open to every dessert.
type remedy struct {
	code    string
	name    message.Message
	open    func(*PlanRequest) bool
	change  func(*PlanRequest)
	courses []course // its own, where it is one of how the stages run
	// card is what it changes of the card in addition to the stages; nil: it can't be done by a touch.
	card *Change
}

var remedies = []remedy{
	{"pre_cook", message.New("simmer the fruit first and fill it in hot"), nil, func(p *PlanRequest) {
		hot := simmeredC
		p.Bake.Filling.StartC = &hot
		p.MushMin -= simmerShare * p.TenderMin
		p.TenderMin *= 1 - simmerShare
	}, nil, nil},
	{
		"par_bake",
		message.New("par-bake the base"),
		func(q *PlanRequest) bool { return q.Bake.Base != nil && !q.Bake.Base.ParBaked },
		func(p *PlanRequest) {
			b := *p.Bake.Base
			b.ParBaked = true
			p.Bake.Base = &b
		},
		nil,
		&Change{ParBaked: true},
	},
	{
		"metal",
		message.New("a dark metal dish"),
		func(q *PlanRequest) bool { return q.Bake.Dish.Material != darkMetal },
		func(p *PlanRequest) { p.Bake.Dish.Material = darkMetal },
		nil,
		&Change{Material: darkMetal},
	},
	{
		"low_shelf",
		message.New("the low shelf"),
		func(q *PlanRequest) bool { return q.Bake.Shelf != lowShelf },
		func(p *PlanRequest) { p.Bake.Shelf = lowShelf },
		nil,
		&Change{Shelf: lowShelf},
	},
	{
		"bottom_heat",
		message.New("start with bottom heat, then the usual heat"),
		func(q *PlanRequest) bool { return q.BottomHeat },
		nil,
		[]course{{before: Stage{Heating: bottomOnly}, changes: true}},
		&Change{},
	},
	{
		"fan",
		message.New("turn the fan on"),
		func(q *PlanRequest) bool { return q.Heating != "fan" },
		func(p *PlanRequest) { p.Heating = "fan" },
		nil,
		nil,
	},
	{"shallower", message.New("use a shallower dish, 1.5 times as wide"), nil, func(p *PlanRequest) {
		p.Bake.Dish = p.Bake.Dish.Wider(wider)
	}, nil, nil},
	{
		"late_topping",
		message.New("bake it without the topping, and put the topping on late"),
		func(q *PlanRequest) bool { return q.Bake.Topping != nil && q.LateMin == 0 },
		nil,
		[]course{{after: Stage{AddTopping: true}, changes: true}},
		&Change{},
	},
	{
		"falling",
		message.New("start hot, then turn the oven down"),
		nil,
		nil,
		[]course{{before: Stage{OvenC: hotStartC}, changes: true}},
		&Change{},
	},
	{
		"rim_shield",
		message.New("shield the rim with foil for the whole bake"),
		nil,
		nil,
		[]course{{before: Stage{Cover: "rim"}}},
		&Change{},
	},
}

// indoors are those that coals do not have: a shelf, a fan, foil.
var indoors = map[string]bool{
	"low_shelf":   true,
	"high_shelf":  true,
	"fan":         true,
	"bottom_heat": true,
	"rim_shield":  true,
}

// remedies tries what might settle the clocks of a plan of so many minutes, each by itself and all at the same time.
// What settles most comes first.
func (q PlanRequest) remedies(ctx context.Context, minutes float64) ([]Remedy, error) {
	var open []remedy
	for _, w := range remedies {
		if q.OverCoals && indoors[w.code] {
			continue
		}
		if w.open == nil || w.open(&q) {
			open = append(open, w)
		}
	}
	// open all the way is what bakers do, and quick to try; foil in addition to only where that settles nothing, and where
	// the bake is not so long that nobody would stand by it
	out, err := q.tryAll(ctx, open, q.courses()[:1])
	if err == nil && minutes <= longBake && !slices.ContainsFunc(out, func(r Remedy) bool { return r.Settles }) {
		out, err = q.tryAll(ctx, open, q.courses())
	}
	if err != nil {
		return nil, err
	}
	slices.SortStableFunc(out, func(a, b Remedy) int { return len(a.Unmet) - len(b.Unmet) })
	return out, nil
}

// tryAll tries each remedy on the model by some courses, where it has none of its own.
func (q PlanRequest) tryAll(ctx context.Context, open []remedy, courses []course) ([]Remedy, error) {
	out, errs := make([]Remedy, len(open)), make([]error, len(open))
	var wait sync.WaitGroup
	for i, w := range open {
		wait.Go(func() {
			errs[i] = fault.Guard(func() (err error) { // a panic here would be nobody's to stop
				out[i], err = q.try(ctx, w, courses)
				return err
			})
		})
	}
	wait.Wait()
	return out, errors.Join(errs...)
}

// try is one remedy on the model, by its own courses or those given.
func (q PlanRequest) try(ctx context.Context, w remedy, courses []course) (Remedy, error) {
	if w.courses != nil {
		courses = w.courses
	}
	if w.change != nil {
		w.change(&q)
	}
	usual := q.usualOvenC()
	c, err := q.race(ctx, []float64{usual, usual - wayReachC, usual + wayReachC}, courses, wayEvery)
	if err != nil {
		return Remedy{}, err
	}
	unmet := q.unmet(c.at)
	out := Remedy{
		w.code,
		w.name,
		c.at.minute,
		c.ovenC,
		unmet == 0,
		q.words(unmet),
		q.results(c.at, c.at.minute),
		q.stages(c),
		nil,
	}
	if w.card != nil {
		out.Change = &Change{out.Stages, w.card.Shelf, w.card.Material, w.card.ParBaked}
	}
	return out, nil
}
