package learn

import (
	"cmp"
	"math"
	"slices"

	"mabbin/core/bake"
	"mabbin/core/baked"
	"mabbin/core/say"
)

// Came is what was told of a bake.
type Came struct {
	bake.Words
	Told     baked.Told
	Happened *baked.Happened // on the oven watch; nil: it was not watched
}

// Explanation is what may have gone wrong in a bake.
type Explanation struct {
	Expected bake.Words  `json:"expected"` // by the model, as it was weighed and baked
	Events   bake.Events `json:"events"`
	End      bake.End    `json:"end"`
	Wrong    []say.Line  `json:"wrong"` // what was told that no baker wants
	// OnPaper is what was wrong with the plan already: its clocks that missed.
	OnPaper []say.Line `json:"on_paper"`
	Causes  []Cause    `json:"causes"` // the likeliest first; none where the model expected what came
}

// Cause is one thing that, had it been otherwise, gives what came out.
type Cause struct {
	Code     string     `json:"code"`
	Says     say.Line   `json:"says"`
	Evidence say.Line   `json:"evidence"` // what it comes to with that one thing changed
	Explains []say.Line `json:"explains"` // of what was told
	Next     say.Line   `json:"next"`     // tried on the model
}

// suspect is one thing that may have been otherwise, by how much it is tried.
type suspect struct {
	code string
	by   []float64
	as   func(float64) Truth
	says func(float64) say.Line
}

// suspects are looked at one at a time.
var suspects = []suspect{
	{
		"oven",
		[]float64{-40, -30, -20, -10, 10, 20, 30, 40},
		func(x float64) Truth { return Truth{OvenC: x} },
		func(x float64) say.Line {
			return say.F(pick[say.Line](x, "The oven was about {degrees} cooler than it says", "The oven was about {degrees} hotter than it says"), say.Degrees(math.Abs(x)))
		},
	},
	{
		"fruit",
		[]float64{-0.4, -0.2, 0.2, 0.4, 0.6},
		func(x float64) Truth { return Truth{Release: x} },
		func(x float64) say.Line {
			return say.F(pick[say.Line](x, "The fruit gave about {share} % less juice", "The fruit gave about {share} % more juice"), share(x))
		},
	},
	{
		"thickener",
		[]float64{-0.4, -0.25, -0.15, 0.15, 0.25},
		func(x float64) Truth { return Truth{Thickener: x} },
		func(x float64) say.Line {
			return say.F(pick[say.Line](x, "The thickener did about {share} % less: some of it stayed in the bowl, went in lumps, or is old", "The thickener did about {share} % more: a heaped measure, or a stronger kind"), share(x))
		},
	},
	{
		"colour",
		[]float64{-0.6, -0.3, 0.3, 0.6, 1.2},
		func(x float64) Truth { return Truth{Colour: x} },
		func(x float64) say.Line {
			return say.F(pick[say.Line](x, "The topping browned about {share} % more slowly", "The topping browned about {share} % faster"), share(x))
		},
	},
	{
		"ripeness",
		[]float64{-0.5, -0.25, 0.25, 0.5, 1},
		func(x float64) Truth { return Truth{Softness: x} },
		func(x float64) say.Line {
			return pick[say.Line](x, "The fruit was harder than usual, or cut larger", "The fruit was softer than usual, or cut smaller")
		},
	},
}

func pick[T ~string](x float64, below, above T) T {
	if x < 0 {
		return below
	}
	return above
}

func share(x float64) say.Value { return say.N(100*math.Abs(x), 0) }

// How much what was told counts: a step on a scale of words, minutes, the share of the weight lost, and what a probe is off by. A miss counts no more than
// mostMiss: something else may have happened.
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

// Explain compares what was told with what the model expects, and looks for the one thing that, changed, explains the most. q has the
// stages as they were; tick may be nil.
func Explain(q bake.DessertRequest, came Came, tick Tick) (*Explanation, error) {
	plan, err := bake.Dessert(q)
	if err != nil {
		return nil, err
	}
	out := &Explanation{
		Expected: plan.Expected(), Events: plan.Plan.Answer.Events, End: plan.Plan.Answer.End,
		Wrong: wrong(came, string(plan.Balance.Set.Band)), OnPaper: plan.Plan.Unmet, Causes: []Cause{},
	}
	if over := out.Expected.BoiledOver; *over {
		out.OnPaper = append(out.OnPaper, say.F("it had {mm} too little room to boil", say.MM(-plan.Balance.Fit.HotHeadspaceMM)))
	}
	before := misses(came, plan)
	type found struct {
		Cause
		truth Truth
		score float64
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
			a, err := t.In(q, plan)
			if err != nil {
				continue
			}
			m := misses(came, a)
			if score := sum(m) + t.far(); score < best.score {
				c := Cause{Code: s.code, Says: s.says(x), Evidence: evidence(came, a)}
				for i := range m {
					if before[i].by > 0.5 && m[i].by < before[i].by/2 {
						c.Explains = append(c.Explains, m[i].what)
					}
				}
				best = found{c, t, score}
			}
		}
		if len(best.Explains) > 0 && best.score < sum(before)-clearly {
			all = append(all, best)
		}
	}
	slices.SortStableFunc(all, func(a, b found) int { return cmp.Compare(a.score, b.score) })
	for _, f := range all[:min(mostSaid, len(all))] {
		f.Next = next(q, plan, f.truth)
		out.Causes = append(out.Causes, f.Cause)
	}
	return out, nil
}

// miss is how far a bake on paper is from one thing that was told, in squared deviations.
type miss struct {
	what say.Line
	by   float64
}

func sum(all []miss) (s float64) {
	for _, m := range all {
		s += m.by
	}
	return s
}

// misses has one for each thing that may be told, in the same order each time; what was not told is not missed.
func misses(c Came, a *bake.DessertAnswer) []miss {
	e, ran := a.Expected(), a.Plan.Answer
	return []miss{
		{"the juice", steps(bake.JuiceWords, c.Juice, e.Juice)},
		{"the fruit", steps(bake.FruitWords, c.Fruit, e.Fruit)},
		{"the top", steps(bake.TopWords, c.Top, e.Top)},
		{"the base", steps(bake.BaseWords, c.Told.Base, e.Base)},
		{"that it boiled over", unlike(c.BoiledOver, e.BoiledOver)},
		{"when the rim bubbled", late(c.Told.RimMin, ran.Events.RimBubbles)},
		{"when the middle bubbled", late(c.Told.MiddleMin, ran.Events.MiddleBubbles)},
		{"the weight that it lost", lighter(c.Told, ran.End.SteamedOffG)},
		{"the probe's curve", offCurve(c.Happened, ran.Curves)},
	}
}

func unlike(told, expected *bool) float64 {
	if told == nil || *told == *expected {
		return 0
	}
	return 1 / (wordStep * wordStep)
}

func lighter(t baked.Told, expectedG float64) float64 {
	g, ok := t.LostG()
	if !ok {
		return 0
	}
	d := (g - expectedG) / max(10, lostPart*expectedG)
	return min(mostMiss, d*d)
}

// offCurve is how far the readings lie from the middle's curve, on the whole.
func offCurve(h *baked.Happened, curves bake.Curves) float64 {
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

// wrong is what was told that no baker wants; band is how it was meant to stand.
func wrong(c Came, band string) []say.Line {
	out := []say.Line{}
	add := func(is bool, says say.Line) {
		if is {
			out = append(out, says)
		}
	}
	meant, juice := slices.Index(bake.JuiceWords, band), slices.Index(bake.JuiceWords, c.Juice)
	add(juice >= 0 && juice < meant, "thinner than it was meant")
	add(juice > meant, "thicker than it was meant")
	add(c.Fruit == "hard", "fruit hard")
	add(c.Fruit == "mush", "fruit gone to mush")
	add(c.Top == "pale", "topping pale")
	add(c.Top == "dark", "topping dark")
	add(c.Top == "burnt", "topping burnt")
	add(c.Told.Base == "raw", "base raw")
	add(c.Told.Base == "soft", "base soft")
	add(c.Told.Base == "burnt", "base burnt")
	add(c.BoiledOver != nil && *c.BoiledOver, "boiled over")
	add(c.Told.Sweetness == "sharp", "too sharp")
	add(c.Told.Sweetness == "sweet", "too sweet")
	return out
}

// evidence is what the model gives with one thing changed, beside what was told.
func evidence(c Came, a *bake.DessertAnswer) say.Line {
	e := a.Expected()
	var comes []say.Line
	word := func(told string, as say.Line, expected string) {
		if told == "" || expected == "" {
			return
		}
		is := say.F(as, say.L(say.Line(expected)))
		if told != expected {
			is = say.F("{what} (told: {word})", say.L(is), say.L(say.Line(told)))
		}
		comes = append(comes, is)
	}
	word(c.Juice, "{word}", e.Juice)
	word(c.Fruit, "fruit {word}", e.Fruit)
	word(c.Top, "top {word}", e.Top)
	word(c.Told.Base, "base {word}", e.Base)
	if m := a.Plan.Answer.Events.MiddleBubbles; m != nil && c.Told.MiddleMin != nil {
		comes = append(comes, say.F("middle bubbling after {minutes} min (told: {told})", say.N(*m, 0), say.N(*c.Told.MiddleMin, 0)))
	}
	if len(comes) == 0 {
		return say.F("It would come out with {steam} of steam lost.", say.G(a.Plan.Answer.End.SteamedOffG))
	}
	return say.F("It would come out {so}.", say.L(say.Between(", ", comes...)))
}

// next is what to do another time if that is how it is, tried on the model.
func next(q bake.DessertRequest, plan *bake.DessertAnswer, t Truth) say.Line {
	switch {
	case t.OvenC != 0:
		return say.F(pick[say.Line](t.OvenC, "Measure the oven (Shelf): the plan then follows it. Until then set it {degrees} higher.", "Measure the oven (Shelf): the plan then follows it. Until then set it {degrees} lower."), say.Degrees(math.Abs(t.OvenC)))
	case t.Release != 0:
		q.Request.Own = moreJuice(q, 1+t.Release)
		return dose(q, plan, "Test the fruit before (Fruit, how juicy is it?).")
	case t.Thickener != 0:
		g := plan.Balance.ThickenerG
		if g < 1 {
			return "Weigh the thickener, and scrape it all into the dish."
		}
		return say.F("Scrape all of it into the dish. If it is the thickener itself, take {much} instead of {was}.", say.G(g/(1+t.Thickener)), say.G(g))
	case t.Colour < 0:
		return "Give it the last minutes uncovered and hotter, or on the high shelf."
	case t.Colour > 0:
		return "Look sooner, and put foil on as soon as it is golden."
	}
	return pick[say.Line](t.Softness, "Cut it smaller, or cook it first; and try a piece with a skewer before it goes in.", "Cut it larger, or bake it hotter and shorter.")
}

// dose is the thickener for a truth, against the ticket's.
func dose(q bake.DessertRequest, plan *bake.DessertAnswer, first say.Line) say.Line {
	if q.Request.Custard != nil || plan.Balance.ThickenerG < 1 {
		return first
	}
	fruit := plan.Balance.FruitG
	q.Request.WeighedFruitG, q.Setting.Stages = &fruit, plan.Plan.Stages
	if t := q.Request.Thickener; t != nil {
		solved := *t
		solved.G = nil
		q.Request.Thickener = &solved
	}
	a, err := bake.Dessert(q)
	if err != nil {
		return first
	}
	return say.Sentences(first, say.F("If it is so, take {much} of thickener instead of {was}.", say.G(a.Balance.ThickenerG), say.G(plan.Balance.ThickenerG)))
}
