package bake

import (
	"math"
	"slices"
	"sync"

	"mabbin/core/say"
)

// WayOut is something else that was tried on the model where no plan meets everything.
type WayOut struct {
	Code    string     `json:"code"`
	Name    say.Line   `json:"name"`
	Minutes float64    `json:"minutes"`
	OvenC   float64    `json:"oven_c"`
	Settles bool       `json:"settles"`
	Unmet   []say.Line `json:"unmet"`
	Stages  []Stage    `json:"stages"`
}

// What the ways out change. Working figures.
const (
	simmeredC   = 85.0 // fruit that comes hot from the hob
	simmerShare = 0.6  // of what makes it tender, done on the hob
	wider       = 1.5  // the area of a shallower dish
	hotStartC   = 30.0
	wayEvery    = 30.0
	lowShelf    = "low"
	bottomOnly  = "bottom"
)

// wayOut is one thing to do differently. It is not open to every dessert.
type wayOut struct {
	code    string
	name    say.Line
	open    func(*PlanRequest) bool
	change  func(*PlanRequest)
	courses []course // its own, where it is one of how the stages run
}

var waysOut = []wayOut{
	{"pre_cook", "simmer the fruit first, and fill it in hot", nil, func(p *PlanRequest) {
		hot := simmeredC
		p.Bake.Filling.StartC = &hot
		p.MushMin -= simmerShare * p.TenderMin
		p.TenderMin *= 1 - simmerShare
	}, nil},
	{"par_bake", "par-bake the base", func(q *PlanRequest) bool { return q.Bake.Base != nil }, func(p *PlanRequest) { p.Bake.Base = nil }, nil},
	{"metal", "a metal dish", func(q *PlanRequest) bool {
		return q.Bake.Dish.Material != "thin_metal" && q.Bake.Dish.Material != "heavy_metal" && q.Bake.Dish.Material != "dark_metal"
	}, func(p *PlanRequest) { p.Bake.Dish.Material = "thin_metal" }, nil},
	{"low_shelf", "the low shelf", func(q *PlanRequest) bool { return q.Bake.Shelf != lowShelf }, func(p *PlanRequest) { p.Bake.Shelf = lowShelf }, nil},
	{
		"bottom_heat", "bottom heat first, then as usual", func(q *PlanRequest) bool { return q.BottomHeat }, nil,
		[]course{{before: Stage{Heating: bottomOnly}, changes: true}},
	},
	{"fan", "the fan", func(q *PlanRequest) bool { return q.Heating != "fan" }, func(p *PlanRequest) { p.Heating = "fan" }, nil},
	{"shallower", "a shallower dish, half as wide again", nil, func(p *PlanRequest) {
		d, k := p.Bake.Dish, math.Sqrt(wider)
		d.LengthCM, d.WidthCM, d.FloorLengthCM, d.FloorWidthCM, d.MeasuredML = k*d.LengthCM, k*d.WidthCM, k*d.FloorLengthCM, k*d.FloorWidthCM, 0
		p.Bake.Dish = d
	}, nil},
	{
		"late_topping", "bake it bare, and put the topping on late", func(q *PlanRequest) bool { return q.Bake.Topping != nil && !q.LateTopping }, nil,
		[]course{{after: Stage{AddTopping: true}, changes: true}},
	},
	{"falling", "start hot, and turn it down", nil, nil, []course{{before: Stage{OvenC: hotStartC}, changes: true}}},
	{"rim_shield", "a shield of foil over the rim, all the way", nil, nil, []course{{before: Stage{Cover: "rim"}}}},
}

// waysOut tries what might settle the clocks, each on the model by itself and all at once; what settles most comes first.
func (q PlanRequest) waysOut() []WayOut {
	var open []wayOut
	for _, w := range waysOut {
		if w.open == nil || w.open(&q) {
			open = append(open, w)
		}
	}
	out := make([]WayOut, len(open))
	var wait sync.WaitGroup
	for i, w := range open {
		wait.Go(func() { out[i] = q.try(w) })
	}
	wait.Wait()
	slices.SortStableFunc(out, func(a, b WayOut) int { return len(a.Unmet) - len(b.Unmet) })
	return out
}

// try is one way out on the model.
func (q PlanRequest) try(w wayOut) WayOut {
	courses := w.courses
	if w.change != nil {
		w.change(&q)
	}
	if courses == nil {
		courses = q.courses()
	}
	c := q.race([]float64{160, 180, 200}, courses, wayEvery)
	unmet := q.unmet(c.at)
	return WayOut{w.code, w.name, c.at.minute, c.ovenC, unmet == 0, unmet.words(), q.stages(c)}
}
