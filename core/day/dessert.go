package day

import (
	"math"
	"strings"

	"mabbin/core/bake"
	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// Serve is how a dessert comes to the table.
type Serve string

// The ways to serve.
const (
	Hot  Serve = "hot"
	Warm Serve = "warm"
	Cold Serve = "cold" // and set
)

// Serves are the ways to serve, in words.
var Serves = message.Choices{
	message.Choose(Hot, "hot"), message.Choose(Warm, "warm"), message.Choose(Cold, "cold and set"),
}

// Job is a dessert that is wanted.
type Job struct {
	ID      string
	Dessert bake.DessertRequest
	Dishes  int // of it; 0: one
	Due     *int
	Serve   Serve
	// What was worked out for the card before: how it cools, and how long it is reheated, min. Nil and 0: it is not known.
	Cooling *bake.Cooling
	Rewarm  float64
}

// What hands and doughs take, in min: working figures, until a kitchen has its own.
const (
	anyPrepMin  = 2.0
	thawHands   = 2
	thawMin     = 120
	thawMost    = 360
	precookHand = 5
	coolMin     = 20 // before a dough goes on
	crumbleMin  = 8
	biscuitMin  = 6
	pastryMin   = 10
	boughtMin   = 3
	rollMin     = 8
	lineMin     = 4
	linePerDish = 6
	lineChill   = 20
	lineMost    = 300
	weightsFlex = 3
	assembleMin = 4
	cutMin      = 3
	perDish     = 2

	crumbChill, crumbMost   = 20, 600
	baseChill, baseMost     = 30, 900
	pastryChill, pastryMost = 45, 900

	brownsWithin  = 120 // from the knife to the dish
	prepWithin    = 240
	biscuitWithin = 20 // from the bowl to the dish
	rolledWithin  = 30
	loadWithin    = 30 // from the dish to the oven
	biscuitLoad   = 10
	warmWithin    = 20 // a glaze that was cooked, from the pan to the dish
	macerateTimes = 5

	hotRest, warmRest       = 10, 30
	coldRack, coldFridge    = 60, 60
	warmHold                = 60
	parCool, parCoolMost    = 15, 240
	turnFlex, coverFlex     = 5, 3
	pushFlex, lateFlex      = 2, 2
	pushMin, lateToppingMin = 3, 2
	clockShare              = 0.04 // of the minutes: how far a clock is off by itself
)

// prepPerKG are minutes of hands for a kilogram of fruit, by the beginning of its key. Working figures.
var prepPerKG = []struct {
	key     string
	minutes float64
}{
	{"rhubarb", 6},
	{"blackcurrant", 6},
	{"redcurrant", 6},
	{"apricot", 6},
	{"plum", 8},
	{"nectarine", 8},
	{"peach", 8},
	{"gooseberry", 10},
	{"apple", 12},
	{"pear", 12},
	{"cherry", 14},
	{"damson", 15},
	{"quince", 16},
	{"mango", 12},
	{"pineapple", 12},
	{"pumpkin", 12},
	{"fig", 4},
	{"persimmon", 8},
	{"tomato", 6},
	{"green_tomato", 6},
	{"courgette", 6},
}

const (
	berryPerKG    = 3.0
	unpeeledPerKG = 7.0 // apples and pears
)

// PrepMinutes is how long hands take to make the fruit of a dessert ready.
func PrepMinutes(r balance.Request, fruitG float64) int {
	shares, minutes := 0.0, 0.0
	for _, f := range r.Fruits {
		shares += f.Share
		per := berryPerKG
		for _, x := range prepPerKG {
			if strings.HasPrefix(f.Key, x.key) {
				per = x.minutes
			}
		}
		if f.Peeled != nil && !*f.Peeled && (strings.HasPrefix(f.Key, "apple") || strings.HasPrefix(f.Key, "pear")) {
			per = unpeeledPerKG
		}
		if f.Frozen {
			per = berryPerKG
		}
		minutes += f.Share * per
	}
	if shares == 0 {
		return int(anyPrepMin)
	}
	return int(math.Ceil(anyPrepMin + fruitG/1000*minutes/shares - 1e-9))
}

// making builds a batch, a task after the other.
type making struct {
	batch Batch
	id    string
	n     int
}

func (m *making) name(kind string) string { return m.id + "." + kind }

func (m *making) add(t Task) string {
	t.ID = m.name(t.ID)
	m.batch.Tasks = append(m.batch.Tasks, t)
	return t.ID
}

func after(task string) Lag { return Lag{Task: task} }

func within(task string, most int) Lag { return Lag{Task: task, Max: &most} }

// BatchOf makes the batch of an order from its card and its bake: what hands do, what waits, and the bake as planned.
func BatchOf(o Job, a *bake.DessertAnswer) Batch {
	m := &making{id: o.ID, n: max(1, o.Dishes)}
	m.batch = Batch{ID: o.ID, Due: o.Due, Serve: string(o.Serve)}
	r := o.Dessert.Request
	into := []Lag{m.fruit(r, o.Dessert.Setting, a.Balance.FruitG)}
	if lag, is := m.topping(r); is {
		into = append(into, lag)
	}
	if lag, is := m.base(r, a.Bake); is {
		into = append(into, lag)
	}
	filled := m.add(
		Task{ID: "assemble", Kind: "assemble", Uses: UsePerson, Minutes: assembleMin + perDish*m.n, After: into},
	)
	baked := m.bake(filled, r, a)
	m.rest(baked, o, a.Plan, a.Bake)
	return m.batch
}

func minutes(n int) *int { return &n }

// WorkMinutes is how long hands are at a dessert, from the fruit to the table.
func WorkMinutes(d bake.DessertRequest, a *bake.DessertAnswer) int {
	sum := 0
	for _, t := range BatchOf(Job{ID: "dessert", Dessert: d, Serve: Warm}, a).Tasks {
		if t.Uses == UsePerson {
			sum += t.Minutes
		}
		if t.Uses == UseOven {
			for _, x := range t.Alternatives[0].Touches {
				sum += x.Minutes
			}
		}
	}
	return sum
}

// fruit is what is done to the fruit until it goes into the dish.
func (m *making) fruit(r balance.Request, s bake.Setting, fruitG float64) Lag {
	browns, frozen := false, false
	for _, f := range r.Fruits {
		row, ok := r.Own.Fruit(f.Key)
		browns = browns || ok && row.BrownsInAir && !f.Frozen
		frozen = frozen || f.Frozen
	}
	var first []Lag
	if frozen && s.FillingC != nil && *s.FillingC > 0 { // thawed, and not baked as it comes from the freezer
		out := m.add(Task{ID: "unfreeze", Kind: "unfreeze", Uses: UsePerson, Minutes: thawHands})
		thawed := m.add(Task{
			ID: "thaw", Kind: "thaw", Uses: UseWait, Minutes: thawMin, MaxMin: minutes(thawMost), After: []Lag{after(out)},
		})
		first = []Lag{after(thawed)}
	}
	ready := m.add(
		Task{ID: "fruit", Kind: "fruit", Uses: UsePerson, Minutes: PrepMinutes(r, float64(m.n)*fruitG), After: first},
	)
	keeps := prepWithin
	if browns {
		keeps = brownsWithin
	}
	lag := within(ready, keeps)
	if p := r.Precook; p != nil && p.Minutes > 0 {
		on := m.add(Task{ID: "precook", Kind: "precook", Uses: UsePerson, Minutes: precookHand, After: []Lag{lag}})
		cooked := m.add(Task{
			ID: "cook", Kind: "cook", Uses: UseWait, Minutes: int(math.Ceil(p.Minutes)) + coolMin, After: []Lag{after(on)},
		})
		lag = after(cooked)
	}
	if x := r.Macerate; x != nil && x.Minutes > 0 {
		n := int(math.Ceil(x.Minutes))
		stood := m.add(Task{
			ID: "macerate", Kind: "macerate", Uses: UseWait, Minutes: n, MaxMin: minutes(macerateTimes * n), After: []Lag{lag},
		})
		lag = after(stood)
	}
	return lag
}

// topping is what is done to the topping until it goes on.
func (m *making) topping(r balance.Request) (Lag, bool) {
	t, ok := larder.Toppings.Get(r.Topping.Key)
	if !ok || t.None() {
		return Lag{}, false
	}
	switch {
	case strings.HasPrefix(t.Key, "bought") || strings.HasPrefix(t.Key, "puff"):
		cut := m.add(Task{ID: "topping", Kind: "lid", Uses: UsePerson, Minutes: boughtMin})
		return within(cut, rolledWithin), true
	case t.Family == "biscuit":
		dough := m.add(Task{ID: "dough", Kind: "biscuit", Uses: UsePerson, Minutes: biscuitMin})
		return within(dough, biscuitWithin), true
	case t.Family == "pastry":
		dough := m.add(Task{ID: "dough", Kind: "pastry", Uses: UsePerson, Minutes: pastryMin, Ahead: true})
		cold := m.add(Task{
			ID:      "chill",
			Kind:    "chill",
			Uses:    UseWait,
			Minutes: pastryChill,
			MaxMin:  minutes(pastryMost),
			After:   []Lag{after(dough)},
		})
		rolled := m.add(Task{ID: "roll", Kind: "roll", Uses: UsePerson, Minutes: rollMin, After: []Lag{after(cold)}})
		return within(rolled, rolledWithin), true
	case t.Family == "betty":
		return within(
			m.add(Task{ID: "topping", Kind: "crumbs", Uses: UsePerson, Minutes: crumbleMin, Ahead: true}),
			crumbMost,
		), true
	}
	if strings.HasPrefix(t.MakeAhead, "use warm") {
		warm := m.add(Task{ID: "topping", Kind: "warm", Uses: UsePerson, Minutes: crumbleMin})
		return within(warm, warmWithin), true
	}
	if r.Topping.Melted(t) { // it is forked together and goes on: nothing has to firm up
		forked := m.add(Task{ID: "topping", Kind: "crumbs", Uses: UsePerson, Minutes: crumbleMin, Ahead: true})
		return within(forked, crumbMost), true
	}
	made := m.add(Task{ID: "topping", Kind: "topping", Uses: UsePerson, Minutes: crumbleMin, Ahead: true})
	cold := m.add(Task{
		ID: "chill", Kind: "chill", Uses: UseWait, Minutes: crumbChill, MaxMin: minutes(crumbMost), After: []Lag{after(made)},
	})
	return after(cold), true
}

// base is what is done to a base until the fruit goes in.
func (m *making) base(r balance.Request, b bake.Request) (Lag, bool) {
	if r.Base == nil || b.Base == nil {
		return Lag{}, false
	}
	var lag Lag
	if strings.HasPrefix(r.Base.Key, "bought") {
		lag = within(m.add(Task{ID: "base", Kind: "lid", Uses: UsePerson, Minutes: boughtMin}), rolledWithin)
	} else {
		made := m.add(Task{ID: "base", Kind: "base", Uses: UsePerson, Minutes: pastryMin, Ahead: true})
		lag = after(m.add(Task{
			ID:      "basechill",
			Kind:    "chill",
			Uses:    UseWait,
			Minutes: baseChill,
			MaxMin:  minutes(baseMost),
			After:   []Lag{after(made)},
		}))
	}
	lined := m.add(Task{ID: "line", Kind: "line", Uses: UsePerson, Minutes: lineMin + linePerDish*m.n, After: []Lag{lag}})
	cold := m.add(Task{
		ID: "lined", Kind: "chill", Uses: UseWait, Minutes: lineChill, MaxMin: minutes(lineMost), After: []Lag{after(lined)},
	})
	if !r.Base.ParBaked {
		return after(cold), true
	}
	length, depth := r.Dish.Outside()
	base, _ := larder.Bases.Get(r.Base.Key)
	weighted, open := int(math.Ceil(base.ParBakeWeightedMin)), int(math.Ceil(base.ParBakeOpenMin))
	touches := []Touch{{Kind: "load", Minutes: 1}}
	if weighted > 0 {
		touches = append(touches, Touch{Kind: "weights_out", At: weighted, Minutes: 2, Flex: weightsFlex})
	}
	touches = append(touches, Touch{Kind: "take_out", At: weighted + open, Minutes: 1, Flex: 1})
	par := m.add(Task{
		ID: "parbake", Kind: "parbake", Uses: UseOven, Count: m.n, WidthCM: length, DepthCM: depth, After: []Lag{after(cold)},
		Alternatives: []Alternative{{
			ID: "par", Stages: []Stage{{Minutes: weighted + open, OvenC: base.ParBakeC}}, Touches: touches,
		}},
	})
	return after(m.add(Task{
		ID: "cool", Kind: "cool", Uses: UseWait, Minutes: parCool, MaxMin: minutes(parCoolMost), After: []Lag{after(par)},
	})), true
}

// bake is the bake by the stages that are on the screen.
func (m *making) bake(filled string, r balance.Request, a *bake.DessertAnswer) string {
	length, width := r.Dish.Outside()
	soon := loadWithin
	if t, ok := larder.Toppings.Get(r.Topping.Key); ok && t.Family == "biscuit" {
		soon = biscuitLoad
	}
	return m.add(Task{
		ID: "bake", Kind: "bake", Uses: UseOven, Count: m.n, WidthCM: length, DepthCM: width,
		After: []Lag{{Task: filled, Max: &soon, Hard: true}}, Alternatives: []Alternative{alternativeOf(asCard, a)},
	})
}

// alternativeOf is a plan of a bake as one way to bake it, with what hands do during it.
func alternativeOf(id string, a *bake.DessertAnswer) Alternative {
	out := Alternative{ID: id, Shelf: a.Bake.Shelf, SDMin: UncertainMin(a)}
	out.bakedBy(a.Plan.Stages, int(a.Plan.TurnAt))
	return out
}

// bakedBy gives an alternative its stages and what hands do during them; it is turned at a minute, 0: not at all.
func (x *Alternative) bakedBy(stages []bake.Stage, turn int) {
	x.Touches = []Touch{{Kind: "load", Minutes: 1}}
	at := 0
	var was bake.Stage
	for i, s := range stages {
		n := int(math.Ceil(s.Minutes - 1e-9))
		if n < 1 {
			continue
		}
		if i > 0 {
			switch {
			case s.PushUnder:
				x.Touches = append(x.Touches, Touch{Kind: "push_under", At: at, Minutes: pushMin, Flex: pushFlex})
			case s.AddTopping:
				x.Touches = append(x.Touches, Touch{Kind: "add_topping", At: at, Minutes: lateToppingMin, Flex: lateFlex})
			default:
				x.cover(was, s, at)
			}
			if s.OvenC != was.OvenC {
				x.Touches = append(x.Touches, Touch{Kind: otherHeat, At: at, Minutes: 1, Flex: coverFlex})
			}
		}
		x.Stages = append(x.Stages, Stage{Minutes: n, OvenC: s.OvenC, Heating: s.Heating})
		at += n
		was = s
	}
	if at == 0 { // a bake of no time still goes in and comes out: a schedule counts whole minutes
		at = 1
		x.Stages = []Stage{{Minutes: at}}
		if len(stages) > 0 {
			x.Stages[0].OvenC, x.Stages[0].Heating = stages[0].OvenC, stages[0].Heating
		}
	}
	if turn > 0 && turn < at {
		x.Touches = append(x.Touches, Touch{
			Kind: "turn", At: turn, Minutes: 1, Flex: turnFlex, Optional: true,
		})
	}
	x.Touches = append(x.Touches, Touch{Kind: "take_out", At: at, Minutes: 1, Flex: 1})
}

// cover is what is taken off and put on a dish from one stage to the next.
func (x *Alternative) cover(was, is bake.Stage, at int) {
	off, on := was.Covered(), is.Covered()
	if off == on {
		return
	}
	if off != "" {
		x.Touches = append(x.Touches, Touch{Kind: off + coverOff, At: at, Minutes: 1, Flex: coverFlex})
	}
	if on != "" {
		x.Touches = append(x.Touches, Touch{Kind: on + coverOn, At: at, Minutes: 1, Flex: coverFlex})
	}
}

// UncertainMin is how far a bake may end from its clock, as a standard deviation in min: by half of what the middle's
// bubbling moves with the oven off by its give-or-take either way, and by a share of the minutes.
func UncertainMin(a *bake.DessertAnswer) float64 {
	bubbles := func(offset float64) (float64, bool) {
		q := a.Bake
		q.Stages, q.OvenOffsetC = a.Plan.Stages, q.OvenOffsetC+offset
		ran, err := bake.Run(q)
		if err != nil || ran.Events.MiddleBubbles == nil {
			return 0, false
		}
		return *ran.Events.MiddleBubbles, true
	}
	clock := clockShare * a.Plan.Minutes
	cool, seenCool := bubbles(-a.Plan.OffByC)
	hot, seenHot := bubbles(a.Plan.OffByC)
	switch {
	case !seenHot:
		return clock
	case !seenCool:
		cool = a.Plan.Minutes
	}
	return math.Hypot((cool-hot)/2, clock)
}
