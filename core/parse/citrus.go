package parse

import (
	"regexp"
	"strings"

	"mabbin/core/message"
)

// citrus has what the peel and the juice of a citrus fruit are in the tables. A lime's juice is near enough a lemon's,
// and there is less of it.
var citrus = map[string]struct {
	juice, zest string
	share       float64 // of the table's piece
	taken       message.Message
}{
	"lemon": {
		"lemon_juice",
		"lemon_zest",
		1,
		message.Message{},
	},
	"lime": {"lemon_juice", "lemon_zest", 0.6, message.New("counted as lemon; one lime = 0.6 lemon")},
	"orange": {
		"orange_juice",
		"orange_zest",
		1,
		message.Message{},
	},
	"clementine": {"orange_juice", "orange_zest", 0.5, message.New("counted as orange; one of these = half an orange")},
}

var (
	// juiceOf matches "juice of", "finely grated zest and juice of", "zest of".
	juiceOf = regexp.MustCompile(
		`^(?:the )?(?:(?:finely |freshly )?(?:grated |squeezed )?)(` +
			`(?:juice|zest|rind|peel|zest and juice|juice and zest|zest \+ juice|juice \+ zest|zest & juice|juice & zest|` +
			`rind and juice)) (?:of|from) (.+)$`,
	)
	// ofThem matches the fruit after its count.
	ofThem = regexp.MustCompile(
		`^(?:unwaxed |organic |fresh |small |medium |large )*(lemon|lime|orange|clementine)s?\b(.*)$`,
	)
)

// citrus reads the juice or the zest of so many, and "1 lemon, zested". It is false for any other line.
func (r *reading) citrus(line string) bool {
	if !strings.Contains(line, "lemon") && !strings.Contains(line, "lime") && !strings.Contains(line, "orange") &&
		!strings.Contains(line, "clementine") {
		return false
	}
	what := ""
	if m := juiceOf.FindStringSubmatch(line); m != nil {
		what, line = m[1], m[2]
	}
	s := &scanner{rest: []rune(line)}
	terms := s.amounts()
	m := ofThem.FindStringSubmatch(strings.TrimSpace(string(s.rest)))
	if m == nil || len(terms) != 1 || terms[0].unit != "" && what != "" || terms[0].unit != "" {
		return false
	}
	rest := m[2]
	if what == "" {
		what = rest
	}
	c := citrus[m[1]]
	juice := strings.Contains(what, "juice")
	zest := strings.Contains(what, "zest") || strings.Contains(what, "rind") || strings.Contains(what, "peel")
	if !juice && !zest {
		if strings.Trim(rest, " ,") == "" {
			r.Name = m[1]
			r.ask(
				AskWhich,
				message.New(
					"The juice, the zest, or both? Write \"{juice}\" or \"{zest}\".",
					message.Text("juice of 1 "+m[1]),
					message.Text("zest of 1 "+m[1]),
				),
				nil,
				c.juice,
				c.zest,
			)
			return true
		}
		return false
	}
	n := (terms[0].low + terms[0].high) / 2
	first := c.juice
	if !juice {
		first = c.zest
	}
	t, ok := r.p.Get(first)
	each := t.PieceG[""] * c.share
	if !ok || each == 0 {
		return false
	}
	g := n * each
	r.Ingredient, r.Name, r.G = &t.Key, t.Name, &g
	if !c.taken.IsZero() {
		r.say(c.taken)
	}
	r.say(from(each, m[1]))
	if juice && zest {
		if z, ok := r.p.Get(c.zest); ok {
			each := z.PieceG[""] * c.share
			r.Also = append(r.Also, Also{z.Key, z.Name, n * each, from(each, m[1])})
		}
	}
	return true
}

func from(g float64, fruit string) message.Message {
	return message.New("{much} from one {fruit}", message.Grams(g), message.Word(fruit))
}
