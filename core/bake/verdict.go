package bake

import (
	"math"
	"slices"

	"mabbin/core/message"
)

// Words are how a dessert came out, in the words of the log. Empty is not reported, or there is nothing to tell.
type Words struct {
	Juice      string `json:"juice,omitempty"`
	Fruit      string `json:"fruit,omitempty"`
	Top        string `json:"top,omitempty"`
	Base       string `json:"base,omitempty"`
	BoiledOver *bool  `json:"boiled_over,omitempty"`
}

// darkTop is more than a baker wishes for, and less than burnt.
const darkTop = "dark"

// The words of a scale from little to much.
var (
	JuiceWords = []string{"runny", "saucy", "spoonable", "mounds", "slices", "stodgy"}
	FruitWords = []string{"hard", "bite", "tender", "mush"}
	TopWords   = []string{"pale", "golden", darkTop, "burnt"}
	BaseWords  = []string{"raw", "soft", "crisp", "burnt"}
)

// TopColours are a crust as each of TopWords has it, to draw it by: sRGB.
var TopColours = [...]string{"#F3E3BC", "#D69C45", "#8A4F1E", "#33190A"}

// Where one word ends and the next begins, by the clocks. Working figures, in addition to those of a plan: this is the
// one place that knows them, for the Bench, the watch and the log alike.
const (
	hardBelow  = 0.4 // of the minutes until it is tender
	overflowMM = 0.0 // headspace while it boils
)

// TopWord is the word for a plan's top, by its colour clock.
func (p *Plan) TopWord(colour float64) string {
	return wordAt(TopWords, colour, paleLimit(toppedLate(p.Stages)), goldenTo, burntTop)
}

// toppedLate says that the topping goes on when the bake is under way.
func toppedLate(stages []Stage) bool {
	return slices.ContainsFunc(stages, func(s Stage) bool { return s.AddTopping })
}

// paleLimit is the colour below which a top is pale: one that goes on late is taken paler.
func paleLimit(late bool) float64 {
	if late {
		return paleLate
	}
	return paleBelow
}

// Expected puts a simulated bake into the words that a baker is asked for afterwards.
func (a *DessertAnswer) Expected() Words {
	e, b := a.Plan.Answer.End, a.Borders()
	w := Words{
		Juice: string(a.Balance.Set.BandAt(e.SetShare)),
		Fruit: wordAt(FruitWords, e.FruitMinutes, b.Fruit...),
	}
	if a.Bake.Topping != nil {
		w.Top = a.Plan.TopWord(e.Colour)
	}
	if a.Bake.Base != nil {
		w.Base = wordAt(BaseWords, e.Base, b.Base...)
	}
	over := a.Balance.Fit.HotHeadspaceMM < overflowMM
	w.BoiledOver = &over
	return w
}

// wordAt is the word of a figure: each but the last ends at a border.
func wordAt(words []string, x float64, borders ...float64) string {
	for i, b := range borders {
		if x < b {
			return words[i]
		}
	}
	return words[len(words)-1]
}

// Verdict is what will become of a bake, in the words that bakers use, and the smallest change that mends it.
type Verdict struct {
	Right    bool              `json:"right"`
	Summary  message.Message   `json:"summary"`  // in one line
	Expected Words             `json:"expected"` // as a baker is asked for afterwards
	Wrong    []message.Message `json:"wrong"`
	Detail   message.Message   `json:"detail"`         // each clock, with how sure that is
	Mend     *Mend             `json:"mend,omitempty"` // nil: it is right, or nothing that was tried mends it
}

// Mend is a change that was tried on the model, and mends what is wrong.
type Mend struct {
	Text   message.Message `json:"text"`
	Change Change          `json:"change"`
}

// Change is what a way of baking changes of a dessert: its stages, and where they are not empty the others.
type Change struct {
	Stages   []Stage `json:"stages"`
	Shelf    string  `json:"shelf,omitempty"`
	Material string  `json:"material,omitempty"` // of its dish
	ParBaked bool    `json:"par_baked,omitempty"`
}

// judge writes the verdict of a dessert; q is its plan's request, entered says that its stages were given.
func (a *DessertAnswer) judge(q PlanRequest, entered bool) {
	v := Verdict{Expected: a.Expected(), Wrong: append([]message.Message{}, a.Plan.Unmet...), Detail: a.detail()}
	if *v.Expected.BoiledOver {
		v.Wrong = append(v.Wrong, message.New("it boils over"))
	}
	v.Right = len(v.Wrong) == 0
	switch {
	case v.Right:
		fruit := message.Word(v.Expected.Fruit)
		if fell := FruitWords[len(FruitWords)-1]; v.Expected.Fruit == fell { // wanted of berries: no fault
			fruit = message.Part(message.New("soft"))
		}
		text := []message.Message{
			message.New("{fruit} fruit", fruit), message.Value(message.Part(a.Balance.Set.Band.Label())),
		}
		if v.Expected.Top != "" {
			text = append([]message.Message{message.New("{top} top", message.Word(v.Expected.Top))}, text...)
		}
		v.Summary = message.New("Comes out right: {what}.", message.Part(message.Join(", ", text...)))
		if v.Expected.Top == darkTop { // no plan has to mend it, and nobody wishes for it
			less := message.New("Foil near the end keeps it golden.")
			if entered {
				v.Mend = a.fewerMinutes(q)
			}
			if v.Mend != nil {
				less = message.New("{mend} is enough.", message.Part(v.Mend.Text))
			}
			v.Summary = message.New("Comes out right, but dark on top: {what}. {less}",
				message.Part(message.Join(", ", text[1:]...)), message.Part(less))
		}
	default:
		if len(a.Plan.Unmet) > 0 {
			v.Mend = a.mend(q, entered)
		}
		wrong := message.Join("; ", v.Wrong...)
		if v.Mend != nil {
			v.Summary = message.New("{Wrong}: {mend}.", message.Part(wrong), message.Part(v.Mend.Text))
		} else {
			v.Summary = message.New("{Wrong}.", message.Part(wrong))
		}
	}
	a.Verdict = v
}

// fewerMinutes is what of the minutes that were given can be left out; nil: nothing.
func (a *DessertAnswer) fewerMinutes(q PlanRequest) *Mend {
	m := a.mend(q, true)
	if m == nil || minutesOf(m.Change.Stages) >= minutesOf(a.Plan.Stages) {
		return nil
	}
	return m
}

// mend is the smallest change that was tried: other minutes for stages that were given, else the first remedy.
func (a *DessertAnswer) mend(q PlanRequest, entered bool) *Mend {
	if entered {
		stages := a.Plan.Stages
		before := minutesOf(stages[:len(stages)-1])
		minute, unmet := q.Finish(stages, before)
		d := math.Round(minute - minutesOf(stages))
		if len(unmet) > 0 || d == 0 {
			return nil
		}
		other := append([]Stage{}, stages...)
		other[len(other)-1].Minutes = minute - before
		text := message.New("{minutes} min more", message.Number(d, 0))
		if d < 0 {
			text = message.New("{minutes} min less", message.Number(-d, 0))
		}
		return &Mend{text, Change{Stages: other}}
	}
	for _, r := range a.Plan.Remedies {
		if r.Settles && r.Change != nil {
			return &Mend{r.Name, *r.Change}
		}
	}
	return nil
}

// detail tells each clock, with how far it may be off.
func (a *DessertAnswer) detail() message.Message {
	p := a.Plan
	w := a.Expected()
	top := message.Word(w.Top)
	if early, late := p.TopWord(p.Early.Colour), p.TopWord(p.Late.Colour); early != late {
		top = message.Part(
			message.New("{early} to {late}, most likely {likely}", message.Word(early), message.Word(late), top),
		)
	}
	base := message.Message{}
	if w.Base != "" {
		base = message.New(", base {base}", message.Word(w.Base))
	}
	head := message.New("Fruit {fruit}", message.Word(w.Fruit))
	if w.Top != "" {
		head = message.New("Top {top} (oven ±{off}), fruit {fruit}",
			top, message.CelsiusDifference(p.OffByC), message.Word(w.Fruit))
	}
	return message.New(
		"{head}, starch {set} % set{base}. {steam} lost as steam; with {weight} of thickener that is {stands}.",
		message.Part(head),
		message.Number(100*p.Answer.End.SetShare, 0),
		message.Part(base),
		message.Grams(
			math.Round(p.Answer.End.SteamedOffG),
		),
		message.Grams(a.Balance.ThickenerG),
		message.Part(a.Balance.Set.Band.Label()),
	)
}

// Figure is one figure of a bake by its name, so that two bakes can be compared line by line.
type Figure struct {
	Key  string          `json:"key"`
	Name message.Message `json:"name"`
	Text message.Message `json:"text"`
}

// figures are what two bakes are compared by.
func (a *DessertAnswer) figures() []Figure {
	e, end := a.Plan.Answer.Events, a.Plan.Answer.End
	minute := func(m *float64) message.Message {
		if m == nil {
			return message.New("not")
		}
		return message.New("{n} min", message.Number(*m, 0))
	}
	out := []Figure{
		{"middle", message.New("middle bubbles"), minute(e.MiddleBubbles)},
		{"golden", message.New("golden"), minute(e.Golden)},
		{"colour", message.New("browning at the end (1 = golden)"), message.Value(message.Number(end.Colour, 1))},
		{
			"fruit",
			message.New("fruit, minutes at a boil"),
			message.New("{n} of {tender}", message.Number(end.FruitMinutes, 0), message.Number(a.Tender, 0)),
		},
		{"set", message.New("starch set"), message.New("{n} %", message.Number(100*end.SetShare, 0))},
		{"steam", message.New("steam"), message.Value(message.Grams(math.Round(end.SteamedOffG)))},
	}
	if a.Bake.Base != nil {
		out = append(out, Figure{"base", message.New("base (1 = crisp)"), message.Value(message.Number(end.Base, 1))})
	}
	return out
}
