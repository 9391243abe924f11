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

	rimM        = 0.025 // m, width of the rim column; working figure
	rimMost     = 0.75  // of the area
	fillRho     = 1030.0
	fillC       = 3650.0
	fillMeltC   = 116000.0 // J/kgK between the two below: 290 kJ/kg of ice
	fillFrozenC = 1900.0
	meltFrom    = -3.0
	meltTo      = -0.5
	kRaw        = 0.30 // W/mK, a heap with air in it; working figure, as the two below
	kThick      = 0.65
	kStirred    = 1.60 // more where thin juice stirs itself
	kSetPct     = 4.0
	softFrom    = 60.0 // C, where the heap begins to collapse
	softTo      = 85.0
	baseRho     = 1150.0
	baseC       = 2300.0
	baseK       = 0.28
	floorShare  = 0.8  // of the convection, below the dish
	contactR    = 1e-4 // m2K/W, dish to food
	coverAir    = 20.0 // W/m2K, under a cover
	topEps      = 0.95
	holdOver    = 0.2 // K over boiling, where wet cells are held
	lastTenth   = 0.1 // of a base's water: steam takes less and less of the heat
	dryRate     = 5.5e-8
	dryHc       = 7.0
	dryAirPa    = 2500.0
	dryFrom     = 40.0 // C, of the face
	dryMost     = 0.9  // of the heat that reaches the face
	faceNear    = 0.02 // K, how near the search for the face comes
	dryThin     = 0.25 // of the water at the start, below which drying slows
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
// it runs.
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
	given  float64    // J from the oven
	baseAt int        // first base layer, -1 without
	fillAt int
	topAt  int // first topping layer, n without

	perimeter, length, apart float64 // m
	floorMM, panK, panC, eps float64
	boil                     float64
	kCooked                  float64
	top                      *Topping
	gap                      float64
	brown                    float64
	bare                     bool // until the topping is added

	half   [2][most]float64 // m2K/W, the resistance of half a cell; the filling's as of the last pass
	fix    [2][most]float64 // J/K, for cells whose capacity does not change; 0 for filling
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

// newModel lays the cells of a checked request.
func newModel(r Request) *model {
	g := r.Dish.Measure()
	m := &model{gap: or(r.GapShare, 0.05), baseAt: -1}
	a, p := g.RimAreaCM2*1e-4, g.PerimeterCM*1e-2
	m.perimeter = p
	m.area[rim] = min(rimM*p, rimMost*a)
	m.area[core] = a - m.area[rim]
	m.length = max(p-0.2, 0.2*p)
	m.apart = (rimM + m.area[core]/(2*m.length)) / 2
	mat, _ := larder.Materials.Get(r.Dish.Material)
	m.floorMM, m.panK, m.panC, m.eps = mat.FloorMM*1e-3, mat.ConductivityWMK, mat.ArealHeatJM2K, mat.Emissivity
	s := or(r.Filling.JuiceSugarShare, 0.3)
	m.boil = 100 - r.AltitudeM/300 + 1.2*s*(1+s)/(1-s)
	m.kCooked = kThick + kStirred*math.Exp(-or(r.Filling.SetPct, 4)/kSetPct)
	m.add(floorLayer, 1, m.floorMM, or(r.DishStartC, 18))
	if b := r.Base; b != nil {
		m.baseAt = m.n
		dz := b.ThicknessMM * 1e-3 / cellsBase
		m.add(baseLayer, cellsBase, dz, or(b.StartC, 18))
		for c := range 2 {
			m.water0[c] = or(b.WaterPct, 20) / 100 * baseRho * dz * m.area[c]
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
		for _, x := range r.Stages {
			m.bare = m.bare || x.AddTopping
		}
		if !m.bare {
			m.lay()
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
			m.fix[c][m.n] = m.fixed(k) * a * map[bool]float64{true: 1, false: dz}[k == floorLayer]
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

// lay puts the topping on.
func (m *model) lay() {
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
		m.lay()
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

// enthalpy of the filling, J/kg, from 0 C.
func enthalpy(t float64) float64 {
	switch {
	case t >= meltTo:
		return fillC * t
	case t >= meltFrom:
		return fillC*meltTo + fillMeltC*(t-meltTo)
	}
	return fillC*meltTo + fillMeltC*(meltFrom-meltTo) + fillFrozenC*(t-meltFrom)
}

// fixed is the heat capacity of what does not freeze, J/m3K, and of the floor J/m2K; 0 for filling.
func (m *model) fixed(k kind) float64 {
	switch k {
	case floorLayer:
		return m.panC
	case baseLayer:
		return baseRho * baseC
	case topLayer:
		return m.top.DensityGPerML * 1000 * m.top.HeatJKgK
	}
	return 0
}

// block is two rows of the system, of core and rim: a b; c d.
type block struct{ a, b, c, d float64 }

// capacity of a cell, J/K, and what a step that begins at from and is now thought to end at the cell's temperature has
// besides, J: the melting of ice is a kink, and Newton's tangent takes it.
func (m *model) capacity(c, i int, from float64) (stored, rest float64) {
	if fix := m.fix[c][i]; fix > 0 {
		return fix, 0
	}
	v := fillRho * m.dz[i] * m.area[c]
	to := m.t[c][i]
	if to > meltTo && from > meltTo {
		return v * fillC, 0
	}
	slope := fillC
	switch {
	case to < meltFrom:
		slope = fillFrozenC
	case to < meltTo:
		slope = fillMeltC
	}
	// v (H(to) + slope (T - to) - H(from)) = v slope (T - from) - rest
	return v * slope, v * (slope*(to-from) - (enthalpy(to) - enthalpy(from)))
}

// warming is the heat that takes a cell from one temperature to another, J.
func (m *model) warming(c, i int, from, to float64) float64 {
	if m.kinds[i] == fillLayer {
		return fillRho * m.dz[i] * m.area[c] * (enthalpy(to) - enthalpy(from))
	}
	stored, _ := m.capacity(c, i, from)
	return stored * (to - from)
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
	eps   [2]float64 // of the cover over each column, 0 for none
}

func ovenOf(r Request, s Stage) oven {
	o := oven{setting: heatings[s.Heating], c: s.OvenC, below: 1, above: 1}
	if o.oven {
		on := r.Shelf
		if s.Shelf != "" {
			on = s.Shelf
		}
		shelf := shelves[on]
		o.c += r.OvenOffsetC
		o.below, o.above = shelf[0]*o.setting.below, shelf[1]*o.setting.above
	}
	if e, covered := coverEps[s.Cover]; covered {
		o.eps[rim] = e
		if s.Cover != "rim" {
			o.eps[core] = e
		}
	}
	return o
}

// hTop is what reaches the face of a column at a temperature, W/m2K.
func (o oven) hTop(c int, surface float64) float64 {
	if e := o.eps[c]; e > 0 {
		h := o.hc + o.above*radiation(e, o.c, surface)
		return 1 / (1/h + 1/coverAir)
	}
	return o.hc + o.above*radiation(topEps, o.c, surface)
}

// psat is the pressure of steam over water, Pa.
func psat(t float64) float64 { return 610.94 * math.Exp(17.625*t/(t+243.04)) }

// surface balances the face of a column, which has no mass: its temperature, and what dries, kg/m2s. g is the half
// cell's conductance below it, W/m2K.
func (m *model) surface(o oven, c int, g, below float64, water float64) (h, face, dry float64) {
	face = m.face[c]
	dries := m.top != nil && !m.bare && water > 0 && o.eps[c] == 0
	a := 0.0
	if dries {
		a = min(1, water/(dryThin*m.skin0))
	}
	law := dryRate * o.hc / dryHc * a
	for range 6 {
		before := face
		h = o.hTop(c, face)
		bare := (h*o.c + g*below) / (h + g)
		if !dries || bare <= dryFrom {
			face, dry = bare, 0
			if math.Abs(face-before) < faceNear {
				break
			}
			continue
		}
		// one step of Newton on the face, with the law's slope
		p := psat(face)
		slope := p * 17.625 * 243.04 / ((face + 243.04) * (face + 243.04))
		dry = law * max(0, p-dryAirPa)
		d := law * slope
		if p <= dryAirPa {
			d = 0
		}
		limit := dryMost * h * (o.c - face) / latent
		if dry > limit {
			// the limit: h (To - Ts) (1 - 0.9) = g (Ts - T)
			kept := h * (1 - dryMost)
			face = (kept*o.c + g*below) / (kept + g)
			dry = dryMost * h * (o.c - face) / latent
			if law*max(0, psat(face)-dryAirPa) < dry { // the law is the lesser again: between the two
				face = (face + m.face[c]) / 2
			}
		} else {
			face += (h*(o.c-face) - dry*latent - g*(face-below)) / (h + g + d*latent)
		}
		if face < dryFrom {
			face = dryFrom
			dry = max(0, (h*(o.c-face)-g*(face-below))/latent)
		}
		if math.Abs(face-before) < faceNear {
			break
		}
	}
	if dries && face > dryFrom {
		dry = max(0, (h*(o.c-face)-g*(face-below))/latent)
	}
	return h, face, dry
}
