package outcome

import (
	"slices"

	"mabbin/core/bake"
	"mabbin/core/message"
)

// State is how a bake came out, on the whole.
type State string

// The states.
const (
	Right     State = "right"
	Wrong     State = "wrong"
	NotLogged State = "untold" // nothing was said of it
)

// Verdict is how a bake came out in a line, and what is tried first another time.
type Verdict struct {
	State    State           `json:"state"`
	Summary  message.Message `json:"summary"`
	Reported message.Message `json:"reported,omitzero"` // all of the first answers, where there are any
	Next     message.Message `json:"next,omitzero"`     // none where nothing is wrong
}

// Complaint is something that was reported and no baker wants.
type Complaint struct {
	Of   string // juice, fruit, top, base, boiled_over or sweetness
	Text message.Message
	Next message.Message // what is tried first another time: the trade's usual answer
}

// words are the complaints that are a word of a scale.
var words = map[string]map[string]Complaint{
	"fruit": {
		"hard": {Text: message.New("fruit hard"), Next: message.New("cut it smaller, or bake it longer under a cover")},
		"mush": {
			Text: message.New("fruit mushy"),
			Next: message.New("use firmer fruit or larger pieces, or bake it shorter"),
		},
	},
	"top": {
		"pale":  {Text: message.New("topping pale"), Next: message.New("bake one shelf higher, or the last minutes hotter")},
		"dark":  {Text: message.New("topping dark"), Next: message.New("put foil on earlier")},
		"burnt": {Text: message.New("topping burnt"), Next: message.New("cover it from the start, and set the oven lower")},
	},
	"base": {
		"raw":   {Text: message.New("base raw"), Next: message.New("par-bake it, or bake on the low shelf")},
		"soft":  {Text: message.New("base soft"), Next: message.New("par-bake it, or put crumbs under the fruit")},
		"burnt": {Text: message.New("base burnt"), Next: message.New("bake one shelf higher, or par-bake it shorter")},
	},
	"sweetness": {
		"sharp": {Text: message.New("too sharp"), Next: message.New("make it one step sweeter")},
		"sweet": {Text: message.New("too sweet"), Next: message.New("make it one step less sweet, or add a little lemon")},
	},
}

// Complaints are what was reported that no baker wants, the juice first; band is how it was meant to stand when cold.
func (t Details) Complaints(band string, w bake.Words) []Complaint {
	out := []Complaint{}
	meant, juice := slices.Index(bake.JuiceWords, band), slices.Index(bake.JuiceWords, w.Juice)
	switch {
	case juice < 0 || juice == meant:
	case juice < meant && t.Warm():
		out = append(out, Complaint{
			"juice",
			message.New("thinner than planned, and still warm"),
			message.New("let it cool before cutting: juice thickens until it is cold"),
		})
	case juice < meant:
		out = append(out, Complaint{
			"juice",
			message.New("thinner than planned"),
			message.New("bake it until the middle bubbles; if it was, choose one step thicker"),
		})
	default:
		out = append(out, Complaint{"juice", message.New("thicker than planned"), message.New("choose one step thinner")})
	}
	for _, x := range [][2]string{{"fruit", w.Fruit}, {"top", w.Top}, {"base", t.Base}} {
		if c, is := words[x[0]][x[1]]; is {
			c.Of = x[0]
			out = append(out, c)
		}
	}
	if w.BoiledOver != nil && *w.BoiledOver {
		out = append(out, Complaint{
			"boiled_over", message.New("boiled over"), message.New("use less fruit or a deeper dish, and put a tray under it"),
		})
	}
	if c, is := words["sweetness"][t.Sweetness]; is {
		c.Of = "sweetness"
		out = append(out, c)
	}
	return out
}

// Warm says whether the juice was judged before it had cooled.
func (t Details) Warm() bool { return t.Cooled != nil && !*t.Cooled }

// Verdict is how it came out in a line; band is how it was meant to stand when cold.
func (t Details) Verdict(band string, w bake.Words) Verdict {
	var reported []message.Message
	if w.Juice != "" {
		reported = append(reported, message.Value(message.Word(w.Juice)))
	}
	if w.Fruit != "" {
		reported = append(reported, message.New("fruit {word}", message.Word(w.Fruit)))
	}
	if w.Top != "" {
		reported = append(reported, message.New("top {word}", message.Word(w.Top)))
	}
	if w.BoiledOver != nil {
		reported = append(
			reported,
			message.New(map[bool]string{true: "boiled over", false: "did not boil over"}[*w.BoiledOver]),
		)
	}
	so := message.Join(", ", reported...)
	all := t.Complaints(band, w)
	if len(all) == 0 {
		if len(reported) == 0 {
			return Verdict{State: NotLogged, Summary: message.New("Result not logged yet")}
		}
		return Verdict{State: Right, Summary: message.New("As planned: {so}", message.Part(so)), Reported: so}
	}
	text, next := make([]message.Message, len(all)), make([]message.Message, 0, mostNext)
	for i, c := range all {
		text[i] = c.Text
		if c.Of == "juice" {
			text[i] = message.New("{word}, {how}", message.Word(w.Juice), message.Part(c.Text))
		}
		if i < mostNext {
			next = append(next, c.Next)
		}
	}
	return Verdict{State: Wrong, Summary: message.Join(", ", text...), Reported: so, Next: message.Join("; ", next...)}
}

// mostNext is how many things are tried at once: more, and nobody knows which one it was.
const mostNext = 2
