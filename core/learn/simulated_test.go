package learn

import (
	"context"
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"sync"
	"testing"
	"time"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/fault"
)

// kept keeps surfaces in a map.
type kept struct {
	mu  sync.Mutex
	all map[[32]byte]*Surface
}

func (k *kept) Get(key [32]byte) (*Surface, bool) {
	k.mu.Lock()
	defer k.mu.Unlock()
	s, ok := k.all[key]
	return s, ok
}

func (k *kept) Add(key [32]byte, s *Surface) bool {
	k.mu.Lock()
	defer k.mu.Unlock()
	k.all[key] = s
	return false
}

func keeper() *kept { return &kept{all: map[[32]byte]*Surface{}} }

func ptr[T any](v T) *T { return &v }

// ends are how long simulated desserts may be in the oven, min: until they bubble.
var ends = []float64{42, 50, 60, 75, 95}

// desserts that simulated kitchens bake, in some dishes, with some fruits.
func desserts() (out []bake.DessertRequest) {
	dishes := []dish.Dish{
		{Shape: "rectangle", LengthCM: 24, WidthCM: 18, DepthCM: 5, Material: "stoneware"},
		{Shape: "round", LengthCM: 26, DepthCM: 5, Material: "cast_iron"},
		{Shape: "square", LengthCM: 20, DepthCM: 5, Material: "thin_metal"},
	}
	fruits := []string{"plum", "gooseberry", "apricot", "rhubarb", "apple_firm", "blackberry"}
	for i, fruit := range fruits {
		d := dishes[i%len(dishes)]
		g := d.Measure().VolumeML * 0.5
		for _, minutes := range ends {
			out = append(out, bake.DessertRequest{
				Request: balance.Request{
					Dish: d, Style: "crumble", Fruits: []balance.FruitInput{{Key: fruit, Share: 1}},
					Topping:   balance.ToppingInput{Key: []string{"crumble_classic", "crumble_oat"}[i%2]},
					Thickener: &balance.ThickenerInput{Key: "cornflour", G: ptr(g * 0.022)},
					SugarG:    ptr(g * 0.14), WeighedFruitG: ptr(g),
				},
				Setting: bake.Setting{
					Heating: "conventional",
					Stages:  []bake.Stage{{Minutes: minutes, OvenC: 185, Heating: "conventional"}},
				},
			})
		}
	}
	return out
}

// simulated is a kitchen whose truths are known.
type simulated struct {
	request LogRequest
	ran     *estimate // with the truths for its means, and each bake's deviations
}

var simulatedFrom = time.Date(2026, 1, 5, 12, 0, 0, 0, time.UTC)

// simulate a kitchen: truths from the priors, some answers missing, one bake in ten misread.
func simulate(t testing.TB, keep Keeper, seed uint64, bakes, unseen int) simulated {
	t.Helper()
	chance := rand.New(rand.NewPCG(seed, 7))
	all := desserts()
	var q LogRequest
	for i := range bakes + unseen {
		q.Bakes = append(q.Bakes, LoggedBake{
			ID: fmt.Sprint(i), At: simulatedFrom.AddDate(0, 0, 4*i), Oven: []string{"range", "deck"}[chance.IntN(2)],
			Request: all[chance.IntN(len(all)/len(ends))*len(ends)+len(ends)-1],
		})
	}
	q.Now = q.Bakes[len(q.Bakes)-1].At
	surfaces, err := surfacesOf(context.Background(), q.Bakes, keep, nil)
	if err != nil {
		t.Fatal(err)
	}
	e := newEstimate(q, surfaces)
	for i, p := range e.all {
		e.mean[i] = p.mean + p.sd*chance.NormFloat64()
	}
	student := func() float64 {
		z := chance.NormFloat64()
		v := 0.0
		for range int(studentDF) {
			x := chance.NormFloat64()
			v += x * x
		}
		return z / math.Sqrt(v/studentDF)
	}
	for i := range q.Bakes {
		q.Bakes[i].Request.Setting.Stages = slices.Clone(q.Bakes[i].Request.Setting.Stages)
		o := &e.bakes[i]
		for k, v := range o.variance {
			e.own[i][k] = math.Sqrt(v) * chance.NormFloat64()
		}
		// it comes out when it has bubbled for a while
		d := o.drivers(e.mean, e.own[i])
		n := o.surface.at(d)
		b := &q.Bakes[i]
		for _, m := range ends {
			if b.Request.Setting.Stages[0].Minutes = m; m > math.Exp(n.ln[ofMiddle])+4 {
				break
			}
		}
		if o.surface, err = surfaceOf(t.Context(), b.Request, keep); err != nil {
			t.Fatal(err)
		}
		n = o.surface.at(d)
		s := o.surface
		misread := chance.Float64() < 0.1
		figure := func(of string, y float64) *float64 {
			a := answer{of: of, value: y}
			x := y + a.error(y)*student()
			if misread {
				x = y * (0.7 + 0.6*chance.Float64())
			}
			return ptr(max(1, math.Round(x)))
		}
		word := func(scale []string, at, sd float64) string {
			if misread || chance.Float64() < lapse {
				return scale[chance.IntN(len(scale))]
			}
			return scale[wordIndex(at+sd*chance.NormFloat64(), len(scale))]
		}
		told := func() bool { return chance.Float64() < 0.6 }
		if told() {
			b.Reported.Juice = word(bake.JuiceWords, s.juicePlace(&n), wordSD)
		}
		if told() {
			b.Reported.Fruit = word(bake.FruitWords, s.fruitPlace(&n), wordSD)
		}
		if told() {
			b.Reported.Top = word(bake.TopWords, s.topPlace(&n), wordSD)
		}
		if told() {
			b.Reported.RimMin = figure(toldRim, math.Exp(n.ln[ofRim]))
			b.Reported.MiddleMin = figure(toldMiddle, math.Exp(n.ln[ofMiddle]))
		}
		if chance.Float64() < 0.3 {
			lost := figure(toldWeight, math.Exp(n.ln[ofSteam]))
			b.Reported.BeforeG, b.Reported.AfterG = ptr(3000.0), ptr(3000-*lost)
		}
	}
	return simulated{q, e}
}

// hide takes what was reported of the last bakes away, so that they are plans.
func (k simulated) hide(unseen int) LogRequest {
	q := k.request
	q.Bakes = append([]LoggedBake(nil), q.Bakes...)
	for i := len(q.Bakes) - unseen; i < len(q.Bakes); i++ {
		q.Bakes[i].Reported = ReportedWords{}
	}
	return q
}

// covered counts how often intervals hold.
type covered struct {
	of, p50, p90 int
	z2           float64
}

func (c *covered) z(z float64) {
	c.of++
	c.z2 += z * z
	if math.Abs(z) < 0.6745 {
		c.p50++
	}
	if math.Abs(z) < 1.6449 {
		c.p90++
	}
}

func (c *covered) in(r Range, x float64) {
	c.of++
	if x >= r.P25 && x <= r.P75 {
		c.p50++
	}
	if x >= r.P05 && x <= r.P95 {
		c.p90++
	}
}

func (c covered) String() string {
	n := float64(max(1, c.of))
	return fmt.Sprintf("of %d: %.2f in the 50 %% range, %.2f in the 90 %% range, z2 %.2f",
		c.of, float64(c.p50)/n, float64(c.p90)/n, c.z2/n)
}

// within says that a share or a figure is where it was promised.
func within(t *testing.T, what string, x, lo, hi float64) {
	t.Helper()
	if x < lo || x > hi {
		t.Errorf("%s: %.3f, want %g to %g", what, x, lo, hi)
	}
}

func (c covered) promised(t *testing.T, what string, lo50, hi50, lo90, hi90 float64) {
	t.Helper()
	t.Logf("%s %v", what, c)
	n := float64(c.of)
	within(t, what+" in their 50 % range", float64(c.p50)/n, lo50, hi50)
	within(t, what+" in their 90 % range", float64(c.p90)/n, lo90, hi90)
}

// TestSimulatedKitchens holds the estimate to what it says of itself: truths drawn from the priors, ten to forty bakes,
// answers missing, one bake in ten misread.
func TestSimulatedKitchens(t *testing.T) {
	if testing.Short() {
		t.Skip("many bakes are estimated: it runs without the race detector")
	}
	const kitchens, unseen = 50, 6
	keep := keeper()
	var estimates, ovens, ranges covered
	var minutes, steps offBy
	worse, changed, chances := 0, 0, 0
	for seed := range kitchens {
		bakes := []int{6, 10, 15, 25, 40}[seed%5]
		k := simulate(t, keep, uint64(seed), bakes, unseen)
		got, err := Learn(t.Context(), k.hide(unseen), keep, nil)
		if err != nil {
			t.Fatal(err)
		}
		for i, c := range got.Corrections {
			if c.Bakes == 0 {
				continue
			}
			truth, x := 0.0, c.Estimate
			for _, p := range k.ran.parts(i) {
				truth += k.ran.mean[p]
			}
			if c.Kind != OvenOffset {
				x = math.Log(x)
			}
			estimates.z((x - truth) / c.SD)
		}
		for _, o := range got.Ovens {
			ovens.z((o.AsOffsetC - k.asOffset(o.Key, bakes)) / o.SD)
			chances++
		}
		changed += len(got.Changes)
		var now offBy
		for i := bakes; i < bakes+unseen; i++ {
			o, p := &k.ran.bakes[i], got.Predictions[i]
			n := o.surface.at(o.drivers(k.ran.mean, k.ran.own[i]))
			m := math.Exp(n.ln[ofMiddle])
			if x := k.request.Bakes[i].Reported.MiddleMin; x != nil {
				ranges.in(p.After.MiddleBubbles, *x)
			}
			now.add(p.Before.MiddleBubbles.Value-m, p.After.MiddleBubbles.Value-m)
			word := func(before, after *Chances, place float64) { steps.add(before.Steps-place, after.Steps-place) }
			word(&p.Before.Juice, &p.After.Juice, o.surface.juicePlace(&n))
			word(&p.Before.Fruit, &p.After.Fruit, o.surface.fruitPlace(&n))
			word(p.Before.Top, p.After.Top, o.surface.topPlace(&n))
		}
		minutes.add(math.Sqrt(now.before), math.Sqrt(now.after))
		if now.after > 1.1*1.1*now.before {
			worse++
		}
	}
	estimates.promised(t, "estimates", 0.42, 0.60, 0.84, 0.97)
	within(t, "estimates' squared z", estimates.z2/float64(estimates.of), 0.6, 1.5)
	ovens.promised(t, "ovens", 0.42, 0.60, 0.84, 0.97)
	within(t, "ovens' squared z", ovens.z2/float64(ovens.of), 0.6, 1.5)
	ranges.promised(t, "unseen bakes", 0.42, 0.64, 0.84, 0.97)
	t.Logf("errors of unseen bakes, to the tables': minutes %.2f, steps %.2f", minutes.ratio(), steps.ratio())
	within(t, "error in minutes", minutes.ratio(), 0, 0.5)
	within(t, "error in steps", steps.ratio(), 0, 0.7)
	within(t, "kitchens made worse", float64(worse)/kitchens, 0, 0.12)
	within(t, "changes without reason", float64(changed)/float64(chances), 0, 0.06)
}

// offBy are squared errors by the tables and by what was learnt.
type offBy struct{ before, after float64 }

func (e *offBy) add(before, after float64) {
	e.before, e.after = e.before+before*before, e.after+after*after
}
func (e offBy) ratio() float64 { return math.Sqrt(e.after / e.before) }

// asOffset is what an oven's truth comes to at the middle's bubbling.
func (k simulated) asOffset(oven string, bakes int) float64 {
	i, h := k.ran.at[ParameterName{OvenOffset, oven}], k.ran.at[ParameterName{HeatFactor, oven}]
	sum, n := 0.0, 0.0
	for b := range bakes {
		if x := &k.ran.bakes[b]; x.oven() == i {
			sum += x.surface.asOffset(k.ran.mean[i], k.ran.mean[h])
			n++
		}
	}
	return sum / n
}

// A log in another order teaches the same, what is left out teaches nothing, and a test of a fruit counts.
func TestTheOrderOfTheLogTeachesNothing(t *testing.T) {
	keep := keeper()
	k := simulate(t, keep, 3, 12, 0)
	learn := func(q LogRequest) map[ParameterName]Correction {
		got, err := Learn(t.Context(), q, keep, nil)
		if err != nil {
			t.Fatal(err)
		}
		out := map[ParameterName]Correction{}
		for _, c := range got.Corrections {
			out[c.ParameterName] = c
		}
		return out
	}
	forth := learn(k.request)
	back := k.request
	back.Bakes = slices.Clone(back.Bakes)
	slices.Reverse(back.Bakes)
	for n, c := range learn(back) {
		if d := math.Abs(c.Estimate - forth[n].Estimate); d > 0.02*max(1, math.Abs(c.Estimate)) {
			t.Errorf("%v: %g, and %g with the log turned round", n, forth[n].Estimate, c.Estimate)
		}
	}
	none := k.request
	none.Bakes = slices.Clone(none.Bakes)
	for i := range none.Bakes {
		none.Bakes[i].LeftOut = true
	}
	for n, c := range learn(none) {
		if c.Bakes != 0 || c.Used || math.Abs(c.SD-c.PriorSD) > 1e-9 {
			t.Errorf("all is left out, and %v is %+v", n, c)
		}
	}
	off := k.request
	off.Off = []ParameterName{{HeatFactor, "range"}}
	for n, c := range learn(off) {
		oven := n == ParameterName{OvenOffset, "range"} || n == ParameterName{HeatFactor, "range"}
		if c.Off != oven || oven && c.Used {
			t.Errorf("%v: off %v, used %v", n, c.Off, c.Used)
		}
	}
}

// The surface stands for the model: between its points it is what a run of the model gives.
func TestTheSurfaceIsTheModel(t *testing.T) {
	for i, q := range desserts()[:12] {
		if i%5 > 1 {
			continue
		}
		s, err := surfaceOf(t.Context(), q, nil)
		if err != nil {
			t.Fatal(err)
		}
		for _, d := range []drivers{{-9, 0.1}, {7, -0.2}, {22, 0}, {-24, 0.18}} {
			at := q
			at.Setting.OvenOffsetC, at.Setting.HeatFactor = d[byOven], math.Exp(d[byHeat])
			p, err := bake.PlanOf(at)
			if err != nil {
				t.Fatal(err)
			}
			p.Bake.Stages = at.Setting.Stages
			want, got := p.Observe(0), s.at(d)
			if x := math.Exp(got.ln[ofMiddle]) - want.MiddleBubblesMin; math.Abs(x) > 1 {
				t.Errorf("%d at %v: the middle bubbles %.2f min later than the model has it", i, d[:2], x)
			}
			if x := got.ln[ofColour] - math.Log(browned(want.End.Colour)); math.Abs(x) > 0.08 {
				t.Errorf("%d at %v: colour off by %.3f", i, d[:2], x)
			}
		}
	}
}

// A log is refused with the field that is wrong.
func TestALogIsChecked(t *testing.T) {
	good := learnCases(t)[0].Request
	for want, change := range map[string]func(*LogRequest){
		"/bakes/0/id":                     func(q *LogRequest) { q.Bakes[0].ID = "" },
		"/bakes/1/id":                     func(q *LogRequest) { q.Bakes = append(q.Bakes, q.Bakes[0]) },
		"/bakes/0/at":                     func(q *LogRequest) { q.Bakes[0].At = time.Time{} },
		"/bakes/0/oven":                   func(q *LogRequest) { q.Bakes[0].Oven = "a|b" },
		"/bakes/0/request/setting/stages": func(q *LogRequest) { q.Bakes[0].Request.Setting.Stages = nil },
		"/bakes/0/told/juice":             func(q *LogRequest) { q.Bakes[0].Reported.Juice = "wet" },
		"/bakes/0/told/rim_min":           func(q *LogRequest) { q.Bakes[0].Reported.RimMin = ptr(math.NaN()) },
		"/off/0/what":                     func(q *LogRequest) { q.Off = []ParameterName{{"mood", ""}} },
		"/bakes/0/happened/readings/0/c":  func(q *LogRequest) { q.Bakes[0].Happened = &Probed{[]bake.Point{{Minute: 1, C: 900}}} },
		"/bakes/0/request/request/style":  func(q *LogRequest) { q.Bakes[0].Request.Request.Style = "soup" },
		"/bakes/0/request/setting/stages/0/minutes": func(q *LogRequest) {
			q.Bakes[0].Request.Setting.Stages = []bake.Stage{{Minutes: -1, OvenC: 180}}
		},
	} {
		q := good
		q.Bakes = slices.Clone(q.Bakes)
		change(&q)
		_, err := Learn(t.Context(), q, nil, nil)
		var f fault.Faults
		if !errors.As(err, &f) || !slices.ContainsFunc(f, func(x fault.Fault) bool { return x.Pointer == want }) {
			t.Errorf("%s: %v", want, err)
		}
	}
}

func TestLearningEndsWithItsContext(t *testing.T) {
	ctx, stop := context.WithCancel(t.Context())
	k := simulate(t, keeper(), 1, 12, 0)
	_, err := Learn(ctx, k.request, nil, func(done, of int) error {
		stop()
		return nil
	})
	if !errors.Is(err, context.Canceled) {
		t.Errorf("it was left, and answers %v", err)
	}
}

func BenchmarkLearn(b *testing.B) {
	for _, n := range []int{40, 200, 1000} {
		b.Run(fmt.Sprintf("%dBakesKept", n), func(b *testing.B) {
			keep := keeper()
			k := simulate(b, keep, 4, n, 0)
			for b.Loop() {
				if _, err := Learn(b.Context(), k.request, keep, nil); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
	b.Run("OneSurface", func(b *testing.B) {
		q := desserts()[2]
		for b.Loop() {
			if _, err := surfaceOf(b.Context(), q, nil); err != nil {
				b.Fatal(err)
			}
		}
	})
}
