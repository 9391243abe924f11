package recipe

import (
	"math"
	"slices"
	"strings"

	"mabbin/core/balance"
	"mabbin/core/dish"
	"mabbin/core/larder"
	"mabbin/core/message"
	"mabbin/core/parse"
	"mabbin/core/reader"
	"mabbin/core/units"
)

// Format is one of the open forms that a recipe is read and written in.
type Format string

// The forms.
const (
	FormatText   Format = "text"
	FormatCSV    Format = "csv"
	FormatJSONLD Format = "jsonld"
	FormatHTML   Format = "html"
)

// Document is a recipe that came in: as it was read, as it is to be judged, and Mabbin's own card where it wrote the
// file.
type Document struct {
	Format Format `json:"format"`
	Name   string `json:"name"`
	Yield  string `json:"yield,omitempty"`
	// Reading is nil for a card of Mabbin's own: there is nothing to ask.
	Reading *reader.Reading `json:"reading,omitempty"`
	// Lines and Steps are the reading as a Request takes it: the lines in its order, a line that asks for several things
	// in as many.
	Lines   []LineRequest `json:"lines"`
	Steps   []reader.Step `json:"steps"`
	Style   string        `json:"style,omitempty"`
	Savoury bool          `json:"savoury,omitempty"`
	// Dishes is how many the amounts are for; Dish is one of them.
	Dishes int `json:"dishes"`
	// Dish is the one that it names; nil: none, and it is asked for.
	Dish      *dish.Dish      `json:"dish,omitempty"`
	DishSizes message.Message `json:"dish_sizes,omitzero"` // of it, in words
	// DishNote says how it was found, where only its volume is stated.
	DishNote message.Message `json:"dish_note,omitzero"`
	// Cup is whose cup it measures with, where something tells, and CupWhy what.
	Cup    units.Cup       `json:"cup,omitempty"`
	CupWhy message.Message `json:"cup_why,omitzero"`
	// Spoon is that of the text or of the kitchen.
	Spoon units.Spoon        `json:"spoon,omitempty"`
	Split map[string]float64 `json:"split,omitempty"`
	Card  *Card              `json:"card,omitempty"`
}

// Shelf is a dish that a kitchen has.
type Shelf struct {
	Name string
	Dish dish.Dish
}

// NewDocument prepares a reading for being judged. A dish of which only the volume is stated is the one of the shelf
// that holds about as much, or else a usual one of that volume.
func NewDocument(r *reader.Reading, p *parse.Vocabulary, shelf []Shelf) *Document {
	by := r.Measures
	d := &Document{
		Name: r.Title, Yield: r.Yield, Reading: r, Steps: r.Steps, Style: r.Style, Savoury: r.Savoury,
		Lines: []LineRequest{}, Split: r.Split, Cup: r.Cup, CupWhy: r.CupWhy, Spoon: r.Measures.Spoon,
	}
	for i, l := range r.Lines {
		d.Lines = append(d.Lines, requestsOf(l, i, p, by)...)
	}
	for _, x := range r.MethodItems {
		d.Lines = append(d.Lines, requestOf(x, x.Name, -1, p, by))
	}
	d.Dishes = max(1, r.Makes)
	if r.Dish != nil {
		d.Dishes = max(d.Dishes, r.Dish.Count)
	}
	d.takeDish(r, shelf)
	if d.Name == "" {
		d.Name = nameFor(r, p)
	}
	return d
}

// nameFor is what a recipe without a title is called: by its fruit and its style.
func nameFor(r *reader.Reading, p *parse.Vocabulary) string {
	best, most := "", 0.0
	for _, l := range r.Lines {
		for _, x := range l.Items {
			if t, ok := p.Get(x.Key); ok && t.Fruit && x.G != nil && *x.G > most {
				best, most = larder.Short(t.Name), *x.G
			}
		}
	}
	if best == "" || r.Style == "" {
		return ""
	}
	return strings.ToUpper(best[:1]) + best[1:] + " " + r.Style
}

// requestsOf are the lines that one line of a reading is asked and judged in.
func requestsOf(l reader.Line, at int, p *parse.Vocabulary, by units.Conventions) []LineRequest {
	switch l.Kind {
	case reader.IngredientLine:
	case reader.HeadingLine:
		return nil // the lines under it have their bowl from it
	default:
		return []LineRequest{{Text: l.Text, At: at, Kind: l.Kind, Out: true}}
	}
	var out []LineRequest
	for i, x := range l.Items {
		if x.Part && i > 0 && x.Bowl == l.Items[i-1].Bowl {
			continue // the line that it is read with asks for both
		}
		text := l.Text
		if len(l.Items) > 1 && !samePiece(l.Items) {
			text = x.Name
		}
		out = append(out, requestOf(x, text, at, p, by))
	}
	return out
}

// samePiece is whether all items of a line are read together: "80 g each of flour, oats and butter".
func samePiece(items []reader.Item) bool {
	for _, x := range items[1:] {
		if !x.Part || x.Bowl != items[0].Bowl {
			return false
		}
	}
	return true
}

// bowlsOfReading is where an item of a reading is weighed. What is poured over is of the filling.
var bowlsOfReading = map[reader.Bowl]Bowl{
	reader.Filling: Filling, reader.Pour: Pour, reader.Topping: Topping, reader.Base: Base,
	reader.BaseAndTopping: BaseAndTopping, reader.Finish: Finish, reader.Greasing: Greasing, reader.Serve: Serve,
}

// requestOf is one item as it is asked and judged. What reading its text alone gives is left to it, so that its
// questions stay.
func requestOf(x reader.Item, text string, at int, p *parse.Vocabulary, by units.Conventions) LineRequest {
	a := LineRequest{
		Text:       text,
		At:         at,
		Bowl:       bowlsOfReading[x.Bowl],
		Prepared:   preparedOf(x),
		FromMethod: x.SaidIn == reader.InMethod,
	}
	a.Guessed = x.Guessed()
	a.Out = x.Bowl == reader.Greasing || x.Bowl == reader.Serve
	l := p.ReadLine(text, by)
	alone := ""
	if l.Ingredient != nil {
		alone = *l.Ingredient
	}
	if x.Key != "" && x.Key != alone && x.Ask != reader.AskKind {
		a.Key = x.Key
		if t, ok := p.Get(x.Key); ok {
			l = p.ReadAs(text, t, by)
		}
	}
	switch {
	case x.G != nil && x.Ask == "" && len(x.Keys) == 0 && (l.G == nil || math.Abs(*l.G-*x.G) > 0.01**x.G):
		a.G = x.G
	case x.G == nil && x.Ask == "" && x.Key != "":
		a.Unweighed = true
	case x.G != nil && x.Ask == reader.AskAmount:
		a.LikelyG = math.Round(*x.G)
	}
	return a
}

func preparedOf(x reader.Item) *Prepared {
	p := Prepared{Late: x.Late}
	yes, no := true, false
	for _, s := range x.States {
		switch s.Word {
		case "peeled":
			p.Peeled = &yes
		case "unpeeled":
			p.Peeled = &no
		case "melted", "cold", "soft":
			p.Fat = s.Word
		case "thawed":
			p.Thawed = true
		case "drained":
			p.Drained = true
		case "cooked":
			p.Cooked = true
		}
		if s.CutMM > 0 {
			p.CutMM = s.CutMM
		}
	}
	if p == (Prepared{}) {
		return nil
	}
	return &p
}

// Sizes that a text leaves open, in cm. Working figures.
const (
	usualDepthCM = 5.0
	pieDepthCM   = 4.0
	ramekinCM    = 9.0
)

// nearVolume is how far a dish of the shelf may be from a stated volume, as a share of it.
const nearVolume = 0.15

// takeDish makes a dish of what the text describes.
func (d *Document) takeDish(r *reader.Reading, shelf []Shelf) {
	if r.Dish == nil {
		return
	}
	x := *r.Dish
	material := x.Material
	switch material {
	case "":
		material = "stoneware"
	case "camp":
		material = "cast_iron"
	}
	out := dish.Dish{DepthCM: x.DepthCM, Material: material}
	if out.DepthCM == 0 {
		out.DepthCM = usualDepthCM
		if r.Style == "pie" {
			out.DepthCM = pieDepthCM
		}
	}
	switch {
	case x.DiameterCM > 0:
		out.Shape, out.LengthCM = dish.Round, x.DiameterCM
	case x.LengthCM > 0 && x.Shape == reader.OvalDish:
		out.Shape, out.LengthCM, out.WidthCM = dish.Oval, x.LengthCM, x.WidthCM
	case x.LengthCM > 0 && x.LengthCM == x.WidthCM:
		out.Shape, out.LengthCM = dish.Square, x.LengthCM
	case x.LengthCM > 0:
		out.Shape, out.LengthCM, out.WidthCM = dish.Rectangle, x.LengthCM, x.WidthCM
	case x.VolumeML > 0:
		if i := nearestOf(shelf, x.VolumeML); i >= 0 {
			out = shelf[i].Dish
			d.DishNote = message.New("{name}, your dish of about that volume", message.Name(shelf[i].Name))
			break
		}
		out.Shape, out.LengthCM = dish.Round, ramekinCM
		if x.VolumeML > 500 {
			out.Shape = dish.Rectangle // three long to two wide
			out.WidthCM = math.Round(math.Sqrt(x.VolumeML/out.DepthCM/1.5)*2) / 2
			out.LengthCM = 1.5 * out.WidthCM
		} else {
			out.DepthCM = math.Round(10*x.VolumeML/(math.Pi*ramekinCM*ramekinCM/4)) / 10
		}
		d.DishNote = message.New("a usual dish of that volume: only the volume is stated")
	default:
		return
	}
	d.Dish, d.DishSizes = &out, out.Sizes()
}

func nearestOf(shelf []Shelf, ml float64) int {
	best, off := -1, nearVolume
	for i, s := range shelf {
		if o := math.Abs(s.Dish.Measure().VolumeML-ml) / ml; o < off {
			best, off = i, o
		}
	}
	return best
}

// Card is a card whole, as Mabbin writes and reads it without loss.
type Card struct {
	Name    string          `json:"name"`
	Request balance.Request `json:"request"`
	OvenC   float64         `json:"oven_c,omitempty"`
	Minutes float64         `json:"minutes,omitempty"`
	Note    string          `json:"note,omitempty"`
	// Original is nil for a card that did not come in from elsewhere.
	Original *Original `json:"original,omitempty"`
}

// Original is how a recipe that came in was made and how far it went, in its writer's own words.
type Original struct {
	Serves string   `json:"serves,omitempty"`
	Method []string `json:"method"`
}

// eggsOfCustard are the least eggs of a filling that make it a custard, in g: half an egg.
const eggsOfCustard = 25.0

// finishes are what may be brushed or strewn on, by what it is.
var finishes = map[string]string{
	"egg":            "egg_wash",
	"egg_yolk":       "egg_wash",
	"whole_milk":     "milk_wash",
	"heavy_cream":    "cream_wash",
	"double_cream":   "cream_wash",
	"demerara_sugar": "coarse_sugar",
	"white_sugar":    "coarse_sugar",
	"icing_sugar":    "icing_sugar",
	"cheddar":        "cheese",
	"oat_drink":      "oat_wash",
	"butter":         "melted_butter",
}

// takeFinish keeps what is brushed or strewn on, where the tables have it.
func (w *written) takeFinish(key string) {
	f, ok := finishes[key]
	if _, known := larder.Finishes.Get(f); ok && known && !slices.Contains(w.req.Finishes, f) {
		w.req.Finishes = append(w.req.Finishes, f)
	}
}
