package reader

import (
	"regexp"
	"slices"

	"mabbin/core/parse"
)

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
		if r.isFruit(m.Thing.Key) {
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
