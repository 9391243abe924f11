package balance

import (
	"mabbin/core/fault"
	"mabbin/core/filling"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// eggKey is the egg's, as an ingredient and as a thickener.
const eggKey = "egg"

// A custard poured over fruit: whole filling and the fruit in it, in g for each cm2 of the floor, and the usual parts.
// Handbook practice.
const (
	custardFillGCM2  = 1.2
	custardFruitGCM2 = 0.5
)

// UsualCustard is the custard where a baker gives no ratio of their own.
var UsualCustard = CustardInput{Egg: 100, Sugar: 170, Flour: 25, Salt: 1}

func (d *dessert) resolveCustard(f *fault.Faults) {
	c := d.req.Custard
	if c == nil {
		return
	}
	if !d.style.Custard {
		f.Add(
			"/custard",
			message.New(
				"is for bars and pies, not for a {style}: remove it",
				message.Word(d.req.Style),
			),
		)
	}
	for _, x := range []struct {
		at string
		v  float64
	}{{"egg", c.Egg}, {"sugar", c.Sugar}, {"flour", c.Flour}, {"salt", c.Salt}} {
		f.Range("/custard/"+x.at, x.v, 0, 1000, "parts")
	}
	f.Range("/custard/total_g", c.TotalG, 0, 20000, "g")
	if c.Starch != "" {
		row(larder.Thickeners, c.Starch, "", "/custard/starch", "thickener", f)
	}
	if c.Sugar+c.Salt > 0 && c.Egg == 0 && c.Flour == 0 {
		f.Add("/custard", message.New("has neither egg nor flour, so it will not set: add eggs (100 parts are usual)"))
	}
}

// makeCustard sizes the custard to the floor and puts it into the filling: its eggs are a liquid and thicken, its flour
// is the thickener, its sugar is the filling's.
func (d *dessert) makeCustard() {
	if d.req.Custard == nil {
		return
	}
	c := *d.req.Custard
	if c.Egg+c.Sugar+c.Flour+c.Salt == 0 {
		usual := UsualCustard
		usual.TotalG = c.TotalG
		c = usual
	}
	starch := c.Starch
	if starch == "" {
		starch = "wheat_flour"
	}
	total := (custardFillGCM2 - custardFruitGCM2) * d.geo.FloorAreaCM2
	if c.TotalG > 0 {
		total = c.TotalG
	}
	g := total / (c.Egg + c.Sugar + c.Flour + c.Salt)
	for _, x := range []struct {
		key   string
		parts float64
	}{{"egg", c.Egg}, {d.sugar.Key, c.Sugar}, {starch, c.Flour}, {"salt", c.Salt}} {
		i, _ := d.req.Own.Ingredient(x.key)
		d.custard = append(d.custard, filling.Weighed{Ingredient: i, G: x.parts * g})
	}
	d.style.FillRule, d.style.Fill = larder.FillFloor, custardFruitGCM2
	d.filling.Liquids = append(d.filling.Liquids, d.custard[0])
	d.filling.Extras = append(d.filling.Extras, d.custard[3])
	d.filling = filling.New(d.filling)
	// what the baker gives goes into the custard in the place of its own part
	if d.req.SugarG == nil {
		d.req.SugarG = &d.custard[1].G
	} else {
		d.custard[1].G = *d.req.SugarG
	}
	if d.givenG == nil {
		d.thickener, _ = d.req.Own.Thickener(starch)
		d.givenG = &d.custard[2].G
	} else {
		d.custard[2].Ingredient, _ = d.req.Own.Ingredient(d.thickener.Key)
		d.custard[2].G = *d.givenG
	}
	egg, _ := d.req.Own.Thickener("egg")
	d.beside = append(d.beside, filling.Dose{Thickener: egg, G: d.custard[0].G})
}
