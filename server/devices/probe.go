// Package devices are the thermometers and scales of a kitchen. Those that ship are simulated: a probe that follows
// the heat model in an oven whose error it alone knows.
package devices

import (
	"fmt"
	"hash/fnv"
	"math"
	"math/rand/v2"
	"slices"
	"time"

	"mabbin/core/bake"
	"mabbin/core/watch"

	"github.com/google/uuid"
)

// Probe is a thermometer in a dish. A reading may fail: it drops out now and then.
type Probe interface {
	Read(at time.Time) (c float64, ok bool)
}

// The simulated probe. Its oven is off by up to so much, its noise and its dropouts are those of a cheap one.
const (
	hiddenOffC  = 18.0
	noiseC      = 0.7
	dropouts    = 0.06
	airSwingC   = 6.0
	readEvery   = 15 * time.Second
	afterTheEnd = 240.0 // min that it goes on for in the rest
	roomC       = 20.0
	openKeeps   = 0.45 // of what an oven is over the room, while its door is open
	shutKeeps   = 0.80 // and on average while it comes back
	comesBack   = 3.0  // min
)

// opened is stages with a door that stands open for a while: the oven is cooler then, and comes back.
func opened(stages []bake.Stage, d watch.Door) []bake.Stage {
	stages = cooler(stages, d.At, d.At+d.Open, openKeeps)
	return cooler(stages, d.At+d.Open, d.At+d.Open+comesBack, shutKeeps)
}

// cooler cuts stages where a stretch begins and ends, and keeps a share of their heat within it.
func cooler(stages []bake.Stage, from, to, keeps float64) []bake.Stage {
	var out []bake.Stage
	at := 0.0
	for _, s := range stages {
		for _, part := range [3][2]float64{
			{at, min(from, at+s.Minutes)},
			{max(at, from), min(to, at+s.Minutes)},
			{max(at, to), at + s.Minutes},
		} {
			if part[1] <= part[0] {
				continue
			}
			x := s
			x.Minutes = part[1] - part[0]
			if part[0] >= from && part[1] <= to {
				x.OvenC = roomC + keeps*(s.OvenC-roomC)
			}
			if part[0] > at { // done when the stage began
				x.AddTopping, x.PushUnder, x.Turn = false, false, false
			}
			out = append(out, x)
		}
		at += s.Minutes
	}
	return out
}

// SimulatedProbe reads the middle of a dessert in an oven that lies. The same dessert gives the same readings.
type SimulatedProbe struct {
	from  time.Time
	curve bake.Curves
	place watch.Place
	seed  uint64
	ovenC float64
}

// Hidden is the error of the oven that a dessert is in, which only its probe knows, C.
func Hidden(dessert uuid.UUID) float64 {
	r := rand.New(rand.NewPCG(seedOf(dessert), 1)) //nolint:gosec // a simulation, the same each time
	return math.Round((2*r.Float64() - 1) * hiddenOffC)
}

func seedOf(id uuid.UUID) uint64 {
	h := fnv.New64a()
	_, _ = h.Write(id[:])
	return h.Sum64()
}

// Simulate puts a probe into a dessert of the watch.
func Simulate(dessert uuid.UUID, b *watch.Bake) (*SimulatedProbe, error) {
	p, err := bake.PlanOf(b.AsPredicted())
	if err != nil {
		return nil, err
	}
	first, last := b.Stages[0], b.Stages[len(b.Stages)-1]
	r := p.Bake
	r.Stages = append(slices.Clone(b.Stages), bake.Stage{Minutes: afterTheEnd, OvenC: last.OvenC, Heating: last.Heating})
	for _, d := range b.Doors {
		r.Stages = opened(r.Stages, d)
	}
	r.OvenOffsetC += Hidden(dessert)
	a, err := bake.Run(r)
	if err != nil {
		return nil, err
	}
	return &SimulatedProbe{
		from:  b.StartedAt,
		curve: a.Curves,
		place: b.Probe,
		seed:  seedOf(dessert),
		ovenC: first.OvenC,
	}, nil
}

// ReadSimulated reads the simulated probe of a dessert at a time.
func ReadSimulated(dessert uuid.UUID, b *watch.Bake, at time.Time) (c float64, ok bool, err error) {
	if len(b.Stages) == 0 {
		return 0, false, fmt.Errorf("dessert %s has no stages", dessert)
	}
	p, err := Simulate(dessert, b)
	if err != nil {
		return 0, false, err
	}
	c, ok = p.Read(at)
	return c, ok, nil
}

// Read is what it shows at a time.
func (p *SimulatedProbe) Read(at time.Time) (float64, bool) {
	tick := uint64(max(0, at.Sub(p.from)/readEvery))
	r := rand.New(rand.NewPCG(p.seed, tick)) //nolint:gosec // as above
	if r.Float64() < dropouts {
		return 0, false
	}
	noise := r.NormFloat64()
	if p.place == watch.InAir {
		return p.ovenC + airSwingC*noise, true
	}
	return p.curve.MiddleAt(at.Sub(p.from).Minutes()) + noiseC*noise, true
}
