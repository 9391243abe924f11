package bake

import (
	"context"
	"errors"
	"maps"
	"math"
	"slices"

	"mabbin/core/balance"
	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/topping"
)

// Alternative is one way of doing what bakers disagree about, with what it comes to for this dessert in this oven.
type Alternative struct {
	Question string          `json:"question"` // fat, tool, ratio, crumb, coverage, base, cover, sugar, lighter or frozen
	Key      string          `json:"key"`
	Name     message.Message `json:"name"`
	Chosen   bool            `json:"chosen"`
	Text     message.Message `json:"text"`      // what it changes that no number tells
	Effect   message.Message `json:"effect"`    // what it comes to, in the figures that matter to the question
	FatPct   float64         `json:"fat_pct"`   // of the topping
	SugarPct float64         `json:"sugar_pct"` // of the filling
	LumpMM   float64         `json:"lump_mm"`   // of the crumb; 0 where that is not in question
	HandMin  float64         `json:"hand_min"`  // by hand; 0 where that is not in question
	FatG     float64         `json:"fat_g"`     // in a portion
	SugarG   float64         `json:"sugar_g"`   // in a portion
	Minutes  float64         `json:"minutes"`   // until the middle bubbles; 0: it does not
	SteamG   float64         `json:"steam_g"`
	Colour   float64         `json:"colour"`
	Base     float64         `json:"base"`
	Set      float64         `json:"set"`
	// Request, FillingC and Stages are the dessert's, changed to this way.
	Request  balance.Request `json:"request"`
	FillingC *float64        `json:"filling_c,omitempty"`
	Stages   []Stage         `json:"stages"`
}

// option is a school with what it changes.
type option struct {
	Alternative
	change func(*DessertRequest)
}

// What the state of the fat makes of a crumb, by hand. Working figures.
var fats = []struct {
	key             string
	name, says      string
	lumpMM, handMin float64
}{
	{"cold", "cold, rubbed or cut in", "sandy, with firm lumps", 5, 8},
	{"soft", "soft, worked in", "clumps easily, greasy if overworked", 9, 5},
	{"melted", "melted, forked in", "large clumps, crunchy throughout", 16, 3},
}

// The gaps of a surface: all covered, as the table has it, wide open.
const (
	noGap    = 0.0
	fineGap  = 0.02
	chunkGap = 0.10

	fineLumpMM  = 3.0
	chunkLumpMM = 15.0

	shownMin = 50.0 // of a bake that is compared where none is entered
	shownC   = 185.0
)

// Alternatives shows each way for the same dessert, with the stages entered or one usual stage, so that only the way
// differs.
func Alternatives(ctx context.Context, q DessertRequest) ([]Alternative, error) {
	if err := CheckDessert(q); err != nil {
		return nil, err
	}
	own := q.Request.Own
	q = q.corrected()
	if len(q.Setting.Stages) == 0 {
		q.Setting.Stages = []Stage{{Minutes: shownMin, OvenC: shownC, Heating: q.Setting.Heating}}
	}
	var out []Alternative
	for _, w := range ways(q) {
		x := q
		w.change(&x)
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		a, err := balance.Solve(x.Request)
		if errors.As(err, new(fault.Faults)) {
			continue // this dessert can't go that way
		}
		if err != nil {
			return nil, err
		}
		p := planFor(x.Request, a, x.Setting)
		b := bakeThrough(&p.Bake, x.Setting.Stages)
		s := w.Alternative
		s.Request, s.FillingC, s.Stages = x.Request, x.Setting.FillingC, x.Setting.Stages
		s.Request.Own = own
		s.FatPct, s.SugarPct, s.Set = a.Topping.Texture.FatPct, a.SugarPct, a.Set.Score
		s.FatG, s.SugarG = inPortion(a, x.Request.Own)
		end := b.end()
		s.SteamG, s.Colour, s.Base = end.SteamedOffG, end.Colour, end.Base
		s.Minutes = b.bubblesAt(w.Question == "frozen")
		s.Effect = s.effect()
		out = append(out, s)
	}
	return out, nil
}

// bubblesAt is when the middle bubbles, min; longer says that it is waited for past the end, in the last stage. 0: it
// does not.
func (x *running) bubblesAt(longer bool) float64 {
	if longer {
		x.curves = nil
		for minute := math.Ceil(x.c.now / 60); x.e.MiddleBubbles == nil && minute < longest; minute++ {
			x.until(minute)
		}
	}
	return or(x.e.MiddleBubbles, 0)
}

// inPortion is the fat and the sugar of one portion, g.
func inPortion(a *balance.Answer, own *larder.Own) (fat, sugar float64) {
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			if f, ok := own.Fruit(l.Key); ok {
				sugar += l.G * f.SugarPct / 100
			} else if i, ok := own.Ingredient(l.Key); ok {
				fat += l.G * i.FatPct / 100
				sugar += l.G * i.SugarPct / 100
			}
		}
	}
	return fat / a.Portions.Count, sugar / a.Portions.Count
}

// effect is what a way comes to, in the figures that matter to its question.
func (s Alternative) effect() message.Message {
	bubbles := message.New("the middle does not bubble")
	if s.Minutes > 0 {
		bubbles = message.New("bubbles after {n} min", message.Number(s.Minutes, 0))
	}
	lumps := message.New("lumps of {size}", message.Millimetres(s.LumpMM))
	steam := message.New("{much} steam", message.Grams(math.Round(s.SteamG)))
	var all []message.Message
	switch s.Question {
	case "fat":
		all = []message.Message{lumps, message.New("{n} min by hand", message.Number(s.HandMin, 0))}
	case "tool":
		all = []message.Message{lumps, message.New("{n} min of work", message.Number(s.HandMin, 0))}
	case "ratio":
		all = []message.Message{message.New("{n} % fat", message.Number(s.FatPct, 1))}
	case "crumb":
		all = []message.Message{lumps, steam}
	case "coverage":
		all = []message.Message{steam, bubbles}
	case "frozen":
		all = []message.Message{bubbles}
	case "base":
		base := message.New("base {n} (1 = crisp)", message.Number(s.Base, 1))
		all = []message.Message{base, bubbles}
	case "cover":
		all = []message.Message{message.New("browning {n} (1 = golden)", message.Number(s.Colour, 1)), bubbles}
	case "sugar":
		all = []message.Message{
			message.New("{n} % sugar", message.Number(s.SugarPct, 1)),
			message.New("starch set {n} %", message.Number(s.Set, 1)),
		}
	case "lighter":
		all = []message.Message{
			message.New("a portion has {fat} of fat and {sugar} of sugar", message.Grams(s.FatG), message.Grams(s.SugarG)),
			message.New("browning {n} (1 = golden)", message.Number(s.Colour, 1)),
			message.New("starch set {n} %", message.Number(s.Set, 1)),
		}
	}
	return message.Join(", ", all...)
}

// adder notes a way of a question: its key, what it is called, what it changes that no number tells, whether the
// dessert is made so, and what it changes of the request.
type adder func(question, key, name, says string, chosen bool, change func(*DessertRequest)) *Alternative

// ways are the alternatives that this dessert could go by.
func ways(q DessertRequest) []option {
	var out []option
	add := func(question, key, name, text string, chosen bool, change func(*DessertRequest)) *Alternative {
		a := Alternative{Question: question, Key: key, Name: message.New(name), Text: message.New(text), Chosen: chosen}
		out = append(out, option{a, change})
		return &out[len(out)-1].Alternative
	}
	t, _ := larder.Toppings.Get(q.Request.Topping.Key)
	crumb := t.Family == "crumble" || t.Family == "crisp" || t.Family == "streusel"
	if crumb {
		crumbWays(q.Request.Topping, t.Family, add)
	}
	if crumb || t.Family == "biscuit" {
		toolWays(q.Request.Topping, add)
	}
	if !t.None() {
		coverageWays(q.Request.Topping, add)
	}
	if q.Request.Base != nil {
		baseWays(q.Request, add)
	}
	if q.Setting.Fire == nil {
		coverWays(q.Setting.Stages[0].Cover, add)
	}
	sugar := q.Request.SugarG
	add("sugar", "fruit", "sugar by the fruit", "sweetened to the fruit's acidity", sugar == nil,
		func(x *DessertRequest) { x.Request.SugarG = nil })
	add("sugar", "none", "none: all sweetness in the topping", "sharp below, less juice", sugar != nil && *sugar == 0,
		func(x *DessertRequest) { x.Request.SugarG = gap(0) })
	lighterWays(q.Request, t, add)
	if slices.ContainsFunc(q.Request.Fruits, func(f balance.FruitInput) bool { return f.Frozen }) {
		frozenWays(q, add)
	}
	return out
}

// What is done about frozen fruit. Working figures.
const (
	standsMin = 60.0 // with its sugar
	thawedC   = 6.0  // overnight in a fridge
	warmedC   = 60.0 // in a pan, until it is loose
)

// frozenWays are what bakers do about frozen fruit: ice takes as much heat as it does to boil the same fruit from room
// temperature.
func frozenWays(q DessertRequest, add adder) {
	m, start := q.Request.Macerate, q.Setting.FillingC
	asItIs := (m == nil || m.Minutes == 0) && start == nil
	add(
		"frozen",
		"as_it_is",
		"straight from the freezer",
		"least work, the longest bake",
		asItIs,
		func(x *DessertRequest) {
			x.Request.Macerate, x.Setting.FillingC = nil, nil
		},
	)
	stands := m != nil && m.Minutes > 0 && start == nil
	add("frozen", "stand", "stand it for an hour with its sugar", "use the juice that runs out", stands,
		func(x *DessertRequest) {
			if x.Setting.FillingC = nil; !stands {
				x.Request.Macerate = &balance.MacerateInput{Minutes: standsMin}
			}
		})
	at := func(c float64) func(*DessertRequest) {
		return func(x *DessertRequest) { x.Setting.FillingC = &c }
	}
	add(
		"frozen",
		"thaw",
		"thaw it in the fridge overnight",
		"use its juice; softer fruit",
		start != nil && *start == thawedC,
		at(thawedC),
	)
	add(
		"frozen",
		"warm",
		"warm it in a pan first",
		"stir gently: it breaks; put the topping on when the fruit is in the dish",
		start != nil && *start == warmedC,
		at(warmedC),
	)
	add(
		"frozen",
		"wider",
		"a wider dish (1.5 times the area)",
		"the same fruit lies shallower",
		false,
		func(x *DessertRequest) {
			a, err := balance.Solve(x.Request)
			if err == nil {
				x.Request.WeighedFruitG = &a.FruitG
			}
			x.Request.Dish = x.Request.Dish.Wider(wider)
		},
	)
}

// Lighter variants: how much of each is left. Working figures.
const (
	lessFat   = 0.8
	oatsAdded = 40.0 // to 100 of flour
)

// lighterWays are lighter variants, each with what it costs.
func lighterWays(r balance.Request, t larder.Topping, add adder) {
	add("lighter", "usual", "as it is", "", true, func(*DessertRequest) {})
	if r.SugarG == nil && r.Sweetness != "savoury" && r.Sweetness != "tart" && r.Custard == nil {
		add("lighter", "sugar", "less sugar in the fruit", "sharper; keeps a day less, as less water is bound", false,
			func(x *DessertRequest) { x.Request.Sweetness = "tart" })
	}
	if t.None() {
		return
	}
	if r.Topping.Amount != topping.Light {
		add("lighter", "topping", "less topping", "less crunch, browns sooner at its edge", false,
			func(x *DessertRequest) { x.Request.Topping.Amount, x.Request.Topping.ThicknessMM = topping.Light, 0 })
	}
	if t.Family != "crumble" && t.Family != "crisp" && t.Family != "streusel" {
		return
	}
	changed := func(key string, to func(float64) float64) func(*DessertRequest) {
		return func(x *DessertRequest) {
			pct := maps.Clone(x.Request.Topping.BakersPct)
			if pct == nil {
				pct = map[string]float64{}
			}
			now, reported := pct[key]
			for _, p := range t.Parts {
				if p.Key == key && !reported {
					now = p.Pct
				}
			}
			pct[key] = to(now)
			x.Request.Topping.BakersPct = pct
		}
	}
	add("lighter", "fat", "a fifth less butter", "sandier, less crunch", false,
		changed("butter", func(pct float64) float64 { return lessFat * pct }))
	add("lighter", "oats", "oats for part of the flour", "chewier; less fat and sugar in each spoon", false,
		changed("rolled_oats", func(pct float64) float64 { return pct + oatsAdded }))
}

// crumbWays are what is done about the fat, the size and the ratio of a crumb.
func crumbWays(t balance.ToppingInput, family string, add adder) {
	usual := "cold"
	if family != "crumble" {
		usual = "melted"
	}
	for _, f := range fats {
		so := t.FatState == f.key || t.FatState == "" && f.key == usual
		s := add("fat", f.key, f.name, f.says, so, func(x *DessertRequest) { x.Request.Topping.FatState = f.key })
		s.LumpMM, s.HandMin = f.lumpMM, f.handMin
	}
	crumbed := func(crumb string, share float64) func(*DessertRequest) {
		return func(x *DessertRequest) { x.Request.Topping.Crumb, x.Request.Topping.GapShare = crumb, gap(share) }
	}
	add("crumb", "fine", "fine and even", "dense, lets little steam through", t.Crumb == "fine",
		crumbed("fine", fineGap)).LumpMM = fineLumpMM
	add("crumb", "chunks", "large chunks", "crunchier, lets steam out", t.Crumb == "chunks",
		crumbed("chunks", chunkGap)).LumpMM = chunkLumpMM
	of := func(key string) func(*DessertRequest) {
		return func(x *DessertRequest) { x.Request.Topping = as(x.Request.Topping, key) }
	}
	add("ratio", "two", "2 flour : 1 fat : 1 sugar", "drier, stays crumbly",
		t.Key == "crumble_classic", of("crumble_classic"))
	add("ratio", "equal", "1 : 1 : 1", "richer, crunchier, spreads", t.Key == "crumble_equal", of("crumble_equal"))
}

// tools are what the fat is worked in with: what each makes of it, and what it costs. Working figures.
var tools = []struct {
	key, name, says string
	lumpMM, handMin float64
}{
	{"fingers", "fingers", "you control the lumps; warm hands melt the fat", 5, 8},
	{"grater", "grater, the fat frozen", "cold and even, little rubbing in", 4, 5},
	{"fork", "fork, the fat melted", "large clumps, no rubbing in", 16, 3},
	{"mixer", "stand mixer", "even; greasy if mixed too long", 6, 3},
	{"processor", "food processor", "a few seconds too long turn it to dust, and make a biscuit tough", 4, 2},
}

// toolWays are what is at hand.
func toolWays(t balance.ToppingInput, add adder) {
	for _, x := range tools {
		s := add("tool", x.key, x.name, x.says, t.Tool == x.key,
			func(q *DessertRequest) { q.Request.Topping.Tool, q.Request.Topping.FatState = x.key, "" })
		s.LumpMM, s.HandMin = x.lumpMM, x.handMin
	}
}

// coverageWays are how much of the fruit is covered.
func coverageWays(t balance.ToppingInput, add adder) {
	share := t.GapShare
	add("coverage", "all", "all over", "browns evenly, hides the bubbles", share != nil && *share == noGap,
		func(x *DessertRequest) { x.Request.Topping.GapShare = gap(noGap) })
	add("coverage", "gaps", "gaps left for the steam", "shows the bubbles", share == nil,
		func(x *DessertRequest) { x.Request.Topping.GapShare = nil })
}

// baseWays are what is done about a base that might go soggy.
func baseWays(r balance.Request, add adder) {
	baked := r.Base.ParBaked
	add("base", "raw", "raw, baked long and low", "one oven, less work", !baked && r.CrumbLayerG == 0, based(false, 0))
	add("base", "par_bake", "par-baked", "crisp under a wet filling", baked, based(true, 0))
	add("base", "crumbs", "raw, with crumbs under the fruit", "the crumbs absorb juice",
		!baked && r.CrumbLayerG > 0, based(false, max(crumbsG, r.CrumbLayerG)))
}

// coverWays are whether it is covered first; now is how it begins.
func coverWays(now string, add adder) {
	add("cover", "foil", "covered first, then uncovered", "softer fruit before the top browns",
		now == "foil" || now == "lid", func(x *DessertRequest) { x.Setting.Stages = coveredFor(x.Setting.Stages, 0.5) })
	add("cover", "open", "open", "browns from the start: watch it",
		now == "" || now == "none", func(x *DessertRequest) { x.Setting.Stages = coveredFor(x.Setting.Stages, 0) })
}

// coveredFor is stages as one that is under foil for a share of its minutes, and then open.
func coveredFor(stages []Stage, share float64) []Stage {
	open := stages[0]
	open.Minutes, open.Cover = minutesOf(stages), "none"
	if share == 0 {
		return []Stage{open}
	}
	foil := open
	foil.Cover, foil.Minutes, open.Minutes = "foil", share*open.Minutes, (1-share)*open.Minutes
	return []Stage{foil, open}
}

// based is a base of its own way.
func based(parBaked bool, crumbG float64) func(*DessertRequest) {
	return func(x *DessertRequest) {
		b := *x.Request.Base
		b.ParBaked = parBaked
		x.Request.Base, x.Request.CrumbLayerG = &b, crumbG
	}
}

// crumbsG is what is shown of crumbs under the fruit where none are entered.
const crumbsG = 25.0

func gap(x float64) *float64 { return &x }

// as is a topping of another recipe, in the same amount.
func as(t balance.ToppingInput, key string) balance.ToppingInput {
	return balance.ToppingInput{
		Key:      key,
		Amount:   t.Amount,
		FatState: t.FatState,
		Crumb:    t.Crumb,
		GapShare: t.GapShare,
		Fat:      t.Fat,
	}
}
