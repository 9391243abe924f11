package learn

import (
	"cmp"
	"context"
	"errors"
	"math"
	"slices"

	"mabbin/core/bake"
	"mabbin/core/fault"
	"mabbin/core/message"
	"mabbin/core/outcome"
)

// Report is what was told of a bake.
type Report struct {
	bake.Words
	Told     outcome.Told
	Happened *outcome.Happened // on the oven watch; nil: it was not watched
}

// Explanation is what may have gone wrong in a bake.
type Explanation struct {
	Expected bake.Words        `json:"expected"` // by the model, as it was weighed and baked
	Events   bake.Events       `json:"events"`
	End      bake.End          `json:"end"`
	Wrong    []message.Message `json:"wrong"` // what was told that no baker wants
	// OnPaper is what was wrong with the plan already: its clocks that missed.
	OnPaper []message.Message `json:"on_paper"`
	Causes  []Cause           `json:"causes"` // the likeliest first; none where the model expected what came
}

// Cause is one thing that, had it been otherwise, gives what came out.
type Cause struct {
	Code     string            `json:"code"`
	Says     message.Message   `json:"says"`
	Evidence message.Message   `json:"evidence"` // what it comes to with that one thing changed
	Explains []message.Message `json:"explains"` // of what was told
	Next     message.Message   `json:"next"`     // tried on the model
}

// suspect is one thing that may have been otherwise, by how much it is tried.
type suspect struct {
	code string
	by   []float64
	as   func(float64) Deviation
	says func(float64) message.Message
}

// suspects are looked at one at a time.
var suspects = []suspect{
	{
		"oven",
		[]float64{-40, -30, -20, -10, 10, 20, 30, 40},
		func(x float64) Deviation { return Deviation{OvenC: x} },
		func(x float64) message.Message {
			return message.New(
				pick(x, "The oven was about {degrees} cooler than it says", "The oven was about {degrees} hotter than it says"),
				message.CelsiusDifference(math.Abs(x)),
			)
		},
	},
	{
		"fruit",
		[]float64{-0.4, -0.2, 0.2, 0.4, 0.6},
		func(x float64) Deviation { return Deviation{Release: x} },
		func(x float64) message.Message {
			return message.New(
				pick(x, "The fruit gave about {share} % less juice", "The fruit gave about {share} % more juice"),
				share(x),
			)
		},
	},
	{
		"thickener",
		[]float64{-0.4, -0.25, -0.15, 0.15, 0.25},
		func(x float64) Deviation { return Deviation{Thickener: x} },
		func(x float64) message.Message {
			return message.New(
				pick(
					x,
					"The thickener did about {share} % less: some of it stayed in the bowl, went in lumps, or is old",
					"The thickener did about {share} % more: a heaped measure, or a stronger kind",
				),
				share(x),
			)
		},
	},
	{
		"colour",
		[]float64{-0.6, -0.3, 0.3, 0.6, 1.2},
		func(x float64) Deviation { return Deviation{Colour: x} },
		func(x float64) message.Message {
			return message.New(
				pick(x, "The topping browned about {share} % more slowly", "The topping browned about {share} % faster"),
				share(x),
			)
		},
	},
	{
		"ripeness",
		[]float64{-0.5, -0.25, 0.25, 0.5, 1},
		func(x float64) Deviation { return Deviation{Softness: x} },
		func(x float64) message.Message {
			return message.New(
				pick(x, "The fruit was harder than usual, or cut larger", "The fruit was softer than usual, or cut smaller"),
			)
		},
	},
}

func pick(x float64, below, above string) string {
	if x < 0 {
		return below
	}
	return above
}

func share(x float64) message.Arg { return message.Number(100*math.Abs(x), 0) }

// How much what was told counts: a step on a scale of words, minutes, the share of the weight lost, and what a probe
// is off by. A miss counts no more than mostMiss: something else may have happened.
const (
	wordStep    = 0.45
	seenMin     = 4.0
	lostPart    = 0.25
	probeNoiseC = 2.0
	mostMiss    = 16.0
	clearly     = 0.5 // by so much a cause has to explain more than nothing does
	mostSaid    = 3
)

// Tick is told how many bakes on paper are done, of how many. An error from it ends the work.
type Tick func(done, of int) error

// Explain compares what was told with what the model expects, and looks for the one thing that, changed, explains the
// most. q has the stages as they were; tick may be nil.
func Explain(ctx context.Context, q bake.DessertRequest, came Report, tick Tick) (*Explanation, error) {
	plan, err := bake.Dessert(ctx, q)
	if err != nil {
		return nil, err
	}
	out := &Explanation{
		Expected: plan.Expected(), Events: plan.Plan.Answer.Events, End: plan.Plan.Answer.End,
		Wrong: []message.Message{}, OnPaper: plan.Plan.Unmet, Causes: []Cause{},
	}
	complained := map[string]bool{}
	for _, c := range came.Told.Complaints(string(plan.Balance.Set.Band), came.Words) {
		out.Wrong = append(out.Wrong, c.Says)
		complained[c.Of] = true
	}
	if over := out.Expected.BoiledOver; *over {
		out.OnPaper = append(
			out.OnPaper,
			message.New("it had {mm} too little room to boil", message.Millimetres(-plan.Balance.Fit.HotHeadspaceMM)),
		)
	}
	before := misses(came, plan)
	type found struct {
		Cause
		truth Deviation
		score float64
		eases bool // a complaint that was told
	}
	var all []found
	done, of := 0, 0
	for _, s := range suspects {
		of += len(s.by)
	}
	for _, s := range suspects {
		best := found{score: math.Inf(1)}
		for _, x := range s.by {
			if tick != nil {
				if err := tick(done, of); err != nil {
					return nil, err
				}
			}
			done++
			t := s.as(x)
			a, err := t.Simulate(ctx, q, plan)
			if errors.As(err, new(fault.Faults)) {
				continue // with that much of it there is no such dessert
			}
			if err != nil {
				return nil, err
			}
			m := misses(came, a)
			if score := sum(m) + t.far(); score < best.score {
				best = found{Cause{Code: s.code, Says: s.says(x), Evidence: evidence(came, a)}, t, score, false}
				for i := range m {
					if before[i].by > 0.5 && m[i].by < before[i].by/2 {
						best.Explains = append(best.Explains, m[i].what)
						best.eases = best.eases || complained[m[i].of]
					}
				}
			}
		}
		if len(best.Explains) > 0 && best.score < sum(before)-clearly {
			all = append(all, best)
		}
	}
	slices.SortStableFunc(all, func(a, b found) int {
		if a.eases != b.eases { // what was complained of is explained first
			if a.eases {
				return -1
			}
			return 1
		}
		return cmp.Compare(a.score, b.score)
	})
	for _, f := range all[:min(mostSaid, len(all))] {
		f.Next = next(ctx, q, plan, f.truth)
		out.Causes = append(out.Causes, f.Cause)
	}
	return out, nil
}

// miss is how far a bake on paper is from one thing that was told, in squared deviations.
type miss struct {
	of   string // as outcome.Complaint has it; empty: nothing that is complained of
	what message.Message
	by   float64
}

func sum(all []miss) (s float64) {
	for _, m := range all {
		s += m.by
	}
	return s
}

// misses has one for each thing that may be told, in the same order each time; what was not told is not missed.
func misses(c Report, a *bake.DessertAnswer) []miss {
	e, ran := a.Expected(), a.Plan.Answer
	juice := e.Juice
	if c.Told.Warm() {
		juice = string(a.Balance.Set.HotBand)
	}
	return []miss{
		{"juice", message.New("the juice"), steps(bake.JuiceWords, c.Juice, juice)},
		{"fruit", message.New("the fruit"), steps(bake.FruitWords, c.Fruit, e.Fruit)},
		{"top", message.New("the top"), steps(bake.TopWords, c.Top, e.Top)},
		{"base", message.New("the base"), steps(bake.BaseWords, c.Told.Base, e.Base)},
		{"boiled_over", message.New("that it boiled over"), unlike(c.BoiledOver, e.BoiledOver)},
		{"", message.New("when the rim bubbled"), late(c.Told.RimMin, ran.Events.RimBubbles)},
		{"", message.New("when the middle bubbled"), late(c.Told.MiddleMin, ran.Events.MiddleBubbles)},
		{"", message.New("the weight that it lost"), lighter(c.Told, ran.End.SteamedOffG)},
		{"", message.New("the probe's curve"), offCurve(c.Happened, ran.Curves)},
	}
}

func unlike(told, expected *bool) float64 {
	if told == nil || *told == *expected {
		return 0
	}
	return 1 / (wordStep * wordStep)
}

func lighter(t outcome.Told, expectedG float64) float64 {
	g, ok := t.LostG()
	if !ok {
		return 0
	}
	d := (g - expectedG) / max(10, lostPart*expectedG)
	return min(mostMiss, d*d)
}

// offCurve is how far the readings lie from the middle's curve, on the whole.
func offCurve(h *outcome.Happened, curves bake.Curves) float64 {
	if h == nil || len(h.Readings) == 0 {
		return 0
	}
	d := 0.0
	for _, p := range h.Readings {
		d += p.C - curves.MiddleAt(p.Minute)
	}
	d /= float64(len(h.Readings)) * probeNoiseC
	return min(mostMiss, d*d)
}

func steps(words []string, told, expected string) float64 {
	i, j := slices.Index(words, told), slices.Index(words, expected)
	if i < 0 || j < 0 {
		return 0
	}
	d := float64(i-j) / wordStep
	return min(mostMiss, d*d)
}

func late(told, expected *float64) float64 {
	if told == nil {
		return 0
	}
	if expected == nil { // it never did on paper
		return mostMiss
	}
	d := (*told - *expected) / seenMin
	return min(mostMiss, d*d)
}

// evidence is what the model gives with one thing changed, beside what was told.
func evidence(c Report, a *bake.DessertAnswer) message.Message {
	e := a.Expected()
	var comes []message.Message
	word := func(told, as, expected string) {
		if told == "" || expected == "" {
			return
		}
		is := message.New(as, message.Word(expected))
		if told != expected {
			is = message.New("{what} (told: {word})", message.Part(is), message.Word(told))
		}
		comes = append(comes, is)
	}
	word(c.Juice, "{word}", e.Juice)
	word(c.Fruit, "fruit {word}", e.Fruit)
	word(c.Top, "top {word}", e.Top)
	word(c.Told.Base, "base {word}", e.Base)
	if m := a.Plan.Answer.Events.MiddleBubbles; m != nil && c.Told.MiddleMin != nil {
		comes = append(
			comes,
			message.New(
				"middle bubbling after {minutes} min (told: {told})",
				message.Number(*m, 0),
				message.Number(*c.Told.MiddleMin, 0),
			),
		)
	}
	if len(comes) == 0 {
		return message.New("It would come out with {steam} of steam lost.", message.Grams(a.Plan.Answer.End.SteamedOffG))
	}
	return message.New("It would come out {so}.", message.Part(message.Join(", ", comes...)))
}

// next is what to do another time if that is how it is, tried on the model.
func next(ctx context.Context, q bake.DessertRequest, plan *bake.DessertAnswer, t Deviation) message.Message {
	switch {
	case t.OvenC != 0:
		return message.New(
			pick(
				t.OvenC,
				"Measure the oven (Shelf): the plan then follows it. Until then set it {degrees} higher.",
				"Measure the oven (Shelf): the plan then follows it. Until then set it {degrees} lower.",
			),
			message.CelsiusDifference(math.Abs(t.OvenC)),
		)
	case t.Release != 0:
		q.Request.Own = moreJuice(q, 1+t.Release)
		return dose(ctx, q, plan, message.New("Test the fruit before (Fruit, how juicy is it?)."))
	case t.Thickener != 0:
		g := plan.Balance.ThickenerG
		if g < 1 {
			return message.New("Weigh the thickener, and scrape it all into the dish.")
		}
		return message.New(
			"Scrape all of it into the dish. If it is the thickener itself, take {much} instead of {was}.",
			message.Grams(g/(1+t.Thickener)),
			message.Grams(g),
		)
	case t.Colour < 0:
		return message.New("Give it the last minutes uncovered and hotter, or on the high shelf.")
	case t.Colour > 0:
		return message.New("Look sooner, and put foil on as soon as it is golden.")
	}
	return message.New(pick(
		t.Softness,
		"Cut it smaller, or cook it first; and try a piece with a skewer before it goes in.",
		"Cut it larger, or bake it hotter and shorter.",
	))
}

// dose is the thickener for a truth, against the ticket's.
func dose(ctx context.Context, q bake.DessertRequest, plan *bake.DessertAnswer, first message.Message) message.Message {
	if q.Request.Custard != nil || plan.Balance.ThickenerG < 1 {
		return first
	}
	q.Request.WeighFruit(plan.Balance.FruitG)
	q.Setting.Stages = plan.Plan.Stages
	if t := q.Request.Thickener; t != nil {
		solved := *t
		solved.G = nil
		q.Request.Thickener = &solved
	}
	a, err := bake.Dessert(ctx, q)
	if err != nil {
		return first
	}
	return message.Sentences(
		first,
		message.New(
			"If it is so, take {much} of thickener instead of {was}.",
			message.Grams(a.Balance.ThickenerG),
			message.Grams(plan.Balance.ThickenerG),
		),
	)
}
