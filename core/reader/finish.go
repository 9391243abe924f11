package reader

import (
	"regexp"
	"slices"
	"strings"

	"mabbin/core/message"
	"mabbin/core/parse"
	"mabbin/core/units"
)

// addition is an item that the method adds to a line.
type addition struct {
	line, after int
	item        *Item
}

// methodStates takes from the method how each fruit and fat goes in: peeled, cut, melted, cold.
func (r *recipe) methodStates() {
	last := []*Item{}
	for _, s := range r.method {
		if s.optional {
			continue
		}
		var now []*Item
		for _, m := range s.mentions {
			key := r.keyOf(m)
			for _, x := range r.items {
				if x.Key == key && !slices.Contains(now, x) {
					now = append(now, x)
				}
			}
		}
		fruits := slices.DeleteFunc(slices.Clone(now), func(x *Item) bool { return !r.isFruit(x.Key) })
		if len(fruits) == 0 && refersBack.MatchString(s.text) {
			fruits = last
		}
		if len(fruits) > 0 {
			last = fruits
		}
		r.cutsIn(s, fruits)
		for _, x := range now {
			t, _ := r.p.Get(x.Key)
			if t.Role == "fat" && x.Bowl != Greasing && !x.has("cold") && !x.has("soft") {
				r.meltsIn(s, x)
			}
		}
	}
}

var (
	meltVerb = regexp.MustCompile(
		`\bmelt(?:ed)?\b|\buntil the butter has melted\b|\bto the boil\b|\b(?:sweat|fry|soften)\b[^.]*\bin\b[^.]*\bbutter\b`,
	)
	meltWith = regexp.MustCompile(
		`\bmelt(?:ed)? (?:the )?(?:\w+ ){0,5}?butter\b|\bwarm\b[^.]*\bbutter\b|\bbring the\b[^.]*\bbutter\b|\b(?:sweat)\b[^.]*\bbutter\b`,
	)
)

func (r *recipe) meltsIn(s sentence, x *Item) {
	if x.Key != "butter" && !meltVerb.MatchString(s.text) || x.Key == "butter" && !meltWith.MatchString(s.text) {
		return
	}
	for _, m := range s.mentions { // which butter: the one of that amount, or the one of that bowl
		if m.Thing.Key != x.Key {
			continue
		}
		if g := r.gramsOf(s, m); g != nil && x.G != nil && (*g > *x.G*1.04 || *g < *x.G*0.96) {
			return
		}
	}
	count := 0
	for _, y := range r.items {
		if y.Key == x.Key && y.Bowl != Greasing {
			count++
		}
	}
	if count > 1 && x.G != nil &&
		!slices.ContainsFunc(s.mentions, func(m parse.Mention) bool { return m.Thing.Key == x.Key && m.HasAmount }) {
		// without an amount: the butter of the heading that the sentence's other things are from
		same := 0
		for _, m := range s.mentions {
			for _, y := range r.items {
				if y != x && y.Key == r.keyOf(m) && r.headings[y] == r.headings[x] {
					same++
				}
			}
		}
		if same == 0 {
			return
		}
	}
	x.add("melted")
}

// cutsIn reads what a sentence does to fruits: which are peeled, and into what each is cut.
func (r *recipe) cutsIn(s sentence, fruits []*Item) {
	if len(fruits) == 0 {
		return
	}
	crust := crustCut.MatchString(s.text)
	for _, x := range fruits {
		t := s.text
		if len(fruits) > 1 { // the part that begins with this fruit
			for i, m := range s.mentions {
				if r.keyOf(m) == x.Key {
					end := len(t)
					for _, n := range s.mentions[i+1:] {
						if r.isFruit(n.Thing.Key) && n.Thing.Key != m.Thing.Key {
							end = n.Start
							break
						}
					}
					t = t[m.Start:end]
					break
				}
			}
		}
		switch {
		case notPeeled.MatchString(s.text) && !x.has("peeled"):
			if x.Key == r.firstOf(s) {
				x.add("unpeeled")
			}
		case peeled.MatchString(s.text) && !x.has("unpeeled") && !x.has("frozen"):
			if len(fruits) == 1 || strings.Contains(t, "peel") || x.Key == r.firstOf(s) {
				x.add("peeled")
			}
		}
		if stoneVerb.MatchString(t) {
			x.add("pitted")
		}
		if crust {
			continue
		}
		if m := cutSize.FindStringIndex(
			t,
		); m != nil && cutWord.MatchString(t) && !deepDish.MatchString(t) &&
			!sizedDish(t, m) {
			x.cut(cutIn(t))
		}
		x.cut(cutInWords(t))
	}
}

// sizedDish is whether a size is a dish's.
func sizedDish(t string, m []int) bool {
	after := t[m[1]:min(len(t), m[1]+30)]
	return sizeOfDish.MatchString(after) || strings.Contains(t[max(0, m[0]-4):m[0]], "x")
}

func (r *recipe) firstOf(s sentence) string {
	for _, m := range s.mentions {
		key := r.keyOf(m)
		if r.isFruit(key) {
			return key
		}
	}
	return ""
}

// finish puts the reading together.
func (r *recipe) finish() *Reading {
	for i := len(r.added) - 1; i >= 0; i-- {
		a := r.added[i]
		at := a.after + 1
		for at < len(r.lines[a.line].Items) && r.lines[a.line].Items[at].SaidIn == InMethod && i > 0 {
			break
		}
		r.lines[a.line].Items = slices.Insert(r.lines[a.line].Items, at, *a.item)
	}
	out := &Reading{
		Title: r.doc.title, Style: r.style, Savoury: r.isSavoury(), Lines: r.lines, MethodItems: r.extra,
		Steps: r.steps, Method: []Sentence{}, Notes: r.doc.notes, Ask: []string{},
	}
	for _, s := range r.method {
		out.Method = append(
			out.Method,
			Sentence{Text: s.raw, Paragraph: s.para, Steps: s.steps, Bowl: s.target, Skipped: s.optional},
		)
	}
	if out.Notes == nil {
		out.Notes = []string{}
	}
	if out.Steps == nil {
		out.Steps = []Step{}
	}
	out.Measures = r.by
	if cup, why := parse.WhoseCup(r.doc.all); cup != "" {
		out.Cup, out.CupWhy = cup, why
	} else if r.by.Cup == units.MetricCup && strings.Contains(r.doc.all, "250") && inCups.MatchString(r.doc.all) {
		out.Cup, out.CupWhy = r.by.Cup, message.New("Cups are read as metric cups, because the recipe says 250 ml")
	}
	r.readYield(out)
	if out.Yield == "" {
		out.Yield = r.doc.yield
	}
	out.Dish = r.findDish()
	for _, s := range r.method {
		if m := thirds.FindStringSubmatch(
			s.text,
		); m != nil &&
			slices.ContainsFunc(r.items, func(x *Item) bool { return x.Bowl == BaseAndTopping }) {
			share := map[string]float64{
				"two-thirds": 2.0 / 3, "two thirds": 2.0 / 3, "2/3": 2.0 / 3, "half": 0.5, "three-quarters": 0.75,
				"three quarters": 0.75,
			}[m[1]+m[2]]
			out.Split = map[string]float64{"base": share, "topping": 1 - share}
		}
	}
	r.asks(out)
	return out
}

// asks lists what must be answered before the dessert can be judged.
func (r *recipe) asks(out *Reading) {
	if out.Dish == nil {
		out.Ask = append(out.Ask, "dish")
	}
	for _, l := range out.Lines {
		for _, x := range l.Items {
			name := strings.TrimSpace(x.Name)
			switch x.Ask {
			case AskKind:
				out.Ask = append(out.Ask, "kind of "+sortName(name))
			case AskAmount:
				switch {
				case x.has("drained"):
					out.Ask = append(out.Ask, "drained weight of the tins")
				case x.Line.Unit == "" && hasAmount.MatchString(name):
					out.Ask = append(out.Ask, "weight of the "+strings.TrimSpace(nameOf(afterAmount(name))))
				default:
					out.Ask = append(out.Ask, "amount of "+strings.TrimSpace(nameOf(name)))
				}
			case AskUnknown:
				out.Ask = append(out.Ask, name)
			}
		}
	}
	heat, minutes := false, false
	for _, s := range out.Steps {
		if s.Kind == Bake {
			heat = heat || s.C != nil
			minutes = minutes || len(s.Minutes) > 0
		}
	}
	if !heat {
		out.Ask = append(out.Ask, "oven")
	}
	if !minutes {
		out.Ask = append(out.Ask, "minutes")
	}
	if out.Style == "" {
		out.Ask = append(out.Ask, "style")
	}
}

func sortName(name string) string {
	name = nameOf(afterAmount(lower(name)))
	switch {
	case strings.Contains(name, "apple"):
		return "apple"
	case strings.Contains(name, "berr"):
		return "berries"
	}
	return strings.TrimSpace(name)
}

var (
	refersBack = regexp.MustCompile(`\b(?:them|it|into)\b`)
	stoneVerb  = regexp.MustCompile(`\b(?:pit|stone)\b`)
	sizeOfDish = regexp.MustCompile(`^[^,.;]*\b(?:dish|tin|pan|skillet|long|across|x )`)
)
