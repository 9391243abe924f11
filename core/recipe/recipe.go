// Package recipe reads a recipe as a baker wrote it: which bowl each line belongs to and which amounts are implausible.
// It judges the dessert as written and finds the smallest change that fixes it.
package recipe

import (
	"fmt"
	"regexp"
	"strings"

	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/parse"
	"mabbin/core/plausibility"
	"mabbin/core/reader"
	"mabbin/core/units"
)

// Bowl is where a line goes.
type Bowl string

// The bowls, in the order of the work.
const (
	Filling Bowl = "filling"
	Topping Bowl = "topping"
	Base    Bowl = "base"
	// BaseAndTopping is one dough for both: most of it is pressed below.
	BaseAndTopping Bowl = "base_and_topping"
	Finish         Bowl = "finish" // wash, glaze, sprinkle: weighed later, or not at all
	Pour           Bowl = "pour"   // over the fruit in the dish: of the filling
	Greasing       Bowl = "dish"   // greases the dish
	Serve          Bowl = "serve"  // served with it
)

// LineRequest is one line, with what the baker has answered about it.
type LineRequest struct {
	Text string   `json:"text"`
	Bowl Bowl     `json:"bowl,omitempty"` // left out: by headings and by what it is
	Key  string   `json:"key,omitempty"`  // what it is, where that was asked
	G    *float64 `json:"g,omitempty"`    // what it weighs, where that was asked
	Sure bool     `json:"sure,omitempty"` // as written is meant
	Out  bool     `json:"out,omitempty"`  // leave the line out
	// Guessed is whether only its place in the list tells the bowl: the baker is to look.
	Guessed bool `json:"guessed,omitempty"`
	// At is the line of the reading that it is from; -1: only the method has it.
	At int `json:"at"`
	// Kind is what the line is, where it is no ingredient.
	Kind       reader.LineKind `json:"kind,omitempty"`
	Unweighed  bool            `json:"unweighed,omitempty"`   // no amount is stated, and none is needed
	LikelyG    float64         `json:"likely_g,omitempty"`    // what it likely weighs, to be asked; 0: nothing to ask
	FromMethod bool            `json:"from_method,omitempty"` // the amount stands in the method
	Prepared   *Prepared       `json:"prepared,omitempty"`    // how it goes in; left out: not stated
}

// Prepared is how an ingredient goes in.
type Prepared struct {
	Peeled  *bool   `json:"peeled,omitempty"` // left out: not stated
	CutMM   float64 `json:"cut_mm,omitempty"`
	Fat     string  `json:"fat,omitempty"` // melted, cold or soft
	Thawed  bool    `json:"thawed,omitempty"`
	Drained bool    `json:"drained,omitempty"`
	Cooked  bool    `json:"cooked,omitempty"`
	Late    bool    `json:"late,omitempty"` // a topping that goes on during the bake
}

// Row is one line as it was understood.
type Row struct {
	parse.Line
	Bowl Bowl `json:"bowl"` // empty for a heading
	Out  bool `json:"out,omitempty"`
	// Reason says why it is left out, where the reading decided so.
	Reason   message.Message `json:"reason,omitzero"`
	Prepared *Prepared       `json:"prepared,omitempty"`
}

// MaxLines is the most lines a recipe is read from.
const MaxLines = 500

// Read understands the lines of a recipe of a style, which may be left out: it tells what a dough is for.
func Read(
	p *parse.Vocabulary, asked []LineRequest, style string, by units.Conventions, own *larder.Own,
) ([]Row, error) {
	var f fault.Faults
	if !f.Length("", "/lines", len(asked), 0, MaxLines) {
		return nil, f
	}
	rows := make([]Row, len(asked))
	for i, a := range asked {
		at := fmt.Sprintf("/lines/%d", i)
		if a.Kind != "" && a.Kind != reader.IngredientLine {
			rows[i] = aside(a)
			continue
		}
		rows[i] = Row{Line: p.ReadLine(a.Text, by), Bowl: a.Bowl, Out: a.Out, Prepared: a.Prepared}
		f.OneOfAt(at, "/bowl", string(a.Bowl), "", string(Filling), string(Topping), string(Base), string(BaseAndTopping),
			string(Finish), string(Pour), string(Greasing), string(Serve))
		if a.Key != "" {
			answerThing(p, &rows[i].Line, a.Key, by, at, &f)
		}
		if a.G != nil && f.RangeAt(at, "/g", *a.G, 0, 50000, "g") {
			rows[i].G, rows[i].As, rows[i].LowG, rows[i].HighG = a.G, message.New("as you chose"), 0, 0
			if a.FromMethod {
				rows[i].As = message.New("from the method")
			} else if a.At != 0 || a.Prepared != nil {
				rows[i].As = message.Message{}
			}
			rows[i].Questions = without(
				rows[i].Questions,
				parse.AskAmount,
				parse.AskContainer,
				parse.AskDensity,
				parse.AskPiece,
				parse.AskUnit,
				parse.AskDisagree,
			)
		}
		if a.Unweighed {
			rows[i].G, rows[i].As, rows[i].Questions = nil, message.New("no amount stated"), []parse.Question{}
		}
		if a.LikelyG > 0 && a.G == nil && !a.Sure {
			rows[i].askWeight(a.LikelyG)
		}
		if a.Sure {
			rows[i].Questions = without(rows[i].Questions, parse.AskDisagree)
		}
		if a.Out {
			rows[i].Questions = []parse.Question{}
			switch a.Bowl {
			case Serve:
				rows[i].Reason = message.New("served with it")
			case Greasing:
				rows[i].Reason = message.New("greases the dish")
			}
		}
	}
	if err := f.Err(); err != nil {
		return nil, err
	}
	sortIntoBowls(rows, own)
	findBase(rows, asked, style, own)
	askAboutSlips(rows, asked, own)
	return rows, nil
}

// askWeight asks what a line weighs, with the likely answer.
func (r *Row) askWeight(likelyG float64) {
	r.G, r.As = nil, message.Message{}
	r.Questions = append(without(r.Questions, parse.AskAmount, parse.AskContainer), parse.Question{
		Code: parse.AskAmount, SuggestG: &likelyG,
		Text: message.New("What does it weigh, drained? The tins do not say; likely {much}.", message.Grams(likelyG)),
	})
}

// aside is a line that is no ingredient: a heading, or what is left out with its reason.
func aside(a LineRequest) Row {
	r := Row{Line: parse.Line{Text: a.Text, Name: a.Text, Questions: []parse.Question{}}, Out: a.Out}
	switch a.Kind {
	case reader.HeadingLine:
		r.Heading = a.Text
	case reader.ServeLine:
		r.Bowl, r.Reason = Serve, message.New("served with it")
	case reader.EquipmentLine:
		r.Reason = message.New("equipment")
	default:
		r.Reason = message.New("not an ingredient")
	}
	return r
}

// ReadText understands pasted text, line by line.
func ReadText(p *parse.Vocabulary, text string, by units.Conventions, own *larder.Own) ([]Row, error) {
	var asked []LineRequest
	for l := range strings.Lines(text) {
		if l = strings.TrimSpace(l); l != "" {
			asked = append(asked, LineRequest{Text: l})
		}
		if len(asked) > MaxLines {
			var f fault.Faults
			f.Add("/text", message.New("has more than {most} lines: enter at most {most}", message.Count(MaxLines)))
			return nil, f
		}
	}
	return Read(p, asked, "", by, own)
}

// answerThing takes the baker's word for what a line is of, and reads its amount again.
func answerThing(p *parse.Vocabulary, l *parse.Line, key string, by units.Conventions, at string, f *fault.Faults) {
	t, ok := p.Get(key)
	if !ok {
		f.Add(at+"/key", fault.NoSuch(message.New("fruit or ingredient"), key))
		return
	}
	*l = p.ReadAs(l.Text, t, by)
}

func without(qs []parse.Question, codes ...string) []parse.Question {
	kept := []parse.Question{}
	for _, q := range qs {
		drop := false
		for _, c := range codes {
			drop = drop || q.Code == c
		}
		if !drop {
			kept = append(kept, q)
		}
	}
	return kept
}

// both is a heading for one dough that is base and topping.
var both = regexp.MustCompile(
	`(base|crust|bottom|shell|pastry)\b.*(\band\b|&|\+|/).*(topping|crumble|crumb|streusel|lid)` +
		`|(topping|crumble|crumb|streusel|lid)\b.*(\band\b|&|\+|/).*(base|crust|bottom|shell|pastry)`)

// headings tell the bowl by a word in them.
var headings = []struct {
	word string
	bowl Bowl
}{
	{"serve", Finish},
	{"finish", Finish},
	{"glaze", Finish},
	{"wash", Finish},
	{"dust", Finish},
	{"sauce", Finish},
	{"topping", Topping},
	{"crumble", Topping},
	{"crisp", Topping},
	{"streusel", Topping},
	{"biscuit", Topping},
	{"cobbler", Topping},
	{"lid", Topping},
	{"crumb", Topping},
	{"base", Base},
	{"crust", Base},
	{"pastry", Base},
	{"shell", Base},
	{"bottom", Base},
	{"filling", Filling},
	{"fruit", Filling},
	{"dough", Topping},
}

// bowlOf is the bowl that a heading names: its last word counts, for it is an apple crumble filling and a fruit crumble
// topping. What follows a comma says more about the same bowl.
func bowlOf(heading string) Bowl {
	heading, _, _ = strings.Cut(heading, ",")
	if both.MatchString(heading) {
		return BaseAndTopping
	}
	var bowl Bowl
	last := -1
	for _, h := range headings {
		if i := strings.LastIndex(heading, h.word); i > last {
			last, bowl = i, h.bowl
		}
	}
	return bowl
}

// What is surely of the topping and no thickener, flavour or knob of butter among the fruit, in g.
const (
	doughFlourG = 40.0
	doughFatG   = 50.0
)

// sortIntoBowls gives every row its bowl: by the heading above it, else by what it is and what stands around it.
// Fruit and thickeners are of the filling, flour, oats and nuts of the topping; sugar and spice go with what was
// named last.
func sortIntoBowls(rows []Row, own *larder.Own) {
	var heading, near Bowl
	for _, r := range rows {
		if near = signal(r, own); near != "" {
			break
		}
	}
	for i := range rows {
		r := &rows[i]
		if r.Heading != "" {
			heading = bowlOf(r.Heading)
			continue
		}
		if s := signal(*r, own); s != "" {
			near = s
		}
		switch {
		case r.Bowl != "":
		case heading != "":
			r.Bowl = heading
		case r.Ingredient != nil && role(*r.Ingredient, own) == "thickener":
			r.Bowl = Filling
		case near == "":
			r.Bowl = Filling
		default:
			r.Bowl = near
		}
	}
}

// findBase finds the base of a style that has one in a recipe without headings: the first of two doughs, with the fruit
// between them; one dough alone is a bar's base and topping, or, with hardly any sugar, a pie's shell.
func findBase(rows []Row, asked []LineRequest, style string, own *larder.Own) {
	of := larder.StyleOf(style)
	var doughs [][]int // rows of each
	inside := false
	for i, r := range rows {
		switch {
		case r.Heading != "" || r.Bowl == Base || r.Bowl == BaseAndTopping:
			return // it was reported
		case r.Out || r.Ingredient == nil:
		case r.Bowl == Topping && asked[i].Bowl == "":
			if !inside {
				doughs = append(doughs, nil)
			}
			doughs[len(doughs)-1] = append(doughs[len(doughs)-1], i)
			inside = true
		default:
			inside = false
		}
	}
	if of.Base == "" || len(doughs) == 0 {
		return
	}
	to := Base
	if len(doughs) == 1 {
		switch {
		case of.OneDough:
			to = BaseAndTopping
		case sugarShare(rows, doughs[0], own) > shellSugar:
			return // a crumble without a base
		}
	}
	for _, i := range doughs[0] {
		rows[i].Bowl = to
	}
}

// shellSugar is the most sugar in a dough that is rolled for a shell, as a share of it.
const shellSugar = 0.15

func sugarShare(rows []Row, of []int, own *larder.Own) float64 {
	sugar, all := 0.0, 0.0
	for _, i := range of {
		if r := rows[i]; r.G != nil {
			all += *r.G
			if role(*r.Ingredient, own) == "sugar" {
				sugar += *r.G
			}
		}
	}
	if all == 0 {
		return 0
	}
	return sugar / all
}

// signal is the bowl that a row surely belongs to, empty where it could be either.
func signal(r Row, own *larder.Own) Bowl {
	if r.Ingredient == nil {
		return ""
	}
	g := 0.0
	if r.G != nil {
		g = *r.G
	}
	switch role(*r.Ingredient, own) {
	case larder.FruitRole:
		return Filling
	case "oat", "nut", "crumb", "leavener", "pastry":
		return Topping
	case "flour":
		if g >= doughFlourG {
			return Topping
		}
	case "fat":
		if g >= doughFatG {
			return Topping
		}
	}
	return ""
}

func role(key string, own *larder.Own) string {
	if i, ok := own.Ingredient(key); ok {
		return i.Role
	}
	return larder.FruitRole
}

// askAboutSlips asks about amounts far outside what is usual in their bowl, unless the baker was sure.
func askAboutSlips(rows []Row, asked []LineRequest, own *larder.Own) {
	for _, b := range []Bowl{Filling, Topping, Base, BaseAndTopping} {
		var things []plausibility.Thing
		var at []int
		for i, r := range rows {
			if r.Bowl == b && r.Ingredient != nil && r.G != nil && !r.Out {
				things = append(things, plausibility.Thing{Key: *r.Ingredient, G: *r.G, Unit: r.Unit})
				at = append(at, i)
				for _, a := range r.Also {
					things = append(things, plausibility.Thing{Key: a.Ingredient, G: a.G})
					at = append(at, i)
				}
			}
		}
		part := plausibility.Dough
		if b == Filling {
			part = plausibility.Filling
		}
		for _, s := range plausibility.Find(part, things, own) {
			i := at[s.Index]
			if asked[i].Sure {
				continue
			}
			q := parse.Question{Code: parse.AskSlip, Text: message.Sentences(s.Text, s.Usual)}
			if s.SuggestG > 0 {
				q.SuggestG = &s.SuggestG
				q.Text = message.Sentences(q.Text, message.New("Perhaps {much}.", message.Grams(s.SuggestG)))
			}
			rows[i].Questions = append(rows[i].Questions, q)
		}
	}
}

// Open counts the questions that are not answered yet.
func Open(rows []Row) int {
	n := 0
	for _, r := range rows {
		n += len(r.Questions)
	}
	return n
}
