package reader

import (
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
	return slices.ContainsFunc(g, func(x *Item) bool { return r.isFruit(x.Key) })
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

// byOrder gives a bowl to what neither a heading nor the method places: by what it is, and what stands around it.
func (r *recipe) byOrder() {
	seenFruit := false
	near := Filling
	for _, x := range r.items {
		t, known := r.p.Get(x.Key)
		fruit := r.isFruit(x.Key)
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
			x.Bowl, x.certain = Filling, true
		case t.Role == "pastry" && r.hasBase:
			x.Bowl, x.certain = Base, true
		default:
			x.Bowl, x.certain = near, known && isDough(t, x.G)
		}
	}
	if !r.hasBase {
		return
	}
	if r.traits.OneDough {
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
