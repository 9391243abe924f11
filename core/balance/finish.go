package balance

import (
	"fmt"

	"mabbin/core/fault"
	"mabbin/core/larder"
)

// greasingGDM2 is the fat for greasing, in g for each dm2 of the inside. Handbook practice.
const greasingGDM2 = 3.0

// The ways to ready a dish.
const (
	greaseButter = "butter" // for taste
	greaseOil    = "oil"    // without dairy
	greaseSling  = "sling"  // paper, for what must come out whole
	greaseNone   = "none"
)

func (d *dessert) lookFinish(f *fault.Faults) {
	d.lookCustard(f)
	d.lookCuts(f)
	f.OneOf("/greasing", d.req.Greasing, "", greaseButter, greaseOil, greaseSling, greaseNone)
	const most = 6
	if n := len(d.req.Finishes); n > most {
		f.Add("/finishes", fault.TooMany(n, most))
		return
	}
	for i, key := range d.req.Finishes {
		d.finishes = append(d.finishes, row(larder.Finishes, key, fmt.Sprintf("/finishes/%d", i), "", "finish", f))
	}
}

// greasing is how the dish is readied: as asked, or a sling for what is cut in the pan, butter where crumbs or dough
// touch the dish, and nothing for fruit that is spooned out or under a shell of short pastry.
func (d *dessert) greasing() string {
	switch {
	case d.req.Greasing != "":
		return d.req.Greasing
	case d.req.Style == "bar":
		return greaseSling
	case d.req.Style == "betty", d.req.Style == "cobbler", d.req.Style == "pandowdy":
		return greaseButter
	}
	return greaseNone
}

// insideDM2 is the inside of the dish, floor and walls.
func (d *dessert) insideDM2() float64 {
	return (d.geo.FloorAreaCM2 + d.geo.PerimeterCM*d.geo.DepthCM) / 100
}

// colourFactor is how much faster the finishes make the top colour.
func (d *dessert) colourFactor() float64 {
	k := 1.0
	for _, x := range d.finishes {
		if x.When == "before" {
			k *= x.ColourFactor
		}
	}
	return k
}
