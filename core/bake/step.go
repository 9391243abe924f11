package bake

import "math"

// A step is solved again only where it went elsewhere than predicted, and as often as it takes where ice melts.
const (
	passes    = 2
	icePasses = 40
	nearK     = 0.3
	iceNearK  = 1e-4
)

// step goes on by dt seconds, backward Euler: the coefficients are those of the temperatures that the last step
// points to, or of the last pass; the temperatures of both columns are solved together, layer by layer. What was held
// at boiling is held to begin with: it rarely lets go. Every cell stays on its branch of the enthalpy within a pass.
//
//go:norace
func (m *model) step(o oven, dt float64) {
	m.foresee(dt)
	ice := m.anyIce()
	m.icy = ice
	for pass := 1; ; pass++ {
		guess := m.t
		m.exchange(o, dt)
		for try := range 6 {
			m.assemble(dt)
			m.solve()
			if !m.holdWet(dt) || try == 5 {
				break
			}
		}
		if ice {
			if changed := m.changePhases(); !changed && m.near(&guess, iceNearK) || pass == icePasses {
				break
			}
		} else if pass == passes || m.near(&guess, nearK) {
			break
		}
	}
	m.settle(o, dt)
}

// anyIce says whether a step begins with ice; it sets the branches that it begins on.
//
//go:norace
func (m *model) anyIce() (ice bool) {
	for c := range 2 {
		for i := m.fillAt; i < m.topAt; i++ {
			m.ice[c][i] = phaseAt(m.t[c][i])
			ice = ice || m.old[c][i] < meltTo || m.t[c][i] < meltTo
		}
	}
	return ice
}

// changePhases moves each cell that a pass has carried past the end of its branch to the next one.
//
//go:norace
func (m *model) changePhases() (changed bool) {
	for c := range 2 {
		for i := m.fillAt; i < m.topAt; i++ {
			now := phaseAt(m.t[c][i])
			switch p := m.ice[c][i]; {
			case now > p:
				m.ice[c][i], changed = p+1, true
			case now < p:
				m.ice[c][i], changed = p-1, true
			}
		}
	}
	return changed
}

// predict carries every cell on as the last step moved it.
//
//go:norace
func (m *model) foresee(dt float64) {
	ahead := 0.0
	if m.lastDt > 0 {
		ahead = dt / m.lastDt
	}
	m.lastDt = dt
	for c := range 2 {
		for i := range m.n {
			was := m.t[c][i]
			m.t[c][i] += ahead * (was - m.old[c][i])
			m.old[c][i] = was
		}
	}
}

// near says whether a pass came out where it was thought to.
//
//go:norace
func (m *model) near(guess *[2][most]float64, k float64) bool {
	for c := range 2 {
		for i := range m.n {
			if math.Abs(m.t[c][i]-guess[c][i]) > k {
				return false
			}
		}
	}
	return true
}

// exchange works out every conductance: between stacked cells, between the columns, and to the oven.
//
//go:norace
func (m *model) exchange(o oven, dt float64) {
	top := m.n - 1
	m.soften()
	for c := range 2 {
		a := m.area[c]
		m.outW[c], m.outT[c] = [most]float64{}, [most]float64{}
		below := m.floorMM/(2*m.panK) + contactR // resistance of the half below, m2K/W
		for i := 1; i < m.n; i++ {
			m.lo[c][i] = a / (below + m.half[c][i])
			below = m.half[c][i]
		}
		// below the floor
		h := floorShare*o.hc + o.below*radiation(m.eps, o.c, m.t[c][0])
		u := a / (1/h + m.floorMM/(2*m.panK))
		m.outW[c][0], m.outT[c][0] = u, u*o.c
		// the face
		g := 1 / m.half[c][top]
		h, face, dry := m.surface(o, c, g, m.t[c][top], dt)
		m.face[c], m.dried[c] = face, dry
		u = a * h * g / (h + g)
		m.outW[c][top] += u
		m.outT[c][top] += u*o.c - a*dry*latent*g/(h+g)
		// gaps
		if m.kinds[top] == topLayer && m.gap > 0 {
			i := m.topAt - 1
			u := a * m.gap / (1/o.hTop(c, m.t[c][i]) + m.half[c][i])
			m.outW[c][i] += u
			m.outT[c][i] += u * o.c
		}
		m.steamAway(o, c)
	}
	// the wall
	sum, n := 0.0, 0
	for i := 1; i < m.topAt; i++ {
		sum += m.t[rim][i]
		n++
	}
	h := o.hc + o.sides*radiation(m.eps, o.c, sum/float64(n))
	pan := 1/h + m.floorMM/m.panK
	for i := 1; i < m.topAt; i++ {
		// w / 3k, with k = dz / 2 half
		u := m.perimeter * m.dz[i] / (pan + m.width*2*m.half[rim][i]/(wallShare*m.dz[i]))
		m.outW[rim][i] += u
		m.outT[rim][i] += u * o.c
	}
	m.side[0] = 0
	for i := 1; i < m.n; i++ {
		// the harmonic mean of both conductivities, by the resistances of half a cell
		m.side[i] = m.dz[i] * m.dz[i] * m.length / (m.apart * (m.half[core][i] + m.half[rim][i]))
	}
}

// steamAway is what the top cell of a filling gives off where it stands open and cools: linear about the guess.
//
//go:norace
func (m *model) steamAway(o oven, c int) {
	m.coolT[c], m.coolW[c] = 0, 0
	if o.oven || o.eps[c] > 0 {
		return
	}
	i := m.topAt - 1
	t := m.t[c][i]
	p := psat(t)
	if p <= dryAirPa {
		return
	}
	through := 1.0
	if m.n > m.topAt {
		through = min(1, m.gap+steamGap)
	}
	k := m.area[c] * through * dryRate * o.hc / dryHc
	slope := k * p * 17.625 * 243.04 / ((t + 243.04) * (t + 243.04))
	m.coolT[c], m.coolW[c] = k*(p-dryAirPa)-slope*t, slope
	m.outT[c][i] -= latent * m.coolT[c]
	m.outW[c][i] += latent * m.coolW[c]
}

// soften gives the filling's cells the conductivity of their temperature; nothing else changes its own.
//
//go:norace
func (m *model) soften() {
	perK := (m.kCooked - kRaw) / (softTo - softFrom)
	for c := range 2 {
		for i := m.fillAt; i < m.topAt; i++ {
			k := kRaw + perK*min(softTo-softFrom, max(0, m.t[c][i]-softFrom))
			m.half[c][i] = m.dz[i] / (2 * k)
		}
	}
}

// assemble writes the balance of every cell: diag and rhs; the neighbours are in lo and side.
//
//go:norace
func (m *model) assemble(dt float64) {
	perS := 1 / dt
	for c := range 2 {
		up := m.lo[c][1]
		m.diag[c][0] = m.fix[c][0]*perS + m.outW[c][0] + up
		m.rhs[c][0] = m.fix[c][0]*perS*m.old[c][0] + m.outT[c][0]
		for i := 1; i < m.n; i++ {
			down := up
			if up = 0; i+1 < m.n {
				up = m.lo[c][i+1]
			}
			if m.held[c][i] {
				continue
			}
			if !m.icy && m.kept[c][i] == 1 {
				stored := m.fix[c][i] * perS
				m.diag[c][i] = stored + m.outW[c][i] + m.side[i] + down + up
				m.rhs[c][i] = stored*m.old[c][i] + m.outT[c][i]
				continue
			}
			stored, rest := m.capacity(c, i, m.old[c][i])
			stored *= perS
			if m.kept[c][i] < 1 {
				stored /= m.kept[c][i]
			}
			m.diag[c][i] = stored + m.outW[c][i] + m.side[i] + down + up
			m.rhs[c][i] = stored*m.old[c][i] + rest*perS + m.outT[c][i]
		}
	}
}

// solve eliminates upward in blocks of two, core and rim, and substitutes back.
//
//go:norace
func (m *model) solve() {
	for i := range m.n {
		// this layer's block, with held cells as identity rows
		blk := block{m.diag[core][i], -m.side[i], -m.side[i], m.diag[rim][i]}
		r0, r1 := m.rhs[core][i], m.rhs[rim][i]
		var l0, l1 float64
		if i > 0 {
			l0, l1 = m.lo[core][i], m.lo[rim][i]
		}
		m.up[i] = [2]float64{}
		if i+1 < m.n {
			m.up[i] = [2]float64{m.lo[core][i+1], m.lo[rim][i+1]}
		}
		hold := m.boil + holdOver
		if m.held[core][i] {
			blk.a, blk.b, r0, l0, m.up[i][0] = 1, 0, hold, 0, 0
		}
		if m.held[rim][i] {
			blk.d, blk.c, r1, l1, m.up[i][1] = 1, 0, hold, 0, 0
		}
		if i > 0 {
			// subtract L * inv(prev) * U(prev)
			p := m.inv[i-1]
			u0, u1 := m.up[i-1][0], m.up[i-1][1]
			blk.a -= l0 * p.a * u0
			blk.b -= l0 * p.b * u1
			blk.c -= l1 * p.c * u0
			blk.d -= l1 * p.d * u1
			r0 += l0 * (p.a*m.met[0][i-1] + p.b*m.met[1][i-1])
			r1 += l1 * (p.c*m.met[0][i-1] + p.d*m.met[1][i-1])
		}
		det := 1 / (blk.a*blk.d - blk.b*blk.c)
		m.inv[i] = block{blk.d * det, -blk.b * det, -blk.c * det, blk.a * det}
		m.met[0][i], m.met[1][i] = r0, r1
	}
	var x0, x1 float64
	for i := m.n - 1; i >= 0; i-- {
		r0, r1 := m.met[0][i], m.met[1][i]
		if i+1 < m.n {
			r0 += m.up[i][0] * x0
			r1 += m.up[i][1] * x1
		}
		x0, x1 = m.inv[i].a*r0+m.inv[i].b*r1, m.inv[i].c*r0+m.inv[i].d*r1
		m.t[core][i], m.t[rim][i] = x0, x1
	}
}

// heatIn is the net heat that flows into a cell from its neighbours and from outside, W.
//
//go:norace
func (m *model) heatIn(c, i int) float64 {
	t := m.t[c][i]
	q := m.outT[c][i] - m.outW[c][i]*t + m.side[i]*(m.t[1-c][i]-t)
	if i > 0 {
		q += m.lo[c][i] * (m.t[c][i-1] - t)
	}
	if i+1 < m.n {
		q += m.lo[c][i+1] * (m.t[c][i+1] - t)
	}
	return q
}

// wet says whether a cell is held at boiling: filling always, base while it has more than its last tenth of water.
func (m *model) wet(c, i int) bool {
	switch m.kinds[i] {
	case fillLayer:
		return true
	case baseLayer:
		return m.water[c][i-m.baseAt] > lastTenth*m.water0[c]
	}
	return false
}

// holdWet holds the cells that would pass boiling, and lets those go that lose heat. It says whether anything
// changed, so that the step is solved again.
//
//go:norace
func (m *model) holdWet(dt float64) bool {
	changed := false
	hold := m.boil + holdOver
	if m.holds == 0 && m.hottestFilling() <= hold {
		return false
	}
	for c := range 2 {
		for i := 1; i < m.topAt; i++ {
			switch {
			case m.held[c][i]:
				need := m.warming(c, i, m.old[c][i], hold) / dt
				if m.heatIn(c, i) < need {
					m.held[c][i] = false
					m.holds--
					changed = true
				}
			case m.t[c][i] > hold+1e-9 && m.wet(c, i) && m.t[c][i] > m.old[c][i]:
				m.held[c][i] = true
				m.holds++
				changed = true
			}
		}
	}
	return changed
}

// hottestFilling is the highest temperature of what may boil.
func (m *model) hottestFilling() float64 {
	t := math.Inf(-1)
	for c := range 2 {
		for i := 1; i < m.topAt; i++ {
			t = max(t, m.t[c][i])
		}
	}
	return t
}

// settle books what the step has done: steam, water of base and topping, and how soft each cell has been.
//
//go:norace
func (m *model) settle(o oven, dt float64) {
	hold := m.boil + holdOver
	for c := range 2 {
		if m.coolW[c] > 0 {
			gone := dt * (m.coolT[c] + m.coolW[c]*m.t[c][m.topAt-1])
			m.steam += gone
			m.given += gone * latent // booked as steam, not as heat to the room
		}
		for i := range m.n {
			if m.outW[c][i] != 0 {
				m.given += (m.outT[c][i] - m.outW[c][i]*m.t[c][i]) * dt
			}
			if m.kinds[i] == topLayer {
				continue
			}
			q := 0.0
			if m.held[c][i] {
				q = m.heatIn(c, i)*dt - m.warming(c, i, m.old[c][i], hold)
			} else if m.kinds[i] == baseLayer && m.kept[c][i] < 1 && m.t[c][i] > m.old[c][i] {
				q = (1 - m.kept[c][i]) * m.heatIn(c, i) * dt
			}
			if q <= 0 {
				continue
			}
			if m.kinds[i] == baseLayer {
				left := max(0, m.water[c][i-m.baseAt]-q/latent)
				m.driedOff += m.water[c][i-m.baseAt] - left
				m.water[c][i-m.baseAt] = left
			} else {
				m.steam += q / latent
			}
		}
		if m.baseAt >= 0 {
			for i := m.baseAt; i < m.baseAt+cellsBase; i++ {
				m.kept[c][i] = 1
				if m.held[c][i] && !m.wet(c, i) {
					m.held[c][i] = false
					m.holds--
				}
				left := m.water[c][i-m.baseAt] / m.water0[c]
				if m.water0[c] > 0 && left <= lastTenth && m.t[c][i] > m.boil {
					m.kept[c][i] = max(0.02, 1-left/lastTenth)
				}
			}
		}
		left := max(0, m.skin[c]-m.dried[c]*dt)
		m.driedOff += (m.skin[c] - left) * m.area[c]
		m.skin[c] = left
	}
	// the face as it is now, for the clocks
	top := m.n - 1
	for c := range 2 {
		_, m.face[c], _ = m.surface(o, c, 1/m.half[c][top], m.t[c][top], 0)
		if math.IsNaN(m.face[c]) {
			m.face[c] = m.t[c][top]
		}
	}
}
