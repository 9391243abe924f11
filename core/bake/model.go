package bake

import (
	"math"

	"mabbin/core/larder"
)

// The constants of the model. Heat transfer and composition are handbook figures; those marked so are working figures
// of this project, which the kitchen's log corrects.
const (
	kelvin = 273.15
	sigma  = 5.67e-8 // W/m2K4, Stefan and Boltzmann
	latent = 2.26e6  // J/kg, of steam

	rimM        = 0.025 // m, of rim to a dish's half width; working figure, as the one below
	coreLeast   = 0.40  // of the dish's width, in a small one
	wallShare   = 3.0   // the heat of the wall has a third of the rim's width to cross
	fillRho     = 1030.0
	fillC       = 3650.0
	fillMeltC   = 98000.0 // J/kgK between the two below: 245 kJ/kg of ice, as a part of the water stays liquid
	fillFrozenC = 1900.0
	meltFrom    = -3.0
	meltTo      = -0.5
	kRaw        = 0.50 // W/mK, raw fruit in its juice; working figure, as the two below
	kThick      = 0.65
	kStirred    = 1.60 // more where thin juice stirs itself
	kSetPct     = 4.0
	softFrom    = 50.0 // C, where the fruit begins to soften
	softTo      = 80.0
	baseRho     = 1150.0
	baseC       = 2300.0
	baseK       = 0.28
	floorShare  = 0.8  // of the convection, below the dish
	contactR    = 1e-4 // m2K/W, dish to food
	coverAir    = 20.0 // W/m2K, under a cover
	looseLeak   = 0.3  // of the exchange of an open top, past a cover that lies loose; working figure, as the one below
	tightLeak   = 0.1  // past a lid, a rim shield, and foil or parchment that is crimped all round
	topEps      = 0.95
	holdOver    = 0.2  // K over boiling, where wet cells are held
	lastTenth   = 0.1  // of a base's water: steam takes less and less of the heat
	parBakedHas = 0.35 // of its water is left in a par-baked base; working figure
	dryRate     = 5.5e-8
	dryHc       = 7.0
	dryAirPa    = 2500.0
	dryFrom     = 40.0 // C, of the face
	dryMost     = 0.9  // of the heat that reaches the face
	faceNear    = 0.02 // K, how near the search for the face comes
	faceTries   = 24
	dryThin     = 0.25 // of the water at the start, below which drying slows
	steamGap    = 0.10 // of a topping lets steam through in addition to its gaps, on the rack; working figure
	mostSugar   = 0.6  // of the juice
	pushedGap   = 0.35
	pushedWater = 0.5

	cellsBase, cellsFill, cellsTop = 4, 12, 6
	middleCell                     = 6 // the 7th of the filling, from below
	most                           = 1 + cellsBase + cellsFill + cellsTop
)

// Column indices.
const (
	core = 0
	rim  = 1
)

// kind is what a layer is made of.
type kind uint8

const (
	floorLayer kind = iota
	baseLayer
	fillLayer
	topLayer
)

// model is a dish under way. Layers are from below; each has a cell in both columns. Nothing in it is allocated while
// it runs. Each run has a model of its own: what happens at every step is not looked at by the race detector
// (go:norace), which would take ten times as long for it.
type model struct {
	n      int // layers
	kinds  [most]kind
	dz     [most]float64    // m
	area   [2]float64       // m2
	t      [2][most]float64 // C
	water  [2][cellsBase]float64
	water0 [2]float64 // kg in a base cell at the start
	skin   [2]float64 // kg/m2 of water that the topping may still give
	skin0  float64
	face   [2]float64 // C
	dried  [2]float64 // kg/m2s, of the topping's face in the last pass
	steam  float64    // kg from the filling
	// kg of water that topping and base gave off
	driedOff float64
	// what the top cell of a filling gives off as it cools, by the last pass: kg/s at 0 C, and kg/sK
	coolT, coolW [2]float64
	given        float64 // J from the oven
	baseAt       int     // first base layer, -1 without
	fillAt       int
	topAt        int // first topping layer, n without

	perimeter, width, length, apart float64 // m: of the dish, of its rim, of the columns' contact, between them
	floorMM, panK, panC, eps        float64
	boil                            float64
	kCooked                         float64
	top                             *Topping
	gap                             float64
	brown                           float64
	bare                            bool // until the topping is added

	ice    [2][most]phase   // of a filling cell, as of the last pass
	half   [2][most]float64 // m2K/W, the resistance of half a cell; the filling's as of the last pass
	fix    [2][most]float64 // J/K, the capacity of a cell without ice
	icy    bool             // this step has ice in it
	holds  int              // cells that are held
	old    [2][most]float64 // C, where the step began
	lastDt float64          // s
	inv    [most]block      // what the elimination has met
	met    [2][most]float64
	up     [most][2]float64 // conductance to the layer above, 0 for a held cell's row
	held   [2][most]bool
	kept   [2][most]float64 // share of the net heat that a base cell keeps while it boils dry
	lo     [2][most]float64 // conductances downward, W/K
	diag   [2][most]float64
	rhs    [2][most]float64
	side   [most]float64 // between the columns, W/K
	outW   [2][most]float64
	outT   [2][most]float64 // W from the outside at 0 C inside: heat = outT - outW*T
}

// newModel sets up the cells of a checked request.
func newModel(r Request) *model {
	g := r.Dish.Measure()
	m := &model{gap: or(r.GapShare, 0.05), baseAt: -1}
	a, p := g.RimAreaCM2*1e-4, g.PerimeterCM*1e-2
	half := 2 * a / p // of a round dish this is its radius
	similar := max(1-rimM/half, coreLeast)
	m.perimeter, m.width = p, (1-similar)*half
	m.area[core] = similar * similar * a
	m.area[rim] = a - m.area[core]
	m.length = similar * p
	m.apart = m.width/2 + m.area[core]/m.length
	mat, _ := larder.Materials.Get(r.Dish.Material)
	m.floorMM, m.panK, m.panC, m.eps = mat.FloorMM*1e-3, mat.ConductivityWMK, mat.ArealHeatJM2K, mat.Emissivity
	m.boil = boilingC(&r)
	m.kCooked = kThick + kStirred*math.Exp(-or(r.Filling.SetPct, 4)/kSetPct)
	m.add(floorLayer, 1, m.floorMM, or(r.DishStartC, 18))
	if b := r.Base; b != nil {
		m.baseAt = m.n
		dz := b.ThicknessMM * 1e-3 / cellsBase
		m.add(baseLayer, cellsBase, dz, or(b.StartC, 18))
		left := 1.0
		if b.ParBaked {
			left = parBakedHas
		}
		for c := range 2 {
			m.water0[c] = left * or(b.WaterPct, 20) / 100 * baseRho * dz * m.area[c]
			for i := range cellsBase {
				m.water[c][i] = m.water0[c]
			}
		}
	}
	m.fillAt = m.n
	m.add(fillLayer, cellsFill, r.Filling.MassG*1e-3/(fillRho*a)/cellsFill, or(r.Filling.StartC, 18))
	m.topAt = m.n
	if t := r.Topping; t != nil && t.ThicknessMM > 0 {
		m.top, m.brown = t, or(t.BrownRate, 1)
		if m.bare = toppedLate(r.Stages); !m.bare {
			m.placeTopping()
		}
	} else {
		m.brown = 1
	}
	for c := range 2 {
		m.face[c] = m.t[c][m.n-1]
		for i := range m.n {
			m.kept[c][i] = 1
		}
	}
	return m
}

func (m *model) add(k kind, n int, dz, start float64) {
	for range n {
		for c, a := range m.area {
			m.fix[c][m.n] = m.fixed(k) * a
			if k != floorLayer {
				m.fix[c][m.n] *= dz
			}
		}
		m.kinds[m.n], m.dz[m.n] = k, dz
		if k == topLayer {
			m.half[core][m.n] = dz / (2 * m.top.ConductivityWMK)
		} else {
			m.half[core][m.n] = dz / (2 * baseK) // the filling's follows its temperature, the floor's the dish
		}
		m.half[rim][m.n] = m.half[core][m.n]
		m.t[core][m.n], m.t[rim][m.n] = start, start
		m.old[core][m.n], m.old[rim][m.n] = start, start
		m.kept[core][m.n], m.kept[rim][m.n] = 1, 1
		m.n++
	}
}

// placeTopping puts the topping on.
func (m *model) placeTopping() {
	t := m.top
	m.bare = false
	m.add(topLayer, cellsTop, t.ThicknessMM*1e-3/cellsTop, or(t.StartC, 8))
	skin := t.ThicknessMM
	if t.DrySkinMM > 0 {
		skin = min(skin, t.DrySkinMM)
	}
	m.skin0 = t.WaterPct / 100 * t.DensityGPerML * 1000 * skin * 1e-3
	for c := range 2 {
		m.skin[c], m.face[c] = m.skin0, or(t.StartC, 8)
	}
}

// enter does what a stage begins with.
func (m *model) enter(s Stage) {
	if s.AddTopping && m.bare && m.top != nil {
		m.placeTopping()
	}
	if s.PushUnder {
		m.pushUnder()
	}
}

// pushUnder pushes the crust into the juice.
func (m *model) pushUnder() {
	m.gap = pushedGap
	for c := range 2 {
		m.skin[c] = max(m.skin[c], pushedWater*m.skin0)
	}
}

// boilingC is the boiling point of the juice: sugar raises it, height lowers it.
func boilingC(r *Request) float64 {
	s := sugarOfJuice(r)
	return 100 - r.AltitudeM/300 + 1.2*s*(1+s)/(1-s)
}

// sugarOfJuice is the share of sugar in the juice, before soaking and steaming.
func sugarOfJuice(r *Request) float64 { return min(mostSugar, or(r.Filling.JuiceSugarShare, 0.3)) }

// phase is the branch of the enthalpy that a filling cell is on.
type phase uint8

const (
	thawed phase = iota
	melting
	frozen
)

func phaseAt(t float64) phase {
	switch {
	case t >= meltTo:
		return thawed
	case t >= meltFrom:
		return melting
	}
	return frozen
}

// enthalpy of the filling on a branch, J/kg from 0 C, carried on beyond its ends.
func (p phase) enthalpy(t float64) float64 {
	switch p {
	case thawed:
		return fillC * t
	case melting:
		return fillC*meltTo + fillMeltC*(t-meltTo)
	}
	return fillC*meltTo + fillMeltC*(meltFrom-meltTo) + fillFrozenC*(t-meltFrom)
}

// capacity is the slope of a branch, J/kgK.
func (p phase) capacity() float64 {
	return [...]float64{thawed: fillC, melting: fillMeltC, frozen: fillFrozenC}[p]
}

// enthalpy of the filling, J/kg, from 0 C.
func enthalpy(t float64) float64 { return phaseAt(t).enthalpy(t) }

// temperatureOf is the temperature of filling with an enthalpy, J/kg: ice takes most of the heat of a mixture.
func temperatureOf(h float64) float64 {
	switch {
	case h >= enthalpy(meltTo):
		return h / fillC
	case h >= enthalpy(meltFrom):
		return meltTo + (h-enthalpy(meltTo))/fillMeltC
	}
	return meltFrom + (h-enthalpy(meltFrom))/fillFrozenC
}

// fixed is the heat capacity, J/m3K, of the floor J/m2K, and of filling without ice.
func (m *model) fixed(k kind) float64 {
	switch k {
	case floorLayer:
		return m.panC
	case baseLayer:
		return baseRho * baseC
	case topLayer:
		return m.top.DensityGPerML * 1000 * m.top.HeatJKgK
	}
	return fillRho * fillC
}

// block is two rows of the system, of core and rim: a b; c d.
type block struct{ a, b, c, d float64 }

// capacity of a cell, J/K, and what a step from a temperature has in addition to, J, where ice melts on the way.
func (m *model) capacity(c, i int, from float64) (stored, rest float64) {
	if !m.icy || m.kinds[i] != fillLayer {
		return m.fix[c][i], 0
	}
	v := fillRho * m.dz[i] * m.area[c]
	p := m.ice[c][i]
	return v * p.capacity(), v * (enthalpy(from) - p.enthalpy(from))
}

// warming is the heat that takes a cell from one temperature to another, J.
func (m *model) warming(c, i int, from, to float64) float64 {
	if !m.icy && min(from, to) >= meltTo || m.kinds[i] != fillLayer {
		return m.fix[c][i] * (to - from)
	}
	return fillRho * m.dz[i] * m.area[c] * (enthalpy(to) - enthalpy(from))
}

// radiation is the linearised coefficient of a grey surface in an oven.
func radiation(eps, oven, surface float64) float64 {
	a, b := oven+kelvin, surface+kelvin
	return eps * sigma * (a*a + b*b) * (a + b)
}

// oven is a stage as the model sees it.
type oven struct {
	setting
	c     float64 // C
	below float64
	above float64
	sides float64
	eps   [2]float64 // of the cover over each column, 0 for none
	leak  float64    // of the cover
}

func ovenOf(r Request, s Stage) oven {
	o := oven{setting: heatings[s.Heating], c: s.OvenC, below: 1, above: 1, sides: 1}
	if o.oven {
		on := r.Shelf
		if s.Shelf != "" {
			on = s.Shelf
		}
		shelf := shelves[on]
		o.c += r.OvenOffsetC
		o.below, o.above = shelf[0]*o.setting.below, shelf[1]*o.setting.above
		if k := r.HeatFactor; k > 0 {
			o.hc, o.below, o.above, o.sides = k*o.hc, k*o.below, k*o.above, k
		}
	}
	if e, covered := coverEps[s.Cover]; covered {
		o.eps[rim], o.leak = e, leakOf(s)
		if s.Cover != rimCover {
			o.eps[core] = e
		}
	}
	return o
}

// hTop is what reaches the face of a column at a temperature, W/m2K. No cover is tight: a part gets past it.
func (o oven) hTop(c int, surface float64) float64 {
	open := o.hc + o.above*radiation(topEps, o.c, surface)
	if e := o.eps[c]; e > 0 {
		h := o.hc + o.above*radiation(e, o.c, surface)
		return (1-o.leak)/(1/h+1/coverAir) + o.leak*open
	}
	return open
}

// bare is the share of a column's top that gives off steam as if it were open.
func (o oven) bare(c int) float64 {
	if o.eps[c] > 0 {
		return o.leak
	}
	return 1
}

// leakOf is the share of the exchange that gets past a stage's cover.
func leakOf(s Stage) float64 {
	if s.Tight || s.Cover == "lid" || s.Cover == rimCover {
		return tightLeak
	}
	return looseLeak
}

// psat is the pressure of steam over water, Pa.
func psat(t float64) float64 { return 610.94 * math.Exp(17.625*t/(t+243.04)) }

// drying is what the face gives at a temperature by the law, kg/m2s, and how fast that rises, per K: with the water
// that is left at the end of dt seconds.
//
//go:norace
func (m *model) drying(o oven, c int, face, water, dt float64) (dry, slope float64) {
	p := psat(face)
	if p <= dryAirPa {
		return 0, 0
	}
	law := o.bare(c) * dryRate * o.hc / dryHc
	dry, slope = law*(p-dryAirPa), law*p*17.625*243.04/((face+243.04)*(face+243.04))
	if thin := dryThin * m.skin0; water-dry*dt < thin { // a = (water - a dry dt) / thin
		k := thin / (thin + dry*dt)
		dry, slope = dry*water/thin*k, slope*water/thin*k*k
	}
	return dry, slope
}

// surface balances the face of a column, which has no mass: its temperature, and what dries, kg/m2s, over a step of dt
// seconds. g is the half cell's conductance below it, W/m2K.
//
//go:norace
func (m *model) surface(o oven, c int, g, below, dt float64) (h, face, dry float64) {
	face = m.face[c]
	water := m.skin[c]
	dries := m.top != nil && !m.bare && water > 0
	lo, hi := min(below, o.c)-1, max(below, o.c)+1 // the balance falls with the face: it has one root
	for range faceTries {
		before := face
		h = o.hTop(c, face)
		rest := h*(o.c-face) - g*(face-below)
		down := h + g
		dry = 0
		if dries && face > dryFrom {
			law, slope := m.drying(o, c, face, water, dt)
			if limit := max(0, dryMost*h*(o.c-face)/latent); law > limit {
				law, slope = limit, -dryMost*h/latent
				if limit == 0 {
					slope = 0
				}
			}
			dry = law
			rest -= law * latent
			down += slope * latent
		}
		if rest > 0 {
			lo = face
		} else {
			hi = face
		}
		face += rest / down
		if face <= lo || face >= hi {
			face = (lo + hi) / 2
		}
		if before <= dryFrom && face > dryFrom || before > dryFrom && face < dryFrom {
			if law, _ := m.drying(o, c, dryFrom, water, dt); dries && law > 0 && m.stuck(o, c, g, below, law) {
				h = o.hTop(c, dryFrom)
				return h, dryFrom, max(0, (h*(o.c-dryFrom)-g*(dryFrom-below))/latent)
			}
		}
		if math.Abs(face-before) < faceNear {
			break
		}
	}
	if dry > 0 {
		dry = max(0, (h*(o.c-face)-g*(face-below))/latent)
	}
	return h, face, dry
}

// stuck says whether the face stays at the gate: above it, drying takes more than comes; below it nothing dries.
func (m *model) stuck(o oven, c int, g, below, law float64) bool {
	h := o.hTop(c, dryFrom)
	comes := h*(o.c-dryFrom) - g*(dryFrom-below)
	return comes > 0 && comes < min(law, dryMost*h*(o.c-dryFrom)/latent)*latent
}
