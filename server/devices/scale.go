package devices

import (
	"math"
	"math/rand/v2"
	"slices"
	"sync"
	"time"

	"mabbin/core/scale"

	"github.com/google/uuid"
)

// Scale is a kitchen scale. A reading counts when it has settled.
type Scale interface {
	Read(at time.Time) (g float64, settled bool)
	Tare(at time.Time)
}

// The simulated scale, as a cheap one: it swings before it settles, and its last figure flickers.
const (
	swingTau   = 350 * time.Millisecond
	swingHz    = 1.7
	flickerG   = 0.12
	fineBelowG = 100.0 // shown to 0.1 g below, to 1 g above
	calmFor    = 600 * time.Millisecond
	tickEvery  = 100 * time.Millisecond
	forgotten  = 10 * time.Second // a load that old has settled
	mostG      = 30000.0
)

// load is something put on the scale, or taken off it.
type load struct {
	at time.Time
	g  float64
}

// SimulatedScale follows what a hand puts on it. The zero value is empty and ready.
type SimulatedScale struct {
	mu    sync.Mutex
	loads []load
	still float64 // what has settled long ago
	zero  float64
	seed  uint64
}

// Put puts so many grams on at a time, or takes them off.
func (s *SimulatedScale) Put(at time.Time, g float64) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.loads = slices.DeleteFunc(s.loads, func(l load) bool {
		old := at.Sub(l.at) > forgotten
		if old {
			s.still += l.g
		}
		return old
	})
	s.loads = append(s.loads, load{at, g})
}

// weight is what the pan feels at a time: every load swings in.
func (s *SimulatedScale) weight(at time.Time) float64 {
	sum := s.still
	for _, l := range s.loads {
		if t := at.Sub(l.at).Seconds(); t > 0 {
			sum += l.g * (1 - math.Exp(-t/swingTau.Seconds())*math.Cos(2*math.Pi*swingHz*t))
		}
	}
	return min(mostG, max(0, sum))
}

// shown is what the display says at a time, before the tare.
func (s *SimulatedScale) shown(at time.Time) float64 {
	r := rand.New(rand.NewPCG(s.seed, uint64(at.UnixNano()/int64(tickEvery)))) //nolint:gosec // a simulation
	return s.weight(at) - s.zero + flickerG*r.NormFloat64()/3
}

// Read is what it shows.
func (s *SimulatedScale) Read(at time.Time) (g float64, settled bool) {
	s.mu.Lock()
	defer s.mu.Unlock()
	g = s.shown(at)
	step := stepOf(g)
	lo, hi := g, g
	for back := tickEvery; back <= calmFor; back += tickEvery {
		x := s.shown(at.Add(-back))
		lo, hi = min(lo, x), max(hi, x)
	}
	g = math.Round(g/step) * step
	if g == 0 {
		g = 0 // not -0
	}
	return math.Round(g*10) / 10, hi-lo <= 2*max(step, flickerG)
}

func stepOf(g float64) float64 {
	if math.Abs(g) < fineBelowG {
		return 0.1
	}
	return 1
}

// Tare sets what is on it to zero.
func (s *SimulatedScale) Tare(at time.Time) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.zero = s.weight(at)
}

// Clear takes everything off.
func (s *SimulatedScale) Clear() {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.loads, s.still, s.zero = nil, 0, 0
}

// Shown is a scale's reading in addition to what is being weighed.
type Shown struct {
	G       float64
	Settled bool
	WantedG float64 // 0: nothing
	LeftG   float64
	Verdict scale.Verdict // empty while nothing is weighed
}

// Scales has one for each kitchen that weighs. The zero value is ready.
type Scales struct {
	mu  sync.Mutex
	all map[uuid.UUID]*bench
}

// scaleIdle is how long a scale stands unused before it is put away: it begins anew, empty.
const scaleIdle = 8 * time.Hour

// Free puts a kitchen's scale away.
func (s *Scales) Free(kitchen uuid.UUID) {
	s.mu.Lock()
	defer s.mu.Unlock()
	delete(s.all, kitchen)
}

// bench is a scale with what is weighed on it.
type bench struct {
	SimulatedScale
	wanted float64
	used   time.Time // last; by Scales
	poured float64   // in all since the tare, a hand remembers
}

func (s *Scales) of(kitchen uuid.UUID, at time.Time) *bench {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.all == nil {
		s.all = map[uuid.UUID]*bench{}
	}
	b := s.all[kitchen]
	if b == nil {
		for k, idle := range s.all {
			if at.Sub(idle.used) > scaleIdle {
				delete(s.all, k)
			}
		}
		b = &bench{SimulatedScale: SimulatedScale{seed: seedOf(kitchen)}}
		s.all[kitchen] = b
	}
	b.used = at
	return b
}

// Show is what a kitchen's scale shows.
func (s *Scales) Show(kitchen uuid.UUID, at time.Time) Shown {
	b := s.of(kitchen, at)
	out := Shown{}
	out.G, out.Settled = b.Read(at)
	b.mu.Lock()
	out.WantedG = b.wanted
	b.mu.Unlock()
	if out.WantedG > 0 {
		out.Verdict, out.LeftG = scale.Judge(out.WantedG, out.G)
		out.LeftG = math.Round(out.LeftG*10) / 10
	}
	return out
}

// Want says what is weighed next; 0: nothing.
func (s *Scales) Want(kitchen uuid.UUID, g float64, at time.Time) {
	b := s.of(kitchen, at)
	b.mu.Lock()
	defer b.mu.Unlock()
	b.wanted = g
}

// Tare sets a kitchen's scale to zero.
func (s *Scales) Tare(kitchen uuid.UUID, at time.Time) {
	b := s.of(kitchen, at)
	b.Tare(at)
	b.mu.Lock()
	defer b.mu.Unlock()
	b.poured = 0
}

// Hand is what the simulation's hand does.
type Hand string

// What it does.
const (
	Pour     Hand = "pour"      // what is missing, in a few goes, and about right
	SpoonIn  Hand = "spoon_in"  // a little more
	SpoonOut Hand = "spoon_out" // a little less
	Clear    Hand = "clear"     // everything off
)

// How a hand pours. Working figures.
const (
	goes      = 4
	goEvery   = 250 * time.Millisecond
	handShare = 0.006 // how far off it ends, of what is poured
	spoonOf   = 0.05  // a spoon, of what is wanted
	spoonG    = 1.0
)

// Hand moves something on a kitchen's scale.
func (s *Scales) Hand(kitchen uuid.UUID, does Hand, at time.Time) {
	b := s.of(kitchen, at)
	b.mu.Lock()
	wanted, poured := b.wanted, b.poured
	b.mu.Unlock()
	spoon := max(spoonG, spoonOf*wanted)
	put := 0.0
	switch does {
	case Clear:
		b.Clear()
		b.mu.Lock()
		b.poured = 0
		b.mu.Unlock()
		return
	case Pour:
		put = max(0, wanted-poured)
		r := rand.New(rand.NewPCG(b.seed, uint64(at.UnixNano()))) //nolint:gosec // a simulation
		put *= 1 + handShare*min(2, max(-2, r.NormFloat64()))
		for i := range goes {
			b.Put(at.Add(time.Duration(i)*goEvery), put/goes)
		}
	case SpoonIn:
		put = spoon
		b.Put(at, put)
	case SpoonOut:
		put = -min(spoon, poured)
		b.Put(at, put)
	}
	b.mu.Lock()
	b.poured += put
	b.mu.Unlock()
}
