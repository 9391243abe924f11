package reader

import (
	"regexp"
	"slices"
	"strings"

	"mabbin/core/units"
)

// when is a time in a sentence, in minutes, and where it stands.
type when struct {
	at, end   int
	low, high float64
}

const minuteNumber = `(\d+ \d/\d|\d+(?:\.\d+)?[½¼¾]?|[½¼¾])`

var (
	duration = regexp.MustCompile(
		minuteNumber + `(?: ?(?:-|to|or) ?` + minuteNumber + `)? ?(mins?|minutes?|hrs?|hours?)\b(?:(?: and)? (\d+) ?(?:mins?|minutes?)\b)?`,
	)
	every = regexp.MustCompile(`\bevery $`)
)

func timesIn(t string) (out []when) {
	for _, m := range duration.FindAllStringSubmatchIndex(t, -1) {
		if every.MatchString(t[:m[0]]) {
			continue
		}
		w := when{at: m[0], end: m[1], low: figure(group(t, m, 1))}
		w.high = w.low
		if h := group(t, m, 2); h != "" {
			w.high = figure(h)
		}
		if strings.HasPrefix(group(t, m, 3), "h") {
			w.low, w.high = 60*w.low, 60*w.high
			extra := figure(group(t, m, 4))
			w.low, w.high = w.low+extra, w.high+extra
		}
		out = append(out, w)
	}
	return out
}

// heatAt is an oven's heat in a sentence, and where it stands.
type heatAt struct {
	at, end int
	Heat
}

var (
	gasMark = regexp.MustCompile(`\bgas (?:mark )?(\d(?:/\d)?|[½¼])`)
	degrees = regexp.MustCompile(
		`\b(fan[- ]?(?:forced|assisted|oven)?:? ?(?:at )?)?(\d{2,3}) ?(?:(°|deg(?:rees?)?\b) ?)?(c\b|f\b)?( ?(?:\(fan\)|fan\b|hot air(?: \(fan\))?|convection))?`,
	)
	bareHeat = regexp.MustCompile(`(?:\b(?:at|to|in at|oven on,?|oven)\s*$|^$|(?:^|[.;,] )$)`)
	joins    = regexp.MustCompile(`^[ ,/();]*(?:or |and |in a |for |the )?[ (/]*$`)
	otherFan = regexp.MustCompile(`\bfan oven\b.*\b(?:isn't|not)\b.*\b(\d{3})\b`)
)

// heatsIn finds the oven's heats in a sentence. What stands next to each other, as in "190C (170C fan)/gas 5", is one.
func (r *recipe) heatsIn(t string) (out []heatAt) {
	add := func(at, end int, h Heat) {
		if n := len(out); n > 0 && joins.MatchString(t[out[n-1].end:at]) {
			out[n-1].end = end
			mergeHeat(&out[n-1].Heat, h)
			return
		}
		out = append(out, heatAt{at, end, h})
	}
	type found struct {
		at, end int
		h       Heat
	}
	var all []found
	for _, m := range gasMark.FindAllStringSubmatchIndex(t, -1) {
		g := figure(group(t, m, 1))
		all = append(all, found{m[0], m[1], Heat{Gas: g}})
	}
	for _, m := range degrees.FindAllStringSubmatchIndex(t, -1) {
		v := figure(group(t, m, 2))
		unit, sign := group(t, m, 4), group(t, m, 3)
		before, after := group(t, m, 1), group(t, m, 5)
		fan := before != "" || after != ""
		if unit == "" && sign == "" && !fan {
			if !bareHeat.MatchString(strings.TrimRight(t[:m[0]], " ")+" ") && !bareHeat.MatchString(t[:m[0]]) || v < 140 ||
				v > 475 ||
				notHeat.MatchString(t[m[1]:]) {
				continue
			}
		}
		if v < 60 || v > 500 {
			continue
		}
		f := unit == "f" || unit == "" && (v > 260 || !r.metric && v > 250)
		h := Heat{}
		switch {
		case f:
			c := round((v - 32) / 1.8)
			h.F = v
			h.C = &c
		case fan:
			h.FanC = &v
		default:
			h.C = &v
		}
		all = append(all, found{m[0], m[1], h})
	}
	slices.SortStableFunc(all, func(a, b found) int { return a.at - b.at })
	for _, x := range all {
		add(x.at, x.end, x.h)
	}
	if m := otherFan.FindStringSubmatch(t); m != nil && len(out) > 0 {
		v := figure(m[1])
		h := &out[0].Heat
		if h.FanC == nil {
			h.FanC = h.C
		}
		h.C = &v
		out = out[:1]
	}
	for i := range out {
		out[i].settle()
	}
	return out
}

var notHeat = regexp.MustCompile(`^ ?(?:g\b|kg|ml|cm|mm|l\b|x|people|%|calories)`)

// mergeHeat adds what a second notation says: a metric figure goes before one in Fahrenheit.
func mergeHeat(h *Heat, other Heat) {
	if other.C != nil && (h.C == nil || h.F > 0 && other.F == 0) {
		h.C = other.C
	}
	if other.FanC != nil && h.FanC == nil {
		h.FanC = other.FanC
	}
	if other.Gas > 0 {
		h.Gas = other.Gas
	}
	if other.F > 0 {
		h.F = other.F
	}
}

// settle gives a heat its C where only a gas mark or a fan oven's is stated.
func (h *Heat) settle() {
	if h.C == nil && h.FanC != nil && h.Gas == 0 {
		h.C, h.Fan, h.FanC = h.FanC, true, nil
	}
	if h.C == nil && h.Gas > 0 {
		for _, m := range units.GasMarks() {
			if m.Mark == h.Gas {
				c := m.C
				h.C = &c
			}
		}
	}
}
