package learn

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"mabbin/core/bake"
	"mabbin/core/baked"
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
	Wrong    []string    `json:"wrong"` // what was told that no baker wants
	// OnPaper is what was wrong with the plan already: its clocks that missed.
	OnPaper []string `json:"on_paper"`
	Causes  []Cause  `json:"causes"` // the likeliest first; none where the model expected what came
}

// Cause is one thing that, had it been otherwise, gives what came out.
type Cause struct {
	Code     string   `json:"code"`
	Says     string   `json:"says"`
	Evidence string   `json:"evidence"` // what it comes to with that one thing changed
	Explains []string `json:"explains"` // of what was told
	Next     string   `json:"next"`     // tried on the model
}

// suspect is one thing that may have been otherwise, by how much it is tried.
type suspect struct {
	code string
	by   []float64
	as   func(float64) Truth
	says func(float64) string
}

// suspects are looked at one at a time.
var suspects = []suspect{
	{
		"oven",
		[]float64{-40, -30, -20, -10, 10, 20, 30, 40},
		func(x float64) Truth { return Truth{OvenC: x} },
		func(x float64) string {
			return fmt.Sprintf("The oven was about %.0f C %s than it says", math.Abs(x), pick(x, "cooler", "hotter"))
		},
	},
	{
		"fruit",
		[]float64{-0.4, -0.2, 0.2, 0.4, 0.6},
		func(x float64) Truth { return Truth{Release: x} },
		func(x float64) string {
			return fmt.Sprintf("The fruit gave about %.0f %% %s juice", 100*math.Abs(x), pick(x, "less", "more"))
		},
	},
	{
		"thickener",
		[]float64{-0.4, -0.25, -0.15, 0.15, 0.25},
		func(x float64) Truth { return Truth{Thickener: x} },
		func(x float64) string {
			return fmt.Sprintf("The thickener did about %.0f %% %s: %s", 100*math.Abs(x), pick(x, "less", "more"), pick(x, "some of it stayed in the bowl, went in lumps, or is old", "a heaped measure, or a stronger kind"))
		},
	},
	{
		"colour",
		[]float64{-0.6, -0.3, 0.3, 0.6, 1.2},
		func(x float64) Truth { return Truth{Colour: x} },
		func(x float64) string {
			return fmt.Sprintf("The topping browned about %.0f %% %s", 100*math.Abs(x), pick(x, "more slowly", "faster"))
		},
	},
	{
		"ripeness",
		[]float64{-0.5, -0.25, 0.25, 0.5, 1},
		func(x float64) Truth { return Truth{Softness: x} },
		func(x float64) string {
			return pick(x, "The fruit was harder than usual, or cut larger", "The fruit was softer than usual, or cut smaller")
		},
	},
}

func pick(x float64, below, above string) string {
	if x < 0 {
		return below
	}
	return above
}

// How much what was told counts: a step on a scale of words, minutes, and the share of the weight lost. A miss counts no more than
// mostMiss: something else may have happened.
const (
	wordStep = 0.45
	seenMin  = 4.0
	lostPart = 0.25
	mostMiss = 16.0
	clearly  = 0.5 // by so much a cause has to explain more than nothing does
	mostSaid = 3
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
		out.OnPaper = append(out.OnPaper, fmt.Sprintf("it had %.0f mm too little room to boil", -plan.Balance.Fit.HotHeadspaceMM))
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
	what string
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
	e := a.Expected()
	out := []miss{
		{"the juice", steps(bake.JuiceWords, c.Juice, e.Juice)},
		{"the fruit", steps(bake.FruitWords, c.Fruit, e.Fruit)},
		{"the top", steps(bake.TopWords, c.Top, e.Top)},
		{"the base", steps(bake.BaseWords, c.Told.Base, e.Base)},
		{"that it boiled over", 0},
		{"when the rim bubbled", late(c.Told.RimMin, a.Plan.Answer.Events.RimBubbles)},
		{"when the middle bubbled", late(c.Told.MiddleMin, a.Plan.Answer.Events.MiddleBubbles)},
		{"the weight that it lost", 0},
		{"the probe's curve", 0},
	}
	if c.BoiledOver != nil && *c.BoiledOver != *e.BoiledOver {
		out[4].by = 1 / (wordStep * wordStep)
	}
	if g, ok := c.Told.LostG(); ok {
		d := (g - a.Plan.Answer.End.SteamedOffG) / max(10, lostPart*a.Plan.Answer.End.SteamedOffG)
		out[7].by = min(mostMiss, d*d)
	}
	if c.Happened != nil && len(c.Happened.Readings) > 0 {
		d := 0.0
		for _, p := range c.Happened.Readings {
			d += p.C - a.Plan.Answer.Curves.MiddleAt(p.Minute)
		}
		d /= float64(len(c.Happened.Readings)) * 2
		out[8].by = min(mostMiss, d*d)
	}
	return out
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
func wrong(c Came, band string) []string {
	out := []string{}
	add := func(is bool, says string) {
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
	add(c.Top == "dark" || c.Top == "burnt", "topping "+c.Top)
	add(c.Told.Base == "raw" || c.Told.Base == "soft", "base "+c.Told.Base)
	add(c.Told.Base == "burnt", "base burnt")
	add(c.BoiledOver != nil && *c.BoiledOver, "boiled over")
	add(c.Told.Sweetness == "sharp", "too sharp")
	add(c.Told.Sweetness == "sweet", "too sweet")
	return out
}

// evidence is what the model gives with one thing changed, beside what was told.
func evidence(c Came, a *bake.DessertAnswer) string {
	e := a.Expected()
	s := "It would come out"
	sep := " "
	say := func(told, what, expected string) {
		if told == "" || expected == "" {
			return
		}
		s += sep + what + expected
		if told != expected {
			s += " (told: " + told + ")"
		}
		sep = ", "
	}
	say(c.Juice, "", e.Juice)
	say(c.Fruit, "fruit ", e.Fruit)
	say(c.Top, "top ", e.Top)
	say(c.Told.Base, "base ", e.Base)
	if m := a.Plan.Answer.Events.MiddleBubbles; m != nil && c.Told.MiddleMin != nil {
		s += fmt.Sprintf("%smiddle bubbling after %.0f min (told: %.0f)", sep, *m, *c.Told.MiddleMin)
		sep = ", "
	}
	if sep == " " {
		s += fmt.Sprintf(" with %.0f g of steam lost", a.Plan.Answer.End.SteamedOffG)
	}
	return s + "."
}

// next is what to do another time if that is how it is, tried on the model.
func next(q bake.DessertRequest, plan *bake.DessertAnswer, t Truth) string {
	switch {
	case t.OvenC != 0:
		return fmt.Sprintf("Measure the oven (Shelf): the plan then follows it. Until then set it %.0f C %s.", math.Abs(t.OvenC), pick(t.OvenC, "higher", "lower"))
	case t.Release != 0:
		q.Request.Own = moreJuice(q, 1+t.Release)
		return dose(q, plan, "Test the fruit before (Fruit, how juicy is it?).")
	case t.Thickener != 0:
		g := plan.Balance.ThickenerG
		if g < 1 {
			return "Weigh the thickener, and scrape it all into the dish."
		}
		return fmt.Sprintf("Scrape all of it into the dish. If it is the thickener itself, take %.0f g instead of %.0f g.", g/(1+t.Thickener), g)
	case t.Colour < 0:
		return "Give it the last minutes uncovered and hotter, or on the high shelf."
	case t.Colour > 0:
		return "Look sooner, and put foil on as soon as it is golden."
	}
	return pick(t.Softness, "Cut it smaller, or cook it first; and try a piece with a skewer before it goes in.", "Cut it larger, or bake it hotter and shorter.")
}

// dose is the thickener for a truth, against the ticket's.
func dose(q bake.DessertRequest, plan *bake.DessertAnswer, first string) string {
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
	return fmt.Sprintf("%s If it is so, take %.0f g of thickener instead of %.0f g.", first, a.Balance.ThickenerG, plan.Balance.ThickenerG)
}
