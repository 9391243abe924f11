package demo

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"sync"
	"time"

	"mabbin/app"
	"mabbin/core/bake"
	"mabbin/core/learn"
	"mabbin/core/outcome"
	"mabbin/core/watch"
	"mabbin/server/store"
)

// The yard's own truths, which only its bakes know: they are what its log has to teach.
var (
	ovenIs = map[string]float64{"Bench oven": 0, "Old range": -7, "Yard camp oven": 0} // C relative to what the Shelf says
	fruits = map[string]float64{                                                       // of juice, relative to the tables
		"Rhubarb and strawberry crumble": 0.25,
		"Freezer cherry crisp":           0.15,
		"Damson and apple crumble":       -0.05,
		"Pear and blackberry streusel":   -0.10,
		"Apricot cobbler":                0.10,
		"Plum betty":                     0.40,
		"Fig and orange bars":            -0.35,
	}
	tops = map[string]float64{"crumble_oat": 0.9} // how much faster than the tables they brown
)

// logged is a bake that somebody wrote a line about.
type logged struct {
	card    string
	version int
	daysAgo int
	out     app.Outcome
}

var lines = []logged{
	{
		"Gooseberry crumble",
		1,
		29,
		app.Outcome{
			Juice:   ptr("spoonable"),
			Fruit:   ptr("tender"),
			Top:     ptr("golden"),
			Note:    "Good, but every spoon wanted cream: sharp.",
			Details: outcome.Details{Sweetness: "sharp", RimMin: ptr(30.0), Again: ptr(false)},
		},
	},
	{
		"Freezer cherry crisp",
		1,
		24,
		app.Outcome{
			Juice:      ptr("saucy"),
			Fruit:      ptr("tender"),
			Top:        ptr("golden"),
			BoiledOver: ptr(false),
			Note:       "Thinner than planned. Middle was still cold after half an hour.",
			Details:    outcome.Details{JuiceHot: "runny", Sweetness: "right", BeforeG: ptr(3120.0), AfterG: ptr(3010.0)},
		},
	},
	{
		"Damson and apple crumble",
		1,
		17,
		app.Outcome{Juice: ptr("spoonable"), Fruit: ptr("bite"), Top: ptr("dark"), Note: "Cut the apple smaller next time."},
	},
	{
		"Gooseberry crumble",
		2,
		12,
		app.Outcome{
			Juice:      ptr("spoonable"),
			Fruit:      ptr("tender"),
			Top:        ptr("golden"),
			BoiledOver: ptr(false),
			Note:       "Keep it like this.",
			Details: outcome.Details{
				Sweetness: "right",
				RimMin:    ptr(31.0),
				MiddleMin: ptr(43.0),
				BeforeG:   ptr(2685.0),
				AfterG:    ptr(2650.0),
				Again:     ptr(true),
			},
		},
	},
	{
		"Rhubarb and strawberry crumble",
		1,
		6,
		app.Outcome{
			Juice:      ptr("runny"),
			Fruit:      ptr("mush"),
			Top:        ptr("golden"),
			BoiledOver: ptr(true),
			Note:       "Strawberries were wet. Tray was under it, luckily.",
		},
	},
	{"Pear and blackberry streusel", 1, 2, app.Outcome{Juice: ptr("spoonable"), Fruit: ptr("tender"), Top: ptr("pale")}},
}

// rota is what is baked on the days that the yard is open, in turn: two or three a day, and none on Mondays.
var rota = []string{
	"Plum betty",
	"Fig and orange bars",
	"Gooseberry crumble",
	"Apricot cobbler",
	"Pumpkin and sweetcorn cobbler",
	"Pear and redcurrant seed pie",
	"Damson and apple crumble",
	"Windfall apple ramekin",
	"Raspberry cream bars",
	"Pear pandowdy",
	"Freezer cherry crisp",
	"Rhubarb and strawberry crumble",
	"Pear and blackberry streusel",
}

// month is the log of a month, as it is written down once a process: its times are from the day that it ends.
var month = sync.OnceValues(func() ([]monthly, error) {
	ctx := context.Background()       // it is for whoever asks after this one, too
	r := rand.New(rand.NewPCG(7, 26)) //nolint:gosec // made-up bakes, the same each time
	var out []monthly
	plans := map[string]*bake.DessertAnswer{}
	add := func(card string, version, daysAgo, hour int, line *app.Outcome) error {
		c, err := cardNamed(card)
		if err != nil {
			return err
		}
		key := fmt.Sprint(card, version)
		if plans[key] == nil {
			if plans[key], err = bake.Dessert(
				ctx,
				bake.DessertRequest{Request: c.version(version), Setting: c.setting()},
			); err != nil {
				return err
			}
		}
		m, err := c.baked(ctx, version, plans[key], r)
		if err != nil {
			return err
		}
		if line != nil {
			m.Outcome = *line
		}
		m.ago = time.Duration(daysAgo*24)*time.Hour + time.Duration(hour)*time.Hour
		m.ID = id(fmt.Sprint("bake", len(out)))
		if m.pictured {
			p, err := drawn(m.BakeRecord)
			if err != nil {
				return err
			}
			m.picture = &p
		}
		out = append(out, m)
		return nil
	}
	for _, l := range lines {
		if err := add(l.card, l.version, l.daysAgo, 0, &l.out); err != nil {
			return nil, err
		}
	}
	turn := 0
	for day := 30; day >= 1; day-- {
		if day%7 == 3 {
			continue
		}
		for n := range 1 + (day*5)%3%2 + day%2 {
			card := rota[turn%len(rota)]
			c, err := cardNamed(card)
			if err != nil {
				return nil, err
			}
			if err := add(card, min(len(c.versions), 1+(30-day)/12), day, -2-n, nil); err != nil {
				return nil, err
			}
			turn++
		}
	}
	return out, nil
})

// monthly is a bake that was so long ago.
type monthly struct {
	app.BakeRecord
	ago      time.Duration
	pictured bool
	picture  *app.Picture
}

// setting is the oven as the kitchen believes it to be.
func (c demoCard) setting() bake.Setting {
	return app.SettingIn(0, &c.oven, app.Setting{}, app.Weather{})
}

// How often a question is answered, and how a day differs from the next. Made up.
const (
	tells, timed, weighs, watched = 0.8, 0.35, 0.3, 0.4
	notes                         = 0.3
	pictured                      = 0.16
)

// baked is one bake of a card by its plan, as it comes out in the yard as it is, on a day as it may be.
func (c demoCard) baked(ctx context.Context, version int, plan *bake.DessertAnswer, r *rand.Rand) (monthly, error) {
	q := bake.DessertRequest{Request: c.version(version), Setting: c.setting()}
	is := learn.Deviation{
		OvenC:     ovenIs[c.oven.Name] + 1.5*r.NormFloat64(),
		Release:   fruits[c.name] + 0.08*r.NormFloat64(),
		Thickener: 0.05 * r.NormFloat64(),
		Colour:    tops[q.Request.Topping.Key] + 0.08*r.NormFloat64(),
		Softness:  0.12 * r.NormFloat64(),
	}
	is.Release = max(-0.5, is.Release)
	a, err := is.Simulate(ctx, q, plan)
	if err != nil {
		return monthly{}, fmt.Errorf("%s: %w", c.name, err)
	}
	steam := plan.Balance.Ledger.SteamedOffG
	asWritten := q.Request
	asWritten.SteamedOffG = &steam
	m := monthly{BakeRecord: app.BakeRecord{
		Title:   c.name,
		CardID:  ptr(id(c.name)),
		Version: &version,
		Request: asWritten,
		Result:  plan.Balance,
		Setting: app.Setting{
			OvenID:  ptr(c.oven.ID),
			OvenC:   ptr(plan.Plan.OvenC),
			Minutes: ptr(plan.Plan.Minutes),
			Stages:  plan.Plan.Stages,
		},
	}}
	m.Outcome = loggedOf(a, r)
	if r.Float64() < notes {
		m.Note = noteOf(a, r)
	}
	m.pictured = r.Float64() < pictured
	if r.Float64() < watched {
		m.Happened = happened(q, plan, a, r)
	}
	return m, nil
}

// loggedOf is what somebody in a hurry tells of a bake.
func loggedOf(a *bake.DessertAnswer, r *rand.Rand) app.Outcome {
	w := a.Expected()
	var o app.Outcome
	say := func(word string) *string {
		if word == "" || r.Float64() > tells {
			return nil
		}
		return &word
	}
	o.Juice, o.Fruit, o.Top = say(w.Juice), say(w.Fruit), say(w.Top)
	if b := say(w.Base); b != nil {
		o.Details.Base = *b
	}
	if r.Float64() < tells {
		o.BoiledOver = w.BoiledOver
	}
	near := func(x *float64, by float64) *float64 {
		if x == nil {
			return nil
		}
		return ptr(math.Round(max(1, *x+by*r.NormFloat64())))
	}
	if e := a.Plan.Answer.Events; r.Float64() < timed {
		o.Details.RimMin, o.Details.MiddleMin = near(e.RimBubbles, 1.5), near(e.MiddleBubbles, 2)
	}
	if r.Float64() < weighs {
		before := math.Round(
			1200 + a.Balance.Portions.FinishedG + a.Balance.Portions.DriedOffG + a.Balance.Ledger.SteamedOffG,
		)
		lost := a.Balance.Ledger.SteamedOffG + a.Plan.Answer.End.DriedOffG
		o.Details.BeforeG, o.Details.AfterG = ptr(before), ptr(before-math.Round(lost))
	}
	if o.Juice != nil && r.Float64() < tells {
		o.Details.Again = ptr(w.Fruit != "hard" && w.Top != "burnt" && w.Juice != "runny")
	}
	return o
}

// noteOf is a line that somebody wrote about what came out.
func noteOf(a *bake.DessertAnswer, r *rand.Rand) string {
	w := a.Expected()
	var say []string
	switch {
	case *w.BoiledOver:
		say = []string{"Over the rim at the back. Less fruit, or the deeper dish."}
	case w.Fruit == "hard" || w.Fruit == "bite":
		say = []string{"Five minutes more would have done it.", "A skewer still met resistance."}
	case w.Top == "pale":
		say = []string{"Top could be darker.", "Gave it no colour: bottom shelf again?"}
	case w.Top == "dark" || w.Top == "burnt":
		say = []string{"Foil sooner.", "Caught at the edge."}
	default:
		say = []string{
			"Gone by three.",
			"Table six asked for the recipe.",
			"Held its shape on the plate.",
			"Rested half an hour, just right.",
		}
	}
	return say[r.IntN(len(say))]
}

// happened is a bake as the oven watch saw it, with a probe in it.
func happened(q bake.DessertRequest, plan, a *bake.DessertAnswer, r *rand.Rand) *outcome.ActualBake {
	p := plan.Plan
	h := &outcome.ActualBake{
		Minutes: p.Minutes + math.Round(
			2*r.NormFloat64(),
		),
		PlannedMin: p.Minutes,
		Stages:     p.Stages,
		Events:     p.Answer.Events,
		End:        p.Answer.End,
		Minute:     p.Answer.Curves.Minute,
		MiddleC:    p.Answer.Curves.MiddleC,
		Calls:      []outcome.Answered{},
		Readings:   []bake.Point{},
	}
	for _, c := range watch.Schedule(watch.DessertOf(q, p, nil), p.Stages) {
		at := c.DueMin + r.Float64()
		if c.Kind == watch.TakeOut {
			at = h.Minutes
		}
		h.Calls = append(
			h.Calls,
			outcome.Answered{Kind: string(c.Kind), Text: c.Text, Due: c.DueMin, At: &at, State: string(watch.Done)},
		)
	}
	for minute := 1.0; minute < h.Minutes; minute += 2 {
		h.Readings = append(
			h.Readings,
			bake.Point{Minute: minute, C: math.Round(10*(a.Plan.Answer.Curves.MiddleAt(minute)+0.7*r.NormFloat64())) / 10},
		)
	}
	return h
}

func loadMonth(ctx context.Context, s *store.Store, now time.Time) error {
	all, err := month()
	if err != nil {
		return err
	}
	own, err := s.Own(ctx, Kitchen.ID)
	if err != nil {
		return err
	}
	for _, m := range all {
		b := m.BakeRecord
		if b.Cost, err = app.CostOf(Kitchen, own, rates, b); err != nil {
			return fmt.Errorf("bake of %s: %w", b.Title, err)
		}
		b.BakedAt = now.Add(-m.ago)
		if m.picture != nil {
			if err := s.AddPicture(ctx, Kitchen.ID, *m.picture, b.BakedAt); err != nil {
				return err
			}
			b.Picture = &m.picture.ID
		}
		if _, err := s.AddBake(ctx, Kitchen.ID, b, nil); ofItsOwn(err) != nil {
			return fmt.Errorf("bake of %s: %w", b.Title, err)
		}
	}
	return nil
}
