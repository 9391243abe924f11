// Package reader reads a whole recipe as somebody wrote or pasted it: title, servings, dish, the lines of its
// ingredients with their bowls, and every step of its method in order. It judges nothing and guesses nothing silently:
// what the text leaves open is in Reading.Ask.
package reader

import (
	"encoding/json"
	"strings"

	"mabbin/core/fault"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/parse"
	"mabbin/core/units"
)

// Reading is a recipe as it was understood. Its fields and words are those of the format recipe-format.md describes.
type Reading struct {
	Title      string     `json:"title,omitempty"` // empty: the text has none
	Serves     []float64  `json:"serves"`          // least and most; null: not stated
	ServesUnit ServesUnit `json:"serves_unit,omitempty"`
	ServesEach []float64  `json:"serves_each,omitempty"` // of one dish, where there are several
	Makes      int        `json:"makes"`                 // dishes
	Style      string     `json:"style"`
	Savoury    bool       `json:"savoury"`
	Dish       *Dish      `json:"dish"` // null: the text names none
	Lines      []Line     `json:"lines"`
	// MethodItems are what only the method names, such as the water of a slurry.
	MethodItems []Item `json:"method_items,omitempty"`
	// Split holds the shares of one dough for base and topping; empty without one.
	Split map[string]float64 `json:"split,omitempty"`
	Steps []Step             `json:"steps"`
	Ask   []string           `json:"ask"` // what must be answered before the dessert can be judged
	// Method holds the sentences of the method in order, as written.
	Method []Sentence `json:"method"`
	Notes  []string   `json:"notes"`           // what stands after the method and is not used
	Yield  string     `json:"yield,omitempty"` // what is said about servings
	// Measures are the cup and spoon that it was read with: the text's own where it tells.
	Measures units.Conventions `json:"-"`
	// Cup is whose cup the text measures with, and CupWhy how that is known; empty where nothing tells.
	Cup    units.Cup       `json:"-"`
	CupWhy message.Message `json:"-"`
}

// Sentence is one sentence of the method, with what was taken from it.
type Sentence struct {
	Text      string `json:"text"`
	Paragraph int    `json:"paragraph"`
	Steps     []int  `json:"steps,omitempty"`   // indexes of the steps that it gives
	Bowl      Bowl   `json:"bowl,omitempty"`    // the mixture that it works on; empty: none, or several
	Skipped   bool   `json:"skipped,omitempty"` // about another way to make it
}

// ServesUnit is what servings are counted in.
type ServesUnit string

// What servings are counted in.
const (
	Portions ServesUnit = "portions"
	Pieces   ServesUnit = "pieces"
)

// Shape is a dish's outline as texts describe it.
type Shape string

// The shapes. A square is a rectangle of equal sides.
const (
	RoundDish     Shape = "round"
	RectangleDish Shape = "rectangle"
	OvalDish      Shape = "oval"
)

// Place is where in the text an amount stands, if not in the list.
type Place string

// InMethod is an amount that only the method states.
const InMethod Place = "method"

// SauceUse is what becomes of a sauce.
type SauceUse string

// What becomes of a sauce.
const (
	PourSauce   SauceUse = "pour"
	FoldSauce   SauceUse = "fold"
	SpreadSauce SauceUse = "spread"
)

// RestTo is what a dessert rests until.
type RestTo string

// What a dessert rests until.
const (
	UntilWarm RestTo = "warm"
	UntilCold RestTo = "cold"
	UntilSet  RestTo = "set"
)

// Dish is the dish as far as the text describes it. Lengths in cm; zero: not stated.
type Dish struct {
	Shape    Shape   `json:"shape,omitempty"`
	LengthCM float64 `json:"length_cm,omitempty"`
	WidthCM  float64 `json:"width_cm,omitempty"`
	// DiameterCM is that of a round dish.
	DiameterCM float64 `json:"diameter_cm,omitempty"`
	DepthCM    float64 `json:"depth_cm,omitempty"`
	VolumeML   float64 `json:"volume_ml,omitempty"` // of one, where Count is above 1
	Material   string  `json:"material,omitempty"`  // key of the dish materials
	Count      int     `json:"count,omitempty"`     // of ramekins
}

// LineKind is what a line of the ingredients is.
type LineKind string

// The kinds of lines.
const (
	IngredientLine LineKind = "ingredient"
	HeadingLine    LineKind = "heading"
	NoteLine       LineKind = "note"
	ServeLine      LineKind = "serve"
	EquipmentLine  LineKind = "equipment"
	StepLine       LineKind = "step"
)

// Line is one line of the ingredients, as written. Without a list of ingredients it is a sentence that holds amounts.
type Line struct {
	Text  string   `json:"text"`
	Kind  LineKind `json:"kind"`
	Items []Item   `json:"items,omitempty"`
}

// Bowl is where an item goes.
type Bowl string

// The bowls of a reading.
const (
	Filling        Bowl = "filling"
	Topping        Bowl = "topping"
	Base           Bowl = "base"
	BaseAndTopping Bowl = "base_and_topping" // one dough for both
	Finish         Bowl = "finish"           // wash, sprinkle, dusting
	Pour           Bowl = "pour"             // poured over the fruit in the dish
	Greasing       Bowl = "dish"
	Serve          Bowl = "serve"
)

// AskCode is what has to be asked about an item.
type AskCode string

// The questions about an item.
const (
	AskKind    AskCode = "kind"    // of a fruit that is named by its sort
	AskAmount  AskCode = "amount"  // how much is not stated and matters
	AskUnknown AskCode = "unknown" // the tables do not have it
)

// Item is one thing that goes into the dessert.
type Item struct {
	Key      string   `json:"key,omitempty"` // of the tables; empty: unknown
	Name     string   `json:"name"`          // as written
	G        *float64 `json:"g"`             // null: not stated
	Bowl     Bowl     `json:"bowl"`
	Ask      AskCode  `json:"ask,omitempty"`
	States   []State  `json:"states,omitempty"`
	Alt      []string `json:"alt,omitempty"`       // keys, or names the tables lack, that the text offers instead
	AsBought bool     `json:"as_bought,omitempty"` // weighed before it is prepared
	Optional bool     `json:"optional,omitempty"`
	Late     bool     `json:"late,omitempty"`    // a topping that goes on during the bake
	SaidIn   Place    `json:"said_in,omitempty"` // "method": the amount stands there alone
	// Line is what parse understood of it, with its question; zero for what only the method names.
	Line parse.Line `json:"-"`
	// Part is whether the item before it on the line is read from the same words: "juice and zest of 1 lemon".
	Part bool `json:"-"`
	// Surely is whether the text, not its order alone, tells the bowl.
	Surely  bool `json:"-"`
	certain bool // what it is tells the bowl
	// citrus is the fruit of a line that does not say whether its juice or its zest is meant; empty for any other.
	citrus string
	// Keys are the likely things where the kind is asked.
	Keys []string `json:"keys,omitempty"`
}

// Guessed is whether only the place of an item in the list tells its bowl.
func (x Item) Guessed() bool { return !x.Surely && !x.certain && x.Key != "" }

// MarshalJSON writes null for a key and a question that there is none of, and a list for no states.
func (x Item) MarshalJSON() ([]byte, error) {
	type bare Item
	out := struct {
		bare
		Key    *string  `json:"key"`
		Ask    *AskCode `json:"ask"`
		States []State  `json:"states"`
	}{bare: bare(x), States: x.States}
	if x.Key != "" {
		out.Key = &x.Key
	}
	if x.Ask != "" {
		out.Ask = &x.Ask
	}
	if out.States == nil {
		out.States = []State{}
	}
	return json.Marshal(out)
}

// State is how an item goes in: a word, or the size it is cut to.
type State struct {
	Word  string
	CutMM float64
}

// UnmarshalJSON reads what MarshalJSON writes.
func (s *State) UnmarshalJSON(b []byte) error {
	if len(b) > 0 && b[0] == '"' {
		return json.Unmarshal(b, &s.Word)
	}
	var cut struct {
		CutMM float64 `json:"cut_mm"`
	}
	err := json.Unmarshal(b, &cut)
	s.CutMM = cut.CutMM
	return err
}

// MarshalJSON writes the word, or {"cut_mm": n}.
func (s State) MarshalJSON() ([]byte, error) {
	if s.CutMM > 0 {
		return json.Marshal(map[string]float64{"cut_mm": s.CutMM})
	}
	return json.Marshal(s.Word)
}

// StepKind is what a step does to the dessert.
type StepKind string

// The kinds of steps.
const (
	CookFruit StepKind = "cook_fruit"
	Macerate  StepKind = "macerate"
	CookSauce StepKind = "cook_sauce"
	ParBake   StepKind = "par_bake"
	Chill     StepKind = "chill"
	Bake      StepKind = "bake"
	AddLate   StepKind = "add_late"
	PushUnder StepKind = "push_under"
	Turn      StepKind = "turn"
	Baste     StepKind = "baste"
	Wash      StepKind = "wash"
	Rest      StepKind = "rest"
	Freeze    StepKind = "freeze"
	Cut       StepKind = "cut"
)

// Heat is an oven's temperature as the text gives it, in C of the oven's dial; nil: not stated.
type Heat struct {
	C    *float64 `json:"c,omitempty"`
	Fan  bool     `json:"fan"` // only a fan oven's temperature is stated
	FanC *float64 `json:"fan_c,omitempty"`
	Gas  float64  `json:"gas,omitempty"`
	F    float64  `json:"f,omitempty"`
}

// Step is one step that changes the dessert or its clock. Which fields are set depends on its kind.
type Step struct {
	Kind StepKind `json:"kind"`
	Of   Things   `json:"of,omitzero"`
	Heat
	Minutes     []float64          `json:"minutes,omitempty"` // least and most
	Cover       string             `json:"cover,omitempty"`   // none, foil, parchment, lid
	Shelf       string             `json:"shelf,omitempty"`   // low, middle, high
	Sign        []string           `json:"sign,omitempty"`
	Coals       map[string]float64 `json:"coals,omitempty"` // under the pot and on its lid
	Where       string             `json:"where,omitempty"` // hob, oven, microwave
	Covered     bool               `json:"covered"`
	With        []string           `json:"with,omitempty"`
	Cool        bool               `json:"cool"`
	CoolMinutes []float64          `json:"cool_minutes,omitempty"`
	Juice       string             `json:"juice,omitempty"` // keep, leave, reduce, thicken
	ReduceTo    float64            `json:"reduce_to,omitempty"`
	Then        SauceUse           `json:"then,omitempty"` // of a sauce: pour, fold, spread
	Weights     bool               `json:"weights"`
	Freezer     bool               `json:"freezer"`
	At          string             `json:"at,omitempty"`
	To          RestTo             `json:"to,omitempty"` // warm, cold, set
	AtLeast     bool               `json:"at_least,omitempty"`
	EveryMin    float64            `json:"every_min,omitempty"`
	Dishes      int                `json:"dishes,omitempty"`
	Pieces      int                `json:"pieces,omitempty"`
	// Sentence is where the method says it, as written.
	Sentence string `json:"sentence,omitempty"`
}

// Things are what a step is of: one word such as "base" and "all", or keys.
type Things struct {
	Word string
	Keys []string
}

// IsZero is whether it names nothing.
func (t Things) IsZero() bool { return t.Word == "" && len(t.Keys) == 0 }

// UnmarshalJSON reads what MarshalJSON writes.
func (t *Things) UnmarshalJSON(b []byte) error {
	if len(b) > 0 && b[0] == '"' {
		return json.Unmarshal(b, &t.Word)
	}
	return json.Unmarshal(b, &t.Keys)
}

// MarshalJSON writes the word, or the list of keys.
func (t Things) MarshalJSON() ([]byte, error) {
	if t.Word != "" {
		return json.Marshal(t.Word)
	}
	return json.Marshal(t.Keys)
}

// Source is a recipe whose parts are known, as recipe data holds them. Of plain text only Text is set.
type Source struct {
	Title, Yield string
	Ingredients  []string
	Method       []string
	Text         string
}

// The most that is read: letters of a text and lines of its ingredients.
const (
	MaxText  = 200_000
	MaxLines = 500
)

// Read reads a recipe. by are the kitchen's cup, spoon and eggs; what the text says about its own goes first. The error
// is a fault.Faults of the whole text: a text that is too long, or one in which nothing is an ingredient.
func Read(s Source, p *parse.Vocabulary, by units.Conventions) (*Reading, error) {
	var f fault.Faults
	if n := len(s.Text); n > MaxText {
		f.Add("", message.New("is {n} letters long: at most {most} are read", message.Count(n), message.Count(MaxText)))
		return nil, f
	}
	doc := segment(s, p)
	if n := len(doc.lines); n > MaxLines {
		f.Add("", message.New("has {n} lines of ingredients: at most {most} are read",
			message.Count(n), message.Count(MaxLines)))
		return nil, f
	}
	r := &recipe{doc: doc, p: p, by: conventions(doc, by)}
	r.readLines()
	r.readMethod()
	out := r.finish()
	if len(out.Lines) == 0 {
		f.Add("", message.New("contains no ingredients: paste them, one per line"))
		return nil, f
	}
	return out, nil
}

// recipe is a recipe while it is read.
type recipe struct {
	doc      document
	p        *parse.Vocabulary
	by       units.Conventions
	lines    []Line
	items    []*Item // of lines, in order
	headings map[*Item]string
	method   []sentence
	steps    []Step
	extra    []Item
	style    string
	traits   larder.Style // of the style
	metric   bool
	hasBase  bool
	added    []addition
	lists    []string // sentences of running text that list the ingredients
}

// lower is text in lower case with one kind of blank, dash, quote and fraction slash.
func lower(s string) string { return strings.ToLower(plain(s)) }

var plainer = strings.NewReplacer("\u00a0", " ", "\u2009", " ", "\u202f", " ", "\u2044", "/", "\u2215", "/", "–", "-",
	"—", "-", "−", "-", "×", "x", "’", "'", "‘", "'", "“", `"`, "”", `"`, "º", "°", "\r", "")

func plain(s string) string { return plainer.Replace(s) }
