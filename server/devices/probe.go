// Package devices are the thermometers and scales of a kitchen. Those that ship are simulated: a probe that follows the heat model
// in an oven whose error it alone knows.
package devices

import (
	"hash/fnv"
	"math"
	"math/rand/v2"
	"time"

	"github.com/google/uuid"

	"mabbin/core/bake"
	"mabbin/server/store"
)

// Probe is a thermometer in a dish. A reading may fail: it drops out now and then.
type Probe interface {
	Read(at time.Time) (c float64, ok bool)
}

// Places that a probe may be in.
const (
	InMiddle = "middle"
	InAir    = "air" // in the wrong place: it slipped out of the fruit
)

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
func opened(stages []bake.Stage, d store.Door) []bake.Stage {
	stages = cooler(stages, d.At, d.At+d.Open, openKeeps)
	return cooler(stages, d.At+d.Open, d.At+d.Open+comesBack, shutKeeps)
}

// cooler cuts stages where a stretch begins and ends, and keeps a share of their heat within it.
func cooler(stages []bake.Stage, from, to, keeps float64) []bake.Stage {
	var out []bake.Stage
	at := 0.0
	for _, s := range stages {
		for _, part := range [3][2]float64{{at, min(from, at+s.Minutes)}, {max(at, from), min(to, at+s.Minutes)}, {max(at, to), at + s.Minutes}} {
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
	place string
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

// Simulate puts a probe into a dessert that went in at a time, by its stages as they are, and the doors that were opened.
func Simulate(dessert uuid.UUID, b bake.Request, stages []bake.Stage, doors []store.Door, from time.Time, place string) (*SimulatedProbe, error) {
	b.Stages = append(append([]bake.Stage{}, stages...), bake.Stage{Minutes: afterTheEnd, OvenC: stages[len(stages)-1].OvenC, Heating: stages[len(stages)-1].Heating})
	for _, d := range doors {
		b.Stages = opened(b.Stages, d)
	}
	b.OvenOffsetC += Hidden(dessert)
	a, err := bake.Run(b)
	if err != nil {
		return nil, err
	}
	return &SimulatedProbe{from: from, curve: a.Curves, place: place, seed: seedOf(dessert), ovenC: stages[0].OvenC}, nil
}

// Read is what it shows at a time.
func (p *SimulatedProbe) Read(at time.Time) (float64, bool) {
	tick := uint64(max(0, at.Sub(p.from)/readEvery))
	r := rand.New(rand.NewPCG(p.seed, tick)) //nolint:gosec // as above
	if r.Float64() < dropouts {
		return 0, false
	}
	noise := r.NormFloat64()
	if p.place == InAir {
		return p.ovenC + airSwingC*noise, true
	}
	return p.curve.MiddleAt(at.Sub(p.from).Minutes()) + noiseC*noise, true
}
