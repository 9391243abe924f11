package bake

import (
	"math"
)

// Answer is how a bake goes.
type Answer struct {
	BoilingPointC float64 `json:"boiling_point_c"`
	Events        Events  `json:"events"`
	End           End     `json:"end"`
	Curves        Curves  `json:"curves"`
}

// Events are minutes from the start; nil for what does not happen.
type Events struct {
	RimBubbles     *float64 `json:"rim_bubbles_min"`
	MiddleBubbles  *float64 `json:"middle_bubbles_min"`
	Coldest85      *float64 `json:"coldest_85_min"`
	Coldest95      *float64 `json:"coldest_95_min"`
	ToppingThrough *float64 `json:"topping_through_min"`
	Golden         *float64 `json:"golden_min"`
	BaseBaked      *float64 `json:"base_baked_min"`
}

// End is where the clocks stand when the last stage is over.
type End struct {
	FruitMinutes float64 `json:"fruit_minutes"`
	Colour       float64 `json:"colour"`
	RimColour    float64 `json:"rim_colour"`
	Base         float64 `json:"base"`
	SetShare     float64 `json:"set_share"`
	SteamedOffG  float64 `json:"steamed_off_g"` // of the filling
	DriedOffG    float64 `json:"dried_off_g"`   // of topping and base
}

// Curves have a point at least every minute.
type Curves struct {
	Minute   []float64 `json:"minute"`
	MiddleC  []float64 `json:"middle_c"`
	ColdestC []float64 `json:"coldest_c"`
	RimC     []float64 `json:"rim_c"`
	SurfaceC []float64 `json:"surface_c"`
	FloorC   []float64 `json:"floor_c"`
	// The clocks on their way: the fruit's minutes, the colour, the base.
	Fruit  []float64 `json:"fruit_minutes"`
	Colour []float64 `json:"colour"`
	Base   []float64 `json:"base"`
}

// The laws of the clocks.
const (
	fruitPer10   = 25.0  // K for ten times as fast
	colourAtC    = 148.0 // where a pale face takes golden minutes
	colourPer2   = 14.0  // K for twice as fast
	colourMost   = 3.0   // browning slows towards it
	goldenMin    = 20.0
	underCover   = 0.35 // of the colour, where a cover is tight; the rest by what gets past it
	baseAtC      = 115.0
	basePer2     = 10.0
	baseMin      = 20.0
	baseParBaked = 0.9 // where the clock of a par-baked base begins
	throughC     = 93.0
	// Sugar delays the set: K a percent of sugar in the juice above so many. Working figures.
	delayPerPct    = 0.25
	delayFromPct   = 35.0
	rimBubblesC    = 1.5 // below boiling
	middleBubblesC = 10.0
	stepS          = 20.0 / 3 // nine fill a minute, and three the planner's step of 20 s
	coolStepS      = 20.0
)

// Run bakes. A bad request is fault.Faults.
func Run(r Request) (*Answer, error) {
	if err := Check(r); err != nil {
		return nil, err
	}
	return bakeThrough(&r, r.Stages).answer(), nil
}

// stride is the length of a step, s. Cooling is slow.
func (o oven) stride() float64 {
	if !o.oven {
		return coolStepS
	}
	return stepS
}

func (m *model) coldest(c, from, to int) float64 {
	t := math.Inf(1)
	for i := from; i < to; i++ {
		t = min(t, m.t[c][i])
	}
	return t
}

// clocks run while the model does.
type clocks struct {
	m          *model
	now        float64 // s
	fruit      float64 // minutes at 100 C
	colour     [2]float64
	base       float64
	full, hold float64 // C, s
	hot        [2][cellsFill]float64
	soft       [2][cellsFill]float64 // how fast each softened at the end of the last step, minutes a minute
	hottest    float64               // the middle has been, C
	steam      float64               // kg from the filling, in the oven
	late       bool                  // the topping went on when the bake was under way
	was        seen
}

func newClocks(r Request, m *model) clocks {
	c := clocks{m: m, full: 90, hold: 60}
	if t := r.Thickener; t != nil {
		c.full, c.hold = t.FullAtC, t.HoldMin*60
	}
	c.full = min(c.full+delayPerPct*max(0, 100*sugarOfJuice(&r)-delayFromPct), m.boil-1)
	c.hottest = m.middleC()
	if r.Base != nil && r.Base.ParBaked {
		c.base = baseParBaked
	}
	for col := range 2 {
		for i := range cellsFill {
			c.soft[col][i] = softening(m.t[col][m.fillAt+i])
		}
	}
	return c
}

// seen are the figures that events are read off, as they were a step ago.
type seen struct {
	now                                 float64
	rim, coldest, topping, colour, base float64
	faces                               [2]float64
	middle, lowest                      float64
	fill                                [2][cellsFill]float64
}

// The law of softening is tabled: every cell asks for it at every step. Between two points it is off by 1e-4 at most.
const (
	softTableFrom, softTableTo = -40, 160 // C
	softTablePerK              = 4
)

var softTable = func() (table [(softTableTo-softTableFrom)*softTablePerK + 2]float64) {
	for i := range table {
		table[i] = math.Pow(10, (softTableFrom+float64(i)/softTablePerK-100)/fruitPer10)
	}
	return table
}()

// softening is how fast fruit gets soft, minutes at 100 C a minute.
func softening(t float64) float64 {
	x := (min(max(t, softTableFrom), softTableTo) - softTableFrom) * softTablePerK
	i := int(x)
	return softTable[i] + (x-float64(i))*(softTable[i+1]-softTable[i])
}

// tick adds dt seconds: rates by the mean of both ends of the step.
//
//go:norace
func (c *clocks) tick(dt float64, s Stage) {
	m := c.m
	minutes := dt / 60
	all := cellsFill * (m.area[core] + m.area[rim])
	for col := range 2 {
		share := m.area[col] / all
		for i := range cellsFill {
			t := m.t[col][m.fillAt+i]
			fast := softening(t)
			c.fruit += minutes * share * (c.soft[col][i] + fast) / 2
			c.soft[col][i] = fast
			c.hot[col][i] += dt * shareAbove(c.was.fill[col][i], t, c.full)
		}
		c.brown(col, minutes, s)
	}
	if m.baseAt >= 0 {
		rate := func(t float64) float64 { return math.Exp2((t - baseAtC) / basePer2) }
		c.base += minutes / baseMin * (rate(c.was.lowest) + rate(m.t[core][m.baseAt])) / 2
	}
	c.hottest = max(c.hottest, m.middleC())
	c.now += dt
}

// brown colours the face of a column: dc = (1 - c / most) dx, solved exactly.
//
//go:norace
func (c *clocks) brown(col int, minutes float64, s Stage) {
	rate := c.m.brown / goldenMin
	if s.Cover != "" && s.Cover != "none" && (s.Cover != rimCover || col == rim) {
		rate *= underCover + (1-underCover)*leakOf(s)
	}
	at := func(t float64) float64 { return math.Exp2((t - colourAtC) / colourPer2) }
	x := minutes * rate * (at(c.was.faces[col]) + at(c.m.face[col])) / 2
	c.colour[col] = colourMost - (colourMost-c.colour[col])*math.Exp(-x/colourMost)
}

// enter does what a stage begins with. A topping that goes on is pale.
func (c *clocks) enter(s Stage) {
	on := c.m.bare
	c.m.enter(s)
	if on && !c.m.bare {
		c.late, c.colour = true, [2]float64{}
		c.was.faces, c.was.colour = c.m.face, 0
	}
}

// shareAbove is the share of a straight run from a to b that lies at or above t.
func shareAbove(a, b, t float64) float64 {
	switch {
	case a >= t && b >= t:
		return 1
	case a < t && b < t:
		return 0
	}
	x := (t - a) / (b - a)
	if b > a {
		return 1 - x
	}
	return x
}

// look notes events that the last step has passed, between its ends.
//
//go:norace
func (c *clocks) look(e *Events, first bool) {
	m := c.m
	now := seen{
		now: c.now, rim: m.t[rim][m.fillAt+middleCell], coldest: m.coldest(core, m.fillAt, m.topAt), topping: math.Inf(-1),
		colour: c.colour[core], base: c.base, faces: m.face, middle: m.middleC(),
	}
	if m.n > m.topAt {
		now.topping = m.coldest(core, m.topAt, m.n)
	}
	if m.baseAt >= 0 {
		now.lowest = m.t[core][m.baseAt]
	}
	for col := range 2 {
		copy(now.fill[col][:], m.t[col][m.fillAt:m.fillAt+cellsFill])
	}
	was := c.was
	if first {
		was = now
	}
	cross := func(at **float64, a, b, level float64) {
		if *at != nil || !(b >= level) {
			return
		}
		x := 1.0
		if b > a && a < level && !math.IsInf(a, 0) {
			x = (level - a) / (b - a)
		}
		minute := (was.now + x*(now.now-was.now)) / 60
		*at = &minute
	}
	cross(&e.RimBubbles, was.rim, now.rim, m.boil-rimBubblesC)
	cross(&e.MiddleBubbles, was.coldest, now.coldest, m.boil-middleBubblesC)
	cross(&e.Coldest85, was.coldest, now.coldest, 85)
	cross(&e.Coldest95, was.coldest, now.coldest, 95)
	cross(&e.ToppingThrough, was.topping, now.topping, throughC)
	cross(&e.Golden, was.colour, now.colour, 1)
	if m.baseAt >= 0 {
		cross(&e.BaseBaked, was.base, now.base, crispFrom)
	}
	c.was = now
}

// setShare is the share of the filling, by volume, whose thickener has done its work.
//
//go:norace
func (c *clocks) setShare() float64 {
	set, all := 0.0, 0.0
	for col := range 2 {
		for i := range cellsFill {
			all += c.m.area[col]
			if c.hot[col][i] >= c.hold-1e-9 && c.hot[col][i] > 0 {
				set += c.m.area[col]
			}
		}
	}
	return set / all
}
