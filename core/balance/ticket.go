package balance

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"mabbin/core/larder"
	"mabbin/core/measure"
)

// Bowl is one bowl of the ticket, in the order it is weighed.
type Bowl struct {
	Key   string `json:"key"` // fruit, dry, topping
	Title string `json:"title"`
	How   string `json:"how"`
	Lines []Line `json:"lines"`
}

// Line is one weighing.
type Line struct {
	Key       string       `json:"key"`
	Name      string       `json:"name"`
	G         float64      `json:"g"`
	Shown     string       `json:"shown"`  // grams to the scale's step
	Spoons    string       `json:"spoons"` // nearest real cups and spoons; empty where there is no density
	BakersPct float64      `json:"bakers_pct,omitempty"`
	Note      string       `json:"note,omitempty"`
	Basis     larder.Basis `json:"basis"` // of its density and composition
}

// Allergens is what the tables know. It is no promise about cross-contact.
type Allergens struct {
	Contains   []string `json:"contains"`
	CheckLabel []string `json:"check_label"` // names of ingredients whose label has to be read
}

// ticketG is the least that is written on the ticket: less than the pocket scale shows.
const ticketG = 0.05

// ticket is what to weigh, bowl by bowl, in the order of the work.
func (p *plan) ticket(s stand) []Bowl {
	by := measure.Conventions{Cup: p.req.Cup, Spoon: p.req.Spoon, Eggs: p.req.Eggs}
	fruit := Bowl{Key: "fruit", Title: "Fruit bowl", How: p.howFruit(), Lines: []Line{}}
	for i, piece := range p.filling.Pieces {
		f := piece.Fruit
		fruit.Lines = append(fruit.Lines, newLine(by, f.Key, f.Name, s.FruitG*piece.Share,
			f.Density(), p.prepNote(i), f.CompositionBasis))
	}
	for _, w := range slices.Concat(p.filling.Liquids, p.filling.Extras) {
		fruit.add(by, w.Ingredient, w.G, "")
	}
	sugarName, _ := p.req.Own.Ingredient("caster_sugar")
	dry := Bowl{Key: "dry", Title: "Dry, for the fruit", How: "Mix the thickener with the sugar first, so that it spreads without lumps. Toss with the fruit, lift from below, and scrape it all into the dish.", Lines: []Line{}}
	dry.add(by, sugarName, s.SugarG, "")
	for _, dose := range p.doses(s.thickenerG) {
		i, _ := p.req.Own.Ingredient(dose.Thickener.Key)
		dry.add(by, i, dose.G, dose.Thickener.How)
	}
	top := Bowl{Key: "topping", Title: p.wanted.Topping.Name, How: p.howTopping(), Lines: []Line{}}
	for _, part := range p.top.Parts {
		top.add(by, part.Ingredient, part.G, "")
		if n := len(top.Lines); n > 0 && top.Lines[n-1].Key == part.Ingredient.Key {
			top.Lines[n-1].BakersPct = part.BakersPct
		}
	}
	bowls := []Bowl{fruit, dry, top}
	if g := p.req.CrumbLayerG; g > 0 {
		crumbs, _ := p.req.Own.Ingredient("dry_breadcrumbs")
		layer := Bowl{Key: "crumbs", Title: "Crumb layer", How: "Under the fruit, evenly.", Lines: []Line{}}
		layer.add(by, crumbs, g, "")
		bowls = slices.Insert(bowls, 2, layer)
	}
	return slices.DeleteFunc(bowls, func(b Bowl) bool { return len(b.Lines) == 0 })
}

// add appends a line, but for what no scale shows.
func (b *Bowl) add(by measure.Conventions, i larder.Ingredient, g float64, note string) {
	if g < ticketG {
		return
	}
	if said := pieces(by, i, g); said != "" {
		note = strings.TrimPrefix(note+"; "+said, "; ")
	}
	b.Lines = append(b.Lines, newLine(by, i.Key, i.Name, g, i.Density(), note, i.Basis))
}

// pieces tells what is bought by the piece and weighed by the gram in pieces: eggs to crack, and what is left of them and
// for what; lemons to squeeze or to grate.
func pieces(by measure.Conventions, i larder.Ingredient, g float64) string {
	each, what := i.PieceG, ""
	switch i.Role {
	case "egg":
		what = "egg"
		if i.Key == "egg" {
			each = by.EggG("")
		}
	case "acid", "flavour":
		what, _, _ = strings.Cut(i.Key, "_")
		if what != "lemon" && what != "orange" {
			return ""
		}
	}
	if each <= 0 || what == "" {
		return ""
	}
	if what != "egg" {
		n := math.Ceil(2*g/each-0.1) / 2
		return "from " + counted(max(0.5, n), what)
	}
	n := math.Ceil(g/each - 0.02)
	left := n*each - g
	if left < 3 {
		return "crack " + counted(n, what)
	}
	return fmt.Sprintf("crack %s, %s are left: %s", counted(n, what), grams(left), eggUses[i.Key])
}

// eggUses is what is done with what is left of an egg.
var eggUses = map[string]string{
	"egg":       "whisk it, it is the wash",
	"egg_white": "for meringue, or whisk it for the wash; it freezes",
	"egg_yolk":  "for the wash, or for custard today",
}

func counted(n float64, what string) string {
	if n > 1 {
		what += "s"
	}
	return measure.Fraction(n) + " " + what
}

func newLine(by measure.Conventions, key, name string, g float64, d measure.Density, note string, basis larder.Basis) Line {
	l := Line{Key: key, Name: name, G: g, Shown: measure.Shown(g), Note: note, Basis: basis}
	if h, ok := by.Spoons(g, d); ok {
		l.Spoons = h.Text
	}
	return l
}

func (p *plan) howFruit() string {
	switch {
	case p.filling.Precook.Minutes > 0:
		return "Prepare, pre-cook, and let it cool before the topping goes on."
	case p.filling.Macerate.Minutes > 0:
		return "Prepare, then toss with the sugar and let it stand."
	}
	return "Prepare the fruit, try it in the empty dish, and weigh it: the bowl overrides this figure."
}

func (p *plan) howTopping() string {
	for _, part := range p.wanted.Topping.Parts {
		if i, _ := larder.Ingredients.Get(part.Key); i.Role == "fat" && strings.Contains(p.wanted.Topping.Name, "melted") {
			return "Melt the butter, fork it through the dry things, and leave the clumps."
		}
	}
	return "Rub the cold fat into the flour until no dry flour is left, then stir in the rest. Keep some lumps."
}

// prepNote is how one fruit is prepared.
func (p *plan) prepNote(i int) string {
	piece, asked := p.filling.Pieces[i], p.req.Fruits[i]
	cut := piece.Fruit.DefaultCutMM
	if piece.CutMM > 0 {
		cut = piece.CutMM
	}
	var says []string
	if asked.Frozen {
		says = append(says, "frozen")
	}
	if piece.Fruit.Peelable() {
		if asked.Peeled == nil || *asked.Peeled {
			says = append(says, "peeled")
		} else {
			says = append(says, "unpeeled")
		}
	}
	if piece.Fruit.Counted() {
		says = append(says, "cut to "+measure.Shown(cut)+" mm")
	}
	return strings.Join(says, ", ")
}

// allergens gathers what the ticket's ingredients are known to contain.
func allergens(ticket []Bowl, own *larder.Own) Allergens {
	a := Allergens{Contains: []string{}, CheckLabel: []string{}}
	for _, b := range ticket {
		for _, l := range b.Lines {
			i, ok := own.Ingredient(l.Key)
			if !ok {
				continue
			}
			if i.AllergenOnPack {
				a.CheckLabel = append(a.CheckLabel, i.Name)
				continue
			}
			a.Contains = append(a.Contains, i.Allergens...)
		}
	}
	slices.Sort(a.Contains)
	a.Contains = slices.Compact(a.Contains)
	slices.Sort(a.CheckLabel)
	a.CheckLabel = slices.Compact(a.CheckLabel)
	return a
}
