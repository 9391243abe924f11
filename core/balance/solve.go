package balance

import (
	"math"

	"mabbin/core/fault"
	"mabbin/core/filling"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/topping"
)

// What decided the weight of the fruit.
const (
	byFill      = "fill"
	byHeadspace = "headspace"
	byWeight    = "weighed"
)

// candidate is a dessert at one weight of fruit.
type candidate struct {
	filling.State
	thickenerG  float64
	score       float64
	headspaceMM float64
}

// plan is what stays the same while the weight of the fruit is looked for.
type plan struct {
	*dessert
	top    topping.Sized
	under  topping.Sized // the base
	late   []topping.Sized
	lateG  float64
	lateML float64
	use    filling.Use
	target float64    // set score
	fixed  *candidate // sugar and thickener held at these, to see how far the fruit may be off
	dosed  []filling.Dose
	book   *message.Book // of the answer
}

// usualArgs is how many values the sentences of an answer usually have.
const usualArgs = 72

// Solve balances one dessert. A bad request is fault.Faults, one that is not calculated yet a *fault.NotYet.
func Solve(r Request) (*Answer, error) {
	d, err := resolve(r)
	if err != nil {
		return nil, err
	}
	p := plan{
		dessert: &d,
		top:     topping.Size(d.wanted, d.geo.RimAreaCM2),
		under:   topping.SizeBase(d.base, d.basePct(), d.geo, r.Own),
		target:  d.style.UsualSet,
		book:    message.NewBook(usualArgs),
	}
	for _, w := range d.late {
		x := topping.Size(w, d.geo.RimAreaCM2)
		p.late = append(p.late, x)
		p.lateG += x.G
		p.lateML += x.VolumeML
	}
	if r.SetTarget != nil {
		p.target = *r.SetTarget
	}
	p.use = filling.Use{DoughSoakG: p.top.SoakG + p.under.SoakG, SteamedOffG: d.style.SteamGCM2 * d.geo.RimAreaCM2}
	if d.sealed() {
		p.use.DoughSoakG -= (1 - sealSoak) * p.under.SoakG
	}
	for _, x := range p.late {
		p.use.DoughSoakG += x.SoakG
	}
	if r.SteamedOffG != nil {
		p.use.SteamedOffG = *r.SteamedOffG
	}
	p.thinTopping()
	fruitG, limit := p.fruit()
	if fruitG < leastFruitG {
		var f fault.Faults
		f.Add(
			"/topping",
			message.New(
				"leaves no room for fruit in a dish {deep} deep ({topping} of topping, {base} of base): use a thinner topping or a deeper dish",
				message.Centimetres(
					r.Dish.DepthCM,
				),
				message.Millimetres(p.top.ThicknessMM*d.wanted.Topping.Layers),
				message.Millimetres(p.under.ThicknessMM),
			),
		)
		return nil, f
	}
	s := p.at(fruitG)
	return p.answer(s, limit), nil
}

// The least fruit that is an answer, a spoonful, and the most that is asked for.
const (
	leastFruitG = 10.0
	mostFruitG  = 30000.0
)

// A usual topping becomes at the least this share of its thickness, where it is too thick for little fruit, and the
// search for that share comes this near.
const (
	thinnestTopping = 0.4
	nearTopping     = 1e-4
)

// thinTopping makes a usual topping thinner where it would be deeper than is usual on so little fruit: in a shallow
// dish. A thickness or an amount that was entered stays, and so does a topping on fruit that was weighed or bought.
func (p *plan) thinTopping() {
	t := p.req.Topping
	if t.ThicknessMM > 0 || t.Amount != "" || p.req.WeighedFruitG != nil || p.req.BoughtFruitG != nil ||
		p.top.ThicknessMM == 0 {
		return
	}
	whole, others := p.top, p.use.DoughSoakG-p.top.SoakG
	share := bisect(thinnestTopping, 1, nearTopping, func(share float64) bool {
		p.top.ThicknessMM, p.top.VolumeML = share*whole.ThicknessMM, share*whole.VolumeML
		p.use.DoughSoakG = others + share*whole.SoakG
		fruitG, _ := p.fruit()
		deep := 10 * fruitG / (p.filling.HandPackedGPerML() * p.geo.RimAreaCM2)
		return p.top.ThicknessMM <= p.style.DepthHigh*deep
	})
	w := p.wanted
	w.ThicknessMM = share * whole.ThicknessMM
	p.top = topping.Size(w, p.geo.RimAreaCM2)
	p.use.DoughSoakG = others + p.top.SoakG
}

// fruit is the weight of the fruit and what decided it.
func (p *plan) fruit() (float64, string) {
	if g := p.req.WeighedFruitG; g != nil {
		return *g, byWeight
	}
	if g := p.req.BoughtFruitG; g != nil {
		return *g / p.boughtPerPrepared(), byWeight
	}
	byVolume := p.fruitByFill()
	if byVolume < leastFruitG || p.at(byVolume).headspaceMM >= p.style.KeepMM {
		return byVolume, byFill
	}
	return p.mostFruit(p.style.KeepMM, byVolume), byHeadspace
}

// fruitByFill is the fruit that the style's rule asks for.
func (p *plan) fruitByFill() float64 {
	switch p.style.FillRule {
	case larder.FillFloor:
		return p.style.Fill * p.geo.FloorAreaCM2
	case larder.FillShell:
		return p.style.Fill * (p.geo.VolumeML - p.under.VolumeML) * p.filling.HandPackedGPerML()
	}
	return (p.style.Fill*p.geo.VolumeML - p.top.VolumeML - p.lateML - p.under.VolumeML) * p.filling.HandPackedGPerML()
}

// mostFruit is the most fruit, up to most, that leaves mm of hot headspace. Headspace falls as fruit rises.
func (p *plan) mostFruit(mm, most float64) float64 {
	return bisect(0, most, fine, func(g float64) bool { return g < leastFruitG || p.at(g).headspaceMM >= mm })
}

// How near a search comes, in g: for weights, and for what is reported in tens of grams.
const (
	fine   = 1e-3
	coarse = 0.5
)

// bisect finds where holds turns from true to false between lo and hi.
func bisect(lo, hi, enough float64, holds func(float64) bool) float64 {
	if holds(hi) {
		return hi
	}
	for hi-lo > enough {
		mid := (lo + hi) / 2
		if holds(mid) {
			lo = mid
		} else {
			hi = mid
		}
	}
	return lo
}

// at calculates the dessert for a weight of fruit.
func (p *plan) at(fruitG float64) candidate {
	sugarG := 0.0
	switch {
	case p.fixed != nil:
		sugarG = p.fixed.SugarG
	case p.req.SugarG != nil:
		sugarG = *p.req.SugarG
	case p.req.Sweetness != "savoury":
		sugarG = p.filling.SugarG(fruitG, p.sugarTarget(p.filling.AcidPct(fruitG)))
	}
	s := candidate{State: p.filling.At(fruitG, sugarG, p.use)}
	switch {
	case p.fixed != nil:
		s.thickenerG = p.fixed.thickenerG
	case p.givenG != nil:
		s.thickenerG = *p.givenG
	default:
		s.thickenerG = s.Solve(p.target, p.thickener, p.beside, p.req.LongBoil)
	}
	s.score = s.Score(p.doses(s.thickenerG), p.req.LongBoil)
	s.headspaceMM = p.headspaceMM(s)
	return s
}

func (p *plan) sugarTarget(acidPct float64) float64 {
	return filling.SugarTargetPct(acidPct, p.style.SugarPct, tasteMore[p.req.Sweetness])
}

// doses is the thickener at g grams and those in addition to it. The slice is the plan's own and good until the next
// call: the search for the fruit's weight asks for it some hundred times.
func (p *plan) doses(g float64) []filling.Dose {
	if p.dosed == nil {
		p.dosed = append([]filling.Dose{{Thickener: p.thickener}}, p.beside...)
	}
	p.dosed[0].G = g
	return p.dosed
}

// allThickenerG is the weight of every thickener in the dish.
func (p *plan) allThickenerG(s candidate) float64 {
	g := s.thickenerG
	for _, d := range p.beside {
		if d.Thickener.Key != eggKey { // an egg's weight is among the liquids
			g += d.G
		}
	}
	return g
}

// hotFillingML is the volume of the boiling filling, swollen by steam.
func (p *plan) hotFillingML(s candidate) float64 {
	return (s.MassG + p.allThickenerG(s)) / filling.JuiceDensityGPerM * (1 + boilSwell*s.JuiceSharePct/100)
}

func (p *plan) headspaceMM(s candidate) float64 {
	hot := p.hotFillingML(s) + p.hotShare()*(p.top.VolumeML+p.lateML) + p.under.VolumeML
	return 10 * (p.geo.VolumeML - hot) / p.geo.RimAreaCM2
}

// volumeUnsure is how far a volume by the sizes may be off: rounded corners, walls that lean, a floor that domes.
// Working figure.
const volumeUnsure = 0.08

// unsure is what that comes to in fruit, g; nothing where the dish was filled with water, or its volume does not
// decide.
func (p *plan) unsure(limit string) float64 {
	if p.req.Dish.MeasuredML > 0 || limit == byWeight || p.style.FillRule == larder.FillFloor {
		return 0
	}
	return volumeUnsure * p.style.Fill * p.geo.VolumeML * p.filling.HandPackedGPerML()
}

// tolerance returns how far the weight of the fruit may be off, with sugar and thickener as weighed. Beyond it the set
// leaves its band, or the dish may boil over. It is in whole tens of grams, and 0 where the answer is at such a border
// already.
func (p *plan) tolerance(s candidate) float64 {
	const furthest = 0.3 // of the fruit; beyond it, nobody would call it the same dessert
	q := *p
	q.fixed = &s
	band := filling.BandOf(s.score)
	holds := func(g float64) bool {
		x := q.at(g)
		return filling.BandOf(x.score) == band && (x.headspaceMM >= boilOverWarnMM || s.headspaceMM < boilOverWarnMM)
	}
	up := bisect(s.FruitG, s.FruitG*(1+furthest), coarse, holds) - s.FruitG
	down := bisect(0, s.FruitG*furthest, coarse, func(less float64) bool { return holds(s.FruitG - less) })
	return 10 * math.Floor(min(up, down)/10)
}
