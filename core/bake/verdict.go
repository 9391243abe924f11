package bake

import (
	"math"
	"slices"

	"mabbin/core/balance"
	"mabbin/core/filling"
	"mabbin/core/larder"
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

// goldenTop is what a baker wishes for; darkTop is more than that, and less than burnt.
const (
	goldenTop = "golden"
	darkTop   = "dark"
)

// The words of a scale from little to much.
var (
	JuiceWords = []string{"runny", "saucy", "spoonable", "mounds", "slices", "stodgy"}
	FruitWords = []string{"hard", "bite", "tender", "mush"}
	TopWords   = []string{"pale", goldenTop, darkTop, "burnt"}
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
	e := a.Plan.Answer.End
	w := a.Borders().words(&a.Bake, e.FruitMinutes, e.Colour, e.Base)
	w.Juice = string(a.Balance.Set.BandAt(e.SetShare))
	over := a.Balance.Fit.HotHeadspaceMM < overflowMM
	w.BoiledOver = &over
	return w
}

// words are those of fruit, top and base, by the clocks.
func (b Borders) words(of *Request, fruit, colour, base float64) (w Words) {
	w.Fruit = wordAt(FruitWords, fruit, b.Fruit...)
	if of.Topping != nil {
		w.Top = wordAt(TopWords, colour, b.Top...)
	}
	if of.Base != nil {
		w.Base = wordAt(BaseWords, base, b.Base...)
	}
	return w
}

// results are what comes of a change that was tried: its minutes in the oven, and the words of what it leaves.
func (q *PlanRequest) results(s clockState, minutes float64) message.Message {
	w := bordersOf(q.TenderMin, q.MushMin, s.late).words(&q.Bake, s.fruit, s.colour, s.base)
	text := []message.Message{message.New("{n} min in all", message.Number(minutes, 0))}
	if w.Top != "" {
		text = append(text, message.New("{top} top", message.Word(w.Top)))
	}
	text = append(text, message.New("{fruit} fruit", fruitWord(w.Fruit)))
	if w.Base != "" {
		text = append(text, message.New("{base} base", message.Word(w.Base)))
	}
	return message.Join(", ", text...)
}

// fruitWord is the word for fruit in a sentence: fruit that falls is soft, which is wanted of berries.
func fruitWord(word string) message.Arg {
	if word == FruitWords[len(FruitWords)-1] {
		return message.Part(message.New("soft"))
	}
	return message.Word(word)
}

// mended is a change that was tried, with what came of it.
func (q *PlanRequest) mended(text message.Message, x *running, c Change) *Mend {
	return &Mend{text, q.results(x.state(), minutesOf(x.stages)), c}
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

// Level is how a dessert comes out.
type Level string

// The levels, the best first.
const (
	Right  Level = "right"
	Nearly Level = "nearly" // a little is missing that can be put right
	Wrong  Level = "wrong"
)

// Verdict is what will become of a dessert, in the words that bakers use, and the smallest change that mends it. It is
// the only one: whatever shows a dessert shows this.
type Verdict struct {
	Level  Level `json:"level"`
	Right  bool  `json:"right"`
	Nearly bool  `json:"nearly"`
	// MoreMin is how many minutes more in the oven meet every clock, of a dessert that is just short; 0: none.
	MoreMin  int               `json:"more_min"`
	Summary  message.Message   `json:"summary"`        // in one line
	Expected Words             `json:"expected"`       // as a baker is asked for afterwards
	Wrong    []message.Message `json:"wrong"`          // each thing that is not as it should be
	Detail   message.Message   `json:"detail"`         // each clock, with how sure that is
	Mend     *Mend             `json:"mend,omitempty"` // nil: it is right, or nothing that was tried mends it
}

// Mend is a change that was tried on the model, and mends what is wrong.
type Mend struct {
	Text   message.Message `json:"text"`
	Result message.Message `json:"result"` // what comes of it: minutes, top, fruit, base
	Change Change          `json:"change"`
}

// Change is what a way of baking changes of a dessert: its stages, and where they are not empty the others.
type Change struct {
	Stages   []Stage `json:"stages"`
	Shelf    string  `json:"shelf,omitempty"`
	Material string  `json:"material,omitempty"` // of its dish
	ParBaked bool    `json:"par_baked,omitempty"`
}

// weighty are the remarks on a dessert that are a part of its verdict, in the words of a verdict.
var weighty = map[string]struct {
	leaves Level
	text   message.Message
}{
	"boils_over":    {Wrong, message.New("it boils over")},
	"may_boil_over": {Nearly, message.New("it may boil over")},
	"topping_thick": {Nearly, message.New("the topping is thick for the fruit")},
	"topping_thin":  {Nearly, message.New("the topping is thin for the fruit")},
}

// judge writes the verdict of a dessert; q is its plan's request, entered says that its stages were given.
func (a *DessertAnswer) judge(r balance.Request, q PlanRequest, entered bool) {
	v := Verdict{
		Level: Right, Expected: a.Expected(), MoreMin: a.Plan.MoreMin, Detail: a.detail(),
		Wrong: append([]message.Message{}, a.Plan.Unmet...),
	}
	leaves := func(l Level, what ...message.Message) {
		if l == Wrong || v.Level == Right {
			v.Level = l
		}
		v.Wrong = append(v.Wrong, what...)
	}
	switch {
	case v.MoreMin > 0:
		leaves(Nearly)
	case len(v.Wrong) > 0:
		leaves(Wrong)
	}
	if name, word := a.toughest(r); word == FruitWords[0] {
		leaves(Wrong, message.New("the {fruit} stays hard", name))
	} else if word == FruitWords[1] && v.Expected.Fruit != FruitWords[1] {
		leaves(Nearly, message.New("the {fruit} keeps some bite", name))
	}
	if a.Plan.Answer.End.FruitMinutes > mushMost*a.Mush {
		leaves(Nearly, message.New("the fruit cooks to a pulp"))
	}
	for _, x := range a.Balance.Remarks {
		if w, ok := weighty[x.Code]; ok {
			leaves(w.leaves, w.text)
		}
		if x.Code == "set_off_style" {
			l := Nearly
			if x.Level == balance.Warning {
				l = Wrong
			}
			set := a.Balance.Set
			leaves(l, message.New("the juice is {band} instead of {wanted}",
				message.Part(set.Band.Label()), message.Part(filling.BandOf(set.Target).Label())))
		}
	}
	v.Right, v.Nearly = v.Level == Right, v.Level == Nearly
	if v.Level != Nearly {
		v.MoreMin = 0
	}
	a.Verdict = v
	a.summarise(q, entered)
}

// summarise puts the verdict into one line, with what mends it.
func (a *DessertAnswer) summarise(q PlanRequest, entered bool) {
	v := &a.Verdict
	wrong := message.Join("; ", v.Wrong...)
	switch {
	case v.MoreMin > 0:
		v.Mend = a.minutesMore(q, v.MoreMin)
		v.Summary = message.New("Just short, {n} min more: {wrong}.", message.Count(v.MoreMin), message.Part(wrong))
	case v.Level == Right:
		if v.Expected.Top != darkTop ||
			q.AimColour > goldenTo { // it is wanted so, or no plan has to mend that, and nobody wishes for it
			v.Summary = message.New("Comes out right: {what}.", message.Part(a.comesOut(true)))
			return
		}
		if v.Mend = a.fewerMinutes(q); v.Mend != nil { // a baker looks, and takes it out before it is dark
			v.Expected.Top = goldenTop
			v.Summary = message.New("Comes out right: {what}. After {minute} min the top gets dark.",
				message.Part(a.comesOut(true)), message.Number(minutesOf(v.Mend.Change.Stages), 0))
			if !entered { // its minutes are its margin
				v.Mend = nil
			}
			return
		}
		v.Mend = a.foilLate(q)
		v.Summary = message.New("Comes out right, but dark on top: {what}.", message.Part(a.comesOut(false)))
		if v.Mend != nil {
			v.Summary = message.New("Comes out right, but dark on top: {what}. {Mend} keeps it golden.",
				message.Part(a.comesOut(false)), message.Part(v.Mend.Text))
		}
	default:
		if len(a.Plan.Unmet) > 0 {
			v.Mend = a.mend(q, entered)
		}
		if v.Mend != nil {
			wrong = message.New("{wrong}: {mend}", message.Part(wrong), message.Part(v.Mend.Text))
		}
		v.Summary = message.New("{Wrong}.", message.Part(wrong))
		if v.Level == Nearly {
			v.Summary = message.New("Nearly right: {wrong}.", message.Part(wrong))
		}
	}
}

// comesOut is how top, fruit and juice come out, in a few words; top says whether the top is one of them.
func (a *DessertAnswer) comesOut(top bool) message.Message {
	w := a.Verdict.Expected
	var text []message.Message
	if top && w.Top != "" {
		text = append(text, message.New("{top} top", message.Word(w.Top)))
	}
	return message.Join(", ", append(text, message.New("{fruit} fruit", fruitWord(w.Fruit)),
		message.Value(message.Part(a.Balance.Set.Band.Label())))...)
}

// A fruit has a word of its own where it is at least so much of a mixture.
const toughShare = 0.1

// toughest is the fruit of a mixture that takes longest to be tender, with its word; empty where there is one fruit.
func (a *DessertAnswer) toughest(r balance.Request) (name message.Arg, word string) {
	if len(r.Fruits) < 2 {
		return name, ""
	}
	most, sum := 0.0, 0.0
	for _, f := range r.Fruits {
		sum += f.Share
	}
	for _, asked := range r.Fruits {
		soft, mush := tenderOf(r, asked)
		if asked.Share < toughShare*sum || soft <= most {
			continue
		}
		f, _ := r.Own.Fruit(asked.Key)
		most, name = soft, larder.Called(f.Name)
		word = wordAt(FruitWords, a.Plan.Answer.End.FruitMinutes, hardBelow*soft, soft, max(soft, mush))
	}
	return name, word
}

// fewerMinutes is what of the minutes that were given can be left out for a golden top, everything else right; nil:
// nothing.
func (a *DessertAnswer) fewerMinutes(q PlanRequest) *Mend {
	stages := a.Plan.Stages
	end, before := minutesOf(stages), minutesOf(stages[:len(stages)-1])
	if !stages[len(stages)-1].InOven() {
		return nil
	}
	x, latest := toLast(&q.Bake, stages), 0.0
	for minute := math.Ceil(before + leastStage); minute < end; minute++ {
		x.until(minute)
		if q.unmet(x.state()) == 0 && a.Plan.TopWord(x.c.colour[core]) == goldenTop {
			latest = minute
		}
	}
	if latest == 0 {
		return nil
	}
	shorter := slices.Clone(stages)
	shorter[len(shorter)-1].Minutes = latest - before
	return q.mended(message.New("{minutes} min less", message.Number(end-latest, 0)), bakeThrough(&q.Bake, shorter),
		Change{Stages: shorter})
}

// foilLate is foil over the last minutes, where that was tried and keeps a dark top golden; nil: it does not.
func (a *DessertAnswer) foilLate(q PlanRequest) *Mend {
	stages := a.Plan.Stages
	last := stages[len(stages)-1]
	if q.OverCoals || !last.InOven() || bareCover(last.Cover) != "" {
		return nil
	}
	before := minutesOf(stages[:len(stages)-1])
	for under := leastStage; under <= foilLastMost && under < last.Minutes; under += leastStage {
		open, foil := last, last
		open.Minutes, foil.Minutes, foil.Cover = last.Minutes-under, under, foilCover
		foil.AddTopping, foil.PushUnder = false, false
		tried := append(slices.Clone(stages[:len(stages)-1]), open, foil)
		x := bakeThrough(&q.Bake, tried)
		if q.unmet(x.state()) == 0 && a.Plan.TopWord(x.c.colour[core]) == goldenTop {
			return q.mended(
				message.New("foil from minute {n}", message.Number(before+open.Minutes, 0)),
				x,
				Change{Stages: tried},
			)
		}
	}
	return nil
}

// minutesMore is the last stage in the oven with so many minutes more.
func (a *DessertAnswer) minutesMore(q PlanRequest, n int) *Mend {
	stages := lengthened(a.Plan.Stages, n)
	return q.mended(
		message.New("{minutes} min more", message.Count(n)),
		bakeThrough(&q.Bake, stages),
		Change{Stages: stages},
	)
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
		return q.mended(text, bakeThrough(&q.Bake, other), Change{Stages: other})
	}
	for _, r := range a.Plan.Remedies {
		if r.Settles && r.Change != nil {
			return &Mend{r.Name, r.Result, *r.Change}
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
