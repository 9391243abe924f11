package reader

import (
	"regexp"
	"slices"
	"strings"
)

var untilDone = regexp.MustCompile(`\b(?:til|till|until)\b`)

// bakesUntil is whether a sentence bakes without a time: "180 fan til it's brown".
func (k *reading) bakesUntil(s sentence) bool {
	if len(s.times) > 0 || !untilDone.MatchString(s.text) {
		return false
	}
	return len(s.heats) > 0 || bakeVerb.MatchString(s.text)
}

// bake reads a time in the oven: of a base alone, of fruit in a pot, of the filling alone, or of the dessert.
func (k *reading) bake(w when) {
	t := k.s.text
	switch {
	case shelfLow.MatchString(t):
		k.shelf = "low"
	case shelfHigh.MatchString(t):
		k.shelf = "high"
	case shelfMid.MatchString(t):
		k.shelf = "middle"
	}
	if k.isParBake(w) {
		weights := weightWord.MatchString(t)
		if n := len(k.steps); n > 0 && k.steps[n-1].Kind == ParBake {
			p := &k.steps[n-1]
			p.Minutes = []float64{p.Minutes[0] + w.low, p.Minutes[1] + w.high}
			k.shelf = ""
			return
		}
		k.emit(
			Step{Kind: ParBake, Of: Things{Word: "base"}, Heat: k.heat, Minutes: w.minutes(), Weights: weights, Shelf: k.shelf},
		)
		k.shelf = ""
		return
	}
	if k.inPot() {
		k.emit(Step{
			Kind: CookFruit, Of: Things{Keys: k.fruitsNear()}, Minutes: w.minutes(), Where: "oven",
			Covered: k.cover == "lid", With: k.withNear(), Heat: k.heat,
		})
		k.cover, k.cooked = "none", true
		return
	}
	s := Step{Kind: Bake, Heat: k.heat, Minutes: w.minutes(), Cover: k.cover, Shelf: k.shelf, Sign: k.signs(w)}
	if k.coals != nil {
		s.Coals, s.Cover = k.coals, "lid"
	}
	if k.topped > k.i && !k.hasBase && !k.traits.Layered && !k.traits.CrustPushedUnder {
		s.Of = Things{Word: "filling"}
		k.filling = true
	} else if k.topped > k.i && k.hasBase && k.baked == 0 && !k.traits.Layered {
		k.filling = true
	}
	if k.filling && k.baked > 0 && k.topped >= 0 && k.topped <= k.i {
		k.filling = false
		if !slices.ContainsFunc(k.steps, func(s Step) bool { return s.Kind == AddLate }) {
			k.emit(Step{Kind: AddLate, Of: Things{Word: "topping"}, At: "between stages"})
		}
	}
	if m := firstFoil.FindStringSubmatch(t); m != nil && w.low > figure(m[1]) {
		first := s
		n := figure(m[1])
		first.Minutes, first.Cover, first.Sign = []float64{n, n}, "foil", nil
		k.emit(first)
		s.Minutes, s.Cover = []float64{w.low - n, w.high - n}, "none"
		k.baked++
		k.emit(s)
		k.baked++
		k.cover = "none"
		return
	}
	if inAll.MatchString(t) {
		times := k.s.times
		switch {
		case len(times) > 1 && w.at == times[0].at:
			return // the whole; its parts follow
		case len(times) == 2:
			s.Sign = nil
			k.emit(s)
			rest := s
			rest.Cover, rest.Sign = "none", k.signs(w)
			rest.Minutes = []float64{times[0].low - w.low, times[0].high - w.high}
			k.emit(rest)
			k.baked += 2
			return
		}
	}
	k.emit(s)
	k.baked++
}

// before is the sentence before this one, with a blank behind it; empty before the first.
func (k *reading) before() string {
	if k.i == 0 {
		return ""
	}
	return k.method[k.i-1].text + " "
}

// coalsIn are the coals under a camp oven and on its lid; nil without any.
func coalsIn(method []sentence) map[string]float64 {
	for _, s := range method {
		if m := coalWord.FindStringSubmatch(s.text); m != nil {
			return map[string]float64{"under": figure(m[1]), "lid": figure(m[2])}
		}
	}
	return nil
}

// isParBake is whether a bake is of the base alone: the fruit is not in yet.
func (k *reading) isParBake(w when) bool {
	if !k.hasBase || k.fruitIn || k.baked > 0 {
		return false
	}
	if k.i == k.last[0] && w.at == k.last[1] || k.topped >= 0 && k.topped < k.i {
		return false
	}
	near := k.before() + k.s.text
	return baseWord.MatchString(near) || weightWord.MatchString(near) || pressed.MatchString(near)
}

var pressed = regexp.MustCompile(`\b(?:press|pat|prick|spread)(?:ed)?\b`)

// inPot is whether what is baked is fruit in a pot, put into the dish of the dessert later.
func (k *reading) inPot() bool {
	near := k.before() + k.s.text
	if !potWord.MatchString(near) || k.hasBase {
		return false
	}
	for i := k.i + 1; i < min(len(k.method), k.i+3); i++ {
		if transfers.MatchString(k.method[i].text) && k.topped > i {
			return true
		}
	}
	return false
}

// signs are what the text looks for at the end of a stage.
func (k *reading) signs(w when) []string {
	t := k.s.text
	from := 0
	if ts := k.s.times; len(ts) > 1 {
		for i, x := range ts {
			if x.at == w.at && i > 0 {
				from = ts[i-1].end
			}
		}
		for i, x := range ts {
			if x.at == w.at && i+1 < len(ts) && k.act(k.s, ts[i+1]) == "bake" && !inAll.MatchString(t) {
				t = t[:ts[i+1].at]
			}
		}
	}
	t = t[from:]
	if from == 0 { // what is done before the dish goes in is no sign
		if m := inTheOven.FindStringIndex(t); m != nil {
			t = t[m[0]:]
		}
	}
	t = bracketed.ReplaceAllString(t, "")
	if before, _, ok := strings.Cut(t, " if "); ok {
		t = before
	}
	for i := k.i + 1; i < min(len(k.method), k.i+4); i++ {
		if doneWhen.MatchString(k.method[i].text) {
			t += " " + k.method[i].text
		}
	}
	var out []string
	for _, x := range []struct {
		sign string
		re   *regexp.Regexp
	}{{"golden", golden}, {"bubbling", bubbling}, {"skewer", skewer}, {"tender", tender}, {"set", setSign}} {
		if x.re.MatchString(t) {
			out = append(out, x.sign)
		}
	}
	return out
}

var bracketed = regexp.MustCompile(`\([^)]*\)`)

// wash reads a brush with egg, milk or cream.
func (k *reading) wash() {
	var of []string
	for _, m := range k.s.mentions {
		if m.Start > strings.Index(k.s.text, "brush") &&
			(m.Thing.Role == "egg" || m.Thing.Role == "liquid" || m.Thing.Role == "fat") &&
			m.Thing.Key != "water" {
			of = append(of, m.Thing.Key)
		}
	}
	if len(of) > 0 {
		k.emit(Step{Kind: Wash, Of: Things{Keys: of[:1]}})
	}
}

// sprinkle reads what goes on between two stages.
func (k *reading) sprinkle() {
	var of []string
	for _, m := range k.s.mentions {
		if m.Thing.Role == "sugar" || m.Thing.Role == "nut" {
			of = append(of, k.keyOf(m))
		}
	}
	if len(of) > 0 && !k.filling && !toppingWord.MatchString(k.s.text) {
		k.emit(Step{Kind: AddLate, Of: Things{Keys: of}, At: "between stages"})
	}
}
