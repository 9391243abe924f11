package balance

import (
	"slices"
	"strings"

	"mabbin/core/filling"
	"mabbin/core/larder"
	"mabbin/core/message"
)

// Doing is one step of the method, in the order of the work.
type Doing struct {
	Code   string          `json:"code"`
	Text   message.Message `json:"text"`
	Helper bool            `json:"helper,omitempty"` // a child or a helper can do it: no knife, no heat, no raw egg
}

// usualSteps is how many steps a method or a check usually has.
const usualSteps = 12

// method is what to do for this very dessert: which bowl, in what order, how it should look, what waits meanwhile.
func (p *plan) method(s candidate) []Doing {
	m := recipe{plan: p, stand: s, steps: make([]Doing, 0, usualSteps)}
	m.readyDish()
	m.makeTopping(false)
	m.prepareFruit()
	m.mixFilling()
	if how := p.assemble(); !how.IsZero() {
		m.step("assemble", false, m.dotted(), how)
	}
	m.makeTopping(true)
	m.finish("before")
	m.step("bake", false, p.doneWhen())
	for i := range p.late {
		m.step("late", false, p.book.New(
			"Put the {topping} on for the last minutes only: any earlier, its sugar burns.",
			larder.Called(p.dessert.late[i].Topping.Name),
		))
	}
	m.step("rest", false, p.restWords())
	m.finish("after")
	return m.steps
}

// recipe gathers the steps of a method.
type recipe struct {
	*plan
	stand candidate
	steps []Doing
}

// step adds one; helper says that a child or a helper can do it: no knife, no heat, no raw egg.
func (m *recipe) step(code string, helper bool, lines ...message.Message) {
	m.steps = append(m.steps, Doing{code, m.book.Sentences(lines...), helper})
}

// readyDish is the dish and what lines it.
func (m *recipe) readyDish() {
	if how := greasingHow[m.greasing()]; !how.IsZero() {
		m.step("dish", true, message.New("Prepare the dish."), how)
	}
	if m.under.G == 0 {
		return
	}
	switch {
	case m.bought():
		m.step("base", false, m.howBase())
	case m.base.UpTheSides:
		m.step("base", false, message.New("Make the base, chill it, and line the dish."), m.howBase())
	default:
		m.step("base", true, message.New("Make the base."), m.howBase())
	}
	if m.base.ParBakeC > 0 && m.req.Base.ParBaked {
		m.step("par_bake", false, m.parBake())
	}
	if m.sealed() {
		m.step("seal", false, m.howSeal())
	}
}

// howSeal is how a base is sealed with egg.
func (p *plan) howSeal() message.Message {
	if p.req.Base.ParBaked {
		return message.New("Brush the inside of the base with beaten egg while it is hot, and bake it 2 min more.")
	}
	return message.New("Brush the inside of the base thinly with beaten egg, and let it dry in the fridge for 10 min.")
}

// makeTopping is the topping, at its moment: a biscuit waits for nothing.
func (m *recipe) makeTopping(last bool) {
	t := m.wanted.Topping
	biscuit := t.Family == "biscuit"
	switch {
	case t.None() || biscuit != last:
		return
	case biscuit:
		m.step("topping", false, message.New("Make the biscuit at the last moment, when the oven is hot."), m.howTopping())
	default:
		oneBowl := message.Message{}
		if crumbly[t.Family] {
			oneBowl = message.New("Tip it out, and use the same bowl for the fruit.")
		}
		m.step("topping", crumbly[t.Family] && !m.noChild(),
			m.book.New("Make the topping: {name}.", message.Name(larder.Plain(t.Name))), m.howTopping(), waits(t), oneBowl)
	}
}

// noChild says that making the topping is no work for a child: fat is melted for it, or blades turn.
func (p *plan) noChild() bool {
	t := p.req.Topping
	return t.Tool == "processor" || t.Melted(p.wanted.Topping)
}

// Melted says that the fat of a topping is melted: as it is worked in, or else as its recipe has it.
func (t ToppingInput) Melted(recipe larder.Topping) bool {
	switch {
	case t.Tool != "":
		return t.Tool == "fork"
	case t.FatState != "":
		return t.FatState == "melted"
	}
	return strings.Contains(recipe.Name, "melted")
}

// prepareFruit is the fruit, what browns with its acid, what is softened or cooked first, and what the sugar draws.
func (m *recipe) prepareFruit() {
	p := m.plan
	knife := slices.ContainsFunc(p.filling.Pieces, func(x filling.Piece) bool { return x.Fruit.Counted() && !x.Frozen })
	acid := message.Message{}
	if acids := m.among(p.filling.Liquids, "acid"); len(acids) > 0 {
		acid = m.book.New("Toss it with the {acid} as you go.", message.And(acids...))
	}
	m.step("fruit", !knife, p.howFruit(), acid)
	if soft := m.among(p.filling.Extras, "aromatic"); len(soft) > 0 {
		m.step("aromatics", false, m.book.New(
			"Soften the {aromatics} in a little of the fat without browning, and let it cool; its juice is included in the balance.",
			message.And(soft...),
		))
	}
	if c := p.filling.Precook; c.Minutes > 0 {
		m.step("precook", false, p.howPrecook())
	}
	x := p.filling.Macerate
	if x.Minutes <= 0 {
		return
	}
	m.step("macerate", true,
		m.book.New("Toss with the sugar and leave it for {minutes} min.", message.Number(x.Minutes, 0)),
		map[string]message.Message{
			"leave":   message.New("Lift the fruit out and leave the juice in the bowl."),
			"reduce":  message.New("Pour the juice off, boil it down to half and put it back."),
			"thicken": message.New("Pour the juice off into a pan."),
		}[x.Juice])
	if p.thickened() {
		m.step("thicken", false, m.book.New(
			"Stir the {thickener} into the cold juice, boil it for a minute until it is thick and clear, and let it cool.",
			larder.Called(p.thickener.Name),
		))
	}
}

// thickened says that the juice is thickened in a pan before it goes in.
func (p *plan) thickened() bool {
	return p.filling.Macerate.Minutes > 0 && p.filling.Macerate.Juice == filling.Thicken && p.custard == nil
}

// howPrecook is how the fruit, or the tough ones of it, are cooked first.
func (p *plan) howPrecook() message.Message {
	var cooked []message.Message
	for _, x := range p.filling.Pieces {
		if !x.Raw {
			cooked = append(cooked, message.Value(larder.Called(x.Fruit.Name)))
		}
	}
	where := map[string]message.Message{
		"": message.New("on the hob"), "hob": message.New("on the hob"), "oven": message.New("in the oven"),
		microwave: message.New("in a microwave"),
	}[p.req.Precook.Where]
	lid := message.New("under a lid")
	if p.filling.Precook.Open {
		lid = message.New("open, so that juice boils away")
	}
	cool := message.New("Let it cool before anything goes on it: warm fruit melts the fat of a topping.")
	return p.book.Sentences(p.book.New("Cook the {fruit} first, {minutes} min {where}, {lid}.",
		message.And(cooked...), message.Number(p.filling.Precook.Minutes, 0), p.book.Part(where), p.book.Part(lid)), cool)
}

// among are the names of those of a role.
func (m *recipe) among(all []filling.Weighed, roles ...string) (out []message.Message) {
	for _, w := range all {
		if slices.Contains(roles, w.Ingredient.Role) && w.G >= ticketG && !m.inCustard(w) {
			out = append(out, message.Value(larder.Called(w.Ingredient.Name)))
		}
	}
	return out
}

// inDry are the roles that go in with the sugar, for even spread, and tossed those that go in with the fruit.
var (
	inDry  = []string{"spice", "flavour", "salt", "leavener", "acid-salt"}
	tossed = []string{"nut", "seed", "dried-fruit", "inclusion", "aromatic", "cheese", "oat", "crumb", "flour", "egg"}
)

// mixFilling is what goes among the fruit, and when.
func (m *recipe) mixFilling() {
	p := m.plan
	if p.custard != nil {
		m.step("custard", false, message.New(
			"Whisk sugar, flour and salt, then the eggs, without making froth. Spread the fruit and pour the custard over it.",
		))
		return
	}
	var dry []message.Message
	if m.stand.SugarG >= ticketG && p.filling.Macerate.Minutes <= 0 {
		dry = append(dry, m.sugarName())
	}
	slurry := []message.Message{}
	for _, d := range p.doses(m.stand.thickenerG) {
		switch name := message.Value(larder.Called(d.Thickener.Name)); {
		case d.G < ticketG || p.thickened() && d.Thickener.Key == p.thickener.Key:
		case strings.HasPrefix(d.Thickener.Method, "cold slurry"):
			slurry = append(slurry, name)
		default:
			dry = append(dry, name)
		}
	}
	dry = append(dry, m.among(p.filling.Extras, inDry...)...)
	layered := p.style.Layered // its sugar goes between the layers, and not into a bowl
	var lines []message.Message
	switch {
	case layered && len(dry) > 1:
		lines = append(lines, m.book.New(
			"Mix {dry} until no lump is left. Sprinkle it over the fruit of each layer.", message.And(dry...)))
	case layered && len(dry) == 1:
		lines = append(lines, m.book.New("Sprinkle the {dry} over the fruit of each layer.", message.And(dry...)))
	case len(dry) > 1:
		lines = append(lines, m.book.New(
			"Mix {dry} until no lump is left, and toss the fruit in it from below.", message.And(dry...)))
	case len(dry) == 1:
		lines = append(lines, m.book.New("Toss the fruit with the {dry} from below.", message.And(dry...)))
	}
	if p.thickened() {
		lines = append(lines, message.New("Fold the fruit into the thickened juice."))
	}
	if len(slurry) > 0 {
		lines = append(lines, m.book.New(
			"Stir the {starch} with a spoonful of cold juice or water until it runs, and mix it in last.",
			message.And(slurry...)))
	}
	if wet := m.wetTossed(); len(wet) > 0 {
		lines = append(lines, m.book.New("Stir in {liquids}.", message.And(wet...)))
	}
	if more := m.among(p.filling.Extras, tossed...); len(more) > 0 {
		lines = append(lines, m.book.New("Fold in {more}.", message.And(more...)))
	}
	in := m.stand.MassG + p.allThickenerG(m.stand)*(1-m.stand.LostShare)
	if p.poursOver() { // what is poured over in the dish was never in the bowl
		for _, w := range p.filling.Liquids {
			if w.Ingredient.Role != "acid" {
				in -= w.G
			}
		}
	}
	for _, w := range p.filling.Extras {
		if w.Ingredient.Role == "fat" {
			in -= w.G
		}
	}
	if !layered {
		lines = append(lines, m.book.New("Scrape all {much} into the dish.", message.Grams(in)))
	}
	if len(lines) > 0 {
		m.step("dry", true, lines...)
	}
}

// sugarName is the sugar as the method calls it: only another than the usual one by its name.
func (p *plan) sugarName() message.Message {
	if p.req.SugarKey == "" || p.req.SugarKey == defaultSugar {
		return message.New("sugar")
	}
	return message.Value(larder.Called(p.sugar.Name))
}

// poursOver says that the liquid is poured over the fruit in the dish, and not tossed with it.
func (p *plan) poursOver() bool { return p.style.Pours != "" }

// poursAny says that there is something to pour.
func (p *plan) poursAny() bool {
	return slices.ContainsFunc(p.filling.Liquids, func(w filling.Weighed) bool { return w.G >= ticketG })
}

// wetTossed are the liquids that are tossed with the fruit.
func (m *recipe) wetTossed() []message.Message {
	if m.poursOver() {
		return nil
	}
	return m.among(m.filling.Liquids, "liquid", "syrup")
}

// dotted is butter among the fruit.
func (m *recipe) dotted() message.Message {
	fat := m.among(m.filling.Extras, "fat")
	if len(fat) == 0 {
		return message.Message{}
	}
	return m.book.New("Dot the {fat} over the fruit first, for flavour.", message.And(fat...))
}

// finish are the finishes of before or after the oven.
func (m *recipe) finish(when string) {
	for _, x := range m.finishes {
		if x.When == when {
			egg := slices.ContainsFunc(x.Parts, func(p larder.Part) bool { return strings.HasPrefix(p.Key, "egg") })
			m.step("finish", when == "before" && !egg, m.book.New("{Finish}, {much}: {looks}.",
				message.Name(x.Name), message.Grams(x.GPerDM2*m.geo.RimAreaCM2/100), message.Word(x.Looks)))
		}
	}
}

// waits says what a topping does while the fruit is made ready.
func waits(t larder.Topping) message.Message {
	if strings.HasPrefix(t.MakeAhead, "fridge") {
		return message.New("Keep it in the fridge until then.")
	}
	return message.Message{}
}
