package reader

import (
	"math"
	"regexp"
	"slices"
	"strings"

	"mabbin/core/parse"
)

// use is one place in the method that names an item.
type use struct {
	m    parse.Mention
	s    int
	g    *float64
	bowl Bowl
	rest bool // "the remaining", "the rest of", "the last of"
	but  bool // "all but 2 tbsp of"
}

var (
	restOf  = regexp.MustCompile(`\b(?:remaining|rest of|last of|last|other)\b[^,;]{0,25}$`)
	allBut  = regexp.MustCompile(`\ball but (?:about )?$`)
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
			if r.isFruit(x.Key) {
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
