package balance

import (
	"cmp"
	"fmt"
	"strings"

	"mabbin/core/fault"
	"mabbin/core/larder"
)

// The fat on a dish, in g for each dm2 of its inside: a film that releases, or a coat that is there for its taste.
// Handbook practice.
const (
	filmGDM2 = 1.0
	coatGDM2 = 3.0
)

// The ways to ready a dish.
const (
	greaseButter = "butter"      // a film
	greaseCoat   = "butter_coat" // for taste
	greaseOil    = "oil"         // without dairy
	greaseSling  = "sling"       // paper, for what must come out whole
	greaseNone   = "none"
)

func (d *dessert) resolveFinish(f *fault.Faults) {
	d.resolveCustard(f)
	d.resolveCuts(f)
	f.AmongOrNone("", "/greasing", d.req.Greasing, Greasings)
	const most = 6
	if !f.Length("", "/finishes", len(d.req.Finishes), 0, most) {
		return
	}
	for i, key := range d.req.Finishes {
		d.finishes = append(d.finishes, row(larder.Finishes, key, fmt.Sprintf("/finishes/%d", i), "", "finish", f))
	}
}

// greasing returns how the dish is prepared: as requested, or as usual for the style.
func (d *dessert) greasing() string {
	return cmp.Or(d.req.Greasing, d.style.Greasing)
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

// sealSoak is the share of the juice that a base brushed inside with egg still absorbs. sealGDM2 is the egg for it, in
// g per dm2 of its inside. Working figures.
const (
	sealSoak = 0.5
	sealGDM2 = 2.5
)

// sealed says that the base is brushed inside with egg.
func (d *dessert) sealed() bool {
	return d.req.Base != nil && d.req.Base.EggSeal && len(d.base.Parts) > 0
}

// sealG is the egg that seals the base.
func (d *dessert) sealG() float64 {
	area := d.geo.FloorAreaCM2
	if d.base.UpTheSides {
		area += d.geo.PerimeterCM * d.geo.DepthCM
	}
	return sealGDM2 * area / 100
}

// bought says that the base is bought ready: there is nothing to make.
func (d *dessert) bought() bool {
	return len(d.base.Parts) == 1 && strings.HasSuffix(d.base.Parts[0].Key, "_pastry")
}
