package reader

import (
	"regexp"
	"slices"
	"strconv"
	"strings"

	"mabbin/core/larder"
	"mabbin/core/parse"
)

// weighedWhole is whether a fruit's amount is as bought: a weight or a count is, unless it is a cup of what is cut
// already, frozen, or said to be stoned.
func weighedWhole(text, key string, l parse.Line) bool {
	switch {
	case l.AsBought:
		return true
	case strings.Contains(text, "frozen") && !orFrozen.MatchString(text), strings.Contains(text, "prepared"),
		strings.Contains(text, "weigh"):
		return false
	}
	name := nameOf(text)
	if strings.Contains(name, "pitted") || strings.Contains(name, "stoned") || strings.Contains(name, "peeled") {
		return false
	}
	if l.Unit == "cup" || cupsFirst.MatchString(text) {
		f, _ := larder.Fruits.Get(key)
		return !preparationAfter.MatchString(text) && f.YieldPeeled >= 0.9
	}
	return true
}

var cupsFirst = regexp.MustCompile(`^\S+(?: \S+)? cups?\b`)

var preparationAfter = regexp.MustCompile(`,.*\b(?:sliced|chopped|diced|cubed|cut)\b`)

// resolve settles what a line is where parse asks: a fruit of several kinds, a mixture, an amount that does not matter.
func (r *recipe) resolve(x *Item, text string, l parse.Line) {
	if len(l.Also) > 0 && strings.Contains(text, "mixed") {
		x.Ask = AskKind
		total := *l.G
		x.Keys = []string{x.Key}
		for _, a := range l.Also {
			total += a.G
			x.Keys = append(x.Keys, a.Ingredient)
		}
		x.G = &total
		return
	}
	for _, q := range l.Questions {
		switch q.Code {
		case parse.AskThing, parse.AskWhich:
			r.unknown(x, text, q)
			return
		case parse.AskAmount, parse.AskPiece, parse.AskContainer, parse.AskDensity, parse.AskUnit:
			if x.Key != "" && x.G == nil {
				x.Ask = AskAmount
			}
		}
	}
	if name := nameOf(text); x.Key == "apple_firm" && sortOnly.MatchString(name) {
		x.Ask = AskKind
		x.Keys = []string{"apple_firm", "apple_sharp", "apple_watery", "apple_soft"}
	}
	if x.Key == "" {
		x.Ask = AskUnknown
		return
	}
	if tins.MatchString(text) && (x.G == nil || eachTin.MatchString(text)) {
		r.readTins(x, text)
	} else if tins.MatchString(text) && strings.Contains(text, "drained") && x.G != nil {
		if r.isFruit(x.Key) {
			x.Ask = AskAmount
		}
	}
	if x.Ask == AskAmount {
		t, _ := r.p.Get(x.Key)
		if !matters(t) || smallUnit.MatchString(text) {
			x.Ask = ""
		}
	}
}

var sortOnly = regexp.MustCompile(
	`^(?:about )?[\d½ -]+(?:kg |g |lb |pounds? (?:of )?)?(?:small |medium |large |medium-sized )?apples?$`,
)

var eachTin = regexp.MustCompile(`^(\d+) (?:tins?|cans?)\b.*?\((?:about )?(\d+) ?g each`)

// readTins takes what is known of tins whose drained weight is not stated: about 58 % of what is in them.
func (r *recipe) readTins(x *Item, text string) {
	m := eachTin.FindStringSubmatch(text)
	if m == nil {
		return
	}
	n, _ := strconv.ParseFloat(m[1], 64)
	g, _ := strconv.ParseFloat(m[2], 64)
	g *= n * parse.DrainedShare
	x.G, x.Ask = &g, AskAmount
}

// matters is whether a dessert can't be judged without the amount of a thing.
func matters(t parse.Thing) bool {
	return slices.Contains(
		[]string{"fruit", "flour", "fat", "sugar", "syrup", "oat", "nut", "crumb", "pastry", "egg", "liquid", "aromatic"},
		t.Role,
	)
}

// unknown settles a name that parse does not know for sure.
func (r *recipe) unknown(x *Item, text string, q parse.Question) {
	if q.Sort != "" && len(q.SuggestKey) > 0 {
		x.Keys, x.Ask = q.SuggestKey, AskKind
		if t, ok := r.p.Get(q.SuggestKey[0]); ok {
			l := r.p.ReadAs(text, t, r.by)
			x.Key, x.G, x.AsBought, x.Line = t.Key, l.G, true, l
		}
		return
	}
	if tins.MatchString(text) {
		if ms := r.p.Mentions(nameOf(text)); len(ms) == 1 {
			x.Key = ms[0].Thing.Key
			r.readTins(x, text)
			return
		}
	}
	if wholeSpice.MatchString(text) {
		if ms := r.p.Mentions(text); len(ms) > 0 {
			x.Key, x.G, x.Ask = ms[0].Thing.Key, nil, ""
			return
		}
	}
	if m := wholeCitrus.FindStringSubmatch(strings.TrimSpace(text)); m != nil {
		x.Name, x.Ask, x.citrus = text, AskAmount, m[1]
		return
	}
	if x.Key == "" {
		x.Ask = AskUnknown
		if x.G == nil {
			rest, _, ok := parse.StartsWithAmount(text)
			if ok {
				x.Name = strings.TrimSpace(nameOf(rest))
			}
			return
		}
		x.Name = strings.TrimSpace(nameOf(afterAmount(text)))
	}
}
