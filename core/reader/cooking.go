package reader

import (
	"regexp"
	"slices"
	"strings"
)

var (
	stirredIn   = regexp.MustCompile(`\b(?:stir it in|stir in|stir them in|back to the boil|boil)\b`)
	lidded      = regexp.MustCompile(`\b(?:cover(?:ed)?|lidded|with a lid|lid on)\b`)
	noLid       = regexp.MustCompile(`\bwithout a lid\b|\buncovered\b`)
	juiceOnly   = regexp.MustCompile(`\b(?:boil|cook|reduce|simmer) (?:the )?(?:juice|syrup|it until syrupy)\b`)
	itBubbles   = regexp.MustCompile(`\blet (?:it|them) (?:bubble|simmer|boil|cook)\b`)
	chillsTop   = regexp.MustCompile(`\bchill the (?:crumble|topping|crumbs|streusel)\b`)
	thickensIt  = regexp.MustCompile(`\b(?:flour|cornflour|cornstarch|starch|thick)\b`)
	greyCoals   = regexp.MustCompile(`\b(?:briquettes|coals|charcoal)\b`)
	saucepanFor = regexp.MustCompile(`\b(?:saucepan|small pan|to the boil)\b`)
)

// cook reads minutes on the hob or in the microwave: of fruit, or of a sauce.
func (k *reading) cook(w when) {
	t := k.s.text
	if greyCoals.MatchString(t) || k.afterLast(w.at) {
		return
	}
	act := k.act(k.s, w)
	if m := k.lastOf(Macerate); m != nil && juiceOnly.MatchString(t) {
		if thickensIt.MatchString(t) {
			m.Juice = "thicken"
			k.emit(Step{
				Kind: CookSauce, Of: Things{Keys: append([]string{k.juiceKey()}, k.keysIn(k.s, 0, len(t), false)...)},
				Then: k.then(), Minutes: w.minutes(),
			})
		} else {
			m.Juice = "reduce"
		}
		return
	}
	if juiceOnly.MatchString(t) || act == "melt" || k.isSauce() {
		k.sauce(w.minutes())
		return
	}
	where := "hob"
	if act == "microwave" {
		where = "microwave"
	}
	from := 0
	for _, x := range k.s.times {
		if x.end <= w.at {
			from = x.end
		}
	}
	s := Step{Kind: CookFruit, Minutes: w.minutes(), Where: where, Covered: lidded.MatchString(t) && !noLid.MatchString(t)}
	fruit, with := k.keysIn(k.s, from, w.at, true), k.keysIn(k.s, from, w.at, false)
	again := k.lastOf(CookFruit) != nil && k.cooked
	switch {
	case again && (itBubbles.MatchString(t[from:w.at]) || len(fruit) == 0 && stirredIn.MatchString(t)):
		s.Of = Things{Word: "all"}
		s.With = slices.Concat(fruit, with)
	case len(fruit) > 0:
		s.Of, s.With = Things{Keys: fruit}, with
	default:
		fruit = k.fruitsNear()
		if len(fruit) == 0 {
			return
		}
		s.Of, s.With = Things{Keys: fruit}, k.withNear()
	}
	k.cooked = true
	k.emit(s)
}

// isSauce is whether something is boiled that holds no fruit.
func (k *reading) isSauce() bool {
	if k.cooked && k.lastOf(CookFruit) != nil && !sauceWord.MatchString(k.s.text) {
		return false
	}
	if k.namesFruit(k.s) {
		return false
	}
	return saucepanFor.MatchString(k.s.text) && !backToBoil.MatchString(k.s.text)
}

func (k *reading) lastOf(kind StepKind) *Step {
	for i := len(k.steps) - 1; i >= 0; i-- {
		if k.steps[i].Kind == kind {
			return &k.steps[i]
		}
	}
	return nil
}

func (k *reading) juiceKey() string {
	for _, x := range k.items {
		if k.isFruit(x.Key) {
			return strings.Split(x.Key, "_")[0] + "_juice"
		}
	}
	return "juice"
}

func (k *reading) then() SauceUse {
	for i := k.i; i < min(len(k.method), k.i+2); i++ {
		for _, x := range sauceThen {
			if x.re.MatchString(k.method[i].text) {
				return x.then
			}
		}
	}
	return PourSauce
}

// sauce reads a liquid that is boiled or warmed by itself.
func (k *reading) sauce(minutes []float64) {
	t := k.s.text
	s := Step{Kind: CookSauce, Then: k.then(), Minutes: minutes}
	var keys []string
	if namesJuice.MatchString(t) {
		if c := k.lastOf(CookFruit); c != nil && k.cooked {
			for _, key := range []string{"water", "honey", "caster_sugar", "white_sugar"} {
				if slices.Contains(c.With, key) {
					keys = append(keys, key)
				}
			}
		} else {
			keys = append(keys, k.juiceKey())
			if k.i > 0 && strings.Contains(k.method[k.i-1].text, "with water") {
				keys = append(keys, "water")
			}
		}
	}
	keys = append(keys, k.keysIn(k.s, 0, len(t), false)...)
	s.Of = Things{Keys: keys}
	if reducedTo.MatchString(t) {
		s.ReduceTo = 0.5
	}
	k.emit(s)
	if k.baked > 0 && k.topped >= 0 {
		k.lateTopping(keys)
	}
}

// lateTopping is a topping cooked by itself while the dessert bakes: it goes on before the next stage.
func (k *reading) lateTopping(keys []string) {
	late := Things{Keys: keys}
	if k.filling {
		late = Things{Word: "topping"}
		k.filling = false
	}
	for _, x := range k.items {
		if x.Bowl == Topping && slices.Contains(keys, x.Key) && (late.Word != "" || k.inLateGroup(x)) {
			x.Late = true
		}
	}
	k.emit(Step{Kind: AddLate, Of: late, At: "between stages"})
}

func (k *reading) inLateGroup(x *Item) bool {
	h := k.headings[x]
	return h == "" || lateHeading.MatchString(h)
}

// chill reads a time in the fridge or the freezer.
func (k *reading) chill(w when) {
	t := k.s.text
	s := Step{
		Kind: Chill, Minutes: w.minutes(), Freezer: strings.Contains(t, "freez"),
		AtLeast: atLeast.MatchString(t[:w.at]),
	}
	switch {
	case k.afterLast(w.at):
		s.Of.Word = "dessert"
	case chillsTop.MatchString(t):
		s.Of.Word = "topping"
	case k.hasBase && putInTin.MatchString(k.before()+t[:w.at]):
		s.Of.Word = "base"
	case k.topped >= 0 && k.topped <= k.i:
		s.Of.Word = "dessert"
	case k.hasBase || k.traits.Takes("pastry"):
		s.Of.Word = "dough"
	default:
		s.Of.Word = "topping"
	}
	k.emit(s)
}

// stand reads a time in which something stands: the fruit with its sugar, a cooked filling that cools, or the dessert.
func (k *reading) stand(w when) {
	t := k.s.text
	if k.afterLast(w.at) {
		if k.lastOf(Rest) != nil {
			return
		}
		k.emit(Step{Kind: Rest, Minutes: w.minutes(), To: k.restTo(), AtLeast: atLeast.MatchString(t[:w.at])})
		return
	}
	target := k.targetOf(k.s, 0, w.at)
	if target == "" {
		target = k.lastWhere
	}
	if k.cooked {
		if c := k.lastOf(CookFruit); c != nil && !c.Cool {
			c.Cool, c.CoolMinutes = true, w.minutes()
			return
		}
	}
	if target == Filling && !greyCoals.MatchString(t) {
		k.emit(Step{Kind: Macerate, Minutes: w.minutes(), Juice: "keep"})
	}
}

func (k *reading) restTo() RestTo {
	switch {
	case k.traits.ServedCold:
		return UntilCold
	case k.traits.Slices:
		return UntilSet
	}
	if endCold.MatchString(k.s.text) && !strings.Contains(k.s.text, "with cold") {
		return UntilCold
	}
	return UntilWarm
}

// after notes what a sentence leaves behind it.
func (k *reading) after() {
	t := k.s.text
	if m := k.lastOf(Macerate); m != nil && m.Juice == "keep" && drainJuice.MatchString(t) && k.baked == 0 {
		m.Juice = "leave"
	}
	if c := k.lastOf(CookFruit); c != nil && k.baked == 0 && !c.Cool && c.Where != "oven" && k.coolsHere() {
		c.Cool = true
	}
	if k.s.target != "" {
		k.lastWhere = k.s.target
	}
	if k.namesFruit(k.s) && !k.mixesAlone(t) {
		k.fruitIn = k.fruitIn || inDish.MatchString(t) || !k.hasBase
	}
}

var inDish = regexp.MustCompile(
	`\b(?:over|into|in|onto|on|upon)\b[^.]*\b(?:base|crust|case|shell|shortbread|tin|dish|plate|pastry|them)\b|\b(?:base|crust|case|shell|shortbread)\b`,
)

// coolsHere is whether a sentence lets something cool, with no time.
func (k *reading) coolsHere() bool {
	return len(k.s.times) == 0 && (coolNoTime.MatchString(k.s.text) || coolAlone.MatchString(k.s.text))
}

// coolAlone is a sentence of one word.
var coolAlone = regexp.MustCompile(`^(?:then )?cool\b[^,;]{0,12}$`)

var coolsDown = regexp.MustCompile(
	`\bcool (?:completely|in the|on a|to room)|\b(?:leave|allow|let)\b[^.]*\b(?:cool|cold)\b`,
)

// mixesAlone is whether fruit is only stirred or cooked, in a bowl or a pan.
func (k *reading) mixesAlone(t string) bool {
	return inAVessel.MatchString(t)
}

var (
	backToBoil  = regexp.MustCompile(`\bback to the boil\b`)
	namesJuice  = regexp.MustCompile(`\bthe juice\b|\bcook juice\b`)
	lateHeading = regexp.MustCompile(`\b(?:late|later|end|last|nut|toffee|praline|glaze)\b`)
	inAVessel   = regexp.MustCompile(`\b(?:bowl|saucepan|colander|covered pan|wide pan|into a pan)\b`)
)
