package bake

import (
	"slices"

	"mabbin/core/balance"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// describe writes the plan into the dessert's method and takes away what the plan knows better: method, remarks and
// plan say one thing.
func (a *DessertAnswer) describe(r balance.Request, s Setting) {
	b, p := &a.Balance, &a.Plan
	b.Dried(r, p.Answer.End.DriedOffG)
	DescribeStages(b.Method, p.Stages)
	for i := range b.Method {
		step := &b.Method[i]
		switch step.Code {
		case "bake":
			if s.Fire == nil {
				step.Text = message.Sentences(message.New("Put a tray under it."), step.Text)
			}
			step.Text = message.Sentences(
				step.Text,
				message.New("Start checking at {look} min.", message.Number(p.CheckFrom, 0)),
				a.baseText(),
			)
		case "late":
			if a.LateAt != nil {
				step.Text = message.Sentences(message.New("After {minute} min:", message.Number(*a.LateAt, 0)), step.Text)
			}
		case "rest":
			if p.ThickestMin == 0 {
				step.Text = message.Sentences(p.restText(), step.Text)
			} else {
				step.Text = p.restText()
			}
		}
	}
	if s.Fire != nil { // a pot over coals has no tray under it
		b.Checks = slices.DeleteFunc(b.Checks, func(d balance.Doing) bool { return d.Code == "tray" })
	}
	b.Remarks = slices.DeleteFunc(b.Remarks, func(x balance.Remark) bool { return a.disproves(r, x) })
	if x, ok := leavening(b, s.AltitudeM); ok {
		b.Remarks = append(b.Remarks, x)
	}
}

// baseText is how the base is when it is out; zero without one, and where its verdict says so.
func (a *DessertAnswer) baseText() message.Message {
	switch {
	case a.Bake.Base == nil:
		return message.Message{}
	case a.Plan.Answer.End.Base >= crispFrom:
		return message.New("The base is brown underneath.")
	case a.Plan.Answer.End.Base >= bakedFrom:
		return message.New("The base is baked through but soft.")
	}
	return message.Message{}
}

// disproves says that the bake shows the contrary of a remark that was made of the dessert before it was baked: the
// base is crisp, or the fruit is tender without cooking it first.
func (a *DessertAnswer) disproves(r balance.Request, x balance.Remark) bool {
	end := a.Plan.Answer.End
	switch x.Code {
	case "wet_base", "slow_floor":
		return a.Bake.Base != nil && end.Base >= crispFrom
	case "precook_required", "precook_advised":
		return !slices.ContainsFunc(r.Fruits, func(f balance.FruitInput) bool {
			soft, _ := tenderOf(r, f)
			return x.About == f.Key && end.FruitMinutes < soft
		})
	}
	return false
}

// DescribeStages puts the stages of a bake into a method's step for it.
func DescribeStages(method []balance.Doing, stages []Stage) {
	for i := range method {
		if method[i].Code == "bake" && len(stages) > 0 {
			method[i].Text = message.Sentences(append(stagesSay(stages), method[i].Text)...)
		}
	}
}

// stagesSay are the stages of a bake, a sentence each.
func stagesSay(stages []Stage) (out []message.Message) {
	for i, s := range stages {
		if !heatings[s.Heating].oven {
			continue
		}
		how := coverText[bareCover(s.Cover)]
		if i > 0 && bareCover(s.Cover) == "" && bareCover(stages[i-1].Cover) != "" {
			how = message.New("uncovered")
		}
		text := message.New("{minutes} min at {heat}", message.Number(s.Minutes, 0), message.OvenHeat(s.OvenC))
		if !how.IsZero() {
			text = message.Join(", ", text, how)
		}
		switch {
		case s.AddTopping:
			text = message.New("Put the topping on: {then}", message.Part(text))
		case s.PushUnder:
			text = message.New("Push the crust into the juice: {then}", message.Part(text))
		case i > 0:
			text = message.New("Then {then}", message.Part(text))
		}
		out = append(out, message.New("{what}.", message.Part(text)))
	}
	return out
}

var coverText = map[string]message.Message{
	"foil": message.New("under foil"), "lid": message.New("under a lid"), "parchment": message.New("under baking paper"),
	"rim": message.New("the rim under foil"),
}

// restText is how long it stands by the plan.
func (p *Plan) restText() message.Message {
	rack, thickest := message.Number(p.RackMin, 0), message.Number(p.ThickestMin, 0)
	switch {
	case p.FridgeMin > 0:
		return message.New("Cool it {rack} min on the rack and {fridge} min in the fridge before you cut it.",
			rack, message.Number(p.FridgeMin, 0))
	case p.ThickestMin == 0:
		return message.New("Cool it {rack} min on the rack before you cut it.", rack)
	case p.RackMin < 1:
		return message.New("Serve it at once, or let it stand: the juice is thickest after {thickest} min.", thickest)
	}
	return message.New("Let it stand {rack} min; the juice is thickest after {thickest} min.", rack, thickest)
}

// Leavening gases swell more where the air is thin. Handbook practice.
const (
	highFromM     = 900.0
	lessPerKMPct  = 15.0 // of the baking powder, for each 1000 m
	mostLessPct   = 50.0
	metresInAKilo = 1000.0
)

// leavening is the remark on baking powder high up; false where there is none or it is low down.
func leavening(a *balance.Answer, altitudeM float64) (balance.Remark, bool) {
	if altitudeM < highFromM {
		return balance.Remark{}, false
	}
	for _, b := range a.Ticket {
		for _, l := range b.Lines {
			if l.Key != "baking_powder" && l.Key != "bicarbonate" {
				continue
			}
			less := min(mostLessPct, lessPerKMPct*altitudeM/metresInAKilo)
			return balance.Remark{
				Code: "altitude_leavening", Level: balance.Advice, Station: balance.AtTopping,
				Text:   message.New("At {height} m the dough rises too fast and falls.", message.Number(altitudeM, 0)),
				Reason: message.New("In thin air the gas expands more before the dough has set."),
				Action: message.New("Use {less} % less: {much} instead of {usual} of {leavener}.",
					message.Number(less, 0), message.Grams(l.G*(1-less/100)), message.Grams(l.G),
					message.Name(larder.Plain(string(l.Name)))),
			}, true
		}
	}
	return balance.Remark{}, false
}
