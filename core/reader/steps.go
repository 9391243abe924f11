package reader

import (
	"regexp"
	"slices"
	"strings"

	"mabbin/core/larder"
	"mabbin/core/parse"
)

var (
	toppingWord = regexp.MustCompile(
		`\b(?:topping|crumble|crumbs|streusel|dough|scones?|rounds|mounds|pastry|crust|lumps|rubble|crunch|spoonfuls|crisp ingredients|layer)\b`,
	)
	baseWord = regexp.MustCompile(`\b(?:base|shell|case|crust|pastry|shortbread|bottom)\b`)
	placing  = regexp.MustCompile(
		`\b(?:scatter|sprinkle|spread|crumble|drop|spoon|top|cover|lay|drape|put|arrange|sit|dollop|blob|pile|break|strew|unroll|squeeze)\b`,
	)
	onFruit = regexp.MustCompile(`\b(?:over|on|onto|across)\b`)
	pronoun = regexp.MustCompile(`\b(?:it|this|them)\b`)
	layOver = regexp.MustCompile(`\b(?:lay|drape)(?: it| them)? over\b|\bdrop by spoonfuls\b`)

	verbs = []struct {
		act string
		re  *regexp.Regexp
	}{
		{
			"bake",
			regexp.MustCompile(
				`\bbak(?:e|es|ed|ing)\b|\bgive it\b|\breturn (?:it )?to (?:the )?oven\b|\bback in\b|\bin (?:a |the )?(?:moderate |hot |low )?oven\b|\bit takes\b|\bpast the oven\b`,
			),
		},
		{
			"hob",
			regexp.MustCompile(`\b(?:cook|simmer|boil|bubble|soften|sweat|stew|poach|fry|heat|warm (?:the|through|\d|[½⅓⅔¼¾]))`),
		},
		{"microwave", regexp.MustCompile(`\bmicrowave\b`)},
		{
			"stand",
			regexp.MustCompile(`\b(?:stand|sit|sits|macerate|rest|leave|wait|walk away|cool|cools|stays?|eat it|soak|serve)\b`),
		},
		{
			"chill",
			regexp.MustCompile(`\b(?:chill|refrigerate|freeze|in the (?:fridge|refrigerator|freezer|cold)|back in the cold)\b`),
		},
		{"melt", regexp.MustCompile(`\bmelt\b`)},
		{"other", regexp.MustCompile(`\b(?:light|toast|preheat|knead|whisk|beat)\b`)},
	}
	notCooking = regexp.MustCompile(
		`\b(?:reduce|lower|turn|off|preheat|the|low|medium|high|hot) heat\b|\bheat (?:the )?oven|\bheat to\b|\bbring (?:the|to)|\bfor cooking\b`,
	)
	fridge = regexp.MustCompile(`^[^.;]{0,12}\b(?:in the )?(?:fridge|refrigerator|freezer)\b`)

	coverOn = regexp.MustCompile(
		`\bcover(?:ed)? (?:(?:the dish|it|this|tightly|loosely|again) )*(?:with|in) (?:a (?:piece|sheet) of |some )?(foil|parchment|baking paper|a lid|the lid)|\b(foil) on\b|\bunder (foil)\b|\b(lid) on\b|\bwith (?:the|a) (lid) on\b|\bwith the (foil)\b|\bcover, and (bake)\b|\bput (?:on )?the (lid)\b`,
	)
	coverOff = regexp.MustCompile(
		`\buncover(?:ed)?\b|\b(?:take|remove|lift)(?: off)? the (?:foil|lid)\b|\bfoil off\b|\blid off\b|\bwithout (?:the foil|a lid)\b|\bthe rest without\b`,
	)
	firstFoil = regexp.MustCompile(`\bfoil (?:on )?for the first (\d+)\b`)
	inAll     = regexp.MustCompile(`\baltogether: `)
	ifClause  = regexp.MustCompile(`\b(?:if|unless|should)\b[^.;]*$`)

	pushWord = regexp.MustCompile(
		`\b(?:push|press|poke|submerge|dunk)(?:ing)?\b[^.]*\b(?:under|down|into the juices?)\b`,
	)
	basteWord  = regexp.MustCompile(`\bspoon(?:ing)? the juices? over|\bbast(?:e|ing)\b`)
	turnWord   = regexp.MustCompile(`\bturn (?:the )?(?:dish|pot|tin) (?:round|around)\b|\bof a turn\b|\brotate\b`)
	everyMin   = regexp.MustCompile(`\bevery (\d+) min`)
	brushWord  = regexp.MustCompile(`\bbrush\b`)
	coalWord   = regexp.MustCompile(`(\d+) (?:briquettes|coals)[^.]{0,30}\bunder\b[^.]{0,20}?(\d+) on\b`)
	cutInto    = regexp.MustCompile(`\bcut(?:ting)? (?:it |them |the \w+ )?(?:in|into) (\d+)( ?(?:cm|mm|-?inch))?`)
	weightWord = regexp.MustCompile(`\b(?:beans|dried peas|baking beans|pie weights|weights|rice)\b`)
	golden     = regexp.MustCompile(`\b(?:golden|browned|brown|colou?red|colou?r of|bronzed)\b`)
	bubbling   = regexp.MustCompile(`\b(?:bubbl\w+|mutter\w+)\b`)
	skewer     = regexp.MustCompile(`\b(?:skewer (?:inserted|comes)|twig|toothpick|comes out (?:clean|dry))\b`)
	tender     = regexp.MustCompile(`\b(?:tender|soft|knife goes|takes a skewer)\b`)
	setSign    = regexp.MustCompile(`\b(?:set|trembles?|wobbles?)\b`)
	doneWhen   = regexp.MustCompile(`^it(?:'s| is) (?:done|ready) when\b`)
	shelfLow   = regexp.MustCompile(`\b(?:low(?:est|er)?|bottom) (?:shelf|rack|rung)\b`)
	shelfHigh  = regexp.MustCompile(`\b(?:top|high|upper) (?:shelf|rack|rung)\b`)
	shelfMid   = regexp.MustCompile(`\b(?:middle (?:shelf|rack|rung)|middle of the oven|cent(?:re|er) of the oven)\b`)
	atLeast    = regexp.MustCompile(`\bat least $`)
	drainJuice = regexp.MustCompile(`\bdrain(?:ed)?\b|\bpour off the juice\b|\blift out the fruit\b`)
	transfers  = regexp.MustCompile(
		`\b(?:lift|transfer|tip|scrape|spoon|put)\b[^.]*\b(?:into|in|to)\b[^.]*\b(?:dish|tin|pan)\b`,
	)
	coolNoTime = regexp.MustCompile(`\b(?:leave|allow|let)\b[^.]*\b(?:cool|cold)\b`)
	reducedTo  = regexp.MustCompile(`\breduced by half\b|\bby half\b`)
	thirds     = regexp.MustCompile(
		`\b(two[- ]thirds|2/3|half|three[- ]quarters)\b[^.;]*\b(?:press|into (?:the|a|your) (?:\w+ ){0,2}(?:tin|pan|dish))|\b(?:press|pat) (two[- ]thirds|2/3|half|three[- ]quarters)\b`,
	)
	freezeOne = regexp.MustCompile(`\bwrap one\b[^.]*\bfreeze\b|\bfreeze (?:one|the other)\b`)
	endCold   = regexp.MustCompile(`\b(?:cold|completely)\b`)
	putInTin  = regexp.MustCompile(`\b(?:line|fit|press)\b[^.]*\b(?:tin|plate|pan|dish)\b`)
	sauceWord = regexp.MustCompile(`\b(?:juice|syrup|saucepan|small pan)\b`)
	sauceThen = []struct {
		then SauceUse
		re   *regexp.Regexp
	}{
		{
			FoldSauce,
			regexp.MustCompile(`\b(?:fold|stir) in (?:the )?(?:drained )?(?:cherries|fruit|berries|plums|apples|peaches)`),
		},
		{PourSauce, regexp.MustCompile(`\bpour\b[^.]*\bover\b|\bspoon over\b|\bspread over\b|\bpour it back\b`)},
	}
)

// event is one thing that a sentence says at a place in it.
type event struct {
	at   int
	kind string // time, heat, cover, uncover, push, baste, turn, wash, cut
	when when
	heat heatAt
	text string
}

// reading is the state of the kitchen while the method is read.
type reading struct {
	*recipe
	i         int // of the sentence
	s         sentence
	heat      Heat
	cover     string
	shelf     string
	baked     int // bake stages so far
	last      [2]int
	topped    int  // sentence that puts the topping on first; -1: none
	fruitIn   bool // the filling is in the dish
	cooked    bool // a filling cooked before waits to be used
	filling   bool // a filling was baked alone
	lastWhere Bowl
	coals     map[string]float64
}

// readMethod reads the method sentence by sentence.
func (r *recipe) readMethod() {
	r.method = r.sentences()
	r.style = r.findStyle()
	r.traits = larder.StyleOf(r.style)
	r.hasBase = r.traits.Base != ""
	r.targets()
	r.assignBowls()
	r.methodStates()
	k := &reading{recipe: r, cover: "none", topped: -1, last: [2]int{-1, -1}, coals: coalsIn(r.method)}
	for i := range r.method {
		if k.topped < 0 && k.placesTopping(i) {
			k.topped = i
		}
	}
	k.findLastBake()
	for i, s := range r.method {
		if s.optional {
			continue
		}
		k.i, k.s = i, s
		k.sentence()
	}
}

// placesTopping is whether a sentence puts the topping on the fruit.
func (k *reading) placesTopping(i int) bool {
	t := k.method[i].text
	if k.method[i].optional {
		return false
	}
	if layOver.MatchString(t) || spreadOver.MatchString(t) && !overBase.MatchString(t) {
		return true
	}
	if topWith.MatchString(t) {
		return true
	}
	if !placing.MatchString(t) || !onFruit.MatchString(t) || weightWord.MatchString(t) {
		return false
	}
	if toppingWord.MatchString(t) {
		return true
	}
	was := Bowl("")
	if i > 0 {
		was = k.method[i-1].target
	}
	return pronoun.MatchString(t) && (k.method[i].target == Topping || k.method[i].target == "" && was == Topping)
}

var (
	topWith = regexp.MustCompile(
		`\b(?:cover|top)\b[^.]*\bwith (?:the |half the |all the )?(?:topping|crumble|crumbs|streusel|dough|rubble|crunch|scones|pastry|crust)\b`,
	)
	spreadOver = regexp.MustCompile(`\b(?:spread|spoon|scatter) over\b`)
	overBase   = regexp.MustCompile(`\bover the (?:hot |warm |cold |cooled )?(?:base|crust|shortbread|case|pastry)\b`)
)

// findLastBake finds the last time in the method that is a bake's.
func (k *reading) findLastBake() {
	for i, s := range k.method {
		if s.optional {
			continue
		}
		for _, w := range s.times {
			if k.act(s, w) == "bake" {
				k.last = [2]int{i, w.at}
			}
		}
	}
	if k.last[0] >= 0 {
		return
	}
	for i, s := range k.method { // baked until it is done, with no minutes
		if !s.optional && k.bakesUntil(s) {
			k.last = [2]int{i, 0}
		}
	}
}

// act is what a time is of: the verb that governs it.
func (k *reading) act(s sentence, w when) string {
	before := s.text[:w.at]
	hidden := notCooking.ReplaceAllStringFunc(before, func(m string) string { return strings.Repeat(" ", len(m)) })
	best, at := "", -1
	for _, v := range verbs {
		for _, m := range v.re.FindAllStringIndex(hidden, -1) {
			if m[0] > at {
				best, at = v.act, m[0]
			}
		}
	}
	if fridge.MatchString(s.text[w.end:]) || at >= 0 && strings.HasPrefix(s.text[at:], "back in the cold") {
		return "chill"
	}
	if best != "" {
		return best
	}
	after := s.text[w.end:]
	first := len(after) + 1
	for _, v := range verbs {
		if m := v.re.FindStringIndex(after); m != nil && m[0] < first && m[0] < 30 && v.act != "other" && v.act != "stand" {
			best, first = v.act, m[0]
		}
	}
	if len(s.heats) > 0 {
		return "bake"
	}
	return best
}

// sentence reads the events of one sentence in order.
func (k *reading) sentence() {
	for _, e := range k.events() {
		switch e.kind {
		case "heat":
			k.heat = e.heat.Heat
		case "cover":
			k.cover = e.text
		case "uncover":
			k.cover = "none"
		case "time":
			k.time(e.when)
		case "until":
			k.bake(when{low: -1})
		case "push":
			k.emit(Step{Kind: PushUnder})
		case "baste":
			k.emit(Step{Kind: Baste})
		case "turn":
			s := Step{Kind: Turn}
			if m := everyMin.FindStringSubmatch(k.s.text); m != nil {
				s.EveryMin = figure(m[1])
			}
			k.emit(s)
		case "wash":
			k.wash()
		case "cut":
			k.emit(Step{Kind: Cut, Pieces: int(figure(e.text))})
		case "freeze":
			k.emit(Step{Kind: Freeze, Of: Things{Word: "dessert"}, Dishes: 1})
		case "cool":
			if k.lastOf(Rest) == nil {
				k.emit(Step{Kind: Rest, To: k.restTo()})
			}
		case "sauce":
			k.sauce(nil)
		case "sprinkle":
			k.sprinkle()
		}
	}
	k.after()
}

func (k *reading) emit(s Step) {
	s.Sentence = k.s.raw
	k.method[k.i].steps = append(k.method[k.i].steps, len(k.steps))
	k.steps = append(k.steps, s)
}

// afterLast is whether a place in the sentence is behind the last minute of baking.
func (k *reading) afterLast(at int) bool {
	return k.last[0] >= 0 && (k.i > k.last[0] || k.i == k.last[0] && at > k.last[1])
}

func (k *reading) events() []event {
	t := k.s.text
	var out []event
	add := func(kind string, at int, text string) { out = append(out, event{kind: kind, at: at, text: text}) }
	times := k.s.times
	heats := k.s.heats
	for _, w := range times {
		out = append(out, event{kind: "time", at: w.at, when: w})
	}
	for _, h := range heats {
		at := h.at
		for _, w := range times { // "bake for 25 minutes at 190C"
			if w.end <= h.at && h.at-w.end < 28 && !anotherBake.MatchString(t[w.end:h.at]) {
				at = w.at - 1
			}
		}
		out = append(out, event{kind: "heat", at: at, heat: h})
	}
	for _, m := range coverOn.FindAllStringSubmatchIndex(t, -1) {
		if ifClause.MatchString(t[:m[0]]) || strings.Contains(t[m[1]:], " if ") && strings.Contains(t, "tent") {
			continue
		}
		kind := "foil"
		for g := 1; g <= 8; g++ {
			if x := group(t, m, g); strings.Contains(x, "lid") || x == "bake" {
				kind = "lid"
			} else if x == "parchment" || x == "baking paper" {
				kind = "parchment"
			}
		}
		at := m[0]
		for _, w := range times { // "40 minutes with the foil"
			if w.end <= m[0] && m[0]-w.end < 3 {
				at = w.at - 1
			}
		}
		add("cover", at, kind)
	}
	for _, m := range coverOff.FindAllStringIndex(t, -1) {
		add("uncover", m[0], "")
	}
	if k.bakesUntil(k.s) && k.last[0] == k.i {
		add("until", len(t), "")
	}
	if m := pushWord.FindStringIndex(t); m != nil && k.traits.CrustPushedUnder && !k.afterLast(m[0]) && k.baked > 0 {
		add("push", m[0], "")
	}
	if m := basteWord.FindStringIndex(t); m != nil && k.baked > 0 {
		add("baste", m[0], "")
	}
	if m := turnWord.FindStringIndex(t); m != nil && k.baked > 0 {
		add("turn", m[0], "")
	}
	if m := brushWord.FindStringIndex(t); m != nil && !k.afterLast(m[0]) {
		add("wash", m[0], "")
	}
	if m := freezeOne.FindStringIndex(t); m != nil {
		add("freeze", m[0], "")
	}
	if m := cutInto.FindStringSubmatchIndex(t); m != nil && group(t, m, 2) == "" && k.afterLast(m[0]) {
		add("cut", m[0], group(t, m, 1))
	}
	if m := coolsDown.FindStringIndex(t); m != nil && !timeNear(times, t, m) && k.baked > 0 && k.afterLast(m[0]) {
		add("cool", m[0], "")
	}
	if len(times) == 0 && k.makesSauce(t) {
		add("sauce", len(t), "")
	}
	if m := sprinkleWord.FindStringIndex(t); m != nil && k.baked > 0 && !k.afterLast(m[0]) {
		add("sprinkle", m[0], "")
	}
	slices.SortStableFunc(out, func(a, b event) int { return a.at - b.at })
	return out
}

// timeNear is whether a time stands in the clause of a match.
func timeNear(times []when, t string, m []int) bool {
	end := len(t)
	if i := strings.IndexAny(t[m[1]:], ",;"); i >= 0 && len(times) > 0 {
		end = m[1] + i
	}
	return slices.ContainsFunc(times, func(w when) bool { return w.at >= m[0] && w.at < end })
}

var sprinkleWord = regexp.MustCompile(`\bsprinkle\b`)

// makesSauce is whether a sentence without a time warms a liquid and pours it.
func (k *reading) makesSauce(t string) bool {
	return warmVerb.MatchString(t) && poursOver.MatchString(t) &&
		slices.ContainsFunc(
			k.s.mentions,
			func(m parse.Mention) bool { return m.Thing.Role == "syrup" || m.Thing.Role == "liquid" },
		)
}

// time reads one time by the verb that governs it.
func (k *reading) time(w when) {
	switch k.act(k.s, w) {
	case "bake":
		k.bake(w)
	case "hob", "microwave", "melt":
		k.cook(w)
	case "chill":
		k.chill(w)
	case "stand":
		k.stand(w)
	}
}

func (w when) minutes() []float64 {
	if w.low < 0 {
		return nil
	}
	return []float64{w.low, w.high}
}

var (
	bakeVerb    = regexp.MustCompile(`\bbake\b`)
	anotherBake = regexp.MustCompile(`\bbake\b|[.;]|\bthen\b`)
	warmVerb    = regexp.MustCompile(`\b(?:warm|heat|bring|melt)\b`)
	poursOver   = regexp.MustCompile(`\bpour\b[^.]*\bover\b`)
	potWord     = regexp.MustCompile(`\b(?:pot|pan|casserole)\b`)
	inTheOven   = regexp.MustCompile(`\bbake\b|\bgive it\b|\bback in\b|\bmin`)
)
