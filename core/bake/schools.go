package bake

import (
	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/say"
)

// School is one way of doing what bakers disagree about, with what it comes to for this dessert in this oven.
type School struct {
	Question string   `json:"question"` // fat, ratio, crumb, coverage, base, cover or sugar
	Key      string   `json:"key"`
	Name     say.Line `json:"name"`
	Chosen   bool     `json:"chosen"`
	Says     say.Line `json:"says"`      // what it changes that no number tells
	FatPct   float64  `json:"fat_pct"`   // of the topping
	SugarPct float64  `json:"sugar_pct"` // of the filling
	LumpMM   float64  `json:"lump_mm"`   // of the crumb; 0 where that is not in question
	HandMin  float64  `json:"hand_min"`  // by hand; 0 where that is not in question
	Minutes  float64  `json:"minutes"`   // until the middle bubbles; 0: it does not
	SteamG   float64  `json:"steam_g"`
	Colour   float64  `json:"colour"`
	Base     float64  `json:"base"`
	Set      float64  `json:"set"`
	// Request and Stages are the dessert's, changed to this way.
	Request balance.Request `json:"request"`
	Stages  []Stage         `json:"stages"`
}

// way is a school with what it changes.
type way struct {
	School
	change func(*DessertRequest)
}

// What the state of the fat makes of a crumb, by hand. Working figures.
var fats = []struct {
	key             string
	name, says      say.Line
	lumpMM, handMin float64
}{
	{"cold", "cold, rubbed or cut in", "sandy, with lumps that keep their shape", 5, 8},
	{"soft", "soft, worked in", "clumps readily, greasy if it is overworked", 9, 5},
	{"melted", "melted, forked in", "large clumps, crunchy throughout", 16, 3},
}

// The gaps of a surface: all covered, as the table has it, wide open.
const (
	noGap    = 0.0
	fineGap  = 0.02
	chunkGap = 0.10
	shownMin = 50.0 // of a bake that is compared where none is entered
	shownC   = 185.0
)

// Schools shows each way for the same dessert, with the stages entered or one usual stage, so that only the way differs.
func Schools(q DessertRequest) ([]School, error) {
	if err := CheckDessert(q); err != nil {
		return nil, err
	}
	if len(q.Setting.Stages) == 0 {
		q.Setting.Stages = []Stage{{Minutes: shownMin, OvenC: shownC, Heating: q.Setting.Heating}}
	}
	var out []School
	for _, w := range ways(q) {
		x := q
		w.change(&x)
		a, err := balance.Solve(x.Request)
		if err != nil {
			continue // a way that this dessert can't go
		}
		p := planFor(x.Request, a, x.Setting)
		p.Bake.Stages = x.Setting.Stages
		b, err := Run(p.Bake)
		if err != nil {
			continue
		}
		s := w.School
		s.Request, s.Stages = x.Request, x.Setting.Stages
		s.FatPct, s.SugarPct, s.Set = a.Topping.Texture.FatPct, a.SugarPct, a.Set.Score
		s.SteamG, s.Colour, s.Base = b.End.SteamedOffG, b.End.Colour, b.End.Base
		if e := b.Events.MiddleBubbles; e != nil {
			s.Minutes = *e
		}
		out = append(out, s)
	}
	return out, nil
}

// ways are the schools that this dessert could be of.
func ways(q DessertRequest) []way {
	var out []way
	r := q.Request
	add := func(question, key string, name, says say.Line, chosen bool, change func(*DessertRequest)) *School {
		out = append(out, way{School{Question: question, Key: key, Name: name, Says: says, Chosen: chosen}, change})
		return &out[len(out)-1].School
	}
	t, _ := larder.Toppings.Get(r.Topping.Key)
	crumb := t.Family == "crumble" || t.Family == "crisp" || t.Family == "streusel"
	if crumb {
		usual := "cold"
		if t.Family != "crumble" {
			usual = "melted"
		}
		for _, f := range fats {
			s := add("fat", f.key, f.name, f.says, r.Topping.FatState == f.key || r.Topping.FatState == "" && f.key == usual, func(x *DessertRequest) { x.Request.Topping.FatState = f.key })
			s.LumpMM, s.HandMin = f.lumpMM, f.handMin
		}
		add("crumb", "fine", "fine and even", "lies close, lets little steam through", r.Topping.Crumb == "fine", func(x *DessertRequest) {
			x.Request.Topping.Crumb, x.Request.Topping.GapShare = "fine", gap(fineGap)
		}).LumpMM = 3
		add("crumb", "chunks", "chunks kept", "crunchier, lets the steam out", r.Topping.Crumb == "chunks", func(x *DessertRequest) {
			x.Request.Topping.Crumb, x.Request.Topping.GapShare = "chunks", gap(chunkGap)
		}).LumpMM = 15
		add("ratio", "two", "two flour to one fat to one sugar", "drier, keeps its crumb", r.Topping.Key == "crumble_classic", func(x *DessertRequest) { x.Request.Topping = as(x.Request.Topping, "crumble_classic") })
		add("ratio", "equal", "equal weights", "richer, spreads, crunches", r.Topping.Key == "crumble_equal", func(x *DessertRequest) { x.Request.Topping = as(x.Request.Topping, "crumble_equal") })
	}
	g := r.Topping.GapShare
	add("coverage", "all", "all over", "browns evenly, hides the bubbles", g != nil && *g == noGap, func(x *DessertRequest) { x.Request.Topping.GapShare = gap(noGap) })
	add("coverage", "gaps", "gaps left for the steam", "the bubbles can be seen", g == nil, func(x *DessertRequest) { x.Request.Topping.GapShare = nil })
	if r.Base != nil {
		baked := r.Base.ParBaked
		add("base", "raw", "raw, baked long and low", "one oven, less work", !baked && r.CrumbLayerG == 0, based(false, 0))
		add("base", "par_bake", "par-baked", "crisp under a wet filling", baked, based(true, 0))
		add("base", "crumbs", "raw, with crumbs under the fruit", "the crumbs take the juice", !baked && r.CrumbLayerG > 0, based(false, max(crumbsG, r.CrumbLayerG)))
	}
	covered := func(foil bool) func(*DessertRequest) {
		return func(x *DessertRequest) {
			one := x.Setting.Stages[0]
			total := 0.0
			for _, s := range x.Setting.Stages {
				total += s.Minutes
			}
			one.Minutes, one.Cover = total, "none"
			x.Setting.Stages = []Stage{one}
			if foil {
				a, b := one, one
				a.Minutes, a.Cover, b.Minutes = total/2, "foil", total/2
				x.Setting.Stages = []Stage{a, b}
			}
		}
	}
	first := q.Setting.Stages[0].Cover
	add("cover", "foil", "covered first, uncovered to finish", "softer fruit before the colour", first == "foil" || first == "lid", covered(true))
	add("cover", "open", "open", "colour all the way: watch it", first == "" || first == "none", covered(false))
	add("sugar", "fruit", "sugar by the fruit", "as sweet as its acid asks for", r.SugarG == nil, func(x *DessertRequest) { x.Request.SugarG = nil })
	add("sugar", "none", "none: all sweetness in the topping", "sharp below, less juice", r.SugarG != nil && *r.SugarG == 0, func(x *DessertRequest) { x.Request.SugarG = gap(0) })
	return out
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
func as(t balance.ToppingAsked, key string) balance.ToppingAsked {
	return balance.ToppingAsked{Key: key, Amount: t.Amount, FatState: t.FatState, Crumb: t.Crumb, GapShare: t.GapShare, Fat: t.Fat}
}
