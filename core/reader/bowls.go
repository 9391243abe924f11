package reader

import (
	"math"
	"regexp"
	"slices"
	"strings"

	"mabbin/core/parse"
)

var (
	headTopping = regexp.MustCompile(
		`\b(?:topping|crumble|crumbles|crisp|streusel|crumbs?|crunch|rubble|lid|biscuits?|scones?|cobbler|on top|oat layer|nut layer|praline|cover|crunchy)\b`,
	)
	headBase    = regexp.MustCompile(`\b(?:base|crust|pastry|shell|bottom|case|shortbread|shortcrust)\b`)
	headFilling = regexp.MustCompile(`\b(?:filling|fruit|inside|stew|compote|custard|berries|layer of fruit)\b`)
	headFinish  = regexp.MustCompile(`\b(?:finish|glaze|wash|dust|decorate|at the end)\b`)
	headBoth    = regexp.MustCompile(
		`\b(?:base|crust|bottom|shell)\b.*(?:\band\b|&|\+|/).*\b(?:top|topping|crumble|crumb|streusel|lid)\b|\b(?:topping|crumble|streusel)\b.*(?:\band\b|&|\+|/).*\b(?:base|crust|bottom|shell)\b`,
	)

	pourOver   = regexp.MustCompile(`\bpour\b(?:[^.]*?)\bover\b`)
	overTop    = regexp.MustCompile(`\bover the top\b`)
	finishWith = regexp.MustCompile(`\b(?:sprinkle|brush|dust|scatter on|scatter over|finish)\b`)
	clauses    = regexp.MustCompile(`[,;:]\s*(?:and |then |and then )?|\b(?:and then|then)\b`)
)

// bowlOfHeading is the bowl that the words of a heading name; empty where only what stands under it can tell.
func bowlOfHeading(h string) Bowl {
	before, _, _ := strings.Cut(h, "(")
	before, _, _ = strings.Cut(before, ",")
	switch {
	case headBoth.MatchString(h):
		return BaseAndTopping
	case headFinish.MatchString(before):
		return Finish
	}
	bowl, last := Bowl(""), -1
	for _, x := range []struct {
		re   *regexp.Regexp
		bowl Bowl
	}{{headTopping, Topping}, {headBase, Base}, {headFilling, Filling}} {
		if m := x.re.FindAllStringIndex(before, -1); m != nil && m[len(m)-1][0] > last {
			bowl, last = x.bowl, m[len(m)-1][0]
		}
	}
	return bowl
}

// isDough is whether a thing is surely of a topping or a base.
func isDough(t parse.Thing, g *float64) bool {
	switch t.Role {
	case "oat", "crumb", "leavener", "pastry":
		return true
	case "flour":
		return g == nil || *g >= 40
	case "nut", "seed":
		return true
	case "fat":
		return g != nil && *g >= 55
	}
	return false
}

// assignBowls gives every item its bowl: by what the line says it is for, by its heading, by the method, by what it is
// and what stands around it.
func (r *recipe) assignBowls() {
	r.hasBase = r.style == "pie" || r.style == "bar"
	groups := map[string][]*Item{}
	var order []string
	for _, x := range r.items {
		h := r.headings[x]
		if _, there := groups[h]; !there {
			order = append(order, h)
		}
		groups[h] = append(groups[h], x)
	}
	doughs := 0
	bowls := map[string]Bowl{}
	for _, h := range order {
		if r.doughGroup(groups[h]) {
			doughs++
		}
	}
	seen := 0
	for _, h := range order {
		dough := r.doughGroup(groups[h])
		if h == "" {
			if dough {
				seen++
			}
			continue
		}
		b := bowlOfHeading(h)
		switch {
		case dough && b == Filling, !dough && (b == "" || b == Topping && r.fruitGroup(groups[h])):
			b = ""
		}
		if b == "" {
			b = Filling
			if dough || !r.fruitGroup(groups[h]) && len(groups[h]) > 2 && doughs == 0 {
				b = Topping
			}
		}
		if b == Base && !r.hasBase {
			b = Topping
		}
		if dough && r.hasBase && b != BaseAndTopping && doughs > 1 && seen == 0 {
			b = Base
		}
		if dough {
			seen++
		}
		bowls[h] = b
	}
	for _, h := range order {
		for _, x := range groups[h] {
			if x.Bowl != "" {
				continue
			}
			if h != "" {
				x.Bowl, x.Surely = bowls[h], true
			}
		}
	}
	r.wholeCitrus()
	r.linkMethod()
	r.byOrder()
	for _, x := range r.items {
		if x.Ask == AskAmount && (x.Bowl == Finish || x.Bowl == Greasing) {
			x.Ask = ""
		}
	}
}

func (r *recipe) fruitGroup(g []*Item) bool {
	return slices.ContainsFunc(g, func(x *Item) bool { _, ok := r.fruit(x.Key); return ok })
}

func (r *recipe) doughGroup(g []*Item) bool {
	if r.fruitGroup(g) || len(g) > 0 && strings.Contains(r.headings[g[0]], "filling") {
		return false
	}
	return slices.ContainsFunc(g, func(x *Item) bool {
		t, ok := r.p.Get(x.Key)
		return ok && isDough(t, x.G)
	})
}

// targets finds which mixture each sentence of the method works on.
func (r *recipe) targets() {
	for i := range r.method {
		s := &r.method[i]
		s.target = r.targetOf(*s, 0, len(s.text))
	}
}

var (
	fruitWords = regexp.MustCompile(`\b(?:fruit|filling|berries|cherries|apples?|pears?|plums?|peaches|stew|they go)\b`)
	doughWords = regexp.MustCompile(
		`\b(?:topping|crumble|streusel|dough|scones?|rubble|crumbs|crunch|dry (?:things|ingredients)|pastry|crust|in dry|bag of flour)\b`,
	)
)

// targetOf is the mixture that a part of a sentence works on; empty where it names none, or both.
func (r *recipe) targetOf(s sentence, from, to int) Bowl {
	text := s.text[from:to]
	fruit, dough := fruitWords.MatchString(text), doughWords.MatchString(text)
	for _, m := range s.mentions {
		if m.Start < from || m.End > to {
			continue
		}
		if _, ok := r.fruit(m.Thing.Key); ok {
			fruit = true
		} else if m.Thing.Role == "aromatic" {
			fruit = true
		}
		g := r.gramsOf(s, m)
		if m.Thing.Role == "flour" && g == nil && !r.onlyDoughFlour() {
			continue
		}
		if m.Thing.Role != "fat" && m.Thing.Role != "pastry" && isDough(m.Thing, g) {
			dough = true
		}
	}
	switch {
	case fruit && !dough:
		return Filling
	case dough && !fruit:
		return Topping
	}
	return ""
}

// namesBoth is whether a part of a sentence names the fruit and the dough.
func (r *recipe) namesBoth(s sentence, from, to int) bool {
	fruit := slices.ContainsFunc(
		s.mentions,
		func(m parse.Mention) bool { return m.Start >= from && m.End <= to && m.Thing.Fruit },
	)
	return fruit && (doughWords.MatchString(s.text[from:to]) ||
		slices.ContainsFunc(s.mentions, func(m parse.Mention) bool {
			return m.Start >= from && m.End <= to && m.Thing.Role == "crumb"
		}))
}

// onlyDoughFlour is whether no flour of the list is a thickener.
func (r *recipe) onlyDoughFlour() bool {
	for _, x := range r.items {
		if t, ok := r.p.Get(x.Key); ok && t.Role == "flour" && x.G != nil && *x.G < 40 {
			return false
		}
	}
	return true
}

// gramsOf is what a mention weighs where it has an amount.
func (r *recipe) gramsOf(s sentence, m parse.Mention) *float64 {
	if !m.HasAmount {
		return nil
	}
	if m.Citrus != "" {
		l := r.p.ReadLine(s.text[m.Start:m.End], r.by)
		return l.G
	}
	if shareOf.MatchString(s.text[m.Start:m.End]) {
		return nil
	}
	return r.p.ReadAs(s.text[m.Start:m.End], m.Thing, r.by).G
}

// shareOf is a part of something, as in "half the fruit" and "a third of the crumbs".
var shareOf = regexp.MustCompile(`^(?:a )?(?:half|third|quarter|two thirds|three quarters|rest)(?: of)? (?:the|them)\b`)

// use is one place in the method that names an item.
type use struct {
	m      parse.Mention
	s      int
	g      *float64
	bowl   Bowl
	rest   bool // "the remaining", "the rest of", "the last of"
	but    bool // "all but 2 tbsp of"
	partOf bool
}

var (
	restOf  = regexp.MustCompile(`\b(?:remaining|rest of|last of|last|other)\b[^,;]{0,25}$`)
	allBut  = regexp.MustCompile(`\ball but (?:about )?$`)
	ofThe   = regexp.MustCompile(`\bof the\b`)
	another = regexp.MustCompile(`\banother\b|\b(?:a )?(?:little|bit) more\b`)
)

// linkMethod takes from the method what it says of the items: which bowl, which part of a divided amount, amounts that
// the list does not have.
func (r *recipe) linkMethod() {
	uses := map[string][]use{}
	var keys []string
	current := Bowl("")
	for i, s := range r.method {
		if s.optional || slices.Contains(r.lists, s.text) {
			continue
		}
		at := r.clauseTargets(s, current)
		for _, m := range s.mentions {
			key := r.keyOf(m)
			u := use{m: m, s: i, g: r.gramsOf(s, m), bowl: at(m)}
			before := s.text[:m.Start]
			u.rest = restOf.MatchString(before) || restOf.MatchString(s.text[:m.Name])
			u.but = allBut.MatchString(before)
			u.partOf = ofThe.MatchString(s.text[m.Start:m.End]) && m.HasAmount
			if _, there := uses[key]; !there {
				keys = append(keys, key)
			}
			uses[key] = append(uses[key], u)
		}
		if s.target != "" {
			current = s.target
		} else if b := at(parse.Mention{Start: len(s.text), End: len(s.text)}); b == Filling || b == Topping {
			current = b
		}
	}
	if r.doc.prose && len(r.lists) == 0 {
		return // its sentences are its lines
	}
	for _, key := range keys {
		r.settle(key, uses[key])
	}
}

// clauseTargets gives the bowl of what stands at a place of a sentence.
func (r *recipe) clauseTargets(s sentence, current Bowl) func(parse.Mention) Bowl {
	type part struct {
		from, to int
		bowl     Bowl
	}
	var parts []part
	whole := s.target
	from := 0
	marks := append(clauses.FindAllStringIndex(s.text, -1), []int{len(s.text), len(s.text)})
	was := current
	if whole != "" {
		was = whole
	}
	for _, m := range marks {
		b := r.targetOf(s, from, m[0])
		if b == "" && !r.namesBoth(s, from, m[0]) {
			b = was
		}
		if whole != "" {
			b = whole
		}
		was = b
		parts = append(parts, part{from, m[1], b})
		from = m[1]
	}
	pour := pourOver.FindStringIndex(s.text)
	poured := ""
	if pour != nil {
		for _, p := range parts {
			if pour[0] >= p.from && pour[0] < p.to {
				poured = s.text[p.from:p.to]
			}
		}
		if whole == Topping {
			poured = s.text
		}
	}
	top := overTop.FindStringIndex(s.text)
	end := finishWith.FindStringIndex(s.text)
	return func(m parse.Mention) Bowl {
		b := was
		for _, p := range parts {
			if m.Start >= p.from && m.Start < p.to {
				b = p.bowl
			}
		}
		role := m.Thing.Role
		if m.Thing.Fruit {
			return Filling
		}
		wet := role == "liquid" || role == "syrup" || role == "acid"
		switch {
		case end != nil && m.Start > end[0] && (onTop[role] || m.Thing.Key == "cheddar"):
			return Finish
		case pour != nil && wet && !doughWords.MatchString(poured) && m.Thing.Key != "egg":
			return Pour
		case pour != nil && m.Start < pour[0] && !doughWords.MatchString(poured) && inSyrup[role] && r.pouredWith(s, pour):
			return Pour
		case top != nil && wet && top[0]-m.End < 3:
			return Pour
		}
		return b
	}
}

// Roles of what is brushed or strewn on, and of what a liquid that is poured over may hold.
var (
	onTop   = map[string]bool{"sugar": true, "egg": true, "liquid": true, "nut": true}
	inSyrup = map[string]bool{"sugar": true, "spice": true, "fat": true}
)

// pouredWith is whether what is poured in a sentence holds a liquid of the recipe.
func (r *recipe) pouredWith(s sentence, pour []int) bool {
	return slices.ContainsFunc(s.mentions, func(m parse.Mention) bool {
		return m.Start < pour[0] && (m.Thing.Role == "liquid" || m.Thing.Role == "syrup")
	})
}

var (
	usesZest  = regexp.MustCompile(`\b(?:zest|rind|grate the|peel of)\b`)
	usesJuice = regexp.MustCompile(`\b(?:juice|squeeze)\b`)
)

// wholeCitrus reads in the method what of a whole fruit is used: its juice, its zest, or both.
func (r *recipe) wholeCitrus() {
	for _, x := range r.items {
		if x.citrus == "" {
			continue
		}
		count := countOf(x.Name)
		var parts []Item
		for _, part := range []struct {
			is   *regexp.Regexp
			name string
		}{{usesZest, "zest"}, {usesJuice, "juice"}} {
			current := Bowl("")
			for i, s := range r.method {
				at := r.clauseTargets(s, current)
				m := part.is.FindAllStringIndex(s.text, -1)
				if len(m) > 0 && !s.optional && (strings.Contains(s.text, x.citrus) || part.name == "zest") {
					last := m[len(m)-1]
					t, _ := r.p.Get(citrusKey(x.citrus, part.name))
					l := r.p.ReadLine(part.name+" of "+count+" "+x.citrus, r.by)
					b := at(parse.Mention{Thing: t, Start: last[0], End: last[1]})
					if b == "" {
						b = Filling
					}
					parts = append(
						parts,
						Item{Key: t.Key, Name: part.name + " of " + x.Name, G: l.G, Bowl: b, Surely: true, SaidIn: InMethod},
					)
					break
				}
				if s.target != "" {
					current = r.method[i].target
				}
			}
		}
		if len(parts) == 0 {
			x.Key = citrusKey(x.citrus, "juice")
			continue
		}
		*x = parts[0]
		if len(parts) > 1 {
			r.insertAfter(x, parts[1])
		}
	}
}

func countOf(name string) string {
	n, _, _ := strings.Cut(name, " ")
	if n == "a" || n == "an" {
		return "1"
	}
	return n
}

func citrusKey(fruit, part string) string {
	if fruit == "lime" {
		fruit = "lemon"
	}
	return fruit + "_" + part
}

// settle gives the items of one key what the method says of them.
func (r *recipe) settle(key string, uses []use) {
	var items []*Item
	for _, x := range r.items {
		if x.Key == key && x.Bowl != Greasing {
			items = append(items, x)
		}
	}
	if len(items) == 0 {
		r.methodOnly(key, uses)
		return
	}
	if len(items) > 1 {
		r.settleTwice(items, uses)
		return
	}
	x := items[0]
	if x.G == nil {
		r.fromMethod(x, uses)
		return
	}
	r.divide(x, uses)
}

// settleTwice shares the places in the method between items of one key: by amount, then by order.
func (r *recipe) settleTwice(items []*Item, uses []use) {
	taken := map[*Item]bool{}
	for _, u := range uses {
		if u.g == nil {
			continue
		}
		for _, x := range items {
			if !taken[x] && x.G != nil && math.Abs(*u.g-*x.G) < 0.04**x.G {
				r.vote(x, u)
				taken[x] = true
				break
			}
		}
	}
	for _, u := range uses {
		if u.g != nil {
			continue
		}
		for _, x := range items {
			if !taken[x] && (x.Bowl == "" || u.bowl == Pour && x.Bowl == Filling) {
				r.vote(x, u)
				taken[x] = true
				break
			}
		}
	}
}

// vote is what one place in the method says about an item's bowl.
func (r *recipe) vote(x *Item, u use) {
	if u.bowl == "" {
		return
	}
	switch {
	case x.Bowl == "":
		x.Bowl, x.Surely = u.bowl, true
	case u.bowl == Pour && x.Bowl == Filling:
		x.Bowl = Pour
	}
}

// divide parts one item's amount between the bowls of the places that name parts of it.
func (r *recipe) divide(x *Item, uses []use) {
	total := *x.G
	type share struct {
		g    float64
		bowl Bowl
	}
	var shares []share
	left, restBowl := total, Bowl("")
	for _, u := range uses {
		switch {
		case u.but && u.g != nil:
			restBowl = u.bowl
		case u.g != nil && *u.g < 0.97*total:
			shares = append(shares, share{*u.g, u.bowl})
			left -= *u.g
		case u.rest:
			restBowl = u.bowl
		}
	}
	if x.Bowl != "" && x.Surely && len(shares) == 1 && restBowl == "" {
		for _, u := range uses { // some of it stands in the method alone, in another bowl
			if u.g != nil && *u.g < 0.97*total && u.bowl == Filling && x.Bowl != Filling {
				r.methodOnly(x.Key, []use{u})
				return
			}
		}
	}
	if len(shares) == 0 || left < -0.03*total || restBowl == "" && len(shares) < 2 {
		if len(uses) > 0 {
			r.vote(x, uses[0])
		}
		if onlyFinish(uses) && (x.Bowl == Topping || x.Bowl == Base) {
			x.Bowl = Finish // under the heading of what it is brushed on
		}
		return
	}
	if restBowl != "" && left > 0.02*total {
		shares = append(shares, share{left, restBowl})
	}
	if len(shares) > 1 && math.Abs(sumOf(shares, func(s share) float64 { return s.g })-total) > 0.05*total {
		r.vote(x, uses[0])
		return
	}
	slices.SortStableFunc(shares, func(a, b share) int { return last(a.bowl) - last(b.bowl) })
	for i, s := range shares {
		g := s.g
		if i == 0 {
			x.G, x.Bowl, x.Surely = &g, s.bowl, true
			continue
		}
		r.insertAfter(x, Item{Key: x.Key, Name: x.Name, G: &g, Bowl: s.bowl, Surely: true})
	}
}

// onlyFinish is whether all that the method says of a thing is that it is brushed or strewn on.
func onlyFinish(uses []use) bool {
	return len(uses) > 0 && !slices.ContainsFunc(uses, func(u use) bool { return u.bowl != Finish })
}

// last is 1 for what goes on at the end, which is listed last.
func last(b Bowl) int {
	if b == Finish {
		return 1
	}
	return 0
}

func sumOf[T any](xs []T, of func(T) float64) (sum float64) {
	for _, x := range xs {
		sum += of(x)
	}
	return sum
}

// fromMethod gives an item without an amount those that the method names.
func (r *recipe) fromMethod(x *Item, uses []use) {
	first := true
	for _, u := range uses {
		if u.g == nil && (first || u.bowl != Finish || !another.MatchString(r.method[u.s].text[:u.m.End])) {
			if first {
				r.vote(x, u)
			}
			continue
		}
		if first {
			x.G, x.Ask, x.SaidIn = u.g, "", InMethod
			if _, ok := r.fruit(x.Key); ok {
				x.AsBought = true
			}
			x.Bowl = ""
			r.vote(x, u)
			first = false
			r.statesFrom(x, u)
			continue
		}
		y := Item{Key: x.Key, Name: x.Name, G: u.g, Bowl: u.bowl, Surely: true, SaidIn: InMethod}
		r.statesFrom(&y, u)
		r.insertAfter(x, y)
	}
}

func (r *recipe) statesFrom(x *Item, u use) {
	text := r.method[u.s].text
	t, _ := r.p.Get(x.Key)
	if t.Role == "fat" && strings.Contains(text[u.m.Start:u.m.End], "cold") {
		x.add("cold")
	} else if t.Role == "fat" && meltsIt.MatchString(text) {
		x.add("melted")
	}
}

var meltsIt = regexp.MustCompile(`\bmelt(?:ed)?\b`)

// methodOnly keeps a liquid or a sugar that only the method gives an amount of.
func (r *recipe) methodOnly(key string, uses []use) {
	for _, u := range uses {
		t, ok := r.p.Get(key)
		if !ok || u.g == nil || *u.g < 1 || t.Role != "liquid" && t.Role != "sugar" || r.doc.prose {
			continue
		}
		b := u.bowl
		if b == "" {
			b = Filling
		}
		if slices.ContainsFunc(r.method[u.s].mentions, func(m parse.Mention) bool { return m.Thing.Role == "thickener" }) {
			b = Filling
		}
		x := Item{Key: key, Name: t.Name, G: u.g, Bowl: b, SaidIn: InMethod, Surely: true}
		r.extra = append(r.extra, x)
		return
	}
}

// insertAfter puts an item behind another of the same line.
func (r *recipe) insertAfter(x *Item, y Item) {
	for i := range r.lines {
		for j := range r.lines[i].Items {
			if &r.lines[i].Items[j] == x {
				r.added = append(r.added, addition{line: i, after: j, item: &y})
				r.items = append(r.items, &y)
				return
			}
		}
	}
}

// byOrder gives a bowl to what neither a heading nor the method places: by what it is, and what stands around it.
func (r *recipe) byOrder() {
	seenFruit := false
	near := Filling
	for _, x := range r.items {
		t, known := r.p.Get(x.Key)
		_, fruit := r.fruit(x.Key)
		switch {
		case fruit:
			near, seenFruit = Filling, true
		case known && isDough(t, x.G) && t.Role != "nut":
			near = Topping
			if r.hasBase && !seenFruit {
				near = Base
			}
		}
		if x.Bowl != "" {
			if x.Bowl == Filling || x.Bowl == Topping {
				near = x.Bowl
			}
			continue
		}
		switch {
		case fruit, t.Role == "thickener", t.Role == "aromatic":
			x.Bowl = Filling
		case t.Role == "pastry" && r.hasBase:
			x.Bowl = Base
		default:
			x.Bowl = near
		}
	}
	if !r.hasBase {
		return
	}
	if r.style == "bar" {
		r.oneDough()
	}
	for _, x := range r.items { // bought pastry is the base of a style that has one
		if t, ok := r.p.Get(x.Key); ok && t.Role == "pastry" && x.Bowl == Topping && !x.Surely {
			x.Bowl = Base
		}
	}
}

// oneDough takes the only dough of bars without a heading for both: most of it is pressed below, the rest lies on top.
func (r *recipe) oneDough() {
	var dough []*Item
	for _, x := range r.items {
		switch {
		case x.Bowl == Topping, x.Bowl == BaseAndTopping, x.Bowl == Base && x.Surely:
			return
		case x.Bowl == Base:
			dough = append(dough, x)
		}
	}
	for _, x := range dough {
		x.Bowl = BaseAndTopping
	}
}

// readProseLines makes lines of the sentences that name amounts.
func (r *recipe) readProseLines() {
	paras := r.doc.method
	r.method = r.sentences()
	body := r.method
	r.doc.method = r.doc.notes
	notes := r.sentences()
	r.doc.method = paras
	for i := range notes {
		notes[i].optional = false
	}
	was := ""
	current := Filling
	for _, s := range append(append([]sentence{}, body...), notes...) {
		if s.optional {
			continue
		}
		line := Line{Text: s.raw, Kind: IngredientLine}
		target := r.targetOf(s, 0, len(s.text))
		at := r.clauseTargets(sentence{text: s.text, mentions: s.mentions, target: target}, current)
		list := listSentence.MatchString(s.text) && amountsIn(s) >= 3
		if m := kiloOfThem.FindStringSubmatchIndex(s.text); m != nil && was != "" {
			t, _ := r.p.Get(was)
			l := r.p.ReadAs(s.text[m[2]:m[3]]+" "+t.Name, t, r.by)
			x := Item{Key: was, Name: t.Name, G: l.G, Bowl: Filling, AsBought: true, Surely: true}
			line.Items = append(line.Items, x)
		}
		for _, m := range s.mentions {
			if m.Thing.Fruit {
				was = m.Thing.Key
				if m.HasAmount {
					current = Filling
				}
			}
			if m.HasAmount && m.Citrus == "" && shareOf.MatchString(s.text[m.Start:m.End]) {
				continue
			}
			if !m.HasAmount && !bracketAfter.MatchString(s.text[m.End:]) && !amountLater.MatchString(s.text[m.End:]) {
				continue
			}
			items := r.proseItems(s, m, at(m))
			if list {
				for i := range items {
					items[i].Bowl, items[i].Surely = "", false
				}
			}
			line.Items = append(line.Items, items...)
		}
		if list {
			r.lists = append(r.lists, s.text)
		}
		if target != "" {
			current = target
		}
		if len(line.Items) > 0 {
			r.lines = append(r.lines, line)
		}
	}
	for i := range r.lines {
		for j := range r.lines[i].Items {
			r.items = append(r.items, &r.lines[i].Items[j])
		}
	}
}

func amountsIn(s sentence) (n int) {
	for _, m := range s.mentions {
		if m.HasAmount {
			n++
		}
	}
	return n
}

var (
	listSentence = regexp.MustCompile(`^(?:you (?:will )?need|you'll need|ingredients:?|take|gather|for this)\b`)
	kiloOfThem   = regexp.MustCompile(
		`\b((?:a|half a|\d+(?:\.\d+)?) ?(?:kilos?|kg|g|pounds?|lb))(?: of)? (?:them|these|those)\b`,
	)
	bracketAfter = regexp.MustCompile(`^ ?\((?:about |approx\.? )?[\d.,]+ ?(?:g|kg|lb)\b[^)]*`)
	amountLater  = regexp.MustCompile(`^[^.;]{0,60}, about (\d+ ?g)\b`)
)

// proseItems are the items of one mention in running text.
func (r *recipe) proseItems(s sentence, m parse.Mention, bowl Bowl) []Item {
	text := s.text[m.Start:m.End]
	if b := bracketAfter.FindString(s.text[m.End:]); b != "" {
		text += b + ")"
	}
	if a := amountLater.FindStringSubmatch(s.text[m.End:]); a != nil {
		text = a[1] + " " + s.text[m.Name:m.End]
	}
	items := r.pieceItems(text)
	for i := range items {
		x := &items[i]
		if x.Key == "" || len(items) == 1 && m.Citrus == "" && len(x.Keys) == 0 {
			t := m.Thing
			x.Key, x.Ask = t.Key, ""
			if l := r.p.ReadAs(text, t, r.by); l.G != nil {
				x.G = l.G
			}
		}
		x.Bowl, x.Surely = bowl, bowl != ""
		if x.Bowl == "" {
			x.Bowl = Filling
		}
		if bowl == Pour {
			if t, _ := r.p.Get(x.Key); t.Role != "liquid" && t.Role != "syrup" && t.Role != "acid" {
				x.Bowl = Filling
			}
		}
	}
	return items
}
