package learn

import (
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/json"
	"math"
	"slices"

	"mabbin/core/bake"
	"mabbin/core/balance"
)

// What a surface has of a bake: minutes of events, clocks, steam and the set share, each as its logarithm.
const (
	ofRim = iota
	ofMiddle
	ofCrossed // the first of bake.CrossedC
	_
	_
	ofFruit
	ofColour
	ofBase
	ofSteam
	ofSet
	quantities
)

// The steam, by what is expected, and the factors on a fruit's release, as logarithms, at which the juice is balanced.
var (
	juiceSteam     = [...]float64{0, 1, 2, 3, 4}
	juiceLnRelease = [...]float64{-0.6, 0, 0.6}
)

const (
	mostColour = 2.999 // of 3, that browning slows towards
	mostScore  = 99.0
	mostSetPct = 60.0
	leastScore = 0.05
)

// Surface is one bake in every oven and with every fruit that it may have had: a model of the model, which needs no
// run. It is the same for all logs, and is not changed.
type Surface struct {
	heat    [quantities]patch
	alone   [quantities]float64 // change of a logarithm by that of the set, where the thickener differs
	juicy   [quantities]float64 // where the juice differs, and its sugar with it
	window  window
	verdict bake.Words   // that the dessert's verdict expects
	score   patch        // ln of the set score, by steam and release
	steam   float64      // of the ledger, g, as expected
	below   float64      // the part of it that leaves below boiling, which the model of the bake does not have
	beside  float64      // g that leave the dish and are no steam of a boiling filling
	pectin  float64      // share of the score that no thickener gives
	borders bake.Borders // of the words, as logarithms
	fruits  []surfaceFruit
	topping string // empty: bare
	base    bool
	dose    string // the thickener's key; empty: a custard
}

// surfaceFruit is a fruit of a surface with its part of the juice and of what is bitten.
type surfaceFruit struct {
	key          string
	juice, share float64
	table        float64 // its release by the tables, fresh or frozen as it was
}

// Keeper keeps surfaces by the hash of what they are of; an LRU cache is one.
type Keeper interface {
	Get(key [32]byte) (*Surface, bool)
	Add(key [32]byte, s *Surface) (evicted bool)
}

// surfaceOf is that of a dessert whose stages are given; keep may be nil.
func surfaceOf(ctx context.Context, q bake.DessertRequest, keep Keeper) (*Surface, error) {
	q.Request.Fruits = slices.Clone(q.Request.Fruits)
	for i := range q.Request.Fruits {
		q.Request.Fruits[i].MeasuredRelease = 0 // a test is an observation, and no figure of the tables
	}
	if keep == nil {
		return newSurface(ctx, q)
	}
	text, err := json.Marshal(q)
	if err != nil {
		return nil, err
	}
	key := sha256.Sum256(text)
	if s, ok := keep.Get(key); ok {
		return s, nil
	}
	s, err := newSurface(ctx, q)
	if err == nil {
		keep.Add(key, s)
	}
	return s, err
}

func newSurface(ctx context.Context, q bake.DessertRequest) (*Surface, error) {
	a, err := bake.Dessert(ctx, q)
	if err != nil {
		return nil, err
	}
	s := &Surface{base: a.Bake.Base != nil, dose: "cornflour"}
	if t := q.Request.Thickener; t != nil {
		s.dose = t.Key
	}
	if q.Request.Custard != nil {
		s.dose = ""
	}
	if a.Bake.Topping != nil {
		s.topping = q.Request.Topping.Key
	}
	b := a.Borders()
	s.borders = bake.Borders{Juice: logs(b.Juice), Fruit: logs(b.Fruit), Top: logs(b.Top), Base: logs(b.Base)}
	s.mix(q.Request)
	held := weighed(q, a)
	s.steam = max(leastSteam, a.Balance.Ledger.SteamedOffG)
	s.below = max(0, s.steam-bakedSteam(a))
	s.beside = s.below + a.Plan.Answer.End.DriedOffG
	if err := s.balanceJuice(held, a); err != nil {
		return nil, err
	}
	fixed := held
	fixed.Request.SteamedOffG = &a.Balance.Ledger.SteamedOffG
	p, err := bake.PlanOf(fixed)
	if err != nil {
		return nil, err
	}
	s.verdict = a.Verdict.Expected
	s.window.needs(&p, a.Plan.Answer.End.Colour)
	if err := s.run(ctx, a, p); err != nil {
		return nil, err
	}
	return s, s.thin(held, a, p)
}

// observe bakes a request of a dessert's plan p.
func observe(p bake.PlanRequest, r bake.Request, a *bake.DessertAnswer) bake.Observations {
	p.Bake = r
	return p.Observe(a.Plan.CheckFrom)
}

func logs(x []float64) []float64 {
	out := make([]float64, len(x))
	for i := range x {
		out[i] = math.Log(x[i])
	}
	return out
}

func (s *Surface) mix(r balance.Request) {
	juice, sum := 0.0, 0.0
	for _, asked := range r.Fruits {
		f, _ := r.Own.Fruit(asked.Key)
		x := surfaceFruit{key: asked.Key, share: asked.Share, table: f.ReleaseFresh}
		if asked.Frozen {
			x.table = f.ReleaseFrozen
		}
		x.juice = asked.Share * f.WaterPct * x.table
		juice, sum = juice+x.juice, sum+x.share
		s.fruits = append(s.fruits, x)
	}
	for i := range s.fruits {
		s.fruits[i].juice /= max(1e-9, juice)
		s.fruits[i].share /= max(1e-9, sum)
	}
}

// balanceJuice fills the surface of the set.
func (s *Surface) balanceJuice(held bake.DessertRequest, a *bake.DessertAnswer) error {
	for i, r := range juiceLnRelease {
		for j, times := range juiceSteam {
			x, err := juicier(held, r, s.steam*times)
			if err != nil {
				return err
			}
			s.score.v[i][j] = math.Log(max(leastScore, x.Set.Score))
		}
	}
	s.score.of(juiceSteam[:], juiceLnRelease[:])
	if l := a.Balance.Ledger; l.JuiceG > 0 && a.Balance.ThickenerG > 0 {
		none := held
		zero := 0.0
		if t := none.Request.Thickener; t != nil {
			without := *t
			without.G = &zero
			none.Request.Thickener = &without
		}
		x, err := juicier(none, 0, s.steam)
		if err != nil {
			return err
		}
		s.pectin = min(1, x.Set.Score/max(leastScore, a.Balance.Set.Score))
	} else {
		s.pectin = 1
	}
	return nil
}

// juicier balances a dessert whose fruit gives e^r times as much juice, of which off g steam off.
func juicier(held bake.DessertRequest, r, off float64) (*balance.Answer, error) {
	x := held.Request
	if r != 0 {
		x.Own = moreJuice(held, math.Exp(r))
	}
	x.SteamedOffG = &off
	return balance.Solve(x)
}

// run bakes it in every oven of the grid.
func (s *Surface) run(ctx context.Context, a *bake.DessertAnswer, p bake.PlanRequest) error {
	for i, heat := range surfaceLnHeat {
		for j, offset := range surfaceOffsetsC {
			if err := ctx.Err(); err != nil {
				return err
			}
			r := a.Bake
			r.OvenOffsetC += offset
			r.HeatFactor = cmp.Or(a.Bake.HeatFactor, 1) * math.Exp(heat)
			seen := observe(p, r, a)
			for k, x := range logsOf(seen) {
				s.heat[k].v[i][j] = x
			}
			s.window.put(i, j, &seen.Window)
		}
	}
	for k := range s.heat {
		s.heat[k].of(surfaceOffsetsC[:], surfaceLnHeat[:])
	}
	s.window.done()
	return nil
}

func logsOf(n bake.Observations) (out [quantities]float64) {
	e := n.End
	clock := func(x float64) float64 { return math.Log(max(leastClock, x)) }
	out[ofRim], out[ofMiddle] = clock(n.RimBubblesMin), clock(n.MiddleBubblesMin)
	for i, m := range n.CrossedMin {
		out[ofCrossed+i] = clock(m)
	}
	out[ofFruit], out[ofBase] = clock(e.FruitMinutes), clock(e.Base)
	out[ofColour] = clock(browned(e.Colour))
	out[ofSteam] = math.Log(max(leastSteam, e.SteamedOffG))
	out[ofSet] = math.Log(max(leastSet, e.SetShare))
	return out
}

// browned is how much browning it takes to a colour, which comes ever more slowly; colourAt is the way back.
func browned(colour float64) float64 { return -3 * math.Log1p(-min(mostColour, colour)/3) }
func colourAt(x float64) float64     { return -3 * math.Expm1(-x/3) }

// thin bakes it with a thinner set, once by less thickener, once by more juice.
func (s *Surface) thin(held bake.DessertRequest, a *bake.DessertAnswer, p bake.PlanRequest) error {
	if a.Bake.Filling.SetPct == nil || *a.Bake.Filling.SetPct <= 0 {
		return nil
	}
	less := math.Log(thinnerSet)
	set := *a.Bake.Filling.SetPct * thinnerSet
	r := a.Bake
	r.Filling.SetPct = &set
	was := s.at(drivers{}).ln
	for k, x := range logsOf(observe(p, r, a)) {
		s.alone[k] = (x - was[k]) / less
	}
	s.juicy = s.alone
	slope := (s.score.v[2][1] - s.score.v[0][1]) / (juiceLnRelease[2] - juiceLnRelease[0])
	if slope > -0.05 {
		return nil // hardly any of its juice is the fruit's
	}
	more := min(juiceLnRelease[len(juiceLnRelease)-1], less/slope)
	q := held
	q.Request.Own, q.Request.SteamedOffG = moreJuice(held, math.Exp(more)), &s.steam
	juicy, err := bake.PlanOf(q)
	if err != nil {
		return err
	}
	r.Filling.JuiceSugarShare = juicy.Bake.Filling.JuiceSugarShare
	for k, x := range logsOf(observe(p, r, a)) {
		s.juicy[k] = (x - was[k]) / less
	}
	return nil
}

func bakedSteam(a *bake.DessertAnswer) float64 { return a.Plan.Answer.End.SteamedOffG }

// drivers are what may be otherwise in one bake: the oven, C and ln; ln of release, thickener, steam, colour and
// softness; and of how deep a probe sits.
type drivers [8]float64

const (
	byOven = iota
	byHeat
	byRelease
	byThickener
	bySteam
	byColour
	bySoftness
	byDepth
)

// noticed is what comes of a bake.
type noticed struct {
	ln    [quantities]float64
	score float64 // ln of it
	colour,
	fruit float64 // ln, with the colour's and softness's factors
}

// at is the bake with these drivers.
func (s *Surface) at(d drivers) (n noticed) {
	for k := range n.ln {
		n.ln[k] = s.heat[k].at(d[byOven], d[byHeat])
	}
	steam := s.steamShare(n.ln[ofSteam] + d[bySteam])
	score0 := s.score.v[1][1]
	released := s.score.at(1, d[byRelease]) - score0
	n.score = s.score.at(steam, d[byRelease]) + math.Log(s.pectin+(1-s.pectin)*math.Exp(d[byThickener]))
	n.score = min(math.Log(mostScore), n.score)
	most := math.Log(mostSetPct)
	set := min(most, n.score) - min(most, score0)
	for k := range n.ln {
		n.ln[k] += s.juicy[k]*released + s.alone[k]*(set-released)
	}
	n.ln[ofSteam] += d[bySteam]
	n.ln[ofSet] = min(0, n.ln[ofSet])
	n.fruit = n.ln[ofFruit] + d[bySoftness]
	n.colour = math.Log(max(1e-6, colourAt(math.Exp(n.ln[ofColour]+d[byColour]))))
	return n
}

// steamShare is what steams off, by its logarithm, as a share of what was expected.
func (s *Surface) steamShare(ln float64) float64 { return (math.Exp(ln) + s.below) / s.steam }

// place on a scale of words: the borders, as logarithms, lie at 1, 2, 3 and so on.
func place(borders []float64, x float64) float64 {
	i := 0
	for i < len(borders)-2 && x > borders[i+1] {
		i++
	}
	return float64(i+1) + (x-borders[i])/(borders[i+1]-borders[i])
}

func (s *Surface) juicePlace(n *noticed) float64 { return place(s.borders.Juice, n.score+n.ln[ofSet]) }
func (s *Surface) fruitPlace(n *noticed) float64 { return place(s.borders.Fruit, n.fruit) }
func (s *Surface) topPlace(n *noticed) float64   { return place(s.borders.Top, n.colour) }
func (s *Surface) basePlace(n *noticed) float64  { return place(s.borders.Base, n.ln[ofBase]) }

// patch is a function of two variables on a grid: a monotone cubic along the first, a parabola along the second, and
// as at its edge beyond it.
type patch struct {
	x, y  []float64
	v     [3][5]float64
	slope [3][5]float64
}

// of takes the grid, and finds the slopes of the cubics after Fritsch and Carlson.
func (p *patch) of(x, y []float64) {
	p.x, p.y = x, y
	h := x[1] - x[0]
	for i := range p.v {
		v, m := &p.v[i], &p.slope[i]
		n := len(v)
		for j := 1; j < n-1; j++ {
			if a, b := (v[j]-v[j-1])/h, (v[j+1]-v[j])/h; a*b > 0 {
				m[j] = 2 * a * b / (a + b)
			}
		}
		m[0] = edge((v[1]-v[0])/h, (v[2]-v[1])/h)
		m[n-1] = edge((v[n-1]-v[n-2])/h, (v[n-2]-v[n-3])/h)
	}
}

// edge is the slope at an end: of the parabola through three points, kept monotone.
func edge(a, b float64) float64 {
	m := (3*a - b) / 2
	switch {
	case m*a <= 0:
		return 0
	case a*b <= 0 && math.Abs(m) > 3*math.Abs(a):
		return 3 * a
	}
	return m
}

func (p *patch) at(x, y float64) float64 {
	last := len(p.x) - 1
	x = min(max(x, p.x[0]), p.x[last])
	y = min(max(y, p.y[0]), p.y[2])
	h := p.x[1] - p.x[0]
	j := min(last-1, int((x-p.x[0])/h))
	t := (x - p.x[j]) / h
	a, b := (1+2*t)*(1-t)*(1-t), t*(1-t)*(1-t)*h
	c, d := t*t*(3-2*t), t*t*(t-1)*h
	var row [3]float64
	for i := range row {
		v, m := &p.v[i], &p.slope[i]
		row[i] = a*v[j] + b*m[j] + c*v[j+1] + d*m[j+1]
	}
	k := (y - p.y[1]) / (p.y[2] - p.y[1])
	return row[1] + k*(row[2]-row[0])/2 + k*k*(row[2]+row[0]-2*row[1])/2
}
